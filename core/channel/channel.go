// Package channel holds what a memory channel is, for every radio alike: the
// receive frequency, how the radio transmits, tones, width, name and power.
// It has no slot: which number a channel gets belongs to a radio's load.
//
// The transmit frequency is never stored beside the shift; Transmit computes
// it, so the two cannot disagree.
package channel

import (
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"unicode"
	"unicode/utf8"

	"mnemos/core/freq"
	"mnemos/core/tone"
)

// Kind says how a channel transmits.
type Kind string

// The ways to transmit.
const (
	Simplex Kind = "simplex" // on the receive frequency
	Shift   Kind = "shift"   // receive frequency plus an offset
	Split   Kind = "split"   // on a frequency of its own
	Blocked Kind = "none"    // not at all: receive only
)

// TransmitSide is the transmit side of a channel. Offset counts for Shift only,
// Frequency for Split only; the other is zero, so that values compare.
type TransmitSide struct {
	Kind      Kind
	Offset    freq.Offset
	Frequency freq.Hz
}

// Width is the channel bandwidth.
type Width string

// The two widths of FM voice: 5 kHz and 2.5 kHz peak deviation.
const (
	Wide   Width = "wide"
	Narrow Width = "narrow"
)

// Power is the wanted transmitter power; a radio profile says how many watts
// that is.
type Power string

// The power steps.
const (
	High Power = "high"
	Mid  Power = "mid"
	Low  Power = "low"
)

// MaxName is the longest name in characters; what a radio shows of it is
// shorter.
const MaxName = 60

// Channel is one memory channel.
type Channel struct {
	Name         string
	Receive      freq.Hz
	Side         TransmitSide
	TransmitTone tone.Tone // sent with every over (encode)
	ReceiveTone  tone.Tone // needed to open the own squelch (decode)
	Width        Width
	Power        Power
}

// New returns a simplex, wide, high-power channel without tones.
func New(receive freq.Hz) Channel {
	return Channel{Receive: receive, Side: TransmitSide{Kind: Simplex}, Width: Wide, Power: High}
}

// Transmit returns the transmit frequency; ok is false for a receive-only
// channel.
func (c Channel) Transmit() (f freq.Hz, ok bool) {
	switch c.Side.Kind {
	case Blocked:
		return 0, false
	case Shift:
		return c.Receive.Add(c.Side.Offset), true
	case Split:
		return c.Side.Frequency, true
	}
	return c.Receive, true
}

// Offset returns transmit minus receive frequency, whichever way the channel
// was written; it is 0 for simplex and receive-only channels.
func (c Channel) Offset() freq.Offset {
	tx, ok := c.Transmit()
	if !ok {
		return 0
	}
	return tx.Sub(c.Receive)
}

// Mode is how the tones of a channel work together, in the words of radios.
type Mode string

// The tone modes.
const (
	NoTone      Mode = "no tone"
	Encode      Mode = "tone"           // send only; the receiver stays open
	Decode      Mode = "receive tone"   // listen only
	ToneSquelch Mode = "tone squelch"   // the same tone both ways
	Separate    Mode = "separate tones" // one tone out, another in
)

// Mode returns the tone mode that the two tones make.
func (c Channel) Mode() Mode {
	switch {
	case c.TransmitTone.IsOff() && c.ReceiveTone.IsOff():
		return NoTone
	case c.ReceiveTone.IsOff():
		return Encode
	case c.TransmitTone.IsOff():
		return Decode
	case c.TransmitTone == c.ReceiveTone:
		return ToneSquelch
	}
	return Separate
}

// ShiftSide returns the transmit side with the given offset; an offset of zero
// is simplex.
func ShiftSide(o freq.Offset) TransmitSide {
	if o == 0 {
		return TransmitSide{Kind: Simplex}
	}
	return TransmitSide{Kind: Shift, Offset: o}
}

// SplitSide returns the transmit side on a frequency of its own.
func SplitSide(f freq.Hz) TransmitSide { return TransmitSide{Kind: Split, Frequency: f} }

// Fault is a field that cannot be as it is.
type Fault struct {
	Field Field
	Text  string
}

