package exchange

import (
	"bufio"
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strings"
)

// longestLine is the longest line of a text, in bytes; tallest is over how
// many lines a cell in quotes may go. Beyond, a quote was opened by mistake.
const (
	longestLine = 1 << 20
	tallest     = 20
)

type textTable struct {
	*counter
	lines     *bufio.Scanner
	delimiter rune // 0: each line is one cell
	line      int
	ahead     []string // lines that were read to find the end of a quote
	open      bool     // the last line that was read has no end
	width     int      // of all rows so far; -1 where they differ
	rows      int
}

// enough is after how many rows of one width a shorter last one was cut off.
const enough = 5

// whole reports a last row that was cut off: it is shorter than all others,
// and its line has no end.
func (t *textTable) whole(at int, cells []string) error {
	if t.open && len(t.ahead) == 0 && t.rows >= enough && t.width > 0 && len(cells) < t.width {
		return fmt.Errorf("the file ends in the middle of line %d, as if it were cut off", at)
	}
	if t.rows++; t.rows == 1 {
		t.width = len(cells)
	} else if t.width != len(cells) {
		t.width = -1
	}
	return nil
}

// ends splits lines at LF, CR LF or CR alone, and notes a last one without an
// end.
func (t *textTable) ends(data []byte, atEOF bool) (int, []byte, error) {
	i := bytes.IndexAny(data, "\r\n")
	switch {
	case i < 0 && atEOF && len(data) > 0:
		t.open = true
		return len(data), data, nil
	case i < 0, data[i] == '\r' && i == len(data)-1 && !atEOF: // LF may follow
		return 0, nil, nil
	}
	t.open = false
	n := i + 1
	if data[i] == '\r' && n < len(data) && data[n] == '\n' {
		n++
	}
	return n, data[:i], nil
}

func openText(file *counter, r *bufio.Reader, encoding string) (Table, Info, error) {
	start, err := r.Peek(1 << 16)
	if err != nil && !errors.Is(err, io.EOF) && !errors.Is(err, bufio.ErrBufferFull) {
		return nil, Info{}, err
	}
	t := &textTable{counter: file, lines: bufio.NewScanner(r), delimiter: sniff(string(start))}
	t.lines.Split(t.ends)
	t.lines.Buffer(make([]byte, 0, 1<<16), longestLine)
	info := Info{Format: "text", Encoding: encoding}
	if t.delimiter != 0 {
		info.Delimiter = string(t.delimiter)
	}
	return t, info, nil
}

// sniff finds the delimiter: the one that cuts most lines into the same
// number of cells, at least two. A comma inside numbers is a decimal comma.
func sniff(start string) rune {
	lines := strings.Split(strings.ReplaceAll(start, "\r", "\n"), "\n")
	if len(lines) > 1 {
		lines = lines[:len(lines)-1] // the last may be cut
	}
	best, bestScore := rune(0), 0.0
	ragged, most := rune(0), 1
	for _, d := range []rune{'\t', ';', '|', ',', '^', '~'} {
		counts, filled := map[int]int{}, 0
		for _, l := range lines[:min(len(lines), 200)] {
			if strings.TrimSpace(l) == "" {
				continue
			}
			filled++
			counts[outsideQuotes(l, d)]++
		}
		// Rows of uneven length: the first line says how many cells there are,
		// and nearly every line has some.
		if first := outsideQuotes(firstFilled(lines), d); first > most && filled-counts[0] >= filled*8/10 {
			ragged, most = d, first
		}
		for n, same := range counts {
			if n == 0 {
				continue
			}
			// Two columns may be chance; many in the same number are none.
			score := float64(same) / float64(filled) * (1 - 1/float64(n+1))
			if score > bestScore && float64(same) >= 0.5*float64(filled) {
				best, bestScore = d, score
			}
		}
	}
	if best == 0 {
		return ragged
	}
	return best
}

func firstFilled(lines []string) string {
	for _, l := range lines {
		if strings.TrimSpace(l) != "" {
			return l
		}
	}
	return ""
}

// outsideQuotes counts a delimiter outside quotes. In a line that has
// semicolons, tabs or bars a comma between digits is a decimal comma.
func outsideQuotes(line string, d rune) int {
	n, quoted := 0, false
	others := strings.ContainsAny(line, ";\t|")
	for i, r := range line {
		switch {
		case r == '"':
			quoted = !quoted
		case r == d && !quoted && !(d == ',' && others && digit(line, i-1) && digit(line, i+1)):
			n++
		}
	}
	return n
}

func digit(s string, i int) bool { return i >= 0 && i < len(s) && s[i] >= '0' && s[i] <= '9' }

func (t *textTable) read() (string, error) {
	if len(t.ahead) > 0 {
		l := t.ahead[0]
		t.ahead = t.ahead[1:]
		t.line++
		return l, nil
	}
	if t.lines.Scan() {
		t.line++
		return t.lines.Text(), nil
	}
	if err := t.lines.Err(); err != nil {
		if errors.Is(err, bufio.ErrTooLong) {
			return "", fmt.Errorf("line %d is longer than a megabyte: this is not a listing", t.line+1)
		}
		return "", err
	}
	return "", io.EOF
}

// Next returns the next line that is not empty. A cell in quotes may hold
// line breaks; a quote that is never closed is taken as a character.
func (t *textTable) Next() (int, []string, error) {
	at, cells, err := t.next()
	if err == nil && t.delimiter != 0 {
		err = t.whole(at, cells)
	}
	return at, cells, err
}

func (t *textTable) next() (int, []string, error) {
	for {
		l, err := t.read()
		if err != nil {
			return 0, nil, err
		}
		if strings.TrimSpace(l) == "" {
			continue
		}
		at := t.line
		switch {
		case t.delimiter == 0:
			return at, []string{l}, nil
		case strings.Count(l, string(t.delimiter)) >= 4*MaxColumns:
			return at, nil, tooWide(at, strings.Count(l, string(t.delimiter))+1)
		case !strings.ContainsRune(l, '"'):
			return at, strings.Split(l, string(t.delimiter)), nil
		}
		whole, taken := l, []string{}
		for strings.Count(whole, `"`)%2 == 1 && len(taken) < tallest {
			next, err := t.read()
			if err != nil {
				break // the end: the quote is never closed
			}
			taken = append(taken, next)
			whole += "\n" + next
		}
		if strings.Count(whole, `"`)%2 == 1 {
			t.line -= len(taken)
			t.ahead = append(taken, t.ahead...)
			return at, strings.Split(l, string(t.delimiter)), nil
		}
		r := csv.NewReader(strings.NewReader(whole))
		r.Comma, r.LazyQuotes, r.FieldsPerRecord, r.ReuseRecord = t.delimiter, true, -1, false
		cells, err := r.Read()
		if err != nil {
			return at, strings.Split(whole, string(t.delimiter)), nil
		}
		return at, cells, nil
	}
}
