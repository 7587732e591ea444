package keypad_test

import (
	"fmt"
	"maps"
	"math/rand/v2"
	"os"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/handset"
	"mnemos/core/keypad"
	"mnemos/core/radio"
	"mnemos/core/walk"
)

// loadSize is how many channels a random load has, and how many loads each radio
// gets. make proof walks whole loads of 200.
func loadSize(t *testing.T) (channels, loads int) {
	if s := os.Getenv("MNEMOS_PROOF"); s != "" {
		_, err := strconv.Atoi(s)
		require.NoError(t, err)
		return 200, 5
	}
	return 40, 2
}

// drawLoad draws channels in slots of their own that the radio can be keyed with.
func drawLoad(r *rand.Rand, p *radio.Profile, n int) []keypad.Wanted {
	var out []keypad.Wanted
	n = min(n, p.Slots.Last-p.Slots.First+1)
	for slot := p.Slots.First; len(out) < n; {
		w := drawWanted(r, p)
		if w.Slot = slot; keypad.Write(w, p).Reason == "" {
			out = append(out, w)
			slot++
		}
	}
	return out
}

// keyable are the radios that have keys for it, and one more: it takes five figures of
// a frequency, and what they cannot say is stepped on to.
func keyable() []*radio.Profile {
	all := slices.DeleteFunc(slices.Clone(radio.Profiles()), func(p *radio.Profile) bool { return p.Keying.By == "cable" })
	trail, err := radio.Load("trail")
	if err != nil {
		panic(err) // it ships
	}
	five := *trail
	five.ID, five.Name = "five", "Five"
	five.Keying.Figures = 5
	five.Display.Decimals = 4
	five.Crib = maps.Clone(trail.Crib)
	five.Crib[radio.Receive] = "type the digits, press UP or DOWN until it shows"
	return append(all, &five)
}

// TestTypeThenStep: 145.235 MHz is typed as 14523, which this radio makes 145.230 of on
// its widest step that reaches it; one UP leads to it. On 12.5 kHz it makes 145.2375 of
// 14523 by itself.
func TestTypeThenStep(t *testing.T) {
	all := keyable()
	five := all[len(all)-1]
	for f, keys := range map[freq.Hz]string{145_235_000: "type 14523, press UP once until it shows 145.2350", 145_237_500: "type 14523", 145_240_000: "type 14524"} {
		s := keypad.Write(keypad.Wanted{Channel: channel.New(f), Slot: 3}, five)
		i := slices.IndexFunc(s.Steps, func(x keypad.Step) bool { return x.Do == "receive" })
		assert.Equal(t, keys, s.Steps[i].Keys)
		h, err := handset.New(five)
		require.NoError(t, err)
		require.NoError(t, h.Follow(s.Text()))
		c, _ := h.Holds(3)
		assert.Equal(t, f, c.Receive)
	}
}

// follow follows a sheet, and counts the keys of each step.
func follow(h *handset.Handset, s keypad.Sheet, each func(x keypad.Step, keys int)) error {
	if len(s.Start) > 0 {
		if err := h.Line("Start with: "+strings.Join(s.Start, ", "), nil); err != nil {
			return err
		}
	}
	for _, x := range s.Steps {
		n := 0
		if err := h.Line(x.String(), func(string) { n++ }); err != nil {
			return fmt.Errorf("%q: %w", x, err)
		}
		each(x, n)
	}
	return nil
}

// TestAWalkIsFollowed walks through whole loads, in the walk's own order, with pauses
// and with the radio switched off and fiddled with in between; the rest is then a walk
// of its own. Every slot ends as planned and the radio as stated, and what the walk
// counts is what is pressed wherever it knows where the radio stands.
func TestAWalkIsFollowed(t *testing.T) {
	channels, loads := loadSize(t)
	for _, p := range keyable() {
		t.Run(p.ID, func(t *testing.T) {
			t.Parallel()
			r := rand.New(rand.NewPCG(16, uint64(p.ID[0])<<8|uint64(p.ID[1])))
			stayed, exact, pauses := 0, 0, 0
			for range loads {
				wants := walk.Order(p, drawLoad(r, p, channels))
				h, err := handset.New(p)
				require.NoError(t, err)
				h.Stir(r.IntN, wants[0].Slot, nil)
				for from := 0; from < len(wants); {
					w := walk.Along(p, wants[from:], wants[:from]...)
					require.Empty(t, w.Left)
					to := len(w.Stops) // where it is broken off
					if r.IntN(3) > 0 || pauses == 0 {
						to = 1 + r.IntN(max(1, to-1))
					}
					for i, s := range w.Stops[:to] {
						require.NoError(t, follow(h, s.Sheet, func(x keypad.Step, n int) {
							if x.Number == 1 {
								look(t, h, s.Sheet)
							}
							if !x.Guess {
								exact++
								require.Equal(t, n, x.Presses, "%s\n%s", x, s.Sheet.Text())
							}
						}), "%+v\n%s", s.Wanted, s.Sheet.Text())
						if i > 0 {
							stayed += len(s.Sheet.Stays)
						}
					}
					if from += to; from < len(wants) {
						pauses++
						h.Stir(r.IntN, wants[from].Slot, nil)
						continue
					}
					require.NoError(t, h.Follow(w.End.Text()), w.End.Text())
				}
				for _, want := range wants {
					m := planned(want, p)
					require.Equal(t, m, found(h, want.Slot, p, m), "slot %d", want.Slot)
					if p.Entry == radio.Split {
						require.False(t, h.SplitAt(m.receive), "a split is left at %s", m.receive)
					}
				}
				require.Empty(t, resting(h, p))
			}
			assert.Positive(t, stayed)
			assert.Positive(t, pauses)
			assert.Positive(t, exact)
		})
	}
}

