package intake

import (
	"slices"
	"strings"
	"unicode"
)

// Side is which side of the traffic a heading speaks of.
type Side string

// The sides. Sent and Heard depend on who speaks: what the operator sends is
// what the repeater hears. Out and In do not.
const (
	NoSide Side = ""
	Out    Side = "out"   // the repeater's output, downlink
	In     Side = "in"    // the repeater's input, uplink, access
	Sent   Side = "sent"  // TX, transmit, encode
	Heard  Side = "heard" // RX, receive, decode
)

// depends reports whether the side says nothing without a viewpoint.
func (s Side) depends() bool { return s == Sent || s == Heard }

// subject is what a column is about, as far as its heading and its cells say.
type subject string

const (
	frequencies subject = "frequency"
	toneColumn  subject = "tone"
)

// meaning is what a heading says of a frequency or a tone.
type meaning struct {
	about subject // "" where only the cells can tell
	side  Side
	whose Viewpoint // "my TX", "repeater TX"
	coder bool      // encode, decode: words of the operator's radio
	loose bool      // "tone in", "tone out": in and out of what?
}

// mean reads a heading made of nothing but words about frequencies, tones and
// sides; ok is false for any other.
func mean(heading string) (m meaning, ok bool) {
	lists := words().sides
	sided := ""
	for _, u := range []string{"mhz", "khz"} {
		if slices.Contains(strings.FieldsFunc(plain(heading), notLetter), u) {
			m.about = frequencies
		}
	}
	for _, tok := range tokens(heading) {
		parts := []string{tok}
		if !known(tok) {
			parts = compound(tok)
		}
		for _, p := range parts {
			switch {
			case lists["frequency"][p]:
				m.about = frequencies
			case lists["tone"][p]:
				m.about = toneColumn
			case lists["mine"][p]:
				m.whose = Operator
			case lists["repeater"][p]:
				m.whose = Repeater
			case lists["filler"][p]:
			default:
				side := sideOf(p)
				if side == NoSide || m.side != NoSide && m.side != side {
					return meaning{}, false // another word, or two sides at once
				}
				m.side, sided = side, p
				m.coder = m.coder || lists["coder"][p]
			}
		}
	}
	if m.coder {
		m.about = toneColumn
	}
	if m.loose = lists["loose"][sided] && m.about == toneColumn; m.loose {
		m.side = map[Side]Side{In: Heard, Out: Sent}[m.side]
	}
	return m, m.about != "" || m.side != NoSide
}

func sideOf(word string) Side {
	for _, s := range []Side{Sent, Heard, Out, In} {
		if words().sides[string(s)][word] {
			return s
		}
	}
	return NoSide
}

func known(word string) bool {
	if sideOf(word) != NoSide {
		return true
	}
	for _, list := range []string{"frequency", "tone", "mine", "repeater", "filler"} {
		if words().sides[list][word] {
			return true
		}
	}
	return false
}

// compound takes words apart that are written together: sendefrequenz, rxfreq.
func compound(word string) []string {
	for _, s := range []Side{Sent, Heard, Out, In} {
		for w := range words().sides[string(s)] {
			rest, ok := strings.CutPrefix(word, w)
			if !ok || len(w) < 2 || rest == "" {
				continue
			}
			for _, r := range []string{rest, strings.TrimPrefix(rest, "s")} {
				if words().sides["frequency"][r] || words().sides["tone"][r] {
					return []string{w, r}
				}
			}
		}
	}
	return []string{word}
}

func notLetter(r rune) bool { return !unicode.IsLetter(r) }

// tokens are the words of a heading, also those in brackets, without units.
func tokens(heading string) []string {
	fields := strings.FieldsFunc(plain(heading), func(r rune) bool { return strings.ContainsRune(" _-/.'’:()[]{},;|", r) })
	return slices.DeleteFunc(fields, func(w string) bool { return w == "mhz" || w == "khz" || w == "hz" })
}

// role is what a column holds from a viewpoint; Ignore where a viewpoint is
// needed and none is given.
func (m meaning) role(v Viewpoint) Role {
	side := m.side
	if side.depends() {
		switch {
		case v == "":
			return Ignore
		case (side == Sent) == (v == Repeater):
			side = Out
		default:
			side = In
		}
	}
	if m.about == toneColumn {
		if side == Out {
			return DownlinkTone
		}
		return UplinkTone // a tone without a side is the one that opens
	}
	if side == In {
		return Input
	}
	return Output
}
