package app

import (
	"context"
	"encoding/json"
	"fmt"

	jsonpatch "github.com/evanphx/json-patch/v5"

	"mnemos/core/channel"
	"mnemos/core/naming"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Save is a line to be stored.
type Save struct {
	Line     string
	Slot     *int // where it is to go if the line does not say
	Replace  bool // store over what is in the slot
	Revision int64
}

// Store stores a line as a channel and returns the ledger after it.
func (a *App) Store(ctx context.Context, loadID int64, s Save) (*Ledger, error) {
	d, err := a.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	r, err := a.read(ctx, d, s.Line, s.Slot)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	if !r.Complete {
		f.Add("line", "%s", r.trouble())
	}
	switch {
	case r.Slot == nil:
		f.Add("slot", "%s is full: delete a channel, or name a slot to store over", d.radio.Name)
	case !d.radio.Slots.Holds(*r.Slot):
		f.Add("slot", "%s has slots %d to %d: type one of them, such as #%d", d.radio.Name, d.radio.Slots.First, d.radio.Slots.Last, d.radio.Slots.First)
	case r.Occupied != "" && !s.Replace:
		f.Add("slot", "slot %d holds %s: choose another slot, or store over it on purpose", *r.Slot, r.Occupied)
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	e := store.Entry{LoadID: loadID, Slot: *r.Slot, ShortName: r.ShortName, Scan: r.Scan, Channel: r.Channel}
	return a.change(ctx, d, s.Revision, fmt.Sprintf("store %s in slot %d", label(r.Channel), e.Slot), func(x *store.Edit) error {
		if old, ok := d.at(e.Slot); ok {
			if err := x.DropEntry(old.ID); err != nil {
				return err
			}
			if err := x.DropChannel(old.ChannelID); err != nil {
				return err
			}
		}
		if e.ChannelID, err = x.AddChannel(e.Channel); err != nil {
			return err
		}
		return x.AddEntry(e)
	})
}

// trouble says what keeps the line from being stored.
func (r *Reading) trouble() string {
	for _, f := range r.Findings {
		if f.Rule == "entry-word" || f.Rule == "entry-ambiguous" {
			return f.Title + ": " + f.Message
		}
	}
	return "the line is not complete"
}

// Patch applies a JSON Patch (RFC 6902) to the channel in a slot: this is how
// the fix of a finding is carried out.
func (a *App) Patch(ctx context.Context, loadID int64, slot int, revision int64, ops []channel.Op) (*Ledger, error) {
	d, e, err := a.occupied(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	c, err := apply(e.Channel, ops)
	if err != nil {
		f.Add("patch", "%v", err)
		return nil, f
	}
	return a.change(ctx, d, revision, fmt.Sprintf("fix %s in slot %d", label(e.Channel), slot), func(x *store.Edit) error {
		return x.SetChannel(e.ChannelID, c)
	})
}

func apply(c channel.Channel, ops []channel.Op) (channel.Channel, error) {
	raw, err := json.Marshal(ops)
	if err != nil {
		return c, fmt.Errorf("read patch: %w", err)
	}
	patch, err := jsonpatch.DecodePatch(raw)
	if err != nil {
		return c, fmt.Errorf("read patch: %w", err)
	}
	doc, err := json.Marshal(c)
	if err != nil {
		return c, err
	}
	if doc, err = patch.Apply(doc); err != nil {
		return c, fmt.Errorf("the channel is not as the fix expects it: %w", err)
	}
	var out channel.Channel
	if err := json.Unmarshal(doc, &out); err != nil {
		return c, fmt.Errorf("the fix makes no channel: %w", err)
	}
	return out, nil
}

// Delete empties a slot.
func (a *App) Delete(ctx context.Context, loadID int64, slot int, revision int64) (*Ledger, error) {
	d, e, err := a.occupied(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	return a.change(ctx, d, revision, fmt.Sprintf("delete %s from slot %d", label(e.Channel), slot), func(x *store.Edit) error {
		if err := x.DropEntry(e.ID); err != nil {
			return err
		}
		return x.DropChannel(e.ChannelID)
	})
}

// Undo takes the operator's last change of the plan back, or with redo brings
// the last one that was taken back.
func (a *App) Undo(ctx context.Context, loadID, revision int64, redo bool) (*Ledger, error) {
	d, err := a.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	_, err = a.store.Undo(ctx, d.plan.ID, revision, a.stamp(d.operator, ""), redo)
	return a.after(ctx, loadID, err)
}

// occupied returns the entry in a slot, or ErrNotFound.
func (a *App) occupied(ctx context.Context, loadID int64, slot int) (*desk, store.Entry, error) {
	d, err := a.desk(ctx, loadID)
	if err != nil {
		return nil, store.Entry{}, err
	}
	e, ok := d.at(slot)
	if !ok {
		return nil, store.Entry{}, fmt.Errorf("slot %d is empty: %w", slot, fault.ErrNotFound)
	}
	return d, e, nil
}

// shorten keeps the short name in step with the long one, unless the person
// chose a short name that the long one did not give.
func (d *desk) shorten(old store.Entry, name string) string {
	taken := d.shortTaken(old.Slot)
	if old.ShortName != naming.Short(old.Channel.Name, d.radio.Names, taken) {
		return old.ShortName
	}
	return naming.Short(name, d.radio.Names, taken)
}
