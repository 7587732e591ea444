package plan

import (
	"cmp"
	"context"
	"errors"
	"slices"

	"mnemos/core/band"
	"mnemos/core/radio"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// equipped returns the loads of a plan, oldest first, with their radios. One
// that undo brought back after its profile was deleted is left out.
func (p *Plans) equipped(ctx context.Context, planID int64) ([]LoadInfo, error) {
	loads, err := p.store.Loads(ctx, planID)
	if err != nil {
		return nil, err
	}
	out := []LoadInfo{}
	for _, l := range loads {
		u, err := p.fleet.Unit(ctx, l.UnitID)
		if errors.Is(err, fault.ErrNotFound) {
			continue
		}
		if err != nil {
			return nil, err
		}
		out = append(out, LoadInfo{ID: l.ID, Unit: u})
	}
	return out, nil
}

// Loads returns the load that each profile's first radio has in a plan; with 0
// in the first plan.
func (p *Plans) Loads(ctx context.Context, planID int64) (map[string]int64, error) {
	plan, err := p.Plan(ctx, planID)
	if err != nil {
		return nil, err
	}
	all, err := p.equipped(ctx, plan.ID)
	out := map[string]int64{}
	for _, l := range all {
		if _, known := out[l.Unit.Profile]; !known {
			out[l.Unit.Profile] = l.ID
		}
	}
	return out, err
}

// numbered returns the channels of a plan once each, with the number that
// everybody uses in place of a slot, in that order. A channel without one comes
// last, with the slot that the first radio gives it; spare is set for it.
func (p *Plans) numbered(ctx context.Context, planID int64) (out []numbered, err error) {
	rows, err := p.store.TeamSlots(ctx, planID)
	if err != nil {
		return nil, err
	}
	number := map[int64]int{}
	for _, r := range rows {
		number[r.ChannelID] = r.Number
	}
	loads, err := p.equipped(ctx, planID)
	if err != nil {
		return nil, err
	}
	seen := map[int64]bool{}
	for _, l := range loads {
		entries, err := p.store.Entries(ctx, l.ID)
		if err != nil {
			return nil, err
		}
		for _, e := range entries {
			if seen[e.ChannelID] {
				continue
			}
			seen[e.ChannelID] = true
			n, has := number[e.ChannelID]
			if has {
				e.Slot = n
			}
			out = append(out, numbered{e, !has})
		}
	}
	slices.SortStableFunc(out, func(a, b numbered) int {
		return cmp.Or(cmp.Compare(boolean(a.spare), boolean(b.spare)), cmp.Compare(a.Slot, b.Slot))
	})
	return out, nil
}

type numbered struct {
	store.Entry
	spare bool // nobody's number
}

func boolean(b bool) int {
	if b {
		return 1
	}
	return 0
}

// placed puts the channels that a radio can hold into its slots: under their
// numbers, and those without one where there is room. With fill those whose number
// it does not have come into its vacant slots too; moved says which went where.
func placed(channels []numbered, p *radio.Profile, fill bool) (out []store.Entry, moved []Moved) {
	used := map[int]bool{}
	var beyond []store.Entry
	for _, n := range channels {
		e := n.Entry
		if n.spare && used[e.Slot] {
			for e.Slot = p.Slots.First; used[e.Slot]; e.Slot++ {
			}
		}
		if !p.CanReceive(e.Channel.Receive) {
			continue
		}
		if !p.Slots.Holds(e.Slot) {
			beyond = append(beyond, e)
			continue
		}
		used[e.Slot] = true
		out = append(out, e)
	}
	if !fill {
		return out, nil
	}
	at := p.Slots.First
	for _, e := range beyond {
		for used[at] {
			at++
		}
		if !p.Slots.Holds(at) {
			break
		}
		used[at] = true
		moved = append(moved, Moved{e.Slot, at})
		e.Slot = at
		out = append(out, e)
	}
	return out, moved
}

// Moved is a channel that is in another slot than the one of its number.
type Moved struct{ From, To int }

// UseRadio takes a radio of a profile into the plan and gives it every channel
// that it can hold, in the slot in which the others have it; with fill those whose
// slot it does not have as well, in others.
func (p *Plans) UseRadio(ctx context.Context, planID int64, id string, fill bool) (*Ledger, error) {
	profile, err := p.fleet.Profile(ctx, id)
	if err != nil {
		return nil, err
	}
	plan, err := p.Plan(ctx, planID)
	if err != nil {
		return nil, err
	}
	loads, err := p.Loads(ctx, plan.ID)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	if _, used := loads[id]; used {
		f.Add("id", "%s is in the plan already", profile.Name)
		return nil, f
	}
	return p.AddUnit(ctx, plan.ID, profile.ID, UnitForm{Fill: fill})
}

// DropRadio takes a profile's radio out of the plan, with what only it holds.
// Undo brings both back.
func (p *Plans) DropRadio(ctx context.Context, planID int64, id string) (*Ledger, error) {
	plan, err := p.Plan(ctx, planID)
	if err != nil {
		return nil, err
	}
	loads, err := p.equipped(ctx, plan.ID)
	if err != nil {
		return nil, err
	}
	i := slices.IndexFunc(loads, func(l LoadInfo) bool { return l.Unit.Profile == id })
	f := &fault.Invalid{}
	switch {
	case i < 0:
		f.Add("id", "it is not in the plan")
	case len(loads) == 1:
		f.Add("id", "it is the only radio of the plan: use another one first")
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	return p.DropUnit(ctx, loads[i].ID, store.Latest)
}

// orFirst returns a load of the same plan that exists: the given one, or else
// the first. Where the plan itself is gone it is the first of another plan.
func (p *Plans) orFirst(ctx context.Context, l store.Load) (int64, error) {
	all, err := p.equipped(ctx, l.PlanID)
	if err == nil && len(all) == 0 {
		var other store.Plan
		if other, err = p.Plan(ctx, 0); err == nil {
			all, err = p.equipped(ctx, other.ID)
		}
	}
	if err != nil || len(all) == 0 || slices.ContainsFunc(all, func(x LoadInfo) bool { return x.ID == l.ID }) {
		return l.ID, err
	}
	return all[0].ID, nil
}

// Preview is what a profile would hold of the channels of a plan.
type Preview struct {
	Faults []fault.Field
	Rows   []PreviewRow
	Fit    int // channels that it holds as they are
	Lose   int // channels that it holds in part
	Cannot int
	YAML   string
	Drawing
}

// PreviewRow is one channel of the plan.
type PreviewRow struct {
	Slot   int
	Entry  store.Entry
	Short  string
	Held   bool
	Losses []radio.Loss
	radio.Thread
}

// PreviewRadio says what a profile, changed by the texts but not saved, would
// hold of a plan; with 0 of the first one.
func (p *Plans) PreviewRadio(ctx context.Context, planID int64, id string, texts map[string]string) (*Preview, error) {
	profile, faults, err := p.fleet.Edited(ctx, id, texts)
	if err != nil {
		return nil, err
	}
	v := &Preview{Faults: faults}
	if len(v.Faults) > 0 {
		return v, nil
	}
	y, err := radio.Write(profile)
	if err != nil {
		return nil, err
	}
	v.YAML = string(y)
	plan, err := p.Plan(ctx, planID)
	if err != nil {
		return nil, err
	}
	channels, err := p.numbered(ctx, plan.ID)
	if err != nil {
		return nil, err
	}
	shown, err := p.called(ctx, plan.ID, profile.Names)
	if err != nil {
		return nil, err
	}
	shown.all(channels)
	for _, e := range channels {
		row := PreviewRow{Slot: e.Slot, Entry: e.Entry, Held: profile.Slots.Holds(e.Slot) && profile.CanReceive(e.Channel.Receive)}
		_, row.Losses = radio.Fit(e.Channel, profile)
		row.Thread = profile.Thread(radio.Slotted{Slot: e.Slot, Channel: e.Channel})
		row.Short = shown.name(e.ChannelID, e.Channel.Name)
		switch {
		case !row.Held:
			v.Cannot++
		case len(row.Losses) > 0:
			v.Lose++
		default:
			v.Fit++
		}
		v.Rows = append(v.Rows, row)
	}
	rules, err := band.Load(plan.Region)
	if err != nil {
		return nil, err
	}
	v.Drawing = draw(profile, rules, v.Rows)
	_, v.Moves = placed(channels, profile, true)
	return v, nil
}
