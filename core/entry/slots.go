package entry

import (
	"fmt"
	"strconv"
	"strings"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/tone"
)

// reading is a line in the course of being read.
type reading struct {
	tokens []token
	plan   *band.Plan
	levels Levels
}

// at returns a token, or an empty one past the end.
func (r *reading) at(i int) token {
	if i < 0 || i >= len(r.tokens) {
		return token{}
	}
	return r.tokens[i]
}

// slots read what a form names in angle brackets: each calls found with how
// many tokens it took and what they are, once for every reading.
var slots map[string]func(r *reading, at int, found func(n int, v value))

func init() {
	slots = map[string]func(*reading, int, func(int, value)){
		"frequency": (*reading).frequency, "freq": (*reading).bareFrequency,
		"sign": (*reading).sign, "lone-sign": (*reading).loneSign, "signed": (*reading).signed, "size": (*reading).size, "known-size": (*reading).knownSize,
		"tone": (*reading).tone, "bare-tone": (*reading).bareTone, "pair-tone": (*reading).pairTone, "no-tone": (*reading).noTone,
		"dcs": (*reading).dcs, "code": (*reading).code, "short-code": (*reading).shortCode, "not-tone": (*reading).notTone, "not-shift": (*reading).notShift, "marked-short-code": (*reading).markedShortCode,
		"hyphened": (*reading).hyphened, "slashed": (*reading).slashed,
		"int": (*reading).integer, "channel": (*reading).channelNumber, "watts": (*reading).watts, "band": (*reading).band, "width": (*reading).width, "slot": (*reading).slotFirst,
		"service": (*reading).service, "designator": (*reading).designator,
		"name": (*reading).namePiece, "text": (*reading).quotedText, "call": (*reading).callsign, "joins": (*reading).joins, "label": (*reading).label, "alike": (*reading).alike, "foreign": (*reading).foreign,
	}
}

// unit reads a unit behind a number; n is 0 if there is none.
func (r *reading) unit(at int) (u freq.Unit, n int) {
	t := r.at(at)
	if t.quoted || t.low == "" || t.cell && !t.glued && t.low == "m" {
		return 0, 0
	}
	switch t.low {
	case "meg", "megs":
		return freq.MHz, 1
	case "cycles":
		return 1, 1
	}
	if u, ok := freq.ParseUnit(t.low); ok {
		return u, 1
	}
	return 0, 0
}

// spokenWord is a number that is a single word: "five", "fourteen".
func spokenWord(w string) (string, bool) {
	if d, ok := digitWords[w]; ok {
		return strconv.Itoa(d), true
	}
	if d := teenWords[w] + tensWords[w]; d != 0 {
		return strconv.Itoa(d), true
	}
	return "", false
}

// afterName reports whether a word of a name stands before the token.
func (r *reading) afterName(at int) bool {
	t, prev := r.at(at), r.at(at-1)
	return at > 0 && !t.cell && !prev.labelled && prev.word() && !literals()[prev.low] && !labels[prev.low] && !joining[prev.low] && !callsign(prev.low)
}

func (r *reading) integer(at int, found func(int, value)) {
	t := r.at(at)
	text := t.low
	if w, ok := spokenWord(text); ok && !t.quoted {
		text = w
	} else if !t.whole() {
		return
	}
	if n, err := strconv.Atoi(text); err == nil && n <= 1_000_000 {
		found(1, value{n: n, text: text})
	}
}

// watts reads a power in watts and gives the nearest step of the radio.
func (r *reading) watts(at int, found func(int, value)) {
	t := r.at(at)
	text := t.low
	if w, ok := spokenWord(text); ok {
		text = w
	} else if !t.number() {
		return
	}
	w, err := strconv.ParseFloat(text, 64)
	if err != nil {
		return
	}
	switch r.at(at + 1).low {
	case "w", "watt", "watts":
	case "mw":
		w /= 1000
	default:
		return
	}
	if w > 200 {
		return // "146.94 W"
	}
	level, of := r.levels.nearest(w)
	v := value{text: string(level)}
	v.guess = string(level)
	if of != w {
		v.guess = fmt.Sprintf("%s: %g W is nearest", level, of)
	}
	found(2, v)
}

// width reads a channel spacing in kilohertz.
func (r *reading) width(at int, found func(int, value)) {
	t := r.at(at)
	widths := map[string]string{"12.5": "narrow", "20": "wide", "25": "wide"}
	if widths[t.low] == "" {
		return
	}
	if u, n := r.unit(at + 1); n > 0 && u == freq.KHz {
		found(2, value{text: widths[t.low]})
	}
}

// slotFirst reads a slot number at the start of a line: "12:", "7.", "12" in
// front of a frequency.
func (r *reading) slotFirst(at int, found func(int, value)) {
	t := r.at(at)
	if at != 0 || !t.whole() || len(t.low) > 4 || bandFigures[t.low] != "" {
		return
	}
	n, _ := strconv.Atoi(t.low)
	v := value{n: n, text: t.low}
	switch next := r.at(1); {
	case t.labelled:
	case t.listed && len(Candidates(t.low, r.plan)) > 0:
		return // "443." is a frequency short of its decimals
	case t.listed:
	case next.number() && !r.isFrequency(next.low):
		return
	case next.number() && strings.Contains(next.low, ".") && len(r.tokens) > 1 && !next.glued:
		v.guess, v.cost = fmt.Sprintf("slot %d?", n), likely
		if parsed, err := tone.Parse(t.low); err == nil && parsed.Standard() {
			v.problem = fmt.Sprintf("a slot, or the tone %s? Type #%d, or %s Hz", parsed.Words(), n, t.low)
		}
	case next.cell:
		v.guess, v.cost = fmt.Sprintf("slot %d?", n), likely
	default:
		return
	}
	found(1, v)
}
