// Package naming makes the short names that a radio's display has room for:
// unique in the radio, readable, and with the figures that tell two channels
// apart.
package naming

import (
	"strconv"
	"strings"
	"unicode"

	"golang.org/x/text/unicode/norm"

	"mnemos/core/radio"
)

// Short returns a name for a channel that fits the limits and is not taken.
// It prefers, in this order: the name as it is; without its spaces; its first
// word; its words shortened by their vowels; a cut; and last a cut with a
// number. Figures are kept as long as anything is. An empty name stays empty.
func Short(name string, limits radio.Names, taken func(string) bool) string {
	clean := Clean(name, limits.Characters)
	if clean == "" {
		return ""
	}
	for _, s := range options(clean, limits.Length) {
		if len([]rune(s)) <= limits.Length && !taken(s) {
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

func options(clean string, length int) []string {
	words, figures := split(clean)
	out := []string{clean, strings.ReplaceAll(clean, " ", "")}
	if len(words) > 0 && count(words[0]) >= 4 {
		out = append(out, words[0]+space(figures), words[0]+figures)
	}
	squeezed := squeeze(words, length-len(figures))
	out = append(out, squeezed+space(figures), squeezed+figures)
	if joined := []rune(strings.Join(words, "")); len(joined)+len(figures) > length && length > len(figures) {
		out = append(out, string(joined[:length-len(figures)])+figures)
	}
	return out
}

func space(figures string) string {
	if figures == "" {
		return ""
	}
	return " " + figures
}

// split parts the words from the figures at the end of a name: "WALK 2" and
// "WALK2" both have the figures "2".
func split(clean string) (words []string, figures string) {
	body := strings.TrimRight(clean, "0123456789")
	return strings.Fields(body), clean[len(body):]
}

// squeeze drops vowels inside the words, from the last to the first, until
// they fit together.
func squeeze(words []string, length int) string {
	s := append([]string(nil), words...)
	for i := len(s) - 1; i >= 0 && total(s) > length; i-- {
		first := string([]rune(s[i])[:1])
		s[i] = first + strings.Map(func(r rune) rune {
			if strings.ContainsRune("AEIOUaeiou", r) {
				return -1
			}
			return r
		}, strings.TrimPrefix(s[i], first))
	}
	return strings.Join(s, "")
}

func total(words []string) (n int) {
	for _, w := range words {
		n += count(w)
	}
	return n
}

// count is the length in characters, not in bytes: displays differ in script.
func count(s string) int { return len([]rune(s)) }

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
