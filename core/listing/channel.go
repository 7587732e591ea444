package listing

import (
	"fmt"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/tone"
)

// Channel is what to store to use the repeater of a record: its output, its
// shift, the tone that opens it, an open receiver. Where the shift is not
// stated the plan's firm one is taken. It is an error where FM cannot use the
// repeater, or where nobody says on what it listens.
func (r Record) Channel(plan *band.Plan) (channel.Channel, error) {
	c := channel.New(r.Output)
	c.Name = r.Title()
	if runes := []rune(c.Name); len(runes) > channel.MaxName {
		c.Name = string(runes[:channel.MaxName])
	}
	if c.Name == r.Output.String() {
		c.Name = ""
	}
	if r.Mode == Digital {
		return c, fmt.Errorf("%s is digital only: FM cannot use it", r.Title())
	}
	if r.Width == string(channel.Narrow) {
		c.Width = channel.Narrow
	}
	if r.Kind == ListenChannel {
		c.Side = channel.TransmitSide{Kind: channel.Blocked}
		return r.Squelched(c), nil
	}
	if !r.IsRepeater() {
		if r.UplinkTone.Known {
			c.TransmitTone = r.UplinkTone.Tone
		}
		return r.Squelched(c), nil
	}
	if o, known := r.Offset(); known {
		c.Side = channel.ShiftSide(o)
		if o == 0 {
			c.Side = channel.TransmitSide{Kind: channel.Simplex}
		}
	} else {
		rule, ruled := plan.Shift(r.Output)
		if !ruled || !rule.Firm() || !plan.Firm() {
			return c, fmt.Errorf("%s: no listing says on what it listens, and the band plan is not sure either: type it", r.Title())
		}
		c.Side = channel.ShiftSide(rule.Offset)
	}
	if r.UplinkTone.Known {
		c.TransmitTone = r.UplinkTone.Tone
	}
	return c, nil
}

// Squelched is the channel with a receiver that waits for the tone that the
// repeater sends, where one is stated.
func (r Record) Squelched(c channel.Channel) channel.Channel {
	if r.DownlinkTone.Known && r.DownlinkTone.Tone.Kind() != tone.Burst {
		c.ReceiveTone = r.DownlinkTone.Tone
	}
	return c
}
