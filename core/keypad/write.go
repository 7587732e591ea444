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
	p      *radio.Profile
	want   Wanted
	c      channel.Channel          // what the radio will hold
	set    map[radio.Setting]string // what is known of the radio: what the steps have set so far
	fresh  bool                     // nothing was known at first
	counts bool                     // what stands is left out, and what is pressed is counted
	empty  bool                     // the slot was emptied before the store
	sheet  Sheet
	log    []Event
	cribs  map[radio.Setting][]radio.Act // that were read
}

// step writes a step that is done in one control.
func (w *writer) step(s Step, of radio.Setting, f filling) {
	done := w.acts(of, f)
	s.Repeats = done.repeats
	s.Setting, s.Acts, s.Presses, s.Guess, s.Opens, s.Passes = of, append(done.acts, s.Acts...), s.Presses+done.presses, done.guess, done.opens, done.passes
	w.write1(s)
}

func (w *writer) write1(s Step) {
	s.Number, s.Keys = len(w.sheet.Steps)+1, Words(s.Acts)
	w.sheet.Steps = append(w.sheet.Steps, s)
}

// choose writes the step of a setting that is chosen from a list or typed.
func (w *writer) choose(s radio.Setting, do, value, unit string) {
	w.settle(s, Step{Do: do, Value: value, Unit: unit}, value, filling{value: value})
}

// settle writes the step of a setting that stays until something else sets it, or
// leaves it out where it is known to stand so.
func (w *writer) settle(s radio.Setting, step Step, value string, f filling) {
	key := w.key(s)
	w.note(Event{Key: key, Value: value, setting: s, filling: f})
	if w.counts && w.set[key] == value {
		w.stays(step, s, value)
		return
	}
	w.step(step, s, f)
	w.set[key] = value
}

// stays notes a setting that is left as the channels before have set it.
func (w *writer) stays(step Step, s radio.Setting, value string) {
	if !slices.ContainsFunc(w.sheet.Steps, func(x Step) bool { return x.Setting == s }) && !slices.ContainsFunc(w.sheet.Stays, func(x Stay) bool { return x.Do == step.Do }) {
		w.sheet.Stays = append(w.sheet.Stays, Stay{step.Do, step.Value, step.Unit, w.lookUp(s, value)})
	}
}

// vfo leaves the slots.
func (w *writer) vfo(again bool) {
	w.note(Event{Key: mode, Value: inVFO, Always: true, setting: radio.VFO})
	w.step(Step{Do: "VFO", Again: again}, radio.VFO, filling{value: inVFO})
	w.set[mode] = inVFO
}

func (w *writer) start() {
	if w.fresh {
		w.sheet.Start = w.stated()
	}
}

// stated is the state that has no step of its own.
func (w *writer) stated() []string {
	var out []string
	if line := w.p.Keying.StoresFrom; line != "" {
		out = append(out, line+" line chosen")
	}
	out = append(out, "scan off")
	if w.p.Receivers != radio.One {
		out = append(out, "dual watch off")
	}
	return append(out, "reverse off", "key lock off")
}

func (w *writer) begin() {
	w.vfo(false)
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
	w.settle(radio.AutoShift, Step{Do: "automatic shift", Value: auto, Note: note}, auto, filling{value: auto})
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
	if !ok {
		return false
	}
	now, widest := w.set[radio.Step], kilo(step)
	if !w.counts && now == widest {
		return true
	}
	accepted := w.steps(fs...)
	if w.counts && slices.Contains(accepted, now) {
		w.note(Event{Key: radio.Step, Value: widest, Accept: accepted, setting: radio.Step, filling: filling{value: widest}})
		w.stays(Step{Do: "tuning step", Value: now, Unit: "kHz"}, radio.Step, now)
		return true
	}
	w.choose(radio.Step, "tuning step", widest, "kHz")
	w.accept(accepted)
	return true
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
		w.split(o)
	case radio.Twice: // the transmit side follows the first store
	default:
		if !w.auto() {
			w.shift(o)
		}
	}
}

func (w *writer) frequency(s radio.Setting, do string, f freq.Hz) {
	fill := filling{value: w.figures(f), hertz: int64(f)}
	w.note(Event{Key: tuned(s, w.p), Value: f.MHz(), Always: true, setting: s, filling: fill, step: w.set[radio.Step]})
	w.step(Step{Do: do, Value: f.MHz(), Unit: "MHz", Note: w.dropped(f)}, s, fill)
	if s == radio.Transmit && w.p.Entry == radio.Columns {
		return // typed beside it: the VFO stays where it is
	}
	w.tune(f)
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
		size := freq.Hz(o.Abs()).MHz()
		w.settle(radio.ShiftSize, Step{Do: "shift size", Value: size, Unit: "MHz"}, size, filling{value: size, hertz: int64(o.Abs())})
	}
}

// split keys a signed size into the menu of a band. It stays there when the
// radio is tuned on, so it is set for simplex too, and taken away at the end.
func (w *writer) split(o freq.Offset) {
	step, value, f := splitStep(o)
	w.settle(radio.Transmit, step, value, f)
}

