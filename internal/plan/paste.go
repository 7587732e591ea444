package plan

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"mnemos/core/check"
	"mnemos/core/entry"
	"mnemos/core/intake"
	"mnemos/core/limit"
	"mnemos/core/naming"
	"mnemos/core/slots"
	"mnemos/core/table"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Paste is a table to be stored from a slot on.
type Paste struct {
	Text string
	Slot int
	// Replace stores over what is in the slots; else only vacant ones are used.
	Replace bool
	// Viewpoint is what a person said of whose TX a table of somebody else has; ""
	// leaves it to the values.
	Viewpoint intake.Viewpoint
	Revision  int64
}

// Pasted is what came of it.
type Pasted struct {
	Ledger *Ledger // nil where a person has to say something first
	Slots  []int
	Left   []LeftOut
	// Ask is set where it is not settled whose TX the table has: how its first
	// telling row reads either way. Nothing was stored.
	Ask *Either
}

// Either is a row as it reads from both sides.
type Either struct{ Operator, Repeater string }

// LeftOut is a row that was not stored, and why.
type LeftOut struct {
	Row int // from 1, as pasted
	Why string
}

// line is a row that was read, or why it was not.
type line struct {
	table.Line
	row int
	why string
}

// Copied writes channels as a table, for the clipboard.
func (p *Plans) Copied(ctx context.Context, loadID int64, in []int) (string, error) {
	_, entries, err := p.some(ctx, loadID, in)
	if err != nil {
		return "", err
	}
	var out []table.Line
	for _, e := range entries {
		out = append(out, table.Line{Slot: e.Slot, Short: e.ShortName, Scan: e.Scan, Channel: e.Channel})
	}
	return table.TSV(out), nil
}

