package relay

import (
	"cmp"
	"fmt"
	"slices"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
)

// Link is a frequency for the link, with how clear it is of what could disturb it or be
// disturbed by it.
type Link struct {
	Freq      freq.Hz
	Label     string // what the band plan calls the part
	Ask       bool   // the part is for links, and co-ordinated
	Calling   freq.Hz
	CallingAt freq.Hz // the calling channel that is nearest; 0 for none in the band
	Product   freq.Hz // how far the nearest harmonic or product is from a receiver in the car
	Of        string  // which that is
	Listed    freq.Hz
	ListedAt  freq.Hz // the published frequency that is nearest; 0 for none
	Edge      freq.Hz // to the nearer end of the part, behind which others are
	Clear     freq.Hz // the least of all
	Now       bool    // it is the link of the set-up
}

// What a link keeps clear of, in Hz. Wide speech takes 16 kHz (Carson: twice 5 and 3 kHz);
// 25 kHz leave both ends room to be off. Common practice, no source.
const (
	occupied = 16_000
	clear    = 25_000
	apart    = 50_000 // between proposals, so that they are a choice
)

// Product is a harmonic or mixing product of the two transmitters in the car.
type Product struct {
	M, N int // times the other side's and the link's frequency
	Freq freq.Hz
}

// String names it: "3 × 144.690".
func (p Product) of(other, link freq.Hz) string {
	term := func(n int, f freq.Hz) string {
		switch n {
		case 0:
			return ""
		case 1, -1:
			return f.MHz()
		}
		return fmt.Sprintf("%d × %s", max(n, -n), f.MHz())
	}
	a, b := term(p.M, other), term(p.N, link)
	switch {
	case a == "":
		return b
	case b == "":
		return a
	case p.N < 0:
		return a + " − " + b
	case p.M < 0:
		return b + " − " + a
	}
	return a + " + " + b
}

// Products are the second and third harmonics of two transmitters and their mixing products
// of these orders.
func Products(a, b freq.Hz) (out []Product) {
	for m := -3; m <= 3; m++ {
		for n := -3; n <= 3; n++ {
			order := max(m, -m) + max(n, -n)
			if f := freq.Hz(m)*a + freq.Hz(n)*b; order >= 2 && order <= 3 && f > 0 {
				out = append(out, Product{m, n, f})
			}
		}
	}
	return out
}

// nearest is the product that is nearest to a receiver in the car.
func nearest(other, link freq.Hz, receivers ...freq.Hz) (away freq.Hz, of string) {
	away = -1
	for _, p := range Products(other, link) {
		for _, r := range receivers {
			if d := gap(p.Freq, r); away < 0 || d < away {
				away, of = d, p.of(other, link)
			}
		}
	}
	return away, of
}

func gap(a, b freq.Hz) freq.Hz { return max(a-b, b-a) }

// measure is how clear a frequency is as the link on a side.
func measure(s Setup, letter string, f freq.Hz, sorted []freq.Hz) Link {
	side, l := s.side(other(letter)), Link{Freq: f}
	if seg, ok := s.Plan.Segment(f); ok {
		l.Label, l.Ask, l.Edge = seg.Label, seg.Use == band.Auxiliary, min(f-seg.Lower, seg.Upper-f)
	}
	l.Clear = l.Edge
	if b, ok := s.Plan.Band(f); ok {
		for _, c := range slices.Concat(b.Calling, s.Plan.APRS) {
			if d := gap(c, f); b.Holds(c) && (l.CallingAt == 0 || d < l.Calling) {
				l.Calling, l.CallingAt = d, c
			}
		}
		if l.CallingAt != 0 {
			l.Clear = min(l.Clear, l.Calling)
		}
	}
	if tx, sends := side.sends(); sends && side.Channel.Receive > 0 {
		l.Product, l.Of = nearest(tx, f, f, side.Channel.Receive)
		l.Clear = min(l.Clear, l.Product)
	}
	if i, _ := slices.BinarySearch(sorted, f); len(sorted) > 0 {
		for _, k := range []int{i - 1, i} {
			if k >= 0 && k < len(sorted) && (l.ListedAt == 0 || gap(sorted[k], f) < l.Listed) {
				l.Listed, l.ListedAt = gap(sorted[k], f), sorted[k]
			}
		}
		l.Clear = min(l.Clear, l.Listed)
	}
	l.Now = f == s.side(letter).Channel.Receive
	return l
}

