package intake

import (
	"cmp"
	"regexp"
	"slices"
	"strings"

	"mnemos/core/band"
	"mnemos/core/freq"
)

// sample is how many rows a guess looks at, and most how many cells: a table
// of hundreds of columns is judged by fewer rows.
const (
	sample = 200
	most   = 6_000
)

// Guess says what each column probably holds, by its heading and by the
// cells under it, and from whose viewpoint. plan decides what a plausible
// frequency is, and how dates are written where they do not tell.
func Guess(heading []string, rows [][]string, plan *band.Plan) (Mapping, View) {
	width := len(heading)
	for _, r := range rows[:min(len(rows), sample)] {
		width = max(width, len(r))
	}
	rows = rows[:min(len(rows), sample, max(10, most/max(width, 1)))]
	g := guesser{plan: plan, columns: make([]column, width), shorts: map[string]bool{}}
	for i := range g.columns {
		g.columns[i] = g.see(i, heading, rows)
	}
	g.shiftAt = slices.IndexFunc(g.columns, func(c column) bool {
		_, known := headed(Shift, c.normal)
		return known && g.share(Shift, c.unit, c.order, c.cells) >= 0.5
	})
	v := viewpoint{g: &g, rows: rows}
	view := v.decide()
	for i := range g.columns {
		g.score(&g.columns[i], cmp.Or(view.Viewpoint, Operator))
	}
	return g.assign(), view
}

type guesser struct {
	plan    *band.Plan
	columns []column
	shiftAt int // the column of the shifts, or -1
	shorts  map[string]bool
}

// sign is the sign of the shift that a row states, or 0.
func (g *guesser) sign(row []string) int {
	if g.shiftAt < 0 {
		return 0
	}
	o, err := shift(cell(row, g.shiftAt), g.columns[g.shiftAt].unit)
	if err != nil {
		return 0
	}
	return o.sign
}

// column is what can be seen in one.
type column struct {
	heading string
	normal  string
	cells   []string // those that are filled
	filled  int
	meaning meaning
	meant   bool // the heading speaks of a frequency or a tone, and the cells do not deny it
	scores  map[Role]float64
	unit    Unit
	order   Order
}

// strong and weak are the weights of a heading that is a known word, and of
// one that begins with or holds one. What the cells say counts up to 2. Common
// practice, no source.
const (
	strong = 3.0
	weak   = 1.5
)

// see looks at one column by itself.
func (g *guesser) see(i int, heading []string, rows [][]string) column {
	c := column{scores: map[Role]float64{}, order: DMY}
	if i < len(heading) {
		c.heading = heading[i]
		c.normal = normal(c.heading)
	}
	for _, r := range rows {
		if text := cell(r, i); text != "" {
			c.cells = append(c.cells, text)
		}
	}
	c.filled = len(c.cells)
	c.meaning, c.meant = mean(c.heading)
	c.unit = g.unit(c.heading, c.cells, c.meant)
	c.order = g.order(c.cells)
	if c.meant {
		c.meant = g.about(&c)
	}
	return c
}

// about settles what a meant column is about by its cells, and reports whether
// they agree with its heading.
func (g *guesser) about(c *column) bool {
	asFrequency := g.share(Output, c.unit, c.order, c.cells)
	asTone := g.share(UplinkTone, c.unit, c.order, c.cells)
	if c.meaning.about != "" {
		return true // what is named and cannot be read is said row by row, never passed over
	}
	switch {
	case c.filled == 0:
		return false
	case asFrequency >= 0.5 && asFrequency >= asTone:
		c.meaning.about = frequencies
	case asTone >= 0.5 && g.figures(c.cells):
		c.meaning.about = toneColumn
	case c.meaning.side != NoSide && !elsewhere(c.normal):
		c.meaning.about = frequencies // "output" over rows that cannot be read
	default:
		return false
	}
	return true
}

// elsewhere reports whether a heading means something else too, such as access.
func elsewhere(h string) bool {
	return slices.ContainsFunc(Roles, func(r Role) bool { _, known := headed(r, h); return known })
}

// figures reports whether some cells have figures: words such as "open" or
// "yes" can be taken for a tone that is unknown.
func (g *guesser) figures(cells []string) bool {
	return slices.ContainsFunc(cells, func(c string) bool { return strings.ContainsAny(c, "123456789") })
}

