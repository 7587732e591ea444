package listen

import (
	"fmt"
	"slices"

	"mnemos/core/freq"
	"mnemos/core/radio"
	"mnemos/core/scan"
)

// Dual is what the two sides of a radio would do.
type Dual struct {
	Says  string
	Asks  bool // it can hear another side, and none is chosen
	Cases []Case
}

// Case is a signal on one side while the other is selected.
type Case struct {
	Side     string // A or B: the one that is selected
	Slot     int
	Name     string
	Hears    freq.Hz
	Sends    *freq.Hz // nil where nothing is sent
	Bad      string   // why that must not be, or ""
	Lockable bool     // the radio can block its transmitter there
}

func (s *setting) dual(focus int) Dual {
	d := Dual{Cases: []Case{}}
	unit := s.Unit.Title()
	switch s.Radio.Receivers {
	case radio.DualWatch:
		d.Says = "the selected side sends, whichever it hears"
	case radio.DualReceive:
		d.Says = "both sides are heard at once; the selected one sends"
	default:
		d.Says = fmt.Sprintf("%s has one receiver and no dual watch", unit)
		return d
	}
	b := s.watched()
	if b == nil || focus == scan.None || s.items[focus].Entry.ID == b.Entry.ID {
		d.Asks = b == nil
		if b == nil {
			return d
		}
	}
	a := s.items[max(0, focus)]
	if a.Entry.ID == b.Entry.ID {
		i := slices.IndexFunc(s.items, func(x item) bool { return x.in && x.Entry.ID != b.Entry.ID })
		if i < 0 {
			return d
		}
		a = s.items[i]
	}
	d.Cases = append(d.Cases, s.side("A", a, *b), s.side("B", *b, a))
	return d
}

func (s *setting) side(name string, selected, other item) Case {
	c := Case{Side: name, Slot: selected.Entry.Slot, Name: title(selected), Hears: other.Entry.Channel.Receive, Lockable: s.Radio.Lock}
	ch := selected.Entry.Channel
	tx, ok := ch.Transmit()
	switch reason := selected.stops(); {
	case !ok && s.Radio.Lock:
	case !ok && s.Radio.CanTransmit(ch.Receive):
		c.Sends, c.Bad = &ch.Receive, "receive only, and the radio cannot block its transmitter"
	case !ok:
	default:
		c.Sends, c.Bad = &tx, lower(reason)
		if c.Bad == "" && !s.Radio.CanTransmit(tx) {
			c.Sends = nil
		}
	}
	return c
}
