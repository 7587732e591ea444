package check

import (
	"fmt"

	"mnemos/core/channel"
	"mnemos/core/listing"
)

var slotRules = []Rule{
	{
		ID: "slot-range", Title: "The radio has no such slot", Of: OfSet, Aside: true,
		Doc:     "The slot number is outside the radio's memory.",
		Source:  "the radio's profile",
		Example: "146.52 #9999",
		Run:     slotRange,
	},
	{
		ID: "slot-occupied", Title: "The slot is taken", Of: OfSet, Aside: true,
		Doc:     "Another channel is in the slot. Nothing is overwritten unless you say so.",
		Source:  practice,
		Example: "146.52 #1",
		Run:     slotOccupied,
	},
	{
		ID: "channel-duplicate", Title: "Stored already", Of: OfSet, Aside: true,
		Doc:     "Another slot holds a channel with the same frequencies and tones.",
		Source:  practice,
		Example: "146.52",
		Run:     channelDuplicate,
	},
}

func slotRange(p *Pass) {
	if p.Radio == nil || p.Slot == nil || p.Radio.Slots.Holds(*p.Slot) {
		return
	}
	f := Finding{
		Severity: Stop, Field: channel.FieldSlot, Title: fmt.Sprintf("%s has no slot %d", p.Radio.Name, *p.Slot),
		Message: fmt.Sprintf("Its slots are %d to %d.", p.Radio.Slots.First, p.Radio.Slots.Last),
		Why:     []Reason{{"radio", fmt.Sprintf("slots %d to %d", p.Radio.Slots.First, p.Radio.Slots.Last)}},
	}
	p.toVacant(&f)
	p.Report(f)
}

func slotOccupied(p *Pass) {
	if p.Slot == nil || p.Draft == nil {
		return
	}
	o, taken := p.Occupancy.in(*p.Slot)
	if !taken {
		return
	}
	f := Finding{
		Severity: Check, Field: channel.FieldSlot, Title: fmt.Sprintf("Slot %d holds %s", o.Slot, title(o)),
		Message: "It is kept. Choose another slot, or store over it on purpose.",
		Why:     []Reason{{"entered", fmt.Sprintf("slot %d: %s", o.Slot, o.Channel.Receive)}},
	}
	p.toVacant(&f)
	p.Report(f)
}

func (p *Pass) toVacant(f *Finding) {
	if n, ok := p.vacant(); ok {
		f.Fixes = []Remedy{{Label: fmt.Sprintf("Use slot %d", n), Patch: []channel.Op{}, Result: p.Channel, Slot: &n}}
	}
}

// vacant returns the next vacant slot of the radio at or after the one that
// was asked for.
func (p *Pass) vacant() (int, bool) {
	if p.Radio == nil {
		return 0, false
	}
	from := p.Radio.Slots.First
	if p.Slot != nil && p.Radio.Slots.Holds(*p.Slot) {
		from = *p.Slot
	}
	for i := range p.Radio.Slots.Last - p.Radio.Slots.First + 1 {
		n := from + i
		if n > p.Radio.Slots.Last {
			n -= p.Radio.Slots.Last - p.Radio.Slots.First + 1
		}
		if _, used := p.Occupancy.in(n); !used {
			return n, true
		}
	}
	return 0, false
}

func title(o Other) string {
	if o.Channel.Name != "" {
		return o.Channel.Name
	}
	return o.Channel.Receive.String()
}

func channelDuplicate(p *Pass) {
	if p.Channel.Receive == 0 {
		return
	}
	tx, sends := p.Channel.Transmit()
	same := func(o Other) bool {
		otx, osends := o.Channel.Transmit()
		return sends == osends && tx == otx && o.Channel.TransmitTone == p.Channel.TransmitTone && o.Channel.ReceiveTone == p.Channel.ReceiveTone
	}
	if o, ok := p.first(p.Occupancy.receiving(p.Channel.Receive, p.Channel.Receive), same); ok {
		p.Report(Finding{
			Severity: Check, Field: channel.FieldReceive, Title: fmt.Sprintf("Slot %d holds the same channel", o.Slot),
			Message: fmt.Sprintf("%s has the same frequencies and tones.", title(o)),
			Why:     []Reason{{"entered", fmt.Sprintf("slot %d: %s, %s", o.Slot, o.Channel.Receive, listing.ShiftWords(o.Channel.Offset()))}},
		})
	}
}
