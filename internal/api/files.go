package api

import (
	"context"

	"mnemos/core/compare"
	"mnemos/core/document"
	"mnemos/core/intake"
	"mnemos/internal/exchange"
	"mnemos/internal/plan"
)

func wireFile(f exchange.File) MadeFile {
	return MadeFile{Name: f.Name, Type: f.Type, Data: f.Data, Lost: each(f.Lost, func(l document.Loss) string { return l.String() })}
}

func (s *server) PlanFile(ctx context.Context, r PlanFileRequestObject) (PlanFileResponseObject, error) {
	f, err := s.Plans.PlanFile(ctx, r.Id, string(r.Params.Format))
	if err != nil {
		return nil, err
	}
	return PlanFile200JSONResponse(wireFile(f)), nil
}

func (s *server) LoadFile(ctx context.Context, r LoadFileRequestObject) (LoadFileResponseObject, error) {
	f, err := s.Plans.LoadFile(ctx, r.Load, string(r.Params.Format))
	if err != nil {
		return nil, err
	}
	return LoadFile200JSONResponse(wireFile(f)), nil
}

func (s *server) wirePasted(ctx context.Context, v *plan.Pasted) (Pasted, error) {
	out := Pasted{Slots: v.Slots, Left: each(v.Left, func(x plan.LeftOut) LeftOut { return LeftOut{Row: x.Row, Why: x.Why} })}
	if v.Ask != nil {
		out.Ask = &Either{Operator: v.Ask.Operator, Repeater: v.Ask.Repeater}
	}
	if v.Ledger != nil {
		w, err := s.told.wire(ctx, v.Ledger)
		if err != nil {
			return out, err
		}
		out.Ledger = &w
	}
	return out, nil
}

func (s *server) BringFile(ctx context.Context, r BringFileRequestObject) (BringFileResponseObject, error) {
	b := r.Body
	var out Brought
	if b.Template != nil {
		v, err := s.Plans.BringBy(ctx, r.Load, *b.Template, b.Data, plan.Paste{Slot: or(b.Slot), Replace: or(b.Replace), Revision: b.Revision})
		if err != nil {
			return nil, err
		}
		pasted, err := s.wirePasted(ctx, v)
		out.Pasted = &pasted
		return BringFile200JSONResponse(out), err
	}
	err := plan.Temporary(b.Data, func(path string) error {
		v, err := s.Plans.BringFile(ctx, r.Load, path, plan.Paste{Slot: or(b.Slot), Replace: or(b.Replace), Viewpoint: intake.Viewpoint(or(b.Viewpoint)), Revision: b.Revision})
		if err != nil {
			return err
		}
		if v.Workspace != nil {
			w := wireWorkspace(v.Workspace)
			out.Workspace = &w
			return nil
		}
		pasted, err := s.wirePasted(ctx, v.Pasted)
		out.Pasted = &pasted
		return err
	})
	if err != nil {
		return nil, err
	}
	return BringFile200JSONResponse(out), nil
}

func wireComparison(c compare.Result) Comparison {
	return Comparison{Same: c.Same, Differences: each(c.Differences, func(d compare.Difference) ChannelDifference {
		return ChannelDifference{Was: wireCompared(d.Was), Is: wireCompared(d.Is), Fields: each(d.Fields, func(f compare.Field) FieldDifference {
			return FieldDifference{Field: f.Name, Was: f.Was, Is: f.Is}
		})}
	})}
}

func (s *server) CompareFile(ctx context.Context, r CompareFileRequestObject) (CompareFileResponseObject, error) {
	var out compare.Result
	err := plan.Temporary(r.Body.Data, func(path string) (err error) {
		out, err = s.Plans.Against(ctx, r.Load, path, intake.Viewpoint(or(r.Body.Viewpoint)))
		return err
	})
	if err != nil {
		return nil, err
	}
	return CompareFile200JSONResponse(wireComparison(out)), nil
}

func (s *server) TakeParts(ctx context.Context, r TakePartsRequestObject) (TakePartsResponseObject, error) {
	var l *plan.Ledger
	err := plan.Temporary(r.Body.Data, func(path string) (err error) {
		l, err = s.Plans.Take(ctx, r.Load, path, intake.Viewpoint(or(r.Body.Viewpoint)), r.Body.Parts, r.Body.Revision)
		return err
	})
	if err != nil {
		return nil, err
	}
	w, err := s.told.wire(ctx, l)
	return TakeParts200JSONResponse(w), err
}
