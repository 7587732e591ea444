// Package check holds the rules by which a channel is judged. A rule is a
// value: its ID, title, doc and source stand beside the function that runs
// it, docs/rules.md is printed from them, and what a rule finds can carry
// fixes that are patches rather than advice.
package check

import (
	"cmp"
	"fmt"
	"hash/fnv"
	"slices"
	"time"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/evidence"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/mend"
	"mnemos/core/radio"
	"mnemos/core/service"
	"mnemos/core/space"
)

// Severity is how much a finding matters.
type Severity string

// The severities, gravest first.
const (
	Stop  Severity = "stop"  // must not go on the air as it is
	Fix   Severity = "fix"   // a witness says otherwise; the fix makes it agree
	Check Severity = "check" // a person should look
	Note  Severity = "note"  // good to know
)

var grave = map[Severity]int{Stop: 0, Fix: 1, Check: 2, Note: 3}

// Rule is one rule of the trade.
type Rule struct {
	ID      string // stable; kebab-case
	Title   string // what it is about, a few words
	Doc     string // what it looks at and why, for operators
	Source  string // where the knowledge comes from
	Example string // an entry line that it speaks about
	// Supersedes names rules whose findings say the same thing less well;
	// they are dropped where this rule finds something.
	Supersedes []string
	// Of is what the rule looks at; the zero value is the channel.
	Of Scope
	// Aside is set where the rule speaks of the radio or of its other channels
	// and not of the channel itself: a check of this kind leaves the verdict.
	Aside bool
	Run   func(*Pass)
}

// Scope is what a rule looks at. What the rules of the channel find is the same
// whatever line it was read from and whatever else the radio holds, and is
// remembered.
type Scope int

// The scopes.
const (
	OfChannel Scope = iota // the channel, what is published about it, the radio and the operator
	OfLine                 // the line as it was typed
	OfSet                  // the slot, and the other channels of the radio
)

// Reason is one line of the reasoning: a witness and what it says.
type Reason struct {
	Witness string `json:"witness"` // entered, published, band plan, radio, place
	Text    string `json:"text"`
}

// Finding is what a rule has to say about a channel.
type Finding struct {
	Rule     string        `json:"rule"`
	Severity Severity      `json:"severity"`
	Field    channel.Field `json:"field"`
	Title    string        `json:"title"`   // states the fact
	Message  string        `json:"message"` // the reason, one line
	Source   string        `json:"source"`
	Why      []Reason      `json:"why"`
	Fixes    []Remedy      `json:"fixes"`
}

// Aside reports whether the finding speaks of the radio or of its other
// channels, and not of the channel itself.
func (f Finding) Aside() bool { return byID[f.Rule].Aside }

// Remedy is a fix that can be applied: the channel it makes, and the patch
// that leads there. A remedy for a slot changes no channel; Slot is set.
type Remedy struct {
	// ID names the remedy for the channel as it is: the same rule offers the same
	// for the same channel under the same one, and for any other under another.
	ID    string `json:"id"`
	Label string `json:"label"`
	// Confidence says whether the offer is very likely what was meant, or only
	// possible; Odds is the likelihood behind it, where one was worked out.
	Confidence Confidence      `json:"confidence"`
	Odds       float64         `json:"odds"`
	Patch      []channel.Op    `json:"patch"`
	Result     channel.Channel `json:"result"`
	Slot       *int            `json:"slot,omitempty"`
}

// Confidence is how sure an offer is.
type Confidence string

// The confidences. A possible offer is worded as a question.
const (
	VeryLikely Confidence = "very likely"
	Possible   Confidence = "possible"
)

