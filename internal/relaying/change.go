package relaying

import (
	"context"
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"
	"unicode"

	"mnemos/core/channel"
	"mnemos/core/evidence"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

// Form is what somebody says of a relay; nil for what stays.
type Form struct {
	Hand                                                       *int64
	A, B, Way                                                  *string
	Consent, IdentifyA, IdentifyB, Control, Microphone         *string
	Timeout, Mine, Theirs                                      *int
	Over, AmpHours, Usable, Hours, Standby, AmpsA, AmpsB, Gain *float64
	Starting                                                   *bool
	Tick                                                       *Tick
	Rehearsed                                                  *bool
	Revision                                                   int64
}

// Tick is a line of the run card that was done, or is not any more.
type Tick struct {
	Step string
	Done bool
}

// Set keeps what somebody says of a relay.
func (l *Relaying) Set(ctx context.Context, loadID int64, form Form) (*View, error) {
	d, err := l.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	row, err := l.store.Relay(ctx, loadID)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	says := l.read(f, d, form, &row)
	if err := f.Or(); err != nil {
		return nil, err
	}
	if len(says) == 0 {
		return l.Look(ctx, loadID, Ask{})
	}
	stamp, err := l.fleet.Stamp(ctx, strings.Join(says, ", "))
	if err != nil {
		return nil, err
	}
	if err := l.store.Edit(ctx, d.Plan.ID, min(form.Revision, d.Revision), stamp, func(e *store.Edit) error { return e.Relays(row) }); err != nil {
		return nil, err
	}
	return l.Look(ctx, loadID, Ask{})
}

// read puts what is said into the row, and says in words what that is.
func (l *Relaying) read(f *fault.Invalid, d *desk, form Form, row *store.Relay) (says []string) {
	say := func(text string) {
		if !slices.Contains(says, text) {
			says = append(says, text)
		}
	}
	for _, x := range []struct {
		field string
		from  *string
		to    *string
		most  int
		says  string
	}{
		{"a", form.A, &row.LineA, 200, "set the sides of the relay"},
		{"b", form.B, &row.LineB, 200, "set the sides of the relay"},
		{"consent", form.Consent, &row.Consent, 400, "note what the owners said"},
		{"control", form.Control, &row.Control, 200, "say how the relay is shut off"},
	} {
		if x.from == nil {
			continue
		}
		*x.to = strings.TrimSpace(*x.from)
		if len([]rune(*x.to)) > x.most || strings.ContainsFunc(*x.to, unicode.IsControl) {
			f.Add(x.field, "up to %d characters, in one line", x.most)
		}
		say(x.says)
	}
	if form.Consent != nil && row.Consent != "" && len([]rune(row.Consent)) < 8 {
		f.Add("consent", "write who agreed, when, and how: QX1OWN and QX2OWN, on the phone, 20 Nov")
	}
	for _, x := range []struct {
		field string
		from  *string
		to    *string
		of    []string
		says  string
	}{
		{"way", form.Way, &row.Way, []string{"both", "out", "back"}, "set which way the relay works"},
		{"identify_a", form.IdentifyA, &row.IdentifyA, []string{"", "operator"}, "say who identifies a side"},
		{"identify_b", form.IdentifyB, &row.IdentifyB, []string{"", "operator"}, "say who identifies a side"},
		{"microphone", form.Microphone, &row.Microphone, []string{"", "live", "dead"}, "say whether the microphone stays live"},
	} {
		if x.from == nil {
			continue
		}
		if *x.to = *x.from; !slices.Contains(x.of, *x.from) {
			f.Add(x.field, "choose one of: %s", strings.TrimPrefix(strings.Join(x.of, ", "), ", "))
		}
		say(x.says)
	}
	figures(f, form, row, say)
	if form.Hand != nil {
		if row.HandID = *form.Hand; *form.Hand == row.LoadID {
			f.Add("hand", "the handheld is another radio than the vehicle’s")
		}
		say("choose the handheld of the relay")
	}
	l.ticks(f, d, form, row, say)
	return says
}

// figures are what is said in numbers.
func figures(f *fault.Invalid, form Form, row *store.Relay, say func(string)) {
	for _, x := range []struct {
		field     string
		from      *int
		to        *int
		low, high int
		says      string
	}{
		{"timeout", form.Timeout, &row.Timeout, 0, 60, "set the time-out of the relay"},
		{"mine", form.Mine, &row.Mine, 0, 60, "say how much is said over the relay"},
		{"theirs", form.Theirs, &row.Theirs, 0, 60, "say how much is said over the relay"},
	} {
		if x.from == nil {
			continue
		}
		if *x.to = *x.from; *x.from < x.low || *x.from > x.high {
			f.Add(x.field, "write a number from %d to %d", x.low, x.high)
		}
		say(x.says)
	}
	for _, x := range []struct {
		field     string
		from      *float64
		to        *float64
		low, high float64
		says      string
	}{
		{"over", form.Over, &row.Over, 1, 300, "say how much is said over the relay"},
		{"amp_hours", form.AmpHours, &row.AmpHours, 0, 2000, "say what feeds the relay"},
		{"usable", form.Usable, &row.Usable, 0.05, 1, "say what feeds the relay"},
		{"hours", form.Hours, &row.Hours, 0, 1000, "say how long the relay is needed"},
		{"standby", form.Standby, &row.Standby, 0, 20, "say what the relay takes"},
		{"amps_a", form.AmpsA, &row.AmpsA, 0, 100, "say what the relay takes"},
		{"amps_b", form.AmpsB, &row.AmpsB, 0, 100, "say what the relay takes"},
		{"gain", form.Gain, &row.Gain, -20, 20, "say what aerial the relay has"},
	} {
		if x.from == nil {
			continue
		}
		if *x.to = *x.from; math.IsNaN(*x.from) || *x.from < x.low || *x.from > x.high {
			f.Add(x.field, "write a number from %g to %g", x.low, x.high)
		}
		say(x.says)
	}
	if form.Starting != nil {
		row.Starting = *form.Starting
		say("say what feeds the relay")
	}
}

// ticks are lines of the run card, and the rehearsal.
func (l *Relaying) ticks(f *fault.Invalid, d *desk, form Form, row *store.Relay, say func(string)) {
	now := l.now().UTC().Format(time.RFC3339)
	if t := form.Tick; t != nil {
		all := map[string]string{}
		if err := json.Unmarshal([]byte(row.Ticks), &all); err != nil {
			f.Add("tick", "%v", err)
			return
		}
		if len(t.Step) > 40 || len(all) > 200 {
			f.Add("tick", "%q is not a line of the run card", t.Step)
			return
		}
		if delete(all, t.Step); t.Done {
			all[t.Step] = now
		}
		text, err := json.Marshal(all)
		if err != nil {
			f.Add("tick", "%v", err)
			return
		}
		row.Ticks = string(text)
		say("tick the run card")
	}
	if form.Rehearsed != nil {
		row.RehearsedAt, row.RehearsedBy, row.RehearsedAs = "", 0, ""
		if *form.Rehearsed {
			if row.LineA == "" || row.LineB == "" {
				f.Add("rehearsed", "keep both sides first")
				return
			}
			row.RehearsedAt, row.RehearsedBy, row.RehearsedAs = now, d.Me.ID, asWhat(*row)
		}
		say("note the rehearsal of the relay")
	}
}

// Take puts both sides into the vehicle unit, and the link into the handheld too, as one
// step: set alike everywhere, tones on both sides included.
func (l *Relaying) Take(ctx context.Context, loadID, revision int64) (*plan.Ledger, error) {
	v, err := l.Look(ctx, loadID, Ask{})
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	switch {
	case v.Report == nil:
		f.Add("line", "write both sides first")
	case v.Report.Verdict == evidence.Stop:
		f.Add("line", "%s", v.Report.Findings[0].Title)
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	var list []plan.Placement
	for _, letter := range []string{"A", "B"} {
		s := v.side(letter)
		p := plan.Placement{Channel: s.Reading.Channel, Loads: []int64{loadID}}
		if m := s.Reading.Result.Meant; m != nil {
			p.Repeater = m.ID()
		}
		if letter == v.Report.LinkSide {
			p.Channel = named(p.Channel)
			if v.Row.HandID != 0 {
				p.Loads = append(p.Loads, v.Row.HandID)
			}
		}
		list = append(list, p)
	}
	return l.plans.Place(ctx, loadID, list, revision, fmt.Sprintf("take the relay of %s into the plan", v.Vehicle.Title()))
}

// named gives a link without a name one.
func named(c channel.Channel) channel.Channel {
	if c.Name == "" {
		c.Name = "Link"
	}
	return c
}
