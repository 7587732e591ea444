package intake

import (
	"fmt"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/listing"
)

// What the cells of a table cannot tell by themselves is read as the entry
// line reads it: 14652, 146.79-, rx only, a tone in words. A reading that is
// not the only one, or that leaves a word over, is none.

// sure reads words as a line; ok is false where anything is left open.
func (r *Reader) sure(line string) (*entry.Draft, bool) {
	d := entry.Read(line, r.Plan)
	if !d.Complete() || d.Channel.Name != "" || d.Slot != nil || len(d.Offers) > 0 {
		return nil, false
	}
	return d, true
}

// output reads a cell with a frequency, and with the shift if it has one too.
func (r *Reader) output(cell string, u Unit) (freq.Hz, offset, error) {
	f, err := frequency(cell, u)
	if err == nil && r.plausible(f) {
		return f, offset{}, nil
	}
	d, ok := r.sure(cell)
	if !ok {
		if err == nil {
			err = fmt.Errorf("%s is below 25 MHz, where FM has no channels: write MHz such as 146.940", f)
		}
		return f, offset{}, err
	}
	return d.Channel.Receive, shiftOf(d), nil
}

// plausible reports whether a frequency is one that a radio of this kind has.
func (r *Reader) plausible(f freq.Hz) bool {
	if _, ok := r.Plan.Band(f); ok {
		return true
	}
	return f >= 25*freq.MHz
}

func shiftOf(d *entry.Draft) offset {
	c := d.Channel
	switch {
	case c.Side.Kind == channel.Blocked:
		return offset{stated: true, blocked: true}
	case !d.Typed(channel.FieldShift) && !d.Typed(channel.FieldTransmit):
		return offset{}
	case c.Offset() == 0:
		return offset{stated: true, zero: true}
	}
	return offset{stated: true, sign: c.Offset().Sign(), size: c.Offset().Abs()}
}

// shiftCell reads a cell about the shift of an output.
func (r *Reader) shiftCell(cell string, u Unit, output freq.Hz) (offset, error) {
	o, err := shift(cell, u)
	if err == nil || output == 0 {
		return o, err
	}
	d, ok := r.sure(output.String() + " " + cell)
	if !ok || d.Channel.Receive != output {
		return o, err
	}
	if s := shiftOf(d); s.stated {
		return s, nil
	}
	return o, err
}

// toneCell reads a cell with a tone, or with two.
func (r *Reader) toneCell(cell string) (up, down listing.Stated, err error) {
	if up, down, err = tones(cell); err == nil {
		return up, down, nil
	}
	d, ok := r.sure(r.anywhere().String() + " simplex tone " + cell)
	if !ok || !d.Typed(channel.FieldTransmitTone) {
		return up, down, err
	}
	up = listing.Says(d.Channel.TransmitTone)
	if d.Typed(channel.FieldReceiveTone) && !d.Channel.ReceiveTone.IsOff() {
		down = listing.Says(d.Channel.ReceiveTone)
	}
	return up, down, nil
}

// anywhere is a frequency of the plan to read a tone beside.
func (r *Reader) anywhere() freq.Hz {
	for _, b := range r.Plan.Bands {
		if b.Lower > 30*freq.MHz {
			return b.Lower
		}
	}
	return 146_520_000
}
