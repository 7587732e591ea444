package check

import (
	"context"
	"slices"
	"sync"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
)

// Generation says of what moment a source is, and what changed since another.
type Generation struct {
	Number int64
	// Changed returns the frequencies of the records that say something else
	// than they did in an earlier generation; ok is false where any may. Nil is the
	// latter always.
	Changed func(since int64) (c Changed, ok bool)
}

// Changed are the frequencies, as published, of records about which something
// else is known.
type Changed struct {
	Outputs, Inputs []freq.Hz // a field of the record says something else
	Joined          []freq.Hz // outputs on which statements are joined otherwise
}

// remembered asks once for each earlier generation.
func remembered(changed func(int64) (Changed, bool)) func(int64) (Changed, bool) {
	if changed == nil {
		return nil
	}
	type answer struct {
		c  Changed
		ok bool
	}
	var mu sync.Mutex
	known := map[int64]answer{}
	return func(since int64) (Changed, bool) {
		mu.Lock()
		defer mu.Unlock()
		a, have := known[since]
		if !have {
			a.c, a.ok = changed(since)
			known[since] = a
		}
		return a.c, a.ok
	}
}

// asked are the questions that led to facts.
type asked struct {
	outputs, inputs []band.Span
	joined          []band.Span // outputs whose statements were joined
	on              []freq.Hz
}

// changed reports whether a question may have another answer by now.
func (a *asked) changed(e Generation, since int64) bool {
	if e.Changed == nil {
		return true
	}
	c, ok := e.Changed(since)
	if !ok {
		return true
	}
	within := func(spans []band.Span, list []freq.Hz) bool {
		return slices.ContainsFunc(spans, func(s band.Span) bool { return slices.ContainsFunc(list, s.Holds) })
	}
	return within(a.outputs, c.Outputs) || within(a.inputs, c.Inputs) || within(a.joined, c.Joined) ||
		slices.ContainsFunc(c.Outputs, func(f freq.Hz) bool { return slices.Contains(a.on, f) })
}

// watched is a source that notes what it is asked.
type watched struct {
	listing.Source
	asked *asked
}

// ByOutput implements listing.Source.
func (w watched) ByOutput(ctx context.Context, r band.Span, box *geo.Box) ([]listing.Record, error) {
	w.asked.outputs = append(w.asked.outputs, r)
	return w.Source.ByOutput(ctx, r, box)
}

// ByInput implements listing.Source.
func (w watched) ByInput(ctx context.Context, r band.Span, box *geo.Box) ([]listing.Record, error) {
	w.asked.inputs = append(w.asked.inputs, r)
	return w.Source.ByInput(ctx, r, box)
}

// OnOutputs implements listing.Source.
func (w watched) OnOutputs(ctx context.Context, outputs []freq.Hz, box *geo.Box) ([]listing.Record, error) {
	w.asked.on = outputs // a search asks once
	return w.Source.OnOutputs(ctx, outputs, box)
}
