// Package app is what a person can do with Mnemos, one file per kind of
// thing: read a line, store it, change it, take that back, look at the
// evidence, print a keypad sheet. It joins the core, which knows no database,
// to the store, which knows no rule.
package app

import (
	"context"
	"errors"
	"time"

	"mnemos/core/band"
	"mnemos/core/check"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/radio"
	"mnemos/internal/catalog"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// App is the application over one data file.
type App struct {
	store   *store.Store
	now     func() time.Time
	imports *imports
	catalog *catalog.Catalog
	memo    check.Memo // what the listings say about the channels of the plans
}

// New returns the application; now is the clock.
func New(s *store.Store, now func() time.Time) *App {
	x := &imports{jobs: map[string]*job{}, turn: make(chan struct{}, 1)}
	x.turn <- struct{}{}
	return &App{store: s, now: now, imports: x, catalog: catalog.New(s)}
}

// Ready waits until what is published is in memory, if it is being read.
func (a *App) Ready() { a.catalog.Ready() }

// desk is a load with everything that is needed to judge its channels.
type desk struct {
	operator store.Operator
	plan     store.Plan
	load     store.Load
	radio    *radio.Profile
	band     *band.Plan
	entries  []store.Entry
	settings check.Settings
	held     *check.Occupancy // made by occupancy
	listings listing.Source
	edition  check.Edition // of the listings
}

func (a *App) desk(ctx context.Context, loadID int64) (*desk, error) {
	d := &desk{}
	var err error
	if d.load, err = a.store.Load(ctx, loadID); err != nil {
		return nil, err
	}
	if d.plan, err = a.store.Plan(ctx, d.load.PlanID); err != nil {
		return nil, err
	}
	if d.operator, err = a.store.Operator(ctx); err != nil {
		return nil, err
	}
	if d.radio, err = a.profile(ctx, d.load.Radio); err != nil {
		return nil, err
	}
	if d.band, err = band.Load(d.operator.Region); err != nil {
		return nil, err
	}
	if d.entries, err = a.store.Entries(ctx, loadID); err != nil {
		return nil, err
	}
	d.settings = settings(d.operator, a.now())
	d.listings, d.edition, err = a.catalog.Source(ctx)
	return d, err
}

func settings(o store.Operator, today time.Time) check.Settings {
	s := check.Defaults(today)
	s.RadiusKM, s.Height = o.Radius, o.Height
	s.TonePolicy, s.Services, s.Bands = check.TonePolicy(o.TonePolicy), o.Services, o.Bands
	if o.Lat != nil && o.Lon != nil {
		s.Place = &geo.Point{Lat: *o.Lat, Lon: *o.Lon}
	}
	return s
}

// at returns the entry in a slot.
func (d *desk) at(slot int) (store.Entry, bool) {
	for _, e := range d.entries {
		if e.Slot == slot {
			return e, true
		}
	}
	return store.Entry{}, false
}

// occupancy returns the channels of the load, arranged for the rules.
func (d *desk) occupancy() *check.Occupancy {
	if d.held == nil {
		channels := make([]check.Other, len(d.entries))
		for i, e := range d.entries {
			channels[i] = check.Other{Slot: e.Slot, Channel: e.Channel}
		}
		d.held = check.NewOccupancy(channels)
	}
	return d.held
}

// vacant returns the next vacant slot at or after one, or false if the radio
// is full.
func (d *desk) vacant(from int) (int, bool) {
	for n := from; n <= d.radio.Slots.Last; n++ {
		if _, taken := d.at(n); !taken {
			return n, true
		}
	}
	for n := d.radio.Slots.First; n < from; n++ {
		if _, taken := d.at(n); !taken {
			return n, true
		}
	}
	return 0, false
}

// shortTaken reports whether a short name is used in another slot.
func (d *desk) shortTaken(except int) func(string) bool {
	used := map[string]bool{}
	for _, e := range d.entries {
		if e.Slot != except {
			used[e.ShortName] = true
		}
	}
	return func(s string) bool { return used[s] }
}

// change carries out an edit of the load's plan and returns the ledger after
// it; a stale revision comes back as Stale with the ledger as it stands.
func (a *App) change(ctx context.Context, d *desk, revision int64, label string, f func(*store.Edit) error) (*Ledger, error) {
	err := a.store.Edit(ctx, d.plan.ID, revision, a.stamp(d.operator, label), f)
	return a.after(ctx, d.load.ID, err)
}

func (a *App) stamp(o store.Operator, label string) store.Stamp {
	return store.Stamp{Person: o.Person, At: a.now().UTC().Format(time.RFC3339), Label: label}
}

func (a *App) after(ctx context.Context, loadID int64, err error) (*Ledger, error) {
	var stale *fault.Stale
	if err != nil && !errors.As(err, &stale) {
		return nil, err
	}
	// Undo may have taken the radio out of the plan.
	loadID, lerr := a.orFirst(ctx, loadID)
	if lerr != nil {
		return nil, lerr
	}
	ledger, lerr := a.Ledger(ctx, loadID)
	if lerr != nil {
		return nil, lerr
	}
	if stale != nil {
		return nil, &fault.Stale{Now: ledger, Why: stale.Why}
	}
	return ledger, nil
}

// Trouble says what an error of the data file means: fault.ErrGone, fault.ErrFull, or
// nil for every other.
func Trouble(err error) error { return store.Trouble(err) }
