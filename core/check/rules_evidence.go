package check

import (
	"fmt"
	"slices"

	"mnemos/core/evidence"
)

var evidenceRules = []Rule{
	{
		ID: "evidence-differs", Title: "A witness says otherwise",
		Doc:     "A field of the channel differs from what is published, or from the band plan, and no other rule has said so. A verdict of conflict always has its reason among the findings.",
		Source:  "the published record; the band plan of the region",
		Example: "146.94 -612 88.5",
		Run:     evidenceDiffers,
	},
}

// evidenceDiffers runs last: it speaks where nothing else has.
func evidenceDiffers(p *Pass) {
	for _, r := range p.rows {
		said := slices.ContainsFunc(p.findings, func(f Finding) bool { return f.Severity != Note && !byID[f.Rule].Aside })
		if r.Mark != evidence.FieldDiffers || said {
			continue
		}
		f := Finding{Severity: Check, Field: r.Field, Why: []Reason{{"entered", r.Entered.Text}}}
		switch {
		case r.Published.Text != "":
			f.Title = fmt.Sprintf("The listing says %s", r.Published.Text)
			f.Why = append(f.Why, Reason{"published", p.cite(*p.Meant) + ": " + r.Published.Text})
		default:
			f.Title = fmt.Sprintf("The band plan says %s", r.Plan.Text)
			f.Why = append(f.Why, Reason{"band plan", r.Plan.Text})
		}
		f.Message = fmt.Sprintf("The channel has %s. Check which one is meant.", r.Entered.Text)
		p.Report(f)
	}
}
