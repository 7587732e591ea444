package plan

import (
	"context"
	"fmt"
	"strconv"
	"strings"

	"mnemos/core/slots"
	"mnemos/core/standing"
	"mnemos/core/tone"
	"mnemos/core/trial"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Standing is how far a channel has come into a radio.
type Standing struct {
	Now    standing.State
	Was    standing.State // what it had come to before the radio was to hold something else; "" for nothing
	Person int64          // who said so; 0 for nobody
	At     string         // when
	With   string         // where and with what it was proven; "" for nothing known
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
	return Standing{now, was, s.PersonID, s.At, proven(d.proofs[e.ChannelID])}
}

// proven says where and with what a channel was proven, and what its filter was tried with.
func proven(by []store.Attempt) string {
	if len(by) == 0 || by[0].Negative {
		return ""
	}
	a := by[0]
	says := []string{a.Answer}
	for _, x := range []string{a.Spot, trial.Words(a.Place), strconv.FormatFloat(a.Watts, 'g', 3, 64) + " W", trial.Words(a.Aerial)} {
		if x != "" {
			says = append(says, x)
		}
	}
	for _, n := range by[1:] {
		if n.Negative {
			t, err := tone.Parse(n.ToneOut)
			if err != nil {
				continue
			}
			if says = append(says, "silent with "+t.Words()); t.IsOff() {
				says[len(says)-1] = "silent without its tone"
			}
			break
		}
	}
	return strings.Join(says, ", ")
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

// behind are the radios of the plan that do not hold what they are to hold: of this
// one the channels that were changed since they were keyed in, one by one; of each
// radio that was loaded once, how many are not stored.
func (p *Plans) behind(ctx context.Context, d *desk) (out []Task, err error) {
	loads, err := p.equipped(ctx, d.plan.ID)
	if err != nil {
		return nil, err
	}
	for _, l := range loads {
		other := d
		if l.ID != d.load.ID {
			if other, err = p.desk(ctx, l.ID); err != nil {
				return nil, err
			}
		}
		if len(other.standings) == 0 {
			continue // nobody has begun with it
		}
		changed, missing := other.lag()
		if l.ID == d.load.ID {
			for _, e := range changed {
				slot, s := e.Slot, d.standing(e)
				out = append(out, Task{
					Kind: "behind", Slot: &slot, Title: label(e.Channel) + " · The radio still holds what it was before", Why: fmt.Sprintf("it was %s on %.10s, and changed since: key it in again", s.Was, s.At),
					Do: "walk", Says: "key it in", From: l.ID, since: s.At,
				})
			}
			changed = nil
		}
		var why []string
		if n := len(changed); n > 0 {
			why = append(why, fmt.Sprintf("%s changed since they were keyed in", channels(n)))
		}
		if n := len(missing); n > 0 {
			why = append(why, fmt.Sprintf("%s not stored yet", channels(n)))
		}
		if len(why) > 0 {
			out = append(out, Task{
				Kind: "behind", Title: other.unit.Title() + " is behind", Why: strings.Join(why, ", "), Do: "walk", Says: "walk through it", From: l.ID, since: "~", // after single channels
			})
		}
	}
	return out, nil
}

// lag are the channels that a radio holds as they were before, and those that it can
// hold and nobody has stored.
func (d *desk) lag() (changed, missing []store.Entry) {
	for _, e := range d.entries {
		switch s := d.standing(e); {
		case s.Was != "":
			changed = append(changed, e)
		case s.Now == standing.Planned && d.radio.CanReceive(e.Channel.Receive):
			missing = append(missing, e)
		}
	}
	return changed, missing
}
