package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/evidence"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/plan"
	"mnemos/internal/store"
	"mnemos/internal/who"
)

// edit changes rows of no plan, on nobody's behalf.
func edit(t *testing.T, a *demotest.Rig, f func(*store.Edit) error) {
	t.Helper()
	require.NoError(t, a.Store.Edit(t.Context(), 0, store.Latest, store.Stamp{At: "2026-11-25T09:42:00Z", Label: "edit"}, f))
}

// TestWhoseLicence: a radio is judged by the licence of who holds it, and where
// nobody does, of who looks; each sees their own at once, and again.
func TestWhoseLicence(t *testing.T) {
	a := demotest.Open(t)
	bob := a.Person(t, "Bob")
	edit(t, a, func(e *store.Edit) error {
		return e.Put(store.Person{ID: who.Is(bob), Name: "Bob", Bands: store.Strings{"70 cm"}})
	})
	const calling = 1 // 146.520 MHz, 2 m
	verdict := func(person int64) evidence.Verdict {
		l, err := a.Plans.Ledger(who.As(t.Context(), person), demotest.Trail)
		require.NoError(t, err)
		return row(l, calling).Verdict
	}
	for range 2 {
		assert.Equal(t, evidence.Agrees, verdict(1))
		assert.Equal(t, evidence.Stop, verdict(who.Is(bob)), "his licence has no 2 m")
	}
	unit, err := a.Store.Load(t.Context(), demotest.Trail)
	require.NoError(t, err)
	held := func(by *int64) {
		edit(t, a, func(e *store.Edit) error { return e.Put(store.Unit{ID: unit.UnitID, Profile: "trail", Holder: by}) })
	}
	id := who.Is(bob)
	held(&id)
	assert.Equal(t, evidence.Stop, verdict(1), "it is his radio, whoever looks")
	held(nil)
	assert.Equal(t, evidence.Agrees, verdict(1))
}

// TestUndoByNumber: who takes another name can still take back what they did,
// also after a restart; and nobody takes back somebody else's.
func TestUndoByNumber(t *testing.T) {
	a := demotest.Open(t)
	bob := a.Person(t, "Bob")
	slot := 4
	l, err := a.Plans.Store(t.Context(), demotest.Trail, plan.Save{Line: `146.55 "Mine"`, Slot: &slot, Revision: plan.Latest})
	require.NoError(t, err)
	v, err := a.Plans.Settings(t.Context(), 0)
	require.NoError(t, err)
	_, err = a.Plans.SetSettings(t.Context(), 0, plan.SettingsForm{
		Region: v.Region, Person: "Another name", Place: v.Place, Height: "1.5", Radius: "150", TonePolicy: v.TonePolicy, Revision: v.Revision,
	})
	require.NoError(t, err)
	a.Again(t)
	theirs, err := a.Plans.Ledger(bob, demotest.Trail)
	require.NoError(t, err)
	assert.Empty(t, theirs.Undo)
	for _, label := range []string{"change the settings", l.Undo} {
		l = a.Ledger(t, demotest.Trail)
		require.Equal(t, label, l.Undo)
		_, err = a.Plans.Undo(t.Context(), demotest.Trail, l.Revision, false)
		require.NoError(t, err)
	}
	assert.Nil(t, row(a.Ledger(t, demotest.Trail), slot))
	v, err = a.Plans.Settings(t.Context(), 0)
	require.NoError(t, err)
	assert.Equal(t, "operator", v.Person)
}

// TestInventedListings witness in the plan of the demonstration alone: in
// another plan at the same place nothing is published.
func TestInventedListings(t *testing.T) {
	a := demotest.Open(t)
	p, err := a.Store.Plan(t.Context(), 1)
	require.NoError(t, err)
	p.ID, p.Name, p.Demo = 0, "Mine", false
	mine, loads, err := a.Store.NewPlan(t.Context(), p, store.Stamp{At: "2026-11-25T09:42:00Z", Label: "new"}, "trail")
	require.NoError(t, err)
	for _, x := range []struct {
		plan, load int64
		known      bool
	}{{1, demotest.Trail, true}, {mine.ID, loads[0].ID, false}, {1, demotest.Trail, true}} {
		r, err := a.Plans.Read(t.Context(), x.load, "146.94 - 88.5", nil)
		require.NoError(t, err)
		assert.Equal(t, x.known, len(r.Matches) > 0)
		scene, err := a.Plans.Scene(t.Context(), x.plan, x.load)
		require.NoError(t, err)
		assert.Equal(t, x.known, scene.Book.Records() > 0)
	}
}

// TestNothingComesBack: a radio that is taken out of a plan and in again does
// not bring channels with it that were deleted meanwhile, and finds the others
// under the numbers that everybody uses.
func TestNothingComesBack(t *testing.T) {
	a := demotest.Open(t)
	in, err := a.Plans.UseRadio(t.Context(), 0, "gale", false)
	require.NoError(t, err)
	_, err = a.Plans.DropRadio(t.Context(), 0, "gale")
	require.NoError(t, err)
	for _, load := range []int64{demotest.Trail, demotest.Ferry, demotest.Lantern} {
		if row(a.Ledger(t, load), 5) != nil { // Long Ridge, in all of them
			_, err = a.Plans.Delete(t.Context(), load, 5, plan.Latest)
			require.NoError(t, err)
		}
	}
	again, err := a.Plans.UseRadio(t.Context(), 0, "gale", false)
	require.NoError(t, err)
	assert.NotEqual(t, in.Load, again.Load)
	assert.Nil(t, row(again, 5))
	assert.Len(t, again.Rows, len(in.Rows)-1)
	for _, r := range again.Rows {
		assert.Equal(t, row(in, r.Slot).Channel, r.Channel)
	}
}

// TestRepeaterOfAChannel: a channel knows the published statement that it was
// made from, until it moves to another output.
func TestRepeaterOfAChannel(t *testing.T) {
	a := demotest.Open(t)
	slot, elsewhere := 4, "146.58"
	l, err := a.Plans.Store(t.Context(), demotest.Trail, plan.Save{Line: "146.94 - 88.5 Marran", Slot: &slot, Revision: plan.Latest})
	require.NoError(t, err)
	assert.Equal(t, "Marran", row(l, 4).Channel.Name)
	assert.NotEmpty(t, row(l, 4).Repeater.Key)
	name := "Hill"
	l, err = a.Plans.Update(t.Context(), demotest.Trail, 4, plan.Update{Name: &name, Revision: l.Revision})
	require.NoError(t, err)
	assert.NotEmpty(t, row(l, 4).Repeater.Key)
	l, err = a.Plans.Update(t.Context(), demotest.Trail, 4, plan.Update{Receive: &elsewhere, Revision: l.Revision})
	require.NoError(t, err)
	assert.Empty(t, row(l, 4).Repeater.Key)
}
