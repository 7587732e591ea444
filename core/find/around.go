package find

import (
	"cmp"
	"math"
	"slices"

	"mnemos/core/evidence"
	"mnemos/core/listing"
)

// Around is what can be said before anybody has chosen anything.
type Around struct {
	Within    float64 // kilometres that it is about; 0 for however far
	Missing   []Row   // the nearest that the radio lacks and that anybody may use from here
	Doubt     []Row   // what it holds and what is not right with it, the gravest first
	Held      int     // how many the radio holds of what is around
	Bands     []BandCount
	Other     int   // outside the bands that the radio can use
	Confirmed []Row // confirmed last by a listing
	Thin      *Thin // nil without a place, or where no direction is thinner
}

// BandCount is what is held and missing of a band.
type BandCount struct {
	Name                  string
	Held, Missing, Cannot int
}

// Thin is the direction of which the radio holds the least.
type Thin struct {
	Direction string
	Held, All int
	Within    float64
}

// near is within how many kilometres the directions are compared. Common
// practice, no source: what a handheld may reach.
const reached = 60.0

// Around answers what is around a place, for a line that may name another one.
func (b *Book) Around(line string, s *Scene, most int) Around {
	q := Read(line, b, s)
	q.Words = slices.DeleteFunc(q.Words, func(w Word) bool { return w.Menu != "from" })
	all := b.keep(&q, s).all
	from := s.origin(&q)
	out := Around{}
	if from != nil {
		out.Within = s.Radius
		all = slices.DeleteFunc(all, func(x seen) bool { return !x.within(s.Radius) })
	}
	ordered := first(all, ByDistance, len(all))
	for _, x := range ordered {
		if len(out.Missing) < most && x.usable() && !x.mine && (from == nil || x.audible()) {
			out.Missing = append(out.Missing, x.row())
		}
		if x.mine {
			out.Held++
			if x.doubtful() {
				out.Doubt = append(out.Doubt, x.row())
			}
		}
	}
	slices.SortStableFunc(out.Doubt, func(x, y Row) int { return cmp.Compare(x.grave(), y.grave()) })
	out.Doubt = out.Doubt[:min(most+1, len(out.Doubt))]
	out.bands(all, s)
	out.confirmed(ordered, most+1)
	if from != nil {
		out.thin(all)
	}
	return out
}

// usable reports whether anybody may use it with FM and with this radio.
func (x *seen) usable() bool {
	t := x.trust()
	return x.cannot == "" && t.Verdict != evidence.Stop && x.Best.Status != listing.OffAir && x.Best.Access != listing.Closed && x.Best.IsRepeater()
}

// doubtful reports whether something is not right with what is held: the channel
// is otherwise than published, or what is published cannot be relied on.
func (x *seen) doubtful() bool {
	t := x.trust()
	return x.held[0].Why != "" || t.Verdict != evidence.Agrees && t.Says != "only one"
}

var gravity = []evidence.Verdict{evidence.Stop, evidence.Conflict, evidence.Unverified, evidence.Agrees}

// grave is how grave the worst is that can be said about what is held; less is
// graver.
func (r *Row) grave() int {
	v, _ := r.Doubt()
	return slices.Index(gravity, v)
}

// Doubt is the worst that can be said about what is held, in a few words.
func (r *Row) Doubt() (evidence.Verdict, string) {
	if m := r.Mine(); m != nil && m.Why != "" && slices.Index(gravity, m.Verdict) <= slices.Index(gravity, r.Trust.Verdict) {
		return m.Verdict, m.Why
	}
	return r.Trust.Verdict, r.Trust.Says
}

func (a *Around) bands(all []seen, s *Scene) {
	at := map[string]int{}
	for i := range all {
		x := &all[i]
		if x.Best.Mode == listing.Digital {
			continue
		}
		b, ok := s.Band.Band(x.Best.Output)
		if !ok {
			continue
		}
		n, known := at[b.Name]
		if !known {
			n = len(a.Bands)
			at[b.Name] = n
			a.Bands = append(a.Bands, BandCount{Name: b.Name})
		}
		switch c := &a.Bands[n]; {
		case x.mine:
			c.Held++
		case x.cannot != "":
			c.Cannot++
		default:
			c.Missing++
		}
	}
	a.Bands = slices.DeleteFunc(a.Bands, func(c BandCount) bool {
		if c.Held+c.Missing > 0 {
			return false
		}
		a.Other += c.Cannot
		return true
	})
}

func (a *Around) confirmed(all []*seen, most int) {
	dated := slices.DeleteFunc(slices.Clone(all), func(x *seen) bool {
		_, known := x.scene.Days(&x.Best)
		return !known || !x.mine && !x.usable()
	})
	slices.SortStableFunc(dated, func(x, y *seen) int { return y.Best.Updated.Compare(x.Best.Updated.Time) })
	for _, x := range dated[:min(most, len(dated))] {
		a.Confirmed = append(a.Confirmed, x.row())
	}
}

// thin finds the direction of whose repeaters the radio holds the smallest share;
// one alone is no direction.
func (a *Around) thin(all []seen) {
	var held, of [8]int
	for i := range all {
		x := &all[i]
		if !x.within(reached) || x.Best.Mode == listing.Digital || x.cannot != "" && !x.mine || !x.Best.IsRepeater() {
			continue
		}
		_, bearing, _ := x.away()
		of[octant(bearing)]++
		if x.mine {
			held[octant(bearing)]++
		}
	}
	best, at := math.MaxFloat64, -1
	for i := range of {
		if of[i] < 2 || held[i] == of[i] {
			continue
		}
		if share := float64(held[i]) / float64(of[i]); share < best || share == best && of[i] > of[at] {
			best, at = share, i
		}
	}
	if at >= 0 {
		a.Thin = &Thin{directions[at], held[at], of[at], reached}
	}
}
