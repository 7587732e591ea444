package relay_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/relay"
	"mnemos/core/tone"
)

// TestLoop: two repeaters with tails of three seconds go round for ever; what is said to
// end it ends it, and what is not does not. Expected by the study of one turn: each tail of
// 3.12 s keys the other through 0.05 + 0.05 + 0.25 of the vehicle, 0.09 of turning and 0.31
// of the far repeater.
func TestLoop(t *testing.T) {
	r := relay.Look(two(t))
	l := r.Loop
	require.NotNil(t, l)
	assert.True(t, l.May)
	assert.True(t, l.Does)
	assert.InDelta(t, 3600/l.Period, l.Hourly, 0.5)
	assert.Greater(t, l.Period, 2*3.0, "two tails")
	assert.Less(t, l.Long, 180.0, "so no time-out of three minutes ends it")
	ended := map[bool]int{}
	for _, e := range l.Ends {
		ended[e.Quiet > 0]++
	}
	assert.Zero(t, l.Ends[0].Quiet, "the time-out")
	assert.Equal(t, relay.Out, l.Ends[len(l.Ends)-1].Way)
	assert.Positive(t, l.Ends[len(l.Ends)-1].Quiet, "one way has no way around")
	assert.Positive(t, ended[true])
	s := two(t)
	s.Way = relay.Out
	one := relay.Look(s)
	assert.Nil(t, one.Loop)
	require.NotNil(t, one.Over)
	assert.Positive(t, one.Over.Wait)
	s = two(t)
	s.B.Meant.DownlinkTone.Tone = tone.Off // its tail carries none: side B stays shut
	quiet := relay.Look(s).Loop
	assert.False(t, quiet.May)
	assert.False(t, quiet.Does)
}

// TestGap: who keys again before the tail has dropped loses the rest of the tail, and the
// time that opening takes. Expected: 3.41 s until the vehicle hears, less the second that
// was waited, and 0.30 and 0.09 and 0.31 s of opening and turning after it.
func TestGap(t *testing.T) {
	o := relay.Look(link(t)).Over
	assert.InDelta(t, 1.0, o.Gap, 1e-9)
	assert.InDelta(t, 3.41-1+0.30+0.09+0.31+0.04, o.Lost, 0.06)
}

// TestExposure: at the distance that is given the power density is the limit, by the
// definition of what an isotropic aerial radiates and a field that the ground makes 1.6
// times as strong; and by the round formula of the handbooks, 0.64 EIRP / π d². The limits
// for 2 m and 70 cm are from memory: 2 W/m² at 145 MHz; at 446 MHz 446/150 (1.1310) and
// 446/200 (ICNIRP), of which the stricter is shown.
func TestExposure(t *testing.T) {
	d := relay.Distance(40, 2)
	e := 1.6 * math.Sqrt(30*40) / d // V/m, over ground that reflects
	assert.InDelta(t, 2, e*e/(120*math.Pi), 0.002)
	assert.InDelta(t, math.Sqrt(0.64*40/(math.Pi*2)), d, 1e-9)

	s := link(t)
	s.B.Channel.Power = channel.High
	s.Talk = relay.Talk{Mine: 39, Seconds: 12}
	r := relay.Look(s)
	a, b := r.People[0], r.People[1]
	assert.Equal(t, "ICNIRP 2020, Table 5, whole body", a.By, "446/200 is less than 446/150")
	assert.Equal(t, freq.Hz(144_690_000), b.Hz)
	assert.InDelta(t, math.Sqrt(0.64*b.Mean/(math.Pi*2)), b.Public, 1e-6)
	assert.InDelta(t, b.Public/math.Sqrt(5), b.Own, 1e-6, "ten times the public limit would be √10; 10 W/m² is five times 2")
	assert.InDelta(t, r.Load.B*50*math.Pow(10, 0.3), b.Mean, 1e-9)
	assert.InDelta(t, 2.072/(2*math.Pi), b.Nearest, 0.001)
	for _, x := range r.People {
		assert.GreaterOrEqual(t, x.Public, x.Nearest, "nothing is said below λ/2π")
		assert.Positive(t, x.Exempt)
	}
	low := link(t)
	low.Supply.Gain = -20
	for _, x := range relay.Look(low).People {
		assert.InDelta(t, x.Nearest, x.Public, 1e-9, "a few milliwatts: the near field alone")
	}
}

