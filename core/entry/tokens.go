package entry

import (
	"slices"
	"strings"
	"unicode"
)

// token is a piece of the line that a pattern can name: a word, a number, a
// sign, a slash, a quoted text.
type token struct {
	text       string // as typed, without quotes and brackets
	low        string // lower case, without apostrophes
	start, end int    // code points in the line
	quoted     bool
	glued      bool // nothing stands between it and the token before
	cell       bool // a bar, tab, comma or semicolon stands before it
	labelled   bool // a colon or equals sign stands behind it
	listed     bool // a point or bracket stands behind it, as behind the number of a list
}

func (t token) number() bool {
	digits := strings.TrimPrefix(t.low, ".")
	return !t.quoted && digits != "" && digits[0] >= '0' && digits[0] <= '9'
}

func (t token) sign() bool { return !t.quoted && (t.low == "+" || t.low == "-") }

// whole reports whether t is digits and nothing else.
func (t token) whole() bool {
	return !t.quoted && t.low != "" && strings.Trim(t.low, "0123456789") == ""
}

// word reports whether t is letters, and so may belong to a name.
func (t token) word() bool {
	return !t.quoted && strings.ContainsFunc(t.text, unicode.IsLetter) && !t.number()
}

// title reports whether t is written as a name is: one capital, then small
// letters.
func (t token) title() bool {
	r := []rune(t.text)
	return t.word() && len(r) > 1 && unicode.IsUpper(r[0]) && strings.ContainsFunc(string(r[1:]), unicode.IsLower)
}

// tokens takes a line apart. Line breaks are the business of Read.
func tokens(line string) []token {
	runes := []rune(line)
	if len(runes) > MaxLength {
		runes = runes[:MaxLength]
	}
	t := tokenizer{runes: runes, commas: commasPart(string(runes))}
	for t.at < len(runes) {
		switch r := runes[t.at]; {
		case r == '\t' || r == '|' || r == ';' || r == ',' && t.between(t.at):
			t.cell = true
			t.at++
		case unicode.IsSpace(r):
			t.at++
		case t.opensQuote():
			t.quote()
		default:
			t.chunk()
		}
	}
	return t.out
}

type tokenizer struct {
	runes  []rune
	at     int
	commas bool // commas part cells, and are no decimal commas
	cell   bool
	out    []token
}

// commasPart reports whether the commas of a line stand between cells. One
// comma between figures is a decimal comma; where there are several without a
// space behind them, or points beside them, they part.
func commasPart(line string) bool {
	for _, chunk := range strings.Fields(line) {
		if i := strings.IndexByte(chunk, ','); i > 0 && i+1 < len(chunk) && strings.Contains(chunk, ".") {
			return true // a number has one or the other
		}
	}
	inside := 0 // between two characters that are no space
	for i := 1; i+1 < len(line); i++ {
		if line[i] == ',' && line[i-1] != ' ' && line[i+1] != ' ' {
			inside++
		}
	}
	return inside >= 2 && (strings.Contains(line, ".") || !strings.Contains(line, " "))
}

// between reports whether the comma at i parts two cells.
func (t *tokenizer) between(i int) bool {
	if t.commas {
		return true
	}
	figure := func(i int) bool { return i >= 0 && i < len(t.runes) && t.runes[i] >= '0' && t.runes[i] <= '9' }
	return !figure(i-1) || !figure(i+1)
}

func isQuote(r rune) bool { return r == '"' || r == '“' || r == '”' || r == '„' }

// opensQuote reports whether a quoted text begins here; a single quote opens
// one only at the start of a word that another closes.
func (t *tokenizer) opensQuote() bool {
	r := t.runes[t.at]
	if isQuote(r) {
		return true
	}
	if r != '\'' && r != '‘' || t.at > 0 && !unicode.IsSpace(t.runes[t.at-1]) {
		return false
	}
	for i := t.at + 2; i < len(t.runes); i++ {
		if (t.runes[i] == '\'' || t.runes[i] == '’') && (i+1 == len(t.runes) || unicode.IsSpace(t.runes[i+1])) {
			return true
		}
	}
	return false
}

func (t *tokenizer) quote() {
	start := t.at
	closes := isQuote
	if !isQuote(t.runes[start]) {
		closes = func(r rune) bool { return r == '\'' || r == '’' }
	}
	var b strings.Builder
	i := start + 1
	for ; i < len(t.runes); i++ {
		if closes(t.runes[i]) {
			if i+1 >= len(t.runes) || t.runes[i+1] != t.runes[i] || !isQuote(t.runes[i]) {
				break
			}
			i++ // a doubled quote stands for one
		}
		b.WriteRune(t.runes[i])
	}
	t.at = min(i+1, len(t.runes))
	text := strings.TrimSpace(b.String())
	// A sign in quotes between two cells is a cell, not a name.
	if in := t.cell || t.at < len(t.runes) && t.runes[t.at] == ','; in && (text == "+" || text == "-") {
		t.add(text, start, t.at, false)
		return
	}
	t.add(text, start, t.at, true)
}

