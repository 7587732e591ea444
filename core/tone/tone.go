// Package tone knows the sub-audible tones and codes that open a squelch:
// CTCSS tones, DCS codes with their polarity, and the 1750 Hz burst that some
// repeaters want instead.
//
// A Tone is a small comparable value; the zero value is "no tone".
//
//	t := tone.MustParse("103.5")   // CTCSS
//	d := tone.MustParse("D023N")   // DCS, normal polarity
package tone

import (
	"encoding/json"
	"fmt"
	"strconv"
	"strings"
)

// Kind is what sort of tone a Tone is.
type Kind uint8

// The kinds of tone.
const (
	None  Kind = iota
	CTCSS      // continuous tone, 60 to 260 Hz
	DCS        // 23-bit code word at 134.4 bit/s
	Burst      // 1750 Hz for about a second at the start of an over
)

// Tone is one tone or code.
type Tone struct {
	kind     Kind
	value    uint16 // CTCSS: tenths of a hertz; DCS: the nine-bit code
	inverted bool
}

// Off is the absence of a tone.
var Off = Tone{}

// Burst1750 is the 1750 Hz tone burst.
var Burst1750 = Tone{kind: Burst, value: 17500}

// The range of frequencies that can be a CTCSS tone, in tenths of a hertz. It
// holds every standard tone and the few that radios offer beside them.
const (
	minCTCSS = 600
	maxCTCSS = 2600
)

// NewCTCSS returns the tone of the given frequency in tenths of a hertz.
func NewCTCSS(deciHertz int) (Tone, error) {
	if deciHertz < minCTCSS || deciHertz > maxCTCSS {
		return Off, fmt.Errorf("a CTCSS tone lies between %d and %d Hz", minCTCSS/10, maxCTCSS/10)
	}
	return Tone{kind: CTCSS, value: uint16(deciHertz)}, nil
}

// NewDCS returns the code with the given nine bits (023 octal is 19).
func NewDCS(code int, inverted bool) (Tone, error) {
	if code <= 0 || code > 0o777 {
		return Off, fmt.Errorf("a DCS code has three octal digits, 001 to 777")
	}
	return Tone{kind: DCS, value: uint16(code), inverted: inverted}, nil
}

// Kind returns the kind of t.
func (t Tone) Kind() Kind { return t.kind }

// IsOff reports whether t is the absence of a tone.
func (t Tone) IsOff() bool { return t.kind == None }

// DeciHertz returns the frequency of a CTCSS tone in tenths of a hertz, 17500
// for the burst, and 0 for a DCS code or none.
func (t Tone) DeciHertz() int {
	if t.kind == DCS {
		return 0
	}
	return int(t.value)
}

// Code returns the nine bits of a DCS code and its polarity.
func (t Tone) Code() (code int, inverted bool) {
	if t.kind != DCS {
		return 0, false
	}
	return int(t.value), t.inverted
}

// String formats t as it stands in files: "100.0", "D023N", "1750", "none".
func (t Tone) String() string {
	switch t.kind {
	case CTCSS:
		return fmt.Sprintf("%d.%d", t.value/10, t.value%10)
	case DCS:
		polarity := 'N'
		if t.inverted {
			polarity = 'I'
		}
		return fmt.Sprintf("D%03o%c", t.value, polarity)
	case Burst:
		return "1750"
	}
	return "none"
}

// Words formats t for people, always with its unit: "100.0 Hz", "D023N",
// "1750 Hz burst", "no tone".
func (t Tone) Words() string {
	switch t.kind {
	case CTCSS:
		return t.String() + " Hz"
	case Burst:
		return "1750 Hz burst"
	case None:
		return "no tone"
	}
	return t.String()
}

// Parse reads a tone in any of its usual spellings: "100", "100.0 Hz",
// "94,8", "D023N", "023I", "DCS 023", "1750", "none". Nothing is rounded: "141"
// is 141.0 Hz, which is not a standard tone (see Nearest). A DCS code without
// a polarity is normal.
func Parse(s string) (Tone, error) {
	t := strings.ToLower(strings.TrimSpace(s))
	switch t {
	case "none", "off", "-", "":
		return Off, nil
	}
	for _, p := range []string{"ctcss", "dcs", "dtcs", "dpl", "pl", "cg"} {
		if rest, ok := strings.CutPrefix(t, p); ok {
			t = strings.TrimSpace(rest)
			if p[0] == 'd' && !strings.HasPrefix(t, "d") {
				t = "d" + t
			}
			break
		}
	}
	if v, ok := parseDCS(t); ok {
		return v, nil
	}
	t = strings.TrimSpace(strings.TrimSuffix(strings.TrimSuffix(t, "hertz"), "hz"))
	whole, frac, _ := strings.Cut(strings.Replace(t, ",", ".", 1), ".")
	frac = strings.TrimRight(frac, "0")
	n, err := strconv.ParseUint(whole, 10, 16)
	if err != nil || len(frac) > 1 {
		return Off, fmt.Errorf("tone %q: write a CTCSS tone such as 103.5, a DCS code such as D023N, or 1750", s)
	}
	deci := int(n) * 10
	if frac != "" {
		if frac[0] < '0' || frac[0] > '9' {
			return Off, fmt.Errorf("tone %q: %q is not a digit", s, frac)
		}
		deci += int(frac[0] - '0')
	}
	if deci == 17500 {
		return Burst1750, nil
	}
	v, err := NewCTCSS(deci)
	if err != nil {
		return Off, fmt.Errorf("tone %q: %w", s, err)
	}
	return v, nil
}

// parseDCS reads "d023", "d023n", "023n", "023i", "023r" but not "023", which
// could be a number of anything.
func parseDCS(t string) (Tone, bool) {
	body, marked := strings.CutPrefix(t, "d")
	inverted := false
	if n := len(body); n == 4 {
		switch body[3] {
		case 'n':
		case 'i', 'r':
			inverted = true
		default:
			return Off, false
		}
		body, marked = body[:3], true
	}
	if !marked || len(body) != 3 {
		return Off, false
	}
	code, err := strconv.ParseUint(body, 8, 16)
	if err != nil {
		return Off, false
	}
	v, err := NewDCS(int(code), inverted)
	return v, err == nil
}

// MustParse is Parse for constants; it panics on bad input.
func MustParse(s string) Tone {
	t, err := Parse(s)
	if err != nil {
		panic(err)
	}
	return t
}

// MarshalText writes t as String does.
func (t Tone) MarshalText() ([]byte, error) { return []byte(t.String()), nil }

// UnmarshalText reads t as Parse does.
func (t *Tone) UnmarshalText(b []byte) (err error) {
	*t, err = Parse(string(b))
	return err
}

// MarshalJSON writes a string, or null for no tone.
func (t Tone) MarshalJSON() ([]byte, error) {
	if t.IsOff() {
		return []byte("null"), nil
	}
	return json.Marshal(t.String())
}

// UnmarshalJSON reads a string, or null for no tone.
func (t *Tone) UnmarshalJSON(b []byte) error {
	var s *string
	if err := json.Unmarshal(b, &s); err != nil {
		return fmt.Errorf("tone %s: write a string such as \"103.5\" or \"D023N\", or null", b)
	}
	if s == nil {
		*t = Off
		return nil
	}
	return t.UnmarshalText([]byte(*s))
}
