package scan_test

import (
	"math/rand/v2"
	"os"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/scan"
)

// list is a list of twelve of which one channel is to be heard.
func list(r *rand.Rand) (scan.Setup, scan.Goal, scan.Room) {
	s := scan.Setup{Look: 0.15 + 0.15*r.Float64(), Resume: scan.Time, Stay: 5, Priority: r.IntN(3) - 1, Every: 3}
	for range 12 {
		c := scan.Channel{Opens: []float64{0.06, 0.14}[r.IntN(2)], Length: 2 + 10*r.Float64()}
		c.Rate = 3600 / c.Length * 0.25 * r.Float64() * r.Float64()
		s.Channels = append(s.Channels, c)
	}
	if r.IntN(2) == 0 {
		s.Channels[11].Always = true
	}
	return s, scan.Goal{Channel: 2 + r.IntN(8), Length: 3 + 5*r.Float64(), Share: 0.75 + 0.22*r.Float64()},
		scan.Room{Priority: r.IntN(2) == 0, Every: 3, Lists: r.IntN(2) == 0, Carrier: 0.06, Resumes: []scan.Option{{Resume: scan.Time, Stay: 10}, {Resume: scan.Time, Stay: 2}}}
}

// cheaper goes through every set of changes that costs less than some, and calls.
func cheaper(s scan.Setup, g scan.Goal, room scan.Room, below int, found func([]scan.Change)) {
	var all []scan.Change
	for i := range s.Channels {
		if i != g.Channel {
			all = append(all, scan.Change{Kind: scan.Leave, Channel: i})
		}
	}
	if room.Priority && s.Priority != g.Channel {
		all = append(all, scan.Change{Kind: scan.Prefer, Channel: g.Channel})
	}
	for _, o := range room.Resumes {
		all = append(all, scan.Change{Kind: scan.GoOn, Resume: o.Resume, Stay: o.Stay})
	}
	var walk func(from int, have []scan.Change)
	walk = func(from int, have []scan.Change) {
		found(have)
		if len(have)+1 >= below {
			return
		}
		for i := from; i < len(all); i++ {
			if n := len(have); n > 0 && all[i].Kind == scan.GoOn && have[n-1].Kind == scan.GoOn {
				continue
			}
			walk(i+1, append(append([]scan.Change{}, have...), all[i]))
		}
	}
	walk(0, nil)
}

// TestSmallest goes through every cheaper set of changes: none reaches the goal.
// MNEMOS_SETUPS sets how many lists.
func TestSmallest(t *testing.T) {
	lists := 12
	if n, err := strconv.Atoi(os.Getenv("MNEMOS_SETUPS")); err == nil {
		lists = n / 4
	}
	costs := map[int]int{}
	for seed := range lists {
		s, g, room := list(rand.New(rand.NewPCG(uint64(seed), 23)))
		w, ok := scan.Reach(s, g, room)
		require.True(t, ok, "whoever scans nothing else hears it")
		assert.GreaterOrEqual(t, w.Chance, g.Share)
		assert.InDelta(t, w.Chance, scan.Reckon(s.With(w.Changes, room)).Chance(g.Channel, g.Length), 1e-9)
		cost := scan.Cost(w.Changes)
		costs[cost]++
		if cost == 0 {
			continue
		}
		cheaper(s, g, room, min(cost, 5), func(have []scan.Change) {
			chance := scan.Reckon(s.With(have, room)).Chance(g.Channel, g.Length)
			assert.Less(t, chance, g.Share, "%d: %v costs %d, and %v reaches it too", seed, w.Changes, cost, have)
		})
	}
	t.Logf("lists by what they cost: %v", costs)
	assert.Greater(t, len(costs), 2, "the lists differ in what they need")
}

// TestHearsMost: of the single changes that reach a goal it is the one that hears most.
func TestHearsMost(t *testing.T) {
	tried := 0
	for seed := range uint64(60) {
		s, g, room := list(rand.New(rand.NewPCG(seed, 29)))
		w, _ := scan.Reach(s, g, room)
		if len(w.Changes) != 1 || w.Changes[0].Kind == scan.SplitOff {
			continue
		}
		tried++
		cheaper(s, g, room, 2, func(have []scan.Change) {
			if r := scan.Reckon(s.With(have, room)); len(have) == 1 && r.Chance(g.Channel, g.Length) >= g.Share {
				assert.LessOrEqual(t, r.Heard, w.Result.Heard*1.01+0.5, "%d: %v rather than %v", seed, have, w.Changes)
			}
		})
	}
	assert.Greater(t, tried, 5)
}

func TestOutOfReach(t *testing.T) {
	s, g, room := list(rand.New(rand.NewPCG(4, 23)))
	s.Channels[g.Channel].Opens = 0.342 // two words of DCS
	s.Look = 0.2
	room.Carrier = 0.3 // no squelch opens in time
	w, ok := scan.Reach(s, g, room)
	assert.False(t, ok)
	assert.Zero(t, w.Chance)
	room.Carrier = 0.06
	g.Share = 0.2
	w, ok = scan.Reach(s, g, room)
	require.True(t, ok)
	assert.Contains(t, w.Changes, scan.Change{Kind: scan.Open, Channel: g.Channel}, "without the tone it opens in time")
}

// BenchmarkReach looks for the smallest change in lists of 14 and of 200.
func BenchmarkReach(b *testing.B) {
	for _, n := range []int{14, 32, 200} {
		b.Run(strconv.Itoa(n), func(b *testing.B) {
			s := many(n)
			for b.Loop() {
				scan.Reach(s, scan.Goal{Channel: 3, Length: 5, Share: 0.9}, scan.Room{Priority: true, Every: 3, Lists: true, Carrier: 0.06, Resumes: []scan.Option{{Resume: scan.Carrier, Stay: 2}}})
			}
		})
	}
}

// BenchmarkDraw draws half a minute of 14 and of 200 channels.
func BenchmarkDraw(b *testing.B) {
	for _, n := range []int{14, 200} {
		b.Run(strconv.Itoa(n), func(b *testing.B) {
			r := scan.Reckon(many(n))
			for b.Loop() {
				scan.Draw(r, 30, 3)
			}
		})
	}
}
