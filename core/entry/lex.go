package entry

import (
	"strings"
	"unicode"

	"mnemos/core/freq"
	"mnemos/core/service"
)

// item is one or more tokens that are read together.
type item struct {
	text       string // as typed
	start, end int
	kind       itemKind
	key        string // keyword in lower case: "tx", "ts", "+", "nfm"
	value      string // what the keyword applies to, or the bare text
	unit       freq.Unit
}

type itemKind int

const (
	number  itemKind = iota // 147.24, 100, 600 kHz
	signed                  // -600, + 600 kHz
	sign                    // + or - alone
	pair                    // 100/77
	keyed                   // tx 147.5, ts 103.5, #14
	word                    // nfm, skip, simplex
	text                    // a name
	watts                   // 5w
	unknown                 // nothing that is known
)

// keywords that take the next token as their value, and what they are.
var keywords = map[string]string{
	"tx": "tx", "transmit": "tx", "input": "tx", "in": "tx", "uplink": "tx",
	"rx": "rx", "receive": "rx", "output": "rx", "out": "rx", "downlink": "rx",
	"ts": "ts", "tsq": "ts", "tsql": "ts", "squelch": "ts", "sq": "ts",
	"tone": "tone", "t": "tone", "enc": "tone", "encode": "tone", "ctcss": "tone", "pl": "tone", "cg": "tone",
	"dec": "dec", "decode": "dec",
	"dcs": "dcs", "dpl": "dcs", "dtcs": "dcs",
	"code": "code", "privacy": "code", "subcode": "code", "sub-code": "code",
	"offset": "shift", "shift": "shift", "slot": "slot", "ch": "slot", "channel": "slot", "memory": "slot", "mem": "slot",
}

// words that stand alone, and what they mean.
var vocabulary = map[string]string{
	"simplex": "simplex", "sx": "simplex", "spx": "simplex", "direct": "simplex",
	"rxonly": "rx only", "rx-only": "rx only", "receive-only": "rx only", "listen": "rx only",
	"nfm": "narrow", "narrow": "narrow", "nbfm": "narrow",
	"wide": "wide", "fm": "wide",
	"low": "low", "mid": "mid", "medium": "mid", "high": "high",
	"skip": "skip", "scan": "scan", "priority": "priority", "prio": "priority",
	"carrier": "no tone", "notone": "no tone", "no-tone": "no tone", "open": "no tone",
	"burst": "burst",
}

var signs = map[string]string{
	"+": "+", "plus": "+", "positive": "+",
	"-": "-", "−": "-", "–": "-", "dash": "-", "minus": "-", "negative": "-", "neg": "-",
}

func lex(line string) []item {
	var items []item
	for ts := spoken(tokens(line)); len(ts) > 0; {
		it, n := next(ts)
		it.start, it.end = ts[0].start, ts[n-1].end
		runes := []rune(line)
		it.text = string(runes[it.start:it.end])
		if last := len(items) - 1; it.kind == text && last >= 0 && items[last].kind == text {
			// Words of a name that follow each other are one name.
			items[last].value = strings.TrimSpace(items[last].value + " " + it.value)
			items[last].text = string(runes[items[last].start:it.end])
			items[last].end = it.end
		} else {
			items = append(items, it)
		}
		ts = ts[n:]
	}
	return items
}

