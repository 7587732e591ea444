package plan_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

// TestChecking: a large plan is shown at once while what is published is being
// read, and says that it has no verdicts yet; a small one is looked up in the
// file.
func TestChecking(t *testing.T) {
	a := demotest.Open(t)
	p, loads, err := a.Store.NewPlan(t.Context(), store.Plan{Name: "Large", Region: "us", Radius: 150}, store.Stamp{At: "2026-11-25T09:42:00Z", Label: "new"}, "gale", "trail")
	require.NoError(t, err)
	require.NoError(t, a.Store.Edit(t.Context(), p.ID, store.Latest, store.Stamp{At: "2026-11-25T09:42:00Z", Label: "fill"}, func(e *store.Edit) error {
		for i := range 150 {
			id, err := e.AddChannel(channel.New(freq.Hz(146_400_000+i*5_000)), listing.ID{})
			require.NoError(t, err)
			for _, l := range loads[:1+i/140] { // ten of them in the second too
				require.NoError(t, e.AddEntry(store.Entry{LoadID: l.ID, Slot: i + 1, ChannelID: id, Scan: entry.ScanYes}))
			}
		}
		return nil
	}))
	a.Catalog.Prime()
	a.Catalog.Ready()
	a.Plans.Hurry(0)
	assert.False(t, a.Ledger(t, loads[0].ID).Checking)
	var many []listing.Record
	for i := range 5000 {
		many = append(many, listing.Record{Key: fmt.Sprint(i), Output: freq.Hz(146_600_000 + i%400*5_000), Input: 146_000_000, Mode: listing.FM, Source: "list"})
	}
	require.NoError(t, a.Store.Import(t.Context(), "list", "2026-11-25T09:42:00Z", many))
	l := a.Ledger(t, loads[0].ID)
	assert.True(t, l.Checking)
	require.Len(t, l.Rows, 150)
	for _, r := range l.Rows {
		assert.Equal(t, plan.Checking, r.Verdict)
	}
	for _, n := range l.Tally {
		assert.Zero(t, n)
	}
	assert.False(t, a.Ledger(t, loads[1].ID).Checking, "ten channels are looked up soon enough")
	a.Catalog.Ready()
	l = a.Ledger(t, loads[0].ID)
	assert.False(t, l.Checking)
	for _, r := range l.Rows {
		assert.NotEqual(t, plan.Checking, r.Verdict)
	}
}
