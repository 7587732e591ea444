package store

import (
	"context"
	"fmt"

	"mnemos/core/tone"
	"mnemos/core/trial"
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

// Searched returns the searches for a tone of each channel of a plan, oldest first.
func (s *Store) Searched(ctx context.Context, planID int64) (map[int64][]Attempt, error) {
	var rows []Attempt
	if err := s.read.SelectContext(ctx, &rows, "SELECT "+tables["attempt"].columns+" FROM attempt WHERE plan_id = ? AND kind = 'search' ORDER BY at, id", planID); err != nil {
		return nil, fmt.Errorf("read the log: %w", err)
	}
	out := map[int64][]Attempt{}
	for _, r := range rows {
		out[r.ChannelID] = append(out[r.ChannelID], r)
	}
	return out, nil
}

// Proofs returns what proved the channels of a radio, by channel: the call that was
// answered, and behind it the calls since that were to fail and did.
func (s *Store) Proofs(ctx context.Context, loadID int64) (map[int64][]Attempt, error) {
	var rows []Attempt
	err := s.read.SelectContext(ctx, &rows, "SELECT "+tables["attempt"].columns+` FROM attempt WHERE id IN (SELECT a.id FROM standing s JOIN attempt a ON a.load_id = s.load_id AND a.channel_id = s.channel_id
		WHERE s.load_id = ? AND s.state = 'proven' AND a.kind = 'key' AND (a.at = s.at AND NOT a.negative AND a.answer <> 'nothing' OR a.at >= s.at AND a.negative AND a.answer = 'nothing'))
		ORDER BY negative, at, id`, loadID)
	if err != nil {
		return nil, fmt.Errorf("read what proved a channel: %w", err)
	}
	out := map[int64][]Attempt{}
	for _, r := range rows {
		out[r.ChannelID] = append(out[r.ChannelID], r)
	}
	return out, nil
}

// Hit is what a search for a tone came to, as it was noted.
func (a Attempt) Hit() trial.Hit {
	t, err := tone.Parse(a.ToneIn)
	if err != nil {
		t = tone.Off
	}
	return trial.Hit{Side: trial.Side(a.Side), System: trial.System(a.Answer), Tone: t}
}

// Hits are those of searches.
func Hits(searches []Attempt) (out []trial.Hit) {
	for _, a := range searches {
		out = append(out, a.Hit())
	}
	return out
}
