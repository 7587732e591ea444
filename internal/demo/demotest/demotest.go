// Package demotest opens the demonstration for tests.
package demotest

import (
	"context"
	"io"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/find"
	"mnemos/core/listing"
	"mnemos/internal/demo"
	"mnemos/internal/house"
	"mnemos/internal/importing"
	"mnemos/internal/plan"
	"mnemos/internal/store"
	"mnemos/internal/who"
)

// Today is when the clock of a demonstration stands still.
var Today = time.Date(2026, 11, 25, 9, 42, 0, 0, time.UTC)

// The loads of the demonstration.
const (
	Trail   = 1
	Ferry   = 2
	Lantern = 3
)

// Rig is an application over a folder of its own.
type Rig struct {
	*house.House
	Store *store.Store
}

// Open fills a folder with the demonstration.
func Open(t *testing.T) *Rig {
	t.Helper()
	s, err := store.Open(t.Context(), t.TempDir())
	require.NoError(t, err)
	require.NoError(t, demo.Fill(t.Context(), s, Today))
	r := &Rig{house.New(s, func() time.Time { return Today }), s}
	t.Cleanup(func() { require.NoError(t, r.Store.Close()) })
	return r
}

// Again closes the folder and opens it anew, as a restart does.
func (r *Rig) Again(t *testing.T) {
	t.Helper()
	folder := r.Store.Folder()
	require.NoError(t, r.Store.Close())
	s, err := store.Open(t.Context(), folder)
	require.NoError(t, err)
	r.Store, r.House = s, house.New(s, func() time.Time { return Today })
}

// Ledger returns a load as it stands.
func (r *Rig) Ledger(t *testing.T, load int64) *plan.Ledger {
	t.Helper()
	l, err := r.Plans.Ledger(t.Context(), load)
	require.NoError(t, err)
	return l
}

// Person adds somebody, and returns the context of what they do.
func (r *Rig) Person(t *testing.T, name string) context.Context {
	t.Helper()
	var id int64
	require.NoError(t, r.Store.Edit(t.Context(), 0, store.Latest, store.Stamp{At: Today.Format(time.RFC3339), Label: "add " + name}, func(e *store.Edit) (err error) {
		if id, err = e.ID("person"); err != nil {
			return err
		}
		return e.Put(store.Person{ID: id, Name: name})
	}))
	return who.As(t.Context(), id)
}

// Bring takes a listing in under the region of the demonstration.
func (r *Rig) Bring(ctx context.Context, name string, content io.Reader) (*importing.Preview, error) {
	return r.Imports.Bring(ctx, name, content, band.MustLoad("us"))
}

// Mend reads a row again that could not be read.
func (r *Rig) Mend(ctx context.Context, source string, id int64, cells []string) (*listing.Record, error) {
	return r.Imports.MendReject(ctx, source, id, cells, band.MustLoad("us"))
}

// Find looks around from the plan of the demonstration, with its first radio.
func (r *Rig) Find(ctx context.Context, line string) (find.Result, error) {
	scene, err := r.Plans.Scene(ctx, 0, 0)
	if err != nil {
		return find.Result{}, err
	}
	return scene.Book.Search(line, &scene.Scene, 500), nil
}
