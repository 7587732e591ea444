package entry

import (
	"fmt"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/service"
)

// resolve works out how the channel transmits from what was typed of the
// shift and from the band plan.
func (s *state) resolve(d *Draft, plan *band.Plan) {
	c := &d.Channel
	rule, ruled := plan.Shift(c.Receive)
	plain := func(f listing.Field) {
		if d.From[f] == "" {
			d.From[f] = Default
		}
	}
	defer func() {
		for _, f := range []listing.Field{listing.FieldShift, listing.FieldToneOut, listing.FieldToneIn, listing.FieldWidth, listing.FieldPower} {
			plain(f)
		}
	}()
	s.limits(d)
	if s.taken["tx"] {
		s.third(d, plan)
		return
	}
	switch {
	case c.Receive == 0:
	case s.taken["how"]:
		d.From[listing.FieldShift] = Typed
	case s.signs != 0 && s.sizes != 0:
		c.How = channel.ShiftHow(freq.Offset(s.signs) * s.sizes)
	case s.signs != 0:
		size := sizeHere(plan, c.Receive)
		if size == 0 {
			d.blame(AsShift, "the band plan has no shift at "+c.Receive.String()+": type the size too, such as +600")
			return
		}
		if ruled {
			d.Rule = &rule
		}
		c.How = channel.ShiftHow(freq.Offset(s.signs) * size)
	case s.sizes != 0:
		if s.odd {
			d.blame(AsShift, "the band plan has no such shift here: type the sign too, such as -600, or put a name in quotes")
			return
		}
		if !ruled {
			d.blame(AsShift, "the band plan has no shift at "+c.Receive.String()+": type the sign too, + or -")
			return
		}
		d.Rule = &rule
		c.How = channel.ShiftHow(freq.Offset(rule.Offset.Sign()) * s.sizes)
	case ruled:
		d.Rule = &rule
		c.How = channel.ShiftHow(rule.Offset)
		d.From[listing.FieldShift] = BandPlan
	case s.use != nil:
	default:
		if seg, ok := plan.Segment(c.Receive); ok && seg.Use == band.ReceiveOnly {
			c.How = channel.How{Kind: channel.Blocked}
			d.From[listing.FieldShift] = BandPlan
		}
	}
}

// limits gives a channel of another service the settings that belong to it,
// where the line says nothing else.
func (s *state) limits(d *Draft) {
	if s.use == nil {
		return
	}
	d.From[listing.FieldReceive] = Service
	if s.use.Narrow && !s.taken["width"] {
		d.Channel.Width, d.From[listing.FieldWidth] = channel.Narrow, Service
	}
	if !s.use.Transmit && !s.taken["how"] {
		d.Channel.How, d.From[listing.FieldShift] = channel.How{Kind: channel.Blocked}, Service
	}
}

// third works out the one of output, input and shift that was not typed.
func (s *state) third(d *Draft, plan *band.Plan) {
	c := &d.Channel
	tx := c.How.Frequency
	shifted := s.signs != 0 || s.sizes != 0
	d.From[listing.FieldShift] = Typed
	if c.Receive != 0 {
		o := tx.Sub(c.Receive)
		switch {
		case s.signs != 0 && o.Sign() != s.signs || s.sizes != 0 && o.Abs() != s.sizes:
			d.blame(AsTransmit, fmt.Sprintf("from %s to %s the shift is %s, and the line says another: leave one of the three out", c.Receive.MHz(), tx.MHz(), listing.ShiftWords(o)))
		case o == 0 || shifted:
			c.How = channel.ShiftHow(o)
		}
		return
	}
	var found []freq.Offset
	if s.signs != 0 && s.sizes != 0 {
		found = []freq.Offset{freq.Offset(s.signs) * s.sizes}
	} else {
		for _, output := range plan.OutputsOf(tx) {
			if o := tx.Sub(output); (s.signs == 0 || o.Sign() == s.signs) && (s.sizes == 0 || o.Abs() == s.sizes) {
				found = append(found, o)
			}
		}
	}
	if len(found) != 1 || tx.Add(-found[0]) <= 0 {
		return // none or several: the person has to type the output
	}
	c.Receive, c.How = tx.Add(-found[0]), channel.ShiftHow(found[0])
	d.From[listing.FieldReceive] = Solved
}

// sizeHere is the size of shift that belongs to a typed sign: that of the
// rule at the frequency, or else the first one of the band.
func sizeHere(plan *band.Plan, f freq.Hz) freq.Offset {
	for _, u := range service.At(plan.Region, f) {
		if u.Offset != 0 && !u.Input {
			return u.Offset.Abs()
		}
	}
	if r, ok := plan.Shift(f); ok {
		return r.Offset.Abs()
	}
	if b, ok := plan.Band(f); ok && len(b.Shifts) > 0 {
		return b.Shifts[0].Offset.Abs()
	}
	return 0
}

func (d *Draft) blame(as As, problem string) {
	for i := range d.Words {
		if d.Words[i].As == as && d.Words[i].Problem == "" {
			d.Words[i].Problem = problem
			return
		}
	}
}
