// Package handset is a radio with keys, made from a profile: it has every
// setting that the profile names, what the channel before left in them, old
// contents in its slots, automatic shift, locks and all five ways of entry.
// It is pressed key by key, and shows what a display of that radio shows.
//
// A keypad sheet is proven on it: Follow reads the sheet as a person does,
// from its words alone, and presses what they say. The package knows nothing
// of how a sheet is written.
package handset

import (
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/radio"
	"mnemos/core/tone"
)

// Handset is a radio in the hand.
type Handset struct {
	p        *radio.Profile
	bindings map[string]binding
	radio    map[radio.Setting]string // what counts for the whole radio: step, automatic shift, scan, locks of the keys
	vfo      state
	recalled state // a copy of the slot that is shown; what is changed in it is lost
	slots    map[int]*Slot
	memory   bool // memory mode: the slot is shown, not the VFO
	slot     int

	pending []string // keys that may begin something
	typed   string   // figures of a frequency or a slot, while nothing is open
	open    *control
	look    bool // the read-out is held
	beep    bool // the last key did nothing
}

// state is what the VFO holds and a store copies.
type state struct {
	receive, transmit freq.Hz // transmit is 0 where nothing was typed or stored
	size              freq.Offset
	split             []freq.Offset // of each receive range: it stays with the band
	sets              map[radio.Setting]string
	out, in           tone.Tone // the registers of a radio without a tone mode
}

// Slot is what a slot holds.
type Slot struct {
	state
	sent     map[radio.Setting]string // the settings of the second store, where there are two
	Name     string
	Skip     bool
	Priority bool
}

// New returns a radio as it comes from the factory; Stir gives it a past. A
// radio that is filled by cable, or whose crib cannot be followed, is refused.
func New(p *radio.Profile) (*Handset, error) {
	switch p.Keying.By {
	case "keypad":
	case "cable":
		return nil, fmt.Errorf("%s is filled by cable", p.Name)
	default:
		return nil, fmt.Errorf("the profile of %s does not say how it is keyed", p.Name)
	}
	h := &Handset{p: p, radio: map[radio.Setting]string{}, slots: map[int]*Slot{}, slot: p.Slots.First}
	h.vfo = state{receive: p.Receive[0].Lower, split: make([]freq.Offset, len(p.Receive)), sets: map[radio.Setting]string{}}
	for _, s := range perRadio {
		h.radio[s] = h.values(s)[0]
	}
	for _, s := range perSlot {
		if v := h.values(s); len(v) > 0 {
			h.vfo.sets[s] = v[0]
		}
	}
	var err error
	h.bindings, err = bind(p)
	return h, err
}

var (
	perRadio = []radio.Setting{radio.Step, radio.AutoShift, radio.ScanKey, radio.DualWatchKey, radio.Reverse, radio.KeyLock, radio.Line}
	perSlot  = []radio.Setting{
		radio.ShiftDirection, radio.Lock, radio.ToneMode, radio.ToneOut, radio.ToneIn, radio.CodeOut, radio.CodeIn, radio.Burst, radio.Width, radio.Power,
	}
)

// values are those of a setting that is chosen from a list.
func (h *Handset) values(s radio.Setting) []string {
	switch s {
	case radio.ScanKey, radio.DualWatchKey, radio.Reverse, radio.KeyLock:
		return []string{"off", "on"}
	case radio.Line:
		return []string{"upper", "lower"}
	case radio.Store, radio.StoreTransmit, radio.Delete:
		var out []string
		for n := h.p.Slots.First; n <= h.p.Slots.Last; n++ {
			out = append(out, strconv.Itoa(n))
		}
		return out
	}
	return h.p.Values(s)
}

// now is what the keys act on: the VFO, or the slot that is shown.
func (h *Handset) now() *state {
	if h.memory {
		return &h.recalled
	}
	return &h.vfo
}

// Get returns the value of a setting as the radio stands.
func (h *Handset) Get(s radio.Setting) string {
	if v, ok := h.radio[s]; ok {
		return v
	}
	now := h.now()
	if h.chooses() {
		switch s {
		case radio.ToneOut, radio.CodeOut:
			return now.out.String()
		case radio.ToneIn, radio.CodeIn:
			return now.in.String()
		}
	}
	switch s {
	case radio.Skip, radio.Priority:
		if slot := h.slots[h.slot]; slot != nil && (s == radio.Skip && slot.Skip || s == radio.Priority && slot.Priority) {
			return "on"
		}
		return "off"
	case radio.Store, radio.StoreTransmit, radio.Delete:
		return strconv.Itoa(h.slot)
	}
	return now.sets[s]
}

