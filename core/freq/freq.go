// Package freq holds radio frequencies and repeater offsets as whole hertz.
//
// A frequency is never a floating-point number: 446.00625 MHz is exactly
// 446006250 Hz, and a sum of receive frequency and offset is exact.
//
//	rx := freq.MustParse("147.24")       // 147240000 Hz
//	tx := rx.Add(freq.MustParseOffset("+600 kHz"))
//	fmt.Println(tx)                       // 147.840 MHz
package freq

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Hz is a frequency in hertz. The zero value means "no frequency".
type Hz int64

// Offset is a signed frequency difference in hertz: transmit minus receive at
// the radio, which is input minus output at the repeater.
type Offset int64

// Named multiples of one hertz.
const (
	KHz = 1_000
	MHz = 1_000_000
)

// Max is the highest frequency that Parse accepts, 3 GHz: beyond every band
// in which FM repeaters are published.
const Max Hz = 3_000 * MHz

// Add returns the frequency moved by o.
func (f Hz) Add(o Offset) Hz { return f + Hz(o) }

// Sub returns the offset that leads from g to f.
func (f Hz) Sub(g Hz) Offset { return Offset(f - g) }

// Within reports whether f lies in the closed range [lower, upper].
func (f Hz) Within(lower, upper Hz) bool { return lower <= f && f <= upper }

// MHz formats f in megahertz with three decimals, or as many more as it
// needs: "147.240", "446.00625".
func (f Hz) MHz() string { return megahertz(int64(f)) }

// String formats f with its unit: "147.240 MHz".
func (f Hz) String() string { return f.MHz() + " MHz" }

// MHz formats o in megahertz with an explicit sign in ASCII: "+0.600",
// "-5.000".
func (o Offset) MHz() string {
	if o < 0 {
		return "-" + megahertz(-int64(o))
	}
	return "+" + megahertz(int64(o))
}

// String formats o in the unit in which it is usually spoken, with a true
// minus sign: "−600 kHz", "+7.600 MHz".
func (o Offset) String() string {
	text := o.MHz() + " MHz"
	if a := o.Abs(); a < MHz && a%KHz == 0 {
		text = fmt.Sprintf("%+d kHz", int64(o)/KHz)
	}
	return strings.Replace(text, "-", "−", 1)
}

// Abs returns the size of the offset without its sign.
func (o Offset) Abs() Offset {
	if o < 0 {
		return -o
	}
	return o
}

// SameFigures reports whether the sizes of o and p are written with the same
// figures and another point or unit: one is the other times a power of ten.
func (o Offset) SameFigures(p Offset) bool {
	a, b := o.Abs(), p.Abs()
	if a == b || a == 0 || b == 0 {
		return false
	}
	for a < b {
		a *= 10
	}
	for b < a {
		b *= 10
	}
	return a == b
}

// Sign returns -1, 0 or +1.
func (o Offset) Sign() int {
	switch {
	case o < 0:
		return -1
	case o > 0:
		return 1
	}
	return 0
}

func megahertz(n int64) string {
	buf := make([]byte, 0, 16)
	if n < 0 {
		buf, n = append(buf, '-'), -n
	}
	buf = strconv.AppendInt(buf, n/MHz, 10)
	point := len(buf)
	buf = strconv.AppendInt(buf, MHz+n%MHz, 10) // seven figures, of which the first makes room for the point
	buf[point] = '.'
	end := len(buf)
	for end > point+4 && buf[end-1] == '0' {
		end--
	}
	return string(buf[:end])
}

// Unit is the size in hertz of a unit as people write it.
type Unit int64

// ParseUnit reads a unit word: "Hz", "kHz", "k", "MHz", "M", in any case.
func ParseUnit(s string) (Unit, bool) {
	switch strings.ToLower(s) {
	case "hz", "hertz":
		return 1, true
	case "khz", "k", "kc", "kilohertz":
		return KHz, true
	case "mhz", "m", "mc", "megahertz":
		return MHz, true
	}
	return 0, false
}

