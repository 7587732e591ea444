package app

import (
	"context"
	"fmt"
	"strings"
	"time"

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
