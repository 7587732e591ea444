package scan

import "math"

// A gap is how long the receiver may be away from a channel: times with their chances.
type gap []atom

type atom struct{ chance, time float64 }

// laguerre are three times, in means, with chances that have the first five moments
// of a decay: the nodes of Gauss and Laguerre (Abramowitz and Stegun 25.4.45).
var laguerre = []atom{{0.711093009929, 0.415774556783}, {0.278517733569, 2.294280360279}, {0.010389256502, 6.289945082937}}

// spread is a distribution over steps of equal size; the last holds all that is longer,
// with its mean.
type spread struct {
	step   float64
	chance []float64
	mean   float64
}

func newSpread(step float64, n int) spread {
	s := spread{step: step, chance: make([]float64, n)}
	s.chance[0] = 1
	return s
}

// and is s with a stop that comes with a chance and then takes one of some times.
func (s spread) and(p float64, times []atom) spread {
	out := spread{step: s.step, chance: make([]float64, len(s.chance)), mean: s.mean}
	for i, x := range s.chance {
		out.chance[i] = x * (1 - p)
	}
	last := len(s.chance) - 1
	for _, a := range times {
		out.mean += p * a.chance * a.time
		at := max(0, a.time) / s.step
		n := int(math.Min(at, float64(last)))
		f := min(1, at-float64(n))
		for i, x := range s.chance {
			if x == 0 {
				continue
			}
			m := x * p * a.chance
			out.chance[min(last, i+n)] += m * (1 - f)
			out.chance[min(last, i+n+1)] += m * f
		}
	}
	return out
}

// plus is the sum of two that do not depend on one another.
func (s spread) plus(o spread) spread {
	out := spread{step: s.step, chance: make([]float64, len(s.chance)), mean: s.mean + o.mean}
	last := len(s.chance) - 1
	for i, x := range s.chance {
		if x == 0 {
			continue
		}
		for k, y := range o.chance {
			out.chance[min(last, i+k)] += x * y
		}
	}
	return out
}

// gap adds the spread to a time that always passes.
func (s spread) gap(base, weight float64) gap {
	out := make(gap, 0, len(s.chance))
	left := s.mean
	last := len(s.chance) - 1
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
