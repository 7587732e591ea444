package radio

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

var (
	numberList = regexp.MustCompile(`^[0-9.,;\s]+$`)
	separated  = regexp.MustCompile(`;|,\s|\s`)
	spaced     = regexp.MustCompile(`\s+,\s*`) // as some write it: "5 ,10"
	units      = regexp.MustCompile(`(?i)\s*(khz|watts?|w)\b`)
	parting    = regexp.MustCompile(`[;\s]+|,\s+`)
)

// numbers reads several numbers. A comma may part them or be the decimal point, as
// people write it: where something else parts them, or a point stands in one, that
// tells; where nothing tells, both readings are tried, and the first that is likely
// counts.
func numbers(text string, likely func([]float64) bool) ([]float64, error) {
	text = units.ReplaceAllString(strings.ReplaceAll(text, "/", ";"), "")
	text = spaced.ReplaceAllString(strings.Trim(strings.TrimSpace(text), ",; "), ", ")
	if text == "" || !numberList.MatchString(text) {
		return nil, fmt.Errorf("%q: write numbers", text)
	}
	if strings.Contains(text, ".") { // the comma parts
		return floats(strings.FieldsFunc(text, func(r rune) bool { return strings.ContainsRune(",; \t", r) }))
	}
	if separated.MatchString(text) {
		parts := parting.Split(text, -1)
		for i := range parts {
			parts[i] = strings.Replace(parts[i], ",", ".", 1)
		}
		return floats(parts)
	}
	pieces := strings.Split(text, ",")
	var first []float64
	for _, joins := range readings(len(pieces)) {
		out, err := floats(join(pieces, joins))
		if err != nil {
			return nil, err
		}
		if first == nil {
			first = out
		}
		if likely(out) {
			return out, nil
		}
	}
	return first, nil
}

// readings are the ways in which commas between n pieces can be decimal points: no
// two in a row. The first has none.
func readings(n int) [][]bool {
	out := [][]bool{{}}
	for range min(n, 12) - 1 {
		var more [][]bool
		for _, r := range out {
			more = append(more, append(slices.Clone(r), false))
			if len(r) == 0 || !r[len(r)-1] {
				more = append(more, append(slices.Clone(r), true))
			}
		}
		out = more
	}
	return out
}

func join(pieces []string, points []bool) []string {
	out := []string{pieces[0]}
	for i, p := range pieces[1:] {
		if i < len(points) && points[i] {
			out[len(out)-1] += "." + p
			continue
		}
		out = append(out, p)
	}
	return out
}

func floats(parts []string) ([]float64, error) {
	var out []float64
	for _, p := range parts {
		if p = strings.TrimSpace(p); p == "" {
			continue
		}
		v, err := strconv.ParseFloat(p, 64)
		if err != nil {
			return nil, fmt.Errorf("%q is not a number", p)
		}
		out = append(out, v)
	}
	return out, nil
}

// usualSteps are the tuning steps of FM radios in kHz. Common practice, no source.
var usualSteps = []float64{1, 2.5, 5, 6.25, 7.5, 8.33, 9, 10, 12.5, 15, 20, 25, 30, 50, 100, 200, 500, 1000}

func likelySteps(v []float64) bool {
	return !slices.ContainsFunc(v, func(x float64) bool { return !slices.Contains(usualSteps, x) })
}

// likelyWatts: people write power from the highest step down.
func likelyWatts(v []float64) bool {
	return slices.IsSortedFunc(v, func(a, b float64) int {
		switch {
		case a > b:
			return -1
		case a < b:
			return 1
		}
		return 0
	})
}
