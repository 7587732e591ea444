package keypad

import (
	"fmt"
	"slices"
	"strings"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/radio"
)

// State is what is known of a radio while channels are keyed into it: what the steps
// have set, and nothing has changed since. Of a radio that was put down, switched off
// or lent out nothing is known: that is the zero State.
type State struct{ set map[radio.Setting]string }

// What is known of a radio besides its settings.
const (
	mode     radio.Setting = "mode"    // vfo, memory
	pointer  radio.Setting = "pointer" // the slot from which a knob goes on
	inVFO                  = "vfo"
	inMemory               = "memory"
)

func splitOf(band int) radio.Setting { return radio.Setting(fmt.Sprintf("split %d", band)) }
func lastIn(band int) radio.Setting  { return radio.Setting(fmt.Sprintf("last %d", band)) }

// key is under which name a setting is known. A split belongs to a band; the tones
// and codes of a radio without tone modes share one place.
func (w *writer) key(s radio.Setting) radio.Setting {
	switch {
	case s == radio.Transmit && w.p.Entry == radio.Split:
		return splitOf(w.band())
	case len(w.p.Keying.Modes) > 0:
	case s == radio.CodeOut:
		return radio.ToneOut
	case s == radio.CodeIn:
		return radio.ToneIn
	}
	return s
}

// band is the receive range to which the radio is tuned.
func (w *writer) band() int {
	f, err := freq.Parse(w.set[radio.Receive])
	if err != nil {
		return 0
	}
	return bandOf(w.p, f)
}

func bandOf(p *radio.Profile, f freq.Hz) int {
	return max(0, slices.IndexFunc(p.Receive, func(s band.Span) bool { return s.Holds(f) }))
}

// tuned is what a frequency changes: a column of its own, or where the VFO stands.
func tuned(s radio.Setting, p *radio.Profile) radio.Setting {
	if s == radio.Transmit && p.Entry == radio.Columns {
		return s
	}
	return radio.Receive
}

// assign notes what the radio does by itself.
func (w *writer) assign(key radio.Setting, value string) {
	w.note(Event{Key: key, Value: value, Assign: true})
	if value == "" {
		delete(w.set, key)
		return
	}
	w.set[key] = value
}

// tune notes where the VFO stands, with what automatic shift makes of it.
func (w *writer) tune(f freq.Hz) {
	w.assign(radio.Receive, f.MHz())
	if w.p.Entry == radio.Split {
		w.assign(lastIn(w.band()), f.MHz())
	}
	if w.set[radio.AutoShift] != "on" {
		return
	}
	o := w.p.AutoShift(f)
	if w.p.Entry == radio.Split {
		_, value, _ := splitStep(o)
		if w.p.AutoFrom == "" {
			value = "" // nobody knows its table
		}
		w.assign(w.key(radio.Transmit), value)
		return
	}
	direction, size := "off", freq.Hz(o.Abs()).MHz()
	switch {
	case w.p.AutoFrom == "":
		direction, size = "", ""
	case o > 0:
		direction = "+"
	case o < 0:
		direction = "−"
	}
	w.assign(radio.ShiftDirection, direction)
	if o != 0 || size == "" {
		w.assign(radio.ShiftSize, size)
	}
}

// steps are the tuning steps, besides the widest, on which frequencies can be set as
// they are: with figures that are typed any that does not change what they mean; a
// knob takes the widest, so as not to be turned for ever.
func (w *writer) steps(fs ...freq.Hz) []string {
	if w.p.Keying.Figures == 0 {
		return nil
	}
	unit := freq.Hz(1)
	for range w.p.MHzFigures() + 6 - w.p.Keying.Figures {
		unit *= 10
	}
	var out []string
	for _, s := range w.p.Steps {
		if s >= unit && !slices.ContainsFunc(fs, func(f freq.Hz) bool { return f%s != 0 }) {
			out = append(out, kilo(s))
		}
	}
	return out
}

// lookUp is how a setting is looked up that was set before: the display shows it, or
// the keys that open it do.
func (w *writer) lookUp(s radio.Setting, value string) string {
	acts, ok := radio.Acts(w.p.Crib[s])
	if !ok {
		return ""
	}
	opening, rest := radio.Opens(acts)
	if len(opening) == 0 {
		if _, shown := w.p.Mark(s, value); shown {
			return "the display shows " + w.shows(s, filling{value: value}, true)
		}
		return ""
	}
	if len(rest) == 0 || rest[0].Kind != radio.Choose || slices.Contains(w.p.Keying.First, s) || s == radio.Transmit {
		return ""
	}
	d := done{acts: []Act{{Verb: "press", Keys: opening}, {Verb: "see", Shows: value}}}
	for _, a := range rest[1:] {
		x, _ := w.act(s, a, filling{value: value}, false, &d)
		d.acts = append(d.acts, x)
	}
	return Words(d.acts)
}

// Looks says what stays and how to look it up, in the words of a sheet.
func (s Stay) String() string {
	return strings.Join(slices.DeleteFunc([]string{s.Do, s.Value, s.Unit}, func(w string) bool { return w == "" }), " ")
}
