package api

import (
	"context"

	"mnemos/internal/fleet"
	"mnemos/internal/plan"
)

func (s *server) GetStart(ctx context.Context, _ GetStartRequestObject) (GetStartResponseObject, error) {
	people, err := s.Fleet.People(ctx)
	if err != nil {
		return nil, err
	}
	profiles, err := s.Fleet.Profiles(ctx)
	if err != nil {
		return nil, err
	}
	demo, err := s.Plans.Demo(ctx)
	if err != nil {
		return nil, err
	}
	return GetStart200JSONResponse{
		Needed: len(people) == 0, Demo: some(demo), Regions: each(plan.Regions(), wireRegion), Colours: fleet.Colours,
		Radios: each(profiles, func(p fleet.ProfileInfo) RadioInfo { return wireProfile(p, nil, nil) }),
	}, nil
}

func (s *server) Start(ctx context.Context, r StartRequestObject) (StartResponseObject, error) {
	w, err := s.Plans.Begin(ctx, plan.Start{Person: personForm(r.Body.Person), Plan: newPlan(r.Body.Plan), Radio: r.Body.Plan.Radio})
	if err != nil {
		return nil, err
	}
	return Start201JSONResponse(wireWorkspace(w)), nil
}

func personForm(b PersonRequest) fleet.PersonForm {
	return fleet.PersonForm{
		Name: b.Name, Colour: b.Colour, Callsign: b.Callsign, Licence: b.Licence, Bands: b.Bands, Services: b.Services, Unlicensed: b.Unlicensed, Revision: orLatest(b.Revision),
	}
}

func newPlan(b NewPlanRequest) plan.Form {
	return plan.Form{Name: &b.Name, Season: b.Season, Region: &b.Region, Place: b.Place}
}

func (s *server) GetPeople(ctx context.Context, _ GetPeopleRequestObject) (GetPeopleResponseObject, error) {
	people, err := s.Fleet.People(ctx)
	if err != nil {
		return nil, err
	}
	return GetPeople200JSONResponse{People: each(people, wirePerson)}, nil
}

func (s *server) AddPerson(ctx context.Context, r AddPersonRequestObject) (AddPersonResponseObject, error) {
	p, err := s.Fleet.AddPerson(ctx, personForm(*r.Body))
	if err != nil {
		return nil, err
	}
	return AddPerson201JSONResponse(wirePerson(p)), nil
}

func (s *server) ChangePerson(ctx context.Context, r ChangePersonRequestObject) (ChangePersonResponseObject, error) {
	p, err := s.Fleet.ChangePerson(ctx, r.Id, personForm(*r.Body))
	if err != nil {
		return nil, err
	}
	return ChangePerson200JSONResponse(wirePerson(p)), nil
}

func (s *server) NewPlan(ctx context.Context, r NewPlanRequestObject) (NewPlanResponseObject, error) {
	w, err := s.Plans.New(ctx, newPlan(*r.Body), r.Body.Radio)
	if err != nil {
		return nil, err
	}
	return NewPlan201JSONResponse(wireWorkspace(w)), nil
}

func (s *server) ChangePlan(ctx context.Context, r ChangePlanRequestObject) (ChangePlanResponseObject, error) {
	b := r.Body
	w, err := s.Plans.Change(ctx, r.Id, plan.Form{Name: b.Name, Season: b.Season, Region: b.Region, Place: b.Place, Archived: b.Archived, Revision: orLatest(b.Revision)})
	if err != nil {
		return nil, err
	}
	return ChangePlan200JSONResponse(wireWorkspace(w)), nil
}

func (s *server) RemovePlan(ctx context.Context, r RemovePlanRequestObject) (RemovePlanResponseObject, error) {
	if err := s.Plans.Remove(ctx, r.Id, orLatest(r.Params.Revision)); err != nil {
		return nil, err
	}
	return RemovePlan204Response{}, nil
}

func (s *server) CopyPlan(ctx context.Context, r CopyPlanRequestObject) (CopyPlanResponseObject, error) {
	w, err := s.Plans.Duplicate(ctx, r.Id, r.Body.Name)
	if err != nil {
		return nil, err
	}
	return CopyPlan201JSONResponse(wireWorkspace(w)), nil
}

func (s *server) OpenDemo(ctx context.Context, _ OpenDemoRequestObject) (OpenDemoResponseObject, error) {
	w, err := s.House.OpenDemo(ctx)
	if err != nil {
		return nil, err
	}
	return OpenDemo201JSONResponse(wireWorkspace(w)), nil
}

func (s *server) AddUnit(ctx context.Context, r AddUnitRequestObject) (AddUnitResponseObject, error) {
	l, err := s.Plans.AddUnit(ctx, r.Id, r.Body.Radio, plan.UnitForm{Name: r.Body.Name, Holder: r.Body.Holder})
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) AddUnitResponseObject { return AddUnit201JSONResponse{l} })
}

func (s *server) ChangeUnit(ctx context.Context, r ChangeUnitRequestObject) (ChangeUnitResponseObject, error) {
	if err := s.Plans.ChangeUnit(ctx, r.Id, plan.UnitForm{Name: r.Body.Name, Holder: r.Body.Holder, Revision: orLatest(r.Body.Revision)}); err != nil {
		return nil, err
	}
	return ChangeUnit204Response{}, nil
}

func (s *server) DropUnit(ctx context.Context, r DropUnitRequestObject) (DropUnitResponseObject, error) {
	l, err := s.Plans.DropUnit(ctx, r.Load, orLatest(r.Params.Revision))
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) DropUnitResponseObject { return DropUnit200JSONResponse{l} })
}

func (s *server) GetHoldings(ctx context.Context, r GetHoldingsRequestObject) (GetHoldingsResponseObject, error) {
	list, absent, err := s.Plans.Holdings(ctx, r.Id, or(r.Params.Load))
	if err != nil {
		return nil, err
	}
	return GetHoldings200JSONResponse{Absent: each(absent, wireAbsent), Holdings: each(list, func(h plan.Held) Holding {
		return Holding{Channel: h.Channel, Load: h.Load, Slot: h.Slot, Can: h.Can, Losses: texts(h.Losses), State: string(h.State)}
	})}, nil
}

func (s *server) CopyEntry(ctx context.Context, r CopyEntryRequestObject) (CopyEntryResponseObject, error) {
	l, err := s.Plans.CopyTo(ctx, r.Load, r.Slot, r.Body.Load, r.Body.Revision)
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) CopyEntryResponseObject { return CopyEntry201JSONResponse{l} })
}

func wireAbsent(a plan.Absent) Absent {
	return Absent{
		Id: a.ID, Channel: wireChannel(a.Channel), Load: a.From.LoadID, Slot: a.From.Slot, Number: a.Number, Can: a.Can, Losses: texts(a.Losses),
	}
}
