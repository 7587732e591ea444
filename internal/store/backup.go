package store

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"

	"github.com/jmoiron/sqlx"
)

const dataFile = "mnemos.db"

// BackUp writes a copy of the data in a folder to a file, also while a process
// serves them. Copying the data file itself would leave out what is still in
// its log. A file that exists is not replaced.
func BackUp(ctx context.Context, folder, to string) error {
	from := filepath.Join(folder, dataFile)
	if _, err := os.Stat(from); err != nil {
		return fmt.Errorf("%s holds no data: say where they are with --data", folder)
	}
	if _, err := os.Lstat(to); !errors.Is(err, os.ErrNotExist) {
		return fmt.Errorf("%s is there already: choose another name", to)
	}
	db := sqlx.MustOpen("sqlite", dsn(from, "&mode=ro"))
	err := copyAside(ctx, db, to)
	if err = errors.Join(err, db.Close()); err != nil {
		return err
	}
	aside, err := os.MkdirTemp(filepath.Dir(to), "check-")
	if err != nil {
		return fmt.Errorf("check the backup: %w", err)
	}
	_, err = passed(ctx, to, aside)
	return errors.Join(err, os.RemoveAll(aside))
}

// Restore makes a backup the data of a folder. What was there before is kept
// beside it, under the name that is returned; it is empty where there was none.
// The backup is copied aside, looked at there, and brought to this version; until
// it has passed, nothing in the folder is touched.
func Restore(ctx context.Context, folder, from, at string) (kept string, err error) {
	path := filepath.Join(folder, dataFile)
	if err := regular(from, path); err != nil {
		return "", err
	}
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return "", fmt.Errorf("make data folder: %w", err)
	}
	lock, err := own(folder)
	if err != nil {
		return "", err
	}
	defer func() { err = errors.Join(err, lock.Close()) }()
	aside, err := os.MkdirTemp(folder, "restore-")
	if err != nil {
		return "", fmt.Errorf("restore %s: %w", from, err)
	}
	defer func() { err = errors.Join(err, os.RemoveAll(aside)) }()
	whole, err := passed(ctx, from, aside)
	if err != nil {
		return "", err
	}
	kept = path + ".before-" + at
	for _, end := range []string{"", "-wal", "-shm"} {
		err := os.Rename(path+end, kept+end)
		if errors.Is(err, os.ErrNotExist) && end == "" {
			kept = ""
			break
		}
		if err != nil && !errors.Is(err, os.ErrNotExist) {
			return "", fmt.Errorf("keep what was there: %w", err)
		}
	}
	if kept == "" { // a log without its data is of nothing
		err = errors.Join(gone(path+"-wal"), gone(path+"-shm"))
	}
	err = errors.Join(err, gone(filepath.Join(folder, ownerFile)), os.Rename(whole, path))
	if err != nil {
		return kept, fmt.Errorf("restore %s: %w", from, err)
	}
	return kept, nil
}

func gone(path string) error {
	if err := os.Remove(path); err != nil && !errors.Is(err, os.ErrNotExist) {
		return err
	}
	return nil
}

// known refuses data that a newer Mnemos wrote: it may mean what this one does
// not know.
func known(path string, current, target int64) error {
	if current > target {
		return fmt.Errorf("%s is of a newer Mnemos (its version is %d, this one knows %d): use that one, or restore a backup of an older one", path, current, target)
	}
	return nil
}

func copyFile(from, to string) (err error) {
	in, err := os.Open(from)
	if err != nil {
		return fmt.Errorf("read backup: %w", err)
	}
	defer func() { err = errors.Join(err, in.Close()) }()
	out, err := os.OpenFile(to, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return fmt.Errorf("restore %s: %w", from, err)
	}
	_, err = io.Copy(out, in)
	return errors.Join(err, out.Sync(), out.Close())
}