func (t *tokenizer) add(text string, start, end int, quoted bool) {
	k := token{text: text, start: start, end: end, quoted: quoted, cell: t.cell}
	t.cell = false
	if !quoted {
		k.low = normal(text)
		if k.number() {
			k.low = figuresOf(k.low)
		}
	}
	if n := len(t.out); n > 0 {
		k.glued = t.out[n-1].end == start && !k.cell
	}
	t.out = append(t.out, k)
}

// normal is a word as the patterns spell it: small letters, plain signs, no
// apostrophes.
func normal(s string) string {
	return strings.NewReplacer("−", "-", "–", "-", "—", "-", "＋", "+", "'", "", "’", "").Replace(strings.ToLower(s))
}

// figuresOf writes a number with a point and without grouping: "146,94",
// "146'520", "146.940.000".
func figuresOf(s string) string {
	s = strings.NewReplacer(",", ".", "_", "").Replace(s)
	if parts := strings.Split(s, "."); len(parts) > 2 {
		for _, p := range parts[1:] {
			if len(p) != 3 {
				return s // no grouping: nothing reads it
			}
		}
		return parts[0] + "." + strings.Join(parts[1:], "")
	}
	return s
}

const opening, closing = "([{<", ")]}>"

// chunk reads what stands between two spaces.
func (t *tokenizer) chunk() {
	from := t.at
	to := from
	for to < len(t.runes) && !unicode.IsSpace(t.runes[to]) && t.runes[to] != '|' && t.runes[to] != ';' && !isQuote(t.runes[to]) && (t.runes[to] != ',' || !t.between(to)) {
		to++
	}
	t.at = to
	for from < to && strings.ContainsRune(opening+"@*~", t.runes[from]) {
		from++
	}
	end := to
	labelled, listed := false, false
	for end > from && strings.ContainsRune(closing+".:=!?*", t.runes[end-1]) {
		end--
		switch t.runes[end] {
		case ':', '=':
			labelled = true
		case '.', ')':
			listed = true
		}
	}
	if end == from { // nothing but punctuation
		switch text := string(t.runes[from:to]); {
		case strings.Trim(text, opening+closing+".,:=*") != "":
			t.add(text, from, to, false)
		case len(t.out) > 0 && strings.ContainsAny(text, ":="):
			t.out[len(t.out)-1].labelled = true
		}
		return
	}
	if text := string(t.runes[from:end]); strings.Trim(text, "/") == "" && len(text) > 1 || text == "--" {
		t.cell = true
		return
	}
	at := from
	for _, cut := range append(cuts(t.runes[from:end]), end-from) {
		if text := t.runes[at : from+cut]; len(text) > 0 {
			if s := string(text); s != ":" && s != "=" {
				t.add(s, at, from+cut, false)
			} else if n := len(t.out); n > 0 {
				t.out[n-1].labelled = true
			}
		}
		at = from + cut
	}
	last := &t.out[len(t.out)-1]
	last.labelled, last.listed = last.labelled || labelled, listed
}

// cuts says where a chunk is taken apart: "147.24+", "146.94-600", "100/77",
// "600kHz", "ts103.5", "f=146.52" are several tokens; "T-SQL", "Net-2" and
// "QX1BHL/R" are one.
func cuts(chunk []rune) []int {
	text := normal(string(chunk))
	if literals()[text] || joining[text] || callsign(text) {
		return nil
	}
	var at []int
	cut := func(i int) {
		if i > 0 && i < len(chunk) && !slices.Contains(at, i) {
			at = append(at, i)
		}
	}
	digit := func(i int) bool { return i >= 0 && i < len(chunk) && chunk[i] >= '0' && chunk[i] <= '9' }
	letter := func(i int) bool { return i >= 0 && i < len(chunk) && unicode.IsLetter(chunk[i]) }
	begin := 0 // of the run of letters and figures
	for i, r := range chunk {
		switch {
		case strings.ContainsRune("+-−–—＋", r):
			// A hyphen between letters, or a letter and a figure, belongs to the
			// word; behind a word that takes a sign it is one.
			before := normal(string(chunk[begin:i]))
			inWord := letter(i-1) && !literals()[before] && !unitWord(before) && i+1 < len(chunk)
			if !inWord {
				cut(i)
				cut(i + 1)
				begin = i + 1
			}
		case r == '/' || r == ':' || r == '=' || r == '#':
			cut(i)
			cut(i + 1)
			begin = i + 1
		case letter(i) && digit(i-1):
			end := i
			for letter(end) {
				end++
			}
			if isFigures(chunk[begin:i]) && unitWord(normal(string(chunk[i:end]))) && (end == len(chunk) || !digit(end)) {
				cut(i)
				begin = i
			}
		case digit(i) && letter(i-1) && !isFigures(chunk[begin:i]):
			if takesFigures(normal(string(chunk[begin:i])), normal(string(chunk[i:]))) {
				cut(i)
				begin = i
			}
		}
	}
	slices.Sort(at)
	return at
}

func isFigures(r []rune) bool {
	return len(r) > 0 && strings.Trim(string(r), "0123456789.,'_") == ""
}
