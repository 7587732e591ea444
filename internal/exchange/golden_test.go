package exchange

import (
	"bytes"
	"errors"
	"flag"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/xuri/excelize/v2"
	"golang.org/x/text/encoding"
	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"

	"mnemos/core/band"
	"mnemos/core/intake"
	"mnemos/core/listing"
)

var update = flag.Bool("update", false, "write what the golden files are read as into them, to be looked at")

// TestGolden reads listings in the shapes in which people publish them. Each
// file of testdata/golden says how it is encoded, what stands in it, and what
// must be understood.
func TestGolden(t *testing.T) {
	files, err := filepath.Glob("testdata/golden/*.txtar")
	require.NoError(t, err)
	cases := 0
	for _, f := range files {
		a, err := txtar.ParseFile(f)
		require.NoError(t, err)
		for i := 0; i+1 < len(a.Files); i += 2 {
			in, want := a.Files[i], &a.Files[i+1]
			cases++
			t.Run(in.Name, func(t *testing.T) {
				name, options, _ := strings.Cut(in.Name, " ")
				got := understood(t, encoded(t, in.Data, options), options)
				if *update {
					want.Data = []byte(got)
					return
				}
				assert.Equal(t, string(want.Data), got, name)
			})
		}
		if *update {
			require.NoError(t, os.WriteFile(f, txtar.Format(a), 0o644))
		}
	}
	assert.GreaterOrEqual(t, cases, 25)
}

// encoded is the file as it would lie on a disk.
func encoded(t *testing.T, text []byte, options string) []byte {
	t.Helper()
	var e encoding.Encoding
	switch {
	case strings.Contains(options, "utf-16le"):
		e = unicode.UTF16(unicode.LittleEndian, unicode.UseBOM)
	case strings.Contains(options, "utf-16be"):
		e = unicode.UTF16(unicode.BigEndian, unicode.UseBOM)
	case strings.Contains(options, "latin-1"):
		e = charmap.ISO8859_1
	case strings.Contains(options, "bom"):
		return append([]byte{0xEF, 0xBB, 0xBF}, text...)
	case strings.Contains(options, "crlf"):
		return bytes.ReplaceAll(text, []byte("\n"), []byte("\r\n"))
	case strings.Contains(options, "xlsx"):
		return workbookOf(t, string(text))
	default:
		return text
	}
	b, err := e.NewEncoder().Bytes(text)
	require.NoError(t, err)
	return b
}

// workbookOf is a workbook with the cells of a text, numbers as numbers.
func workbookOf(t *testing.T, text string) []byte {
	t.Helper()
	book := excelize.NewFile()
	for y, line := range strings.Split(strings.TrimSuffix(text, "\n"), "\n") {
		for x, cell := range strings.Split(line, "|") {
			at, err := excelize.CoordinatesToCellName(x+1, y+1)
			require.NoError(t, err)
			var n float64
			if _, err := fmt.Sscanf(cell, "%g", &n); err == nil && fmt.Sprint(n) == cell {
				require.NoError(t, book.SetCellFloat("Sheet1", at, n, -1, 64))
			} else if formula, ok := strings.CutPrefix(cell, "="); ok {
				require.NoError(t, book.SetCellFormula("Sheet1", at, formula))
			} else {
				require.NoError(t, book.SetCellStr("Sheet1", at, cell))
			}
		}
	}
	var b bytes.Buffer
	require.NoError(t, book.Write(&b))
	return b.Bytes()
}

// understood reads a file as the program does without help, one line for each
// row.
func understood(t *testing.T, content []byte, options string) string {
	t.Helper()
	region := "us"
	if i := strings.Index(options, "region "); i >= 0 {
		region = strings.Fields(options[i:])[1]
	}
	plan := band.MustLoad(region)
	all, lines, info := rows(t, content)
	l := intake.Look(all, info.Named, plan)
	r := &intake.Reader{Mapping: l.Mapping, Plan: plan, Source: "list"}
	var b strings.Builder
	for i, cells := range all[l.From:] {
		var rec listing.Record
		var faults []intake.Fault
		if l.Prose {
			rec, faults = r.Prose(strings.Join(cells, " "))
		} else {
			rec, faults = r.Row(cells)
		}
		fmt.Fprintf(&b, "%d: ", lines[l.From+i])
		if len(faults) > 0 {
			fmt.Fprintf(&b, "! %s\n", faults[0].Message)
			continue
		}
		fmt.Fprintf(&b, "%s %s up %s down %s", rec.Output.MHz(), input(rec), rec.UplinkTone, rec.DownlinkTone)
		for _, part := range []string{rec.Callsign, rec.Locality, place(rec), string(rec.Mode), rec.Width, string(rec.Status), string(rec.Access), rec.Updated.String(), rec.Note} {
			if part != "" {
				fmt.Fprintf(&b, " | %s", part)
			}
		}
		if rec.Height != nil {
			fmt.Fprintf(&b, " | %.0f m", *rec.Height)
		}
		b.WriteString("\n")
	}
	return b.String()
}

func input(r listing.Record) string {
	o, known := r.Offset()
	if !known {
		return "shift not stated"
	}
	return listing.ShiftWords(o)
}

func place(r listing.Record) string {
	p, ok := r.Place()
	if !ok {
		return ""
	}
	return fmt.Sprintf("%.4f, %.4f", p.Lat, p.Lon)
}

// TestThirtyPercentBad keeps the good rows of a table of which a third is not.
func TestThirtyPercentBad(t *testing.T) {
	var b strings.Builder
	b.WriteString("Output,Shift,Tone\n")
	for i := range 1000 {
		tone := "100.0"
		if i%10 < 3 {
			tone = "rubbish"
		}
		fmt.Fprintf(&b, "147.%03d,+,%s\n", i%79*5, tone)
	}
	got := understood(t, []byte(b.String()), "")
	assert.Equal(t, 300, strings.Count(got, "! "))
	assert.Equal(t, 700, strings.Count(got, "up 100.0 Hz"))
}

// TestFiftyMegabytes reads a large table from front to back without keeping
// it: the rows are counted, not collected.
func TestFiftyMegabytes(t *testing.T) {
	path := filepath.Join(t.TempDir(), "large.csv")
	f, err := os.Create(path)
	require.NoError(t, err)
	line := []byte("QX1BHL,147.240,+,103.5,Beacon Hill above the harbour,41.0699,-55.1860,open,2026-11-02\n")
	chunk := bytes.Repeat(line, 1000)
	n := 0
	for size := 0; size < 50<<20; size += len(chunk) {
		_, err := f.Write(chunk)
		require.NoError(t, err)
		n += 1000
	}
	require.NoError(t, f.Close())
	table, _, err := Open(path)
	require.NoError(t, err)
	read := 0
	for {
		_, cells, err := table.Next()
		if errors.Is(err, io.EOF) {
			break
		}
		require.NoError(t, err)
		require.Len(t, cells, 9)
		read++
	}
	assert.Equal(t, n, read)
	assert.Greater(t, table.Bytes(), int64(50<<20))
	require.NoError(t, table.Close())
}
