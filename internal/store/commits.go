package store

import (
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"sync"

	"github.com/jmoiron/sqlx"
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
		if x.Table == "edition" {
			s.publishes()
			return
		}
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

// Head is the number of the last change of anything. Read before what is shown,
// it is the revision that whoever looks has seen.
func (s *Store) Head(ctx context.Context) (n int64, err error) {
	if err := s.read.GetContext(ctx, &n, "SELECT coalesce((SELECT seq FROM sqlite_sequence WHERE name = 'journal'), 0)"); err != nil {
		return 0, fmt.Errorf("read journal: %w", err)
	}
	return n, nil
}

// begin reads how far the changes are.
func (s *Store) begin(ctx context.Context) error {
	s.commits.waiting = map[int64]Changeset{}
	last, err := s.Head(ctx)
	s.commits.next = last + 1
	return err
}

func sortedKeys[V any](m map[int64]V) []int64 { return slices.Sorted(maps.Keys(m)) }

// Done reports whether the change that was asked for under a key took place.
func (s *Store) Done(ctx context.Context, request string) (bool, error) {
	return done(ctx, s.read, request)
}

func done(ctx context.Context, q sqlx.QueryerContext, request string) (yes bool, err error) {
	if request == "" {
		return false, nil
	}
	if err := sqlx.GetContext(ctx, q, &yes, "SELECT EXISTS (SELECT 1 FROM journal WHERE request = ?)", request); err != nil {
		return false, fmt.Errorf("look for the request: %w", err)
	}
	return yes, nil
}
