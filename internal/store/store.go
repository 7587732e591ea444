// Package store keeps everything in one SQLite file. Plans change only
// through Edit, which journals the rows before and after; published records
// are written in editions that become visible all at once.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"sync"
	"sync/atomic"

	"mnemos/core/limit"
	"mnemos/internal/fault"

	"github.com/gofrs/flock"
	"github.com/jmoiron/sqlx"
	_ "modernc.org/sqlite" // the driver
)

//go:embed migrations/*.sql
var migrations embed.FS

// Store is an open data file.
type Store struct {
	folder string
	alone  bool // nobody works with it while an edition is written

	read    reader   // many connections
	moments *sqlx.DB // many others, for what is read as it stood at one time
	write   *sqlx.DB // one connection, so that writers queue instead of failing

	generation atomic.Int64 // of what is published
	changed    atomic.Int64 // how often its records changed
	said       lately
	woken      func()
	life       context.Context
	die        context.CancelFunc

	long    sync.Mutex // held for a transaction of long work
	pending sync.Map   // the IDs of editions that are being written
	lock    *flock.Flock
	sweeper sweeper
}

const pragmas = "?_pragma=journal_mode(WAL)&_pragma=foreign_keys(1)&_pragma=synchronous(FULL)&_txlock=immediate"

// Waiting is how long another process that writes the file is waited for. It is
// read when a file is opened.
var Waiting = limit.Waiting

// Open opens the data file in a folder, making both if they are not there. A
// file of an older version is copied aside before it is migrated.
func Open(ctx context.Context, folder string) (*Store, error) {
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return nil, fmt.Errorf("make data folder: %w", err)
	}
	lock, err := own(folder)
	if err != nil {
		return nil, err
	}
	s, err := openFile(ctx, folder)
	if err != nil {
		return nil, errors.Join(err, lock.Close())
	}
	s.lock = lock
	return s, nil
}

func openFile(ctx context.Context, folder string) (*Store, error) {
	path := filepath.Join(folder, dataFile)
	// An import touches pages all over the indexes: with room for them it does
	// not write each one many times, nor copy each one often from the log.
	f := &file{path: path}
	if err := f.lost(folder); err != nil {
		return nil, err
	}
	if err := owners(path); err != nil {
		return nil, fmt.Errorf("open %s: %w", path, err)
	}
	write := f.connect("&_pragma=cache_size(-48000)&_pragma=wal_autocheckpoint(4000)")
	write.SetMaxOpenConns(1)
	if err := migrate(ctx, write, path); err != nil {
		return nil, errors.Join(err, write.Close())
	}
	read, moments := f.connect("&mode=ro"), f.connect("&mode=ro")
	read.SetMaxOpenConns(4)
	moments.SetMaxOpenConns(4)
	s := &Store{folder: folder, read: reader{read}, moments: moments, write: write}
	s.life, s.die = context.WithCancel(context.WithoutCancel(ctx))
	if err := errors.Join(f.opened(), held(folder)); err != nil {
		return nil, errors.Join(err, s.Close())
	}
	if err := os.RemoveAll(filepath.Join(folder, Incoming)); err != nil {
		return nil, errors.Join(err, s.Close())
	}
	s.sweeper.start(s.sweep)
	s.Sweep()
	return s, nil
}

// Generation is a number that is another one whenever what is published, or
// what people say about it, may have changed. Read it before what it counts.
func (s *Store) Generation() int64 { return s.generation.Load() }

// RecordsGeneration is the same for the records alone.
func (s *Store) RecordsGeneration() int64 { return s.changed.Load() }

// Life ends when the file is closed.
func (s *Store) Life() context.Context { return s.life }

// Alone says that nobody works with the file while an edition is written into
// it: reading and writing then go on at once.
func (s *Store) Alone() { s.alone = true }

// Incoming is the folder beside the data file in which files wait to be
// read. What is in it at the start belongs to nobody any more.
const Incoming = "incoming"

