package exchange

import (
	"archive/zip"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"
	"unicode/utf8"
)

// The bounds of a listing. What is beyond them is something else, and is
// refused before it costs time or memory.
const (
	MaxColumns = 500
	MaxCell    = 10_000    // characters
	largest    = 512 << 20 // bytes that a workbook unpacks to
	ratio      = 150       // to which a large part of a workbook may be packed
	maxObject  = 4 << 20   // bytes of one JSON object
)

// bounded refuses rows that no listing has.
type bounded struct{ Table }

func (b bounded) Next() (int, []string, error) {
	line, cells, err := b.Table.Next()
	if err != nil {
		return line, cells, err
	}
	for len(cells) > MaxColumns && strings.TrimSpace(cells[len(cells)-1]) == "" {
		cells = cells[:len(cells)-1] // a sheet that was once wider
	}
	if len(cells) > MaxColumns {
		return line, nil, tooWide(line, len(cells))
	}
	for _, c := range cells {
		if len(c) > MaxCell && utf8.RuneCountInString(c) > MaxCell {
			return line, nil, fmt.Errorf("line %d has a cell of more than %d characters: this is not a listing", line, MaxCell)
		}
	}
	return line, cells, nil
}

func tooWide(line, columns int) error {
	return fmt.Errorf("line %d has %d columns, and a listing up to %d: is it another file, or another delimiter?", line, columns, MaxColumns)
}

// unpacks refuses a workbook that would fill the memory.
func unpacks(f *os.File) error {
	info, err := f.Stat()
	if err != nil {
		return err
	}
	z, err := zip.NewReader(f, info.Size())
	if err != nil {
		return fmt.Errorf("%w (%s)", ErrFormat, err)
	}
	total := uint64(0)
	for _, x := range z.File {
		total += x.UncompressedSize64
		if total > largest || x.UncompressedSize64 > 8<<20 && x.UncompressedSize64 > ratio*max(x.CompressedSize64, 1) {
			return fmt.Errorf("the workbook unpacks to far more than a listing has (%s: %d MB): it is refused", x.Name, x.UncompressedSize64>>20)
		}
	}
	return nil
}

var errObject = errors.New("one record of the file is larger than 4 MB: this is not a listing")

// rationed lets a decoder read so much until it is given more.
type rationed struct {
	r    io.Reader
	left int
}

func (r *rationed) Read(p []byte) (int, error) {
	if r.left <= 0 {
		return 0, errObject
	}
	n, err := r.r.Read(p[:min(len(p), r.left)])
	r.left -= n
	return n, err
}

// more allows another object.
func (r *rationed) more() { r.left = maxObject }
