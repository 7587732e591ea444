package api

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"

	"mnemos/internal/house"
	"mnemos/internal/importing"
	"mnemos/internal/job"
	"mnemos/internal/live"
)

// send writes one server-sent event; kind and ID may be empty.
type send func(kind, id string, data any) error

// stream is an answer of server-sent events.
type stream struct {
	ctx  context.Context
	feed func(send) error
}

func (s stream) visit(w http.ResponseWriter) error {
	w.Header().Set("Content-Type", "text/event-stream")
	w.Header().Set("Cache-Control", "no-store")
	w.WriteHeader(http.StatusOK)
	flush := http.NewResponseController(w)
	if err := flush.SetWriteDeadline(deadline()); err != nil && !errors.Is(err, http.ErrNotSupported) {
		return err
	}
	if err := flush.Flush(); err != nil { // who watches knows that it is heard
		return err
	}
	err := s.feed(func(kind, id string, data any) error {
		if err := flush.SetWriteDeadline(deadline()); err != nil && !errors.Is(err, http.ErrNotSupported) {
			return err
		}
		if kind == live.Beat {
			if _, err := fmt.Fprint(w, ": still here\n\n"); err != nil {
				return err
			}
			return flush.Flush()
		}
		b, err := json.Marshal(data)
		if err != nil {
			return err
		}
		if kind != "" {
			if _, err := fmt.Fprintf(w, "event: %s\n", kind); err != nil {
				return err
			}
		}
		if id != "" {
			if _, err := fmt.Fprintf(w, "id: %s\n", id); err != nil {
				return err
			}
		}
		if _, err := fmt.Fprintf(w, "data: %s\n\n", b); err != nil {
			return err
		}
		return flush.Flush()
	})
	if s.ctx.Err() != nil {
		return nil // the page has gone
	}
	return err
}

// VisitWatchImportResponse implements WatchImportResponseObject.
func (s stream) VisitWatchImportResponse(w http.ResponseWriter) error { return s.visit(w) }

// VisitWatchResponse implements WatchResponseObject.
func (s stream) VisitWatchResponse(w http.ResponseWriter) error { return s.visit(w) }

func (s *server) Watch(ctx context.Context, r WatchRequestObject) (WatchResponseObject, error) {
	after := or(r.Params.LastEventID)
	if after == "" {
		after = or(r.Params.After)
	}
	now, head, err := s.Hub.Now(ctx)
	if err != nil {
		return nil, err
	}
	after = cmp.Or(after, now)
	return stream{ctx, func(send send) error {
		if err := send("hello", after, Event{Event: &head}); err != nil {
			return err
		}
		return s.Hub.Follow(ctx, after, func(e live.Event) error { return send(e.Kind, e.ID, wireEvent(e)) })
	}}, nil
}

func wireEvent(e live.Event) Event {
	switch x := e.Data.(type) {
	case house.Changeset:
		changes := each(x.Changes, wireChange)
		return Event{Event: &x.Event, Plan: &x.PlanID, Person: &x.PersonID, Label: &x.Label, Changes: &changes}
	case job.Told[importing.State]:
		state := wireState(x.State)
		return Event{Import: &x.ID, State: &state}
	case bool:
		return Event{Loading: &x}
	}
	return Event{}
}

func wireChange(c house.RowChange) RowChange {
	out := RowChange{Table: c.Table, Id: c.ID}
	for _, side := range []struct {
		from json.RawMessage
		to   **map[string]any
	}{{c.Before, &out.Before}, {c.After, &out.After}} {
		var row map[string]any
		if err := json.Unmarshal(side.from, &row); err == nil && row != nil { // an image is an object, or null
			*side.to = &row
		}
	}
	return out
}
