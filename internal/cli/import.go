package cli

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"time"

	"github.com/spf13/cobra"

	"mnemos/core/intake"
	"mnemos/internal/app"
	"mnemos/internal/store"
)

func importCommand() *cobra.Command {
	var data, source, viewpoint string
	c := &cobra.Command{
		Use:     "import [flags] FILE",
		Short:   "Import a listing: CSV or any other delimited text, XLSX, GeoJSON, JSON, or lines in words",
		Example: "  mnemos import --data mnemos-data --source 'Harbour list' repeaters.csv",
		Args:    cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			return bring(cmd, data, source, viewpoint, args[0])
		},
	}
	c.Flags().StringVar(&data, "data", "mnemos-data", "the folder that holds the data")
	c.Flags().StringVar(&source, "source", "", "the name of the listing; the name of the file if it is not given")
	c.Flags().StringVar(&viewpoint, "viewpoint", "", `whose TX it is in the table: "operator" (what you send) or "repeater" (what it sends)`)
	return c
}

// bring reads a file as it is understood without help, and says how.
func bring(cmd *cobra.Command, data, source, viewpoint, path string) (err error) {
	ctx := cmd.Context()
	if _, err := os.Stat(filepath.Join(data, "mnemos.db")); err != nil {
		return usage{fmt.Errorf("%s holds no data yet: start mnemos serve --data %s once", data, data)}
	}
	s, err := store.Open(ctx, data)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, s.Close()) }()
	file, err := os.Open(path)
	if err != nil {
		return usage{err}
	}
	a := app.New(s, time.Now)
	p, err := a.Bring(ctx, filepath.Base(path), file)
	if err := errors.Join(err, file.Close()); err != nil {
		return err
	}
	if source == "" {
		source = p.Source
	}
	form := app.ImportForm{Source: source, Prose: p.Prose, Viewpoint: intake.Viewpoint(viewpoint)}
	out := cmd.OutOrStdout()
	for i, c := range p.Columns {
		form.Columns = append(form.Columns, intake.Column{Role: c.Role, Unit: c.Unit, Order: c.Order, Side: c.Side})
		if c.Role != intake.Ignore && !p.Prose {
			fmt.Fprintf(out, "column %d %q: %s %s%s\n", i+1, c.Heading, c.Role, c.Unit, c.Order)
		}
	}
	if v := p.View; v.Asked() && viewpoint == "" {
		return usage{fmt.Errorf("say whose TX it is: with --viewpoint %s, %q; or else %q", v.Viewpoint, v.Sentence, v.Other)}
	}
	if _, err := a.RunImport(ctx, p.ID, form); err != nil {
		return err
	}
	var last app.ImportState
	err = a.WatchImport(context.WithoutCancel(ctx), p.ID, func(s app.ImportState) error { last = s; return nil })
	if err != nil {
		return err
	}
	if last.State != app.ImportDone {
		return fmt.Errorf("%s: %s", last.State, last.Error)
	}
	fmt.Fprintf(out, "%s: %d rows taken, %d could not be read, %.1f s\n", source, last.Good, last.Bad, last.Seconds)
	return nil
}
