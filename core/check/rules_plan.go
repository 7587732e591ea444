package check

import (
	"fmt"

	"mnemos/core/band"
	"mnemos/core/channel"
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
		Doc:     "The transmit frequency that follows from receive frequency and shift is in no amateur band of the region. It is worked out here so that nobody has to key the radio to find out.",
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
		Severity: Stop, Field: listing.FieldTransmit, Title: fmt.Sprintf("%s is for listening only", p.Channel.Receive),
		Message: fmt.Sprintf("It belongs to %s. Block the transmitter.", seg.Label),
		Why:     []Because{{"band plan", fmt.Sprintf("%s to %s: %s", seg.Lower.MHz(), seg.Upper, seg.Label)}},
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
	if !ok || p.Channel.Receive == 0 || p.Plan.MayTransmit(tx) {
		return
	}
	f := Finding{
		Severity: Stop, Field: listing.FieldTransmit, Title: fmt.Sprintf("%s is in no amateur band", tx),
		Message: fmt.Sprintf("Keying this channel would transmit outside the bands of %s. Follow your local rules and your licence.", p.Plan.Title),
		Why:     []Because{{"entered", fmt.Sprintf("receive %s, %s", p.Channel.Receive, listing.ShiftWords(p.Channel.Offset()))}},
	}
	if b, found := p.Plan.Band(p.Channel.Receive); found {
		f.Why = append(f.Why, Because{"band plan", fmt.Sprintf("%s: %s to %s", b.Name, b.Lower.MHz(), b.Upper)})
	}
	if o, _, _, ok := p.expected(); ok && o != p.Channel.Offset() {
		f.Fixes = append(f.Fixes, p.shiftTo(o))
	}
	f.Fixes = append(f.Fixes, p.blockTransmit())
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
	if !ok || seg.Voice() {
		return
	}
	f := Finding{
		Severity: Stop, Field: listing.FieldTransmit, Title: fmt.Sprintf("%s is in the %s segment", tx, seg.Label),
		Message: "FM voice does not belong there. Follow your local rules and your licence.",
		Why:     []Because{{"band plan", fmt.Sprintf("%s to %s: %s", seg.Lower.MHz(), seg.Upper, seg.Label)}},
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
	if p.Channel.How.Kind != channel.Simplex || p.Meant != nil {
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
		Severity: Check, Field: listing.FieldShift, Title: fmt.Sprintf("Simplex among repeater %ss", seg.Use),
		Message: fmt.Sprintf("%s to %s is for %s. Choose a simplex channel.", seg.Lower.MHz(), seg.Upper, seg.Label),
		Why:     []Because{{"band plan", fmt.Sprintf("%s to %s: %s", seg.Lower.MHz(), seg.Upper, seg.Label)}},
	})
}
