package check

import (
	"fmt"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/listing"
)

var shiftRules = []Rule{
	{
		ID: "shift-unit", Title: "Decimal or unit slip in the shift",
		Doc:     "The digits of the shift are right but the point or the unit is not: 6 MHz for 600 kHz, 600 MHz, 006.0 for 000.6.",
		Source:  practice,
		Example: "147.39 +6", Supersedes: []string{"shift-sign", "shift-size", "transmit-band", "segment-voice"},
		Run: shiftUnit,
	},
	{
		ID: "shift-sign", Title: "Shift in the wrong direction",
		Doc:     "The size of the shift is right and its sign is not. The sign comes from the published input, or else from the segment of the band plan; never from the band alone, because one band uses both.",
		Source:  "the band plan of the region; the published record",
		Example: "146.94 +", Supersedes: []string{"shift-size", "transmit-band", "segment-voice"},
		Run: shiftSign,
	},
	{
		ID: "shift-size", Title: "Shift of another size",
		Doc:     "The shift differs from the published input, or from a firm rule of the band plan, by more than its sign.",
		Source:  "the band plan of the region; the published record",
		Example: "146.94 -1.6", Supersedes: []string{"transmit-band", "segment-voice"},
		Run: shiftSize,
	},
	{
		ID: "shift-missing", Title: "Simplex on a repeater's output",
		Doc:     "The channel transmits on the output of a published repeater. That is talk-around, which is useful, but the repeater does not hear it.",
		Source:  practice,
		Example: "146.94 simplex",
		Run:     shiftMissing,
	},
	{
		ID: "reversed-pair", Title: "Output and input reversed",
		Doc:     "The receive frequency is the input of a published repeater, or of the band plan's pair, and nothing is published with it as an output. A listing's columns were probably taken the wrong way round. Without a published repeater it is only a question: inverted pairs exist.",
		Source:  practice,
		Example: "146.34 tx 146.94", Supersedes: []string{"segment-simplex", "unlisted", "shift-sign", "shift-size"},
		Run: reversedPair,
	},
	{
		ID: "receive-near", Title: "Receive frequency a little off",
		Doc:     "The receive frequency is less than half a raster step from the published output: a wrong tuning step or a digit too few.",
		Source:  practice,
		Example: "146.943",
		Run:     receiveNear,
	},
	{
		ID: "shift-local", Title: "Local practice varies",
		Doc:     "The band plan gives a shift here, but areas differ, and no published record says which one is used.",
		Source:  "the band plan of the region",
		Example: "52.81",
		Run:     shiftLocal,
	},
}

func (p *Pass) shiftTo(o freq.Offset) Remedy {
	label := "Shift " + o.String()
	if o == 0 {
		label = "Make it simplex"
	}
	return p.Remedy(label, func(c *channel.Channel) { c.Side = channel.ShiftSide(o) })
}

func shiftUnit(p *Pass) {
	o, witness, _, ok := p.expected()
	have := p.Channel.Offset()
	if !ok || !p.transmits() || o == 0 || have == 0 || !have.SameFigures(o) {
		return
	}
	p.Report(Finding{
		Severity: p.gravity(Fix), Field: channel.FieldShift,
		Title:   fmt.Sprintf("The shift is %s, not %s", o, have),
		Message: fmt.Sprintf("The point or the unit has slipped: this would transmit %s. The %s says %s.", p.transmitWords(), saying(witness), o),
		Why:     p.becauseShift(), Fixes: []Remedy{p.shiftTo(o)},
	})
}

// gravity is the severity of a wrong shift: one that leads out of the bands,
// or into a segment where FM voice does not belong, must not go on the air.
func (p *Pass) gravity(s Severity) Severity {
	tx, ok := p.Channel.Transmit()
	if !ok {
		return s
	}
	seg, known := p.Plan.Segment(tx)
	if !p.Plan.Firm() {
		return s
	}
	if !p.Plan.MayTransmit(tx) || known && !seg.Voice() {
		return Stop
	}
	return s
}

