package aprs

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
)

// Traffic is a channel on which stations like one's own beacon.
type Traffic struct {
	Airtime  float64 // s of a packet, with its key-up delay
	Every    float64 // s between two beacons of a station
	Stations int     // with one's own
	Repeats  int     // how often each packet is sent on in earshot
}

// sent is how often a beacon is on the air: itself and its repeats.
func (t Traffic) sent() float64 { return float64(1 + t.Repeats) }

// Busy is the share of the time for which somebody sends, were nothing to collide.
func (t Traffic) Busy() float64 {
	return float64(t.Stations) * t.sent() * t.Airtime / t.Every
}

// Collides is the chance that a transmission meets another one, for stations that beacon
// in periods and do not listen first: 1 − (1 − 2τ/T)^(N−1), and with k transmissions a
// beacon, g between them, 1 − (1 − ((k+1)τ + (k−1)g)/T)^(N−1): the beacon and its repeats
// are one block.
func (t Traffic) Collides() float64 {
	k := t.sent()
	clear := 1 - ((k+1)*t.Airtime+(k-1)*advice.RelayDelay)/t.Every
	return 1 - math.Pow(max(0, clear), float64(t.Stations-1))
}

// Random is what gets through where packets come at random and not in periods, as its own
// case: S = G e^(−2G), G the offered load and S what is carried, both as shares of the time;
// most at G = ½. Abramson's ALOHA without slots: endless many stations, packets of one
// length, no capture, nobody listens first.
func Random(g float64) float64 { return g * math.Exp(-2*g) }

// Floods is the load from which more stations carry less: the turn of S = G e^(−2G).
const Floods = 0.5

// Burst is one transmission of a minute that was drawn at random.
type Burst struct {
	Station  int
	From, To float64 // s
	Repeat   int     // 0 for the beacon itself
	Collides bool
}

// Minute draws a minute of the channel that is as near to the reckoned figures as any of
// a few dozen.
func (t Traffic) Minute(seed uint64) []Burst {
	if t.Stations < 1 || t.Every <= 0 || t.Airtime <= 0 || float64(t.Stations)*t.sent()*60/t.Every > 600 {
		return nil
	}
	want, count := t.Collides(), float64(t.Stations)*t.sent()*60/t.Every
	var best []Burst
	off := math.Inf(1)
	for i := range uint64(40) {
		m := t.draw(rand.New(rand.NewPCG(seed, i)), 60) //nolint:gosec // a drawing, the same each time
		hit := 0
		for _, b := range m {
			if b.Collides {
				hit++
			}
		}
		if len(m) == 0 {
			continue
		}
		if d := math.Abs(float64(hit)/float64(len(m))-want) + math.Abs(float64(len(m))-count)/count; d < off {
			best, off = m, d
		}
	}
	return best
}

// draw lets every station begin at a random moment of its period.
func (t Traffic) draw(r *rand.Rand, until float64) (out []Burst) {
	var all []Burst
	for s := range t.Stations {
		phase := r.Float64() * t.Every
		gaps := make([]float64, t.Repeats)
		for i := range gaps {
			gaps[i] = advice.RelayDelay * (0.3 + 1.4*r.Float64())
		}
		for at := phase - math.Ceil((phase+30)/t.Every)*t.Every; at < until; at += t.Every {
			now := at
			for k := range 1 + t.Repeats {
				if k > 0 {
					now += gaps[k-1]
				}
				all = append(all, Burst{Station: s, From: now, To: now + t.Airtime, Repeat: k})
				now += t.Airtime
			}
		}
	}
	slices.SortFunc(all, func(a, b Burst) int { return cmp.Compare(a.From, b.From) })
	for i := range all {
		for k := i + 1; k < len(all) && all[k].From < all[i].To; k++ {
			if all[k].Station != all[i].Station {
				all[i].Collides, all[k].Collides = true, true
			}
		}
	}
	for _, b := range all {
		if b.From >= 0 && b.From < until {
			out = append(out, b)
		}
	}
	return out
}
