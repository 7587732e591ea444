package keypad

import (
	"fmt"
	"slices"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/radio"
	"mnemos/core/tone"
)

// filling is what goes into the words of a crib.
type filling struct {
	value string // what must show
	hertz int64  // what is typed, for a frequency or a size
	slot  int
}

// done is what is pressed for a setting.
type done struct {
	acts    []Act
	presses int
	repeats int
	guess   bool
	opens   string
	passes  []string
}

// acts writes what to press for a setting, in the words of the crib.
func (w *writer) acts(s radio.Setting, f filling) done {
	acts, ok := w.read(s)
	if !ok {
		return done{acts: []Act{{Text: w.words(s)}}, presses: 1}
	}
	var d done
	for i, a := range acts {
		x, n := w.act(s, a, f, i == 0, &d)
		if d.presses += n; x.String() != "" {
			d.acts = append(d.acts, x)
		}
	}
	return d
}

// read reads a crib, once.
func (w *writer) read(s radio.Setting) ([]radio.Act, bool) {
	if acts, ok := w.cribs[s]; ok {
		return acts, len(acts) > 0
	}
	acts, ok := radio.Acts(w.p.Crib[s])
	if w.cribs == nil {
		w.cribs = map[radio.Setting][]radio.Act{}
	}
	w.cribs[s] = acts
	return acts, ok
}

// fixed counts the presses of acts that are always the same, and notes them.
func (w *writer) fixed(acts []Act) int {
	n := 0
	for _, a := range acts {
		if a.Verb == "press" || a.Verb == "hold" {
			n += len(a.Keys)
		}
	}
	w.note(Event{Presses: n})
	return n
}

// words are those of the crib as they stand. What is missing, or names the
// key that transmits, is left to the manual.
func (w *writer) words(s radio.Setting) string {
	words := w.p.Crib[s]
	if _, ok := radio.Acts(words); ok {
		return words
	}
	label := s.Label()
	if words == "" || radio.Transmits(words) {
		w.open("where " + label + " is: the profile does not say")
		return "see the manual"
	}
	if s != radio.Burst {
		w.open(fmt.Sprintf("%s: %q cannot be followed key by key", label, words))
	}
	return words
}

// open notes once what the profile leaves open.
func (w *writer) open(what string) {
	if !slices.Contains(w.sheet.Check, what) {
		w.sheet.Check = append(w.sheet.Check, what)
	}
}

func (w *writer) act(s radio.Setting, a radio.Act, f filling, rest bool, d *done) (act Act, presses int) {
	switch a.Kind {
	case radio.Press:
		return Act{Verb: "press", Keys: a.Keys}, len(a.Keys)
	case radio.Hold:
		return Act{Verb: "hold", Keys: []string{strings.TrimPrefix(a.Keys[0], "hold ")}}, 1
	case radio.Digits:
		n := max(w.p.Keying.Figures, 1)
		return Act{Verb: "type", Text: fmt.Sprintf("%0*d", w.p.MHzFigures()+6, f.hertz)[:n]}, n
	case radio.Number:
		return Act{Verb: "type", Text: fmt.Sprintf("%0*d", w.p.Keying.SlotFigures, f.slot)}, w.p.Keying.SlotFigures
	case radio.Spelled:
		n, same := w.spelling(f.value)
		d.repeats += same
		return Act{Verb: "spell", Keys: a.Keys, Text: f.value}, n
	}
	shows := a.Shows
	if shows == "" {
		shows = w.shows(s, f, rest)
	}
	act = Act{Verb: "press", Keys: a.Ways[0], Shows: shows}
	if len(a.Ways) > 1 {
		act.Other = a.Ways[1]
	}
	if a.Turn {
		act.Verb, act.Keys = "turn", []string{strings.TrimSuffix(a.Ways[0][0], "+")}
	}
	c := w.count(s, a, f)
	d.guess = d.guess || c.guess
	if len(a.Ways[0]) == 1 {
		d.repeats += max(0, c.presses-1)
	}
	if d.opens, d.passes = c.opens, c.passes; !c.exact || a.Turn {
		return act, c.presses
	}
	switch {
	case c.steps == 0 && s == radio.Receive:
		return Act{}, 0 // what was typed is all of it
	case c.steps == 0 && !rest:
		return Act{Verb: "see", Shows: shows}, 0
	case c.steps == 0:
		return act, 0
	}
	if c.back {
		act.Keys, act.Other = a.Ways[1], nil
	}
	if len(act.Keys) == 1 {
		act.Times = c.steps
	}
	return act, c.presses
}

