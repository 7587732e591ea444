package handset

import (
	"slices"
	"strconv"

	"mnemos/core/freq"
	"mnemos/core/radio"
)

// within takes a key while a control is open; false leaves it to the radio at
// rest.
func (h *Handset) within(key string) bool {
	c := h.open
	for c.at < len(c.acts) {
		act := c.acts[c.at]
		taken, over := h.act(c, act, key)
		if over {
			c.at++
			c.key = 0
		}
		if taken {
			break
		}
		if !over {
			h.open, h.beep = nil, true // a key that does not belong here: nothing is taken over
			return true
		}
	}
	if c.at == len(c.acts) {
		last := c.acts[len(c.acts)-1]
		h.open = nil
		h.commit(c)
		return last.Kind != radio.Choose && last.Kind != radio.Spelled
	}
	return true
}

// act gives a key to an act of a control; over reports that the act is done.
func (h *Handset) act(c *control, a radio.Act, key string) (taken, over bool) {
	switch a.Kind {
	case radio.Choose:
		way := slices.IndexFunc(a.Ways, func(w []string) bool { return w[0] == key })
		switch {
		case way < 0:
			return false, true
		case c.setting == radio.Transmit:
			c.minus = !c.minus
		default:
			c.index = h.next(c.setting, c.index, 1-2*way, len(c.values))
			if c.at == len(c.acts)-1 {
				h.commit(c) // it counts at once
			}
		}
		return true, false
	case radio.Digits, radio.Number:
		n := h.p.Keying.Figures
		if a.Kind == radio.Number {
			n = h.p.Keying.SlotFigures
		}
		if !figure(key) {
			return false, false
		}
		c.typed += key
		return true, len(c.typed) == n
	case radio.Spelled:
		return c.spell(a, key, h.p.Names)
	}
	if key != a.Keys[c.key] {
		return false, false
	}
	c.key++
	return true, c.key == len(a.Keys)
}

// spell turns a letter, or goes on to the next.
func (c *control) spell(a radio.Act, key string, names radio.Names) (taken, over bool) {
	letters := []rune(names.Characters)
	switch key {
	case a.Keys[0], a.Keys[0] + "+":
		c.letter = (c.letter + 1) % len(letters)
	case a.Keys[0] + "-":
		c.letter = (c.letter + len(letters) - 1) % len(letters)
	case a.Keys[1]:
		if len(c.name) == names.Length {
			return true, false
		}
		c.name, c.letter = append(c.name, letters[c.letter]), 0
	default:
		return false, true
	}
	return true, false
}

// commit takes over what a control was set to.
func (h *Handset) commit(c *control) {
	now := h.now()
	switch c.setting {
	case radio.Name:
		slot := h.slots[h.slot]
		if !h.memory || slot == nil {
			h.beep = true
			return
		}
		slot.Name = spelt(c.name)
	case radio.ShiftSize:
		size := freq.Offset(h.hertz(c.typed))
		if size > h.p.Offsets.Max {
			h.beep = true
			return
		}
		now.size = size - size%h.p.Offsets.Resolution
	case radio.Transmit:
		h.typedTransmit(c)
	case radio.Store, radio.StoreTransmit, radio.Delete:
		n := 0
		if h.p.Keying.SlotFigures == 0 {
			n, _ = strconv.Atoi(c.values[c.index]) // a value of its own list
		} else {
			n, _ = strconv.Atoi(c.typed) // figures only
		}
		h.onSlot(c.setting, n)
	default:
		h.set(c.setting, c.values[c.index])
	}
}

// typedTransmit takes over a transmit frequency, or a split with its sign.
func (h *Handset) typedTransmit(c *control) {
	now := h.now()
	if h.p.Entry != radio.Split {
		now.transmit = h.whole(c.typed)
		return
	}
	o := freq.Offset(h.hertz(c.typed))
	if o > h.p.Offsets.Max {
		h.beep = true
		return
	}
	if o -= o % h.p.Offsets.Resolution; c.minus {
		o = -o
	}
	now.split[h.band(now.receive)] = o
}
