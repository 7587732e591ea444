package cli

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"time"

	"github.com/spf13/cobra"

	"mnemos/core/intake"
	"mnemos/internal/house"
	"mnemos/internal/importing"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

type importFlags struct {
	data, source, viewpoint string
	acceptLosses            bool
}

func importCommand() *cobra.Command {
	var f importFlags
	c := &cobra.Command{
		Use:   "import [flags] FILE",
		Short: "Import a listing: CSV or any other delimited text, XLSX, GeoJSON, JSON, or lines in words",
		Long: `Import a listing. A Mnemos that serves the data folder is handed the file; while another import has
the folder, this one waits. Ctrl-C cancels, and then nothing is changed.`,
		Example: "  mnemos import --data mnemos-data --source 'Harbour list' repeaters.csv",
		Args:    cobra.ExactArgs(1),
		RunE:    func(cmd *cobra.Command, args []string) error { return f.run(cmd, args[0]) },
	}
	c.Flags().StringVar(&f.data, "data", "mnemos-data", "the folder that holds the data")
	c.Flags().StringVar(&f.source, "source", "", "the name of the listing; the name of the file if it is not given")
	c.Flags().StringVar(&f.viewpoint, "viewpoint", "", `whose TX it is in the table: "operator" (what you send) or "repeater" (what it sends)`)
	c.Flags().BoolVar(&f.acceptLosses, "accept-losses", false, "import although the listing loses most of its records")
	return c
}

// importer is what takes a listing in: the application in this process, or the
// one that serves the folder.
type importer interface {
	Bring(ctx context.Context, name string, content io.Reader) (*importing.Preview, error)
	Run(ctx context.Context, id string, form importing.Form) (*importing.State, error)
	Watch(ctx context.Context, id string, f func(importing.State) error) error
	Drop(id string) error
}

// here takes a listing in in this process.
type here struct {
	*importing.Imports
	plans *plan.Plans
}

func (x here) Bring(ctx context.Context, name string, content io.Reader) (*importing.Preview, error) {
	rules, err := x.plans.Band(ctx, 0)
	if err != nil {
		return nil, err
	}
	return x.Imports.Bring(ctx, name, content, rules)
}

func (f *importFlags) run(cmd *cobra.Command, path string) (err error) {
	ctx := cmd.Context()
	if _, err := os.Stat(filepath.Join(f.data, "mnemos.db")); err != nil {
		return usage{fmt.Errorf("%s holds no data yet: start mnemos serve --data %s once", f.data, f.data)}
	}
	file, err := os.Open(path)
	if err != nil {
		return usage{err}
	}
	defer func() { err = errors.Join(err, file.Close()) }()
	s, busy, err := f.open(ctx, cmd.ErrOrStderr())
	if err != nil {
		return err
	}
	if busy != nil {
		fmt.Fprintf(cmd.ErrOrStderr(), "handing it to the Mnemos at http://%s/\n", busy.Owner.Address)
		return f.take(cmd, remote{address: busy.Owner.Address}, path, file)
	}
	defer func() { err = errors.Join(err, s.Close()) }()
	s.Alone()
	h := house.New(s, time.Now)
	return f.take(cmd, here{h.Imports, h.Plans}, path, file)
}

// open opens the folder, or returns who serves it. While another process has
// it that does not serve, it waits.
func (f *importFlags) open(ctx context.Context, out io.Writer) (*store.Store, *store.Busy, error) {
	for waited := 0; ; waited++ {
		s, err := store.Open(ctx, f.data)
		var busy *store.Busy
		if !errors.As(err, &busy) {
			return s, nil, err
		}
		if busy.Owner.Address != "" {
			return nil, busy, nil
		}
		if waited == 0 {
			fmt.Fprintln(out, busy.Error())
		}
		select {
		case <-ctx.Done():
			return nil, nil, errors.New("cancelled: nothing was changed")
		case <-time.After(200 * time.Millisecond):
		}
	}
}

// take reads a file as it is understood without help, and says how.
func (f *importFlags) take(cmd *cobra.Command, a importer, path string, file io.Reader) error {
	ctx, out := cmd.Context(), cmd.OutOrStdout()
	p, err := a.Bring(ctx, filepath.Base(path), file)
	if err != nil {
		return err
	}
	if f.source == "" {
		f.source = p.Source
	}
	form := importing.Form{
		Source: f.source, Prose: p.Prose, Columns: p.Mapping(), Viewpoint: intake.Viewpoint(f.viewpoint), Confirmed: f.viewpoint != "", AcceptLosses: f.acceptLosses,
	}
	for i, c := range p.Columns {
		if c.Role != intake.Ignore && !p.Prose {
			fmt.Fprintf(out, "column %d %q: %s %s%s\n", i+1, c.Heading, c.Role, c.Unit, c.Order)
		}
	}
	if v := p.View; v.Sentence != "" && f.viewpoint == "" {
		if v.Asked() {
			return usage{errors.Join(fmt.Errorf("say whose TX it is: --viewpoint %s (%s) or --viewpoint %s (%s)", v.Viewpoint, v.Sentence, v.Viewpoint.Other(), v.Other), a.Drop(p.ID))}
		}
		fmt.Fprintln(out, v.Sentence)
	}
	if _, err := a.Run(ctx, p.ID, form); err != nil {
		return errors.Join(err, a.Drop(p.ID))
	}
	stop := context.AfterFunc(ctx, func() { _ = a.Drop(p.ID) }) // over already if it cannot be cancelled
	defer stop()
	last, err := watch(context.WithoutCancel(ctx), a, p.ID, cmd.ErrOrStderr())
	if err != nil {
		return err
	}
	switch last.State {
	case importing.Done:
		fmt.Fprintf(out, "%s: %d rows imported, %d could not be read, %.1f s\n", f.source, last.Good, last.Bad, last.Seconds)
		return nil
	case importing.Cancelled:
		return errors.New("cancelled: nothing was changed")
	case importing.Doubted:
		return errors.Join(fmt.Errorf("%s: if that is meant, say --accept-losses", last.Error), a.Drop(p.ID))
	}
	return fmt.Errorf("%s: nothing was changed", last.Error)
}

// watch follows an import to its end, and says now and then how far it is.
func watch(ctx context.Context, a importer, id string, out io.Writer) (importing.State, error) {
	var last importing.State
	told := time.Now()
	err := a.Watch(ctx, id, func(s importing.State) error {
		last = s
		if s.State == importing.Reading && time.Since(told) > 2*time.Second {
			told = time.Now()
			left := ""
			if s.Left != nil {
				left = fmt.Sprintf(", about %.0f s left", *s.Left)
			}
			fmt.Fprintf(out, "%d rows read%s\n", s.Rows, left)
		}
		return nil
	})
	return last, err
}
