package walk

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/entry"
	"mnemos/core/keypad"
	"mnemos/core/radio"
)

// lines are channels of a district, to draw from.
var lines = []string{
	"146.52", "146.94 - 88.5", "147.24 + 103.5", "145.31 - ts 114.8", "146.76 - 100", "147.03 + 88.5 nfm", "146.64 - d023", "147.09 + low",
	"162.475 rx only", "147.18 + 103.5", "146.55 ts 141.3", "145.23 - 88.5 low", "147.345 + 127.3", "146.88 - 110.9", "147.12 + 88.5", "145.29 -",
}

func draw(t *testing.T, r *rand.Rand, p *radio.Profile, n int) []keypad.Wanted {
	t.Helper()
	var out []keypad.Wanted
	for slot := p.Slots.First; len(out) < n; slot++ {
		d := entry.Read(lines[r.IntN(len(lines))], band.MustLoad("us"))
		require.True(t, d.Complete())
		w := keypad.Wanted{Channel: d.Channel, Slot: slot, Short: "A1"}
		if keypad.Write(w, p).Reason == "" {
			out = append(out, w)
		}
	}
	return out
}

// TestOrderAgainstAll: of nine channels every order is counted; the one that is
// found costs at most a tenth more than the best of them.
func TestOrderAgainstAll(t *testing.T) {
	for _, id := range []string{"trail", "beck", "ferry", "cairn", "lantern"} {
		t.Run(id, func(t *testing.T) {
			t.Parallel()
			p, err := radio.Load(id)
			require.NoError(t, err)
			r := rand.New(rand.NewPCG(3, uint64(id[0])))
			wants := draw(t, r, p, 9)
			route := compile(p, wants)
			best, worst := 1<<30, 0
			permute(route.all(), 0, func(order []int) {
				n := route.presses(order)
				best, worst = min(best, n), max(worst, n)
			})
			found := Presses(p, Order(p, wants))
			t.Logf("%s: best %d, found %d, given %d, worst %d", id, best, found, Presses(p, wants), worst)
			assert.GreaterOrEqual(t, found, best)
			assert.LessOrEqual(t, float64(found), 1.1*float64(best))
			assert.Less(t, best, worst)
		})
	}
}

func permute(order []int, from int, yield func([]int)) {
	if from == len(order) {
		yield(order)
		return
	}
	for i := from; i < len(order); i++ {
		order[from], order[i] = order[i], order[from]
		permute(order, from+1, yield)
		order[from], order[i] = order[i], order[from]
	}
}

// BenchmarkOrder finds the order of 200 channels; the baseline is to write down the
// walk in the order of the slots.
func BenchmarkOrder(b *testing.B) {
	p, err := radio.Load("trail")
	require.NoError(b, err)
	r := rand.New(rand.NewPCG(7, 7))
	var wants []keypad.Wanted
	for slot := 1; slot <= 200; slot++ {
		d := entry.Read(lines[r.IntN(len(lines))], band.MustLoad("us"))
		wants = append(wants, keypad.Wanted{Channel: d.Channel, Slot: slot, Short: "A1"})
	}
	b.Run("baseline/slot order written", func(b *testing.B) {
		for b.Loop() {
			Along(p, wants)
		}
	})
	b.Run("order found", func(b *testing.B) {
		for b.Loop() {
			Order(p, wants)
		}
	})
}