// score weighs the roles of a column, from a viewpoint.
func (g *guesser) score(c *column, v Viewpoint) {
	if c.meant {
		role := c.meaning.role(v)
		c.scores[role] = strong + 2*g.share(role, c.unit, c.order, c.cells)
		if c.meaning.side == NoSide {
			c.scores[role] -= 0.2 // "output" before "frequency"
		}
		return
	}
	for _, role := range Roles {
		if role == Ignore {
			continue
		}
		score, known := headed(role, c.normal)
		share := g.share(role, c.unit, c.order, c.cells)
		switch {
		case known && (score >= strong || c.filled == 0 || share >= 0.3):
			c.scores[role] = score + 2*share
		case share >= 0.8 && g.guessable(role, *c, c.cells):
			c.scores[role] = 2 * share * likely[role]
		}
	}
}

// guessable reports whether a role can be told by its cells alone. Any words
// could be a place, so a heading that means something else rules that out; and
// any number a shift, so it has to be one of the plan.
func (g *guesser) guessable(r Role, c column, cells []string) bool {
	switch r {
	case Locality:
		return strings.TrimSpace(c.heading) == ""
	case Shift:
		return slices.ContainsFunc(cells, func(cell string) bool {
			o, err := shift(cell, c.unit)
			return err == nil && o.sign != 0 && (o.size == 0 || g.usual(o.size)) || c.heading == "" && g.usual(o.size)
		})
	}
	return likely[r] > 0
}

// usual reports whether some repeaters of the region have a shift of a size.
func (g *guesser) usual(size freq.Offset) bool {
	for _, b := range g.plan.Bands {
		for _, r := range b.Shifts {
			if r.Offset.Abs() == size && size != 0 {
				return true
			}
		}
	}
	return false
}

// likely weighs the roles that cells alone can tell: frequencies and positions
// are unmistakable, a word such as "open" is not.
var likely = map[Role]float64{
	Output: 1, Input: 0.9, Position: 0.9, Callsign: 0.9, UplinkTone: 0.7, DownlinkTone: 0.6, Shift: 0.65, Mode: 0.6, Status: 0.5, Access: 0.5,
	Updated: 0.8, Latitude: 0.5, Longitude: 0.45, Locality: 0.4,
}

// share is which part of the filled cells can be read as the role.
func (g *guesser) share(role Role, unit Unit, order Order, cells []string) float64 {
	if len(cells) == 0 {
		return 0
	}
	n := 0
	for _, c := range cells {
		if g.fits(role, unit, order, c) {
			n++
		}
	}
	return float64(n) / float64(len(cells))
}

var (
	callsign = regexp.MustCompile(`^[A-Z0-9]{1,3}\d[A-Z0-9]{1,5}$`)
	letters  = regexp.MustCompile(`\p{L}{3}`)
	decimal  = regexp.MustCompile(`\d[.,]\d`)
)

func (g *guesser) fits(role Role, unit Unit, order Order, cell string) bool {
	if wordy(cell) {
		return role == Locality || role == Note || role == Key
	}
	switch role {
	case Output, Input:
		f, err := frequency(strings.TrimRight(cell, "+-−– "), unit)
		_, known := g.plan.Band(f)
		return err == nil && (known || f > 25*freq.MHz && len(cell) > 4) || g.short(cell)
	case Shift:
		o, err := shift(cell, unit)
		return err == nil && (o.sign != 0 || o.zero || o.size > 0 && o.size < 100*freq.MHz)
	case Size:
		o, err := shift(cell, unit)
		return err == nil && o.size > 0
	case UplinkTone, DownlinkTone:
		up, _, err := tones(cell)
		return err == nil && (!up.Known || up.Tone.IsOff() || up.Tone.Standard() || up.Tone.DeciHertz() == 1500)
	case Callsign:
		return callsign.MatchString(strings.ToUpper(cell))
	case Latitude:
		_, err := latitude(cell)
		return err == nil && decimal.MatchString(cell) || strings.ContainsAny(cell, "°")
	case Longitude:
		_, err := longitude(cell)
		return err == nil && decimal.MatchString(cell) || strings.ContainsAny(cell, "°")
	case Position:
		_, err := position(cell)
		return err == nil && (len(cell) != 4 || strings.ToUpper(cell) == cell)
	case Height:
		_, err := height(cell)
		return err == nil
	case Updated:
		_, err := date(cell, order)
		return err == nil
	case Mode:
		return is("fm", cell) || is("digital", cell) || is("mixed", cell)
	case Width:
		return is("wide", cell) || is("narrow", cell)
	case Status:
		return is("on_air", cell) || is("off_air", cell)
	case Access:
		return is("open", cell) || is("closed", cell) || is("private", cell)
	case Locality:
		return letters.MatchString(cell) && !callsign.MatchString(strings.ToUpper(cell))
	}
	return true // a key or a note can be anything
}

