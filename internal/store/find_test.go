package store

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/freq"
	"mnemos/core/listing"
)

// TestAnyWordFinds: words in any field, figures as the first of an output, the
// name of a listing, and records without a place. Worked out by hand.
func TestAnyWordFinds(t *testing.T) {
	s := open(t, t.TempDir())
	at := func(f string, more func(*listing.Record)) listing.Record {
		r := listing.Record{Key: f, Output: freq.MustParse(f)}
		more(&r)
		return r
	}
	place := func(r *listing.Record) { lat, lon := 41.0, -55.0; r.Lat, r.Lon = &lat, &lon }
	require.NoError(t, s.Import(t.Context(), "Harbour list", "2026-11-01T00:00:00Z", []listing.Record{
		at("146.940", func(r *listing.Record) { place(r); r.Callsign, r.Locality = "QX1MRN", "Marran Light" }),
		at("147.240", func(r *listing.Record) { place(r); r.Note = "summer season only" }),
		at("444.500", func(r *listing.Record) { r.Locality = "Low Haven" }),
		at("52.810", func(r *listing.Record) { place(r) }),
		at("1292.200", func(r *listing.Record) { place(r) }),
	}))
	require.NoError(t, s.Import(t.Context(), "Hill list", "2026-11-01T00:00:00Z", []listing.Record{at("146.950", place)}))
	for text, want := range map[string][]string{
		"146.9": {"146.940", "146.950"}, "146.94": {"146.940"}, "146,94": {"146.940"}, "147": {"147.240"}, "444": {"444.500"}, "44": {"444.500"},
		"52": {"52.810"}, "129": {"1292.200"}, "season": {"147.240"}, "light marran": {"146.940"}, "marran haven": nil, "hill": {"146.950"},
		"harbour 14": {"146.940", "147.240"}, "qx1": {"146.940"}, "100%": nil, "_": nil, "low": {"444.500"},
	} {
		records, err := s.Any(t.Context(), Filter{Text: text}, 10)
		require.NoError(t, err)
		var got []string
		for _, r := range records {
			got = append(got, r.Output.MHz())
		}
		assert.Equal(t, want, got, text)
	}
	records, number, err := s.Placeless(t.Context(), Filter{}, 10)
	require.NoError(t, err)
	assert.Equal(t, 1, number)
	assert.Equal(t, "Low Haven", records[0].Locality)
	records, err = s.Any(t.Context(), Filter{Source: "Hill list"}, 10)
	require.NoError(t, err)
	assert.Len(t, records, 1)
}