// chooses reports whether choosing a tone is all there is to a tone mode.
func (h *Handset) chooses() bool { return len(h.p.Keying.Modes) == 0 }

func (h *Handset) set(s radio.Setting, v string) {
	if _, ok := h.radio[s]; ok {
		h.radio[s] = v
		return
	}
	now := h.now()
	if h.chooses() {
		t, _ := tone.Parse(v) // a value of its own list
		switch s {
		case radio.ToneOut, radio.CodeOut:
			now.out = t
			return
		case radio.ToneIn, radio.CodeIn:
			now.in = t
			return
		}
	}
	switch s {
	case radio.Skip, radio.Priority:
		slot := h.slots[h.slot]
		if !h.memory || slot == nil {
			h.beep = true
			return
		}
		if s == radio.Skip {
			slot.Skip = v == "on"
		} else {
			slot.Priority = v == "on"
		}
	case radio.Store, radio.StoreTransmit, radio.Delete:
		n, _ := strconv.Atoi(v)
		h.onSlot(s, n)
	default:
		now.sets[s] = v
	}
}

// tune sets a receive frequency, with what automatic shift makes of it.
func (h *Handset) tune(f freq.Hz) {
	if !h.p.CanReceive(f) {
		h.beep = true
		return
	}
	now := h.now()
	now.receive = f
	if h.radio[radio.AutoShift] != "on" || h.p.Crib[radio.AutoShift] == "" {
		return
	}
	o := freq.Offset(600 * freq.KHz) // a table that nobody knows shifts where it should not
	if h.p.AutoFrom != "" {
		o = h.p.AutoShift(f)
	}
	if h.p.Entry == radio.Split {
		now.split[h.band(f)] = o
		return
	}
	now.sets[radio.ShiftDirection] = "off"
	if o != 0 {
		now.size = o.Abs()
		now.sets[radio.ShiftDirection] = map[bool]string{true: "+", false: "−"}[o > 0]
	}
}

// band is the receive range in which f lies.
func (h *Handset) band(f freq.Hz) int {
	return max(0, slices.IndexFunc(h.p.Receive, func(s band.Span) bool { return s.Holds(f) }))
}

// Clone returns a radio that stands as this one does, to try something out on.
func (h *Handset) Clone() *Handset {
	c := *h
	c.radio, c.vfo, c.recalled = maps.Clone(h.radio), h.vfo.clone(), h.recalled.clone()
	c.slots = map[int]*Slot{}
	for n, s := range h.slots {
		slot := *s
		slot.state, slot.sent = s.clone(), maps.Clone(s.sent)
		c.slots[n] = &slot
	}
	c.pending = slices.Clone(h.pending)
	if h.open != nil {
		open := *h.open
		open.name = slices.Clone(open.name)
		c.open = &open
	}
	return &c
}

func (s state) clone() state {
	s.sets, s.split = maps.Clone(s.sets), slices.Clone(s.split)
	return s
}

// Slot returns a copy of what a slot holds; ok is false where it is empty.
func (h *Handset) Slot(n int) (Slot, bool) {
	s, ok := h.slots[n]
	if !ok {
		return Slot{}, false
	}
	return *s, true
}

// Holds returns the channel in a slot, as it would be used from there.
func (h *Handset) Holds(n int) (channel.Channel, bool) {
	s, ok := h.slots[n]
	if !ok {
		return channel.Channel{}, false
	}
	c := channel.Channel{Name: s.Name, Receive: s.receive, Width: channel.Width(s.sets[radio.Width]), Power: channel.Power(s.sets[radio.Power])}
	c.TransmitTone, c.ReceiveTone = h.tones(s.state)
	if s.sent != nil {
		sent := s.state
		sent.sets = s.sent
		c.TransmitTone, _ = h.tones(sent)
	}
	c.Side = channel.TransmitSide{Kind: channel.Blocked}
	if tx, ok := h.sends(s.state); ok {
		c.Side = channel.ShiftSide(tx.Sub(c.Receive))
	} else {
		c.TransmitTone = tone.Off
	}
	return c, true
}

