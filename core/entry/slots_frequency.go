package entry

import (
	"fmt"
	"strconv"
	"strings"

	"mnemos/core/freq"
	"mnemos/core/service"
	"mnemos/core/tone"
)

// lowest is the lowest frequency that a number is read as.
const lowest = 25 * freq.MHz

// frequency reads what stands behind a word for it.
func (r *reading) frequency(at int, found func(int, value)) {
	t := r.at(at)
	if !t.number() {
		return
	}
	if r.withUnit(at, found) {
		return
	}
	if t.whole() {
		for _, f := range Candidates(t.low, r.plan)[:min(1, len(Candidates(t.low, r.plan)))] {
			found(1, value{hz: f, guess: f.MHz() + "?"})
		}
		return
	}
	r.decimal(t.low, func(v value) {
		if parsed, err := tone.Parse(t.low); err == nil && parsed.Standard() && !r.known(v.hz) {
			v.problem = fmt.Sprintf("%s MHz, or the tone %s? Type tx tone %s, or write MHz", t.low, parsed.Words(), t.low)
		}
		found(1, v)
	})
}

// decimal reads figures with a point: megahertz, or kilohertz where they are
// too many for that, or a half channel whose last figures were left off.
func (r *reading) decimal(s string, found func(value)) {
	if f, ok := scaled(s, freq.MHz); ok {
		if full, ok := r.completed(s, f); ok {
			found(value{hz: full, guess: full.MHz() + "?"})
			return
		}
		found(value{hz: f})
		return
	}
	if f, ok := scaled(s, freq.KHz); ok && r.known(f) {
		found(value{hz: f, guess: f.MHz() + "?"})
	}
}

func scaled(s string, u freq.Unit) (freq.Hz, bool) {
	n, err := freq.Scale(s, u)
	f := freq.Hz(n)
	return f, err == nil && f >= lowest && f <= freq.Max
}

// known reports whether a band or a service has the frequency.
func (r *reading) known(f freq.Hz) bool {
	_, ok := r.plan.Band(f)
	return ok || len(service.At(r.plan.Region, f)) > 0
}

// completed returns the channel that a figure with three or four decimals
// stands for where displays leave the rest off: 145.662 is 145.6625 where the
// raster says so.
func (r *reading) completed(s string, f freq.Hz) (freq.Hz, bool) {
	_, decimals, _ := strings.Cut(s, ".")
	if len(decimals) != 3 && len(decimals) != 4 {
		return 0, false
	}
	step := freq.Hz(freq.KHz)
	if len(decimals) == 4 {
		step = 100
	}
	b, banded := r.plan.Band(f)
	if banded && b.OnRaster(f) || len(service.At(r.plan.Region, f)) > 0 {
		return 0, false
	}
	for g := f + 50; g < f+step; g += 50 {
		if banded && b.OnRaster(g) && g%2_500 == 0 || len(service.At(r.plan.Region, g)) > 0 {
			return g, true
		}
	}
	return 0, false
}

// bareFrequency reads a number that nothing stands before.
func (r *reading) bareFrequency(at int, found func(int, value)) {
	t := r.at(at)
	if !t.number() {
		return
	}
	if r.withUnit(at, found) {
		return
	}
	if t.whole() {
		for _, f := range Candidates(t.low, r.plan) {
			v := value{hz: f, cost: likely, guess: f.MHz() + "?"}
			if len(t.low) < 4 {
				v.cost = doubted
			}
			found(1, v)
		}
		if g := r.grouped(at); g > 1 {
			text := ""
			for i := range g {
				text += r.at(at + i).low
			}
			for _, f := range Candidates(text, r.plan) {
				found(g, value{hz: f})
			}
		}
		return
	}
	r.decimal(t.low, func(v value) {
		if !r.known(v.hz) {
			v.cost = likely // 88.5 is rather a tone
		}
		found(1, v)
	})
}

// grouped counts the tokens of a frequency in groups of three figures, such as
// "146 940 000". A group that is a tone ends it: "146 100" is not 146.100 MHz
// for sure.
func (r *reading) grouped(at int) int {
	if !r.at(at).whole() || len(r.at(at).low) < 2 || len(r.at(at).low) > 4 {
		return 0
	}
	n := 1
	for n < 3 && r.at(at+n).whole() && len(r.at(at+n).low) == 3 && !r.at(at+n).cell {
		if t, err := tone.Parse(r.at(at + n).low); err == nil && t.Standard() {
			break
		}
		n++
	}
	return n
}

