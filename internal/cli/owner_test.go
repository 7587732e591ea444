package cli

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/demo"
	"mnemos/internal/store"
)

// shop is a data folder with the demonstration, and the program beside it.
type shop struct {
	t               *testing.T
	folder, program string
}

func newShop(t *testing.T) *shop {
	t.Helper()
	x := &shop{t, t.TempDir(), filepath.Join(t.TempDir(), "mnemos")} // by this name the test binary is the program
	self, err := os.Executable()
	require.NoError(t, err)
	require.NoError(t, os.Symlink(self, x.program))
	s, err := store.Open(t.Context(), x.folder)
	require.NoError(t, err)
	require.NoError(t, demo.Fill(t.Context(), s, time.Date(2026, 11, 25, 9, 42, 0, 0, time.UTC)))
	require.NoError(t, s.Close())
	return x
}

// list writes a listing of n rows.
func (x *shop) list(name string, n int) string {
	var b strings.Builder
	b.WriteString("Callsign,Output,Shift,Tone,Town\n")
	for i := range n {
		fmt.Fprintf(&b, "QX%dAA,%d.%03d,+,103.5,%s %d\n", i, 147, i%79*5, name, i)
	}
	return x.file(name+".csv", b.String())
}

func (x *shop) file(name, content string) string {
	path := filepath.Join(x.t.TempDir(), name)
	require.NoError(x.t, os.WriteFile(path, []byte(content), 0o600))
	return path
}

func (x *shop) importing(args ...string) *exec.Cmd {
	return exec.CommandContext(x.t.Context(), x.program, append([]string{"import", "--data", x.folder}, args...)...)
}

// records is how many records each source really holds, beside how many it
// says.
func (x *shop) records() (holds, says map[string]int) {
	s, err := store.Open(x.t.Context(), x.folder)
	require.NoError(x.t, err)
	defer func() { require.NoError(x.t, s.Close()) }()
	editions, err := s.Editions(x.t.Context())
	require.NoError(x.t, err)
	holds, says = map[string]int{}, map[string]int{}
	for _, e := range editions {
		says[e.Source] = e.Records
		n, err := s.Count(x.t.Context(), e.ID)
		require.NoError(x.t, err)
		holds[e.Source] = n
	}
	return holds, says
}

var imported = regexp.MustCompile(`(\d+) rows imported`)

// TestTwoProcessesOneFolder lets two imports meet in one folder, round after
// round: each listing holds exactly what its process said.
func TestTwoProcessesOneFolder(t *testing.T) {
	x := newShop(t)
	rounds := 6
	if n := os.Getenv("MNEMOS_ROUNDS"); n != "" {
		var err error
		rounds, err = strconv.Atoi(n)
		require.NoError(t, err)
	}
	big, small := x.list("big", 3000), x.list("small", 40)
	for round := range rounds {
		said := map[string]int{}
		type result struct {
			source string
			out    []byte
			err    error
		}
		results := make(chan result)
		for source, path := range map[string]string{"Big": big, "Small": small} {
			go func() {
				out, err := x.importing("--source", source, path).CombinedOutput()
				results <- result{source, out, err}
			}()
		}
		for range 2 {
			r := <-results
			require.NoError(t, r.err, "round %d: %s", round, r.out)
			m := imported.FindSubmatch(r.out)
			require.NotNil(t, m, "%s", r.out)
			n, err := strconv.Atoi(string(m[1]))
			require.NoError(t, err)
			said[r.source] = n
		}
		holds, says := x.records()
		assert.Equal(t, says, holds, "round %d", round)
		for source, n := range said {
			assert.Equal(t, n, holds[source], "round %d: %s", round, source)
		}
	}
}

