package cli

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"github.com/spf13/cobra"

	"mnemos/core/limit"
	"mnemos/internal/api"
	"mnemos/internal/exchange"
)

// planFlags are those of every command about plans.
type planFlags struct {
	data, radio, as string
	asJSON          bool
}

func planCommand() *cobra.Command {
	c := &cobra.Command{
		Use:   "plan",
		Short: "Look at plans, check them, add channels, and take them in and out as files",
		Long: `Look at plans, check them, add channels, and take them in and out as files. A Mnemos that serves the
data folder carries the command out, and who has it open sees it at once. PLAN and the radio are named or numbered as
mnemos plan list prints them.`,
		Args: func(_ *cobra.Command, args []string) error {
			if len(args) > 0 {
				return usage{fmt.Errorf("%q is not a command about plans: see mnemos plan --help", args[0])}
			}
			return nil
		},
		RunE: func(cmd *cobra.Command, _ []string) error { return cmd.Help() },
	}
	c.AddCommand(planList(), planShow(), planCheck(), planAdd(), planExport(), planImport())
	return c
}

// planSub makes a command about plans. Its radio is asked for only where it has one.
func planSub(c *cobra.Command, radio bool, run func(ctx context.Context, x *session, args []string) error) *cobra.Command {
	var f planFlags
	c.Flags().StringVar(&f.data, "data", "mnemos-data", "the folder that holds the data")
	c.Flags().StringVar(&f.as, "as", "", "the person who does it; the first one if nobody is named")
	c.Flags().BoolVar(&f.asJSON, "json", false, "print JSON")
	if radio {
		c.Flags().StringVar(&f.radio, "radio", "", "the radio; the first one of the plan if none is named")
	}
	args := c.Args
	c.Args = func(cmd *cobra.Command, given []string) error {
		if err := args(cmd, given); err != nil {
			return usage{fmt.Errorf("%w: see mnemos plan %s --help", err, cmd.Name())}
		}
		return nil
	}
	c.RunE = func(cmd *cobra.Command, given []string) (err error) {
		x, err := open(cmd.Context(), f, cmd.OutOrStdout(), cmd.ErrOrStderr())
		if err != nil {
			return err
		}
		defer func() { err = errors.Join(err, x.close()) }()
		return run(cmd.Context(), x, given)
	}
	return c
}

func planList() *cobra.Command {
	return planSub(&cobra.Command{Use: "list", Short: "List the plans and their radios", Args: cobra.NoArgs}, false, func(ctx context.Context, x *session, _ []string) error {
		type radio struct {
			ID   int64  `json:"id"`
			Name string `json:"name"`
		}
		type plan struct {
			ID       int64   `json:"id"`
			Name     string  `json:"name"`
			Season   string  `json:"season"`
			Archived bool    `json:"archived"`
			Radios   []radio `json:"radios"`
		}
		first, err := x.workspace(ctx, 0)
		if err != nil {
			return err
		}
		out := []plan{}
		for _, p := range first.Plans {
			w, err := x.workspace(ctx, p.Id)
			if err != nil {
				return err
			}
			row := plan{p.Id, p.Name, p.Season, p.Archived, []radio{}}
			for _, l := range w.Loads {
				row.Radios = append(row.Radios, radio{l.Id, l.Unit.Name})
			}
			out = append(out, row)
		}
		if x.asJSON {
			return x.json(out)
		}
		for _, p := range out {
			var names []string
			for _, r := range p.Radios {
				names = append(names, r.Name)
			}
			state := ""
			if p.Archived {
				state = ", archived"
			}
			x.say("%d  %s%s: %s", p.ID, p.Name, state, strings.Join(names, ", "))
		}
		return nil
	})
}

