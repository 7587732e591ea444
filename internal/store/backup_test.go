package store

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// begun is a folder with a person, open.
func begun(t *testing.T, folder string) *Store {
	t.Helper()
	s := open(t, folder)
	require.NoError(t, call(t, s, "QX1AA"))
	return s
}

func person(t *testing.T, folder string) string {
	t.Helper()
	s := open(t, folder)
	defer func() { require.NoError(t, s.Close()) }()
	return firstName(t, s)
}

// call gives the first person a name.
func call(t *testing.T, s *Store, name string) error {
	return s.Edit(t.Context(), 0, Latest, Stamp{PersonID: 1, At: stamp.At, Label: "name"}, func(e *Edit) error { return e.Put(Person{ID: 1, Name: name}) })
}

// firstName is the name of the first person, or "" where nobody is.
func firstName(t *testing.T, s *Store) string {
	t.Helper()
	people, err := s.People(t.Context())
	require.NoError(t, err)
	if len(people) == 0 {
		return ""
	}
	return people[0].Name
}

// TestBackUp: a backup is whole while the data are in use and their last
// changes are in the log alone, where a copy of the file would miss them.
func TestBackUp(t *testing.T) {
	folder, away := t.TempDir(), t.TempDir()
	s := begun(t, folder)
	path := filepath.Join(folder, dataFile)
	copied, err := os.ReadFile(path)
	require.NoError(t, err)
	backup := filepath.Join(away, "mine.db")
	require.NoError(t, BackUp(t.Context(), folder, backup))
	require.ErrorContains(t, BackUp(t.Context(), folder, backup), "choose another name")
	require.NoError(t, call(t, s, "later"))

	_, err = Restore(t.Context(), folder, backup, "now")
	var busy *Busy
	require.ErrorAs(t, err, &busy, "nothing is put under a process that has the folder")
	require.NoError(t, s.Close())
	require.NoError(t, BackUp(t.Context(), folder, filepath.Join(away, "closed.db")), "nobody has it open")

	fresh := filepath.Join(away, "new", "folder")
	kept, err := Restore(t.Context(), fresh, backup, "now")
	require.NoError(t, err)
	assert.Empty(t, kept)
	assert.Equal(t, "QX1AA", person(t, fresh))
	kept, err = Restore(t.Context(), folder, backup, "now")
	require.NoError(t, err)
	assert.Equal(t, path+".before-now", kept)
	assert.Equal(t, "QX1AA", person(t, folder))
	kept, err = Restore(t.Context(), fresh, kept, "then")
	require.NoError(t, err, "what was kept is a backup too")
	assert.Equal(t, "later", person(t, fresh))
	assert.FileExists(t, kept)

	require.NoError(t, os.WriteFile(backup, copied, 0o600))
	_, err = Restore(t.Context(), fresh, backup, "x")
	if err == nil {
		assert.NotEqual(t, "QX1AA", func() string {
			s := open(t, fresh)
			defer func() { require.NoError(t, s.Close()) }()
			return firstName(t, s) // there is none
		}(), "a copy of the file alone misses what is in its log: that is why there is a backup")
	}
}

// TestNoBackup: what is none changes nothing.
func TestNoBackup(t *testing.T) {
	folder, away := t.TempDir(), t.TempDir()
	require.NoError(t, begun(t, folder).Close())
	whole := filepath.Join(away, "whole.db")
	require.NoError(t, BackUp(t.Context(), folder, whole))
	b, err := os.ReadFile(whole)
	require.NoError(t, err)
	other := filepath.Join(away, "other.db")
	db := sqlx.MustOpen("sqlite", "file:"+other)
	db.MustExec("CREATE TABLE plan_of_somebody (id INTEGER)")
	require.NoError(t, db.Close())
	foreign, err := os.ReadFile(other)
	require.NoError(t, err)
	for name, content := range map[string][]byte{
		"empty": {}, "words": []byte("my repeaters"), "cut": b[:len(b)/2], "foreign": foreign,
		"garbled": append(append([]byte{}, b[:8192]...), []byte(strings.Repeat("x", len(b)-8192))...),
	} {
		bad := filepath.Join(away, name)
		require.NoError(t, os.WriteFile(bad, content, 0o600))
		_, err := Restore(t.Context(), folder, bad, "now")
		assert.ErrorContains(t, err, "not a backup", name)
	}
	_, err = Restore(t.Context(), folder, filepath.Join(away, "nothing"), "now")
	require.Error(t, err)
	assert.Equal(t, "QX1AA", person(t, folder))
	require.ErrorContains(t, BackUp(t.Context(), away, filepath.Join(away, "b")), "holds no data")
}
