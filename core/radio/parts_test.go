package radio

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/tone"
)

// drawn draws a plan of channels of many kinds, some of which no radio holds.
func drawn(r *rand.Rand, n int) []Slotted {
	out := make([]Slotted, n)
	outputs := []freq.Hz{52_810_000, 144_390_000, 145_000_000, 146_000_000, 147_000_000, 162_400_000, 223_000_000, 442_000_000, 446_006_250, 927_500_000, 1_292_000_000}
	offsets := []freq.Offset{0, 600_000, -600_000, 5_000_000, -7_600_000, 1_234_500}
	tones := []tone.Tone{tone.Off, tone.MustParse("88.5"), tone.MustParse("69.3"), tone.MustParse("D023N"), tone.MustParse("D036N"), tone.MustParse("D023I"), tone.Burst1750}
	for i := range out {
		c := channel.New(outputs[r.IntN(len(outputs))] + freq.Hz(r.IntN(40)*12_500))
		if o := offsets[r.IntN(len(offsets))]; o != 0 {
			c.Side = channel.ShiftSide(o)
		}
		c.TransmitTone, c.ReceiveTone = tones[r.IntN(len(tones))], tones[r.IntN(len(tones)-1)]
		if r.IntN(6) == 0 {
			c.Side = channel.TransmitSide{Kind: channel.Blocked}
		}
		if r.IntN(3) == 0 {
			c.Width = channel.Narrow
		}
		out[i] = Slotted{Slot: r.IntN(300), Channel: c}
	}
	return out
}

// TestThreadsSum: for every profile and random plans what is lost at the parts
// leaves what Fit holds, and what goes through whole is what Fit holds as it is.
func TestThreadsSum(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 8))
	for _, p := range Profiles() {
		for range 40 {
			plan := drawn(r, 1+r.IntN(60))
			lost, half := map[Part]int{}, map[Part]int{}
			whole := 0
			for _, c := range plan {
				th := p.Thread(c)
				switch {
				case th.Lost != "":
					lost[th.Lost]++
				case th.Half != "":
					half[th.Half]++
				default:
					whole++
				}
			}
			// Fit and the range of the slots, asked directly.
			fits, partly, received := 0, 0, 0
			for _, c := range plan {
				if p.CanReceive(c.Channel.Receive) {
					received++
				}
				_, losses := Fit(c.Channel, p)
				nothing := slices.ContainsFunc(losses, func(l Loss) bool { return l.Held == "nothing" })
				switch {
				case nothing || c.Slot < p.Slots.First || c.Slot > p.Slots.Last:
				case len(losses) > 0:
					partly++
				default:
					fits++
				}
			}
			require.Equal(t, received, len(plan)-lost[PartBands], p.ID)
			require.Equal(t, fits+partly, len(plan)-lost[PartBands]-lost[PartSlots], p.ID)
			require.Len(t, lost, count(lost, PartBands, PartSlots), "nothing else loses a channel")
			require.Equal(t, fits, whole, p.ID)
			require.Equal(t, partly, half[PartBands]+half[PartShift]+half[PartTones]+half[PartRest], p.ID)
		}
	}
}

func count(m map[Part]int, parts ...Part) (n int) {
	for _, p := range parts {
		if m[p] > 0 {
			n++
		}
	}
	return n
}

// TestTrials: each part has one test, and as many channels hang on it as another
// profile with the other value holds better.
func TestTrials(t *testing.T) {
	beck := load(t, "beck") // 2 m alone, slots 1 to 20, 38 tones, no codes
	at := func(slot int, receive, sent string) Slotted {
		c := channel.New(freq.MustParse(receive))
		c.Side, c.TransmitTone = channel.ShiftSide(600_000), tone.MustParse(sent)
		return Slotted{slot, c}
	}
	plan := []Slotted{
		at(1, "147.240", "103.5"), at(2, "442.100", "127.3"), at(3, "443.275", "131.8"), at(25, "147.300", "100.0"), at(4, "145.410", "69.3"), at(5, "145.450", "D023N"),
	}
	trials := beck.Trials(band.MustLoad("us"), plan)
	var got []string
	for _, x := range trials {
		got = append(got, fmt.Sprintf("%s %d", x.Part, x.Gain))
		assert.NotEmpty(t, x.Says)
	}
	assert.Equal(t, []string{"bands 2", "slots 1", "shift 0", "tones 2", "names 0"}, got)
	assert.Equal(t, "Turn to 442.100 MHz. If it goes there, it has 70 cm too", trials[0].Says)
	assert.Equal(t, "Look for 69.3 after 67.0. If it is there, it knows all 50", trials[3].Says)
	for _, p := range Profiles() {
		for _, region := range band.Regions() {
			require.Len(t, p.Trials(band.MustLoad(region), nil), len(Parts), p.ID)
		}
	}
}

// TestNumbersAsTyped is how people type lists of numbers, with the decimal comma or
// the point. Common practice, no source.
func TestNumbersAsTyped(t *testing.T) {
	p := load(t, "trail")
	for text, want := range map[string]string{
		"5, 6.25, 12.5, 25": "5, 6.25, 12.5, 25", "5, 6,25, 12,5": "5, 6.25, 12.5", "5; 6,25; 12,5": "5, 6.25, 12.5", "5 6,25 12,5": "5, 6.25, 12.5",
		"5,6,25,12,5": "5, 6.25, 12.5", "12,5": "12.5", "6,25": "6.25", "5,10": "5, 10", "5,25": "5, 25", "8,33,25": "8.33, 25", "5,10,12.5": "5, 10, 12.5", "25": "25", "5 kHz, 6.25 kHz": "5, 6.25",
		" 5 ,10, ": "5, 10",
	} {
		form := Form(p)
		form["steps"], form["resting"] = text, "" // none rests at a step that it lacks
		q, errs := FromForm(*p, form)
		require.Empty(t, errs, text)
		assert.Equal(t, want, Form(q)["steps"], text)
	}
	for text, want := range map[string][]float64{
		"5": {5}, "50, 5": {50, 5}, "5, 2.5, 1": {5, 2.5, 1}, "5; 2,5; 1": {5, 2.5, 1}, "5,2,5,1": {5, 2.5, 1}, "2,5": {2.5}, "50, 20, 10, 5": {50, 20, 10, 5}, "1, 5": {5, 1},
		"50 W": {50}, "50/10/5": {50, 10, 5}, "5W, 2.5W": {5, 2.5},
	} {
		form := Form(p)
		form["watts"] = text
		q, errs := FromForm(*p, form)
		require.Empty(t, errs, text)
		assert.Equal(t, want, q.Watts.Levels(), text)
		assert.InDelta(t, want[0], q.Watts.Of(channel.High), 0)
		assert.InDelta(t, want[len(want)-1], q.Watts.Of(channel.Low), 0)
	}
	for _, text := range []string{"five", "", "5, x", "0", "-5", "5..2"} {
		form := Form(p)
		form["steps"] = text
		_, errs := FromForm(*p, form)
		assert.NotEmpty(t, errs, text)
	}
}
