package plan

import (
	"context"
	"fmt"
	"strconv"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/listing"
	"mnemos/core/naming"
	"mnemos/core/tone"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Update is an edit in place: the fields as they were typed, nil for those
// that stay. Every field that cannot be read is reported at once.
type Update struct {
	Name, ShortName, Receive, Shift, TransmitTone, ReceiveTone, Width, Power, Scan, Slot *string
	Pinned                                                                               *bool // the short name stays whatever the long one becomes

	Swap     bool // exchange with what is in the wanted slot
	Revision int64
}

// Update changes the channel in a slot.
func (p *Plans) Update(ctx context.Context, loadID int64, slot int, u Update) (*Ledger, error) {
	d, e, err := p.occupied(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	to := e
	to.Channel = u.channel(f, d, e.Channel)
	u.entry(f, d, e, &to)
	other := u.slot(f, d, &to)
	if err := f.Or(); err != nil {
		return nil, err
	}
	called, err := p.renamed(ctx, d, e, to)
	if err != nil {
		return nil, err
	}
	return p.change(ctx, d, u.Revision, u.label(e, to), func(x *store.Edit) error {
		if err := x.SetChannel(e.ChannelID, to.Channel, link(e, to.Channel)); err != nil {
			return err
		}
		for _, c := range called { // what it is called on every radio
			if c.ID != e.ID {
				if err := x.SetEntry(c); err != nil {
					return err
				}
				continue
			}
			c.Slot = to.Slot
			if err := move(x, e, c, other); err != nil {
				return err
			}
		}
		return nil
	})
}

// link is the published repeater of a channel after a change: on another
// output it is another one.
func link(e store.Entry, c channel.Channel) listing.ID {
	if c.Receive != e.Channel.Receive {
		return listing.ID{}
	}
	return e.Repeater
}

// move puts an entry where it is to be, in exchange with another one or not.
func move(x *store.Edit, from, to store.Entry, other *store.Entry) error {
	slot := to.Slot
	to.Slot = from.Slot
	if err := x.SetEntry(to); err != nil || from.Slot == slot {
		return err
	}
	placings := []store.Placing{{Entry: to, To: slot}}
	if other != nil {
		placings = append(placings, store.Placing{Entry: *other, To: from.Slot})
	}
	return x.Arrange(placings)
}

func (u Update) label(from, to store.Entry) string {
	if from.Slot != to.Slot {
		return fmt.Sprintf("move %s from slot %d to %d", label(from.Channel), from.Slot, to.Slot)
	}
	return fmt.Sprintf("change %s in slot %d", label(from.Channel), from.Slot)
}

// channel reads the fields of the channel, in the spellings of the entry line.
func (u Update) channel(f *fault.Invalid, d *desk, c channel.Channel) channel.Channel {
	if u.Name != nil {
		c.Name = strings.TrimSpace(*u.Name)
		if len([]rune(c.Name)) > channel.MaxName {
			f.Add("name", "a name has up to %d characters; the radio's short name is made from it", channel.MaxName)
		}
	}
	if u.Receive != nil {
		line := entry.Read("rx "+*u.Receive, d.band)
		if line.Channel.Receive == 0 || len(line.Words) != 1 || line.Problem() != nil {
			f.Add("receive", "%q is not a frequency: type it in MHz, such as 147.24", *u.Receive)
		} else {
			c.Receive = line.Channel.Receive
		}
	}
	if u.Shift != nil {
		c.Side = u.how(f, d, c)
	}
	if u.TransmitTone != nil {
		c.TransmitTone = readTone(f, "transmit_tone", *u.TransmitTone)
	}
	if u.ReceiveTone != nil {
		c.ReceiveTone = readTone(f, "receive_tone", *u.ReceiveTone)
	}
	if u.Width != nil {
		c.Width = channel.Width(*u.Width)
	}
	if u.Power != nil {
		c.Power = channel.Power(*u.Power)
	}
	for _, x := range c.Faults() {
		if !f.Has(string(x.Field)) {
			f.Add(string(x.Field), "%s", x.Text)
		}
	}
	return c
}

// how reads the shift: a signed size, a sign alone, "simplex", "rx only" or a
// transmit frequency.
func (u Update) how(f *fault.Invalid, d *desk, c channel.Channel) channel.TransmitSide {
	text := strings.TrimSpace(*u.Shift)
	if text == "" || text == "0" {
		text = "simplex"
	}
	draft := entry.Read(c.Receive.String()+" "+text, d.band)
	if p := draft.Problem(); p != nil {
		f.Add("shift", "%s", p.Problem)
		return c.Side
	}
	for _, w := range draft.Words[1:] {
		switch w.As {
		case entry.AsShift, entry.AsSimplex, entry.AsReceiveOnly, entry.AsTransmit:
		default:
			f.Add("shift", "%q is not a shift: type a sign and a size such as -600, simplex, rx only, or tx and a frequency", text)
			return c.Side
		}
	}
	return draft.Channel.Side
}

func readTone(f *fault.Invalid, field, text string) tone.Tone {
	if strings.EqualFold(strings.TrimSpace(text), "open") || strings.EqualFold(strings.TrimSpace(text), "no tone") {
		return tone.Off
	}
	t, err := tone.Parse(text)
	if err != nil {
		f.Add(field, "%v, or nothing for no tone", err)
	}
	return t
}

// entry reads the fields that belong to the radio rather than the channel.
func (u Update) entry(f *fault.Invalid, d *desk, old store.Entry, to *store.Entry) {
	if u.Scan != nil {
		to.Scan = entry.Scan(*u.Scan)
		if to.Scan != entry.ScanYes && to.Scan != entry.ScanSkip && to.Scan != entry.ScanPriority {
			f.Add("scan", "%q: use yes, skip or priority", *u.Scan)
		}
	}
	if u.Pinned != nil {
		to.Pinned = *u.Pinned
	}
	if u.ShortName == nil {
		return
	}
	short := strings.TrimSpace(*u.ShortName)
	switch {
	case !naming.Fits(short, d.radio.Names):
		f.Add("short_name", "%s shows %d characters of %s", d.unit.Title(), d.radio.Names.Length, d.radio.Names.Characters)
	case short != "" && d.shortTaken(old.Slot)(short):
		f.Add("short_name", "another slot is called %s already", short)
	}
	to.ShortName, to.Pinned = short, short != ""
}

// slot reads the wanted slot, and returns what is to change places with the
// entry, if anything is.
func (u Update) slot(f *fault.Invalid, d *desk, to *store.Entry) *store.Entry {
	if u.Slot == nil {
		return nil
	}
	n, err := strconv.Atoi(strings.TrimPrefix(strings.TrimSpace(*u.Slot), "#"))
	if err != nil || !d.radio.Slots.Holds(n) {
		f.Add("slot", "%s has slots %d to %d: type one of them", d.unit.Title(), d.radio.Slots.First, d.radio.Slots.Last)
		return nil
	}
	other, taken := d.at(n)
	if !taken || other.ID == to.ID {
		to.Slot = n
		return nil
	}
	if !u.Swap {
		f.Add("slot", "slot %d holds %s: type an empty slot, or swap the two with Alt and an arrow key", n, label(other.Channel))
		return nil
	}
	to.Slot = n
	return &other
}
