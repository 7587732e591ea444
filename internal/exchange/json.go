package exchange

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
)

// ahead is how many objects are read to learn the names of their fields.
const ahead = 500

// objects is a table made of JSON objects: the first row names the fields.
type objects struct {
	*counter
	next   func() (map[string]any, error) // io.EOF after the last
	names  []string
	queue  []map[string]any
	line   int
	headed bool
	end    error
}

// learn reads the first objects and names the columns in the order in which
// the fields are met; those of one object come sorted.
func (o *objects) learn() error {
	seen := map[string]bool{}
	for len(o.queue) < ahead {
		x, err := o.next()
		if err != nil {
			o.end = err
			break
		}
		o.queue = append(o.queue, x)
		if len(x) > MaxColumns || len(o.names) > MaxColumns {
			return tooWide(len(o.queue), max(len(x), len(o.names)))
		}
		var fresh []string
		for name := range x {
			if !seen[name] {
				seen[name] = true
				fresh = append(fresh, name)
			}
		}
		slices.Sort(fresh)
		o.names = append(o.names, fresh...)
	}
	if len(o.queue) == 0 && !errors.Is(o.end, io.EOF) {
		return o.end
	}
	if len(o.queue) == 0 {
		return fmt.Errorf("it has no records")
	}
	return nil
}

func (o *objects) Next() (int, []string, error) {
	if !o.headed {
		o.headed = true
		return 0, slices.Clone(o.names), nil
	}
	var x map[string]any
	switch {
	case len(o.queue) > 0:
		x, o.queue = o.queue[0], o.queue[1:]
	case o.end != nil:
		return 0, nil, o.end
	default:
		var err error
		if x, err = o.next(); err != nil {
			return 0, nil, err
		}
	}
	o.line++
	cells := make([]string, len(o.names))
	for i, name := range o.names {
		cells[i] = text(x[name])
	}
	return o.line, cells, nil
}

func text(v any) string {
	switch x := v.(type) {
	case nil:
		return ""
	case string:
		return x
	case json.Number:
		return x.String()
	case bool:
		if x {
			return "yes"
		}
		return "no"
	}
	b, err := json.Marshal(v)
	if err != nil {
		return ""
	}
	return string(b)
}

// openListing opens a listing of our own: an array of records.
func openListing(file *counter, r io.Reader) (Table, Info, error) {
	limit := &rationed{r: r}
	limit.more()
	dec := json.NewDecoder(limit)
	dec.UseNumber()
	if _, err := dec.Token(); err != nil {
		return nil, Info{}, fmt.Errorf("%w (%s)", ErrFormat, err)
	}
	o := &objects{counter: file, next: func() (map[string]any, error) { limit.more(); return element(dec) }}
	return o, Info{Format: "listing", Named: true}, o.learn()
}

// closed reads on to the end of everything that was opened: io.EOF where it is
// there, and an error for a file that was cut off.
func closed(dec *json.Decoder, depth int) error {
	for {
		t, err := dec.Token()
		switch {
		case errors.Is(err, io.EOF) && depth == 0:
			return io.EOF
		case err != nil:
			return fmt.Errorf("the file ends early, as if it were cut off: %w", noEOF(err))
		}
		switch t {
		case json.Delim('{'), json.Delim('['):
			depth++
		case json.Delim('}'), json.Delim(']'):
			depth--
		}
	}
}

func element(dec *json.Decoder) (map[string]any, error) {
	if !dec.More() {
		return nil, closed(dec, 1)
	}
	var x map[string]any
	if err := dec.Decode(&x); err != nil {
		var kind *json.UnmarshalTypeError
		if errors.As(err, &kind) {
			return nil, fmt.Errorf("%w (an array of something else than records)", ErrFormat)
		}
		return nil, fmt.Errorf("read JSON: %w", noEOF(err))
	}
	return x, nil
}

// noEOF keeps an end in the middle from being taken for the end.
func noEOF(err error) error {
	if errors.Is(err, io.EOF) {
		return io.ErrUnexpectedEOF
	}
	return err
}

// openGeoJSON opens a FeatureCollection (RFC 7946): the properties of each
// feature, and the position of a point.
func openGeoJSON(file *counter, r io.Reader) (Table, Info, error) {
	limit := &rationed{r: r}
	limit.more()
	dec := json.NewDecoder(limit)
	dec.UseNumber()
	if err := untilFeatures(dec); err != nil {
		return nil, Info{}, err
	}
	o := &objects{counter: file, next: func() (map[string]any, error) { limit.more(); return feature(dec) }}
	return o, Info{Format: "geojson", Named: true}, o.learn()
}

// untilFeatures reads the members of the collection up to its features.
func untilFeatures(dec *json.Decoder) error {
	if _, err := dec.Token(); err != nil {
		return fmt.Errorf("%w (%s)", ErrFormat, err)
	}
	for dec.More() {
		name, err := dec.Token()
		if err != nil {
			return fmt.Errorf("%w (%s)", ErrFormat, err)
		}
		if name == "features" {
			if t, err := dec.Token(); err != nil || t != json.Delim('[') {
				return fmt.Errorf("%w (features is not an array)", ErrFormat)
			}
			return nil
		}
		var skip json.RawMessage
		if err := dec.Decode(&skip); err != nil {
			return fmt.Errorf("%w (%s)", ErrFormat, err)
		}
	}
	return fmt.Errorf("%w (an object without features)", ErrFormat)
}

func feature(dec *json.Decoder) (map[string]any, error) {
	if !dec.More() {
		return nil, closed(dec, 2)
	}
	var f struct {
		ID         any            `json:"id"`
		Properties map[string]any `json:"properties"`
		Geometry   struct {
			Type        string          `json:"type"`
			Coordinates json.RawMessage `json:"coordinates"`
		} `json:"geometry"`
	}
	if err := dec.Decode(&f); err != nil {
		return nil, fmt.Errorf("read GeoJSON: %w", noEOF(err))
	}
	x := f.Properties
	if x == nil {
		x = map[string]any{}
	}
	if _, has := x["id"]; !has && f.ID != nil {
		x["id"] = f.ID
	}
	var at []float64 // longitude comes first in GeoJSON
	if f.Geometry.Type == "Point" && json.Unmarshal(f.Geometry.Coordinates, &at) == nil && len(at) >= 2 {
		x["longitude"], x["latitude"] = strconv.FormatFloat(at[0], 'f', -1, 64), strconv.FormatFloat(at[1], 'f', -1, 64)
	}
	return x, nil
}
