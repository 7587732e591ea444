package scan

import (
	"math"
	"math/rand/v2"
)

// Over is somebody who talks on a channel, in s from the beginning of a drawing.
type Over struct{ From, To float64 }

// Visit is the receiver on a channel.
type Visit struct {
	Channel  int
	From, To float64
	Opens    float64 // when the squelch opened; no number where it did not
	Stop     bool
	Priority bool
}

// Drawing is some time of scanning: what is on the air, and where the receiver is.
type Drawing struct {
	Seconds float64
	Overs   [][]Over // by channel
	Visits  []Visit
}

// draws is how many drawings are made before the nearest is taken.
const draws = 160

// Draw draws some time of scanning. Of many random times it is that in which what is
// heard, and where the receiver is, is nearest to what was reckoned; focus counts more
// than the other channels.
func Draw(r *Result, seconds float64, focus int) Drawing {
	var best Drawing
	nearest := math.Inf(1)
	for seed := range uint64(draws) {
		overs := traffic(r.Setup, seed, seconds)
		d := Follow(r.Setup, overs, seconds)
		if off := d.off(r, focus); off < nearest {
			best, nearest = d, off
		}
	}
	return best
}

// warm is how long the receiver scans before a drawing begins.
const warm = 90

// traffic is what is on the air. Channels that hear the same output have the same.
func traffic(s Setup, seed uint64, seconds float64) [][]Over {
	out := make([][]Over, len(s.Channels))
	same := map[int]int{}
	for i, c := range s.Channels {
		if j, ok := same[c.Output]; ok && c.Output != 0 && !c.Always {
			out[i] = out[j]
			continue
		}
		same[c.Output] = i
		switch {
		case c.Always:
			out[i] = []Over{{-warm, seconds + warm}}
		case c.Rate > 0 && c.Length > 0:
			// each channel has a row of its own, so that changes elsewhere leave it alone
			r := rand.New(rand.NewPCG(seed, uint64(i)+1))
			pause := max(0.3, 3600/c.Rate-c.Length)
			for t := -warm + r.ExpFloat64()*pause - c.Length; t < seconds; {
				l := max(0.3, r.ExpFloat64()*c.Length)
				out[i] = append(out[i], Over{t, t + l})
				t += l + 0.3 + r.ExpFloat64()*pause
			}
		}
	}
	return out
}

// Follow goes with the receiver through what is on the air.
func Follow(s Setup, overs [][]Over, seconds float64) Drawing {
	d := Drawing{Seconds: seconds, Overs: overs}
	var rest []int
	priority := None
	for i, c := range s.Channels {
		switch {
		case c.away():
		case i == s.Priority:
			priority = i
		default:
			rest = append(rest, i)
		}
	}
	if len(rest) == 0 {
		if priority == None {
			return d
		}
		rest, priority = []int{priority}, None
	}
	now := -float64(warm)
	visit := func(c int, first bool) {
		v := s.visit(c, overs[c], now)
		v.Priority = first
		if v.To > 0 && v.From < seconds {
			d.Visits = append(d.Visits, v)
		}
		now = v.To
	}
	for i, since := 0, 0; now < seconds; i++ {
		visit(rest[i%len(rest)], false)
		if since++; priority != None && since >= max(1, s.Every) && now < seconds {
			since = 0
			visit(priority, true)
		}
	}
	return d
}

// visit is one look, and the stop that it becomes.
func (s Setup) visit(c int, overs []Over, now float64) Visit {
	ch := s.Channels[c]
	v := Visit{Channel: c, From: now, To: now + s.Look, Opens: math.NaN()}
	if ch.Opens > s.Look {
		return v
	}
	for _, o := range overs {
		open := max(now, o.From) + ch.Opens
		if o.To < now || v.Stop && (o.From >= v.To || s.Resume != Carrier) {
			continue
		}
		switch {
		case v.Stop:
			v.To = max(v.To, o.To+s.Stay)
		case open <= now+s.Look && open <= o.To:
			v.Stop, v.Opens = true, open
			if v.To = open + s.Stay; s.Resume == Carrier {
				v.To = o.To + s.Stay
			}
		}
	}
	return v
}

// Heard says how much of an over the receiver hears: the parts, in s.
func (d Drawing) Heard(s Setup, channel int, o Over) (out []Over) {
	for _, v := range d.Visits {
		if v.Channel != channel || !v.Stop {
			continue
		}
		from, to := max(v.From+s.Channels[channel].Opens, o.From+s.Channels[channel].Opens), min(v.To, o.To)
		if to > from {
			out = append(out, Over{from, to})
		}
	}
	return out
}

// off is how far a drawing is from what was reckoned: how many overs there are and are
// heard, and where the receiver is.
func (d Drawing) off(r *Result, focus int) (off float64) {
	spent := make([]float64, len(r.Of))
	for _, v := range d.Visits {
		spent[v.Channel] += (min(v.To, d.Seconds) - max(v.From, 0)) / d.Seconds
	}
	for i, c := range r.Setup.Channels {
		if c.Always || c.away() {
			continue
		}
		weight := 1.0
		if i == focus {
			weight = 6
		}
		var overs, heard float64
		for _, o := range d.Overs[i] {
			if o.To <= 0 || o.From >= d.Seconds {
				continue
			}
			overs++
			if len(d.Heard(r.Setup, i, o)) > 0 {
				heard++
			}
		}
		// Those that had begun before are in the drawing too.
		want := c.Rate / 3600 * (d.Seconds + c.Length)
		off += weight * (sq(overs-want) + sq(heard-want*(1-r.Of[i].Missed/max(1e-9, c.Rate))) + sq(3*(spent[i]-r.Of[i].Share)))
	}
	return off
}

func sq(x float64) float64 { return x * x }
