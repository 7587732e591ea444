package check

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"mnemos/core/tone"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/listing"
	"mnemos/core/mend"
)

var slipRules = []Rule{
	{
		ID: "slip", Title: "One slip away from a published repeater",
		Doc: "The entry disagrees with the listing, and a published repeater around becomes equal to it through a single slip: a digit beside, two digits swapped, one left out or doubled, " +
			"output and input reversed, the wrong sign, the point or unit of the shift, the tone beside it in the table, its digits mixed up, the tone that the repeater sends, " +
			"a code taken for a tone, or the line beside it in the listing. The likeliest come first, by slip, distance, reach and age of the listing; which one is meant only you know.",
		Source:  practice + "; the published records",
		Example: "147.42 + 103.5",
		Run:     slip,
	},
}

// choices is how many candidates are offered.
const choices = 3

// clear is how much likelier the first candidate has to be than the second
// for another rule's finding to speak alone.
const clear = 6

// slip runs last: it needs to know what the other rules have found.
func slip(p *Pass) {
	if len(p.Candidates) == 0 {
		return
	}
	first := p.Candidates[0]
	if p.plainSimplex() && !first.Named && p.Channel.Mode() != channel.Encode {
		return // simplex where it belongs, and no name that says otherwise
	}
	single := len(p.Candidates) == 1 || p.Candidates[1].Cost-first.Cost > clear
	if p.bring(first.Result, single) {
		return
	}
	f := Finding{
		Severity: p.gravest(), Field: slipField(first.Slip), Title: fmt.Sprintf("%s is very likely meant", first.Title()),
		Message: fmt.Sprintf("%s, %s: %s.", describe(first), away(first.Match), first.Slip),
	}
	switch {
	case first.VeryLikely():
	case len(p.Candidates) > 1 && !single:
		f.Title = "Did you mean one of these?"
		f.Message = fmt.Sprintf("The likeliest is %s, %s: %s.", describe(first), away(first.Match), first.Slip)
	default:
		f.Title = fmt.Sprintf("Did you mean %s?", first.Title())
	}
	for _, c := range p.Candidates[:min(choices, len(p.Candidates))] {
		f.Why = append(f.Why, p.because(c))
		f.Fixes = append(f.Fixes, p.offer(c))
	}
	f.Why = append(f.Why, Reason{"entered", describeChannel(p.Channel)})
	p.Report(f)
	// It says best what is wrong, so it stands before findings as grave.
	last := len(p.findings) - 1
	p.findings = slices.Insert(p.findings[:last], 0, p.findings[last])
}

// weigh gives every offer its confidence. What no candidate stands behind is a
// choice or a guess, and only possible.
func (p *Pass) weigh(findings []Finding) {
	for i := range findings {
		for j := range findings[i].Fixes {
			x := &findings[i].Fixes[j]
			x.Confidence = Possible
			for _, c := range p.Candidates {
				if c.Result == x.Result && x.Slot == nil {
					x.Odds = math.Round(c.Odds*1e4) / 1e4
					if c.VeryLikely() {
						x.Confidence = VeryLikely
					}
				}
			}
			if h := p.Heard; h.Known && x.Slot == nil && tone.Same(x.Result.TransmitTone, h.Tone) && x.Result.Offset() == h.Offset {
				x.Confidence = VeryLikely // it answered to that
			}
			if x.Confidence == Possible {
				x.Label += "?" // what is only possible is asked
			}
			if j == 0 && x.Odds > 0 {
				findings[i].Why = append(findings[i].Why, Reason{"odds", fmt.Sprintf("%s: %.0f in 100, by the stated odds of slips (docs/recovery.md)", x.Label, 100*x.Odds)})
			}
		}
	}
}

// plainSimplex reports whether the channel is simplex where the band plan
// wants simplex.
func (p *Pass) plainSimplex() bool {
	seg, known := p.Plan.Segment(p.Channel.Receive)
	return known && seg.Use == band.Simplex && p.Channel.Side.Kind == channel.Simplex
}

