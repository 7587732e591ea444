package store

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"sync"

	"github.com/jmoiron/sqlx"
)

// sweeper removes in the background what no longer counts, so that nobody
// waits for it: neither who imports, nor who cancels.
type sweeper struct {
	wake   chan struct{}
	cancel context.CancelFunc
	done   chan struct{}
	mu     sync.Mutex
	idle   *sync.Cond
	asked  int // how often it was woken
	swept  int // how many of those are done
}

func (w *sweeper) start(sweep func(context.Context) error) {
	ctx, cancel := context.WithCancel(context.Background())
	w.wake, w.cancel, w.done = make(chan struct{}, 1), cancel, make(chan struct{})
	w.idle = sync.NewCond(&w.mu)
	go func() {
		defer close(w.done)
		for {
			select {
			case <-ctx.Done():
				return
			case <-w.wake:
			}
			w.mu.Lock()
			asked := w.asked
			w.mu.Unlock()
			_ = sweep(ctx) // what stays is swept the next time
			w.mu.Lock()
			w.swept = asked
			w.idle.Broadcast()
			w.mu.Unlock()
		}
	}()
}

func (w *sweeper) stop() {
	if w.cancel == nil {
		return
	}
	w.cancel()
	<-w.done
	w.mu.Lock()
	w.swept = w.asked
	w.idle.Broadcast()
	w.mu.Unlock()
}

// Sweep asks for the editions that do not count to be removed, soon.
func (s *Store) Sweep() {
	w := &s.sweeper
	if w.wake == nil {
		return
	}
	w.mu.Lock()
	w.asked++
	w.mu.Unlock()
	select {
	case w.wake <- struct{}{}:
	default: // it is awake
	}
}

// Swept waits until everything that was asked for before is swept.
func (s *Store) Swept() {
	w := &s.sweeper
	w.mu.Lock()
	defer w.mu.Unlock()
	for asked := w.asked; w.swept < asked; {
		w.idle.Wait()
	}
}

// sweep removes editions that do not count: those that newer ones replaced,
// and what an import that was cut off left behind. It lets others go
// first, so that nobody waits for it.
func (s *Store) sweep(ctx context.Context) error {
	// What is there is read first, then what is being written: an edition is
	// pending before it is there. One that counts meanwhile is active.
	var ids []int64
	if err := s.write.SelectContext(ctx, &ids, "SELECT id FROM edition WHERE active = 0 AND kept = 0"); err != nil {
		return fmt.Errorf("sweep editions: %w", err)
	}
	ids = slices.DeleteFunc(ids, func(id int64) bool { _, pending := s.pending.Load(id); return pending })
	if len(ids) == 0 {
		return nil
	}
	list, err := json.Marshal(ids)
	if err != nil {
		return fmt.Errorf("sweep editions: %w", err)
	}
	const gone = "(SELECT id FROM edition WHERE active = 0 AND kept = 0 AND id IN (SELECT value FROM json_each(?)))"
	for _, table := range []string{"record", "reject"} {
		err := s.yielding(ctx, func(tx *sqlx.Tx) (bool, error) {
			res, err := tx.ExecContext(ctx, "DELETE FROM "+table+" WHERE id IN (SELECT id FROM "+table+" WHERE edition_id IN "+gone+" LIMIT ?)", string(list), batch)
			if err != nil {
				return false, err
			}
			n, err := res.RowsAffected()
			return n > 0, err
		})
		if err != nil {
			return fmt.Errorf("sweep editions: %w", err)
		}
	}
	if _, err := s.write.ExecContext(ctx, "DELETE FROM edition WHERE id IN "+gone, string(list)); err != nil {
		return fmt.Errorf("sweep editions: %w", err)
	}
	return nil
}
