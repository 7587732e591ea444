package scan

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode"
)

// Named is a channel as people speak of it.
type Named struct {
	Slot int
	Name string
}

// Word is a part of a line with what it was taken as.
type Word struct {
	From, To int // in runes
	As       string
	Doubt    bool // it could not be understood
}

// Asked is what a line asks for. What it does not say is taken from what stands: Has
// tells which parts it says.
type Asked struct {
	Goal    Goal
	Words   []Word
	Trouble string // what to write, where something is missing or not understood
	Share   bool
	Length  bool
	Channel bool
}

// Such is an example of a line.
const Such = "9 of 10 overs of 5 s on Walk control"

var (
	numbers = map[string]int{
		"one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8, "nine": 9, "ten": 10, "all": 100, "every": 100, "half": 50,
	}
	filler = []string{"i", "want", "to", "hear", "of", "the", "overs", "over", "on", "at", "least", "in", "lasting", "a", "an", "for", "with", "channel", "slot", "long", "and", "percent", "out", "catch"}
	share  = regexp.MustCompile(`^(\d+(?:[.,]\d+)?)\s*(?:of|/|in|out\s+of)\s*(\d+)$`)
	cent   = regexp.MustCompile(`^(\d+(?:[.,]\d+)?)\s*(?:%|percent)$`)
	second = regexp.MustCompile(`^(\d+(?:[.,]\d+)?)\s*(s|sec|secs|second|seconds|min|mins|minute|minutes|ms)\.?$`)
)

// Ask reads a line such as "9 of 10 overs of 5 s on Walk control": how many are to be
// heard, of which length, on which channel, in any order.
func Ask(line string, channels []Named) Asked {
	a := Asked{Goal: Goal{Channel: None}}
	words := split(line)
	for i := 0; i < len(words); {
		n := a.take(words[i:], channels)
		if n == 0 {
			a.Words = append(a.Words, Word{words[i].from, words[i].to, "not understood", true})
			n = 1
		}
		i += n
	}
	a.trouble(channels)
	return a
}

type piece struct {
	text     string
	from, to int
}

func split(line string) (out []piece) {
	runes := []rune(line)
	for i := 0; i < len(runes); {
		if unicode.IsSpace(runes[i]) || runes[i] == '"' {
			i++
			continue
		}
		j := i
		for j < len(runes) && !unicode.IsSpace(runes[j]) && runes[j] != '"' {
			j++
		}
		text := strings.TrimRight(string(runes[i:j]), ",;")
		if text != "" {
			out = append(out, piece{strings.ToLower(text), i, i + len([]rune(text))})
		}
		i = j
	}
	return out
}

// joined are the texts of the first words, one blank between them.
func joined(words []piece, n int) string {
	var out []string
	for _, w := range words[:n] {
		out = append(out, w.text)
	}
	return strings.Join(out, " ")
}

// take reads what stands at the beginning, and says how many words it was.
func (a *Asked) take(words []piece, channels []Named) int {
	if n := a.named(words, channels); n > 0 {
		return n
	}
	for n := min(4, len(words)); n >= 1; n-- {
		text := joined(words, n)
		for word, value := range numbers {
			if value <= 10 {
				text = wordRE(word).ReplaceAllString(text, strconv.Itoa(value))
			}
		}
		as := ""
		switch {
		case share.MatchString(text):
			m := share.FindStringSubmatch(text)
			part, whole := figure(m[1]), figure(m[2])
			if whole <= 0 || part > whole {
				continue
			}
			a.Goal.Share, a.Share, as = part/whole, true, "heard"
		case cent.MatchString(text):
			v := figure(cent.FindStringSubmatch(text)[1])
			if v > 100 {
				continue
			}
			a.Goal.Share, a.Share, as = v/100, true, "heard"
		case second.MatchString(text):
			m := second.FindStringSubmatch(text)
			v := figure(m[1])
			switch {
			case strings.HasPrefix(m[2], "min"):
				v *= 60
			case m[2] == "ms":
				v /= 1000
			}
			a.Goal.Length, a.Length, as = v, true, "length"
		case n == 1 && (text == "all" || text == "every"):
			a.Goal.Share, a.Share, as = 1, true, "heard"
		case n == 1 && text == "half":
			a.Goal.Share, a.Share, as = 0.5, true, "heard"
		default:
			continue
		}
		a.Words = append(a.Words, Word{words[0].from, words[n-1].to, as, false})
		return n
	}
	if slices.Contains(filler, words[0].text) {
		return 1
	}
	return 0
}

