package find

import (
	"cmp"
	"math"
	"slices"
	"strconv"
	"time"

	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/listing"
)

// Row is an entry that was found, as it is seen from where one is.
type Row struct {
	*Entry
	Distance *float64 // kilometres; nil if either place is unknown
	Bearing  float64  // degrees from where one looks; counts only with Distance
	Reach    float64  // kilometres to which it may be heard
	Horizon  bool     // Reach is its radio horizon, from a published height
	Slots    []Slot   // that hold it, those of the radio that is looked at first
	Cannot   string   // why the radio cannot use it, or ""
	Trust    Trust
}

// Mine returns the first slot of the radio that is looked at, or nil.
func (r *Row) Mine() *Slot {
	if len(r.Slots) > 0 && r.Slots[0].Mine {
		return &r.Slots[0]
	}
	return nil
}

// Missing reports whether the radio could have it and does not.
func (r *Row) Missing() bool { return r.Mine() == nil && r.Cannot == "" }

// LeftOut is how many a word left out of what those before it kept.
type LeftOut struct {
	Word   int // which word
	Rest   string
	Number int
}

// Result is what a line found.
type Result struct {
	Query
	Rows                  []Row // the first of them in their order
	Found                 int
	Held, Missing, Cannot int
	Trusts                map[evidence.Verdict]int
	LeftOut               []LeftOut
	Nowhere               int // of those found that have no position
}

// Search returns what a line finds, the first so many of it in full.
func (b *Book) Search(line string, s *Scene, most int) Result {
	q := Read(line, b, s)
	found := b.keep(&q, s)
	out := Result{Query: q, Found: len(found.all), LeftOut: found.left, Trusts: map[evidence.Verdict]int{}}
	for i := range found.all {
		x := &found.all[i]
		switch {
		case x.mine:
			out.Held++
		case x.cannot != "":
			out.Cannot++
		default:
			out.Missing++
		}
		out.Trusts[x.trust().Verdict]++
		if !x.Placed() {
			out.Nowhere++
		}
	}
	for _, x := range first(found.all, q.Order, most) {
		out.Rows = append(out.Rows, x.row())
	}
	return out
}

// found is what the words of a line keep.
type found struct {
	all  []seen
	left []LeftOut
}

// keep looks at every entry with every word.
func (b *Book) keep(q *Query, s *Scene) found {
	f := s.frame(q)
	held := b.held(s)
	left := make([]int, len(q.Words))
	anywhere := make([]bool, len(q.Words))
	var out found
	for i := range b.entries {
		x := seen{Entry: &b.entries[i], frame: f, held: held[i]}
		x.mine = len(x.held) > 0 && x.held[0].Mine
		if s.Cannot != nil {
			x.cannot = s.Cannot(&x.Best)
		}
		if f.from != nil && x.Placed() {
			x.km = roughly(f.from.at, x.at)
		}
		kept := true
		for w := range q.Words {
			word := &q.Words[w]
			if word.keep == nil || !kept && (!word.text || anywhere[w]) {
				continue
			}
			if word.keep(&x) {
				anywhere[w] = true
				continue
			}
			if kept {
				left[w]++
				kept = false
			}
		}
		if kept {
			out.all = append(out.all, x)
		}
	}
	for w := range q.Words {
		word := &q.Words[w]
		if word.text && !anywhere[w] && len(b.entries) > 0 {
			word.State, word.Says = Doubt, "Nothing published here has "+strconv.Quote(word.Text)+": type fewer letters, or another word"
		}
		if left[w] > 0 {
			out.left = append(out.left, LeftOut{w, word.Rest, left[w]})
		}
	}
	return out
}

// held are the slots by entry.
func (b *Book) held(s *Scene) map[int][]Slot {
	out := map[int][]Slot{}
	for _, slot := range s.Slots {
		from, _ := slices.BinarySearchFunc(b.entries, slot.Channel.Receive, func(e Entry, f freq.Hz) int { return cmp.Compare(e.Best.Output, f) })
		for i := from; i < len(b.entries) && b.entries[i].Best.Output == slot.Channel.Receive; i++ {
			if slot.holds(&b.entries[i]) {
				out[i] = append(out[i], slot)
			}
		}
	}
	for i := range out {
		slices.SortStableFunc(out[i], func(x, y Slot) int {
			return cmp.Or(cmp.Compare(rank(x), rank(y)), cmp.Compare(x.Load, y.Load), cmp.Compare(x.Number, y.Number))
		})
	}
	return out
}

