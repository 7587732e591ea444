// Package table writes channels as rows of cells, and reads them back: what goes
// through the clipboard and through spreadsheets. Each cell says one thing in a
// way that a spreadsheet does not take for anything else: a shift has no sign
// that makes a formula of it, and a receive-only channel says so.
package table

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/tone"
)

// Line is a channel in a slot of a radio.
type Line struct {
	Slot    int // 0 where the table does not say
	Short   string
	Scan    entry.Scan
	Channel channel.Channel
}

// Column is one thing that a table says of a channel.
type Column struct {
	Heading string
	Write   func(Line) string
	// Read takes what is not empty into the line, or says what to write instead.
	Read func(*Line, string) error
}

// Columns are those that are written, in their order. Read together they make
// the line that they were written of.
var Columns = []Column{
	{"slot", func(l Line) string { return strconv.Itoa(l.Slot) }, func(l *Line, s string) (err error) {
		if l.Slot, err = strconv.Atoi(s); err != nil {
			return fmt.Errorf("%q is not a slot: write its number", s)
		}
		return nil
	}},
	{"name", func(l Line) string { return Guarded(l.Channel.Name) }, func(l *Line, s string) error {
		l.Channel.Name = Unguarded(s)
		return nil
	}},
	{"short name", func(l Line) string { return Guarded(l.Short) }, func(l *Line, s string) error {
		l.Short = Unguarded(s)
		return nil
	}},
	{"receive MHz", func(l Line) string { return l.Channel.Receive.MHz() }, func(l *Line, s string) (err error) {
		l.Channel.Receive, err = megahertz(s)
		return err
	}},
	{"transmit MHz", func(l Line) string {
		if tx, sends := l.Channel.Transmit(); sends {
			return tx.MHz()
		}
		return "none"
	}, func(l *Line, s string) error {
		if s == "none" {
			l.Channel.Side = channel.TransmitSide{Kind: channel.Blocked}
			return nil
		}
		tx, err := megahertz(s)
		l.Channel.Side = channel.SplitSide(tx)
		return err
	}},
	{"shift", func(l Line) string { return shift(l.Channel) }, readShift},
	{"tone sent", func(l Line) string { return l.Channel.TransmitTone.String() }, func(l *Line, s string) (err error) {
		l.Channel.TransmitTone, err = tone.Parse(s)
		return err
	}},
	{"tone received", func(l Line) string { return l.Channel.ReceiveTone.String() }, func(l *Line, s string) (err error) {
		l.Channel.ReceiveTone, err = tone.Parse(s)
		return err
	}},
	{"width", func(l Line) string { return string(l.Channel.Width) }, func(l *Line, s string) error {
		return one(&l.Channel.Width, s, channel.Wide, channel.Narrow)
	}},
	{"power", func(l Line) string { return string(l.Channel.Power) }, func(l *Line, s string) error {
		return one(&l.Channel.Power, s, channel.High, channel.Mid, channel.Low)
	}},
	{"scan", func(l Line) string { return string(l.Scan) }, func(l *Line, s string) error {
		return one(&l.Scan, s, entry.ScanYes, entry.ScanSkip, entry.ScanPriority)
	}},
}

func megahertz(s string) (freq.Hz, error) {
	n, err := freq.Scale(s, freq.Unit(freq.MHz))
	if err != nil {
		return 0, fmt.Errorf("%q is not a frequency: write MHz, such as 147.24", s)
	}
	return freq.Hz(n), nil
}

func one[T ~string](to *T, s string, all ...T) error {
	if *to = T(strings.ToLower(s)); slices.Contains(all, *to) {
		return nil
	}
	var words []string
	for _, x := range all {
		words = append(words, string(x))
	}
	return fmt.Errorf("%q: write %s or %s", s, strings.Join(words[:len(words)-1], ", "), words[len(words)-1])
}

func shift(c channel.Channel) string {
	if c.Side.Kind != channel.Shift {
		return string(c.Side.Kind)
	}
	way := "up"
	if c.Side.Offset < 0 {
		way = "down"
	}
	if size := c.Side.Offset.Abs(); size%1000 == 0 {
		return fmt.Sprintf("%d kHz %s", size/1000, way)
	}
	return fmt.Sprintf("%d Hz %s", c.Side.Offset.Abs(), way)
}

var shiftWords = regexp.MustCompile(`(?i)^(\d{1,9}) ?(k?Hz) (up|down)$`)

// readShift comes after the transmit frequency: the two have to say the same.
func readShift(l *Line, s string) error {
	kind := channel.Kind(strings.ToLower(s))
	side := channel.TransmitSide{Kind: kind}
	switch kind {
	case channel.Simplex, channel.Blocked:
	case channel.Split:
		if l.Channel.Side.Kind != channel.Split {
			return fmt.Errorf("split needs a transmit frequency beside it")
		}
		return nil
	default:
		m := shiftWords.FindStringSubmatch(s)
		if m == nil {
			return fmt.Errorf("%q is not a shift: write a size and up or down, such as 600 kHz down; simplex, split or none", s)
		}
		n, _ := strconv.ParseInt(m[1], 10, 64) // nine figures always fit
		if strings.EqualFold(m[2], "khz") {
			n *= 1000
		}
		if strings.EqualFold(m[3], "down") {
			n = -n
		}
		side = channel.ShiftSide(freq.Offset(n))
	}
	was := l.Channel
	l.Channel.Side = side
	a, sends := was.Transmit()
	if b, shifted := l.Channel.Transmit(); was.Side.Kind != "" && (a != b || sends != shifted) {
		said := "none"
		if sends {
			said = a.MHz()
		}
		return fmt.Errorf("the shift %q does not lead to the transmit frequency beside it, %s: leave one of the two empty", s, said)
	}
	return nil
}

