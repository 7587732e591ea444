package api

import (
	"context"
	"fmt"

	"mnemos/core/check"
	"mnemos/internal/fault"
	"mnemos/internal/fleet"
	"mnemos/internal/plan"
)

func (s *server) GetSettings(ctx context.Context, r GetSettingsRequestObject) (GetSettingsResponseObject, error) {
	v, err := s.Plans.Settings(ctx, or(r.Params.Plan))
	if err != nil {
		return nil, err
	}
	return GetSettings200JSONResponse{SettingsJSONResponse(wireSettings(v))}, nil
}

func (s *server) SetSettings(ctx context.Context, r SetSettingsRequestObject) (SetSettingsResponseObject, error) {
	b := r.Body
	v, err := s.Plans.SetSettings(ctx, or(r.Params.Plan), plan.SettingsForm{
		Region: b.Region, Person: b.Person, Place: b.Place, Height: b.HeightM, Radius: b.RadiusKm, TonePolicy: b.TonePolicy, Licence: b.Licence,
		Services: b.Services, Bands: b.Bands, Unlicensed: b.Unlicensed, Marks: b.Marks, Revision: orLatest(b.Revision),
	})
	if err != nil {
		return nil, err
	}
	return SetSettings200JSONResponse{SettingsJSONResponse(wireSettings(v))}, nil
}

// orLatest is the revision that was seen; whoever names none means whatever
// there is.
func orLatest(revision *int64) int64 {
	if revision == nil {
		return plan.Latest
	}
	return *revision
}

func (s *server) GetRadios(ctx context.Context, r GetRadiosRequestObject) (GetRadiosResponseObject, error) {
	profiles, err := s.Fleet.Profiles(ctx)
	if err != nil {
		return nil, err
	}
	loads, err := s.Plans.Loads(ctx, or(r.Params.Plan))
	if err != nil {
		return nil, err
	}
	fits, err := s.Plans.Fits(ctx, or(r.Params.Plan))
	if err != nil {
		return nil, err
	}
	return GetRadios200JSONResponse{Radios: each(profiles, func(p fleet.ProfileInfo) RadioInfo { return wireProfile(p, loads, fits) })}, nil
}

// form passes a profile or an error on, with the load that has it in a plan.
func form[T any](ctx context.Context, s *server, planID *int64, v *fleet.ProfileForm, err error, wrap func(RadioFormJSONResponse) T) (out T, _ error) {
	if err != nil {
		return out, err
	}
	loads, err := s.Plans.Loads(ctx, or(planID))
	if err != nil {
		return out, err
	}
	fits, err := s.Plans.Fits(ctx, or(planID))
	if err != nil {
		return out, err
	}
	return wrap(RadioFormJSONResponse(wireForm(v, loads, fits))), nil
}

func (s *server) NewRadio(ctx context.Context, r NewRadioRequestObject) (NewRadioResponseObject, error) {
	v, err := s.Fleet.NewProfile(ctx, or(r.Body.Copy), or(r.Body.Yaml))
	return form(ctx, s, nil, v, err, func(v RadioFormJSONResponse) NewRadioResponseObject { return NewRadio201JSONResponse{v} })
}

func (s *server) GetRadio(ctx context.Context, r GetRadioRequestObject) (GetRadioResponseObject, error) {
	v, err := s.Fleet.Form(ctx, r.Radio)
	return form(ctx, s, r.Params.Plan, v, err, func(v RadioFormJSONResponse) GetRadioResponseObject { return GetRadio200JSONResponse{v} })
}

func (s *server) SaveRadio(ctx context.Context, r SaveRadioRequestObject) (SaveRadioResponseObject, error) {
	v, err := s.Fleet.SaveProfile(ctx, r.Radio, r.Body.Texts, orLatest(r.Body.Revision))
	return form(ctx, s, nil, v, err, func(v RadioFormJSONResponse) SaveRadioResponseObject { return SaveRadio200JSONResponse{v} })
}

func (s *server) DeleteRadio(ctx context.Context, r DeleteRadioRequestObject) (DeleteRadioResponseObject, error) {
	v, err := s.Fleet.DeleteProfile(ctx, r.Radio, orLatest(r.Params.Revision))
	return form(ctx, s, nil, v, err, func(v RadioFormJSONResponse) DeleteRadioResponseObject { return DeleteRadio200JSONResponse{v} })
}

func (s *server) PreviewRadio(ctx context.Context, r PreviewRadioRequestObject) (PreviewRadioResponseObject, error) {
	v, err := s.Plans.PreviewRadio(ctx, or(r.Params.Plan), r.Radio, r.Body.Texts)
	if err != nil {
		return nil, err
	}
	return PreviewRadio200JSONResponse(wirePreview(v)), nil
}

func (s *server) UseRadio(ctx context.Context, r UseRadioRequestObject) (UseRadioResponseObject, error) {
	l, err := s.Plans.UseRadio(ctx, or(r.Params.Plan), r.Radio, or(r.Params.Fill))
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) UseRadioResponseObject { return UseRadio201JSONResponse{l} })
}

func (s *server) DropRadio(ctx context.Context, r DropRadioRequestObject) (DropRadioResponseObject, error) {
	l, err := s.Plans.DropRadio(ctx, or(r.Params.Plan), r.Radio)
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) DropRadioResponseObject { return DropRadio200JSONResponse{l} })
}

func (s *server) GetRule(_ context.Context, r GetRuleRequestObject) (GetRuleResponseObject, error) {
	for _, x := range check.Rules {
		if x.ID == r.Rule {
			return GetRule200JSONResponse{Id: x.ID, Title: x.Title, Doc: x.Doc, Source: x.Source, Example: x.Example}, nil
		}
	}
	return nil, fmt.Errorf("rule %q: %w", r.Rule, fault.ErrNotFound)
}
