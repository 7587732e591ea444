package find

import (
	"cmp"
	"math"
	"slices"
	"strings"
	"unicode"

	"golang.org/x/text/unicode/norm"

	"mnemos/core/geo"
	"mnemos/core/listing"
)

// Entry is one repeater or channel with all that is published about it.
type Entry struct {
	listing.Repeater                // the newest statement first; what a person settled is no conflict
	Best             listing.Record // all of it in one record, as people correct it
	ID               listing.ID     // of the newest statement

	text  string // all that a word may be found in
	at    vector
	lists int // how many listings speak of it
}

// Placed reports whether a position is published.
func (e *Entry) Placed() bool { return e.at != vector{} }

// Book is all that is published, joined, in the order of the outputs. It does
// not change.
type Book struct {
	entries []Entry
	names   []name
	sources []string
	records int
	of      map[listing.ID]int
	at      []vector // of the entries, side by side
	middle  *geo.Point
}

// name is where a word of a name begins, to be found by its first letters.
type name struct {
	from  string // from that word to the end of the name, folded
	title string // the name as it is published
	entry int32
}

// Bind joins records into a book. The result does not depend on their order.
func Bind(records []listing.Record, known listing.Corrections, decisions []listing.Decision) *Book {
	b := &Book{records: len(records), of: make(map[listing.ID]int, len(records))}
	var repeaters []listing.Record
	var joined []listing.Repeater
	for _, r := range records {
		if r.IsRepeater() {
			repeaters = append(repeaters, r)
		} else { // a channel is joined with nothing
			joined = append(joined, listing.Repeater{Statements: []listing.Record{r}})
		}
	}
	joined = append(joined, listing.Join(repeaters, decisions)...)
	b.entries = make([]Entry, len(joined))
	for i, r := range joined {
		b.entries[i] = entry(r, known)
	}
	slices.SortFunc(b.entries, func(x, y Entry) int {
		return cmp.Or(cmp.Compare(x.Best.Output, y.Best.Output), cmp.Compare(x.ID.Source, y.ID.Source), cmp.Compare(x.ID.Key, y.ID.Key))
	})
	for i := range b.entries {
		e := &b.entries[i]
		for j := range e.Statements {
			b.of[e.Statements[j].ID()] = i
			if s := e.Statements[j].Source; !slices.Contains(b.sources, s) {
				b.sources = append(b.sources, s)
			}
		}
		b.name(e.Best.Locality, i)
		b.name(e.Best.Callsign, i)
	}
	b.at = make([]vector, len(b.entries))
	for i := range b.entries {
		b.at[i] = b.entries[i].at
	}
	b.middle = middle(b.at)
	slices.Sort(b.sources)
	slices.SortFunc(b.names, func(x, y name) int { return cmp.Or(cmp.Compare(x.from, y.from), cmp.Compare(x.entry, y.entry)) })
	return b
}

func entry(r listing.Repeater, known listing.Corrections) Entry {
	e := Entry{Repeater: r, Best: r.Statements[0], ID: r.Statements[0].ID()}
	if len(r.Statements) > 1 || len(known) > 0 {
		e.Best = known.Best(r)
	}
	if len(r.Conflicts) > 0 && len(known) > 0 {
		corrected := slices.Clone(r.Statements)
		for i := range corrected {
			corrected[i] = known.Apply(corrected[i])
		}
		// What a person has settled is in question again when a listing says
		// something else than it did then.
		e.Conflicts = slices.DeleteFunc(slices.Clone(r.Conflicts), func(c listing.Conflict) bool {
			return !slices.ContainsFunc(corrected, func(s listing.Record) bool {
				says := slices.ContainsFunc(c.Values, func(v listing.Value) bool { return v.ID == s.ID() })
				return says && !slices.Contains(s.Corrected, c.Field)
			})
		})
	}
	var text strings.Builder
	var lists []string
	for i := range r.Statements {
		s := &r.Statements[i]
		for _, field := range []string{s.Callsign, s.Locality, s.Note, s.Source, s.Key} {
			text.WriteString(field)
			text.WriteByte('\n')
		}
		if !slices.Contains(lists, s.Source) {
			lists = append(lists, s.Source)
		}
	}
	e.text, e.lists = fold(text.String()), len(lists)
	if p, ok := e.Best.Place(); ok {
		e.at = vectorOf(p)
	}
	return e
}

