package print_test

import (
	"fmt"
	"strings"
	"testing"

	"mnemos/internal/demo/demotest"
	"mnemos/internal/print"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTry follows the sheets of the demonstration on the simulated handset,
// in all three radios.
func TestTry(t *testing.T) {
	a := demotest.Open(t)
	for load := int64(1); load <= 3; load++ {
		l, err := a.Plans.Ledger(t.Context(), load)
		require.NoError(t, err)
		for _, r := range l.Rows {
			k, err := a.Sheets.Keypad(t.Context(), load, r.Slot)
			require.NoError(t, err)
			require.Empty(t, k.Sheet.Reason)
			require.Empty(t, k.Untried)
			assert.Equal(t, len(k.Stops) > 0 || k.Sheet.Keyed == nil, k.Sheet.Locked != "", "slot %d: what a rule stops is locked", r.Slot)
			var acts []string
			for n := range len(k.Sheet.Steps) + 2 {
				acts = append(acts, fmt.Sprintf("line %d", n))
			}
			h, err := a.Sheets.Try(t.Context(), load, r.Slot, acts)
			require.NoError(t, err)
			assert.Empty(t, h.Trouble)
			assert.Empty(t, h.Differs, "load %d slot %d", load, r.Slot)
			assert.NotEmpty(t, h.Slot)
		}
	}
}

// TestTryByHand: keys, a pause that is too long, a step left out, and what
// cannot be done.
func TestTryByHand(t *testing.T) {
	a := demotest.Open(t)
	try := func(acts ...string) *print.Handset {
		h, err := a.Sheets.Try(t.Context(), 1, 8, acts)
		require.NoError(t, err)
		return h
	}
	h := try()
	assert.Contains(t, h.Keys, "MENU")
	assert.NotEmpty(t, h.Differs, "the slot holds something else at first")
	h = try("line 1", "key 1", "key 4", "key 7", "key 0", "key 3", "key 0")
	assert.Equal(t, "147.030", h.Display.Figures)
	require.Len(t, h.Frames, 1)
	assert.Equal(t, "0", h.Frames[0].Key)
	assert.Equal(t, "store in a slot", try("line 1", "key hold STORE").Display.Open)
	assert.Empty(t, try("line 1", "key hold STORE", "wait 6").Display.Open, "five seconds are over")
	assert.True(t, try("key FROG").Display.Beep)

	k, err := a.Sheets.Keypad(t.Context(), 1, 8)
	require.NoError(t, err)
	tone := 0
	for _, s := range k.Sheet.Steps {
		if strings.HasPrefix(s.Title(), "shift direction") {
			tone = s.Number
		}
	}
	require.Positive(t, tone)
	var acts []string
	for n := range len(k.Sheet.Steps) + 2 {
		if n != tone {
			acts = append(acts, fmt.Sprintf("line %d", n))
		}
	}
	var trouble string
	for n := range acts {
		if h = try(acts[:n+1]...); h.Trouble != "" {
			trouble = h.Trouble
			break
		}
	}
	assert.Contains(t, trouble, "147.030", "the look before storing finds the shift that was left out")

	long := try(append([]string{"line 1", "line 2"}, strings.Split(strings.Repeat("key MODE,", 30)+"key MODE", ",")...)...)
	assert.Len(t, long.Frames, 1, "only the last act")
	for _, bad := range []string{"dance", "line 99", "line -1", "line x", "wait", "key " + strings.Repeat("X", 60)} {
		_, err := a.Sheets.Try(t.Context(), 1, 8, []string{bad})
		assert.ErrorContains(t, err, "is not an act", bad)
	}
	_, err = a.Sheets.Try(t.Context(), 1, 8, make([]string, print.MaxActs+1))
	assert.ErrorContains(t, err, "start over")
	_, err = a.Sheets.Try(t.Context(), 1, 99, nil)
	assert.ErrorContains(t, err, "empty")
}

// TestFramesAreCounted: a knob that is turned many times is one frame with a
// count, after the first few.
func TestFramesAreCounted(t *testing.T) {
	a := demotest.Open(t)
	h, err := a.Sheets.Try(t.Context(), 2, 10, []string{"line 1", "line 2", "line 3", "line 4", "line 5", "line 6", "line 7"})
	require.NoError(t, err)
	require.Empty(t, h.Trouble)
	presses := 0
	for _, f := range h.Frames {
		presses += f.Times
	}
	assert.Greater(t, presses, len(h.Frames))
	assert.LessOrEqual(t, len(h.Frames), 13)
}
