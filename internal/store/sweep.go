package store

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"sync"

	"github.com/jmoiron/sqlx"

	"mnemos/internal/root"
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
	root.Go("sweep", func() error {
		for {
			select {
			case <-ctx.Done():
				return nil
			case <-w.wake:
			}
			asked := w.look()
			_ = root.Try("sweep", func() error { return sweep(ctx) }) // what stays is swept the next time
			w.rest(asked)
		}
	}, func(error) { close(w.done) })
}

// look is how often the sweeper was woken; rest says that so much of it is done.
func (w *sweeper) look() int {
	w.mu.Lock()
	defer w.mu.Unlock()
	return w.asked
}

func (w *sweeper) rest(asked int) {
	w.mu.Lock()
	defer w.mu.Unlock()
	w.swept = asked
	w.idle.Broadcast()
}

func (w *sweeper) stop() {
	if w.cancel == nil {
		return
	}
	w.cancel()
	<-w.done
	w.rest(w.look())
}

// Sweep asks for the editions that do not count to be removed, soon.
func (s *Store) Sweep() {
	w := &s.sweeper
	if w.wake == nil {
		return
	}
	w.ask()
	select {
	case w.wake <- struct{}{}:
	default: // it is awake
	}
}

func (w *sweeper) ask() {
	w.mu.Lock()
	defer w.mu.Unlock()
	w.asked++
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
	if err := s.forgetRequests(ctx); err != nil {
		return fmt.Errorf("forget requests: %w", err)
	}
	root.Here("store: sweep")
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
