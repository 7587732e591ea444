package radio

import (
	"fmt"
	"maps"
	"slices"
	"strings"
)

// keying are the fields of how a radio behaves under the hands.
func keying() []Field {
	const group = "under your hands"
	settings := func(key, label string, at func(*Profile) *[]Setting, allowed ...Setting) Field {
		return listOf(key, group, label, join(allowed[:min(2, len(allowed))]), at, allowed...)
	}
	lists := []Setting{Step, AutoShift, ShiftDirection, Lock, ToneMode, ToneOut, ToneIn, CodeOut, CodeIn, Burst, Width, Power, Skip, Priority}
	return []Field{
		choice("keyed_by", group, "is filled by", func(p *Profile) *string { return &p.Keying.By }, "", "keypad", "cable"),
		number("frequency_digits", group, "figures typed for a frequency; 0 for a knob", "6", func(p *Profile) *int { return &p.Keying.Figures }),
		number("slot_digits", group, "figures typed for a slot; 0 for a knob", "3", func(p *Profile) *int { return &p.Keying.SlotFigures }),
		number("slot_seconds", group, "seconds to choose a slot; 0 for no limit", "5", func(p *Profile) *int { return &p.Keying.SlotSeconds }),
		choice("store_line", group, "stores from the line", func(p *Profile) *string { return &p.Keying.StoresFrom }, "", "upper", "lower"),
		choice("occupied", group, "a store into an occupied slot", func(p *Profile) *string { return &p.Keying.Occupied }, "", "overwrites", "refuses"),
		settings("slot_keeps", "what a store leaves in the slot", func(p *Profile) *[]Setting { return &p.Keying.Keeps }, Name, Skip, Priority, Transmit),
		choice("after_store", group, "a store leaves it in", func(p *Profile) *string { return &p.Keying.After }, "", "vfo", "memory"),
		number("tone_registers", group, "tones kept: 1 for both directions, or 2", "2", func(p *Profile) *int { return &p.Keying.Registers }),
		listOf("tone_modes", group, "tone modes, in their order", "off, tone, tone squelch", func(p *Profile) *[]Mode { return &p.Keying.Modes }, modes...),
		choice("burst_by", group, "the 1750 Hz burst is", func(p *Profile) *string { return &p.Keying.Burst }, "", "setting", "mode", "key"),
		settings("stop_at_ends", "lists that stop at their ends", func(p *Profile) *[]Setting { return &p.Keying.Ends }, lists...),
		settings("open_at_first", "lists that open at their first value", func(p *Profile) *[]Setting { return &p.Keying.First }, lists...),
		resting(group),
	}
}

func listOf[T ~string](key, group, label, hint string, at func(*Profile) *[]T, allowed ...T) Field {
	return Field{
		Key: key, Group: group, Label: label, Hint: hint,
		get: func(p *Profile) string { return join(*at(p)) },
		set: func(p *Profile, s string) error {
			var out []T
			err := list(s, func(part string) error {
				if !slices.Contains(allowed, T(part)) {
					return fmt.Errorf("%q: use %s", part, join(allowed))
				}
				out = append(out, T(part))
				return nil
			})
			*at(p) = out
			return err
		},
	}
}

// resting reads settings with the values to which a sheet puts them back:
// "automatic_shift on, step 12.5".
func resting(group string) Field {
	return Field{
		Key: "resting", Group: group, Label: "put back after each sheet", Hint: "automatic_shift on, step 12.5",
		get: func(p *Profile) string {
			var parts []string
			for _, s := range slices.Sorted(maps.Keys(p.Keying.Resting)) {
				parts = append(parts, string(s)+" "+p.Keying.Resting[s])
			}
			return strings.Join(parts, ", ")
		},
		set: func(p *Profile, text string) error {
			var out map[Setting]string
			err := list(text, func(part string) error {
				name, value, ok := strings.Cut(part, " ")
				if !ok {
					return fmt.Errorf("%q: write a setting and its value, such as automatic_shift on", part)
				}
				out = with(out, Setting(name), strings.TrimSpace(value))
				return nil
			})
			p.Keying.Resting = out
			return err
		},
	}
}
