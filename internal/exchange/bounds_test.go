package exchange

import (
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"runtime"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/xuri/excelize/v2"
)

// drain reads a whole file as a table.
func drain(t *testing.T, content string) (rows int, err error) {
	t.Helper()
	path := filepath.Join(t.TempDir(), "f")
	require.NoError(t, os.WriteFile(path, []byte(content), 0o600))
	return drainFile(path)
}

func drainFile(path string) (rows int, err error) {
	table, _, err := Open(path)
	if err != nil {
		return 0, err
	}
	for {
		_, _, err := table.Next()
		if errors.Is(err, io.EOF) {
			return rows, table.Close()
		}
		if err != nil {
			return rows, errors.Join(err, table.Close())
		}
		rows++
	}
}

// TestBounds: what no listing has is refused with a clear message, in time and
// with little memory.
func TestBounds(t *testing.T) {
	xlsx := filepath.Join(t.TempDir(), "last.xlsx")
	book := excelize.NewFile()
	for r := 1; r <= 300; r++ {
		require.NoError(t, book.SetCellValue("Sheet1", fmt.Sprintf("XFD%d", r), "146.94"))
	}
	require.NoError(t, book.SaveAs(xlsx))
	wide, err := os.ReadFile(xlsx)
	require.NoError(t, err)
	for name, c := range map[string]struct{ content, says string }{
		"commas":          {strings.Repeat(",", 195_000), "columns"},
		"120,000 columns": {strings.Repeat("146.94;", 120_000) + "\n", "columns"},
		"a few too many":  {strings.Repeat("a,", 600) + "b\n", "601 columns, and a listing up to 500"},
		"a long line":     {"a,b\n" + strings.Repeat("x", 3<<20), "longer than a megabyte"},
		"a long cell":     {"a,b,c\n" + strings.Repeat("x", 20_000) + ",1,2\n3,4,5\n", "more than 10000 characters"},
		"a property":      {`[{"output": "` + strings.Repeat("1", 50<<20) + `"}]`, "larger than 4 MB"},
		"members":         {`[{` + strings.TrimSuffix(strings.Repeat(`"a": 1, `, 10), ", ") + `, ` + members(700) + `}]`, "columns"},
		"last column":     {string(wide), "columns"},
	} {
		runtime.GC()
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		start := time.Now()
		_, err := drain(t, c.content)
		took := time.Since(start)
		runtime.ReadMemStats(&after)
		require.Error(t, err, name)
		assert.Contains(t, err.Error(), c.says, name)
		assert.Less(t, (after.TotalAlloc-before.TotalAlloc)>>20, uint64(600), "%s: MB allocated in all", name)
		t.Logf("%s: %v, %d MB", name, took, (after.TotalAlloc-before.TotalAlloc)>>20)
	}
	n, err := drain(t, strings.Repeat(strings.Repeat("a,", 499)+"b\n", 3))
	require.NoError(t, err, "500 columns are allowed")
	assert.Equal(t, 3, n)
	n, err = drain(t, "output,input\n147.24,147.84"+strings.Repeat(",", 700)+"\n")
	require.NoError(t, err, "empty columns at the end are none")
	assert.Equal(t, 2, n)
}

func members(n int) string {
	var out []string
	for i := range n {
		out = append(out, fmt.Sprintf(`"m%d": 1`, i))
	}
	return strings.Join(out, ", ")
}

// TestCutOff: a file that ends in the middle is refused in every format, at
// every place where it may be cut.
func TestCutOff(t *testing.T) {
	feature := `{"type":"Feature","geometry":{"type":"Point","coordinates":[-55.3,41.0]},"properties":{"output":"147.24"}}`
	geo := `{"type":"FeatureCollection","features":[` + feature + `,` + feature + `,` + feature + `],"name":"x"}`
	listing := `[{"output_hz": 147240000, "key": "a"}, {"output_hz": 146940000, "key": "b"}]`
	for _, whole := range []string{geo, listing} {
		_, err := drain(t, whole)
		require.NoError(t, err)
		for cut := 1; cut < len(whole); cut++ {
			_, err := drain(t, whole[:cut])
			assert.Error(t, err, "%q", whole[:cut])
		}
	}
	table := "output,input,tone,place\n" + strings.Repeat("147.240,147.840,100.0,Beacon Hill\n", 8)
	_, err := drain(t, table)
	require.NoError(t, err)
	_, err = drain(t, strings.TrimSuffix(table, "\n"))
	require.NoError(t, err, "the last line needs no end")
	_, err = drain(t, table+"146.940,146.3")
	assert.ErrorContains(t, err, "cut off")
	path := filepath.Join(t.TempDir(), "book.xlsx")
	book := excelize.NewFile()
	require.NoError(t, book.SetCellValue("Sheet1", "A1", "output"))
	require.NoError(t, book.SaveAs(path))
	b, err := os.ReadFile(path)
	require.NoError(t, err)
	_, err = drain(t, string(b[:len(b)*2/3]))
	assert.Error(t, err)
}

// TestSomethingElse: what is no listing is refused in words, and says what to do
// where something can be done. The first bytes are those that the formats
// themselves prescribe.
func TestSomethingElse(t *testing.T) {
	for content, says := range map[string]string{
		"":                                    "the file is empty",
		" \n\t\n":                             "the file is empty",
		"\ufeff":                              "the file is empty",
		"\ufeff\r\n":                          "the file is empty",
		"<!DOCTYPE html>\n<html><body>x":      "copy it and paste it",
		"<HTML><TABLE><TR><TD>146.94":         "copy it and paste it",
		"%PDF-1.4\n%\xe2\xe3\xcf\xd3\n":       "not a listing",
		"\x89PNG\r\n\x1a\n\x00\x00\x00\rIHDR": "not a listing",
		"\x1f\x8b\x08\x00":                    "not a listing",
		"[1, 2, 3]":                           "something else than records",
		`{"a": 1}`:                            "without features",
	} {
		_, err := drain(t, content)
		require.Error(t, err, "%q", content)
		assert.Contains(t, err.Error(), says, "%q", content)
		assert.NotContains(t, err.Error(), "Go value", "%q", content)
	}
}

// TestLineEnds: LF, CR LF and CR alone end a line, also mixed in one file and
// also where the two halves of CR LF come in two reads.
func TestLineEnds(t *testing.T) {
	for _, end := range []string{"\n", "\r\n", "\r"} {
		for _, last := range []string{"", end} {
			n, err := drain(t, strings.Join([]string{"output,shift", "146.940,-", "147.240,+"}, end)+last)
			require.NoError(t, err, "%q", end)
			assert.Equal(t, 3, n, "%q", end)
		}
	}
	n, err := drain(t, "output,shift\r146.940,-\r\n147.240,+\n\r\n147.000,+\r\r")
	require.NoError(t, err)
	assert.Equal(t, 4, n)
	n, err = drain(t, strings.Repeat("147.240,+\r\n", 30_000)) // the buffer ends between the two somewhere
	require.NoError(t, err)
	assert.Equal(t, 30_000, n)
}