func planShow() *cobra.Command {
	return planSub(&cobra.Command{Use: "show PLAN", Short: "Print the slots of a radio, each as an entry line", Args: cobra.ExactArgs(1)}, true, func(ctx context.Context, x *session, args []string) error {
		l, load, err := x.ledger(ctx, args[0])
		if err != nil {
			return err
		}
		if x.asJSON {
			return x.json(l)
		}
		x.say("%s, %d slots in use", load.Unit.Name, len(l.Rows))
		for _, r := range l.Rows {
			x.say("%4d  %-10s %s", r.Slot, r.Verdict, r.Line)
		}
		return nil
	})
}

// report is what checking a plan found.
type report struct {
	Plan    string   `json:"plan"`
	Verdict string   `json:"verdict"` // the gravest
	Radios  []judged `json:"radios"`
}

type judged struct {
	Radio    string    `json:"radio"`
	Agrees   int       `json:"agrees"`
	Findings []finding `json:"findings"`
}

type finding struct {
	Slot     int      `json:"slot"`
	Name     string   `json:"name"`
	Verdict  string   `json:"verdict"`
	Rule     string   `json:"rule"`
	Severity string   `json:"severity"`
	Title    string   `json:"title"`
	Message  string   `json:"message"`
	Fixes    []string `json:"fixes"`
}

var gravest = []string{"stop", "conflict", "unverified", "agrees"}

func planCheck() *cobra.Command {
	c := &cobra.Command{
		Use: "check PLAN", Short: "Check a whole plan, every radio of it", Args: cobra.ExactArgs(1),
		Long: `Check every channel in every radio of a plan against what is published and the band plan. Exit code 0: nothing
worse than a note; 1: a finding asks for something.`,
	}
	return planSub(c, true, func(ctx context.Context, x *session, args []string) error {
		w, err := x.plan(ctx, args[0])
		if err != nil {
			return err
		}
		loads := w.Loads
		if x.radio != "" {
			l, err := x.load(w)
			if err != nil {
				return err
			}
			loads = []api.LoadInfo{l}
		}
		out := report{Plan: w.Plan.Name, Verdict: "agrees", Radios: []judged{}}
		for _, l := range loads {
			j, err := x.judge(ctx, l)
			if err != nil {
				return err
			}
			for _, f := range j.Findings {
				if slices.Index(gravest, f.Verdict) < slices.Index(gravest, out.Verdict) {
					out.Verdict = f.Verdict
				}
			}
			out.Radios = append(out.Radios, j)
		}
		asks := slices.ContainsFunc(out.Radios, func(j judged) bool { return len(j.Findings) > 0 })
		if x.asJSON {
			err = x.json(out)
		} else {
			x.tell(out)
		}
		if err == nil && asks {
			return exit(exitAsks)
		}
		return err
	})
}

// judge is what is found in one radio.
func (x *session) judge(ctx context.Context, l api.LoadInfo) (judged, error) {
	j := judged{Radio: l.Unit.Name, Findings: []finding{}}
	ledger, err := x.settled(ctx, l.Id)
	if err != nil {
		return j, err
	}
	for _, r := range ledger.Rows {
		if len(r.Rules) == 0 {
			if r.Verdict == "agrees" {
				j.Agrees++
			}
			continue
		}
		var e api.Evidence
		if err := x.ask(ctx, "GET", fmt.Sprintf("/api/loads/%d/entries/%d", l.Id, r.Slot), nil, &e); err != nil {
			return j, err
		}
		for _, f := range e.Findings {
			if f.Severity == "note" {
				continue
			}
			fixes := []string{}
			for _, fix := range f.Fixes {
				fixes = append(fixes, fix.Label)
			}
			j.Findings = append(j.Findings, finding{r.Slot, r.Channel.Name, string(r.Verdict), f.Rule, string(f.Severity), f.Title, f.Message, fixes})
		}
	}
	return j, nil
}

func (x *session) tell(out report) {
	for _, j := range out.Radios {
		x.say("%s: %d agree", j.Radio, j.Agrees)
		for _, f := range j.Findings {
			x.say("%4d  %-10s %s: %s. %s", f.Slot, f.Verdict, f.Name, f.Title, f.Message)
			for _, fix := range f.Fixes {
				x.say("                 → %s", fix)
			}
		}
	}
}

