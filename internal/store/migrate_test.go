package store

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// version1 makes a data file as the first release left it.
func version1(t *testing.T) (folder, path string) {
	t.Helper()
	folder = t.TempDir()
	path = filepath.Join(folder, "mnemos.db")
	db, err := sqlx.Open("sqlite", "file:"+path+pragmas)
	require.NoError(t, err)
	provider, err := goose.NewProvider(goose.DialectSQLite3, db.DB, sub())
	require.NoError(t, err)
	_, err = provider.UpTo(t.Context(), 1)
	require.NoError(t, err)
	_, err = db.Exec(`INSERT INTO operator (id, person, region, lat, lon, height_m, radius_km) VALUES (1, 'QX1AA', 'us', 41.02, -55.31, 1.5, 150);
		INSERT INTO plan (id, name, revision, saved_at) VALUES (1, 'Walk', 4, '2026-10-01T08:00:00Z');
		INSERT INTO load (id, plan_id, radio) VALUES (1, 1, 'trail');
		INSERT INTO channel (id, plan_id, name, receive_hz, transmit_kind, offset_hz, split_hz, transmit_tone, receive_tone, bandwidth, power)
			VALUES (1, 1, 'Quay', 146940000, 'shift', -600000, 0, '88.5', 'off', 'wide', 'high');
		INSERT INTO entry (id, load_id, slot, channel_id, short_name, scan) VALUES (1, 1, 7, 1, 'QUAY', 'yes')`)
	require.NoError(t, err)
	require.NoError(t, db.Close())
	return folder, path
}

// TestOlderFile opens a file of the first release: it is copied aside, and
// everything in it is there afterwards.
func TestOlderFile(t *testing.T) {
	folder, path := version1(t)
	// A backup that was cut off, and one that a migration before left behind.
	require.NoError(t, os.WriteFile(path+".version-1.part", []byte("half"), 0o600))
	require.NoError(t, os.WriteFile(path+".version-1", []byte("older"), 0o600))

	s := open(t, folder)
	o, err := s.Operator(t.Context())
	require.NoError(t, err)
	assert.Equal(t, "QX1AA", o.Person)
	assert.Equal(t, "encode first", o.TonePolicy, "what is new has the value that was in force")
	assert.Empty(t, o.Bands)
	entries, err := s.Entries(t.Context(), 1)
	require.NoError(t, err)
	require.Len(t, entries, 1)
	assert.Equal(t, "Quay", entries[0].Channel.Name)
	require.NoError(t, s.Close())

	backup, err := sqlx.Open("sqlite", "file:"+path+".version-1?mode=ro")
	require.NoError(t, err)
	defer func() { require.NoError(t, backup.Close()) }()
	var name string
	require.NoError(t, backup.Get(&name, "SELECT name FROM channel"))
	assert.Equal(t, "Quay", name)
	assert.Error(t, backup.Get(&name, "SELECT school FROM operator"), "the copy is as the file was")
	assert.NoFileExists(t, path+".version-1.part")

	// Opened again, there is nothing to migrate and nothing is copied.
	require.NoError(t, os.Remove(path+".version-1"))
	require.NoError(t, open(t, folder).Close())
	assert.NoFileExists(t, path+".version-1")
}

// TestNoRoomForABackup leaves the file alone where it cannot be copied first.
func TestNoRoomForABackup(t *testing.T) {
	folder, path := version1(t)
	require.NoError(t, os.MkdirAll(filepath.Join(path+".version-1.part", "in the way"), 0o700))
	_, err := Open(t.Context(), folder)
	require.ErrorContains(t, err, "before migrating")
	db, err := sqlx.Open("sqlite", "file:"+path)
	require.NoError(t, err)
	defer func() { require.NoError(t, db.Close()) }()
	var version int
	require.NoError(t, db.Get(&version, "SELECT max(version_id) FROM goose_db_version"))
	assert.Equal(t, 1, version)
}
