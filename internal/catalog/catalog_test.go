package catalog

import (
	"cmp"
	"context"
	"fmt"
	"math/rand/v2"
	"slices"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/check"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/tone"
	"mnemos/internal/fleet"
	"mnemos/internal/live"
	"mnemos/internal/store"
)

const at = "2026-11-25T09:42:00Z"

func open(t *testing.T) (*store.Store, *Catalog) {
	t.Helper()
	s, err := store.Open(t.Context(), t.TempDir())
	require.NoError(t, err)
	c := New(s, fleet.New(s, func() time.Time { return time.Time{} }), live.New(nil))
	t.Cleanup(func() {
		c.Ready()
		require.NoError(t, s.Close())
	})
	return s, c
}

// say keeps what a person says about statements.
func say(t *testing.T, s *store.Store, f func(*store.Edit) error) error {
	return s.Edit(t.Context(), 0, store.Latest, store.Stamp{PersonID: 1, At: at, Label: "say"}, f)
}

// TestConfined: the listings of a demonstration serve its plan alone, in memory
// and while they are being read.
func TestConfined(t *testing.T) {
	s, c := open(t)
	rs := draw(40, "A")
	for i := range rs {
		rs[i].Source = "invented"
	}
	require.NoError(t, s.Import(t.Context(), "invented", at, rs))
	real := draw(40, "B")
	require.NoError(t, s.Import(t.Context(), "list", at, real))
	require.NoError(t, s.Confine(t.Context(), "invented", 7))
	count := func(plan int64) (invented, others int) {
		src, _, err := c.Source(t.Context(), plan)
		require.NoError(t, err)
		var all []listing.Record
		for _, by := range []func(context.Context, band.Span, *geo.Box) ([]listing.Record, error){src.ByOutput, src.ByInput} {
			found, err := by(t.Context(), band.Span{Lower: 1, Upper: 1_000_000_000}, nil)
			require.NoError(t, err)
			all = append(all, found...)
		}
		on, err := src.OnOutputs(t.Context(), []freq.Hz{rs[0].Output}, nil)
		require.NoError(t, err)
		named, err := src.ByName(t.Context(), rs[0].Callsign, nil)
		require.NoError(t, err)
		for _, r := range slices.Concat(all, on, named) {
			if r.Source == "invented" {
				invented++
			} else {
				others++
			}
		}
		return invented, others
	}
	for range 2 {
		own, beside := count(7)
		none, same := count(1)
		assert.Positive(t, own)
		assert.Zero(t, none)
		assert.Positive(t, beside)
		assert.Equal(t, beside, same)
		c.Ready()
	}
	// A newer issue of it stays where it is.
	require.NoError(t, s.Import(t.Context(), "invented", at, rs[:20]))
	none, _ := count(1)
	assert.Zero(t, none)
	for plan, want := range map[int64]int{7: 2, 1: 1} {
		sources, err := c.Sources(t.Context(), plan)
		require.NoError(t, err)
		assert.Len(t, sources, want)
		b, err := c.Book(t.Context(), plan)
		require.NoError(t, err)
		assert.Equal(t, plan == 7, slices.Contains(b.Sources(), "invented"))
	}
}

// draw draws n records of an issue of a listing; some have no place, and some
// are no repeaters.
func draw(n int, issue string) []listing.Record {
	r := rand.New(rand.NewPCG(7, 8))
	out := make([]listing.Record, n)
	for i := range out {
		f := freq.Hz(145_000_000 + r.IntN(600)*5_000)
		out[i] = listing.Record{Key: fmt.Sprint(i), Callsign: "QX" + issue, Output: f, Input: f - 600_000, UplinkTone: listing.Says(tone.MustParse("88.5")), Mode: listing.FM, Locality: issue, Source: "list"}
		switch {
		case i%7 == 3:
			out[i].Input, out[i].Kind = f, listing.SimplexChannel
		case i%5 > 0:
			lat, lon := 40+r.Float64()*3, -57+r.Float64()*4
			out[i].Lat, out[i].Lon = &lat, &lon
		}
	}
	return out
}

