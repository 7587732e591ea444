package scan_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"mnemos/core/scan"
)

// TestMany holds lists of 40 to 200 channels against a receiver that scans them: there
// the mean times alone are carried through.
func TestMany(t *testing.T) {
	for seed, n := range []int{40, 90, 200} {
		s := many(n)
		if seed == 1 {
			s.Priority, s.Resume, s.Stay = scan.None, scan.Carrier, 2
		}
		got := scan.Reckon(s)
		seen, took := simulate(rand.New(rand.NewPCG(uint64(seed), 5)), s, 300*3600, decaying)
		for i, x := range seen {
			assert.InDelta(t, got.Of[i].Share, took[i], 0.01)
			if x.overs > 3000 {
				assert.InDelta(t, 1-got.Of[i].Missed/s.Channels[i].Rate, x.heard/x.overs, 0.035, "%d of %d", i, n)
			}
		}
		assert.False(t, math.IsNaN(got.Heard))
	}
}
