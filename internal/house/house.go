// Package house puts the parts of the application together over one data file.
package house

import (
	"context"
	"time"

	"mnemos/internal/beaconing"
	"mnemos/internal/catalog"
	"mnemos/internal/demo"
	"mnemos/internal/fleet"
	"mnemos/internal/importing"
	"mnemos/internal/listen"
	"mnemos/internal/live"
	"mnemos/internal/logbook"
	"mnemos/internal/plan"
	"mnemos/internal/print"
	"mnemos/internal/relaying"
	"mnemos/internal/store"
)

// House is the application: its parts, each for one kind of thing.
type House struct {
	Hub     *live.Hub
	Fleet   *fleet.Fleet
	Catalog *catalog.Catalog
	Imports *importing.Imports
	Plans   *plan.Plans
	Sheets  *print.Sheets
	Scans   *listen.Listening
	Log     *logbook.Logbook
	Relays  *relaying.Relaying
	Beacons *beaconing.Beaconing

	store *store.Store
	now   func() time.Time
}

// New returns the application over a data file; now is the clock.
func New(s *store.Store, now func() time.Time) *House {
	h := &House{Hub: live.New(), Fleet: fleet.New(s, now), store: s, now: now}
	h.Catalog = catalog.New(s, h.Fleet, h.Hub)
	h.Imports = importing.New(s, h.Fleet, now, h.Hub)
	h.Plans = plan.New(s, h.Fleet, h.Catalog, now)
	h.Sheets = print.New(h.Plans)
	h.Scans = listen.New(s, h.Fleet, h.Plans, now)
	h.Log = logbook.New(s, h.Fleet, h.Plans, now)
	h.Relays = relaying.New(s, h.Fleet, h.Plans, now)
	h.Beacons = beaconing.New(s, h.Fleet, h.Plans, now)
	s.Listen(func(c store.Changeset) { h.Hub.Publish("change", c) })
	return h
}

// OpenDemo opens the demonstration as a plan beside the others, and makes it
// first where it is not there.
func (h *House) OpenDemo(ctx context.Context) (*plan.Workspace, error) {
	id, err := h.Plans.Demo(ctx)
	if err != nil {
		return nil, err
	}
	if id == 0 {
		if id, err = demo.Add(ctx, h.store, h.now()); err != nil {
			return nil, err
		}
	}
	return h.Plans.Workspace(ctx, id)
}

// Head is the number of the last change of anything.
func (h *House) Head(ctx context.Context) (int64, error) { return h.store.Head(ctx) }

// Done reports whether the change that was asked for under a key took place.
func (h *House) Done(ctx context.Context, key string) (bool, error) { return h.store.Done(ctx, key) }

// Trouble says what an error of the data file means: fault.ErrGone,
// fault.ErrFull, or nil for every other.
func Trouble(err error) error { return store.Trouble(err) }

// Changeset is what the hub is told of a change, and RowChange one row of it.
type (
	Changeset = store.Changeset
	RowChange = store.RowChange
)