// inSlot finds in what undo would take back where it was stored.
var inSlot = regexp.MustCompile(`in slot (\d+)`)

func planAdd() *cobra.Command {
	var slot int
	var over bool
	var also []string
	c := &cobra.Command{
		Use: `add PLAN "LINE"`, Short: "Store an entry line as a channel", Args: cobra.ExactArgs(2),
		Example: `  mnemos plan add "Three Lights Walk" '147.24 + 103.5 "Beacon Hill"' --also Ferry`,
	}
	c.Flags().IntVar(&slot, "slot", -1, "the slot, if the line does not name one; the next empty one if none is given")
	c.Flags().BoolVar(&over, "over", false, "store over what is in the slot")
	c.Flags().StringSliceVar(&also, "also", nil, "other radios of the plan that get it too")
	return planSub(c, true, func(ctx context.Context, x *session, args []string) error {
		w, err := x.plan(ctx, args[0])
		if err != nil {
			return err
		}
		l, err := x.load(w)
		if err != nil {
			return err
		}
		body := api.StoreRequest{Line: args[1], Revision: limit.Number, Replace: &over}
		if slot >= 0 {
			body.Slot = &slot
		}
		ids := []int64{}
		for _, name := range also {
			other, err := loadOf(w, name)
			if err != nil {
				return err
			}
			ids = append(ids, other.Id)
		}
		body.Also = &ids
		var ledger api.Ledger
		if err := x.ask(ctx, "POST", fmt.Sprintf("/api/loads/%d/entries", l.Id), body, &ledger); err != nil {
			return err
		}
		stored := inSlot.FindStringSubmatch(ledger.Undo)
		i := slices.IndexFunc(ledger.Rows, func(r api.Row) bool { return stored != nil && strconv.Itoa(r.Slot) == stored[1] })
		if i < 0 {
			return errors.New("it was stored, and changed by somebody since: look at the plan")
		}
		r := ledger.Rows[i]
		if x.asJSON {
			err = x.json(r)
		} else {
			x.say("%s, slot %d: %s, %s", l.Unit.Name, r.Slot, r.Line, r.Verdict)
		}
		if err == nil && len(r.Rules) > 0 {
			return exit(exitAsks)
		}
		return err
	})
}

func planExport() *cobra.Command {
	var format string
	c := &cobra.Command{
		Use: "export PLAN FILE|-", Short: "Save a plan, or with --radio what that radio will hold", Args: cobra.ExactArgs(2),
		Long: "Save a plan, or with --radio what that radio will hold. What the format cannot say is listed on standard error.",
	}
	c.Flags().StringVar(&format, "format", "", strings.Join(exchange.Formats, ", ")+"; by the ending of the file if none is given")
	return planSub(c, true, func(ctx context.Context, x *session, args []string) error {
		if format == "" {
			format = strings.TrimPrefix(strings.ToLower(filepath.Ext(args[1])), ".")
		}
		if !slices.Contains(exchange.Formats, format) {
			return usage{fmt.Errorf("--format %q: choose one of %s", format, strings.Join(exchange.Formats, ", "))}
		}
		w, err := x.plan(ctx, args[0])
		if err != nil {
			return err
		}
		path := fmt.Sprintf("/api/plans/%d/file?format=%s", w.Plan.Id, format)
		if x.radio != "" {
			l, err := x.load(w)
			if err != nil {
				return err
			}
			path = fmt.Sprintf("/api/loads/%d/file?format=%s", l.Id, format)
		}
		var f api.MadeFile
		if err := x.ask(ctx, "GET", path, nil, &f); err != nil {
			return err
		}
		for _, l := range f.Lost {
			fmt.Fprintln(x.errOut, "not in it:", l)
		}
		if args[1] == "-" {
			_, err = x.out.Write(f.Data)
			return err
		}
		if err := written(args[1], f.Data); err != nil {
			return err
		}
		if x.asJSON {
			return x.json(map[string]any{"file": args[1], "bytes": len(f.Data), "lost": f.Lost})
		}
		x.say("%s: %d bytes", args[1], len(f.Data))
		return nil
	})
}