// channelNumber reads a channel of a service, with the code that some write
// behind a point, a hyphen or a slash.
func (r *reading) channelNumber(at int, found func(int, value)) {
	t := r.at(at)
	if !t.number() {
		return
	}
	number, code, pointed := strings.Cut(t.low, ".")
	n := 1
	if join := r.at(at + 1); !pointed && (join.low == "-" || join.low == "/") && join.glued && r.at(at+2).whole() && r.at(at+2).glued {
		code, pointed, n = r.at(at+2).low, true, 3
	}
	v := value{text: number, n: -1}
	if pointed {
		var err error
		if v.n, err = strconv.Atoi(code); err != nil {
			return
		}
	}
	found(n, v)
}

// bandWords are what people call a band, by its name in the plans.
var bandWords = map[string]string{
	"10": "10 m", "6": "6 m", "six": "6 m", "ten": "10 m", "4": "4 m", "four": "4 m", "2": "2 m", "two": "2 m", "1.25": "1.25 m",
	"70": "70 cm", "seventy": "70 cm", "33": "33 cm", "23": "23 cm",
}

// bandFigures are the bands that people call by a frequency.
var bandFigures = map[string]string{"50": "6 m", "144": "2 m", "220": "1.25 m", "222": "1.25 m", "430": "70 cm", "432": "70 cm", "440": "70 cm", "900": "33 cm", "1200": "23 cm"}

func (r *reading) band(at int, found func(int, value)) {
	t := r.at(at)
	switch {
	case t.quoted:
	case t.low == "vhf" || t.low == "uhf":
		found(1, value{text: t.low})
	case bandFigures[t.low] != "":
		found(1, value{text: bandFigures[t.low], cost: possible})
	}
	name, ok := bandWords[t.low]
	if !ok {
		return
	}
	unit := r.at(at + 1).low
	metres := unit == "m" || unit == "meter" || unit == "meters" || unit == "metre" || unit == "metres"
	cm := unit == "cm" || strings.HasPrefix(unit, "centim")
	if strings.HasSuffix(name, " cm") && cm || strings.HasSuffix(name, " m") && metres {
		found(2, value{text: name})
	}
}

func (r *reading) isFrequency(s string) bool {
	f, ok := scaled(s, freq.MHz)
	return ok && r.known(f)
}

// service reads the word for a service.
func (r *reading) service(at int, found func(int, value)) {
	if t := r.at(at); !t.quoted && service.Word(t.low) {
		found(1, value{text: t.low})
	}
}

// designator reads the name that a region's band plan gives a channel.
func (r *reading) designator(at int, found func(int, value)) {
	t := r.at(at)
	if t.quoted || t.number() || t.low == "" {
		return
	}
	i := strings.IndexFunc(t.low, func(c rune) bool { return c >= '0' && c <= '9' })
	if i < 1 || strings.Trim(t.low[i:], "0123456789") != "" || len(t.low)-i > 3 {
		return
	}
	n, _ := strconv.Atoi(t.low[i:])
	for _, d := range r.plan.Designators {
		if !strings.EqualFold(d.Prefix, t.low[:i]) {
			continue
		}
		f, ok := d.Frequency(n)
		v := value{hz: f, text: t.text, guess: f.MHz()}
		if d.Output {
			v.n = 1
		}
		if !ok {
			v.guess, v.problem = "", fmt.Sprintf("%s goes from %s%d to %s%d in %s: type the frequency", d.Prefix, d.Prefix, d.First, d.Prefix, d.Last, r.plan.Title)
		}
		found(1, v)
		return
	}
}

// withUnit reads a frequency with its unit, and reports whether there is a
// unit.
func (r *reading) withUnit(at int, found func(int, value)) bool {
	u, n := r.unit(at + 1)
	if n == 0 {
		return false
	}
	if f, ok := scaled(r.at(at).low, u); ok {
		found(2, value{hz: f})
	}
	return true
}
