package api

import (
	"context"
	"slices"

	"mnemos/core/geo"
	"mnemos/internal/catalog"
)

// findForm takes over what both searches share.
func findForm[T ~string](text, band, source *string, only *[]T) catalog.Form {
	f := catalog.Form{Source: or(source)}
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
	scene, err := s.Plans.Scene(ctx, or(r.Params.Plan))
	if err != nil {
		return nil, err
	}
	v, err := s.Catalog.Find(ctx, scene, f)
	if err != nil {
		return nil, err
	}
	return Find200JSONResponse(wireFound(v)), nil
}

func (s *server) FindSpots(ctx context.Context, r FindSpotsRequestObject) (FindSpotsResponseObject, error) {
	f := findForm(r.Params.Text, r.Params.Band, r.Params.Source, r.Params.Only)
	f.Seen = box(r.Params.Box)
	if r.Params.Opens != nil {
		f.Opens = string(*r.Params.Opens)
	}
	f.Degrees = r.Params.Cell
	scene, err := s.Plans.Scene(ctx, or(r.Params.Plan))
	if err != nil {
		return nil, err
	}
	v, err := s.Catalog.Spots(ctx, scene, f)
	if err != nil {
		return nil, err
	}
	return FindSpots200JSONResponse(wireSpots(v)), nil
}

func (s *server) Decide(ctx context.Context, r DecideRequestObject) (DecideResponseObject, error) {
	if err := s.Catalog.Decide(ctx, coreID(r.Body.A), coreID(r.Body.B), r.Body.Same); err != nil {
		return nil, err
	}
	return Decide204Response{}, nil
}

func (s *server) GetOutlines(ctx context.Context, _ GetOutlinesRequestObject) (GetOutlinesResponseObject, error) {
	v, err := s.Catalog.Outlines(ctx)
	if err != nil {
		return nil, err
	}
	return GetOutlines200JSONResponse{Outlines: v}, nil
}

func (s *server) Correct(ctx context.Context, r CorrectRequestObject) (CorrectResponseObject, error) {
	if err := s.Catalog.Correct(ctx, coreID(r.Body.Of), r.Body.Field, r.Body.Value, r.Body.Note); err != nil {
		return nil, err
	}
	return Correct204Response{}, nil
}

func (s *server) GetCorrections(ctx context.Context, _ GetCorrectionsRequestObject) (GetCorrectionsResponseObject, error) {
	v, err := s.Catalog.KeptCorrections(ctx)
	if err != nil {
		return nil, err
	}
	return GetCorrections200JSONResponse{Corrections: each(v, wireCorrection)}, nil
}

func (s *server) DropCorrection(ctx context.Context, r DropCorrectionRequestObject) (DropCorrectionResponseObject, error) {
	if err := s.Catalog.DropCorrection(ctx, r.Id, orLatest(r.Params.Revision)); err != nil {
		return nil, err
	}
	return DropCorrection204Response{}, nil
}

func (s *server) GetDecisions(ctx context.Context, _ GetDecisionsRequestObject) (GetDecisionsResponseObject, error) {
	v, err := s.Catalog.KeptDecisions(ctx)
	if err != nil {
		return nil, err
	}
	return GetDecisions200JSONResponse{Decisions: each(v, wireDecision)}, nil
}

func (s *server) DropDecision(ctx context.Context, r DropDecisionRequestObject) (DropDecisionResponseObject, error) {
	if err := s.Catalog.DropDecision(ctx, r.Id, orLatest(r.Params.Revision)); err != nil {
		return nil, err
	}
	return DropDecision204Response{}, nil
}
