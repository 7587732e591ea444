package mend

import (
	"strings"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/listing"
)

// Entered is what was typed, as far as a slip could have changed it.
type Entered struct {
	Receive string // the figures of the receive frequency in MHz, as typed
	Tone    string // the figures of the tone sent, "" if none was typed
	Shifted bool   // the shift was typed
	Toned   bool   // a tone was typed
	Channel channel.Channel
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
// read is taken to have it in its first figures.
func Typed(d *entry.Draft, plan *band.Plan) (Entered, bool) {
	at := receiveWord(d)
	if at < 0 {
		return Entered{}, false
	}
	w := d.Words[at]
	e := Entered{Receive: megahertz(w.Text), Channel: d.Channel, Shifted: d.Typed(listing.FieldShift) || d.Typed(listing.FieldTransmit)}
	runes := []rune(d.Line)
	e.At = func(f freq.Hz) (channel.Channel, bool) {
		other := entry.Read(string(runes[:w.Start])+f.MHz()+string(runes[w.End:]), plan)
		if p := other.Problem(); p != nil && toneField(p.As) == "" {
			return channel.Channel{}, false
		}
		return other.Channel, other.Channel.Receive != 0
	}
	for i, x := range d.Words {
		if i != at && (toneField(x.As) == listing.FieldToneOut || x.As == entry.AsUnknown && figures(x.Text) != "") {
			e.Tone, e.Toned = toneText(x.Text), true
		}
	}
	return e, e.Receive != ""
}

func toneField(as entry.As) listing.Field {
	if as == entry.AsUnknown {
		return listing.FieldToneOut // figures that are no tone: perhaps a slip of one
	}
	if f := as.Field(); f == listing.FieldToneOut || f == listing.FieldToneIn {
		return listing.FieldToneOut
	}
	return ""
}

// receiveWord returns the word with the receive frequency, or -1.
func receiveWord(d *entry.Draft) int {
	for i, w := range d.Words {
		if w.As == entry.AsReceive && w.Problem == "" {
			return i
		}
	}
	for i, w := range d.Words {
		if f := figures(w.Text); len(f) > 3 && f == w.Text && w.As != entry.AsTransmit {
			return i
		}
	}
	return -1
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
