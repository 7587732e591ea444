package walk

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/entry"
	"mnemos/core/keypad"
	"mnemos/core/radio"
)

func wants(t *testing.T, lines ...string) (out []keypad.Wanted) {
	t.Helper()
	for i, l := range lines {
		d := entry.Read(l, band.MustLoad("us"))
		require.True(t, d.Complete(), l)
		out = append(out, keypad.Wanted{Channel: d.Channel, Slot: 6 + i, Short: "A"})
	}
	return out
}

// TestWrong: what a slip shows follows from the radio. The frequencies are sums that
// anybody can do: 146.490 less 0.600 is 145.890; without a shift the read-out shows
// the receive frequency, and with the wrong sign 0.600 more.
func TestWrong(t *testing.T) {
	p, err := radio.Load("trail")
	require.NoError(t, err)
	w := Along(p, wants(t, "145.31 - 114.8", "146.94 - 88.5/127.3"))
	out, err := Wrong(p, w.Stops)
	require.NoError(t, err)
	for _, c := range []struct{ marks, figures, slot, readOut, says string }{
		{"− T", "146.940", "7", "146.340", "left out: tone mode separate tones"}, // the mode of the channel before
		{"− T SQ", "146.940", "7", "146.340", "one UP too few"},
		{"− T·R", "145.310", "7", "144.710", "left out: receive 146.940 MHz"},
		{"− T·R", "146.490", "7", "145.890", "two figures exchanged: 146490"},
		{"T·R", "146.940", "7", "146.940", "SHIFT pressed once by mistake"}, // −, then off, then +
		{"+ T·R", "146.940", "7", "147.540", "SHIFT pressed twice by mistake"},
		{"", "", "70", "----", "two figures exchanged: 070"},
		{"− T·R DUAL WATCH", "146.940", "7", "146.340", "dual watch was on"},
	} {
		i := slices.IndexFunc(out, Shown{Marks: c.marks, Figures: c.figures, Slot: c.slot, ReadOut: c.readOut}.same)
		if assert.GreaterOrEqual(t, i, 0, c.says) {
			assert.True(t, slices.ContainsFunc(out[i].Mistakes, func(m Mistake) bool { return m.Says == c.says }), "%s: %v", c.says, out[i].Mistakes)
		}
	}
	for _, s := range out {
		assert.False(t, s.same(Shown{Marks: "− T·R", Figures: "146.940", Slot: "7", ReadOut: "146.340"}), "that is right: %v", s.Mistakes)
		assert.NotEmpty(t, s.Mistakes)
	}
}

// TestWrongEverywhere: in every radio with keys something is found for the last of
// three channels, and none of it by the transmit key.
func TestWrongEverywhere(t *testing.T) {
	for _, p := range radio.Profiles() {
		w := Along(p, wants(t, "145.31 - 114.8", "146.52", "145.23 - 88.5"))
		if p.Keying.By == "cable" {
			require.Len(t, w.Left, 3, p.ID)
			continue
		}
		out, err := Wrong(p, w.Stops)
		require.NoError(t, err, p.ID)
		assert.Greater(t, len(out), 3, p.ID)
		for _, s := range out {
			for _, m := range s.Mistakes {
				assert.NotContains(t, m.Says, "PTT")
				assert.False(t, strings.HasPrefix(m.Says, ":"), m.Says)
			}
		}
	}
}
