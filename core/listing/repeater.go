package listing

import (
	"cmp"
	"slices"
	"strings"

	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/tone"
)

// ID names a statement. It outlives the edition that it came in.
type ID struct {
	Source string `json:"source"`
	Key    string `json:"key"`
}

// ID returns the name of the statement.
func (r Record) ID() ID { return ID{r.Source, r.Key} }

func (a ID) compare(b ID) int {
	return cmp.Or(cmp.Compare(a.Source, b.Source), cmp.Compare(a.Key, b.Key))
}

// Decision is what a person decided about two statements.
type Decision struct {
	A, B ID
	Same bool
}

// Repeater is one repeater with what is said about it, the newest first. Each
// statement stays visible: they are witnesses with their dates, and where they
// differ that is said, never averaged away. There is no other idea of "one
// repeater" in the program.
type Repeater struct {
	Statements []Record
	Conflicts  []Conflict
}

// Conflict is a field about which the statements differ.
type Conflict struct {
	Field  string  `json:"field"`
	Values []Value `json:"values"` // one for each statement that says anything about it, newest first
}

// Value is what one source says.
type Value struct {
	ID
	Text    string `json:"text"`
	Updated string `json:"updated"`
}

// The distances, in kilometres, within which statements may speak of one
// repeater: with the same callsign anywhere about, because positions are often
// those of the town; without callsigns only on the same hill. Common
// practice, no source.
const (
	about    = 60.0
	sameHill = 3.0
)

// Join puts statements about one repeater together. The result does not
// depend on the order of the records. Statements of one source never join,
// unless a person says so.
func Join(records []Record, decisions []Decision) []Repeater {
	sorted := slices.Clone(records)
	slices.SortFunc(sorted, func(a, b Record) int {
		return cmp.Or(cmp.Compare(a.Output, b.Output), a.ID().compare(b.ID()))
	})
	j := joiner{must: map[[2]ID]bool{}, never: map[[2]ID]bool{}}
	for _, d := range decisions {
		set := j.never
		if d.Same {
			set = j.must
		}
		set[[2]ID{d.A, d.B}], set[[2]ID{d.B, d.A}] = true, true
	}
	var out []Repeater
	for i := 0; i < len(sorted); {
		k := i + 1
		for k < len(sorted) && sorted[k].Output == sorted[i].Output {
			k++
		}
		out = append(out, j.join(sorted[i:k])...)
		i = k
	}
	return out
}

type joiner struct {
	must, never map[[2]ID]bool
}

// pair is two statements that may speak of one repeater.
type pair struct {
	a, b     int
	strength int
	km       float64
}

// join joins the statements about one output: the surest pairs first.
func (j *joiner) join(group []Record) []Repeater {
	if len(group) == 1 {
		return []Repeater{{Statements: group}}
	}
	var pairs []pair
	for a := range group {
		for b := a + 1; b < len(group); b++ {
			if p := j.pair(group, a, b); p.strength > 0 {
				pairs = append(pairs, p)
			}
		}
	}
	slices.SortFunc(pairs, func(x, y pair) int {
		return cmp.Or(cmp.Compare(y.strength, x.strength), cmp.Compare(x.km, y.km), cmp.Compare(x.a, y.a), cmp.Compare(x.b, y.b))
	})
	sets := make([][]int, len(group))
	of := make([]int, len(group))
	for i := range group {
		sets[i], of[i] = []int{i}, i
	}
	for _, p := range pairs {
		a, b := of[p.a], of[p.b]
		if a == b || !j.fit(group, sets[a], sets[b], p.strength == decided) {
			continue
		}
		for _, i := range sets[b] {
			of[i] = a
		}
		sets[a], sets[b] = append(sets[a], sets[b]...), nil
	}
	var out []Repeater
	for _, s := range sets {
		if s == nil {
			continue
		}
		slices.Sort(s)
		r := Repeater{}
		for _, i := range s {
			r.Statements = append(r.Statements, group[i])
		}
		out = append(out, r.settle())
	}
	return out
}

// The strengths of a pair.
const (
	sameSite = iota + 1
	sameCall
	decided
)

func (j *joiner) pair(group []Record, a, b int) pair {
	x, y := &group[a], &group[b]
	p := pair{a: a, b: b}
	ids := [2]ID{x.ID(), y.ID()}
	if j.never[ids] {
		return p
	}
	if j.must[ids] {
		p.strength = decided
		return p
	}
	if x.Source == y.Source {
		return p
	}
	px, okX := x.Place()
	py, okY := y.Place()
	placed := okX && okY
	if placed {
		p.km, _ = geo.Distance(px, py)
	}
	call := callsign(x.Callsign) != "" && callsign(x.Callsign) == callsign(y.Callsign)
	other := !call && callsign(x.Callsign) != "" && callsign(y.Callsign) != ""
	town := x.Locality != "" && strings.EqualFold(x.Locality, y.Locality)
	switch {
	case other, placed && p.km > about:
	case call:
		p.strength = sameCall
	case placed && p.km <= sameHill, !placed && town:
		p.strength = sameSite
	}
	return p
}

