package live

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

var errEnough = errors.New("errEnough")

// follow collects n events.
func follow(t require.TestingT, ctx context.Context, h *Hub, after string, n int) (got []Event) {
	err := h.Follow(ctx, after, func(e Event) error {
		if got = append(got, e); len(got) == n {
			return errEnough
		}
		return nil
	})
	require.ErrorIs(t, err, errEnough)
	return got
}

// TestNothingIsMissed: whoever goes away and comes back again and again has
// every event once, in order, while others publish; unless so many happened
// meanwhile that a reset says so.
func TestNothingIsMissed(t *testing.T) {
	resets := 0
	rapid.Check(t, func(r *rapid.T) {
		h := New()
		last, seen := h.Now(), int64(0)
		for range rapid.IntRange(1, 20).Draw(r, "visits") {
			n := rapid.SampledFrom([]int{1, 2, 30, Remember / 2, Remember + 5}).Draw(r, "events")
			for range n {
				h.Publish("count", nil)
			}
			got := follow(r, t.Context(), h, last, 1)
			if got[0].Kind == Reset {
				resets++
				seen, last = got[0].Number, h.ID(got[0])
				continue
			}
			for _, e := range follow(r, t.Context(), h, last, n) {
				seen++
				require.Equal(r, seen, e.Number)
				last = h.ID(e)
			}
		}
	})
	assert.Positive(t, resets)
}

// TestAtOnce has several follow while several publish: all see the same.
func TestAtOnce(t *testing.T) {
	h := New()
	const n = 500
	from := h.Now()
	got := make([][]Event, 4)
	var g sync.WaitGroup
	for i := range got {
		g.Go(func() { got[i] = follow(t, t.Context(), h, from, 3*n) })
	}
	for p := range 3 {
		g.Go(func() {
			for i := range n {
				h.Publish("x", fmt.Sprint(p, i))
			}
		})
	}
	g.Wait()
	for _, events := range got[1:] {
		assert.Equal(t, got[0], events)
	}
}

// TestAnotherEpoch: numbers of a hub that is gone mean nothing.
func TestAnotherEpoch(t *testing.T) {
	old, h := New(), New()
	old.Publish("x", nil)
	h.Publish("x", nil)
	for _, id := range []string{old.Now(), "nonsense", h.epoch + "-99", h.epoch + "--1", h.epoch} {
		assert.Equal(t, Reset, follow(t, t.Context(), h, id, 1)[0].Kind, id)
	}
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	assert.ErrorIs(t, h.Follow(ctx, "", func(Event) error { return nil }), context.Canceled)
	go h.Close()
	assert.NoError(t, h.Follow(t.Context(), "", func(Event) error { return nil }))
	h.Close()
}
