package store

import (
	"context"
	"fmt"
)

// Listening returns how a radio scans; the usual where nobody has said anything.
func (s *Store) Listening(ctx context.Context, loadID int64) (Listening, error) {
	var out []Listening
	if err := s.read.SelectContext(ctx, &out, "SELECT "+tables["listening"].columns+" FROM listening WHERE load_id = ?", loadID); err != nil {
		return Listening{}, fmt.Errorf("read how load %d scans: %w", loadID, err)
	}
	if len(out) == 0 {
		return Listening{LoadID: loadID, Stay: -1, Talk: "{}"}, nil
	}
	return out[0], nil
}

// Listen says how a radio scans.
func (e *Edit) Listen(l Listening) error {
	if l.ID == 0 {
		var err error
		if l.ID, err = e.ID("listening"); err != nil {
			return err
		}
	}
	return e.Put(l)
}

// Diary returns when people listened in a plan, and what they heard.
func (s *Store) Diary(ctx context.Context, planID int64) (listened []Listened, heard []Heard, err error) {
	if err := s.read.SelectContext(ctx, &listened, "SELECT "+tables["listened"].columns+" FROM listened WHERE plan_id = ? ORDER BY began, id", planID); err != nil {
		return nil, nil, fmt.Errorf("read the diary: %w", err)
	}
	if err := s.read.SelectContext(ctx, &heard, "SELECT "+tables["heard"].columns+" FROM heard WHERE plan_id = ? ORDER BY at, id", planID); err != nil {
		return nil, nil, fmt.Errorf("read the diary: %w", err)
	}
	return listened, heard, nil
}

// dropDiary removes what was heard in a plan.
func (e *Edit) dropDiary(planID int64) error {
	var listened []Listened
	if err := e.tx.SelectContext(e.ctx, &listened, "SELECT "+tables["listened"].columns+" FROM listened WHERE plan_id = ?", planID); err != nil {
		return fmt.Errorf("read the diary: %w", err)
	}
	for _, r := range listened {
		if err := e.remove(r); err != nil {
			return err
		}
	}
	var heard []Heard
	if err := e.tx.SelectContext(e.ctx, &heard, "SELECT "+tables["heard"].columns+" FROM heard WHERE plan_id = ?", planID); err != nil {
		return fmt.Errorf("read the diary: %w", err)
	}
	for _, r := range heard {
		if err := e.remove(r); err != nil {
			return err
		}
	}
	return e.dropLog(planID)
}
