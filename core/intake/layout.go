package intake

import (
	"fmt"
	"slices"
	"strings"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/listing"
)

// Layout is how a table is to be read.
type Layout struct {
	Heading []string // the names of the columns; nil if no row gives them
	From    int      // the first row with data
	Mapping Mapping
	View    View // whose TX it is
	Prose   bool // its lines are words rather than cells
}

// Look says how a table is to be read, from its first rows. named says that
// the first row holds the names of the fields, whatever they are. Lines that
// have neither a heading nor a column of frequencies are words.
func Look(rows [][]string, named bool, plan *band.Plan) Layout {
	var l Layout
	if l.Heading, l.From = Heading(rows); l.Heading == nil && named {
		l.Heading, l.From = rows[0], 1
	}
	l.Mapping, l.View = Guess(l.Heading, rows[l.From:], plan)
	l.Prose = l.Heading == nil
	for _, c := range l.Mapping {
		l.Prose = l.Prose && c.Role != Output
	}
	return l
}

// Again checks a mapping that was confirmed for an earlier table with the same
// headings against the values of this one. It is not used where it reads far
// fewer rows than the guess, and a viewpoint that the values deny is asked
// for again.
func (l Layout) Again(m Mapping, rows [][]string, plan *band.Plan) (Mapping, View, bool) {
	readable := func(m Mapping) int {
		r, n := Reader{Mapping: m, Plan: plan, Source: "-"}, 0
		for _, row := range rows {
			if _, faults := r.Row(row); len(faults) == 0 {
				n++
			}
		}
		return n
	}
	if readable(m)*5 < readable(l.Mapping)*4 {
		return l.Mapping, l.View, false
	}
	v := m.Viewpoint()
	switch {
	case v == "" || l.View.Viewpoint == "":
		return m, View{Reasons: []string{}}, true
	case l.View.Settled && l.View.Viewpoint != v:
		return l.Mapping, View{Viewpoint: l.View.Viewpoint, Reasons: append([]string{"it was read the other way round the last time"}, l.View.Reasons...)}, false
	}
	return m, View{Viewpoint: v, Settled: true, Reasons: []string{"you said so the last time"}}, true
}

// Aside reports why a row is not for anybody to mend: a heading again, or a
// note or a total between the rows.
func (l Layout) Aside(m Mapping, cells []string) (reason string, ok bool) {
	filled, again, placed, total := 0, 0, false, false
	for i := range cells {
		text := cell(cells, i)
		if text == "" {
			continue
		}
		filled++
		total = total || is("total", strings.TrimRight(text, ":= "))
		if i < len(l.Heading) && plain(text) == plain(l.Heading[i]) {
			again++
		}
		// Words in the column of the frequency are none.
		placed = placed || i < len(m) && (m[i].Role == Output || m[i].Role == Input) && !letters.MatchString(text)
	}
	switch {
	case l.Heading != nil && again >= 2 && again*2 >= filled:
		return "the heading again", true
	case l.Heading != nil && total && filled <= 3:
		return "a total", true
	case l.Heading != nil && !placed && filled <= 2:
		return "a note or a total: it has no frequency", true
	}
	return "", false
}

// Compare settles a viewpoint that the table does not prove by the repeaters
// that other listings have: known returns them by output. Two must be found as
// the table says from one side, and three times as many as from the other.
func (l Layout) Compare(rows [][]string, plan *band.Plan, known func(freq.Hz) ([]listing.Record, error)) (View, error) {
	if !l.View.Asked() {
		return l.View, nil
	}
	found := map[Viewpoint]int{}
	for _, v := range []Viewpoint{Operator, Repeater} {
		r := Reader{Mapping: l.Mapping.Under(v), Plan: plan, Source: "-"}
		for _, row := range rows[:min(len(rows), sample)] {
			rec, faults := r.Row(row)
			if len(faults) > 0 || !rec.UplinkTone.Known || rec.UplinkTone == rec.DownlinkTone {
				continue
			}
			others, err := known(rec.Output)
			if err != nil {
				return l.View, err
			}
			if slices.ContainsFunc(others, func(o listing.Record) bool {
				return o.UplinkTone == rec.UplinkTone && (o.Input == 0 || rec.Input == 0 || o.Input == rec.Input)
			}) {
				found[v]++
			}
		}
	}
	for _, v := range []Viewpoint{Operator, Repeater} {
		other := found[Operator] + found[Repeater] - found[v]
		if found[v] >= 2 && found[v] >= 3*other {
			return View{Viewpoint: v, Settled: true, Reasons: append(slices.Clone(l.View.Reasons), fmt.Sprintf("%d rows are repeaters that other listings have in this way", found[v]))}, nil
		}
	}
	return l.View, nil
}
