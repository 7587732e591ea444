// Package bench measures what a keystroke on the entry line costs. Run it by
// `make bench`; nothing here is an assertion about time.
//
// The baselines, in the same run: the same line against an empty listing (what
// reading and judging cost by themselves), and against a plain scan of all
// records (what a search without an index would cost).
package bench

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/check"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/tone"
	"mnemos/internal/assess"
	"mnemos/internal/cli"
	"mnemos/internal/house"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

const (
	line  = `147.24 + 100 "Beacon Hill"`
	count = 100_000
)

var (
	here  = geo.Point{Lat: 41.02, Lon: -55.31}
	today = time.Date(2026, 11, 25, 9, 42, 0, 0, time.UTC)
)

// records draws a world of repeaters on the outputs of the band plan, a tenth
// of them within some 300 km of here.
func records(n int) []listing.Record {
	r := rand.New(rand.NewPCG(1, 2))
	us := band.MustLoad("us")
	type pair struct {
		output freq.Hz
		rule   band.ShiftRule
	}
	var pairs []pair
	for _, b := range us.Bands {
		for _, rule := range b.Shifts {
			for f := rule.Lower; f <= rule.Upper; f += 5_000 {
				pairs = append(pairs, pair{f, rule})
			}
		}
	}
	out := make([]listing.Record, n)
	for i := range out {
		p := pairs[r.IntN(len(pairs))]
		lat, lon := r.Float64()*140-70, r.Float64()*360-180
		if i%10 == 0 {
			lat, lon = here.Lat+r.Float64()*5-2.5, here.Lon+r.Float64()*6-3
		}
		up, err := tone.NewCTCSS(tone.CTCSS50[r.IntN(50)])
		if err != nil {
			panic(err) // the table holds tones only
		}
		out[i] = listing.Record{
			Key: fmt.Sprint(i), Callsign: fmt.Sprintf("QX%dAA", i), Output: p.output, Input: p.output.Add(p.rule.Offset), UplinkTone: listing.Says(up),
			Mode: listing.FM, Locality: fmt.Sprintf("Place %d", i), Lat: &lat, Lon: &lon, Status: listing.OnAir, Access: listing.Open,
			Updated: listing.Date{Time: today.AddDate(0, 0, -r.IntN(700))}, Source: "synthetic",
		}
	}
	return out
}

func ask(tb testing.TB, src listing.Source) {
	s := check.Defaults(today)
	s.Place = &here
	a, err := assess.Ask(tb.Context(), assess.Question{Line: line, Plan: band.MustLoad("us"), Source: src, Settings: s})
	require.NoError(tb, err)
	require.NotEmpty(tb, a.Words)
}

// walk is a plan at the place of the benchmarks.
var walk = store.Plan{Name: "Walk", Region: "us", Lat: &here.Lat, Lon: &here.Lon, Height: 1.5, Radius: 150, TonePolicy: "encode first"}

// somebody makes a first person.
func somebody(ctx context.Context, s *store.Store) error {
	return s.Edit(ctx, 0, store.Latest, store.Stamp{Label: "begin"}, func(e *store.Edit) error { return e.Put(store.Person{ID: 1, Name: "operator"}) })
}

func filled(tb testing.TB) *store.Store {
	s, err := store.Open(tb.Context(), tb.TempDir())
	require.NoError(tb, err)
	tb.Cleanup(func() { require.NoError(tb, s.Close()) })
	require.NoError(tb, s.Import(tb.Context(), "synthetic", "2026-11-25T09:42:00Z", records(count)))
	require.NoError(tb, somebody(tb.Context(), s))
	return s
}

// times runs f b.N times and reports the median and the 99th percentile.
func times(b *testing.B, f func()) (median time.Duration) {
	b.Helper()
	return timesAfter(b, func() {}, f)
}

// timesAfter does the same, with something before each run that is not timed.
func timesAfter(b *testing.B, before, f func()) (median time.Duration) {
	b.Helper()
	var took []time.Duration
	for b.Loop() {
		before()
		start := time.Now()
		f()
		took = append(took, time.Since(start))
	}
	slices.Sort(took)
	median = took[len(took)/2]
	b.ReportMetric(float64(median.Microseconds()), "µs-median")
	b.ReportMetric(float64(took[len(took)*99/100].Microseconds()), "µs-p99")
	return median
}

// BenchmarkLine reads and checks one line in process.
func BenchmarkLine(b *testing.B) {
	var base time.Duration
	b.Run("baseline: no records", func(b *testing.B) {
		base = times(b, func() { ask(b, listing.Memory(nil)) })
	})
	ratio := func(b *testing.B, median time.Duration) {
		if base > 0 {
			b.ReportMetric(float64(median)/float64(base), "×no-records")
		}
	}
	all := records(count)
	b.Run("plain scan of 100000", func(b *testing.B) { ratio(b, times(b, func() { ask(b, listing.Memory(all)) })) })
	index := listing.Index(all)
	b.Run("index in memory of 100000", func(b *testing.B) { ratio(b, times(b, func() { ask(b, index) })) })
	s := filled(b)
	b.Run("SQLite with 100000", func(b *testing.B) { ratio(b, times(b, func() { ask(b, s) })) })
}

// BenchmarkKeystroke is the whole round trip of one keystroke over HTTP, with
// a radio of 24 channels and 100,000 records.
func BenchmarkKeystroke(b *testing.B) {
	s := filled(b)
	p, loads, err := s.NewPlan(b.Context(), walk, store.Stamp{At: "2026-11-25T09:42:00Z", Label: "new"}, "trail")
	require.NoError(b, err)
	a := house.New(s, func() time.Time { return today })
	revision := p.Revision
	for i := range 24 {
		l, err := a.Plans.Store(b.Context(), loads[0].ID, plan.Save{Line: fmt.Sprintf("%d.%03d 100", 146, 610+15*i), Revision: revision})
		require.NoError(b, err)
		revision = l.Revision
	}
	server := httptest.NewServer(cli.Server(a))
	b.Cleanup(server.Close)
	url := fmt.Sprintf("%s/api/loads/%d/read", server.URL, loads[0].ID)
	post := func(path string, body string) {
		req, err := http.NewRequestWithContext(context.Background(), http.MethodPost, path, bytes.NewBufferString(body))
		require.NoError(b, err)
		req.Header.Set("Content-Type", "application/json")
		res, err := http.DefaultClient.Do(req)
		require.NoError(b, err)
		_, err = io.Copy(io.Discard, res.Body)
		require.NoError(b, err)
		require.NoError(b, res.Body.Close())
		require.Equal(b, http.StatusOK, res.StatusCode)
	}
	var base time.Duration
	b.Run("baseline: an empty line", func(b *testing.B) { base = times(b, func() { post(url, `{"line":""}`) }) })
	b.Run("a whole line", func(b *testing.B) {
		median := times(b, func() { post(url, `{"line":"147.24 + 100 \"Beacon Hill\""}`) })
		if base > 0 {
			b.ReportMetric(float64(median)/float64(base), "×empty-line")
		}
	})
	b.Run("the whole ledger", func(b *testing.B) {
		times(b, func() {
			res, err := http.Get(fmt.Sprintf("%s/api/loads/%d", server.URL, loads[0].ID))
			require.NoError(b, err)
			_, err = io.Copy(io.Discard, res.Body)
			require.NoError(b, err)
			require.NoError(b, res.Body.Close())
		})
	})
}