// short reports whether a cell is a frequency without its point: 14652.
func (g *guesser) short(cell string) bool {
	if n := len(cell); n < 4 || n > 9 || strings.Trim(cell, "0123456789") != "" {
		return false
	}
	known, ok := g.shorts[cell]
	if !ok {
		r := Reader{Plan: g.plan}
		d, sure := r.sure(cell)
		known = sure && d.Channel.Receive > 25*freq.MHz
		g.shorts[cell] = known
	}
	return known
}

// unit reads the unit of a column from its heading, or from the size of its
// numbers: repeaters are at tens to hundreds of MHz and their shifts below ten.
func (g *guesser) unit(heading string, cells []string, meant bool) Unit {
	for _, u := range []Unit{MHz, KHz} {
		if strings.Contains(strings.ToLower(heading), strings.ToLower(string(u))) {
			return u
		}
	}
	var sizes []int64
	for _, c := range cells {
		if n, err := freq.Scale(strings.Trim(c, "+-−– "), 1000); err == nil && n > 0 { // thousandths
			sizes = append(sizes, n/1000)
		}
	}
	if len(sizes) == 0 {
		return MHz
	}
	slices.Sort(sizes)
	switch m := sizes[len(sizes)/2]; {
	case m >= 10_000_000, m >= 100_000 && m%1000 == 0 && m < 10_000_000 && int64(freq.Max) > m*1000 && !g.band(m):
		return Hz
	case m >= 20_000:
		return KHz
	case m >= 50 && !g.plausible(m) && !meant:
		return KHz // a shift of 100 or 600
	}
	return MHz
}

// band reports whether so many kHz lie in a band.
func (g *guesser) band(khz int64) bool { _, ok := g.plan.Band(freq.Hz(khz * freq.KHz)); return ok }

// plausible reports whether so many MHz are about a band of the region.
func (g *guesser) plausible(mhz int64) bool {
	return slices.ContainsFunc(g.plan.Bands, func(b band.Band) bool {
		f := freq.Hz(mhz * freq.MHz)
		return f >= b.Lower-freq.MHz && f <= b.Upper
	})
}

// order tells day and month apart by those beyond twelve; where none is, by
// the habit of the region.
func (g *guesser) order(cells []string) Order {
	for _, c := range cells {
		m := figured.FindStringSubmatch(c)
		if m == nil {
			continue
		}
		if len(m[1]) == 2 && m[1] > "12" {
			return DMY
		}
		if len(m[2]) == 2 && m[2] > "12" {
			return MDY
		}
	}
	if g.plan.Region == "us" {
		return MDY
	}
	return DMY
}

// assign gives each role to the column that fits it best, the surest first.
func (g *guesser) assign() Mapping {
	type claim struct {
		role  Role
		at    int
		score float64
	}
	var claims []claim
	for i, c := range g.columns {
		for role, score := range c.scores {
			claims = append(claims, claim{role, i, score})
		}
	}
	slices.SortFunc(claims, func(a, b claim) int {
		return cmp.Or(cmp.Compare(b.score, a.score), cmp.Compare(a.at, b.at), cmp.Compare(slices.Index(Roles, a.role), slices.Index(Roles, b.role)))
	})
	m := make(Mapping, len(g.columns))
	used := map[Role]bool{}
	for _, c := range claims {
		if used[c.role] || m[c.at].Role != Ignore || c.role == Position && (used[Latitude] || used[Longitude]) ||
			(c.role == Latitude || c.role == Longitude) && used[Position] {
			continue
		}
		m[c.at].Role, used[c.role] = c.role, true
		if col := g.columns[c.at]; col.meant && col.meaning.side.depends() {
			m[c.at].Side = col.meaning.side
		}
	}
	for i := range m {
		if measured(m[i].Role) {
			m[i].Unit = g.columns[i].unit
		}
		if m[i].Role == Updated {
			m[i].Order = g.columns[i].order
		}
	}
	return m
}
