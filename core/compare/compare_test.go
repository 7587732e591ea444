package compare

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/tone"
)

func item(id int64, slot int, mhz, tx, name string) Item {
	c := channel.New(freq.MustParse(mhz + " MHz"))
	c.Name, c.TransmitTone = name, tone.MustParse(tx)
	return Of(id, slot, "", entry.ScanYes, c)
}

// TestByHand is what a person says of two lists that lie side by side.
func TestByHand(t *testing.T) {
	was := []Item{item(0, 1, "146.52", "none", "Calling"), item(0, 2, "146.94", "127.3", "Marran"), item(0, 3, "147.24", "100", "Beacon"), item(0, 4, "145.31", "none", "Gannet")}
	is := []Item{item(0, 1, "146.52", "none", "Calling"), item(0, 7, "146.94", "88.5", "Marran"), item(0, 3, "147.24", "100", "Beacon Hill"), item(0, 4, "443.1", "none", "Fell")}
	r := Lists(was, is)
	assert.Equal(t, 1, r.Same)
	require.Len(t, r.Differences, 4)
	said := map[string][]Field{}
	for _, d := range r.Differences {
		switch {
		case d.Was == nil:
			said["new "+d.Is.Channel.Name] = nil
		case d.Is == nil:
			said["gone "+d.Was.Channel.Name] = nil
		default:
			said[d.Was.Channel.Name] = d.Fields
		}
	}
	assert.Equal(t, map[string][]Field{
		"new Fell": nil, "gone Gannet": nil,
		"Marran": {{"slot", "2", "7"}, {"tone sent", "127.3", "88.5"}},
		"Beacon": {{"name", "Beacon", "Beacon Hill"}},
	}, said)
	// By its number a channel is the same whatever became of it.
	r = Lists([]Item{item(5, 1, "146.52", "none", "Calling")}, []Item{item(5, 1, "433.5", "77", "Other")})
	require.Len(t, r.Differences, 1)
	assert.Len(t, r.Differences[0].Fields, 4, "name, both frequencies, tone")
}

// TestEveryChannelOnce: whatever the lists, each channel of both is told once, or
// is the same; a list is the same as itself, and the other way round new is gone.
func TestEveryChannelOnce(t *testing.T) {
	list := rapid.SliceOfN(rapid.Custom(func(r *rapid.T) Item {
		return item(rapid.Int64Range(0, 3).Draw(r, "id"), rapid.IntRange(1, 5).Draw(r, "slot"), rapid.SampledFrom([]string{"146.5", "146.6", "146.7"}).Draw(r, "mhz"), rapid.SampledFrom([]string{"none", "100"}).Draw(r, "tone"), rapid.SampledFrom([]string{"", "A", "B"}).Draw(r, "name"))
	}), 0, 8)
	rapid.Check(t, func(r *rapid.T) {
		a, b := list.Draw(r, "a"), list.Draw(r, "b")
		count := func(x Result) (was, is, both int) {
			for _, d := range x.Differences {
				switch {
				case d.Was == nil:
					is++
				case d.Is == nil:
					was++
				default:
					both++
					require.NotEmpty(r, d.Fields)
				}
			}
			return was, is, both
		}
		x := Lists(a, b)
		gone, fresh, both := count(x)
		require.Equal(r, len(a), gone+both+x.Same)
		require.Equal(r, len(b), fresh+both+x.Same)
		backGone, backFresh, _ := count(Lists(b, a))
		require.Equal(r, []int{gone, fresh}, []int{backFresh, backGone})
		require.Equal(r, Result{Same: len(a)}, Lists(a, a))
	})
}
