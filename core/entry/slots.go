package entry

import (
	"fmt"
	"strconv"
	"strings"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/service"
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

// lowest is the lowest frequency that a number is read as.
const lowest = 25 * freq.MHz

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

// frequency reads what stands behind a word for it.
func (r *reading) frequency(at int, found func(int, value)) {
	t := r.at(at)
	if !t.number() {
		return
	}
	if u, n := r.unit(at + 1); n > 0 {
		if f, ok := scaled(t.low, u); ok {
			found(2, value{hz: f})
		}
		return
	}
	if t.whole() {
		for _, f := range Candidates(t.low, r.plan)[:min(1, len(Candidates(t.low, r.plan)))] {
			found(1, value{hz: f, guess: f.MHz() + "?"})
		}
		return
	}
	r.decimal(t.low, func(v value) { found(1, v) })
}

// decimal reads figures with a point: megahertz, or kilohertz where they are
// too many for that, or a half channel whose last figures were left off.
func (r *reading) decimal(s string, found func(value)) {
	if f, ok := scaled(s, freq.MHz); ok {
		if full, ok := r.completed(s, f); ok {
			found(value{hz: full, guess: full.MHz() + "?"})
			return
		}
		found(value{hz: f})
		return
	}
	if f, ok := scaled(s, freq.KHz); ok && r.known(f) {
		found(value{hz: f, guess: f.MHz() + "?"})
	}
}

func scaled(s string, u freq.Unit) (freq.Hz, bool) {
	n, err := freq.Scale(s, u)
	f := freq.Hz(n)
	return f, err == nil && f >= lowest && f <= freq.Max
}

// known reports whether a band or a service has the frequency.
func (r *reading) known(f freq.Hz) bool {
	_, ok := r.plan.Band(f)
	return ok || len(service.At(r.plan.Region, f)) > 0
}

// completed returns the channel that a figure with three or four decimals
// stands for where displays leave the rest off: 145.662 is 145.6625 where the
// raster says so.
func (r *reading) completed(s string, f freq.Hz) (freq.Hz, bool) {
	_, decimals, _ := strings.Cut(s, ".")
	if len(decimals) != 3 && len(decimals) != 4 {
		return 0, false
	}
	step := freq.Hz(freq.KHz)
	if len(decimals) == 4 {
		step = 100
	}
	b, banded := r.plan.Band(f)
	if banded && b.OnRaster(f) || len(service.At(r.plan.Region, f)) > 0 {
		return 0, false
	}
	for g := f + 50; g < f+step; g += 50 {
		if banded && b.OnRaster(g) && g%2_500 == 0 || len(service.At(r.plan.Region, g)) > 0 {
			return g, true
		}
	}
	return 0, false
}

// bareFrequency reads a number that nothing stands before.
func (r *reading) bareFrequency(at int, found func(int, value)) {
	t := r.at(at)
	if !t.number() {
		return
	}
	if u, n := r.unit(at + 1); n > 0 {
		if f, ok := scaled(t.low, u); ok {
			found(2, value{hz: f})
		}
		return
	}
	if t.whole() {
		for _, f := range Candidates(t.low, r.plan) {
			v := value{hz: f, cost: likely, guess: f.MHz() + "?"}
			if len(t.low) < 4 {
				v.cost = doubted
			}
			found(1, v)
		}
		if g := r.grouped(at); g > 1 {
			text := ""
			for i := range g {
				text += r.at(at + i).low
			}
			for _, f := range Candidates(text, r.plan) {
				found(g, value{hz: f})
			}
		}
		return
	}
	r.decimal(t.low, func(v value) {
		if !r.known(v.hz) {
			v.cost = likely // 88.5 is rather a tone
		}
		found(1, v)
	})
}

// grouped counts the tokens of a frequency in groups of three figures, such as
// "146 940 000". A group that is a tone ends it: "146 100" is not 146.100 MHz
// for sure.
func (r *reading) grouped(at int) int {
	if !r.at(at).whole() || len(r.at(at).low) < 2 || len(r.at(at).low) > 4 {
		return 0
	}
	n := 1
	for n < 3 && r.at(at+n).whole() && len(r.at(at+n).low) == 3 && !r.at(at+n).cell {
		if t, err := tone.Parse(r.at(at + n).low); err == nil && t.Standard() {
			break
		}
		n++
	}
	return n
}

var signWords = map[string]int{
	"+": 1, "plus": 1, "positive": 1, "pos": 1, "up": 1, "+ve": 1,
	"-": -1, "dash": -1, "minus": -1, "negative": -1, "neg": -1, "down": -1, "-ve": -1,
}

func (r *reading) sign(at int, found func(int, value)) {
	if t := r.at(at); !t.quoted && signWords[t.low] != 0 {
		found(1, value{sign: signWords[t.low]})
	}
}

// loneSign reads a sign without a size. A number written onto it belongs to
// it, unless the number is a tone.
func (r *reading) loneSign(at int, found func(int, value)) {
	r.sign(at, func(n int, v value) {
		next := r.at(at + 1)
		if !r.at(at).sign() || !next.number() || !next.glued {
			found(n, v)
			return
		}
		behind := r.at(at).glued && r.at(at-1).number() // "147.24+100": the sign belongs to the frequency
		t, err := tone.Parse(next.low)
		if err != nil || t.Kind() != tone.CTCSS || !t.Standard() {
			return
		}
		if !behind {
			v.cost = likely
		}
		found(n, v)
	})
}

// quantity reads the size of a shift with or without a unit.
func (r *reading) quantity(at int) (o freq.Offset, n int, unit freq.Unit) {
	text := r.at(at).low
	if !r.at(at).number() {
		spoken, ok := spokenWord(text)
		if !ok || r.at(at).quoted {
			return 0, 0, 0
		}
		text = spoken
	}
	if u, k := r.unit(at + 1); k > 0 && u >= freq.KHz {
		v, err := freq.Scale(text, u)
		if err != nil || v > 1_000*freq.MHz {
			return 0, 0, 0
		}
		return freq.Offset(v), 2, u
	} else if k > 0 {
		return 0, 0, 0 // hertz are a tone
	}
	v, err := freq.ParseSize(text)
	if err != nil || v > 30*freq.MHz { // a frequency or a tone
		return 0, 0, 0
	}
	return v, 1, 0
}

// spacing reports whether a size is the distance between two channels, which
// says how wide they are and is never a shift.
func spacing(o freq.Offset) bool {
	return o == 12_500 || o == 20*freq.KHz || o == 25*freq.KHz
}

// channelOf reports whether a size with its unit is rather a frequency.
func (r *reading) channelOf(o freq.Offset, unit freq.Unit) bool {
	return (unit == freq.MHz && o >= freq.Offset(lowest) || unit == freq.KHz && o >= 100*freq.MHz) && r.known(freq.Hz(o))
}

// signed reads a sign and a size.
func (r *reading) signed(at int, found func(int, value)) {
	r.sign(at, func(_ int, v value) {
		o, n, unit := r.quantity(at + 1)
		if n == 0 {
			return
		}
		if r.channelOf(o, unit) && !r.at(at+1).glued {
			return // "+ 147.24 MHz" is a sign and a frequency
		}
		if spacing(o) && unit == freq.KHz && !(r.at(at).sign() && r.at(at+1).glued) {
			return // "+ 12.5 kHz" is a sign and a bandwidth
		}
		v.size = o
		if r.at(at).sign() && r.at(at).glued && r.at(at-1).number() && r.at(at+1).glued && strings.HasPrefix(r.at(at+1).low, "0") && !strings.Contains(r.at(at+1).low, ".") && r.at(at+1).low != "0" {
			return // "147-09" is no shift of 9 MHz
		}
		switch t, err := tone.Parse(r.at(at + 1).low); {
		case unit != 0 || o == 0:
		case err == nil && t.Standard() && t.Kind() == tone.CTCSS:
			// A tone behind a sign. Written onto it, it could be either.
			v.n = remote
			if r.at(at+1).glued && r.at(at+1).whole() && !(r.at(at).glued && r.at(at-1).number()) {
				v.n = likely
			}
		case !r.at(at + 1).glued:
			v.n = remote
			if _, figures := toneOf(r.at(at + 1).low); figures {
				v.n = unreadable // "+ 885" is rather 88.5 Hz without its point: ask
			}
		}
		found(n+1, v)
	})
}

// usual reports whether a rule of the plan has a shift of this size.
func (r *reading) usual(o freq.Offset) bool {
	for i := range r.plan.Bands {
		if r.usualIn(&r.plan.Bands[i], o) {
			return true
		}
	}
	return false
}

func (r *reading) usualIn(b *band.Band, o freq.Offset) bool {
	for _, rule := range b.Shifts {
		if rule.Offset.Abs() == o {
			return true
		}
		for _, a := range rule.Alternatives {
			if a.Abs() == o {
				return true
			}
		}
	}
	return false
}

// size reads the size of a shift behind a word for it.
func (r *reading) size(at int, found func(int, value)) {
	if o, n, unit := r.quantity(at); n > 0 {
		if unit == freq.KHz && spacing(o) || r.channelOf(o, unit) {
			return
		}
		v := value{size: o}
		if t, err := tone.Parse(r.at(at).low); unit == 0 && err == nil && t.Standard() {
			v.n = remote
		}
		found(n, v)
	}
}

// knownSize reads the size of a shift that nothing stands before: it has a
// unit, or some rule of the plan uses it.
func (r *reading) knownSize(at int, found func(int, value)) {
	if !r.at(at).number() || bandWords[r.at(at).low] != "" && r.at(at+1).low == "m" {
		return // "2 m" is a band
	}
	o, n, unit := r.quantity(at)
	if n == 0 || o == 0 || unit == 0 && !r.usual(o) || o >= freq.Offset(lowest) && unit != 0 || spacing(o) {
		return
	}
	v := value{size: o}
	if unit == 0 && r.afterName(at) {
		v.cost = remote // a number behind a name belongs to it
	}
	found(n, v)
}

// afterName reports whether a word of a name stands before the token.
func (r *reading) afterName(at int) bool {
	t, prev := r.at(at), r.at(at-1)
	return at > 0 && !t.cell && !prev.labelled && prev.word() && !literals()[prev.low] && !labels[prev.low] && !joining[prev.low] && !callsign(prev.low)
}

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

// notShift reads a sign and a size that no shift has.
func (r *reading) notShift(at int, found func(int, value)) {
	n := r.at(at + 1)
	u, k := r.unit(at + 2)
	if !r.at(at).sign() || !n.number() || !n.glued || k == 0 || u < freq.KHz {
		return
	}
	if v, err := freq.Scale(n.low, u); err != nil || v > 1_000*freq.MHz {
		found(3, value{problem: "that is more than any shift: did you mean kHz? Type a size such as 600 kHz or 5 MHz"})
	}
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

// hyphened and slashed read two numbers that are joined, and that are neither
// a frequency with its shift nor two tones.
func (r *reading) hyphened(at int, found func(int, value)) {
	a, sign, b := r.at(at), r.at(at+1), r.at(at+2)
	if a.number() && sign.low == "-" && sign.glued && b.number() && b.glued {
		found(3, value{text: a.low + "-" + b.low})
	}
}

func (r *reading) slashed(at int, found func(int, value)) {
	a, slash, b := r.at(at), r.at(at+1), r.at(at+2)
	if a.number() && slash.low == "/" && b.number() {
		found(3, value{text: a.low + "/" + b.low})
	}
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

// channelNumber reads a channel of a service, with the code that some write
// behind a point, a hyphen or a slash.
func (r *reading) channelNumber(at int, found func(int, value)) {
	t := r.at(at)
	if !t.number() {
		return
	}
	number, code, pointed := strings.Cut(t.low, ".")
	n := 1
	if join := r.at(at + 1); !pointed && (join.low == "-" || join.low == "/") && join.glued && r.at(at+2).whole() && r.at(at+2).glued {
		code, pointed, n = r.at(at+2).low, true, 3
	}
	v := value{text: number, n: -1}
	if pointed {
		var err error
		if v.n, err = strconv.Atoi(code); err != nil {
			return
		}
	}
	found(n, v)
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

// bandWords are what people call a band, by its name in the plans.
var bandWords = map[string]string{
	"10": "10 m", "6": "6 m", "six": "6 m", "ten": "10 m", "4": "4 m", "four": "4 m", "2": "2 m", "two": "2 m", "1.25": "1.25 m",
	"70": "70 cm", "seventy": "70 cm", "33": "33 cm", "23": "23 cm",
}

// bandFigures are the bands that people call by a frequency.
var bandFigures = map[string]string{"50": "6 m", "144": "2 m", "220": "1.25 m", "222": "1.25 m", "430": "70 cm", "432": "70 cm", "440": "70 cm", "900": "33 cm", "1200": "23 cm"}

func (r *reading) band(at int, found func(int, value)) {
	t := r.at(at)
	switch {
	case t.quoted:
	case t.low == "vhf" || t.low == "uhf":
		found(1, value{text: t.low})
	case bandFigures[t.low] != "":
		found(1, value{text: bandFigures[t.low], cost: possible})
	}
	name, ok := bandWords[t.low]
	if !ok {
		return
	}
	unit := r.at(at + 1).low
	metres := unit == "m" || unit == "meter" || unit == "meters" || unit == "metre" || unit == "metres"
	cm := unit == "cm" || strings.HasPrefix(unit, "centim")
	if strings.HasSuffix(name, " cm") && cm || strings.HasSuffix(name, " m") && metres {
		found(2, value{text: name})
	}
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

func (r *reading) isFrequency(s string) bool {
	f, ok := scaled(s, freq.MHz)
	return ok && r.known(f)
}

// service reads the word for a service.
func (r *reading) service(at int, found func(int, value)) {
	if t := r.at(at); !t.quoted && service.Word(t.low) {
		found(1, value{text: t.low})
	}
}

// designator reads the name that a region's band plan gives a channel.
func (r *reading) designator(at int, found func(int, value)) {
	t := r.at(at)
	if t.quoted || t.number() || t.low == "" {
		return
	}
	i := strings.IndexFunc(t.low, func(c rune) bool { return c >= '0' && c <= '9' })
	if i < 1 || strings.Trim(t.low[i:], "0123456789") != "" || len(t.low)-i > 3 {
		return
	}
	n, _ := strconv.Atoi(t.low[i:])
	for _, d := range r.plan.Designators {
		if !strings.EqualFold(d.Prefix, t.low[:i]) {
			continue
		}
		f, ok := d.Frequency(n)
		v := value{hz: f, text: t.text, guess: f.MHz()}
		if d.Output {
			v.n = 1
		}
		if !ok {
			v.guess, v.problem = "", fmt.Sprintf("%s goes from %s%d to %s%d in %s: type the frequency", d.Prefix, d.Prefix, d.First, d.Prefix, d.Last, r.plan.Title)
		}
		found(1, v)
		return
	}
}
