package find

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

// kinds are the sorts of words, the first that reads something counts. Each
// returns how many tokens it took, or none.
var kinds = []func([]token, *Book, *Scene) (int, Word){
	quoted, near, place, within, bands, tones, names, otherBand, chosen, ages, towards, lists, figures,
}

// quoted is a text that is to be found as it stands.
func quoted(ts []token, b *Book, s *Scene) (int, Word) {
	if !ts[0].quoted {
		return 0, Word{}
	}
	if n, w := list(b, ts[0].text); n > 0 {
		return 1, w
	}
	return 1, named(ts[0].text)
}

// named keeps what has a text in its name, its callsign or its note.
func named(text string) Word {
	return Word{As: "name", Rest: "of other names", text: true, keep: func(x *seen) bool { return strings.Contains(x.text, text) }}
}

// names are words that together are the name of a place, or begin one: "old
// signal" is no wish for old records.
func names(ts []token, b *Book, _ *Scene) (int, Word) {
	n := longest(ts, 4, func(t string) bool { return strings.Contains(t, " ") && len(b.named(t)) > 0 })
	if n == 0 {
		return 0, Word{}
	}
	text, _ := phrase(ts, n)
	return n, named(text)
}

// near looks around from another place, which is named.
func near(ts []token, b *Book, s *Scene) (int, Word) {
	if !slices.Contains([]string{"near", "around", "from"}, ts[0].text) || ts[0].quoted || len(ts) == 1 {
		return 0, Word{}
	}
	if ts[1].text == "me" || ts[1].text == "here" {
		return 2, Word{As: "from you", Menu: "from"}
	}
	if n, w := place(ts[1:], b, nil); n > 0 {
		return n + 1, w
	}
	rest := ts[1:]
	for n := min(4, len(rest)); n > 0; n-- {
		text := joined(rest[:n])
		if m, ok := s.mark(text); ok {
			return n + 1, from(m.Point, m.Name)
		}
		if p, title, ok := b.where(text); ok {
			return n + 1, from(p, title)
		}
	}
	return 2, Word{As: "unknown place", State: Doubt, Says: fmt.Sprintf("No listing names a place %q, and neither do you: type its locator, such as GN21ia, or name it in Settings", rest[0].typed)}
}

func joined(ts []token) string {
	parts := make([]string, len(ts))
	for i, t := range ts {
		parts[i] = t.text
	}
	return strings.Join(parts, " ")
}

func from(p geo.Point, name string) Word {
	return Word{As: "from here", Menu: "from", turn: func(q *Query) { q.From, q.Named = &p, name }}
}

// where finds a place by the name that a listing gives it: by the whole name, or
// else by how a word of it begins.
func (b *Book) where(text string) (p geo.Point, title string, ok bool) {
	for _, whole := range []bool{true, false} {
		for _, n := range b.named(text) {
			e := &b.entries[n.entry]
			if at, placed := e.Best.Place(); placed && n.title == e.Best.Locality && (!whole || fold(n.title) == text) {
				return at, n.title, true
			}
		}
	}
	return p, "", false
}

// place looks around from a locator or a position.
func place(ts []token, _ *Book, _ *Scene) (int, Word) {
	if len(ts) > 1 && degrees.MatchString(ts[0].text) && degrees.MatchString(ts[1].text) && strings.Contains(ts[0].text+ts[1].text, "-") {
		if p, err := geo.Parse(ts[0].text + "," + ts[1].text); err == nil {
			return 2, from(p, p.Locator())
		}
	}
	if ts[0].quoted || !strings.Contains(ts[0].text, ",") && len(ts[0].text) < 4 {
		return 0, Word{}
	}
	p, err := geo.Parse(ts[0].text)
	if err != nil {
		return 0, Word{}
	}
	name := p.Locator()
	if !strings.Contains(ts[0].text, ",") {
		name = ts[0].typed
	}
	return 1, from(p, name)
}

// degrees are one figure of a position; with another one and a minus it is one.
var degrees = regexp.MustCompile(`^-?\d{1,3}\.\d+$`)

var distanceWords = regexp.MustCompile(`^(?:within )?(\d{1,5}(?:[.,]\d+)?) ?km$`)