func rank(s Slot) int {
	if s.Mine {
		return 0
	}
	return 1
}

func (s *Scene) frame(q *Query) *frame {
	return &frame{s, s.origin(q), day(s).AddDate(0, -s.Stale, 0)}
}

// origin is where a line is looked at from, or nil.
func (s *Scene) origin(q *Query) *origin {
	p := s.Place
	if q.From != nil {
		p = q.From
	}
	if p == nil {
		return nil
	}
	return &origin{*p, vectorOf(*p)}
}

// first returns the first so many in an order. What is far away is sorted out by
// its distance on the sphere, and only what may be among the first is measured.
func first(all []seen, by Order, most int) []*seen {
	out := make([]*seen, len(all))
	for i := range all {
		out[i] = &all[i]
	}
	if by == ByFrequency {
		return out[:min(most, len(out))] // the book is in that order
	}
	share := func(x *seen, km float64) float64 {
		if by == ByReach {
			reach, _ := x.reach()
			return km / reach
		}
		return km
	}
	rough := func(x *seen) float64 {
		if x.from == nil || !x.Placed() {
			return math.MaxFloat64
		}
		return share(x, x.km)
	}
	if most < len(out) {
		keys := make([]float64, len(out))
		for i, x := range out {
			keys[i] = rough(x)
		}
		slices.Sort(keys)
		last := keys[most-1] * (1 + 3*off)
		out = slices.DeleteFunc(out, func(x *seen) bool { return rough(x) > last })
	}
	exactly := func(x *seen) float64 {
		km, _, ok := x.away()
		if !ok {
			return math.MaxFloat64
		}
		return share(x, km)
	}
	slices.SortStableFunc(out, func(x, y *seen) int { return cmp.Compare(exactly(x), exactly(y)) })
	return out[:min(most, len(out))]
}

// reach is how far the entry may be heard, and whether that is its horizon.
func (x *seen) reach() (km float64, horizon bool) {
	return listing.Reach(&x.Best, x.scene.Height)
}

// audible reports whether it may be heard where one is.
func (x *seen) audible() bool {
	reach, _ := x.reach()
	return x.within(max(reach, listing.Nearby))
}

func (x *seen) row() Row {
	r := Row{Entry: x.Entry, Slots: x.held, Trust: x.trust()}
	if !x.mine {
		r.Cannot = x.cannot
	}
	r.Reach, r.Horizon = x.reach()
	if km, bearing, ok := x.away(); ok {
		r.Distance, r.Bearing = &km, bearing
	}
	return r
}

// Row is one entry as a line sees it, whether the line finds it or not.
func (b *Book) Row(line string, id listing.ID, s *Scene) (Row, bool) {
	e := b.Entry(id)
	if e == nil {
		return Row{}, false
	}
	q := Read(line, b, s)
	x := seen{Entry: e, frame: s.frame(&q), held: b.held(s)[b.of[id]]}
	x.mine = len(x.held) > 0 && x.held[0].Mine
	if s.Cannot != nil {
		x.cannot = s.Cannot(&x.Best)
	}
	return x.row(), true
}

func day(s *Scene) time.Time {
	y, m, d := s.Today.Date()
	return time.Date(y, m, d, 0, 0, 0, 0, time.UTC)
}

// Nearby returns all that lies within a distance, in the order of the outputs;
// without a place it is nothing.
func (b *Book) Nearby(s *Scene, km float64) []Row {
	if s.Place == nil {
		return nil
	}
	q := Query{Within: km}
	var out []Row
	for _, x := range b.keep(&q, s).all {
		if x.within(km) {
			out = append(out, x.row())
		}
	}
	return out
}
