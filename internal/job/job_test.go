package job

import (
	"context"
	"errors"
	"fmt"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/fault"
	"mnemos/internal/live"
	"mnemos/internal/root"
)

// phase is the state of the jobs here.
type phase string

func (p phase) Over() bool { return p == "done" || p == "cancelled" }
func (p phase) Busy() bool { return p == "busy" }

func begin(p *phase) error {
	if *p != "shown" {
		return errors.New("begun already")
	}
	*p = "busy"
	return nil
}

func end(ctx context.Context, err error) func(*phase) {
	return func(p *phase) {
		if *p = "done"; err != nil && ctx.Err() != nil {
			*p = "cancelled"
		}
	}
}

// still is a journal in which nothing happens.
type still struct{}

func (still) Head(context.Context) (int64, error) { return 0, nil }
func (still) After(context.Context, int64) ([]live.Committed, bool, error) {
	return nil, true, nil
}

func add(t *testing.T, r *Runner[phase], forgotten *int) *Job[phase] {
	t.Helper()
	j, err := r.Add("shown", func() error { *forgotten++; return nil })
	require.NoError(t, err)
	return j
}

func over(t *testing.T, j *Job[phase]) phase {
	t.Helper()
	var last phase
	require.NoError(t, j.Watch(t.Context(), func(p phase) error { last = p; return nil }))
	return last
}

// TestOneAfterAnother: two jobs never work at once, and whoever began them may
// be gone.
func TestOneAfterAnother(t *testing.T) {
	hub := live.New(still{})
	begun, _, err := hub.Now(t.Context())
	require.NoError(t, err)
	r := NewRunner[phase]("test", hub)
	var at, most atomic.Int64
	var jobs []*Job[phase]
	n := 0
	for range 5 {
		j := add(t, r, &n)
		ctx, gone := context.WithCancel(t.Context())
		require.NoError(t, j.Start(ctx, begin, func(context.Context) error {
			most.Store(max(most.Load(), at.Add(1)))
			time.Sleep(5 * time.Millisecond)
			at.Add(-1)
			return nil
		}, end))
		gone()
		require.Error(t, j.Start(t.Context(), begin, nil, end), "once is enough")
		jobs = append(jobs, j)
	}
	for _, j := range jobs {
		assert.Equal(t, phase("done"), over(t, j))
	}
	assert.EqualValues(t, 1, most.Load())
	var told []string
	err = hub.Follow(t.Context(), begun, func(e live.Event) error {
		x, ok := e.Data.(Told[phase])
		require.True(t, ok)
		if told = append(told, x.ID+" "+string(x.State)); len(told) == len(jobs) {
			return fault.ErrNothing
		}
		return nil
	})
	require.ErrorIs(t, err, fault.ErrNothing)
	assert.ElementsMatch(t, []string{"1 done", "2 done", "3 done", "4 done", "5 done"}, told, "the hub knows")
}

// TestDrop ends what is at work, or waits, and forgets the rest.
func TestDrop(t *testing.T) {
	r := NewRunner[phase]("test", live.New(still{}))
	n := 0
	first, second, third := add(t, r, &n), add(t, r, &n), add(t, r, &n)
	work := func(ctx context.Context) error { <-ctx.Done(); return ctx.Err() }
	for _, j := range []*Job[phase]{first, second} {
		require.NoError(t, j.Start(t.Context(), begin, work, end))
	}
	require.NoError(t, r.Drop(second.ID), "it never had its turn")
	assert.Equal(t, phase("cancelled"), over(t, second))
	require.NoError(t, r.Drop(first.ID))
	assert.Equal(t, phase("cancelled"), over(t, first))
	assert.Zero(t, n)
	require.NoError(t, r.Drop(third.ID))
	assert.Equal(t, 1, n)
	_, err := r.Find(third.ID)
	require.ErrorIs(t, err, fault.ErrNotFound)
	assert.ErrorIs(t, r.Drop("99"), fault.ErrNotFound)
	assert.Len(t, r.States(), 2)
}

// TestForgets the oldest that nobody waits for, and none that is at work.
func TestForgets(t *testing.T) {
	r := NewRunner[phase]("test", live.New(still{}))
	n := 0
	busy := add(t, r, &n)
	require.NoError(t, busy.Start(t.Context(), begin, func(ctx context.Context) error { <-ctx.Done(); return ctx.Err() }, end))
	for i := range 60 {
		j := add(t, r, &n)
		assert.Equal(t, fmt.Sprint(i+2), j.ID)
	}
	assert.Len(t, r.States(), kept+1)
	assert.Equal(t, 60-kept, n)
	assert.Equal(t, phase("busy"), busy.State())
	require.NoError(t, r.Drop(busy.ID))
	over(t, busy)
}

// TestPanic: a job that panics fails, alone; the next one has its turn.
func TestPanic(t *testing.T) {
	for _, place := range []string{"job: work", "job: update"} {
		r := NewRunner[phase]("test", live.New(still{}))
		n, broke := 0, false
		var why error
		first, second := add(t, r, &n), add(t, r, &n)
		stop := root.Watch(func(at string) {
			if at == place && !broke {
				broke = true
				panic("nobody foresaw it")
			}
		})
		for _, j := range []*Job[phase]{first, second} {
			require.NoError(t, j.Start(t.Context(), begin, func(context.Context) error { return nil }, func(ctx context.Context, err error) func(*phase) {
				why = errors.Join(why, err)
				return end(ctx, err)
			}))
			assert.Equal(t, phase("done"), over(t, j), place)
		}
		stop()
		var fell *root.Panic
		require.ErrorAs(t, why, &fell, place)
	}
}
