package print

import (
	"bytes"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/radio"
)

// TestShown: what a reader takes for one sign is one sign on paper, or one box.
func TestShown(t *testing.T) {
	for in, want := range map[string]string{
		"Grey Hill 7":         "Grey Hill 7",
		"Zürich, Łódź":        "Zürich, Łódź",
		"hill 👍":              "hill □",
		"👨\u200d👩\u200d👧 net": "□ net",
		"Ωμέγα":               "□□□□□",
		"\U0010ffff":          box,
		"two\nlines":          "two\nlines",
	} {
		assert.Equal(t, want, shown(in), "%q", in)
	}
}

// TestEveryPlane: a name of any sign of any plane is printed on every kind of paper,
// without an error.
func TestEveryPlane(t *testing.T) {
	var signs strings.Builder
	for r := rune(0x20); r < 0x110000; r += 0x2f { // a sample that meets every block of 48 signs
		if r < 0xd800 || r > 0xdfff {
			signs.WriteRune(r)
		}
	}
	all := []rune(signs.String())
	for n := 0; n < len(all); n += 4000 {
		name := string(all[n:min(n+4000, len(all))])
		for _, kind := range []string{Field, Pocket, Cards} {
			p := &Paper{
				Kind: kind, Size: "a4", Plan: name, Unit: name, Person: name, Radio: &radio.Profile{}, Rows: []PaperRow{{Slot: 1, Name: name, Short: name}},
				Date: time.Date(2026, 12, 2, 0, 0, 0, 0, time.UTC),
			}
			require.NoError(t, p.PDF(&bytes.Buffer{}), "from U+%04X", all[n])
		}
	}
}
