// Package live tells whoever listens what happens, in one order: changes of
// what people edit, how far long work is, and what is published. Changes are
// read from the journal, where they were committed; a notice only wakes who
// listens. So a notice that is lost, a reader that is slow or a panic on the way
// silences nobody: the next beat reads what is there. Who was away says what
// they heard last, and gets what came after it, or is told that too much has
// happened and everything is to be read anew.
package live

import (
	"context"
	"crypto/rand"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"

	"mnemos/core/limit"
	"mnemos/internal/root"
)

// Event is something that happened.
type Event struct {
	ID   string // what a stream is resumed by: everything up to this event was told
	Kind string
	Data any // what the kind says
}

// Kinds of events that every stream has.
const (
	Reset  = "reset"  // others were missed: read everything anew
	Change = "change" // of what people edit
	Beat   = "beat"   // nothing happened for a while
)

// Committed is a change as it was committed.
type Committed struct {
	Number int64
	Data   any
}

// Journal is where changes are read from.
type Journal interface {
	// Head is the number of the last change.
	Head(ctx context.Context) (int64, error)
	// After returns changes after one, the oldest first; enough at once, and not
	// always all. ok is false where there are too many to be told one by one.
	After(ctx context.Context, number int64) (changes []Committed, ok bool, err error)
}

// Hub hands events on.
type Hub struct {
	journal Journal
	epoch   string // the numbers of a hub count from one whenever it is made
	beat    time.Duration

	mu     sync.Mutex
	last   int64 // the number of the last state
	states []state
	more   chan struct{} // closed and replaced whenever something happens
	over   chan struct{} // closed in the end
}

// state is how something stands that is not in the journal: only the last counts.
type state struct {
	number    int64
	kind, key string
	data      any
}

// most is how many states are kept: those of the longest ago are of nobody any more.
const most = 64

// New returns a hub over a journal.
func New(journal Journal) *Hub {
	return &Hub{journal: journal, epoch: rand.Text()[:8], beat: limit.Pulse, more: make(chan struct{}), over: make(chan struct{})}
}

// Close lets everybody go who follows.
func (h *Hub) Close() {
	h.mu.Lock()
	defer h.mu.Unlock()
	select {
	case <-h.over:
	default:
		close(h.over)
	}
}

// Wake has everybody look into the journal. It waits for nobody.
func (h *Hub) Wake() {
	h.mu.Lock()
	defer h.mu.Unlock()
	root.Here("live: wake")
	h.wake()
}

func (h *Hub) wake() {
	close(h.more)
	h.more = make(chan struct{})
}

// Publish tells everybody how something stands now, in place of what was told of
// it before. It waits for nobody.
func (h *Hub) Publish(kind, key string, data any) {
	h.mu.Lock()
	defer h.mu.Unlock()
	h.last++
	h.states = slices.DeleteFunc(h.states, func(s state) bool { return s.kind == kind && s.key == key })
	if len(h.states) == most {
		h.states = slices.Delete(h.states, 0, 1)
	}
	h.states = append(h.states, state{h.last, kind, key, data})
	h.wake()
}

// place is how far somebody was told: the last change, and the last state.
type place struct{ change, state int64 }

func (h *Hub) id(p place) string { return fmt.Sprintf("%s-%d-%d", h.epoch, p.change, p.state) }

// Now is what a stream is resumed by that begins now, and the number of the last
// change.
func (h *Hub) Now(ctx context.Context) (id string, head int64, err error) {
	p, err := h.now(ctx)
	return h.id(p), p.change, err
}

func (h *Hub) now(ctx context.Context) (place, error) {
	_, n, _ := h.since(0) // first: what comes between is told
	head, err := h.journal.Head(ctx)
	return place{head, n}, err
}

// Follow calls f with every event after the one with the given ID, or after now
// if it is empty, until ctx ends, f fails or the hub is closed. The first is a
// Reset where some of them cannot be told any more; what came before it is not.
func (h *Hub) Follow(ctx context.Context, after string, f func(Event) error) error {
	at, known, err := h.from(ctx, after)
	if err != nil {
		return err
	}
	tell := func(to place, kind string, data any) error {
		root.Here("live: tell")
		at = to
		return f(Event{h.id(at), kind, data})
	}
	if !known {
		if err := tell(at, Reset, nil); err != nil {
			return err
		}
	}
	beat := time.NewTicker(h.beat)
	defer beat.Stop()
	for {
		states, last, more := h.since(at.state)
		changes, ok, err := h.journal.After(ctx, at.change)
		switch {
		case err != nil:
			return err
		case !ok:
			now, err := h.now(ctx)
			if err != nil {
				return err
			}
			if err := tell(now, Reset, nil); err != nil {
				return err
			}
			continue
		}
		for _, c := range changes {
			if err := tell(place{c.Number, at.state}, Change, c.Data); err != nil {
				return err
			}
		}
		if len(changes) > 0 {
			continue // there may be more of them, and how things stand comes last
		}
		for _, s := range states {
			if err := tell(place{at.change, s.number}, s.kind, s.data); err != nil {
				return err
			}
		}
		at.state = last
		select {
		case <-more:
		case <-beat.C:
			if err := tell(at, Beat, nil); err != nil {
				return err
			}
		case <-h.over:
			return nil
		case <-ctx.Done():
			return ctx.Err()
		}
	}
}

// from is where a stream goes on; known is false where it cannot, and begins now.
func (h *Hub) from(ctx context.Context, id string) (at place, known bool, err error) {
	now, err := h.now(ctx)
	if err != nil || id == "" {
		return now, true, err
	}
	parts := strings.Split(id, "-")
	if len(parts) != 3 || parts[0] != h.epoch {
		return now, false, nil
	}
	change, err1 := strconv.ParseInt(parts[1], 10, 64)
	state, err2 := strconv.ParseInt(parts[2], 10, 64)
	if err1 != nil || err2 != nil || change < 0 || change > now.change || state < 0 || state > now.state {
		return now, false, nil
	}
	return place{change, state}, true, nil
}

// since returns the states after one, the number of the last there is, and what
// is closed when there is more.
func (h *Hub) since(n int64) (out []state, last int64, more chan struct{}) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for _, s := range h.states {
		if s.number > n {
			out = append(out, s)
		}
	}
	return out, h.last, h.more
}
