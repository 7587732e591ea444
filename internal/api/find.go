package api

import (
	"context"

	"mnemos/core/check"
	"mnemos/core/find"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/internal/plan"
)

func (s *server) scene(ctx context.Context, planID, load *int64) (*plan.Scene, error) {
	return s.Plans.Scene(ctx, or(planID), or(load))
}

func (s *server) Find(ctx context.Context, r FindRequestObject) (FindResponseObject, error) {
	scene, err := s.scene(ctx, r.Params.Plan, r.Params.Load)
	if err != nil {
		return nil, err
	}
	most := 200
	if r.Params.Most != nil {
		most = *r.Params.Most
	}
	v := scene.Book.Search(or(r.Params.Line), &scene.Scene, most)
	rows, err := s.rows(ctx, scene, v.Rows)
	if err != nil {
		return nil, err
	}
	return Find200JSONResponse(wireFound(scene, v, rows)), nil
}

// rows tells rows with what people corrected of them.
func (s *server) rows(ctx context.Context, scene *plan.Scene, rows []find.Row) ([]FoundRepeater, error) {
	known, err := s.Catalog.Corrections(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]FoundRepeater, len(rows))
	for i := range rows {
		out[i] = wireFoundRow(&rows[i], known)
		out[i].Age = check.AgeWords(listing.Match{Record: rows[i].Best}, check.Defaults(scene.Today))
	}
	return out, nil
}

func (s *server) FindAround(ctx context.Context, r FindAroundRequestObject) (FindAroundResponseObject, error) {
	scene, err := s.scene(ctx, r.Params.Plan, r.Params.Load)
	if err != nil {
		return nil, err
	}
	v := scene.Book.Around(or(r.Params.Line), &scene.Scene, 4)
	out := Around{WithinKm: v.Within, Held: v.Held, Other: v.Other, Vacant: orNone(scene.Vacant), Bands: each(v.Bands, wireBandCount), Doubt: []Doubt{}}
	if v.Thin != nil {
		out.Thin = &Thin{Direction: v.Thin.Direction, Held: v.Thin.Held, All: v.Thin.All, WithinKm: v.Thin.Within}
	}
	if out.Missing, err = s.rows(ctx, scene, v.Missing); err != nil {
		return nil, err
	}
	if out.Confirmed, err = s.rows(ctx, scene, v.Confirmed); err != nil {
		return nil, err
	}
	doubts, err := s.rows(ctx, scene, v.Doubt)
	if err != nil {
		return nil, err
	}
	for i := range doubts {
		verdict, why := v.Doubt[i].Doubt()
		out.Doubt = append(out.Doubt, Doubt{Repeater: doubts[i], Verdict: Verdict(verdict), Why: why})
	}
	return FindAround200JSONResponse(out), nil
}

func (s *server) FindChart(ctx context.Context, r FindChartRequestObject) (FindChartResponseObject, error) {
	scene, err := s.scene(ctx, r.Params.Plan, r.Params.Load)
	if err != nil {
		return nil, err
	}
	out := ChartSpots{Spots: []ChartSpot{}}
	from := scene.From()
	if from == nil {
		from = &geo.Point{}
	}
	window := find.Window{West: r.Params.West, South: r.Params.South, East: r.Params.East, North: r.Params.North}
	v := scene.Book.Chart(or(r.Params.Line), &scene.Scene, *from, window, r.Params.Cell)
	out.Number, out.Spots = v.Number, each(v.Spots, wireSpot)
	return FindChart200JSONResponse(out), nil
}

func (s *server) CompleteFind(ctx context.Context, r CompleteFindRequestObject) (CompleteFindResponseObject, error) {
	scene, err := s.Plans.Outlook(ctx, or(r.Params.Plan), or(r.Params.Load))
	if err != nil {
		return nil, err
	}
	line := or(r.Params.Line)
	caret := len([]rune(line))
	if r.Params.Caret != nil {
		caret = *r.Params.Caret
	}
	v := scene.Book.Complete(line, caret, &scene.Scene, 8)
	return CompleteFind200JSONResponse{Completions: each(v, func(c find.Completion) Completion {
		return Completion{From: c.From, To: c.To, Text: c.Text, Says: c.Says}
	})}, nil
}

func (s *server) FindLook(ctx context.Context, r FindLookRequestObject) (FindLookResponseObject, error) {
	scene, err := s.scene(ctx, r.Params.Plan, r.Params.Load)
	if err != nil {
		return nil, err
	}
	v, err := s.Plans.Look(ctx, scene, or(r.Params.Line), listing.ID{Source: r.Params.Source, Key: r.Params.Key})
	if err != nil {
		return nil, err
	}
	rows, err := s.rows(ctx, scene, []find.Row{v.Row})
	if err != nil {
		return nil, err
	}
	out := FoundLook{Repeater: rows[0], Stored: v.Stored, NeededM: v.Needed}
	if v.Evidence != nil {
		e := wireEvidence(v.Evidence)
		out.Evidence = &e
	}
	return FindLook200JSONResponse(out), nil
}

func (s *server) FindMenu(ctx context.Context, r FindMenuRequestObject) (FindMenuResponseObject, error) {
	scene, err := s.Plans.Outlook(ctx, or(r.Params.Plan), or(r.Params.Load))
	if err != nil {
		return nil, err
	}
	return FindMenu200JSONResponse{Groups: each(scene.Book.Menu(&scene.Scene), func(g find.Group) FindGroup {
		return FindGroup{Name: g.Name, Choices: each(g.Choices, func(c find.Completion) FindChoice { return FindChoice{Word: c.Text, Says: c.Says} })}
	})}, nil
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
