package print

import (
	"strings"

	"github.com/rivo/uniseg"
	"golang.org/x/image/font/sfnt"
)

// box stands for a sign that the fonts do not have: they draw what they lack as one.
const box = "□"

// drawn are the signs that every font of the paper has.
var drawn = func() map[rune]bool {
	out := map[rune]bool{}
	for i, data := range [][]byte{textFont, textStrong, figuresFont, figuresStrong} {
		f, err := sfnt.Parse(data)
		if err != nil {
			panic(err) // embedded: it is a font
		}
		var b sfnt.Buffer
		for r := range rune(0x10000) { // a PDF with these fonts knows no plane beyond
			glyph, err := f.GlyphIndex(&b, r)
			has := err == nil && glyph != 0
			if i == 0 && has {
				out[r] = true
			} else if !has {
				delete(out, r)
			}
		}
	}
	return out
}()

// shown is a text as the fonts can show it: what a reader takes for one sign is
// drawn, or is one box. Nothing is cut inside it.
func shown(s string) string {
	var b strings.Builder
	for g := uniseg.NewGraphemes(s); g.Next(); {
		sign := g.Str()
		for _, r := range g.Runes() {
			if !drawn[r] && r != '\n' {
				sign = box
			}
		}
		b.WriteString(sign)
	}
	return b.String()
}
