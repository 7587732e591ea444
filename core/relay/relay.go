// Package relay works out a cross-band relay: a vehicle that hears on one band and sends
// on another, between a handheld and a repeater, or two simplex channels. It says whether
// it can work and is allowed, what a link frequency may be, how long to wait before
// speaking, what it does to the transmitter, the battery and people, and what to do step
// by step.
//
//	r := relay.Look(relay.Setup{Plan: us, Vehicle: ferry, Hand: &trail, A: link, B: far})
//	r.Verdict   // of the whole
//	r.Findings  // the rules that spoke, gravest first
//	r.Over.Wait // what to wait before the first word
//
// The radio world it runs in is core/rf. Delays that nobody measured, limits and barred
// segments are in data.yaml, each with what it rests on. Follow your local rules and your
// licence.
package relay

import (
	"cmp"
	"slices"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/radio"
	"mnemos/core/tone"
)

// Way is in which direction a relay works.
type Way string

// The ways. On some radios a side can be locked.
const (
	Both Way = "both" // A to B and back
	Out  Way = "out"  // what A hears goes out on B
	Back Way = "back" // what B hears goes out on A
)

// Ways are the ways, the usual one first.
var Ways = []Way{Both, Out, Back}

// Side is one side of the vehicle unit: a channel, and what is known of it.
type Side struct {
	Channel  channel.Channel
	Meant    *listing.Match // what is published about it
	Findings []check.Finding
}

// Repeater reports whether there is a repeater at the other end.
func (s Side) Repeater() bool {
	return s.Channel.Side.Kind != channel.Blocked && s.Channel.Offset() != 0
}

// name is what the other end is called.
func (s Side) name() string {
	switch {
	case s.Channel.Name != "":
		return s.Channel.Name
	case s.Meant != nil && s.Repeater():
		return cmp.Or(s.Meant.Locality, s.Meant.Callsign)
	}
	return s.Channel.Receive.MHz()
}

// half is which of the two halves of the radio a side needs.
func (s Side) half() string {
	if s.Channel.Receive < uhf {
		return "VHF"
	}
	return "UHF"
}

// Unit is a radio that takes part.
type Unit struct {
	Name    string
	Radio   *radio.Profile
	Channel *channel.Channel // what it holds for the link; nil for set like the vehicle
}

// Talk is what is said over the relay in ten minutes.
type Talk struct {
	Mine, Theirs int     // overs
	Seconds      float64 // of an over
}

// Supply is what feeds the vehicle unit, and its aerial.
type Supply struct {
	AmpHours    float64 // of the battery; 0 for not said
	Usable      float64 // share of it until the cut-off
	Starting    bool    // it is the one that starts the engine
	Hours       float64 // that the relay is to run
	StandbyAmps float64 // measured; 0 for not
	AmpsA       float64 // while side A sends, measured; 0 for not
	AmpsB       float64
	Gain        float64 // of the aerial in dBi, less the loss of its cable
}

// Identity is who identifies a side of the vehicle.
type Identity string

// Who identifies a side.
const (
	Nobody    Identity = ""
	Operator  Identity = "operator" // a person says the callsign on the side
	Automatic Identity = "automatic"
)

// Setup is a relay as somebody means it.
type Setup struct {
	Plan       *band.Plan
	Vehicle    Unit
	Hand       Unit // on the link; a nil radio for nobody said which
	A, B       Side
	Way        Way
	Consent    string   // what the owners of two repeaters said
	Unlicensed bool     // the operator has no licence yet
	Bands      []string // that the licence permits; empty for all
	Closed     string   // side whose repeater is closed and nobody asked: "A", "B" or ""
	IdentifyA  Identity
	IdentifyB  Identity
	Control    string // how it is shut off
	Timeout    int    // minutes that the vehicle's time-out is set to; 0 for off
	Talk       Talk
	Supply     Supply
	Published  []freq.Hz // outputs and inputs of repeaters within reach, in any order
	Planned    []freq.Hz // that the plan uses already
	Microphone string    // live, dead; "" for nobody knows
}

// Defaults are what is taken where nothing is said.
func Defaults() Setup {
	return Setup{Way: Both, Timeout: 3, Talk: Talk{Mine: 8, Theirs: 12, Seconds: 15}, Supply: Supply{Usable: 0.5, Gain: 3}}
}

// Fix changes one or both sides, or how the relay is run.
type Fix struct {
	ID    string
	Label string
	A, B  *channel.Channel // as they would be; nil for as it is
	Way   Way              // "" for as it is
	Set   map[string]string
}

