package store

import (
	"fmt"

	"mnemos/core/channel"
	"mnemos/core/listing"
)

// AddPlan makes a plan; what follows in the same change is of it.
func (e *Edit) AddPlan(p Plan) (Plan, error) {
	var err error
	if p.ID, err = e.ID("plan"); err != nil {
		return p, err
	}
	e.planID = p.ID
	return p, e.Put(p)
}

// AddChannel stores a new channel, made from a published statement or from
// none, and returns its number.
func (e *Edit) AddChannel(c channel.Channel, of listing.ID) (int64, error) {
	id, err := e.ID("channel")
	if err != nil {
		return 0, err
	}
	return id, e.Put(toRow(id, e.planID, c, of))
}

// SetChannel replaces a channel.
func (e *Edit) SetChannel(id int64, c channel.Channel, of listing.ID) error {
	if _, err := e.row("channel", id); err != nil {
		return e.removed("channel", id, err)
	}
	return e.Put(toRow(id, e.planID, c, of))
}

// DropChannel removes a channel that no entry uses any more, and with it its
// team slot; it does nothing while one does.
func (e *Edit) DropChannel(id int64) error {
	var used int
	if err := e.tx.GetContext(e.ctx, &used, "SELECT count(*) FROM entry WHERE channel_id = ?", id); err != nil {
		return fmt.Errorf("count uses of channel %d: %w", id, err)
	}
	if used > 0 {
		return nil
	}
	c, err := e.row("channel", id)
	if err != nil {
		return err
	}
	if err := e.saw(c); err != nil {
		return err
	}
	return e.dropChannel(c)
}

func (e *Edit) dropChannel(c Row) error {
	_, id := c.of()
	if err := e.unnumber(id); err != nil {
		return err
	}
	if err := e.leave("channel_id", id); err != nil {
		return err
	}
	if err := e.forget("channel_id", id); err != nil {
		return err
	}
	return e.remove(c)
}

// AddEntry puts a channel into a slot, if it is vacant.
func (e *Edit) AddEntry(v Entry) error {
	var err error
	if v.ID, err = e.ID("entry"); err != nil {
		return err
	}
	return e.SetEntry(v)
}

// SetEntry replaces an entry, its slot included.
func (e *Edit) SetEntry(v Entry) error {
	if err := e.room(v.row(), map[string][]int64{"entry": {v.ID}}); err != nil {
		return err
	}
	return e.Put(v.row())
}

// Placing is an entry and the slot that it is to be in.
type Placing struct {
	Entry
	To int
}

// Arrange puts entries into other slots, of one radio or of several. SQLite
// checks uniqueness row by row, so they wait on negative slots meanwhile. The
// numbers that everybody uses go along.
func (e *Edit) Arrange(placings []Placing) error {
	own := map[string][]int64{}
	parked := make([]Row, len(placings))
	for i, p := range placings {
		r, err := e.row("entry", p.ID)
		if err != nil {
			return e.removed("entry", p.ID, err)
		}
		if err := e.saw(r); err != nil {
			return err
		}
		parked[i] = r
		own["entry"] = append(own["entry"], p.ID)
	}
	for _, p := range placings {
		if err := e.park(p.ID); err != nil {
			return err
		}
	}
	for i, p := range placings {
		to := p.Entry
		to.Slot = p.To
		if err := e.room(to.row(), own); err != nil {
			return err
		}
		if err := e.write(parked[i], to.row()); err != nil {
			return err
		}
	}
	return e.follow(placings)
}

func (e *Edit) park(id int64) error {
	if _, err := e.tx.ExecContext(e.ctx, "UPDATE entry SET slot = -1 - id WHERE id = ?", id); err != nil {
		return fmt.Errorf("park entry %d: %w", id, err)
	}
	return nil
}

// DropEntry empties a slot.
func (e *Edit) DropEntry(id int64) error { return e.Drop("entry", id) }

// AddLoad takes a radio into the plan, without any channel; one without a
// number is new.
func (e *Edit) AddLoad(u Unit) (Load, error) {
	l := Load{PlanID: e.planID, UnitID: u.ID}
	var err error
	if u.ID == 0 {
		if u.ID, err = e.ID("unit"); err != nil {
			return l, err
		}
		if err := e.Put(u); err != nil {
			return l, err
		}
		l.UnitID = u.ID
	}
	if l.ID, err = e.ID("load"); err != nil {
		return l, err
	}
	return l, e.Put(l)
}

