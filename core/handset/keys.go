package handset

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"mnemos/core/freq"
	"mnemos/core/radio"
)

// binding is what a sequence of keys does.
type binding struct {
	setting radio.Setting
	acts    []radio.Act // that follow in an open control; none for a plain key
	way     int         // +1 or -1 for a key that goes through values by itself
}

// control is a setting that is open: a list, figures, a slot or a name.
type control struct {
	binding
	at     int // the act that the next key belongs to
	key    int // of the closing keys, the one that is next
	values []string
	index  int
	typed  string
	minus  bool // of a split
	name   []rune
	letter int
}

// bind makes the table of key sequences from the crib.
func bind(p *radio.Profile) (map[string]binding, error) {
	out := map[string]binding{}
	for _, c := range radio.Cribs {
		words := p.Crib[c.Setting]
		if words == "" || c.Setting.Printed() {
			continue
		}
		acts, ok := radio.Acts(words)
		if !ok {
			if optional[c.Setting] {
				continue
			}
			return nil, fmt.Errorf("%q cannot be followed key by key (%s)", words, c.Label)
		}
		for i, a := range acts {
			if a.Kind == radio.Digits && p.Keying.Figures == 0 || a.Kind == radio.Number && p.Keying.SlotFigures == 0 {
				return nil, fmt.Errorf("the profile does not say how many figures are typed (%s)", c.Label)
			}
			if a.Kind == radio.Spelled && p.Names.Characters == "" {
				return nil, fmt.Errorf("the profile names no characters to spell with")
			}
			// A knob that chooses a slot tunes the VFO, and so do the keys that go on from
			// what was typed; other lists need their opening keys.
			if a.Kind == radio.Choose && (i == 0 || c.Setting == radio.Recall || c.Setting == radio.Receive) {
				for j, keys := range a.Ways {
					s := c.Setting
					if i > 0 {
						s = radio.Receive
					}
					out[strings.Join(keys, " ")] = binding{setting: s, way: 1 - 2*j}
				}
			}
		}
		if keys, rest := radio.Opens(acts); len(keys) > 0 {
			out[strings.Join(keys, " ")] = binding{setting: c.Setting, acts: rest}
		}
	}
	for a := range out {
		for b := range out {
			if strings.HasPrefix(b, a+" ") {
				return nil, fmt.Errorf("the keys %s begin the keys %s", a, b)
			}
		}
	}
	return out, nil
}

// optional are the settings that no sheet steps through: words that cannot
// be followed do no harm there.
var optional = map[radio.Setting]bool{radio.Burst: true, radio.Name: true, radio.ScanKey: true, radio.DualWatchKey: true, radio.Reverse: true, radio.KeyLock: true, radio.Line: true}

// Keys returns the keys of the radio, figures last; a key that is held has
// "hold " before it, a knob that is turned + or - behind it.
func (h *Handset) Keys() []string {
	seen := map[string]bool{}
	var out []string
	add := func(keys ...string) {
		for _, k := range keys {
			if !seen[k] && (len(k) > 1 || k < "0" || k > "9") {
				seen[k] = true
				out = append(out, k)
			}
		}
	}
	var names []string // the letter key may be a knob that other settings turn
	for _, c := range radio.Cribs {
		if c.Setting.Printed() {
			continue
		}
		acts, _ := radio.Acts(h.p.Crib[c.Setting])
		for _, a := range acts {
			if a.Kind == radio.Spelled {
				names = a.Keys
				continue
			}
			add(a.Keys...)
			for _, w := range a.Ways {
				add(w...)
			}
		}
	}
	for _, k := range names {
		if !seen[k+"+"] {
			add(k)
		}
	}
	return append(out, "1", "2", "3", "4", "5", "6", "7", "8", "9", "0")
}

func figure(key string) bool { return len(key) == 1 && key[0] >= '0' && key[0] <= '9' }

// Press presses a key.
func (h *Handset) Press(key string) {
	h.beep, h.look = false, false
	switch {
	case h.radio[radio.KeyLock] == "on" && h.bindings[key].setting != radio.KeyLock:
		h.beep = true
	case h.open != nil && h.within(key):
	default:
		h.idle(key)
	}
}

// Wait lets time pass, in seconds.
func (h *Handset) Wait(seconds int) {
	limit := h.p.Keying.SlotSeconds
	if h.open == nil || limit == 0 || seconds <= limit {
		return
	}
	if s := h.open.setting; s == radio.Store || s == radio.StoreTransmit || s == radio.Delete {
		h.open = nil
	}
}

