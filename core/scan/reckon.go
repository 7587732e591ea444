package scan

import (
	"math"
	"slices"
)

// Rounds of the reckoning: how often a channel is found busy follows from the times
// away, and these from how often the others are.
// First with mean times, which is quick, then with times as they are spread.
const (
	settles = 6
	refines = 3
)

// So many channels are gone through in their order; what more of them take is nearly
// the same whatever the order.
const fine = 32

// place is one look in a round: at a channel, with the looks that lie between it and the
// look before at what it hears.
type place struct {
	channel int
	before  int     // the channel of the look before at the same output; itself, unless others hear it too
	gap     gap     // after a look that found nothing
	long    gap     // after a stop
	stop    float64 // the chance that the look stops
	often   float64 // how often it comes in a round
}

// Reckon works out what a scan catches.
func Reckon(s Setup) *Result {
	r, k := begin(s)
	if r.Stuck != None {
		return r.stuck()
	}
	for range settles {
		k.means()
		k.stops()
	}
	if k.many <= fine {
		for range refines {
			k.gaps()
			k.stops()
		}
	}
	k.gaps()
	k.figures()
	return r
}

// begin lays out what is reckoned; nothing where the scan never goes on.
func begin(s Setup) (*Result, *reckoning) {
	n := len(s.Channels)
	r := &Result{Setup: s, Stuck: None, Of: make([]Figures, n), windows: make([][]window, n)}
	if s.Every < 1 {
		s.Every = 1
	}
	in := 0
	for _, c := range s.Channels {
		if !c.away() {
			in++
		}
	}
	if s.Priority < 0 || s.Priority >= n || in < 2 || s.Channels[s.Priority].away() {
		s.Priority = None
	}
	r.Setup = s
	for i, c := range s.Channels {
		r.Of[i].Never = c.Opens > s.Look
		if !c.Always && !r.twin(i) {
			r.Overs += c.Rate
		}
		if c.Always && !c.away() && s.Resume == Carrier && !r.Of[i].Never && r.Stuck == None {
			r.Stuck = i
		}
	}
	if r.Stuck != None {
		return r, nil
	}
	return r, newReckoning(s, r)
}

// twin reports whether a channel before it hears the same overs.
func (r *Result) twin(c int) bool {
	o := r.Setup.Channels[c].Output
	return o != 0 && slices.ContainsFunc(r.Setup.Channels[:c], func(x Channel) bool { return x.Output == o && !x.Always })
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
	many   int       // channels that are scanned
	rest   []int     // of them, the one that has priority, in order
	places [][]place // by channel: the ways in which a look at it comes about
	extra  float64   // looks at the priority channel between two at another
}

func newReckoning(s Setup, r *Result) *reckoning {
	n := len(s.Channels)
	k := &reckoning{s: s, r: r, talks: make([]talk, n), visits: make([]visit, n), stop: make([]float64, n)}
	for i, c := range s.Channels {
		k.talks[i] = talkOf(c)
		k.visits[i] = s.stop(c, k.talks[i])
		if c.away() {
			continue
		}
		k.many++
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

// scale is how large steps are, and how many, that what stops take in some looks of a
// round is drawn finely where it matters.
func (k *reckoning) scale(share float64) (size float64, n int) {
	n = steps
	if k.many > fine && share == 1 {
		n = 8 // so many looks that they vary little beside what they take
	}
	var mean, square float64
	for i := range k.s.Channels {
		often := share
		if i == k.s.Priority {
			if often = max(1, k.extra); share < 1 {
				continue
			}
		}
		takes := k.visits[i].takes
		mean += often * k.stop[i] * takes.mean()
		square += often * k.stop[i] * takes.square()
	}
	return max(0.02, (mean+3.5*math.Sqrt(square))/float64(n-1)), n
}

// extraMean is what stops at a channel add to a round, a look at it.
func (k *reckoning) extraMean(c int) float64 {
	return k.stop[c] * (k.visits[c].mean - k.s.Look)
}

// slope is how much more often a look stops after a long time than after none, when
// everything else took the time before.
func (k *reckoning) slope(c int, before float64) float64 {
	t, v := k.talks[c], k.visits[c]
	if t.begins == 0 || k.s.Channels[c].Always || k.r.Of[c].Never {
		return 0
	}
	fresh := 1 - math.Exp(-t.begins*(k.s.Look-k.s.Channels[c].Opens))
	p := k.stop[c]
	forgets := (1-p)*t.busy*math.Exp(-t.k*k.s.Channels[c].Opens) + p*(t.busy-v.busy)
	return t.lasts(k.s.Channels[c].Opens) * (1 - fresh) * forgets * math.Exp(-t.k*before)
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
		q1 := k.look(c, k.visits[from].busy, 0, w.long)
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
		if s.Channels[c].away() {
			continue
		}
		f := &r.Of[c]
		f.Stop, f.Stayed = k.stop[c], k.visits[c].mean
		own := (1-k.stop[c])*s.Look + k.stop[c]*k.visits[c].mean
		var often float64
		for _, w := range ways {
			p := k.stop[w.before]
			f.Away += (1-p)*w.gap.mean() + p*w.long.mean()
			f.Wait += ((1-p)*w.gap.square() + p*w.long.square()) / 2
			often += w.often
			r.windows[c] = append(r.windows[c], k.window(c, w)...)
		}
		f.Return = f.Away + own
		f.Wait /= f.Return
		f.Share = often * own / round
		f.Stops = 3600 * often * k.stop[c] / round
	}
	k.share()
	best := map[int]float64{} // of what several hear
	for c, ch := range s.Channels {
		if ch.Always {
			continue
		}
		heard := ch.Rate * r.mean(c)
		r.Of[c].Missed = ch.Rate - heard
		if ch.Output == 0 {
			r.Heard += heard
		} else if more := heard - best[ch.Output]; more > 0 {
			best[ch.Output] += more
			r.Heard += more
		}
	}
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
	one := func(g gap, weight, busy, more, early float64) window {
		w := window{talk: k.talks[c], weight: weight, busy: busy, more: more, look: k.s.Look, opens: k.s.Channels[c].Opens, early: early, away: g}
		w.decays = make([]float64, len(g))
		for i, a := range g {
			w.decays[i] = math.Exp(-w.talk.k * (early + a.time + w.look - w.opens))
		}
		return w
	}
	stop := k.stop[from]
	return []window{
		one(p.gap, 1-stop, 0, 0, k.s.Channels[from].Opens),
		one(p.long, stop, v.busy, v.more, 0),
	}
}

// lengths are ten lengths, in means, that stand for a tenth of all overs each: the mean
// of each tenth of a decay.
var lengths = func() (out [10]float64) {
	before := func(share float64) float64 { // the mean of what is longer, times how much that is
		if share >= 1 {
			return 0
		}
		return (1 - share) * (1 - math.Log(1-share))
	}
	n := float64(len(out))
	for i := range out {
		out[i] = n * (before(float64(i)/n) - before(float64(i+1)/n))
	}
	return out
}()

// mean is how much of all overs of a channel is heard, short ones and long ones.
func (r *Result) mean(c int) (m float64) {
	ch := r.Setup.Channels[c]
	for _, l := range lengths {
		m += r.Chance(c, ch.Opens+l*ch.Length) / float64(len(lengths))
	}
	return m * talk{length: max(1e-3, ch.Length)}.lasts(ch.Opens)
}