// sends returns the frequency on which a state would transmit.
func (h *Handset) sends(s state) (freq.Hz, bool) {
	tx := s.receive
	switch h.p.Entry {
	case radio.Columns, radio.Twice:
		if s.transmit != 0 {
			tx = s.transmit
		}
	case radio.Split:
		tx = tx.Add(s.split[h.band(s.receive)])
	default:
		switch s.sets[radio.ShiftDirection] {
		case "+":
			tx = tx.Add(s.size)
		case "−":
			tx = tx.Add(-s.size)
		}
	}
	return tx, s.sets[radio.Lock] != "on" && h.p.CanTransmit(tx)
}

// Keyable returns the frequency that would go on the air if the radio were
// keyed now.
func (h *Handset) Keyable() (freq.Hz, bool) {
	if h.memory && h.slots[h.slot] == nil {
		return 0, false
	}
	return h.sends(*h.now())
}

// tones returns what a state sends, and what opens it.
func (h *Handset) tones(s state) (out, in tone.Tone) {
	if h.chooses() {
		return s.out, s.in
	}
	get := func(r radio.Setting) tone.Tone {
		t, _ := tone.Parse(s.sets[r]) // a value of its own list
		return t
	}
	two := h.p.Keying.Registers == 2
	switch radio.Mode(s.sets[radio.ToneMode]) {
	case radio.ModeTone:
		out = get(radio.ToneOut)
	case radio.ModeReceive:
		if in = get(radio.ToneOut); two {
			in = get(radio.ToneIn)
		}
	case radio.ModeSquelch:
		out, in = get(radio.ToneOut), get(radio.ToneOut)
		if two && !h.p.Keying.Has(radio.ModeSeparate) {
			in = get(radio.ToneIn)
		}
	case radio.ModeSeparate:
		out, in = get(radio.ToneOut), get(radio.ToneIn)
	case radio.ModeDCS:
		out, in = get(radio.CodeOut), get(radio.CodeOut)
		if h.p.Crib[radio.CodeIn] != "" {
			in = get(radio.CodeIn)
		}
	case radio.ModeDCSSent:
		out = get(radio.CodeOut)
	case radio.ModeBurst:
		out = tone.Burst1750
	}
	if s.sets[radio.Burst] == "on" && h.p.Keying.Burst == "setting" {
		out = tone.Burst1750
	}
	return out, in
}

// onSlot stores into a slot, or empties it.
func (h *Handset) onSlot(what radio.Setting, n int) {
	old := h.slots[n]
	switch {
	case !h.p.Slots.Holds(n), h.memory && what != radio.Delete, h.p.Keying.StoresFrom != "" && h.radio[radio.Line] != h.p.Keying.StoresFrom:
		h.beep = true
	case what == radio.Delete:
		delete(h.slots, n)
	case what == radio.StoreTransmit:
		if old == nil {
			h.beep = true
			return
		}
		old.transmit, old.sent = h.vfo.receive, maps.Clone(h.vfo.sets)
	case old != nil && h.p.Keying.Occupied == "refuses":
		h.beep = true
	default:
		h.slots[n] = h.stored(old)
		h.slot = n
		if h.p.Keying.After == "memory" {
			h.recall(n)
		}
	}
}

// stored copies the VFO, and keeps of the old contents what the radio keeps.
func (h *Handset) stored(old *Slot) *Slot {
	s := &Slot{state: h.vfo.clone()}
	if h.p.Entry == radio.Twice {
		s.transmit = 0
	}
	if old == nil {
		return s
	}
	for _, k := range h.p.Keying.Keeps {
		switch k {
		case radio.Name:
			s.Name = old.Name
		case radio.Skip:
			s.Skip = old.Skip
		case radio.Priority:
			s.Priority = old.Priority
		case radio.Transmit:
			s.transmit, s.sent = old.transmit, old.sent
		}
	}
	return s
}

// recall shows a slot.
func (h *Handset) recall(n int) {
	if !h.p.Slots.Holds(n) {
		h.beep = true
		return
	}
	h.memory, h.slot = true, n
	h.recalled = state{split: make([]freq.Offset, len(h.p.Receive)), sets: map[radio.Setting]string{}}
	if s := h.slots[n]; s != nil {
		h.recalled = s.clone()
	}
}

// spelt is a name without the blanks at its end.
func spelt(name []rune) string { return strings.TrimRight(string(name), " ") }
