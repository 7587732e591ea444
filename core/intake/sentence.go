package intake

import (
	"fmt"
	"strings"

	"mnemos/core/tone"
)

// Sentence says with a real row whose TX it is: In this table "TX" is what you
// send: 146.340 MHz with 88.5 Hz. It is empty where no column needs a
// viewpoint.
func (m Mapping) Sentence(v Viewpoint, heading []string, rows [][]string) string {
	side, at := Sent, m.sided(Sent)
	if len(at) == 0 {
		side, at = Heard, m.sided(Heard)
	}
	if len(at) == 0 || v == "" {
		return ""
	}
	var names []string
	for _, i := range at {
		names = append(names, fmt.Sprintf("%q", Clean(cell(heading, i))))
	}
	verb, who := map[Side]string{Sent: "send", Heard: "receive"}[side], "you"
	if v == Repeater {
		verb, who = verb+"s", "the repeater"
	}
	is := " is "
	if len(names) > 1 {
		is = " are "
	}
	text := "In this table " + strings.Join(names, " and ") + is + "what " + who + " " + verb
	if example := m.example(at, rows); example != "" {
		text += ": " + example
	}
	return text + "."
}

// sided returns the columns on a side, the frequency first.
func (m Mapping) sided(s Side) []int {
	var out []int
	for i, c := range m {
		if c.Side == s && (c.Role == Output || c.Role == Input) {
			out = append(out, i)
		}
	}
	for i, c := range m {
		if c.Side == s && (c.Role == UplinkTone || c.Role == DownlinkTone) {
			out = append(out, i)
		}
	}
	return out
}

// example is what the first row says that fills the columns at.
func (m Mapping) example(at []int, rows [][]string) string {
	best := ""
	for _, r := range rows {
		var parts []string
		for _, i := range at {
			if m[i].Role == Output || m[i].Role == Input {
				if f, err := frequency(cell(r, i), m[i].Unit); err == nil {
					parts = append(parts, f.String())
				}
				continue
			}
			if t, _, err := tones(cell(r, i)); err == nil && t.Known && t.Tone.Kind() != tone.None {
				parts = append(parts, t.Tone.Words())
			}
		}
		if text := strings.Join(parts, " with "); len(parts) == len(at) {
			return text
		} else if best == "" {
			best = text
		}
	}
	return best
}

// Viewpoint is the one from which a mapping reads; "" where no column needs one.
func (m Mapping) Viewpoint() Viewpoint {
	for _, c := range m {
		if !c.Side.depends() {
			continue
		}
		about := frequencies
		if c.Role == UplinkTone || c.Role == DownlinkTone {
			about = toneColumn
		}
		for _, v := range []Viewpoint{Operator, Repeater} {
			if (meaning{about: about, side: c.Side}).role(v) == c.Role {
				return v
			}
		}
	}
	return ""
}
