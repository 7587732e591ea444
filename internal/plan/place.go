package plan

import (
	"context"
	"fmt"
	"slices"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/listing"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Placement is a channel that some radios of a plan are to hold.
type Placement struct {
	Channel  channel.Channel
	Repeater listing.ID
	Loads    []int64
}

// placing is a placement that is worked out.
type placing struct {
	x       Placement
	held    []int64 // the channels of the plan that are set; none for a new one
	entries []store.Entry
}

// set writes the channel, and returns the one that new entries hold.
func (p placing) set(e *store.Edit) (int64, error) {
	if len(p.held) == 0 {
		return e.AddChannel(p.x.Channel, p.x.Repeater)
	}
	for _, id := range p.held {
		if err := e.SetChannel(id, p.x.Channel, p.x.Repeater); err != nil {
			return 0, err
		}
	}
	return p.held[0], nil
}

// Place sees to it that radios hold channels, as one step: a channel of the plan on the
// same frequencies is set alike, for every radio that has it; a radio that lacks it gets it
// in a vacant slot. The ledger is that of the first load.
func (p *Plans) Place(ctx context.Context, loadID int64, list []Placement, revision int64, label string) (*Ledger, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	desks := map[int64]*desk{loadID: d}
	f := &fault.Invalid{}
	var puts []placing
	for _, x := range list {
		now := placing{x: x}
		for _, id := range x.Loads {
			if desks[id] == nil {
				if desks[id], err = p.desk(ctx, id); err != nil {
					return nil, err
				}
			}
			o := desks[id]
			if i := slices.IndexFunc(o.entries, func(e store.Entry) bool { return samePlace(e.Channel, x.Channel) }); i >= 0 {
				if id := o.entries[i].ChannelID; !slices.Contains(now.held, id) {
					now.held = append(now.held, id)
				}
				if x.Channel.Name == "" {
					now.x.Channel.Name = o.entries[i].Channel.Name
				}
				continue
			}
			e, err := p.vacancy(ctx, o, x.Channel)
			if err != nil {
				return nil, err
			}
			if e == nil {
				f.Add("slot", "%s is full: delete a channel first", o.unit.Title())
				continue
			}
			now.entries = append(now.entries, *e)
			o.entries = append(o.entries, *e)
		}
		puts = append(puts, now)
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	return p.change(ctx, d, revision, label, func(e *store.Edit) error {
		for _, now := range puts {
			id, err := now.set(e)
			if err != nil {
				return fmt.Errorf("place %s: %w", now.x.Channel.Receive, err)
			}
			for _, v := range now.entries {
				v.ChannelID = id
				if err := e.AddEntry(v); err != nil {
					return err
				}
			}
			if len(now.held) == 0 && len(now.entries) > 0 {
				if err := e.Number(id, now.entries[0].Slot); err != nil {
					return err
				}
			}
		}
		return nil
	})
}

// vacancy is a vacant slot of a radio for a channel, or nil. A link is not scanned.
func (p *Plans) vacancy(ctx context.Context, o *desk, c channel.Channel) (*store.Entry, error) {
	n, ok := o.vacant(o.radio.Slots.First)
	if !ok {
		return nil, nil //nolint:nilnil // it is full
	}
	shown, err := p.called(ctx, o.plan.ID, o.radio.Names)
	if err != nil {
		return nil, err
	}
	shown.more([]string{c.Name})
	return &store.Entry{LoadID: o.load.ID, Slot: n, ShortName: shown.name(0, c.Name), Scan: entry.ScanSkip, Channel: c}, nil
}

// samePlace reports whether two channels are on the same frequencies.
func samePlace(a, b channel.Channel) bool {
	atx, asends := a.Transmit()
	btx, bsends := b.Transmit()
	return a.Receive == b.Receive && asends == bsends && atx == btx
}
