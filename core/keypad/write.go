package keypad

import (
	"fmt"
	"slices"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/naming"
	"mnemos/core/radio"
	"mnemos/core/tone"
)

// writer writes one sheet, from the first step to the last.
type writer struct {
	p     *radio.Profile
	want  Wanted
	c     channel.Channel          // what the radio will hold
	set   map[radio.Setting]string // what the steps have set so far
	empty bool                     // the slot was emptied before the store
	sheet Sheet
}

func (w *writer) step(s Step) {
	s.Number = len(w.sheet.Steps) + 1
	w.sheet.Steps = append(w.sheet.Steps, s)
}

// choose writes the step of a setting that is chosen from a list or typed.
func (w *writer) choose(s radio.Setting, do, value, unit string) {
	w.set[s] = value
	w.step(Step{Do: do, Value: value, Unit: unit, Keys: w.keys(s, filling{value: value})})
}

func (w *writer) start() {
	var out []string
	if line := w.p.Keying.StoresFrom; line != "" {
		out = append(out, line+" line chosen")
	}
	out = append(out, "scan off")
	if w.p.Receivers != radio.One {
		out = append(out, "dual watch off")
	}
	w.sheet.Start = append(out, "reverse off", "key lock off")
}

func (w *writer) begin() {
	w.step(Step{Do: "VFO", Keys: w.keys(radio.VFO, filling{})})
	if !w.reach(w.typed()...) {
		w.reach(w.c.Receive) // the second frequency gets a step of its own
	}
	if w.p.Crib[radio.AutoShift] == "" && w.p.Entry != radio.Automatic {
		return
	}
	auto, note := "off", ""
	own := w.p.AutoShift(w.c.Receive)
	switch {
	case w.auto():
		if auto = "on"; own != 0 {
			note = "sets " + own.String() + " by itself"
		}
	case own != 0:
		note = "it would set " + own.String() + " here"
	}
	w.choose(radio.AutoShift, "automatic shift", auto, "")
	w.sheet.Steps[len(w.sheet.Steps)-1].Note = note
}

// auto reports whether the radio's own shift does all that is needed.
func (w *writer) auto() bool {
	return w.p.Entry == radio.Automatic && w.p.AutoShift(w.c.Receive) == w.c.Offset()
}

// typed are the frequencies that are tuned or typed.
func (w *writer) typed() []freq.Hz {
	if tx, ok := w.c.Transmit(); ok && (w.p.Entry == radio.Columns || w.p.Entry == radio.Twice) {
		return []freq.Hz{w.c.Receive, tx}
	}
	return []freq.Hz{w.c.Receive}
}

// reach sets a tuning step on which the frequencies lie.
func (w *writer) reach(fs ...freq.Hz) bool {
	step, ok := w.p.Step(fs...)
	if ok && w.set[radio.Step] != kilo(step) {
		w.choose(radio.Step, "tuning step", kilo(step), "kHz")
	}
	return ok
}

func (w *writer) frequencies() {
	w.frequency(radio.Receive, "receive", w.c.Receive)
	tx, transmits := w.c.Transmit()
	o := w.c.Offset()
	switch w.p.Entry {
	case radio.Columns:
		if !transmits {
			tx = w.c.Receive
		}
		w.reach(tx)
		w.frequency(radio.Transmit, "transmit", tx)
	case radio.Split:
		w.split(o, false)
	case radio.Twice: // the transmit side follows the first store
	default:
		if !w.auto() {
			w.shift(o)
		}
	}
}

func (w *writer) frequency(s radio.Setting, do string, f freq.Hz) {
	w.step(Step{Do: do, Value: f.MHz(), Unit: "MHz", Keys: w.keys(s, filling{value: w.figures(f), hertz: int64(f)}), Note: w.dropped(f)})
}

func (w *writer) shift(o freq.Offset) {
	direction := "off"
	switch {
	case o > 0:
		direction = "+"
	case o < 0:
		direction = "−"
	}
	w.choose(radio.ShiftDirection, "shift direction", direction, "")
	if o != 0 {
		w.step(Step{Do: "shift size", Value: freq.Hz(o.Abs()).MHz(), Unit: "MHz", Keys: w.keys(radio.ShiftSize, filling{value: freq.Hz(o.Abs()).MHz(), hertz: int64(o.Abs())})})
	}
}

