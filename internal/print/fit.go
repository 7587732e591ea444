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
	"mnemos/core/tone"
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
	Scan    bool           // it can be scanned as the others are
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
		it := item(x.title, x.why)
		it.Leave, it.Scan = x.leave, x.scan
		f.Changed = append(f.Changed, it)
	}
	if whole && len(changed) == 0 {
		f.Whole++
	}
}

// changed says what the radio holds otherwise than planned, and what it shows
// otherwise than it holds.
func (f *Fit) changed(p *radio.Profile, w keypad.Wanted, sheet keypad.Sheet) (out []change) {
	for _, x := range sheet.Losses {
		out = append(out, change{title: fmt.Sprintf("%s: %s instead of %s", fieldWord(x.Field), x.Held, x.Wanted), why: x.Why, leave: true})
	}
	if sheet.Rest.Note != "" {
		out = append(out, change{title: fmt.Sprintf("Shows %s, holds %s", sheet.Rest.Figures, sheet.Holds.Receive), why: sheet.Rest.Note + "; nothing is lost"})
	}
	for _, flag := range []struct {
		wanted  bool
		setting radio.Setting
	}{{w.Skip, radio.Skip}, {w.Priority, radio.Priority}} {
		if flag.wanted && p.Crib[flag.setting] == "" {
			out = append(out, change{title: "Scanned as the others, not with " + string(flag.setting), why: p.Name + " has no key for that", scan: true})
		}
	}
	if sheet.Holds.TransmitTone != w.Channel.TransmitTone && w.Channel.TransmitTone == tone.Burst1750 && p.Keying.Burst == "key" {
		out = append(out, change{title: "The 1750 Hz burst is sent by a key", why: "no slot of " + p.Name + " holds it: " + p.Crib[radio.Burst]})
	}
	if w.Short != "" && !naming.Fits(w.Short, p.Names) {
		out = append(out, change{title: fmt.Sprintf("Name: %s does not fit", w.Short), why: fmt.Sprintf("%s shows %d characters", p.Name, p.Names.Length)})
	}
	return out
}

// change is one thing that a radio holds or shows otherwise.
type change struct {
	title, why  string
	leave, scan bool
}

func fieldWord(f channel.Field) string {
	w := strings.ReplaceAll(string(f), "_", " ")
	return strings.ToUpper(w[:1]) + w[1:]
}
