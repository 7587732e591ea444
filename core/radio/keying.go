package radio

import (
	"slices"
	"strconv"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/tone"
)

// Keying is how a radio behaves under the hands: what a keypad sheet needs
// beside the crib to be exact. What is left out is not known, and the sheet
// says so.
type Keying struct {
	By          string             `yaml:"by,omitempty"`               // keypad, or cable for a radio without keys for it
	Figures     int                `yaml:"frequency_digits,omitempty"` // typed for a frequency or a size, MHz first (MHzFigures); 0 where a knob tunes
	SlotFigures int                `yaml:"slot_digits,omitempty"`      // typed for a slot; 0 where it is chosen
	SlotSeconds int                `yaml:"slot_seconds,omitempty"`     // from press to press while a slot is chosen; 0 for no limit
	StoresFrom  string             `yaml:"store_line,omitempty"`       // the line that stores: upper, lower; "" where there is one
	Occupied    string             `yaml:"occupied,omitempty"`         // overwrites, refuses: a store into a slot that holds something
	Keeps       []Setting          `yaml:"slot_keeps,omitempty"`       // what a store leaves as it was in the slot
	After       string             `yaml:"after_store,omitempty"`      // vfo, memory: where a store leaves the radio
	Registers   int                `yaml:"tone_registers,omitempty"`   // 1: one tone for both directions; 2
	Modes       []Mode             `yaml:"tone_modes,omitempty"`       // the tone modes in the order in which they come; none where choosing a tone is enough
	Burst       string             `yaml:"burst_by,omitempty"`         // setting, mode, or key: a key that sends it, so that no slot holds it
	Ends        []Setting          `yaml:"stop_at_ends,omitempty"`     // lists that do not wrap
	First       []Setting          `yaml:"open_at_first,omitempty"`    // lists that open at their first value, not at the one that is set
	Resting     map[Setting]string `yaml:"resting,omitempty"`          // what a sheet puts back
}

// Mode is a tone mode as a radio lists it.
type Mode string

// The tone modes of radios. ModeSquelch of a radio that has ModeSeparate too
// uses the tone sent for both directions; without it, it sends one register
// and listens for the other.
const (
	ModeOff      Mode = "off"
	ModeTone     Mode = "tone"
	ModeReceive  Mode = "receive tone"
	ModeSquelch  Mode = "tone squelch"
	ModeSeparate Mode = "separate tones"
	ModeDCS      Mode = "DCS"      // sent, and needed to open the own squelch
	ModeDCSSent  Mode = "DCS sent" // sent; the receiver stays open
	ModeBurst    Mode = "burst"
)

var modes = []Mode{ModeOff, ModeTone, ModeReceive, ModeSquelch, ModeSeparate, ModeDCS, ModeDCSSent, ModeBurst}

// Has reports whether the radio lists a tone mode.
func (k Keying) Has(m Mode) bool { return slices.Contains(k.Modes, m) }

// Mode returns the tone mode that a channel needs on this radio; ok is false
// where its list has none.
func (p *Profile) Mode(c channel.Channel) (Mode, bool) {
	out, in := c.TransmitTone, c.ReceiveTone
	if out.Kind() == tone.Burst {
		if p.Keying.Burst == "mode" {
			return ModeBurst, in.IsOff()
		}
		out = tone.Off // a control or a key of its own sends it
	}
	m := ModeSeparate
	switch {
	case out.IsOff() && in.IsOff():
		return ModeOff, true
	case out.Kind() == tone.DCS && in.IsOff():
		m = ModeDCSSent
	case out == in && out.Kind() == tone.DCS:
		m = ModeDCS
	case in.IsOff():
		m = ModeTone
	case out.IsOff() && in.Kind() == tone.CTCSS:
		m = ModeReceive
	case out == in:
		m = ModeSquelch
	case out.Kind() != tone.CTCSS || in.Kind() != tone.CTCSS:
		return "", false // a tone one way and a code the other
	case !p.Keying.Has(ModeSeparate) && p.Keying.Registers == 2:
		m = ModeSquelch
	}
	return m, p.Keying.Has(m)
}

