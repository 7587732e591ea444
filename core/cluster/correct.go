package cluster

import (
	"fmt"
	"slices"

	"mnemos/core/freq"
	"mnemos/core/listing"
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
func (c Correction) Holds(r *listing.Record) bool {
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
func (c Corrections) Apply(r listing.Record) listing.Record {
	said := r
	for _, x := range c[Of(r)] {
		f, ok := field(x.Field)
		if !ok || !x.Holds(&said) {
			continue
		}
		if v, err := Read(x.Field, x.Value); err == nil {
			f.copy(&r, &v)
		}
	}
	return r
}

// Best is the repeater in one record, as it is corrected.
func (c Corrections) Best(r Repeater) listing.Record {
	corrected := Repeater{Statements: make([]listing.Record, len(r.Statements))}
	for i, s := range r.Statements {
		corrected.Statements[i] = c.Apply(s)
	}
	return corrected.Best()
}

// Read reads what somebody types for a field, into a record with only that.
func Read(name, value string) (r listing.Record, err error) {
	choice := func(known ...string) error {
		if slices.Contains(known, value) {
			return nil
		}
		return fmt.Errorf("%q: write one of %v", value, known)
	}
	switch name {
	case "input":
		r.Input, err = freq.Parse(value)
	case "uplink tone", "downlink tone":
		var t tone.Tone
		if t, err = tone.Parse(value); err == nil {
			r.UplinkTone, r.DownlinkTone = listing.Says(t), listing.Says(t)
		}
	case "mode":
		r.Mode, err = listing.Mode(value), choice(string(listing.FM), string(listing.Digital), string(listing.MixedFM))
	case "width":
		r.Width, err = value, choice("wide", "narrow")
	case "status":
		r.Status, err = listing.Status(value), choice(string(listing.OnAir), string(listing.OffAir))
	case "access":
		r.Access, err = listing.Access(value), choice(string(listing.Open), string(listing.Closed), string(listing.Private))
	default:
		err = fmt.Errorf("%q is no field that can be corrected", name)
	}
	return r, err
}
