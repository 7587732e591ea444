package slots

import (
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// after is a memory written out, one letter a slot from slot 1, "." for a vacant
// one, once the moves are made. Two in one slot fail.
func after(t require.TestingT, before string, m Moves) string {
	out := []byte("......................"[:len(before)])
	for i := range before {
		s := i + 1
		to, moves := m[s]
		if before[i] == '.' {
			require.False(t, moves, "nothing is in slot %d", s)
			continue
		}
		if !moves {
			to = s
		}
		require.Equal(t, byte('.'), out[to-1], "two in slot %d of %v", to, m)
		out[to-1] = before[i]
	}
	return string(out)
}

func memory(text string) Memory {
	m := Memory{First: 1, Last: len(text)}
	for i := range text {
		if text[i] != '.' {
			m.Used = append(m.Used, i+1)
		}
	}
	return m
}

// TestByHand is what people expect, written out by hand as cards on a table.
// common practice, no source.
func TestByHand(t *testing.T) {
	move := func(to int, some ...int) func(Memory) (Moves, error) {
		return func(m Memory) (Moves, error) { return m.Move(some, to) }
	}
	plain := func(f func(Memory) Moves) func(Memory) (Moves, error) {
		return func(m Memory) (Moves, error) { return f(m), nil }
	}
	for _, c := range []struct {
		says, before string
		act          func(Memory) (Moves, error)
		want         string
	}{
		{"into vacant slots", "abcd....", move(6, 2, 3), "a..d.bc."},
		{"what is in the way goes where they came from", "abcdefgh", move(6, 2, 3), "afgdebch"},
		{"over themselves, by one", "abcd....", move(2, 1, 2), "cabd...."},
		{"apart, together", "a.b.c...", move(6, 1, 5), "..b..ac."},
		{"one down is a swap", "abc", plain(func(m Memory) Moves { return m.Step([]int{2}, 1) }), "acb"},
		{"a run down goes past the next", "abcd", plain(func(m Memory) Moves { return m.Step([]int{1, 2}, 1) }), "cabd"},
		{"at the end it stays", "abc", plain(func(m Memory) Moves { return m.Step([]int{3}, 1) }), "abc"},
		{"two exchanged", "a.c", plain(func(m Memory) Moves { return m.Swap(1, 3) }), "c.a"},
		{"with a vacant one", "a..", plain(func(m Memory) Moves { return m.Swap(3, 1) }), "..a"},
		{"room made as far as the gaps", "abc.de..", func(m Memory) (Moves, error) { return m.Insert(2, 1) }, "a.bcde.."},
		{"room for two", "abc.de..", func(m Memory) (Moves, error) { return m.Insert(2, 2) }, "a..bcde."},
		{"gaps closed", "a.b..c.d", plain(func(m Memory) Moves { return m.Close(1, 8) }), "abcd...."},
		{"gaps closed in a part", "a.b..c.d", plain(func(m Memory) Moves { return m.Close(3, 7) }), "a.bc...d"},
		{"another order over the same slots", "c.a.b", plain(func(m Memory) Moves { return m.Order([]int{3, 5, 1}) }), "a.b.c"},
	} {
		m, err := c.act(memory(c.before))
		require.NoError(t, err, c.says)
		assert.Equal(t, c.want, after(t, c.before, m), c.says)
	}
	_, err := memory("abcd").Move([]int{1, 2}, 4)
	require.ErrorContains(t, err, "2 channels from slot 4 on would need slot 5")
	_, err = memory("ab.cd").Insert(4, 1)
	require.ErrorContains(t, err, "no room: its last slot is 5")
	assert.Equal(t, []int{4, 2}, memory("a.b.").Vacant(3, 5))
}

// TestNothingIsLost: whatever is done to whatever memory, each channel is in one
// slot of the radio afterwards, and only those move that have to.
func TestNothingIsLost(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		text := []byte(rapid.StringMatching(`[.x]{1,20}`).Draw(r, "memory"))
		for i := range text {
			if text[i] == 'x' {
				text[i] = 'a' + byte(i)
			}
		}
		m := memory(string(text))
		slot := rapid.IntRange(1, len(text))
		some := rapid.SliceOfNDistinct(slot, 0, 6, rapid.ID[int]).Draw(r, "some")
		to, n := slot.Draw(r, "to"), rapid.IntRange(1, 4).Draw(r, "n")
		acts := map[string]func() (Moves, error){
			"move":   func() (Moves, error) { return m.Move(some, to) },
			"step":   func() (Moves, error) { return m.Step(some, rapid.SampledFrom([]int{-1, 1}).Draw(r, "by")), nil },
			"swap":   func() (Moves, error) { return m.Swap(to, n), nil },
			"insert": func() (Moves, error) { return m.Insert(to, n) },
			"close":  func() (Moves, error) { return m.Close(min(to, n), max(to, n)), nil },
			"order":  func() (Moves, error) { return m.Order(some), nil },
		}
		act := rapid.SampledFrom(slices.Sorted(maps.Keys(acts))).Draw(r, "act")
		moves, err := acts[act]()
		if err != nil || act == "swap" && n > len(text) {
			return
		}
		for from, to := range moves {
			require.True(r, m.First <= to && to <= m.Last, "%d to %d", from, to)
			require.NotEqual(r, from, to, "what stays is not named")
		}
		now := after(r, string(text), moves)
		require.Equal(r, slices.Sorted(slices.Values(text)), slices.Sorted(slices.Values([]byte(now))))
		held := m.held(some)
		switch act {
		case "move": // nobody moves but those, and those in their way
			for i, s := range held {
				require.Equal(r, text[s-1], now[to+i-1])
			}
			for from := range moves {
				require.True(r, slices.Contains(held, from) || to <= from && from < to+len(held), "%d moved", from)
			}
		case "insert":
			for s := to; s < min(to+n, len(text)+1); s++ {
				require.Equal(r, byte('.'), now[s-1], "room in %d", s)
			}
		case "order":
			for i, s := range slices.Sorted(slices.Values(held)) {
				kept := slices.DeleteFunc(slices.Clone(some), func(x int) bool { return !m.uses(x) })
				require.Equal(r, text[kept[i]-1], now[s-1])
			}
		}
	})
}

// TestRuns is how people say which slots.
func TestRuns(t *testing.T) {
	for want, some := range map[string][]int{
		"": nil, "7": {7}, "3 and 4": {4, 3}, "30–33": {30, 31, 32, 33}, "1, 3 and 5–7": {1, 3, 5, 6, 7},
		"1, 3, 5, 7, 9 and 2 more": {1, 3, 5, 7, 9, 11, 13},
	} {
		assert.Equal(t, want, Runs(some))
	}
}
