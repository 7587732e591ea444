package store

import (
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"
	"testing"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/channel"
)

// backup is a good one, with rows of most kinds.
func backup(t *testing.T) string {
	t.Helper()
	folder := t.TempDir()
	s, p, l := fresh(t)
	require.NoError(t, call(t, s, "QX1BB"))
	for n := range 5 {
		require.NoError(t, put(s, p, l, n+1, channel.New(146_520_000)))
	}
	path := filepath.Join(folder, "good.db")
	require.NoError(t, BackUp(t.Context(), s.Folder(), path))
	return path
}

// altered is a copy of a backup that differs by what a statement does.
func altered(t *testing.T, good string, statements ...string) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), "odd.db")
	require.NoError(t, copyFile(good, path))
	db, err := sqlx.Open("sqlite", "file:"+path)
	require.NoError(t, err)
	db.SetMaxOpenConns(1)
	for _, s := range append([]string{"PRAGMA foreign_keys = OFF"}, statements...) {
		_, err := db.Exec(s)
		require.NoError(t, err, s)
	}
	require.NoError(t, db.Close())
	return path
}

// refused restores into a folder that holds something, and expects that all of
// it stays.
func refused(t *testing.T, from, why string) {
	t.Helper()
	folder := t.TempDir()
	s := begun(t, folder)
	require.NoError(t, s.Close())
	_, err := Restore(t.Context(), folder, from, "now")
	require.Error(t, err, why)
	assert.NotContains(t, err.Error(), "panic")
	assert.Equal(t, "QX1AA", person(t, folder), why)
	left, err := filepath.Glob(filepath.Join(folder, "restore-*"))
	require.NoError(t, err)
	assert.Empty(t, left)
}

// TestRestoreRefuses what Mnemos cannot have written, in words, and touches
// nothing then.
func TestRestoreRefuses(t *testing.T) {
	good := backup(t)
	for _, sql := range []string{
		"CREATE TRIGGER later AFTER INSERT ON channel BEGIN DELETE FROM plan; END",
		"CREATE VIEW plans AS SELECT * FROM plan",
		"CREATE TABLE more (id INTEGER)",
		"ALTER TABLE channel ADD COLUMN more TEXT",
		"ALTER TABLE channel DROP COLUMN power",
		"ALTER TABLE channel RENAME COLUMN name TO called",
		"DROP TABLE beacon",
		"DROP TABLE request",
		"DROP TABLE goose_db_version",
		"CREATE INDEX odd ON channel (name)",
		"UPDATE goose_db_version SET version_id = 9999 WHERE id = (SELECT max(id) FROM goose_db_version)",
		"UPDATE channel SET receive_hz = 9223372036854775807",
		"UPDATE channel SET receive_hz = -9223372036854775807",
		"UPDATE channel SET receive_hz = 3000000001",
		"UPDATE channel SET offset_hz = 9223372036854775807, transmit_kind = 'shift'",
		"UPDATE channel SET split_hz = 9223372036854775807, transmit_kind = 'split'",
		"UPDATE channel SET transmit_tone = 'nonsense'",
		"UPDATE channel SET bandwidth = 'huge'",
		"UPDATE channel SET name = char(7)",
		"UPDATE channel SET name = char(65535)",
		"UPDATE plan SET height_m = 9e999",
		"UPDATE plan SET lat = -9e999, lon = 0",
		"UPDATE plan SET radius_km = 1e300",
		"UPDATE entry SET channel_id = 4711",
		"UPDATE entry SET load_id = 4711",
		"UPDATE entry SET slot = 9223372036854775807 WHERE slot = 1",
		"UPDATE journal SET changes = '{'",
		"UPDATE journal SET changes = '[{\"table\":\"sqlite_schema\",\"id\":1,\"before\":null,\"after\":{}}]'",
		"UPDATE journal SET changes = '[{\"table\":\"channel\",\"id\":1,\"before\":null,\"after\":{\"id\":\"x\"}}]'",
		"UPDATE journal SET changes = '[{\"table\":\"channel\",\"id\":1,\"before\":null,\"after\":{\"receive_hz\":9223372036854775807}}]'",
		"UPDATE sqlite_sequence SET seq = 9223372036854775807 WHERE name = 'journal'",
		"UPDATE sqlite_sequence SET seq = 0 WHERE name = 'journal'",
		"UPDATE serial SET last = 9223372036854775807",
		"UPDATE edition_serial SET next = 9223372036854775807",
		"UPDATE person SET services = '{'",
	} {
		refused(t, altered(t, good, sql), sql)
	}

	dir := t.TempDir()
	at := func(name string) string { return filepath.Join(dir, name) }
	require.NoError(t, syscall.Mkfifo(at("fifo"), 0o600))
	require.NoError(t, os.Symlink(good, at("link")))
	require.NoError(t, os.Mkdir(at("folder"), 0o700))
	require.NoError(t, os.WriteFile(at("empty"), nil, 0o600))
	require.NoError(t, os.WriteFile(at("text"), []byte(strings.Repeat("no database ", 999)), 0o600))
	whole, err := os.ReadFile(good)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(at("cut"), whole[:len(whole)/2], 0o600))
	require.NoError(t, os.WriteFile(at("longer"), append(whole, whole[:4096]...), 0o600))
	require.NoError(t, copyFile(good, at("sparse")))
	require.NoError(t, os.Truncate(at("sparse"), 10<<30))
	for _, name := range []string{"fifo", "link", "folder", "empty", "text", "cut", "longer", "sparse", "nowhere"} {
		refused(t, at(name), name)
	}

	folder := t.TempDir()
	require.NoError(t, begun(t, folder).Close())
	_, err = Restore(t.Context(), folder, filepath.Join(folder, dataFile), "now")
	require.ErrorContains(t, err, "itself")
}

