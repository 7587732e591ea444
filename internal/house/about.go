package house

import (
	"context"
	"fmt"
	"io"
	"os"
	"path/filepath"

	"mnemos/internal/store"
)

// Folder is where the data are.
func (h *House) Folder() string { return h.store.Folder() }

// copied is a backup that is removed when it was read.
type copied struct {
	*os.File
	folder string
}

func (c copied) Close() error {
	err := c.File.Close()
	if rerr := os.RemoveAll(c.folder); err == nil {
		err = rerr
	}
	return err
}

// Backup returns a copy of everything as it stands, and how many bytes it has.
// Whoever reads it closes it.
func (h *House) Backup(ctx context.Context) (io.ReadCloser, int64, error) {
	folder, err := os.MkdirTemp("", "mnemos-backup-")
	if err != nil {
		return nil, 0, fmt.Errorf("back up: %w", err)
	}
	path := filepath.Join(folder, "backup.db")
	if err := store.BackUp(ctx, h.store.Folder(), path); err != nil {
		_ = os.RemoveAll(folder) // the copy failed, which is said
		return nil, 0, err
	}
	f, err := os.Open(path)
	if err != nil {
		_ = os.RemoveAll(folder)
		return nil, 0, fmt.Errorf("back up: %w", err)
	}
	info, err := f.Stat()
	if err != nil {
		_ = copied{f, folder}.Close()
		return nil, 0, fmt.Errorf("back up: %w", err)
	}
	return copied{f, folder}, info.Size(), nil
}

// Source says where a kind of fact comes from, and how sure it is.
type Source struct{ What, Source, Sure string }

// Sources are the facts that the application brings along. What a band plan, a
// service or a listing says stands with it.
var Sources = []Source{
	{"tones", "TIA-603, and common practice for the tones and codes that it does not list", "the values are standard; which ones a radio has is its profile's word"},
	{"distances and directions", "geodesics on WGS-84 (Karney 2013)", "to a metre; a published position is often that of the town"},
	{"radio horizon", "ITU-R P.310, effective earth radius 4/3", "over a smooth earth: hills shorten and lengthen it"},
	{"coasts", "Natural Earth, 1 : 50 million, public domain", "to some kilometres: for orientation, not for navigation"},
	{"radio profiles", "invented and generic", "yours is as good as what you checked on the radio"},
	{"rules of thumb", "common practice, no source", "each says so where it is used"},
}
