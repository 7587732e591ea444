package catalog

import (
	"context"
	"slices"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
)

// confined are the listings that serve one plan alone, by their names: those of
// a demonstration match, count and witness nowhere else.
type confined map[string]int64

// hidden are those that a plan does not see.
func (c confined) hidden(planID int64) map[string]bool {
	var out map[string]bool
	for source, plan := range c {
		if plan == planID {
			continue
		}
		if out == nil {
			out = map[string]bool{}
		}
		out[source] = true
	}
	return out
}

// filtered is a source without some listings.
type filtered struct {
	listing.Source
	hidden map[string]bool
}

func (f filtered) without(records []listing.Record, err error) ([]listing.Record, error) {
	return slices.DeleteFunc(records, func(r listing.Record) bool { return f.hidden[r.Source] }), err
}

// ByOutput implements listing.Source.
func (f filtered) ByOutput(ctx context.Context, r band.Span, box *geo.Box) ([]listing.Record, error) {
	return f.without(f.Source.ByOutput(ctx, r, box))
}

// ByInput implements listing.Source.
func (f filtered) ByInput(ctx context.Context, r band.Span, box *geo.Box) ([]listing.Record, error) {
	return f.without(f.Source.ByInput(ctx, r, box))
}

// OnOutputs implements listing.Source.
func (f filtered) OnOutputs(ctx context.Context, outputs []freq.Hz, box *geo.Box) ([]listing.Record, error) {
	return f.without(f.Source.OnOutputs(ctx, outputs, box))
}

// ByName implements listing.Source.
func (f filtered) ByName(ctx context.Context, text string, box *geo.Box) ([]listing.Record, error) {
	return f.without(f.Source.ByName(ctx, text, box))
}