// MHzFigures is how many of the figures that are typed are MHz: three, or four
// on a radio that receives above 1000 MHz.
func (p *Profile) MHzFigures() int {
	for _, s := range p.Receive {
		if s.Upper >= 1000*freq.MHz {
			return 4
		}
	}
	return 3
}

// Rest returns the value to which a setting is put back after a sheet; ok is
// false where it may stay. A transmit lock and a split always go: they would
// reach the next channel.
func (p *Profile) Rest(s Setting) (value string, ok bool) {
	if value, ok = p.Keying.Resting[s]; ok {
		return value, true
	}
	switch s {
	case Lock:
		return "off", p.Lock
	case Transmit:
		return "off", p.Entry == Split
	}
	return "", false
}

// Values returns the values of a setting in the order in which the radio
// goes through them, in the words of a sheet; nil for a setting that is typed.
func (p *Profile) Values(s Setting) []string {
	var out []string
	switch s {
	case Step:
		for _, f := range p.Steps {
			out = append(out, strconv.FormatFloat(float64(f)/freq.KHz, 'f', -1, 64))
		}
	case ShiftDirection:
		out = []string{"off", "+", "−"}
	case AutoShift, Lock, Burst, Skip, Priority:
		out = []string{"off", "on"}
	case ToneMode:
		for _, m := range p.Keying.Modes {
			out = append(out, string(m))
		}
	case ToneOut, ToneIn:
		if len(p.Keying.Modes) == 0 {
			out = append(out, "off") // choosing is the mode
		}
		for _, t := range p.tones() {
			out = append(out, t.String())
		}
	case CodeOut, CodeIn:
		for _, t := range p.codes() {
			out = append(out, t.String())
		}
	case Width:
		out = p.Widths
	case Power:
		out = []string{string(channel.High), string(channel.Mid), string(channel.Low)}
		if p.Watts.Mid == 0 {
			out = slices.Delete(out, 1, 2)
		}
	}
	return out
}

func (p *Profile) tones() []tone.Tone {
	table := tone.CTCSS50
	if p.CTCSS == len(tone.CTCSS38) {
		table = tone.CTCSS38
	}
	var out []tone.Tone
	for _, d := range table {
		if t, err := tone.NewCTCSS(d); err == nil {
			out = append(out, t)
		}
	}
	return append(out, p.Extra...)
}

func (p *Profile) codes() []tone.Tone {
	table := tone.DCS104
	switch p.DCS {
	case 0:
		return nil
	case len(tone.DCS83):
		table = tone.DCS83
	}
	var out []tone.Tone
	for _, inverted := range []bool{false, true} {
		for _, c := range table {
			if t, err := tone.NewDCS(c, inverted); err == nil && (!inverted || p.Inverted) {
				out = append(out, t)
			}
		}
	}
	return out
}

// Mark returns what the display shows while nothing is being set, for a value
// of a setting; ok is false where the display does not show the setting.
func (p *Profile) Mark(s Setting, value string) (mark string, ok bool) {
	switch s {
	case ShiftDirection:
		switch value {
		case "+":
			return p.Display.Plus, true
		case "−":
			return p.Display.Minus, true
		}
		return "", true
	case ToneMode:
		switch Mode(value) {
		case ModeOff:
			return p.Display.Modes["no tone"], true
		case ModeDCSSent:
			if m, ok := p.Display.Modes["dcs sent"]; ok {
				return m, true
			}
			return p.Display.Modes["dcs"], true
		case ModeDCS:
			return p.Display.Modes["dcs"], true
		}
		mark, ok = p.Display.Modes[value]
		return mark, ok
	}
	marks, ok := p.Display.Shows[s]
	return marks[value], ok
}

