package intake

import (
	"encoding/csv"
	"fmt"
	"strings"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/listing"
)

// cells splits the text of a table the simplest way; the files of others go
// through internal/exchange.
func cells(t *testing.T, text string) [][]string {
	t.Helper()
	r := csv.NewReader(strings.NewReader(text))
	first, _, _ := strings.Cut(text, "\n")
	for _, d := range []rune{';', '\t', '|'} {
		if strings.ContainsRune(first, d) {
			r.Comma = d
		}
	}
	r.FieldsPerRecord, r.LazyQuotes = -1, true
	rows, err := r.ReadAll()
	require.NoError(t, err)
	return rows
}

func mhz(f freq.Hz) string { return f.MHz() }

func stated(s listing.Stated) string {
	switch {
	case !s.Known:
		return "?"
	case s.Tone.IsOff():
		return "off"
	}
	return strings.TrimSuffix(s.Tone.String(), " Hz burst")
}

// TestClubTables reads tables as clubs publish them, each with whose TX it is
// and what its first rows say.
func TestClubTables(t *testing.T) {
	a, err := txtar.ParseFile("testdata/tables/clubs.txtar")
	require.NoError(t, err)
	assert.GreaterOrEqual(t, len(a.Files), 60)
	for _, f := range a.Files {
		head, text, _ := strings.Cut(string(f.Data), "\n")
		parts := strings.Split(head, " | ")
		region, whose, _ := strings.Cut(parts[0], " ")
		plan, err := band.Load(region)
		require.NoError(t, err, f.Name)
		rows := cells(t, text)
		l := Look(rows, false, plan)
		got := string(l.View.Viewpoint)
		switch {
		case l.View.Asked():
			got = "ask"
		case got == "":
			got = "-"
		}
		assert.Equal(t, whose, got, "%s: %v", f.Name, l.View.Reasons)
		if got == "ask" {
			continue
		}
		r := Reader{Mapping: l.Mapping, Plan: plan, Source: "test"}
		for i, want := range parts[1:] {
			if !assert.Less(t, l.From+i, len(rows), f.Name) {
				break
			}
			rec, faults := r.Row(rows[l.From+i])
			assert.Empty(t, faults, f.Name)
			input := "?"
			if rec.Input != 0 {
				input = mhz(rec.Input)
			}
			assert.Equal(t, want, fmt.Sprintf("%s %s %s %s", mhz(rec.Output), input, stated(rec.UplinkTone), stated(rec.DownlinkTone)), "%s: %+v", f.Name, l.Mapping)
		}
	}
}
