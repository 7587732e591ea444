package plan

import (
	"context"
	"fmt"
	"slices"

	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/entry"
	"mnemos/core/listing"
	"mnemos/internal/store"
)

// Added is what came of taking repeaters into a plan.
type Added struct {
	Ledger  *Ledger
	Slots   []int
	Skipped []Skipped
	Puts    []Put // in the other radios
}

// Skipped is a repeater that was not taken, and why.
type Skipped struct {
	ID  listing.ID
	Why string
}

// AddFound takes repeaters into the load, each into the next vacant slot with
// a short name, as one change. What cannot be used or is there already is left
// out and said so. Other radios of the plan may get them too.
func (p *Plans) AddFound(ctx context.Context, loadID, revision int64, ids []listing.ID, also ...int64) (*Added, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	more, err := p.beside(ctx, d, also)
	if err != nil {
		return nil, err
	}
	out := &Added{Slots: []int{}, Skipped: []Skipped{}}
	var entries []store.Entry
	var others [][]store.Entry
	shown, err := p.called(ctx, d.plan.ID, d.radio.Names)
	if err != nil {
		return nil, err
	}
	slot := d.radio.Slots.First
	for _, id := range ids {
		c, err := p.channelOf(ctx, d, id)
		if err != nil {
			out.Skipped = append(out.Skipped, Skipped{id, err.Error()})
			continue
		}
		if held := slices.IndexFunc(d.entries, func(e store.Entry) bool { return same(e.Channel, c) }); held >= 0 {
			out.Skipped = append(out.Skipped, Skipped{id, fmt.Sprintf("already in this radio (%d)", d.entries[held].Slot)})
			continue
		}
		if slices.ContainsFunc(entries, func(e store.Entry) bool { return same(e.Channel, c) }) {
			out.Skipped = append(out.Skipped, Skipped{id, "already among those that were added"})
			continue
		}
		n, ok := d.vacant(slot)
		if !ok {
			out.Skipped = append(out.Skipped, Skipped{id, d.unit.Title() + " is full"})
			continue
		}
		slot = n + 1
		e := store.Entry{LoadID: loadID, Slot: n, ShortName: shown.name(0, c.Name), Scan: entry.ScanYes, Channel: c, Repeater: id}
		entries = append(entries, e)
		puts, too := more.place(e)
		out.Puts, others = append(out.Puts, puts...), append(others, too)
		out.Slots = append(out.Slots, n)
	}
	label := fmt.Sprintf("add %d repeaters to the plan", len(entries))
	if len(entries) == 1 {
		label = fmt.Sprintf("store %s in slot %d", entries[0].Channel.Name, entries[0].Slot)
	}
	out.Ledger, err = p.change(ctx, d, revision, label, func(x *store.Edit) error {
		for i, e := range entries {
			if err := add(x, e, others[i]...); err != nil {
				return err
			}
		}
		return nil
	})
	return out, err
}

func same(a, b channel.Channel) bool {
	atx, asends := a.Transmit()
	btx, bsends := b.Transmit()
	return a.Receive == b.Receive && asends == bsends && atx == btx && a.TransmitTone == b.TransmitTone
}

// channelOf is the channel of a repeater as all its listings together have it,
// by the plan's tone policy and within what the radio can receive.
func (p *Plans) channelOf(ctx context.Context, d *desk, id listing.ID) (channel.Channel, error) {
	_, best, err := p.catalog.Repeater(ctx, id)
	if err != nil {
		return channel.Channel{}, err
	}
	c, err := best.Channel(d.band)
	if err != nil {
		return c, err
	}
	if d.settings.TonePolicy == check.SquelchFirst {
		c = best.Squelched(c)
	}
	if !d.radio.CanReceive(c.Receive) {
		return c, fmt.Errorf("%s does not receive %s", d.unit.Title(), c.Receive)
	}
	return c, nil
}
