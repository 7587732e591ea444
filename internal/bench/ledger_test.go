package bench

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"mnemos/core/check"
	"mnemos/core/entry"
	"mnemos/core/listing"
	"mnemos/core/tone"
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
	src := listing.Source(s)
	var cold time.Duration
	b.Run("baseline: verdicts from the data file, nothing remembered", func(b *testing.B) {
		cold = times(b, func() {
			_, err := check.JudgeAll(b.Context(), src, subjects)
			require.NoError(b, err)
		})
	})
	ratio := func(b *testing.B, median time.Duration) {
		if cold > 0 {
			b.ReportMetric(float64(median)/float64(cold), "×cold")
		}
	}
	b.Run("shown after a start", func(b *testing.B) { // without verdicts
		var before *house.House
		ratio(b, timesAfter(b, func() {
			if before != nil {
				before.Catalog.Ready() // it reads beside, and would be in the way of the next
			}
		}, func() {
			before = house.New(s, now)
			open(before)
		}))
		before.Catalog.Ready()
	})
	b.Run("catalog ready after a start", func(b *testing.B) {
		ratio(b, times(b, func() {
			h := house.New(s, now)
			h.Catalog.Prime()
			h.Catalog.Ready()
		}))
	})
	a := house.New(s, now)
	a.Catalog.Prime()
	a.Catalog.Ready()
	radius := 150.0
	settle := func() { // other circumstances: nothing that is remembered holds
		radius += 0.001
		v, err := a.Plans.Settings(b.Context(), 0)
		require.NoError(b, err)
		_, err = a.Plans.SetSettings(b.Context(), 0, plan.SettingsForm{
			Region: v.Region, Person: v.Person, Place: v.Place, Height: "1.5", Radius: fmt.Sprint(radius), TonePolicy: v.TonePolicy, Revision: v.Revision,
		})
		require.NoError(b, err)
	}
	b.Run("after other settings", func(b *testing.B) {
		ratio(b, times(b, func() {
			settle()
			open(a)
		}))
	})
	l := open(a)
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
	decide := func(i int) error {
		return s.Edit(b.Context(), 0, store.Latest, store.Stamp{At: "2026-11-25T09:42:00Z", Label: "decide"}, func(e *store.Edit) error {
			return e.Decide(store.Decision{ASource: "synthetic", AKey: "1", BSource: "synthetic", BKey: "2", Same: i%2 == 0, At: "2026-11-25T09:42:00Z"})
		})
	}
	b.Run("after a decision", func(b *testing.B) {
		i := 0
		ratio(b, times(b, func() {
			i++
			require.NoError(b, decide(i))
			open(a)
		}))
	})
	// What is left without the data file: the rules alone.
	var m check.Memo
	judge := func() {
		in, e, err := a.Catalog.Source(b.Context(), p.ID)
		require.NoError(b, err)
		_, err = m.JudgeAll(b.Context(), in, e, subjects)
		require.NoError(b, err)
	}
	judge()
	b.Run("verdicts alone, remembered", func(b *testing.B) { ratio(b, times(b, judge)) })
	b.Run("verdicts alone, after a cell", func(b *testing.B) {
		tones := []tone.Tone{tone.MustParse("88.5"), tone.MustParse("100.0"), tone.MustParse("123.0")}
		i := 0
		ratio(b, times(b, func() {
			i++
			subjects[6].Channel.TransmitTone = tones[i%3]
			judge()
		}))
	})
	b.Run("verdicts alone, after a decision", func(b *testing.B) {
		i := 0
		ratio(b, times(b, func() {
			i++
			require.NoError(b, decide(i))
			judge()
		}))
	})
}

// BenchmarkJournal edits one cell of a plan with ten changes behind it (the
// baseline), and of one with ten thousand.
func BenchmarkJournal(b *testing.B) {
	var base time.Duration
	for _, n := range []int{10, 10_000} {
		s, err := store.Open(b.Context(), b.TempDir())
		require.NoError(b, err)
		b.Cleanup(func() { require.NoError(b, s.Close()) })
		require.NoError(b, somebody(b.Context(), s))
		_, loads, err := s.NewPlan(b.Context(), walk, store.Stamp{At: "2026-11-25T09:42:00Z", Label: "new"}, "trail")
		require.NoError(b, err)
		a := house.New(s, func() time.Time { return today })
		slot := 1
		l, err := a.Plans.Store(b.Context(), loads[0].ID, plan.Save{Line: `146.94 - 88.5 "Quay"`, Slot: &slot, Revision: plan.Latest})
		require.NoError(b, err)
		for i := range n { // whatever changes
			require.NoError(b, s.Edit(b.Context(), loads[0].PlanID, store.Latest, store.Stamp{PersonID: 1, At: "2026-11-25T09:42:00Z", Label: "change"}, func(e *store.Edit) error {
				return e.Put(store.Person{ID: 2, Name: fmt.Sprint(i)})
			}))
		}
		l.Revision = plan.Latest
		names := []string{"Quay", "Pier"}
		i := 0
		name := fmt.Sprintf("with %d changes behind it", n)
		if base == 0 {
			name = "baseline: " + name
		}
		b.Run(name, func(b *testing.B) {
			median := times(b, func() {
				i++
				l, err = a.Plans.Update(b.Context(), loads[0].ID, 1, plan.Update{Revision: l.Revision, Name: &names[i%2]})
				require.NoError(b, err)
			})
			if base == 0 {
				base = median
			}
			b.ReportMetric(float64(median)/float64(base), "×ten")
		})
	}
}
