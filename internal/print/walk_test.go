package print_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/handset"
	"mnemos/core/standing"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/plan"
	"mnemos/internal/print"
)

// TestWalk leads through the radios of the demonstration, on the simulated handset,
// and marks what is stored; the rest is a walk of its own.
func TestWalk(t *testing.T) {
	a := demotest.Open(t)
	for load := int64(1); load <= 3; load++ {
		w, err := a.Sheets.Walk(t.Context(), load, print.WalkRequest{Names: true})
		require.NoError(t, err)
		require.NotEmpty(t, w.Stops)
		assert.LessOrEqual(t, w.Effort.Presses, w.InSlotOrder.Presses)
		assert.Less(t, w.InSlotOrder.Presses, w.Apart.Presses)
		assert.LessOrEqual(t, w.Nameless.Presses, w.Effort.Presses)
		assert.Less(t, w.Effort.Repeats, w.Effort.Presses)
		h, err := handset.New(w.Radio)
		require.NoError(t, err)
		h.Stir(rand.New(rand.NewPCG(2, 2)).IntN, w.Stops[0].Slot, nil)
		for _, s := range w.Stops {
			require.NoError(t, h.Follow(s.Sheet.Text()), s.Sheet.Text())
		}
		require.NoError(t, h.Follow(w.End.Text()), w.End.Text())
		for _, s := range w.Stops {
			got, ok := h.Holds(s.Slot)
			require.True(t, ok)
			assert.Equal(t, s.Holds.Receive, got.Receive)
			tx, sends := s.Holds.Transmit()
			gotTx, gotSends := got.Transmit()
			assert.Equal(t, sends, gotSends, s.Name)
			if sends {
				assert.Equal(t, tx, gotTx, s.Name)
			}
		}
	}
}

// TestWalkLeavesOut: what must not go on the air is held back, with the reason; what
// is stored is done; and the order can be given.
func TestWalkLeavesOut(t *testing.T) {
	a := demotest.Open(t)
	ask := func(r print.WalkRequest) *print.Walk {
		w, err := a.Sheets.Walk(t.Context(), demotest.Trail, r)
		require.NoError(t, err)
		return w
	}
	w := ask(print.WalkRequest{Names: true})
	held := 0
	for _, x := range w.Asides {
		assert.NotEmpty(t, x.Why)
		if x.Kind == "held back" {
			held++
			assert.Equal(t, "Tern Stack", x.Name, "the stop of the demonstration")
		}
	}
	assert.Equal(t, 1, held)
	assert.Equal(t, w.All, len(w.Stops)+len(w.Asides))

	first := w.Stops[0]
	l, err := a.Sheets.Mark(t.Context(), demotest.Trail, plan.Tick{Channel: first.Channel, Fingerprint: first.Fingerprint, State: standing.Keyed})
	require.NoError(t, err)
	for _, r := range l.Rows {
		if r.ID == first.Channel {
			assert.Equal(t, standing.Keyed, r.Standing.Now)
		}
	}
	rest := ask(print.WalkRequest{Names: true})
	assert.Len(t, rest.Stops, len(w.Stops)-1)
	assert.Equal(t, 1, rest.Done)
	assert.NotEmpty(t, rest.Stops[0].Sheet.Start, "the rest begins from the stated state")
	assert.Len(t, ask(print.WalkRequest{Again: true}).Stops, len(w.Stops))
	given := ask(print.WalkRequest{Order: []int{7, 3, 99, 7, 12}})
	require.Len(t, given.Stops, 2, "no slot twice, none that is empty or held back")
	assert.Equal(t, []int{7, 3}, []int{given.Stops[0].Slot, given.Stops[1].Slot})
	for _, s := range given.Stops[0].Sheet.Steps {
		assert.NotEqual(t, "name", s.Do)
	}

	// What was keyed in is not what the plan says by now.
	_, err = a.Sheets.Mark(t.Context(), demotest.Trail, plan.Tick{Channel: given.Stops[0].Channel, Fingerprint: "what it was before", State: standing.Stored})
	require.NoError(t, err)
	again := ask(print.WalkRequest{Order: []int{7}})
	assert.Equal(t, plan.Standing{Now: standing.Planned, Was: standing.Stored, Person: again.Stops[0].Standing.Person, At: again.Stops[0].Standing.At}, again.Stops[0].Standing)
	for _, bad := range []plan.Tick{{Channel: 4711, Fingerprint: "x", State: standing.Keyed}, {Channel: first.Channel, Fingerprint: "", State: standing.Keyed}, {Channel: first.Channel, Fingerprint: "x", State: "lost"}} {
		_, err := a.Sheets.Mark(t.Context(), demotest.Trail, bad)
		assert.Error(t, err)
	}
	shown, err := a.Sheets.Wrong(t.Context(), demotest.Trail, print.WalkRequest{Order: []int{3, 7}, Names: true}, 7)
	require.NoError(t, err)
	assert.NotEmpty(t, shown)
	_, err = a.Sheets.Wrong(t.Context(), demotest.Trail, print.WalkRequest{}, 99)
	assert.ErrorContains(t, err, "not on this walk")
}

// TestSure: a radio with a read-out shows what it would send; another is keyed into a
// dummy load, and that is never offered for what must not be keyed.
func TestSure(t *testing.T) {
	a := demotest.Open(t)
	for load := int64(1); load <= 3; load++ {
		w, err := a.Sheets.Walk(t.Context(), load, print.WalkRequest{})
		require.NoError(t, err)
		for _, s := range w.Stops {
			_, sends := s.Holds.Transmit()
			switch {
			case !sends:
				assert.Equal(t, print.NotAtAll, s.Sure, s.Name)
				assert.NotEmpty(t, s.WhyNot, s.Name)
			case w.Radio.Crib["read_out"] != "":
				assert.Equal(t, print.ByReadOut, s.Sure, s.Name)
			case s.WhyNot == "":
				assert.Equal(t, print.ByDummyLoad, s.Sure, s.Name)
			default:
				assert.Equal(t, print.NotAtAll, s.Sure, s.Name)
			}
		}
	}
}

// TestFit: every channel of a radio is either whole, or in one of the lists.
func TestFit(t *testing.T) {
	a := demotest.Open(t)
	for load := int64(1); load <= 3; load++ {
		f, err := a.Sheets.Fit(t.Context(), load)
		require.NoError(t, err)
		told := map[int]bool{}
		for _, items := range [][]print.Item{f.Held, f.Decide, f.Changed, f.Out} {
			for _, x := range items {
				told[x.Slot] = true
				assert.NotEmpty(t, x.Title)
				assert.NotEmpty(t, x.Why, x.Title)
			}
		}
		assert.Equal(t, f.Channels, f.Whole+len(told))
		assert.NotEmpty(t, f.Names)
	}
	f, err := a.Sheets.Fit(t.Context(), demotest.Trail)
	require.NoError(t, err)
	require.Len(t, f.Held, 1)
	assert.Equal(t, "Tern Stack", f.Held[0].Name)
	assert.True(t, f.Held[0].Listen)
	assert.NotEmpty(t, f.Held[0].Fixes)
}
