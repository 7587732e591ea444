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
	Fixed   Certainty = "fixed"           // the plan gives one value, and it is used
	Usual   Certainty = "usual"           // the plan's value; exceptions are known
	Varied  Certainty = "locally varied"  // areas differ; Alternatives lists what else is used
	Confirm Certainty = "confirm locally" // no table can be cited; it never yields a fix
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
	Span   `yaml:",inline"`
	Use    Use    `yaml:"use" json:"use"`
	Label  string `yaml:"label" json:"label"`        // a few lower-case words, for people
	Except []Span `yaml:"except,omitempty" json:"-"` // ranges inside that are something else
}

// Holds reports whether f lies in s and in none of its exceptions.
func (s Segment) Holds(f freq.Hz) bool {
	return s.Span.Holds(f) && !slices.ContainsFunc(s.Except, func(x Span) bool { return x.Holds(f) })
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
	Note         string        `yaml:"note,omitempty" json:"note,omitempty"`
}

// Firm reports whether the rule is evidence by itself: practice follows it.
func (r ShiftRule) Firm() bool { return r.Certainty == Fixed || r.Certainty == Usual }

// offsets returns the rule's offset and then its alternatives.
func (r ShiftRule) offsets() []freq.Offset { return append([]freq.Offset{r.Offset}, r.Alternatives...) }

// Band is one amateur band of a region, or a neighbouring range of another
// service that radios receive.
type Band struct {
	Name     string `yaml:"name" json:"name"`
	Span     `yaml:",inline"`
	Transmit bool          `yaml:"transmit" json:"transmit"`   // amateurs may transmit here
	Confirm  bool          `yaml:"confirm,omitempty" json:"-"` // in some countries of the region only
	Rasters  []freq.Raster `yaml:"rasters" json:"-"`
	Segments []Segment     `yaml:"segments" json:"segments"`
	Shifts   []ShiftRule   `yaml:"shifts" json:"shifts"`
	Calling  []freq.Hz     `yaml:"calling" json:"calling_hz"`
}

// Monitoring says whether it is lawful to store and hear what is not meant
// for amateurs: public safety, marine, air.
type Monitoring string

// The rules about listening. Where nothing is written down here, ask.
const (
	MonitoringOpen       Monitoring = "open"
	MonitoringRestricted Monitoring = "restricted"
	MonitoringConfirm    Monitoring = "confirm locally"
)

// Identify is how often a station must give its callsign.
type Identify struct {
	Minutes int    `yaml:"minutes" json:"minutes"` // 0: confirm with the authority
	Source  string `yaml:"source" json:"source"`
}

// Plan is the band plan of a region. Its zero value knows no band.
type Plan struct {
	Region    string    `yaml:"region" json:"region"`
	Title     string    `yaml:"title" json:"title"`
	Base      string    `yaml:"base,omitempty" json:"-"` // the region whose bands hold where this one names none
	Authority string    `yaml:"authority" json:"authority"`
	Source    string    `yaml:"source" json:"source"`
	Basis     string    `yaml:"basis" json:"basis"`
	AsOf      string    `yaml:"as_of" json:"as_of"`
	Certainty Certainty `yaml:"certainty,omitempty" json:"certainty"` // "confirm locally" for a region without a citable table
	// APRS are the region's packet position frequencies.
	APRS       []freq.Hz  `yaml:"aprs" json:"aprs_hz"`
	Identify   Identify   `yaml:"identify" json:"identify"`
	Monitoring Monitoring `yaml:"monitoring" json:"monitoring"`
	// Designators are the names of channels in the plan.
	Designators []Designator `yaml:"designators,omitempty" json:"-"`
	Bands       []Band       `yaml:"bands" json:"bands"`
}

// Designator is a numbering of channels: Prefix and a number name the
// frequency Origin + number × Step.
type Designator struct {
	Prefix string  `yaml:"prefix"`
	Origin freq.Hz `yaml:"origin"`
	Step   freq.Hz `yaml:"step"`
	First  int     `yaml:"first"`
	Last   int     `yaml:"last"`
	Output bool    `yaml:"output,omitempty"` // names the output of a repeater
}

