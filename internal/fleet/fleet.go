// Package fleet is the people and the radios that they hold: who has which
// licence, what each kind of radio can do, and which radios there are.
package fleet

import (
	"cmp"
	"context"
	"fmt"
	"sync"
	"time"

	"mnemos/core/radio"
	"mnemos/internal/fault"
	"mnemos/internal/store"
	"mnemos/internal/who"
)

// Fleet is that of one data file.
type Fleet struct {
	store  *store.Store
	now    func() time.Time
	mu     sync.Mutex
	parsed map[string]parsed // profiles that were made here, by ID
}

type parsed struct {
	yaml    string
	profile *radio.Profile
}

// New returns the fleet of a data file; now is the clock.
func New(s *store.Store, now func() time.Time) *Fleet {
	return &Fleet{store: s, now: now, parsed: map[string]parsed{}}
}

// Me returns the person who asks: the one that the request names, or else the
// first.
func (f *Fleet) Me(ctx context.Context) (store.Person, error) {
	people, err := f.store.People(ctx)
	if err != nil {
		return store.Person{}, err
	}
	id := who.Is(ctx)
	for _, p := range people {
		if p.ID == id || id == 0 {
			return p, nil
		}
	}
	if len(people) == 0 {
		return store.Person{}, fmt.Errorf("nobody is here yet, say who you are first: %w", fault.ErrNotFound)
	}
	return store.Person{}, fmt.Errorf("person %d: %w", id, fault.ErrNotFound)
}

// Stamp is that of a change which the person makes now.
func (f *Fleet) Stamp(ctx context.Context, label string) (store.Stamp, error) {
	me, err := f.Me(ctx)
	return store.Stamp{PersonID: me.ID, At: f.now().UTC().Format(time.RFC3339), Label: label, Request: store.Request(who.Asked(ctx))}, err
}

// People returns everybody.
func (f *Fleet) People(ctx context.Context) ([]store.Person, error) { return f.store.People(ctx) }

// Unit is a radio with what it can do.
type Unit struct {
	store.Unit
	Radio *radio.Profile
}

// Title is what the radio is called.
func (u Unit) Title() string { return cmp.Or(u.Name, u.Radio.Name) }

// Unit returns a radio.
func (f *Fleet) Unit(ctx context.Context, id int64) (Unit, error) {
	u, err := f.store.Unit(ctx, id)
	if err != nil {
		return Unit{}, err
	}
	p, err := f.Profile(ctx, u.Profile)
	return Unit{u, p}, err
}

// Licence is whose licence counts for what a radio transmits: its holder's, or
// else that of the person who looks.
func (f *Fleet) Licence(ctx context.Context, u Unit) (store.Person, error) {
	if u.Holder != nil {
		return f.Me(who.As(ctx, *u.Holder))
	}
	return f.Me(ctx)
}

// Person is somebody who works with the plans.
type Person = store.Person
