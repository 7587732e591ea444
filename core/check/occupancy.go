package check

import (
	"cmp"
	"slices"
	"sort"

	"mnemos/core/channel"
	"mnemos/core/freq"
)

// Other is another channel of the same radio.
type Other struct {
	Slot    int
	Channel channel.Channel
}

// Occupancy is what a radio holds, arranged so that a rule finds the channels that
// meet another one without reading them all: a plan of a thousand channels
// would otherwise compare a million pairs. A nil roll is an empty radio.
type Occupancy struct {
	bySlot   map[int]Other
	byName   map[string][]Other
	receives []Other // by receive frequency
	sends    []Other // by transmit frequency, those that transmit
}

// NewOccupancy arranges the channels of a radio.
func NewOccupancy(channels []Other) *Occupancy {
	r := &Occupancy{bySlot: map[int]Other{}, byName: map[string][]Other{}}
	for _, o := range channels {
		r.bySlot[o.Slot] = o
		if o.Channel.Name != "" {
			r.byName[o.Channel.Name] = append(r.byName[o.Channel.Name], o)
		}
		if _, sends := o.Channel.Transmit(); sends {
			r.sends = append(r.sends, o)
		}
	}
	r.receives = slices.Clone(channels)
	slices.SortStableFunc(r.receives, func(a, b Other) int { return cmp.Compare(receives(a), receives(b)) })
	slices.SortStableFunc(r.sends, func(a, b Other) int { return cmp.Compare(transmits(a), transmits(b)) })
	return r
}

func receives(o Other) freq.Hz { return o.Channel.Receive }

func transmits(o Other) freq.Hz { tx, _ := o.Channel.Transmit(); return tx }

// between returns the part of a sorted list in a closed range.
func between(list []Other, of func(Other) freq.Hz, lower, upper freq.Hz) []Other {
	from := sort.Search(len(list), func(i int) bool { return of(list[i]) >= lower })
	to := sort.Search(len(list), func(i int) bool { return of(list[i]) > upper })
	return list[from:max(from, to)]
}

// in returns the channel in a slot.
func (r *Occupancy) in(slot int) (Other, bool) {
	if r == nil {
		return Other{}, false
	}
	o, ok := r.bySlot[slot]
	return o, ok
}

// named, receiving and sending return the channels with a name, and those
// that receive or transmit within a closed range.
func (r *Occupancy) named(name string) []Other {
	if r == nil {
		return nil
	}
	return r.byName[name]
}

func (r *Occupancy) receiving(lower, upper freq.Hz) []Other {
	if r == nil {
		return nil
	}
	return between(r.receives, receives, lower, upper)
}

func (r *Occupancy) sending(lower, upper freq.Hz) []Other {
	if r == nil {
		return nil
	}
	return between(r.sends, transmits, lower, upper)
}

// first returns the first of some channels that is another one than the
// subject: a stored channel stands in the roll itself.
func (p *Pass) first(list []Other, fits func(Other) bool) (Other, bool) {
	i := slices.IndexFunc(list, func(o Other) bool {
		own := p.Draft == nil && p.Slot != nil && *p.Slot == o.Slot
		return !own && fits(o)
	})
	if i < 0 {
		return Other{}, false
	}
	return list[i], true
}

func whichever(Other) bool { return true }
