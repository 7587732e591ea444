package scan

import "math"

// A gap is how long the receiver may be away from a channel: times with their chances.
type gap []atom

type atom struct{ chance, time float64 }

// stay is what a stop takes beyond a look: a time that is always the same, and one that
// decays about its mean.
type stay struct{ fixed, talk float64 }

func (s stay) mean() float64 { return s.fixed + s.talk }

// square is the mean of the square.
func (s stay) square() float64 { return s.mean()*s.mean() + s.talk*s.talk }

// spread is a distribution over steps of equal size; the last holds all that is longer,
// with its mean.
type spread struct {
	step, mean float64
	n          int // of the steps
	chance     [steps]float64
}

const steps = 24

func newSpread(step float64, n int) spread {
	s := spread{step: step, n: n}
	s.chance[0] = 1
	return s
}

// and is s with a stop that comes with a chance and then takes some time.
func (s spread) and(p float64, takes stay) spread { return s.then(p, growth{}, takes) }

// growth is how the chance of a stop grows with the time that has passed: by slope
// until everything is forgotten, which goes with exp(−k t). What the channel itself took
// before counts too: usual is the mean of its exp(−k t), now what it is this time.
type growth struct{ slope, k, usual, now float64 }

// then is s with a stop whose chance grows with the time. Its mean chance is p.
func (s spread) then(p float64, g growth, takes stay) spread {
	last := s.n - 1
	out := spread{step: s.step, n: s.n, mean: s.mean}
	var stops, decays [steps]float64
	if g.slope == 0 || g.k == 0 {
		for i, x := range s.chance[:s.n] {
			stops[i] = x * p
		}
	} else {
		step, decay, mean := math.Exp(-g.k*s.step), 1.0, 0.0
		for i, x := range s.chance[:s.n] {
			decays[i] = decay
			mean += x * decay
			decay *= step
		}
		for i, x := range s.chance[:s.n] {
			stops[i] = x * min(1, max(0, p+g.slope*(g.usual*mean-g.now*decays[i])))
		}
	}
	var all float64
	for i, x := range s.chance[:s.n] {
		out.chance[i] = x - stops[i]
		all += stops[i]
	}
	out.mean += all * takes.mean()
	at := max(0, takes.fixed) / s.step
	n := int(math.Min(at, float64(last)))
	f := min(1, at-float64(n))
	// What decays does so by the same share in each step, so that its mean is right.
	again := takes.talk / (takes.talk + s.step)
	var talking float64
	for i := range last {
		if i >= n {
			talking += stops[i-n] * (1 - f)
		}
		if i > n {
			talking += stops[i-n-1] * f
		}
		out.chance[i] += talking * (1 - again)
		all -= talking * (1 - again)
		talking *= again
	}
	out.chance[last] += max(0, all)
	return out
}

// plus is the sum of two that do not depend on one another.
func (s spread) plus(o spread) spread {
	out := spread{step: s.step, n: s.n, mean: s.mean + o.mean}
	last := s.n - 1
	for i, x := range s.chance[:s.n] {
		if x == 0 {
			continue
		}
		for k, y := range o.chance[:s.n] {
			out.chance[min(last, i+k)] += x * y
		}
	}
	return out
}

// gap adds the spread to a time that always passes.
func (s spread) gap(base, weight float64) gap {
	out := make(gap, 0, s.n)
	left := s.mean
	last := s.n - 1
	for i, x := range s.chance[:last] {
		t := float64(i) * s.step
		left -= x * t
		if x > 1e-9 {
			out = append(out, atom{x * weight, base + t})
		}
	}
	if x := s.chance[last]; x > 1e-9 {
		out = append(out, atom{x * weight, base + max(float64(last)*s.step, left/x)})
	}
	return out
}

func (g gap) mean() (m float64) {
	for _, a := range g {
		m += a.chance * a.time
	}
	return m
}

func (g gap) square() (m float64) {
	for _, a := range g {
		m += a.chance * a.time * a.time
	}
	return m
}

// decay is the mean of exp(−k t).
func (g gap) decay(k float64) (m float64) {
	for _, a := range g {
		m += a.chance * math.Exp(-k*a.time)
	}
	return m
}
