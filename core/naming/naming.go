// Package naming makes the short names that a radio's display has room for:
// unique in the radio, readable, and with the figures and the words that tell two
// channels apart.
package naming

import (
	"slices"
	"strconv"
	"strings"
	"unicode"

	"golang.org/x/text/unicode/norm"

	"mnemos/core/radio"
)

// Short returns a name for a channel that fits the limits and is not taken. It is
// the first of its Options that is free, or else a cut with a number. An empty
// name stays empty.
func Short(name string, limits radio.Names, taken func(string) bool) string {
	return Among(nil).Short(name, limits, taken)
}

// Group is the names of a plan, counted by their words: what a name shares with
// others does not tell it apart.
type Group map[string]int

// Among counts the words of names.
func Among(all []string) Group {
	g := Group{}
	for _, name := range all {
		for _, w := range distinct(name) {
			g[w]++
		}
	}
	return g
}

// distinct are the words of a name, small, once each.
func distinct(name string) []string {
	var out []string
	for _, p := range parse(strings.ToLower(name)) {
		if !p.figures && !slices.Contains(out, p.text) {
			out = append(out, p.text)
		}
	}
	return out
}

// Short is like the function, for a name among others.
func (g Group) Short(name string, limits radio.Names, taken func(string) bool) string {
	clean := Clean(name, limits.Characters)
	if clean == "" {
		return ""
	}
	for _, s := range g.Options(name, limits) {
		if !taken(s) {
			return s
		}
	}
	return numbered(clean, limits.Length, taken)
}

// Clean replaces what the characters cannot show: accents are dropped, small
// letters become capitals where there are no small ones, anything else is
// left out.
func Clean(name, characters string) string {
	var b strings.Builder
	for _, r := range norm.NFD.String(name) {
		switch {
		case strings.ContainsRune(characters, r):
			b.WriteRune(r)
		case strings.ContainsRune(characters, unicode.ToUpper(r)):
			b.WriteRune(unicode.ToUpper(r))
		case unicode.IsSpace(r) || r == '_':
			b.WriteByte(' ')
		}
	}
	return strings.Join(strings.Fields(b.String()), " ")
}

// Fits reports whether a radio can show s as it stands.
func Fits(s string, limits radio.Names) bool {
	return len([]rune(s)) <= limits.Length && strings.Trim(s, limits.Characters) == ""
}

// count is the length in characters, not in bytes: displays differ in script.
func count(s string) int { return len([]rune(s)) }

// numbered is a cut with a number that nobody has.
func numbered(clean string, length int, taken func(string) bool) string {
	base := []rune(strings.ReplaceAll(clean, " ", ""))
	for n := 2; ; n++ {
		end := strconv.Itoa(n)
		keep := min(length-len(end), len(base))
		if keep < 0 {
			return "" // more channels than the length can tell apart
		}
		if s := string(base[:keep]) + end; !taken(s) {
			return s
		}
	}
}
