package radio

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/tone"
)

// Field is one line of the form in which a profile is edited: texts, as a
// person types them.
type Field struct {
	Key     string   `json:"key"`
	Group   string   `json:"group"`
	Label   string   `json:"label"`
	Hint    string   `json:"hint"`    // an example of what to type
	Options []string `json:"options"` // empty where anything can be typed
	Says    []string `json:"says"`    // a sentence for each option that needs one
	get     func(*Profile) string
	set     func(*Profile, string) error
}

// FieldError is what is wrong with one field.
type FieldError struct {
	Field, Message string
}

// Form returns the profile as texts, by the keys of Fields.
func Form(p *Profile) map[string]string {
	out := make(map[string]string, len(Fields))
	for _, f := range Fields {
		out[f.Key] = f.get(p)
	}
	return out
}

// FromForm reads a profile from texts. A field that is missing keeps what the
// profile had. Every field that cannot be read, or that does not go with the
// others, is named.
func FromForm(p Profile, texts map[string]string) (*Profile, []FieldError) {
	var errs []FieldError
	for _, f := range Fields {
		text, ok := texts[f.Key]
		if !ok {
			continue
		}
		text = strings.TrimSpace(text)
		if len(f.Options) > 0 && !slices.Contains(f.Options, text) {
			errs = append(errs, FieldError{f.Key, fmt.Sprintf("%q: use %s", text, strings.Join(f.Options, ", "))})
			continue
		}
		if err := f.set(&p, text); err != nil {
			errs = append(errs, FieldError{f.Key, err.Error()})
		}
	}
	if len(errs) == 0 {
		errs = p.Check()
	}
	return &p, errs
}

// Check reports what in a profile does not go together.
func (p *Profile) Check() []FieldError {
	var errs []FieldError
	add := func(field, message string, args ...any) {
		errs = append(errs, FieldError{field, fmt.Sprintf(message, args...)})
	}
	if p.Name == "" || len([]rune(p.Name)) > 24 {
		add("name", "a radio needs a name of up to 24 characters")
	}
	if p.Slots.First < 0 || p.Slots.Last < p.Slots.First || p.Slots.Last > 9999 {
		add("slots", "write the first and the last slot, such as 1-200")
	}
	if len(p.Receive) == 0 {
		add("receive", "write what it receives in MHz, such as 136-174, 400-480")
	}
	for _, s := range p.Transmit {
		if !p.CanReceive(s.Lower) || !p.CanReceive(s.Upper) {
			add("transmit", "%s to %s: it has to receive where it transmits", s.Lower.MHz(), s.Upper.MHz())
			break
		}
	}
	if len(p.Steps) == 0 {
		add("steps", "write its tuning steps in kHz, such as 5, 12.5, 25")
	}
	if p.Names.Length < 0 || p.Names.Length > 40 {
		add("name_length", "a number of characters from 0 to 40")
	}
	if len(p.Widths) == 0 {
		add("widths", "write wide, narrow or both")
	}
	if p.Entry == Automatic && p.AutoFrom == "" {
		add("automatic_region", "a radio that shifts by itself has the table of a region: %s", strings.Join(band.Regions(), ", "))
	}
	if p.AutoFrom != "" && !slices.Contains(band.Regions(), p.AutoFrom) {
		add("automatic_region", "%q is not a region: use one of %s", p.AutoFrom, strings.Join(band.Regions(), ", "))
	}
	if d := p.Display.Decimals; d < 0 || d > 6 {
		add("decimals", "a display has 0 to 6 digits after the point")
	}
	if p.Relay.CrossBand && p.Receivers != DualReceive {
		add("relay", "a cross-band relay needs two receivers: dual watch will not do")
	}
	if p.Offsets.Resolution <= 0 || p.Offsets.Max < p.Offsets.Resolution {
		add("offset_max", "write the largest shift and its resolution in MHz, such as 69.95 and 0.05")
	}
	if w := p.Watts; !within(w.High, 0.001, 1500) || !within(w.Low, 0.001, w.High) || !within(w.Mid, 0, w.High) {
		add("watts", "write its power levels in watts, the highest first, such as 5, 2.5, 1")
	}
	if !within(p.Scan.Rate, 0, 1000) {
		add("scan_rate", "write channels per second, such as 4.3")
	}
	p.checkKeying(add)
	for _, f := range Fields {
		if text := f.get(p); len(text) > longestText || strings.ContainsFunc(text, func(r rune) bool { return !unicode.IsPrint(r) }) {
			add(f.Key, "write up to %d plain characters, without line breaks", longestText)
		}
	}
	return errs
}

