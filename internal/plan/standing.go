package plan

import (
	"context"
	"fmt"

	"mnemos/core/slots"
	"mnemos/core/standing"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Standing is how far a channel has come into a radio.
type Standing struct {
	Now    standing.State
	Was    standing.State // what it had come to before the radio was to hold something else; "" for nothing
	Person int64          // who said so; 0 for nobody
	At     string         // when
}

func heldOf(e store.Entry) standing.Held {
	return standing.Held{Slot: e.Slot, Channel: e.Channel, Short: e.ShortName, Scan: e.Scan}
}

// standing is how far an entry has come.
func (d *desk) standing(e store.Entry) Standing {
	s, known := d.standings[e.ChannelID]
	if !known {
		return Standing{Now: standing.Planned}
	}
	now, was := standing.Record{State: standing.State(s.State), Fingerprint: s.Fingerprint}.Now(standing.Fingerprint(heldOf(e), d.radio))
	return Standing{now, was, s.PersonID, s.At}
}

// Stand says how far the channels in some slots have come into a radio, as one step.
func (p *Plans) Stand(ctx context.Context, loadID int64, in []int, state standing.State, revision int64) (*Ledger, error) {
	d, entries, err := p.some(ctx, loadID, in)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	if !state.Valid() {
		f.Add("state", "write planned, stored, keyed or proven")
	}
	for _, e := range entries {
		if !d.radio.CanReceive(e.Channel.Receive) {
			f.Add("slots", "%s does not receive %s: it cannot be in it", d.unit.Title(), e.Channel.Receive)
		}
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	what := fmt.Sprintf("mark %s as %s in %s", label(entries[0].Channel), state, d.unit.Title())
	if len(entries) > 1 {
		what = fmt.Sprintf("mark %s as %s in %s: %s", channels(len(entries)), state, d.unit.Title(), slots.Runs(slotsOf(entries)))
	}
	return p.change(ctx, d, revision, what, func(x *store.Edit) error {
		for _, e := range entries {
			err := x.Stand(store.Standing{
				LoadID: d.load.ID, ChannelID: e.ChannelID, State: string(state), Fingerprint: standing.Fingerprint(heldOf(e), d.radio), PersonID: d.me.ID, At: p.at(),
			})
			if err != nil {
				return err
			}
		}
		return nil
	})
}

// behind are the channels that a radio holds as they were before somebody changed
// them.
func (d *desk) behind() (out []Task) {
	for _, e := range d.entries {
		s := d.standing(e)
		if s.Was == "" {
			continue
		}
		slot := e.Slot
		out = append(out, Task{
			Kind: "behind", Slot: &slot, Title: label(e.Channel) + " · The radio still holds what it was before", Why: fmt.Sprintf("it was %s on %.10s, and changed since: key it in again", s.Was, s.At),
			Do: "look", Says: "look at it", since: s.At,
		})
	}
	return out
}