// split keys a signed size into the menu of a band. It stays there when the
// radio is tuned on, so it is set for simplex too, and taken away at the end.
func (w *writer) split(o freq.Offset, again bool) {
	s := Step{Do: "split", Value: "off", Again: again}
	sign := "+"
	if o < 0 {
		sign = "−"
	}
	if w.set[radio.Transmit] = "off"; o != 0 {
		s.Value, s.Unit = sign+freq.Hz(o.Abs()).MHz(), "MHz"
		w.set[radio.Transmit] = s.Value
	}
	s.Keys = w.keys(radio.Transmit, filling{value: sign, hertz: int64(o.Abs())})
	w.step(s)
}

// lock keeps the slot from transmitting, or makes sure that no lock is left
// from the channel before.
func (w *writer) lock() {
	if _, ok := w.c.Transmit(); !ok {
		w.sheet.Locked = w.want.Forbidden
		if w.sheet.Locked == "" {
			w.sheet.Locked = "the channel is receive only"
			if w.want.Channel.Side.Kind != channel.Blocked {
				w.sheet.Locked = w.p.Name + " cannot transmit as the channel needs"
			}
		}
		if w.p.Lock {
			w.choose(radio.Lock, "transmit lock", "on", "")
		}
		return
	}
	if w.p.Lock {
		w.choose(radio.Lock, "transmit lock", "off", "")
	}
}

func (w *writer) tones() {
	if w.p.Crib[radio.ToneMode] == "" && len(w.p.Keying.Modes) == 0 {
		w.register(radio.ToneOut, radio.CodeOut, "sent", w.c.TransmitTone)
		w.register(radio.ToneIn, radio.CodeIn, "heard", w.c.ReceiveTone)
		return
	}
	mode, ok := w.p.Mode(w.c)
	if !ok {
		mode = said(w.c) // a profile that does not list its modes
	}
	w.choose(radio.ToneMode, "tone mode", string(mode), "")
	two := w.p.Keying.Registers == 2
	switch mode {
	case radio.ModeTone, radio.ModeDCSSent:
		w.register(radio.ToneOut, radio.CodeOut, "sent", w.c.TransmitTone)
	case radio.ModeReceive:
		if two {
			w.register(radio.ToneIn, radio.CodeIn, "heard", w.c.ReceiveTone)
		} else {
			w.register(radio.ToneOut, radio.CodeOut, "heard", w.c.ReceiveTone)
		}
	case radio.ModeSquelch, radio.ModeDCS, radio.ModeSeparate:
		both := mode == radio.ModeSquelch && (!two || w.p.Keying.Has(radio.ModeSeparate)) || mode == radio.ModeDCS && w.p.Crib[radio.CodeIn] == ""
		if both {
			w.register(radio.ToneOut, radio.CodeOut, "sent and heard", w.c.TransmitTone)
			break
		}
		w.register(radio.ToneOut, radio.CodeOut, "sent", w.c.TransmitTone)
		w.register(radio.ToneIn, radio.CodeIn, "heard", w.c.ReceiveTone)
	}
	w.burst()
}

// said is the tone mode of a channel in plain words.
func said(c channel.Channel) radio.Mode {
	switch {
	case c.TransmitTone.Kind() == tone.Burst, c.Mode() == channel.NoTone:
		return radio.ModeOff
	case c.TransmitTone.Kind() == tone.DCS && c.ReceiveTone.IsOff():
		return radio.ModeDCSSent
	case c.TransmitTone.Kind() == tone.DCS && c.TransmitTone == c.ReceiveTone:
		return radio.ModeDCS
	}
	return radio.Mode(c.Mode())
}

// register sets one tone or code.
func (w *writer) register(tones, codes radio.Setting, direction string, t tone.Tone) {
	switch t.Kind() {
	case tone.DCS:
		if w.p.Crib[codes] == "" {
			codes = tones
		}
		w.choose(codes, "code "+direction, t.String(), "")
	case tone.CTCSS:
		w.choose(tones, "tone "+direction, t.String(), "Hz")
	default:
		w.choose(tones, "tone "+direction, "off", "")
	}
}

// burst turns the 1750 Hz burst on or off where it is a setting of its own.
func (w *writer) burst() {
	wanted := w.c.TransmitTone.Kind() == tone.Burst
	switch by := w.p.Keying.Burst; {
	case by == "setting" && wanted:
		w.choose(radio.Burst, "tone burst", "on", "")
	case by == "setting":
		w.choose(radio.Burst, "tone burst", "off", "")
	case wanted && by != "mode":
		w.sheet.Notes = append(w.sheet.Notes, "No slot holds the 1750 Hz burst. When you mean to be heard: "+w.words(radio.Burst)+".")
	}
}

func (w *writer) settings() {
	if len(w.p.Widths) > 1 {
		w.choose(radio.Width, "bandwidth", string(w.c.Width), "")
	}
	if _, ok := w.c.Transmit(); ok {
		w.choose(radio.Power, "power", string(w.c.Power), "")
	}
}

