package api

import (
	"context"
	"strconv"
	"strings"

	"mnemos/core/intake"
	"mnemos/core/standing"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
)

func (s *server) Arrange(ctx context.Context, r ArrangeRequestObject) (ArrangeResponseObject, error) {
	b := r.Body
	l, err := s.Plans.Arrange(ctx, r.Load, plan.Arrangement{
		Act: string(b.Act), Slots: b.Slots, To: or(b.To), Count: or(b.Count), Everywhere: or(b.Everywhere), Revision: b.Revision,
	})
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) ArrangeResponseObject { return Arrange200JSONResponse{l} })
}

func (s *server) UpdateSeveral(ctx context.Context, r UpdateSeveralRequestObject) (UpdateSeveralResponseObject, error) {
	b := r.Body.Fields
	l, err := s.Plans.UpdateSome(ctx, r.Load, r.Body.Slots, plan.Update{
		Name: b.Name, ShortName: b.ShortName, Receive: b.Receive, Shift: b.Shift, TransmitTone: b.TransmitTone, ReceiveTone: b.ReceiveTone,
		Width: b.Bandwidth, Power: b.Power, Scan: b.Scan, Pinned: b.Pinned, Revision: r.Body.Revision,
	})
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) UpdateSeveralResponseObject { return UpdateSeveral200JSONResponse{l} })
}

// slotList reads slot numbers that are parted by commas.
func slotList(text string) ([]int, error) {
	var out []int
	for _, x := range strings.Split(text, ",") {
		n, err := strconv.Atoi(strings.TrimSpace(x))
		if err != nil {
			f := &fault.Invalid{}
			f.Add("slots", "%q is not a list of slots: write numbers with commas between them", text)
			return nil, f
		}
		out = append(out, n)
	}
	return out, nil
}

func (s *server) DeleteSeveral(ctx context.Context, r DeleteSeveralRequestObject) (DeleteSeveralResponseObject, error) {
	in, err := slotList(r.Params.Slots)
	if err != nil {
		return nil, err
	}
	l, err := s.Plans.DeleteSome(ctx, r.Load, in, orLatest(r.Params.Revision))
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) DeleteSeveralResponseObject { return DeleteSeveral200JSONResponse{l} })
}

func (s *server) DuplicateSeveral(ctx context.Context, r DuplicateSeveralRequestObject) (DuplicateSeveralResponseObject, error) {
	l, err := s.Plans.DuplicateSome(ctx, r.Load, r.Body.Slots, r.Body.Revision)
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) DuplicateSeveralResponseObject { return DuplicateSeveral201JSONResponse{l} })
}

func (s *server) CopyTable(ctx context.Context, r CopyTableRequestObject) (CopyTableResponseObject, error) {
	in, err := slotList(r.Params.Slots)
	if err != nil {
		return nil, err
	}
	text, err := s.Plans.Copied(ctx, r.Load, in)
	if err != nil {
		return nil, err
	}
	return CopyTable200JSONResponse{Text: text}, nil
}

func (s *server) PasteTable(ctx context.Context, r PasteTableRequestObject) (PasteTableResponseObject, error) {
	b := r.Body
	v, err := s.Plans.Paste(ctx, r.Load, plan.Paste{
		Text: b.Text, Slot: b.Slot, Replace: or(b.Replace), Viewpoint: intake.Viewpoint(or(b.Viewpoint)), Revision: b.Revision,
	})
	if err != nil {
		return nil, err
	}
	out, err := s.wirePasted(ctx, v)
	if err != nil {
		return nil, err
	}
	return PasteTable200JSONResponse(out), nil
}

func (s *server) GetKind(ctx context.Context, r GetKindRequestObject) (GetKindResponseObject, error) {
	fixes, look, err := s.Plans.OfKind(ctx, r.Load, r.Params.Rule)
	if err != nil {
		return nil, err
	}
	return GetKind200JSONResponse{Look: orNone(look), Fixes: each(fixes, func(x plan.Offered) OfferedFix {
		return OfferedFix{Slot: x.Slot, Name: x.Name, Id: x.ID, Label: x.Label, Was: wireChannel(x.Was), Is: wireChannel(x.Is)}
	})}, nil
}

func (s *server) FixKind(ctx context.Context, r FixKindRequestObject) (FixKindResponseObject, error) {
	ids := map[int]string{}
	for _, x := range r.Body.Fixes {
		ids[x.Slot] = x.Id
	}
	l, err := s.Plans.FixAll(ctx, r.Load, r.Body.Revision, r.Body.Rule, ids)
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) FixKindResponseObject { return FixKind200JSONResponse{l} })
}

func (s *server) RenameSeveral(ctx context.Context, r RenameSeveralRequestObject) (RenameSeveralResponseObject, error) {
	l, err := s.Plans.Rename(ctx, r.Load, r.Body.Slots, r.Body.Revision)
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) RenameSeveralResponseObject { return RenameSeveral200JSONResponse{l} })
}

func (s *server) GetNames(ctx context.Context, r GetNamesRequestObject) (GetNamesResponseObject, error) {
	names, err := s.Plans.Names(ctx, r.Load, r.Slot)
	if err != nil {
		return nil, err
	}
	return GetNames200JSONResponse{Names: names}, nil
}

func (s *server) GetWork(ctx context.Context, r GetWorkRequestObject) (GetWorkResponseObject, error) {
	tasks, err := s.Plans.Work(ctx, r.Load)
	if err != nil {
		return nil, err
	}
	return GetWork200JSONResponse{Tasks: each(tasks, func(t plan.Task) Task {
		return Task{Kind: TaskKind(t.Kind), Slot: t.Slot, Title: t.Title, Why: t.Why, Do: TaskDo(t.Do), Says: t.Says, Id: t.ID, From: t.From, FromSlot: t.FromSlot}
	})}, nil
}

func (s *server) GetNearest(ctx context.Context, r GetNearestRequestObject) (GetNearestResponseObject, error) {
	n, err := s.Plans.Nearest(ctx, r.Load, r.Channel)
	if err != nil {
		return nil, err
	}
	return GetNearest200JSONResponse{Channel: n.Channel, Can: n.Can, Slot: n.Slot, Wanted: wireChannel(n.Wanted), Held: wireChannel(n.Held), Losses: each(n.Losses, wireLoss)}, nil
}

func (s *server) Stand(ctx context.Context, r StandRequestObject) (StandResponseObject, error) {
	l, err := s.Plans.Stand(ctx, r.Load, r.Body.Slots, standing.State(r.Body.State), r.Body.Revision)
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) StandResponseObject { return Stand200JSONResponse{l} })
}