// look looks up what stays, as the walk says; nothing may change by that.
func look(t *testing.T, h *handset.Handset, s keypad.Sheet) {
	t.Helper()
	for _, x := range s.Stays {
		keys, ok := strings.CutPrefix(x.Look, "press ")
		if !ok {
			continue
		}
		before := h.State(0)
		require.NoError(t, h.Line("look: press "+keys, nil), "%s: %s", x, x.Look)
		require.Equal(t, before, h.State(0))
	}
}

// TestOrder: the presses by which an order is found are those of the sheets, and it
// never costs more than the slots in their order.
func TestOrder(t *testing.T) {
	for _, p := range keyable() {
		t.Run(p.ID, func(t *testing.T) {
			t.Parallel()
			r := rand.New(rand.NewPCG(5, uint64(p.ID[0])<<8|uint64(p.ID[1])))
			for range 3 {
				wants := drawLoad(r, p, 30)
				order := walk.Order(p, wants)
				require.ElementsMatch(t, wants, order)
				before, after := steps(p, wants), steps(p, order)
				assert.LessOrEqual(t, after, before)
				assert.Equal(t, after, walk.Presses(p, order), "counted without writing the sheets")
			}
		})
	}
}

// steps are the presses of all sheets of a walk.
func steps(p *radio.Profile, wants []keypad.Wanted) int {
	n := 0
	for _, s := range walk.Along(p, wants).Stops {
		n += s.Effort.Presses
	}
	return n
}

// TestASpoiledWalkIsNoticed drops, doubles and alters steps in the middle of walks:
// the radio stops, or at the end a slot or the resting state is not as planned. What
// makes no difference to the end nor to a frequency that could be keyed is counted
// apart.
func TestASpoiledWalkIsNoticed(t *testing.T) {
	_, spoiled := size(t)
	var mu sync.Mutex
	counts := map[string]*spoils{}
	for _, way := range ways {
		counts[way] = &spoils{}
	}
	t.Run("radios", func(t *testing.T) {
		for _, p := range keyable() {
			t.Run(p.ID, func(t *testing.T) {
				t.Parallel()
				r := rand.New(rand.NewPCG(61, uint64(p.ID[0])<<8|uint64(p.ID[1])))
				for range max(1, spoiled/10) {
					wants := walk.Order(p, drawLoad(r, p, 8))
					w, seed := walk.Along(p, wants), r.Uint64()
					// run walks with one stop spoiled, and says how it ended.
					run := func(at int, text string) (same, on string, err error) {
						h, err := handset.New(p)
						require.NoError(t, err)
						h.Stir(rand.New(rand.NewPCG(seed, 1)).IntN, wants[0].Slot, nil)
						for i, s := range w.Stops {
							lines := s.Sheet.Text()
							if i == at {
								lines = text
							}
							_, f, err := ended(h, lines, s.Wanted.Slot)
							if on += "\n" + f; err != nil {
								return "", on, err
							}
						}
						if err := h.Follow(w.End.Text()); err != nil {
							return "", on, err
						}
						for _, want := range wants {
							m := planned(want, p)
							same += fmt.Sprint(found(h, want.Slot, p, m) == m)
						}
						return same + resting(h, p), on, nil
					}
					right, keyed, err := run(-1, "")
					require.NoError(t, err)
					require.NotContains(t, right, "false")
					for at, s := range w.Stops {
						if at == 0 {
							continue // TestASpoiledSheetIsNoticed does that
						}
						step := r.IntN(len(s.Sheet.Steps))
						for _, way := range ways {
							h, err := handset.New(p)
							require.NoError(t, err)
							text := spoil(r, h, s.Sheet, step, way)
							if text == strings.TrimSpace(s.Sheet.Text()) {
								continue
							}
							ends, on, err := run(at, text)
							mu.Lock()
							counts[way].add(err != nil, ends != right, on != keyed)
							mu.Unlock()
						}
					}
				}
			})
		}
	})
	for _, way := range ways {
		c := *counts[way]
		share := float64(c.noticed) / float64(c.noticed+c.unnoticed)
		t.Logf("%s: %d noticed (%.2f %%; %d at the radio), %d not; %d change nothing", way, c.noticed, 100*share, c.stopped, c.unnoticed, c.same)
		assert.GreaterOrEqual(t, share, 0.99, way)
		assert.Positive(t, c.noticed, way)
	}
}

// spoils counts what became of spoiled sheets.
type spoils struct{ noticed, unnoticed, stopped, same int }

func (c *spoils) add(stopped, ends, keyed bool) {
	switch {
	case stopped:
		c.stopped++
		c.noticed++
	case ends:
		c.noticed++
	case keyed:
		c.unnoticed++
	default:
		c.same++
	}
}
