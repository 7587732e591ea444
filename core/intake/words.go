// Package intake turns the tables that people publish about repeaters into
// records. It guesses what each column holds, by its heading and by what is
// in it, and says cell by cell what it cannot read. It reads no files:
// internal/exchange makes rows of cells of them.
package intake

import (
	_ "embed"
	"strings"
	"sync"
	"unicode"

	"github.com/goccy/go-yaml"
	"golang.org/x/text/unicode/norm"
)

//go:embed words.yaml
var wordsYAML []byte

// vocabulary is words.yaml, each list as a set.
type vocabulary struct {
	headings map[Role]map[string]bool
	sides    map[string]map[string]bool // of frequencies and tones in a heading
	cells    map[string]map[string]bool
}

var words = sync.OnceValue(func() vocabulary {
	var file map[string]any
	if err := yaml.Unmarshal(wordsYAML, &file); err != nil {
		panic(err) // embedded: read by every test
	}
	v := vocabulary{headings: map[Role]map[string]bool{}, sides: map[string]map[string]bool{}, cells: map[string]map[string]bool{}}
	for name, list := range file {
		switch x := list.(type) {
		case map[string]any:
			for role, words := range x {
				if name == "sides" {
					v.sides[role] = set(words)
				} else {
					v.headings[Role(role)] = set(words)
				}
			}
		case []any:
			v.cells[name] = set(x)
		}
	}
	return v
})

func set(list any) map[string]bool {
	out := map[string]bool{}
	for _, w := range list.([]any) {
		out[w.(string)] = true
	}
	return out
}

// is reports whether a cell holds a word of a list.
func is(list, cell string) bool { return words().cells[list][plain(cell)] }

// plain is a text in lower case, without accents and with single spaces.
func plain(s string) string {
	s = clip(s)
	s = strings.Map(func(r rune) rune {
		if unicode.Is(unicode.Mn, r) {
			return -1
		}
		return unicode.ToLower(r)
	}, norm.NFD.String(strings.ReplaceAll(s, "ß", "ss")))
	return strings.Join(strings.Fields(s), " ")
}

// longest is how many characters of a text are kept.
const longest = 200

// wordy reports whether a text is too long to be a heading, a word of a list,
// a frequency, a tone or any other value: it is prose, and reading it as each
// of them only costs time.
func wordy(s string) bool { return len(s) > longest }

// clip cuts a text that is far too long to be shown or looked up, with room
// for accents and spaces that will go.
func clip(s string) string {
	const most = 4 * longest // bytes
	if len(s) <= most {
		return s
	}
	return strings.ToValidUTF8(s[:most], "")
}

// Clean makes a text of others safe to show: without control characters,
// marks that turn the direction of writing and characters of no width, with
// single spaces, and not longer than any display needs.
func Clean(s string) string {
	s = clip(s)
	s = strings.Map(func(r rune) rune {
		switch {
		case unicode.IsSpace(r):
			return ' '
		case unicode.Is(unicode.C, r), r == '\u034F', r == '\uFFFD', r >= '\uFE00' && r <= '\uFE0F', r == '\u115F', r == '\u1160', r == '\u3164':
			return -1 // control, format, surrogate, private use; and what draws nothing
		}
		return r
	}, norm.NFC.String(s))
	s = unstacked(strings.Join(strings.Fields(s), " "))
	if r := []rune(s); len(r) > longest {
		s = string(r[:longest-1]) + "…"
	}
	return s
}

// unstacked keeps two accents on a letter: no language needs more, and a pile
// of them covers the lines above.
func unstacked(s string) string {
	marks := 0
	return strings.Map(func(r rune) rune {
		if !unicode.Is(unicode.M, r) {
			marks = 0
			return r
		}
		if marks++; marks > 2 {
			return -1
		}
		return r
	}, s)
}
