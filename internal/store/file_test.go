package store

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"mnemos/internal/fault"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestOddFolders: a folder may have any name, and the file in it is guarded as
// in any other.
func TestOddFolders(t *testing.T) {
	for _, name := range []string{"who? me", "a#b", "50%", "%41", "a&_pragma=synchronous(OFF)", "über ünder", "two  spaces", "semi;colon"} {
		folder := filepath.Join(t.TempDir(), name)
		s := begun(t, folder)
		assert.FileExists(t, filepath.Join(folder, dataFile))
		var synchronous, foreign int
		var mode string
		for _, db := range []interface {
			Get(dest any, query string, args ...any) error
		}{s.write, s.read.DB} {
			require.NoError(t, db.Get(&synchronous, "PRAGMA synchronous"))
			require.NoError(t, db.Get(&foreign, "PRAGMA foreign_keys"))
			require.NoError(t, db.Get(&mode, "PRAGMA journal_mode"))
			assert.Equal(t, 2, synchronous, "FULL: %s", name)
			assert.Equal(t, 1, foreign, name)
			assert.Equal(t, "wal", mode, name)
		}
		require.NoError(t, s.Close())
		assert.Equal(t, "QX1AA", person(t, folder), name)
	}
}

// TestGone: what is written after the data are gone is said to be lost, and
// never acknowledged.
func TestGone(t *testing.T) {
	for name, lose := range map[string]func(folder string) error{
		"the folder": os.RemoveAll,
		"the file":   func(folder string) error { return os.Remove(filepath.Join(folder, dataFile)) },
		"the log":    func(folder string) error { return os.Remove(filepath.Join(folder, dataFile+"-wal")) },
		"moved away": func(folder string) error { return os.Rename(folder, folder+" elsewhere") },
		"another there": func(folder string) error {
			path := filepath.Join(folder, dataFile)
			b, err := os.ReadFile(path)
			if err != nil {
				return err
			}
			if err := os.Remove(path); err != nil {
				return err
			}
			return os.WriteFile(path, b, 0o600)
		},
	} {
		folder := filepath.Join(t.TempDir(), "data")
		s := begun(t, folder)
		require.NoError(t, call(t, s, "later"), name)
		_, err := s.People(t.Context())
		require.NoError(t, err, name)
		require.NoError(t, lose(folder), name)
		err = call(t, s, "last")
		require.Error(t, err, name)
		assert.Equal(t, fault.ErrGone, Trouble(err), name)
		assert.Equal(t, "later", firstName(t, s), "it can still be read: %s", name)
		_ = s.Close() // its files are gone
	}
	assert.NoError(t, Trouble(os.ErrNotExist))
}

// TestFull: a change for which there is no room is refused whole.
func TestFull(t *testing.T) {
	s := begun(t, t.TempDir())
	defer func() { require.NoError(t, s.Close()) }()
	_, err := s.write.Exec("PRAGMA max_page_count = 1") // it becomes the present size
	require.NoError(t, err)
	err = call(t, s, strings.Repeat("x", 1<<20))
	require.Error(t, err)
	assert.Equal(t, fault.ErrFull, Trouble(err))
	assert.Equal(t, "QX1AA", firstName(t, s))
}

// TestLost: a folder that held data and holds none is not taken for a new one,
// and data without their last changes not for the whole.
func TestLost(t *testing.T) {
	refuse := func(folder, says string) {
		t.Helper()
		s, err := Open(t.Context(), folder)
		if err == nil {
			require.NoError(t, s.Close())
		}
		assert.ErrorContains(t, err, says)
	}
	folder := t.TempDir()
	path := filepath.Join(folder, dataFile)
	require.NoError(t, begun(t, folder).Close())
	require.NoError(t, os.Truncate(path, 0))
	refuse(folder, "is missing or empty")
	require.NoError(t, os.Remove(path))
	refuse(folder, "is missing or empty")
	assert.NoFileExists(t, path, "nothing is filled in")
	require.NoError(t, os.Remove(filepath.Join(folder, lockFile)))
	require.NoError(t, begun(t, folder).Close(), "begun anew, as it was said")

	// A process that was killed: its files as they were.
	folder = t.TempDir()
	s := begun(t, folder)
	killed := t.TempDir()
	require.NoError(t, os.CopyFS(killed, os.DirFS(folder)))
	require.NoError(t, s.Close())
	assert.Equal(t, "QX1AA", person(t, killed), "with the log nothing is lost")
	killed = t.TempDir()
	s = begun(t, folder)
	require.NoError(t, os.CopyFS(killed, os.DirFS(folder)))
	require.NoError(t, s.Close())
	require.NoError(t, os.Remove(filepath.Join(killed, dataFile+"-wal")))
	refuse(killed, "the last changes")
	require.NoError(t, os.Remove(filepath.Join(killed, ownerFile)))
	s, err := Open(t.Context(), killed)
	require.NoError(t, err, "gone on without them, as it was said")
	require.NoError(t, s.Close())
}

// TestNewer: data of a newer version are not touched.
func TestNewer(t *testing.T) {
	folder := t.TempDir()
	s := begun(t, folder)
	_, err := s.write.Exec("INSERT INTO goose_db_version (version_id, is_applied) VALUES (9999, 1)")
	require.NoError(t, err)
	require.NoError(t, s.Close())
	before, err := os.ReadFile(filepath.Join(folder, dataFile))
	require.NoError(t, err)
	_, err = Open(t.Context(), folder)
	require.ErrorContains(t, err, "newer Mnemos")
	after, err := os.ReadFile(filepath.Join(folder, dataFile))
	require.NoError(t, err)
	assert.Equal(t, before, after)
}

// TestSynchronous: what is acknowledged is on the disk, whichever connection
// wrote it.
func TestSynchronous(t *testing.T) {
	s := begun(t, t.TempDir())
	defer func() { require.NoError(t, s.Close()) }()
	for _, db := range []*sqlx.DB{s.read.DB, s.write} {
		most := db.Stats().MaxOpenConnections
		require.Positive(t, most)
		var held []*sqlx.Conn
		for range most { // each of them, at once
			c, err := db.Connx(t.Context())
			require.NoError(t, err)
			held = append(held, c)
			var level int
			require.NoError(t, c.GetContext(t.Context(), &level, "PRAGMA synchronous"))
			assert.Equal(t, 2, level, "FULL")
			var mode string
			require.NoError(t, c.GetContext(t.Context(), &mode, "PRAGMA journal_mode"))
			assert.Equal(t, "wal", mode)
		}
		for _, c := range held {
			require.NoError(t, c.Close())
		}
	}
}