// Finding is what a rule has to say.
type Finding struct {
	Rule     string
	Severity check.Severity
	Side     string // A, B or "" for the whole
	Title    string
	Message  string
	Source   string
	Why      []check.Reason
	Fixes    []Fix
}

// Report is what there is to say about a relay.
type Report struct {
	Setup    Setup
	Title    string
	Verdict  evidence.Verdict
	Ends     []End
	Legs     []Leg
	Findings []Finding
	Links    []Link
	LinkSide string // for which links are proposed: A or B; "" for neither
	Over     *Over
	Loop     *Loop
	Load     Load
	People   []Exposure
	Identify []Identification
	Card     []Step
}

// Look works a relay out.
func Look(s Setup) *Report {
	if s.Way == "" {
		s.Way = Both
	}
	r := &Report{Setup: s, Title: title(s)}
	r.Legs = legs(s)
	r.LinkSide = linkSide(s)
	if r.LinkSide != "" {
		r.Links = Propose(s, r.LinkSide)
	}
	if runs(s) {
		if w := newWorld(s); s.A.Repeater() && s.B.Repeater() && s.Way == Both {
			r.Loop = w.loop()
		} else {
			r.Over = w.over()
		}
	}
	r.Load = load(s)
	r.People = exposures(s, r.Load)
	r.Identify = identifications(s)
	p := &pass{Setup: s, report: r}
	p.run()
	r.Findings = p.findings
	r.Verdict = p.verdict()
	r.Ends = ends(r)
	r.Card = card(r)
	return r
}

// runs reports whether there is anything to run: two bands, and both sides may send.
func runs(s Setup) bool {
	return s.A.Channel.Receive > 0 && s.B.Channel.Receive > 0 && !sameBand(s)
}

func title(s Setup) string {
	a, b := s.A.name(), s.B.name()
	switch {
	case s.A.Repeater() && s.B.Repeater():
		return a + " and " + b
	case s.A.Repeater():
		return a + " through " + s.Vehicle.Name
	case s.B.Repeater():
		return b + " through " + s.Vehicle.Name
	}
	return a + " to " + b + " through " + s.Vehicle.Name
}

// sends is the frequency on which a side transmits.
func (s Side) sends() (freq.Hz, bool) { return s.Channel.Transmit() }

// bandName is the amateur band of a frequency, "" for none.
func bandName(p *band.Plan, f freq.Hz) string {
	if b, ok := p.Band(f); ok && b.Transmit {
		return b.Name
	}
	return ""
}

func sameBand(s Setup) bool {
	return (s.A.Channel.Receive < uhf) == (s.B.Channel.Receive < uhf)
}

// uhf begins at 300 MHz. Source: ITU Radio Regulations 2.1.
const uhf = 300 * freq.MHz

// Band is what the band of a side is called here: an amateur band by its name in the plan,
// anything else VHF or UHF.
func (s Setup) Band(side Side) string {
	if b, ok := s.Plan.Band(side.Channel.Receive); ok {
		return b.Name
	}
	return side.half()
}

// watts is what a side sends with.
func (s Setup) watts(side Side) float64 { return s.Vehicle.Radio.Watts.Of(side.Channel.Power) }

// hand is the handheld's channel on the link: what it holds, or the link as the vehicle
// has it, with its tones turned round.
func (s Setup) hand(link Side) channel.Channel {
	if s.Hand.Channel != nil {
		return *s.Hand.Channel
	}
	return mirrored(link.Channel)
}

// linkSide is the side of the handheld: simplex, where the other has a repeater; side A
// where both are simplex.
func linkSide(s Setup) string {
	switch {
	case !s.A.Repeater() && s.A.Channel.Receive > 0:
		return "A"
	case !s.B.Repeater() && s.B.Channel.Receive > 0:
		return "B"
	}
	return ""
}

// side returns a side by its letter.
func (s Setup) side(letter string) Side {
	if letter == "B" {
		return s.B
	}
	return s.A
}

// other is the other side's letter.
func other(letter string) string {
	if letter == "A" {
		return "B"
	}
	return "A"
}

// opensTo reports whether a receiver with a lock opens to a tone.
func opensTo(lock, key tone.Tone) bool { return lock.IsOff() || tone.Same(key, lock) }

// gravest puts what matters most first.
func gravest(list []Finding) {
	rank := map[check.Severity]int{check.Stop: 0, check.Fix: 1, check.Check: 2, check.Note: 3}
	slices.SortStableFunc(list, func(a, b Finding) int { return rank[a.Severity] - rank[b.Severity] })
}