// Settings are the operator's circumstances.
type Settings struct {
	Place      *geo.Point // nil if unknown
	RadiusKM   float64    // how far published records count
	Height     float64    // own aerial above the surrounding surface, metres
	Today      time.Time
	Stale      int // months after which a record is old
	TonePolicy TonePolicy
	Services   []string // IDs of the services that the operator uses beside amateur radio
	Bands      []string // names of the bands that the licence permits; empty for all
	Unlicensed bool     // the operator has no licence yet, and listens
	// SlipWeight multiplies the weights of all slips; 0 is 1. For measuring.
	SlipWeight float64
}

// Defaults returns the settings that hold where nothing else is said.
func Defaults(today time.Time) Settings {
	return Settings{RadiusKM: 150, Height: 1.5, Today: today, Stale: 12, TonePolicy: EncodeFirst}
}

// Subject is a channel with all that is known about its circumstances.
type Subject struct {
	Draft     *entry.Draft // the line it was read from; nil for a stored channel
	Channel   channel.Channel
	Slot      *int // the slot it is in or is to go to; nil if none was named
	Plan      *band.Plan
	Radio     *radio.Profile // nil if no radio was named
	Occupancy *Occupancy     // what the radio holds
	Heard     evidence.Heard // what something came back to on the air
	Outputs   []listing.Match
	Inputs    []listing.Match
	// Unsearched is set by Judge where no listing has anything in this band
	// within the radius: then nothing published means nothing.
	Unsearched bool
	// Candidates are records that one slip leads to; Census counts the
	// neighbours. Judge fills both, where there is doubt.
	Candidates []mend.Candidate
	Census     *Census
	Settings
}

// Result is the judgement on a subject.
type Result struct {
	Outputs  []listing.Match // what is published on the output
	Verdict  evidence.Verdict
	Rows     []evidence.Row
	Meant    *listing.Match
	Findings []Finding
}

// Pass is one run of the rules over one subject.
type Pass struct {
	Subject
	Meant    *listing.Match // the record that is meant, or nil
	rows     []evidence.Row // what the witnesses say, field by field
	rule     *Rule
	findings []Finding
}

// Run judges a subject by all rules.
func Run(s Subject) Result { return alone(s).with(s) }

// judgement is what the rules of a channel and of its line say, before anybody
// looks at what else the radio holds. It does not change.
type judgement struct {
	pass     Pass
	of       evidence.Case
	findings []Finding
}

// alone judges a channel by itself.
func alone(s Subject) *judgement {
	s.Slot, s.Occupancy = nil, nil // what a radio holds does not count here
	p := Pass{Subject: s, Meant: meant(s)}
	j := &judgement{of: evidence.Case{Channel: s.Channel, Plan: s.Plan, Meant: p.Meant, Fresh: p.Meant != nil && p.fresh(*p.Meant), Heard: s.Heard}}
	if _, own := p.uses(); len(own) > 0 {
		u := p.serviceMeant(own)
		j.of.Service = u.Name + " " + u.Number
	}
	if s.Channel.Receive != 0 {
		p.rows = j.of.Rows()
	}
	j.findings = p.run(OfChannel, OfLine)
	j.pass = p
	return j
}

// verdict is the verdict by the channel alone, or with some findings beside.
func (j *judgement) verdict(beside []Finding) evidence.Verdict {
	has := func(v Severity) bool {
		counts := func(f Finding) bool { return f.Severity == v && (v == Stop || !f.Aside()) }
		return slices.ContainsFunc(j.findings, counts) || slices.ContainsFunc(beside, counts)
	}
	return j.of.Overall(j.pass.rows, has(Stop), has(Fix), has(Check))
}

// with adds what the rules of the set say of a subject: the same channel, in a
// slot among others.
func (j *judgement) with(s Subject) Result {
	p := j.pass
	p.Slot, p.Occupancy, p.findings = s.Slot, s.Occupancy, nil
	beside := p.run(OfSet)
	findings := append(slices.Clip(slices.Clone(j.findings)), beside...)
	slices.SortStableFunc(findings, func(a, b Finding) int { return cmp.Compare(grave[a.Severity], grave[b.Severity]) })
	if findings == nil {
		findings = []Finding{}
	}
	return Result{Outputs: p.Outputs, Verdict: j.verdict(beside), Rows: p.rows, Meant: p.Meant, Findings: findings}
}

