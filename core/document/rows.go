package document

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"mnemos/core/entry"
	"mnemos/core/table"
)

// A plan as rows of cells begins with lines about the plan, each under a word
// with a number sign, and goes on with a table of its channels: what is true
// of a channel for everybody, then its slot, short name and scanning in each
// radio, then its place in each set.
const sign = "# "

// Sign is the first cell of a plan in rows.
const Sign = sign + Format

// field is a line about the plan.
type field struct {
	word  string
	write func(Plan) string
	read  func(*Plan, string) error
}

func words(word string, of func(*Plan) *string) field {
	return field{word, func(p Plan) string { return *of(&p) }, func(p *Plan, s string) error { *of(p) = s; return nil }}
}

func degrees(word string, of func(*Plan) **float64) field {
	return field{word, func(p Plan) string {
		if v := *of(&p); v != nil {
			return strconv.FormatFloat(*v, 'f', -1, 64)
		}
		return ""
	}, func(p *Plan, s string) (err error) {
		if s == "" {
			return nil
		}
		v, err := number(s)
		*of(p) = &v
		return err
	}}
}

func amount(word string, of func(*Plan) *float64) field {
	return field{word, func(p Plan) string { return strconv.FormatFloat(*of(&p), 'f', -1, 64) }, func(p *Plan, s string) (err error) {
		*of(p), err = number(s)
		return err
	}}
}

func number(s string) (float64, error) {
	v, err := strconv.ParseFloat(strings.Replace(s, ",", ".", 1), 64)
	if err != nil {
		return 0, fmt.Errorf("%q is not a number", s)
	}
	return v, nil
}

var fields = []field{
	words("name", func(p *Plan) *string { return &p.Name }),
	words("season", func(p *Plan) *string { return &p.Season }),
	words("region", func(p *Plan) *string { return &p.Region }),
	degrees("latitude", func(p *Plan) **float64 { return &p.Lat }),
	degrees("longitude", func(p *Plan) **float64 { return &p.Lon }),
	amount("aerial height, m", func(p *Plan) *float64 { return &p.Height }),
	amount("radius, km", func(p *Plan) *float64 { return &p.Radius }),
	words("tones", func(p *Plan) *string { return &p.TonePolicy }),
	words("named places", func(p *Plan) *string { return &p.Marks }),
}

// What the headings of a radio and of a set begin with. The first of a kind is that
// of the first radio, and so on.
const slotIn, shortIn, scanIn, inSet = "slot in", "short name in", "scan in", "place in set"

// common are the columns of a channel that are the same for everybody.
var common = slices.DeleteFunc(slices.Clone(table.Columns), func(c table.Column) bool {
	return c.Heading == "slot" || c.Heading == "short name" || c.Heading == "scan"
})

// Rows writes a plan as rows of cells.
func Rows(p Plan) (out [][]string) {
	out = append(out, []string{sign + Format, strconv.Itoa(Version)})
	for _, f := range fields {
		out = append(out, []string{sign + f.word, table.Guarded(f.write(p))})
	}
	for _, u := range p.Units {
		out = append(out, []string{sign + "radio", table.Guarded(u.Name), table.Guarded(u.Profile), table.Guarded(u.YAML)})
	}
	for _, s := range p.Sets {
		out = append(out, []string{sign + "set", table.Guarded(s.Kind), table.Guarded(s.Name)})
	}
	heading := []string{"number"}
	for _, c := range common {
		heading = append(heading, c.Heading)
	}
	heading = append(heading, "listing", "key")
	for _, u := range p.Units {
		heading = append(heading, slotIn+" "+u.Title(), shortIn+" "+u.Title(), scanIn+" "+u.Title())
	}
	for _, s := range p.Sets {
		heading = append(heading, inSet+" "+s.Name)
	}
	for i := range heading {
		heading[i] = table.Guarded(heading[i])
	}
	out = append(out, heading)
	for i, c := range p.Channels {
		row := []string{""}
		if c.Number != nil {
			row[0] = strconv.Itoa(*c.Number)
		}
		for _, column := range common {
			row = append(row, column.Write(table.Line{Channel: c.Channel}))
		}
		row = append(row, table.Guarded(c.Repeater.Source), table.Guarded(c.Repeater.Key))
		for _, u := range p.Units {
			row = append(row, cellsOf(u, i+1)...)
		}
		for _, s := range p.Sets {
			row = append(row, placeIn(s, i+1))
		}
		out = append(out, row)
	}
	return out
}

