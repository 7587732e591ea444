package scan_test

import (
	"math"
	"math/rand/v2"

	"mnemos/core/scan"
)

// What follows is a receiver that scans, event by event, written from what a receiver
// does and not from how it is reckoned.

type over struct {
	from, to float64
	heard    bool
}

// air lays out what is on a channel.
func air(r *rand.Rand, c scan.Channel, until float64, length func(*rand.Rand, float64) float64) []over {
	if c.Always {
		return []over{{from: -1, to: math.Inf(1)}}
	}
	var out []over
	if c.Rate <= 0 {
		return nil
	}
	pause := max(0.01, 3600/c.Rate-c.Length)
	for t := r.ExpFloat64() * pause; t < until; {
		l := length(r, c.Length)
		out = append(out, over{from: t, to: t + l})
		t += l + r.ExpFloat64()*pause
	}
	return out
}

type tally struct{ overs, heard float64 }

// simulate scans for a time and says what of the overs was heard, by channel, and what
// share of the time each took.
func simulate(r *rand.Rand, s scan.Setup, until float64, length func(*rand.Rand, float64) float64) ([]tally, []float64) {
	n := len(s.Channels)
	traffic := make([]*[]over, n)
	shared := map[int]*[]over{}
	for i, c := range s.Channels {
		if t, ok := shared[c.Output]; ok && c.Output != 0 {
			traffic[i] = t
			continue
		}
		a := air(r, c, until, length)
		traffic[i] = &a
		shared[c.Output] = &a
	}
	next := make([]int, n) // first over that is not over
	spent := make([]float64, n)
	now := 0.0
	look := func(c int) {
		ch := s.Channels[c]
		air := *traffic[c]
		for next[c] < len(air) && air[next[c]].to <= now {
			next[c]++
		}
		end := now + s.Look
		leave := end
		for i := next[c]; i < len(air) && air[i].from < end; i++ {
			open := max(now, air[i].from) + ch.Opens
			if ch.Opens > s.Look || open > end || open > air[i].to {
				continue
			}
			// It stops here.
			air[i].heard = true
			leave = open + s.Stay
			if s.Resume == scan.Carrier {
				leave = air[i].to + s.Stay
			}
			for j := i + 1; j < len(air) && air[j].from < leave; j++ {
				if open := air[j].from + ch.Opens; open <= air[j].to && open <= leave {
					air[j].heard = true
					if s.Resume == scan.Carrier {
						leave = air[j].to + s.Stay
					}
				}
			}
			break
		}
		spent[c] += leave - now
		now = leave
	}
	var rest []int
	for i := range n {
		if i != s.Priority {
			rest = append(rest, i)
		}
	}
	for i, since := 0, 0; now < until; i++ {
		look(rest[i%len(rest)])
		if since++; s.Priority >= 0 && since%s.Every == 0 {
			look(s.Priority)
		}
	}
	out := make([]tally, n)
	for i := range out {
		for _, o := range *traffic[i] {
			if o.to < until-60 {
				out[i].overs++
				if o.heard {
					out[i].heard++
				}
			}
		}
		spent[i] /= now
	}
	return out, spent
}

func decaying(r *rand.Rand, mean float64) float64 { return r.ExpFloat64() * mean }
func alike(r *rand.Rand, mean float64) float64    { return mean * (0.6 + 0.8*r.Float64()) }