// within is a distance that is far enough.
func within(ts []token, _ *Book, s *Scene) (int, Word) {
	n := longest(ts, 3, distanceWords.MatchString)
	if n == 0 {
		return 0, Word{}
	}
	text, _ := phrase(ts, n)
	km, err := strconv.ParseFloat(strings.Replace(distanceWords.FindStringSubmatch(text)[1], ",", ".", 1), 64)
	if err != nil || km <= 0 || km > 20_100 {
		return n, Word{As: "no distance", State: Doubt, Says: "Type a distance of 1 to 20000 km, such as 60km"}
	}
	w := Word{As: "within", Rest: "farther away", Menu: "within", keep: func(x *seen) bool { return x.from == nil || x.within(km) }, turn: func(q *Query) {
		if q.Within == 0 || km < q.Within {
			q.Within = km
		}
	}}
	if s.Place == nil {
		w.State, w.Says = Guess, "Counts once you have said where you are, or named a place: near Low Haven, GN21ia"
	}
	return n, w
}

// bands keeps the outputs of a band: 2m, 70 cm.
func bands(ts []token, _ *Book, s *Scene) (int, Word) {
	var b *band.Band
	n := longest(ts, 2, func(text string) bool {
		i := slices.IndexFunc(s.Band.Bands, func(x band.Band) bool { return squeeze(x.Name) == squeeze(text) })
		if i >= 0 {
			b = &s.Band.Bands[i]
		}
		return i >= 0
	})
	if n == 0 {
		return 0, Word{}
	}
	return n, Word{As: "band", Rest: "on other bands", Menu: "band", keep: func(x *seen) bool { return b.Holds(x.Best.Output) }}
}

var bandWords = regexp.MustCompile(`^\d{1,3}(\.\d+)?c?m$`)

// otherBand is a band that the region does not have.
func otherBand(ts []token, _ *Book, s *Scene) (int, Word) {
	if ts[0].quoted || !bandWords.MatchString(ts[0].text) {
		return 0, Word{}
	}
	var have []string
	for _, b := range s.Band.Bands {
		have = append(have, bandWord(&b))
	}
	return 1, Word{As: "no band here", State: Doubt, Says: fmt.Sprintf("%s is not a band in %s: type %s", ts[0].typed, s.Band.Title, strings.Join(have, ", "))}
}

func squeeze(s string) string { return metres.Replace(strings.ReplaceAll(fold(s), " ", "")) }

// metres are spelled out by some.
var metres = strings.NewReplacer("centimeters", "cm", "centimetres", "cm", "centimeter", "cm", "centimetre", "cm", "meters", "m", "metres", "m", "meter", "m", "metre", "m")

// bandWord is how a band is typed: 2m; one that has a name by that.
func bandWord(b *band.Band) string {
	if b.Name[0] >= '0' && b.Name[0] <= '9' {
		return squeeze(b.Name)
	}
	return fold(b.Name)
}

var ageWords = regexp.MustCompile(`^(\d{1,3}) ?(days?|weeks?|months?|years?)$`)

// ages keeps what was confirmed within so long.
func ages(ts []token, _ *Book, _ *Scene) (int, Word) {
	n := longest(ts, 2, ageWords.MatchString)
	if n == 0 {
		return 0, Word{}
	}
	text, _ := phrase(ts, n)
	m := ageWords.FindStringSubmatch(text)
	count, _ := strconv.Atoi(m[1])
	months, days := 0, 0
	switch m[2][0] {
	case 'd':
		days = count
	case 'w':
		days = 7 * count
	case 'm':
		months = count
	default:
		months = 12 * count
	}
	return n, Word{As: "confirmed within", Rest: "not confirmed since", Menu: "confirmed", keep: confirmed(months, days)}
}

var toneWords = regexp.MustCompile(`^(?:ts |tone |ctcss |dcs )?(d?\d{2,3}[.,]?\d?[nir]?) ?(hz)?$`)

// tones keeps what a tone or a code opens. Bare figures are a tone only where
// they cannot begin a frequency.
func tones(ts []token, _ *Book, s *Scene) (int, Word) {
	var t tone.Tone
	n := longest(ts, 3, func(text string) bool {
		m := toneWords.FindStringSubmatch(text)
		if m == nil {
			return false
		}
		value := strings.ToUpper(strings.Replace(m[1], ",", ".", 1))
		if strings.HasPrefix(text, "dcs ") && value[0] != 'D' {
			value = "D" + value
		}
		x, err := tone.Parse(value)
		if err != nil || x.IsOff() {
			return false
		}
		sure := strings.Contains(text, " ") || m[2] != "" || x.Kind() == tone.DCS
		if !sure && (!strings.ContainsAny(text, ".,") || inBand(s.Band, text)) {
			return false
		}
		t = x
		return true
	})
	if n == 0 {
		return 0, Word{}
	}
	return n, Word{As: "opens to " + t.Words(), Rest: "opened otherwise", Menu: "opened by", keep: func(x *seen) bool {
		return x.Best.UplinkTone.Known && tone.Same(x.Best.UplinkTone.Tone, t)
	}}
}

