package intake

import "mnemos/core/band"

// Layout is how a table is to be read.
type Layout struct {
	Heading []string // the names of the columns; nil if no row gives them
	From    int      // the first row with data
	Mapping Mapping
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
	l.Mapping = Guess(l.Heading, rows[l.From:], plan)
	l.Prose = l.Heading == nil
	for _, c := range l.Mapping {
		l.Prose = l.Prose && c.Role != Output
	}
	return l
}
