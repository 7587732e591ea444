// Package mend finds the published record that an entry was probably meant to
// be: the one from which a single slip leads to what was typed. A slip is what
// people do with a listing and a keypad: two digits swapped, the wrong column,
// the line beside, the sign, the unit, the tone next to it in the table.
//
// Candidates are ranked by how likely the slip is, how near the repeater, and
// how fresh the listing. Which is right only the person knows: a candidate is
// an offer with its reason.
package mend

import (
	"cmp"
	"context"
	"slices"
	"time"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

// Candidate is a record that the entry may have been meant to be.
type Candidate struct {
	listing.Match
	Slip   Slip
	Result channel.Channel // the entry made equal to the record
	Cost   float64         // smaller is likelier
	// Odds is how likely it is that this was meant, from 0 to 1, weighed
	// against everything else that could be behind the entry (odds.go).
	Odds float64
}

// Search returns the records near the operator that one slip turns into the
// entry, likeliest first. Records that would make the same channel count once.
func Search(ctx context.Context, src listing.Source, plan *band.Plan, e Entered, q listing.Query, today time.Time) ([]Candidate, error) {
	s := searcher{plan: plan, entered: e, query: q, today: today, read: map[freq.Hz]reading{}, scale: cmp.Or(e.Weight, 1)}
	if err := s.records(ctx, src); err != nil {
		return nil, err
	}
	s.odds()
	slices.SortStableFunc(s.found, func(a, b Candidate) int {
		return cmp.Or(cmp.Compare(a.Cost, b.Cost), cmp.Compare(a.Key, b.Key))
	})
	var out []Candidate
	for _, c := range s.found {
		same := func(o Candidate) bool { return o.Result == c.Result }
		if !slices.ContainsFunc(out, same) {
			out = append(out, c)
		}
	}
	return out, nil
}

type searcher struct {
	plan    *band.Plan
	entered Entered
	query   listing.Query
	today   time.Time
	found   []Candidate
	read    map[freq.Hz]reading
	zones   map[zone]reading

	// What the odds are weighed by.
	scale   float64           // of the weights of slips
	around  map[Slip]float64  // repeaters in hearing that a slip of the receive frequency leads from
	outputs int               // how many outputs those could be on
	tones   map[tone.Tone]int // how common each tone is around
	toned   int
	inUse   float64 // repeaters in hearing on the output that was entered
}

type reading struct {
	c  channel.Channel
	ok bool
}

func (s *searcher) records(ctx context.Context, src listing.Source) error {
	box := s.query.Box()
	from := origins(s.entered.Receive, s.plan)
	far, err := src.OnOutputs(ctx, from, box)
	if err != nil {
		return err
	}
	s.census(from, far, func(r listing.Record) Slip {
		slip, _ := compare(s.entered.Receive, r.Output.MHz())
		return slip
	})
	// Most are told apart by tone or shift already, which is cheaper than their
	// distance.
	slips := map[freq.Hz]Slip{}
	far = slices.DeleteFunc(far, func(r listing.Record) bool {
		slip, known := slips[r.Output]
		if !known {
			slip, _ = compare(s.entered.Receive, r.Output.MHz())
			slips[r.Output] = slip
		}
		return slip == "" || !s.fits(r, slip)
	})
	for _, m := range listing.Measure(far, s.entered.Channel, s.query) {
		s.consider(m, slips[m.Output], nil)
	}
	f := s.entered.Channel.Receive
	if f == 0 {
		return nil
	}
	here := band.Span{Lower: f, Upper: f}
	crossed, err := src.ByInput(ctx, here, box)
	if err != nil {
		return err
	}
	for _, m := range listing.Measure(crossed, s.entered.Channel, s.query) {
		if m.Output != m.Input {
			s.consider(m, Reversed, nil)
		}
	}
	same, err := src.ByOutput(ctx, here, box)
	if err != nil || len(same) == 0 {
		return err
	}
	near := around(ctx, src, f, s.query)
	for _, m := range listing.Measure(same, s.entered.Channel, s.query) {
		s.inUse = max(s.inUse, s.uses(m))
		s.consider(m, "", near)
	}
	return near.err
}

// fits reports whether nothing but the receive frequency differs.
func (s *searcher) fits(r listing.Record, receive Slip) bool {
	c, ok := s.near(r.Output)
	if !ok {
		return false
	}
	m := listing.Match{Record: r}
	shift, ok := s.shift(c, m, receive)
	if !ok || shift != "" {
		return false
	}
	slip, ok := s.tone(c, m, nil)
	return ok && slip == ""
}

// at is the entry at another receive frequency; each is read once.
func (s *searcher) at(f freq.Hz) (channel.Channel, bool) {
	r, known := s.read[f]
	if !known {
		r.c, r.ok = s.entered.At(f)
		s.read[f] = r
	}
	return r.c, r.ok
}

// zone is a part of a band in which the band plan says the same of every
// frequency, so that a line is read there in the same way.
type zone struct {
	band, segment, rule, into band.Span
	calling                   bool
}

// near is what the entry would be on a frequency, as it was read somewhere in
// its zone: there are many frequencies, and reading is slow. It is good enough
// to leave records out; whatever is considered is read itself.
func (s *searcher) near(f freq.Hz) (channel.Channel, bool) {
	var z zone
	if b, ok := s.plan.Band(f); ok {
		z.band, z.calling = b.Span, b.IsCalling(f)
	}
	if rule, ok := s.plan.ShiftInto(f); ok {
		z.into = rule.Span
	}
	if seg, ok := s.plan.Segment(f); ok {
		z.segment = seg.Span
	}
	if rule, ok := s.plan.Shift(f); ok {
		z.rule = rule.Span
	}
	r, known := s.zones[z]
	if !known {
		r.c, r.ok = s.at(f)
		if s.zones == nil {
			s.zones = map[zone]reading{}
		}
		s.zones[z] = r
	}
	if rule, ok := s.plan.Shift(f); !r.ok || r.c.Side.Kind == channel.Split && (r.c.Side.Frequency == f || ok && rule.Allows(r.c.Side.Frequency.Sub(f))) {
		return s.at(f) // what is sent is what is received there, or its usual input
	}
	r.c.Receive = f
	return r.c, true
}

// consider adds a record if the entry, with the record's output in place of
// its own, differs from it by no further slip.
func (s *searcher) consider(m listing.Match, receive Slip, near *lines) {
	if m.Mode == listing.Digital || !m.Audible && !m.Named && m.Distance != nil && *m.Distance > farthest {
		return
	}
	c, ok := s.at(m.Output)
	if !ok {
		return
	}
	shift, ok := s.shift(c, m, receive)
	if !ok {
		return
	}
	tone, ok := s.tone(c, m, near)
	if !ok {
		return
	}
	slip := receive
	for _, x := range []Slip{shift, tone} {
		if x == "" {
			continue
		}
		if slip != "" {
			return // two slips at once are no longer a reason
		}
		slip = x
	}
	if slip == "" {
		return
	}
	m.Differences = listing.Differences(s.entered.Channel, m.Record)
	s.found = append(s.found, Candidate{Match: m, Slip: slip, Result: s.result(c, m), Cost: s.cost(m, slip)})
}

// cost weighs slip, distance, reach, name and age. Common practice, no source:
// forty kilometres outweigh the difference between a likely and a less likely
// slip, and a name outweighs everything.
func (s *searcher) cost(m listing.Match, slip Slip) float64 {
	cost := costs[slip]
	switch {
	case m.Distance == nil:
		cost++
	default:
		cost += *m.Distance / 40
	}
	if !m.Audible {
		cost += 2
	}
	if m.Updated.IsZero() || s.today.Sub(m.Updated.Time) > year {
		cost += 0.4
	}
	if m.Status == listing.OffAir {
		cost += 0.8
	}
	if s.entered.Channel.Name != "" {
		cost += 2
		if m.Named {
			cost -= 8
		}
	}
	return cost
}

// farthest is how far a repeater that is past the horizon still counts.
const farthest = 100.0

const year = 365 * 24 * time.Hour
