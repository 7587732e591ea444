package store

import (
	"context"
	"database/sql"
	"database/sql/driver"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"sync/atomic"
	"syscall"

	"mnemos/internal/fault"

	"github.com/jmoiron/sqlx"
	"modernc.org/sqlite"
	sqlite3 "modernc.org/sqlite/lib"
)

// file is the data file that is open.
type file struct {
	path string
	info atomic.Pointer[os.FileInfo] // as it was opened; nil before
}

// dsn names the file for SQLite, whose names of files are those of URIs.
func dsn(path, more string) string {
	escaped := strings.NewReplacer("%", "%25", "?", "%3f", "#", "%23").Replace(filepath.ToSlash(path))
	return fmt.Sprintf("file:%s%s&_pragma=busy_timeout(%d)%s", escaped, pragmas, Waiting.Milliseconds(), more)
}

// opened notes which file is open.
func (f *file) opened() error {
	info, err := os.Stat(f.path)
	if err != nil {
		return fmt.Errorf("open %s: %w", f.path, err)
	}
	f.info.Store(&info)
	return nil
}

// there reports whether the file that is open is still the one of its name,
// and its log of the last changes with it.
func (f *file) there() bool {
	info := f.info.Load()
	if info == nil {
		return true // it is being opened
	}
	now, err := os.Stat(f.path)
	if err != nil || !os.SameFile(now, *info) {
		return false
	}
	_, err = os.Stat(f.path + "-wal")
	return err == nil
}

// connect opens the file with connections that commit nothing once it is gone.
func (f *file) connect(more string) *sqlx.DB {
	d := &sqlite.Driver{}
	d.RegisterConnectionHook(func(conn sqlite.ExecQuerierContext, _ string) error {
		hooks, ok := conn.(sqlite.HookRegisterer)
		if !ok {
			return fmt.Errorf("a connection of type %T has no hooks", conn)
		}
		hooks.RegisterCommitHook(func() int32 {
			if f.there() {
				return 0
			}
			return 1 // roll back
		})
		return nil
	})
	return sqlx.NewDb(sql.OpenDB(connector{d, dsn(f.path, more)}), "sqlite")
}

type connector struct {
	driver *sqlite.Driver
	dsn    string
}

func (c connector) Connect(context.Context) (driver.Conn, error) { return c.driver.Open(c.dsn) }
func (c connector) Driver() driver.Driver                        { return c.driver }

// Room bounds the file to so many pages more than it has: a disk that is full, for
// tests. Fewer than none takes the bound away.
func (s *Store) Room(ctx context.Context, pages int) error {
	most := "4294967294"
	if pages >= 0 {
		var n int
		if err := s.write.GetContext(ctx, &n, "PRAGMA page_count"); err != nil {
			return err
		}
		most = fmt.Sprint(n + pages)
	}
	_, err := s.write.ExecContext(ctx, "PRAGMA max_page_count = "+most)
	return err
}

// breach is how a change does not fit what is there.
type breach int

const (
	none    breach = iota
	foreign        // it refers to a row that is gone
	twice          // it repeats what only one may be
)

func broken(err error) breach {
	var e *sqlite.Error
	if !errors.As(err, &e) {
		return none
	}
	switch e.Code() {
	case sqlite3.SQLITE_CONSTRAINT_FOREIGNKEY:
		return foreign
	case sqlite3.SQLITE_CONSTRAINT_UNIQUE, sqlite3.SQLITE_CONSTRAINT_PRIMARYKEY:
		return twice
	}
	return none
}

// Trouble says what an error of the file itself means: fault.ErrGone, fault.ErrFull, or nil
// for every other.
func Trouble(err error) error {
	var e *sqlite.Error
	switch {
	case errors.As(err, &e):
	case errors.Is(err, fault.ErrFull), errors.Is(err, syscall.ENOSPC), errors.Is(err, syscall.EDQUOT), errors.Is(err, syscall.EROFS):
		return fault.ErrFull
	case errors.Is(err, fault.ErrGone):
		return fault.ErrGone
	default:
		return nil
	}
	switch code := e.Code(); {
	case code == sqlite3.SQLITE_CONSTRAINT_COMMITHOOK, code == sqlite3.SQLITE_READONLY_DBMOVED, code&0xff == sqlite3.SQLITE_CANTOPEN:
		return fault.ErrGone
	case code&0xff == sqlite3.SQLITE_BUSY, code&0xff == sqlite3.SQLITE_LOCKED:
		return fault.ErrBusy
	case code&0xff == sqlite3.SQLITE_FULL, code == sqlite3.SQLITE_IOERR_WRITE, code == sqlite3.SQLITE_IOERR_SHMSIZE:
		return fault.ErrFull
	}
	return nil
}