// run runs the rules of some scopes and settles what they found.
func (p *Pass) run(scopes ...Scope) []Finding {
	for i := range Rules {
		if p.rule = &Rules[i]; slices.Contains(scopes, p.rule.Of) {
			p.rule.Run(p)
		}
	}
	return p.settle()
}

// settle drops what better findings supersede and puts the gravest first.
func (p *Pass) settle() []Finding {
	gone := map[string]bool{}
	for _, f := range p.findings {
		for _, id := range byID[f.Rule].Supersedes {
			gone[id] = true
		}
	}
	out := slices.DeleteFunc(p.findings, func(f Finding) bool { return gone[f.Rule] })
	slices.SortStableFunc(out, func(a, b Finding) int { return cmp.Compare(grave[a.Severity], grave[b.Severity]) })
	p.weigh(out)
	for i := range out {
		out[i].Fixes = slices.DeleteFunc(out[i].Fixes, func(x Remedy) bool { return x.Slot == nil && !p.mayOffer(x.Result) })
		for j := range out[i].Fixes {
			out[i].Fixes[j].ID = p.nameOf(out[i].Rule, out[i].Fixes[j])
		}
	}
	return out
}

// nameOf makes the ID of a remedy.
func (p *Pass) nameOf(rule string, x Remedy) string {
	h := fnv.New64a()
	slot := 0
	if x.Slot != nil {
		slot = *x.Slot
	}
	fmt.Fprintf(h, "%v|%v|%d", p.Channel, x.Result, slot)
	return fmt.Sprintf("%s-%x", rule, h.Sum64())
}

// mayOffer reports whether a fix leaves the transmitter where it was, or puts
// it where the operator may transmit: no listing and no slip is reason enough
// to offer anything else.
func (p *Pass) mayOffer(c channel.Channel) bool {
	tx, sends := c.Transmit()
	before, sent := p.Channel.Transmit()
	if !sends || sent && tx == before || !p.Plan.Firm() {
		return true
	}
	if _, exact, ok := space.Find(p.Plan.Region, c.Receive, tx, true); ok && exact {
		return true
	}
	if slices.ContainsFunc(service.At(p.Plan.Region, tx), func(u service.Use) bool { return slices.Contains(p.Services, u.ID) }) {
		return true
	}
	b, ok := p.Plan.Band(tx)
	seg, known := p.Plan.Segment(tx)
	half := emission[c.Width] / 2
	return ok && b.Transmit && (!known || seg.Voice()) && tx-half >= b.Lower && tx+half <= b.Upper
}

// Report adds a finding of the running rule.
func (p *Pass) Report(f Finding) {
	f.Rule, f.Source = p.rule.ID, p.rule.Source
	if f.Fixes == nil {
		f.Fixes = []Remedy{}
	}
	if f.Why == nil {
		f.Why = []Reason{}
	}
	p.findings = append(p.findings, f)
}

// Remedy returns the fix that changes the channel by the given function.
func (p *Pass) Remedy(label string, change func(*channel.Channel)) Remedy {
	c := p.Channel
	change(&c)
	return Remedy{Label: label, Result: c, Patch: channel.Diff(p.Channel, c)}
}

// byID finds a rule by its ID. It is filled at start because the rules refer
// to it through Run.
var byID = map[string]*Rule{}

func init() {
	for i := range Rules {
		byID[Rules[i].ID] = &Rules[i]
	}
}

// Title is what a rule is about; "" for an ID of none.
func Title(rule string) string {
	if r := byID[rule]; r != nil {
		return r.Title
	}
	return ""
}

// Graver reports whether one severity matters more than another.
func Graver(a, b Severity) bool { return grave[a] < grave[b] }
