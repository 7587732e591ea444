// Package plan is what people do with their plans: read a line, store it,
// change it, take that back, look at the evidence. Every change is a command with
// a label: one set of rows, each as it was seen, and one step that undo takes
// back.
package plan

import (
	"context"
	"errors"
	"fmt"
	"time"

	"mnemos/core/band"
	"mnemos/core/check"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/radio"
	"mnemos/internal/catalog"
	"mnemos/internal/fault"
	"mnemos/internal/fleet"
	"mnemos/internal/store"
)

// Plans are those of one data file.
type Plans struct {
	store   *store.Store
	fleet   *fleet.Fleet
	catalog *catalog.Catalog
	now     func() time.Time
	memo    check.Memo // what the listings say about the channels of the plans
	spoken  spoken     // what the channels are called on displays

	patience time.Duration // how long a large plan waits for what is published to be in memory
}

// New returns the plans of a data file; now is the clock.
func New(s *store.Store, f *fleet.Fleet, c *catalog.Catalog, now func() time.Time) *Plans {
	return &Plans{store: s, fleet: f, catalog: c, now: now, patience: 250 * time.Millisecond}
}

// desk is a load with everything that is needed to judge its channels.
type desk struct {
	seen       int64 // the last change of anything, before what is here was read
	me         store.Person
	plan       store.Plan
	load       store.Load
	unit       fleet.Unit
	radio      *radio.Profile
	band       *band.Plan
	entries    []store.Entry
	settings   check.Settings
	held       *check.Occupancy // made by occupancy
	numbers    map[int64]int    // that everybody uses, by channel; read by number
	standings  map[int64]store.Standing
	heard      map[int64]store.Attempt // what was answered on the air, by channel
	searched   map[int64][]store.Attempt
	proofs     map[int64][]store.Attempt // what proved the channels of this load
	leans      []store.Row               // what is decided by: the place, the radio, the licence
	listings   listing.Source
	generation check.Generation // of the listings
}

func (p *Plans) desk(ctx context.Context, loadID int64) (*desk, error) {
	d := &desk{}
	ctx, done, err := p.store.Moment(ctx) // its rows belong together
	if err != nil {
		return nil, err
	}
	defer done()
	if d.seen, err = p.store.Head(ctx); err != nil { // before what is seen
		return nil, err
	}
	if d.load, err = p.store.Load(ctx, loadID); err != nil {
		return nil, err
	}
	if d.plan, err = p.store.Plan(ctx, d.load.PlanID); err != nil {
		return nil, err
	}
	if d.unit, err = p.fleet.Unit(ctx, d.load.UnitID); err != nil {
		return nil, err
	}
	d.radio = d.unit.Radio
	if d.me, err = p.fleet.Me(ctx); err != nil {
		return nil, err
	}
	licence, err := p.fleet.Licence(ctx, d.unit)
	if err != nil {
		return nil, err
	}
	if d.leans, err = p.leans(ctx, d, licence); err != nil {
		return nil, err
	}
	if d.band, err = band.Load(d.plan.Region); err != nil {
		return nil, err
	}
	if d.entries, err = p.store.Entries(ctx, loadID); err != nil {
		return nil, err
	}
	standings, err := p.store.Standings(ctx, d.plan.ID)
	if err != nil {
		return nil, err
	}
	d.standings = standings[loadID]
	if d.heard, err = p.store.LastHeard(ctx, d.plan.ID); err != nil {
		return nil, err
	}
	if d.searched, err = p.store.Searched(ctx, d.plan.ID); err != nil {
		return nil, err
	}
	if d.proofs, err = p.store.Proofs(ctx, loadID); err != nil {
		return nil, err
	}
	d.settings = settings(d.plan, licence, p.now())
	d.listings, d.generation, err = p.catalog.Source(ctx, d.plan.ID)
	return d, err
}

