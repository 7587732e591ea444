package entry

import (
	"strings"
	"sync"

	"mnemos/core/freq"
	"mnemos/core/service"
	"mnemos/core/tone"
)

// sets are the word classes that patterns name in braces: {tone} is any word
// for a tone. Synonyms only; what they do stands in the pattern.
var sets = map[string]string{
	"no":      "no|not|never|dont|without|zero|nil",
	"off":     "off|no|none|nil|disabled|disable",
	"tone":    "tone|tones|pl|ctcss|cg|subtone|sub-tone",
	"tx":      "tx|transmit|transmitting|transmitter|xmit|ptt|key|keying|send|sending",
	"up":      "tx|transmit|uplink|access|enc|encode|input",
	"down":    "rx|receive|downlink|dec|decode|output",
	"sent":    "tx|enc|encode|out|uplink|sent|send",
	"heard":   "rx|dec|decode|in|downlink|heard",
	"shift":   "offset|shift|split",
	"dup":     "dup|duplex",
	"freq":    "freq|frequency|f",
	"dcs":     "dcs|dpl|dtcs",
	"squelch": "ts|tsq|tsql|t-sql|tone-squelch|tonesquelch",
	"both":    "both|enc/dec|encode/decode|tx/rx",
	"scan":    "scan|scanning",
	"channel": "ch|chan|channel|no",
	"power":   "power|pwr",
	"width":   "bandwidth|bw|width",
	"code":    "code|privacy|subcode|sub-code|sub|ctcss",
}

// joining words say nothing by themselves.
var joining = words("and with on at the is a an of for to please store use set its make from it repeater rpt rptr w/ & approx mhz heard everything")

// labels stand before a name, a callsign or a setting and say only what comes.
var labels = words("name label called named tag location loc locality site place town city call callsign calls mode modulation status use usage channelname qth qrg")

// foreign words are settings of radios that no channel here has; each with
// what to say about it.
var foreign = map[string]string{
	"reverse": "reverse is a key of the radio, not part of a channel", "rev": "reverse is a key of the radio, not part of a channel",
	"vox": "vox is a setting of the radio, not of a channel", "band": "write the frequency; the band follows from it",
	"am": "Mnemos plans FM channels, and AM is another mode", "usb": "Mnemos plans FM channels, and SSB is another mode",
	"lsb": "Mnemos plans FM channels, and SSB is another mode", "ssb": "Mnemos plans FM channels, and SSB is another mode",
	"cw": "Mnemos plans FM channels, and CW is another mode", "wfm": "broadcast FM is wider than any channel here: write wide or narrow",
	"dmr": "Mnemos plans FM channels, and DMR is a digital mode", "digital": "Mnemos plans FM channels: write dcs 023 for a digital code",
	"p25": "Mnemos plans FM channels, and P25 is a digital mode", "m17": "Mnemos plans FM channels, and M17 is a digital mode",
	"tetra": "Mnemos plans FM channels, and TETRA is a digital mode", "marine": "marine channels are not known here: type the frequency",
	"list": "scan lists and banks are kept beside the channel: leave it out, or put a name in quotes", "bank": "banks are kept beside the channel: leave it out, or put a name in quotes",
	"group": "groups are kept beside the channel: leave it out, or put a name in quotes", "zone": "zones are kept beside the channel: leave it out, or put a name in quotes",
}

func words(s string) map[string]bool {
	out := map[string]bool{}
	for _, w := range strings.Fields(s) {
		out[w] = true
	}
	return out
}

// literals are all words that some pattern names: a word among them is a
// setting and never slips into a name unmarked.
var literals = sync.OnceValue(func() map[string]bool {
	out := map[string]bool{}
	for w := range signWords {
		out[w] = true
	}
	for i := range Patterns {
		for _, form := range Patterns[i].Forms {
			for _, part := range compile(form) {
				for w := range part.words {
					out[w] = true
				}
			}
		}
	}
	return out
})

// unitWord reports whether a text behind figures is a unit, a polarity or a
// band: then the two are read apart.
func unitWord(s string) bool {
	if _, ok := freq.ParseUnit(s); ok {
		return true
	}
	return words("w watt watts mw meg megs cycles meter meters metre metres cm centimeters")[s]
}

// takesFigures reports whether a word in front of figures is read apart from
// them: "ts103.5" is a tone squelch, "Camp9" a name.
func takesFigures(word, figures string) bool {
	figures, _, _ = strings.Cut(figures, "/")
	switch {
	case service.Word(word + figures):
		return false
	case service.Word(word):
		return true
	case word == "t" || in("tone", word) || in("squelch", word) || word == "enc" || word == "dec" || word == "encode" || word == "decode":
		t, err := tone.Parse(strings.TrimSuffix(figures, "hz"))
		return err == nil && !t.IsOff()
	case in("dcs", word):
		return len(figures) >= 3
	case word == "ch" || word == "slot" || word == "mem" || word == "chan" || word == "channel":
		return isFigures([]rune(figures))
	case word == "dup" || word == "rx" || word == "tx" || word == "f":
		return true
	}
	return false
}

func in(set, word string) bool { return contains(sets[set], word) }

func contains(list, word string) bool {
	for w := range strings.SplitSeq(list, "|") {
		if w == word {
			return true
		}
	}
	return false
}

// callsign reports whether a word has the form of a callsign (ITU Radio
// Regulations, Article 19: one or two characters of which one is a letter, a
// figure, up to four characters of which the last is a letter), with what may
// stand behind it.
func callsign(s string) bool {
	s, _, _ = strings.Cut(strings.ToUpper(s), "/")
	if len(s) < 4 || len(s) > 7 {
		return false
	}
	letter := func(c byte) bool { return c >= 'A' && c <= 'Z' }
	digit := func(c byte) bool { return c >= '0' && c <= '9' }
	for i := range len(s) {
		if !letter(s[i]) && !digit(s[i]) {
			return false
		}
	}
	for _, p := range []int{1, 2} { // length of the prefix
		prefix, suffix := s[:p], s[p+1:]
		if digit(s[p]) && strings.ContainsFunc(prefix, func(r rune) bool { return letter(byte(r)) }) && len(suffix) >= 2 && len(suffix) <= 4 && letter(suffix[len(suffix)-1]) && letter(suffix[0]) {
			return true
		}
	}
	return false
}
