package api

import (
	"context"
	"fmt"

	"mnemos/core/check"
	"mnemos/internal/app"
	"mnemos/internal/fault"
)

func (s *server) GetSettings(ctx context.Context, _ GetSettingsRequestObject) (GetSettingsResponseObject, error) {
	v, err := s.app.Settings(ctx)
	if err != nil {
		return nil, err
	}
	return GetSettings200JSONResponse{SettingsJSONResponse(*v)}, nil
}

func (s *server) SetSettings(ctx context.Context, r SetSettingsRequestObject) (SetSettingsResponseObject, error) {
	b := r.Body
	v, err := s.app.SetSettings(ctx, app.SettingsForm{
		Region: b.Region, Person: b.Person, Place: b.Place, Height: b.HeightM, Radius: b.RadiusKm, TonePolicy: b.TonePolicy, Licence: b.Licence,
		Services: b.Services, Bands: b.Bands,
	})
	if err != nil {
		return nil, err
	}
	return SetSettings200JSONResponse{SettingsJSONResponse(*v)}, nil
}

func (s *server) GetRadios(ctx context.Context, _ GetRadiosRequestObject) (GetRadiosResponseObject, error) {
	v, err := s.app.Radios(ctx)
	if err != nil {
		return nil, err
	}
	return GetRadios200JSONResponse{Radios: v}, nil
}

// form passes a profile or an error on.
func form[T any](v *app.RadioForm, err error, wrap func(RadioFormJSONResponse) T) (T, error) {
	if err != nil {
		var none T
		return none, err
	}
	return wrap(RadioFormJSONResponse(*v)), nil
}

func (s *server) NewRadio(ctx context.Context, r NewRadioRequestObject) (NewRadioResponseObject, error) {
	v, err := s.app.NewRadio(ctx, or(r.Body.Copy), or(r.Body.Yaml))
	return form(v, err, func(v RadioFormJSONResponse) NewRadioResponseObject { return NewRadio201JSONResponse{v} })
}

func or(s *string) string {
	if s == nil {
		return ""
	}
	return *s
}

func (s *server) GetRadio(ctx context.Context, r GetRadioRequestObject) (GetRadioResponseObject, error) {
	v, err := s.app.Radio(ctx, r.Radio)
	return form(v, err, func(v RadioFormJSONResponse) GetRadioResponseObject { return GetRadio200JSONResponse{v} })
}

func (s *server) SaveRadio(ctx context.Context, r SaveRadioRequestObject) (SaveRadioResponseObject, error) {
	v, err := s.app.SaveRadio(ctx, r.Radio, r.Body.Texts)
	return form(v, err, func(v RadioFormJSONResponse) SaveRadioResponseObject { return SaveRadio200JSONResponse{v} })
}

func (s *server) DeleteRadio(ctx context.Context, r DeleteRadioRequestObject) (DeleteRadioResponseObject, error) {
	v, err := s.app.DeleteRadio(ctx, r.Radio)
	return form(v, err, func(v RadioFormJSONResponse) DeleteRadioResponseObject { return DeleteRadio200JSONResponse{v} })
}

func (s *server) PreviewRadio(ctx context.Context, r PreviewRadioRequestObject) (PreviewRadioResponseObject, error) {
	v, err := s.app.PreviewRadio(ctx, r.Radio, r.Body.Texts)
	if err != nil {
		return nil, err
	}
	return PreviewRadio200JSONResponse(*v), nil
}

func (s *server) UseRadio(ctx context.Context, r UseRadioRequestObject) (UseRadioResponseObject, error) {
	l, err := s.app.UseRadio(ctx, r.Radio)
	return ledger(l, err, func(l LedgerJSONResponse) UseRadioResponseObject { return UseRadio201JSONResponse{l} })
}

func (s *server) DropRadio(ctx context.Context, r DropRadioRequestObject) (DropRadioResponseObject, error) {
	l, err := s.app.DropRadio(ctx, r.Radio)
	return ledger(l, err, func(l LedgerJSONResponse) DropRadioResponseObject { return DropRadio200JSONResponse{l} })
}

func (s *server) GetRule(_ context.Context, r GetRuleRequestObject) (GetRuleResponseObject, error) {
	for _, x := range check.Rules {
		if x.ID == r.Rule {
			return GetRule200JSONResponse{Id: x.ID, Title: x.Title, Doc: x.Doc, Source: x.Source, Example: x.Example}, nil
		}
	}
	return nil, fmt.Errorf("rule %q: %w", r.Rule, fault.ErrNotFound)
}
