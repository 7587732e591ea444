package app

import (
	"context"
	"fmt"
	"slices"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/entry"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/naming"
	"mnemos/internal/store"
)

// Added is what came of taking repeaters into a plan.
type Added struct {
	Ledger  *Ledger   `json:"ledger"`
	Slots   []int     `json:"slots"`
	Skipped []Skipped `json:"skipped"`
}

// Skipped is a repeater that was not taken, and why.
type Skipped struct {
	ID  listing.ID `json:"id"`
	Why string     `json:"why"`
}

// AddFound takes repeaters into the load, each into the next vacant slot with
// a short name, as one change. What cannot be used or is there already is left
// out and said so.
func (a *App) AddFound(ctx context.Context, loadID, revision int64, ids []listing.ID) (*Added, error) {
	d, err := a.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	out := &Added{Slots: []int{}, Skipped: []Skipped{}}
	var entries []store.Entry
	taken := d.shortTaken(noSlot)
	used := map[string]bool{}
	short := func(s string) bool { return taken(s) || used[s] }
	slot := d.radio.Slots.First
	for _, id := range ids {
		c, err := a.channelOf(ctx, d, id)
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
			out.Skipped = append(out.Skipped, Skipped{id, d.radio.Name + " is full"})
			continue
		}
		slot = n + 1
		e := store.Entry{LoadID: loadID, Slot: n, ShortName: naming.Short(c.Name, d.radio.Names, short), Scan: entry.ScanYes, Channel: c}
		used[e.ShortName] = true
		entries = append(entries, e)
		out.Slots = append(out.Slots, n)
	}
	label := fmt.Sprintf("take %d repeaters into the plan", len(entries))
	if len(entries) == 1 {
		label = fmt.Sprintf("store %s in slot %d", entries[0].Channel.Name, entries[0].Slot)
	}
	out.Ledger, err = a.change(ctx, d, revision, label, func(x *store.Edit) error {
		for _, e := range entries {
			var err error
			if e.ChannelID, err = x.AddChannel(e.Channel); err != nil {
				return err
			}
			if err := x.AddEntry(e); err != nil {
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
// by the operator's tone policy and within what the radio can receive.
func (a *App) channelOf(ctx context.Context, d *desk, id listing.ID) (channel.Channel, error) {
	r, err := a.repeaterOf(ctx, id)
	if err != nil {
		return channel.Channel{}, err
	}
	corrections, err := a.catalog.Corrections(ctx)
	if err != nil {
		return channel.Channel{}, err
	}
	best := corrections.Best(r)
	c, err := best.Channel(d.band)
	if err != nil {
		return c, err
	}
	if d.settings.TonePolicy == check.SquelchFirst {
		c = best.Squelched(c)
	}
	if !d.radio.CanReceive(c.Receive) {
		return c, fmt.Errorf("%s does not receive %s", d.radio.Name, c.Receive)
	}
	return c, nil
}

// repeaterOf returns the repeater that a statement is about.
func (a *App) repeaterOf(ctx context.Context, id listing.ID) (listing.Repeater, error) {
	rec, err := a.store.Record(ctx, id.Source, id.Key)
	if err != nil {
		return listing.Repeater{}, err
	}
	var box *geo.Box
	if p, ok := rec.Place(); ok {
		b := geo.Around(p, 150) // whatever may join it is nearer
		box = &b
	}
	records, err := a.store.ByOutput(ctx, band.Span{Lower: rec.Output, Upper: rec.Output}, box)
	if err != nil {
		return listing.Repeater{}, err
	}
	joined, err := a.join(ctx, records)
	if err != nil {
		return listing.Repeater{}, err
	}
	for _, r := range joined {
		if slices.ContainsFunc(r.Statements, func(s listing.Record) bool { return s.ID() == id }) {
			return r, nil
		}
	}
	return listing.Repeater{Statements: []listing.Record{rec}}, nil
}
