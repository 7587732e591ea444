package exchange

import (
	"archive/zip"
	"bytes"
	"errors"
	"io"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/xuri/excelize/v2"
	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"
)

func file(t *testing.T, content []byte) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), "listing")
	require.NoError(t, os.WriteFile(path, content, 0o600))
	return path
}

func rows(t *testing.T, content []byte) (out [][]string, lines []int, info Info) {
	t.Helper()
	table, info, err := Open(file(t, content))
	require.NoError(t, err)
	defer func() { require.NoError(t, table.Close()) }()
	for {
		line, cells, err := table.Next()
		if errors.Is(err, io.EOF) {
			return out, lines, info
		}
		require.NoError(t, err)
		out, lines = append(out, cells), append(lines, line)
	}
}

// TestText reads the same table in the ways in which people write it.
func TestText(t *testing.T) {
	want := [][]string{{"Frequenz", "Ort", "Ton"}, {"439,100", "Höhe", "103,5"}, {"145,600", "Mühle", "88,5"}}
	for _, d := range []string{";", "\t", "|", "^", "~"} {
		var lines []string
		for _, r := range want {
			lines = append(lines, strings.Join(r, d))
		}
		text := strings.Join(lines, "\r\n") + "\r\n"
		utf16le, err := unicode.UTF16(unicode.LittleEndian, unicode.UseBOM).NewEncoder().Bytes([]byte(text))
		require.NoError(t, err)
		utf16be, err := unicode.UTF16(unicode.BigEndian, unicode.IgnoreBOM).NewEncoder().Bytes([]byte(text))
		require.NoError(t, err)
		latin1, err := charmap.ISO8859_1.NewEncoder().Bytes([]byte(text))
		require.NoError(t, err)
		for name, content := range map[string][]byte{
			"UTF-8": []byte(text), "UTF-8 with a mark": append([]byte{0xEF, 0xBB, 0xBF}, text...), "UTF-16": utf16le, "UTF-16 without a mark": utf16be, "Latin-1": latin1,
		} {
			got, numbers, info := rows(t, content)
			assert.Equal(t, want, got, "%q %s", d, name)
			assert.Equal(t, []int{1, 2, 3}, numbers)
			assert.Equal(t, d, info.Delimiter, name)
		}
	}
}

func TestQuotes(t *testing.T) {
	got, lines, _ := rows(t, []byte("a,b,c\n\"one, two\",\"say \"\"hi\"\"\",x\n\"over\ntwo lines\",y,z\n\n1,2,3\n"))
	assert.Equal(t, [][]string{{"a", "b", "c"}, {"one, two", `say "hi"`, "x"}, {"over\ntwo lines", "y", "z"}, {"1", "2", "3"}}, got)
	assert.Equal(t, []int{1, 2, 3, 6}, lines, "the line in the file, whatever is between")

	// A quote that is never closed does not swallow the rest.
	text := "a,b\n\"147.24,Hill\n" + strings.Repeat("1,2\n", 100)
	got, lines, _ = rows(t, []byte(text))
	assert.Len(t, got, 102)
	assert.Equal(t, `"147.24`, got[1][0])
	assert.Equal(t, 102, lines[101])
	got, _, _ = rows(t, []byte("a,b\n1,\"2"))
	assert.Equal(t, [][]string{{"a", "b"}, {"1", `"2`}}, got)
}

func TestDelimiters(t *testing.T) {
	for text, want := range map[string]string{
		"147.240+ PL 100 Beacon Hill\n146.940- 88.5 Marran Light\n": "",
		"one\ntwo\nthree\n":                                          "",
		"147,240;147,840;100,0\n146,940;146,340;88,5\n":              ";",
		"147.24, 100, Beacon Hill, on, air\n146.94, 88.5, a, b, c\n": ",",
		"a\tb, c\td\ne\tf\tg, h\n":                                   "\t",
	} {
		_, _, info := rows(t, []byte(text))
		assert.Equal(t, want, info.Delimiter, text)
	}
}

