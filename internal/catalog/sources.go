package catalog

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"mnemos/core/band"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/internal/fault"
)

// Source is a listing that counts.
type Source struct {
	Name     string
	File     string
	Imported string // when
	Records  int
	Rejects  int
}

// Sources returns the listings that count for a plan.
func (c *Catalog) Sources(ctx context.Context, planID int64) ([]Source, error) {
	editions, err := c.store.Editions(ctx)
	if err != nil {
		return nil, err
	}
	out := []Source{}
	for _, e := range editions {
		if e.PlanID == 0 || e.PlanID == planID {
			out = append(out, Source{Name: e.Source, File: e.File, Imported: e.ImportedAt, Records: e.Records, Rejects: e.Rejects})
		}
	}
	return out, nil
}

// DropSource removes a listing.
func (c *Catalog) DropSource(ctx context.Context, name string) error {
	if strings.TrimSpace(name) == "" {
		return fmt.Errorf("source: %w", fault.ErrNotFound)
	}
	stamp, err := c.fleet.Stamp(ctx, "remove the listing "+name)
	if err != nil {
		return err
	}
	return c.store.DropSource(ctx, name, stamp)
}

// Repeater returns the repeater that a statement is about, with all that is
// published about it, and Best what it has by all of that and by what people
// know better.
func (c *Catalog) Repeater(ctx context.Context, id listing.ID) (r listing.Repeater, best listing.Record, err error) {
	rec, err := c.store.Record(ctx, id.Source, id.Key)
	if err != nil {
		return r, best, err
	}
	var box *geo.Box
	if p, ok := rec.Place(); ok {
		b := geo.Around(p, 150) // whatever may join it is nearer
		box = &b
	}
	records, err := c.store.ByOutput(ctx, band.Span{Lower: rec.Output, Upper: rec.Output}, box)
	if err != nil {
		return r, best, err
	}
	decisions, err := c.store.Decisions(ctx)
	if err != nil {
		return r, best, err
	}
	joined := listing.Join(records, decisions)
	r = listing.Repeater{Statements: []listing.Record{rec}}
	for _, x := range joined {
		if slices.ContainsFunc(x.Statements, func(s listing.Record) bool { return s.ID() == id }) {
			r = x
		}
	}
	known, err := c.Corrections(ctx)
	return r, known.Best(r), err
}
