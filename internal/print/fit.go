package print

import (
	"context"
	"fmt"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/evidence"
	"mnemos/core/keypad"
	"mnemos/core/naming"
	"mnemos/core/radio"
	"mnemos/internal/plan"
)

// Item is one thing to know about a channel before it goes into a radio.
type Item struct {
	Slot    int
	Name    string
	Channel channel.Channel
	Verdict evidence.Verdict
	Title   string
	Why     string
	Fixes   []check.Remedy // that can be applied
	Listen  bool           // it can be made receive-only instead
	Leave   bool           // it can be taken out of this radio
}

// ShortName is what a channel is called on a radio.
type ShortName struct {
	Slot       int
	Long, Name string
}

// Fit is what a radio will hold of what is planned for it. Nothing is cut without
// being said here.
type Fit struct {
	Plan, Unit string
	Radio      *radio.Profile
	Channels   int
	Whole      int    // held just as planned
	Held       []Item // back: must not go on the air as it is
	Decide     []Item // a witness says otherwise; keyed as planned if left
	Changed    []Item // what the radio cannot do as planned
	Out        []Item // does not fit: stays in the plan
	Names      []ShortName
	NamesBy    string // how names get in, where not by the keypad; or ""
}

// Fit returns what a radio will hold.
func (p *Sheets) Fit(ctx context.Context, loadID int64) (*Fit, error) {
	l, err := p.plans.Loading(ctx, loadID)
	if err != nil {
		return nil, err
	}
	f := &Fit{Plan: l.Plan.Name, Unit: l.Unit.Title(), Radio: l.Radio, Channels: len(l.Channels)}
	if !l.Radio.Names.Keypad {
		f.NamesBy = fmt.Sprintf("%s takes names by cable only: write them on the card.", l.Radio.Name)
	}
	for _, c := range l.Channels {
		f.add(l, c)
	}
	return f, nil
}

func (f *Fit) add(l *plan.Loading, c plan.Loaded) {
	e := c.Entry
	w := wanted(e, c.Result)
	item := func(title, why string) Item {
		return Item{Slot: e.Slot, Name: e.Channel.Name, Channel: e.Channel, Verdict: c.Result.Verdict, Title: title, Why: why, Fixes: []check.Remedy{}}
	}
	sheet := keypad.Write(w.Wanted, l.Radio)
	if sheet.Reason != "" && l.Radio.Keying.By != "cable" || !l.Radio.CanReceive(e.Channel.Receive) || !l.Radio.Slots.Holds(e.Slot) {
		x := item("Stays in the plan, not in this radio", sheet.Reason)
		x.Leave = true
		f.Out = append(f.Out, x)
		return
	}
	if short := e.ShortName; short != "" && short != e.Channel.Name {
		f.Names = append(f.Names, ShortName{e.Slot, e.Channel.Name, short})
	}
	whole := true
	for _, x := range c.Result.Findings {
		if x.Aside() || x.Rule == check.NoLicence || x.Severity != check.Stop && x.Severity != check.Fix {
			continue
		}
		whole = false
		it := item(x.Title, x.Message)
		it.Fixes = append(it.Fixes, x.Fixes[:min(2, len(x.Fixes))]...)
		if x.Severity == check.Stop {
			_, it.Listen = e.Channel.Transmit()
			f.Held = append(f.Held, it)
			continue
		}
		f.Decide = append(f.Decide, it)
	}
	changed := f.changed(l.Radio, w.Wanted, sheet)
	for _, x := range changed {
		it := item(x[0], x[1])
		it.Leave = true
		f.Changed = append(f.Changed, it)
	}
	if whole && len(changed) == 0 {
		f.Whole++
	}
}

// changed says what the radio holds otherwise than planned, and what it shows
// otherwise than it holds.
func (f *Fit) changed(p *radio.Profile, w keypad.Wanted, sheet keypad.Sheet) (out [][2]string) {
	for _, x := range sheet.Losses {
		out = append(out, [2]string{fmt.Sprintf("%s: %s instead of %s", fieldWord(x.Field), x.Held, x.Wanted), x.Why})
	}
	if sheet.Rest.Note != "" {
		out = append(out, [2]string{fmt.Sprintf("Shows %s, holds %s", sheet.Rest.Figures, sheet.Holds.Receive), sheet.Rest.Note + "; nothing is lost"})
	}
	for _, n := range sheet.Notes {
		if !strings.Contains(n, "by cable only") { // said once, of all names
			out = append(out, [2]string{n, "what the keys of " + p.Name + " cannot do"})
		}
	}
	if w.Short != "" && !naming.Fits(w.Short, p.Names) {
		out = append(out, [2]string{fmt.Sprintf("Name: %s does not fit", w.Short), fmt.Sprintf("%s shows %d characters", p.Name, p.Names.Length)})
	}
	return out
}

func fieldWord(f channel.Field) string {
	w := strings.ReplaceAll(string(f), "_", " ")
	return strings.ToUpper(w[:1]) + w[1:]
}
