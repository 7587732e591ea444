package beacon

import (
	"slices"

	"mnemos/core/aprs"
	"mnemos/core/ax25"
	"mnemos/core/check"
	"mnemos/core/evidence"
)

// Fix sets some settings anew.
type Fix struct {
	Label string
	Set   map[string]any
}

// Finding is what a rule has to say.
type Finding struct {
	Rule     string
	Severity check.Severity
	Title    string
	Message  string
	Source   string
	Why      []check.Reason
	Fixes    []Fix
}

// Rule is one rule of beaconing.
type Rule struct {
	ID     string
	Title  string
	Doc    string
	Source string
	Run    func(*pass)
}

// About is what the rule of a finding looks at, and why.
func (f Finding) About() string {
	for _, r := range Rules {
		if r.ID == f.Rule {
			return r.Doc
		}
	}
	return ""
}

type pass struct {
	Station
	Around

	r        *Report
	rule     *Rule
	findings []Finding
}

func (p *pass) run() {
	for i := range Rules {
		p.rule = &Rules[i]
		p.rule.Run(p)
	}
	rank := map[check.Severity]int{check.Stop: 0, check.Fix: 1, check.Check: 2, check.Note: 3}
	slices.SortStableFunc(p.findings, func(a, b Finding) int { return rank[a.Severity] - rank[b.Severity] })
}

func (p *pass) say(severity check.Severity, title, message string, fixes ...Fix) {
	p.findings = append(p.findings, Finding{Rule: p.rule.ID, Severity: severity, Title: title, Message: message, Source: p.rule.Source, Fixes: fixes})
}

func (p *pass) verdict() evidence.Verdict {
	worst := check.Note
	for _, f := range p.findings {
		if f.Severity == check.Stop {
			return evidence.Stop
		}
		if f.Severity == check.Fix || f.Severity == check.Check && worst == check.Note {
			worst = f.Severity
		}
	}
	return map[check.Severity]evidence.Verdict{check.Fix: evidence.Conflict, check.Check: evidence.Unverified, check.Note: evidence.Agrees}[worst]
}

func set(label string, pairs ...any) Fix {
	f := Fix{label, map[string]any{}}
	for i := 0; i < len(pairs); i += 2 {
		f.Set[pairs[i].(string)] = pairs[i+1]
	}
	return f
}

// path is the path as it is read, or nil.
func (p *pass) path() []ax25.Address {
	out, err := aprs.ParsePath(p.Path)
	if err != nil {
		return nil
	}
	return out
}