// saying names a witness as the subject of a sentence.
func saying(witness string) string {
	if witness == "published" {
		return "listing"
	}
	return witness
}

func shiftSign(p *Pass) {
	o, witness, firm, ok := p.expected()
	have := p.Channel.Offset()
	if !ok || !p.transmits() || o == 0 || have != -o {
		return
	}
	severity := Fix
	if !firm {
		if rule, _ := p.Plan.Shift(p.Channel.Receive); rule.Allows(have) {
			return
		}
		severity = Check
	}
	p.Report(Finding{
		Severity: p.gravity(severity), Field: channel.FieldShift,
		Title:   fmt.Sprintf("The shift here is %s", o),
		Message: fmt.Sprintf("As entered it would transmit %s. The %s says %s.", p.transmitWords(), saying(witness), o),
		Why:     p.becauseShift(), Fixes: []Remedy{p.shiftTo(o)},
	})
}

func shiftSize(p *Pass) {
	o, witness, firm, ok := p.expected()
	have := p.Channel.Offset()
	if p.crossBand() && witness != "published" {
		return // a band plan says nothing about a pair across bands
	}
	if !ok || !p.transmits() || have == 0 || have == o {
		return
	}
	severity := Fix
	if witness == "band plan" {
		if rule, _ := p.Plan.Shift(p.Channel.Receive); rule.Allows(have) {
			return
		}
		// A local odd split is possible; without a record nobody knows.
		severity = Check
	}
	if p.crossBand() {
		severity = Check // cross-band says what is at stake
	}
	if rule, ok := p.Plan.Shift(p.Channel.Receive); !firm || witness == "published" && ok && rule.Allows(have) && !p.sureMeant() {
		severity = Check
	}
	title := fmt.Sprintf("The shift is %s, not %s", o, have)
	if o == 0 {
		title = "The published channel is simplex"
	}
	p.Report(Finding{
		Severity: p.gravity(severity), Field: channel.FieldShift, Title: title,
		Message: fmt.Sprintf("As entered it would transmit %s. The %s says %s.", p.transmitWords(), saying(witness), listing.ShiftWords(o)),
		Why:     p.becauseShift(), Fixes: []Remedy{p.shiftTo(o)},
	})
}

func shiftMissing(p *Pass) {
	if p.Meant == nil || p.Channel.Side.Kind != channel.Simplex {
		return
	}
	o, ok := p.Meant.Offset()
	if !ok || o == 0 {
		return
	}
	severity := Fix
	if p.Draft != nil && p.Draft.Typed(channel.FieldShift) {
		severity = Check // simplex was typed, so talk-around may be meant
	}
	p.Report(Finding{
		Severity: severity, Field: channel.FieldShift,
		Title:   fmt.Sprintf("%s listens on %s", p.Meant.Title(), p.Meant.Input),
		Message: "Simplex on a repeater's output is talk-around: stations nearby hear it, the repeater does not.",
		Why:     p.becauseShift(), Fixes: []Remedy{p.shiftTo(o)},
	})
}

