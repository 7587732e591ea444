// Package adif reads and writes ADI, the text form of the Amateur Data Interchange
// Format (ADIF 3.1, from memory): fields as <NAME:LENGTH[:TYPE]>DATA, a record up to
// <EOR>, a header up to <EOH>.
//
//	records, losses := adif.Read(text)
//	text, losses := adif.Write(header, records)
//
// ADI is ASCII: letters beyond it are written as the nearest ones, and what was lost is
// listed. Fields that the standard does not know are marked as those of an application,
// APP_MNEMOS_NAME, as the standard says. Lengths count characters; since all are ASCII,
// these are bytes too. What another program wrote in bytes of UTF-8 is read as well.
package adif

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"golang.org/x/text/unicode/norm"
)

// Field is a field of a record. Names are in capitals.
type Field struct{ Name, Data string }

// Record is one contact.
type Record []Field

// Get returns the data of a field, "" for none.
func (r Record) Get(name string) string {
	for _, f := range r {
		if f.Name == name {
			return f.Data
		}
	}
	return ""
}

// Set puts data into a field; with "" it is left out.
func (r *Record) Set(name, data string) {
	if data != "" {
		*r = append(*r, Field{name, data})
	}
}

// Own is the name of a field that the standard does not know.
func Own(name string) string { return "APP_MNEMOS_" + name }

// Loss is what could not be carried over.
type Loss struct {
	Record int // from 1; 0 for the header
	Field  string
	Says   string
}

// String says it in a line.
func (l Loss) String() string {
	if l.Record == 0 {
		return fmt.Sprintf("header, %s: %s", l.Field, l.Says)
	}
	return fmt.Sprintf("record %d, %s: %s", l.Record, l.Field, l.Says)
}

// Write writes a header and records. Each record is one line.
func Write(header Record, records []Record) (text string, losses []Loss) {
	var b strings.Builder
	// A file that begins with a field has no header: a text stands before it.
	b.WriteString("Contacts and tests on the air\n")
	line := func(r Record, n int, end string) {
		for i, f := range r {
			data, lost := ascii(f.Data)
			if lost != "" {
				losses = append(losses, Loss{n, f.Name, lost})
			}
			if i > 0 {
				b.WriteByte(' ')
			}
			fmt.Fprintf(&b, "<%s:%d>%s", f.Name, len(data), data)
		}
		b.WriteString(" <" + end + ">\n")
	}
	line(header, 0, "EOH")
	for i, r := range records {
		line(r, i+1, "EOR")
	}
	return b.String(), losses
}

// ascii is a text in ASCII, and what became of the rest.
func ascii(text string) (out, lost string) {
	var b strings.Builder
	for _, r := range norm.NFD.String(text) {
		switch {
		case r < 0x80 && (r >= ' ' || r == '\n' || r == '\r'):
			b.WriteRune(r)
		case r == '–' || r == '—' || r == '−':
			b.WriteByte('-')
		case r == '‘' || r == '’' || r == '“' || r == '”':
			b.WriteByte('\'')
		case unicode.Is(unicode.Mn, r) && b.Len() > 0: // an accent: its letter stands there
		default:
			b.WriteByte('?')
		}
	}
	if out = b.String(); out != text {
		lost = fmt.Sprintf("%q is written %q", text, out)
	}
	return out, lost
}

var tag = regexp.MustCompile(`<([A-Za-z0-9_ ]+)(?::(\d+))?(?::[A-Za-z])?>`)