// Faults reports everything that keeps c from being a channel, field by field.
func (c Channel) Faults() []Fault {
	var out []Fault
	add := func(f Field, format string, args ...any) { out = append(out, Fault{f, fmt.Sprintf(format, args...)}) }
	if n := utf8.RuneCountInString(c.Name); n > MaxName {
		add(FieldName, "a name has up to %d characters and this one %d: shorten it", MaxName, n)
	} else if strings.ContainsFunc(c.Name, unseen) || c.Name != "" && strings.TrimSpace(c.Name) == "" {
		add(FieldName, "the name has characters that nobody sees, or that turn the direction of writing: type it again")
	}
	if c.Receive <= 0 || c.Receive > freq.Max {
		add(FieldReceive, "receive frequency %v is outside 0 to %v", c.Receive, freq.Max)
	}
	switch c.Side.Kind {
	case Simplex, Blocked, Shift, Split:
		if tx, ok := c.Transmit(); ok && c.Side.Kind != Simplex && (tx <= 0 || tx > freq.Max) {
			add(FieldShift, "transmit frequency %v is outside 0 to %v", tx, freq.Max)
		}
	default:
		add(FieldShift, "transmit kind %q: use simplex, shift, split or none", c.Side.Kind)
	}
	if c.ReceiveTone.Kind() == tone.Burst {
		add(FieldReceiveTone, "a 1750 Hz burst opens repeaters; it cannot be a receive tone")
	}
	if c.Width != Wide && c.Width != Narrow {
		add(FieldWidth, "bandwidth %q: use wide or narrow", c.Width)
	}
	if c.Power != High && c.Power != Mid && c.Power != Low {
		add(FieldPower, "power %q: use high, mid or low", c.Power)
	}
	return out
}

// unseen reports a character that has no place in a name: a control character,
// a mark of the direction of writing, one of no width (but for the joiners
// that some scripts need), or one that is not assigned to anything public.
func unseen(r rune) bool {
	return unicode.Is(unicode.C, r) && r != '\u200c' && r != '\u200d' || r == '\ufffd' || unicode.In(r, unicode.Zl, unicode.Zp)
}

// Validate reports the first fault of c, or nil.
func (c Channel) Validate() error {
	if faults := c.Faults(); len(faults) > 0 {
		return errors.New(faults[0].Text)
	}
	return nil
}

// The JSON form is public (docs/cli.md): it repeats the computed transmit
// frequency for readers, and ignores it when read back.
type (
	wireSide struct {
		Kind      Kind         `json:"kind"`
		Offset    *freq.Offset `json:"offset_hz"`
		Frequency *freq.Hz     `json:"transmit_hz"`
	}
	wire struct {
		Name         string    `json:"name"`
		Receive      freq.Hz   `json:"receive_hz"`
		Side         wireSide  `json:"transmit"`
		Transmit     *freq.Hz  `json:"transmit_hz"`
		TransmitTone tone.Tone `json:"transmit_tone"`
		ReceiveTone  tone.Tone `json:"receive_tone"`
		Width        Width     `json:"bandwidth"`
		Power        Power     `json:"power"`
	}
)

// MarshalJSON writes the public form.
func (c Channel) MarshalJSON() ([]byte, error) {
	return json.Marshal(wire{
		Name: c.Name, Receive: c.Receive, Side: c.Side.wire(), Transmit: c.transmitOrNil(),
		TransmitTone: c.TransmitTone, ReceiveTone: c.ReceiveTone, Width: c.Width, Power: c.Power,
	})
}

// UnmarshalJSON reads the public form and validates it.
func (c *Channel) UnmarshalJSON(b []byte) error {
	var w wire
	if err := json.Unmarshal(b, &w); err != nil {
		return err
	}
	v := Channel{
		Name: w.Name, Receive: w.Receive, Side: TransmitSide{Kind: w.Side.Kind},
		TransmitTone: w.TransmitTone, ReceiveTone: w.ReceiveTone, Width: w.Width, Power: w.Power,
	}
	switch {
	case w.Side.Kind == Shift && w.Side.Offset != nil:
		v.Side.Offset = *w.Side.Offset
	case w.Side.Kind == Split && w.Side.Frequency != nil:
		v.Side.Frequency = *w.Side.Frequency
	case w.Side.Kind == Shift:
		return fmt.Errorf("a shift needs offset_hz")
	case w.Side.Kind == Split:
		return fmt.Errorf("a split needs transmit_hz")
	}
	if err := v.Validate(); err != nil {
		return err
	}
	*c = v
	return nil
}
