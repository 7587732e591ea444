package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/standing"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
)

// TestStanding: what was keyed stays keyed until the radio is to hold something
// else, comes back when that is undone, and is each radio's own.
func TestStanding(t *testing.T) {
	a := demotest.Open(t)
	l, err := a.Plans.Stand(t.Context(), demotest.Trail, []int{7, 8, 15}, standing.Keyed, plan.Latest)
	require.NoError(t, err)
	assert.Equal(t, "mark 3 channels as keyed in Trail: 7, 8 and 15", l.Undo)
	now := func(l *plan.Ledger, slot int) standing.State { return row(l, slot).Standing.Now }
	assert.Equal(t, standing.Keyed, now(l, 7))
	assert.EqualValues(t, 1, row(l, 7).Standing.Person)
	assert.Equal(t, standing.Planned, now(a.Ledger(t, demotest.Ferry), 7))

	name := "Marran lighthouse" // the display shows the same six letters, or others
	l, err = a.Plans.Update(t.Context(), demotest.Trail, 8, plan.Update{Name: &name, Revision: plan.Latest})
	require.NoError(t, err)
	assert.Equal(t, standing.Planned, now(l, 8), "the short name is another one")
	assert.Equal(t, standing.Keyed, row(l, 8).Standing.Was)
	tone := "88.5"
	l, err = a.Plans.Update(t.Context(), demotest.Trail, 7, plan.Update{TransmitTone: &tone, Revision: plan.Latest})
	require.NoError(t, err)
	assert.Equal(t, standing.Planned, now(l, 7))
	tasks, err := a.Plans.Work(t.Context(), demotest.Trail)
	require.NoError(t, err)
	var behind []string
	for _, x := range tasks {
		if x.Kind == "behind" {
			behind = append(behind, x.Title+": "+x.Why)
			assert.Equal(t, "walk", x.Do)
		}
	}
	require.Len(t, behind, 3)
	assert.Contains(t, behind[0], "The radio still holds what it was before: it was keyed on 2026-11-25")
	assert.Equal(t, "Trail is behind: 21 channels not stored yet", behind[2], "24, of which one is keyed and two were changed")
	tasks, err = a.Plans.Work(t.Context(), demotest.Ferry)
	require.NoError(t, err)
	for _, x := range tasks {
		if x.Kind == "behind" {
			assert.Equal(t, "Trail is behind: 2 channels changed since they were keyed in, 21 channels not stored yet", x.Title+": "+x.Why)
			assert.EqualValues(t, demotest.Trail, x.From)
		}
	}
	_, err = a.Plans.Undo(t.Context(), demotest.Trail, plan.Latest, false)
	require.NoError(t, err)
	assert.Equal(t, standing.Keyed, now(a.Ledger(t, demotest.Trail), 7), "the radio holds what it held")

	// A channel that is deleted and brought back is in the radio as it was.
	_, err = a.Plans.DeleteSome(t.Context(), demotest.Trail, []int{15}, plan.Latest)
	require.NoError(t, err)
	_, err = a.Plans.DeleteSome(t.Context(), demotest.Ferry, []int{15}, plan.Latest)
	require.NoError(t, err)
	for _, load := range []int64{demotest.Ferry, demotest.Trail} {
		_, err = a.Plans.Undo(t.Context(), load, plan.Latest, false)
		require.NoError(t, err)
	}
	assert.Equal(t, standing.Keyed, now(a.Ledger(t, demotest.Trail), 15))
	held, _, err := a.Plans.Holdings(t.Context(), 1, demotest.Trail)
	require.NoError(t, err)
	keyed := 0
	for _, h := range held {
		if h.State == standing.Keyed {
			keyed++
		}
	}
	assert.Equal(t, 2, keyed)

	var invalid *fault.Invalid
	_, err = a.Plans.Stand(t.Context(), demotest.Trail, []int{7}, "lost", plan.Latest)
	require.ErrorAs(t, err, &invalid)
	_, err = a.Plans.Stand(t.Context(), demotest.Trail, []int{4}, standing.Keyed, plan.Latest)
	require.ErrorAs(t, err, &invalid)
	second, err := a.Plans.AddUnit(t.Context(), 1, "trail", plan.UnitForm{})
	require.NoError(t, err)
	bob := a.Person(t, "Bob")
	_, err = a.Plans.Stand(bob, second.Load, []int{1}, standing.Stored, plan.Latest)
	require.NoError(t, err)
	_, err = a.Plans.DropUnit(t.Context(), second.Load, plan.Latest)
	require.NoError(t, err, "a radio goes with what is known of it")
}
