package slips

import (
	"slices"
	"strings"
)

// Untold are kinds of slips that the search is not told of: what people mishear,
// keys beside by their real place (across too), two slips at once, a value from
// another column, a value of an older edition. Common practice, no source.
var Untold = []Kind{
	{"misheard", onReceive(misheard)},
	{"key across", onReceive(across)},
	{"two slips", twoSlips},
	{"wrong column", wrongColumn},
	{"older edition", olderEdition},
}

// misheard takes one figure for another that sounds alike: five and nine,
// forty and fourteen.
func misheard(s string) []string {
	var out []string
	for i := range s {
		for _, pair := range []string{"59", "95"} {
			if s[i] == pair[0] {
				out = append(out, s[:i]+pair[1:]+s[i+1:])
			}
		}
		if i+1 >= len(s) || s[i] == '.' || s[i+1] == '.' {
			continue
		}
		switch a, b := s[i], s[i+1]; {
		case b == '0' && a >= '3': // forty heard as fourteen
			out = append(out, s[:i]+"1"+string(a)+s[i+2:])
		case a == '1' && b >= '3':
			out = append(out, s[:i]+string(b)+"0"+s[i+2:])
		}
	}
	return out
}

// across presses the key that lies across the corner on a keypad of three
// columns.
func across(s string) []string {
	corners := map[byte]string{'1': "5", '2': "46", '3': "5", '4': "28", '5': "1379", '6': "28", '7': "50", '8': "46", '9': "50", '0': "79"}
	var out []string
	for i := range s {
		for _, d := range corners[s[i]] {
			out = append(out, s[:i]+string(d)+s[i+1:])
		}
	}
	return out
}

// twoSlips makes one slip on the receive frequency and one in the tone.
func twoSlips(l Line, a Around) []Line {
	var out []Line
	for _, first := range onReceive(swapped)(l, a) {
		out = append(out, toneBeside(first, a)...)
	}
	for _, first := range wrongSign(l, a) {
		out = append(out, onReceive(adjacent)(first, a)...)
	}
	return out
}

// wrongColumn types the output in the column of the input, or the tone of the
// receiver for that of the transmitter beside the wrong sign.
func wrongColumn(l Line, a Around) []Line {
	var out []Line
	if l.Input != "" {
		m := l
		m.Input = a.Output
		out = append(out, m)
	}
	for _, m := range downlink(l, a) {
		out = append(out, wrongSign(m, a)...)
	}
	return out
}

// olderEdition types a tone that the repeater had once: any of the table.
func olderEdition(l Line, a Around) []Line {
	if l.Tone == "" || strings.HasPrefix(l.Tone, "D") {
		return nil
	}
	return withTones(l, slices.DeleteFunc(slices.Clone(a.Tones), func(t string) bool { return t == l.Tone })...)
}
