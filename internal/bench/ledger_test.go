package bench

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"mnemos/core/check"
	"mnemos/core/entry"
	"mnemos/internal/app"
	"mnemos/internal/store"
)

// BenchmarkLedger opens a plan of 1,000 channels with 100,000 records, as the
// server does: with nothing remembered (the baseline), again, after one cell
// was edited, and after a decision about what is published.
func BenchmarkLedger(b *testing.B) {
	const n = 1000
	s := filled(b)
	p, loads, err := s.NewPlan(b.Context(), "Season", "2026-11-25T09:42:00Z", "gale")
	require.NoError(b, err)
	load := loads[0].ID
	subjects := channels(n, records(count))
	require.NoError(b, s.Edit(b.Context(), p.ID, p.Revision, store.Stamp{Person: "QX1AA", At: "2026-11-25T09:42:00Z", Label: "fill"}, func(e *store.Edit) error {
		for i, x := range subjects {
			id, err := e.AddChannel(x.Channel)
			require.NoError(b, err)
			require.NoError(b, e.AddEntry(store.Entry{LoadID: load, Slot: i + 1, ChannelID: id, Scan: entry.ScanYes}))
		}
		return nil
	}))
	now := func() time.Time { return today }
	open := func(a *app.App) *app.Ledger {
		l, err := a.Ledger(b.Context(), load)
		require.NoError(b, err)
		require.Len(b, l.Rows, len(subjects))
		return l
	}
	var cold time.Duration
	b.Run("baseline: from the data file", func(b *testing.B) {
		cold = times(b, func() { open(app.New(s, now)) })
	})
	ratio := func(b *testing.B, median time.Duration) {
		if cold > 0 {
			b.ReportMetric(float64(median)/float64(cold), "×cold")
		}
	}
	a := app.New(s, now)
	l := open(a)
	a.Ready()
	b.Run("again", func(b *testing.B) { ratio(b, times(b, func() { open(a) })) })
	b.Run("after a cell", func(b *testing.B) {
		tones := []string{"88.5", "100.0"}
		i := 0
		ratio(b, times(b, func() {
			i++
			out, err := a.Update(b.Context(), load, 7, app.Update{Revision: l.Revision, ToneOut: &tones[i%2]})
			require.NoError(b, err)
			l = out
		}))
	})
	b.Run("after a decision", func(b *testing.B) {
		i := 0
		ratio(b, times(b, func() {
			i++
			require.NoError(b, s.Decide(b.Context(), store.Joining{ASource: "synthetic", AKey: "1", BSource: "synthetic", BKey: "2", Same: i%2 == 0, Person: "QX1AA", At: "2026-11-25T09:42:00Z"}))
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
