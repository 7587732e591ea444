package check

import (
	"fmt"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/listing"
)

var planRules = []Rule{
	{
		ID: "receive-only", Title: "A service to listen to",
		Doc:     "The frequency belongs to a broadcast or another service. The channel is kept with its transmitter blocked.",
		Source:  "the band plan of the region",
		Example: "162.475 simplex", Supersedes: []string{"transmit-band", "segment-voice"},
		Run: receiveOnly,
	},
	{
		ID: "transmit-band", Title: "Transmits outside the band",
		Doc:     "The transmit frequency that follows from receive frequency and shift is outside every amateur band of the region, or so near an edge that the emission crosses it: an FM carrier takes half its bandwidth (16 kHz wide, 11 kHz narrow, by Carson's rule) on either side. It is worked out here so that nobody has to key the radio to find out. A band that only the region's file lacks is not covered by the plan, which is something else.",
		Source:  "the band limits of the region",
		Example: "147.6 +600",
		Run:     transmitBand,
	},
	{
		ID: "segment-voice", Title: "Not a segment for FM voice",
		Doc:     "The transmit frequency lies in a part of the band kept for weak signals, beacons, satellites or data. Among data a memory for packet or APRS may be meant, so that is a check and no stop.",
		Source:  "the band plan of the region",
		Example: "145.9 simplex",
		Run:     segmentVoice,
	},
	{
		ID: "segment-simplex", Title: "Simplex among repeaters",
		Doc:     "A simplex channel in a repeater segment disturbs repeaters nearby. On an input it also brings them up.",
		Source:  "the band plan of the region",
		Example: "146.34 simplex",
		Run:     segmentSimplex,
	},
}

func receiveOnly(p *Pass) {
	seg, ok := p.Plan.Segment(p.Channel.Receive)
	if !ok || seg.Use != band.ReceiveOnly {
		return
	}
	f := Finding{
		Severity: Stop, Field: channel.FieldTransmit, Title: fmt.Sprintf("%s is for listening only", p.Channel.Receive),
		Message: fmt.Sprintf("It belongs to %s. Block the transmitter.", seg.Label),
		Why:     []Reason{{"band plan", fmt.Sprintf("%s to %s: %s", seg.Lower.MHz(), seg.Upper, seg.Label)}},
		Fixes:   []Remedy{p.blockTransmit()},
	}
	if !p.transmits() {
		f.Severity, f.Fixes = Note, nil
		f.Title, f.Message = "The transmitter is blocked", fmt.Sprintf("%s belongs to %s.", p.Channel.Receive, seg.Label)
	}
	p.Report(f)
}

func transmitBand(p *Pass) {
	tx, ok := p.Channel.Transmit()
	if !ok || p.Channel.Receive == 0 {
		return
	}
	if p.Plan.MayTransmit(tx) {
		p.nearEdge(tx)
		return
	}
	if name, elsewhere := p.Plan.Elsewhere(tx); elsewhere {
		p.Report(Finding{
			Severity: Check, Field: channel.FieldTransmit, Title: fmt.Sprintf("%s is not covered by this plan", tx),
			Message: fmt.Sprintf("Other regions have the %s band there; the plan of %s says nothing about it. Confirm with %s before you transmit.", name, p.Plan.Title, p.Plan.Authority),
			Why:     []Reason{{"band plan", p.Plan.Source + "; " + p.Plan.Basis}},
		})
		return
	}
	f := Finding{
		Severity: Stop, Field: channel.FieldTransmit, Title: fmt.Sprintf("%s is outside every amateur band", tx),
		Message: fmt.Sprintf("Keying this channel would transmit outside the bands of %s. Follow your local rules and your licence.", p.Plan.Title),
		Why:     []Reason{{"entered", fmt.Sprintf("receive %s, %s", p.Channel.Receive, listing.ShiftWords(p.Channel.Offset()))}},
	}
	if b, found := p.Plan.Band(p.Channel.Receive); found {
		f.Why = append(f.Why, Reason{"band plan", fmt.Sprintf("%s: %s to %s", b.Name, b.Lower.MHz(), b.Upper)})
	}
	if o, _, _, ok := p.expected(); ok && o != p.Channel.Offset() {
		f.Fixes = append(f.Fixes, p.shiftTo(o))
	}
	f.Fixes = append(f.Fixes, p.blockTransmit())
	p.confirm(&f)
	p.Report(f)
}

