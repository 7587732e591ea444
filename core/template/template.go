// Package template writes channels as the columns that somebody else's tool wants,
// and reads them back. A person says which columns, in which order and in which
// words; none ships. What the columns cannot say is listed, and a channel that must
// not transmit is left out where no column could say so.
package template

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/table"
	"mnemos/core/tone"
)

// Template is the columns of a file.
type Template struct {
	Name    string   `json:"name"`
	Comma   bool     `json:"comma"`   // decimal comma
	Divide  string   `json:"divide"`  // between cells: , ; or a tab
	Heading bool     `json:"heading"` // the first row names the columns
	Columns []Column `json:"columns"`
}

// Column is one of them.
type Column struct {
	Of      Field  `json:"of"`
	Heading string `json:"heading"`
	// Unit and Decimals are those of a frequency or a size.
	Unit     string `json:"unit,omitempty"` // MHz, kHz, Hz
	Decimals int    `json:"decimals,omitempty"`
	// Words are what stands for the values of the field, in place of our own.
	Words map[string]string `json:"words,omitempty"`
	Text  string            `json:"text,omitempty"` // of a column that is the same in every row
}

// Field is what a column says of a channel.
type Field string

// The fields.
const (
	Slot     Field = "slot"
	Name     Field = "name"
	Short    Field = "short name"
	Receive  Field = "receive"
	Transmit Field = "transmit" // a frequency, or the word for none
	Way      Field = "way"      // simplex, up, down, split, none
	Size     Field = "size"     // of the shift, without a sign
	Out      Field = "tone out" // what is sent
	In       Field = "tone in"  // what opens the receiver
	Mode     Field = "tone mode"
	Width    Field = "width"
	Power    Field = "power"
	Scan     Field = "scan"
	Lock     Field = "lock" // whether the transmitter is blocked
	Fixed    Field = "text" // the same in every row
)

// Info describes a field, and the words that it writes.
type Info struct {
	Of        Field
	Says      string
	Frequency bool     // it has a unit and decimals
	Words     []string // that can be replaced
}

// Fields are all of them, in an order in which people look for them.
var Fields = []Info{
	{Slot, "the slot", false, nil},
	{Name, "the name", false, nil},
	{Short, "the short name", false, nil},
	{Receive, "the receive frequency", true, nil},
	{Transmit, "the transmit frequency", true, []string{"none"}},
	{Way, "which way the shift goes", false, []string{"simplex", "up", "down", "split", "none"}},
	{Size, "the size of the shift, without a sign", true, nil},
	{Out, "the tone that is sent", false, []string{"none"}},
	{In, "the tone that opens the receiver", false, []string{"none"}},
	{Mode, "how the tones work together", false, []string{"no tone", "tone", "receive tone", "tone squelch", "separate tones"}},
	{Width, "the width", false, []string{"wide", "narrow"}},
	{Power, "the power", false, []string{"high", "mid", "low"}},
	{Scan, "whether it is scanned", false, []string{"yes", "skip", "priority"}},
	{Lock, "whether it may only be received", false, []string{"yes", "no"}},
	{Fixed, "the same text in every row", false, nil},
}

func infoOf(f Field) (Info, bool) {
	i := slices.IndexFunc(Fields, func(x Info) bool { return x.Of == f })
	if i < 0 {
		return Info{}, false
	}
	return Fields[i], true
}

// formula is what a spreadsheet makes one of; a sign alone is none.
var formula = regexp.MustCompile(`^\s*([=@]|[+\-].*[A-Za-z(|!])`)

// Fault is what is wrong with a template, and in which column; -1 is the whole.
type Fault struct {
	Column int
	Text   string
}

const most = 60 // columns