// leans are the rows beside the channels that a command is decided by.
func (p *Plans) leans(ctx context.Context, d *desk, licence store.Person) ([]store.Row, error) {
	rows := []store.Row{d.plan, d.unit.Unit, licence}
	profile, err := p.store.Profile(ctx, d.unit.Profile)
	switch {
	case errors.Is(err, fault.ErrNotFound): // it is built in
	case err != nil:
		return nil, err
	default:
		rows = append(rows, profile)
	}
	return rows, nil
}

// settings are the circumstances of a plan, under a person's licence.
func settings(p store.Plan, licence store.Person, today time.Time) check.Settings {
	s := check.Defaults(today)
	s.RadiusKM, s.Height = p.Radius, p.Height
	s.TonePolicy, s.Services, s.Bands = check.TonePolicy(p.TonePolicy), licence.Services, licence.Bands
	s.Unlicensed = licence.Unlicensed
	if p.Lat != nil && p.Lon != nil {
		s.Place = &geo.Point{Lat: *p.Lat, Lon: *p.Lon}
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

// change carries out a command on the load's plan and returns the ledger after
// it; where a row is no longer as it was seen, Stale comes back with the ledger as
// it stands.
func (p *Plans) change(ctx context.Context, d *desk, seen int64, label string, f func(*store.Edit) error) (*Ledger, error) {
	stamp, err := p.fleet.Stamp(ctx, label)
	if err != nil {
		return nil, err
	}
	return p.after(ctx, d.load, p.store.Edit(ctx, d.plan.ID, min(seen, d.seen), stamp, func(e *store.Edit) error {
		if err := e.Lean(d.leans...); err != nil {
			return err
		}
		return f(e)
	}))
}

func (p *Plans) after(ctx context.Context, l store.Load, err error) (*Ledger, error) {
	var stale *fault.Stale
	if err != nil && !errors.As(err, &stale) {
		return nil, err
	}
	// Undo may have taken the radio out of the plan.
	loadID, lerr := p.orFirst(ctx, l)
	if lerr != nil {
		return nil, lerr
	}
	ledger, lerr := p.Ledger(ctx, loadID)
	if lerr != nil {
		return nil, lerr
	}
	if stale != nil {
		stale.Now = ledger
		return nil, stale
	}
	return ledger, nil
}

// Plan returns a plan, or with 0 the first one that is not archived.
func (p *Plans) Plan(ctx context.Context, id int64) (store.Plan, error) {
	if id != 0 {
		return p.store.Plan(ctx, id)
	}
	plans, err := p.store.Plans(ctx)
	if err != nil {
		return store.Plan{}, err
	}
	for _, archived := range []bool{false, true} {
		for _, x := range plans {
			if x.Archived == archived {
				return x, nil
			}
		}
	}
	return store.Plan{}, fmt.Errorf("a plan: %w", fault.ErrNotFound)
}

// Band returns the band plan of a plan's region.
func (p *Plans) Band(ctx context.Context, id int64) (*band.Plan, error) {
	x, err := p.Plan(ctx, id)
	if err != nil {
		return nil, err
	}
	return band.Load(x.Region)
}

// Published returns what is published on the outputs of a range, within the radius of a
// plan.
func (p *Plans) Published(ctx context.Context, id int64, outputs band.Span) ([]listing.Record, error) {
	x, err := p.Plan(ctx, id)
	if err != nil {
		return nil, err
	}
	source, _, err := p.catalog.Source(ctx, x.ID)
	if err != nil {
		return nil, err
	}
	var box *geo.Box
	if x.Lat != nil && x.Lon != nil {
		b := geo.Around(geo.Point{Lat: *x.Lat, Lon: *x.Lon}, x.Radius)
		box = &b
	}
	return source.ByOutput(ctx, outputs, box)
}

// at is the time now, as changes are stamped with it.
func (p *Plans) at() string { return p.now().UTC().Format(time.RFC3339) }

// Latest is the revision of somebody who means whatever there is.
const Latest = store.Latest

// Plan is a channel plan.
type Plan = store.Plan
