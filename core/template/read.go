package template

import (
	"fmt"
	"strconv"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/table"
	"mnemos/core/tone"
)

// reading is a row under way.
type reading struct {
	line     table.Line
	transmit *freq.Hz // what a column says; nil for nothing
	blocked  bool
	way      string // "" for nothing
	size     *int64
	mode     channel.Mode
}

func (r *reading) take(c Column, text string) error {
	ch := &r.line.Channel
	if info, _ := infoOf(c.Of); text == "" && len(info.Words) == 0 {
		return nil
	}
	switch c.Of {
	case Slot:
		n, err := strconv.Atoi(text)
		if err != nil {
			return fmt.Errorf("%q is not a slot", text)
		}
		r.line.Slot = n
	case Name:
		ch.Name = table.Unguarded(text)
	case Short:
		r.line.Short = table.Unguarded(text)
	case Receive:
		n, err := c.hertz(text)
		ch.Receive = freq.Hz(n)
		return err
	case Transmit:
		if word, is := c.meant(text); is && word == "none" {
			r.blocked = true
			return nil
		}
		n, err := c.hertz(text)
		r.transmit = new(freq.Hz(n))
		return err
	case Size:
		n, err := c.hertz(text)
		r.size = &n
		return err
	case Out:
		return c.tone(text, &ch.TransmitTone)
	case In:
		return c.tone(text, &ch.ReceiveTone)
	case Fixed:
	default:
		return r.word(c, text)
	}
	return nil
}

// word takes a cell that has a few words.
func (r *reading) word(c Column, text string) error {
	word, ok := c.meant(text)
	if !ok {
		info, _ := infoOf(c.Of)
		var all []string
		for _, w := range info.Words {
			all = append(all, strconv.Quote(c.say(w)))
		}
		return fmt.Errorf("%q: write one of %v", text, all)
	}
	switch c.Of {
	case Way:
		r.way = word
	case Mode:
		r.mode = channel.Mode(word)
	case Width:
		r.line.Channel.Width = channel.Width(word)
	case Power:
		r.line.Channel.Power = channel.Power(word)
	case Scan:
		r.line.Scan = entry.Scan(word)
	case Lock:
		r.blocked = r.blocked || word == "yes"
	}
	return nil
}

func (c Column) hertz(text string) (int64, error) {
	unit, _ := freq.ParseUnit(c.Unit)
	n, err := freq.Scale(text, unit)
	if err != nil {
		return 0, fmt.Errorf("%q is not a number of %s", text, c.Unit)
	}
	return n, nil
}

func (c Column) tone(text string, to *tone.Tone) (err error) {
	if word, is := c.meant(text); is && word == "none" || text == "" {
		*to = tone.Off
		return nil
	}
	*to, err = tone.Parse(text)
	return err
}

// settle makes the transmit side of what the columns say, and takes away the tones
// that their mode does not use. Columns that say different things are an error.
func (r *reading) settle() error {
	ch := &r.line.Channel
	ch.Side = channel.TransmitSide{Kind: channel.Simplex}
	shift := func(sign int64) error {
		if r.size == nil && r.transmit == nil {
			return fmt.Errorf("the shift goes %s, and nothing says how far", r.way)
		}
		if r.size != nil {
			ch.Side = channel.ShiftSide(freq.Offset(sign * *r.size))
		}
		return nil
	}
	var err error
	switch r.way {
	case "none":
		r.blocked = true
	case "up":
		err = shift(1)
	case "down":
		err = shift(-1)
	case "split":
		if r.transmit == nil {
			err = fmt.Errorf("a split needs a transmit frequency")
		}
	}
	if err != nil {
		return err
	}
	if r.transmit != nil {
		tx, _ := ch.Transmit()
		shifted := r.way == "up" || r.way == "down"
		if shifted && r.size != nil && tx != *r.transmit {
			return fmt.Errorf("the shift leads to %s and not to %s", tx.MHz(), r.transmit.MHz())
		}
		switch {
		case r.way == "split" || r.way == "" && *r.transmit != ch.Receive && r.size == nil:
			ch.Side = channel.SplitSide(*r.transmit)
		case r.size == nil:
			ch.Side = channel.ShiftSide(r.transmit.Sub(ch.Receive))
		}
	}
	if r.blocked {
		ch.Side = channel.TransmitSide{Kind: channel.Blocked}
	}
	switch r.mode {
	case channel.NoTone:
		ch.TransmitTone, ch.ReceiveTone = tone.Off, tone.Off
	case channel.Encode:
		ch.ReceiveTone = tone.Off
	case channel.Decode:
		ch.TransmitTone = tone.Off
	case channel.ToneSquelch:
		if ch.ReceiveTone.IsOff() {
			ch.ReceiveTone = ch.TransmitTone
		}
	}
	return nil
}
