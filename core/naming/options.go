package naming

import (
	"cmp"
	"slices"
	"strings"
	"unicode"

	"mnemos/core/radio"
)

// part is a word of a name, or a run of figures.
type part struct {
	text    string
	figures bool
	joined  bool // no space before it
}

// parse parts a name into words and figures: "Walk 12" and "R7" have one of each.
func parse(clean string) (out []part) {
	for _, word := range strings.Fields(clean) {
		joined := false
		for word != "" {
			figures := unicode.IsDigit([]rune(word)[0])
			end := strings.IndexFunc(word, func(r rune) bool { return unicode.IsDigit(r) != figures })
			if end < 0 {
				end = len(word)
			}
			out = append(out, part{word[:end], figures, joined})
			word, joined = word[end:], true
		}
	}
	return out
}

// tells says which words tell a name apart from the others of its group: the
// earliest word that no other name has; where there is none, all of its words.
// Figures always do.
func (g Group) tells(parts []part) []bool {
	out := make([]bool, len(parts))
	for i, p := range parts {
		if p.figures {
			out[i] = true
		}
	}
	for i, p := range parts {
		if !p.figures && g[strings.ToLower(p.text)] <= 1 {
			out[i] = true
			return out
		}
	}
	for i := range parts {
		out[i] = true
	}
	return out
}

// What it costs to read a name that lacks something, in letters that a reader has
// to guess. Weighed by hand on names of hills and harbours; common practice, no
// source.
const (
	vowelLost     = 0.5  // inside a word
	consonantLost = 1.2  // at its end
	wordLost      = 1.5  // one that others have too
	wordInitial   = 1.04 // its first letter alone, behind the word that tells the name apart
	wordBefore    = 0.9  // and before it, where people begin to read
	unevenly      = 0.1  // cut where a whole word was left out beside it
	glued         = 0.02 // no space where there was one
)

// option is a short name and what it costs to read.
type option struct {
	text string
	cost float64
}

// most is how many options are looked at.
const most = 400

// Options are short names for a name, the most readable first. Every one has all
// figures and begins each word that tells the name apart; where that cannot be,
// there is none.
func (g Group) Options(name string, limits radio.Names) []string {
	clean := Clean(name, limits.Characters)
	if clean == "" {
		return nil
	}
	if count(clean) <= limits.Length {
		out := []string{clean}
		if flat := strings.ReplaceAll(clean, " ", ""); flat != clean {
			out = append(out, flat)
		}
		return append(out, g.shortened(clean, name, limits.Length, out...)...)
	}
	return g.shortened(clean, name, limits.Length)
}

func (g Group) shortened(clean, name string, length int, have ...string) []string {
	parts := parse(clean)
	tells := g.tells(parse(name))
	if len(tells) != len(parts) { // a word was left out, of characters that cannot be shown
		tells = g.tells(parts)
	}
	var found []option
	var build func(i int, text string, used int, cost float64, cut, lost bool)
	build = func(i int, text string, used int, cost float64, cut, lost bool) {
		if used > length || len(found) >= most {
			return
		}
		if i == len(parts) {
			if text == "" {
				return
			}
			if cut && lost {
				cost += unevenly
			}
			found = append(found, option{text, cost})
			return
		}
		for _, f := range forms(parts[i], tells[i], slices.Contains(tells[:i], true), length-used) {
			apart := f.text != "" && text != "" && !parts[i].joined
			n := count(f.text)
			lost, cut := lost || f.text == "", cut || f.cut
			if apart && used+n+1 <= length && room(parts[i+1:], tells[i+1:]) <= length-used-n-1 {
				build(i+1, text+" "+f.text, used+n+1, cost+f.cost, cut, lost)
			}
			if apart {
				f.cost += glued
			}
			build(i+1, text+f.text, used+n, cost+f.cost, cut, lost)
		}
	}
	build(0, "", 0, 0, false, false)
	slices.SortStableFunc(found, func(a, b option) int {
		return cmp.Or(cmp.Compare(a.cost, b.cost), -cmp.Compare(count(a.text), count(b.text)))
	})
	var out []string
	seen := map[string]bool{}
	for _, s := range have {
		seen[s] = true
	}
	for _, o := range found {
		if !seen[o.text] {
			seen[o.text] = true
			out = append(out, o.text)
		}
	}
	return out
}

// room is what parts need at least.
func room(parts []part, tells []bool) (n int) {
	for i, p := range parts {
		switch {
		case p.figures:
			n += count(p.text)
		case tells[i]:
			n++
		}
	}
	return n
}

// form is a way to write a part.
type form struct {
	text string
	cost float64
	cut  bool
}

// forms are the ways to write a part in some room, whole first.
func forms(p part, tells, behind bool, room int) (out []form) {
	n := count(p.text)
	if n <= room {
		out = append(out, form{text: p.text})
	}
	switch {
	case p.figures:
		return out
	case !tells:
		initial := form{string([]rune(p.text)[:1]), wordBefore, false}
		if behind {
			initial.cost = wordInitial
		}
		return append(out, initial, form{"", wordLost, false})
	}
	// Vowels go from the end on, then letters from the end.
	rs, cost := []rune(p.text), 0.0
	for len(rs) > 1 {
		if i := lastVowel(rs); i > 0 {
			rs = slices.Delete(slices.Clone(rs), i, i+1)
			cost += vowelLost
		} else {
			rs = rs[:len(rs)-1]
			cost += consonantLost
		}
		if len(rs) <= room {
			out = append(out, form{string(rs), cost, true})
		}
	}
	return out
}

// vowels are those of the scripts that displays show.
const vowels = "AEIOUaeiouАЕЁИОУЫЭЮЯаеёиоуыэюяΑΕΗΙΟΥΩαεηιουω"

func lastVowel(rs []rune) int {
	for i := len(rs) - 1; i > 0; i-- {
		if strings.ContainsRune(vowels, rs[i]) {
			return i
		}
	}
	return 0
}

// Keeps reports whether a short name has every figure of a name, in order, and
// begins each word that tells it apart from the others of its group.
func (g Group) Keeps(short, name string, limits radio.Names) bool {
	parts := parse(Clean(name, limits.Characters))
	tells := g.tells(parts)
	rest := []rune(short)
	for i, p := range parts {
		need := []rune(p.text)
		if !p.figures {
			need = need[:1]
		}
		if !tells[i] {
			continue
		}
		for _, r := range need {
			at := slices.Index(rest, r)
			if at < 0 {
				return false
			}
			rest = rest[at+1:]
		}
	}
	return true
}

// All names several channels at once. What is there already stays: have is the
// short name of each, or "" where it is to get one. Names that fit as they are
// come first, because nobody reads another one in their place.
func (g Group) All(names, have []string, limits radio.Names) []string {
	out := slices.Clone(have)
	taken := map[string]bool{}
	for _, s := range have {
		taken[s] = s != ""
	}
	for _, whole := range []bool{true, false} {
		for i, name := range names {
			clean := Clean(name, limits.Characters)
			if out[i] != "" || clean == "" || whole && (count(clean) > limits.Length || taken[clean]) {
				continue
			}
			out[i] = clean
			if !whole {
				out[i] = g.Short(name, limits, func(s string) bool { return taken[s] })
			}
			taken[out[i]] = true
		}
	}
	return out
}
