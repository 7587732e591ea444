package check

import (
	"fmt"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/listing"
)

var listingRules = []Rule{
	{
		ID: "listing-digital", Title: "Digital-only repeater",
		Doc:     "The listing gives a digital mode and no FM. FM voice disturbs such a repeater and nobody hears it.",
		Source:  "the published record",
		Example: "145.27",
		Run:     listingDigital,
	},
	{
		ID: "listing-off-air", Title: "Off the air",
		Doc:     "The listing says that the repeater is not working. No answer is then no proof of wrong settings.",
		Source:  "the published record",
		Example: "147.12 136.5",
		Run:     listingOffAir,
	},
	{
		ID: "listing-closed", Title: "Closed or private",
		Doc:     "The owner limits who may use the repeater. Ask first; a private repeater is to be left alone unless you are invited.",
		Source:  "the published record",
		Example: "444.1 100",
		Run:     listingClosed,
	},
	{
		ID: "listing-stale", Title: "Old listing",
		Doc:     "The record has not been confirmed for a year or more, or has no date. It may still be right; it is weak evidence.",
		Source:  practice,
		Example: "145.23 162.2",
		Run:     listingStale,
	},
	{
		ID: "listing-disagree", Title: "Listings disagree",
		Doc:     "Two sources describe the same repeater (same callsign and output) differently. The newer one is taken as meant; both are shown.",
		Source:  "the published records",
		Example: "146.88 110.9",
		Run:     listingDisagree,
	},
	{
		ID: "unlisted", Title: "Nothing is published here",
		Doc:     "No record within the search radius that may be heard here has this output. The channel may be right; nothing supports it.",
		Source:  practice,
		Example: "146.61 100",
		Run:     unlisted,
	},
}

func listingDigital(p *Pass) {
	if p.Meant == nil || p.Meant.Mode != listing.Digital || !p.transmits() {
		return
	}
	severity := Stop
	if !p.sureMeant() || !p.Channel.TransmitTone.IsOff() && !p.Meant.Named {
		severity = Check // a tone belongs to FM: another repeater may be meant
	}
	p.Report(Finding{
		Severity: severity, Field: channel.FieldListing, Title: fmt.Sprintf("%s is digital only", p.Meant.Title()),
		Message: "FM voice would disturb it, and nobody would hear you. Leave it out of an FM plan.",
		Why:     []Reason{{"published", p.cite(*p.Meant) + ": digital, no FM"}},
		Fixes:   []Remedy{p.blockTransmit()},
	})
}

func (p *Pass) blockTransmit() Remedy {
	return p.Remedy("Make it receive only", func(c *channel.Channel) {
		c.Side = channel.TransmitSide{Kind: channel.Blocked}
	})
}

func listingOffAir(p *Pass) {
	if p.Meant == nil || p.Meant.Status != listing.OffAir {
		return
	}
	p.Report(Finding{
		Severity: Check, Field: channel.FieldListing, Title: fmt.Sprintf("%s is listed as off the air", p.Meant.Title()),
		Message: "If nothing answers, that need not be your settings.",
		Why:     []Reason{{"published", p.cite(*p.Meant) + ": off the air"}},
	})
}

func listingClosed(p *Pass) {
	if p.Meant == nil || p.Meant.Access != listing.Closed && p.Meant.Access != listing.Private || !p.transmits() {
		return
	}
	severity, message := Check, "It is for its members. Ask the owner before you use it."
	if p.Meant.Access == listing.Private {
		severity, message = Stop, "Leave it alone unless the owner has invited you. To keep it, ask first; then say in Find that it is open to you."
	}
	if !p.sureMeant() {
		severity = Check
	}
	p.Report(Finding{
		Severity: severity, Field: channel.FieldListing, Title: fmt.Sprintf("%s is %s", p.Meant.Title(), p.Meant.Access),
		Message: message, Why: []Reason{{"published", p.cite(*p.Meant) + ": access " + string(p.Meant.Access)}},
	})
}

func listingStale(p *Pass) {
	if p.Meant == nil {
		return
	}
	months, ok := Age(*p.Meant, p.Settings)
	if ok && months < p.Stale {
		return
	}
	title := fmt.Sprintf("The listing is %d months old", months)
	if !ok {
		title = "The listing is undated"
	}
	p.Report(Finding{
		Severity: Check, Field: channel.FieldListing, Title: title,
		Message: fmt.Sprintf("Nobody has confirmed %s since. Look for a newer source, or test it on the air.", p.Meant.Title()),
		Why:     []Reason{{"published", p.cite(*p.Meant)}},
	})
}

func listingDisagree(p *Pass) {
	if p.Meant == nil {
		return
	}
	for _, m := range p.statements()[1:] {
		conflicts := listing.Conflicts(p.Meant.Record, m.Record)
		if len(conflicts) == 0 {
			continue
		}
		var parts []string
		why := []Reason{}
		for _, c := range conflicts {
			parts = append(parts, fmt.Sprintf("%s: %s says %s, %s says %s", listing.FieldWords(c.Field), p.Meant.Source, c.Values[0].Text, m.Source, c.Values[1].Text))
			why = append(why, Reason{"published", fmt.Sprintf("%s: %s %s", p.cite(*p.Meant), listing.FieldWords(c.Field), c.Values[0].Text)}, Reason{"published", fmt.Sprintf("%s: %s %s", p.cite(m), listing.FieldWords(c.Field), c.Values[1].Text)})
		}
		p.Report(Finding{
			Severity: Check, Field: channel.FieldListing, Title: fmt.Sprintf("Two listings of %s disagree", p.Meant.Title()),
			Message: strings.Join(parts, "; ") + ".", Why: why,
		})
		return
	}
}

func unlisted(p *Pass) {
	_, ruled := p.Plan.Shift(p.Channel.Receive)
	repeater := p.Channel.Offset() != 0 || ruled
	if p.Meant != nil || !repeater || p.Channel.Receive == 0 {
		return
	}
	message := "No listing that was searched has it."
	why := []Reason{}
	switch {
	case p.Unsearched:
		p.Report(Finding{
			Severity: Note, Field: channel.FieldListing, Title: "No listing was searched",
			Message: "Nothing says yet whether a repeater is here: there is no listing, or none that covers your place. Import one to check against.",
		})
		return
	case p.Place != nil:
		message = fmt.Sprintf("No listing has it within %.0f km and in reach of you.", p.RadiusKM)
		for _, m := range p.Outputs {
			why = append(why, Reason{"published", fmt.Sprintf("%s: %s, out of reach", p.cite(m), away(m))})
		}
	}
	p.Report(Finding{
		Severity: Note, Field: channel.FieldListing, Title: fmt.Sprintf("No repeater is published on %s here", p.Channel.Receive),
		Message: message, Why: why,
	})
}
