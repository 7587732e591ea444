package scan

import "time"

// Listened is some time in which a person listened to a scan: from when to when, and how
// much of the overs on a channel the scan heard then.
type Listened struct {
	From, To time.Time
	Chance   float64 // 0 where the channel was not scanned
}

// Hour is an hour of a weekday, as a clock there shows it.
type Hour struct {
	Day  time.Weekday
	Hour int
}

// Cell is what is known of one hour of the week.
type Cell struct {
	Heard   int     // overs
	Hours   float64 // listened
	Counted float64 // of these, as much as the scan hears: hours times the chance
}

// Rate is how many overs an hour there are, those that were missed too: what was heard,
// divided by the chance of hearing it. ok is false where nobody listened long enough to
// tell.
func (c Cell) Rate() (overs float64, ok bool) {
	if c.Counted < enough {
		return 0, false
	}
	return float64(c.Heard) / c.Counted, true
}

// enough is how many hours, counted as above, tell anything: ten minutes of a channel
// that is heard all the time. Common practice, no source.
const enough = 1.0 / 6

func (c Cell) add(o Cell) Cell {
	return Cell{c.Heard + o.Heard, c.Hours + o.Hours, c.Counted + o.Counted}
}

// Diary is what a channel sounds like in the hours of the week.
type Diary struct {
	Cells map[Hour]Cell
	All   Cell
}

// Read makes a diary of what was heard on a channel while somebody listened.
func Read(listened []Listened, heard []time.Time, in *time.Location) Diary {
	d := Diary{Cells: map[Hour]Cell{}}
	put := func(t time.Time, c Cell) {
		t = t.In(in)
		h := Hour{t.Weekday(), t.Hour()}
		d.Cells[h] = d.Cells[h].add(c)
		d.All = d.All.add(c)
	}
	for _, l := range listened {
		for from := l.From; from.Before(l.To); {
			t := from.In(in)
			next := time.Date(t.Year(), t.Month(), t.Day(), t.Hour(), 0, 0, 0, in).Add(time.Hour)
			if !next.After(from) {
				next = from.Add(time.Hour) // the clock was put back
			}
			if next.After(l.To) {
				next = l.To
			}
			hours := next.Sub(from).Hours()
			put(from, Cell{Hours: hours, Counted: hours * l.Chance})
			from = next
		}
	}
	for _, t := range heard {
		put(t, Cell{Heard: 1})
	}
	return d
}

// At is how many overs an hour are to be expected at a time: what that hour of the week
// says, or else all hours together.
func (d Diary) At(t time.Time) (overs float64, of Cell, ok bool) {
	c := d.Cells[Hour{t.Weekday(), t.Hour()}]
	if rate, ok := c.Rate(); ok {
		return rate, c, true
	}
	rate, ok := d.All.Rate()
	return rate, d.All, ok
}

// Busiest is the hour of the week with most overs; ok is false where nothing is known.
func (d Diary) Busiest() (best Hour, overs float64, ok bool) {
	for day := range 7 {
		for hour := range 24 {
			h := Hour{time.Weekday(day), hour}
			if rate, known := d.Cells[h].Rate(); known && rate > overs {
				best, overs, ok = h, rate, true
			}
		}
	}
	return best, overs, ok
}
