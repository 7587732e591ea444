package store

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/internal/fault"
)

// TestLoads takes a radio into a plan and out of it, back and forth by undo.
func TestLoads(t *testing.T) {
	s, made, l := fresh(t)
	plan, first := made.ID, l.ID
	var second Load
	edit := func(f func(*Edit) error) {
		t.Helper()
		p, err := s.Plan(t.Context(), plan)
		require.NoError(t, err)
		require.NoError(t, s.Edit(t.Context(), plan, p.Revision, stamp, f))
	}
	undo := func(redo bool) error {
		p, err := s.Plan(t.Context(), plan)
		require.NoError(t, err)
		_, err = s.Undo(t.Context(), plan, p.Revision, stamp, redo)
		return err
	}
	radios := func() (out []string) {
		loads, err := s.Loads(t.Context(), plan)
		require.NoError(t, err)
		for _, l := range loads {
			u, err := s.Unit(t.Context(), l.UnitID)
			require.NoError(t, err)
			out = append(out, u.Profile)
		}
		return out
	}
	slots := func(load int64) (out []int) {
		entries, err := s.Entries(t.Context(), load)
		require.NoError(t, err)
		for _, e := range entries {
			out = append(out, e.Slot)
		}
		return out
	}

	var shared int64
	edit(func(e *Edit) error {
		id, err := e.AddChannel(channel.New(146520*freq.KHz), listing.ID{})
		require.NoError(t, err)
		shared = id
		return e.AddEntry(Entry{LoadID: first, Slot: 1, ChannelID: id, Scan: entry.ScanYes})
	})
	edit(func(e *Edit) error {
		var err error
		second, err = e.AddLoad(Unit{Profile: "lantern"})
		require.NoError(t, err)
		own, err := e.AddChannel(channel.New(146550*freq.KHz), listing.ID{})
		require.NoError(t, err)
		require.NoError(t, e.AddEntry(Entry{LoadID: second.ID, Slot: 1, ChannelID: shared, Scan: entry.ScanYes}))
		return e.AddEntry(Entry{LoadID: second.ID, Slot: 7, ChannelID: own, Scan: entry.ScanYes})
	})
	assert.Equal(t, []string{"trail", "lantern"}, radios())

	edit(func(e *Edit) error { return e.DropLoad(second) })
	assert.Equal(t, []string{"trail"}, radios())
	assert.Equal(t, []int{1}, slots(first), "a channel that another radio holds stays")
	require.NoError(t, undo(false))
	assert.Equal(t, []string{"trail", "lantern"}, radios())
	assert.Equal(t, []int{1, 7}, slots(second.ID))

	// Taken back past its beginning, and forward again.
	require.NoError(t, undo(false))
	assert.Equal(t, []string{"trail"}, radios())
	require.NoError(t, undo(true))
	assert.Equal(t, []int{1, 7}, slots(second.ID))

	// A radio that came after it does not get its number.
	require.NoError(t, undo(false))
	edit(func(e *Edit) error {
		third, err := e.AddLoad(Unit{Profile: "ferry"})
		assert.Greater(t, third.ID, second.ID)
		return err
	})

	// Somebody else's channel in it is not lost with it.
	loads, err := s.Loads(t.Context(), plan)
	require.NoError(t, err)
	p, err := s.Plan(t.Context(), plan)
	require.NoError(t, err)
	require.NoError(t, s.Edit(t.Context(), plan, p.Revision, Stamp{PersonID: 2, At: stamp.At, Label: "store"}, func(e *Edit) error {
		return e.AddEntry(Entry{LoadID: loads[1].ID, Slot: 3, ChannelID: shared, Scan: entry.ScanYes})
	}))
	assert.True(t, fault.IsStale(undo(false)))
	assert.Equal(t, []int{3}, slots(loads[1].ID))
}
