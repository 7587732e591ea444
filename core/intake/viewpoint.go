package intake

import (
	"fmt"
	"strings"

	"mnemos/core/freq"
	"mnemos/core/listing"
)

// Viewpoint is from whose side a table calls what is sent TX.
type Viewpoint string

// The viewpoints.
const (
	Operator Viewpoint = "operator" // TX is what you send
	Repeater Viewpoint = "repeater" // TX is what the repeater sends
)

// Other is the opposite viewpoint.
func (v Viewpoint) Other() Viewpoint {
	if v == Operator {
		return Repeater
	}
	return Operator
}

// View is the viewpoint of a table, for all its columns together, with what
// speaks for it.
type View struct {
	Viewpoint Viewpoint `json:"viewpoint"` // the likelier one; "" where no column needs one
	Settled   bool      `json:"settled"`   // proven by values or words; else a person is asked
	Reasons   []string  `json:"reasons"`
}

// Asked reports whether a person has to say whose TX it is.
func (v View) Asked() bool { return v.Viewpoint != "" && !v.Settled }

// The weights of what speaks for a viewpoint, in natural logarithms of odds,
// and how far they must lead. A row whose frequencies fit the band plan in one
// way only is proof enough; tones only lean. Common practice, no source; the
// count of tables that came in exchanged is what they are held to.
const (
	fits      = 3.0 // per row: the pair is one of the band plan
	mostFits  = 9.0
	lone      = 2.0 // per row: a single frequency with the shift of an output
	fills     = 1.0 // per row: only one of the two tones is stated
	mostFills = 6.0
	whose     = 6.0 // "my TX", "repeater RX"
	coded     = 3.0 // encode and decode are words of the operator's radio
	looseSide = 3.0 // "tone in" beside a column called input
	named     = 6.0 // an output is named, and the other column is not the same
	enough    = 3.0
)

// viewpoint weighs what the columns say together. score is positive for the
// operator's view.
type viewpoint struct {
	g       *guesser
	rows    [][]string
	reasons []string
}

func (v *viewpoint) decide() View {
	freqScore, tones := v.frequencies(), v.tones()
	total := freqScore + tones + v.words()
	if !v.needed() {
		return View{Reasons: []string{}}
	}
	out := View{Viewpoint: Operator, Reasons: v.reasons}
	if total < 0 {
		out.Viewpoint = Repeater
	}
	// Frequencies and tones that pull apart mean two views in one table.
	apart := freqScore >= enough && tones <= -enough || freqScore <= -enough && tones >= enough
	out.Settled = (total >= enough || total <= -enough) && !apart
	if apart {
		out.Reasons = append(out.Reasons, "the frequencies and the tones say opposite things")
	}
	if out.Reasons == nil {
		out.Reasons = []string{}
	}
	return out
}

func (v *viewpoint) reason(format string, args ...any) {
	v.reasons = append(v.reasons, fmt.Sprintf(format, args...))
}

// column returns the index of the column about a subject on a side, or -1.
func (v *viewpoint) column(about subject, side Side) int {
	for i, c := range v.g.columns {
		if c.meant && c.meaning.about == about && c.meaning.side == side {
			return i
		}
	}
	return -1
}

// needed reports whether turning the viewpoint round would change anything.
func (v *viewpoint) needed() bool {
	for i, c := range v.g.columns {
		if !c.meant || !c.meaning.side.depends() {
			continue
		}
		other := Sent
		if c.meaning.side == Sent {
			other = Heard
		}
		j := v.column(c.meaning.about, other)
		if j < 0 {
			return true
		}
		for _, r := range v.rows {
			if !v.same(c.meaning.about, i, j, r) {
				return true
			}
		}
	}
	return false
}

// same reports whether two cells of a row say the same.
func (v *viewpoint) same(about subject, i, j int, row []string) bool {
	if about == toneColumn {
		a, _ := v.tone(i, row)
		b, _ := v.tone(j, row)
		return a == b
	}
	a, ok := v.frequency(i, row)
	b, ok2 := v.frequency(j, row)
	return ok == ok2 && a == b
}

func cell(row []string, i int) string {
	if i < 0 || i >= len(row) {
		return ""
	}
	return strings.TrimSpace(row[i])
}

func (v *viewpoint) frequency(i int, row []string) (freq.Hz, bool) {
	text := cell(row, i)
	if text == "" {
		return 0, false
	}
	f, err := frequency(text, v.g.columns[i].unit)
	return f, err == nil
}

func (v *viewpoint) tone(i int, row []string) (listing.Stated, bool) {
	up, _, err := tones(cell(row, i))
	return up, err == nil && up.Known && !up.Tone.IsOff()
}

// frequencies weighs pairs of frequencies against the band plan, and single
// ones with their shift.
func (v *viewpoint) frequencies() float64 {
	sent, heard := v.column(frequencies, Sent), v.column(frequencies, Heard)
	out, in := v.column(frequencies, Out), v.column(frequencies, In)
	if out < 0 {
		out = v.column(frequencies, NoSide)
	}
	switch {
	case sent >= 0 && heard >= 0:
		return v.pairs(sent, heard)
	case (sent >= 0 || heard >= 0) && (out >= 0 || in >= 0):
		return v.against(sent, heard, out, in)
	case sent >= 0:
		return -v.outputs(sent)
	case heard >= 0:
		return v.outputs(heard)
	}
	return 0
}

