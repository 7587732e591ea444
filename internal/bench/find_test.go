package bench

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/check"
	"mnemos/core/find"
	"mnemos/core/geo"
	"mnemos/core/listing"
)

// BenchmarkFind searches 100,000 records by lines of words, completes a word and
// draws a chart of them, each beside a scan that measures the distance of every
// record.
func BenchmarkFind(b *testing.B) {
	all := records(count)
	set := check.Defaults(today)
	scene := &find.Scene{Band: band.MustLoad("us"), Place: &here, Height: set.Height, Radius: set.RadiusKM, Today: today, Stale: set.Stale, Radio: "Trail"}
	var base time.Duration
	b.Run("baseline: the distances of all", func(b *testing.B) {
		base = times(b, func() {
			sum := 0.0
			for i := range all {
				p, _ := all[i].Place()
				km, _ := geo.Distance(here, p)
				sum += km
			}
			require.Positive(b, sum)
		})
	})
	ratio := func(b *testing.B, median time.Duration) {
		if base > 0 {
			b.ReportMetric(float64(median)/float64(base), "×distances")
		}
	}
	book := find.Bind(append([]listing.Record(nil), all...), nil, nil)
	b.Run("bind a book", func(b *testing.B) {
		ratio(b, times(b, func() { book = find.Bind(append([]listing.Record(nil), all...), nil, nil) }))
	})
	for _, line := range []string{"", "60km", "2m missing 60km", "quay", "147.1 this-year", "by-reach"} {
		b.Run("line "+strings.ReplaceAll(line, " ", "_"), func(b *testing.B) {
			ratio(b, times(b, func() { require.Positive(b, len(book.Search(line, scene, 60).Rows)+1) }))
		})
	}
	for _, word := range []string{"", "q", "qu", "14", "mis"} {
		b.Run("complete "+word, func(b *testing.B) {
			ratio(b, times(b, func() { require.GreaterOrEqual(b, 8, len(book.Complete(word, len(word), scene, 8))) }))
		})
	}
	b.Run("chart of the earth", func(b *testing.B) {
		w := find.Window{West: -20_100, South: -20_100, East: 20_100, North: 20_100}
		ratio(b, times(b, func() { require.NotEmpty(b, book.Chart("", scene, here, w, 500).Spots) }))
	})
	b.Run("chart of 160 km", func(b *testing.B) {
		w := find.Window{West: -80, South: -60, East: 80, North: 60}
		ratio(b, times(b, func() { book.Chart("", scene, here, w, 4) }))
	})
	b.Run("around", func(b *testing.B) { ratio(b, times(b, func() { book.Around("", scene, 4) })) })
}
