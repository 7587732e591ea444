package api

import (
	"bytes"
	"context"

	"mnemos/core/intake"
	"mnemos/internal/importing"
)

func (s *server) BringListing(ctx context.Context, r BringListingRequestObject) (BringListingResponseObject, error) {
	rules, err := s.Plans.Band(ctx, or(r.Params.Plan))
	if err != nil {
		return nil, err
	}
	p, err := s.Imports.Bring(ctx, r.Params.Name, r.Body, rules)
	if err != nil {
		return nil, err
	}
	return BringListing201JSONResponse{ImportPreviewJSONResponse(wireImport(p))}, nil
}

func importForm(b ImportForm) importing.Form {
	// Who posts a form has seen the preview.
	f := importing.Form{Source: b.Source, Prose: b.Prose, Confirmed: b.Confirmed == nil || *b.Confirmed}
	f.Hold = b.Hold != nil && *b.Hold
	f.AcceptLosses = b.AcceptLosses != nil && *b.AcceptLosses
	if b.Viewpoint != nil {
		f.Viewpoint = intake.Viewpoint(*b.Viewpoint)
	}
	for _, c := range b.Columns {
		f.Columns = append(f.Columns, intake.Column{Role: intake.Role(c.Role), Unit: intake.Unit(c.Unit), Order: intake.Order(c.Order), Side: intake.Side(or(c.Side))})
	}
	return f
}

func (s *server) PreviewImport(_ context.Context, r PreviewImportRequestObject) (PreviewImportResponseObject, error) {
	p, err := s.Imports.Preview(r.Import, importForm(*r.Body))
	if err != nil {
		return nil, err
	}
	return PreviewImport200JSONResponse{ImportPreviewJSONResponse(wireImport(p))}, nil
}

func (s *server) RunImport(ctx context.Context, r RunImportRequestObject) (RunImportResponseObject, error) {
	v, err := s.Imports.Run(ctx, r.Import, importForm(*r.Body))
	if err != nil {
		return nil, err
	}
	return RunImport202JSONResponse{ImportStateJSONResponse(wireState(*v))}, nil
}

func (s *server) GetImport(_ context.Context, r GetImportRequestObject) (GetImportResponseObject, error) {
	v, err := s.Imports.State(r.Import)
	if err != nil {
		return nil, err
	}
	return GetImport200JSONResponse{ImportStateJSONResponse(wireState(*v))}, nil
}

func (s *server) DropImport(_ context.Context, r DropImportRequestObject) (DropImportResponseObject, error) {
	if err := s.Imports.Drop(r.Import); err != nil {
		return nil, err
	}
	return DropImport204Response{}, nil
}

func (s *server) GetImports(context.Context, GetImportsRequestObject) (GetImportsResponseObject, error) {
	out := GetImports200JSONResponse{Imports: map[string]ImportState{}}
	for id, state := range s.Imports.States() {
		out.Imports[id] = wireState(state)
	}
	return out, nil
}

func (s *server) WatchImport(ctx context.Context, r WatchImportRequestObject) (WatchImportResponseObject, error) {
	if _, err := s.Imports.State(r.Import); err != nil {
		return nil, err
	}
	return stream{ctx, func(send send) error {
		return s.Imports.Watch(ctx, r.Import, func(x importing.State) error { return send("", "", wireState(x)) })
	}}, nil
}

func (s *server) GetSources(ctx context.Context, r GetSourcesRequestObject) (GetSourcesResponseObject, error) {
	plan, err := s.Plans.Plan(ctx, or(r.Params.Plan))
	if err != nil {
		return nil, err
	}
	v, err := s.Catalog.Sources(ctx, plan.ID)
	if err != nil {
		return nil, err
	}
	return GetSources200JSONResponse{Sources: each(v, wireSource)}, nil
}

func (s *server) DropSource(ctx context.Context, r DropSourceRequestObject) (DropSourceResponseObject, error) {
	if err := s.Catalog.DropSource(ctx, r.Source); err != nil {
		return nil, err
	}
	return DropSource204Response{}, nil
}

func (s *server) GetRejects(ctx context.Context, r GetRejectsRequestObject) (GetRejectsResponseObject, error) {
	v, err := s.Imports.Rejects(ctx, r.Source, or(r.Params.After))
	if err != nil {
		return nil, err
	}
	return GetRejects200JSONResponse(wireRejects(v)), nil
}

func (s *server) ExportRejects(ctx context.Context, r ExportRejectsRequestObject) (ExportRejectsResponseObject, error) {
	var b bytes.Buffer
	if err := s.Imports.ExportRejects(ctx, r.Source, &b); err != nil {
		return nil, err
	}
	return ExportRejects200TextcsvResponse{Body: &b, ContentLength: int64(b.Len())}, nil
}

func (s *server) MendReject(ctx context.Context, r MendRejectRequestObject) (MendRejectResponseObject, error) {
	rules, err := s.Plans.Band(ctx, or(r.Params.Plan))
	if err != nil {
		return nil, err
	}
	v, err := s.Imports.MendReject(ctx, r.Source, r.Reject, r.Body.Cells, rules)
	if err != nil {
		return nil, err
	}
	return MendReject200JSONResponse(wireRecord(*v)), nil
}

func (s *server) SetReject(ctx context.Context, r SetRejectRequestObject) (SetRejectResponseObject, error) {
	if err := s.Imports.SetReject(ctx, r.Source, r.Reject, string(r.Body.State)); err != nil {
		return nil, err
	}
	return SetReject204Response{}, nil
}
