package scan

import (
	"math"
)

// means works out how long the receiver is away before each look in the mean.
func (k *reckoning) means() {
	var round float64
	for _, c := range k.rest {
		round += k.s.Look + k.extraMean(c)
	}
	one := func(c, before int, often, time float64) {
		g := gap{{1, max(0, time)}}
		k.places[c] = []place{{channel: c, before: before, gap: g, long: g, stop: k.stop[c], often: often}}
	}
	k.places = make([][]place, len(k.s.Channels))
	if p := k.s.Priority; p != None {
		one(p, p, k.extra, round*float64(k.s.Every)/float64(len(k.rest)))
		round += k.extra * (k.s.Look + k.extraMean(p))
	}
	for _, c := range k.rest {
		one(c, c, 1, round-k.s.Look-k.extraMean(c))
	}
	if len(k.groups()) > 0 {
		size, n := k.scale(1)
		k.twins(size, n, func(s spread, c, _ int, _ bool) spread { return s.and(k.stop[c], k.visits[c].takes) })
	}
}

// groups are the places in a round of channels that hear the same output.
func (k *reckoning) groups() map[int][]int {
	groups := map[int][]int{}
	for i, c := range k.rest {
		if o := k.s.Channels[c].Output; o != 0 && !k.s.Channels[c].Always {
			groups[o] = append(groups[o], i)
		}
	}
	for o, g := range groups {
		if len(g) < 2 {
			delete(groups, o)
		}
	}
	return groups
}

// gaps works out how long the receiver is away before each look.
func (k *reckoning) gaps() {
	size, n := k.scale(1)
	m := len(k.rest)
	k.places = make([][]place, len(k.s.Channels))
	var round float64 // what stops add to one
	for _, c := range k.rest {
		round += k.extraMean(c)
	}
	looks := float64(m)
	if p := k.s.Priority; p != None {
		round += k.extra * k.extraMean(p)
		looks += k.extra
	}
	// A look at a channel after others took some time: the longer, the likelier a stop.
	pass := func(s spread, c, own int, stopped bool) spread {
		ms := k.talks[c].k
		took, p := k.visits[own].mean-k.s.Look, k.stop[own]
		g := growth{k: ms, usual: 1 - p + p*math.Exp(-ms*took), now: 1}
		if stopped {
			g.now = math.Exp(-ms * took)
		}
		g.slope = k.slope(c, (looks-1)*k.s.Look+max(0, round-k.extraMean(c)-k.extraMean(own)-s.mean))
		return s.then(k.stop[c], g, k.visits[c].takes)
	}
	type share struct {
		looks, weight float64
		takes         spread // that the looks at the priority channel stop
	}
	shares := []share{{0, 1, newSpread(size, n)}}
	if p := k.s.Priority; p != None {
		few := math.Floor(k.extra)
		some := newSpread(size, n)
		for range int(few) {
			some = some.and(k.stop[p], k.visits[p].takes)
		}
		shares = []share{{few, 1 - (k.extra - few), some}, {few + 1, k.extra - few, some.and(k.stop[p], k.visits[p].takes)}}
		// Before a look at it come looks at others, beginning anywhere among them.
		at := place{channel: p, before: p, stop: k.stop[p], often: k.extra}
		for stopped, to := range map[bool]*gap{false: &at.gap, true: &at.long} {
			for i := range k.rest {
				s := newSpread(k.scale(min(1, float64(k.s.Every)/float64(m))))
				for j := range k.s.Every {
					s = pass(s, k.rest[(i+j)%m], p, stopped)
				}
				*to = append(*to, s.gap(float64(k.s.Every)*k.s.Look, 1/float64(m))...)
			}
		}
		k.places[p] = []place{at}
	}
	others := k.others(size, n, pass)
	for i, c := range k.rest {
		at := place{channel: c, before: c, stop: k.stop[c], often: 1}
		for j, g := range []*gap{&at.gap, &at.long} {
			for _, x := range shares {
				if x.weight <= 0 {
					continue
				}
				all := others[i][j]
				if x.looks > 0 {
					all = all.plus(x.takes)
				}
				*g = append(*g, all.gap((float64(m-1)+x.looks)*k.s.Look, x.weight)...)
			}
		}
		k.places[c] = []place{at}
	}
	k.twins(size, n, pass)
}

