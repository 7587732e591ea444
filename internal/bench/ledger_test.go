package bench

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"mnemos/core/check"
	"mnemos/core/entry"
	"mnemos/core/listing"
	"mnemos/internal/house"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

// BenchmarkLedger opens a plan of 1,000 channels with 100,000 records, as the
// server does: with nothing remembered (the baseline), again, after one cell
// was edited, and after a decision about what is published.
func BenchmarkLedger(b *testing.B) {
	const n = 1000
	s := filled(b)
	p, loads, err := s.NewPlan(b.Context(), walk, store.Stamp{At: "2026-11-25T09:42:00Z", Label: "new"}, "gale")
	require.NoError(b, err)
	load := loads[0].ID
	subjects := channels(n, records(count))
	require.NoError(b, s.Edit(b.Context(), p.ID, p.Revision, store.Stamp{At: "2026-11-25T09:42:00Z", Label: "fill"}, func(e *store.Edit) error {
		for i, x := range subjects {
			id, err := e.AddChannel(x.Channel, listing.ID{})
			require.NoError(b, err)
			require.NoError(b, e.AddEntry(store.Entry{LoadID: load, Slot: i + 1, ChannelID: id, Scan: entry.ScanYes}))
		}
		return nil
	}))
	now := func() time.Time { return today }
	open := func(a *house.House) *plan.Ledger {
		l, err := a.Plans.Ledger(b.Context(), load)
		require.NoError(b, err)
		require.Len(b, l.Rows, len(subjects))
		return l
	}
	var cold time.Duration
	b.Run("baseline: from the data file", func(b *testing.B) {
		cold = times(b, func() { open(house.New(s, now)) })
	})
	ratio := func(b *testing.B, median time.Duration) {
		if cold > 0 {
			b.ReportMetric(float64(median)/float64(cold), "×cold")
		}
	}
	a := house.New(s, now)
	l := open(a)
	a.Catalog.Ready()
	b.Run("again", func(b *testing.B) { ratio(b, times(b, func() { open(a) })) })
	b.Run("after a cell", func(b *testing.B) {
		tones := []string{"88.5", "100.0"}
		i := 0
		ratio(b, times(b, func() {
			i++
			out, err := a.Plans.Update(b.Context(), load, 7, plan.Update{Revision: l.Revision, TransmitTone: &tones[i%2]})
			require.NoError(b, err)
			l = out
		}))
	})
	b.Run("after a decision", func(b *testing.B) {
		i := 0
		ratio(b, times(b, func() {
			i++
			require.NoError(b, s.Edit(b.Context(), 0, store.Latest, store.Stamp{At: "2026-11-25T09:42:00Z", Label: "decide"}, func(e *store.Edit) error {
				return e.Decide(store.Decision{ASource: "synthetic", AKey: "1", BSource: "synthetic", BKey: "2", Same: i%2 == 0, At: "2026-11-25T09:42:00Z"})
			}))
			open(a)
		}))
	})
	b.Run("verdicts alone, remembered", func(b *testing.B) {
		var m check.Memo
		judge := func() {
			_, err := m.JudgeAll(b.Context(), s, check.Edition{}, subjects)
			require.NoError(b, err)
		}
		judge()
		ratio(b, times(b, judge))
	})
}
