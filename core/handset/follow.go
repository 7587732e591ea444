package handset

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"mnemos/core/freq"
	"mnemos/core/radio"
)

// Follow does what a sheet says, line by line, as a person does who has only
// its words: it presses the keys that are named, looks for what must be shown,
// and stops where that is not so.
func (h *Handset) Follow(sheet string) error {
	for _, line := range strings.Split(strings.TrimSpace(sheet), "\n") {
		if err := h.Line(line, nil); err != nil {
			return fmt.Errorf("%q: %w", line, err)
		}
	}
	return nil
}

// Line does what one line of a sheet says; after each key it calls each.
func (h *Handset) Line(line string, each func(key string)) error {
	line = strings.TrimSuffix(strings.TrimSpace(line), ".")
	head, rest, ok := strings.Cut(line, ": ")
	if !ok {
		return fmt.Errorf("there is nothing to do in it")
	}
	if head == "Start with" || head == "Leave it with" {
		return h.stands(rest)
	}
	r := &reader{h: h, rest: rest, each: each}
	if m := paced.FindStringSubmatch(rest); m != nil {
		r.pace, _ = strconv.Atoi(m[1]) // figures only
	}
	for r.rest != "" {
		if err := r.next(); err != nil {
			return err
		}
	}
	return nil
}

// reader reads the acts of a line, one after the other.
type reader struct {
	h    *Handset
	rest string
	each func(string)
	pace int  // seconds that the line allows between two keys: they are all taken
	sent bool // a key that transmits was pressed
}

var paced = regexp.MustCompile(`each within (\d{1,4}) seconds`)

const keyWord = `[A-Z0-9*#▲▼][A-Z0-9*#./-]*`

var phrases = []struct {
	form *regexp.Regexp
	do   func(r *reader, m []string) error
}{
	{phrase(`spell (.*) with (` + keyWord + `) and (` + keyWord + `)`), (*reader).spell},
	{phrase(`press (` + keyWord + `) (?:once|(\d+) times) until it shows (.+?)`), (*reader).times},
	{phrase(`(press|turn) (` + keyWord + `(?: ` + keyWord + `)*?)(?: or (` + keyWord + `))? until it shows (.+?)`), (*reader).until},
	{phrase(`press (` + keyWord + `(?: ` + keyWord + `)*)`), (*reader).press},
	{phrase(`hold (` + keyWord + `)`), func(r *reader, m []string) error { return r.key("hold " + m[1]) }},
	{phrase(`type (\d+)`), func(r *reader, m []string) error { return r.keys(strings.Split(m[1], "")) }},
	{phrase(`it must show (.+?)`), func(r *reader, m []string) error { return r.mustShow(m[1]) }},
	{phrase(`and nothing is sent`), (*reader).silent},
	{phrase(paced.String()), func(*reader, []string) error { return nil }}, // taken from the whole line
}

func phrase(s string) *regexp.Regexp { return regexp.MustCompile(`^` + s + `(?:, |$)`) }

func (r *reader) next() error {
	for _, p := range phrases {
		m := p.form.FindStringSubmatch(r.rest)
		if m == nil {
			continue
		}
		r.rest = r.rest[len(m[0]):]
		return p.do(r, m)
	}
	return fmt.Errorf("%q cannot be followed", r.rest)
}

// silent reports a line that transmits although it says that it does not.
func (r *reader) silent([]string) error {
	if r.sent {
		return fmt.Errorf("it transmits")
	}
	return nil
}

func (r *reader) key(k string) error {
	r.h.Wait(r.pace)
	r.h.Press(k)
	if r.each != nil {
		r.each(k)
	}
	if r.h.beep && radio.Transmits("press "+k) {
		r.sent = true // no setting has this key: it is the one that transmits
		return nil
	}
	if r.h.beep {
		return fmt.Errorf("%s does nothing here", k)
	}
	return nil
}

func (r *reader) keys(ks []string) error {
	for _, k := range ks {
		if err := r.key(k); err != nil {
			return err
		}
	}
	return nil
}

func (r *reader) press(m []string) error { return r.keys(strings.Fields(m[1])) }

func (r *reader) times(m []string) error {
	n := 1
	if m[2] != "" {
		var err error
		if n, err = strconv.Atoi(m[2]); err != nil || n > most {
			return fmt.Errorf("%s times is too often", m[2])
		}
	}
	for range n {
		if err := r.key(m[1]); err != nil {
			return err
		}
	}
	if !r.h.shows(m[3]) {
		return fmt.Errorf("after %d presses of %s it shows %q, not %q", n, m[1], r.h.shown(), m[3])
	}
	return nil
}

// most is how often anybody presses a key until something shows.
const most = 8000

func (r *reader) until(m []string) error {
	ways := [][]string{strings.Fields(m[2])}
	if m[1] == "turn" {
		ways = [][]string{{m[2] + "+"}, {m[2] + "-"}}
	} else if m[3] != "" {
		ways = append(ways, []string{m[3]})
	}
	if len(ways) == 2 && r.h.beyond(m[4]) {
		slices.Reverse(ways) // a person turns towards the figure
	}
	for range r.h.patience(len(ways)) {
		if r.h.shows(m[4]) {
			return nil
		}
		before := r.h.place()
		if err := r.keys(ways[0]); err != nil {
			return err
		}
		if len(ways) > 1 && r.h.place() == before { // the end of the list
			ways = ways[1:]
		}
	}
	return fmt.Errorf("%s %s: it never shows %q", m[1], m[2], m[4])
}

