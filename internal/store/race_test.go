package store

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/channel"
	"mnemos/internal/fault"
)

// TestLostRace: a change that is about what somebody removed meanwhile is refused
// in words, and the next one takes place.
func TestLostRace(t *testing.T) {
	s, p, l := fresh(t)
	require.NoError(t, put(s, p, l, 1, channel.New(146_520_000)))
	err := s.Edit(t.Context(), p.ID, Latest, stamp, func(e *Edit) error {
		return e.Stand(Standing{LoadID: l.ID, ChannelID: 4711, State: "stored"})
	})
	require.True(t, fault.IsStale(err), "%v", err)
	assert.NotContains(t, err.Error(), "constraint")
	require.NoError(t, put(s, p, l, 2, channel.New(146_550_000)))
}

// TestLean: a decision that leans on a row which is another one by now is refused,
// and says what became of it.
func TestLean(t *testing.T) {
	s, p, _ := fresh(t)
	was, err := s.Plan(t.Context(), p.ID)
	require.NoError(t, err)
	lean := func(seen int64) error {
		return s.Edit(t.Context(), p.ID, seen, stamp, func(e *Edit) error { return e.Lean(was) })
	}
	require.NoError(t, lean(Latest))
	to := was
	to.Region = "uk"
	require.NoError(t, s.Edit(t.Context(), p.ID, Latest, Stamp{PersonID: 1}, func(e *Edit) error { return e.Put(to) }))
	err = lean(Latest)
	require.True(t, fault.IsStale(err), "%v", err)
	assert.ErrorContains(t, err, "uk")
	require.NoError(t, s.Edit(t.Context(), p.ID, Latest, stamp, func(e *Edit) error { return e.Lean(Unit{}) }), "what is built in has no row")
}
