package live

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"testing"
	"testing/synctest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/internal/root"
)

var errEnough = errors.New("errEnough")

// book is a journal of numbers, which may be too long to be told.
type book struct {
	mu   sync.Mutex
	head int64
	long int64 // so many at once are too many
	once int   // so many are read at once
	fail error
}

func newBook() *book { return &book{long: 100, once: 7} }

func (b *book) write() {
	b.mu.Lock()
	defer b.mu.Unlock()
	b.head++
}

func (b *book) Head(context.Context) (int64, error) {
	b.mu.Lock()
	defer b.mu.Unlock()
	return b.head, b.fail
}

func (b *book) After(_ context.Context, n int64) (out []Committed, ok bool, err error) {
	b.mu.Lock()
	defer b.mu.Unlock()
	if b.head-n > b.long {
		return nil, false, nil
	}
	for ; n < b.head && len(out) < b.once; n++ {
		out = append(out, Committed{n + 1, n + 1})
	}
	return out, true, b.fail
}

// follow collects n events that are no beats.
func follow(t require.TestingT, ctx context.Context, h *Hub, after string, n int) (got []Event) {
	err := h.Follow(ctx, after, func(e Event) error {
		if e.Kind != Beat {
			got = append(got, e)
		}
		if len(got) == n {
			return errEnough
		}
		return nil
	})
	require.ErrorIs(t, err, errEnough)
	return got
}

func now(t require.TestingT, h *Hub) string {
	id, _, err := h.Now(context.Background())
	require.NoError(t, err)
	return id
}

// TestNothingIsMissed: whoever goes away and comes back again and again has
// every change once, in order, be they told of it or not, and the last state of
// everything; unless so many happened meanwhile that a reset says so, after which
// nothing of before is told.
func TestNothingIsMissed(t *testing.T) {
	resets := 0
	rapid.Check(t, func(r *rapid.T) {
		b := newBook()
		h := New(b)
		at, seen := now(r, h), int64(0)
		for visit := range rapid.IntRange(1, 20).Draw(r, "visits") {
			n := rapid.SampledFrom([]int{1, 2, 30, 100, 101, 250}).Draw(r, "changes")
			for range n {
				b.write()
				if rapid.Bool().Draw(r, "told") {
					h.Wake()
				}
			}
			h.Publish("count", "a", visit)
			h.Publish("count", "a", -visit)
			got := follow(r, context.Background(), h, at, 1)
			if n > 100 {
				require.Equal(r, Reset, got[0].Kind)
				resets++
				seen, at = b.head, got[0].ID
				b.write()
				got = follow(r, context.Background(), h, at, 1)
				require.Equal(r, Change, got[0].Kind)
				seen++
				require.Equal(r, seen, got[0].Data)
				at = got[0].ID
				continue
			}
			for i, e := range follow(r, context.Background(), h, at, n+1) {
				if at = e.ID; i == n {
					require.Equal(r, "count", e.Kind)
					require.Equal(r, -visit, e.Data, "only how it stands now")
					continue
				}
				seen++
				require.Equal(r, seen, e.Data)
			}
		}
	})
	assert.Positive(t, resets)
}

// TestAtOnce has several follow while several write: all are told the same.
func TestAtOnce(t *testing.T) {
	b := newBook()
	b.long = 1 << 30
	h := New(b)
	const n = 500
	from := now(t, h)
	got := make([][]Event, 4)
	var g sync.WaitGroup
	for i := range got {
		g.Go(func() { got[i] = follow(t, t.Context(), h, from, 3*n) })
	}
	for range 3 {
		g.Go(func() {
			for range n {
				b.write()
				h.Wake()
			}
		})
	}
	g.Wait()
	for _, events := range got {
		for i, e := range events {
			require.EqualValues(t, i+1, e.Data)
		}
	}
}

// TestLostNotice: a change that nobody told of, because whoever was to do so
// panicked, is read at the next beat.
func TestLostNotice(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		b := newBook()
		h := New(b)
		var kinds []string
		var g sync.WaitGroup
		g.Go(func() {
			_ = h.Follow(t.Context(), "", func(e Event) error {
				if kinds = append(kinds, e.Kind); e.Kind == Change {
					return errEnough
				}
				return nil
			})
		})
		synctest.Wait()
		end := root.Watch(func(place string) {
			if place == "live: wake" {
				panic("lost")
			}
		})
		b.write()
		require.Error(t, root.Try("tell", func() error { h.Wake(); return nil }))
		end()
		g.Wait()
		assert.Equal(t, []string{Beat, Change}, kinds)
		h.Publish("x", "", nil) // the lock was let go
	})
}

// TestStates: only so many are kept, and a reader that fails gets its error.
func TestStates(t *testing.T) {
	b := newBook()
	h := New(b)
	from := now(t, h)
	for i := range 3 * most {
		h.Publish("x", fmt.Sprint(i), i)
	}
	got := follow(t, t.Context(), h, from, most)
	assert.Equal(t, 2*most, got[0].Data)
	b.fail = errors.New("the disk")
	require.ErrorIs(t, h.Follow(t.Context(), "", func(Event) error { return nil }), b.fail)
}

// TestAnotherEpoch: numbers of a hub that is gone mean nothing.
func TestAnotherEpoch(t *testing.T) {
	old, h := New(newBook()), New(newBook())
	old.Publish("x", "", nil)
	h.Publish("x", "", nil)
	for _, id := range []string{now(t, old), "nonsense", h.epoch + "-0-99", h.epoch + "-9-0", h.epoch + "--1", h.epoch, h.epoch + "-0-0-0", h.epoch + "-0-\n0", h.epoch + "-99999999999999999999-0"} {
		assert.Equal(t, Reset, follow(t, t.Context(), h, id, 1)[0].Kind, id)
	}
	ctx, cancel := context.WithCancel(t.Context())
	cancel()
	assert.ErrorIs(t, h.Follow(ctx, "", func(Event) error { return nil }), context.Canceled)
	go h.Close()
	assert.NoError(t, h.Follow(t.Context(), "", func(Event) error { return nil }))
	h.Close()
}
