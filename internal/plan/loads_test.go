package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/demo/demotest"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
)

func radios(t *testing.T, a *demotest.Rig) (out []string) {
	t.Helper()
	w, err := a.Plans.Workspace(t.Context(), 0)
	require.NoError(t, err)
	for _, l := range w.Loads {
		out = append(out, l.Unit.Profile)
	}
	return out
}

// TestARadioAgainAndAgain takes a radio in and out, and deletes its profile
// while undo could still bring it back: the plan opens all the same.
func TestARadioAgainAndAgain(t *testing.T) {
	a := demotest.Open(t)
	mine, err := a.Fleet.NewProfile(t.Context(), "gale", "")
	require.NoError(t, err)
	in, err := a.Plans.UseRadio(t.Context(), 0, mine.ID, false)
	require.NoError(t, err)
	assert.Equal(t, []string{"trail", "ferry", "lantern", mine.ID}, radios(t, a))
	for _, r := range in.Rows {
		for _, load := range []int64{demotest.Trail, demotest.Ferry, demotest.Lantern} {
			if other := row(a.Ledger(t, load), r.Slot); other != nil {
				assert.Equal(t, other.Channel, r.Channel, "slot %d means the same in every radio", r.Slot)
			}
		}
	}

	back, err := a.Plans.Undo(t.Context(), in.Load, in.Revision, false)
	require.NoError(t, err)
	assert.EqualValues(t, demotest.Trail, back.Load, "the radio is gone: the ledger of another one is shown")
	bob := a.Person(t, "Bob")
	_, err = a.Fleet.DeleteProfile(bob, mine.ID, plan.Latest)
	require.NoError(t, err)
	again, err := a.Plans.Undo(t.Context(), demotest.Trail, back.Revision, true)
	require.NoError(t, err)
	assert.Equal(t, []string{"trail", "ferry", "lantern"}, radios(t, a), "a radio that nobody can describe is not shown")
	_, err = a.Plans.Undo(bob, demotest.Trail, plan.Latest, false)
	require.NoError(t, err)
	assert.Equal(t, []string{"trail", "ferry", "lantern", mine.ID}, radios(t, a), "brought back, it has its channels")
	assert.Len(t, a.Ledger(t, in.Load).Rows, len(in.Rows))
	assert.Positive(t, again.Revision)
}

// TestTheLastRadioStays refuses to leave a plan without one.
func TestTheLastRadioStays(t *testing.T) {
	a := demotest.Open(t)
	var invalid *fault.Invalid
	for _, id := range []string{"trail", "ferry"} {
		_, err := a.Plans.DropRadio(t.Context(), 0, id)
		require.NoError(t, err)
	}
	_, err := a.Plans.DropRadio(t.Context(), 0, "lantern")
	require.ErrorAs(t, err, &invalid)
	assert.Contains(t, invalid.Fields[0].Message, "only radio")
	_, err = a.Plans.DropRadio(t.Context(), 0, "trail")
	require.ErrorAs(t, err, &invalid)
	assert.Contains(t, invalid.Fields[0].Message, "not in the plan")
	assert.Equal(t, []string{"lantern"}, radios(t, a))
}

// TestPreviewSaysWhatIsLost holds the preview of a profile against what the
// radio really gets when it is taken into the plan.
func TestPreviewSaysWhatIsLost(t *testing.T) {
	a := demotest.Open(t)
	for _, id := range []string{"beck", "cairn", "gale", "harrier", "moor", "skerry", "tarn"} {
		form, err := a.Fleet.Form(t.Context(), id)
		require.NoError(t, err)
		v, err := a.Plans.PreviewRadio(t.Context(), 0, id, form.Texts)
		require.NoError(t, err)
		require.Empty(t, v.Faults, id)
		assert.Equal(t, len(v.Rows), v.Fit+v.Lose+v.Cannot, id)
		l, err := a.Plans.UseRadio(t.Context(), 0, id, false)
		require.NoError(t, err)
		assert.Len(t, l.Rows, v.Fit+v.Lose, "%s: what is held is what was promised", id)
		for _, p := range v.Rows {
			r := row(l, p.Slot)
			if !p.Held {
				assert.Nil(t, r, "%s, slot %d", id, p.Slot)
				continue
			}
			if assert.NotNil(t, r, "%s, slot %d", id, p.Slot) {
				assert.Equal(t, p.Short, r.ShortName)
				e, err := a.Plans.Evidence(t.Context(), l.Load, p.Slot)
				require.NoError(t, err)
				assert.Equal(t, len(p.Losses) > 0, lost(e), "%s, slot %d: the rules speak of what is lost", id, p.Slot)
			}
		}
	}
	v, err := a.Plans.PreviewRadio(t.Context(), 0, "trail", map[string]string{"slots": "x", "steps": "fast"})
	require.NoError(t, err)
	assert.Len(t, v.Faults, 2)
	assert.Empty(t, v.Rows)
}

// lost reports whether a rule about the radio's range, step, shift, tone or
// settings speaks.
func lost(e *plan.Evidence) bool {
	for _, f := range e.Findings {
		switch f.Rule {
		case "radio-range", "radio-step", "radio-shift", "radio-tone", "radio-setting":
			return true
		}
	}
	return false
}
