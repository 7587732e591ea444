package text

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

// TestProblem goes by the Unicode Standard: controls are U+0000–001F and
// U+007F–009F (section 23.1); noncharacters are U+FDD0–FDEF and the last two of
// each plane (section 23.7); what a decoder cannot read is U+FFFD.
func TestProblem(t *testing.T) {
	for r := range rune(0x110000) {
		if 0xD800 <= r && r <= 0xDFFF {
			continue // no character: Go cannot write it
		}
		control := r < 0x20 && r != 9 && r != 10 && r != 13 || 0x7f <= r && r <= 0x9f
		none := 0xFDD0 <= r && r <= 0xFDEF || r&0xFFFE == 0xFFFE
		if refused := Problem("a"+string(r)+"b", 3) != ""; refused != (control || none || r == 0xFFFD) {
			t.Fatalf("U+%04X: refused %v", r, refused)
		}
	}
	assert.Equal(t, "it holds a sign that cannot be shown (U+0007): write it without", Problem("ring\a", 10))
	assert.Contains(t, Problem("half \xf0\x9f", 10), "damaged on the way")
	assert.Empty(t, Problem(strings.Repeat("ü", 40), 40))
	assert.Equal(t, "it has 41 characters: write up to 40", Problem(strings.Repeat("ü", 41), 40))
}

// TestComposed: the same word typed on two keyboards is one word.
func TestComposed(t *testing.T) {
	assert.Equal(t, "Zürich", Composed("Zu\u0308rich"))
	assert.Equal(t, "한", Composed("\u1112\u1161\u11ab"))
	assert.Equal(t, "👨‍👩‍👧", Composed("👨‍👩‍👧"), "joined signs stay joined")
}