// Read reads a file. What cannot be read is listed, and the rest is read all the same.
func Read(text string) (header Record, records []Record, losses []Loss) {
	text = strings.TrimPrefix(text, "\ufeff")
	body := text
	if !strings.HasPrefix(strings.TrimLeft(text, " \t\r\n"), "<") {
		// What stands before the first field is the header.
		end := find(text, "eoh")
		if end < 0 {
			return nil, nil, []Loss{{0, "EOH", "the header never ends: write <EOH> after it"}}
		}
		header, _, losses = fields(text[:end], 0)
		body = text[end:]
		body = body[strings.Index(body, ">")+1:]
	} else if end := find(text, "eoh"); end >= 0 {
		header, _, losses = fields(text[:end], 0)
		body = text[end:]
		body = body[strings.Index(body, ">")+1:]
	}
	for n := 1; strings.TrimSpace(body) != ""; n++ {
		r, rest, lost := fields(body, n)
		losses = append(losses, lost...)
		if len(r) > 0 {
			records = append(records, r)
		}
		body = rest
	}
	return header, records, losses
}

// find returns where a tag without data begins, or −1.
func find(text, name string) int {
	at := 0
	for {
		m := tag.FindStringSubmatchIndex(text[at:])
		if m == nil {
			return -1
		}
		if strings.EqualFold(text[at+m[2]:at+m[3]], name) {
			return at + m[0]
		}
		n := 0
		if m[4] >= 0 {
			n, _ = strconv.Atoi(text[at+m[4] : at+m[5]])
		}
		at += m[1]
		at += min(n, len(text)-at)
	}
}

// fields reads fields up to the end of the record.
func fields(text string, n int) (r Record, rest string, losses []Loss) {
	for {
		m := tag.FindStringSubmatchIndex(text)
		if m == nil {
			if len(r) > 0 && n > 0 {
				losses = append(losses, Loss{n, r[len(r)-1].Name, "the record does not end with <EOR>"})
			}
			return r, "", losses
		}
		name := strings.ToUpper(strings.TrimSpace(text[m[2]:m[3]]))
		after := text[m[1]:]
		if name == "EOR" || name == "EOH" {
			return r, after, losses
		}
		if m[4] < 0 {
			losses = append(losses, Loss{n, name, "it has no length"})
			text = after
			continue
		}
		size, err := strconv.Atoi(text[m[4]:m[5]])
		if err != nil || size > len(after) {
			losses = append(losses, Loss{n, name, "it is longer than the file"})
			return r, "", losses
		}
		data := after[:size]
		if !isASCII(data) {
			data = inCharacters(after, size)
		}
		if slices.ContainsFunc(r, func(f Field) bool { return f.Name == name }) {
			losses = append(losses, Loss{n, name, "it stands there twice: the first counts"})
		} else if data != "" {
			r = append(r, Field{name, data})
		}
		text = after[len(data):]
	}
}

// inCharacters is the data of a field whose length may count characters: then as many of
// them are taken, else as many bytes. Only so much is looked at as that can be.
func inCharacters(after string, size int) string {
	window := []rune(after[:min(len(after), utf8.UTFMax*size)])
	if len(window) < size {
		return after[:size]
	}
	d := string(window[:size])
	if utf8.ValidString(d) && strings.HasPrefix(after, d) && next(after[len(d):]) && !next(after[size:]) {
		return d
	}
	return after[:size]
}

// next reports whether a text goes on as a file does between fields.
func next(text string) bool {
	t := strings.TrimLeft(text, " \t\r\n")
	return t == "" || t[0] == '<'
}

func isASCII(s string) bool {
	return !strings.ContainsFunc(s, func(r rune) bool { return r >= 0x80 })
}

// bands are those of ADIF in MHz, of which handhelds and mobile radios know (from memory).
var bands = []struct {
	name         string
	lower, upper float64
}{
	{"10m", 28, 29.7}, {"8m", 40, 45}, {"6m", 50, 54}, {"5m", 54.000001, 69.9}, {"4m", 70, 71}, {"2m", 144, 148}, {"1.25m", 222, 225}, {"70cm", 420, 450}, {"33cm", 902, 928}, {"23cm", 1240, 1300},
}

// Band is the band of a frequency in MHz as ADIF calls it, or "".
func Band(mhz float64) string {
	for _, b := range bands {
		if mhz >= b.lower && mhz <= b.upper {
			return b.name
		}
	}
	return ""
}
