package store

import (
	"context"
	"fmt"
	"time"

	"github.com/jmoiron/sqlx"

	"mnemos/internal/root"
)

// batch is how many rows one step of long work writes, and together is how
// many steps one transaction takes at most. A longer one writes the same pages
// of the indexes fewer times; but who stores a channel meanwhile waits for a
// step and for the transaction to be committed. Measured by
// BenchmarkStoreDuringImport and BenchmarkImport.
const (
	batch    = 100
	together = 30
)

// peace is how long long work rests after it let somebody go first: their
// change is judged right after it is stored.
const peace = 40 * time.Millisecond

// yielding does long work step by step, until a step says that there is no
// more. Its transactions end as soon as somebody else waits for the writer. Two
// long works take turns: neither is a person who waits.
func (s *Store) yielding(ctx context.Context, step func(*sqlx.Tx) (more bool, err error)) error {
	for {
		waited, more, err := s.oneTurn(ctx, step)
		if err != nil || !more {
			return err
		}
		if s.write.Stats().WaitCount == waited {
			continue
		}
		select {
		case <-time.After(peace):
		case <-ctx.Done():
			return ctx.Err()
		}
	}
}

// oneTurn does some steps while no other long work does; waited is how often
// somebody had waited for the writer before.
func (s *Store) oneTurn(ctx context.Context, step func(*sqlx.Tx) (bool, error)) (waited int64, more bool, err error) {
	s.long.Lock()
	defer s.long.Unlock()
	waited = s.write.Stats().WaitCount
	root.Here("store: long work")
	more, err = s.someSteps(ctx, waited, step)
	return waited, more, err
}

func (s *Store) someSteps(ctx context.Context, waited int64, step func(*sqlx.Tx) (bool, error)) (more bool, err error) {
	tx, err := s.write.BeginTxx(ctx, nil)
	if err != nil {
		return false, fmt.Errorf("begin: %w", err)
	}
	defer func() { _ = tx.Rollback() }() // no effect after Commit
	for range together {
		if more, err = step(tx); err != nil {
			return false, err
		}
		if !more || s.write.Stats().WaitCount != waited {
			break
		}
	}
	return more, tx.Commit()
}
