package aprs

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/tone"
)

// frequencyText is a frequency at the beginning of a text (addendum 1.2, frequency
// specification): 146.520MHz, then a tone and a shift in steps of 10 kHz.
var frequencyText = regexp.MustCompile(`^(\d{3}\.\d{3}|\d{3}\.\d{2} )MHz(?: (T\d{3}|C\d{3}|D\d{3}|Toff|1750|l750))?(?: ([+-]\d{3}))?(?: R\d{2}[mk])? ?`)

// SplitFrequency parts a text into the frequency that it begins with, and the rest.
func SplitFrequency(text string) (frequency, rest string) {
	at := frequencyText.FindString(text)
	return at, text[len(at):]
}

// Back is a frequency in a text, as a receiver takes it.
type Back struct {
	Freq   freq.Hz
	Tone   string // T100, D023, Toff; "" for none given
	Offset freq.Offset
	Shifts bool // an offset is given
}

// ReadBack reads the frequency that a text begins with.
func ReadBack(text string) (b Back, ok bool) {
	m := frequencyText.FindStringSubmatch(text)
	if m == nil {
		return b, false
	}
	f, err := freq.Parse(strings.TrimSpace(m[1]) + " MHz")
	if err != nil {
		return b, false
	}
	b.Freq, b.Tone = f, m[2]
	if m[3] != "" {
		n, err := strconv.Atoi(m[3])
		if err != nil {
			return b, false
		}
		b.Offset, b.Shifts = freq.Offset(n)*10*freq.Offset(freq.KHz), true
	}
	return b, true
}

// BackText is a channel as others are told of it: 146.940MHz T100 -060. A tone is cut to
// whole hertz. ok is false where the text cannot say it: below a kilohertz, or a shift
// that is no multiple of 10 kHz.
func BackText(c channel.Channel) (text string, ok bool) {
	if c.Receive <= 0 || c.Receive%1000 != 0 || c.Receive >= 1000*freq.MHz || c.Receive < 100*freq.MHz {
		return "", false
	}
	text = fmt.Sprintf("%03d.%03dMHz", c.Receive/freq.MHz, c.Receive%freq.MHz/freq.KHz)
	if t := toneText(c.TransmitTone); t != "" {
		text += " " + t
	}
	if o := c.Offset(); o != 0 {
		ten := 10 * freq.Offset(freq.KHz)
		if o%ten != 0 || o.Abs()/ten > 999 {
			return "", false
		}
		text += fmt.Sprintf(" %+04d", o/ten)
	}
	return text, true
}

// toneText is a tone in a text: T107 for 107.2 Hz, D023 for a code.
func toneText(t tone.Tone) string {
	switch t.Kind() {
	case tone.CTCSS:
		return fmt.Sprintf("T%03d", t.DeciHertz()/10)
	case tone.DCS:
		code, _ := t.Code()
		return fmt.Sprintf("D%03o", code)
	case tone.Burst:
		return "1750"
	}
	return ""
}

// Matches reports whether what a text says is a channel: its frequency, its tone as far as
// that is told, its shift.
func (b Back) Matches(c channel.Channel) bool {
	if b.Freq != c.Receive {
		return false
	}
	if b.Tone != "" && b.Tone != "Toff" && b.Tone != toneText(c.TransmitTone) {
		return false
	}
	return !b.Shifts || b.Offset == c.Offset()
}
