package mend

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/entry"
	"mnemos/core/freq"
)

// TestNear: what a line would be on a frequency, as it was read elsewhere in the
// same part of the band, is what it is when it is read there.
func TestNear(t *testing.T) {
	for _, region := range []string{"us", "uk", "de", "au"} {
		plan := band.MustLoad(region)
		for _, line := range []string{
			`146.94 - 88.5 "Quay"`, "147.42 + 103.5", "444.1 100.0 narrow", "146.52", "145.31 -600 ts 114.8 Gannet", "147.3 tx 147.9 77", "438.2 tx 430.6 123.0", "146.7 tx 446.1",
			"433.35 +1.6 d023n", "145.725 1750 low #12", "53.05 - 100", "146.94 rx only", "438.875 -7,6 88.5 Hill",
		} {
			e, ok := Typed(entry.Read(line, plan), plan)
			require.True(t, ok, line)
			s := &searcher{plan: plan, entered: e, read: map[freq.Hz]reading{}}
			var on []freq.Hz
			for _, b := range plan.Bands {
				for f := b.Lower; f <= b.Upper; f += max(7_500, (b.Upper-b.Lower)/60/2_500*2_500) {
					on = append(on, f)
				}
			}
			for _, d := range []freq.Offset{0, 600_000, -600_000, 1_600_000, -1_600_000, 5_000_000, -5_000_000, 7_600_000, -7_600_000} {
				on = append(on, e.Channel.Receive.Add(d)) // the usual inputs, and what would have it as one
				if tx, ok := e.Channel.Transmit(); ok {
					on = append(on, tx.Add(d))
				}
			}
			for _, f := range on {
				c, ok := s.near(f)
				want, wok := s.at(f)
				if wok {
					assert.True(t, ok, "%s on %s", line, f)
					assert.Equal(t, want, c, "%s on %s in %s", line, f, region)
				}
			}
		}
	}
}
