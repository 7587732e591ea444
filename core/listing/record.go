// Package listing holds what others publish about repeaters, and finds which
// published record an entered channel means.
//
// A record is a statement by a source at a date, not a fact: "unknown",
// "none" and a value are three different things in it, and it is never
// changed here.
package listing

import (
	"encoding/json"
	"fmt"
	"io"
	"time"

	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/tone"
)

// Stated is what a listing says about a tone: nothing (the zero value), that
// there is none, or which.
type Stated struct {
	Known bool
	Tone  tone.Tone
}

// Says returns the statement that the tone is t; t may be tone.Off.
func Says(t tone.Tone) Stated { return Stated{Known: true, Tone: t} }

// String formats s for people.
func (s Stated) String() string {
	if !s.Known {
		return "not stated"
	}
	return s.Tone.Words()
}

// MarshalJSON writes null for unknown, "none", or the tone.
func (s Stated) MarshalJSON() ([]byte, error) {
	if !s.Known {
		return []byte("null"), nil
	}
	return json.Marshal(s.Tone.String())
}

// UnmarshalJSON reads null, "none", or a tone.
func (s *Stated) UnmarshalJSON(b []byte) error {
	var text *string
	if err := json.Unmarshal(b, &text); err != nil {
		return fmt.Errorf("tone %s: write a string such as \"103.5\" or \"none\", or null if unknown", b)
	}
	*s = Stated{}
	if text == nil {
		return nil
	}
	t, err := tone.Parse(*text)
	if err != nil {
		return err
	}
	*s = Says(t)
	return nil
}

// Mode is the modulation a record states.
type Mode string

// The modes. The empty string is unknown.
const (
	FM      Mode = "fm"
	Digital Mode = "digital"
	MixedFM Mode = "mixed" // FM and a digital mode
)

// Status says whether the repeater is on the air. Empty is unknown.
type Status string

// The statuses.
const (
	OnAir  Status = "on-air"
	OffAir Status = "off-air"
)

// Access says who may use the repeater. Empty is unknown.
type Access string

// The kinds of access.
const (
	Open    Access = "open"
	Closed  Access = "closed"  // members only
	Private Access = "private" // leave alone unless the owner invites you
)

// Kind says what a row of a listing is about. The zero value is a repeater.
type Kind string

// The kinds. A channel can be added to a plan; it says nothing about the
// repeaters on its frequency.
const (
	SimplexChannel Kind = "simplex" // calling channels too
	ListenChannel  Kind = "listen"  // to be received only
)

// Record is one published statement about one repeater.
type Record struct {
	Key          string   `json:"key"`
	Kind         Kind     `json:"kind,omitempty"`
	Callsign     string   `json:"callsign"`
	Output       freq.Hz  `json:"output_hz"` // the repeater transmits, you receive
	Input        freq.Hz  `json:"input_hz"`  // the repeater listens, you transmit; 0 if unknown
	UplinkTone   Stated   `json:"uplink_tone"`
	DownlinkTone Stated   `json:"downlink_tone"`
	Mode         Mode     `json:"mode"`
	Width        string   `json:"width"`
	Locality     string   `json:"locality"`
	Lat          *float64 `json:"lat"`
	Lon          *float64 `json:"lon"`
	Height       *float64 `json:"height_m"` // aerial above the surrounding surface, metres
	Status       Status   `json:"status"`
	Access       Access   `json:"access"`
	Updated      Date     `json:"updated"`
	Source       string   `json:"source"`
	Note         string   `json:"note,omitempty"` // whom to ask, what is special
	// Corrected names the fields in which a person knows better: the value is
	// theirs, not the listing's.
	Corrected []string `json:"-"`
}

// Place returns the position of the repeater, if it is published.
func (r Record) Place() (geo.Point, bool) {
	if r.Lat == nil || r.Lon == nil {
		return geo.Point{}, false
	}
	return geo.Point{Lat: *r.Lat, Lon: *r.Lon}, true
}

// IsRepeater reports whether the record is about a repeater: not one that
// names itself a channel, nor one that receives where it transmits.
func (r Record) IsRepeater() bool { return r.Kind == "" && r.Input != r.Output }

// Offset returns input minus output; ok is false if the input is unknown.
func (r Record) Offset() (o freq.Offset, ok bool) {
	if r.Input == 0 {
		return 0, false
	}
	return r.Input.Sub(r.Output), true
}

// Title is what people call the repeater: its locality, or else its callsign.
func (r Record) Title() string {
	if r.Locality != "" {
		return r.Locality
	}
	if r.Callsign != "" {
		return r.Callsign
	}
	return r.Output.String()
}

// Validate reports the first field that cannot stand.
func (r Record) Validate() error {
	p, placed := r.Place()
	switch {
	case r.Key == "":
		return fmt.Errorf("key is missing")
	case r.Output <= 0:
		return fmt.Errorf("record %s: output_hz is missing", r.Key)
	case (r.Lat == nil) != (r.Lon == nil):
		return fmt.Errorf("record %s: lat and lon belong together", r.Key)
	case placed && !p.Valid():
		return fmt.Errorf("record %s: position %v is not on the earth", r.Key, p)
	}
	return nil
}

// Date is a day without a time, "2026-11-02". The zero value is unknown.
type Date struct{ time.Time }

// ParseDate reads a date as YYYY-MM-DD.
func ParseDate(s string) (Date, error) {
	t, err := time.Parse(time.DateOnly, s)
	if err != nil {
		return Date{}, fmt.Errorf("date %q: write YYYY-MM-DD such as 2026-11-02", s)
	}
	return Date{t}, nil
}

// String formats d as YYYY-MM-DD, or "".
func (d Date) String() string {
	if d.IsZero() {
		return ""
	}
	return d.Format(time.DateOnly)
}

// MarshalJSON writes a string, or null for unknown.
func (d Date) MarshalJSON() ([]byte, error) {
	if d.IsZero() {
		return []byte("null"), nil
	}
	return json.Marshal(d.String())
}

// UnmarshalJSON reads a string, or null for unknown.
func (d *Date) UnmarshalJSON(b []byte) error {
	var s *string
	if err := json.Unmarshal(b, &s); err != nil {
		return err
	}
	*d = Date{}
	if s == nil || *s == "" {
		return nil
	}
	v, err := ParseDate(*s)
	*d = v
	return err
}

// Read reads a listing: a JSON array of records. It refuses a record that
// cannot stand and says which by its place in the array, counted from 1.
func Read(r io.Reader) ([]Record, error) {
	dec := json.NewDecoder(r)
	if t, err := dec.Token(); err != nil || t != json.Delim('[') {
		return nil, fmt.Errorf("a listing is a JSON array of records")
	}
	var out []Record
	for dec.More() {
		var rec Record
		if err := dec.Decode(&rec); err != nil {
			return nil, fmt.Errorf("listing record %d: %w", len(out)+1, err)
		}
		if err := rec.Validate(); err != nil {
			return nil, fmt.Errorf("listing record %d: %w", len(out)+1, err)
		}
		out = append(out, rec)
	}
	if _, err := dec.Token(); err != nil {
		return nil, fmt.Errorf("listing ends early: %w", err)
	}
	return out, nil
}
