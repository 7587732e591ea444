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
func (s *state) resolve(d *Draft) {
	c, plan := &d.Channel, s.r.plan
	defer func() {
		for _, f := range []channel.Field{channel.FieldShift, channel.FieldTransmitTone, channel.FieldReceiveTone, channel.FieldWidth, channel.FieldPower} {
			if d.From[f] == "" {
				d.From[f] = Default
			}
		}
	}()
	s.limits(d)
	if s.has(fHow) {
		c.Side, d.From[channel.FieldShift] = channel.TransmitSide{Kind: s.how}, Typed
		return
	}
	if s.has(fTransmit) {
		s.third(d)
		return
	}
	rule, ruled := plan.Shift(c.Receive)
	if u, ok := s.serviceShift(); ok && s.use == nil && !ruled {
		rule, ruled = band.ShiftRule{Offset: u.Offset, Certainty: band.Fixed}, s.sign != 0 || s.size != 0
	}
	switch {
	case c.Receive == 0:
	case s.sign != 0 && s.size != 0:
		c.Side = channel.ShiftSide(freq.Offset(s.sign) * s.size)
	case s.sign != 0:
		s.borrow(d)
	case s.size != 0 && !ruled:
		d.blame(AsShift, fmt.Sprintf("the band plan has no shift at %s: type the sign too, + or -", c.Receive))
	case s.size != 0:
		d.Rule = &rule
		c.Side = channel.ShiftSide(freq.Offset(rule.Offset.Sign()) * s.size)
	case ruled:
		d.Rule = &rule
		c.Side = channel.ShiftSide(rule.Offset)
		d.From[channel.FieldShift] = BandPlan
	case s.use != nil:
	default:
		if seg, ok := plan.Segment(c.Receive); ok && seg.Use == band.ReceiveOnly {
			c.Side = channel.TransmitSide{Kind: channel.Blocked}
			d.From[channel.FieldShift] = BandPlan
		}
	}
}

// borrow takes the size that belongs to a typed sign: that of the service or
// the rule whose outputs the frequency is among, or else of the rule whose
// inputs it is among. Elsewhere there is none to take.
func (s *state) borrow(d *Draft) {
	c, plan := &d.Channel, s.r.plan
	if u, ok := s.serviceShift(); ok {
		c.Side = channel.ShiftSide(freq.Offset(s.sign) * u.Offset.Abs())
		return
	}
	if rule, ok := plan.Shift(c.Receive); ok {
		d.Rule = &rule
		c.Side = channel.ShiftSide(freq.Offset(s.sign) * rule.Offset.Abs())
		return
	}
	if rule, ok := plan.ShiftInto(c.Receive); ok {
		d.Rule, d.Borrowed = &rule, true
		c.Side = channel.ShiftSide(freq.Offset(s.sign) * rule.Offset.Abs())
		return
	}
	d.blame(AsShift, fmt.Sprintf("the band plan has no shift at %s: type the size too, such as +600", c.Receive))
}

// serviceShift is the service whose repeaters send on the frequency.
func (s *state) serviceShift() (service.Use, bool) {
	for _, u := range service.At(s.r.plan.Region, s.receive) {
		if u.Offset != 0 && !u.Input {
			return u, true
		}
	}
	return service.Use{}, false
}

// limits gives a channel of another service the settings that belong to it,
// where the line says nothing else.
func (s *state) limits(d *Draft) {
	if s.use == nil {
		return
	}
	d.From[channel.FieldReceive], d.Service = Service, s.use.ID
	if s.use.Narrow && !s.has(fWidth) {
		d.Channel.Width, d.From[channel.FieldWidth] = channel.Narrow, Service
	}
	if !s.use.Transmit && !s.has(fHow) {
		d.Channel.Side, d.From[channel.FieldShift] = channel.TransmitSide{Kind: channel.Blocked}, Service
	}
}

// third works out the one of output, input and shift that was not typed.
func (s *state) third(d *Draft) {
	c, plan, tx := &d.Channel, s.r.plan, s.transmit
	c.Side = channel.SplitSide(tx)
	d.From[channel.FieldShift] = Typed
	fits := func(o freq.Offset) bool {
		return (s.sign == 0 || o.Sign() == s.sign) && (s.size == 0 || o.Abs() == s.size)
	}
	if c.Receive != 0 {
		o := tx.Sub(c.Receive)
		switch {
		case !fits(o):
			d.blame(AsShift, fmt.Sprintf("from %s to %s the shift is %s, and the line says another: leave one of the three out", c.Receive.MHz(), tx.MHz(), listing.ShiftWords(o)))
		case o == 0 || s.sign != 0 || s.size != 0:
			c.Side = channel.ShiftSide(o)
		}
		return
	}
	var found []freq.Offset
	if s.sign != 0 && s.size != 0 {
		found = []freq.Offset{freq.Offset(s.sign) * s.size}
	} else {
		for _, output := range plan.OutputsOf(tx) {
			if o := tx.Sub(output); fits(o) {
				found = append(found, o)
			}
		}
	}
	if len(found) != 1 || tx.Add(-found[0]) <= 0 {
		return // none or several: the person has to type the output
	}
	c.Receive, c.Side = tx.Add(-found[0]), channel.ShiftSide(found[0])
	d.From[channel.FieldReceive] = Solved
}
