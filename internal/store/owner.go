package store

import (
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"syscall"

	"github.com/gofrs/flock"
)

// Owner is the process that has a data folder: one at a time, because each
// takes for abandoned what it does not know of.
type Owner struct {
	Process int    `json:"process"`
	Address string `json:"address,omitempty"` // where it serves, if it does
	Token   string `json:"token,omitempty"`   // by which it knows that this folder is meant
	Open    bool   `json:"open,omitempty"`    // the data file is open, and its log is there
}

// Busy is returned where another process has the folder.
type Busy struct {
	Folder string
	Owner  Owner // zero where it did not say
}

func (b *Busy) Error() string {
	switch {
	case b.Owner.Address != "":
		return fmt.Sprintf("%s is in use by Mnemos at http://%s/ (process %d): use that one, or stop it first", b.Folder, b.Owner.Address, b.Owner.Process)
	case b.Owner.Process != 0:
		return fmt.Sprintf("%s is in use by another Mnemos (process %d): wait until it is done", b.Folder, b.Owner.Process)
	}
	return b.Folder + " is in use by another Mnemos: wait until it is done"
}

const (
	lockFile  = "mnemos.lock"
	ownerFile = "owner.json"
)

// own takes the folder, or says who has it. The lock goes with the process,
// however that ends.
func own(folder string) (*flock.Flock, error) {
	lock := flock.New(filepath.Join(folder, lockFile))
	ok, err := lock.TryLock()
	if err != nil {
		return nil, fmt.Errorf("lock %s: %w", folder, err)
	}
	if !ok {
		return nil, errors.Join(&Busy{Folder: folder, Owner: ownerOf(folder)}, lock.Close())
	}
	return lock, nil
}

func ownerOf(folder string) Owner {
	var o Owner
	b, err := os.ReadFile(filepath.Join(folder, ownerFile))
	if err != nil || json.Unmarshal(b, &o) != nil {
		return Owner{} // it has not said yet
	}
	return o
}

func say(folder string, o Owner) error {
	b, err := json.Marshal(o)
	if err != nil {
		return err
	}
	part := filepath.Join(folder, ownerFile+".part")
	if err := os.WriteFile(part, b, 0o600); err != nil {
		return fmt.Errorf("say who has %s: %w", folder, err)
	}
	return os.Rename(part, filepath.Join(folder, ownerFile))
}

// ServesAt lets others know where the owner of the folder serves. Who speaks to that
// address says the token, so that another Mnemos that serves there by then does
// not act on its own folder.
func (s *Store) ServesAt(address, token string) error {
	return say(s.folder, Owner{Process: os.Getpid(), Address: address, Token: token, Open: true})
}

// mark is what the lock file holds once the folder has held data: without it a
// folder whose data file is missing is a new one.
const mark = "this folder holds the data of Mnemos\n"

// held marks the folder as one that holds data, and says that they are open.
func held(folder string) error {
	lock := filepath.Join(folder, lockFile)
	if b, err := os.ReadFile(lock); err == nil && string(b) != mark {
		if err := os.WriteFile(lock, []byte(mark), 0o600); err != nil {
			return fmt.Errorf("mark %s: %w", folder, err)
		}
	}
	// A full disk must not keep anybody from reading what is on it.
	if err := say(folder, Owner{Process: os.Getpid(), Open: true}); !errors.Is(err, syscall.ENOSPC) {
		return err
	}
	return nil
}

// lost reports data that were here and are missing: nothing is filled in for
// them, and a file without its last changes is not taken for the whole.
func (f *file) lost(folder string) error {
	info, err := os.Stat(f.path)
	if err != nil && !errors.Is(err, os.ErrNotExist) {
		return fmt.Errorf("open %s: %w", f.path, err)
	}
	lock := filepath.Join(folder, lockFile)
	if err != nil || info.Size() == 0 {
		if b, err := os.ReadFile(lock); err == nil && string(b) == mark {
			return fmt.Errorf("%s is missing or empty, and this folder held data: put it back, or restore a backup with mnemos restore (to begin anew, remove %s)", f.path, lock)
		}
		return nil
	}
	log := f.path + "-wal"
	if _, err := os.Stat(log); errors.Is(err, os.ErrNotExist) && ownerOf(folder).Open {
		return fmt.Errorf("%s is missing, and with it the last changes before Mnemos was ended: put it back, or restore a backup with mnemos restore (to go on without them, remove %s)", log, filepath.Join(folder, ownerFile))
	}
	return nil
}
