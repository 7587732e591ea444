package app

import (
	"context"
	"fmt"
	"strings"
	"time"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/intake"
	"mnemos/core/listing"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Corrected is a field that a person knows better.
type Corrected struct {
	Field  string `json:"field"`
	Value  string `json:"value"`
	Note   string `json:"note"`
	Person string `json:"person"`
	At     string `json:"at"`
	Open   bool   `json:"open"` // a newer edition says something else: look again
}

// corrections returns what people know better than the statements.
func (a *App) corrections(ctx context.Context) (listing.Corrections, error) {
	rows, err := a.store.Corrections(ctx)
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

// published is what the listings say, as far as nobody knows better. Every
// check of a channel goes by it.
func (a *App) published(ctx context.Context) (listing.Source, error) {
	c, err := a.corrections(ctx)
	if err != nil || len(c) == 0 {
		return a.store, err
	}
	return corrected{a.store, c}, nil
}

type corrected struct {
	from listing.Source
	by   listing.Corrections
}

func (c corrected) apply(records []listing.Record, err error) ([]listing.Record, error) {
	for i := range records {
		records[i] = c.by.Apply(records[i])
	}
	return records, err
}

// ByOutput implements listing.Source.
func (c corrected) ByOutput(ctx context.Context, r band.Span, box *geo.Box) ([]listing.Record, error) {
	return c.apply(c.from.ByOutput(ctx, r, box))
}

// ByInput implements listing.Source. It goes by the input that was published.
func (c corrected) ByInput(ctx context.Context, r band.Span, box *geo.Box) ([]listing.Record, error) {
	return c.apply(c.from.ByInput(ctx, r, box))
}

// ByName implements listing.Source.
func (c corrected) ByName(ctx context.Context, text string, box *geo.Box) ([]listing.Record, error) {
	return c.apply(c.from.ByName(ctx, text, box))
}

// Decisions implements listing.Source.
func (c corrected) Decisions(ctx context.Context) ([]listing.Decision, error) {
	return c.from.Decisions(ctx)
}

// OnOutputs implements listing.Source.
func (c corrected) OnOutputs(ctx context.Context, outputs []freq.Hz, box *geo.Box) ([]listing.Record, error) {
	return c.apply(c.from.OnOutputs(ctx, outputs, box))
}

// Correct says what a repeater really has in a field, or whom to believe. All
// that is published about it gives way until a newer edition says something
// else. An empty value takes the correction back.
func (a *App) Correct(ctx context.Context, id listing.ID, field, value, note string) error {
	value, note = strings.TrimSpace(value), intake.Clean(note)
	f := &fault.Invalid{}
	if value != "" {
		if _, err := listing.ReadField(field, value); err != nil {
			f.Add("value", "%v", err)
			return f
		}
	}
	o, err := a.store.Operator(ctx)
	if err != nil {
		return err
	}
	r, err := a.repeaterOf(ctx, id)
	if err != nil {
		return err
	}
	var list []store.Correction
	for i := range r.Statements {
		s := &r.Statements[i]
		said := ""
		for _, x := range listing.Fields {
			if x.Name == field {
				said, _ = x.Says(s)
			}
		}
		list = append(list, store.Correction{
			Source: s.Source, Key: s.Key, Field: field, Value: value, Against: said, Note: note, Person: o.Person, At: a.now().UTC().Format(time.RFC3339),
		})
	}
	if len(list) == 0 {
		return fmt.Errorf("statement %s of %s: %w", id.Key, id.Source, fault.ErrNotFound)
	}
	return a.store.Correct(ctx, list)
}

// known lists the corrections of a repeater, each field once.
func known(c listing.Corrections, r listing.Repeater) []Corrected {
	out := []Corrected{}
	at := map[string]int{}
	for i := range r.Statements {
		s := &r.Statements[i]
		for _, x := range c[s.ID()] {
			n, seen := at[x.Field]
			if !seen {
				n = len(out)
				at[x.Field] = n
				out = append(out, Corrected{Field: x.Field, Value: x.Value, Note: x.Note, Person: x.Person, At: x.At})
			}
			out[n].Open = out[n].Open || !x.Holds(s)
		}
	}
	return out
}