// look compares the display before anything is stored, and reads the transmit
// frequency out without sending.
func (w *writer) look() {
	w.sheet.Rest = w.rest()
	keys := "it must show " + w.first().String()
	if tx, ok := w.c.Transmit(); ok {
		keyed := w.sheet.Rest
		keyed.Figures, keyed.Note = w.figures(tx), w.dropped(tx)
		w.sheet.Keyed = &keyed
		w.sheet.ReadOut = w.p.Crib[radio.ReadOut]
		if w.p.Entry != radio.Twice {
			keys += w.readOut(tx)
		}
	}
	w.step(Step{Do: "check", Keys: keys})
}

// first is what the display shows before the first store: a radio that stores
// twice shows no shift yet.
func (w *writer) first() Shown {
	s := w.rest()
	if w.p.Entry == radio.Twice {
		s.Shift = ""
	}
	return s
}

func (w *writer) readOut(tx freq.Hz) string {
	if w.p.Crib[radio.ReadOut] == "" {
		return ""
	}
	return fmt.Sprintf(", %s, it must show %s, and nothing is sent", w.words(radio.ReadOut), w.figures(tx))
}

func (w *writer) store() {
	keying := w.p.Keying
	if keying.Occupied == "refuses" || len(keying.Keeps) > 0 {
		if w.p.Crib[radio.Delete] != "" {
			w.empty = true
			w.step(Step{Do: "empty slot", Value: fmt.Sprint(w.want.Slot), Keys: w.slotKeys(radio.Delete), Note: "harmless where it is empty"})
		} else if keying.Occupied == "refuses" {
			w.sheet.Check = append(w.sheet.Check, "how a slot is emptied: this radio refuses to store into an occupied one")
		}
	}
	w.step(Step{Do: "store in slot", Value: fmt.Sprint(w.want.Slot), Keys: w.slotKeys(radio.Store) + w.within()})
	tx, ok := w.c.Transmit()
	if !ok || w.p.Entry != radio.Twice || tx == w.c.Receive && !w.leaves(radio.Transmit) {
		return
	}
	w.reach(tx)
	w.frequency(radio.Transmit, "transmit", tx)
	w.step(Step{Do: "store the transmit side in slot", Value: fmt.Sprint(w.want.Slot), Keys: w.slotKeys(radio.StoreTransmit) + w.within()})
}

// leaves reports whether the store leaves something of the old slot.
func (w *writer) leaves(s radio.Setting) bool {
	return !w.empty && slices.Contains(w.p.Keying.Keeps, s)
}

func (w *writer) within() string {
	if w.p.Keying.SlotSeconds == 0 {
		return ""
	}
	return fmt.Sprintf(", each within %d seconds", w.p.Keying.SlotSeconds)
}

// slot recalls what was stored, looks at it, and sets what only a slot has.
func (w *writer) slot() {
	keys := w.slotKeys(radio.Recall) + ", it must show " + w.sheet.Rest.String()
	if tx, ok := w.c.Transmit(); ok && w.p.Entry == radio.Twice {
		keys += w.readOut(tx)
	}
	w.step(Step{Do: "recall slot", Value: fmt.Sprint(w.want.Slot), Keys: keys})
	w.name()
	w.flag(radio.Skip, "skip", w.want.Skip)
	w.flag(radio.Priority, "priority", w.want.Priority)
}

func (w *writer) name() {
	short := w.want.Short
	if short != "" && !naming.Fits(short, w.p.Names) {
		short = naming.Short(short, w.p.Names, func(string) bool { return false })
	}
	switch {
	case short == "" && w.leaves(radio.Name):
		w.sheet.Check = append(w.sheet.Check, "how the name that the slot had before is taken away")
	case short == "":
	case !w.p.Names.Keypad:
		w.sheet.Notes = append(w.sheet.Notes, fmt.Sprintf("%s takes names by cable only: the slot shows no %s.", w.p.Name, short))
	default:
		w.step(Step{Do: "name", Value: short, Keys: w.keys(radio.Name, filling{value: short})})
	}
}

func (w *writer) flag(s radio.Setting, do string, wanted bool) {
	switch {
	case w.p.Crib[s] == "" && wanted:
		w.sheet.Notes = append(w.sheet.Notes, fmt.Sprintf("%s has no %s that can be keyed in.", w.p.Name, do))
	case wanted:
		w.choose(s, do, "on", "")
	case w.leaves(s):
		w.choose(s, do, "off", "")
	}
}