// TestLoad: shares, current and battery by adding up. 8 overs of mine and 12 of theirs of
// 15 s are 300 s in ten minutes: side B sends mine and side A theirs, with what their tails
// add; 100 Ah down to a half at so many amperes last so many hours.
func TestLoad(t *testing.T) {
	s := link(t)
	s.Supply.StandbyAmps, s.Supply.AmpsA, s.Supply.AmpsB = 0.7, 3.5, 6
	l := relay.Look(s).Load
	assert.InDelta(t, 8*15/600.0, l.B, 0.01)
	assert.Greater(t, l.A, 12*15/600.0, "their overs")
	assert.Less(t, l.A, (12*15+8*4+12*1.6)/600.0, "and at the most every tail")
	assert.False(t, l.Guessed)
	amps := l.A*3.5 + l.B*6 + (1-l.A-l.B)*0.7
	assert.InDelta(t, amps, l.Amps, 1e-9)
	assert.InDelta(t, 50/amps, l.Hours, 1e-9)
	assert.InDelta(t, 25, l.Rated, 1e-9, "50 W for half the time")
	s.Supply.AmpsA = 0
	guess := relay.Look(s).Load
	assert.True(t, guess.Guessed)
	assert.InDelta(t, l.A*(0.7+5/(0.45*13.8))+l.B*6+(1-l.A-l.B)*0.7, guess.Amps, 1e-9)
	for _, over := range []float64{5, 60} {
		s.Talk = relay.Talk{Mine: 20, Theirs: 20, Seconds: over}
		x := relay.Look(s).Load
		assert.LessOrEqual(t, x.A+x.B, 1.0, "one side sends at a time")
		assert.Equal(t, over == 60, x.Overtime)
	}
}

// TestProducts against a list written out: harmonics and mixing products of the second and
// third order of 144.690 and 446.100 MHz.
func TestProducts(t *testing.T) {
	const a, b = 144_690_000, 446_100_000
	want := []freq.Hz{
		2 * a, 3 * a, 2 * b, 3 * b, a + b, b - a, 2*a + b, b - 2*a, a + 2*b, 2*b - a,
	}
	var got []freq.Hz
	for _, p := range relay.Products(a, b) {
		got = append(got, p.Freq)
	}
	slices.Sort(want)
	slices.Sort(got)
	assert.Equal(t, want, got)
}

// TestPropose goes through every raster point of the band by itself, with every rule of
// what a link keeps clear of written anew, and compares the best with what is proposed.
func TestPropose(t *testing.T) {
	rnd := rand.New(rand.NewPCG(19, 3)) //nolint:gosec // the same listing each time
	for range 40 {
		s := link(t)
		for range rnd.IntN(30) {
			s.Published = append(s.Published, freq.Hz(432_000_000+12_500*rnd.IntN(1500)))
		}
		s.Planned = []freq.Hz{freq.Hz(445_900_000 + 12_500*rnd.IntN(24)), s.A.Channel.Receive}
		got := relay.Propose(s, "A")
		var best relay.Link
		for f := freq.Hz(445_900_000); f <= 446_200_000; f += 500 {
			l, ok := free(s, f)
			if ok && (best.Freq == 0 || l.Clear > best.Clear || l.Clear == best.Clear && l.Calling > best.Calling) {
				best = l
			}
		}
		if best.Freq == 0 {
			assert.True(t, len(got) == 0 || got[0].Ask || got[0].Now, "%+v", got)
			continue
		}
		require.NotEmpty(t, got)
		assert.Equal(t, best.Clear, got[0].Clear, "%v, not %v", best.Freq, got[0].Freq)
		for i, l := range got {
			if l.Now {
				continue
			}
			seg, _ := us.Segment(l.Freq)
			assert.Contains(t, []band.Use{band.Simplex, band.Auxiliary}, seg.Use)
			assert.GreaterOrEqual(t, l.Clear, freq.Hz(25_000))
			if i > 0 {
				assert.False(t, got[i-1].Ask && !l.Ask, "what wants to be asked for stands last")
			}
		}
	}
}

// free measures a frequency in 70 cm with side B on 145.29 − 0.6.
func free(s relay.Setup, f freq.Hz) (l relay.Link, ok bool) {
	away := func(x freq.Hz) freq.Hz { return freq.Hz(math.Abs(float64(x - f))) }
	if f%12_500 != 0 && f%20_000 != 0 || f-8_000 < 445_900_000 || f+8_000 > 446_200_000 {
		return l, false
	}
	const far = 144_690_000
	l.Freq, l.Calling = f, away(446_000_000)
	l.Clear = min(l.Calling, away(3*far), f-445_900_000, 446_200_000-f)
	for _, p := range s.Published {
		l.Clear = min(l.Clear, away(p))
	}
	// Products of the link that fall onto side B, 145.29 MHz, or onto the link itself.
	for _, x := range []freq.Hz{2 * f, 3 * f, f + far, f - far, 2*f - far, 2*f + far, f - 2*far, f + 2*far, 2 * far, 3 * far} {
		for _, r := range []freq.Hz{f, 145_290_000} {
			l.Clear = min(l.Clear, freq.Hz(math.Abs(float64(x-r))))
		}
	}
	if p := s.Planned[0]; away(p) < 16_000 && p != s.A.Channel.Receive {
		return l, false
	}
	return l, l.Clear >= 25_000
}

// BenchmarkPropose proposes among a hundred thousand published frequencies.
func BenchmarkPropose(b *testing.B) {
	s := link(b)
	rnd := rand.New(rand.NewPCG(19, 4)) //nolint:gosec // a listing
	for range 100_000 {
		s.Published = append(s.Published, freq.Hz(420_000_000+2_500*rnd.IntN(12_000)))
	}
	for b.Loop() {
		relay.Propose(s, "A")
	}
}

// BenchmarkLook works a whole relay out, with its ten minutes.
func BenchmarkLook(b *testing.B) {
	s := link(b)
	for b.Loop() {
		relay.Look(s)
	}
}
