package trial_test

import (
	"math/rand/v2"
	"os"
	"slices"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/tone"
	"mnemos/core/trial"
)

// outcome is how one evening with a silent repeater ended.
type outcome struct {
	tries    int
	answered bool
	right    bool // what is wrong is among what is said
	said     int  // how many causes that is
	blamed   bool // one cause alone is said, and it is not what is wrong
}

type policy func(*trial.Weighing) (trial.Act, bool)

// goes tries until something comes back, the cause is found, or nothing would tell more.
func goes(f trial.Facts, n *nature, next policy) outcome {
	tries := []trial.Try{{Kind: trial.Key, Setting: f.Start, Back: n.answers(trial.Key, f.Start)}}
	for range 14 {
		a, ok := next(trial.Weigh(f, tries))
		if !ok {
			break
		}
		back := n.answers(a.Kind, a.Setting)
		tries = after(tries, a, back)
	}
	last := tries[len(tries)-1]
	o := outcome{tries: len(tries), answered: last.Kind == trial.Key && last.Back}
	for _, c := range trial.Weigh(f, tries).Suspects() {
		o.said += len(c.IDs)
		for _, id := range c.IDs {
			o.right = o.right || slices.Contains(n.wrong, id)
		}
	}
	o.blamed = o.said == 1 && !o.right
	return o
}

func led(w *trial.Weighing) (trial.Act, bool) { return w.Next() }

// TestLead leads through random evenings, and beside them somebody who tries what there
// is in any order. MNEMOS_WORLDS sets how many.
func TestLead(t *testing.T) {
	worlds := 400
	if n, err := strconv.Atoi(os.Getenv("MNEMOS_WORLDS")); err == nil {
		worlds = n
	}
	mean := map[string]float64{}
	for _, name := range []string{"led", "any order"} {
		var tries, answered, right, blamed, said float64
		for seed := range worlds {
			r := rand.New(rand.NewPCG(uint64(seed), 41))
			f := facts(r)
			n := wrong(r, f)
			next := policy(led)
			if name == "any order" {
				next = func(w *trial.Weighing) (trial.Act, bool) {
					a, ok := w.Next()
					if !ok {
						return a, false
					}
					acts := w.Acts()
					return acts[r.IntN(len(acts))], true
				}
			}
			o := goes(f, n, next)
			tries += float64(o.tries)
			said += float64(o.said)
			for is, to := range map[*float64]bool{&answered: o.answered, &right: o.right, &blamed: o.blamed} {
				if to {
					*is++
				}
			}
		}
		of := float64(worlds)
		t.Logf("%-9s %d evenings: %.2f tries, something came back in %.1f %%, the cause among those said in %.1f %% (%.1f causes said), one cause blamed wrongly in %.2f %%",
			name, worlds, tries/of, 100*answered/of, 100*right/of, said/of, 100*blamed/of)
		mean[name] = tries / of
		if name == "led" {
			assert.GreaterOrEqual(t, right/of, 0.95)
			assert.LessOrEqual(t, blamed/of, 0.005)
		}
	}
	assert.Less(t, mean["led"], 0.9*mean["any order"])
}

func vehicle(l trial.Listings, tones ...tone.Tone) trial.Facts {
	return trial.Facts{
		Start: trial.Setting{Tone: set, Offset: down, Width: "wide", Where: "vehicle", Aerial: "short"},
		Tone:  l, Shift: trial.Agree, Tones: tones, SendsTone: true, Reach: 0.6,
	}
}

// TestWeigh: each outcome moves the causes the way an operator would expect.
func TestWeigh(t *testing.T) {
	f := vehicle(trial.Differ, listed[0])
	at := func(tries ...trial.Try) func(string) float64 {
		w := trial.Weigh(f, append([]trial.Try{{Kind: trial.Key, Setting: f.Start}}, tries...))
		sum := 0.0
		for _, c := range w.Causes {
			sum += c.Now
		}
		assert.InDelta(t, 1, sum, 1e-9)
		return func(id string) float64 {
			for _, c := range w.Causes {
				if slices.Contains(c.IDs, id) {
					return c.Now
				}
			}
			return 0
		}
	}
	first := at()
	assert.Greater(t, first("tone"), first("weak"), "listings that differ on the tone say where to look first")
	sent := f.Start
	sent.Tone = listed[0]
	assert.Greater(t, at(trial.Try{Kind: trial.Key, Setting: sent, Back: true})("tone"), 0.9, "the other tone opens it")
	assert.Less(t, at(trial.Try{Kind: trial.Key, Setting: sent})("tone"), first("tone"))
	assert.Greater(t, at(trial.Try{Kind: trial.Ask})("off"), 2*first("off"), "nobody hears it")
	assert.Less(t, at(trial.Try{Kind: trial.Ask, Back: true})("off"), 0.03, "somebody does")
	assert.Greater(t, at(trial.Try{Kind: trial.Look, Back: true})("mode"), 0.5, "no mark of a tone")
	open := f.Start
	open.Where = "open"
	assert.Less(t, at(trial.Try{Kind: trial.Key, Setting: open})("noise"), first("noise"), "no lamps out there")
	heard := at(trial.Try{Kind: trial.Listen, Setting: f.Start, Back: true})
	assert.Less(t, heard("off"), 0.02, "its ident comes: it is on the air")
	assert.Greater(t, heard("tone"), first("tone"))
}

// TestNext: one change a try, published values only, and nothing after an answer.
func TestNext(t *testing.T) {
	for seed := range uint64(200) {
		r := rand.New(rand.NewPCG(seed, 7))
		f := facts(r)
		n := wrong(r, f)
		tries := []trial.Try{{Kind: trial.Key, Setting: f.Start}}
		for range 14 {
			w := trial.Weigh(f, tries)
			for _, a := range w.Acts() {
				changes := a.Setting.Changes(w.Last)
				if a.Kind == trial.Key {
					assert.Len(t, changes, 1, a.Says)
					assert.Equal(t, a.Change, changes[0])
				} else {
					assert.Empty(t, changes, a.Says)
				}
				assert.True(t, a.Setting.Tone == f.Start.Tone || slices.Contains(f.Tones, a.Setting.Tone), "no walk through the tones")
				assert.True(t, a.Setting.Offset == f.Start.Offset || slices.Contains(f.Offsets, a.Setting.Offset))
				assert.GreaterOrEqual(t, a.Bits, -1e-9)
			}
			a, ok := w.Next()
			if !ok {
				break
			}
			back := n.answers(a.Kind, a.Setting)
			tries = after(tries, a, back)
			if a.Kind == trial.Key && back {
				_, more := trial.Weigh(f, tries).Next()
				assert.False(t, more, "something came back")
			}
		}
	}
}

// TestTogether: what no try can part stays together, and is said together.
func TestTogether(t *testing.T) {
	f := vehicle(trial.Agree)
	f.Start.Where, f.Start.Aerial = "high", "fixed"
	tries := []trial.Try{{Kind: trial.Key, Setting: f.Start}}
	for {
		a, ok := trial.Weigh(f, tries).Next()
		if !ok {
			break
		}
		tries = after(tries, a, false)
		require.Less(t, len(tries), 15)
	}
	w := trial.Weigh(f, tries)
	assert.Equal(t, "off", w.Causes[0].IDs[0], "whatever is tried, nothing: it is off the air, or closed")
	assert.Contains(t, w.Causes[0].Says, "off the air, or closed")
	assert.NotEmpty(t, trial.Basis())
	assert.Equal(t, "under 1 in 10", trial.InTen(0.03))
	assert.Equal(t, "4 in 10", trial.InTen(0.41))
}