// patience is how often a person goes on: twice through a list, a few dozen
// times on a key, and on a knob as long as it takes.
func (h *Handset) patience(ways int) int {
	switch {
	case h.open != nil:
		return 2*len(h.open.values) + 3
	case ways == 1:
		return 40
	}
	return most
}

// place is where a list or a knob stands.
func (h *Handset) place() [3]int64 {
	at := [3]int64{int64(h.now().receive), int64(h.slot)}
	if h.open != nil {
		at[2] = int64(h.open.index) + 1
	}
	return at
}

func (r *reader) spell(m []string) error {
	letter := m[2]
	if slices.Contains(r.h.Keys(), letter+"+") {
		letter += "+" // a knob
	}
	for _, want := range m[1] {
		for range len(r.h.p.Names.Characters) {
			if r.h.letter() == want {
				break
			}
			if err := r.key(letter); err != nil {
				return err
			}
		}
		if r.h.letter() != want {
			return fmt.Errorf("the radio has no %q", want)
		}
		if err := r.key(m[3]); err != nil {
			return err
		}
	}
	return nil
}

// letter is the letter that blinks while a name is spelled.
func (h *Handset) letter() rune {
	if h.open == nil || h.open.setting != radio.Name {
		return 0
	}
	return []rune(h.p.Names.Characters)[h.open.letter]
}

func (r *reader) mustShow(want string) error {
	h := r.h
	if h.open != nil && h.open.shows() == want || h.look && h.figures() == want || h.headline() == want {
		return nil
	}
	return fmt.Errorf("it shows %q, not %q", h.shown(), want)
}

// headline is what stands beside the figures while nothing is set: shift,
// tone and transmit lock.
func (h *Handset) headline() string {
	var parts []string
	for _, s := range []radio.Setting{radio.ShiftDirection, radio.ToneMode, radio.Lock} {
		if m := h.mark(s); m.Text != "" {
			parts = append(parts, m.Text)
		}
	}
	return strings.Join(append(parts, h.figures()), " ")
}

// shown is what is to be seen, in one text.
func (h *Handset) shown() string {
	if h.open != nil {
		return h.open.shows()
	}
	s := h.headline()
	for _, m := range marked {
		s += "|" + h.mark(m).Text
	}
	if h.memory {
		s += "|" + strconv.Itoa(h.slot)
	}
	return s
}

var noMark = regexp.MustCompile(`^no (.+) mark$`)

// shows reports whether a text is to be seen: a value while a setting is
// open, else figures, a sign or the number of a slot.
func (h *Handset) shows(text string) bool {
	if h.open != nil {
		return h.open.shows() == text
	}
	if m := noMark.FindStringSubmatch(text); m != nil {
		s, ok := markNames[m[1]]
		return ok && h.mark(s).Text == ""
	}
	if h.figures() == text || h.memory && strconv.Itoa(h.slot) == text {
		return true
	}
	return slices.ContainsFunc(marked, func(s radio.Setting) bool { return h.mark(s).Text == text })
}

// markNames are the words for the signs of a display.
var markNames = func() map[string]radio.Setting {
	out := map[string]radio.Setting{"shift": radio.ShiftDirection, "tone": radio.ToneMode, "lock": radio.Lock}
	for _, s := range marked {
		out[s.Label()] = s
	}
	return out
}()

// beyond reports whether a figure that is shown lies above the one that is
// wanted.
func (h *Handset) beyond(want string) bool {
	now := h.figures()
	if h.open != nil {
		now = h.open.shows()
	} else if h.memory {
		now = strconv.Itoa(h.slot)
	}
	a, err := freq.Scale(now, freq.MHz)
	b, err2 := freq.Scale(want, freq.MHz)
	return err == nil && err2 == nil && a > b
}

// stands reports what of a stated state is not so.
func (h *Handset) stands(items string) error {
	for _, item := range strings.Split(items, ", ") {
		ok, err := h.stand(item)
		if err != nil {
			return err
		}
		if !ok {
			return fmt.Errorf("%s: it is not", item)
		}
	}
	return nil
}

func (h *Handset) stand(item string) (bool, error) {
	switch item {
	case "VFO":
		return !h.memory, nil
	case "split off":
		return !h.Split(), nil
	}
	if line, ok := strings.CutSuffix(item, " line chosen"); ok {
		return h.radio[radio.Line] == line, nil
	}
	for _, c := range radio.Cribs {
		s := c.Setting
		value, ok := strings.CutPrefix(item, c.Label+" ")
		if !ok {
			continue
		}
		if value, _ = strings.CutSuffix(value, " kHz"); h.radio[s] != "" {
			return h.radio[s] == value, nil
		}
		return h.vfo.sets[s] == value, nil
	}
	return false, fmt.Errorf("nobody knows what %q is", item)
}