func (p *Pass) because(c mend.Candidate) Reason {
	return Reason{"published", fmt.Sprintf("%s: %s, %s; %s", p.cite(c.Match), describe(c), away(c.Match), c.Slip)}
}

func (p *Pass) offer(c mend.Candidate) Remedy {
	return p.Remedy(strings.TrimSpace(c.Title()+" "+short(c, p.Channel)), func(to *channel.Channel) { *to = c.Result })
}

// bring puts the finding whose first fix makes the channel before all others,
// and reports whether there is one: it says in its own words what is wrong.
// The other candidates stand beside its fix.
func (p *Pass) bring(to channel.Channel, single bool) bool {
	i := slices.IndexFunc(p.findings, func(f Finding) bool {
		return f.Severity != Note && len(f.Fixes) > 0 && f.Fixes[0].Result == to
	})
	if i < 0 {
		return false
	}
	f := p.findings[i]
	f.Severity = p.gravest()
	if !single {
		f.Fixes = f.Fixes[:1:1]
		for _, c := range p.Candidates[1:min(choices, len(p.Candidates))] {
			f.Fixes = append(f.Fixes, p.offer(c))
			f.Why = append(f.Why, p.because(c))
		}
	}
	p.findings = slices.Insert(slices.Delete(p.findings, i, i+1), 0, f)
	return true
}

// gravest is the severity of the gravest finding, at least Check.
func (p *Pass) gravest() Severity {
	s := Check
	for _, f := range p.findings {
		if grave[f.Severity] < grave[s] {
			s = f.Severity
		}
	}
	return s
}

// explained reports whether a slip leads from the record that is meant to the
// entry.
func (p *Pass) explained() bool {
	return slices.ContainsFunc(p.Candidates, func(c mend.Candidate) bool {
		return p.Meant != nil && c.Slip != mend.OtherLines && p.speaksOfMeant(c.ID())
	})
}

// sureMeant reports whether the record is near enough, or named, to say that
// an entry which differs from it is wrong. Farther off another repeater may
// be meant that nobody has published.
func (p *Pass) sureMeant() bool {
	if p.Meant.Named || p.Place == nil {
		return true
	}
	for _, m := range p.Outputs {
		if m.Audible && !sameRepeater(m, *p.Meant) {
			return false // which of the two is meant is not sure, so a third may be
		}
	}
	return p.Meant.Distance != nil && *p.Meant.Distance <= sureKM && p.fresh(*p.Meant)
}

// sureKM is how near a repeater is of which nobody would overlook a neighbour
// on the same output. Common practice, no source.
const sureKM = 25.0

func slipField(s mend.Slip) channel.Field {
	switch s {
	case mend.WrongSign, mend.ShiftUnit:
		return channel.FieldShift
	case mend.ToneBeside, mend.ToneDigits, mend.Downlink, mend.CodeOrTone, mend.Polarity, mend.OtherLine, mend.NoTone:
		return channel.FieldTransmitTone
	}
	return channel.FieldReceive
}

func describe(c mend.Candidate) string { return describeChannel(c.Result) }

func describeChannel(c channel.Channel) string {
	if c.Receive == 0 {
		return "no frequency that can be read"
	}
	return fmt.Sprintf("%s, %s, %s", c.Receive, listing.ShiftWords(c.Offset()), c.TransmitTone.Words())
}

// short says what a candidate would change.
func short(c mend.Candidate, from channel.Channel) string {
	var parts []string
	if c.Result.Receive != from.Receive {
		parts = append(parts, c.Result.Receive.MHz())
	}
	if c.Result.Offset() != from.Offset() {
		parts = append(parts, listing.ShiftWords(c.Result.Offset()))
	}
	if c.Result.TransmitTone != from.TransmitTone {
		parts = append(parts, c.Result.TransmitTone.Words())
	}
	return strings.Join(parts, " ")
}
