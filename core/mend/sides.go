package mend

import (
	"slices"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

// shift says by which slip the shift of the entry came from that of the
// record. Read at the input, the shift is mirrored or left to the radio.
func (s *searcher) shift(c channel.Channel, m listing.Match, receive Slip) (Slip, bool) {
	right, known := m.Offset()
	if !s.entered.Shifted || !known {
		return "", true
	}
	if s.entered.Size != "" {
		return ShiftUnit, s.entered.Size == digits(right.MHz())
	}
	have := s.entered.Channel.Offset()
	if receive != Reversed {
		have = c.Offset() // a split moves with the receive frequency, a shift does not
	}
	switch {
	case have == right, receive == Reversed && (have == -right || have == 0):
		return "", true
	case have == -right:
		return WrongSign, true
	case have.SameFigures(right):
		return ShiftUnit, have.Sign() == right.Sign()
	case c.Side.Kind == channel.Split:
		return compare(c.Side.Frequency.MHz(), m.Input.MHz())
	}
	return "", false
}

// tone says by which slip the tone of the entry came from the uplink tone of
// the record.
func (s *searcher) tone(c channel.Channel, m listing.Match, near *lines) (Slip, bool) {
	up, have := m.UplinkTone.Tone, c.TransmitTone
	switch {
	case !m.UplinkTone.Known:
		return "", true
	case !s.entered.Toned:
		if up.IsOff() {
			return "", true
		}
		return NoTone, near != nil // only where the output is right already
	case !have.IsOff() && tone.Same(have, up):
		return "", true
	case up.IsOff():
		return "", false
	case besideIn(tone.CTCSS50, have, up):
		return ToneBeside, true
	case besideIn(tone.CTCSS38, have, up):
		return ToneNear, true
	case m.DownlinkTone.Known && !have.IsOff() && tone.Same(have, m.DownlinkTone.Tone):
		return Downlink, true
	case otherPolarity(have, up):
		return Polarity, true
	case codeForTone(s.entered.Tone, have, up):
		return CodeOrTone, true
	case mixed(s.entered.Tone, up):
		return ToneDigits, true
	}
	if slip, ok := near.otherLine(have, m.Record); ok || !m.Named || near == nil {
		return slip, ok
	}
	return OtherTone, true
}

// besideIn reports whether two CTCSS tones are next to each other in a table,
// or the first is no tone and the second the nearest to it.
func besideIn(table []int, have, up tone.Tone) bool {
	if have.Kind() != tone.CTCSS || up.Kind() != tone.CTCSS {
		return false
	}
	if !have.Standard() {
		return tone.Nearest(have.DeciHertz()) == up
	}
	i, j := slices.Index(table, have.DeciHertz()), slices.Index(table, up.DeciHertz())
	return i >= 0 && j >= 0 && (i-j == 1 || j-i == 1)
}

func otherPolarity(have, up tone.Tone) bool {
	a, ai := have.Code()
	b, bi := up.Code()
	return a != 0 && a == b && ai != bi
}

// codeForTone reports whether the figures of a code were taken for a tone or
// those of a tone for a code: D114 for 114.8 Hz, 131 for D131.
func codeForTone(text string, have, up tone.Tone) bool {
	code, _ := up.Code()
	switch {
	case up.Kind() == tone.CTCSS && (have.Kind() == tone.DCS || strings.HasPrefix(text, "D")):
		whole, _, _ := strings.Cut(up.String(), ".")
		return len(text) >= 4 && text[1:4] == leftPad(whole)
	case code != 0 && !strings.HasPrefix(text, "D"):
		whole, _, _ := strings.Cut(text, ".")
		return leftPad(whole) == up.String()[1:4]
	}
	return false
}

func leftPad(s string) string {
	for len(s) < 3 {
		s = "0" + s
	}
	return s
}

// mixed reports whether the figures typed for a tone are those of the right
// one with one slip of the fingers.
func mixed(text string, up tone.Tone) bool {
	right := up.String()
	if up.Kind() == tone.DCS {
		right = right[:4] // without the polarity
		if len(text) == 5 {
			text = text[:4]
		}
	}
	if text == "" || text == right {
		return false
	}
	if up.Kind() == tone.CTCSS && !strings.Contains(text, ".") {
		text += ".0"
	}
	s, ok := one(text, right)
	return ok && s != "" && s != OtherDigit
}

// result is the entry made equal to the record.
func (s *searcher) result(c channel.Channel, m listing.Match) channel.Channel {
	squelch := c.Mode() == channel.ToneSquelch || s.entered.Squelch
	c.Receive = m.Output
	if o, ok := m.Offset(); ok {
		c.Side = channel.ShiftSide(o)
	}
	if m.UplinkTone.Known {
		c.TransmitTone = m.UplinkTone.Tone
	}
	switch {
	case c.ReceiveTone.IsOff() && !squelch:
	case m.DownlinkTone.Known:
		c.ReceiveTone = m.DownlinkTone.Tone
	case squelch:
		c.ReceiveTone = c.TransmitTone
	}
	if c.ReceiveTone.Kind() == tone.Burst {
		c.ReceiveTone = tone.Off
	}
	return c
}