// emission is the bandwidth of FM voice by Carson's rule: twice the sum of
// deviation and the highest audio frequency, 3 kHz.
var emission = map[channel.Width]freq.Hz{channel.Wide: 16_000, channel.Narrow: 11_000}

// nearEdge speaks where the carrier is inside a band and the emission is not.
func (p *Pass) nearEdge(tx freq.Hz) {
	b, _ := p.Plan.Band(tx)
	half := emission[p.Channel.Width] / 2
	if b.Confirm {
		p.Report(Finding{
			Severity: Check, Field: channel.FieldTransmit, Title: fmt.Sprintf("%s is for amateurs in some countries only", b.Name),
			Message: fmt.Sprintf("Confirm with %s before you transmit on %s.", p.Plan.Authority, tx),
			Why:     []Reason{{"band plan", fmt.Sprintf("%s: %s to %s, by country", b.Name, b.Lower.MHz(), b.Upper)}},
		})
	}
	if tx-half >= b.Lower && tx+half <= b.Upper {
		return
	}
	edge := b.Lower
	if tx+half > b.Upper {
		edge = b.Upper
	}
	f := Finding{
		Severity: Stop, Field: channel.FieldTransmit, Title: fmt.Sprintf("The emission crosses the band edge at %s", edge),
		Message: fmt.Sprintf("The channel takes %s kHz on either side of %s. Choose one farther inside. Follow your local rules and your licence.", trimKHz(half), tx),
		Why:     []Reason{{"band plan", fmt.Sprintf("%s: %s to %s", b.Name, b.Lower.MHz(), b.Upper)}},
	}
	p.confirm(&f)
	p.Report(f)
}

// confirm softens what the plan of a region without a citable table says: it
// is to be confirmed locally and never yields a fix.
func (p *Pass) confirm(f *Finding) {
	if !p.Plan.Firm() {
		f.Severity, f.Fixes = Check, nil
		f.Message = fmt.Sprintf("No table for this region can be cited: confirm with %s.", p.Plan.Authority)
	}
}

func segmentVoice(p *Pass) {
	tx, ok := p.Channel.Transmit()
	if !ok {
		return
	}
	seg, ok := p.Plan.Segment(tx)
	if _, exact, space := p.space(); !ok || seg.Voice() || space && exact {
		return
	}
	f := Finding{
		Severity: Stop, Field: channel.FieldTransmit, Title: fmt.Sprintf("%s is in the %s segment", tx, seg.Label),
		Message: "FM voice does not belong there. Follow your local rules and your licence.",
		Why:     []Reason{{"band plan", fmt.Sprintf("%s to %s: %s", seg.Lower.MHz(), seg.Upper, seg.Label)}},
		Fixes:   []Remedy{p.blockTransmit()},
	}
	switch {
	case p.Meant != nil && p.Meant.Input == tx:
		f.Severity, f.Fixes = Check, nil // published there: the listing knows something the plan does not
	case seg.Use == band.Data:
		// A memory for packet or APRS belongs there, so it may be meant.
		f.Severity, f.Message = Check, "Packet and APRS live there; FM voice does not. Follow your local rules and your licence."
	}
	p.confirm(&f)
	p.Report(f)
}

func segmentSimplex(p *Pass) {
	if p.Channel.Side.Kind != channel.Simplex || p.Meant != nil {
		return
	}
	seg, ok := p.Plan.Segment(p.Channel.Receive)
	if !ok || seg.Use != band.Input && seg.Use != band.Output {
		return
	}
	b, _ := p.Plan.Band(p.Channel.Receive)
	if b.IsCalling(p.Channel.Receive) {
		return
	}
	if _, shifted := p.Plan.Shift(p.Channel.Receive); seg.Use == band.Output && !shifted {
		return // a simplex channel that the plan leaves among the outputs
	}
	p.Report(Finding{
		Severity: Check, Field: channel.FieldShift, Title: fmt.Sprintf("Simplex among repeater %ss", seg.Use),
		Message: fmt.Sprintf("%s to %s is for %s. Choose a simplex channel.", seg.Lower.MHz(), seg.Upper, seg.Label),
		Why:     []Reason{{"band plan", fmt.Sprintf("%s to %s: %s", seg.Lower.MHz(), seg.Upper, seg.Label)}},
	})
}
