package catalog

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"mnemos/core/intake"
	"mnemos/core/listing"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Corrected is a field that a person knows better.
type Corrected struct {
	Field  string
	Value  string
	Note   string
	Person string
	At     string
	Open   bool // a newer edition says something else: look again
}

// Correct says what a repeater really has in a field, or whom to believe. All
// that is published about it gives way until a newer edition says something
// else. An empty value takes the correction back.
func (c *Catalog) Correct(ctx context.Context, id listing.ID, field, value, note string) error {
	value, note = strings.TrimSpace(value), intake.Clean(note)
	f := &fault.Invalid{}
	if value != "" {
		if _, err := listing.ReadField(field, value); err != nil {
			f.Add("value", "%v", err)
			return f
		}
	}
	r, best, err := c.Repeater(ctx, id)
	if err != nil {
		return err
	}
	label := fmt.Sprintf("correct the %s of %s", listing.FieldWords(field), best.Title())
	if value == "" {
		label = fmt.Sprintf("take back the corrected %s of %s", listing.FieldWords(field), best.Title())
	}
	stamp, err := c.fleet.Stamp(ctx, label)
	if err != nil {
		return err
	}
	old, err := c.store.Corrections(ctx)
	if err != nil {
		return err
	}
	return c.store.Edit(ctx, 0, store.Latest, stamp, func(e *store.Edit) error {
		for i := range r.Statements {
			s := &r.Statements[i]
			if value != "" {
				x := store.Correction{Source: s.Source, Key: s.Key, Field: field, Value: value, Against: says(s, field), Note: note, PersonID: stamp.PersonID, At: stamp.At}
				if err := e.Correct(x); err != nil {
					return err
				}
				continue
			}
			for _, x := range old {
				if x.Source == s.Source && x.Key == s.Key && x.Field == field {
					if err := e.Drop("correction", x.ID); err != nil {
						return err
					}
				}
			}
		}
		return nil
	})
}

func says(r *listing.Record, field string) string {
	for _, x := range listing.Fields {
		if x.Name == field {
			said, _ := x.Says(r)
			return said
		}
	}
	return ""
}

// Decide says that two statements speak of one repeater, or of two.
func (c *Catalog) Decide(ctx context.Context, x, y listing.ID, same bool) error {
	f := &fault.Invalid{}
	if x == y || x.Key == "" || y.Key == "" {
		f.Add("b", "name two different statements")
		return f
	}
	number := map[bool]string{true: "one", false: "two"}[same]
	stamp, err := c.fleet.Stamp(ctx, fmt.Sprintf("call %s and %s %s", x.Key, y.Key, number))
	if err != nil {
		return err
	}
	return c.store.Edit(ctx, 0, store.Latest, stamp, func(e *store.Edit) error {
		return e.Decide(store.Decision{ASource: x.Source, AKey: x.Key, BSource: y.Source, BKey: y.Key, Same: same, PersonID: stamp.PersonID, At: stamp.At})
	})
}

// Correction is one that is kept, with whose it is.
type Correction struct {
	store.Correction
	Person string
}

// Decision is one that is kept, with whose it is.
type Decision struct {
	store.Decision
	Person string
}

// KeptCorrections lists what people know better.
func (c *Catalog) KeptCorrections(ctx context.Context) ([]Correction, error) {
	rows, err := c.store.Corrections(ctx)
	if err != nil {
		return nil, err
	}
	names, err := c.names(ctx)
	out := []Correction{}
	for _, r := range rows {
		out = append(out, Correction{r, names[r.PersonID]})
	}
	return out, err
}

// KeptDecisions lists what people decided.
func (c *Catalog) KeptDecisions(ctx context.Context) ([]Decision, error) {
	rows, err := c.store.Decided(ctx)
	if err != nil {
		return nil, err
	}
	names, err := c.names(ctx)
	out := []Decision{}
	for _, r := range rows {
		out = append(out, Decision{r, names[r.PersonID]})
	}
	return out, err
}

func (c *Catalog) names(ctx context.Context) (map[int64]string, error) {
	people, err := c.fleet.People(ctx)
	out := map[int64]string{}
	for _, p := range people {
		out[p.ID] = p.Name
	}
	return out, err
}

// DropCorrection takes one correction back, if it is as it was seen.
func (c *Catalog) DropCorrection(ctx context.Context, id, seen int64) error {
	rows, err := c.store.Corrections(ctx)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(rows, func(r store.Correction) bool { return r.ID == id })
	if i < 0 {
		return fmt.Errorf("correction %d: %w", id, fault.ErrNotFound)
	}
	return c.drop(ctx, "correction", id, seen, fmt.Sprintf("take back the corrected %s of %s", listing.FieldWords(rows[i].Field), rows[i].Key))
}

// DropDecision takes one decision back, if it is as it was seen.
func (c *Catalog) DropDecision(ctx context.Context, id, seen int64) error {
	rows, err := c.store.Decided(ctx)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(rows, func(r store.Decision) bool { return r.ID == id })
	if i < 0 {
		return fmt.Errorf("decision %d: %w", id, fault.ErrNotFound)
	}
	return c.drop(ctx, "decision", id, seen, fmt.Sprintf("take back what was decided on %s and %s", rows[i].AKey, rows[i].BKey))
}

func (c *Catalog) drop(ctx context.Context, table string, id, seen int64, label string) error {
	stamp, err := c.fleet.Stamp(ctx, label)
	if err != nil {
		return err
	}
	return c.store.Edit(ctx, 0, seen, stamp, func(e *store.Edit) error { return e.Drop(table, id) })
}

// Known lists the corrections of a repeater, each field once.
func Known(c listing.Corrections, r listing.Repeater) []Corrected {
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
