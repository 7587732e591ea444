// Package house puts the parts of the application together over one data file.
package house

import (
	"context"
	"sync"
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
	"mnemos/internal/who"
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
	demos sync.Mutex // held while the demonstration is looked for and made
}

// New returns the application over a data file; now is the clock.
func New(s *store.Store, now func() time.Time) *House {
	h := &House{Hub: live.New(journal{s}), Fleet: fleet.New(s, now), store: s, now: now}
	h.Catalog = catalog.New(s, h.Fleet, h.Hub)
	h.Imports = importing.New(s, h.Fleet, now, h.Hub)
	h.Plans = plan.New(s, h.Fleet, h.Catalog, now)
	h.Sheets = print.New(h.Plans)
	h.Scans = listen.New(s, h.Fleet, h.Plans, now)
	h.Log = logbook.New(s, h.Fleet, h.Plans, now)
	h.Relays = relaying.New(s, h.Fleet, h.Plans, now)
	h.Beacons = beaconing.New(s, h.Fleet, h.Plans, now)
	s.Woken(h.Hub.Wake)
	return h
}

// OpenDemo opens the demonstration as a plan beside the others, and makes it
// first where it is not there.
func (h *House) OpenDemo(ctx context.Context) (*plan.Workspace, error) {
	h.demos.Lock()
	defer h.demos.Unlock()
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

// journal is what the hub reads changes from.
type journal struct{ *store.Store }

func (j journal) After(ctx context.Context, number int64) ([]live.Committed, bool, error) {
	changes, ok, err := j.Told(ctx, number)
	out := make([]live.Committed, len(changes))
	for i, c := range changes {
		out[i] = live.Committed{Number: c.Event, Data: c}
	}
	return out, ok, err
}

// Done reports whether the change that was asked for under a key took place.
func (h *House) Done(ctx context.Context, r who.Request) (bool, error) {
	return h.store.Done(ctx, store.Request(r))
}

// Keep keeps the key of a request that was carried out and changed nothing.
func (h *House) Keep(ctx context.Context, r who.Request) error {
	return h.store.Keep(ctx, store.Request(r))
}

// Moment returns a context under which everything is read as it stands now, until
// done is called.
func (h *House) Moment(ctx context.Context) (_ context.Context, done func(), err error) {
	return h.store.Moment(ctx)
}

// Trouble says what an error of the data file means: fault.ErrGone,
// fault.ErrFull, or nil for every other.
func Trouble(err error) error { return store.Trouble(err) }

// Changeset is what the hub is told of a change, and RowChange one row of it.
type (
	Changeset = store.Changeset
	RowChange = store.RowChange
)
