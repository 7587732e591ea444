package find

import (
	"fmt"
	"slices"
	"strings"

	"mnemos/core/geo"
)

// Mark is a place that somebody named.
type Mark struct {
	Name string
	geo.Point
}

// Marks are few: they are typed by hand.
const (
	maxMarks = 50
	longMark = 40
)

// ReadMarks reads places between semicolons or in lines, each a name and then a
// locator or a position: "hut GN21ia; north pier 41.1,-55.4".
func ReadMarks(text string) ([]Mark, error) {
	var out []Mark
	for _, part := range strings.FieldsFunc(text, func(r rune) bool { return r == ';' || r == '\n' }) {
		words := strings.Fields(strings.ReplaceAll(part, ", ", ","))
		if len(words) == 0 {
			continue
		}
		last := len(words) - 1
		p, err := geo.Parse(words[last])
		if err != nil || last == 0 {
			return nil, fmt.Errorf("%q: write a name and its place, such as hut GN21ia; pier 41.1,-55.4", strings.TrimSpace(part))
		}
		m := Mark{strings.Join(words[:last], " "), p}
		if len([]rune(m.Name)) > longMark {
			return nil, fmt.Errorf("%q: a name has up to %d characters", m.Name, longMark)
		}
		if slices.ContainsFunc(out, func(x Mark) bool { return fold(x.Name) == fold(m.Name) }) {
			return nil, fmt.Errorf("%q is there twice", m.Name)
		}
		if out = append(out, m); len(out) > maxMarks {
			return nil, fmt.Errorf("up to %d places", maxMarks)
		}
	}
	return out, nil
}

// WriteMarks writes them as ReadMarks reads them.
func WriteMarks(marks []Mark) string {
	parts := make([]string, len(marks))
	for i, m := range marks {
		parts[i] = fmt.Sprintf("%s %.5f,%.5f", m.Name, m.Lat, m.Lon)
	}
	return strings.Join(parts, "; ")
}

// mark finds a place by what somebody called it, or by how that begins.
func (s *Scene) mark(text string) (Mark, bool) {
	for _, whole := range []bool{true, false} {
		for _, m := range s.Marks {
			if name := fold(m.Name); name == text || !whole && strings.HasPrefix(name, text) {
				return m, true
			}
		}
	}
	return Mark{}, false
}
