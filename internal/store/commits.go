package store

import (
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"sync"
)

// commits hands changes on in the order in which they took place: who commits
// first may be told of last.
type commits struct {
	mu      sync.Mutex
	next    int64 // the number of the change that is told of next
	waiting map[int64]Changeset
	listen  []func(Changeset)
}

// Listen has a function called with every change, one after another, in their
// order. It must not wait for anything.
func (s *Store) Listen(f func(Changeset)) {
	s.commits.mu.Lock()
	defer s.commits.mu.Unlock()
	s.commits.listen = append(s.commits.listen, f)
}

func (s *Store) committed(c Changeset) {
	s.tellSaid(c)
	w := &s.commits
	w.mu.Lock()
	defer w.mu.Unlock()
	w.waiting[c.Event] = c
	for {
		c, ok := w.waiting[w.next]
		if !ok {
			return
		}
		delete(w.waiting, w.next)
		w.next++
		for _, f := range w.listen {
			f(c)
		}
	}
}

// tellSaid counts what a change says about statements.
func (s *Store) tellSaid(c Changeset) {
	for _, x := range c.Changes {
		for _, text := range []json.RawMessage{x.Before, x.After} {
			r, ok, err := tables[x.Table].read(text)
			if !ok || err != nil { // it was written a moment ago
				continue
			}
			if about, ok := said(r); ok {
				s.says(about)
			}
		}
	}
}

// begin reads how far the changes are.
func (s *Store) begin(ctx context.Context) error {
	s.commits.waiting = map[int64]Changeset{}
	if err := s.read.GetContext(ctx, &s.commits.next, "SELECT 1 + coalesce((SELECT seq FROM sqlite_sequence WHERE name = 'journal'), 0)"); err != nil {
		return fmt.Errorf("read journal: %w", err)
	}
	return nil
}

func sortedKeys[V any](m map[int64]V) []int64 { return slices.Sorted(maps.Keys(m)) }