// Folder is where the data file is.
func (s *Store) Folder() string { return s.folder }

// Close closes the file.
func (s *Store) Close() error {
	s.sweeper.stop()
	s.die()
	var err error
	if s.lock != nil { // first: without its owner nobody misses the log, which goes with the last connection
		if gone := os.Remove(filepath.Join(s.folder, ownerFile)); !errors.Is(gone, os.ErrNotExist) {
			err = gone
		}
	}
	err = errors.Join(err, s.moments.Close(), s.read.Close(), s.write.Close())
	if s.lock != nil {
		err = errors.Join(err, s.lock.Close())
	}
	return err
}

func migrate(ctx context.Context, db *sqlx.DB, path string) error {
	provider, err := steps(db.DB)
	if err != nil {
		return err
	}
	current, target, err := provider.GetVersions(ctx)
	if err != nil {
		return fmt.Errorf("read version of %s: %w", path, err)
	}
	if err := known(path, current, target); err != nil {
		return err
	}
	if current > 0 && current < target {
		if err := copyAside(ctx, db, fmt.Sprintf("%s.version-%d", path, current)); err != nil {
			return fmt.Errorf("before migrating: %w", err)
		}
	}
	if _, err := provider.Up(ctx); err != nil {
		return fmt.Errorf("migrate %s: %w", path, err)
	}
	return nil
}

// copyAside copies a database to a file. It is written under another name
// first, so that a copy which was cut off is none.
func copyAside(ctx context.Context, db *sqlx.DB, path string) error {
	part := path + ".part"
	if err := errors.Join(gone(part), private(part)); err != nil {
		return fmt.Errorf("back up to %s: %w", path, err)
	}
	if _, err := db.ExecContext(ctx, "VACUUM INTO ?", part); err != nil {
		return fmt.Errorf("back up to %s: %w", path, errors.Join(err, gone(part)))
	}
	if err := os.Rename(part, path); err != nil {
		return fmt.Errorf("back up to %s: %w", path, err)
	}
	return nil
}

// Clear empties the file. It is for a file whose first filling was cut off.
func (s *Store) Clear(ctx context.Context) error {
	defer s.publishes()
	tx, err := s.write.BeginTxx(ctx, nil)
	if err != nil {
		return fmt.Errorf("clear: %w", err)
	}
	defer func() { _ = tx.Rollback() }() // no effect after Commit
	for _, table := range []string{"journal", "request", "standing", "listening", "relay", "beacon", "listened", "heard", "attempt", "permission", "member", "channel_set", "snapshot", "team_slot", "entry", "channel", "load", "unit", "plan", "record", "reject", "edition", "outline", "mapping", "decision", "correction", "profile", "template", "mended", "person"} {
		if _, err := tx.ExecContext(ctx, "DELETE FROM "+table); err != nil {
			return fmt.Errorf("clear %s: %w", table, err)
		}
	}
	if err := tx.Commit(); err != nil {
		return fmt.Errorf("clear: %w", err)
	}
	return nil
}

// private makes an empty file that only its owner reads: SQLite keeps to the mode
// of a file that is there, also for its log.
func private(path string) error {
	f, err := os.OpenFile(path, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	return f.Close()
}

// owners has the files of the data belong to their owner alone.
func owners(path string) error {
	if err := private(path); err != nil && !errors.Is(err, os.ErrExist) {
		return err
	}
	for _, end := range []string{"", "-wal", "-shm"} {
		if err := os.Chmod(path+end, 0o600); err != nil && !errors.Is(err, os.ErrNotExist) {
			return err
		}
	}
	return gone(path + ".part") // of a copy that was cut off
}

func found(err error, what string) error {
	if errors.Is(err, sql.ErrNoRows) {
		return fmt.Errorf("%s: %w", what, fault.ErrNotFound)
	}
	if err != nil {
		return fmt.Errorf("read %s: %w", what, err)
	}
	return nil
}