// one works out only how long the receiver is away from one channel, as it is spread.
func (k *reckoning) one(c int) {
	if len(k.places[c]) == 0 || k.places[c][0].before != c { // others hear the same
		return
	}
	at := &k.places[c][0]
	share, looks := 1.0, 0.0
	if c == k.s.Priority {
		share = min(1, float64(k.s.Every)/float64(len(k.rest)))
	}
	s := newSpread(k.scale(share))
	if c == k.s.Priority {
		// so many of the others, whichever they are
		var p, takes float64
		for _, o := range k.rest {
			p += k.stop[o] / float64(len(k.rest))
			takes += k.extraMean(o) / float64(len(k.rest))
		}
		for range k.s.Every {
			s = s.and(p, stay{fixed: takes / max(1e-9, p)})
		}
		looks = float64(k.s.Every)
	} else {
		for _, o := range k.rest {
			if o != c {
				s = s.and(k.stop[o], k.visits[o].takes)
			}
		}
		looks = float64(len(k.rest) - 1)
		if p := k.s.Priority; p != None {
			for range int(k.extra + 0.5) {
				s = s.and(k.stop[p], k.visits[p].takes)
			}
			looks += k.extra
		}
	}
	at.gap = s.gap(looks*k.s.Look, 1)
	at.long = at.gap
}

// passing is a time with a look at a channel, before which another one was looked at.
type passing func(s spread, c, own int, stopped bool) spread

// others is what stops at all others take between two looks at each channel, where the
// first found nothing and where it stopped.
func (k *reckoning) others(size float64, n int, pass passing) [][2]spread {
	m := len(k.rest)
	out := make([][2]spread, m)
	if m <= fine {
		for i, own := range k.rest {
			s, long := newSpread(size, n), newSpread(size, n)
			for j := 1; j < m; j++ {
				c := k.rest[(i+j)%m]
				s, long = pass(s, c, own, false), pass(long, c, own, true)
			}
			out[i] = [2]spread{s, long}
		}
		return out
	}
	// With many, one more or less: what comes before it with what comes behind it.
	before, behind := make([]spread, m+1), make([]spread, m+1)
	before[0], behind[m] = newSpread(size, n), newSpread(size, n)
	for i, c := range k.rest {
		before[i+1] = before[i].and(k.stop[c], k.visits[c].takes)
	}
	for i := m - 1; i >= 0; i-- {
		behind[i] = behind[i+1].and(k.stop[k.rest[i]], k.visits[k.rest[i]].takes)
	}
	for i := range k.rest {
		s := before[i].plus(behind[i+1])
		out[i] = [2]spread{s, s}
	}
	return out
}

// twins shortens the gaps of channels that hear the same output: the look before was
// that at the other one.
func (k *reckoning) twins(size float64, n int, pass passing) {
	m := len(k.rest)
	for _, g := range k.groups() {
		for j, i := range g {
			from := g[(j+len(g)-1)%len(g)]
			at := place{channel: k.rest[i], before: k.rest[from], stop: k.stop[k.rest[i]], often: 1}
			for stopped, to := range map[bool]*gap{false: &at.gap, true: &at.long} {
				s := newSpread(size, n)
				looks := 0.0
				for x := (from + 1) % m; x != i; x = (x + 1) % m {
					s = pass(s, k.rest[x], at.before, stopped)
					looks++
				}
				if p := k.s.Priority; p != None {
					more := k.extra * (looks + 1) / float64(m) // on the average
					s = s.and(1, stay{fixed: more * k.extraMean(p)})
					looks += more
				}
				*to = s.gap(looks*k.s.Look, 1)
			}
			k.places[at.channel] = []place{at}
		}
	}
}