// written puts a file in its place whole, or not at all.
func written(path string, data []byte) error {
	part, err := os.CreateTemp(filepath.Dir(path), ".mnemos-*")
	if err != nil {
		return err
	}
	_, err = part.Write(data)
	err = errors.Join(err, part.Chmod(0o644), part.Close())
	if err == nil {
		err = os.Rename(part.Name(), path)
	}
	if err != nil {
		return errors.Join(err, os.Remove(part.Name()))
	}
	return nil
}

func planImport() *cobra.Command {
	var into, viewpoint string
	var slot int
	var over bool
	c := &cobra.Command{
		Use: "import FILE", Short: "Take a file in: a plan becomes a new one, a table becomes channels of a radio", Args: cobra.ExactArgs(1),
	}
	c.Flags().StringVar(&into, "plan", "", "the plan that gets the channels of a table; the first one if none is named")
	c.Flags().IntVar(&slot, "slot", -1, "the slot from which on they are stored; the first one if none is given")
	c.Flags().BoolVar(&over, "over", false, "store over what is in the slots")
	c.Flags().StringVar(&viewpoint, "viewpoint", "", `whose TX it is in the table: "operator" (what you send) or "repeater" (what it sends)`)
	return planSub(c, true, func(ctx context.Context, x *session, args []string) error {
		data, err := os.ReadFile(args[0])
		if err != nil {
			return usage{err}
		}
		w, err := x.plan(ctx, into)
		if err != nil {
			return err
		}
		l, err := x.load(w)
		if err != nil {
			return err
		}
		body := api.BringRequest{Name: filepath.Base(args[0]), Data: data, Slot: &slot, Replace: &over, Revision: limit.Number}
		if slot < 0 {
			body.Slot = &l.Radio.Slots.First
		}
		if viewpoint != "" {
			body.Viewpoint = (*api.BringRequestViewpoint)(&viewpoint)
		}
		var b api.Brought
		if err := x.ask(ctx, "POST", fmt.Sprintf("/api/loads/%d/bring", l.Id), body, &b); err != nil {
			return err
		}
		if b.Pasted != nil && b.Pasted.Ask != nil {
			return usage{fmt.Errorf("the table does not tell whose TX it is. --viewpoint operator: %s --viewpoint repeater: %s", b.Pasted.Ask.Operator, b.Pasted.Ask.Repeater)}
		}
		left := 0
		if b.Pasted != nil {
			for _, r := range b.Pasted.Left {
				fmt.Fprintf(x.errOut, "row %d was left out: %s\n", r.Row, r.Why)
			}
			left = len(b.Pasted.Left)
		}
		switch {
		case x.asJSON && b.Workspace != nil:
			err = x.json(map[string]any{"plan": b.Workspace.Plan.Id, "name": b.Workspace.Plan.Name})
		case x.asJSON:
			err = x.json(map[string]any{"slots": b.Pasted.Slots, "left": b.Pasted.Left})
		case b.Workspace != nil:
			x.say("%d  %s is a plan of its own now", b.Workspace.Plan.Id, b.Workspace.Plan.Name)
		default:
			x.say("%s: %d channels stored", l.Unit.Name, len(b.Pasted.Slots))
		}
		if err == nil && left > 0 {
			return exit(exitAsks)
		}
		return err
	})
}

// json prints a value as JSON.
func (x *session) json(v any) error {
	e := json.NewEncoder(x.out)
	e.SetEscapeHTML(false)
	e.SetIndent("", "  ")
	return e.Encode(v)
}

func (x *session) say(format string, args ...any) { fmt.Fprintf(x.out, format+"\n", args...) }
