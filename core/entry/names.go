package entry

import (
	"fmt"
	"strings"
	"sync"
	"unicode"

	"mnemos/core/freq"
	"mnemos/core/service"
	"mnemos/core/tone"
)

// reserved reports whether a word is a setting, or belongs to one, and so never
// slips into a name unmarked.
func reserved(t token) bool {
	return literals()[t.low] || foreign[t.low] != "" || !t.title() && words("hundred thousand point decimal")[t.low] ||
		words("w watt watts mw vhf uhf meter meters metre metres cm centimeters hz khz hertz")[t.low]
}

// plain reports whether a word means nothing but what it is called.
func plain(t token) bool {
	return t.word() && !reserved(t) && !labels[t.low] && !joining[t.low] && !callsign(t.low)
}

// namePiece reads a word of a name. A word that is a setting, or looks like
// one, is not believed to be part of a name; a number is, behind a word.
func (r *reading) namePiece(at int, found func(int, value)) {
	t, prev, next := r.at(at), r.at(at-1), r.at(at+1)
	v := value{text: t.text}
	follows := !t.cell && !prev.labelled && (plain(prev) || prev.word() && prev.title() || prev.number() && r.nameBefore(at-1)) && at > 0
	leads := plain(next) && !next.cell && !t.labelled
	switch {
	case t.quoted || t.low == "":
		return
	case t.number():
		switch {
		case follows && t.whole():
			v.cost = likely
		case follows && r.nothingElse(t.low):
			v.cost = likely
		case leads && t.whole() && !next.glued:
			v.cost = likely
			if parsed, err := tone.Parse(t.low); err == nil && parsed.Standard() {
				v.cost = doubted
			}
		default:
			return
		}
	case !t.word() || callsign(t.low) || r.misspelt(at) != "" || shortCode(t.low) || service.Word(t.low) && (next.number() || in("channel", next.low)):
		return
	case spokenDigits(t.low) && !follows && !t.title():
		return // a number in words, rather
	case joining[t.low]:
		v.cost = doubted
		if plain(prev) && leads || t.title() && next.title() && leads {
			v.cost = sure
		}
	case labels[t.low]:
		v.cost = doubted
	case reserved(t):
		if !(t.title() && (plain(next) && next.title() && leads || plain(prev) && prev.title() && follows)) {
			return
		}
	case len([]rune(t.text)) == 1:
		v.cost = doubted
	default:
		r.designator(at, func(int, value) { v.cost = remote })
	}
	if t.labelled && !plain(t) {
		return
	}
	found(1, v)
}

// nothingElse reports whether figures with a point are neither a tone nor a
// frequency of a band.
func (r *reading) nothingElse(s string) bool {
	_, known := toneOf(s)
	f, ok := scaled(s, freq.MHz)
	return !known && !(ok && r.known(f))
}

func spokenDigits(w string) bool { _, ok := spokenWord(w); return ok }

// nameBefore reports whether the number at i belongs to a name.
func (r *reading) nameBefore(i int) bool {
	return i > 0 && r.at(i).whole() && !r.at(i).cell && plain(r.at(i-1)) || plain(r.at(i)) || i >= 0 && r.at(i).whole() && plain(r.at(i+1)) && !r.at(i+1).cell
}

func (r *reading) quotedText(at int, found func(int, value)) {
	if t := r.at(at); t.quoted {
		found(1, value{text: t.text})
	}
}

func (r *reading) callsign(at int, found func(int, value)) {
	if t := r.at(at); !t.quoted && callsign(t.low) {
		found(1, value{text: t.text})
	}
}

// joins reads a word that says nothing by itself; inside a name it is part of
// it.
func (r *reading) joins(at int, found func(int, value)) {
	t, prev, next := r.at(at), r.at(at-1), r.at(at+1)
	if t.quoted || !joining[t.low] || t.text == "A" {
		return
	}
	v := value{}
	switch {
	case (t.low == "for" || t.low == "to") && (strings.HasPrefix(prev.low, "listen") || strings.HasPrefix(prev.low, "wait") || strings.HasPrefix(prev.low, "open")):
		v.cost = doubted // "listen for 100.0 Hz"
	case r.at(at-2).number() && service.Word(r.at(at-3).low), prev.number() && (service.Word(r.at(at-2).low) || in("channel", r.at(at-2).low)):
		v.cost = doubted // "gmrs 17 repeater"
	}
	if !t.cell && plain(prev) && plain(next) && !next.cell || t.title() && next.title() && plain(next) {
		v.cost = doubted
	}
	found(1, v)
}

func (r *reading) label(at int, found func(int, value)) {
	t := r.at(at)
	if t.quoted || !labels[t.low] {
		return
	}
	v := value{}
	if !t.labelled && r.at(at+1).low == "" {
		v.cost = doubted
	}
	found(1, v)
}

// foreign reads a word that is a setting, though not of a channel here.
func (r *reading) foreign(at int, found func(int, value)) {
	if t := r.at(at); !t.quoted && foreign[t.low] != "" {
		found(1, value{problem: foreign[t.low]})
	}
}

// alike reads a word that is one letter away from a setting: it may be that,
// misspelt, and is asked about. A word with a capital is a name.
func (r *reading) alike(at int, found func(int, value)) {
	if w := r.misspelt(at); w != "" {
		found(1, value{problem: fmt.Sprintf("did you mean %q? Type it so, or put a name in quotes", w)})
	}
}

// misspelt returns the setting that a word probably is, or "".
func (r *reading) misspelt(at int) string {
	if t := r.at(at); plain(t) && !t.title() && len(t.low) >= 5 {
		return nearest(t.low)
	}
	return ""
}

// shortCode reports whether a word is a D with figures: a DCS code short of
// one, rather than a name.
func shortCode(w string) bool {
	return len(w) > 1 && len(w) < 5 && w[0] == 'd' && strings.Trim(w[1:], "0123456789") == ""
}

// spellings are the settings long enough to be known when misspelt.
var spellings = sync.OnceValue(func() []string {
	var out []string
	for w := range literals() {
		if len(w) >= 5 && !strings.ContainsFunc(w, func(r rune) bool { return !unicode.IsLetter(r) }) {
			out = append(out, w)
		}
	}
	return sorted(append(out, "receive"))
})

// nearest returns the setting from which a word differs by one letter, two
// swapped letters, or a letter doubled.
func nearest(w string) string {
	for _, s := range spellings() {
		if d := len(s) - len(w); d >= -1 && d <= 1 && w[0] == s[0] && oneSlip(w, s) {
			return s
		}
	}
	return ""
}

// oneSlip reports whether a is b with one letter replaced, left out, added or
// swapped with the next.
func oneSlip(a, b string) bool {
	if len(a) > len(b) {
		a, b = b, a
	}
	i := 0
	for i < len(a) && a[i] == b[i] {
		i++
	}
	j := 0
	for j < len(a)-i && a[len(a)-1-j] == b[len(b)-1-j] {
		j++
	}
	left := len(b) - i - j
	return left <= 1 || len(a) == len(b) && left == 2 && a[i] == b[i+1] && a[i+1] == b[i]
}