// Paste stores the rows of a table, each in the next slot, as one step. What
// cannot be read or has no room is left out and said so.
func (p *Plans) Paste(ctx context.Context, loadID int64, s Paste) (*Pasted, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	if strings.Count(s.Text, "\n") > 2*limit.Rows { // before it is taken apart
		f.Add("text", "more than %d lines are too many at once: paste up to %d", 2*limit.Rows, limit.Rows)
		return nil, f
	}
	rows := table.Rows(s.Text)
	switch {
	case len(rows) == 0:
		f.Add("text", "the clipboard holds no text: copy rows of a table first")
	case len(rows) > limit.Rows:
		f.Add("text", "%d rows are too many at once: paste up to %d", len(rows), limit.Rows)
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	return p.paste(ctx, d, rows, s)
}

func (p *Plans) paste(ctx context.Context, d *desk, rows [][]string, s Paste) (*Pasted, error) {
	f := &fault.Invalid{}
	if !d.radio.Slots.Holds(s.Slot) {
		f.Add("slot", "%s has slots %d to %d: choose one of them", d.unit.Title(), d.radio.Slots.First, d.radio.Slots.Last)
		return nil, f
	}
	lines, ask, err := d.lines(ctx, rows, s.Viewpoint)
	if err != nil {
		return nil, err
	}
	if ask != nil {
		return &Pasted{Ask: ask, Slots: []int{}, Left: []LeftOut{}}, nil
	}
	return p.stored(ctx, d, s, lines)
}

// lines reads the rows: our own table by its headings, that of somebody else by
// the mapping step of an import, and what is no table as entry lines.
func (d *desk) lines(ctx context.Context, rows [][]string, v intake.Viewpoint) (out []line, ask *Either, err error) {
	if table.Ours(rows[0]) {
		for i, r := range rows[1:] {
			l, faults := table.Read(rows[0], r)
			out = append(out, line{l, i + 2, because(faults, func(x table.Fault) (string, string) { return x.Heading, x.Message })})
		}
		return out, nil, nil
	}
	layout := intake.Look(rows, false, d.band)
	if layout.Prose || layout.Heading == nil && !slices.ContainsFunc(rows, func(r []string) bool { return len(r) > 1 }) { // lines, each a channel
		for i, r := range rows {
			if err := ctx.Err(); err != nil {
				return nil, nil, err // nobody waits for it any more
			}
			draft := entry.Read(strings.Join(r, " "), d.band)
			l := line{table.Line{Scan: draft.Scan, Channel: draft.Channel}, i + 1, ""}
			if problem := draft.Problem(); problem != nil {
				l.why = problem.Problem
			} else if !draft.Complete() {
				l.why = "it is not a channel: a line needs a receive frequency, such as 147.24"
			}
			out = append(out, l)
		}
		return out, nil, nil
	}
	m := layout.Mapping
	switch {
	case v != "":
		m = m.Under(v)
	case layout.View.Asked():
		return nil, &Either{
			Operator: m.Sentence(intake.Operator, layout.Heading, rows[layout.From:]),
			Repeater: m.Sentence(intake.Repeater, layout.Heading, rows[layout.From:]),
		}, nil
	}
	r := intake.Reader{Mapping: m, Plan: d.band, Source: "pasted"}
	for i, cells := range rows[layout.From:] {
		if err := ctx.Err(); err != nil {
			return nil, nil, err
		}
		l := line{row: layout.From + i + 1}
		if why, aside := layout.Aside(m, cells); aside {
			l.why = why
			out = append(out, l)
			continue
		}
		rec, faults := r.Row(cells)
		l.why = because(faults, func(x intake.Fault) (string, string) { return x.Text, x.Message })
		if l.why == "" {
			c, err := rec.Channel(d.band)
			if err != nil {
				l.why = err.Error()
			} else if d.settings.TonePolicy == check.SquelchFirst {
				c = rec.Squelched(c)
			}
			l.Line = table.Line{Scan: entry.ScanYes, Channel: c}
		}
		out = append(out, l)
	}
	return out, nil, nil
}

// because says what is wrong with a row; "" for nothing.
func because[F any](faults []F, words func(F) (of, message string)) string {
	var parts []string
	for _, f := range faults {
		of, message := words(f)
		if of != "" && !strings.Contains(message, of) {
			message = of + ": " + message
		}
		parts = append(parts, message)
	}
	return strings.Join(parts, "; ")
}

func (p *Plans) stored(ctx context.Context, d *desk, s Paste, lines []line) (*Pasted, error) {
	out := &Pasted{Slots: []int{}, Left: []LeftOut{}}
	var good []line
	for _, l := range lines {
		switch {
		case l.why != "":
			out.Left = append(out.Left, LeftOut{l.row, l.why})
		case !d.radio.CanReceive(l.Channel.Receive):
			out.Left = append(out.Left, LeftOut{l.row, fmt.Sprintf("%s does not receive %s", d.unit.Title(), l.Channel.Receive)})
		default:
			good = append(good, l)
		}
	}
	free := d.memory().Vacant(s.Slot, len(good))
	if s.Replace {
		free = nil
		for n := s.Slot; n <= d.radio.Slots.Last && len(free) < len(good); n++ {
			free = append(free, n)
		}
	}
	for _, l := range good[len(free):] {
		out.Left = append(out.Left, LeftOut{l.row, d.unit.Title() + " has no slot left for it"})
	}
	good = good[:len(free)]
	out.Slots = append(out.Slots, free...)
	if len(good) == 0 {
		f := &fault.Invalid{}
		f.Add("text", "nothing of it can be stored: %s", firstWhy(out.Left))
		return nil, f
	}
	shown, err := p.called(ctx, d.plan.ID, d.radio.Names)
	if err != nil {
		return nil, err
	}
	entries := d.named(good, free, shown)
	out.Ledger, err = p.change(ctx, d, s.Revision, fmt.Sprintf("paste %s into %s", channels(len(good)), slots.Runs(free)), func(x *store.Edit) error {
		for _, e := range entries {
			if old, taken := d.at(e.Slot); taken {
				if err := x.DropEntry(old.ID); err != nil {
					return err
				}
				if err := x.DropChannel(old.ChannelID); err != nil {
					return err
				}
			}
			if err := add(x, e); err != nil {
				return err
			}
		}
		return nil
	})
	return out, err
}

// named makes entries of lines, with short names: the one that the line has, as
// long as the radio can show it and nobody else has it.
func (d *desk) named(lines []line, at []int, shown *called) (out []store.Entry) {
	for _, n := range at {
		if old, held := d.at(n); held { // it is stored over
			delete(shown.by, old.ShortName)
		}
	}
	var long []string
	for _, l := range lines {
		long = append(long, l.Channel.Name)
	}
	shown.more(long)
	for i, l := range lines {
		e := store.Entry{LoadID: d.load.ID, Slot: at[i], ShortName: l.Short, Scan: l.Scan, Channel: l.Channel}
		if e.ShortName == "" || shown.taken(0)(e.ShortName) || !naming.Fits(e.ShortName, d.radio.Names) {
			e.ShortName = shown.name(0, e.Channel.Name)
		}
		shown.by[e.ShortName] = -1
		out = append(out, e)
	}
	return out
}

func firstWhy(left []LeftOut) string {
	if len(left) == 0 {
		return "it has no rows"
	}
	return fmt.Sprintf("row %d: %s", left[0].Row, left[0].Why)
}
