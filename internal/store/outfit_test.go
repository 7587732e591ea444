package store

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestOutfit: what a radio has one of, how it scans, its relay and its beacon, is kept once,
// goes with the radio and comes back with it; and can be taken back by itself.
func TestOutfit(t *testing.T) {
	s := open(t, t.TempDir())
	ctx := t.Context()
	plan, loads, err := s.NewPlan(ctx, Plan{Name: "p", Region: "us"}, Stamp{Label: "new"}, "trail", "ferry")
	require.NoError(t, err)
	load := loads[1].ID
	edit := func(label string, f func(*Edit) error) {
		t.Helper()
		require.NoError(t, s.Edit(ctx, plan.ID, Latest, Stamp{PersonID: 1, Label: label}, f))
	}
	edit("scan", func(e *Edit) error { return e.Listen(Listening{LoadID: load, Goal: "all of it", Talk: "{}"}) })
	edit("relay", func(e *Edit) error { return e.Relays(Relay{LoadID: load, LineA: "446.1", Way: "both", Ticks: "{}"}) })
	edit("beacon", func(e *Edit) error { return e.Beacons(Beacon{LoadID: load, Station: `{"from":"QX2AML"}`}) })
	held := func() []string {
		l, err := s.Listening(ctx, load)
		require.NoError(t, err)
		r, err := s.Relay(ctx, load)
		require.NoError(t, err)
		b, err := s.Beacon(ctx, load)
		require.NoError(t, err)
		return []string{l.Goal, r.LineA, b.Station}
	}
	all := []string{"all of it", "446.1", `{"from":"QX2AML"}`}
	assert.Equal(t, all, held())
	again, err := s.Relay(ctx, load)
	require.NoError(t, err)
	again.LineA = "446.2"
	edit("relay again", func(e *Edit) error { return e.Relays(again) })
	assert.Equal(t, "446.2", held()[1])
	_, err = s.Undo(ctx, plan.ID, Latest, Stamp{PersonID: 1}, false)
	require.NoError(t, err)
	assert.Equal(t, all, held())

	other, err := s.Relay(ctx, loads[0].ID)
	require.NoError(t, err)
	assert.Zero(t, other.ID, "the other radio has none")
	assert.Equal(t, []any{"both", -1, 8, 12}, []any{other.Way, other.Timeout, other.Mine, other.Theirs}, "the usual")

	edit("drop the radio", func(e *Edit) error { return e.DropLoad(loads[1]) })
	assert.Equal(t, []string{"", "", ""}, held())
	_, err = s.Undo(ctx, plan.ID, Latest, Stamp{PersonID: 1}, false)
	require.NoError(t, err)
	assert.Equal(t, all, held(), "it comes back with the radio")
}
