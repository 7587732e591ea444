package entry

import (
	"cmp"
	"slices"
)

// beam is how many ways through the line are kept at each token. It bounds
// the work whatever is pasted; a line of an operator needs a handful.
const beam = 24

// search returns the cheapest way through the tokens and the next cheapest
// that says something else, or nil.
func (r *reading) search() (best, second *state) {
	n := len(r.tokens)
	at := make([][]*state, n+1)
	at[0] = []*state{{r: r}}
	for i := range n {
		ways := narrowed(at[i])
		if len(ways) == 0 {
			continue
		}
		unread := edge{pattern: &notUnderstood, n: 1, cost: unreadable}
		if r.at(i).sign() && r.at(i+1).number() && r.at(i+1).glued {
			unread.n = 2 // "-600" is one thing
		}
		edges := append(r.edges(i), unread)
		for _, s := range ways {
			for j := range edges {
				if t, ok := s.take(&edges[j], i); ok {
					at[i+edges[j].n] = append(at[i+edges[j].n], t)
				}
			}
		}
		at[i] = nil
	}
	ends := at[n]
	for _, s := range ends {
		s.finish()
	}
	ends = narrowed(ends)
	for _, s := range ends[1:] {
		if s.says() != ends[0].says() {
			return ends[0], s
		}
	}
	return ends[0], nil
}

var notUnderstood = Pattern{As: AsUnknown, take: func(*state, []value) bool { return true }}

// take follows an edge, if what it says can stand beside what was read before.
func (s *state) take(e *edge, at int) (*state, bool) {
	t := *s
	t.prev, t.edge, t.at, t.n, t.cost = s, e, at, s.n+1, s.cost+e.cost
	if t.naming == 1 && e.pattern.As != AsName && e.pattern.As != AsCallsign {
		t.naming = 2
	}
	if e.problem != "" {
		t.cost += refused
	}
	for _, v := range e.v {
		if v.late && e.pattern.ID == "tone" && !s.has(fReceive|fTransmit) {
			return nil, false
		}
	}
	if !e.pattern.take(&t, e.v) {
		return nil, false
	}
	return &t, true
}

// narrowed sorts ways by cost, drops those that say the same, and keeps the
// best.
func narrowed(ways []*state) []*state {
	slices.SortStableFunc(ways, func(a, b *state) int { return cmp.Or(cmp.Compare(a.cost, b.cost), cmp.Compare(a.n, b.n)) })
	seen := map[facts]bool{}
	out := ways[:0]
	for _, s := range ways {
		if seen[s.facts] || len(out) == beam {
			continue
		}
		seen[s.facts] = true
		out = append(out, s)
	}
	return out
}

// says is what two ways have to differ in to be two readings.
func (s *state) says() facts {
	f := s.facts
	f.taken, f.naming, f.use, f.unusual, f.band, f.access = 0, 0, nil, 0, "", ""
	return f
}

// finish adds what can be told only at the end of the line.
func (s *state) finish() {
	if b, ok := s.r.plan.Band(max(s.receive, s.transmit)); s.unusual != 0 && !(ok && s.r.usualIn(b, s.size)) {
		s.cost += s.unusual
	}
	if s.band != "" && !s.inBand() {
		s.cost += refused
	}
	if s.has(fBoth) && !s.has(fToneOut) {
		s.cost += refused
	}
}

// inBand reports whether the frequency lies in the band that was named.
func (s *state) inBand() bool {
	f := max(s.receive, s.transmit)
	if s.receive != 0 {
		f = s.receive
	}
	switch s.band {
	case "vhf":
		return f.Within(30_000_000, 300_000_000)
	case "uhf":
		return f.Within(300_000_000, 3_000_000_000)
	}
	b, ok := s.r.plan.Band(f)
	return ok && b.Name == s.band
}
