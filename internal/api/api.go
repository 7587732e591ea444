// Package api serves the contract of openapi.yaml over HTTP. The handlers
// hold no rule: they hand what was asked to the part of the application that it
// is for, and what that answers back as the wire types of the contract.
package api

import (
	"context"

	"github.com/labstack/echo/v5"

	"mnemos/internal/house"
	"mnemos/internal/plan"
)

type server struct {
	*house.House
	told *ledgers
}

// Register adds the API to a router.
func Register(e *echo.Echo, h *house.House) {
	router := contracted()
	e.Use(timely, valid(router), person, once(h), still(h, router), holding)
	RegisterHandlers(e, NewStrictHandler(&server{h, newLedgers()}, nil))
}

func (s *server) GetWorkspace(ctx context.Context, r GetWorkspaceRequestObject) (GetWorkspaceResponseObject, error) {
	w, err := s.Plans.Workspace(ctx, or(r.Params.Plan))
	if err != nil {
		return nil, err
	}
	return GetWorkspace200JSONResponse(wireWorkspace(w)), nil
}

// ledger passes a ledger or an error on; every change answers with it.
func ledger[T any](ctx context.Context, s *server, l *plan.Ledger, err error, wrap func(LedgerJSONResponse) T) (T, error) {
	var none T
	if err != nil {
		return none, err
	}
	w, err := s.told.wire(ctx, l)
	if err != nil {
		return none, err
	}
	return wrap(LedgerJSONResponse(w)), nil
}

func (s *server) GetLedger(ctx context.Context, r GetLedgerRequestObject) (GetLedgerResponseObject, error) {
	l, err := s.Plans.Ledger(ctx, r.Load)
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) GetLedgerResponseObject { return GetLedger200JSONResponse{l} })
}

func (s *server) ReadLine(ctx context.Context, r ReadLineRequestObject) (ReadLineResponseObject, error) {
	out, err := s.Plans.Read(ctx, r.Load, r.Body.Line, r.Body.Slot, or(r.Body.Also)...)
	if err != nil {
		return nil, err
	}
	return ReadLine200JSONResponse(wireReading(out)), nil
}

func (s *server) StoreLine(ctx context.Context, r StoreLineRequestObject) (StoreLineResponseObject, error) {
	save := plan.Save{Line: r.Body.Line, Slot: r.Body.Slot, Replace: or(r.Body.Replace), Also: or(r.Body.Also), Revision: r.Body.Revision}
	l, err := s.Plans.Store(ctx, r.Load, save)
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) StoreLineResponseObject { return StoreLine201JSONResponse{l} })
}

func (s *server) UpdateEntry(ctx context.Context, r UpdateEntryRequestObject) (UpdateEntryResponseObject, error) {
	b := r.Body
	l, err := s.Plans.Update(ctx, r.Load, r.Slot, plan.Update{
		Name: b.Name, ShortName: b.ShortName, Receive: b.Receive, Shift: b.Shift, TransmitTone: b.TransmitTone, ReceiveTone: b.ReceiveTone,
		Width: b.Bandwidth, Power: b.Power, Scan: b.Scan, Slot: b.Slot, Pinned: b.Pinned, Swap: or(b.Swap), Revision: b.Revision,
	})
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) UpdateEntryResponseObject { return UpdateEntry200JSONResponse{l} })
}

func (s *server) ApplyFix(ctx context.Context, r ApplyFixRequestObject) (ApplyFixResponseObject, error) {
	l, err := s.Plans.Fix(ctx, r.Load, r.Slot, r.Body.Revision, r.Body.Id)
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) ApplyFixResponseObject { return ApplyFix200JSONResponse{l} })
}

func (s *server) DeleteEntry(ctx context.Context, r DeleteEntryRequestObject) (DeleteEntryResponseObject, error) {
	l, err := s.Plans.Delete(ctx, r.Load, r.Slot, r.Params.Revision)
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) DeleteEntryResponseObject { return DeleteEntry200JSONResponse{l} })
}

func (s *server) Undo(ctx context.Context, r UndoRequestObject) (UndoResponseObject, error) {
	l, err := s.Plans.Undo(ctx, r.Load, r.Body.Revision, or(r.Body.Redo))
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) UndoResponseObject { return Undo200JSONResponse{l} })
}

func (s *server) AddFound(ctx context.Context, r AddFoundRequestObject) (AddFoundResponseObject, error) {
	v, err := s.Plans.AddFound(ctx, r.Load, r.Body.Revision, each(r.Body.Ids, coreID), or(r.Body.Also)...)
	if err != nil {
		return nil, err
	}
	w, err := s.told.wire(ctx, v.Ledger)
	if err != nil {
		return nil, err
	}
	return AddFound201JSONResponse{
		Ledger: w, Slots: v.Slots, Puts: each(v.Puts, wirePut),
		Skipped: each(v.Skipped, func(x plan.Skipped) Skipped { return Skipped{Id: wireID(x.ID), Why: x.Why} }),
	}, nil
}

func (s *server) GetEvidence(ctx context.Context, r GetEvidenceRequestObject) (GetEvidenceResponseObject, error) {
	v, err := s.Plans.Evidence(ctx, r.Load, r.Slot)
	if err != nil {
		return nil, err
	}
	return GetEvidence200JSONResponse(wireEvidence(v)), nil
}

func (s *server) GetKeypad(ctx context.Context, r GetKeypadRequestObject) (GetKeypadResponseObject, error) {
	v, err := s.Sheets.Keypad(ctx, r.Load, r.Slot)
	if err != nil {
		return nil, err
	}
	return GetKeypad200JSONResponse(wireKeypad(v)), nil
}

func (s *server) TryKeypad(ctx context.Context, r TryKeypadRequestObject) (TryKeypadResponseObject, error) {
	v, err := s.Sheets.Try(ctx, r.Load, r.Slot, r.Body.Acts)
	if err != nil {
		return nil, err
	}
	return TryKeypad200JSONResponse(wireHandset(v)), nil
}

func (s *server) GetRibbon(ctx context.Context, r GetRibbonRequestObject) (GetRibbonResponseObject, error) {
	v, err := s.Plans.Ribbon(ctx, r.Load, or(r.Params.Band))
	if err != nil {
		return nil, err
	}
	return GetRibbon200JSONResponse(wireRibbon(v)), nil
}
