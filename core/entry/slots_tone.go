package entry

import (
	"fmt"
	"strconv"
	"strings"

	"mnemos/core/tone"
)

// tone reads a tone or a code behind a word for it. Figures without their
// point are the tone they can be: 885 is 88.5, and 103 is 103.5.
func (r *reading) tone(at int, found func(int, value)) {
	r.dcs(at, found)
	t := r.at(at)
	if !t.number() {
		return
	}
	n := 1
	if u, k := r.unit(at + 1); k > 0 {
		if u != 1 {
			return
		}
		n = 2
	}
	if v, ok := wholeTone(t.low); ok {
		found(n, v)
	}
}

// toneOf reads the figures of a tone.
func toneOf(s string) (value, bool) {
	t, err := tone.Parse(s)
	switch {
	case err == nil && (t.Standard() || strings.Contains(s, ".")):
		return value{tone: t}, true
	case strings.Contains(s, "."):
		return value{}, false
	case len(s) >= 3: // 885, 1035, 1622
		if t, err := tone.Parse(s[:len(s)-1] + "." + s[len(s)-1:]); err == nil && t.Standard() {
			return value{tone: t, guess: t.Words() + "?"}, true
		}
	}
	return value{}, false
}

// whole reads a whole number as the one standard tone that begins with it:
// 141 is 141.3. Tones are never rounded otherwise.
func wholeTone(s string) (value, bool) {
	if v, ok := toneOf(s); ok {
		return v, true
	}
	n, err := strconv.Atoi(s)
	if err != nil {
		return value{}, false
	}
	var only tone.Tone
	for _, d := range tone.CTCSS50 {
		if d/10 == n {
			if !only.IsOff() {
				return value{}, false
			}
			only, _ = tone.NewCTCSS(d)
		}
	}
	return value{tone: only, guess: only.Words() + "?"}, !only.IsOff()
}

// bareTone reads a tone that nothing stands before.
func (r *reading) bareTone(at int, found func(int, value)) {
	t := r.at(at)
	r.dcs(at, found)
	if !t.number() {
		return
	}
	if u, n := r.unit(at + 1); n > 0 {
		if u == 1 {
			r.tone(at, found)
		}
		return
	}
	parsed, err := tone.Parse(t.low)
	if whole := t.whole(); whole && len(t.low) == 3 && (t.low[0] == '0' || r.at(at-1).sign() && !t.glued) {
		// A code without its mark: behind a bare sign, or with its zero.
		if code, bad := tone.Parse("D" + t.low); bad == nil && (t.low[0] == '0' || code.Standard() && (err != nil || !parsed.Standard())) {
			found(1, value{tone: code, cost: likely, guess: code.String() + "?", late: true})
		}
	}
	if err != nil {
		return
	}
	v := value{tone: parsed, late: true}
	switch {
	case parsed.Standard() && !t.whole():
		v.late = false
	case parsed.Standard():
	case !t.whole():
		v.cost = remote - 1 // as typed, so that the check can say which one is near
	default:
		var ok bool
		if v, ok = wholeTone(t.low); !ok {
			return
		}
		v.cost, v.late = possible, true
		if r.afterName(at) {
			v.cost = remote
		}
	}
	found(1, v)
}

// pairTone reads one side of two tones with a slash between: standard tones
// and marked codes only, because two other numbers may be frequencies.
func (r *reading) pairTone(at int, found func(int, value)) {
	t := r.at(at)
	if t.low == "-" && (r.at(at+1).low == "/" && r.at(at+1).glued || r.at(at-1).low == "/" && t.glued) || t.low == "open" || t.low == "none" || t.low == "off" {
		found(1, value{})
		return
	}
	r.dcs(at, found)
	if !t.number() {
		return
	}
	if v, err := tone.Parse(t.low); err == nil && v.Standard() {
		n := 1
		if u, k := r.unit(at + 1); k > 0 && u == 1 {
			n = 2
		}
		found(n, value{tone: v})
		return
	}
	if t.whole() && len(t.low) == 3 && t.low[0] == '0' {
		if v, err := tone.Parse("D" + t.low); err == nil && v.Standard() {
			found(1, value{tone: v, guess: v.String() + "?"})
		}
	}
}