// Fault is a cell that cannot be read, and what to write instead; Column is -1
// for the row as a whole.
type Fault struct {
	Column  int
	Heading string
	Text    string
	Message string
}

// Ours reports by its headings whether a table is one of these, in any order and
// with any of the columns missing but the receive frequency.
func Ours(heading []string) bool {
	receives := false
	for _, h := range heading {
		i := column(h)
		if i < 0 && strings.TrimSpace(h) != "" {
			return false
		}
		receives = receives || i >= 0 && Columns[i].Heading == "receive MHz"
	}
	return receives
}

func column(heading string) int {
	return slices.IndexFunc(Columns, func(c Column) bool { return strings.EqualFold(c.Heading, strings.TrimSpace(heading)) })
}

// Read reads a row under such headings.
func Read(heading, cells []string) (Line, []Fault) {
	l := Line{Scan: entry.ScanYes, Channel: channel.Channel{Width: channel.Wide, Power: channel.High}}
	var faults []Fault
	for n, c := range Columns { // in their order: a shift is read beside both frequencies
		i := slices.IndexFunc(heading, func(h string) bool { return column(h) == n })
		if i < 0 || i >= len(cells) {
			continue
		}
		text := strings.TrimSpace(cells[i])
		if text == "" {
			continue
		}
		if err := c.Read(&l, text); err != nil {
			faults = append(faults, Fault{i, c.Heading, text, err.Error()})
		}
	}
	if l.Channel.Side.Kind == "" {
		l.Channel.Side.Kind = channel.Simplex
	}
	if tx, sends := l.Channel.Transmit(); l.Channel.Side.Kind == channel.Split && sends && tx == l.Channel.Receive {
		l.Channel.Side = channel.TransmitSide{Kind: channel.Simplex}
	}
	if len(faults) == 0 {
		for _, f := range l.Channel.Faults() {
			faults = append(faults, Fault{-1, string(f.Field), "", f.Text})
		}
	}
	return l, faults
}

// TSV writes lines as tab-separated rows under the headings.
func TSV(lines []Line) string {
	var b strings.Builder
	row := func(cell func(Column) string) {
		for i, c := range Columns {
			if i > 0 {
				b.WriteByte('\t')
			}
			text := flat.Replace(cell(c))
			if strings.HasPrefix(text, `"`) {
				text = `"` + strings.ReplaceAll(text, `"`, `""`) + `"`
			}
			b.WriteString(text)
		}
		b.WriteByte('\n')
	}
	row(func(c Column) string { return c.Heading })
	for _, l := range lines {
		row(func(c Column) string { return c.Write(l) })
	}
	return b.String()
}

// flat keeps a cell in its row.
var flat = strings.NewReplacer("\t", " ", "\n", " ", "\r", " ")

// Rows parts what was pasted into rows of cells. A spreadsheet puts a cell with a
// quote or a line break in it between quotes.
func Rows(text string) [][]string {
	var rows [][]string
	for _, line := range strings.FieldsFunc(text, func(r rune) bool { return r == '\n' || r == '\r' }) {
		if strings.TrimSpace(line) == "" {
			continue
		}
		cells := strings.Split(line, "\t")
		for i, c := range cells {
			if n := len(c); n > 1 && c[0] == '"' && c[n-1] == '"' {
				cells[i] = strings.ReplaceAll(c[1:n-1], `""`, `"`)
			}
		}
		rows = append(rows, cells)
	}
	return rows
}

// spoiled is what a spreadsheet takes for a formula, a number or a date.
var spoiled = regexp.MustCompile(`^( *['=+@\-]|\d[\d.,]*([eE]\d+)?%?$|\d{1,4}[-/.:]\d|(?i)(true|false|(jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*[ .\-/]*\d{1,4})$)`)

// parted is what a spreadsheet that divides cells by semicolons or tabs would take
// for a formula inside of one.
var parted = regexp.MustCompile(`([;\t] *)('*[=+@\-])`)

// Guarded puts an apostrophe before what a spreadsheet would take for something
// else than words.
func Guarded(s string) string {
	s = parted.ReplaceAllString(s, "${1}'${2}")
	if spoiled.MatchString(s) {
		return "'" + s
	}
	return s
}

var guard = regexp.MustCompile(`([;\t] *)'('*[=+@\-])`)

// Unguarded takes it away again.
func Unguarded(s string) string {
	if rest, ok := strings.CutPrefix(s, "'"); ok && spoiled.MatchString(rest) {
		s = rest
	}
	return guard.ReplaceAllString(s, "${1}${2}")
}
