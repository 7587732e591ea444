package radio

import (
	"fmt"
	"slices"
	"strings"
)

// keying are the fields of how a radio behaves under the hands. An answer
// that is left empty is not known, and the keypad sheet says so.
func keying() []Field {
	const group = "under your hands"
	unknown := func(f Field) Field {
		f.Says = append([]string{"not known"}, f.Options[1:]...)
		return f
	}
	settings := func(key, label, hint string, at func(*Profile) *[]Setting, allowed ...Setting) Field {
		return listOf(key, group, label, hint, at, Setting.Label, allowed...)
	}
	return []Field{
		unknown(choice("keyed_by", group, "is filled by", func(p *Profile) *string { return &p.Keying.By }, "", "keypad", "cable")),
		number("frequency_digits", group, "figures typed for a frequency, 0 for a knob", "6", func(p *Profile) *int { return &p.Keying.Figures }),
		number("slot_digits", group, "figures typed for a slot, 0 for a knob", "3", func(p *Profile) *int { return &p.Keying.SlotFigures }),
		number("slot_seconds", group, "seconds to choose a slot, 0 for no limit", "5", func(p *Profile) *int { return &p.Keying.SlotSeconds }),
		choice("store_line", group, "stores from one line only", func(p *Profile) *string { return &p.Keying.StoresFrom }, "", "upper", "lower"),
		unknown(choice("occupied", group, "a store into an occupied slot", func(p *Profile) *string { return &p.Keying.Occupied }, "", "overwrites", "refuses")),
		settings("slot_keeps", "what a store leaves in the slot", "name, skip", func(p *Profile) *[]Setting { return &p.Keying.Keeps }, kept...),
		unknown(choice("after_store", group, "a store leaves it in", func(p *Profile) *string { return &p.Keying.After }, "", "vfo", "memory")),
		number("tone_registers", group, "tones kept: 1 for both directions, or 2", "2", func(p *Profile) *int { return &p.Keying.Registers }),
		listOf("tone_modes", group, "tone modes, in their order", "off, tone, tone squelch", func(p *Profile) *[]Mode { return &p.Keying.Modes }, func(m Mode) string { return string(m) }, modes...),
		unknown(choice("burst_by", group, "the 1750 Hz burst is a", func(p *Profile) *string { return &p.Keying.Burst }, "", "setting", "mode", "key")),
		settings("stop_at_ends", "lists that stop at their ends", "tuning step", func(p *Profile) *[]Setting { return &p.Keying.Ends }, lists...),
		settings("open_at_first", "lists that open at their first value", "tone sent", func(p *Profile) *[]Setting { return &p.Keying.First }, lists...),
		resting(group),
	}
}

var (
	// lists are the settings that are chosen from a list.
	lists = []Setting{Step, AutoShift, ShiftDirection, Lock, ToneMode, ToneOut, ToneIn, CodeOut, CodeIn, Burst, Width, Power, Skip, Priority}
	// kept is what a store may leave as it was.
	kept = []Setting{Name, Skip, Priority, Transmit}
)

func listOf[T ~string](key, group, label, hint string, at func(*Profile) *[]T, words func(T) string, allowed ...T) Field {
	var all []string
	for _, a := range allowed {
		all = append(all, words(a))
	}
	return Field{
		Key: key, Group: group, Label: label, Hint: hint,
		get: func(p *Profile) string {
			var parts []string
			for _, x := range *at(p) {
				parts = append(parts, words(x))
			}
			return strings.Join(parts, ", ")
		},
		set: func(p *Profile, s string) error {
			var out []T
			err := list(s, func(part string) error {
				i := slices.Index(all, part)
				if i < 0 {
					return fmt.Errorf("%q: use %s", part, strings.Join(all, ", "))
				}
				out = append(out, allowed[i])
				return nil
			})
			*at(p) = out
			return err
		},
	}
}

// resting reads settings with the values to which a sheet puts them back:
// "automatic shift on, tuning step 12.5".
func resting(group string) Field {
	return Field{
		Key: "resting", Group: group, Label: "put back after each sheet", Hint: "automatic shift on, tuning step 12.5",
		get: func(p *Profile) string {
			var parts []string
			for _, s := range lists {
				if v, ok := p.Keying.Resting[s]; ok {
					parts = append(parts, s.Label()+" "+v)
				}
			}
			return strings.Join(parts, ", ")
		},
		set: func(p *Profile, text string) error {
			var out map[Setting]string
			err := list(text, func(part string) error {
				for _, s := range lists {
					if value, ok := strings.CutPrefix(part, s.Label()+" "); ok {
						out = with(out, s, strings.TrimSpace(value))
						return nil
					}
				}
				return fmt.Errorf("%q: write a setting and its value, such as automatic shift on", part)
			})
			p.Keying.Resting = out
			return err
		},
	}
}
