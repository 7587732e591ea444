package api

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"slices"

	"mnemos/core/geo"
	"mnemos/core/intake"
	"mnemos/internal/app"
)

func (s *server) BringListing(ctx context.Context, r BringListingRequestObject) (BringListingResponseObject, error) {
	p, err := s.app.Bring(ctx, r.Params.Name, r.Body)
	if err != nil {
		return nil, err
	}
	return BringListing201JSONResponse{ImportPreviewJSONResponse(*p)}, nil
}

func importForm(b ImportForm) app.ImportForm {
	// Who posts a form has seen the preview.
	f := app.ImportForm{Source: b.Source, Prose: b.Prose, Confirmed: b.Confirmed == nil || *b.Confirmed}
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
	p, err := s.app.PreviewImport(r.Import, importForm(*r.Body))
	if err != nil {
		return nil, err
	}
	return PreviewImport200JSONResponse{ImportPreviewJSONResponse(*p)}, nil
}

func (s *server) RunImport(ctx context.Context, r RunImportRequestObject) (RunImportResponseObject, error) {
	v, err := s.app.RunImport(ctx, r.Import, importForm(*r.Body))
	if err != nil {
		return nil, err
	}
	return RunImport202JSONResponse{ImportStateJSONResponse(*v)}, nil
}

func (s *server) GetImport(_ context.Context, r GetImportRequestObject) (GetImportResponseObject, error) {
	v, err := s.app.Import(r.Import)
	if err != nil {
		return nil, err
	}
	return GetImport200JSONResponse{ImportStateJSONResponse(*v)}, nil
}

func (s *server) DropImport(_ context.Context, r DropImportRequestObject) (DropImportResponseObject, error) {
	if err := s.app.DropImport(r.Import); err != nil {
		return nil, err
	}
	return DropImport204Response{}, nil
}

// events writes the states of an import as server-sent events.
type events struct {
	ctx context.Context
	app *app.App
	id  string
}

func (s *server) WatchImport(ctx context.Context, r WatchImportRequestObject) (WatchImportResponseObject, error) {
	if _, err := s.app.Import(r.Import); err != nil {
		return nil, err
	}
	return events{ctx, s.app, r.Import}, nil
}

// VisitWatchImportResponse implements WatchImportResponseObject.
func (e events) VisitWatchImportResponse(w http.ResponseWriter) error {
	w.Header().Set("Content-Type", "text/event-stream")
	w.Header().Set("Cache-Control", "no-store")
	w.WriteHeader(http.StatusOK)
	flush := http.NewResponseController(w)
	err := e.app.WatchImport(e.ctx, e.id, func(s app.ImportState) error {
		b, err := json.Marshal(s)
		if err != nil {
			return err
		}
		if _, err := fmt.Fprintf(w, "data: %s\n\n", b); err != nil {
			return err
		}
		return flush.Flush()
	})
	if e.ctx.Err() != nil {
		return nil // the page has gone
	}
	return err
}

func (s *server) GetSources(ctx context.Context, _ GetSourcesRequestObject) (GetSourcesResponseObject, error) {
	v, err := s.app.Sources(ctx)
	if err != nil {
		return nil, err
	}
	return GetSources200JSONResponse{Sources: v}, nil
}

func (s *server) DropSource(ctx context.Context, r DropSourceRequestObject) (DropSourceResponseObject, error) {
	if err := s.app.DropSource(ctx, r.Source); err != nil {
		return nil, err
	}
	return DropSource204Response{}, nil
}

func (s *server) GetRejects(ctx context.Context, r GetRejectsRequestObject) (GetRejectsResponseObject, error) {
	after := int64(0)
	if r.Params.After != nil {
		after = *r.Params.After
	}
	v, err := s.app.Rejects(ctx, r.Source, after)
	if err != nil {
		return nil, err
	}
	return GetRejects200JSONResponse(*v), nil
}

func (s *server) ExportRejects(ctx context.Context, r ExportRejectsRequestObject) (ExportRejectsResponseObject, error) {
	var b bytes.Buffer
	if err := s.app.ExportRejects(ctx, r.Source, &b); err != nil {
		return nil, err
	}
	return ExportRejects200TextcsvResponse{Body: &b, ContentLength: int64(b.Len())}, nil
}

