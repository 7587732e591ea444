package bench

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"mnemos/internal/app"
)

// bringAll brings a table in, over and over, until ctx ends.
func bringAll(ctx context.Context, a *app.App, csv string) error {
	for ctx.Err() == nil {
		p, err := a.Bring(ctx, "again.csv", strings.NewReader(csv))
		if err != nil {
			return err
		}
		if _, err := a.RunImport(ctx, p.ID, app.ImportForm{Source: "again", Columns: p.Mapping()}); err != nil {
			return err
		}
		if err := a.WatchImport(ctx, p.ID, func(app.ImportState) error { return nil }); err != nil {
			return a.DropImport(p.ID) // the benchmark is over
		}
	}
	return nil
}

// BenchmarkStoreDuringImport stores a channel while 300,000 rows are brought
// in, and cancels such an import at ten moments. The baseline is the same
// store while nothing is brought in.
func BenchmarkStoreDuringImport(b *testing.B) {
	s := filled(b)
	_, loads, err := s.NewPlan(b.Context(), "Bench", "2026-11-25T09:42:00Z", "trail")
	require.NoError(b, err)
	a := app.New(s, func() time.Time { return today })
	load := loads[0].ID
	n := 0
	l, err := a.Ledger(b.Context(), load)
	require.NoError(b, err)
	store := func() {
		slot := 1 + n%10 // a small ledger: what is measured is the wait for the writer
		l, err = a.Store(b.Context(), load, app.Save{Line: fmt.Sprintf("147.%03d + 100", n%79*5), Slot: &slot, Revision: l.Revision, Replace: true})
		require.NoError(b, err)
		n++
	}
	b.Run("baseline: nothing is brought in", func(b *testing.B) { times(b, store) })
	csv := table(b, slices.Concat(records(count), records(count), records(count)))
	b.Run("while 300000 rows are brought in", func(b *testing.B) {
		ctx, stop := context.WithCancel(b.Context())
		done := make(chan error)
		go func() { done <- bringAll(ctx, a, csv) }()
		times(b, store)
		stop()
		<-done
	})
	b.Run("cancelling an import of 300000 rows", func(b *testing.B) {
		for i := 0; b.Loop(); i++ {
			p, err := a.Bring(b.Context(), "again.csv", strings.NewReader(csv))
			require.NoError(b, err)
			_, err = a.RunImport(b.Context(), p.ID, app.ImportForm{Source: "cancelled", Columns: p.Mapping()})
			require.NoError(b, err)
			b.StopTimer()
			time.Sleep(time.Duration(i%10) * 400 * time.Millisecond)
			b.StartTimer()
			require.NoError(b, a.DropImport(p.ID))
			require.NoError(b, a.WatchImport(b.Context(), p.ID, func(app.ImportState) error { return nil }))
		}
	})
}