// Propose finds frequencies for the link on a side, best first: simplex parts, then parts
// for links that want to be asked for; in each what is clearest. The one that is set stands
// last, for comparison.
func Propose(s Setup, letter string) []Link {
	far, own := s.side(other(letter)), s.side(letter).Channel.Receive
	sorted := slices.Clone(s.Published)
	slices.Sort(sorted)
	var all []Link
	for i := range s.Plan.Bands {
		b := &s.Plan.Bands[i]
		if !b.Transmit || far.Channel.Receive == 0 || (b.Lower < uhf) == (far.Channel.Receive < uhf) || !used(s, b, own) {
			continue
		}
		for _, seg := range b.Segments {
			if seg.Use == band.Simplex || seg.Use == band.Auxiliary {
				all = append(all, within(s, letter, b, seg, sorted)...)
			}
		}
	}
	slices.SortStableFunc(all, func(a, b Link) int {
		if a.Ask != b.Ask {
			return map[bool]int{false: -1, true: 1}[a.Ask]
		}
		return cmp.Or(cmp.Compare(b.Clear, a.Clear), cmp.Compare(b.Calling, a.Calling), cmp.Compare(a.Freq, b.Freq))
	})
	most := map[bool]int{false: 4, true: 2}
	var out []Link
	for _, l := range all {
		if most[l.Ask] > 0 && !slices.ContainsFunc(out, func(o Link) bool { return gap(o.Freq, l.Freq) < apart }) {
			most[l.Ask]--
			out = append(out, l)
		}
	}
	if own > 0 && !slices.ContainsFunc(out, func(l Link) bool { return l.Now }) {
		out = append(out, measure(s, letter, own, sorted))
	}
	return out
}

// used reports whether a band is that of the link, or one in which a link belongs at all
// where none is set.
func used(s Setup, b *band.Band, own freq.Hz) bool {
	if own > 0 && (own < uhf) == (b.Lower < uhf) {
		return b.Holds(own)
	}
	return s.Vehicle.Radio == nil || s.Vehicle.Radio.CanTransmit(b.Lower+(b.Upper-b.Lower)/2)
}

// within are the frequencies of a segment that may be a link.
func within(s Setup, letter string, b *band.Band, seg band.Segment, sorted []freq.Hz) (out []Link) {
	const fine = 2_500
	for f := (seg.Lower + fine - 1) / fine * fine; f <= seg.Upper; f += fine {
		if f-occupied/2 < seg.Lower || f+occupied/2 > seg.Upper || !seg.Holds(f) || !b.OnRaster(f) || bar(s.Plan.Region, f) != nil || !s.tunes(f) {
			continue
		}
		if slices.ContainsFunc(s.Planned, func(p freq.Hz) bool { return gap(p, f) < occupied && p != s.side(letter).Channel.Receive }) {
			continue
		}
		if l := measure(s, letter, f, sorted); l.Clear >= clear {
			out = append(out, l)
		}
	}
	return out
}

// tunes reports whether both radios send and hear on a frequency.
func (s Setup) tunes(f freq.Hz) bool {
	for _, u := range []Unit{s.Vehicle, s.Hand} {
		if u.Radio == nil {
			continue
		}
		if _, ok := u.Radio.Step(f); !ok || !u.Radio.CanReceive(f) || !u.Radio.CanTransmit(f) {
			return false
		}
	}
	return true
}

// bar is who must keep out of a frequency, or nil.
func bar(region string, f freq.Hz) *barred {
	for i, x := range data.Barred[region] {
		if slices.ContainsFunc(x.Spans, func(s band.Span) bool { return s.Holds(f) }) {
			return &data.Barred[region][i]
		}
	}
	return nil
}

// Linked is a channel for a link on a frequency: simplex, with a tone both ways.
func Linked(c channel.Channel, f freq.Hz) channel.Channel {
	c.Receive, c.Side = f, channel.TransmitSide{Kind: channel.Simplex}
	return c
}
