// Package catalog is what is published, as checks go by it: the records of all
// listings that count, corrected by what people know better. It is kept in
// memory, as snapshots that never change: whoever judges holds one and sees
// nothing move, while an import goes on or a listing is replaced.
package catalog

import (
	"context"
	"errors"
	"sync"
	"sync/atomic"
	"time"

	"mnemos/core/band"
	"mnemos/core/check"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/internal/fault"
	"mnemos/internal/fleet"
	"mnemos/internal/live"
	"mnemos/internal/root"
	"mnemos/internal/store"
)

// Catalog hands out what is published. A source that it returns agrees with
// the data file at that moment; where the records in memory do not yet, it
// reads the file itself, which is slower and says the same.
type Catalog struct {
	store   *store.Store
	fleet   *fleet.Fleet
	hub     *live.Hub
	records atomic.Pointer[records]
	view    atomic.Pointer[view]

	books shelf

	mu    sync.Mutex
	built chan struct{} // closed when the records are read; nil while nobody reads them
}

// New returns the catalog of a data file. It reads the records when somebody
// asks for the first time.
func New(s *store.Store, f *fleet.Fleet, hub *live.Hub) *Catalog {
	return &Catalog{store: s, fleet: f, hub: hub}
}

// Prime begins to read the records before anybody asks.
func (c *Catalog) Prime() { c.refresh() }

// records are those of the listings that count.
type records struct {
	number int64 // of the records, as the store counts their changes
	*listing.Indexed
	channels []listing.Record // what is no repeater: it counts for nobody, and is found
}

// view is all of it as of one generation.
type view struct {
	source     published
	generation check.Generation
}

// Source returns what is published now for a plan, and the generation that it is of.
func (c *Catalog) Source(ctx context.Context, planID int64) (listing.Source, check.Generation, error) {
	s, e, err := c.whole(ctx)
	if hidden := s.confined.hidden(planID); len(hidden) > 0 {
		return filtered{s, hidden}, e, err
	}
	return s, e, err
}

// whole returns what is published for any plan.
func (c *Catalog) whole(ctx context.Context) (published, check.Generation, error) {
	ctx = store.Present(ctx) // it is kept for others
	generation, number := c.store.Generation(), c.store.RecordsGeneration()
	if v := c.view.Load(); v != nil && v.generation.Number == generation {
		return v.source, v.generation, nil
	}
	known, err := c.Corrections(ctx)
	if err != nil {
		return published{}, check.Generation{}, err
	}
	decisions, err := c.store.Decisions(ctx)
	if err != nil {
		return published{}, check.Generation{}, err
	}
	editions, err := c.store.Editions(ctx)
	if err != nil {
		return published{}, check.Generation{}, err
	}
	s := published{store: c.store, found: c.store, known: known, decisions: decisions, confined: confined{}}
	for _, e := range editions {
		if e.PlanID != 0 {
			s.confined[e.Source] = e.PlanID
		}
	}
	e := check.Generation{Number: generation, Changed: func(since int64) (check.Changed, bool) { return c.changed(since, generation) }}
	r := c.records.Load()
	if r == nil || r.number != number {
		c.refresh()
		return s, e, nil
	}
	s.found = r
	c.view.Store(&view{s, e})
	return s, e, nil
}

// changed returns where people say something else than they did in an earlier
// generation.
func (c *Catalog) changed(since, upTo int64) (out check.Changed, ok bool) {
	said, ok := c.store.Said(since, upTo)
	if !ok {
		return out, false
	}
	for _, x := range said {
		for _, id := range x.Of {
			r, err := c.store.Record(c.store.Life(), id.Source, id.Key)
			switch {
			case errors.Is(err, fault.ErrNotFound): // of a listing that is no longer there
			case err != nil:
				return out, false
			case x.Joined:
				out.Joined = append(out.Joined, r.Output)
			default:
				out.Outputs, out.Inputs = append(out.Outputs, r.Output), append(out.Inputs, r.Input)
			}
		}
	}
	return out, true
}

// Corrections returns what people know better than the statements.
func (c *Catalog) Corrections(ctx context.Context) (listing.Corrections, error) {
	rows, err := c.KeptCorrections(ctx)
	if err != nil {
		return nil, err
	}
	out := listing.Corrections{}
	for _, r := range rows {
		id := listing.ID{Source: r.Source, Key: r.Key}
		out[id] = append(out[id], listing.Correction{Of: id, Field: r.Field, Value: r.Value, Against: r.Against, Note: r.Note, Person: r.Person, At: r.At})
	}
	return out, nil
}

