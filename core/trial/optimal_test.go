package trial_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"mnemos/core/trial"
)

// policies reckons how many tries are expected from here on, by the best policy there is
// and by the one that leads. Whatever order led here, what is known is the same.
type policies struct {
	f    trial.Facts
	best map[string]float64
	led  map[string]float64
}

func key(tries []trial.Try) string {
	var out []string
	for _, t := range tries {
		out = append(out, fmt.Sprintf("%s %v %v", t.Kind, t.Setting, t.Back))
	}
	slices.Sort(out)
	last := trial.Setting{}
	for _, t := range tries {
		if t.Kind == trial.Key {
			last = t.Setting
		}
	}
	return strings.Join(out, ";") + fmt.Sprint(last)
}

func after(tries []trial.Try, a trial.Act, back bool) []trial.Try {
	s := a.Setting
	if a.Kind == trial.Look && back {
		s.Mode = true
	}
	return append(slices.Clone(tries), trial.Try{Kind: a.Kind, Setting: s, Back: back})
}

func (p *policies) optimal(tries []trial.Try) float64 {
	k := key(tries)
	if v, ok := p.best[k]; ok {
		return v
	}
	w := trial.Weigh(p.f, tries)
	if _, ok := w.Next(); !ok {
		return 0
	}
	best := 1e9
	for _, a := range w.Acts() {
		if a.Bits < 0.02 {
			continue
		}
		v := 1.0
		if a.Back > 1e-4 {
			v += a.Back * p.optimal(after(tries, a, true))
		}
		if v < best && a.Back < 1-1e-4 {
			v += (1 - a.Back) * p.optimal(after(tries, a, false))
		}
		best = min(best, v)
	}
	p.best[k] = best
	return best
}

func (p *policies) leading(tries []trial.Try) float64 {
	k := key(tries)
	if v, ok := p.led[k]; ok {
		return v
	}
	a, ok := trial.Weigh(p.f, tries).Next()
	if !ok {
		return 0
	}
	v := 1.0
	if a.Back > 1e-4 {
		v += a.Back * p.leading(after(tries, a, true))
	}
	if a.Back < 1-1e-4 {
		v += (1 - a.Back) * p.leading(after(tries, a, false))
	}
	p.led[k] = v
	return v
}

// TestOptimal holds the one that leads against the best there is, in cases that are small
// enough: on a hill, with a good aerial, so that few changes are left.
func TestOptimal(t *testing.T) {
	var ratios []float64
	for _, listings := range []trial.Listings{trial.Agree, trial.Differ, trial.Stale, trial.None} {
		for _, reach := range []float64{0.2, 0.8} {
			f := vehicle(listings)
			f.Start.Where, f.Start.Aerial, f.Reach = "high", "fixed", reach
			if listings == trial.Differ {
				f.Tones = listed[:1]
			}
			p := &policies{f, map[string]float64{}, map[string]float64{}}
			first := []trial.Try{{Kind: trial.Key, Setting: f.Start}}
			best, led := p.optimal(first), p.leading(first)
			assert.GreaterOrEqual(t, led, best-1e-9, "nothing is better than the best")
			t.Logf("listings %-6s at %.1f horizons: %.2f tries more at best, %.2f when led, %.3f times", listings, reach, best, led, led/best)
			ratios = append(ratios, led/best)
		}
	}
	sum := 0.0
	for _, x := range ratios {
		sum += x
	}
	assert.LessOrEqual(t, sum/float64(len(ratios)), 1.15)
	assert.LessOrEqual(t, slices.Max(ratios), 1.25)
}
