package plan

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"mnemos/core/slots"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Arrangement is what is to become of some slots of a radio.
type Arrangement struct {
	Act   string // one of Acts
	Slots []int
	To    int // the slot that it begins at, or is exchanged with
	Count int // how many slots become vacant; up or down where it is by steps
	// Everywhere does the same in the other radios of the plan that have the
	// channels in the same slots.
	Everywhere bool
	Revision   int64
}

// act is one way to arrange slots: where everything goes, and what that is called.
type act struct {
	moves func(*desk, Arrangement) (slots.Moves, error)
	label func(d *desk, a Arrangement, m slots.Moves) string
}

// always is a way that cannot fail.
func always(f func(slots.Memory, Arrangement) slots.Moves) func(*desk, Arrangement) (slots.Moves, error) {
	return func(d *desk, a Arrangement) (slots.Moves, error) { return f(d.memory(), a), nil }
}

// acts are the ways to arrange slots.
var acts = map[string]act{
	"move": {
		func(d *desk, a Arrangement) (slots.Moves, error) { return d.memory().Move(a.Slots, a.To) },
		func(d *desk, a Arrangement, m slots.Moves) string { return d.moved(a.Slots, m) },
	},
	"step": {
		always(func(m slots.Memory, a Arrangement) slots.Moves { return m.Step(a.Slots, a.Count) }),
		func(d *desk, a Arrangement, m slots.Moves) string { return d.moved(a.Slots, m) },
	},
	"swap": {
		always(func(m slots.Memory, a Arrangement) slots.Moves { return m.Swap(a.Slots[0], a.To) }),
		func(_ *desk, a Arrangement, _ slots.Moves) string {
			return fmt.Sprintf("swap slots %d and %d", a.Slots[0], a.To)
		},
	},
	"insert": {
		func(d *desk, a Arrangement) (slots.Moves, error) { return d.memory().Insert(a.To, a.Count) },
		func(_ *desk, a Arrangement, _ slots.Moves) string {
			if a.Count == 1 {
				return fmt.Sprintf("make room at slot %d", a.To)
			}
			return fmt.Sprintf("make room for %d at slot %d", a.Count, a.To)
		},
	},
	"close": {
		always(func(m slots.Memory, a Arrangement) slots.Moves {
			if len(a.Slots) < 2 {
				return m.Close(m.First, m.Last)
			}
			return m.Close(slices.Min(a.Slots), slices.Max(a.Slots))
		}),
		func(_ *desk, _ Arrangement, m slots.Moves) string {
			return fmt.Sprintf("close gaps: %s moved down", channels(len(m)))
		},
	},
	"align": {
		func(d *desk, _ Arrangement) (slots.Moves, error) { return d.aligned(), nil },
		func(_ *desk, _ Arrangement, m slots.Moves) string {
			return fmt.Sprintf("move %s to the team's slots", channels(len(m)))
		},
	},
	"order": {
		always(func(m slots.Memory, a Arrangement) slots.Moves { return m.Order(a.Slots) }),
		func(_ *desk, a Arrangement, _ slots.Moves) string {
			return fmt.Sprintf("put %s into another order", channels(len(a.Slots)))
		},
	},
}

// channels counts them in words.
func channels(n int) string {
	if n == 1 {
		return "1 channel"
	}
	return fmt.Sprintf("%d channels", n)
}

// moved says which channels went where.
func (d *desk) moved(some []int, m slots.Moves) string {
	var to []int
	for _, s := range some {
		if t, ok := m[s]; ok {
			to = append(to, t)
		}
	}
	if len(to) == 1 {
		for _, s := range some {
			if e, ok := d.at(s); ok {
				return fmt.Sprintf("move %s from slot %d to %d", label(e.Channel), s, m[s])
			}
		}
	}
	return fmt.Sprintf("move %s to %s", channels(len(to)), slots.Runs(to))
}

// memory is the slots of a load.
func (d *desk) memory() slots.Memory {
	m := slots.Memory{First: d.radio.Slots.First, Last: d.radio.Slots.Last}
	for _, e := range d.entries {
		m.Used = append(m.Used, e.Slot)
	}
	return m
}

