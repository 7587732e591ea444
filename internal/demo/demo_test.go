package demo_test

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/evidence"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/internal/demo"
	"mnemos/internal/house"
	"mnemos/internal/store"
)

var today = time.Date(2026, 11, 25, 9, 42, 0, 0, time.UTC)

func TestRecords(t *testing.T) {
	records, err := demo.Records(today)
	require.NoError(t, err)
	repeaters := map[string]bool{}
	keys := map[string]bool{}
	here := geo.Point{Lat: 41.02, Lon: -55.31}
	statuses, accesses, modes := map[listing.Status]int{}, map[listing.Access]int{}, map[listing.Mode]int{}
	us := band.MustLoad("us")
	for _, r := range records {
		require.NoError(t, r.Validate())
		assert.True(t, strings.HasPrefix(r.Callsign, "Q"), "%s: no real callsign begins with Q", r.Callsign)
		assert.False(t, keys[r.Source+r.Key], "%s twice", r.Key)
		keys[r.Source+r.Key] = true
		repeaters[r.Callsign] = true
		statuses[r.Status]++
		accesses[r.Access]++
		modes[r.Mode]++
		p, ok := r.Place()
		require.True(t, ok)
		km, _ := geo.Distance(here, p)
		assert.Less(t, km, 150.0, r.Locality)
		assert.True(t, us.MayTransmit(r.Input), "%s: its input is in a band", r.Locality)
		o, _ := r.Offset()
		rule, ok := us.Shift(r.Output)
		require.True(t, ok, "%s: its output is where the band plan has outputs", r.Locality)
		assert.True(t, rule.Allows(o), "%s: %v", r.Locality, o)
	}
	assert.GreaterOrEqual(t, len(repeaters), 40)
	assert.NotZero(t, statuses[listing.OffAir])
	assert.NotZero(t, accesses[listing.Closed])
	assert.NotZero(t, accesses[listing.Private])
	assert.NotZero(t, modes[listing.Digital])
	assert.NotZero(t, modes[listing.MixedFM])
}

func TestFill(t *testing.T) {
	s, err := store.Open(t.Context(), t.TempDir())
	require.NoError(t, err)
	defer func() { require.NoError(t, s.Close()) }()
	// A filling that was cut off before the operator was written is done again.
	for range 2 {
		require.NoError(t, demo.Fill(t.Context(), s, today))
		plans, err := s.Plans(t.Context())
		require.NoError(t, err)
		require.Len(t, plans, 1)
	}
	a := house.New(s, func() time.Time { return today })
	w, err := a.Plans.Workspace(t.Context(), 0)
	require.NoError(t, err)
	require.Len(t, w.Loads, 3)
	entries := map[string]bool{}
	for _, l := range w.Loads {
		entries[string(l.Unit.Radio.Entry)] = true
		ledger, err := a.Plans.Ledger(t.Context(), l.ID)
		require.NoError(t, err)
		assert.NotEmpty(t, ledger.Rows)
		assert.Empty(t, ledger.Undo, "the demonstration is not the operator's doing")
		names := map[string]bool{}
		for _, r := range ledger.Rows {
			assert.LessOrEqual(t, len(r.ShortName), l.Unit.Radio.Names.Length)
			assert.False(t, names[r.ShortName], "%s twice on %s", r.ShortName, l.Unit.Radio.Name)
			names[r.ShortName] = true
		}
	}
	assert.Len(t, entries, 3, "three ways of entry")
	ledger, err := a.Plans.Ledger(t.Context(), w.Loads[0].ID)
	require.NoError(t, err)
	for _, v := range []evidence.Verdict{evidence.Agrees, evidence.Unverified, evidence.Conflict, evidence.Stop} {
		assert.NotZero(t, ledger.Tally[v], "the plan shows every verdict: %s", v)
	}
}
