package api

import (
	"github.com/getkin/kin-openapi/openapi3"

	"mnemos/core/limit"
)

// bound gives everything that comes in by the contract its bounds, where the
// contract does not say them: a new field cannot be forgotten.
func bound(spec *openapi3.T) {
	seen := map[*openapi3.Schema]bool{}
	for _, item := range spec.Paths.Map() {
		for _, op := range item.Operations() {
			for _, p := range append(item.Parameters[:len(item.Parameters):len(item.Parameters)], op.Parameters...) {
				boundSchema(p.Value.Schema.Value, seen)
			}
			if op.RequestBody == nil {
				continue
			}
			for _, m := range op.RequestBody.Value.Content {
				boundSchema(m.Schema.Value, seen)
			}
		}
	}
}

func boundSchema(s *openapi3.Schema, seen map[*openapi3.Schema]bool) {
	if s == nil || seen[s] {
		return
	}
	seen[s] = true
	switch {
	case s.Type.Is("string") && s.MaxLength == nil && s.Format != "binary":
		s.WithMaxLength(limit.Line)
	case s.Type.Is("integer") || s.Type.Is("number"):
		if s.Min == nil {
			s.WithMin(-limit.Number)
		}
		if s.Max == nil {
			s.WithMax(limit.Number)
		}
	case s.Type.Is("array"):
		if s.MaxItems == nil {
			s.WithMaxItems(limit.Rows)
		}
		boundSchema(s.Items.Value, seen)
	}
	for _, p := range s.Properties {
		boundSchema(p.Value, seen)
	}
	for _, p := range s.AllOf {
		boundSchema(p.Value, seen)
	}
	if a := s.AdditionalProperties.Schema; a != nil {
		boundSchema(a.Value, seen)
	}
}
