// Package keypad writes down how a channel is keyed into a radio by hand, and
// what the display must show afterwards, so that nobody has to transmit to
// find out what was entered.
package keypad

import (
	"fmt"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/naming"
	"mnemos/core/radio"
	"mnemos/core/tone"
)

// Step is one thing to do at the radio.
type Step struct {
	Number int    `json:"number"`
	Do     string `json:"do"`    // what it is for
	Where  string `json:"where"` // the key or menu, in the radio's own words
	Value  string `json:"value"` // what must be set; "off" is written out
	Unit   string `json:"unit,omitempty"`
	Note   string `json:"note,omitempty"`
}

// Shown is what a display must show.
type Shown struct {
	Shift   string `json:"shift"` // the sign of the shift, or ""
	Tone    string `json:"tone"`  // the mark of the tone mode, or ""
	Figures string `json:"figures"`
	Note    string `json:"note,omitempty"`
}

// String joins the marks and the figures: "−  T  147.840".
func (s Shown) String() string {
	var parts []string
	for _, p := range []string{s.Shift, s.Tone, s.Figures} {
		if p != "" {
			parts = append(parts, p)
		}
	}
	return strings.Join(parts, "  ")
}

// Sheet is the whole instruction for one channel and one radio.
type Sheet struct {
	Before []string     `json:"before"` // what must be off before the first key
	Steps  []Step       `json:"steps"`
	Rest   Shown        `json:"rest"`
	Keyed  *Shown       `json:"keyed"` // nil for a channel that does not transmit
	After  []string     `json:"after"` // what to put back
	Losses []radio.Loss `json:"losses"`
}

// Write returns the sheet for a channel in a slot of a radio. The channel is
// fitted first: the sheet is about what the radio will really hold, and the
// losses say what that leaves out.
func Write(c channel.Channel, p *radio.Profile, slot int, short string) Sheet {
	held, losses := radio.Fit(c, p)
	if losses == nil {
		losses = []radio.Loss{}
	}
	w := &writer{p: p, c: held}
	w.begin()
	w.frequencies()
	w.tones()
	w.settings()
	w.store(slot, short)
	return Sheet{
		Before: []string{"scan off", "dual watch off", "reverse off", "key lock off"},
		Steps:  w.steps, Rest: w.rest(), Keyed: w.keyed(), After: w.after(), Losses: losses,
	}
}

type writer struct {
	p     *radio.Profile
	c     channel.Channel
	steps []Step
}

func (w *writer) step(s Step) {
	s.Number = len(w.steps) + 1
	w.steps = append(w.steps, s)
}

func (w *writer) begin() {
	w.step(Step{Do: "go to", Where: w.p.Crib.VFO, Value: "VFO"})
	if step, ok := w.p.Step(w.c.Receive); ok {
		w.step(Step{Do: "tuning step", Where: w.p.Crib.Step, Value: kilo(step), Unit: "kHz"})
	}
}

func (w *writer) frequencies() {
	o := w.c.Offset()
	receive := Step{Do: "receive", Where: w.p.Crib.Receive, Value: w.c.Receive.MHz(), Unit: "MHz"}
	switch w.p.Entry {
	case radio.Columns:
		w.step(receive)
		s := Step{Do: "transmit", Where: w.p.Crib.Transmit, Value: "none"}
		if tx, ok := w.c.Transmit(); ok {
			s.Value, s.Unit = tx.MHz(), "MHz"
			if o == 0 {
				s.Note = "simplex: the same frequency again"
			}
		} else {
			s.Where = w.p.Crib.Block
		}
		w.step(s)
		return
	case radio.Split:
		w.split(receive, o)
		return
	case radio.Twice:
		w.step(receive) // the transmit side follows the first store
		return
	case radio.Automatic:
		auto := w.p.AutoShift(w.c.Receive)
		set := "off"
		note := ""
		if auto == o && o != 0 {
			set, note = "on", "sets "+o.String()+" by itself"
		} else if auto != 0 {
			note = fmt.Sprintf("it would set %s here", auto)
		}
		w.step(Step{Do: "automatic shift", Where: w.p.Crib.Auto, Value: set, Note: note})
		w.step(receive)
		if set == "on" {
			return
		}
	default:
		w.step(Step{Do: "automatic shift", Where: w.p.Crib.Auto, Value: "off"})
		w.step(receive)
	}
	w.shift(o)
}

func (w *writer) shift(o freq.Offset) {
	if _, ok := w.c.Transmit(); !ok {
		w.step(Step{Do: "transmitter", Where: w.p.Crib.Block, Value: "off"})
		return
	}
	if o == 0 {
		w.step(Step{Do: "shift direction", Where: w.p.Crib.ShiftDirection, Value: "off", Note: "simplex"})
		return
	}
	w.step(Step{Do: "shift direction", Where: w.p.Crib.ShiftDirection, Value: w.sign(o)})
	w.step(Step{Do: "shift size", Where: w.p.Crib.ShiftSize, Value: freq.Hz(o.Abs()).MHz(), Unit: "MHz"})
}

// split keys a signed size into the menu of a band. It stays there when the
// radio is tuned on, so it is set after the receive frequency and for simplex
// taken away.
func (w *writer) split(receive Step, o freq.Offset) {
	w.step(Step{Do: "automatic shift", Where: w.p.Crib.Auto, Value: "off"})
	w.step(receive)
	if _, ok := w.c.Transmit(); !ok {
		w.step(Step{Do: "transmitter", Where: w.p.Crib.Block, Value: "off"})
		return
	}
	s := Step{Do: "split", Where: w.p.Crib.Transmit, Value: "off", Note: "simplex; one left from the channel before would stay"}
	if o != 0 {
		s.Value, s.Unit, s.Note = strings.Replace(o.MHz(), "-", "−", 1), "MHz", "with its sign; it does not follow when you retune"
	}
	w.step(s)
}

