package listing

import (
	"fmt"
	"slices"

	"mnemos/core/freq"
	"mnemos/core/tone"
)

// Correction is what a person knows better than a statement about one field.
// It holds as long as the statement says what it said then: when a newer
// edition says something else, it is open again.
type Correction struct {
	Of                   ID
	Field                string
	Value, Against, Note string
	Person, At           string
}

// Holds reports whether the statement still says what was corrected.
func (c Correction) Holds(r *Record) bool {
	f, ok := field(c.Field)
	if !ok {
		return false
	}
	text, _ := f.Says(r)
	return text == c.Against
}

func field(name string) (Field, bool) {
	i := slices.IndexFunc(Fields, func(f Field) bool { return f.Name == name })
	if i < 0 {
		return Field{}, false
	}
	return Fields[i], true
}

// Corrections are those of all statements.
type Corrections map[ID][]Correction

// Apply returns the record as it is corrected; the record itself stays as it
// was said.
func (c Corrections) Apply(r Record) Record {
	said := r
	for _, x := range c[r.ID()] {
		f, ok := field(x.Field)
		if !ok || !x.Holds(&said) {
			continue
		}
		if v, err := ReadField(x.Field, x.Value); err == nil {
			f.copy(&r, &v)
			r.Corrected = append(r.Corrected[:len(r.Corrected):len(r.Corrected)], x.Field)
		}
	}
	return r
}

// Best is the repeater in one record, as it is corrected.
func (c Corrections) Best(r Repeater) Record {
	corrected := Repeater{Statements: make([]Record, len(r.Statements))}
	for i, s := range r.Statements {
		corrected.Statements[i] = c.Apply(s)
	}
	return corrected.Best()
}

// ReadField reads what somebody types for a field, into a record with only that.
func ReadField(name, value string) (r Record, err error) {
	choice := func(known ...string) error {
		if slices.Contains(known, value) {
			return nil
		}
		return fmt.Errorf("%q: write one of %v", value, known)
	}
	switch name {
	case "input":
		r.Input, err = freq.Parse(value)
	case "uplink_tone", "downlink_tone":
		var t tone.Tone
		if t, err = tone.Parse(value); err == nil {
			r.UplinkTone, r.DownlinkTone = Says(t), Says(t)
		}
	case "mode":
		r.Mode, err = Mode(value), choice(string(FM), string(Digital), string(MixedFM))
	case "width":
		r.Width, err = value, choice("wide", "narrow")
	case "status":
		r.Status, err = Status(value), choice(string(OnAir), string(OffAir))
	case "access":
		r.Access, err = Access(value), choice(string(Open), string(Closed), string(Private))
	default:
		err = fmt.Errorf("%q is not a field that can be corrected", name)
	}
	return r, err
}
