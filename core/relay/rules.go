package relay

import (
	"fmt"
	"slices"

	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/evidence"
	"mnemos/core/freq"
)

const practice = "common practice, no source"

// Rule is one rule of relaying.
type Rule struct {
	ID     string
	Title  string // what it is about
	Doc    string // what it looks at and why, for operators
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

// pass is one run of the rules over one set-up.
type pass struct {
	Setup
	report   *Report
	rule     *Rule
	findings []Finding
}

func (p *pass) run() {
	for i := range Rules {
		p.rule = &Rules[i]
		p.rule.Run(p)
	}
	gravest(p.findings)
}

func (p *pass) report1(f Finding) {
	f.Rule = p.rule.ID
	if f.Source == "" {
		f.Source = p.rule.Source
	}
	for i := range f.Fixes {
		f.Fixes[i].ID = fmt.Sprintf("%s-%s-%d", f.Rule, f.Side, i)
	}
	p.findings = append(p.findings, f)
}

// verdict is that of the whole: the gravest that was found, and unverified where an end is
// unknown.
func (p *pass) verdict() evidence.Verdict {
	has := func(s check.Severity) bool {
		return slices.ContainsFunc(p.findings, func(f Finding) bool { return f.Severity == s })
	}
	switch {
	case has(check.Stop):
		return evidence.Stop
	case has(check.Fix):
		return evidence.Conflict
	case has(check.Check):
		return evidence.Unverified
	}
	return evidence.Agrees
}

// each runs a rule over both sides.
func (p *pass) each(f func(letter string, side Side)) {
	for _, letter := range []string{"A", "B"} {
		if side := p.side(letter); side.Channel.Receive > 0 {
			f(letter, side)
		}
	}
}

// on makes a fix of a side's channel.
func on(letter, label string, c channel.Channel) Fix {
	if letter == "A" {
		return Fix{Label: label, A: &c}
	}
	return Fix{Label: label, B: &c}
}

// frequencies are those on which a side hears and sends.
func (s Side) frequencies() []freq.Hz {
	out := []freq.Hz{s.Channel.Receive}
	if tx, ok := s.sends(); ok && tx != out[0] {
		out = append(out, tx)
	}
	return out
}

// Rules are all rules, in the order in which they run.
var Rules = slices.Concat(radioRules, sideRules, linkRules, runRules)