func (s *server) MendReject(ctx context.Context, r MendRejectRequestObject) (MendRejectResponseObject, error) {
	v, err := s.app.MendReject(ctx, r.Source, r.Reject, r.Body.Cells)
	if err != nil {
		return nil, err
	}
	return MendReject200JSONResponse(*v), nil
}

func (s *server) SetReject(ctx context.Context, r SetRejectRequestObject) (SetRejectResponseObject, error) {
	if err := s.app.SetReject(ctx, r.Source, r.Reject, string(r.Body.State)); err != nil {
		return nil, err
	}
	return SetReject204Response{}, nil
}

// findForm takes over what both searches share.
func findForm[T ~string](text, band, source *string, only *[]T) app.FindForm {
	f := app.FindForm{Source: or(source)}
	if text != nil {
		f.Text = *text
	}
	if band != nil {
		f.Band = *band
	}
	if only == nil {
		return f
	}
	f.All, f.Tone, f.OnAir = slices.Contains(*only, "digital"), slices.Contains(*only, "tone"), slices.Contains(*only, "on-air")
	f.Open, f.Fresh, f.New = slices.Contains(*only, "open"), slices.Contains(*only, "fresh"), slices.Contains(*only, "new")
	f.Nowhere = slices.Contains(*only, "no-place")
	return f
}

func box(b []float64) *geo.Box {
	if len(b) != 4 {
		return nil
	}
	return &geo.Box{South: b[0], West: b[1], North: b[2], East: b[3]}
}

func (s *server) Find(ctx context.Context, r FindRequestObject) (FindResponseObject, error) {
	f := findForm(r.Params.Text, r.Params.Band, r.Params.Source, r.Params.Only)
	if r.Params.Box != nil {
		f.Seen = box(*r.Params.Box)
	}
	if r.Params.Within != nil {
		f.Within = *r.Params.Within
	}
	if r.Params.Sort != nil {
		f.Sort = string(*r.Params.Sort)
	}
	if r.Params.Most != nil {
		f.Most = *r.Params.Most
	}
	if r.Params.Opens != nil {
		f.Opens = string(*r.Params.Opens)
	}
	v, err := s.app.Find(ctx, f)
	if err != nil {
		return nil, err
	}
	return Find200JSONResponse(*v), nil
}

func (s *server) FindSpots(ctx context.Context, r FindSpotsRequestObject) (FindSpotsResponseObject, error) {
	f := findForm(r.Params.Text, r.Params.Band, r.Params.Source, r.Params.Only)
	f.Seen = box(r.Params.Box)
	if r.Params.Opens != nil {
		f.Opens = string(*r.Params.Opens)
	}
	f.Degrees = r.Params.Cell
	v, err := s.app.Spots(ctx, f)
	if err != nil {
		return nil, err
	}
	return FindSpots200JSONResponse(*v), nil
}

func (s *server) Decide(ctx context.Context, r DecideRequestObject) (DecideResponseObject, error) {
	if err := s.app.Decide(ctx, r.Body.A, r.Body.B, r.Body.Same); err != nil {
		return nil, err
	}
	return Decide204Response{}, nil
}

func (s *server) AddFound(ctx context.Context, r AddFoundRequestObject) (AddFoundResponseObject, error) {
	v, err := s.app.AddFound(ctx, r.Load, r.Body.Revision, r.Body.Ids)
	if err != nil {
		return nil, err
	}
	return AddFound201JSONResponse(*v), nil
}

func (s *server) GetOutlines(ctx context.Context, _ GetOutlinesRequestObject) (GetOutlinesResponseObject, error) {
	v, err := s.app.Outlines(ctx)
	if err != nil {
		return nil, err
	}
	return GetOutlines200JSONResponse{Outlines: v}, nil
}

func (s *server) Correct(ctx context.Context, r CorrectRequestObject) (CorrectResponseObject, error) {
	if err := s.app.Correct(ctx, r.Body.Of, r.Body.Field, r.Body.Value, r.Body.Note); err != nil {
		return nil, err
	}
	return Correct204Response{}, nil
}
