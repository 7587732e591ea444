package api

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// unbounded names what in a schema takes anything, however large.
func unbounded(at string, s *openapi3.Schema, seen []*openapi3.Schema) (out []string) {
	if s == nil || slices.Contains(seen, s) {
		return nil
	}
	seen = append(seen, s)
	switch {
	case s.Type.Is("string") && s.MaxLength == nil && len(s.Enum) == 0 && s.Format != "binary":
		out = append(out, at+": text")
	case (s.Type.Is("integer") || s.Type.Is("number")) && (s.Min == nil || s.Max == nil):
		out = append(out, at+": number")
	case s.Type.Is("array"):
		if s.MaxItems == nil {
			out = append(out, at+": list")
		}
		out = append(out, unbounded(at+"[]", s.Items.Value, seen)...)
	}
	for name, p := range s.Properties {
		out = append(out, unbounded(at+"."+name, p.Value, seen)...)
	}
	for _, p := range s.AllOf {
		out = append(out, unbounded(at, p.Value, seen)...)
	}
	if a := s.AdditionalProperties.Schema; a != nil {
		out = append(out, unbounded(at+"{}", a.Value, seen)...)
	}
	return out
}

// TestBounds: whatever comes in by the contract has bounds there, so that a new
// field cannot be forgotten.
func TestBounds(t *testing.T) {
	spec, err := GetSpec()
	require.NoError(t, err)
	bound(spec)
	var out []string
	for path, item := range spec.Paths.Map() {
		for method, op := range item.Operations() {
			for _, p := range append(slices.Clone(item.Parameters), op.Parameters...) {
				out = append(out, unbounded(fmt.Sprint(method, " ", path, " ", p.Value.Name), p.Value.Schema.Value, nil)...)
			}
			if op.RequestBody != nil {
				for kind, m := range op.RequestBody.Value.Content {
					if strings.HasPrefix(kind, "application/json") {
						out = append(out, unbounded(fmt.Sprint(method, " ", path, " body"), m.Schema.Value, nil)...)
					}
				}
			}
		}
	}
	slices.Sort(out)
	assert.Empty(t, out)
	assert.Equal(t, []string{"x.a: text", "x.b[]: number"}, sorted(unbounded("x", openapi3.NewObjectSchema().
		WithProperty("a", openapi3.NewStringSchema()).WithProperty("b", openapi3.NewArraySchema().WithMaxItems(3).WithItems(openapi3.NewIntegerSchema())), nil)), "the check can fail")
}

func sorted(s []string) []string { slices.Sort(s); return s }
