package api

import (
	"context"
	"time"

	"mnemos/core/compare"
	"mnemos/internal/plan"
)

func wireHistory(h *plan.History) History {
	return History{
		More: h.More,
		Changes: each(h.Changes, func(x plan.Past) PastChange {
			return PastChange{Event: x.Event, Says: x.Says, Person: x.Person, At: moment(x.At), Undone: x.Undone, Latest: x.Latest}
		}),
		Snapshots: each(h.Snapshots, func(x plan.Snapshot) Snapshot {
			return Snapshot{Id: x.ID, Name: x.Name, Event: x.Event, At: moment(x.At)}
		}),
	}
}

// moment is a time as the store writes it; one that it did not write is none.
func moment(text string) time.Time {
	at, err := time.Parse(time.RFC3339, text)
	if err != nil {
		return time.Time{}
	}
	return at
}

func (s *server) GetHistory(ctx context.Context, r GetHistoryRequestObject) (GetHistoryResponseObject, error) {
	h, err := s.Plans.History(ctx, r.Id, or(r.Params.Before))
	if err != nil {
		return nil, err
	}
	return GetHistory200JSONResponse(wireHistory(h)), nil
}

func (s *server) KeepSnapshot(ctx context.Context, r KeepSnapshotRequestObject) (KeepSnapshotResponseObject, error) {
	h, err := s.Plans.Keep(ctx, r.Id, r.Body.Name)
	if err != nil {
		return nil, err
	}
	return KeepSnapshot201JSONResponse(wireHistory(h)), nil
}

func (s *server) ForgetSnapshot(ctx context.Context, r ForgetSnapshotRequestObject) (ForgetSnapshotResponseObject, error) {
	h, err := s.Plans.Forget(ctx, r.Id, r.Snapshot)
	if err != nil {
		return nil, err
	}
	return ForgetSnapshot200JSONResponse(wireHistory(h)), nil
}

func (s *server) GoBack(ctx context.Context, r GoBackRequestObject) (GoBackResponseObject, error) {
	l, err := s.Plans.GoBack(ctx, r.Load, r.Body.Event, r.Body.Revision)
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) GoBackResponseObject { return GoBack200JSONResponse{l} })
}

func (s *server) ComparePlans(ctx context.Context, r ComparePlansRequestObject) (ComparePlansResponseObject, error) {
	was := plan.Side{Plan: r.Id, Event: or(r.Params.Event), Load: or(r.Params.Load)}
	is := plan.Side{Plan: r.Id, Event: or(r.Params.WithEvent), Load: or(r.Params.WithLoad)}
	if r.Params.With != nil {
		is.Plan = *r.Params.With
	}
	c, err := s.Plans.Compare(ctx, was, is)
	if err != nil {
		return nil, err
	}
	return ComparePlans200JSONResponse(wireComparison(c)), nil
}

func wireCompared(i *compare.Item) *Compared {
	if i == nil {
		return nil
	}
	return &Compared{Slot: i.Slot, Name: i.Channel.Name, ReceiveHz: hertz(i.Channel.Receive)}
}