func (v *viewpoint) pairs(sent, heard int) float64 {
	operator, repeater := 0, 0
	for _, r := range v.rows {
		s, ok := v.frequency(sent, r)
		h, ok2 := v.frequency(heard, r)
		if !ok || !ok2 || s == h {
			continue
		}
		mine, its := v.pair(h, s), v.pair(s, h)
		switch {
		case mine && !its:
			operator++
		case its && !mine:
			repeater++
		}
	}
	if operator > 0 {
		v.reason("in %d of %d rows RX is an output of the band plan", operator, operator+repeater)
	}
	if repeater > 0 {
		v.reason("in %d of %d rows TX is an output of the band plan", repeater, operator+repeater)
	}
	return bound(fits*float64(operator-repeater), mostFits)
}

// pair reports whether output and input are a pair of the band plan.
func (v *viewpoint) pair(output, input freq.Hz) bool {
	rule, ok := v.g.plan.Shift(output)
	return ok && rule.Offset == input.Sub(output)
}

// against holds a column with a viewpoint against one whose name needs none.
func (v *viewpoint) against(sent, heard, out, in int) float64 {
	score, n := 0.0, 0
	for _, r := range v.rows {
		for _, pair := range []struct {
			a, b int
			sign float64 // for the operator's view if the two differ
		}{{sent, out, 1}, {heard, out, -1}, {sent, in, -1}, {heard, in, 1}} {
			a, ok := v.frequency(pair.a, r)
			b, ok2 := v.frequency(pair.b, r)
			if ok && ok2 && a != b {
				score += pair.sign
				n++
			}
		}
	}
	if n == 0 {
		return 0
	}
	v.reason("another column is named output or input")
	return bound(score/float64(n)*named, named)
}

// outputs weighs a lone column of frequencies: positive if they are outputs.
func (v *viewpoint) outputs(at int) float64 {
	score, n := 0.0, 0
	for _, r := range v.rows {
		f, ok := v.frequency(at, r)
		if !ok {
			continue
		}
		rule, ruled := v.g.plan.Shift(f)
		sign := v.g.sign(r)
		switch {
		case ruled && (sign == 0 || sign == rule.Offset.Sign()):
			score += lone
			n++
		case !ruled && sign != 0 && v.input(f, sign):
			score -= lone
			n++
		}
	}
	if n > 0 {
		v.reason("the shifts of %d rows tell which of the two frequencies is given", n)
	}
	return bound(score, mostFits)
}

// input reports whether f is the input of an output whose shift has a sign.
func (v *viewpoint) input(f freq.Hz, sign int) bool {
	for _, b := range v.g.plan.Bands {
		for _, s := range b.Shifts {
			if s.Offset.Sign() == sign && v.pair(f.Add(-s.Offset), f) {
				return true
			}
		}
	}
	return false
}

// tones weighs which of two tones is stated more often: the one that opens is.
func (v *viewpoint) tones() float64 {
	sent, heard := v.column(toneColumn, Sent), v.column(toneColumn, Heard)
	if sent < 0 && heard < 0 {
		return 0
	}
	up, down := v.column(toneColumn, In), v.column(toneColumn, Out)
	if up < 0 {
		up = v.column(toneColumn, NoSide)
	}
	if sent >= 0 && heard >= 0 {
		return v.fill(sent, heard)
	}
	only, sign := sent, 1.0 // sent = uplink is the operator's view
	if sent < 0 {
		only, sign = heard, -1
	}
	switch {
	case up >= 0: // the tone that opens has a column of its own
		return -sign * named
	case down >= 0:
		return sign * named
	}
	for _, r := range v.rows {
		if _, ok := v.tone(only, r); ok {
			v.reason("only one tone is given, and a list gives the one that opens")
			return sign * coded / 2
		}
	}
	return 0
}

func (v *viewpoint) fill(sent, heard int) float64 {
	onlySent, onlyHeard := 0, 0
	for _, r := range v.rows {
		_, s := v.tone(sent, r)
		_, h := v.tone(heard, r)
		switch {
		case s && !h:
			onlySent++
		case h && !s:
			onlyHeard++
		}
	}
	if most := max(onlySent, onlyHeard); most > 0 {
		rows := "rows state"
		if most == 1 {
			rows = "row states"
		}
		v.reason("%d %s only the %s tone, and lists state the one that opens more often", most, rows, map[bool]string{true: "TX", false: "RX"}[onlySent >= onlyHeard])
	}
	return bound(fills*float64(onlySent-onlyHeard), mostFills)
}

// words weighs what the headings themselves say.
func (v *viewpoint) words() float64 {
	score := 0.0
	named := v.column(frequencies, Out) >= 0 || v.column(frequencies, In) >= 0
	seen := map[string]bool{}
	once := func(what string, weight float64, because string) {
		if !seen[what] {
			seen[what] = true
			score += weight
			v.reason("%s", because)
		}
	}
	for _, c := range v.g.columns {
		if !c.meant || !c.meaning.side.depends() {
			continue
		}
		switch {
		case c.meaning.whose == Operator:
			once("mine", whose, "a heading speaks of you")
		case c.meaning.whose == Repeater:
			once("its", -whose, "a heading speaks of the repeater")
		}
		if c.meaning.coder {
			once("coder", coded, "encode and decode are words of your radio")
		}
		if c.meaning.loose && named {
			once("loose", -looseSide, "in and out stand beside the input and the output of the repeater")
		}
	}
	return score
}

func bound(v, most float64) float64 { return max(-most, min(most, v)) }

// Under returns the mapping from a viewpoint: the columns whose headings need
// one are turned, all of them together.
func (m Mapping) Under(v Viewpoint) Mapping {
	out := make(Mapping, len(m))
	for i, c := range m {
		if c.Side.depends() {
			about := frequencies
			if c.Role == UplinkTone || c.Role == DownlinkTone {
				about = toneColumn
			}
			if c.Role == Output || c.Role == Input || about == toneColumn {
				c.Role = meaning{about: about, side: c.Side}.role(v)
			}
		}
		out[i] = c
	}
	return out
}
