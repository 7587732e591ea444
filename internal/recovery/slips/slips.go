// Package slips makes the mistakes that people make when they copy a line of a
// listing into a radio. It works on texts alone and knows nothing of how such
// mistakes are found again: that is what it is there to test.
package slips

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
)

// Line is what somebody types, field by field; empty fields are not typed.
type Line struct {
	Receive string // MHz, "147.240"
	Sign    string // "+" or "-"
	Size    string // kHz, "600"; "" if only the sign is typed
	Input   string // MHz: the transmit frequency, instead of sign and size
	Mode    string // "ts" in front of the tone, or ""
	Tone    string // "103.5" or "D023N"
	Name    string
}

// String writes the line as it is typed.
func (l Line) String() string {
	parts := []string{l.Receive}
	switch {
	case l.Input != "":
		parts = append(parts, "tx "+l.Input)
	case l.Sign != "":
		parts = append(parts, l.Sign+l.Size)
	}
	if l.Tone != "" {
		parts = append(parts, strings.TrimSpace(l.Mode+" "+l.Tone))
	}
	if l.Name != "" {
		parts = append(parts, strconv.Quote(l.Name))
	}
	return strings.Join(parts, " ")
}

// Around is what stands in the listing beside the line.
type Around struct {
	Output, Input string   // MHz
	Downlink      string   // the tone that the repeater sends, "" if none or unknown
	Beside        []string // the uplink tones of the lines above and below
	Tones         []string // the table of tones, ascending
}

// Kind is a kind of slip. Make returns every line that it can lead to.
type Kind struct {
	Name string
	Make func(Line, Around) []Line
}

// Kinds are all kinds of slips, by name.
var Kinds = []Kind{
	{"adjacent digit", onReceive(adjacent)},
	{"swapped digits", onReceive(swapped)},
	{"missing digit", onReceive(missing)},
	{"doubled digit", onReceive(doubled)},
	{"reversed", reversed},
	{"wrong sign", wrongSign},
	{"shift unit", shiftUnit},
	{"tone beside", toneBeside},
	{"tone digits", toneDigits},
	{"downlink", downlink},
	{"code or tone", codeOrTone},
	{"line beside", lineBeside},
}

func onReceive(change func(string) []string) func(Line, Around) []Line {
	return func(l Line, _ Around) []Line {
		var out []Line
		for _, s := range change(l.Receive) {
			if value(s) != value(l.Receive) { // a zero doubled at the end changes nothing
				m := l
				m.Receive = s
				out = append(out, m)
			}
		}
		return out
	}
}

// value drops what does not change a decimal number.
func value(s string) string {
	if strings.Contains(s, ".") {
		s = strings.TrimSuffix(strings.TrimRight(s, "0"), ".")
	}
	return s
}

// rows are the digits of a telephone keypad, and of the top of a keyboard.
var rows = []string{"123", "456", "789", "1234567890"}

var columns = []string{"147", "2580", "369"}

func adjacent(s string) []string {
	var out []string
	for i := range s {
		var near []byte
		for _, line := range slices.Concat(rows, columns) {
			at := strings.IndexByte(line, s[i])
			if at > 0 {
				near = append(near, line[at-1])
			}
			if at >= 0 && at+1 < len(line) {
				near = append(near, line[at+1])
			}
		}
		slices.Sort(near)
		for _, d := range slices.Compact(near) {
			out = append(out, s[:i]+string(d)+s[i+1:])
		}
	}
	return out
}

func swapped(s string) []string {
	var out []string
	for i := range s {
		j := i + 1
		if j < len(s) && s[j] == '.' {
			j++
		}
		if s[i] == '.' || j >= len(s) || s[i] == s[j] {
			continue
		}
		b := []byte(s)
		b[i], b[j] = b[j], b[i]
		out = append(out, string(b))
	}
	return out
}

func missing(s string) []string {
	var out []string
	for i := range s {
		if s[i] != '.' {
			out = append(out, s[:i]+s[i+1:])
		}
	}
	return out
}

func doubled(s string) []string {
	var out []string
	for i := range s {
		if s[i] != '.' {
			out = append(out, s[:i+1]+s[i:])
		}
	}
	return out
}

func flip(sign string) string {
	if sign == "+" {
		return "-"
	}
	return "+"
}

// reversed takes output and input from each other's column.
func reversed(l Line, a Around) []Line {
	if a.Input == "" || a.Input == a.Output {
		return nil
	}
	l.Receive = a.Input
	if l.Input != "" {
		l.Input = a.Output
	}
	if l.Sign != "" {
		l.Sign = flip(l.Sign)
	}
	return []Line{l}
}

func wrongSign(l Line, _ Around) []Line {
	if l.Sign == "" {
		return nil
	}
	l.Sign = flip(l.Sign)
	return []Line{l}
}

// shiftUnit types kilohertz for megahertz or loses the point by a place.
func shiftUnit(l Line, _ Around) []Line {
	kHz, err := strconv.Atoi(l.Size)
	if err != nil {
		return nil
	}
	var out []Line
	for _, size := range []string{fmt.Sprintf("%d MHz", kHz), fmt.Sprintf("%d kHz", kHz*10), fmt.Sprintf("%d kHz", kHz/10)} {
		m := l
		m.Size = size
		out = append(out, m)
	}
	return out
}

func withTones(l Line, tones ...string) []Line {
	var out []Line
	for _, t := range tones {
		if t != "" && t != l.Tone {
			m := l
			m.Tone = t
			out = append(out, m)
		}
	}
	return out
}

func toneBeside(l Line, a Around) []Line {
	i := slices.Index(a.Tones, l.Tone)
	if i < 0 {
		return nil
	}
	var near []string
	if i > 0 {
		near = append(near, a.Tones[i-1])
	}
	if i+1 < len(a.Tones) {
		near = append(near, a.Tones[i+1])
	}
	return withTones(l, near...)
}

func toneDigits(l Line, _ Around) []Line {
	if l.Tone == "" {
		return nil
	}
	figures := strings.Trim(l.Tone, "DN")
	var tones []string
	for _, s := range swapped(figures) {
		tones = append(tones, strings.Replace(l.Tone, figures, s, 1))
	}
	return withTones(l, tones...)
}

func downlink(l Line, a Around) []Line {
	if l.Tone == "" || l.Mode != "" {
		return nil
	}
	return withTones(l, a.Downlink)
}

// codeOrTone types the figures of a tone as a code or those of a code as a
// tone: 114.8 becomes D114N, D131N becomes 131.
func codeOrTone(l Line, _ Around) []Line {
	if code, ok := strings.CutPrefix(l.Tone, "D"); ok {
		figures := strings.TrimRight(code, "NI")
		n, err := strconv.Atoi(figures)
		if err != nil || n < 67 || n > 254 {
			return nil
		}
		return withTones(l, strconv.Itoa(n)+".0")
	}
	whole, _, _ := strings.Cut(l.Tone, ".")
	if len(whole) == 2 {
		whole = "0" + whole
	}
	if len(whole) != 3 || strings.ContainsAny(whole, "89") {
		return nil
	}
	return withTones(l, "D"+whole+"N")
}

func lineBeside(l Line, a Around) []Line {
	if l.Tone == "" {
		return nil
	}
	return withTones(l, a.Beside...)
}