// refresh reads the records beside whatever goes on, unless it does already.
func (c *Catalog) refresh() {
	c.mu.Lock()
	defer c.mu.Unlock()
	if c.built != nil {
		return
	}
	c.built = make(chan struct{})
	c.hub.Publish("catalog", "", true) // it is being read
	root.Go("read the published records", c.build, func(error) { c.rest() })
}

// rest is when nobody reads the records any more.
func (c *Catalog) rest() {
	defer c.hub.Publish("catalog", "", false) // last
	c.mu.Lock()
	defer c.mu.Unlock()
	close(c.built)
	c.built = nil
}

// build reads the records until they are the present ones. Where they cannot
// be read, whoever asks next reads the file and says why.
func (c *Catalog) build() error {
	for {
		number := c.store.RecordsGeneration()
		if r := c.records.Load(); r != nil && r.number != number { // nobody new gets it: two at once are large
			c.view.Store(nil)
			c.records.Store(nil)
		}
		root.Here("catalog: build")
		all, err := c.store.Published(c.store.Life())
		if err != nil {
			return err
		}
		var channels []listing.Record
		for _, r := range all {
			if !r.IsRepeater() {
				channels = append(channels, r)
			}
		}
		c.records.Store(&records{number, listing.IndexOwn(all), channels})
		if c.store.RecordsGeneration() == number {
			return nil
		}
	}
}

// Loading reports whether the records are being read into memory: until then
// what is asked takes longer.
func (c *Catalog) Loading() bool {
	return c.reading() != nil
}

func (c *Catalog) reading() chan struct{} {
	c.mu.Lock()
	defer c.mu.Unlock()
	return c.built
}

// Within waits until the records in memory are the present ones, at most so
// long, and reports whether they are.
func (c *Catalog) Within(ctx context.Context, most time.Duration) bool {
	current := func() bool {
		r := c.records.Load()
		return r != nil && r.number == c.store.RecordsGeneration()
	}
	if current() {
		return true
	}
	c.refresh()
	if built := c.reading(); built != nil {
		select {
		case <-built:
		case <-time.After(most):
		case <-ctx.Done():
		}
	}
	return current()
}

// Ready waits until nothing is being read.
func (c *Catalog) Ready() {
	for built := c.reading(); built != nil; built = c.reading() {
		<-built
	}
}

// found is what records are looked up in: those in memory, or the file.
type found interface {
	ByOutput(ctx context.Context, r band.Span, box *geo.Box) ([]listing.Record, error)
	ByInput(ctx context.Context, r band.Span, box *geo.Box) ([]listing.Record, error)
	OnOutputs(ctx context.Context, outputs []freq.Hz, box *geo.Box) ([]listing.Record, error)
}

// published is what the listings say, as far as nobody knows better.
type published struct {
	store     *store.Store
	found     found
	known     listing.Corrections
	decisions []listing.Decision
	confined  confined
}

func (p published) apply(records []listing.Record, err error) ([]listing.Record, error) {
	if len(p.known) > 0 {
		for i := range records {
			records[i] = p.known.Apply(records[i])
		}
	}
	return records, err
}

// ByOutput implements listing.Source.
func (p published) ByOutput(ctx context.Context, r band.Span, box *geo.Box) ([]listing.Record, error) {
	return p.apply(p.found.ByOutput(ctx, r, box))
}

// ByInput implements listing.Source. It goes by the input that was published.
func (p published) ByInput(ctx context.Context, r band.Span, box *geo.Box) ([]listing.Record, error) {
	return p.apply(p.found.ByInput(ctx, r, box))
}

// OnOutputs implements listing.Source.
func (p published) OnOutputs(ctx context.Context, outputs []freq.Hz, box *geo.Box) ([]listing.Record, error) {
	return p.apply(p.found.OnOutputs(ctx, outputs, box))
}

// ByName implements listing.Source. The file is asked: it has an order for
// names, and they are asked for once a keystroke at most.
func (p published) ByName(ctx context.Context, text string, box *geo.Box) ([]listing.Record, error) {
	return p.apply(p.store.ByName(ctx, text, box))
}

// Decisions implements listing.Source.
func (p published) Decisions(context.Context) ([]listing.Decision, error) { return p.decisions, nil }
