package bench

import (
	"bufio"
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"github.com/xuri/excelize/v2"
)

// again is a reader of one text, many times: a file of any size that nobody
// holds in memory.
func again(text string, times int) io.Reader {
	parts := make([]io.Reader, 0, 1024)
	block := strings.Repeat(text, 1+times/1024)
	for left := times; left > 0; left -= len(block) / len(text) {
		parts = append(parts, strings.NewReader(block[:min(len(block), left*len(text))]))
	}
	return io.MultiReader(parts...)
}

// lastColumn is a workbook of a few kilobytes that uses only its last column.
func lastColumn(b *testing.B) io.Reader {
	book := excelize.NewFile()
	for r := 1; r <= 300; r++ {
		require.NoError(b, book.SetCellValue("Sheet1", fmt.Sprintf("XFD%d", r), "146.94"))
	}
	var out bytes.Buffer
	require.NoError(b, book.Write(&out))
	return &out
}

// BenchmarkHostileFile hands a server files that cost much to read and are no
// listings. The baseline is a listing of 25 columns and 1,000 rows.
func BenchmarkHostileFile(b *testing.B) {
	program := filepath.Join(b.TempDir(), "mnemos")
	out, err := exec.CommandContext(b.Context(), "go", "build", "-o", program, "../../cmd/mnemos").CombinedOutput()
	require.NoError(b, err, "%s", out)
	row := "QX1AA,147.240,147.840,100.0,Beacon Hill" + strings.Repeat(",note", 20) + "\n"
	var base time.Duration
	for _, c := range []struct {
		name   string
		open   func() io.Reader
		status int
	}{
		{"baseline: a listing", func() io.Reader {
			return io.MultiReader(strings.NewReader("Callsign,Output,Input,Tone,Town"+strings.Repeat(",Note", 20)+"\n"), again(row, 1000))
		}, http.StatusCreated},
		{"195 KB of commas", func() io.Reader { return again(",", 195_000) }, http.StatusUnprocessableEntity},
		{"120000 columns", func() io.Reader { return again("146.94;", 120_000) }, http.StatusUnprocessableEntity},
		{"a million columns", func() io.Reader { return again("146.94,", 1_000_000) }, http.StatusUnprocessableEntity},
		{"a workbook of its last column", func() io.Reader { return lastColumn(b) }, http.StatusUnprocessableEntity},
		{"one cell of 250 MB", func() io.Reader { return again("x", 250<<20) }, http.StatusUnprocessableEntity},
		{"a quoted cell of 450 MB", func() io.Reader { return io.MultiReader(strings.NewReader("a,b\n\""), again("x", 450<<20)) }, http.StatusUnprocessableEntity},
		{"a property of 50 MB", func() io.Reader {
			return io.MultiReader(strings.NewReader(`[{"output": "`), again("1", 50<<20), strings.NewReader(`"}]`))
		}, http.StatusUnprocessableEntity},
		{"500 columns of 2000 characters", func() io.Reader { return again(strings.Repeat(strings.Repeat("x", 1999)+",", 499)+"b\n", 20) }, http.StatusCreated},
	} {
		b.Run(c.name, func(b *testing.B) {
			url, pid := serve(b, program)
			took := times(b, func() {
				res, err := http.Post(url+"/api/imports?name=file.csv", "application/octet-stream", c.open())
				require.NoError(b, err)
				body, err := io.ReadAll(res.Body)
				require.NoError(b, err)
				require.NoError(b, res.Body.Close())
				require.Equal(b, c.status, res.StatusCode, "%.300s", body)
				require.True(b, json.Valid(body))
			})
			if base == 0 {
				base = took
			}
			b.ReportMetric(float64(took)/float64(base), "×listing")
			b.ReportMetric(peak(b, pid), "MB-resident")
		})
	}
}

// serve starts the program on a folder of its own.
func serve(b *testing.B, program string) (url string, pid int) {
	cmd := exec.Command(program, "demo", "--data", b.TempDir(), "--address", "127.0.0.1:0")
	stdout, err := cmd.StdoutPipe()
	require.NoError(b, err)
	require.NoError(b, cmd.Start())
	b.Cleanup(func() {
		require.NoError(b, cmd.Process.Kill())
		_ = cmd.Wait() // killed
	})
	lines := bufio.NewScanner(stdout)
	for lines.Scan() {
		if url = regexp.MustCompile(`http://[\d.:]+`).FindString(lines.Text()); url != "" {
			go func() { _, _ = io.Copy(io.Discard, stdout) }()
			return url, cmd.Process.Pid
		}
	}
	require.Fail(b, "the server says no address")
	return "", 0
}

// peak is the most memory that a process had, in MB.
func peak(b *testing.B, pid int) float64 {
	status, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", pid))
	require.NoError(b, err)
	var kb float64
	_, err = fmt.Sscanf(regexp.MustCompile(`VmHWM:.*`).FindString(string(status)), "VmHWM: %f", &kb)
	require.NoError(b, err)
	return kb / 1024
}
