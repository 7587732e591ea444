// Package compare says how two lists of channels differ: two radios, two plans,
// or one plan at two times.
package compare

import (
	"cmp"
	"slices"
	"strconv"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/table"
)

// Item is a channel in a slot. Its ID is that of the channel where both lists
// number them alike; 0 for none.
type Item struct {
	ID int64
	table.Line
}

// Field is one thing that differs, as it is written in a table.
type Field struct{ Name, Was, Is string }

// Difference is a channel that is not the same in both lists: Was is nil where it
// is new, Is where it is gone.
type Difference struct {
	Was, Is *Item
	Fields  []Field // what differs where it is in both
}

// Result is how two lists differ.
type Result struct {
	Differences []Difference // in the order of the slots
	Same        int
}

// Lists compares two lists. A channel is found again by its ID; where there is
// none by what it does on the air, and the more alike two are the sooner they
// belong together: one that has nothing but its slot in common is another one.
func Lists(was, is []Item) Result {
	var out Result
	left := slices.Clone(is)
	pairs := make([]*Item, len(was))
	for _, same := range alike {
		at := map[string][]int{} // what is left, by what has to be the same
		for i := range left {
			if key := same(left[i]); key != "" && left[i].Channel.Receive != 0 {
				at[key] = append(at[key], i)
			}
		}
		for i := range was {
			key := same(was[i])
			if pairs[i] != nil || key == "" || len(at[key]) == 0 {
				continue
			}
			j := at[key][0]
			at[key] = at[key][1:]
			pairs[i] = new(left[j])
			left[j] = Item{}
		}
	}
	for i := range was {
		d := Difference{Was: &was[i], Is: pairs[i]}
		if d.Is != nil {
			if d.Fields = fields(was[i], *d.Is); len(d.Fields) == 0 {
				out.Same++
				continue
			}
		}
		out.Differences = append(out.Differences, d)
	}
	for i := range left {
		if left[i].Channel.Receive != 0 {
			out.Differences = append(out.Differences, Difference{Is: &left[i]})
		}
	}
	slices.SortStableFunc(out.Differences, func(a, b Difference) int { return cmp.Compare(a.slot(), b.slot()) })
	return out
}

// alike are what has to be the same of two channels for them to be one, strictest
// first.
var alike = []func(Item) string{
	func(i Item) string {
		if i.ID == 0 {
			return ""
		}
		return strconv.FormatInt(i.ID, 10)
	},
	func(i Item) string { return air(i, true) + "/" + i.Channel.Name + "/" + strconv.Itoa(i.Slot) },
	func(i Item) string { return air(i, true) + "/" + i.Channel.Name },
	func(i Item) string { return air(i, true) },
	func(i Item) string { return air(i, false) + "/" + i.Channel.Name },
	func(i Item) string { return air(i, false) },
	func(i Item) string { // the same repeater, moved to another frequency
		if name := strings.ToLower(i.Channel.Name); name != "" {
			return name
		}
		return ""
	},
}

// air is what a channel does on the air, with its tones or without.
func air(i Item, tones bool) string {
	c := i.Channel
	tx, sends := c.Transmit()
	s := c.Receive.MHz() + " " + strconv.FormatBool(sends) + " " + tx.MHz()
	if tones {
		s += " " + c.TransmitTone.String() + " " + c.ReceiveTone.String()
	}
	return s
}

func (d Difference) slot() int {
	if d.Is != nil {
		return d.Is.Slot
	}
	return d.Was.Slot
}

func fields(was, is Item) (out []Field) {
	for _, c := range table.Columns {
		if a, b := table.Unguarded(c.Write(was.Line)), table.Unguarded(c.Write(is.Line)); a != b {
			out = append(out, Field{c.Heading, a, b})
		}
	}
	return out
}

// Of is an item of a channel in a slot.
func Of(id int64, slot int, short string, scan entry.Scan, c channel.Channel) Item {
	return Item{id, table.Line{Slot: slot, Short: short, Scan: scan, Channel: c}}
}
