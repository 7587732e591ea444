package store

import (
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"slices"

	"mnemos/core/listing"
	"mnemos/internal/root"
)

// Woken has a function called after every change: it is in the journal then. It
// must not wait for anything.
func (s *Store) Woken(f func()) { s.woken = f }

// sayings is what a change says about statements; all is set where it is about
// what counts at all.
type sayings struct {
	all   bool
	about []Said
}

// sayingsOf is worked out before the change is committed: nothing that could fail
// is left for afterwards.
func sayingsOf(c Changeset) (out sayings, err error) {
	for _, x := range c.Changes {
		if x.Table == "edition" {
			return sayings{all: true}, nil
		}
		for _, text := range []json.RawMessage{x.Before, x.After} {
			r, ok, err := tables[x.Table].read(text)
			if err != nil {
				return out, err
			}
			if about, says := said(r); ok && says {
				out.about = append(out.about, about)
			}
		}
	}
	return out, nil
}

// committed counts what a change says, and wakes who follows. It took place: what
// goes wrong here is no reason to say that it did not.
func (s *Store) committed(x sayings) {
	if err := root.Try("count a change", func() error { s.count(x); return nil }); err != nil {
		root.Must("count a change", s.publishes) // everything may be different
	}
	_ = root.Try("wake who follows", func() error { // who is not woken looks at the next beat
		root.Here("store: committed")
		if s.woken != nil {
			s.woken()
		}
		return nil
	})
}

func (s *Store) count(x sayings) {
	root.Here("store: count")
	if x.all {
		s.publishes()
		return
	}
	for _, about := range x.about {
		s.says(about)
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

// How much of the journal is told one by one: so many changes, of so many bytes,
// and so many of them at once.
const (
	toldChanges = 2000
	toldBytes   = 16 << 20
	toldAtOnce  = 100
)

// Told returns the first changes after one, as they were committed; ok is false
// where there are so many after it that it is better to read everything anew.
func (s *Store) Told(ctx context.Context, event int64) (out []Changeset, ok bool, err error) {
	var n, bytes int64
	if err := s.read.QueryRowxContext(ctx, "SELECT count(*), coalesce(sum(octet_length(changes)), 0) FROM (SELECT changes FROM journal WHERE id > ? ORDER BY id LIMIT ?)", event, toldChanges+1).Scan(&n, &bytes); err != nil {
		return nil, false, fmt.Errorf("read journal: %w", err)
	}
	if n > toldChanges || bytes > toldBytes {
		return nil, false, nil
	}
	if n == 0 {
		return nil, true, nil
	}
	rows, err := s.read.QueryxContext(ctx, "SELECT id, plan_id, person_id, kind, label, at, changes FROM journal WHERE id > ? ORDER BY id LIMIT ?", event, toldAtOnce)
	if err != nil {
		return nil, false, fmt.Errorf("read journal: %w", err)
	}
	defer func() { _ = rows.Close() }() // read to its end below
	for rows.Next() {
		var c Changeset
		var text string
		if err := rows.Scan(&c.Event, &c.PlanID, &c.PersonID, &c.Kind, &c.Label, &c.At, &text); err != nil {
			return nil, false, fmt.Errorf("read journal: %w", err)
		}
		if err := json.Unmarshal([]byte(text), &c.Changes); err != nil {
			return nil, false, fmt.Errorf("read journal %d: %w", c.Event, err)
		}
		out = append(out, c)
	}
	return out, true, rows.Err()
}

func sortedKeys[V any](m map[int64]V) []int64 { return slices.Sorted(maps.Keys(m)) }

// said is what a change of a row says about statements, before or after.
func said(r Row) (Said, bool) {
	switch x := r.(type) {
	case Correction:
		return Said{Of: []listing.ID{{Source: x.Source, Key: x.Key}}}, true
	case Decision:
		return Said{Of: []listing.ID{{Source: x.ASource, Key: x.AKey}, {Source: x.BSource, Key: x.BKey}}, Joined: true}, true
	}
	return Said{}, false
}
