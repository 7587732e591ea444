package scan_test

import (
	"fmt"
	"math/rand/v2"
	"sort"
	"testing"

	"mnemos/core/scan"
)

func random(r *rand.Rand) scan.Setup {
	n := 2 + r.IntN(19)
	s := scan.Setup{Look: 0.05 + 0.3*r.Float64(), Resume: scan.Resumes[r.IntN(3)], Stay: []float64{2, 5, 10}[r.IntN(3)], Priority: scan.None, Every: 1 + r.IntN(4)}
	if s.Resume == scan.Carrier {
		s.Stay = []float64{0, 2, 5}[r.IntN(3)]
	}
	if r.IntN(2) == 0 {
		s.Priority = r.IntN(n)
	}
	for range n {
		c := scan.Channel{Opens: min(s.Look, []float64{0.06, 0.2, 0.342}[r.IntN(3)]), Length: 2 + 13*r.Float64()}
		c.Rate = 3600 / c.Length * 0.3 * r.Float64() * r.Float64()
		s.Channels = append(s.Channels, c)
	}
	if r.IntN(4) == 0 && s.Resume != scan.Carrier {
		s.Channels[r.IntN(n)].Always = true
	}
	return s
}

func TestTry(t *testing.T) {
	var errs []float64
	for seed := range uint64(150) {
		r := rand.New(rand.NewPCG(seed, 17))
		s := random(r)
		res := scan.Reckon(s)
		got, spent := simulate(r, s, 400000, decaying)
		worst := 0.0
		at := 0
		for i, g := range got {
			if s.Channels[i].Always || g.overs < 200 {
				continue
			}
			want := g.heard / g.overs
			have := 1 - res.Of[i].Missed/s.Channels[i].Rate
			if d := abs(want - have); d > worst {
				worst, at = d, i
			}
		}
		errs = append(errs, worst)
		if worst > 0.02 {
			c := s.Channels[at]
			fmt.Printf("seed %d n=%d look %.2f %s %.0f prio %d every %d: ch %d rate %.0f len %.1f sim %.3f model %.3f share %.3f/%.3f\n", seed, len(s.Channels), s.Look, s.Resume, s.Stay, s.Priority, s.Every, at, c.Rate, c.Length, got[at].heard/got[at].overs, 1-res.Of[at].Missed/c.Rate, spent[at], res.Of[at].Share)
		}
	}
	sort.Float64s(errs)
	fmt.Println("median", errs[len(errs)/2], "95%", errs[len(errs)*95/100], "max", errs[len(errs)-1])
}

func abs(x float64) float64 {
	if x < 0 {
		return -x
	}
	return x
}