// name takes every word of a name into the vocabulary.
func (b *Book) name(title string, i int) {
	folded := fold(title)
	for at, r := range folded {
		if at > 0 && folded[at-1] != ' ' && folded[at-1] != '-' || r == ' ' {
			continue
		}
		b.names = append(b.names, name{folded[at:], title, int32(i)}) //nolint:gosec // a listing holds fewer than two thousand million
	}
}

// middle is the middle of what has a position, or nil.
func middle(places []vector) *geo.Point {
	var sum vector
	for _, at := range places {
		for k, x := range at {
			sum[k] += x
		}
	}
	if sum == (vector{}) {
		return nil
	}
	return &geo.Point{
		Lat: math.Atan2(sum[2], math.Hypot(sum[0], sum[1])) * 180 / math.Pi,
		Lon: math.Atan2(sum[1], sum[0]) * 180 / math.Pi,
	}
}

// Middle is the middle of all that has a position: where to look when nobody has
// said where they are. It is nil where nothing has one.
func (b *Book) Middle() *geo.Point { return b.middle }

// Sources are the names of the listings, in the order of the alphabet.
func (b *Book) Sources() []string { return b.sources }

// Records is how many statements there are.
func (b *Book) Records() int { return b.records }

// Len is how many repeaters and channels they speak of.
func (b *Book) Len() int { return len(b.entries) }

// Entry returns what a statement speaks of, or nil.
func (b *Book) Entry(id listing.ID) *Entry {
	i, ok := b.of[id]
	if !ok {
		return nil
	}
	return &b.entries[i]
}

// named returns the range of names that begin with a text.
func (b *Book) named(text string) []name {
	from, _ := slices.BinarySearchFunc(b.names, text, func(n name, t string) int { return cmp.Compare(n.from, t) })
	n, _ := slices.BinarySearchFunc(b.names[from:], text, func(n name, t string) int {
		if strings.HasPrefix(n.from, t) {
			return -1
		}
		return 1
	})
	return b.names[from : from+n]
}

// fold makes letters small and takes their accents off, so that what people type
// is found however it was published.
func fold(s string) string {
	plain := true
	for i := 0; i < len(s); i++ {
		plain = plain && s[i] < 0x80
	}
	if plain {
		return strings.ToLower(s)
	}
	return strings.Map(func(r rune) rune {
		if unicode.Is(unicode.Mn, r) {
			return -1
		}
		return unicode.ToLower(r)
	}, norm.NFD.String(s))
}

// vector is a place on the unit sphere; the zero value is no place.
type vector [3]float64

func vectorOf(p geo.Point) vector {
	sinLat, cosLat := math.Sincos(p.Lat * math.Pi / 180)
	sinLon, cosLon := math.Sincos(p.Lon * math.Pi / 180)
	return vector{cosLat * cosLon, cosLat * sinLon, sinLat}
}

// The radius of the sphere that is nearest to the earth, in kilometres, and by how
// much a distance on it may be off (IUGG mean radius; the flattening is 1/298).
const (
	radius = 6371.0088
	off    = 0.006
)

// roughly is the distance of two places on the sphere.
func roughly(a, b vector) float64 {
	dx, dy, dz := a[0]-b[0], a[1]-b[1], a[2]-b[2]
	return 2 * radius * math.Asin(math.Min(1, math.Sqrt(dx*dx+dy*dy+dz*dz)/2))
}
