package handset

import (
	"fmt"
	"slices"

	"mnemos/core/freq"
	"mnemos/core/radio"
	"mnemos/core/tone"
)

// Stir gives the radio a past: leftovers of another channel in every setting,
// none of them the value named in unlike, and old contents in a slot. What a
// sheet asks for before its first step (scan, dual watch, reverse, key lock,
// the line) stays as the sheet wants it. draw returns a number below n.
func (h *Handset) Stir(draw func(n int) int, slot int, unlike map[radio.Setting]string) {
	h.open, h.pending, h.typed, h.look, h.beep = nil, nil, "", false, false
	h.memory = false
	h.past(draw, unlike)
	h.slots[slot] = &Slot{state: h.vfo.clone(), Name: "OLD", Skip: draw(2) == 0, Priority: draw(2) == 0}
	if h.p.Entry == radio.Twice {
		h.slots[slot].transmit, h.slots[slot].sent = h.vfo.receive, h.vfo.clone().sets
	}
	h.past(draw, unlike)
	if draw(2) == 0 {
		h.recall(h.p.Slots.First + draw(h.p.Slots.Last-h.p.Slots.First+1))
	}
}

// past leaves another channel in the VFO.
func (h *Handset) past(draw func(n int) int, unlike map[radio.Setting]string) {
	pick := func(s radio.Setting) (string, bool) {
		values := slices.DeleteFunc(slices.Clone(h.values(s)), func(v string) bool { return v == unlike[s] })
		if len(values) == 0 || h.p.Crib[s] == "" {
			return "", false
		}
		return values[draw(len(values))], true
	}
	for _, s := range perSlot {
		if v, ok := pick(s); ok {
			h.vfo.sets[s] = v
		}
	}
	for _, s := range []radio.Setting{radio.Step, radio.AutoShift} {
		if v, ok := pick(s); ok {
			h.radio[s] = v
		}
	}
	spans := h.p.Transmit
	if len(spans) == 0 {
		spans = h.p.Receive
	}
	span := spans[draw(len(spans))]
	f := func() freq.Hz { return span.Lower + freq.Hz(draw(int(span.Upper-span.Lower)+1))/12_500*12_500 }
	h.vfo.receive = f()
	if h.p.Entry == radio.Columns {
		h.vfo.transmit = f()
	}
	h.vfo.size = h.p.Offsets.Resolution * freq.Offset(1+draw(50))
	for i := range h.vfo.split {
		h.vfo.split[i] = h.p.Offsets.Resolution * freq.Offset(1+draw(50))
	}
	if h.p.Entry == radio.Split && draw(2) == 0 {
		return
	}
	h.vfo.out, h.vfo.in = tone.Off, tone.Off
	if v, ok := pick(radio.ToneOut); ok && h.chooses() {
		h.vfo.out, _ = tone.Parse(v) // a value of its own list
	}
	if v, ok := pick(radio.CodeIn); ok && h.chooses() {
		h.vfo.in, _ = tone.Parse(v) // a value of its own list
	}
}

// Locked reports whether the slot is kept from transmitting.
func (s Slot) Locked() bool { return s.sets[radio.Lock] == "on" }

// Split reports whether a split is left in the band of the VFO.
func (h *Handset) Split() bool { return h.vfo.split[h.band(h.vfo.receive)] != 0 }

// SplitAt reports whether a split is left in the band of a frequency.
func (h *Handset) SplitAt(f freq.Hz) bool { return h.vfo.split[h.band(f)] != 0 }

// InMemory reports whether a slot is shown and not the VFO.
func (h *Handset) InMemory() bool { return h.memory }

// State is everything that the radio holds apart from its other slots, in one
// text to compare.
func (h *Handset) State(slot int) string {
	text := fmt.Sprintf("radio %v vfo %v memory %t", h.radio, h.vfo, h.memory)
	if s, ok := h.slots[slot]; ok {
		text += fmt.Sprintf(" slot %v", *s)
	}
	return text
}