// Check reports everything that keeps t from being used.
func (t Template) Check() (out []Fault) {
	add := func(i int, format string, args ...any) { out = append(out, Fault{i, fmt.Sprintf(format, args...)}) }
	if strings.TrimSpace(t.Name) == "" || len([]rune(t.Name)) > 40 {
		add(-1, "name the columns, in up to 40 characters")
	}
	if len(t.Columns) == 0 || len(t.Columns) > most {
		add(-1, "choose 1 to %d columns", most)
	}
	if !slices.Contains([]string{",", ";", "\t"}, t.Divide) {
		add(-1, "divide cells by a comma, a semicolon or a tab")
	} else if t.Comma && t.Divide == "," {
		add(-1, "a decimal comma and cells divided by commas do not go together: use a semicolon")
	}
	receives := false
	for i, c := range t.Columns {
		info, known := infoOf(c.Of)
		if !known {
			add(i, "%q is not a field", c.Of)
			continue
		}
		receives = receives || c.Of == Receive
		if info.Frequency {
			if _, ok := freq.ParseUnit(c.Unit); !ok {
				add(i, "write MHz, kHz or Hz")
			}
			if c.Decimals < 0 || c.Decimals > 6 {
				add(i, "write 0 to 6 decimals")
			}
		}
		if strings.ContainsAny(c.Heading+c.Text, "\t\r\n") {
			add(i, "a heading and a text have one line")
		}
		said := map[string]string{}
		for word, as := range c.Words {
			if !slices.Contains(info.Words, word) {
				add(i, "%q is not a word of this field", word)
				continue
			}
			if strings.ContainsAny(as, "\t\r\n") {
				add(i, "a word has one line")
			}
			if formula.MatchString(as) {
				add(i, "%q would be a formula in a spreadsheet: begin the word with a letter, a figure, + or - alone", as)
			}
		}
		for _, word := range info.Words {
			as := c.say(word)
			if other, taken := said[as]; taken {
				add(i, "%q stands for %s and for %s: nobody could read it back", as, other, word)
			}
			said[as] = word
		}
	}
	if !receives && len(t.Columns) > 0 {
		add(-1, "one of the columns has to be the receive frequency")
	}
	return out
}

// say is the word for a value.
func (c Column) say(word string) string {
	if as, ok := c.Words[word]; ok {
		return as
	}
	return word
}

// meant is the value that a word stands for.
func (c Column) meant(text string) (string, bool) {
	info, _ := infoOf(c.Of)
	for _, word := range info.Words {
		if c.say(word) == text {
			return word, true
		}
	}
	return "", false
}

func (t Template) has(f Field) bool {
	return slices.ContainsFunc(t.Columns, func(c Column) bool { return c.Of == f })
}

// blocks reports whether a column can say that a channel must not transmit.
func (t Template) blocks() bool { return t.has(Lock) || t.has(Transmit) || t.has(Way) }

// Lost is what a file does not say of a channel.
type Lost struct {
	Slot int
	Name string
	Why  string
}

// Write writes the rows, with the heading if the template has one. A channel that
// must not transmit, or of which the transmit side cannot be said, is left out.
func (t Template) Write(lines []table.Line) (rows [][]string, lost []Lost) {
	if t.Heading {
		heading := []string{}
		for _, c := range t.Columns {
			heading = append(heading, table.Guarded(c.Heading))
		}
		rows = append(rows, heading)
	}
	for _, l := range lines {
		row := []string{}
		for _, c := range t.Columns {
			row = append(row, t.cell(c, l))
		}
		// What the row says is what it reads back as: the reader is the judge.
		got, err := t.Read(row)
		why := missing(l, got)
		if err != nil {
			why = []string{err.Error()}
		}
		tx, sends := l.Channel.Transmit()
		now, would := got.Channel.Transmit()
		switch {
		case err != nil || !sends && (would || !t.blocks()):
			lost = append(lost, Lost{l.Slot, l.Channel.Name, "left out: no column says that it must not transmit"})
			continue
		case sends && would && tx != now || got.Channel.Receive != l.Channel.Receive:
			lost = append(lost, Lost{l.Slot, l.Channel.Name, fmt.Sprintf("left out: by these columns it would receive on %s and transmit on %s", got.Channel.Receive.MHz(), now.MHz())})
			continue
		}
		rows = append(rows, row)
		if len(why) > 0 {
			lost = append(lost, Lost{l.Slot, l.Channel.Name, strings.Join(why, ", ") + " not in it"})
		}
	}
	return rows, lost
}

