package mend

import (
	"strings"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
)

// Entered is what was typed, as far as a slip could have changed it.
type Entered struct {
	Receive string // the figures of the receive frequency in MHz, as typed
	Tone    string // the figures of the tone sent, "" if none was typed
	Size    string // the figures of a shift that cannot be read
	Shifted bool   // the shift was typed
	Toned   bool   // a tone was typed
	Squelch bool   // tone squelch was typed
	Channel channel.Channel
	Weight  float64 // by which the weights of all slips are multiplied; 0 is 1. For measuring
	// At reads the rest of the entry with another receive frequency; ok is
	// false if it cannot be read.
	At func(freq.Hz) (c channel.Channel, ok bool)
}

// Stored returns a stored channel as an entry: all of it was typed once.
func Stored(c channel.Channel) Entered {
	e := Entered{Receive: c.Receive.MHz(), Shifted: true, Channel: c, Toned: !c.TransmitTone.IsOff()}
	if e.Toned {
		e.Tone = c.TransmitTone.String()
	}
	e.At = func(f freq.Hz) (channel.Channel, bool) {
		moved := c
		moved.Receive = f
		return moved, true
	}
	return e
}

// Typed returns a line as an entry. A line whose receive frequency cannot be
// read is taken to have it in its first figures, and figures behind it that
// nothing else explains are a tone with a slip.
func Typed(d *entry.Draft, plan *band.Plan) (Entered, bool) {
	at := receiveWord(d)
	if at < 0 {
		return Entered{}, false
	}
	e := Entered{Receive: megahertz(d.Words[at].Text)}
	skip := map[int]bool{}
	for i, w := range d.Words {
		if i != at {
			skip[i] = e.word(w)
		}
	}
	read := func(receive string) channel.Channel {
		whole := entry.Read(rewritten(d, nil, at, receive), plan)
		if whole.Problem() == nil && (!e.Toned || !whole.Channel.TransmitTone.IsOff()) {
			return whole.Channel
		}
		return entry.Read(rewritten(d, skip, at, receive), plan).Channel
	}
	e.At = func(f freq.Hz) (channel.Channel, bool) {
		c := read(f.MHz())
		return c, c.Receive == f
	}
	e.Channel = read(d.Words[at].Text)
	if w := d.Words[at]; w.As != entry.AsReceive || w.Problem != "" {
		e.Channel.Receive = 0 // what was taken for it belongs to another word
	}
	return e, e.Receive != ""
}

// word takes in a word other than the receive frequency, and reports whether
// it is to be left out when the line is read again.
func (e *Entered) word(w entry.Word) (skip bool) {
	switch w.As {
	case entry.AsName, entry.AsSlot, entry.AsWidth, entry.AsPower, entry.AsScan:
		return false
	case entry.AsTone, entry.AsReceiveTone, entry.AsTones, entry.AsSquelch:
		e.Tone, e.Toned, e.Squelch = toneText(w.Text), true, w.As == entry.AsSquelch
		return w.Problem != ""
	}
	if figures(w.Text) != w.Text {
		e.Shifted = true
		if w.Problem != "" && w.As == entry.AsShift {
			e.Size = digits(w.Text)
			return true
		}
		return false
	}
	if _, err := freq.Parse(w.Text); err == nil && w.As == entry.AsTransmit && len(w.Text) > 5 {
		e.Shifted = true
		return false
	}
	e.Tone, e.Toned = toneText(w.Text), true
	return true
}

// rewritten is the line without the words that are skipped, and with another
// text for the receive frequency.
func rewritten(d *entry.Draft, skip map[int]bool, at int, receive string) string {
	var parts []string
	runes := []rune(d.Line)
	for i, w := range d.Words {
		switch {
		case i == at:
			parts = append(parts, receive)
		case !skip[i]:
			parts = append(parts, string(runes[w.Start:w.End]))
		}
	}
	return strings.Join(parts, " ")
}

// receiveWord returns the word with the receive frequency, or -1. Figures that
// cannot be read and stand in front of it are rather meant.
func receiveWord(d *entry.Draft) int {
	for i, w := range d.Words {
		unread := w.Problem != "" || w.As == entry.AsShift || w.As == entry.AsTone
		if w.As == entry.AsReceive || unread && len(w.Text) > 1 && figures(w.Text) == w.Text {
			return i
		}
	}
	return -1
}

// digits returns the figures of a text without the zeros around them.
func digits(s string) string {
	only := strings.Map(func(r rune) rune {
		if r < '0' || r > '9' {
			return -1
		}
		return r
	}, s)
	return strings.Trim(only, "0")
}

// figures returns the leading digits, points and commas of a text.
func figures(s string) string {
	i := 0
	for i < len(s) && strings.IndexByte("0123456789.,", s[i]) >= 0 {
		i++
	}
	return s[:i]
}

// megahertz returns the figures of a word in MHz: kilohertz and hertz are
// converted, the decimal comma becomes a point, a keyword in front is left out.
func megahertz(word string) string {
	word = strings.ToLower(strings.ReplaceAll(word, " ", ""))
	word = strings.TrimLeft(word, "abcdefghijklmnopqrstuvwxyz")
	f := figures(word)
	if unit, ok := freq.ParseUnit(word[len(f):]); ok && unit != freq.MHz {
		n, err := freq.Scale(f, unit)
		if err != nil {
			return ""
		}
		return freq.Hz(n).MHz()
	}
	return strings.Replace(f, ",", ".", 1)
}

// toneText returns the figures of a tone word: "ts 103.5" is "103.5", and of
// a pair it is the tone that is sent.
func toneText(word string) string {
	sent, _, _ := strings.Cut(word, "/")
	i := strings.IndexAny(sent, "0123456789")
	if i < 0 {
		return ""
	}
	if i > 0 && (sent[i-1] == 'd' || sent[i-1] == 'D') {
		i--
	}
	return strings.ToUpper(strings.TrimSpace(strings.Replace(strings.TrimSuffix(strings.ToLower(sent[i:]), "hz"), ",", ".", 1)))
}
