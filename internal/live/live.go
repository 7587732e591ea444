// Package live tells whoever listens what happens, in one order: changes of
// what people edit, how far long work is, and what is published. Each event has
// a number. Who was away asks for what came after the last one, and gets it, or
// is told that too much has happened and everything is to be read anew.
package live

import (
	"context"
	"crypto/rand"
	"fmt"
	"strconv"
	"strings"
	"sync"
)

// Event is something that happened.
type Event struct {
	Number int64
	Kind   string
	Data   any // what the kind says
}

// Reset is the kind of an event for somebody who missed others.
const Reset = "reset"

// Hub hands events on. Its numbers count from one whenever it is made, so they
// go together with an epoch.
type Hub struct {
	epoch string
	mu    sync.Mutex
	last  int64
	kept  []Event
	more  chan struct{} // closed and replaced with every event
	over  chan struct{} // closed in the end
}

// Remember is how many events are kept for those who were away.
const Remember = 2000

// New returns a hub.
func New() *Hub {
	return &Hub{epoch: rand.Text()[:8], more: make(chan struct{}), over: make(chan struct{})}
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

// Publish tells everybody. It waits for nobody.
func (h *Hub) Publish(kind string, data any) {
	h.mu.Lock()
	defer h.mu.Unlock()
	h.last++
	if len(h.kept) == Remember {
		h.kept = append(h.kept[:0:0], h.kept[Remember/2:]...)
	}
	h.kept = append(h.kept, Event{h.last, kind, data})
	close(h.more)
	h.more = make(chan struct{})
}

// ID is what an event is resumed by.
func (h *Hub) ID(e Event) string { return fmt.Sprintf("%s-%d", h.epoch, e.Number) }

// Now is the ID of the last event.
func (h *Hub) Now() string {
	h.mu.Lock()
	defer h.mu.Unlock()
	return h.ID(Event{Number: h.last})
}

// Follow calls f with every event after the one with the given ID, or after
// now if it is empty, until ctx ends, f fails or the hub is closed. The first is a Reset where
// some of them are no longer known.
func (h *Hub) Follow(ctx context.Context, after string, f func(Event) error) error {
	h.mu.Lock()
	at := h.last
	h.mu.Unlock()
	if after != "" {
		n, ok := h.number(after)
		if !ok {
			if err := f(Event{Number: at, Kind: Reset}); err != nil {
				return err
			}
		} else {
			at = n
		}
	}
	for {
		events, more, ok := h.since(at)
		if !ok { // so slow that others took its place
			at = events[0].Number - 1
			if err := f(Event{Number: at, Kind: Reset}); err != nil {
				return err
			}
		}
		for _, e := range events {
			if err := f(e); err != nil {
				return err
			}
			at = e.Number
		}
		if len(events) > 0 {
			continue
		}
		select {
		case <-more:
		case <-h.over:
			return nil
		case <-ctx.Done():
			return ctx.Err()
		}
	}
}

// since returns the events after a number; ok is false where some are no longer
// known.
func (h *Hub) since(n int64) (events []Event, more chan struct{}, ok bool) {
	h.mu.Lock()
	defer h.mu.Unlock()
	first := h.last - int64(len(h.kept)) // the number before the first that is kept
	if n < first {
		return append(events, h.kept...), h.more, false
	}
	return append(events, h.kept[n-first:]...), h.more, true
}

// number reads the ID of an event of this hub.
func (h *Hub) number(id string) (int64, bool) {
	epoch, n, _ := strings.Cut(id, "-")
	at, err := strconv.ParseInt(n, 10, 64)
	h.mu.Lock()
	defer h.mu.Unlock()
	return at, err == nil && epoch == h.epoch && at >= 0 && at <= h.last && at >= h.last-int64(len(h.kept))
}