// callsign is a callsign without what is put behind it for a repeater.
func callsign(s string) string {
	s, _, _ = strings.Cut(strings.ToUpper(strings.TrimSpace(s)), "/")
	return s
}

// fit reports whether two sets may become one: no two statements of one
// source in it, and no two that were parted. A decision outweighs the first.
func (j *joiner) fit(group []Record, a, b []int, decided bool) bool {
	for _, x := range a {
		for _, y := range b {
			if j.never[[2]ID{group[x].ID(), group[y].ID()}] || !decided && group[x].Source == group[y].Source {
				return false
			}
		}
	}
	return true
}

// Conflicts returns the fields in which two statements differ, with what each
// says. A field that a person has corrected is no longer in question.
func Conflicts(a, b Record) []Conflict {
	r := Repeater{Statements: []Record{a, b}}
	var out []Conflict
	for _, f := range Fields {
		if slices.Contains(a.Corrected, f.Name) || slices.Contains(b.Corrected, f.Name) {
			continue
		}
		if c, differ := r.compare(f); differ {
			out = append(out, c)
		}
	}
	return out
}

// compare says what the statements say about a field, and whether they differ.
func (r Repeater) compare(f Field) (c Conflict, differ bool) {
	c.Field = f.Name
	for i := range r.Statements {
		s := &r.Statements[i]
		text, ok := f.Says(s)
		if !ok {
			continue
		}
		differ = differ || len(c.Values) > 0 && !f.same(c.Values[0].Text, text)
		c.Values = append(c.Values, Value{ID: s.ID(), Text: text, Updated: s.Updated.String()})
	}
	return c, differ
}

// settle puts the newest statement first and says where they differ.
func (r Repeater) settle() Repeater {
	slices.SortStableFunc(r.Statements, func(a, b Record) int {
		return cmp.Or(b.Updated.Compare(a.Updated.Time), a.ID().compare(b.ID()))
	})
	for _, f := range Fields {
		if c, differ := r.compare(f); differ {
			r.Conflicts = append(r.Conflicts, c)
		}
	}
	return r
}

// Field is something that a statement may say about a repeater.
type Field struct {
	Name string
	Says func(*Record) (text string, ok bool) // ok is false if it says nothing about it
	copy func(to, from *Record)
}

// same reports whether two texts mean the same: a code has two names.
func (f Field) same(a, b string) bool {
	if a == b {
		return true
	}
	x, errX := tone.Parse(a)
	y, errY := tone.Parse(b)
	return errX == nil && errY == nil && x.Kind() == tone.DCS && tone.Same(x, y)
}

func stated(s Stated) (string, bool) {
	if !s.Known {
		return "", false
	}
	return s.Tone.String(), true
}

func word[T ~string](s T) (string, bool) { return string(s), s != "" }

// Fields are those in which statements can differ, in the order in which they
// are shown.
var Fields = []Field{
	{"input", func(r *Record) (string, bool) { return r.Input.MHz(), r.Input != freq.Hz(0) }, func(to, from *Record) { to.Input = from.Input }},
	{"uplink_tone", func(r *Record) (string, bool) { return stated(r.UplinkTone) }, func(to, from *Record) { to.UplinkTone = from.UplinkTone }},
	{"downlink_tone", func(r *Record) (string, bool) { return stated(r.DownlinkTone) }, func(to, from *Record) { to.DownlinkTone = from.DownlinkTone }},
	{"mode", func(r *Record) (string, bool) { return word(r.Mode) }, func(to, from *Record) { to.Mode = from.Mode }},
	{"width", func(r *Record) (string, bool) { return word(r.Width) }, func(to, from *Record) { to.Width = from.Width }},
	{"status", func(r *Record) (string, bool) { return word(r.Status) }, func(to, from *Record) { to.Status = from.Status }},
	{"access", func(r *Record) (string, bool) { return word(r.Access) }, func(to, from *Record) { to.Access = from.Access }},
}

// FieldWords is what people call a field: "uplink tone".
func FieldWords(name string) string { return strings.ReplaceAll(name, "_", " ") }

// Best is the repeater in one record: each field as the first statement has
// it that says anything about it.
func (r Repeater) Best() Record {
	best := r.Statements[0]
	for i := range r.Statements[1:] {
		s := &r.Statements[i+1]
		for _, f := range Fields {
			if _, ok := f.Says(&best); !ok {
				f.copy(&best, s)
			}
		}
		if best.Callsign == "" {
			best.Callsign = s.Callsign
		}
		if best.Locality == "" {
			best.Locality = s.Locality
		}
		if best.Note == "" {
			best.Note = s.Note
		}
		if best.Lat == nil {
			best.Lat, best.Lon = s.Lat, s.Lon
		}
		if best.Height == nil {
			best.Height = s.Height
		}
	}
	return best
}
