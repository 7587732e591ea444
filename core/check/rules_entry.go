package check

import (
	"fmt"

	"mnemos/core/channel"
	"mnemos/core/entry"
)

var entryRules = []Rule{
	{
		ID: "entry-word", Title: "A word cannot be read",
		Doc:     "Every word of the line must have a meaning. A word without one is named together with what to type instead; nothing is stored until it is mended.",
		Source:  practice,
		Example: "146.94 -600 -600",
		Run:     entryWord,
	},
	{
		ID: "entry-ambiguous", Title: "The line can be read in two ways",
		Doc:     "Two readings of the line are about equally likely and would store different channels. Writing a unit (100 Hz, 100 kHz) decides it.",
		Source:  practice,
		Example: "29.64 - 100",
		Run:     entryAmbiguous,
	},
}

func entryWord(p *Pass) {
	if p.Draft == nil {
		return
	}
	if w := p.Draft.Problem(); w != nil {
		p.Report(Finding{
			Severity: Stop, Field: w.As.Field(), Title: fmt.Sprintf("%q cannot be read", w.Text), Message: w.Problem,
		})
		return
	}
	if p.Draft.Channel.Receive == 0 {
		p.Report(Finding{
			Severity: Stop, Field: channel.FieldReceive, Title: "There is no receive frequency",
			Message: "Type the frequency the repeater sends on, its output, in MHz, such as 147.24.",
		})
		return
	}
	if err := p.Draft.Channel.Validate(); err != nil {
		p.Report(Finding{
			Severity: Stop, Field: channel.FieldTransmit, Title: "This is no channel",
			Message: fmt.Sprintf("%v: type a smaller shift or another transmit frequency.", err),
		})
	}
}

func entryAmbiguous(p *Pass) {
	if p.Draft == nil || p.Draft.Other == nil {
		return
	}
	read := func(d *entry.Draft) string { return entry.Format(d.Channel, nil, entry.ScanYes) }
	p.Report(Finding{
		Severity: Check, Field: ambiguousField(p.Draft), Title: "This line can be read in two ways",
		Message: fmt.Sprintf("As %s, or as %s. Choose one, or write the unit.", read(p.Draft), read(p.Draft.Other)),
		Fixes: []Remedy{
			p.Remedy("Read as "+read(p.Draft), func(*channel.Channel) {}),
			p.Remedy("Read as "+read(p.Draft.Other), func(c *channel.Channel) { *c = p.Draft.Other.Channel }),
		},
	})
}

func ambiguousField(d *entry.Draft) channel.Field {
	for i, w := range d.Words {
		if i < len(d.Other.Words) && d.Other.Words[i].As != w.As {
			return w.As.Field()
		}
	}
	return channel.FieldReceive
}
