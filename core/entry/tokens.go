package entry

import (
	"strings"
	"unicode"

	"mnemos/core/service"
	"mnemos/core/tone"
)

// token is a run of characters without space, or a quoted text.
type token struct {
	text       string // without quotes, punctuation trimmed
	start, end int
	quoted     bool
}

// tokens parts a line at its spaces and quotes.
func tokens(line string) []token {
	var out []token
	runes := []rune(line)
	if len(runes) > MaxLength {
		runes = runes[:MaxLength]
	}
	for i := 0; i < len(runes); {
		if unicode.IsSpace(runes[i]) {
			i++
			continue
		}
		start := i
		if quote(runes[i]) {
			var b strings.Builder
			for i++; i < len(runes); i++ {
				if quote(runes[i]) {
					if i+1 >= len(runes) || !quote(runes[i+1]) {
						break
					}
					i++ // a doubled quote stands for one
				}
				b.WriteRune(runes[i])
			}
			i = min(i+1, len(runes))
			out = append(out, token{text: strings.TrimSpace(b.String()), start: start, end: i, quoted: true})
			continue
		}
		for i < len(runes) && !unicode.IsSpace(runes[i]) && !quote(runes[i]) {
			i++
		}
		end := i
		for end > start+1 && strings.ContainsRune(",;", runes[end-1]) {
			end--
		}
		out = append(out, parts(runes[start:end], start)...)
	}
	return out
}

// parts takes words apart that were written without a space: "147.24+" and
// "146.94-600" are a frequency and a shift, "pl88.5" is a tone.
func parts(word []rune, start int) []token {
	whole := []token{{text: string(word), start: start, end: start + len(word)}}
	cut := func(at ...int) []token {
		var out []token
		from := 0
		for _, to := range append(at, len(word)) {
			if to > from {
				out = append(out, token{text: string(word[from:to]), start: start + from, end: start + to})
				from = to
			}
		}
		return out
	}
	digits := 0
	for digits < len(word) && strings.ContainsRune("0123456789.,", word[digits]) {
		digits++
	}
	if digits > 0 && digits < len(word) && strings.ContainsRune("+-−–", word[digits]) {
		// A tone behind the sign stands alone: "147.24+100" is not 100 kHz.
		if t, err := tone.Parse(string(word[digits+1:])); err == nil && t.Kind() == tone.CTCSS && t.Standard() {
			return cut(digits, digits+1)
		}
		return cut(digits)
	}
	letters := 0
	for letters < len(word) && unicode.IsLetter(word[letters]) {
		letters++
	}
	key := keywords[strings.ToLower(string(word[:letters]))]
	if low := strings.ToLower(string(word[:letters])); service.Word(low) && !service.Word(strings.ToLower(string(word))) && digitsOnly(word[letters:]) {
		return cut(letters)
	}
	if key == "ts" || key == "tone" || key == "dec" || key == "dcs" {
		rest := string(word[letters:])
		if key == "dcs" {
			rest = "d" + rest
		}
		if t, err := tone.Parse(rest); err == nil && !t.IsOff() {
			return cut(letters)
		}
	}
	return whole
}

func digitsOnly(word []rune) bool {
	return len(word) > 0 && strings.Trim(string(word), "0123456789") == ""
}

func quote(r rune) bool { return r == '"' || r == '“' || r == '”' }

// grouped counts the tokens of a frequency written in groups of three digits,
// such as "146 940 000". A group that is a tone ends it: "146 100" is not
// 146.100 MHz for sure.
func grouped(ts []token) int {
	digits := func(t token) bool { return !t.quoted && t.text != "" && strings.Trim(t.text, "0123456789") == "" }
	if !digits(ts[0]) || len(ts[0].text) < 2 || len(ts[0].text) > 4 {
		return 0
	}
	n := 1
	for n < len(ts) && n < 3 && digits(ts[n]) && len(ts[n].text) == 3 {
		if t, err := tone.Parse(ts[n].text); err == nil && t.Standard() {
			break
		}
		n++
	}
	return n
}

func joined(ts []token) string {
	var b strings.Builder
	for _, t := range ts {
		b.WriteString(t.text)
	}
	return b.String()
}
