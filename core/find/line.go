package find

import (
	"slices"
	"strings"
	"time"
	"unicode"

	"mnemos/core/geo"
)

// State says how sure the reading of a word is.
type State string

// The states.
const (
	Certain State = ""
	Guess   State = "guess"
	Doubt   State = "doubt" // it cannot be used; Says tells what to type
)

// Word is a part of a line with what it was taken as.
type Word struct {
	From, To int // characters in the line
	Text     string
	As       string // "within", "band"
	State    State
	Says     string // what to type instead, where it is in doubt or might be meant otherwise
	Rest     string // what it leaves out, in words: "farther away"
	Menu     string // which choice of the menu it makes: "within"; "" for none
	text     bool   // a part of a name

	keep func(*seen) bool // nil: it keeps all
	turn func(*Query)     // what it changes about the whole search
}

// Order is what comes first.
type Order string

// The orders.
const (
	ByDistance  Order = "distance"
	ByReach     Order = "reach" // by the share of its reach that the distance takes
	ByFrequency Order = "frequency"
)

// Query is a line as it was read.
type Query struct {
	Words  []Word
	From   *geo.Point // another place to look around from, or nil
	Named  string     // what that place is called
	Within float64    // kilometres; 0 for however far
	Order  Order
}

// MaxLine is how many characters a line may have.
const MaxLine = 200

// token is a word as it is typed.
type token struct {
	from, to int
	text     string // without its quotes, folded
	typed    string
	quoted   bool
}

// Read reads a line. Every word is taken as something; what cannot be used is in
// doubt and leaves nothing out.
func Read(line string, b *Book, s *Scene) Query {
	q := Query{Order: ByDistance}
	tokens := tokens(line)
	for i := 0; i < len(tokens); {
		n, w := read(tokens[i:], b, s)
		first, last := tokens[i], tokens[i+n-1]
		w.From, w.To = first.from, last.to
		w.Text = string([]rune(line)[w.From:w.To])
		if w.turn != nil {
			w.turn(&q)
		}
		q.Words = append(q.Words, w)
		i += n
	}
	either(q.Words)
	return q
}

// either makes words of which only one can be true alternatives: 2m and 70cm are
// what is on either.
func either(words []Word) {
	for _, group := range []string{"band", "direction"} {
		var keeps []func(*seen) bool
		for _, w := range words {
			if w.Menu == group {
				keeps = append(keeps, w.keep)
			}
		}
		if len(keeps) < 2 {
			continue
		}
		any := func(x *seen) bool {
			return slices.ContainsFunc(keeps, func(keep func(*seen) bool) bool { return keep(x) })
		}
		for i := range words {
			if words[i].Menu == group {
				words[i].keep = any
			}
		}
	}
}

func read(ts []token, b *Book, s *Scene) (int, Word) {
	for _, k := range kinds {
		if n, w := k(ts, b, s); n > 0 {
			return n, w
		}
	}
	return 1, named(ts[0].text)
}

func tokens(line string) []token {
	runes := []rune(line)
	if len(runes) > MaxLine {
		runes = runes[:MaxLine]
	}
	var out []token
	for i := 0; i < len(runes); {
		if unicode.IsSpace(runes[i]) {
			i++
			continue
		}
		t := token{from: i}
		if strings.ContainsRune(`"“”„`, runes[i]) {
			t.quoted = true
			i++
			from := i
			for i < len(runes) && !strings.ContainsRune(`"“”`, runes[i]) {
				i++
			}
			t.typed = strings.TrimSpace(string(runes[from:i]))
			i = min(i+1, len(runes))
		} else {
			for i < len(runes) && !unicode.IsSpace(runes[i]) {
				i++
			}
			t.typed = strings.Trim(string(runes[t.from:i]), ",;")
		}
		t.to, t.text = i, fold(t.typed)
		if t.text != "" {
			out = append(out, t)
		}
	}
	return out
}

// phrase is the first tokens as one text; ok is false where one is quoted.
func phrase(ts []token, n int) (string, bool) {
	if slices.ContainsFunc(ts[:n], func(t token) bool { return t.quoted }) {
		return "", false
	}
	parts := make([]string, n)
	for i, t := range ts[:n] {
		parts[i] = t.text
	}
	return strings.Join(parts, " "), true
}

// longest tries the most tokens first, and returns how many a text of them is known
// by.
func longest(ts []token, most int, known func(string) bool) int {
	for n := min(most, len(ts)); n > 0; n-- {
		if text, ok := phrase(ts, n); ok && known(text) {
			return n
		}
	}
	return 0
}

// seen is an entry as it is looked at from a scene.
type seen struct {
	*Entry
	*frame

	km       float64 // of the sphere; see away
	held     []Slot
	mine     bool
	cannot   string
	exact    bool
	bearing  float64
	distance float64
}

// frame is what is the same for all that is looked at at once.
type frame struct {
	scene *Scene
	from  *origin
	stale time.Time // what was confirmed before is old
}

// origin is where distances are measured from.
type origin struct {
	geo.Point
	at vector
}

// away measures on the ellipsoid; ok is false without a place.
func (x *seen) away() (km, bearing float64, ok bool) {
	if x.from == nil || !x.Placed() {
		return 0, 0, false
	}
	if !x.exact {
		x.distance, x.bearing = geo.Distance(x.from.Point, geo.Point{Lat: *x.Best.Lat, Lon: *x.Best.Lon})
		x.exact = true
	}
	return x.distance, x.bearing, true
}

// within reports whether the entry is no farther than so many kilometres.
func (x *seen) within(most float64) bool {
	if x.from == nil || !x.Placed() {
		return false
	}
	if x.km < most*(1-off) {
		return true
	}
	if x.km > most*(1+off) {
		return false
	}
	km, _, _ := x.away()
	return km <= most
}
