package plan

import (
	"context"

	"mnemos/core/band"
	"mnemos/internal/fleet"
	"mnemos/internal/store"
)

// Workspace is what the application opens with.
type Workspace struct {
	Me        store.Person
	People    []store.Person
	Plan      store.Plan
	Plans     []store.Plan
	Loads     []LoadInfo
	Authority string // whose rules the region has
	Locator   string // of the plan's place; "" if unknown
	Loading   bool   // what is published is being read: what is asked takes longer
}

// LoadInfo names a load and describes its radio.
type LoadInfo struct {
	ID   int64
	Unit fleet.Unit
}

// Workspace returns a plan with its radios; with 0 the first plan.
func (p *Plans) Workspace(ctx context.Context, planID int64) (*Workspace, error) {
	plan, err := p.Plan(ctx, planID)
	if err != nil {
		return nil, err
	}
	rules, err := band.Load(plan.Region)
	if err != nil {
		return nil, err
	}
	w := &Workspace{Plan: plan, Authority: rules.Authority, Loading: p.catalog.Loading()}
	if s := settings(plan, store.Person{}, p.now()); s.Place != nil {
		w.Locator = s.Place.Locator()
	}
	if w.Me, err = p.fleet.Me(ctx); err != nil {
		return nil, err
	}
	if w.People, err = p.fleet.People(ctx); err != nil {
		return nil, err
	}
	if w.Plans, err = p.store.Plans(ctx); err != nil {
		return nil, err
	}
	w.Loads, err = p.equipped(ctx, plan.ID)
	return w, err
}
