package entry

import (
	"strconv"
	"strings"
)

// Words for figures, as they are spoken and dictated.
var (
	digitWords = map[string]int{
		"zero": 0, "oh": 0, "one": 1, "two": 2, "three": 3, "tree": 3, "four": 4, "fower": 4, "five": 5, "fife": 5,
		"six": 6, "seven": 7, "eight": 8, "nine": 9, "niner": 9,
	}
	teenWords = map[string]int{
		"ten": 10, "eleven": 11, "twelve": 12, "thirteen": 13, "fourteen": 14, "fifteen": 15, "sixteen": 16, "seventeen": 17,
		"eighteen": 18, "nineteen": 19,
	}
	tensWords  = map[string]int{"twenty": 20, "thirty": 30, "forty": 40, "fifty": 50, "sixty": 60, "seventy": 70, "eighty": 80, "ninety": 90}
	pointWords = map[string]bool{"point": true, "decimal": true, "dot": true}
)

// spoken joins runs of figures in words to numbers: "one four six point nine
// four" is 146.94, "ninety four point eight" is 94.8. A single word stays what
// it is, because it is likelier to belong to a name.
func spoken(ts []token) []token {
	var out []token
	for i := 0; i < len(ts); {
		text, n := spokenNumber(ts[i:])
		if n < 2 && i+2 < len(ts) && ts[i].whole() && pointWords[ts[i+1].low] && ts[i+2].whole() {
			text, n = ts[i].low+"."+ts[i+2].low, 3 // "146 point 94"
		}
		if n < 2 {
			out = append(out, ts[i])
			i++
			continue
		}
		last := ts[i+n-1]
		out = append(out, token{text: text, low: text, start: ts[i].start, end: last.end, cell: ts[i].cell, glued: ts[i].glued, labelled: last.labelled})
		i += n
	}
	return out
}

// spokenNumber reads a number in words at the start of the tokens and says
// how many it takes.
func spokenNumber(ts []token) (text string, n int) {
	var b strings.Builder
	pointed := false
	for n < len(ts) && !ts[n].quoted {
		w := ts[n].low
		next := ""
		if n+1 < len(ts) {
			next = ts[n+1].low
		}
		switch digit, ok := digitWords[w]; {
		case ok && next == "hundred":
			b.WriteString(strconv.Itoa(digit))
			n += 2
			b.WriteString(belowHundred(ts, &n))
			continue
		case ok:
			b.WriteString(strconv.Itoa(digit))
		case teenWords[w] != 0:
			b.WriteString(strconv.Itoa(teenWords[w]))
		case tensWords[w] != 0:
			tens := tensWords[w]
			if one, ok := digitWords[next]; ok && one > 0 {
				tens += one
				n++
			}
			b.WriteString(strconv.Itoa(tens))
		case pointWords[w] && !pointed && b.Len() > 0:
			pointed = true
			b.WriteByte('.')
		default:
			return strings.TrimSuffix(b.String(), "."), n
		}
		n++
	}
	return strings.TrimSuffix(b.String(), "."), n
}

// belowHundred reads what follows "hundred" as two figures: "one hundred
// three" is 103, "one hundred" is 100.
func belowHundred(ts []token, n *int) string {
	for *n < len(ts) && strings.EqualFold(ts[*n].text, "and") {
		*n++
	}
	v := 0
	if *n < len(ts) && !ts[*n].quoted {
		w := ts[*n].low
		switch {
		case teenWords[w] != 0:
			v = teenWords[w]
			*n++
		case tensWords[w] != 0:
			v = tensWords[w]
			*n++
			if *n < len(ts) {
				if one := digitWords[ts[*n].low]; one > 0 {
					v += one
					*n++
				}
			}
		case digitWords[w] != 0:
			v = digitWords[w]
			*n++
		}
	}
	return strconv.Itoa(100 + v)[1:]
}
