// Package band holds amateur band plans by region: which segment a frequency
// lies in, what that segment is for, which shift repeaters use there and how
// sure the plan is of it.
//
// The plans are data (plans/*.yaml), each with its source and how far it can
// be trusted. Adding a country touches no Go.
package band

import (
	"slices"

	"mnemos/core/freq"
)

// Use is what a segment is for.
type Use string

// The uses of a segment.
const (
	WeakSignal  Use = "weak-signal" // CW, SSB and digital weak-signal work
	Beacon      Use = "beacon"
	Satellite   Use = "satellite"
	Data        Use = "data" // packet, APRS
	Simplex     Use = "simplex"
	Output      Use = "output" // repeater outputs
	Input       Use = "input"  // repeater inputs
	Auxiliary   Use = "auxiliary"
	Mixed       Use = "mixed"        // all modes, or local choice
	ReceiveOnly Use = "receive-only" // another service; amateurs never transmit
)

// Certainty is how firmly a plan gives a shift.
type Certainty string

// The certainties, strongest first.
const (
	Fixed  Certainty = "fixed"          // the plan gives one value, and it is used
	Usual  Certainty = "usual"          // the plan's value; exceptions are known
	Varied Certainty = "locally varied" // areas differ; Alternatives lists what else is used
)

// Span is a closed range of frequencies.
type Span struct {
	Lower freq.Hz `yaml:"lower" json:"lower_hz"`
	Upper freq.Hz `yaml:"upper" json:"upper_hz"`
}

// Holds reports whether f lies in s, edges included.
func (s Span) Holds(f freq.Hz) bool { return f.Within(s.Lower, s.Upper) }

// Segment is a part of a band with one use.
type Segment struct {
	Span  `yaml:",inline"`
	Use   Use    `yaml:"use" json:"use"`
	Label string `yaml:"label" json:"label"` // a few lower-case words, for people
}

// Voice reports whether FM voice belongs in the segment.
func (s Segment) Voice() bool {
	switch s.Use {
	case WeakSignal, Beacon, Satellite, Data, ReceiveOnly:
		return false
	}
	return true
}

// ShiftRule says where repeaters with outputs in a range listen.
type ShiftRule struct {
	Span         `yaml:",inline"`
	Offset       freq.Offset   `yaml:"offset" json:"offset_hz"`
	Certainty    Certainty     `yaml:"certainty" json:"certainty"`
	Alternatives []freq.Offset `yaml:"alternatives,omitempty" json:"alternatives_hz,omitempty"`
	Except       []freq.Hz     `yaml:"except,omitempty" json:"-"` // simplex channels inside the range
}

// Band is one amateur band of a region, or a neighbouring range of another
// service that radios receive.
type Band struct {
	Name     string `yaml:"name" json:"name"`
	Span     `yaml:",inline"`
	Transmit bool          `yaml:"transmit" json:"transmit"` // amateurs may transmit here
	Rasters  []freq.Raster `yaml:"rasters" json:"-"`
	Segments []Segment     `yaml:"segments" json:"segments"`
	Shifts   []ShiftRule   `yaml:"shifts" json:"shifts"`
	Calling  []freq.Hz     `yaml:"calling" json:"calling_hz"`
}

// Plan is the band plan of a region. Its zero value knows no band.
type Plan struct {
	Region    string `yaml:"region" json:"region"`
	Title     string `yaml:"title" json:"title"`
	Authority string `yaml:"authority" json:"authority"`
	Source    string `yaml:"source" json:"source"`
	Basis     string `yaml:"basis" json:"basis"`
	AsOf      string `yaml:"as_of" json:"as_of"`
	Bands     []Band `yaml:"bands" json:"bands"`
}

// Band returns the band that holds f.
func (p *Plan) Band(f freq.Hz) (*Band, bool) {
	for i := range p.Bands {
		if p.Bands[i].Holds(f) {
			return &p.Bands[i], true
		}
	}
	return nil, false
}

// MayTransmit reports whether f lies in a band on which the plan lets
// amateurs transmit.
func (p *Plan) MayTransmit(f freq.Hz) bool {
	b, ok := p.Band(f)
	return ok && b.Transmit
}

// Segment returns the segment that holds f. At a shared edge it is the one
// that begins there.
func (p *Plan) Segment(f freq.Hz) (Segment, bool) {
	b, ok := p.Band(f)
	if !ok {
		return Segment{}, false
	}
	found, ok := Segment{}, false
	for _, s := range b.Segments {
		if s.Holds(f) && (!ok || s.Lower >= found.Lower) {
			found, ok = s, true
		}
	}
	return found, ok
}

// Shift returns the shift rule for a repeater whose output is f.
func (p *Plan) Shift(f freq.Hz) (ShiftRule, bool) {
	b, ok := p.Band(f)
	if !ok || b.IsCalling(f) {
		return ShiftRule{}, false
	}
	for _, r := range b.Shifts {
		if r.Holds(f) && !slices.Contains(r.Except, f) {
			return r, true
		}
	}
	return ShiftRule{}, false
}

// Allows reports whether o is the rule's offset or one of its alternatives.
func (r ShiftRule) Allows(o freq.Offset) bool {
	return o == r.Offset || slices.Contains(r.Alternatives, o)
}

// OutputsOf returns the outputs that the plan's shift rules pair with an
// input f, in the order of the rules.
func (p *Plan) OutputsOf(f freq.Hz) []freq.Hz {
	b, ok := p.Band(f)
	if !ok {
		return nil
	}
	var out []freq.Hz
	for _, r := range b.Shifts {
		for _, o := range append([]freq.Offset{r.Offset}, r.Alternatives...) {
			if g := f.Add(-o); r.Holds(g) && !slices.Contains(r.Except, g) && !slices.Contains(out, g) {
				out = append(out, g)
			}
		}
	}
	return out
}

// IsCalling reports whether f is a calling channel of the band.
func (b *Band) IsCalling(f freq.Hz) bool { return slices.Contains(b.Calling, f) }

// Tolerance is the distance at which two frequencies in this band are
// different channels: half the finest raster, which is also how far apart a
// typed and a published output may be and still mean the same channel.
func (b *Band) Tolerance() freq.Hz {
	finest := freq.Hz(0)
	for _, r := range b.Rasters {
		if finest == 0 || r.Step < finest {
			finest = r.Step
		}
	}
	return finest / 2
}