// longestText is how long any text of a profile may be, in bytes.
const longestText = 1000

// within reports whether v lies in a range; what is not a number does not.
func within(v, least, most float64) bool { return v >= least && v <= most }

func text(key, group, label, hint string, at func(*Profile) *string) Field {
	return Field{
		Key: key, Group: group, Label: label, Hint: hint,
		get: func(p *Profile) string { return *at(p) }, set: func(p *Profile, s string) error { *at(p) = s; return nil },
	}
}

func choice[T ~string](key, group, label string, at func(*Profile) *T, options ...T) Field {
	f := Field{Key: key, Group: group, Label: label, get: func(p *Profile) string { return string(*at(p)) }}
	f.set = func(p *Profile, s string) error { *at(p) = T(s); return nil }
	for _, o := range options {
		f.Options = append(f.Options, string(o))
	}
	return f
}

func yes(key, group, label string, at func(*Profile) *bool) Field {
	return Field{
		Key: key, Group: group, Label: label, Options: []string{"yes", "no"},
		get: func(p *Profile) string {
			if *at(p) {
				return "yes"
			}
			return "no"
		},
		set: func(p *Profile, s string) error { *at(p) = s == "yes"; return nil },
	}
}

func number(key, group, label, hint string, at func(*Profile) *int) Field {
	return Field{
		Key: key, Group: group, Label: label, Hint: hint,
		get: func(p *Profile) string { return strconv.Itoa(*at(p)) },
		set: func(p *Profile, s string) error {
			n, err := strconv.Atoi(s)
			if err != nil || n < 0 {
				return fmt.Errorf("%q: write a whole number", s)
			}
			*at(p) = n
			return nil
		},
	}
}

// list reads a text of parts between commas.
func list(s string, each func(string) error) error {
	for _, part := range strings.Split(s, ",") {
		if part = strings.TrimSpace(part); part == "" {
			continue
		}
		if err := each(part); err != nil {
			return err
		}
	}
	return nil
}

func ranges(key, label string, at func(*Profile) *[]band.Span) Field {
	return Field{
		Key: key, Group: "frequencies", Label: label, Hint: "136-174, 400-480",
		get: func(p *Profile) string {
			var parts []string
			for _, s := range *at(p) {
				parts = append(parts, plain(s.Lower)+"-"+plain(s.Upper))
			}
			return strings.Join(parts, ", ")
		},
		set: func(p *Profile, s string) error {
			var out []band.Span
			err := list(strings.ReplaceAll(s, "–", "-"), func(part string) error {
				lower, upper, ok := strings.Cut(part, "-")
				a, err1 := freq.Parse(strings.TrimSpace(lower) + " MHz")
				b, err2 := freq.Parse(strings.TrimSpace(upper) + " MHz")
				if !ok || err1 != nil || err2 != nil || a >= b {
					return fmt.Errorf("%q is not a range: write MHz from-to, such as 136-174", part)
				}
				out = append(out, band.Span{Lower: a, Upper: b})
				return nil
			})
			*at(p) = out
			return err
		},
	}
}

// plain is a frequency in MHz without needless zeros.
func plain(f freq.Hz) string {
	return strings.TrimSuffix(strings.TrimRight(f.MHz(), "0"), ".")
}

func megahertz(key, group, label, hint string, at func(*Profile) *freq.Offset) Field {
	return Field{
		Key: key, Group: group, Label: label, Hint: hint,
		get: func(p *Profile) string { return plain(freq.Hz(*at(p))) },
		set: func(p *Profile, s string) error {
			n, err := freq.Scale(s, freq.MHz)
			if err != nil {
				return fmt.Errorf("%q: write MHz, such as %s", s, hint)
			}
			*at(p) = freq.Offset(n)
			return nil
		},
	}
}

