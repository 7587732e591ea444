package mend

import (
	"strings"

	"mnemos/core/band"
	"mnemos/core/freq"
)

// Slip is one kind of mistake.
type Slip string

// The slips, in the words that the reasons are made of.
const (
	AdjacentDigit Slip = "a digit beside the right one"
	OtherDigit    Slip = "one wrong digit"
	SwappedDigits Slip = "two digits swapped"
	MissingDigit  Slip = "a digit left out"
	DoubledDigit  Slip = "a digit doubled"
	Reversed      Slip = "output and input reversed"
	WrongSign     Slip = "the shift in the other direction"
	ShiftUnit     Slip = "the point or unit of the shift slipped"
	ToneBeside    Slip = "the tone beside it in the table"
	ToneDigits    Slip = "the digits of the tone mixed up"
	Downlink      Slip = "the tone that the repeater sends"
	CodeOrTone    Slip = "a code taken for a tone, or a tone for a code"
	Polarity      Slip = "the other polarity of the code"
	OtherLine     Slip = "the tone of the line beside it in the listing"
	OtherLines    Slip = "the tone of a line near it in the listing"
	ToneNear      Slip = "the tone beside it in the table of 38"
	NoTone        Slip = "the tone left out"
	OtherTone     Slip = "another tone"
)

// costs order the slips by how likely they are: smaller is likelier. Common
// practice, no source.
var costs = map[Slip]float64{
	"": 0, WrongSign: 0.7, Reversed: 0.8, ShiftUnit: 0.8, Downlink: 0.8, AdjacentDigit: 1, SwappedDigits: 1, ToneBeside: 1, Polarity: 1,
	NoTone: 1.2, MissingDigit: 1.2, DoubledDigit: 1.2, ToneDigits: 1.2, CodeOrTone: 1.2, OtherLine: 1.4, OtherLines: 2, ToneNear: 1.6, OtherDigit: 4, OtherTone: 4,
}

// keypad says which digits lie beside each other, worked out from the rows and
// columns of a keypad of three columns and from the row of digits above
// letters.
var keypad = func() map[byte]string {
	out := map[byte]string{}
	beside := func(line string) {
		for i := 1; i < len(line); i++ {
			a, b := line[i-1], line[i]
			if strings.IndexByte(out[a], b) < 0 {
				out[a], out[b] = out[a]+string(b), out[b]+string(a)
			}
		}
	}
	for _, line := range []string{"123", "456", "789", "147", "2580", "369", "1234567890"} {
		beside(line)
	}
	return out
}()

// compare says by which slip the typed figures came from the right ones; ok
// is false if it takes more than one. Both are decimal texts such as
// "147.240"; trailing zeros count only where the typed text has them.
func compare(typed, right string) (s Slip, ok bool) {
	best, found := Slip(""), false
	for _, t := range []string{typed, trim(typed)} {
		for _, r := range []string{trim(right), pad(right)} {
			if !strings.Contains(t, ".") {
				r = strings.Replace(r, ".", "", 1) // figures alone: the point does not count
			}
			if s, ok := one(t, r); ok && (!found || costs[s] < costs[best]) {
				best, found = s, true
			}
		}
	}
	return best, found
}

func one(typed, right string) (Slip, bool) {
	switch len(typed) - len(right) {
	case 0:
		return replaced(typed, right)
	case -1:
		for i := range len(right) {
			if right[i] != '.' && right[:i]+right[i+1:] == typed {
				return MissingDigit, true
			}
		}
	case 1:
		for i := range len(typed) {
			if typed[i] == '.' || typed[:i]+typed[i+1:] != right {
				continue
			}
			if i > 0 && typed[i-1] == typed[i] || i+1 < len(typed) && typed[i+1] == typed[i] {
				return DoubledDigit, true
			}
		}
	}
	return "", false
}

func replaced(typed, right string) (Slip, bool) {
	var at []int
	for i := range len(right) {
		if typed[i] != right[i] {
			if at = append(at, i); len(at) > 2 || typed[i] == '.' || right[i] == '.' {
				return "", false
			}
		}
	}
	switch {
	case len(at) == 0:
		return "", true
	case len(at) == 1 && strings.IndexByte(keypad[right[at[0]]], typed[at[0]]) >= 0:
		return AdjacentDigit, true
	case len(at) == 1:
		return OtherDigit, true
	}
	i, j := at[0], at[1]
	beside := j == i+1 || j == i+2 && right[i+1] == '.'
	return SwappedDigits, beside && typed[i] == right[j] && typed[j] == right[i]
}

func trim(s string) string {
	if !strings.Contains(s, ".") {
		return s
	}
	return strings.TrimSuffix(strings.TrimRight(s, "0"), ".")
}

// pad writes at least three decimals, as listings do.
func pad(s string) string {
	if !strings.Contains(s, ".") {
		s += "."
	}
	for len(s)-strings.IndexByte(s, '.') < 4 {
		s += "0"
	}
	return s
}

// origins returns the frequencies in the bands of the plan from which one
// slip of the fingers leads to the typed figures.
func origins(typed string, plan *band.Plan) []freq.Hz {
	seen := map[freq.Hz]bool{}
	var out []freq.Hz
	add := func(text string) {
		for _, t := range pointed(text) {
			n, err := freq.Scale(t, freq.MHz)
			f := freq.Hz(n)
			if _, ok := plan.Band(f); err != nil || !ok || seen[f] {
				continue
			}
			seen[f] = true
			out = append(out, f)
		}
	}
	texts := []string{typed}
	for _, t := range []string{trim(typed), pad(typed)} {
		if strings.Contains(typed, ".") && t != typed {
			texts = append(texts, t)
		}
	}
	for _, t := range texts {
		vary(t, add)
	}
	return out
}

// vary calls add with every text that is one digit away.
func vary(t string, add func(string)) {
	for i := range len(t) + 1 {
		for d := byte('0'); d <= '9'; d++ {
			add(t[:i] + string(d) + t[i:])
			if i < len(t) && t[i] != '.' && t[i] != d {
				add(t[:i] + string(d) + t[i+1:])
			}
		}
		if i == len(t) || t[i] == '.' {
			continue
		}
		add(t[:i] + t[i+1:])
		j := i + 1
		if j < len(t) && t[j] == '.' {
			j++
		}
		if j < len(t) {
			b := []byte(t)
			b[i], b[j] = b[j], b[i]
			add(string(b))
		}
	}
}

// pointed puts the point into figures that have none, where a frequency could
// have it.
func pointed(text string) []string {
	if strings.Contains(text, ".") {
		return []string{text}
	}
	var out []string
	for _, at := range []int{2, 3, 4} {
		if at <= len(text) {
			out = append(out, text[:at]+"."+text[at:])
		}
	}
	return out
}