func wordRE(word string) *regexp.Regexp { return regexp.MustCompile(`\b` + word + `\b`) }

func figure(text string) float64 {
	v, _ := strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64)
	return v
}

// named reads the name of a channel, or its slot: the longest name that begins here, or
// a part of just one.
func (a *Asked) named(words []piece, channels []Named) int {
	if slot, ok := strings.CutPrefix(words[0].text, "#"); ok {
		if n, err := strconv.Atoi(slot); err == nil {
			if i := slices.IndexFunc(channels, func(c Named) bool { return c.Slot == n }); i >= 0 {
				return a.channel(i, words, 1)
			}
		}
		return 0
	}
	if words[0].text == "slot" && len(words) > 1 {
		if n, err := strconv.Atoi(words[1].text); err == nil {
			if i := slices.IndexFunc(channels, func(c Named) bool { return c.Slot == n }); i >= 0 {
				return a.channel(i, words, 2)
			}
		}
	}
	for n := min(8, len(words)); n >= 1; n-- {
		text := joined(words, n)
		// A name that is a figure, "5 s", is asked for by its slot.
		if share.MatchString(text) || cent.MatchString(text) || second.MatchString(text) {
			continue
		}
		if i := slices.IndexFunc(channels, func(c Named) bool { return strings.ToLower(strings.Join(strings.Fields(c.Name), " ")) == text }); i >= 0 {
			return a.channel(i, words, n)
		}
	}
	if a.Channel || slices.Contains(filler, words[0].text) || len(words[0].text) < 2 || numbers[words[0].text] != 0 {
		return 0
	}
	for n := min(4, len(words)); n >= 1; n-- {
		text := joined(words, n)
		found := None
		for i, c := range channels {
			if strings.Contains(" "+strings.ToLower(c.Name), " "+text) {
				if found != None {
					found = len(channels)
					break
				}
				found = i
			}
		}
		if found != None && found < len(channels) && !unicode.IsDigit([]rune(text)[0]) {
			return a.channel(found, words, n)
		}
	}
	return 0
}

func (a *Asked) channel(i int, words []piece, n int) int {
	if a.Channel && a.Goal.Channel != i {
		return 0
	}
	a.Goal.Channel, a.Channel = i, true
	a.Words = append(a.Words, Word{words[0].from, words[n-1].to, "channel", false})
	return n
}

// limits of what can be asked, in s.
const shortest, longest = 0.1, 600.0

func (a *Asked) trouble(channels []Named) {
	for _, w := range a.Words {
		if w.Doubt {
			a.Trouble = "Write how many, how long and on which channel, such as: " + such(channels)
			return
		}
	}
	switch {
	case a.Length && (a.Goal.Length < shortest || a.Goal.Length > longest):
		a.Trouble = fmt.Sprintf("An over lasts %g s to %g s here: write such as 5 s.", shortest, longest)
	case a.Share && (a.Goal.Share <= 0 || a.Goal.Share > 1):
		a.Trouble = "Write how many of them, such as 9 of 10."
	}
}

func such(channels []Named) string {
	if len(channels) == 0 {
		return Such
	}
	return "9 of 10 overs of 5 s on " + channels[min(1, len(channels)-1)].Name
}

// Line writes a goal as a line.
func (g Goal) Line(channels []Named) string {
	many := strconv.FormatFloat(float64(int(g.Share*1000+0.5))/100, 'f', -1, 64) + " of 10"
	if g.Channel < 0 || g.Channel >= len(channels) {
		return fmt.Sprintf("%s overs of %s s", many, strconv.FormatFloat(g.Length, 'f', -1, 64))
	}
	name := channels[g.Channel].Name
	if name == "" || len(Ask(name, channels).Words) != 1 || Ask(name, channels).Goal.Channel != g.Channel {
		name = "#" + strconv.Itoa(channels[g.Channel].Slot)
	}
	return fmt.Sprintf("%s overs of %s s on %s", many, strconv.FormatFloat(g.Length, 'f', -1, 64), name)
}
