package bench

import (
	"encoding/csv"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"mnemos/core/listing"
	"mnemos/internal/store"
)

// table writes records as people publish them.
func table(tb testing.TB, records []listing.Record) string {
	var b strings.Builder
	w := csv.NewWriter(&b)
	require.NoError(tb, w.Write([]string{"Callsign", "Output", "Input", "Tone", "Mode", "Town", "Latitude", "Longitude", "Status", "Use", "Updated", "Height"}))
	for _, r := range records {
		require.NoError(tb, w.Write([]string{
			r.Callsign, r.Output.MHz(), r.Input.MHz(), r.UplinkTone.Tone.String(), string(r.Mode), r.Locality, fmt.Sprintf("%.4f", *r.Lat), fmt.Sprintf("%.4f", *r.Lon),
			string(r.Status), string(r.Access), r.Updated.String(), "120.5", // .import cannot write an empty number
		}))
	}
	w.Flush()
	return b.String()
}

// BenchmarkImport brings 100,000 rows in by the program and compares it with
// sqlite3 reading the same rows, already taken apart, into the same tables,
// indexes and triggers by its own .import. It runs the program in a process of
// its own, so that its memory is its own.
func BenchmarkImport(b *testing.B) {
	shell, err := exec.LookPath("sqlite3")
	if err != nil {
		b.Skip("sqlite3 is not installed: apt-get install sqlite3")
	}
	all := records(count)
	folder := b.TempDir()
	file := filepath.Join(folder, "listing.csv")
	require.NoError(b, os.WriteFile(file, []byte(table(b, all)), 0o600))
	program := filepath.Join(folder, "mnemos")
	out, err := exec.CommandContext(b.Context(), "go", "build", "-o", program, "../../cmd/mnemos").CombinedOutput()
	require.NoError(b, err, "%s", out)

	var own, base []time.Duration
	var most float64
	for b.Loop() {
		data := b.TempDir()
		s, err := store.Open(b.Context(), data)
		require.NoError(b, err)
		require.NoError(b, somebody(b.Context(), s))
		_, _, err = s.NewPlan(b.Context(), walk, store.Stamp{At: "2026-11-25T09:42:00Z", Label: "new"}, "trail")
		require.NoError(b, err)
		require.NoError(b, s.Close())
		cmd := exec.CommandContext(b.Context(), program, "import", "--data", data, "--source", "List", file)
		start := time.Now()
		out, err := cmd.CombinedOutput()
		require.NoError(b, err, "%s", out)
		own = append(own, time.Since(start))
		most = max(most, rss(cmd))

		normal := filepath.Join(b.TempDir(), "normal.csv")
		dump := exec.CommandContext(b.Context(), shell, filepath.Join(data, "mnemos.db"), "-csv", "SELECT * FROM record ORDER BY id")
		rows, err := dump.Output()
		require.NoError(b, err)
		require.NoError(b, os.WriteFile(normal, rows, 0o600))
		require.NoError(b, exec.CommandContext(b.Context(), shell, filepath.Join(data, "mnemos.db"), "DELETE FROM record; VACUUM;").Run())
		base = append(base, shellImport(b, shell, filepath.Join(data, "mnemos.db"), normal))
	}
	slices.Sort(own)
	slices.Sort(base)
	mid := func(d []time.Duration) float64 { return d[len(d)/2].Seconds() }
	b.ReportMetric(mid(own), "s-import")
	b.ReportMetric(mid(base), "s-sqlite3")
	b.ReportMetric(mid(own)/mid(base), "×sqlite3")
	b.ReportMetric(most, "MB-resident")
}

func shellImport(b *testing.B, shell, db, file string) time.Duration {
	cmd := exec.CommandContext(b.Context(), shell, db)
	cmd.Stdin = strings.NewReader("PRAGMA journal_mode=WAL;\nPRAGMA synchronous=FULL;\n.mode csv\n.import " + file + " record\n")
	start := time.Now()
	out, err := cmd.CombinedOutput()
	require.NoError(b, err, "%.1000s", out)
	took := time.Since(start)
	var n int
	got, err := exec.CommandContext(b.Context(), shell, db, "SELECT count(*) FROM record").Output()
	require.NoError(b, err)
	_, err = fmt.Sscan(string(got), &n)
	require.NoError(b, err)
	require.Equal(b, count, n)
	return took
}

// rss is the most memory that a finished process had, in MB.
func rss(cmd *exec.Cmd) float64 {
	usage, ok := cmd.ProcessState.SysUsage().(*syscall.Rusage)
	if !ok {
		return 0
	}
	return float64(usage.Maxrss) / 1024
}
