package plan

import (
	"context"
	"fmt"

	"mnemos/core/check"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Save is a line to be stored.
type Save struct {
	Line     string
	Slot     *int    // where it is to go if the line does not say
	Replace  bool    // store over what is in the slot
	Also     []int64 // other radios of the plan that get it too
	Revision int64
}

// Store stores a line as a channel and returns the ledger after it.
func (p *Plans) Store(ctx context.Context, loadID int64, s Save) (*Ledger, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	r, err := p.read(ctx, d, s.Line, s.Slot)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	if !r.Complete {
		f.Add("line", "%s", r.trouble())
	}
	switch {
	case r.Slot == nil:
		f.Add("slot", "%s is full: delete a channel, or name a slot to store over", d.unit.Title())
	case !d.radio.Slots.Holds(*r.Slot):
		f.Add("slot", "%s has slots %d to %d: type one of them, such as #%d", d.unit.Title(), d.radio.Slots.First, d.radio.Slots.Last, d.radio.Slots.First)
	case r.Occupied != "" && !s.Replace && d.saw(*r.Slot, s.Revision):
		f.Add("slot", "slot %d holds %s: choose another slot, or store over it on purpose", *r.Slot, r.Occupied)
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	e := store.Entry{LoadID: loadID, Slot: *r.Slot, ShortName: r.ShortName, Scan: r.Scan, Channel: r.Channel, Repeater: r.meant}
	more, err := p.beside(ctx, d, s.Also)
	if err != nil {
		return nil, err
	}
	puts, others := more.place(e)
	what := fmt.Sprintf("store %s in slot %d", label(r.Channel), e.Slot)
	if len(others) > 0 {
		what += fmt.Sprintf(" of %d radios", len(others)+1)
	}
	l, err := p.change(ctx, d, s.Revision, what, func(x *store.Edit) error {
		if old, ok := d.at(e.Slot); ok && s.Replace {
			if err := x.DropEntry(old.ID); err != nil {
				return err
			}
			if err := x.DropChannel(old.ChannelID); err != nil {
				return err
			}
		}
		return add(x, e, others...)
	})
	if err != nil {
		return nil, err
	}
	l.Puts = puts
	return l, nil
}

// saw reports whether who has seen a revision knows what is in a slot. Who does
// not is told so: somebody else put it there.
func (d *desk) saw(slot int, revision int64) bool {
	e, ok := d.at(slot)
	return ok && e.Rev <= revision
}

// add puts a new channel into a slot, and into those of other radios, and gives
// it the number of the slot for everybody where nobody has that.
func add(x *store.Edit, e store.Entry, others ...store.Entry) (err error) {
	if e.ChannelID, err = x.AddChannel(e.Channel, e.Repeater); err != nil {
		return err
	}
	for _, v := range append([]store.Entry{e}, others...) {
		v.ChannelID = e.ChannelID
		if err := x.AddEntry(v); err != nil {
			return err
		}
	}
	return x.Number(e.ChannelID, e.Slot)
}

// trouble says what keeps the line from being stored.
func (r *Reading) trouble() string {
	for _, f := range r.Findings {
		if f.Rule == "entry-word" || f.Rule == "entry-ambiguous" {
			return f.Title + ": " + f.Message
		}
	}
	for _, f := range r.Findings {
		if f.Severity == check.Stop {
			return f.Title + ": " + f.Message
		}
	}
	return "the line is not complete: it needs a receive frequency, such as 147.24"
}

// Fix carries out the fix of a finding on the channel in a slot. Only what the
// checks offer there and then can be carried out, by its ID.
func (p *Plans) Fix(ctx context.Context, loadID int64, slot int, revision int64, id string) (*Ledger, error) {
	d, e, r, err := p.judged(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	fix, ok := fixOf(r.Findings, id)
	if !ok {
		_, err := p.after(ctx, d.load, &fault.Stale{Why: "nobody offers this fix any more: look at the channel again"})
		return nil, err
	}
	return p.change(ctx, d, revision, fmt.Sprintf("fix %s in slot %d", label(e.Channel), slot), func(x *store.Edit) error {
		if fix.Slot != nil {
			to := e
			to.Slot = *fix.Slot
			return move(x, e, to, nil)
		}
		return x.SetChannel(e.ChannelID, fix.Result, link(e, fix.Result))
	})
}

func fixOf(findings []check.Finding, id string) (check.Remedy, bool) {
	for _, f := range findings {
		for _, x := range f.Fixes {
			if x.ID == id {
				return x, true
			}
		}
	}
	return check.Remedy{}, false
}

// Delete empties a slot.
func (p *Plans) Delete(ctx context.Context, loadID int64, slot int, revision int64) (*Ledger, error) {
	d, e, err := p.occupied(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	return p.change(ctx, d, revision, fmt.Sprintf("delete %s from slot %d", label(e.Channel), slot), func(x *store.Edit) error {
		if err := x.DropEntry(e.ID); err != nil {
			return err
		}
		return x.DropChannel(e.ChannelID)
	})
}

// Undo takes the person's last change back, or with redo brings the last one
// that was taken back.
func (p *Plans) Undo(ctx context.Context, loadID, revision int64, redo bool) (*Ledger, error) {
	l, err := p.store.Load(ctx, loadID)
	if err != nil {
		return nil, err
	}
	stamp, err := p.fleet.Stamp(ctx, "")
	if err != nil {
		return nil, err
	}
	_, err = p.store.Undo(ctx, l.PlanID, revision, stamp, redo)
	return p.after(ctx, l, err)
}

// occupied returns the entry in a slot, or ErrNotFound.
func (p *Plans) occupied(ctx context.Context, loadID int64, slot int) (*desk, store.Entry, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, store.Entry{}, err
	}
	e, ok := d.at(slot)
	if !ok {
		return nil, store.Entry{}, fmt.Errorf("slot %d is empty: %w", slot, fault.ErrNotFound)
	}
	return d, e, nil
}
