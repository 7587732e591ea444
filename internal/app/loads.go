package app

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"

	"mnemos/core/naming"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// equipped returns the loads of the plan, oldest first, with their radios. One
// that undo brought back after its profile was deleted is left out.
func (a *App) equipped(ctx context.Context) ([]LoadInfo, error) {
	plan, err := a.plan(ctx)
	if err != nil {
		return nil, err
	}
	loads, err := a.store.Loads(ctx, plan.ID)
	if err != nil {
		return nil, err
	}
	out := []LoadInfo{}
	for _, l := range loads {
		p, err := a.profile(ctx, l.Radio)
		if errors.Is(err, fault.ErrNotFound) {
			continue
		}
		if err != nil {
			return nil, err
		}
		out = append(out, LoadInfo{ID: l.ID, Radio: p})
	}
	return out, nil
}

// loads returns the load of the plan that each radio has.
func (a *App) loads(ctx context.Context) (map[string]int64, error) {
	all, err := a.equipped(ctx)
	out := map[string]int64{}
	for _, l := range all {
		out[l.Radio.ID] = l.ID
	}
	return out, err
}

// channels returns the channels of the plan once each, with the slot that the
// first radio to hold them gives.
func (a *App) channels(ctx context.Context) ([]store.Entry, error) {
	loads, err := a.equipped(ctx)
	if err != nil {
		return nil, err
	}
	var out []store.Entry
	seen, slots := map[int64]bool{}, map[int]bool{}
	for _, l := range loads {
		entries, err := a.store.Entries(ctx, l.ID)
		if err != nil {
			return nil, err
		}
		for _, e := range entries {
			if !seen[e.ChannelID] && !slots[e.Slot] {
				seen[e.ChannelID], slots[e.Slot] = true, true
				out = append(out, e)
			}
		}
	}
	slices.SortFunc(out, func(a, b store.Entry) int { return cmp.Compare(a.Slot, b.Slot) })
	return out, nil
}

// UseRadio takes a radio into the plan and gives it every channel that it can
// hold, in the slot in which the others have it.
func (a *App) UseRadio(ctx context.Context, id string) (*Ledger, error) {
	p, err := a.profile(ctx, id)
	if err != nil {
		return nil, err
	}
	loads, err := a.loads(ctx)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	if _, used := loads[id]; used {
		f.Add("id", "%s is in the plan already", p.Name)
		return nil, f
	}
	channels, err := a.channels(ctx)
	if err != nil {
		return nil, err
	}
	var l store.Load
	err = a.editPlan(ctx, "load the plan into "+p.Name, func(x *store.Edit) error {
		if l, err = x.AddLoad(id); err != nil {
			return err
		}
		taken := map[string]bool{}
		for _, e := range channels {
			if !p.Slots.Holds(e.Slot) || !p.CanReceive(e.Channel.Receive) {
				continue
			}
			short := naming.Short(e.Channel.Name, p.Names, func(s string) bool { return taken[s] })
			taken[short] = true
			if err := x.AddEntry(store.Entry{LoadID: l.ID, Slot: e.Slot, ChannelID: e.ChannelID, ShortName: short, Scan: e.Scan}); err != nil {
				return err
			}
		}
		return nil
	})
	return a.after(ctx, l.ID, err)
}

// DropRadio takes a radio out of the plan, with what only it holds. Undo
// brings both back.
func (a *App) DropRadio(ctx context.Context, id string) (*Ledger, error) {
	loads, err := a.loads(ctx)
	if err != nil {
		return nil, err
	}
	l, used := loads[id]
	f := &fault.Invalid{}
	switch {
	case !used:
		f.Add("id", "it is not in the plan")
	case len(loads) == 1:
		f.Add("id", "it is the only radio of the plan: use another one first")
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	err = a.editPlan(ctx, "take "+id+" out of the plan", func(x *store.Edit) error { return x.DropLoad(l) })
	return a.after(ctx, l, err)
}

// editPlan changes the plan as it stands, whatever its revision.
func (a *App) editPlan(ctx context.Context, label string, f func(*store.Edit) error) error {
	plan, err := a.plan(ctx)
	if err != nil {
		return err
	}
	o, err := a.store.Operator(ctx)
	if err != nil {
		return err
	}
	return a.store.Edit(ctx, plan.ID, plan.Revision, a.stamp(o, label), f)
}

// plan returns the plan.
func (a *App) plan(ctx context.Context) (store.Plan, error) {
	plans, err := a.store.Plans(ctx)
	if err == nil && len(plans) == 0 {
		err = fmt.Errorf("a plan: %w", fault.ErrNotFound)
	}
	if err != nil {
		return store.Plan{}, err
	}
	return plans[0], nil
}

// orFirst returns a load that exists: the given one, or else the first.
func (a *App) orFirst(ctx context.Context, loadID int64) (int64, error) {
	all, err := a.equipped(ctx)
	if err != nil || len(all) == 0 || slices.ContainsFunc(all, func(l LoadInfo) bool { return l.ID == loadID }) {
		return loadID, err
	}
	return all[0].ID, nil
}
