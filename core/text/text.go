// Package text looks at what people write before it is kept: whatever language
// it is in, it is composed (NFC), can be shown, and is no longer than it may be.
//
//	s := text.Composed(typed)
//	if why := text.Problem(s, limit.Name); why != "" { ... }
package text

import (
	"fmt"
	"unicode"
	"unicode/utf8"

	"golang.org/x/text/unicode/norm"
)

// Composed is a text in its composed form (Unicode NFC): what looks alike is
// alike.
func Composed(s string) string { return norm.NFC.String(s) }

// Problem says why a text cannot be kept, and what to do; "" for one that can. It
// may have up to so many characters, line breaks and tabs among them.
func Problem(s string, most int) string {
	if n := utf8.RuneCountInString(s); n > most {
		return fmt.Sprintf("it has %d characters: write up to %d", n, most)
	}
	for _, r := range s {
		switch {
		case r == utf8.RuneError:
			return "it holds a sign that was damaged on the way (�): write it again"
		case unicode.Is(unicode.Cc, r) && r != '\n' && r != '\r' && r != '\t', unicode.Is(unicode.Noncharacter_Code_Point, r):
			return fmt.Sprintf("it holds a sign that cannot be shown (U+%04X): write it without", r)
		}
	}
	return ""
}