func source(t *testing.T, c *Catalog) (listing.Source, int64) {
	t.Helper()
	s, e, err := c.Source(t.Context(), 0)
	require.NoError(t, err)
	return s, e.Number
}

// TestChanged: an edition names the frequencies about which people said
// something since another, and none where any record may be another one.
func TestChanged(t *testing.T) {
	s, c := open(t)
	rs := draw(3, "A")
	require.NoError(t, s.Import(t.Context(), "list", at, rs))
	edition := func() check.Generation {
		_, e, err := c.Source(t.Context(), 0)
		require.NoError(t, err)
		return e
	}
	first := edition()
	correct := func(key string) {
		require.NoError(t, say(t, s, func(e *store.Edit) error {
			return e.Correct(store.Correction{Source: "list", Key: key, Field: "uplink", Value: "100.0", Against: "", PersonID: 1, At: at})
		}))
	}
	correct(rs[0].Key)
	second := edition()
	require.NoError(t, say(t, s, func(e *store.Edit) error {
		return e.Decide(store.Decision{ASource: "list", AKey: rs[1].Key, BSource: "list", BKey: "gone", Same: true, PersonID: 1, At: at})
	}))
	third := edition()
	corrected := check.Changed{Outputs: []freq.Hz{rs[0].Output}, Inputs: []freq.Hz{rs[0].Input}}
	for _, x := range []struct {
		e     check.Generation
		since int64
		want  check.Changed
		ok    bool
	}{
		{first, first.Number, check.Changed{}, true},
		{second, first.Number, corrected, true},
		{third, second.Number, check.Changed{Joined: []freq.Hz{rs[1].Output}}, true},
		{third, first.Number, check.Changed{Outputs: corrected.Outputs, Inputs: corrected.Inputs, Joined: []freq.Hz{rs[1].Output}}, true},
		{first, third.Number, check.Changed{}, false}, // it is not of the past
		{third, first.Number - 1, check.Changed{}, false},
	} {
		got, ok := x.e.Changed(x.since)
		assert.Equal(t, x.ok, ok)
		assert.Equal(t, x.want, got)
	}
	for n := range 1100 { // more than are kept
		require.NoError(t, say(t, s, func(e *store.Edit) error {
			return e.Correct(store.Correction{Source: "list", Key: rs[2].Key, Field: "uplink_tone", Value: fmt.Sprint(n), At: at})
		}))
	}
	_, ok := edition().Changed(third.Number)
	assert.False(t, ok)
}

func inMemory(s listing.Source) bool {
	p, ok := s.(published)
	_, memory := p.found.(*records)
	return ok && memory
}

// TestAgreesWithTheFile asks the catalog and the data file the same questions.
func TestAgreesWithTheFile(t *testing.T) {
	s, c := open(t)
	require.NoError(t, s.Import(t.Context(), "list", at, draw(3000, "A")))
	source(t, c)
	c.Ready()
	src, _ := source(t, c)
	require.True(t, inMemory(src))
	sorted := func(rs []listing.Record, err error) []listing.Record {
		require.NoError(t, err)
		slices.SortFunc(rs, func(a, b listing.Record) int { return cmp.Compare(a.Key, b.Key) })
		return append([]listing.Record{}, rs...) // none is none, however it is held
	}
	r := rand.New(rand.NewPCG(1, 2))
	found := 0
	for range 200 {
		lower := freq.Hz(145_000_000 + r.IntN(600)*5_000)
		span := band.Span{Lower: lower, Upper: lower + freq.Hz(r.IntN(4)*5_000)}
		box := &geo.Box{South: 40 + r.Float64(), North: 41.5 + r.Float64(), West: -57 + r.Float64(), East: -55 + r.Float64()}
		if r.IntN(4) == 0 {
			box = nil
		}
		want := sorted(s.ByOutput(t.Context(), span, box))
		require.Equal(t, want, sorted(src.ByOutput(t.Context(), span, box)))
		require.Equal(t, sorted(s.ByInput(t.Context(), span, box)), sorted(src.ByInput(t.Context(), span, box)))
		list := []freq.Hz{span.Lower, span.Lower + 25_000, 146_000_000}
		require.Equal(t, sorted(s.OnOutputs(t.Context(), list, box)), sorted(src.OnOutputs(t.Context(), list, box)))
		found += len(want)
	}
	assert.Positive(t, found)
}

