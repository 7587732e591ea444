package store

import (
	"compress/gzip"
	"io"
	"os"
	"path/filepath"
	"testing"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/fault"
)

// version1 makes a data file as the first release left it.
func version1(t *testing.T) (folder, path string) {
	t.Helper()
	folder = t.TempDir()
	path = filepath.Join(folder, "mnemos.db")
	db, err := sqlx.Open("sqlite", "file:"+path+pragmas)
	require.NoError(t, err)
	provider, err := steps(db.DB)
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
	assert.Equal(t, "QX1AA", firstName(t, s))
	p, err := s.Plan(t.Context(), 1)
	require.NoError(t, err)
	assert.Equal(t, "encode first", p.TonePolicy, "what is new has the value that was in force")
	assert.Equal(t, "us", p.Region)
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
	assert.Error(t, backup.Get(&name, "SELECT name FROM person"), "the copy is as the file was")
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

// version6 unpacks a folder as the version before people and units left it. It
// was used by hand for this: the demonstration, with channels stored, renamed
// and deleted; a profile made and its radio taken in; another radio taken in and
// out again; a listing imported; a correction, a decision; and the operator
// renamed at last, who then stored one more channel.
func version6(t *testing.T) (folder string) {
	t.Helper()
	folder = t.TempDir()
	packed, err := os.Open("testdata/version-6.db.gz")
	require.NoError(t, err)
	defer func() { require.NoError(t, packed.Close()) }()
	z, err := gzip.NewReader(packed)
	require.NoError(t, err)
	b, err := io.ReadAll(z)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(filepath.Join(folder, dataFile), b, 0o600))
	return folder
}

// TestVersion6 opens such a folder: everything is where it belongs now, and
// what was done can still be taken back, by whom it was.
func TestVersion6(t *testing.T) {
	folder := version6(t)
	s := open(t, folder)
	people, err := s.People(t.Context())
	require.NoError(t, err)
	require.Len(t, people, 2)
	assert.Equal(t, Person{ID: 1, Name: "QX1NEW", Licence: "full, until 2031", Services: Strings{"gmrs"}, Bands: Strings{"2 m", "70 cm"}}, people[0])
	assert.Equal(t, "operator", people[1].Name)
	p, err := s.Plan(t.Context(), 1)
	require.NoError(t, err)
	lat, lon := 41.02, -55.31
	assert.Equal(t, Plan{
		ID: 1, Name: "Three Lights Walk", Demo: true, Region: "us", Lat: &lat, Lon: &lon, Height: 2.5, Radius: 120, TonePolicy: "tone squelch first",
		Revision: 9, SavedAt: "2026-11-26T12:00:00Z",
	}, p)
	units := func() (out []string) {
		loads, err := s.Loads(t.Context(), 1)
		require.NoError(t, err)
		for _, l := range loads {
			u, err := s.Unit(t.Context(), l.UnitID)
			require.NoError(t, err)
			out = append(out, u.Profile)
		}
		return out
	}
	assert.Equal(t, []string{"trail", "ferry", "lantern", "own-my-gale"}, units())
	profile, err := s.Profile(t.Context(), "own-my-gale")
	require.NoError(t, err)
	assert.Contains(t, profile.YAML, "My Gale")
	trail := func() map[int]string {
		es, err := s.Entries(t.Context(), 1)
		require.NoError(t, err)
		out := map[int]string{}
		for _, e := range es {
			out[e.Slot] = e.Channel.Name
		}
		return out
	}
	require.Len(t, trail(), 26)
	assert.Equal(t, "Ridge Three", trail()[41])
	numbers, err := s.TeamSlots(t.Context(), 1)
	require.NoError(t, err)
	assert.Len(t, numbers, 28, "26 of the first radio, and 10 and 11 of the second")
	corrections, err := s.Corrections(t.Context())
	require.NoError(t, err)
	require.Len(t, corrections, 2)
	assert.Equal(t, Correction{ID: 1, Source: "Harbour list", Key: "h-qx2lhv", Field: "uplink_tone", Value: "110.9", Against: "146.2", Note: "heard on the 20th", PersonID: 2, At: "2026-11-26T12:00:00Z"}, corrections[0])
	decisions, err := s.Decided(t.Context())
	require.NoError(t, err)
	assert.Equal(t, []Decision{{ID: 1, ASource: "Harbour list", AKey: "h-qx4hrg", BSource: "Lantern list", BKey: "l-qx4hrg", PersonID: 2, At: "2026-11-26T12:00:00Z"}}, decisions)
	editions, err := s.Editions(t.Context())
	require.NoError(t, err)
	require.Len(t, editions, 3)
	assert.Equal(t, []int64{1, 1, 0}, []int64{editions[0].PlanID, editions[1].PlanID, editions[2].PlanID}, "the demonstration's serve its plan alone")

	// Each takes back what is theirs, past the radio that came and went.
	undo := func(person int64) string {
		t.Helper()
		label, err := s.Undo(t.Context(), 1, Latest, Stamp{PersonID: person, At: stamp.At}, false)
		require.NoError(t, err)
		return label
	}
	assert.Equal(t, "store New hand in slot 43", undo(1))
	assert.Equal(t, "take harrier out of the plan", undo(2))
	assert.Equal(t, []string{"trail", "ferry", "lantern", "own-my-gale", "harrier"}, units())
	assert.Equal(t, "load the plan into Harrier", undo(2))
	assert.Equal(t, "load the plan into My Gale", undo(2))
	assert.Equal(t, []string{"trail", "ferry", "lantern"}, units())
	assert.Equal(t, "delete Test Call from slot 40", undo(2))
	assert.Equal(t, "Test Call", trail()[40])
	assert.Equal(t, "change Ridge Two in slot 41", undo(2))
	assert.Equal(t, "store Ridge Two in slot 41", undo(2))
	assert.Equal(t, "store Test Call in slot 40", undo(2))
	assert.Len(t, trail(), 24)
	_, err = s.Undo(t.Context(), 1, Latest, Stamp{PersonID: 2, At: stamp.At}, false)
	require.ErrorIs(t, err, fault.ErrNothing)
	var broken []struct {
		Table string `db:"table"`
	}
	require.NoError(t, s.read.Unsafe().Select(&broken, "PRAGMA foreign_key_check"))
	assert.Empty(t, broken)
	require.NoError(t, s.Close())

	// The copy that was put aside is a backup: restored, all is as it was.
	_, err = Restore(t.Context(), folder, filepath.Join(folder, dataFile+".version-6"), "now")
	require.NoError(t, err)
	s = open(t, folder)
	assert.Len(t, trail(), 26)
	require.NoError(t, s.Close())
}