// Frequency returns the frequency of a number; ok is false if the numbering
// does not go there.
func (d Designator) Frequency(n int) (f freq.Hz, ok bool) {
	return d.Origin + freq.Hz(n)*d.Step, d.First <= n && n <= d.Last
}

// Firm reports whether the plan rests on a table that can be cited. What
// another plan says about limits and shifts never yields a fix.
func (p *Plan) Firm() bool { return p.Certainty != Confirm }

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

// Elsewhere returns the name of a band that other regions have at f and this
// plan lacks: f is then not covered by the plan, rather than outside a band.
func (p *Plan) Elsewhere(f freq.Hz) (name string, ok bool) {
	if _, covered := p.Band(f); covered {
		return "", false
	}
	for _, region := range Regions() {
		b, found := MustLoad(region).Band(f)
		if found && b.Transmit && !b.Confirm && !slices.ContainsFunc(p.Bands, func(own Band) bool { return own.Name == b.Name }) {
			return b.Name, true
		}
	}
	return "", false
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

// ShiftInto returns the shift rule of the outputs whose repeaters listen
// around f: the rule in whose input range it lies.
func (p *Plan) ShiftInto(f freq.Hz) (ShiftRule, bool) {
	b, ok := p.Band(f)
	if !ok || b.IsCalling(f) {
		return ShiftRule{}, false
	}
	for _, r := range b.Shifts {
		for _, o := range r.offsets() {
			if r.Holds(f.Add(-o)) {
				return r, true
			}
		}
	}
	return ShiftRule{}, false
}

// Allows reports whether o is the rule's offset or one of its alternatives.
func (r ShiftRule) Allows(o freq.Offset) bool {
	return o == r.Offset || slices.Contains(r.Alternatives, o)
}

// Uplink is a frequency on which a repeater may listen.
type Uplink struct {
	Frequency freq.Hz     `json:"input_hz"`
	Offset    freq.Offset `json:"offset_hz"`
	Certainty Certainty   `json:"certainty"`
}

// InputsOf returns the inputs that a repeater with an output f may have in
// this region, likeliest first: that of the rule, then its alternatives, then
// what other rules of the band would give. It is what can be said about a
// repeater nobody has published. Inputs outside the band, and those where FM
// voice does not belong, are left out.
func (p *Plan) InputsOf(f freq.Hz) []Uplink {
	b, ok := p.Band(f)
	if !ok {
		return nil
	}
	var out []Uplink
	add := func(o freq.Offset, c Certainty) {
		g := f.Add(o)
		seg, known := p.Segment(g)
		seen := slices.ContainsFunc(out, func(x Uplink) bool { return x.Frequency == g })
		if b.Holds(g) && (!known || seg.Voice()) && !seen {
			out = append(out, Uplink{Frequency: g, Offset: o, Certainty: c})
		}
	}
	here, ruled := p.Shift(f)
	if ruled {
		add(here.Offset, here.Certainty)
		for _, o := range here.Alternatives {
			add(o, Varied)
		}
		if here.Certainty == Fixed {
			return out
		}
	}
	for _, r := range b.Shifts {
		for _, o := range r.offsets() {
			if len(out) < most && r.Certainty != Fixed {
				add(o, Confirm)
			}
		}
	}
	return out
}

// most is how many inputs of an unknown repeater are worth listing.
const most = 3

// OutputsOf returns the outputs that the plan's shift rules pair with an
// input f, in the order of the rules.
func (p *Plan) OutputsOf(f freq.Hz) []freq.Hz {
	b, ok := p.Band(f)
	if !ok {
		return nil
	}
	var out []freq.Hz
	for _, r := range b.Shifts {
		for _, o := range r.offsets() {
			if g := f.Add(-o); r.Holds(g) && !slices.Contains(r.Except, g) && !slices.Contains(out, g) {
				out = append(out, g)
			}
		}
	}
	return out
}

// IsCalling reports whether f is a calling channel of the band.
func (b *Band) IsCalling(f freq.Hz) bool { return slices.Contains(b.Calling, f) }

// OnRaster reports whether f lies on one of the band's rasters, or is one of
// its calling channels.
func (b *Band) OnRaster(f freq.Hz) bool {
	return b.IsCalling(f) || slices.ContainsFunc(b.Rasters, func(r freq.Raster) bool { return r.On(f) })
}

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
