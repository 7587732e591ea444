package app_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/app"
	"mnemos/internal/fault"
)

func radios(t *testing.T, a *app.App) (out []string) {
	t.Helper()
	w, err := a.Workspace(t.Context())
	require.NoError(t, err)
	for _, l := range w.Loads {
		out = append(out, l.Radio.ID)
	}
	return out
}

// TestARadioAgainAndAgain takes a radio in and out, and deletes its profile
// while undo could still bring it back: the plan opens all the same.
func TestARadioAgainAndAgain(t *testing.T) {
	a := demoApp(t)
	mine, err := a.NewRadio(t.Context(), "gale", "")
	require.NoError(t, err)
	in, err := a.UseRadio(t.Context(), mine.ID)
	require.NoError(t, err)
	assert.Equal(t, []string{"trail", "ferry", "lantern", mine.ID}, radios(t, a))
	for _, r := range in.Rows {
		for _, load := range []int64{trail, ferry, lantern} {
			if other := row(ledger(t, a, load), r.Slot); other != nil {
				assert.Equal(t, other.Channel, r.Channel, "slot %d means the same in every radio", r.Slot)
			}
		}
	}

	back, err := a.Undo(t.Context(), in.Load, in.Revision, false)
	require.NoError(t, err)
	assert.EqualValues(t, trail, back.Load, "the radio is gone: the ledger of another one is shown")
	_, err = a.DeleteRadio(t.Context(), mine.ID)
	require.NoError(t, err)
	again, err := a.Undo(t.Context(), trail, back.Revision, true)
	require.NoError(t, err)
	assert.Equal(t, []string{"trail", "ferry", "lantern"}, radios(t, a), "a radio that nobody can describe is not shown")
	_, err = a.NewRadio(t.Context(), "", mine.YAML)
	require.NoError(t, err)
	assert.Equal(t, []string{"trail", "ferry", "lantern", mine.ID}, radios(t, a), "brought back, it has its channels")
	assert.Len(t, ledger(t, a, in.Load).Rows, len(in.Rows))
	assert.Positive(t, again.Revision)
}

// TestTheLastRadioStays refuses to leave a plan without one.
func TestTheLastRadioStays(t *testing.T) {
	a := demoApp(t)
	var invalid *fault.Invalid
	for _, id := range []string{"trail", "ferry"} {
		_, err := a.DropRadio(t.Context(), id)
		require.NoError(t, err)
	}
	_, err := a.DropRadio(t.Context(), "lantern")
	require.ErrorAs(t, err, &invalid)
	assert.Contains(t, invalid.Fields[0].Message, "only radio")
	_, err = a.DropRadio(t.Context(), "trail")
	require.ErrorAs(t, err, &invalid)
	assert.Contains(t, invalid.Fields[0].Message, "not in the plan")
	assert.Equal(t, []string{"lantern"}, radios(t, a))
}

// TestPreviewSaysWhatIsLost holds the preview of a profile against what the
// radio really gets when it is taken into the plan.
func TestPreviewSaysWhatIsLost(t *testing.T) {
	a := demoApp(t)
	for _, id := range []string{"beck", "cairn", "gale", "harrier", "moor", "skerry", "tarn"} {
		form, err := a.Radio(t.Context(), id)
		require.NoError(t, err)
		v, err := a.PreviewRadio(t.Context(), id, form.Texts)
		require.NoError(t, err)
		require.Empty(t, v.Faults, id)
		assert.Equal(t, len(v.Rows), v.Fit+v.Lose+v.Cannot, id)
		l, err := a.UseRadio(t.Context(), id)
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
				e, err := a.Evidence(t.Context(), l.Load, p.Slot)
				require.NoError(t, err)
				assert.Equal(t, len(p.Losses) > 0, lost(e), "%s, slot %d: the rules speak of what is lost", id, p.Slot)
			}
		}
	}
	v, err := a.PreviewRadio(t.Context(), "trail", map[string]string{"slots": "x", "steps": "fast"})
	require.NoError(t, err)
	assert.Len(t, v.Faults, 2)
	assert.Empty(t, v.Rows)
}

// lost reports whether a rule about the radio's range, step, shift, tone or
// settings speaks.
func lost(e *app.Evidence) bool {
	for _, f := range e.Findings {
		switch f.Rule {
		case "radio-range", "radio-step", "radio-shift", "radio-tone", "radio-setting":
			return true
		}
	}
	return false
}