// TestRestoreLog: a copy whose last changes are in the log beside it has them.
func TestRestoreLog(t *testing.T) {
	folder, away := t.TempDir(), t.TempDir()
	s := begun(t, folder)
	require.NoError(t, call(t, s, "in the log"))
	for _, end := range []string{"", "-wal"} {
		require.NoError(t, copyFile(filepath.Join(folder, dataFile+end), filepath.Join(away, "copy.db"+end)))
	}
	require.NoError(t, s.Close())
	fresh := t.TempDir()
	_, err := Restore(t.Context(), fresh, filepath.Join(away, "copy.db"), "now")
	require.NoError(t, err)
	assert.Equal(t, "in the log", person(t, fresh))
}

// TestRestoreBytes flips bytes of a good backup, MNEMOS_RESTORES times: it is
// refused and nothing is touched, or it can be read to its last row.
func TestRestoreBytes(t *testing.T) {
	n, err := strconv.Atoi(os.Getenv("MNEMOS_RESTORES"))
	if err != nil {
		n = 25
	}
	whole, err := os.ReadFile(backup(t))
	require.NoError(t, err)
	rnd := rand.New(rand.NewPCG(30, uint64(n))) //nolint:gosec // the same files every time
	taken := 0
	for i := range n {
		odd := append([]byte{}, whole...)
		for range 1 + rnd.IntN(3) {
			odd[rnd.IntN(len(odd))] ^= byte(1 << rnd.IntN(8))
		}
		path := filepath.Join(t.TempDir(), "odd.db")
		require.NoError(t, os.WriteFile(path, odd, 0o600))
		folder := t.TempDir()
		if _, err := Restore(t.Context(), folder, path, "now"); err != nil {
			assert.NoFileExists(t, filepath.Join(folder, dataFile))
			continue
		}
		taken++
		s := open(t, folder)
		plans, err := s.Plans(t.Context())
		require.NoError(t, err)
		for _, p := range plans {
			loads, err := s.Loads(t.Context(), p.ID)
			require.NoError(t, err)
			for _, l := range loads {
				_, err := s.Entries(t.Context(), l.ID)
				require.NoError(t, err, fmt.Sprint("file ", i))
			}
			_, err = s.PlanAt(t.Context(), p.ID, 0)
			require.NoError(t, err)
		}
		require.NoError(t, s.Close())
	}
	t.Logf("%d of %d were taken", taken, n)
}

// TestOwners: what is kept is for its owner alone, also where it was not, and a link
// that lies in the way of a backup is not followed.
func TestOwners(t *testing.T) {
	folder, away := t.TempDir(), t.TempDir()
	path := filepath.Join(folder, dataFile)
	require.NoError(t, begun(t, folder).Close())
	require.NoError(t, os.Chmod(path, 0o644))
	defer func(s *Store) { require.NoError(t, s.Close()) }(begun(t, folder))
	for _, end := range []string{"", "-wal", "-shm"} {
		info, err := os.Stat(path + end)
		require.NoError(t, err)
		assert.Equal(t, os.FileMode(0o600), info.Mode().Perm(), end)
	}
	to, precious := filepath.Join(away, "b.db"), filepath.Join(away, "precious")
	require.NoError(t, os.WriteFile(precious, []byte("mine"), 0o600))
	require.NoError(t, os.Symlink(precious, to+".part"))
	require.NoError(t, BackUp(t.Context(), folder, to))
	info, err := os.Stat(to)
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())
	b, err := os.ReadFile(precious)
	require.NoError(t, err)
	assert.Equal(t, "mine", string(b))
	left, err := os.ReadDir(away)
	require.NoError(t, err)
	assert.Len(t, left, 2)
}