func splitStep(o freq.Offset) (s Step, value string, f filling) {
	sign := "+"
	if o < 0 {
		sign = "−"
	}
	s, value = Step{Do: "split", Value: "off"}, "off"
	if o != 0 {
		s.Value, s.Unit = sign+freq.Hz(o.Abs()).MHz(), "MHz"
		value = s.Value
	}
	return s, value, filling{value: sign, hertz: int64(o.Abs())}
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
	acts := []Act{{Verb: "see", Shows: w.first().String()}}
	if tx, ok := w.c.Transmit(); ok {
		keyed := w.sheet.Rest
		keyed.Figures, keyed.Note = w.figures(tx), w.dropped(tx)
		w.sheet.Keyed = &keyed
		w.sheet.ReadOut = w.p.Crib[radio.ReadOut]
		if w.p.Entry != radio.Twice {
			acts = append(acts, w.readOut(tx)...)
		}
	}
	n := w.fixed(acts)
	w.write1(Step{Do: "check", Acts: acts, Presses: n})
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

func (w *writer) readOut(tx freq.Hz) []Act {
	if w.p.Crib[radio.ReadOut] == "" {
		return nil
	}
	out := w.acts(radio.ReadOut, filling{}).acts
	return append(out, Act{Verb: "see", Shows: w.figures(tx)}, Act{Text: "and nothing is sent"})
}

func (w *writer) store() {
	keying := w.p.Keying
	if keying.Occupied == "refuses" || len(keying.Keeps) > 0 {
		if w.p.Crib[radio.Delete] != "" {
			w.empty = true
			w.onSlot(Step{Do: "empty slot", Note: "harmless where it is empty"}, radio.Delete)
		} else if keying.Occupied == "refuses" {
			w.sheet.Check = append(w.sheet.Check, "how a slot is emptied: this radio refuses to store into an occupied one")
		}
	}
	w.onSlot(Step{Do: "store in slot", Acts: w.within()}, radio.Store)
	tx, ok := w.c.Transmit()
	if !ok || w.p.Entry != radio.Twice || tx == w.c.Receive && !w.leaves(radio.Transmit) {
		return
	}
	w.reach(tx)
	w.frequency(radio.Transmit, "transmit", tx)
	w.onSlot(Step{Do: "store the transmit side in slot", Acts: w.within()}, radio.StoreTransmit)
}

// onSlot writes a step that names the slot.
func (w *writer) onSlot(s Step, of radio.Setting) {
	slot := fmt.Sprint(w.want.Slot)
	f := filling{value: slot, slot: w.want.Slot}
	w.note(Event{Key: pointer, Value: slot, Always: true, Looks: of == radio.Delete, setting: of, filling: f})
	s.Value = slot
	w.step(s, of, f)
	switch {
	case of == radio.Delete:
		return // it goes on from where it was
	case of == radio.Recall, w.p.Keying.After == inMemory:
		w.assign(mode, inMemory)
	}
	w.assign(pointer, slot)
}

// leaves reports whether the store leaves something of the old slot.
func (w *writer) leaves(s radio.Setting) bool {
	return !w.empty && slices.Contains(w.p.Keying.Keeps, s)
}

func (w *writer) within() []Act {
	if w.p.Keying.SlotSeconds == 0 {
		return nil
	}
	return []Act{{Text: fmt.Sprintf("each within %d seconds", w.p.Keying.SlotSeconds)}}
}

// slot recalls what was stored, looks at it, and sets what only a slot has.
func (w *writer) slot() {
	acts := []Act{{Verb: "see", Shows: w.sheet.Rest.String()}}
	if tx, ok := w.c.Transmit(); ok && w.p.Entry == radio.Twice {
		acts = append(acts, w.readOut(tx)...)
	}
	n := w.fixed(acts)
	w.onSlot(Step{Do: "recall slot", Acts: acts, Presses: n}, radio.Recall)
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
		w.once(radio.Name, Step{Do: "name", Value: short}, short)
	}
}

func (w *writer) flag(s radio.Setting, do string, wanted bool) {
	switch {
	case w.p.Crib[s] == "" && wanted:
		w.sheet.Notes = append(w.sheet.Notes, fmt.Sprintf("%s has no %s that can be keyed in.", w.p.Name, do))
	case wanted:
		w.once(s, Step{Do: do, Value: "on"}, "on")
	case w.leaves(s):
		w.once(s, Step{Do: do, Value: "off"}, "off")
	}
}

// once writes the step of something that belongs to the slot: the next one has its own.
func (w *writer) once(s radio.Setting, step Step, value string) {
	if !w.leaves(s) && s != radio.Name {
		w.set[s] = "off" // it was just stored
	}
	w.step(step, s, filling{value: value})
	w.note(Event{Presses: w.sheet.Steps[len(w.sheet.Steps)-1].Presses})
	delete(w.set, s)
}
