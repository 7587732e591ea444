package api

import (
	"bytes"
	"cmp"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"slices"
	"strings"

	"github.com/getkin/kin-openapi/openapi3"

	"mnemos/core/limit"
	"mnemos/core/text"
	"mnemos/internal/fault"
)

// exact refuses a body that says a thing twice, or under a name that is not
// quite the one of the contract: what is decoded would not be what was looked at.
// It refuses texts that cannot be shown, too.
func exact(schema *openapi3.Schema, r *http.Request) error {
	body, err := io.ReadAll(r.Body)
	if err != nil {
		return err
	}
	r.Body = io.NopCloser(bytes.NewReader(body))
	f := &fault.Invalid{}
	d := json.NewDecoder(bytes.NewReader(body))
	d.UseNumber()
	if err := value(f, d, "", schema); err != nil {
		return nil // it is no JSON, and that is said by whoever reads it
	}
	if _, err := d.Token(); !errors.Is(err, io.EOF) {
		f.Add("body", "it goes on after its end: send one JSON value")
	}
	return f.Or()
}

// deep is how far values may lie within one another.
const deep = 40

// value reads one value. Where the schema does not say what is in it, any names do,
// each once.
func value(f *fault.Invalid, d *json.Decoder, at string, schema *openapi3.Schema) error {
	t, err := d.Token()
	if err != nil {
		return err
	}
	if strings.Count(at, ".") > deep {
		f.Add("body", "it is nested too deeply")
		return io.EOF
	}
	if s, ok := t.(string); ok {
		if why := text.Problem(s, limit.PlanFile); why != "" {
			f.Add(cmp.Or(strings.Trim(at, "."), "body"), "%s", why)
		}
	}
	switch t {
	case json.Delim('['):
		for d.More() {
			if err := value(f, d, at+".", items(schema)); err != nil {
				return err
			}
		}
		_, err = d.Token()
	case json.Delim('{'):
		var said []string
		for d.More() {
			key, err := d.Token()
			if err != nil {
				return err
			}
			name := fmt.Sprint(key)
			field := strings.Trim(at+"."+name, ".")
			if slices.ContainsFunc(said, func(s string) bool { return strings.EqualFold(s, name) }) {
				f.Add(field, "it is said twice")
			}
			said = append(said, name)
			of, ok := property(schema, name)
			if !ok {
				f.Add(field, "this is not a field of the request: leave it out")
			}
			if err := value(f, d, field, of); err != nil {
				return err
			}
		}
		_, err = d.Token()
	}
	return err
}

func items(s *openapi3.Schema) *openapi3.Schema {
	if s == nil || s.Items == nil {
		return nil
	}
	return s.Items.Value
}

// property is the schema of a name in an object; ok is false where there is none of
// that name.
func property(s *openapi3.Schema, name string) (of *openapi3.Schema, ok bool) {
	if s == nil {
		return nil, true
	}
	if p := s.Properties[name]; p != nil {
		return p.Value, true
	}
	known := len(s.Properties) > 0
	for _, part := range s.AllOf {
		of, ok := property(part.Value, name)
		if known = known || len(part.Value.Properties) > 0; ok && of != nil {
			return of, true
		}
	}
	if s.AdditionalProperties.Schema != nil {
		return s.AdditionalProperties.Schema.Value, true
	}
	free := s.AdditionalProperties.Has != nil && *s.AdditionalProperties.Has
	return nil, free || !known
}