// types reports whether a crib asks for something to be typed.
func (p *Profile) types(kind ActKind) bool {
	for _, words := range p.Crib {
		if acts, _ := Acts(words); slices.ContainsFunc(acts, func(a Act) bool { return a.Kind == kind }) {
			return true
		}
	}
	return false
}

// Unsaid names the facts that a profile leaves out and a sheet would need.
func (p *Profile) Unsaid() []string {
	k := p.Keying
	if k.By == "cable" {
		return nil
	}
	var out []string
	add := func(missing bool, what string) {
		if missing {
			out = append(out, what)
		}
	}
	add(k.By == "", "whether it can be keyed at all")
	add(k.Figures == 0 && p.types(Digits), "how many figures of a frequency are typed")
	add(k.SlotFigures == 0 && p.types(Number), "how many figures of a slot are typed")
	add(k.Occupied == "", "what a store into an occupied slot does")
	add(k.After == "", "whether a store leaves the VFO")
	add(k.Registers == 0, "whether both directions share one tone")
	add(p.Crib[ToneMode] != "" && len(k.Modes) == 0, "which tone modes it lists")
	add(p.Burst && k.Burst == "", "how the 1750 Hz burst is sent")
	return out
}

func (p *Profile) checkKeying(add func(field, message string, args ...any)) {
	k := p.Keying
	for s := range p.Crib {
		if s.Label() == "" {
			add("crib", "%q is not a setting of the crib", s)
		}
	}
	one := func(field, got string, of ...string) {
		if got != "" && !slices.Contains(of, got) {
			add(field, "%q: use %s", got, strings.Join(of, ", "))
		}
	}
	one("keyed_by", k.By, "keypad", "cable")
	one("store_line", k.StoresFrom, "upper", "lower")
	one("occupied", k.Occupied, "overwrites", "refuses")
	one("after_store", k.After, "vfo", "memory")
	one("burst_by", k.Burst, "setting", "mode", "key")
	for _, m := range k.Modes {
		if !slices.Contains(modes, m) {
			add("tone_modes", "%q is not a tone mode", m)
		}
	}
	if k.Figures != 0 && (k.Figures < p.MHzFigures()+1 || k.Figures > p.MHzFigures()+6) {
		add("frequency_digits", "a frequency of this radio has %d to %d figures, %d of them MHz, or 0 where a knob tunes", p.MHzFigures()+1, p.MHzFigures()+6, p.MHzFigures())
	}
	if k.SlotFigures < 0 || k.SlotFigures > 4 || k.SlotFigures > 0 && len(strconv.Itoa(p.Slots.Last)) > k.SlotFigures {
		add("slot_digits", "slot %d does not fit in %d figures", p.Slots.Last, k.SlotFigures)
	}
	if k.SlotSeconds < 0 || k.SlotSeconds > 60 {
		add("slot_seconds", "0 to 60 seconds")
	}
	if k.Registers < 0 || k.Registers > 2 {
		add("tone_registers", "one tone for both directions or two: write 1 or 2")
	}
	for _, s := range k.Keeps {
		if !slices.Contains(kept, s) {
			add("slot_keeps", "%q is nothing that a slot keeps", s)
		}
	}
	for _, s := range slices.Concat(k.Ends, k.First) {
		if !slices.Contains(lists, s) {
			add("stop_at_ends", "%q is not chosen from a list", s)
		}
	}
	for s, v := range k.Resting {
		if !slices.Contains(lists, s) {
			add("resting", "%q is nothing that is put back", s)
		} else if values := p.Values(s); !slices.Contains(values, v) {
			add("resting", "%s cannot rest at %q: it has %s", s.Label(), v, strings.Join(values, ", "))
		}
	}
	for s := range p.Display.Shows {
		if s.Label() == "" {
			add("display", "%q is nothing that a display shows", s)
		}
	}
}