// Arrange moves channels about between the slots of a radio, as one step.
func (p *Plans) Arrange(ctx context.Context, loadID int64, a Arrangement) (*Ledger, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	how, known := acts[a.Act]
	m := d.memory()
	switch {
	case !known:
		f.Add("act", "%q is not a way to arrange slots", a.Act)
	case a.Act == "swap" && len(a.Slots) != 1:
		f.Add("slots", "exchange one slot with another one")
	case (a.Act == "swap" || a.Act == "move" || a.Act == "insert") && !d.radio.Slots.Holds(a.To):
		f.Add("to", "%s has slots %d to %d: type one of them", d.unit.Title(), m.First, m.Last)
	case a.Act == "insert" && (a.Count < 1 || a.Count > m.Last):
		f.Add("count", "make room for 1 to %d channels", m.Last)
	case a.Act == "step" && a.Count != 1 && a.Count != -1:
		f.Add("count", "a step is one slot up or down")
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	if err := p.number(ctx, d); err != nil {
		return nil, err
	}
	moves, err := how.moves(d, a)
	if err != nil {
		f.Add("to", "%v", err)
		return nil, f
	}
	placings := d.placings(moves)
	if a.Everywhere {
		more, err := p.others(ctx, d)
		if err != nil {
			return nil, err
		}
		for _, o := range more {
			placings = append(placings, o.placings(o.along(d, moves))...)
		}
	}
	return p.change(ctx, d, a.Revision, how.label(d, a, moves), func(x *store.Edit) error { return x.Arrange(placings) })
}

// placings are the entries that moves put elsewhere.
func (d *desk) placings(m slots.Moves) (out []store.Placing) {
	for _, e := range d.entries {
		if to, moves := m[e.Slot]; moves {
			out = append(out, store.Placing{Entry: e, To: to})
		}
	}
	return out
}

// along is what becomes of moves in another radio: what it has in the same slot
// goes along, as far as it has the slots.
func (d *desk) along(of *desk, m slots.Moves) slots.Moves {
	want := slots.Moves{}
	for _, e := range d.entries {
		to, moves := m[e.Slot]
		if first, ok := of.at(e.Slot); moves && ok && first.ChannelID == e.ChannelID && d.radio.Slots.Holds(to) {
			want[e.Slot] = to
		}
	}
	return d.memory().Place(want)
}

// others are the other radios of the plan.
func (p *Plans) others(ctx context.Context, d *desk) ([]*desk, error) {
	loads, err := p.equipped(ctx, d.plan.ID)
	if err != nil {
		return nil, err
	}
	var ids []int64
	for _, l := range loads {
		ids = append(ids, l.ID)
	}
	more, err := p.beside(ctx, d, ids)
	return more.desks, err
}

// some returns the entries in some slots, in the order of the slots. It is an
// error where none of them holds anything.
func (p *Plans) some(ctx context.Context, loadID int64, in []int) (*desk, []store.Entry, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, nil, err
	}
	var out []store.Entry
	for _, e := range d.entries {
		if slices.Contains(in, e.Slot) {
			out = append(out, e)
		}
	}
	if len(out) == 0 {
		f := &fault.Invalid{}
		f.Add("slots", "nothing is in %s: choose slots with a channel", cmp.Or(slots.Runs(in), "no slot"))
		return nil, nil, f
	}
	return d, out, nil
}

// DeleteSome empties slots, as one step.
func (p *Plans) DeleteSome(ctx context.Context, loadID int64, in []int, revision int64) (*Ledger, error) {
	d, entries, err := p.some(ctx, loadID, in)
	if err != nil {
		return nil, err
	}
	what := fmt.Sprintf("delete %s from %s", channels(len(entries)), slots.Runs(slotsOf(entries)))
	if len(entries) == 1 {
		what = fmt.Sprintf("delete %s from slot %d", label(entries[0].Channel), entries[0].Slot)
	}
	return p.change(ctx, d, revision, what, func(x *store.Edit) error {
		for _, e := range entries {
			if err := x.DropEntry(e.ID); err != nil {
				return err
			}
			if err := x.DropChannel(e.ChannelID); err != nil {
				return err
			}
		}
		return nil
	})
}

// DuplicateSome stores channels once more, in the vacant slots that follow.
func (p *Plans) DuplicateSome(ctx context.Context, loadID int64, in []int, revision int64) (*Ledger, error) {
	d, entries, err := p.some(ctx, loadID, in)
	if err != nil {
		return nil, err
	}
	free := d.memory().Vacant(entries[len(entries)-1].Slot+1, len(entries))
	if len(free) < len(entries) {
		f := &fault.Invalid{}
		f.Add("slots", "%s has room for %d more: choose fewer, or delete some first", d.unit.Title(), len(free))
		return nil, f
	}
	what := fmt.Sprintf("duplicate %s in %s", channels(len(entries)), slots.Runs(free))
	if len(entries) == 1 {
		what = fmt.Sprintf("duplicate %s in slot %d", label(entries[0].Channel), free[0])
	}
	shown, err := p.called(ctx, d.plan.ID, d.radio.Names)
	if err != nil {
		return nil, err
	}
	return p.change(ctx, d, revision, what, func(x *store.Edit) error {
		for i, e := range entries {
			e.Slot, e.ShortName, e.Pinned = free[i], shown.name(0, e.Channel.Name), false
			if err := add(x, e); err != nil {
				return err
			}
		}
		return nil
	})
}

func slotsOf(entries []store.Entry) (out []int) {
	for _, e := range entries {
		out = append(out, e.Slot)
	}
	return out
}

// UpdateSome changes fields of the channels in several slots, as one step: what
// fills a column down.
func (p *Plans) UpdateSome(ctx context.Context, loadID int64, in []int, u Update) (*Ledger, error) {
	d, entries, err := p.some(ctx, loadID, in)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	if u.Slot != nil {
		f.Add("slot", "a slot number cannot be that of several channels: move them instead")
	}
	if (u.Name != nil || u.ShortName != nil) && len(entries) > 1 {
		f.Add("name", "a name is that of one channel: choose one")
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	var to []store.Entry
	for _, e := range entries {
		own := &fault.Invalid{}
		n := e
		n.Channel = u.channel(own, d, e.Channel)
		u.entry(own, d, e, &n)
		for _, x := range own.Fields {
			f.Add(x.Field, "slot %d: %s", e.Slot, x.Message)
		}
		to = append(to, n)
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	return p.change(ctx, d, u.Revision, fmt.Sprintf("change %s in %s", channels(len(to)), slots.Runs(slotsOf(to))), func(x *store.Edit) error {
		for i, n := range to {
			if err := x.SetChannel(n.ChannelID, n.Channel, link(entries[i], n.Channel)); err != nil {
				return err
			}
			if err := x.SetEntry(n); err != nil {
				return err
			}
		}
		return nil
	})
}