// notTone reads a number that is no tone, behind a word for one.
func (r *reading) notTone(at int, found func(int, value)) {
	t := r.at(at)
	if _, ok := wholeTone(t.low); !t.number() || ok {
		return
	}
	found(1, value{problem: fmt.Sprintf("%q is not a tone: CTCSS tones lie between 67.0 and 254.1 Hz. Type one such as 103.5, or a DCS code such as D023N", t.text)})
}

func (r *reading) noTone(at int, found func(int, value)) {
	if t := r.at(at); !t.quoted && (in("off", t.low) || t.low == "-" && t.labelled) {
		found(1, value{})
	}
}

// dcs reads a code with its mark: d023, D023N, 023i, d 023.
func (r *reading) dcs(at int, found func(int, value)) {
	t := r.at(at)
	if t.quoted || t.low == "" {
		return
	}
	text, n := t.low, 1
	if next := r.at(at + 1); t.low == "d" && next.whole() && len(next.low) == 3 {
		text, n = "d"+next.low, 2
	}
	if len(text) < 4 || len(text) > 5 {
		return
	}
	if v, err := tone.Parse(text); err == nil && v.Kind() == tone.DCS {
		r.polar(at+n, v, func(k int, v value) { found(n+k, v) })
	}
}

// code reads the three octal figures behind a word for DCS, with a minus sign
// for the inverted code or a polarity behind it.
func (r *reading) code(at int, found func(int, value)) {
	n, inverted := 0, false
	if r.at(at).low == "-" {
		n, inverted = 1, true
	}
	t := r.at(at + n)
	if t.quoted || len(t.low) < 3 {
		return
	}
	v, err := tone.Parse("d" + strings.TrimPrefix(t.low, "d"))
	if err != nil || v.Kind() != tone.DCS {
		return
	}
	if inverted {
		c, _ := v.Code()
		v, _ = tone.NewDCS(c, true)
	}
	r.polar(at+n+1, v, func(k int, v value) { found(n+1+k, v) })
}

// polar reads what may stand behind a code: its polarity, or that of both
// sides (sent, then received).
func (r *reading) polar(at int, t tone.Tone, found func(int, value)) {
	found(0, value{tone: t})
	code, _ := t.Code()
	is := func(inverted bool) tone.Tone { v, _ := tone.NewDCS(code, inverted); return v }
	switch r.at(at).low {
	case "n", "normal", "norm":
		found(1, value{tone: is(false)})
	case "i", "r", "inverted", "inverse", "inv", "reverse", "reversed":
		found(1, value{tone: is(true)})
	case "nn":
		found(1, value{tone: is(false), text: "both", n: 0})
	case "rr", "ii":
		found(1, value{tone: is(true), text: "both", n: 1})
	case "rn", "in":
		found(1, value{tone: is(true), text: "both", n: 0})
	case "nr", "ni":
		found(1, value{tone: is(false), text: "both", n: 1})
	}
}

// shortCode reads figures behind a word for DCS that are no code, to say so.
func (r *reading) shortCode(at int, found func(int, value)) {
	t := r.at(at)
	figures := strings.TrimPrefix(t.low, "d")
	if t.quoted || figures == "" || strings.Trim(figures, "0123456789") != "" {
		return
	}
	if len(figures) >= 3 {
		if v, err := tone.Parse("d" + figures); err == nil && v.Kind() == tone.DCS {
			return
		}
	}
	v := value{text: figures}
	if len(figures) < 3 && strings.Trim(figures, "01234567") == "" {
		v.problem = fmt.Sprintf("a code has three figures: type D%03s, or D%s with the figure that is missing", zeros(figures), figures)
	} else {
		v.problem = fmt.Sprintf("%q is not a DCS code: it has three figures from 0 to 7, such as D023", figures)
	}
	found(1, v)
}

func (r *reading) markedShortCode(at int, found func(int, value)) {
	if shortCode(r.at(at).low) {
		r.shortCode(at, found)
	}
}

func zeros(s string) string { return strings.Repeat("0", 3-len(s)) + s }
