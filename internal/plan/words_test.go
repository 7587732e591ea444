package plan_test

import (
	"errors"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/check"
	"mnemos/core/listing"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
)

// TestANameFillsTheLine: a name or a callsign alone finds what is published
// under it, and one key writes the line.
func TestANameFillsTheLine(t *testing.T) {
	a := demotest.Open(t)
	for _, name := range []string{"Marran Light", "marran", "Marran"} {
		r, err := a.Plans.Read(t.Context(), demotest.Trail, name, nil)
		require.NoError(t, err)
		assert.False(t, r.Complete)
		require.NotEmpty(t, r.Findings, name)
		assert.Equal(t, "entry-name", r.Findings[0].Rule)
		require.NotEmpty(t, r.Lines[0], name)
		filled, err := a.Plans.Read(t.Context(), demotest.Trail, r.Lines[0][0], nil)
		require.NoError(t, err)
		assert.True(t, filled.Complete, r.Lines[0][0])
		assert.Contains(t, filled.Channel.Name, "Marran")
	}
	r, err := a.Plans.Read(t.Context(), demotest.Trail, "100 percent_%", nil)
	require.NoError(t, err)
	assert.False(t, r.Complete, "nothing in a name is taken for a pattern")
}

// TestLinesTogether are offers, and take no slot.
func TestLinesTogether(t *testing.T) {
	a := demotest.Open(t)
	r, err := a.Plans.Read(t.Context(), demotest.Trail, "Output, Tone\n147.24 + 103.5\n146.94 - 88.5 Marran\n", nil)
	require.NoError(t, err)
	assert.False(t, r.Complete)
	require.Len(t, r.Offers, 2)
	assert.Equal(t, "146.94 - 88.5 Marran", r.Offers[1].Line)
	assert.True(t, r.Offers[1].Complete)
	_, err = a.Plans.Store(t.Context(), demotest.Trail, plan.Save{Line: "147.24\n146.94", Revision: a.Ledger(t, demotest.Trail).Revision})
	assert.Error(t, err, "several lines are never stored as one channel")
}

// TestWattsPickAStepOfTheRadio that is in hand, and say which.
func TestWattsPickAStepOfTheRadio(t *testing.T) {
	a := demotest.Open(t)
	r, err := a.Plans.Read(t.Context(), demotest.Trail, "146.52 2W", nil)
	require.NoError(t, err)
	assert.InDelta(t, 2.5, *r.Watts, 0)
	assert.Contains(t, r.Words[1].Guess, "mid")
}

// TestEveryFaultComesBack, each with its field, whatever the order.
func TestEveryFaultComesBack(t *testing.T) {
	a := demotest.Open(t)
	for range 10 {
		_, err := a.Plans.Update(t.Context(), demotest.Trail, 7, plan.Update{
			Revision: a.Ledger(t, demotest.Trail).Revision, Receive: text("far"), TransmitTone: text("loud"), Width: text("broad"), Power: text("huge"), Slot: text("150abc"),
		})
		var f *fault.Invalid
		require.True(t, errors.As(err, &f), "%v", err)
		var fields []string
		for _, x := range f.Fields {
			fields = append(fields, x.Field)
		}
		assert.ElementsMatch(t, []string{"receive", "transmit_tone", "bandwidth", "power", "slot"}, fields)
	}
	for _, bad := range []string{"150abc", "#", "7 8", "1e1", "-1"} {
		_, err := a.Plans.Update(t.Context(), demotest.Trail, 7, plan.Update{Revision: a.Ledger(t, demotest.Trail).Revision, Slot: text(bad)})
		assert.Error(t, err, bad)
	}
}

// TestDecisionsReachTheChecks: whoever says that two statements are not about
// one repeater is believed by the rules too.
func TestDecisionsReachTheChecks(t *testing.T) {
	a := demotest.Open(t)
	found := func() (f *check.Finding, statements int) {
		for _, r := range a.Ledger(t, demotest.Trail).Rows {
			e, err := a.Plans.Evidence(t.Context(), demotest.Trail, r.Slot)
			require.NoError(t, err)
			for i := range e.Findings {
				if e.Findings[i].Rule == "listing-disagree" {
					return &e.Findings[i], r.Slot
				}
			}
		}
		return nil, 0
	}
	f, slot := found()
	require.NotNil(t, f, "the demonstration has two listings that disagree")
	e, err := a.Plans.Evidence(t.Context(), demotest.Trail, slot)
	require.NoError(t, err)
	var ids []listing.ID
	for _, m := range e.Matches {
		for _, n := range e.Matches {
			if m.Repeater == n.Repeater && m.Source != n.Source {
				ids = []listing.ID{{Source: m.Source, Key: m.Key}, {Source: n.Source, Key: n.Key}}
			}
		}
	}
	require.Len(t, ids, 2)
	require.NoError(t, a.Catalog.Decide(t.Context(), ids[0], ids[1], false))
	e, err = a.Plans.Evidence(t.Context(), demotest.Trail, slot)
	require.NoError(t, err)
	for _, f := range e.Findings {
		assert.NotEqual(t, "listing-disagree", f.Rule)
	}
}