func TestWorkbook(t *testing.T) {
	book := excelize.NewFile()
	sheet := book.GetSheetName(0)
	require.NoError(t, book.MergeCell(sheet, "A1", "D1"))
	require.NoError(t, book.SetSheetRow(sheet, "A1", &[]any{"Repeaters of the islands"}))
	require.NoError(t, book.SetSheetRow(sheet, "A3", &[]any{"Output", "Tone", "Place", "Sum"}))
	require.NoError(t, book.SetSheetRow(sheet, "A4", &[]any{147.2375, 103.5, "Beacon Hill", 7}))
	style, err := book.NewStyle(&excelize.Style{NumFmt: 2}) // two places
	require.NoError(t, err)
	require.NoError(t, book.SetCellStyle(sheet, "A4", "A4", style))
	var buf bytes.Buffer
	require.NoError(t, book.Write(&buf))
	got, lines, info := rows(t, buf.Bytes())
	assert.Equal(t, "xlsx", info.Format)
	assert.Equal(t, []int{1, 3, 4}, lines)
	assert.Equal(t, []string{"147.2375", "103.5", "Beacon Hill", "7"}, got[2], "the value, not what is shown of it")
}

// TestBomb is a small archive that would unpack to more than any listing.
func TestBomb(t *testing.T) {
	var buf bytes.Buffer
	z := zip.NewWriter(&buf)
	for _, name := range []string{"[Content_Types].xml", "xl/workbook.xml", "xl/worksheets/sheet1.xml"} {
		w, err := z.Create(name)
		require.NoError(t, err)
		zeros := make([]byte, 1<<20)
		for range 300 {
			_, err = w.Write(zeros)
			require.NoError(t, err)
		}
	}
	require.NoError(t, z.Close())
	require.Less(t, buf.Len(), 2<<20)
	_, _, err := Open(file(t, buf.Bytes()))
	assert.ErrorContains(t, err, "unpacks to far more than a listing has")
}

func TestGeoJSON(t *testing.T) {
	got, _, info := rows(t, []byte(`{"type":"FeatureCollection","name":"x","features":[
		{"type":"Feature","id":"r1","properties":{"output":147.24,"tone":"103.5"},"geometry":{"type":"Point","coordinates":[-55.18,41.07,180]}},
		{"type":"Feature","properties":{"output":146.94,"open":true,"extra":{"a":1}},"geometry":null}]}`))
	assert.Equal(t, "geojson", info.Format)
	assert.Equal(t, [][]string{
		{"id", "latitude", "longitude", "output", "tone", "extra", "open"},
		{"r1", "41.07", "-55.18", "147.24", "103.5", "", ""},
		{"", "", "", "146.94", "", `{"a":1}`, "yes"},
	}, got)
}

func TestListing(t *testing.T) {
	b, err := os.ReadFile("../../docs/formats/listing-example.json")
	require.NoError(t, err)
	got, _, info := rows(t, b)
	assert.Equal(t, "listing", info.Format)
	assert.Contains(t, got[0], "output_hz")
	assert.Greater(t, len(got), 1)
}

func TestNoListing(t *testing.T) {
	for name, content := range map[string]string{
		"empty": "", "spaces": " \n\n ", "object": `{"a": 1}`, "half": `[{"key": "a"`, "numbers": "[1, 2]", "binary": "\x7fELF\x02\x01\x00\x00\x01\x01\x01",
		"no workbook": "PK\x03\x04 and so on", "features": `{"features": 5}`,
	} {
		_, _, err := Open(file(t, []byte(content)))
		assert.Error(t, err, name)
	}
	table, _, err := Open(file(t, []byte("a,b\n"+strings.Repeat("x", 2<<20)+",y\n")))
	require.NoError(t, err)
	defer func() { require.NoError(t, table.Close()) }()
	_, _, err = table.Next()
	require.NoError(t, err)
	_, _, err = table.Next()
	assert.ErrorContains(t, err, "line 2 is longer than a megabyte")
	_, _, err = Open(filepath.Join(t.TempDir(), "nowhere"))
	assert.ErrorIs(t, err, os.ErrNotExist)
}

func FuzzOpen(f *testing.F) {
	for _, s := range []string{"a;b\n1;2", "\"", "{\"features\":[{}]}", "[{}]", "PK\x03\x04", "\xff\xfea\x00;\x00", "a\tb\n\"x\ty\n"} {
		f.Add([]byte(s))
	}
	f.Fuzz(func(t *testing.T, b []byte) {
		table, _, err := Open(file(t, b))
		if err != nil {
			return
		}
		last := -1
		for n := 0; ; n++ {
			line, _, err := table.Next()
			if err != nil {
				break
			}
			require.Greater(t, line, last, "rows come in the order of the file")
			require.LessOrEqual(t, n, len(b)+1, "it ends")
			last = line
		}
		require.NoError(t, table.Close())
	})
}
