package relay_test

import (
	"encoding/json"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/radio"
	"mnemos/core/relay"
	"mnemos/core/tone"
)

// TestAnything sets up relays of any channels on any radios in any region, with any numbers:
// there is always an answer, every figure of it is one, and nothing that a radio cannot do,
// or that is in no amateur band, passes.
func TestAnything(t *testing.T) {
	lines := []string{
		"146.52", "146.94 -", "147.03 + ts 94.8", "446.1 simplex ts 186.2 low", "443.275 +5 131.8", "162.55 rx only", "144.39", "145.8 simplex", "437.8 tx 145.99 67", "52.525", "29.6",
		"223.5", "446.0", "446.00625 ts D023N nfm", "433.35 +1.6 D047I", "145.5 1750", "927.5", "1294.5", "118.1", "145.29 - 100/77", "462.5625", "0.5", "450", "148", "420.0 simplex",
	}
	rnd := rand.New(rand.NewPCG(19, 5)) //nolint:gosec // the same set-ups each time
	profiles := radio.Profiles()
	regions := band.Regions()
	verdicts := map[evidence.Verdict]int{}
	for range 400 {
		region := regions[rnd.IntN(len(regions))]
		plan := band.MustLoad(region)
		pick := func() channel.Channel {
			c := entry.Read(lines[rnd.IntN(len(lines))], plan).Channel
			if rnd.IntN(4) == 0 {
				c.ReceiveTone = tone.MustParse([]string{"67", "254.1", "D754N"}[rnd.IntN(3)])
			}
			return c
		}
		s := relay.Defaults()
		s.Plan, s.Way = plan, relay.Ways[rnd.IntN(3)]
		v, h := profiles[rnd.IntN(len(profiles))], profiles[rnd.IntN(len(profiles))]
		s.Vehicle = relay.Unit{Name: v.Name, Radio: v}
		if rnd.IntN(3) > 0 {
			s.Hand = relay.Unit{Name: h.Name, Radio: h}
		}
		if rnd.IntN(3) == 0 {
			c := pick()
			s.Hand.Channel = &c
		}
		s.A, s.B = relay.Side{Channel: pick()}, relay.Side{Channel: pick()}
		if rnd.IntN(2) == 0 {
			s.B.Meant = published("Somewhere", float64(s.B.Channel.Receive)/1e6, 0, "100", "")
		}
		s.Talk = relay.Talk{Mine: rnd.IntN(61), Theirs: rnd.IntN(61), Seconds: 1 + 299*rnd.Float64()}
		s.Supply = relay.Supply{AmpHours: 100 * rnd.Float64(), Usable: rnd.Float64(), Hours: rnd.Float64() * 24, Gain: 40*rnd.Float64() - 20}
		for range rnd.IntN(20) {
			s.Published = append(s.Published, freq.Hz(144_000_000+rnd.IntN(310_000_000)))
		}
		r := relay.Look(s)
		verdicts[r.Verdict]++
		_, err := json.Marshal(r.Load) // no infinity, and nothing that is no number
		require.NoError(t, err)
		_, err = json.Marshal(r.People)
		require.NoError(t, err)
		_, err = json.Marshal([]any{r.Over, r.Loop, r.Links})
		require.NoError(t, err)
		assert.LessOrEqual(t, r.Load.A+r.Load.B, 1.0+1e-9)
		assert.GreaterOrEqual(t, r.Load.Amps, 0.0)
		for _, l := range r.Links {
			if !l.Now {
				assert.True(t, v.CanTransmit(l.Freq) && v.CanReceive(l.Freq), "%s cannot link on %s", v.Name, l.Freq)
				assert.True(t, plan.MayTransmit(l.Freq), l.Freq)
			}
		}
		if r.Over != nil && r.Over.Wait >= 0 {
			total := 0.0
			for _, p := range r.Over.Parts {
				assert.GreaterOrEqual(t, p.Seconds, 0.0)
				total += p.Seconds
			}
			assert.InDelta(t, r.Over.Wait, total, 1e-6, "the parts are the whole")
		}
		for _, side := range []relay.Side{s.A, s.B} {
			if tx, sends := side.Channel.Transmit(); sends && side.Channel.Receive > 0 && (!v.CanTransmit(tx) || !plan.MayTransmit(tx)) {
				assert.Equal(t, evidence.Stop, r.Verdict, "%s on %s in %s", v.Name, tx, region)
			}
		}
		if !v.Relay.CrossBand {
			assert.Equal(t, evidence.Stop, r.Verdict)
		}
	}
	assert.Greater(t, verdicts[evidence.Stop], 100)
	assert.Greater(t, verdicts[evidence.Conflict]+verdicts[evidence.Unverified], 2)
}