// TestHandedToTheServer: while a Mnemos serves the folder, an import goes
// through it, and a second server is refused with the address of the first.
func TestHandedToTheServer(t *testing.T) {
	x := newShop(t)
	server := exec.CommandContext(t.Context(), x.program, "serve", "--data", x.folder, "--address", "127.0.0.1:0")
	stdout, err := server.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, server.Start())
	defer func() { _ = server.Process.Kill(); _ = server.Wait() }() // it may have ended
	line := make([]byte, 300)
	n, err := stdout.Read(line)
	require.NoError(t, err)
	address := regexp.MustCompile(`http://[0-9.:]+/`).FindString(string(line[:n]))
	require.NotEmpty(t, address)

	out, err := exec.CommandContext(t.Context(), x.program, "serve", "--data", x.folder, "--address", "127.0.0.1:0").CombinedOutput()
	require.Error(t, err)
	assert.Contains(t, string(out), "is in use by Mnemos at "+address)

	out, err = x.importing("--source", "Handed", x.list("handed", 500)).CombinedOutput()
	require.NoError(t, err, "%s", out)
	assert.Contains(t, string(out), "handing it to the Mnemos at "+address)
	assert.Contains(t, string(out), "500 rows imported")
	res, err := http.Get(address + "api/sources")
	require.NoError(t, err)
	defer func() { require.NoError(t, res.Body.Close()) }()
	body, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	assert.Contains(t, string(body), `"Handed"`)
	require.True(t, json.Valid(body))

	out, err = x.importing("--source", "Handed", x.file("unclear.csv", "Output,TX tone,RX tone\n147.255,100.0,88.5\n")).CombinedOutput()
	require.Error(t, err)
	assert.Contains(t, string(out), "say whose TX it is: --viewpoint")
	out, err = x.importing("--source", "Handed", "--viewpoint", "operator", x.file("unclear.csv", "Output,TX tone,RX tone\n147.255,100.0,88.5\n")).CombinedOutput()
	require.Error(t, err)
	assert.Contains(t, string(out), "say --accept-losses")
}

// TestInterrupted: Ctrl-C and TERM end an import, and nothing is changed.
func TestInterrupted(t *testing.T) {
	x := newShop(t)
	require.NoError(t, x.importing("--source", "List", x.list("old", 50)).Run())
	big := x.list("new", 60_000)
	for _, signal := range []os.Signal{os.Interrupt, syscall.SIGTERM} {
		cmd := x.importing("--source", "List", big)
		var errOut bytes.Buffer
		cmd.Stderr = &errOut
		out, err := cmd.StdoutPipe()
		require.NoError(t, err)
		require.NoError(t, cmd.Start())
		_, err = out.Read(make([]byte, 1)) // it has said how it reads the columns
		require.NoError(t, err)
		go func() { _, _ = io.Copy(io.Discard, out) }() // ends with the process
		time.Sleep(150 * time.Millisecond)
		sent := time.Now()
		require.NoError(t, cmd.Process.Signal(signal))
		assert.Error(t, cmd.Wait())
		assert.Less(t, time.Since(sent), 5*time.Second)
		assert.Contains(t, errOut.String(), "cancelled: nothing was changed")
		holds, says := x.records()
		assert.Equal(t, 50, holds["List"])
		assert.Equal(t, says, holds)
	}
}

// TestLosses: a file of which little can be read does not replace a good
// listing, unless somebody says so.
func TestLosses(t *testing.T) {
	x := newShop(t)
	require.NoError(t, x.importing("--source", "List", x.list("old", 50)).Run())
	junk := x.file("junk.csv", "Output,Input,Tone\n147.24,147.84,100\n"+strings.Repeat("soon,later,loud\n", 30))
	out, err := x.importing("--source", "List", junk).CombinedOutput()
	require.Error(t, err)
	assert.Contains(t, string(out), "List has 50 records, and only 1 rows of this file could be read: nothing was changed")
	holds, _ := x.records()
	assert.Equal(t, 50, holds["List"])
	out, err = x.importing("--source", "Fresh", x.file("none.csv", "Output,Input\nsoon,later\n")).CombinedOutput()
	require.Error(t, err)
	assert.Contains(t, string(out), "no row could be read")
	out, err = x.importing("--source", "List", "--accept-losses", junk).CombinedOutput()
	require.NoError(t, err, "%s", out)
	holds, _ = x.records()
	assert.Equal(t, 1, holds["List"])
}

// TestTerminalIsSafe: what strangers wrote cannot steer the terminal.
func TestTerminalIsSafe(t *testing.T) {
	var out bytes.Buffer
	_, err := terminal{&out}.Write([]byte("a\x1b[2Jb\u202ec\td\n\x07"))
	require.NoError(t, err)
	assert.Equal(t, "a[2Jbc\td\n", out.String())
}