// TestSnapshot: who holds a source sees nothing move; who asks anew sees what
// is so by then, in memory or not.
func TestSnapshot(t *testing.T) {
	s, c := open(t)
	issue := func(src listing.Source) string {
		rs, err := src.ByOutput(t.Context(), band.Span{Lower: 0, Upper: freq.Max}, nil)
		require.NoError(t, err)
		require.NotEmpty(t, rs)
		return rs[0].Locality + rs[0].UplinkTone.String()
	}
	require.NoError(t, s.Import(t.Context(), "list", at, draw(50, "A")))
	source(t, c)
	c.Ready()
	a, first := source(t, c)
	require.True(t, inMemory(a))
	again, same := source(t, c)
	assert.Equal(t, first, same)
	assert.Equal(t, issue(a), issue(again))

	require.NoError(t, s.Import(t.Context(), "list", at, draw(50, "B")))
	b, second := source(t, c)
	assert.Greater(t, second, first)
	assert.Equal(t, "B88.5 Hz", issue(b), "at once, from the file if need be")
	assert.Equal(t, "A88.5 Hz", issue(a))
	c.Ready()
	b, _ = source(t, c)
	assert.True(t, inMemory(b))

	rs, err := b.ByOutput(t.Context(), band.Span{Lower: 0, Upper: freq.Max}, nil)
	require.NoError(t, err)
	i := slices.IndexFunc(listing.Fields, func(f listing.Field) bool { return f.Name == "uplink_tone" })
	against, _ := listing.Fields[i].Says(&rs[0])
	require.NoError(t, say(t, s, func(e *store.Edit) error {
		return e.Correct(store.Correction{Source: "list", Key: rs[0].Key, Field: "uplink_tone", Value: "100.0", Against: against, PersonID: 1, At: at})
	}))
	k, third := source(t, c)
	assert.Greater(t, third, second)
	assert.True(t, inMemory(k), "the records are the same: nothing is read again")
	assert.Equal(t, "B100.0 Hz", issue(k))
	assert.Equal(t, "B88.5 Hz", issue(b))
}

// TestSwaps has people judge while listings come and go: each answer is of one
// issue, whole.
func TestSwaps(t *testing.T) {
	s, c := open(t)
	require.NoError(t, s.Import(t.Context(), "list", at, draw(300, "0")))
	ctx, stop := context.WithCancel(t.Context())
	var g sync.WaitGroup
	var whole atomic.Int64
	for range 3 {
		g.Go(func() {
			for ctx.Err() == nil {
				src, _, err := c.Source(t.Context(), 0)
				assert.NoError(t, err)
				if !inMemory(src) {
					time.Sleep(time.Millisecond)
					continue
				}
				rs, err := src.ByOutput(t.Context(), band.Span{Lower: 0, Upper: freq.Max}, nil)
				assert.NoError(t, err)
				issues := map[string]bool{}
				for _, r := range rs {
					issues[r.Locality] = true
				}
				if assert.Len(t, issues, 1) {
					whole.Add(1)
				}
			}
		})
	}
	for i := range 8 {
		require.NoError(t, s.Import(t.Context(), "list", at, draw(300, fmt.Sprint(i))))
		time.Sleep(5 * time.Millisecond)
	}
	stop()
	g.Wait()
	assert.Positive(t, whole.Load())
	source(t, c)
	c.Ready()
	src, generation := source(t, c)
	require.True(t, inMemory(src))
	assert.Equal(t, s.Generation(), generation)
}