const pinned = "(pinned)"

func cellsOf(u Unit, channel int) []string {
	for _, e := range u.Entries {
		if e.Channel != channel {
			continue
		}
		short := table.Guarded(e.Short)
		if e.Pinned {
			short = strings.TrimSpace(short + " " + pinned)
		}
		return []string{strconv.Itoa(e.Slot), short, string(e.Scan)}
	}
	return []string{"", "", ""}
}

const priority = " priority"

func placeIn(s Set, channel int) string {
	for i, m := range s.Members {
		if m.Channel == channel {
			if m.Priority {
				return strconv.Itoa(i+1) + priority
			}
			return strconv.Itoa(i + 1)
		}
	}
	return ""
}

// IsRows reports whether rows are those of a plan.
func IsRows(rows [][]string) bool {
	return len(rows) > 0 && len(rows[0]) > 0 && strings.TrimSpace(rows[0][0]) == Sign
}

// FromRows reads a plan from rows of cells, or says in which row and column it
// cannot.
func FromRows(rows [][]string) (p Plan, err error) {
	if !IsRows(rows) {
		return p, fmt.Errorf("this is not a plan: its first cell is not %q", Sign)
	}
	if v, _ := strconv.Atoi(cell(rows[0], 1)); v > Version {
		return p, fmt.Errorf("a newer Mnemos made this plan (version %d): use that one", v)
	}
	n := 1
	for ; n < len(rows) && (strings.HasPrefix(cell(rows[n], 0), "#") || blank(rows[n])); n++ {
		if err := p.about(rows[n]); err != nil {
			return p, fmt.Errorf("row %d: %w", n+1, err)
		}
	}
	if n == len(rows) {
		return p, fmt.Errorf("the table of the channels is missing: it begins with a row of headings")
	}
	r := reader{heading: rows[n]}
	for i := n + 1; i < len(rows); i++ {
		if blank(rows[i]) {
			continue
		}
		if err := r.row(&p, rows[i]); err != nil {
			return p, fmt.Errorf("row %d: %w", i+1, err)
		}
	}
	for i := range p.Sets { // by their places
		slices.SortStableFunc(p.Sets[i].Members, func(a, b Member) int { return r.places[i][a.Channel] - r.places[i][b.Channel] })
	}
	for i := range p.Units {
		slices.SortFunc(p.Units[i].Entries, func(a, b Entry) int { return a.Slot - b.Slot })
	}
	return p, p.Check()
}

func cell(row []string, i int) string {
	if i < len(row) {
		return strings.TrimSpace(row[i])
	}
	return ""
}

func blank(row []string) bool {
	return !slices.ContainsFunc(row, func(c string) bool { return strings.TrimSpace(c) != "" })
}

func (p *Plan) about(row []string) error {
	if blank(row) {
		return nil
	}
	text := func(i int) string { return table.Unguarded(cell(row, i)) }
	switch word := strings.TrimPrefix(cell(row, 0), sign); word {
	case "radio":
		p.Units = append(p.Units, Unit{Name: text(1), Profile: text(2), YAML: table.Unguarded(rest(row, 3))})
	case "set":
		p.Sets = append(p.Sets, Set{Kind: text(1), Name: text(2)})
	default:
		for _, f := range fields {
			if f.word == word {
				return f.read(p, text(1))
			}
		}
		return fmt.Errorf("%q is not a word about a plan", word)
	}
	return nil
}

