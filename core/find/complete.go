package find

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"mnemos/core/freq"
)

// Completion is what somebody may be about to type.
type Completion struct {
	From, To int    // the characters of the line that it replaces
	Text     string // what stands there then
	Says     string // what it means
}

// enough is how many names are looked at for a completion: of more that begin
// alike nobody can choose.
const enough = 10_000

// listed is how many of those are looked at closely: many have one name.
const listed = 100

// Complete returns what the word before the caret may become, the likeliest
// first.
func (b *Book) Complete(line string, caret int, s *Scene, most int) []Completion {
	runes := []rune(line)
	caret = max(0, min(caret, len(runes)))
	before := tokens(string(runes[:caret]))
	t := token{from: caret, to: caret}
	if n := len(before); n > 0 && before[n-1].to == caret {
		t, before = before[n-1], before[:n-1]
	}
	placing := len(before) > 0 && slices.Contains([]string{"near", "around"}, before[len(before)-1].text)
	var out []Completion
	add := func(text, says string) {
		if len(out) < most && fold(text) != t.text && !slices.ContainsFunc(out, func(c Completion) bool { return c.Text == text }) {
			out = append(out, Completion{t.from, caret, text, says})
		}
	}
	if !placing && !t.quoted {
		for _, c := range b.words(t.text, s) {
			add(c.Text, c.Says)
		}
	}
	if placing {
		for _, m := range s.Marks {
			if strings.HasPrefix(fold(m.Name), t.text) {
				add(m.Name, "named by you")
			}
		}
	}
	if t.text != "" {
		for _, e := range b.begun(t.text, s, placing) {
			add(e.Text, e.Says)
		}
	}
	return out[:min(most, len(out))]
}

// words are the words of the language that begin so: with nothing typed the
// ones that people need first.
func (b *Book) words(text string, s *Scene) []Completion {
	var out []Completion
	if text == "" {
		for _, w := range []string{"missing", "held", "agreed", "this-year", "open", "differ"} {
			i := slices.IndexFunc(Choices, func(c Choice) bool { return c.Word == w })
			out = append(out, Completion{Text: w, Says: s.radioIn(Choices[i].As)})
		}
		return append(out, Completion{Text: "60km", Says: "within 60 km"})
	}
	for _, c := range Choices {
		if strings.HasPrefix(c.Word, text) {
			out = append(out, Completion{Text: c.Word, Says: s.radioIn(c.As)})
		}
	}
	for _, x := range s.Band.Bands {
		if name := bandWord(&x); strings.HasPrefix(name, text) {
			out = append(out, Completion{Text: name, Says: "band"})
		}
	}
	for _, x := range b.sources {
		if strings.HasPrefix(fold(x), text) {
			out = append(out, Completion{Text: x, Says: "listing"})
		}
	}
	for _, d := range directions {
		if strings.HasPrefix(d, text) {
			out = append(out, Completion{Text: d, Says: "direction"})
		}
	}
	if strings.HasPrefix("near", text) {
		out = append(out, Completion{Text: "near ", Says: "look around from another place"})
	}
	if strings.Trim(text, "0123456789") == "" && len(text) < 4 {
		out = append(out, Completion{Text: text + "km", Says: "within " + text + " km"})
	}
	return out
}

// begun are the names and the frequencies that begin so, the nearest first.
func (b *Book) begun(text string, s *Scene, places bool) []Completion {
	type hit struct {
		entry int
		title string // "" for a frequency
		km    float64
	}
	var hits []hit
	at := s.origin(&Query{})
	add := func(i int, title string) {
		km := math.MaxFloat64
		if at != nil && b.at[i] != (vector{}) {
			km = roughly(at.at, b.at[i])
		}
		hits = append(hits, hit{i, title, km})
	}
	names := b.named(text)
	for _, n := range names[:min(enough, len(names))] {
		if !places || b.at[n.entry] != (vector{}) && n.title == b.entries[n.entry].Best.Locality {
			add(int(n.entry), n.title)
		}
	}
	for _, x := range beginning(text) {
		if places {
			break
		}
		from, _ := slices.BinarySearchFunc(b.entries, x.Lower, func(e Entry, f freq.Hz) int { return cmp.Compare(e.Best.Output, f) })
		for i := from; i < len(b.entries) && b.entries[i].Best.Output <= x.Upper && i < from+enough; i++ {
			add(i, "")
		}
	}
	slices.SortFunc(hits, func(x, y hit) int {
		return cmp.Or(cmp.Compare(x.km, y.km), cmp.Compare(x.entry, y.entry), cmp.Compare(x.title, y.title))
	})
	var out []Completion
	for _, h := range hits[:min(listed, len(hits))] {
		best := &b.entries[h.entry].Best
		switch {
		case h.title == "":
			out = append(out, Completion{Text: best.Output.MHz(), Says: best.Title()})
		case h.title != best.Locality && best.Locality != "":
			out = append(out, Completion{Text: h.title, Says: best.Locality})
		default:
			out = append(out, Completion{Text: h.title, Says: best.Output.String()})
		}
	}
	return out
}

// Group is a set of words of which a line needs one at most.
type Group struct {
	Name    string
	Choices []Completion
}

// Menu are the words that a line may hold, for those who look before they type.
func (b *Book) Menu(s *Scene) []Group {
	var out []Group
	add := func(group, text, says string) {
		i := slices.IndexFunc(out, func(g Group) bool { return g.Name == group })
		if i < 0 {
			i = len(out)
			out = append(out, Group{Name: group})
		}
		out[i].Choices = append(out[i].Choices, Completion{Text: text, Says: says})
	}
	for _, x := range s.Band.Bands {
		add("band", bandWord(&x), x.Name)
	}
	for _, km := range []string{"20", "60", "150"} {
		add("within", km+"km", "within "+km+" km")
	}
	for _, c := range Choices {
		add(c.Group, c.Word, s.radioIn(c.As))
	}
	for _, d := range directions {
		add("direction", d, d)
	}
	for _, x := range b.sources {
		add("listing", x, x)
	}
	// Those of the plan first: they are why people look.
	slices.SortStableFunc(out, func(x, y Group) int { return cmp.Compare(slices.Index(groups, x.Name), slices.Index(groups, y.Name)) })
	return out
}

// groups is the order of the menu.
var groups = []string{"plan", "band", "within", "listings", "confirmed", "access", "status", "opened by", "mode", "width", "sort", "reach", "direction", "listing", "order"}
