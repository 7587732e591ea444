package scan

import "math"

// Rounds of the reckoning: how often a channel is found busy follows from the times
// away, and these from how often the others are.
const settles = 8

// place is one look in a round: at a channel, with the looks that lie between it and the
// look before at what it hears.
type place struct {
	channel int
	before  int // the channel of the look before at the same output; itself, unless others hear it too
	gap     gap
	stop    float64 // the chance that the look stops
	often   float64 // how often it comes in a round
}

// Reckon works out what a scan catches.
func Reckon(s Setup) *Result {
	n := len(s.Channels)
	r := &Result{Setup: s, Stuck: None, Of: make([]Figures, n), windows: make([][]window, n)}
	if s.Every < 1 {
		s.Every = 1
	}
	if s.Priority < 0 || s.Priority >= n || n < 2 {
		s.Priority = None
	}
	r.Setup = s
	for i, c := range s.Channels {
		r.Of[i].Never = c.Opens > s.Look
		if !c.Always {
			r.Overs += c.Rate
		}
		if c.Always && s.Resume == Carrier && !r.Of[i].Never && r.Stuck == None {
			r.Stuck = i
		}
	}
	if r.Stuck != None {
		return r.stuck()
	}
	k := newReckoning(s, r)
	for range settles {
		k.gaps()
		k.stops()
	}
	k.gaps()
	k.figures()
	return r
}

// stuck is a scan that never goes on from a carrier.
func (r *Result) stuck() *Result {
	r.Round = math.Inf(1)
	r.Looks = float64(len(r.Setup.Channels))
	for i := range r.Of {
		f := &r.Of[i]
		if i == r.Stuck {
			f.Share, f.Stop = 1, 1
			continue
		}
		f.Return, f.Away, f.Wait = math.Inf(1), math.Inf(1), math.Inf(1)
		if c := r.Setup.Channels[i]; !c.Always {
			f.Missed = c.Rate
		}
	}
	return r
}

type reckoning struct {
	s      Setup
	r      *Result
	talks  []talk
	visits []visit
	stop   []float64 // by channel
	rest   []int     // the channels without the one that has priority, in order
	places [][]place // by channel: the ways in which a look at it comes about
	extra  float64   // looks at the priority channel between two at another
}

func newReckoning(s Setup, r *Result) *reckoning {
	n := len(s.Channels)
	k := &reckoning{s: s, r: r, talks: make([]talk, n), visits: make([]visit, n), stop: make([]float64, n)}
	for i, c := range s.Channels {
		k.talks[i] = talkOf(c)
		k.visits[i] = s.stop(c, k.talks[i])
		if i != s.Priority {
			k.rest = append(k.rest, i)
		}
		switch {
		case r.Of[i].Never:
		case c.Always:
			k.stop[i] = 1
		default:
			k.stop[i] = min(1, c.Rate/3600*max(0, c.Length+s.Look-c.Opens))
		}
	}
	if s.Priority != None {
		k.extra = float64(len(k.rest)) / float64(s.Every)
	}
	return k
}

// steps are so many, and so large, that what stops take in a round is drawn finely
// where it matters.
func (k *reckoning) steps() (size float64, n int) {
	n = 40
	if len(k.s.Channels) > 48 {
		n = 8
	}
	var mean, square float64
	for i := range k.s.Channels {
		often := 1.0
		if i == k.s.Priority {
			often = max(1, k.extra)
		}
		for _, a := range k.visits[i].times {
			p := k.stop[i] * a.chance
			mean += often * p * a.time
			square += often * p * a.time * a.time
		}
	}
	return max(0.02, (mean+3.5*math.Sqrt(square))/float64(n-1)), n
}

