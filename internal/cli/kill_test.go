package cli

import (
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/demo"
	"mnemos/internal/store"
)

// TestKilledDuringAnImport kills the program at twenty moments of an import.
// After each the listing that was there before is whole, nothing of the new
// one can be seen, and nothing of it is left in the file.
func TestKilledDuringAnImport(t *testing.T) {
	folder := t.TempDir()
	s, err := store.Open(t.Context(), folder)
	require.NoError(t, err)
	require.NoError(t, demo.Fill(t.Context(), s, time.Date(2026, 11, 25, 9, 42, 0, 0, time.UTC)))
	require.NoError(t, s.Close())
	list := func(name string, n int) string {
		var b strings.Builder
		b.WriteString("Callsign,Output,Shift,Tone,Town,Latitude,Longitude\n")
		for i := range n {
			fmt.Fprintf(&b, "QX%dAA,%d.%03d,+,103.5,%s %d,%.4f,-55.5\n", i, 147, i%79*5, name, i, 40+float64(i%1000)/500)
		}
		path := filepath.Join(t.TempDir(), name+".csv")
		require.NoError(t, os.WriteFile(path, []byte(b.String()), 0o600))
		return path
	}
	program := filepath.Join(t.TempDir(), "mnemos") // by this name the test binary is the program
	self, err := os.Executable()
	require.NoError(t, err)
	require.NoError(t, os.Symlink(self, program))
	command := func(path string) *exec.Cmd {
		return exec.CommandContext(t.Context(), program, "import", "--data", folder, "--source", "List", path)
	}
	// begin starts an import and returns when it has said how it reads the
	// columns, which is just before the first row goes in.
	begin := func(path string) *exec.Cmd {
		cmd := command(path)
		out, err := cmd.StdoutPipe()
		require.NoError(t, err)
		require.NoError(t, cmd.Start())
		_, err = out.Read(make([]byte, 1))
		require.NoError(t, err)
		go func() { _, _ = io.Copy(io.Discard, out) }() // ends with the process
		return cmd
	}
	cmd := begin(list("earlier", 3000))
	start := time.Now()
	require.NoError(t, cmd.Wait())
	whole := time.Since(start)

	fresh := list("later", 3000)
	killed := 0
	for i := range 20 {
		cmd := begin(fresh)
		time.Sleep(whole * time.Duration(i) / 20) // twenty moments from the first row to the last
		_ = cmd.Process.Kill()                    // it may have ended already
		finished := cmd.Wait() == nil
		s, err := store.Open(t.Context(), folder)
		require.NoError(t, err)
		editions, err := s.Editions(t.Context())
		require.NoError(t, err)
		var records, towns int
		for _, e := range editions {
			if e.Source == "List" {
				records = e.Records
			}
		}
		assert.Equal(t, 3000, records)
		s.Swept()
		db, err := sqlx.Open("sqlite", "file:"+filepath.Join(folder, "mnemos.db")+"?mode=ro")
		require.NoError(t, err)
		require.NoError(t, db.Get(&towns, "SELECT count(*) FROM record WHERE locality LIKE 'earlier %' AND edition_id IN (SELECT id FROM edition WHERE active = 1)"))
		if !finished && towns == 3000 {
			killed++
		}
		assert.True(t, towns == 3000 || towns == 0, "all of the old listing, or all of the new: %d", towns)
		var orphans int
		require.NoError(t, db.Get(&orphans, `SELECT (SELECT count(*) FROM record WHERE edition_id NOT IN (SELECT id FROM edition WHERE active = 1 OR kept = 1))
			+ (SELECT count(*) FROM edition WHERE active = 0 AND kept = 0) + (SELECT count(*) FROM record_place WHERE id NOT IN (SELECT id FROM record))`))
		assert.Zero(t, orphans)
		require.NoError(t, db.Close())
		assert.NoDirExists(t, filepath.Join(folder, store.Incoming))
		require.NoError(t, s.Close())
		if towns == 0 { // the new one got in: put the old one back
			out, err := command(list("earlier", 3000)).CombinedOutput()
			require.NoError(t, err, "%s", out)
		}
	}
	assert.GreaterOrEqual(t, killed, 5, "the kills did not come while the import ran")
}