// rest is a cell as it stands: a profile is text with lines.
func rest(row []string, i int) string {
	if i < len(row) {
		return row[i]
	}
	return ""
}

// reader reads the rows of the channels.
type reader struct {
	heading []string
	places  map[int]map[int]int // by set and channel
}

func (r *reader) row(p *Plan, row []string) error {
	var c Channel
	var heading, cells []string
	n := len(p.Channels) + 1
	radio, set := map[string]int{}, 0 // by the beginning of the heading
	for i := range r.heading {
		h, text := table.Unguarded(strings.TrimSpace(r.heading[i])), cell(row, i)
		switch {
		case h == "number" && text != "":
			v, err := strconv.Atoi(text)
			if err != nil {
				return fmt.Errorf("number: %q is not one", text)
			}
			c.Number = &v
		case h == "listing":
			c.Repeater.Source = table.Unguarded(text)
		case h == "key":
			c.Repeater.Key = table.Unguarded(text)
		case strings.HasPrefix(h, slotIn), strings.HasPrefix(h, shortIn), strings.HasPrefix(h, scanIn):
			if radio[h[:5]]++; radio[h[:5]] > len(p.Units) {
				return fmt.Errorf("%s: no line with %q says which radio that is", h, sign+"radio")
			}
			if err := r.entry(&p.Units[radio[h[:5]]-1], n, h, text); err != nil {
				return fmt.Errorf("%s: %w", h, err)
			}
		case strings.HasPrefix(h, inSet):
			if set >= len(p.Sets) {
				return fmt.Errorf("%s: no line with %q says which set that is", h, sign+"set")
			}
			if err := r.member(p, set, n, text); err != nil {
				return fmt.Errorf("%s: %w", h, err)
			}
			set++
		default:
			heading, cells = append(heading, h), append(cells, text)
		}
	}
	l, faults := table.Read(heading, cells)
	if len(faults) > 0 {
		return fmt.Errorf("%s: %s", faults[0].Heading, faults[0].Message)
	}
	c.Channel = l.Channel
	p.Channels = append(p.Channels, c)
	return nil
}

// entry reads a cell of a radio; the slot stands before the others.
func (r *reader) entry(u *Unit, channel int, heading, text string) error {
	if strings.HasPrefix(heading, slotIn) {
		if text == "" {
			return nil
		}
		slot, err := strconv.Atoi(text)
		if err != nil {
			return fmt.Errorf("%q is not a slot", text)
		}
		u.Entries = append(u.Entries, Entry{Slot: slot, Channel: channel, Scan: entry.ScanYes})
		return nil
	}
	n := len(u.Entries) - 1
	switch {
	case text == "":
	case n < 0 || u.Entries[n].Channel != channel:
		return fmt.Errorf("%q, and no slot before it", text)
	case strings.HasPrefix(heading, shortIn):
		short, is := strings.CutSuffix(text, pinned)
		u.Entries[n].Short, u.Entries[n].Pinned = table.Unguarded(strings.TrimSpace(short)), is
	default:
		u.Entries[n].Scan = entry.Scan(text)
	}
	return nil
}

func (r *reader) member(p *Plan, set, channel int, text string) error {
	if text == "" {
		return nil
	}
	place, is := strings.CutSuffix(text, priority)
	n, err := strconv.Atoi(place)
	if err != nil {
		return fmt.Errorf("%q is not a place in it: write a number, and %q behind it where it has priority", text, strings.TrimSpace(priority))
	}
	if r.places == nil {
		r.places = map[int]map[int]int{}
	}
	if r.places[set] == nil {
		r.places[set] = map[int]int{}
	}
	r.places[set][channel] = n
	p.Sets[set].Members = append(p.Sets[set].Members, Member{channel, is})
	return nil
}
