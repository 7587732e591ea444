package entry

import (
	"slices"
	"strings"
	"sync"

	"mnemos/core/freq"
	"mnemos/core/tone"
)

// Pattern is one way to write something: its spellings, what it means, and how
// readily it is believed. The table of them (Patterns) is the grammar;
// docs/entry-line.md is printed from it.
//
// A form is a list of parts: a word or several with bars between, a set of
// words in braces (see sets), or something to be read in angle brackets (see
// slots). A question mark behind a part makes it optional.
type Pattern struct {
	ID      string
	Group   string // the heading it stands under in the docs
	Forms   []string
	As      As
	Cost    int
	Meaning string
	Example string // a whole line in which it is used, read with the US plan
	take    func(s *state, v []value) bool
	problem func(r *reading, v []value) string // for what is understood well enough to say what is wrong
}

// Spellings are the forms with every word written out.
func (p Pattern) Spellings() []string {
	out := make([]string, len(p.Forms))
	for i, f := range p.Forms {
		for name, list := range sets {
			f = strings.ReplaceAll(f, "{"+name+"}", list)
		}
		out[i] = f
	}
	return out
}

// Costs. They order the readings of a word; their sums order the readings of
// a line. Common practice, no source.
const (
	sure       = 0
	likely     = 1
	possible   = 2
	doubted    = 3
	remote     = 5
	refused    = 20 // both can be read, and not together
	unreadable = 50
	ambiguous  = 2 // two readings of a line closer than this are both shown
)

// value is what a slot of a form has read.
type value struct {
	hz      freq.Hz
	tone    tone.Tone
	sign    int
	size    freq.Offset
	n       int
	text    string
	late    bool // only behind the receive frequency: a bare 100 before it is rather a slot
	cost    int
	guess   string
	problem string
}

// part is one part of a form.
type part struct {
	words    map[string]bool
	slot     string
	optional bool
}

// form is a spelling of a pattern, taken apart.
type form struct {
	pattern *Pattern
	parts   []part
}

// grammar is the table of patterns, found by the word that a form begins with;
// what begins with a slot stands under "".
var grammar = sync.OnceValue(func() map[string][]form {
	out := map[string][]form{}
	for i := range Patterns {
		p := &Patterns[i]
		for _, text := range p.Forms {
			for parts := compile(text); ; parts = parts[1:] {
				first := parts[0]
				if first.slot != "" {
					out[""] = append(out[""], form{p, parts})
				}
				required := slices.Clone(parts)
				required[0].optional = false
				for w := range first.words {
					out[w] = append(out[w], form{p, required})
				}
				if !first.optional {
					break
				}
			}
		}
	}
	return out
})

func compile(text string) []part {
	var out []part
	for _, text := range strings.Fields(text) {
		text, optional := strings.CutSuffix(text, "?")
		if text[0] == '<' {
			out = append(out, part{slot: strings.Trim(text, "<>"), optional: optional})
			continue
		}
		p := part{words: map[string]bool{}, optional: optional}
		for w := range strings.SplitSeq(text, "|") {
			if w[0] != '{' {
				p.words[w] = true
				continue
			}
			list, known := sets[strings.Trim(w, "{}")]
			if !known {
				panic("entry: no set " + w + " in form " + text)
			}
			for s := range strings.SplitSeq(list, "|") {
				p.words[s] = true
			}
		}
		out = append(out, p)
	}
	return out
}

// edge is one reading of some tokens.
type edge struct {
	pattern *Pattern
	n       int // how many tokens
	v       []value
	cost    int
	problem string
}

// guess and says are what the slots say about the reading.
func (e *edge) guess() string {
	for _, v := range e.v {
		if v.guess != "" {
			return v.guess
		}
	}
	return ""
}

func (e *edge) says(r *reading) string {
	for _, v := range e.v {
		if v.problem != "" {
			return v.problem
		}
	}
	if e.pattern.problem != nil {
		return e.pattern.problem(r, e.v)
	}
	return ""
}

// edges are all readings that begin at a token.
func (r *reading) edges(at int) []edge {
	var out []edge
	add := func(forms []form) {
		for _, f := range forms {
			r.match(f.parts, at, nil, func(n int, v []value) {
				e := edge{pattern: f.pattern, n: n - at, v: v, cost: f.pattern.Cost}
				for _, x := range v {
					e.cost += x.cost
				}
				e.cost += r.titled(f.pattern, at, n)
				e.problem = e.says(r)
				out = append(out, e)
			})
		}
	}
	add(grammar()[""])
	if t := r.tokens[at]; !t.quoted && t.low != "" {
		add(grammar()[t.low])
	}
	return out
}

// titled is what a setting costs more where its capital makes it look like
// part of a name: "High Ridge", "Monitor Rock".
func (r *reading) titled(p *Pattern, at, to int) int {
	if to-at != 1 || !r.tokens[at].title() || r.tokens[at].labelled {
		return 0
	}
	beside := false
	for _, i := range []int{at - 1, to} {
		if i < 0 || i >= len(r.tokens) {
			continue
		}
		t := r.tokens[i]
		plain := t.title() && !literals()[t.low] && !labels[t.low] && !joining[t.low] && !callsign(t.low)
		beside = beside || plain && !(i == to && t.cell) && !(i < at && (r.tokens[at].cell || t.labelled))
	}
	if !beside {
		return 0
	}
	switch p.As {
	case AsPower, AsScan, AsWidth, AsAccess, AsJoins:
		return remote
	case AsName, AsCallsign:
		return 0
	}
	return likely
}

// match calls found for every way in which the parts read the tokens from at.
func (r *reading) match(parts []part, at int, v []value, found func(end int, v []value)) {
	if len(parts) == 0 {
		found(at, v)
		return
	}
	p := parts[0]
	if p.optional {
		r.match(parts[1:], at, v, found)
	}
	if at >= len(r.tokens) {
		return
	}
	if p.slot == "" {
		if t := r.tokens[at]; !t.quoted && p.words[t.low] {
			r.match(parts[1:], at+1, v, found)
		}
		return
	}
	slots[p.slot](r, at, func(n int, x value) {
		r.match(parts[1:], at+n, append(v[:len(v):len(v)], x), found)
	})
}
