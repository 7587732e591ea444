package radio

import (
	"fmt"
	"slices"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

// Loss is one thing that a radio cannot hold as wanted.
type Loss struct {
	Kind   Kind          `json:"kind"`
	Field  channel.Field `json:"field"`
	Wanted string        `json:"wanted"`
	Held   string        `json:"held"`
	Why    string        `json:"why"`
}

// Kind is the sort of thing that a radio lacks.
type Kind string

// The kinds of loss.
const (
	LostRange   Kind = "range"
	LostStep    Kind = "step"
	LostShift   Kind = "shift"
	LostTone    Kind = "tone"
	LostSetting Kind = "setting" // width, power
)

// Fit returns what the radio will really hold of c, after rounding and with
// the features it lacks left out, and what is lost on the way. A frequency
// outside the radio's range cannot be held at all; the channel comes back
// with it unchanged and the loss says so.
func Fit(c channel.Channel, p *Profile) (channel.Channel, []Loss) {
	f := fitting{p: p, held: c}
	if !p.CanReceive(c.Receive) {
		f.lose(LostRange, channel.FieldReceive, c.Receive.String(), "nothing", "%s does not receive there", p.Name)
		return f.held, f.losses // nothing else of the channel is left to be lost
	}
	f.frequencies(c)
	f.tones(c)
	f.rest(c)
	if f.held.Side.Kind == channel.Blocked {
		f.held.TransmitTone = tone.Off // nothing is sent, so no tone is either
	}
	return f.held, f.losses
}

type fitting struct {
	p      *Profile
	held   channel.Channel
	losses []Loss
}

func (f *fitting) lose(kind Kind, field channel.Field, wanted, held, why string, args ...any) {
	f.losses = append(f.losses, Loss{Kind: kind, Field: field, Wanted: wanted, Held: held, Why: fmt.Sprintf(why, args...)})
}

func (f *fitting) frequencies(c channel.Channel) {
	tx, transmits := c.Transmit()
	if !transmits && !f.p.Lock && f.p.CanTransmit(c.Receive) {
		f.held.Side = channel.TransmitSide{Kind: channel.Simplex}
		f.lose(LostSetting, channel.FieldTransmit, "receive only", "simplex", "%s cannot block its transmitter", f.p.Name)
	}
	if transmits && !f.p.CanTransmit(tx) {
		f.lose(LostRange, channel.FieldTransmit, tx.String(), "receive only", "%s does not transmit there", f.p.Name)
		f.held.Side = channel.TransmitSide{Kind: channel.Blocked}
		transmits = false
	}
	if _, ok := f.p.Step(c.Receive); !ok {
		f.held.Receive = f.p.Nearest(c.Receive)
		f.lose(LostStep, channel.FieldReceive, c.Receive.String(), f.held.Receive.String(), "no tuning step of %s reaches it", f.p.Name)
	}
	if !transmits {
		return
	}
	if f.p.Entry == Columns || f.p.Entry == Twice {
		f.column(tx)
		return
	}
	f.offset(c)
}

// column fits the typed transmit frequency of a radio with two columns.
func (f *fitting) column(tx freq.Hz) {
	if _, ok := f.p.Step(tx); ok {
		return
	}
	near := f.p.Nearest(tx)
	f.held.Side = channel.SplitSide(near)
	f.lose(LostStep, channel.FieldTransmit, tx.String(), near.String(), "no tuning step of %s reaches it", f.p.Name)
}

// offset fits the shift size of a radio that stores a size and a direction.
func (f *fitting) offset(c channel.Channel) {
	o := c.Offset()
	limit := f.p.Offsets
	if o.Abs() > limit.Max {
		f.held.Side = channel.TransmitSide{Kind: channel.Blocked}
		f.lose(LostShift, channel.FieldShift, o.String(), "receive only", "the largest shift of %s is %s MHz", f.p.Name, freq.Hz(limit.Max).MHz())
		return
	}
	if rest := o % limit.Resolution; rest != 0 {
		f.held.Side = channel.ShiftSide(o - rest)
		f.lose(LostShift, channel.FieldShift, o.String(), listing.ShiftWords(o-rest), "%s sets shifts in steps of %s MHz", f.p.Name, freq.Hz(limit.Resolution).MHz())
	}
}

func (f *fitting) tones(c channel.Channel) {
	for _, side := range []struct {
		field channel.Field
		tone  *tone.Tone
	}{{channel.FieldTransmitTone, &f.held.TransmitTone}, {channel.FieldReceiveTone, &f.held.ReceiveTone}} {
		if f.p.Knows(*side.tone) {
			continue
		}
		if e, ok := tone.Equivalent(*side.tone); ok && f.p.Knows(e) {
			*side.tone = e // the same signal by another name: nothing is lost
			continue
		}
		f.lose(LostTone, side.field, side.tone.Words(), tone.Off.Words(), "%s does not have it", f.p.Name)
		*side.tone = tone.Off
	}
	if f.held.Mode() == channel.Separate && !f.p.Separate {
		f.lose(LostTone, channel.FieldReceiveTone, f.held.ReceiveTone.Words(), "open", "%s has one tone for both directions", f.p.Name)
		f.held.ReceiveTone = tone.Off
	}
	if len(f.p.Keying.Modes) > 0 {
		f.mode()
	}
}

// mode fits the tones to the tone modes that the radio lists.
func (f *fitting) mode() {
	if f.held.Side.Kind == channel.Blocked {
		f.held.TransmitTone = tone.Off
	}
	if _, ok := f.p.Mode(f.held); ok {
		return
	}
	if out := f.held.TransmitTone; out.Kind() == tone.DCS && f.p.Keying.Has(ModeDCS) {
		if f.held.ReceiveTone.IsOff() {
			f.lose(LostTone, channel.FieldReceiveTone, "open", out.Words(), "%s cannot send a code without needing it to open", f.p.Name)
		} else {
			f.lose(LostTone, channel.FieldReceiveTone, f.held.ReceiveTone.Words(), out.Words(), "%s has one code for both directions", f.p.Name)
		}
		f.held.ReceiveTone = out
		return
	}
	if !f.held.ReceiveTone.IsOff() {
		f.lose(LostTone, channel.FieldReceiveTone, f.held.ReceiveTone.Words(), "open", "%s has no tone mode for it", f.p.Name)
		f.held.ReceiveTone = tone.Off
		f.mode()
		return
	}
	f.lose(LostTone, channel.FieldTransmitTone, f.held.TransmitTone.Words(), tone.Off.Words(), "%s has no tone mode for it", f.p.Name)
	f.held.TransmitTone = tone.Off
}

func (f *fitting) rest(c channel.Channel) {
	if !slices.Contains(f.p.Widths, string(c.Width)) {
		f.held.Width = channel.Width(f.p.Widths[0])
		f.lose(LostSetting, channel.FieldWidth, string(c.Width), f.p.Widths[0], "%s has no %s setting", f.p.Name, c.Width)
	}
	if _, sends := c.Transmit(); sends && c.Power != channel.High && f.p.Watts.Low == f.p.Watts.High {
		f.held.Power = channel.High
		f.lose(LostSetting, channel.FieldPower, string(c.Power), string(channel.High), "%s has one power level", f.p.Name)
		return
	}
	if c.Power == channel.Mid && f.p.Watts.Mid == 0 {
		f.held.Power = channel.Low
		f.lose(LostSetting, channel.FieldPower, string(channel.Mid), string(channel.Low), "%s has high and low only", f.p.Name)
	}
}
