package scan_test

import (
	"math"
	"math/rand/v2"
	"os"
	"slices"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/scan"
)

// TestWithoutStops holds the reckoning against a receiver that looks and never stays:
// overs of one length, each tried at its own moment.
func TestWithoutStops(t *testing.T) {
	r := rand.New(rand.NewPCG(17, 1))
	for _, x := range []struct {
		n                 int
		look, opens, over float64
		chance            float64 // by hand: (L + D − 2d) / (n D), between 0 and 1
		says              string
	}{
		{30, 7.0 / 30, 0.06, 5, 0.730476, "30 channels in 7 s, carrier squelch"},
		{30, 7.0 / 30, 0.2, 5, 0.690476, "the same with a tone decoder"},
		{14, 7.0 / 30, 0.2, 0.19, 0, "shorter than the decoder needs"},
		{14, 7.0 / 30, 0.342, 9, 0, "a look is too short for two words of DCS"},
		{4, 0.25, 0.1, 30, 1, "longer than the round"},
		{40, 0.1, 0.05, 1.3, 0.325, "ten looks a second"},
	} {
		s := scan.Setup{Look: x.look, Resume: scan.Time, Stay: 5, Priority: scan.None, Channels: make([]scan.Channel, x.n)}
		for i := range s.Channels {
			s.Channels[i] = scan.Channel{Opens: x.opens, Length: x.over}
		}
		got := scan.Reckon(s)
		round := float64(x.n) * x.look
		assert.InDelta(t, x.chance, got.Chance(3, x.over), 1e-6, x.says)
		const overs = 100_000
		heard := 0
		for range overs {
			from := r.Float64() * round * 1000
			// The looks at channel 3 begin at 3 D + k T.
			for k := math.Floor((from-3*x.look)/round) - 1; ; k++ {
				look := 3*x.look + k*round
				if look > from+x.over {
					break
				}
				if open := max(look, from) + x.opens; x.opens <= x.look && open <= look+x.look && open <= from+x.over {
					heard++
					break
				}
			}
		}
		sigma := math.Sqrt(x.chance * (1 - x.chance) / overs)
		assert.InDelta(t, x.chance, float64(heard)/overs, 4*sigma+1e-9, x.says)
	}
}