// gaps works out how long the receiver is away before each look.
func (k *reckoning) gaps() {
	size, n := k.steps()
	m := len(k.rest)
	pass := func(s spread, c int) spread { return s.and(k.stop[c], k.visits[c].times) }
	k.places = make([][]place, len(k.s.Channels))
	// What the looks at the priority channel take between two at another.
	type share struct {
		spread
		looks, weight float64
	}
	shares := []share{{newSpread(size, n), 0, 1}}
	if p := k.s.Priority; p != None {
		few := math.Floor(k.extra)
		s := newSpread(size, n)
		for range int(few) {
			s = pass(s, p)
		}
		shares = []share{{s, few, 1 - (k.extra - few)}}
		if k.extra > few {
			shares = append(shares, share{pass(s, p), few + 1, k.extra - few})
		}
		// Before a look at it come looks at others, beginning anywhere among them.
		var g gap
		for i := range k.rest {
			s := newSpread(size, n)
			for j := range k.s.Every {
				s = pass(s, k.rest[(i+j)%m])
			}
			g = append(g, s.gap(float64(k.s.Every)*k.s.Look, 1/float64(m))...)
		}
		k.places[p] = []place{{channel: p, before: p, gap: g, stop: k.stop[p], often: k.extra}}
	}
	// All others but one: what comes before it with what comes behind it.
	before := make([]spread, m+1)
	behind := make([]spread, m+1)
	before[0], behind[m] = newSpread(size, n), newSpread(size, n)
	for i, c := range k.rest {
		before[i+1] = pass(before[i], c)
	}
	for i := m - 1; i >= 0; i-- {
		behind[i] = pass(behind[i+1], k.rest[i])
	}
	for i, c := range k.rest {
		others := before[i].plus(behind[i+1])
		var g gap
		for _, x := range shares {
			all := others
			if x.looks > 0 {
				all = others.plus(x.spread)
			}
			g = append(g, all.gap((float64(m-1)+x.looks)*k.s.Look, x.weight)...)
		}
		k.places[c] = []place{{channel: c, before: c, gap: g, stop: k.stop[c], often: 1}}
	}
	k.twins(size, n)
}

// twins shortens the gaps of channels that hear the same output: the look before was
// that at the other one.
func (k *reckoning) twins(size float64, n int) {
	groups := map[int][]int{}
	for i, c := range k.rest {
		if o := k.s.Channels[c].Output; o != 0 && !k.s.Channels[c].Always {
			groups[o] = append(groups[o], i)
		}
	}
	m := len(k.rest)
	for _, g := range groups {
		if len(g) < 2 {
			continue
		}
		for j, i := range g {
			from := g[(j+len(g)-1)%len(g)]
			s := newSpread(size, n)
			between := 0
			for x := (from + 1) % m; x != i; x = (x + 1) % m {
				c := k.rest[x]
				s = s.and(k.stop[c], k.visits[c].times)
				between++
			}
			looks := float64(between)
			if p := k.s.Priority; p != None {
				// on the average as many as fall between
				more := k.extra * (looks + 1) / float64(m)
				v := k.visits[p].mean - k.s.Look
				s = s.and(1, []atom{{1, more * k.stop[p] * v}})
				looks += more
			}
			c := k.rest[i]
			k.places[c] = []place{{channel: c, before: k.rest[from], gap: s.gap(looks*k.s.Look, 1), stop: k.stop[c], often: 1}}
		}
	}
}

// look is the chance that a look stops: where nothing was on the air so long before,
// or something.
func (k *reckoning) look(c int, busy float64, early float64, g gap) float64 {
	t, ch := k.talks[c], k.s.Channels[c]
	if t.begins == 0 {
		return 0
	}
	decay := g.decay(t.k) * math.Exp(-t.k*early)
	on := (1-busy)*t.after(false, decay) + busy*t.after(true, decay)
	return t.lasts(ch.Opens) * (on + (1-on)*(1-math.Exp(-t.begins*(k.s.Look-ch.Opens))))
}

