package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"

	"github.com/jmoiron/sqlx"

	"mnemos/internal/fault"
)

// Request is how a change is asked for: a key of whoever asks, under which it
// takes place once, and a digest of what is asked for.
type Request struct{ Key, Hash string }

// Done reports whether what was asked for under a key took place. A key that
// something else was asked for under is fault.Invalid.
func (s *Store) Done(ctx context.Context, r Request) (bool, error) { return r.done(ctx, s.read) }

func (r Request) done(ctx context.Context, q sqlx.QueryerContext) (bool, error) {
	if r.Key == "" {
		return false, nil
	}
	var hash string
	err := sqlx.GetContext(ctx, q, &hash, "SELECT hash FROM request WHERE key = ?", r.Key)
	switch {
	case errors.Is(err, sql.ErrNoRows):
		return false, nil
	case err != nil:
		return false, fmt.Errorf("look for the request: %w", err)
	case hash != "" && hash != r.Hash: // none of what an older version kept
		f := &fault.Invalid{}
		f.Add("Idempotency-Key", "this key was used for something else: ask under a new one")
		return true, f
	}
	return true, nil
}

const keepRequest = "INSERT INTO request (key, hash, at) VALUES (?, ?, datetime('now'))"

// claim takes the key for this change, or reports that it took place before.
func (r Request) claim(ctx context.Context, tx *sqlx.Tx) error {
	done, err := r.done(ctx, tx)
	if err != nil || r.Key == "" {
		return err
	}
	if done {
		return fault.ErrDone
	}
	if _, err := tx.ExecContext(ctx, keepRequest, r.Key, r.Hash); err != nil {
		return fmt.Errorf("keep the request: %w", err)
	}
	return nil
}

// Keep keeps the key of a request that was carried out and changed nothing that
// the journal knows.
func (s *Store) Keep(ctx context.Context, r Request) error {
	if r.Key == "" {
		return nil
	}
	if _, err := s.write.ExecContext(ctx, keepRequest+" ON CONFLICT (key) DO NOTHING", r.Key, r.Hash); err != nil {
		return fmt.Errorf("keep the request: %w", err)
	}
	return nil
}

// forgetRequests lets keys go that nobody asks under any more.
func (s *Store) forgetRequests(ctx context.Context) error {
	_, err := s.write.ExecContext(ctx, "DELETE FROM request WHERE at < datetime('now', '-60 days')")
	return err
}
