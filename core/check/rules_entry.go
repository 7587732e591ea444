package check

import (
	"fmt"

	"mnemos/core/channel"
	"mnemos/core/entry"
)

var entryRules = []Rule{
	{
		ID: "entry-word", Title: "A word cannot be read", Of: OfLine,
		Doc:     "Every word of the line must have a meaning. A word without one is named together with what to type instead; nothing is stored until it is mended.",
		Source:  practice,
		Example: "146.94 -600 -600",
		Run:     entryWord,
	},
	{
		ID: "entry-name", Title: "A name or a callsign alone", Of: OfLine,
		Doc:     "The line has no frequency, only a name or a callsign: the published repeaters that are called so are offered, the nearest first. Taking one fills the line.",
		Source:  "the published records",
		Example: "Beacon",
		Run:     entryName,
	},
	{
		ID: "entry-lines", Title: "Several lines at once", Of: OfLine,
		Doc:     "Several lines were written or pasted. Each is a channel of its own, taken one at a time; they never become one channel.",
		Source:  practice,
		Example: "147.24 + 103.5 ⏎ 146.94 - 88.5",
		Run:     entryLines,
	},
	{
		ID: "entry-ambiguous", Title: "The line can be read in two ways", Of: OfLine,
		Doc:     "Two readings of the line are about equally likely and would store different channels. Writing a unit (100 Hz, 100 kHz) decides it.",
		Source:  practice,
		Example: "29.64 - 100",
		Run:     entryAmbiguous,
	},
}

func entryWord(p *Pass) {
	if p.Draft == nil || p.Draft.Query() != "" || len(p.Draft.Offers) > 0 {
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
			Severity: Stop, Field: channel.FieldReceive, Title: "The receive frequency is missing",
			Message: "Type the frequency the repeater sends on, its output, in MHz, such as 147.24.",
		})
		return
	}
	if err := p.Draft.Channel.Validate(); err != nil {
		p.Report(Finding{
			Severity: Stop, Field: channel.FieldTransmit, Title: "This cannot be a channel",
			Message: fmt.Sprintf("%v: type a smaller shift or another transmit frequency.", err),
		})
	}
}

// shown is how many choices are offered at once.
const shown = 5

func entryName(p *Pass) {
	if p.Draft == nil || p.Draft.Query() == "" {
		return
	}
	f := Finding{
		Severity: Check, Field: channel.FieldReceive, Title: fmt.Sprintf("No listing has %q", p.Draft.Query()),
		Message: "Type the frequency the repeater sends on, its output, in MHz, such as 147.24.",
	}
	seen := map[int]bool{}
	for _, m := range p.Outputs {
		c, err := m.Record.Channel(p.Plan)
		if seen[m.Repeater] || err != nil || len(f.Fixes) == shown {
			continue
		}
		seen[m.Repeater] = true
		f.Fixes = append(f.Fixes, Remedy{Label: fmt.Sprintf("%s %s, %s", m.Title(), describeChannel(c), away(m)), Patch: channel.Diff(p.Channel, c), Result: c})
		f.Why = append(f.Why, Reason{"published", fmt.Sprintf("%s: %s, %s", p.cite(m), describeChannel(c), away(m))})
	}
	switch n := len(f.Fixes); {
	case n == 1:
		f.Title, f.Message = "One published repeater is called so", "Take it to fill the line."
	case n > 1:
		f.Title, f.Message = fmt.Sprintf("%d published repeaters are called so", n), "The nearest comes first. Take one to fill the line."
	case len(p.Outputs) > 0:
		f.Title, f.Message = fmt.Sprintf("What is called %q is not for an FM channel", p.Draft.Query()), "It is digital only, or no listing says where it listens."
	}
	p.Report(f)
}

func entryLines(p *Pass) {
	if p.Draft == nil || len(p.Draft.Offers) == 0 {
		return
	}
	f := Finding{
		Severity: Check, Field: channel.FieldReceive, Title: fmt.Sprintf("These are %d lines", len(p.Draft.Offers)),
		Message: "Each is a channel of its own. Take them one at a time.",
	}
	for _, o := range p.Draft.Offers[:min(shown, len(p.Draft.Offers))] {
		f.Fixes = append(f.Fixes, Remedy{Label: o.Line, Patch: channel.Diff(p.Channel, o.Channel), Result: o.Channel})
	}
	p.Report(f)
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