// idle takes a key while nothing is open.
func (h *Handset) idle(key string) {
	if figure(key) && len(h.pending) == 0 {
		h.figure(key)
		return
	}
	if h.typed != "" {
		h.typed, h.beep = "", true
		return
	}
	h.pending = append(h.pending, key)
	sequence := strings.Join(h.pending, " ")
	if b, ok := h.bindings[sequence]; ok {
		h.pending = nil
		h.do(b)
		return
	}
	for s := range h.bindings {
		if strings.HasPrefix(s, sequence+" ") {
			return
		}
	}
	h.pending, h.beep = nil, true
}

// figure takes a figure of a frequency, or in memory mode of a slot.
func (h *Handset) figure(key string) {
	n := h.p.Keying.Figures
	if h.memory {
		n = h.p.Keying.SlotFigures
	}
	if n == 0 {
		h.beep = true
		return
	}
	if h.typed += key; len(h.typed) < n {
		return
	}
	typed := h.typed
	h.typed = ""
	if h.memory {
		slot, _ := strconv.Atoi(typed) // figures only
		h.recall(slot)
		return
	}
	h.tune(h.whole(typed))
}

// whole returns the frequency that was typed, its end made up by the tuning
// step: on a step of 6.25 kHz 446006 is 446.00625 MHz.
func (h *Handset) whole(typed string) freq.Hz {
	f := h.hertz(typed)
	unit := freq.Hz(1)
	for range h.p.MHzFigures() + 6 - len(typed) {
		unit *= 10
	}
	step := h.step()
	if up := (f + step - 1) / step * step; up < f+unit {
		return up
	}
	return f / step * step
}

// hertz reads figures of which the first are MHz.
func (h *Handset) hertz(typed string) freq.Hz {
	n, _ := strconv.ParseInt((typed + "000000000")[:h.p.MHzFigures()+6], 10, 64) // figures only
	return freq.Hz(n)
}

func (h *Handset) step() freq.Hz {
	n, _ := freq.Scale(h.radio[radio.Step], freq.KHz) // a value of its own list
	return freq.Hz(n)
}

// do does what a sequence of keys begins.
func (h *Handset) do(b binding) {
	if b.way != 0 {
		h.turn(b)
		return
	}
	switch b.setting {
	case radio.VFO:
		h.memory = false
	case radio.Recall:
		h.recall(h.slot)
	case radio.ReadOut:
		h.look = true
	default:
		if len(b.acts) == 0 {
			h.turn(binding{setting: b.setting, way: 1})
			return
		}
		c := h.opened(b)
		if len(c.values) == 0 && hasChoice(c.acts) && b.setting != radio.Transmit {
			h.beep = true // a list without values
			return
		}
		h.open = c
	}
}

func (h *Handset) opened(b binding) *control {
	c := &control{binding: b, values: h.values(b.setting)}
	if !slices.Contains(h.p.Keying.First, b.setting) {
		c.index = max(0, slices.Index(c.values, h.Get(b.setting)))
	}
	return c
}

// turn goes to the next value of a setting that has a key of its own.
func (h *Handset) turn(b binding) {
	switch b.setting {
	case radio.VFO, radio.Recall:
		h.mode()
	case radio.Receive, radio.Transmit:
		h.dial(b.way)
	default:
		values := h.values(b.setting)
		if len(values) == 0 {
			h.beep = true
			return
		}
		h.set(b.setting, values[h.next(b.setting, slices.Index(values, h.Get(b.setting)), b.way, len(values))])
	}
}

// mode changes between VFO and memory.
func (h *Handset) mode() {
	if h.memory {
		h.memory = false
		return
	}
	h.recall(h.slot)
}

// next is the place in a list after a key; it wraps, or stops at the ends.
func (h *Handset) next(s radio.Setting, at, way, n int) int {
	if to := at + way; !slices.Contains(h.p.Keying.Ends, s) || 0 <= to && to < n {
		return (to + n) % n
	}
	return at
}

// dial turns the knob: to the next step of the VFO, or to the next slot.
func (h *Handset) dial(way int) {
	if h.memory {
		n := h.p.Slots.Last - h.p.Slots.First + 1
		h.recall(h.p.Slots.First + (h.slot-h.p.Slots.First+way+n)%n)
		return
	}
	step := h.step()
	f := h.vfo.receive / step * step
	if way > 0 || f == h.vfo.receive {
		f += step * freq.Hz(way)
	}
	if !h.p.CanReceive(f) {
		span := h.p.Receive[(h.band(h.vfo.receive)+way+len(h.p.Receive))%len(h.p.Receive)]
		if f = (span.Lower + step - 1) / step * step; way < 0 {
			f = span.Upper / step * step
		}
	}
	h.tune(f)
}
