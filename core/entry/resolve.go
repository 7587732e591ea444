package entry

import (
	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/listing"
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
	switch {
	case c.Receive == 0:
	case s.taken["how"]:
		d.From[listing.FieldShift] = Typed
		if c.How.Kind == channel.Split && c.How.Frequency == c.Receive {
			c.How = channel.How{Kind: channel.Simplex}
		}
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
	default:
		if seg, ok := plan.Segment(c.Receive); ok && seg.Use == band.ReceiveOnly {
			c.How = channel.How{Kind: channel.Blocked}
			d.From[listing.FieldShift] = BandPlan
		}
	}
}

// sizeHere is the size of shift that belongs to a typed sign: that of the
// rule at the frequency, or else the first one of the band.
func sizeHere(plan *band.Plan, f freq.Hz) freq.Offset {
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
