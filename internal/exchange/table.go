// Package exchange reads and writes open formats. Whatever a listing comes
// in, it comes out as rows of cells; what they mean is for core/intake.
package exchange

import (
	"bufio"
	"bytes"
	"errors"
	"io"
	"os"
	"regexp"
	"strings"
)

// Table is a listing as rows of cells, read from front to back.
type Table interface {
	// Next returns the next row with the number of its line or row in the
	// file, from 1; io.EOF after the last.
	Next() (line int, cells []string, err error)
	// Bytes is how much of the file has been read; 0 where it cannot be told.
	Bytes() int64
	Close() error
}

// counter counts what is read of a file.
type counter struct {
	*os.File
	n int64
}

func (c *counter) Read(p []byte) (int, error) {
	n, err := c.File.Read(p)
	c.n += int64(n)
	return n, err
}

// Bytes is how much has been read.
func (c *counter) Bytes() int64 { return c.n }

// Info is what was found out about a file.
type Info struct {
	Format    string `json:"format"`    // text, xlsx, geojson, listing
	Encoding  string `json:"encoding"`  // of a text
	Delimiter string `json:"delimiter"` // of a text; empty where each line is one cell
	Sheet     string `json:"sheet"`     // of a workbook
	Named     bool   `json:"-"`         // the first row holds the names of the fields
}

// ErrFormat is returned for a file that is none of the formats.
var ErrFormat = errors.New("this is not a listing: use CSV or another delimited text, XLSX, GeoJSON, or a listing in JSON")

// Open looks into a file and opens it as a table. Formats are told by what is
// in the file, never by its name.
func Open(path string) (Table, Info, error) {
	f, err := os.Open(path)
	if err != nil {
		return nil, Info{}, err
	}
	t, info, err := open(f)
	if err != nil {
		return nil, info, errors.Join(err, f.Close())
	}
	return bounded{t}, info, nil
}

var (
	errEmpty = errors.New("the file is empty")
	page     = regexp.MustCompile(`(?i)^<(!doctype|html|head|body|table|\?xml)\b`)
)

// binary reports a character that no text has. A form feed may part pages, and
// the end of a file may be marked by 1A.
func binary(r rune) bool {
	return r < ' ' && !strings.ContainsRune("\t\n\r\f\v\x1a", r)
}

func open(f *os.File) (Table, Info, error) {
	head := make([]byte, 64<<10)
	n, err := io.ReadFull(f, head)
	if err != nil && !errors.Is(err, io.ErrUnexpectedEOF) && !errors.Is(err, io.EOF) {
		return nil, Info{}, err
	}
	head = head[:n]
	if _, err := f.Seek(0, io.SeekStart); err != nil {
		return nil, Info{}, err
	}
	switch {
	case bytes.HasPrefix(head, []byte("PK\x03\x04")):
		return openWorkbook(f)
	case len(bytes.TrimSpace(head)) == 0:
		return nil, Info{}, errEmpty
	}
	file := &counter{File: f}
	encoding, r := decoded(bufio.NewReaderSize(file, 1<<16), head)
	text := bufio.NewReaderSize(r, 1<<16)
	start, err := text.Peek(1 << 10)
	if errors.Is(err, io.EOF) && len(start) == 0 {
		return nil, Info{}, errEmpty // a byte order mark and nothing else
	}
	if err != nil && len(start) == 0 {
		return nil, Info{}, err
	}
	trimmed := strings.TrimSpace(string(start))
	switch {
	case trimmed == "":
		return nil, Info{}, errEmpty
	case page.MatchString(trimmed):
		return nil, Info{}, errors.New("this is a web page: mark the table in it, copy it and paste it here")
	case strings.HasPrefix(trimmed, "%PDF-"), strings.ContainsFunc(trimmed, binary):
		return nil, Info{}, ErrFormat
	case strings.HasPrefix(trimmed, "{"):
		return openGeoJSON(file, text)
	case strings.HasPrefix(trimmed, "["):
		return openListing(file, text)
	}
	return openText(file, text, encoding)
}
