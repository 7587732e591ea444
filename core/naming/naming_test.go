package naming

import (
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/radio"
)

var upper6 = radio.Names{Length: 6, Characters: "ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789 -/"}

const cyrillic = "АБВГДЕЖЗИЙКЛМНОПРСТУФХЦЧШЩЪЫЬЭЮЯ"

// TestCyrillic. common practice, no source: letters of two bytes are one
// character of the display.
func TestCyrillic(t *testing.T) {
	limits := radio.Names{Length: 6, Characters: upper6.Characters + cyrillic}
	free := func(string) bool { return false }
	assert.Equal(t, "МАЯК 3", Short("Маяк 3", limits, free))
	assert.Equal(t, "СЕВЕРН", Short("Северныйыйыйыйыйыйыйыйый", radio.Names{Length: 6, Characters: cyrillic}, free))
}

func TestShort(t *testing.T) {
	// common practice, no source: how operators shorten by hand
	for _, c := range []struct{ name, want string }{
		{"Beacon Hill", "BEACON"},
		{"Tern", "TERN"},
		{"Long Ridge", "LONG R"},
		{"Walk 12", "WALK12"},
		{"Walk reserve 2", "WALKR2"},
		{"Stag Rock Light", "STAGRL"},
		{"Ålø", "AL"},
		{"", ""},
		{"!!!", ""},
		{"Lighthouse", "LGHTHS"},
	} {
		assert.Equal(t, c.want, Short(c.name, upper6, func(string) bool { return false }), c.name)
	}
	taken := map[string]bool{"BEACON": true}
	assert.Equal(t, "BEACNH", Short("Beacon Hill", upper6, func(s string) bool { return taken[s] }))
}

func TestProperties(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		limits := radio.Names{Length: rapid.IntRange(6, 16).Draw(r, "length"), Characters: rapid.SampledFrom([]string{upper6.Characters, upper6.Characters + cyrillic}).Draw(r, "characters")}
		taken := map[string]bool{}
		for _, n := range rapid.SliceOfN(rapid.OneOf(rapid.String(), rapid.StringMatching("[А-Я ]{1,12}[0-9]?")), 1, 30).Draw(r, "names") {
			s := Short(n, limits, func(s string) bool { return taken[s] })
			if s == "" {
				require.Empty(r, Clean(n, limits.Characters))
				continue
			}
			require.True(r, utf8.ValidString(s), "%q is cut inside a letter", s)
			require.True(r, Fits(s, limits), "%q", s)
			require.False(r, taken[s], "unique")
			taken[s] = true
		}
	})
}