func (w *writer) sign(o freq.Offset) string {
	switch {
	case o < 0:
		return w.p.Display.Minus
	case o > 0:
		return w.p.Display.Plus
	}
	return ""
}

func (w *writer) tones() {
	if _, ok := w.c.Transmit(); !ok && w.c.ReceiveTone.IsOff() {
		w.step(Step{Do: "tone", Where: w.p.Crib.ToneMode, Value: "off"})
		return
	}
	mode := w.c.Mode()
	name := string(mode)
	if mode == channel.NoTone {
		name = "off"
	}
	if w.c.TransmitTone.Kind() == tone.Burst {
		w.step(Step{Do: "tone mode", Where: w.p.Crib.ToneMode, Value: "off"})
		w.step(Step{Do: "tone burst", Where: w.p.Crib.Burst, Value: "1750", Unit: "Hz"})
		w.heard()
		return
	}
	if w.p.Entry != radio.Columns {
		s := Step{Do: "tone mode", Where: w.p.Crib.ToneMode, Value: name}
		if mark := w.mark(); mark != "" {
			s.Note = "shows " + mark
		}
		w.step(s)
		if mode == channel.NoTone {
			return
		}
	}
	w.tone("tone sent", w.p.Crib.ToneOut, w.c.TransmitTone)
	if !w.p.Separate && mode == channel.ToneSquelch {
		return // one tone for both directions
	}
	w.heard()
}

func (w *writer) heard() { w.tone("tone heard", w.p.Crib.ToneIn, w.c.ReceiveTone) }

func (w *writer) tone(do, where string, t tone.Tone) {
	s := Step{Do: do, Where: where, Value: "off"}
	if !t.IsOff() {
		s.Value = t.String()
		if t.Kind() == tone.CTCSS {
			s.Unit = "Hz"
		}
	}
	w.step(s)
}

func (w *writer) settings() {
	w.step(Step{Do: "bandwidth", Where: w.p.Crib.Width, Value: string(w.c.Width)})
	if _, ok := w.c.Transmit(); !ok {
		return
	}
	w.step(Step{Do: "power", Where: w.p.Crib.Power, Value: string(w.c.Power), Note: fmt.Sprintf("%g W", w.p.Watts.Of(w.c.Power))})
}

func (w *writer) store(slot int, short string) {
	w.step(Step{Do: "store in slot", Where: w.p.Crib.Store, Value: fmt.Sprint(slot), Note: "look at the display first, as shown below"})
	if w.p.Entry == radio.Twice {
		w.second(slot)
	}
	if short == "" {
		return
	}
	s := Step{Do: "name", Where: w.p.Crib.Name, Value: short}
	if !naming.Fits(short, w.p.Names) {
		s.Value = naming.Short(short, w.p.Names, func(string) bool { return false })
	}
	if !w.p.Names.Keypad {
		s.Value, s.Note = "none", "this radio takes names from a cable only"
	}
	w.step(s)
}

// second stores the transmit side over the first store of the same slot. What
// is not set again here goes with the first.
func (w *writer) second(slot int) {
	tx, ok := w.c.Transmit()
	if !ok || tx == w.c.Receive {
		return
	}
	w.step(Step{Do: "transmit", Where: w.p.Crib.Transmit, Value: tx.MHz(), Unit: "MHz", Note: "the same tone has to be on"})
	w.step(Step{Do: "store again in slot", Where: w.p.Crib.Store, Value: fmt.Sprint(slot), Note: "with the key held: the second store is the transmit side"})
}

// mark is what the display shows for the tone mode.
func (w *writer) mark() string {
	m := w.p.Display.Modes
	t := w.c.TransmitTone
	if t.IsOff() {
		t = w.c.ReceiveTone
	}
	switch t.Kind() {
	case tone.DCS:
		return m["dcs"]
	case tone.Burst:
		return m["burst"]
	}
	return m[string(w.c.Mode())]
}

func (w *writer) rest() Shown {
	s := Shown{Shift: w.sign(w.c.Offset()), Tone: w.mark(), Figures: w.figures(w.c.Receive)}
	if w.p.Entry != radio.Menu && w.p.Entry != radio.Automatic && w.c.Offset() != 0 {
		s.Shift = w.p.Display.Split
	}
	s.Note = w.dropped(w.c.Receive)
	return s
}

func (w *writer) keyed() *Shown {
	tx, ok := w.c.Transmit()
	if !ok {
		return nil
	}
	s := w.rest()
	s.Figures, s.Note = w.figures(tx), w.dropped(tx)
	return &s
}

func (w *writer) after() []string {
	out := []string{"dual watch and scan as you had them"}
	if w.p.Entry == radio.Automatic && w.p.AutoShift(w.c.Receive) != w.c.Offset() {
		out = append(out, "automatic shift on again, for the next repeater")
	}
	if w.p.Entry == radio.Split && w.c.Offset() != 0 {
		out = append(out, "split off, or the next channel of this band has it too")
	}
	return out
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
	s := strings.TrimRight(strings.TrimRight(fmt.Sprintf("%d.%03d", f/freq.KHz, f%freq.KHz), "0"), ".")
	return s
}
