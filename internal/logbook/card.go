package logbook

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"mnemos/core/channel"
	"mnemos/core/evidence"
	"mnemos/core/tone"
	"mnemos/core/trial"
)

// Card opens the test of the channel in a slot.
func (l *Logbook) Card(ctx context.Context, loadID int64, slot int) (*Card, error) {
	d, err := l.desk(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	return l.card(ctx, d)
}

func (l *Logbook) card(ctx context.Context, d *desk) (*Card, error) {
	c := &Card{
		Load: d.loadID, Slot: d.Entry.Slot, Name: d.Entry.Channel.Name, Unit: d.Unit.Title(), Channel: d.Entry.Channel, Refused: d.refused(), Closed: d.Closed(),
		Permission: d.said, Callsign: d.Me.Callsign, Clock: d.clock(l.now()), Setting: d.weighing.Last, Tries: d.tries, Causes: d.weighing.Causes, Meant: d.Result.Meant,
		Standing: d.Standing, Basis: trial.Basis(), Watts: d.Radio.Watts.Of(d.Entry.Channel.Power), Revision: d.Revision, Acts: []Act{}, Search: d.search(),
	}
	if c.Closed {
		m := d.Result.Meant
		c.Owner = strings.TrimSpace(m.Callsign + " " + m.Locality)
		if m.Note != "" { // whom to ask, as the listing has it
			c.Owner += ": " + m.Note
		}
	}
	for _, a := range slices.Backward(d.tries) {
		if a.Kind == string(trial.Key) && !a.Negative {
			c.Answered = trial.Answer(a.Answer).Back()
			break
		}
	}
	if c.Refused != "" {
		return c, nil
	}
	_, c.Found = d.weighing.Found()
	acts := d.weighing.Acts()
	if !d.keyed() { // the first call is as the channel is stored
		acts = []trial.Act{{Kind: trial.Key, Setting: d.facts.Start, Says: "Call as it is stored"}}
	}
	for _, a := range acts {
		if d.keyed() && a.Bits < 0.005 && a.Change != "where" && a.Change != "aerial" {
			continue
		}
		c.Acts = append(c.Acts, Act{Act: a, Channel: d.with(a.Setting), Why: d.why(a)})
	}
	return l.passes(ctx, d, c)
}

// passes leaves out what would not pass the check on the transmit side.
func (l *Logbook) passes(ctx context.Context, d *desk, c *Card) (*Card, error) {
	var tried []channel.Channel
	for _, a := range c.Acts {
		tried = append(tried, a.Channel)
	}
	results, err := l.plans.Variants(ctx, d.loadID, d.Entry.Slot, tried)
	if err != nil {
		return nil, err
	}
	var out []Act
	for i, a := range c.Acts {
		if a.Kind != trial.Key || results[i].Verdict != evidence.Stop {
			out = append(out, a)
		}
	}
	c.Acts = append([]Act{}, out...)
	return c, nil
}

// clock is when the callsign is due: so many minutes after the first call of a test.
func (d *desk) clock(now time.Time) Clock {
	c := Clock{Minutes: d.Band.Identify.Minutes, Source: d.Band.Identify.Source}
	for _, a := range slices.Backward(d.tries) {
		at, err := time.Parse(time.RFC3339, a.At)
		if err != nil || a.Kind != string(trial.Key) {
			continue
		}
		// Every call is closed with the callsign: the clock runs from the last one.
		if now.Sub(at) < time.Duration(c.Minutes)*time.Minute {
			c.First = a.At
		}
		break
	}
	return c
}

// why says who is behind a change.
func (d *desk) why(a trial.Act) string {
	switch a.Change {
	case "tone":
		if a.Setting.Tone == d.Entry.Channel.TransmitTone {
			return "as it is stored"
		}
		by := d.sources(func(t tone.Tone) bool { return t == a.Setting.Tone })
		if len(by) == 0 {
			return "found by a search on its input"
		}
		return "published by " + strings.Join(by, ", ")
	case "shift":
		return "published"
	case "width":
		return "published"
	}
	return ""
}

func (d *desk) sources(is func(tone.Tone) bool) (out []string) {
	for _, o := range d.Result.Outputs {
		if o.UplinkTone.Known && is(o.UplinkTone.Tone) {
			says := o.Source
			if !o.Updated.IsZero() {
				says += fmt.Sprintf(" of %s", o.Updated.Format("2 Jan 2006"))
			}
			if !slices.Contains(out, says) {
				out = append(out, says)
			}
		}
	}
	return out
}
