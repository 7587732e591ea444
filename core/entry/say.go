package entry

import (
	"fmt"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/listing"
)

// Phrase is a piece of the sentence that says what the radio will do. Kind is
// "frequency", "tone" or "" for plain words; Origin is set where a piece was
// worked out rather than typed.
type Phrase struct {
	Kind   string `json:"kind"`
	Text   string `json:"text"`
	Origin Origin `json:"origin,omitempty"`
}

// Say words what the radio will do with the draft: a prediction, so that
// nobody has to key the radio to find out.
func Say(d *Draft) []Phrase {
	c := d.Channel
	if c.Receive == 0 {
		return nil
	}
	s := sayer{}
	s.words("Receives ")
	s.figure("frequency", c.Receive.MHz())
	tx, sends := c.Transmit()
	switch {
	case !sends:
		s.words(" MHz and never transmits")
	case tx == c.Receive:
		s.words(" MHz and transmits there, simplex")
	default:
		s.words(", transmits ")
		s.figure("frequency", tx.MHz())
		s.words(" MHz")
	}
	if sends {
		s.toneOut(c)
	}
	if c.ReceiveTone.IsOff() {
		s.words("; the receiver stays open.")
	} else {
		s.words("; the receiver opens to ")
		s.figure("tone", c.ReceiveTone.Words())
		s.words(".")
	}
	s.shift(d)
	return s.out
}

type sayer struct{ out []Phrase }

func (s *sayer) words(text string) { s.out = append(s.out, Phrase{Text: text}) }

func (s *sayer) figure(kind, text string) { s.out = append(s.out, Phrase{Kind: kind, Text: text}) }

func (s *sayer) toneOut(c channel.Channel) {
	if c.TransmitTone.IsOff() {
		s.words(" without a tone")
		return
	}
	s.words(" with ")
	s.figure("tone", c.TransmitTone.Words())
}

// shift says where the shift came from, if it was not typed whole.
func (s *sayer) shift(d *Draft) {
	if d.From[channel.FieldReceive] == Solved {
		s.words(" Output: ")
		s.out = append(s.out, Phrase{Text: "calculated", Origin: Solved})
		s.words(fmt.Sprintf(" from the input, shift %s.", listing.ShiftWords(d.Channel.Offset())))
		return
	}
	switch {
	case d.From[channel.FieldShift] == BandPlan && d.Rule != nil:
		s.words(" Shift: ")
		s.out = append(s.out, Phrase{Text: "band plan", Origin: BandPlan})
		s.words(fmt.Sprintf(", %s.", d.Rule.Offset))
	case d.Borrowed:
		s.words(" Shift size: ")
		s.out = append(s.out, Phrase{Text: "band plan", Origin: BandPlan})
		s.words(fmt.Sprintf(", %s; this is the input range of the outputs %s to %s.", listing.ShiftWords(d.Channel.Offset()), d.Rule.Lower.MHz(), d.Rule.Upper.MHz()))
	case d.Rule != nil && d.From[channel.FieldShift] == Typed && d.Rule.Offset.Abs() == d.Channel.Offset().Abs():
		s.words(" Shift size: ")
		s.out = append(s.out, Phrase{Text: "band plan", Origin: BandPlan})
		s.words(fmt.Sprintf(", %s.", listing.ShiftWords(d.Channel.Offset())))
	case d.From[channel.FieldShift] == BandPlan:
		s.words(" Transmitter blocked: ")
		s.out = append(s.out, Phrase{Text: "band plan", Origin: BandPlan})
		s.words(".")
	}
}

// Sentence joins phrases to plain text.
func Sentence(phrases []Phrase) string {
	var b strings.Builder
	for _, p := range phrases {
		b.WriteString(p.Text)
	}
	return b.String()
}