func reversedPair(p *Pass) {
	if p.Meant != nil || p.Channel.Receive == 0 || p.Channel.Side.Kind == channel.Blocked {
		return
	}
	seg, _ := p.Plan.Segment(p.Channel.Receive)
	tx, _ := p.Channel.Transmit()
	for _, m := range p.Inputs {
		o, _ := m.Offset()
		crossed := tx == m.Output
		if rule, ok := p.Plan.Shift(p.Channel.Receive); ok && rule.Allows(p.Channel.Offset()) {
			continue // a pair that the band plan has too; package mend looks at the tones
		}
		if o == 0 || !m.Audible || !crossed && seg.Use != band.Input {
			continue
		}
		p.Report(Finding{
			Severity: Fix, Field: channel.FieldReceive,
			Title:   fmt.Sprintf("%s is the input of %s", p.Channel.Receive, m.Title()),
			Message: fmt.Sprintf("It sends on %s, %s: that is the frequency to receive.", m.Output, away(m)),
			Why: []Reason{
				{"entered", fmt.Sprintf("receive %s, transmit %s", p.Channel.Receive, p.transmitWords())},
				{"published", fmt.Sprintf("%s: output %s, input %s", p.cite(m), m.Output, m.Input)},
			},
			Fixes: []Remedy{p.Remedy(fmt.Sprintf("Receive %s, shift %s", m.Output, o), func(c *channel.Channel) {
				c.Receive, c.Side = m.Output, channel.ShiftSide(o)
			})},
		})
		return
	}
	if seg.Use != band.Input {
		return
	}
	for _, output := range p.Plan.OutputsOf(p.Channel.Receive) {
		if output != tx {
			continue
		}
		p.Report(Finding{
			Severity: Check, Field: channel.FieldReceive,
			Title:   fmt.Sprintf("%s is a repeater input", p.Channel.Receive),
			Message: fmt.Sprintf("The band plan pairs it with the output %s, which is usually the frequency to receive. Inverted pairs exist: look at the listing.", output),
			Why:     []Reason{{"band plan", fmt.Sprintf("output %s, input %s", output, p.Channel.Receive)}},
		})
		return
	}
}

func receiveNear(p *Pass) {
	if p.Meant == nil || p.Meant.Output == p.Channel.Receive {
		return
	}
	to := p.Meant.Output
	severity := Fix
	if b, ok := p.Plan.Band(p.Channel.Receive); ok && b.OnRaster(p.Channel.Receive) && !p.Meant.Named {
		severity = Check // rasters lie side by side: both may be channels
	}
	p.Report(Finding{
		Severity: severity, Field: channel.FieldReceive,
		Title:   fmt.Sprintf("%s sends on %s", p.Meant.Title(), to),
		Message: fmt.Sprintf("%s is %d Hz off its output.", p.Channel.Receive, freq.Offset(p.Channel.Receive-to).Abs()),
		Why:     []Reason{{"entered", p.Channel.Receive.String()}, {"published", p.cite(*p.Meant) + ": " + to.String()}},
		Fixes: []Remedy{p.Remedy("Receive "+to.String(), func(c *channel.Channel) {
			// The transmit side moves along only if it was a frequency of its
			// own that lay as far off.
			if tx, ok := c.Transmit(); ok && c.Side.Kind == channel.Split && tx.Sub(c.Receive) == p.Meant.Input.Sub(to) {
				c.Side.Frequency = p.Meant.Input
			}
			c.Receive = to
		})},
	})
}

func shiftLocal(p *Pass) {
	rule, ok := p.Plan.Shift(p.Channel.Receive)
	if !ok || p.Meant != nil || rule.Certainty == band.Fixed || rule.Certainty == band.Usual || !p.transmits() || !rule.Allows(p.Channel.Offset()) {
		return
	}
	f := Finding{
		Severity: Note, Field: channel.FieldShift, Title: "Areas differ in the shift here",
		Message: fmt.Sprintf("The band plan gives %s between %s and %s, by local choice. Confirm it with a listing.", rule.Offset, rule.Lower.MHz(), rule.Upper),
		Why:     p.becauseShift(),
	}
	if rule.Note != "" {
		f.Why = append(f.Why, Reason{"band plan", rule.Note})
	}
	// What else an unknown repeater may listen on, likeliest first.
	for _, in := range p.Plan.InputsOf(p.Channel.Receive) {
		f.Why = append(f.Why, Reason{"band plan", fmt.Sprintf("may listen on %s, %s (%s)", in.Frequency, in.Offset, in.Certainty)})
		if in.Certainty == band.Varied && in.Offset != p.Channel.Offset() {
			f.Fixes = append(f.Fixes, p.shiftTo(in.Offset))
		}
	}
	p.Report(f)
}
