package store

import (
	"slices"
	"sync"

	"mnemos/core/listing"
)

// Said is something that people know better about statements, or decided
// about them.
type Said struct {
	Of     []listing.ID
	Joined bool // that they are about one repeater, or not; else a field of theirs

	generation int64
}

// lately is what was said last.
type lately struct {
	mu   sync.Mutex
	from int64 // the generation since which they are complete
	list []Said
}

// remember is how many sayings are kept: whoever has not looked for so long
// looks at everything.
const remember = 1000

// says counts what people said about statements, once it is kept.
func (s *Store) says(x Said) {
	s.said.mu.Lock()
	defer s.said.mu.Unlock()
	x.generation = s.generation.Add(1)
	s.said.list = append(s.said.list, x)
	if n := len(s.said.list) - remember; n > 0 {
		s.said.from = s.said.list[n-1].generation
		s.said.list = slices.Delete(s.said.list, 0, n)
	}
}

// publishes counts a change of what is published, once it is over.
func (s *Store) publishes() {
	s.said.mu.Lock()
	defer s.said.mu.Unlock()
	s.changed.Add(1) // first: who sees the generation sees this too
	s.said.from, s.said.list = s.generation.Add(1), nil
}

// Said returns what people said between two generations; ok is false where
// more than that may have changed.
func (s *Store) Said(since, upTo int64) (out []Said, ok bool) {
	s.said.mu.Lock()
	defer s.said.mu.Unlock()
	if since < s.said.from || upTo < since {
		return nil, false
	}
	for _, x := range s.said.list {
		if x.generation > since && x.generation <= upTo {
			out = append(out, x)
		}
	}
	return out, true
}
