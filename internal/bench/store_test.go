package bench

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"mnemos/core/band"
	"mnemos/internal/house"
	"mnemos/internal/importing"
	"mnemos/internal/plan"
	"mnemos/internal/store"

	"github.com/stretchr/testify/require"
)

// bringAll brings a table in, over and over, until ctx ends.
func bringAll(ctx context.Context, a *house.House, csv string) error {
	for ctx.Err() == nil {
		p, err := a.Imports.Bring(ctx, "again.csv", strings.NewReader(csv), band.MustLoad("us"))
		if err != nil {
			return err
		}
		if _, err := a.Imports.Run(ctx, p.ID, importing.Form{Source: "again", Columns: p.Mapping()}); err != nil {
			return err
		}
		if err := a.Imports.Watch(ctx, p.ID, func(importing.State) error { return nil }); err != nil {
			return a.Imports.Drop(p.ID) // the benchmark is over
		}
	}
	return nil
}

// BenchmarkStoreDuringImport stores a channel while 300,000 rows are brought
// in, and cancels such an import at ten moments. The baseline is the same
// store while nothing is brought in.
func BenchmarkStoreDuringImport(b *testing.B) {
	s := filled(b)
	_, loads, err := s.NewPlan(b.Context(), walk, store.Stamp{At: "2026-11-25T09:42:00Z", Label: "new"}, "trail")
	require.NoError(b, err)
	a := house.New(s, func() time.Time { return today })
	load := loads[0].ID
	n := 0
	l, err := a.Plans.Ledger(b.Context(), load)
	require.NoError(b, err)
	store := func() {
		slot := 1 + n%10 // a small ledger: what is measured is the wait for the writer
		l, err = a.Plans.Store(b.Context(), load, plan.Save{Line: fmt.Sprintf("147.%03d + 100", n%79*5), Slot: &slot, Revision: l.Revision, Replace: true})
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
			p, err := a.Imports.Bring(b.Context(), "again.csv", strings.NewReader(csv), band.MustLoad("us"))
			require.NoError(b, err)
			_, err = a.Imports.Run(b.Context(), p.ID, importing.Form{Source: "cancelled", Columns: p.Mapping()})
			require.NoError(b, err)
			b.StopTimer()
			time.Sleep(time.Duration(i%10) * 400 * time.Millisecond)
			b.StartTimer()
			require.NoError(b, a.Imports.Drop(p.ID))
			require.NoError(b, a.Imports.Watch(b.Context(), p.ID, func(importing.State) error { return nil }))
		}
	})
}
