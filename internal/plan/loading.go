package plan

import (
	"context"
	"fmt"
	"slices"
	"time"

	"mnemos/core/band"
	"mnemos/core/check"
	"mnemos/core/listing"
	"mnemos/core/radio"
	"mnemos/core/space"
	"mnemos/core/standing"
	"mnemos/internal/fault"
	"mnemos/internal/fleet"
	"mnemos/internal/store"
)

// Loading is a radio that is to be filled: what goes into it, what speaks about each
// channel, and how far it has come.
type Loading struct {
	Plan     store.Plan
	Unit     fleet.Unit
	Me       store.Person
	Radio    *radio.Profile
	Band     *band.Plan
	Revision int64 // of the plan: its edition
	At       time.Time
	Channels []Loaded // by slot
}

// Loaded is one channel of a radio.
type Loaded struct {
	Entry       store.Entry
	Result      check.Result
	Standing    Standing
	Fingerprint string // of what the radio is to hold
}

// Closed reports whether the repeater that is meant is closed or private: its owner is
// asked before anybody keys it.
func (c Loaded) Closed() bool {
	m := c.Result.Meant
	return m != nil && (m.Access == listing.Closed || m.Access == listing.Private)
}

// InSpace is why a channel is not keyed to find something out: a space station would hear
// it. "" for any other.
func (l *Loading) InSpace(c Loaded) string {
	tx, sends := c.Entry.Channel.Transmit()
	if _, _, found := space.Find(l.Band.Region, c.Entry.Channel.Receive, tx, true); !found || !sends {
		return ""
	}
	return "A space station would hear you, and it is shared by half a continent: do not key it to find out."
}

// Loading returns what goes into a radio.
func (p *Plans) Loading(ctx context.Context, loadID int64) (*Loading, error) {
	d, results, err := p.judgedAll(ctx, loadID)
	if err != nil {
		return nil, err
	}
	l := &Loading{Plan: d.plan, Unit: d.unit, Me: d.me, Radio: d.radio, Band: d.band, Revision: d.seen, At: p.now()}
	for i, e := range d.entries {
		l.Channels = append(l.Channels, Loaded{e, results[i], d.standing(e), standing.Fingerprint(heldOf(e), d.radio)})
	}
	return l, nil
}

// Tick is what a person did to a radio for one channel.
type Tick struct {
	Channel     int64
	Fingerprint string // of what the radio held then, as it was told
	State       standing.State
}

// Tick says how far a channel has come into a radio. It holds for what the person was
// told to key in: where that has changed meanwhile, the channel is planned again and
// the radio holds what it was before.
func (p *Plans) Tick(ctx context.Context, loadID int64, t Tick) (*Ledger, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	i := slices.IndexFunc(d.entries, func(e store.Entry) bool { return e.ChannelID == t.Channel })
	if i < 0 {
		f.Add("channel", "it was taken out of %s meanwhile", d.unit.Title())
	}
	if !t.State.Valid() || t.Fingerprint == "" {
		f.Add("state", "write planned, stored, keyed or proven, and of what")
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	what := fmt.Sprintf("mark %s as %s in %s", label(d.entries[i].Channel), t.State, d.unit.Title())
	return p.change(ctx, d, store.Latest, what, func(x *store.Edit) error {
		return x.Stand(store.Standing{
			LoadID: d.load.ID, ChannelID: t.Channel, State: string(t.State), Fingerprint: t.Fingerprint, PersonID: d.me.ID, At: p.at(),
		})
	})
}