// random is a set-up of which nobody thought: 2 to 20 channels, up to 30 % busy, with
// carriers that never fall silent and channels that share an output among them.
func random(r *rand.Rand) scan.Setup {
	n := 2 + r.IntN(19)
	s := scan.Setup{Look: 0.05 + 0.3*r.Float64(), Resume: scan.Resumes[r.IntN(3)], Stay: []float64{2, 5, 10}[r.IntN(3)], Priority: scan.None, Every: 1 + r.IntN(4)}
	if s.Resume == scan.Carrier {
		s.Stay = []float64{0, 2, 5}[r.IntN(3)]
	}
	if r.IntN(2) == 0 && n > 2 {
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
	if i, j := r.IntN(n), r.IntN(n); i < j && s.Priority == scan.None && !s.Channels[i].Always && r.IntN(2) == 0 {
		s.Channels[i].Output = 1
		s.Channels[j] = s.Channels[i]
	}
	return s
}

// TestWithStops holds the reckoning against receivers that scan, event by event. The
// error of a set-up is that of its channel that is furthest off, in points of a hundred,
// among those with enough overs to tell. MNEMOS_SETUPS sets how many are tried.
func TestWithStops(t *testing.T) {
	setups, hours := 24, 600.0
	if n, err := strconv.Atoi(os.Getenv("MNEMOS_SETUPS")); err == nil {
		setups, hours = n, 1500
	}
	for name, length := range map[string]func(*rand.Rand, float64) float64{"spread": decaying, "alike": alike} {
		var worst, one, spent []float64
		for seed := range setups {
			r := rand.New(rand.NewPCG(uint64(seed), 17))
			s := random(r)
			got := scan.Reckon(s)
			seen, took := simulate(r, s, hours*3600, length)
			off, picked := 0.0, -1.0
			for i, x := range seen {
				spent = append(spent, 100*math.Abs(took[i]-got.Of[i].Share))
				if s.Channels[i].Always || x.overs < 3000 {
					continue
				}
				want := 1 - got.Of[i].Missed/s.Channels[i].Rate
				if name == "alike" {
					want = 0
					for j := range 20 {
						want += got.Chance(i, s.Channels[i].Length*(0.6+0.04*(float64(j)+0.5))) / 20
					}
				}
				e := 100 * math.Abs(x.heard/x.overs-want)
				off = max(off, e)
				if picked < 0 {
					picked = e
				}
			}
			worst = append(worst, off)
			if picked >= 0 {
				one = append(one, picked)
			}
		}
		for _, x := range [][]float64{worst, one, spent} {
			slices.Sort(x)
		}
		at := func(x []float64, share float64) float64 { return x[min(len(x)-1, int(share*float64(len(x))))] }
		t.Logf("%s, %d set-ups: the first channel %.2f points (median), %.2f (95 %%), %.2f (worst); the worst channel %.2f, %.2f, %.2f; share of time %.2f, %.2f, %.2f",
			name, setups, at(one, 0.5), at(one, 0.95), at(one, 1), at(worst, 0.5), at(worst, 0.95), at(worst, 1), at(spent, 0.5), at(spent, 0.95), at(spent, 1))
		if name == "spread" {
			assert.LessOrEqual(t, at(one, 0.95), 2.0)
			assert.LessOrEqual(t, at(worst, 1), 5.0)
		}
	}
}

// TestKnownResults are results on looking in turn at several things, all from memory.
func TestKnownResults(t *testing.T) {
	quiet := func(n int) []scan.Channel {
		out := make([]scan.Channel, n)
		for i := range out {
			out[i] = scan.Channel{Length: 5}
		}
		return out
	}
	// Two periodic windows, from the theory of interception: they meet for at least d in
	// (τ + D − 2 d) / T of the rounds. From memory.
	r := scan.Reckon(scan.Setup{Channels: quiet(20), Look: 0.2, Resume: scan.Time, Priority: scan.None})
	assert.InDelta(t, 4.0, r.Round, 1e-9)
	assert.InDelta(t, 0.55, r.Chance(0, 2), 1e-6)
	// Waiting for something that comes every T, from any moment, takes T/2 in the mean
	// and (E t²) / (2 E t) where the times differ. From memory: the paradox of the bus.
	assert.InDelta(t, 3.8*3.8/2/4, r.Of[0].Wait, 1e-6)
	// A channel with a carrier holds a receiver that stays S for S of every round.
	s := scan.Setup{Channels: quiet(11), Look: 0.2, Resume: scan.Time, Stay: 5, Priority: scan.None}
	s.Channels[4].Always = true
	r = scan.Reckon(s)
	assert.InDelta(t, 7.0, r.Round, 1e-6)
	assert.InDelta(t, 5.0/7, r.Of[4].Share, 1e-6)
	assert.InDelta(t, 1.0, r.Chance(4, 1), 1e-9)
	// Alone and looking all the time: every over stops it once, and is heard.
	r = scan.Reckon(scan.Setup{Channels: []scan.Channel{{Length: 5, Rate: 60}}, Look: 0.01, Resume: scan.Carrier, Priority: scan.None})
	assert.InDelta(t, 60, r.Of[0].Stops, 0.5)
	assert.InDelta(t, 1, r.Chance(0, 5), 1e-3)
	// A scan that stays while a carrier lasts never leaves one.
	s.Resume, s.Stay = scan.Carrier, 0
	r = scan.Reckon(s)
	assert.Equal(t, 4, r.Stuck)
	assert.True(t, math.IsInf(r.Round, 1))
	assert.Zero(t, r.Chance(0, 60))
	assert.InDelta(t, 1, r.Chance(4, 1), 0)
}

// TestPriority looks at one channel between the others: it returns to it sooner, and to
// them later.
func TestPriority(t *testing.T) {
	s := scan.Setup{Look: 0.25, Resume: scan.Time, Stay: 5, Priority: scan.None, Every: 3, Channels: make([]scan.Channel, 13)}
	for i := range s.Channels {
		s.Channels[i] = scan.Channel{Opens: 0.06, Length: 5}
	}
	plain := scan.Reckon(s)
	s.Priority = 2
	r := scan.Reckon(s)
	// By hand: 3 others and itself are 4 looks of 0.25 s; 12 others and 4 looks at it.
	assert.InDelta(t, 3.25, plain.Of[2].Return, 1e-6)
	assert.InDelta(t, 1, r.Of[2].Return, 1e-6)
	assert.InDelta(t, 4, r.Of[7].Return, 1e-6)
	assert.InDelta(t, 16, r.Looks, 1e-9)
	assert.InDelta(t, (0.5+0.25-0.12)/1, r.Chance(2, 0.5), 1e-6)
}

func TestReach(t *testing.T) {
	s := scan.Setup{Look: 0.25, Resume: scan.Time, Stay: 5, Priority: scan.None, Channels: make([]scan.Channel, 20)}
	for i := range s.Channels {
		s.Channels[i] = scan.Channel{Opens: 0.1, Length: 5}
	}
	r := scan.Reckon(s)
	// 0.9 × 5 s = L + 0.25 − 0.2
	assert.InDelta(t, 4.45, r.Reach(3, 0.9), 0.01)
	s.Channels[3].Opens = 0.3
	assert.True(t, math.IsInf(scan.Reckon(s).Reach(3, 0.9), 1), "a look is too short for it")
	require.True(t, scan.Reckon(s).Of[3].Never)
}

// BenchmarkReckon holds a list of 200 channels against one of 14.
func BenchmarkReckon(b *testing.B) {
	for _, n := range []int{14, 32, 200} {
		b.Run(strconv.Itoa(n), func(b *testing.B) {
			s := many(n)
			for b.Loop() {
				scan.Reckon(s)
			}
		})
	}
}

func many(n int) scan.Setup {
	r := rand.New(rand.NewPCG(uint64(n), 3))
	s := scan.Setup{Look: 7.0 / 30, Resume: scan.Time, Stay: 5, Priority: 0, Every: 3}
	for range n {
		s.Channels = append(s.Channels, scan.Channel{Opens: 0.2, Length: 3 + 6*r.Float64(), Rate: 40 * r.Float64()})
	}
	return s
}