func inBand(p *band.Plan, text string) bool {
	return slices.ContainsFunc(beginning(text), func(x band.Span) bool {
		return slices.ContainsFunc(p.Bands, func(b band.Band) bool { return b.Lower <= x.Upper && x.Lower <= b.Upper })
	})
}

// directions are the eight, clockwise from north.
var directions = []string{"north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west"}

// towards keeps what lies in an eighth of the compass.
func towards(ts []token, _ *Book, s *Scene) (int, Word) {
	at := -1
	n := longest(ts, 2, func(text string) bool {
		at = slices.Index(directions, strings.ReplaceAll(text, " ", "-"))
		return at >= 0
	})
	if n == 0 {
		return 0, Word{}
	}
	return n, Word{As: "lies " + directions[at], Rest: "in other directions", Menu: "direction", Says: fmt.Sprintf("For the name type %q in quotes", joined(ts[:n])), keep: func(x *seen) bool {
		_, bearing, ok := x.away()
		return ok && octant(bearing) == at
	}}
}

func octant(bearing float64) int { return int(math.Mod(bearing+22.5, 360) / 45) }

// lists keeps the records of a listing.
func lists(ts []token, b *Book, _ *Scene) (int, Word) {
	for n := min(5, len(ts)); n > 0; n-- {
		text, ok := phrase(ts, n)
		if !ok {
			continue
		}
		if found, w := list(b, text); found > 0 {
			return n, w
		}
	}
	return 0, Word{}
}

func list(b *Book, text string) (int, Word) {
	i := slices.IndexFunc(b.sources, func(s string) bool { return fold(s) == text })
	if i < 0 {
		return 0, Word{}
	}
	source := b.sources[i]
	return 1, Word{As: "listing", Rest: "not in " + source, Menu: "listing", keep: func(x *seen) bool {
		return slices.ContainsFunc(x.Statements, func(r listing.Record) bool { return r.Source == source })
	}}
}

// figures keeps the frequencies that begin with some figures.
func figures(ts []token, _ *Book, _ *Scene) (int, Word) {
	n := longest(ts, 2, func(text string) bool { return beginning(megahertz(text)) != nil })
	if n == 0 {
		return 0, Word{}
	}
	text, _ := phrase(ts, n)
	spans := beginning(megahertz(text))
	holds := func(f freq.Hz) bool { return slices.ContainsFunc(spans, func(s band.Span) bool { return s.Holds(f) }) }
	return n, Word{As: "frequency begins", Rest: "on other frequencies", text: true, keep: func(x *seen) bool {
		return holds(x.Best.Output) || x.Best.Input != 0 && holds(x.Best.Input)
	}}
}

// megahertz takes the unit off.
func megahertz(text string) string { return strings.TrimSpace(strings.TrimSuffix(text, "mhz")) }

// beginning returns the ranges of frequencies that begin with figures: 146.9
// is 146.900 to 146.999 MHz, 44 is 44 MHz and 440 to 449 MHz. A
// range holds its ends.
func beginning(word string) []band.Span {
	whole, part, point := strings.Cut(strings.Replace(word, ",", ".", 1), ".")
	if len(whole) < 2 || len(whole) > 4 || strings.Trim(whole+part, "0123456789") != "" || len(part) > 6 {
		return nil
	}
	n, err := strconv.ParseInt(whole+(part + "000000")[:6], 10, 64)
	if err != nil {
		return nil
	}
	width := int64(freq.MHz)
	for range part {
		width /= 10
	}
	out := []band.Span{{Lower: freq.Hz(n), Upper: freq.Hz(n + width - 1)}}
	if point {
		return out
	}
	for length := len(whole); length < 4; length++ { // further figures before the point
		n, width = n*10, width*10
		out = append(out, band.Span{Lower: freq.Hz(n), Upper: freq.Hz(n + width - 1)})
	}
	return out
}
