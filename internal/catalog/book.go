package catalog

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"sync"
	"time"

	"mnemos/core/find"
	"mnemos/core/listing"
)

// shelf keeps the books that were bound last: one that serves every plan, and one
// for a plan with listings of its own.
type shelf struct {
	mu    sync.Mutex
	books []bound
}

// bound is a book with what it is of.
type bound struct {
	generation int64
	plan       int64 // 0 where it serves every plan
	book       *find.Book
}

// kept is how many books are kept.
const kept = 2

// Book returns all that is published for a plan, joined and as people correct it.
// The first who asks after a change waits until it is bound.
func (c *Catalog) Book(ctx context.Context, planID int64) (*find.Book, error) {
	for {
		c.refreshed(ctx)
		s, generation, err := c.whole(ctx)
		if err != nil {
			return nil, err
		}
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		r, ok := s.found.(*records)
		if !ok {
			continue // changed since
		}
		hidden := s.confined.hidden(planID)
		if len(s.confined) == 0 {
			planID = 0
		}
		return c.books.get(generation.Number, planID, func() *find.Book {
			all := slices.Concat(r.Records(), r.channels)
			all = slices.DeleteFunc(all, func(x listing.Record) bool { return hidden[x.Source] })
			return find.Bind(all, s.known, s.decisions)
		}), nil
	}
}

// refreshed waits until the records are in memory, or nobody wants them any more.
func (c *Catalog) refreshed(ctx context.Context) {
	for !c.Within(ctx, time.Minute) && ctx.Err() == nil {
		continue
	}
}

// get returns a book, and binds it where it is not there: whoever asks meanwhile
// waits for it.
func (s *shelf) get(generation, plan int64, bind func() *find.Book) *find.Book {
	s.mu.Lock()
	defer s.mu.Unlock()
	for _, b := range s.books {
		if b.generation == generation && b.plan == plan {
			return b.book
		}
	}
	s.books = slices.DeleteFunc(s.books, func(b bound) bool { return b.plan == plan || b.generation != generation })
	if len(s.books) >= kept {
		s.books = s.books[1:]
	}
	book := bind()
	s.books = append(s.books, bound{generation, plan, book})
	return book
}

// Outlines returns the coasts that are drawn beside those of the world.
func (c *Catalog) Outlines(ctx context.Context) ([]map[string]any, error) {
	texts, err := c.store.Outlines(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]map[string]any, len(texts))
	for i, text := range texts {
		if err := json.Unmarshal([]byte(text), &out[i]); err != nil {
			return nil, fmt.Errorf("read outline: %w", err)
		}
	}
	return out, nil
}
