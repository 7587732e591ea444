package standing

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/radio"
	"mnemos/core/tone"
)

// air is everything that a radio holds of a slot, written out; nothing of it is
// shared with the fingerprint.
type air struct {
	slot         int
	rx, tx       freq.Hz
	sends        bool
	out, in      string
	width, power string
	short        string
	scan         entry.Scan
}

func holds(h Held, p *radio.Profile) air {
	c, _ := radio.Fit(h.Channel, p)
	tx, sends := c.Transmit()
	return air{h.Slot, c.Receive, tx, sends, c.TransmitTone.String(), c.ReceiveTone.String(), string(c.Width), string(c.Power), h.Short, h.Scan}
}

// TestFallsBack: over random edits of the channel, its slot, its names and the radio,
// a standing falls back exactly when the radio is to hold something else.
func TestFallsBack(t *testing.T) {
	var profiles []*radio.Profile
	for _, id := range []string{"trail", "ferry", "beck", "lantern", "gale"} {
		p, err := radio.Load(id)
		require.NoError(t, err)
		profiles = append(profiles, p)
	}
	stayed, fell := 0, 0
	rapid.Check(t, func(r *rapid.T) {
		p := rapid.SampledFrom(profiles).Draw(r, "radio")
		h := Held{7, channel.New(146_940_000), "MARRAN", entry.ScanYes}
		h.Channel.Name, h.Channel.Side, h.Channel.TransmitTone = "Marran Light", channel.ShiftSide(-600_000), tone.MustParse("88.5")
		before, record := holds(h, p), Record{Keyed, Fingerprint(h, p)}
		for range rapid.IntRange(1, 3).Draw(r, "edits") {
			switch rapid.IntRange(0, 9).Draw(r, "edit") {
			case 0:
				h.Slot = rapid.IntRange(7, 9).Draw(r, "slot")
			case 1:
				h.Channel.Name = rapid.StringMatching(`[A-Z]{1,5}`).Draw(r, "name") // no radio holds it
			case 2:
				h.Short = rapid.SampledFrom([]string{"MARRAN", "MAR"}).Draw(r, "short")
			case 3:
				h.Channel.Receive = rapid.SampledFrom([]freq.Hz{146_940_000, 146_942_000, 146_955_000}).Draw(r, "receive")
			case 4:
				h.Channel.Side = rapid.SampledFrom([]channel.TransmitSide{channel.ShiftSide(-600_000), channel.SplitSide(146_340_000), {Kind: channel.Blocked}}).Draw(r, "side")
			case 5:
				h.Channel.TransmitTone = tone.MustParse(rapid.SampledFrom([]string{"88.5", "none", "D023N", "254.1"}).Draw(r, "out"))
			case 6:
				h.Channel.ReceiveTone = tone.MustParse(rapid.SampledFrom([]string{"none", "127.3"}).Draw(r, "in"))
			case 7:
				h.Channel.Width = rapid.SampledFrom([]channel.Width{channel.Wide, channel.Narrow}).Draw(r, "width")
			case 8:
				h.Channel.Power = rapid.SampledFrom([]channel.Power{channel.High, channel.Low}).Draw(r, "power")
			case 9:
				p = rapid.SampledFrom(profiles).Draw(r, "other radio")
			}
		}
		now, was := record.Now(Fingerprint(h, p))
		if holds(h, p) == before {
			stayed++
			require.Equal(r, []State{Keyed, ""}, []State{now, was})
		} else {
			fell++
			require.Equal(r, []State{Planned, Keyed}, []State{now, was})
		}
	})
	assert.Greater(t, stayed, 3)
	assert.Greater(t, fell, 10)
}

func TestNow(t *testing.T) {
	now, was := Record{}.Now("x")
	assert.Equal(t, []State{Planned, ""}, []State{now, was}, "nothing was done to it")
	assert.True(t, Proven.Valid())
	assert.False(t, State("lost").Valid())
}
