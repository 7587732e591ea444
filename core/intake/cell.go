package intake

import (
	"cmp"
	"fmt"
	"regexp"
	"strconv"
	"strings"
	"time"

	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

// frequency reads a cell with a frequency; a unit in the cell outweighs that
// of the column.
func frequency(cell string, u Unit) (freq.Hz, error) {
	n, err := scaled(cell, u.of())
	f := freq.Hz(n)
	if err == nil && (f <= 0 || f > freq.Max) {
		err = fmt.Errorf("%q is not a frequency between 0 and %s", cell, freq.Max)
	}
	if err != nil {
		return 0, fmt.Errorf("%w: write it in %s, such as %s", err, cmp.Or(u, MHz), map[Unit]string{MHz: "147.24", KHz: "147240", Hz: "147240000"}[cmp.Or(u, MHz)])
	}
	return f, nil
}

// scaled reads a number with or without a unit behind it.
func scaled(cell string, unit freq.Unit) (int64, error) {
	number := strings.TrimSpace(cell)
	i := strings.LastIndexAny(number, "0123456789") + 1
	if word := strings.TrimSpace(number[i:]); word != "" {
		u, ok := freq.ParseUnit(word)
		if !ok {
			return 0, fmt.Errorf("%q: %q is not a unit of frequency", cell, word)
		}
		unit, number = u, number[:i]
	}
	return freq.Scale(strings.ReplaceAll(number, " ", ""), unit)
}

// offset is what a cell about the shift says.
type offset struct {
	stated bool
	sign   int         // 0 where only a size is given
	size   freq.Offset // 0 where only a sign is given
	zero   bool        // simplex on purpose
	// blocked is set for a row that is only listened to.
	blocked bool
}

// shift reads a cell with a sign, a size or both.
func shift(cell string, u Unit) (offset, error) {
	t := strings.TrimSpace(cell)
	switch {
	case t == "" || t == "?" || plain(t) == "n/a" || plain(t) == "unknown":
		return offset{}, nil
	case is("minus", t):
		return offset{stated: true, sign: -1}, nil
	case is("plus", t):
		return offset{stated: true, sign: 1}, nil
	case is("simplex", t):
		return offset{stated: true, zero: true}, nil
	}
	o := offset{stated: true}
	rest := strings.TrimSpace(strings.NewReplacer("−", "-", "–", "-").Replace(t))
	for _, s := range []struct {
		text string
		sign int
	}{{"+/-", 0}, {"±", 0}, {"-", -1}, {"+", 1}} {
		if before, ok := strings.CutPrefix(rest, s.text); ok {
			o.sign, rest = s.sign, strings.TrimSpace(before)
			break
		}
		if after, ok := strings.CutSuffix(rest, s.text); ok {
			o.sign, rest = s.sign, strings.TrimSpace(after)
			break
		}
	}
	n, err := scaled(rest, u.of())
	if err != nil {
		return offset{}, fmt.Errorf("%w: write a sign, a size or both, such as -0.6", err)
	}
	if o.size = freq.Offset(n); n == 0 {
		return offset{stated: true, zero: true}, nil
	}
	return o, nil
}

var tonePrefix = regexp.MustCompile(`(?i)^(ctcss|dcs|dtcs|dpl|pl|cg|ts?q?|tone|enc|dec|tono|ton)[ :=.]*`)

// tones reads a cell with a tone, or with one out and one in.
func tones(cell string) (up, down listing.Stated, err error) {
	t := strings.TrimSpace(cell)
	if is("none", t) || is("unknown", t) || t == "" {
		up, err = toneOf(t)
		return up, listing.Stated{}, err
	}
	for _, sep := range []string{"|", ";", "→", "->", "/"} { // a slash may be part of N/A
		a, b, pair := strings.Cut(t, sep)
		if !pair {
			continue
		}
		if up, err = toneOf(a); err == nil {
			down, err = toneOf(b)
		}
		return up, down, err
	}
	up, err = toneOf(t)
	return up, listing.Stated{}, err
}

func toneOf(cell string) (listing.Stated, error) {
	t := strings.TrimSpace(cell)
	switch {
	case t == "" || is("unknown", t) || strings.Contains(plain(t), "dtmf"):
		return listing.Stated{}, nil
	case is("none", t) || strings.Trim(t, "0.,") == "":
		return listing.Says(tone.Off), nil
	case strings.Contains(plain(t), "burst") || strings.Contains(plain(t), "1750"):
		return listing.Says(tone.Burst1750), nil
	}
	if v, err := tone.Parse(t); err == nil {
		return listing.Says(v), nil
	}
	bare := tonePrefix.ReplaceAllString(t, "")
	lower := strings.ToLower(t)
	if strings.Contains(lower, "dcs") || strings.Contains(lower, "dpl") || strings.Contains(lower, "dtcs") {
		bare = "D" + strings.TrimLeft(strings.NewReplacer("DCS", "", "dcs", "", "DPL", "", "dpl", "", "DTCS", "", "dtcs", "").Replace(bare), "dD ")
	}
	v, err := tone.Parse(strings.TrimSpace(bare))
	if err != nil {
		return listing.Stated{}, fmt.Errorf("%q is not a tone: write 103.5, D023N, none, or leave it empty if it is unknown", cell)
	}
	return listing.Says(v), nil
}

var angle = regexp.MustCompile(`^([+-]?\d{1,3}(?:[.,]\d+)?)[°º\s]*(?:(\d{1,2}(?:[.,]\d+)?)['′\s]*)?(?:(\d{1,2}(?:[.,]\d+)?)(?:["″]|'')?)?$`)

// degrees reads a latitude or longitude: 41.02, 41,02, 41°01.2'N, N 41 1 12.
func degrees(cell, positive, negative string, limit float64) (float64, error) {
	wrong := func() (float64, error) {
		return 0, fmt.Errorf("%q is not an angle up to %g°: write degrees such as 41.02, or 41°01.2' with %s or %s", cell, limit, positive[:1], negative[:1])
	}
	t := strings.ToUpper(strings.TrimSpace(strings.NewReplacer("−", "-", "’", "'", "”", `"`).Replace(cell)))
	sign := 1.0
	for _, h := range []struct {
		letters string
		sign    float64
	}{{positive, 1}, {negative, -1}} {
		if u := strings.Trim(t, " "+h.letters); u != t {
			t, sign = u, h.sign
			break
		}
	}
	m := angle.FindStringSubmatch(t)
	if m == nil {
		return wrong()
	}
	v, scale := 0.0, 1.0
	for i, part := range m[1:] {
		if part == "" {
			continue
		}
		n, err := strconv.ParseFloat(strings.Replace(part, ",", ".", 1), 64)
		if err != nil || i > 0 && n >= 60 {
			return wrong()
		}
		if i == 0 && strings.HasPrefix(part, "-") {
			n, sign = -n, -sign
		}
		v += n / scale
		scale *= 60
	}
	if v > limit {
		return wrong()
	}
	return sign * v, nil
}

func latitude(cell string) (float64, error) { return degrees(cell, "N", "S", 90) }

// The letter for east is E, or O in German; west is W, or O in French and
// Spanish. O is therefore left out: it means both.
func longitude(cell string) (float64, error) { return degrees(cell, "E", "W", 180) }

// position reads both coordinates in one cell, or a locator.
func position(cell string) (geo.Point, error) {
	t := strings.TrimSpace(cell)
	if p, err := geo.ParseLocator(t); err == nil {
		return p, nil
	}
	for _, sep := range []string{";", ", ", ",", "/", "  "} {
		a, b, ok := strings.Cut(t, sep)
		if !ok || sep == "," && strings.Count(t, ",") != 1 {
			continue
		}
		lat, errA := latitude(a)
		lon, errB := longitude(b)
		if errA == nil && errB == nil {
			return geo.Point{Lat: lat, Lon: lon}, nil
		}
	}
	if f := strings.Fields(t); len(f) == 2 {
		lat, errA := latitude(f[0])
		lon, errB := longitude(f[1])
		if errA == nil && errB == nil {
			return geo.Point{Lat: lat, Lon: lon}, nil
		}
	}
	return geo.Point{}, fmt.Errorf("%q is not a position: write 41.02, -55.31 or a locator such as GN21ia", cell)
}

var (
	iso     = regexp.MustCompile(`^(\d{4})[-/.](\d{1,2})(?:[-/.](\d{1,2}))?(?:[T ].*)?$`)
	figured = regexp.MustCompile(`^(\d{1,2})[-/. ]+(\d{1,2})[-/. ]+(\d{4}|\d{2})(?: .*)?$`)
)

// date reads a day. A month alone is its first day: older is the safer error.
func date(cell string, order Order) (listing.Date, error) {
	t := strings.TrimSpace(cell)
	if m := iso.FindStringSubmatch(t); m != nil {
		return day(cell, m[1], m[2], m[3])
	}
	if m := figured.FindStringSubmatch(t); m != nil {
		year := m[3]
		if len(year) == 2 {
			year = "20" + year
		}
		if order == MDY {
			return day(cell, year, m[1], m[2])
		}
		return day(cell, year, m[2], m[1])
	}
	for _, layout := range []string{"2 Jan 2006", "2 January 2006", "Jan 2, 2006", "January 2, 2006", "Jan 2 2006", "January 2 2006", "Jan 2006", "January 2006", "01/2006", "20060102", "2-Jan-2006", "2-Jan-06"} {
		if v, err := time.Parse(layout, t); err == nil {
			return listing.Date{Time: v}, nil
		}
	}
	// A workbook keeps a day as the number of days since the end of 1899.
	if n, err := strconv.ParseFloat(t, 64); err == nil && n > 20_000 && n < 80_000 {
		return listing.Date{Time: time.Date(1899, 12, 30+int(n), 0, 0, 0, 0, time.UTC)}, nil
	}
	return listing.Date{}, fmt.Errorf("%q is not a date: write YYYY-MM-DD such as 2026-11-02", cell)
}

func day(cell, y, m, d string) (listing.Date, error) {
	if d == "" {
		d = "1"
	}
	v, err := time.Parse("2006-1-2", y+"-"+m+"-"+d)
	if err != nil || v.Year() < 1950 {
		return listing.Date{}, fmt.Errorf("%q is not in the calendar: write YYYY-MM-DD, or change the order of day and month", cell)
	}
	return listing.Date{Time: v}, nil
}

const foot = 0.3048 // metres, exactly

// height reads metres, or feet where the cell says so.
func height(cell string) (float64, error) {
	t := plain(cell)
	unit := 1.0
	for suffix, u := range map[string]float64{"feet": foot, "ft": foot, "'": foot, "metres": 1, "meters": 1, "m": 1} {
		if rest, ok := strings.CutSuffix(t, suffix); ok && len(rest) < len(t) {
			t, unit = strings.TrimSpace(rest), u
			break
		}
	}
	v, err := strconv.ParseFloat(strings.Replace(t, ",", ".", 1), 64)
	if err != nil || !(v >= 0 && v*unit <= 9000) { // NaN is neither
		return 0, fmt.Errorf("%q is not a height: write metres such as 180, or 590 ft", cell)
	}
	return v * unit, nil
}