func slots() Field {
	return Field{
		Key: "slots", Group: "memory", Label: "slots", Hint: "1-200",
		get: func(p *Profile) string { return fmt.Sprintf("%d-%d", p.Slots.First, p.Slots.Last) },
		set: func(p *Profile, s string) error {
			from, to, both := strings.Cut(strings.ReplaceAll(s, "–", "-"), "-")
			if !both {
				from, to = "1", from // so many slots, counted from 1
			}
			first, err := strconv.Atoi(strings.TrimSpace(from))
			last, err2 := strconv.Atoi(strings.TrimSpace(to))
			if err != nil || err2 != nil {
				return fmt.Errorf("%q: write the first and the last slot, such as 1-200", s)
			}
			p.Slots.First, p.Slots.Last = first, last
			return nil
		},
	}
}

func steps() Field {
	return Field{
		Key: "steps", Group: "frequencies", Label: "tuning steps, kHz", Hint: "5, 6.25, 12.5, 25",
		get: func(p *Profile) string {
			var parts []string
			for _, s := range p.Steps {
				parts = append(parts, strconv.FormatFloat(float64(s)/freq.KHz, 'f', -1, 64))
			}
			return strings.Join(parts, ", ")
		},
		set: func(p *Profile, s string) error {
			p.Steps = nil
			values, err := numbers(s, likelySteps)
			if err != nil {
				return fmt.Errorf("%q is not a list of tuning steps: write kHz, such as 5; 6,25; 12,5 or 5, 6.25, 12.5", s)
			}
			for _, v := range values {
				n, err := freq.Scale(strconv.FormatFloat(v, 'f', -1, 64), freq.KHz)
				if err != nil || n <= 0 {
					return fmt.Errorf("%g is not a tuning step: write kHz, such as 12.5", v)
				}
				p.Steps = append(p.Steps, freq.Hz(n))
			}
			return nil
		},
	}
}

func words(key, group, label, hint string, at func(*Profile) *[]string, allowed ...string) Field {
	return Field{
		Key: key, Group: group, Label: label, Hint: hint,
		get: func(p *Profile) string { return strings.Join(*at(p), ", ") },
		set: func(p *Profile, s string) error {
			out := []string{}
			err := list(s, func(part string) error {
				if !slices.Contains(allowed, part) {
					return fmt.Errorf("%q: use %s", part, strings.Join(allowed, ", "))
				}
				out = append(out, part)
				return nil
			})
			*at(p) = out
			return err
		},
	}
}

func table(key, label string, at func(*Profile) *int, sizes ...string) Field {
	f := number(key, "tones", label, "", at)
	f.Options = sizes
	return f
}

func extra() Field {
	return Field{
		Key: "extra_ctcss", Group: "tones", Label: "tones beside the table", Hint: "150.0",
		get: func(p *Profile) string {
			var parts []string
			for _, t := range p.Extra {
				parts = append(parts, t.String())
			}
			return strings.Join(parts, ", ")
		},
		set: func(p *Profile, s string) error {
			p.Extra = nil
			return list(s, func(part string) error {
				t, err := tone.Parse(part)
				if err == nil && t.Kind() == tone.CTCSS {
					p.Extra = append(p.Extra, t)
				}
				return err
			})
		},
	}
}

func watts() Field {
	return Field{
		Key: "watts", Group: "transmitter", Label: "power levels, W, highest first", Hint: "5, 2.5, 1",
		get: func(p *Profile) string {
			var parts []string
			for _, w := range p.Watts.Levels() {
				parts = append(parts, strconv.FormatFloat(w, 'g', -1, 64))
			}
			return strings.Join(parts, ", ")
		},
		set: func(p *Profile, s string) error {
			levels, err := numbers(s, likelyWatts)
			if err == nil && slices.ContainsFunc(levels, func(w float64) bool { return !within(w, 0.001, 1500) }) {
				err = fmt.Errorf("%q: watts are 0.001 to 1500", s)
			}
			if err != nil {
				return fmt.Errorf("%q: write one, two or more numbers of watts, such as 5 or 50, 10, 5", s)
			}
			p.Watts = WattsOf(levels)
			return nil
		},
	}
}

func rate() Field {
	return Field{
		Key: "scan_rate", Group: "scanning", Label: "channels per second", Hint: "4.3",
		get: func(p *Profile) string { return strconv.FormatFloat(p.Scan.Rate, 'g', -1, 64) },
		set: func(p *Profile, s string) error {
			v, err := strconv.ParseFloat(s, 64)
			if err != nil || !within(v, 0, 1000) {
				return fmt.Errorf("%q: write channels per second, such as 4.3", s)
			}
			p.Scan.Rate = v
			return nil
		},
	}
}