// DropLoad takes a radio and what it holds out of the plan. The channels stay
// where another radio holds them, and the radio where another plan does.
func (e *Edit) DropLoad(l Load) error {
	var entries []entryRow
	if err := e.tx.SelectContext(e.ctx, &entries, "SELECT "+tables["entry"].columns+" FROM entry WHERE load_id = ? ORDER BY id", l.ID); err != nil {
		return fmt.Errorf("read load %d: %w", l.ID, err)
	}
	for _, r := range entries {
		if err := e.DropEntry(r.ID); err != nil {
			return err
		}
		if err := e.DropChannel(r.ChannelID); err != nil {
			return err
		}
	}
	if err := e.forget("load_id", l.ID); err != nil {
		return err
	}
	if err := e.strip(l.ID); err != nil {
		return err
	}
	if err := e.Drop("load", l.ID); err != nil {
		return err
	}
	var used int
	if err := e.tx.GetContext(e.ctx, &used, "SELECT count(*) FROM load WHERE unit_id = ?", l.UnitID); err != nil || used > 0 {
		return err
	}
	return e.Drop("unit", l.UnitID)
}

// Number gives a channel the number that everybody uses, where nobody has it
// yet; it keeps the one that it has.
func (e *Edit) Number(channelID int64, n int) error {
	var taken int
	if err := e.tx.GetContext(e.ctx, &taken, "SELECT count(*) FROM team_slot WHERE channel_id = ? OR plan_id = ? AND number = ?", channelID, e.planID, n); err != nil || taken > 0 {
		return err
	}
	id, err := e.ID("team_slot")
	if err != nil {
		return err
	}
	return e.Put(TeamSlot{ID: id, PlanID: e.planID, Number: n, ChannelID: channelID})
}

// follow lets the numbers of channels follow them to other slots. A number stays
// where another radio has the channel in the old slot, and where somebody else
// has the new one.
func (e *Edit) follow(placings []Placing) error {
	var numbers []TeamSlot
	if err := e.tx.SelectContext(e.ctx, &numbers, "SELECT "+tables["team_slot"].columns+" FROM team_slot WHERE plan_id = ?", e.planID); err != nil {
		return fmt.Errorf("read team slots: %w", err)
	}
	var still []struct {
		Channel int64 `db:"channel_id"`
		Slot    int   `db:"slot"`
	}
	if err := e.tx.SelectContext(e.ctx, &still, "SELECT channel_id, slot FROM entry JOIN load ON load.id = entry.load_id WHERE plan_id = ? AND entry.kind = ''", e.planID); err != nil {
		return fmt.Errorf("read entries: %w", err)
	}
	type place struct {
		channel int64
		slot    int
	}
	stays := map[place]bool{}
	for _, x := range still {
		stays[place{x.Channel, x.Slot}] = true
	}
	to := map[place]int{}
	for _, p := range placings {
		to[place{p.ChannelID, p.Slot}] = p.To
	}
	want, taken := map[int64]int{}, map[int]int64{}
	for _, n := range numbers {
		taken[n.Number] = n.ChannelID
		if t, moved := to[place{n.ChannelID, n.Number}]; moved && !stays[place{n.ChannelID, n.Number}] {
			want[n.ChannelID] = t
		}
	}
	for settled := false; !settled; { // who cannot go is in the way of another
		settled = true
		for c, t := range want {
			by, is := taken[t]
			if _, goes := want[by]; is && by != c && !goes {
				delete(want, c)
				settled = false
			}
		}
	}
	for _, n := range numbers {
		if _, goes := want[n.ChannelID]; goes {
			if err := e.remove(n); err != nil {
				return err
			}
		}
	}
	for _, n := range numbers {
		if t, goes := want[n.ChannelID]; goes {
			if err := e.Number(n.ChannelID, t); err != nil {
				return err
			}
		}
	}
	return nil
}

// unnumber takes the number of a channel away. It follows from what happens to
// the channel, so nobody needs to have seen it.
func (e *Edit) unnumber(channelID int64) error {
	var rows []TeamSlot
	if err := e.tx.SelectContext(e.ctx, &rows, "SELECT "+tables["team_slot"].columns+" FROM team_slot WHERE channel_id = ?", channelID); err != nil {
		return fmt.Errorf("read the number of channel %d: %w", channelID, err)
	}
	for _, r := range rows {
		if err := e.remove(r); err != nil {
			return err
		}
	}
	return nil
}
