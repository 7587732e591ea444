package print

import (
	"context"
	"fmt"
	"strings"
	"time"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/keypad"
	"mnemos/core/radio"
	"mnemos/core/standing"
	"mnemos/core/tone"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
)

// The kinds of paper.
const (
	Field   = "field"  // every channel in a row
	Pocket  = "pocket" // folds to a pocket
	Cards   = "cards"  // one card a channel
	Keypads = "sheets" // every keypad sheet
	Phone   = "phone"  // for a phone without a network
)

// Paper is what is carried to a radio.
type Paper struct {
	Kind    string
	Size    string // a4, letter
	Plan    string
	Demo    bool
	Unit    string
	Radio   *radio.Profile
	Person  string
	Edition int64 // of the plan: the number of its last change
	Date    time.Time
	Sources []string // of the published data, with their dates
	Rows    []PaperRow
}

// PaperRow is one channel on paper.
type PaperRow struct {
	Slot        int
	Name, Short string
	Channel     channel.Channel
	Receive     string // MHz
	Transmit    string // MHz, or why not
	Shift       string // MHz with its sign, or "simplex", or why not
	Out, In     string // tones
	Width       string
	Power       string
	Scan        string
	Verdict     evidence.Verdict
	Standing    standing.State
	Says        string
	Doubts      []string // what speaks against keying it as it is
	Sheet       keypad.Sheet
	Key         string // what ticks hang on: a changed channel has none
}

// Title is what the paper is.
func (p *Paper) Title() string {
	return map[string]string{Field: "Field sheet", Pocket: "Pocket card", Cards: "Channel cards", Keypads: "Keypad sheets", Phone: "Channels and keypad sheets"}[p.Kind]
}

// Head is what stands on every page.
func (p *Paper) Head() string {
	return fmt.Sprintf("%s · %s · %s · edition %d · %s", p.Title(), p.Plan, p.Unit, p.Edition, p.Date.Format("2 January 2006"))
}

// From is where the data come from.
func (p *Paper) From() string {
	from := "Published data: none is given; nothing here was checked against a listing."
	if len(p.Sources) > 0 {
		from = "Published data: " + strings.Join(p.Sources, "; ") + "."
	}
	if p.Demo {
		from = "The demonstration: every repeater here is invented. " + from
	}
	return from
}

// Reminder is what no sheet is without.
const Reminder = "Listen first. Transmit only where your licence permits it, with your callsign, never without an aerial or a dummy load. Do not rely on radio alone for rescue. Follow your local rules and your licence."

// Paper returns what is carried to a radio.
func (p *Sheets) Paper(ctx context.Context, loadID int64, kind, size string) (*Paper, error) {
	f := &fault.Invalid{}
	out := &Paper{Kind: kind, Size: size}
	if out.Title() == "" {
		f.Add("kind", "use field, pocket, cards, sheets or phone")
	}
	if size != "a4" && size != "letter" {
		f.Add("size", "use a4 or letter")
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	l, err := p.plans.Loading(ctx, loadID)
	if err != nil {
		return nil, err
	}
	out.Plan, out.Demo, out.Unit, out.Radio, out.Person = l.Plan.Name, l.Plan.Demo, l.Unit.Title(), l.Radio, l.Me.Name
	out.Edition, out.Date = l.Revision, l.At
	seen := map[string]bool{}
	for _, c := range l.Channels {
		out.Rows = append(out.Rows, paperRow(l, c))
		if m := c.Result.Meant; m != nil {
			if from := fmt.Sprintf("%s, %s", m.Source, m.Updated); !seen[m.Source] {
				seen[m.Source] = true
				out.Sources = append(out.Sources, from)
			}
		}
	}
	return out, nil
}

func paperRow(l *plan.Loading, c plan.Loaded) PaperRow {
	e := c.Entry
	w := wanted(e, c.Result)
	held, _ := radio.Fit(e.Channel, l.Radio)
	if w.Forbidden != "" {
		held.Side, held.TransmitTone = channel.TransmitSide{Kind: channel.Blocked}, tone.Off
	}
	r := PaperRow{
		Slot: e.Slot, Name: e.Channel.Name, Short: e.ShortName, Channel: held, Receive: held.Receive.MHz(), Shift: "listen only", Transmit: "–",
		Out: toneText(held.TransmitTone, "–"), In: toneText(held.ReceiveTone, "open"), Width: string(held.Width), Scan: string(e.Scan),
		Verdict: c.Result.Verdict, Standing: c.Standing.Now, Doubts: append(w.stops, w.doubts...), Sheet: keypad.Write(w.Wanted, l.Radio),
		Says: entry.Sentence(entry.Say(&entry.Draft{Channel: held})), Key: c.Fingerprint,
	}
	if tx, sends := held.Transmit(); sends {
		r.Transmit, r.Power = tx.MHz(), fmt.Sprintf("%g W", l.Radio.Watts.Of(held.Power))
		if r.Shift = "simplex"; held.Offset() != 0 {
			r.Shift = signed(held.Offset())
		}
	}
	if !l.Radio.CanReceive(e.Channel.Receive) {
		r.Shift, r.Transmit = "not in this radio", "–"
	}
	return r
}

// signed is a shift in MHz with its sign, as it stands in a column.
func signed(o freq.Offset) string {
	sign := "+"
	if o < 0 {
		sign = "−"
	}
	return sign + freq.Hz(o.Abs()).MHz()
}

func toneText(t tone.Tone, none string) string {
	switch t.Kind() {
	case tone.CTCSS:
		return t.String() + " Hz"
	case tone.DCS:
		return t.String()
	case tone.Burst:
		return "1750 Hz"
	}
	return none
}