// Scale reads the unsigned decimal number s (point or comma) in the given
// unit and returns whole hertz. It fails if a fraction of a hertz is left
// over or the number does not fit.
func Scale(s string, unit Unit) (int64, error) {
	whole, frac, _ := strings.Cut(strings.Replace(s, ",", ".", 1), ".")
	if whole+frac == "" || !digits(whole) || !digits(frac) {
		return 0, fmt.Errorf("%q is not a number: use digits and one decimal point", s)
	}
	if len(whole) > 10 {
		return 0, fmt.Errorf("%q has too many digits", s)
	}
	var n int64
	if whole != "" {
		v, err := strconv.ParseInt(whole, 10, 64)
		if err != nil || v > math.MaxInt64/int64(unit)/2 {
			return 0, fmt.Errorf("%q is too large", s)
		}
		n = v * int64(unit)
	}
	place := int64(unit)
	for _, d := range frac {
		if place%10 != 0 && d != '0' {
			return 0, fmt.Errorf("%q is finer than 1 Hz", s)
		}
		place /= 10
		n += int64(d-'0') * place
	}
	return n, nil
}

func digits(s string) bool {
	for i := range len(s) {
		if s[i] < '0' || s[i] > '9' {
			return false
		}
	}
	return true
}

// split parts "146.52 MHz" or "600k" into number and unit; unit is "" if none
// was written.
func split(s string) (number, unit string) {
	s = strings.TrimSpace(s)
	i := len(s)
	for i > 0 && (s[i-1] < '0' || s[i-1] > '9') && s[i-1] != '.' && s[i-1] != ',' {
		i--
	}
	return s[:i], strings.TrimSpace(s[i:])
}

// Parse reads a frequency. A number without a unit is in megahertz if it has
// a decimal point or comma; digits alone must carry a unit, because "146520"
// is kilohertz and "14652" is neither (package entry guesses those and says
// that it does). The range is 1 Hz to Max.
func Parse(s string) (Hz, error) {
	number, word := split(s)
	unit := Unit(MHz)
	if word != "" {
		u, ok := ParseUnit(word)
		if !ok {
			return 0, fmt.Errorf("frequency %q: unit %q is not known, use MHz, kHz or Hz", s, word)
		}
		unit = u
	} else if !strings.ContainsAny(number, ".,") {
		return 0, fmt.Errorf("frequency %q: write a decimal point (146.520) or a unit (146520 kHz)", s)
	}
	n, err := Scale(number, unit)
	if err != nil {
		return 0, fmt.Errorf("frequency %w", err)
	}
	if n <= 0 || Hz(n) > Max {
		return 0, fmt.Errorf("frequency %q is outside 1 Hz to %v", s, Max)
	}
	return Hz(n), nil
}

// MustParse is Parse for constants; it panics on bad input.
func MustParse(s string) Hz {
	f, err := Parse(s)
	if err != nil {
		panic(err)
	}
	return f
}

// ParseOffset reads a signed offset: "+600 kHz", "-0.6", "−7.6 MHz". Without
// a unit a number with a decimal point or below 100 is in megahertz, any
// other in kilohertz.
func ParseOffset(s string) (Offset, error) {
	t := strings.TrimSpace(strings.Replace(s, "−", "-", 1))
	sign := Offset(1)
	switch {
	case strings.HasPrefix(t, "-"):
		sign = -1
	case strings.HasPrefix(t, "+"):
	default:
		return 0, fmt.Errorf("offset %q: begin with + or -", s)
	}
	size, err := ParseSize(strings.TrimSpace(t[1:]))
	if err != nil {
		return 0, fmt.Errorf("offset %q: %w", s, err)
	}
	return sign * size, nil
}

// ParseSize reads the size of an offset without its sign, by the same unit
// rules as ParseOffset. The largest is 1 GHz.
func ParseSize(s string) (Offset, error) {
	number, word := split(s)
	unit := Unit(MHz)
	if word != "" {
		u, ok := ParseUnit(word)
		if !ok {
			return 0, fmt.Errorf("unit %q is not known, use kHz or MHz", word)
		}
		unit = u
	} else if !strings.ContainsAny(number, ".,") && len(strings.TrimLeft(number, "0")) >= 3 {
		unit = KHz
	}
	n, err := Scale(number, unit)
	if err != nil {
		return 0, err
	}
	if n > 1_000*MHz {
		return 0, fmt.Errorf("%q is more than 1 GHz", s)
	}
	return Offset(n), nil
}

// MustParseOffset is ParseOffset for constants; it panics on bad input.
func MustParseOffset(s string) Offset {
	o, err := ParseOffset(s)
	if err != nil {
		panic(err)
	}
	return o
}
