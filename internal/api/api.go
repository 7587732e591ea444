// Package api serves the contract of openapi.yaml over HTTP. The handlers
// hold no rule: they hand what was asked to package app and what it answers
// back.
package api

import (
	"context"

	"github.com/labstack/echo/v5"

	"mnemos/internal/app"
)

type server struct{ app *app.App }

// Register adds the API to a router.
func Register(e *echo.Echo, a *app.App) {
	e.Use(valid())
	RegisterHandlers(e, NewStrictHandler(&server{app: a}, nil))
}

func (s *server) GetWorkspace(ctx context.Context, _ GetWorkspaceRequestObject) (GetWorkspaceResponseObject, error) {
	w, err := s.app.Workspace(ctx)
	if err != nil {
		return nil, err
	}
	return GetWorkspace200JSONResponse(*w), nil
}

// ledger passes a ledger or an error on; every change answers with it.
func ledger[T any](l *app.Ledger, err error, wrap func(LedgerJSONResponse) T) (T, error) {
	if err != nil {
		var none T
		return none, err
	}
	return wrap(LedgerJSONResponse(*l)), nil
}

func (s *server) GetLedger(ctx context.Context, r GetLedgerRequestObject) (GetLedgerResponseObject, error) {
	l, err := s.app.Ledger(ctx, r.Load)
	return ledger(l, err, func(l LedgerJSONResponse) GetLedgerResponseObject { return GetLedger200JSONResponse{l} })
}

func (s *server) ReadLine(ctx context.Context, r ReadLineRequestObject) (ReadLineResponseObject, error) {
	out, err := s.app.Read(ctx, r.Load, r.Body.Line, r.Body.Slot)
	if err != nil {
		return nil, err
	}
	return ReadLine200JSONResponse(*out), nil
}

func (s *server) StoreLine(ctx context.Context, r StoreLineRequestObject) (StoreLineResponseObject, error) {
	save := app.Save{Line: r.Body.Line, Slot: r.Body.Slot, Revision: r.Body.Revision}
	save.Replace = r.Body.Replace != nil && *r.Body.Replace
	l, err := s.app.Store(ctx, r.Load, save)
	return ledger(l, err, func(l LedgerJSONResponse) StoreLineResponseObject { return StoreLine201JSONResponse{l} })
}

func (s *server) UpdateEntry(ctx context.Context, r UpdateEntryRequestObject) (UpdateEntryResponseObject, error) {
	b := r.Body
	l, err := s.app.Update(ctx, r.Load, r.Slot, app.Update{
		Name: b.Name, ShortName: b.ShortName, Receive: b.Receive, Shift: b.Shift, ToneOut: b.ToneOut, ToneIn: b.ToneIn,
		Width: b.Bandwidth, Power: b.Power, Scan: b.Scan, Slot: b.Slot, Swap: b.Swap != nil && *b.Swap, Revision: b.Revision,
	})
	return ledger(l, err, func(l LedgerJSONResponse) UpdateEntryResponseObject { return UpdateEntry200JSONResponse{l} })
}

func (s *server) ApplyFix(ctx context.Context, r ApplyFixRequestObject) (ApplyFixResponseObject, error) {
	l, err := s.app.Patch(ctx, r.Load, r.Slot, r.Body.Revision, r.Body.Patch)
	return ledger(l, err, func(l LedgerJSONResponse) ApplyFixResponseObject { return ApplyFix200JSONResponse{l} })
}

func (s *server) DeleteEntry(ctx context.Context, r DeleteEntryRequestObject) (DeleteEntryResponseObject, error) {
	l, err := s.app.Delete(ctx, r.Load, r.Slot, r.Params.Revision)
	return ledger(l, err, func(l LedgerJSONResponse) DeleteEntryResponseObject { return DeleteEntry200JSONResponse{l} })
}

func (s *server) Undo(ctx context.Context, r UndoRequestObject) (UndoResponseObject, error) {
	l, err := s.app.Undo(ctx, r.Load, r.Body.Revision, r.Body.Redo != nil && *r.Body.Redo)
	return ledger(l, err, func(l LedgerJSONResponse) UndoResponseObject { return Undo200JSONResponse{l} })
}

func (s *server) GetEvidence(ctx context.Context, r GetEvidenceRequestObject) (GetEvidenceResponseObject, error) {
	v, err := s.app.Evidence(ctx, r.Load, r.Slot)
	if err != nil {
		return nil, err
	}
	return GetEvidence200JSONResponse(*v), nil
}

func (s *server) GetKeypad(ctx context.Context, r GetKeypadRequestObject) (GetKeypadResponseObject, error) {
	v, err := s.app.Keypad(ctx, r.Load, r.Slot)
	if err != nil {
		return nil, err
	}
	return GetKeypad200JSONResponse(*v), nil
}

func (s *server) TryKeypad(ctx context.Context, r TryKeypadRequestObject) (TryKeypadResponseObject, error) {
	v, err := s.app.Try(ctx, r.Load, r.Slot, r.Body.Acts)
	if err != nil {
		return nil, err
	}
	return TryKeypad200JSONResponse(*v), nil
}

func (s *server) GetRibbon(ctx context.Context, r GetRibbonRequestObject) (GetRibbonResponseObject, error) {
	name := ""
	if r.Params.Band != nil {
		name = *r.Params.Band
	}
	v, err := s.app.Ribbon(ctx, r.Load, name)
	if err != nil {
		return nil, err
	}
	return GetRibbon200JSONResponse(*v), nil
}