// shows is what must be seen when the value is reached: a sign of the display
// while nothing is open, else the value itself.
func (w *writer) shows(s radio.Setting, f filling, rest bool) string {
	switch s {
	case radio.Receive, radio.Transmit:
		return f.value
	case radio.Store, radio.StoreTransmit, radio.Delete, radio.Recall:
		return fmt.Sprint(f.slot)
	}
	if !rest {
		return f.value
	}
	if !w.distinct(s) {
		w.open("the display shows " + labelOf(s) + " in the same way for several values")
	}
	mark, _ := w.p.Mark(s, f.value)
	if mark == "" {
		return "no " + labelOf(s) + " mark"
	}
	return mark
}

// distinct reports whether the display tells the values of a setting apart.
func (w *writer) distinct(s radio.Setting) bool {
	seen := map[string]bool{}
	for _, v := range w.p.Values(s) {
		mark, ok := w.p.Mark(s, v)
		if !ok || seen[mark] {
			return false
		}
		seen[mark] = true
	}
	return true
}

func labelOf(s radio.Setting) string {
	switch s {
	case radio.ShiftDirection:
		return "shift"
	case radio.ToneMode:
		return "tone"
	case radio.Lock:
		return "lock"
	}
	return s.Label()
}

// rest is what the display shows with the channel set.
func (w *writer) rest() Shown {
	s := Shown{Figures: w.figures(w.c.Receive), Note: w.dropped(w.c.Receive), Tone: w.toneMark()}
	switch o := w.c.Offset(); {
	case o == 0:
	case w.p.Entry != radio.Menu && w.p.Entry != radio.Automatic:
		s.Shift = w.p.Display.Split
	case o > 0:
		s.Shift = w.p.Display.Plus
	default:
		s.Shift = w.p.Display.Minus
	}
	if v := w.set[radio.Lock]; v != "" {
		s.Lock, _ = w.p.Mark(radio.Lock, v)
	}
	return s
}

// toneMark is what the display shows for the tones.
func (w *writer) toneMark() string {
	marks := w.p.Display.Modes
	mark := marks[string(w.c.Mode())]
	out, in := w.c.TransmitTone, w.c.ReceiveTone
	switch {
	case out.Kind() == tone.Burst:
		if in.IsOff() {
			mark = ""
		} else {
			mark = marks[string(channel.Decode)]
		}
		if w.p.Keying.Burst != "key" {
			mark = strings.TrimSpace(marks["burst"] + " " + mark)
		}
	case out.Kind() == tone.DCS && in.IsOff():
		if mark = marks["dcs sent"]; mark == "" {
			mark = marks["dcs"]
		}
	case out.Kind() == tone.DCS, out.IsOff() && in.Kind() == tone.DCS:
		mark = marks["dcs"]
	}
	return mark
}

// figures formats a frequency as the display does.
func (w *writer) figures(f freq.Hz) string {
	s := fmt.Sprintf("%d.%06d", f/freq.MHz, f%freq.MHz)
	return strings.TrimSuffix(s[:len(s)-6+min(max(w.p.Display.Decimals, 0), 6)], ".")
}

// dropped says that the display hides the last figures of f.
func (w *writer) dropped(f freq.Hz) string {
	if shown, err := freq.Parse(w.figures(f)); err != nil || shown != f {
		return fmt.Sprintf("the display leaves out the end of %s", f)
	}
	return ""
}

func kilo(f freq.Hz) string {
	return strings.TrimRight(strings.TrimRight(fmt.Sprintf("%d.%03d", f/freq.KHz, f%freq.KHz), "0"), ".")
}
