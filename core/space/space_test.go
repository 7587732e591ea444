package space

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"mnemos/core/freq"
)

// source: the operators' published frequency tables; basis: from memory. The
// ladder of five memories around the downlink is common practice, no source.
func TestFind(t *testing.T) {
	for _, c := range []struct {
		region, receive, transmit string
		sends, exact, ok          bool
	}{
		{"us", "437.800 MHz", "145.990 MHz", true, true, true},
		{"us", "437.810 MHz", "145.990 MHz", true, true, true},
		{"uk", "437.790 MHz", "145.990 MHz", true, true, true},
		{"us", "437.800 MHz", "437.800 MHz", true, false, true}, // on the downlink
		{"us", "437.800 MHz", "0", false, true, true},
		{"us", "145.825 MHz", "145.825 MHz", true, true, true},
		{"us", "145.800 MHz", "144.490 MHz", true, true, true},
		{"uk", "145.800 MHz", "145.200 MHz", true, true, true},
		{"uk", "145.800 MHz", "144.490 MHz", true, false, true},
		{"us", "146.940 MHz", "146.340 MHz", true, false, false},
		{"us", "437.830 MHz", "145.990 MHz", true, false, false},
	} {
		tx := freq.Hz(0)
		if c.transmit != "0" {
			tx = freq.MustParse(c.transmit)
		}
		_, exact, ok := Find(c.region, freq.MustParse(c.receive), tx, c.sends)
		assert.Equal(t, c.ok, ok, "%s %s", c.region, c.receive)
		assert.Equal(t, c.exact, exact, "%s %s/%s", c.region, c.receive, c.transmit)
	}
}

func TestTable(t *testing.T) {
	p := Published()
	assert.NotEmpty(t, p.Source)
	assert.Contains(t, p.Basis, "from memory")
	// 437.800 MHz moves by about ±10 kHz between rise and set (common practice).
	assert.InDelta(t, 10_400, int64(Doppler(437_800_000)-2_500), 100)
	assert.InDelta(t, 3_500, int64(Doppler(145_800_000)-2_500), 100)
}
