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

// keys writes what to press for a setting, in the words of the crib.
func (w *writer) keys(s radio.Setting, f filling) string {
	acts, ok := radio.Acts(w.p.Crib[s])
	if !ok {
		return w.words(s)
	}
	parts := make([]string, 0, len(acts))
	for i, a := range acts {
		parts = append(parts, w.act(s, a, f, i == 0))
	}
	return strings.Join(parts, ", ")
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

func (w *writer) act(s radio.Setting, a radio.Act, f filling, rest bool) string {
	switch a.Kind {
	case radio.Press:
		return "press " + strings.Join(a.Keys, " ")
	case radio.Hold:
		return strings.Join(a.Keys, " ")
	case radio.Digits:
		return "type " + fmt.Sprintf("%0*d", w.p.MHzFigures()+6, f.hertz)[:max(w.p.Keying.Figures, 1)]
	case radio.Number:
		return fmt.Sprintf("type %0*d", w.p.Keying.SlotFigures, f.slot)
	case radio.Spelled:
		return fmt.Sprintf("spell %s with %s and %s", f.value, a.Keys[0], a.Keys[1])
	}
	shows := a.Shows
	if shows == "" {
		shows = w.shows(s, f, rest)
	}
	if times, ok := w.times(s, a, f); ok && !rest {
		return fmt.Sprintf(times, shows)
	}
	if a.Turn {
		return fmt.Sprintf("turn %s until it shows %s", strings.TrimSuffix(a.Ways[0][0], "+"), shows)
	}
	way := strings.Join(a.Ways[0], " ")
	if len(a.Ways) > 1 {
		way += " or " + strings.Join(a.Ways[1], " ")
	}
	return fmt.Sprintf("press %s until it shows %s", way, shows)
}

// shows is what must be seen when the value is reached: a sign of the display
// while nothing is open, else the value itself.
func (w *writer) shows(s radio.Setting, f filling, rest bool) string {
	switch s {
	case radio.Receive:
		return f.value
	case radio.Transmit:
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

// times counts the presses where a list always opens at its first value.
func (w *writer) times(s radio.Setting, a radio.Act, f filling) (format string, ok bool) {
	values := w.p.Values(s)
	n := slices.Index(values, f.value)
	if a.Turn || n < 0 || !slices.Contains(w.p.Keying.First, s) {
		return "", false
	}
	key := a.Ways[0]
	if back := len(values) - n; back < n && len(a.Ways) > 1 && !slices.Contains(w.p.Keying.Ends, s) {
		key, n = a.Ways[1], back
	}
	switch {
	case n == 0:
		return "it must show %s", true
	case len(key) > 1:
		return "", false
	}
	return fmt.Sprintf("press %s %d times until it shows %%s", key[0], n), true
}

func (w *writer) slotKeys(s radio.Setting) string {
	return w.keys(s, filling{value: fmt.Sprint(w.want.Slot), slot: w.want.Slot})
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
	if len(f.MHz()) > len(w.figures(f)) {
		return fmt.Sprintf("the display leaves out the end of %s", f)
	}
	return ""
}

func kilo(f freq.Hz) string {
	return strings.TrimRight(strings.TrimRight(fmt.Sprintf("%d.%03d", f/freq.KHz, f%freq.KHz), "0"), ".")
}