// missing names what is not in a row as it is in the channel.
func missing(want, got table.Line) (out []string) {
	a, b := want.Channel, got.Channel
	for _, x := range []struct {
		what string
		same bool
	}{
		{"slot", want.Slot == got.Slot},
		{"name", a.Name == b.Name},
		{"short name", want.Short == got.Short},
		{"scanning", want.Scan == got.Scan},
		{"transmit side", sideOf(a) == sideOf(b)},
		{"tone sent", a.TransmitTone == b.TransmitTone},
		{"tone heard", a.ReceiveTone == b.ReceiveTone},
		{"width", a.Width == b.Width},
		{"power", a.Power == b.Power},
	} {
		if !x.same {
			out = append(out, x.what)
		}
	}
	return out
}

// sideOf is what a channel transmits on, however it is written.
func sideOf(c channel.Channel) string {
	tx, sends := c.Transmit()
	return fmt.Sprint(tx, sends)
}

func (t Template) cell(c Column, l table.Line) string {
	ch := l.Channel
	tx, sends := ch.Transmit()
	switch c.Of {
	case Slot:
		return strconv.Itoa(l.Slot)
	case Name:
		return table.Guarded(ch.Name)
	case Short:
		return table.Guarded(l.Short)
	case Receive:
		return t.number(int64(ch.Receive), c)
	case Transmit:
		if !sends {
			return c.say("none")
		}
		return t.number(int64(tx), c)
	case Way:
		return c.say(wayOf(ch))
	case Size:
		return t.number(int64(ch.Offset().Abs()), c)
	case Out:
		return c.toneOf(ch.TransmitTone)
	case In:
		return c.toneOf(ch.ReceiveTone)
	case Mode:
		return c.say(string(ch.Mode()))
	case Width:
		return c.say(string(ch.Width))
	case Power:
		return c.say(string(ch.Power))
	case Scan:
		return c.say(string(l.Scan))
	case Lock:
		if sends {
			return c.say("no")
		}
		return c.say("yes")
	}
	return table.Guarded(c.Text)
}

func (c Column) toneOf(t tone.Tone) string {
	if t.IsOff() {
		return c.say("none")
	}
	return t.String()
}

func wayOf(c channel.Channel) string {
	tx, sends := c.Transmit()
	switch {
	case !sends:
		return "none"
	case c.Side.Kind == channel.Split:
		return "split"
	case tx > c.Receive:
		return "up"
	case tx < c.Receive:
		return "down"
	}
	return "simplex"
}

// number writes hertz in the unit and with the decimals of a column.
func (t Template) number(hz int64, c Column) string {
	unit, _ := freq.ParseUnit(c.Unit)
	scale := int64(1)
	for range c.Decimals {
		scale *= 10
	}
	n := (hz*scale + int64(unit)/2) / int64(unit) // to the nearest
	whole, rest := n/scale, n%scale
	if c.Decimals == 0 {
		return strconv.FormatInt(whole, 10)
	}
	point := "."
	if t.Comma {
		point = ","
	}
	return fmt.Sprintf("%d%s%0*d", whole, point, c.Decimals, rest)
}

// Read reads a row under the template. What no column says is as it is for a new
// channel: simplex unless something else is said.
func (t Template) Read(cells []string) (table.Line, error) {
	r := reading{line: table.Line{Scan: entry.ScanYes, Channel: channel.Channel{Width: channel.Wide, Power: channel.High}}}
	for i, c := range t.Columns {
		text := ""
		if i < len(cells) {
			text = strings.TrimSpace(cells[i])
		}
		if err := r.take(c, text); err != nil {
			return r.line, fmt.Errorf("%s: %w", c.title(i), err)
		}
	}
	if err := r.settle(); err != nil {
		return r.line, err
	}
	return r.line, r.line.Channel.Validate()
}

func (c Column) title(i int) string {
	if c.Heading != "" {
		return c.Heading
	}
	return fmt.Sprintf("column %d", i+1)
}