// next takes the item that begins at the first token and says how many tokens
// it is made of.
func next(ts []token) (item, int) {
	t := ts[0]
	low := strings.ToLower(t.text)
	peek := func(i int) string {
		if i < len(ts) && !ts[i].quoted {
			return strings.ToLower(ts[i].text)
		}
		return ""
	}
	if t.quoted {
		return item{kind: text, value: t.text}, 1
	}
	if (low == "rx" || low == "receive") && peek(1) == "only" {
		return item{kind: word, key: "rx only"}, 2
	}
	if low == "no" && peek(1) == "tone" {
		return item{kind: word, key: "no tone"}, 2
	}
	if low == "tone" && keywords[peek(1)] == "ts" {
		if !startsValue(peek(2)) {
			return item{kind: keyed, key: "ts"}, 2
		}
		it, n := keyedItem("ts", ts[2:])
		return it, n + 2
	}
	if keywords[low] == "code" && keywords[peek(1)] == "code" { // "privacy code 12"
		it, n := next(ts[1:])
		return it, n + 1
	}
	if service.Word(low) && peek(1) != "" && strings.Trim(peek(1), "0123456789") == "" {
		return item{kind: keyed, key: "service", value: low + " " + peek(1)}, 2
	}
	if keywords[low] == "shift" && len(ts) > 1 {
		if it, n := next(ts[1:]); it.kind == signed || it.kind == sign || it.kind == number {
			return it, n + 1
		}
	}
	if n := grouped(ts); n > 1 {
		return item{kind: number, value: joined(ts[:n])}, n
	}
	if key, ok := keywords[low]; ok && key != "shift" && startsValue(peek(1)) {
		it, n := keyedItem(key, ts[1:])
		return it, n + 1
	}
	if key := keywords[low]; len(low) > 1 && (key == "ts" || key == "tone" || key == "dec" || key == "dcs") {
		return item{kind: keyed, key: key}, 1 // a tone mode without its tone
	}
	if key, ok := vocabulary[low]; ok {
		return item{kind: word, key: key}, 1
	}
	if key, ok := signs[low]; ok {
		// "- 600 kHz": a number with a unit of shift belongs to the sign.
		if v, unit, n := quantity(ts[1:]); n > 0 && unit >= freq.KHz {
			return item{kind: signed, key: key, value: v, unit: unit}, n + 1
		}
		return item{kind: sign, key: key}, 1
	}
	if rest, ok := strings.CutPrefix(low, "#"); ok {
		return item{kind: keyed, key: "slot", value: rest}, 1
	}
	if a, b, ok := strings.Cut(low, "/"); ok && (startsValue(a) || a == "-" || a == "open") && (startsValue(b) || b == "-" || b == "open") {
		n := 1
		if peek(1) == "hz" {
			n = 2
		}
		return item{kind: pair, value: low}, n
	}
	for _, s := range []string{"+", "-", "−", "–"} {
		if rest, ok := strings.CutPrefix(low, s); ok {
			if v, unit, n := quantity(append([]token{{text: rest}}, ts[1:]...)); n > 0 {
				return item{kind: signed, key: signs[s], value: v, unit: unit}, n
			}
		}
	}
	if v, unit, n := quantity(ts); n > 0 {
		return item{kind: number, value: v, unit: unit}, n
	}
	if code(low) {
		return item{kind: keyed, key: "tone", value: low}, 1
	}
	if w, ok := strings.CutSuffix(low, "w"); ok && w != "" && strings.Trim(w, "0123456789.") == "" {
		return item{kind: watts, value: t.text}, 1
	}
	if hasLetter(t.text) {
		return item{kind: text, value: t.text}, 1
	}
	return item{kind: unknown, value: t.text}, 1
}

// keyedItem reads what follows a keyword; ts begins after it.
func keyedItem(key string, ts []token) (item, int) {
	if a, b, ok := strings.Cut(ts[0].text, "/"); ok && key == "tone" && a != "" && b != "" {
		return item{kind: pair, value: strings.ToLower(ts[0].text)}, 1
	}
	if v, unit, n := quantity(ts); n > 0 {
		return item{kind: keyed, key: key, value: v, unit: unit}, n
	}
	return item{kind: keyed, key: key, value: strings.ToLower(ts[0].text)}, 1
}

// quantity reads a number and its unit, in one token or two. Without a unit
// it is 0; n is 0 if there is no number.
func quantity(ts []token) (value string, unit freq.Unit, n int) {
	if len(ts) == 0 || ts[0].quoted {
		return "", 0, 0
	}
	s := strings.ToLower(ts[0].text)
	i := strings.IndexFunc(s, func(r rune) bool { return (r < '0' || r > '9') && r != '.' && r != ',' })
	if i < 0 {
		i = len(s)
	}
	value = strings.Replace(s[:i], ",", ".", 1)
	if strings.Trim(value, ".") == "" || strings.Count(value, ".") > 1 {
		return "", 0, 0
	}
	if i < len(s) {
		u, ok := freq.ParseUnit(s[i:])
		if !ok {
			return "", 0, 0
		}
		return value, u, 1
	}
	if len(ts) > 1 && !ts[1].quoted {
		if u, ok := freq.ParseUnit(ts[1].text); ok {
			return value, u, 2
		}
	}
	return value, 0, 1
}

// code reports whether s is a DCS code with its mark: d023, d023n, 023i.
func code(s string) bool {
	body, marked := strings.CutPrefix(s, "d")
	if len(body) == 4 && strings.ContainsRune("nir", rune(body[3])) {
		body, marked = body[:3], true
	}
	return marked && len(body) == 3 && strings.Trim(body, "01234567") == ""
}

func startsValue(s string) bool {
	return s != "" && (s[0] >= '0' && s[0] <= '9' || s[0] == '.' || code(s) || strings.Contains(s, "/") && len(s) > 1 && code(s[:strings.IndexByte(s, '/')]))
}

func hasLetter(s string) bool { return strings.ContainsFunc(s, unicode.IsLetter) }