// stops works out how often a look stops, from the times away.
func (k *reckoning) stops() {
	next := make([]float64, len(k.stop))
	for c, ways := range k.places {
		ch := k.s.Channels[c]
		if k.r.Of[c].Never || len(ways) == 0 {
			continue
		}
		if ch.Always {
			next[c] = 1
			continue
		}
		w := ways[0]
		from := w.before
		q0 := k.look(c, 0, k.s.Channels[from].Opens, w.gap)
		q1 := k.look(c, k.visits[from].busy, 0, w.gap)
		if from == c {
			next[c] = q0 / max(1e-9, 1-q1+q0)
		} else {
			next[c] = (1-k.stop[from])*q0 + k.stop[from]*q1
		}
		next[c] = min(1, max(0, next[c]))
	}
	k.stop = next
}

func (k *reckoning) figures() {
	r, s := k.r, k.s
	var round float64
	for c, ways := range k.places {
		for _, w := range ways {
			round += w.often * ((1-k.stop[c])*s.Look + k.stop[c]*k.visits[c].mean)
			r.Looks += w.often
		}
	}
	r.Round = round
	for c, ways := range k.places {
		f := &r.Of[c]
		f.Stop, f.Stayed = k.stop[c], k.visits[c].mean
		own := (1-k.stop[c])*s.Look + k.stop[c]*k.visits[c].mean
		var often float64
		for _, w := range ways {
			f.Away += w.gap.mean()
			f.Wait += w.gap.square() / 2
			often += w.often
			r.windows[c] = append(r.windows[c], k.window(c, w)...)
		}
		f.Return = f.Away + own
		f.Wait /= f.Return
		f.Share = often * own / round
		f.Stops = 3600 * often * k.stop[c] / round
	}
	k.share()
	for c := range r.Of {
		ch := s.Channels[c]
		if ch.Always {
			continue
		}
		missed := ch.Rate * (1 - r.mean(c))
		r.Of[c].Missed = missed
		if !k.counted(c) {
			r.Heard += ch.Rate - missed
		} else {
			r.Overs -= ch.Rate
		}
	}
}

// counted reports whether a channel before it hears the same overs.
func (k *reckoning) counted(c int) bool {
	o := k.s.Channels[c].Output
	if o == 0 {
		return false
	}
	for i := range c {
		if k.s.Channels[i].Output == o && !k.s.Channels[i].Always {
			return true
		}
	}
	return false
}

// share gives channels that hear the same output the same windows: an over is heard at
// whichever is looked at first.
func (k *reckoning) share() {
	all := map[int][]window{}
	for c, w := range k.r.windows {
		if o := k.s.Channels[c].Output; o != 0 {
			all[o] = append(all[o], w...)
		}
	}
	for c := range k.r.windows {
		if o := k.s.Channels[c].Output; o != 0 {
			k.r.windows[c] = all[o]
		}
	}
}

func (k *reckoning) window(c int, p place) []window {
	if k.r.Of[c].Never {
		return nil
	}
	from := p.before
	v := k.visits[from]
	one := func(weight, busy, more, early float64) window {
		w := window{talk: k.talks[c], weight: weight, busy: busy, more: more, look: k.s.Look, opens: k.s.Channels[c].Opens, early: early, away: p.gap}
		w.decays = make([]float64, len(p.gap))
		for i, a := range p.gap {
			w.decays[i] = math.Exp(-w.talk.k * (early + a.time + w.look - w.opens))
		}
		return w
	}
	stop := k.stop[from]
	return []window{
		one(1-stop, 0, 0, k.s.Channels[from].Opens),
		one(stop, v.busy, v.more, 0),
	}
}

// mean is how much of all overs of a channel is heard, short ones and long ones.
func (r *Result) mean(c int) (m float64) {
	const n = 12
	for i := range n {
		m += r.Chance(c, -r.Setup.Channels[c].Length*math.Log(1-(float64(i)+0.5)/n)) / n
	}
	return m
}
