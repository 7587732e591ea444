package radio

import (
	"slices"

	"mnemos/core/band"
	"mnemos/core/freq"
)

// Fields are the lines of the form, in the order in which they are asked.
var Fields = slices.Concat([]Field{
	text("name", "radio", "name", "My radio", func(p *Profile) *string { return &p.Name }),
	choice("form", "radio", "form", func(p *Profile) *string { return &p.Form }, "handheld", "mobile", "base"),
	words("checked", "radio", "checked on the radio", "bands, slots", func(p *Profile) *[]string { return &p.Checked }, partWords()...),
	text("notes", "radio", "notes", "firmware, what a menu accepts without effect", func(p *Profile) *string { return &p.Notes }),
	slots(),
	words("special_slots", "memory", "special slots", "call, home", func(p *Profile) *[]string { return &p.Special }, "call", "home"),
	number("name_length", "memory", "longest name", "6", func(p *Profile) *int { return &p.Names.Length }),
	text("name_characters", "memory", "characters it can show", "ABC…0123456789 -", func(p *Profile) *string { return &p.Names.Characters }),
	yes("name_keypad", "memory", "names can be keyed in", func(p *Profile) *bool { return &p.Names.Keypad }),
	ranges("receive", "receives, MHz", func(p *Profile) *[]band.Span { return &p.Receive }),
	ranges("transmit", "transmits, MHz", func(p *Profile) *[]band.Span { return &p.Transmit }),
	steps(),
	words("widths", "frequencies", "bandwidths", "wide, narrow", func(p *Profile) *[]string { return &p.Widths }, "wide", "narrow"),
	entry(),
	choice("automatic_region", "shift", "auto-shift follows", func(p *Profile) *string { return &p.AutoFrom }, append([]string{""}, band.Regions()...)...),
	megahertz("offset_max", "shift", "largest shift, MHz", "69.95", func(p *Profile) *freq.Offset { return &p.Offsets.Max }),
	megahertz("offset_resolution", "shift", "in steps of, MHz", "0.05", func(p *Profile) *freq.Offset { return &p.Offsets.Resolution }),
	table("ctcss", "CTCSS tones", func(p *Profile) *int { return &p.CTCSS }, "50", "38"),
	extra(),
	table("dcs", "DCS codes", func(p *Profile) *int { return &p.DCS }, "104", "83", "0"),
	yes("inverted_dcs", "tones", "inverted codes", func(p *Profile) *bool { return &p.Inverted }),
	yes("separate_tones", "tones", "separate tones out and in", func(p *Profile) *bool { return &p.Separate }),
	yes("burst", "tones", "1750 Hz burst", func(p *Profile) *bool { return &p.Burst }),
	watts(),
	yes("transmit_lock", "transmitter", "can block its transmitter", func(p *Profile) *bool { return &p.Lock }),
	number("timeout", "transmitter", "time-out of an over, min", "3", func(p *Profile) *int { return &p.Timeout }),
	choice("receivers", "scanning", "listens to", func(p *Profile) *Receivers { return &p.Receivers }, One, DualWatch, DualReceive),
	rate(),
	words("scan_resume", "scanning", "scan goes on by", "time, carrier", func(p *Profile) *[]string { return &p.Scan.Resume }, "time", "carrier", "search"),
	number("scan_lists", "scanning", "scan lists", "0", func(p *Profile) *int { return &p.Scan.Lists }),
	yes("scan_skip", "scanning", "channels can be skipped", func(p *Profile) *bool { return &p.Scan.Skip }),
	yes("relay", "relay and packets", "cross-band relay", func(p *Profile) *bool { return &p.Relay.CrossBand }),
	yes("relay_identifier", "relay and packets", "the relay identifies by itself", func(p *Profile) *bool { return &p.Relay.Identifier }),
	yes("aprs", "relay and packets", "APRS modem", func(p *Profile) *bool { return &p.APRS.Modem }),
	number("aprs_texts", "relay and packets", "status texts", "5", func(p *Profile) *int { return &p.APRS.Texts }),
	number("decimals", "display", "digits after the point", "3", func(p *Profile) *int { return &p.Display.Decimals }),
	text("shows_plus", "display", "shows for a plus shift", "+", func(p *Profile) *string { return &p.Display.Plus }),
	text("shows_minus", "display", "shows for a minus shift", "−", func(p *Profile) *string { return &p.Display.Minus }),
	text("shows_split", "display", "shows for a split", "+−", func(p *Profile) *string { return &p.Display.Split }),
	mark("shows_tone", "shows for a tone", "T", "tone"),
	mark("shows_squelch", "shows for tone squelch", "T SQ", "tone squelch"),
	mark("shows_code", "shows for a code", "DCS", "dcs"),
}, keying(), crib())

func partWords() []string {
	out := make([]string, len(Parts))
	for i, p := range Parts {
		out[i] = string(p)
	}
	return out
}

func entry() Field {
	f := choice("entry", "shift", "how you set a shift", func(p *Profile) *Entry { return &p.Entry }, Menu, Automatic, Columns, Split, Twice)
	for _, o := range f.Options {
		f.Says = append(f.Says, Entry(o).Says())
	}
	return f
}

func mark(key, label, hint, mode string) Field {
	return Field{
		Key: key, Group: "display", Label: label, Hint: hint,
		get: func(p *Profile) string { return p.Display.Modes[mode] },
		set: func(p *Profile, s string) error {
			p.Display.Modes = with(p.Display.Modes, mode, s)
			p.Display.Modes[mode] = s
			return nil
		},
	}
}

// crib is where each setting is on this radio, in the owner's own words; the
// keypad sheet prints them beside the steps.
func crib() []Field {
	var out []Field
	for _, c := range Cribs {
		out = append(out, Field{
			Key: "crib_" + string(c.Setting), Group: "crib", Label: c.Label, Hint: hints[c.Setting],
			get: func(p *Profile) string { return p.Crib[c.Setting] },
			set: func(p *Profile, s string) error {
				p.Crib = with(p.Crib, c.Setting, s) // a profile shares the map of the one it was copied from
				return nil
			},
		})
	}
	return out
}

// hints are examples of the notation of a crib.
var hints = map[Setting]string{
	VFO:            "press VFO",
	Receive:        "type the digits",
	ShiftDirection: "press SHIFT until it shows",
	ShiftSize:      "press MENU 7, type the digits, press MENU",
	Store:          "hold STORE, type the number, press STORE",
	Recall:         "press MR, type the number",
	Name:           "press MENU 30, spell with UP and OK, press MENU",
	ReadOut:        "hold REV",
	ToneMode:       "press MENU 11, press UP or DOWN until it shows, press MENU",
}

// with returns a copy of m with one value set, or taken out where it is empty.
func with[K comparable](m map[K]string, k K, v string) map[K]string {
	out := map[K]string{}
	for key, value := range m {
		if key != k {
			out[key] = value
		}
	}
	if v != "" {
		out[k] = v
	}
	return out
}
