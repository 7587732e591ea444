package store

import (
	"context"
	"fmt"

	"mnemos/internal/fault"
)

// Sets returns the sets of a plan, in the order of their kinds and names.
func (s *Store) Sets(ctx context.Context, planID int64) ([]Set, error) {
	var out []Set
	if err := s.read.SelectContext(ctx, &out, "SELECT "+tables["channel_set"].columns+" FROM channel_set WHERE plan_id = ? ORDER BY kind, name", planID); err != nil {
		return nil, fmt.Errorf("read sets: %w", err)
	}
	return out, nil
}

// Members returns which channels are in the sets of a plan, set by set in order.
func (s *Store) Members(ctx context.Context, planID int64) ([]Member, error) {
	var out []Member
	err := s.read.SelectContext(ctx, &out, "SELECT "+columnsOf("member", "m")+" FROM member AS m JOIN channel_set AS c ON c.id = m.set_id WHERE c.plan_id = ? ORDER BY m.set_id, m.place, m.id", planID)
	if err != nil {
		return nil, fmt.Errorf("read sets: %w", err)
	}
	return out, nil
}

// Join puts a channel into a set, behind those that are in it, or changes whether
// it has priority there.
func (e *Edit) Join(setID, channelID int64, priority bool) error {
	c, err := e.row("channel", channelID)
	if err != nil {
		return err
	}
	if row, ok := c.(channelRow); !ok || row.PlanID != e.planID {
		return fmt.Errorf("channel %d of the plan: %w", channelID, fault.ErrNotFound)
	}
	var m []Member
	if err := e.tx.SelectContext(e.ctx, &m, "SELECT "+tables["member"].columns+" FROM member WHERE set_id = ? AND channel_id = ?", setID, channelID); err != nil {
		return fmt.Errorf("read set %d: %w", setID, err)
	}
	if len(m) > 0 {
		now := m[0]
		now.Priority = priority
		return e.Put(now)
	}
	var place int
	if err := e.tx.GetContext(e.ctx, &place, "SELECT 1 + coalesce(max(place), 0) FROM member WHERE set_id = ?", setID); err != nil {
		return fmt.Errorf("read set %d: %w", setID, err)
	}
	id, err := e.ID("member")
	if err != nil {
		return err
	}
	return e.Put(Member{ID: id, SetID: setID, ChannelID: channelID, Place: place, Priority: priority})
}

// Leave takes a channel out of a set.
func (e *Edit) Leave(setID, channelID int64) error {
	var m []Member
	if err := e.tx.SelectContext(e.ctx, &m, "SELECT "+tables["member"].columns+" FROM member WHERE set_id = ? AND channel_id = ?", setID, channelID); err != nil {
		return fmt.Errorf("read set %d: %w", setID, err)
	}
	for _, r := range m {
		if err := e.remove(r); err != nil {
			return err
		}
	}
	return nil
}

// AddSet makes an empty set.
func (e *Edit) AddSet(kind, name string) (Set, error) {
	s := Set{PlanID: e.planID, Kind: kind, Name: name}
	var err error
	if s.ID, err = e.ID("channel_set"); err != nil {
		return s, err
	}
	return s, e.Put(s)
}

// DropSet removes a set. Its channels stay.
func (e *Edit) DropSet(id int64) error {
	if err := e.leave("set_id", id); err != nil {
		return err
	}
	return e.Drop("channel_set", id)
}

// leave empties a set, or takes a channel out of all sets. It follows from what
// happens to the set or the channel, so nobody needs to have seen it.
func (e *Edit) leave(column string, id int64) error {
	var rows []Member
	if err := e.tx.SelectContext(e.ctx, &rows, "SELECT "+tables["member"].columns+" FROM member WHERE "+column+" = ?", id); err != nil {
		return fmt.Errorf("read sets: %w", err)
	}
	for _, r := range rows {
		if err := e.remove(r); err != nil {
			return err
		}
	}
	return nil
}

// DropSets removes whatever hangs on a plan that is removed: its sets and
// snapshots.
func (e *Edit) DropSets(planID int64) error {
	var sets []Set
	if err := e.tx.SelectContext(e.ctx, &sets, "SELECT "+tables["channel_set"].columns+" FROM channel_set WHERE plan_id = ?", planID); err != nil {
		return fmt.Errorf("read sets: %w", err)
	}
	for _, s := range sets {
		if err := e.leave("set_id", s.ID); err != nil {
			return err
		}
		if err := e.remove(s); err != nil {
			return err
		}
	}
	var kept []Snapshot
	if err := e.tx.SelectContext(e.ctx, &kept, "SELECT "+tables["snapshot"].columns+" FROM snapshot WHERE plan_id = ?", planID); err != nil {
		return fmt.Errorf("read snapshots: %w", err)
	}
	for _, s := range kept {
		if err := e.remove(s); err != nil {
			return err
		}
	}
	return e.dropDiary(planID)
}
