package store

import (
	"context"
	"fmt"
)

// Attempts returns the tries of a plan, oldest first.
func (s *Store) Attempts(ctx context.Context, planID int64) ([]Attempt, error) {
	var out []Attempt
	if err := s.read.SelectContext(ctx, &out, "SELECT "+tables["attempt"].columns+" FROM attempt WHERE plan_id = ? ORDER BY at, id", planID); err != nil {
		return nil, fmt.Errorf("read the log: %w", err)
	}
	return out, nil
}

// Permissions returns what owners said, by frequency.
func (s *Store) Permissions(ctx context.Context, planID int64) (map[int64]Permission, error) {
	var rows []Permission
	if err := s.read.SelectContext(ctx, &rows, "SELECT "+tables["permission"].columns+" FROM permission WHERE plan_id = ?", planID); err != nil {
		return nil, fmt.Errorf("read permissions: %w", err)
	}
	out := map[int64]Permission{}
	for _, r := range rows {
		out[r.Receive] = r
	}
	return out, nil
}

// dropLog removes the tries and permissions of a plan.
func (e *Edit) dropLog(planID int64) error {
	var tries []Attempt
	if err := e.tx.SelectContext(e.ctx, &tries, "SELECT "+tables["attempt"].columns+" FROM attempt WHERE plan_id = ?", planID); err != nil {
		return fmt.Errorf("read the log: %w", err)
	}
	for _, r := range tries {
		if err := e.remove(r); err != nil {
			return err
		}
	}
	var said []Permission
	if err := e.tx.SelectContext(e.ctx, &said, "SELECT "+tables["permission"].columns+" FROM permission WHERE plan_id = ?", planID); err != nil {
		return fmt.Errorf("read permissions: %w", err)
	}
	for _, r := range said {
		if err := e.remove(r); err != nil {
			return err
		}
	}
	return nil
}

// Attempt returns a try.
func (s *Store) Attempt(ctx context.Context, id int64) (Attempt, error) {
	var a Attempt
	err := s.read.GetContext(ctx, &a, "SELECT "+tables["attempt"].columns+" FROM attempt WHERE id = ?", id)
	return a, found(err, fmt.Sprintf("the try %d", id))
}

// LastHeard returns the last try of each channel of a plan to which something came back.
func (s *Store) LastHeard(ctx context.Context, planID int64) (map[int64]Attempt, error) {
	var rows []Attempt
	err := s.read.SelectContext(ctx, &rows, "SELECT "+tables["attempt"].columns+` FROM attempt WHERE id IN (
		SELECT max(id) FROM attempt WHERE plan_id = ? AND kind = 'key' AND NOT negative AND answer <> 'nothing' GROUP BY channel_id)`, planID)
	if err != nil {
		return nil, fmt.Errorf("read the log: %w", err)
	}
	out := map[int64]Attempt{}
	for _, r := range rows {
		out[r.ChannelID] = r
	}
	return out, nil
}
