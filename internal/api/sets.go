package api

import (
	"context"

	"mnemos/internal/plan"
)

func wireSets(all []plan.SetInfo) Sets {
	return Sets{
		Kinds: each(plan.SetKinds, func(k plan.SetKind) SetKind { return SetKind{Id: k.ID, Title: k.Title, Says: k.Says} }),
		Sets: each(all, func(s plan.SetInfo) SetInfo {
			return SetInfo{
				Id: s.ID, Kind: s.Kind, Name: s.Name, Revision: s.Rev,
				Members: each(s.Members, func(m plan.Member) SetMember { return SetMember{Channel: m.ChannelID, Priority: m.Priority} }),
				Units: each(s.Units, func(u plan.SetUnit) SetUnit {
					return SetUnit{Load: u.Load, Held: u.Held, Could: u.Could, Cannot: u.Cannot, Says: u.Says}
				}),
			}
		}),
	}
}

func (s *server) GetSets(ctx context.Context, r GetSetsRequestObject) (GetSetsResponseObject, error) {
	all, err := s.Plans.Sets(ctx, r.Id)
	if err != nil {
		return nil, err
	}
	return GetSets200JSONResponse(wireSets(all)), nil
}

func (s *server) AddSet(ctx context.Context, r AddSetRequestObject) (AddSetResponseObject, error) {
	all, err := s.Plans.AddSet(ctx, r.Id, plan.SetForm{Kind: r.Body.Kind, Name: r.Body.Name}, or(r.Body.Channels))
	if err != nil {
		return nil, err
	}
	return AddSet201JSONResponse(wireSets(all)), nil
}

func (s *server) RenameSet(ctx context.Context, r RenameSetRequestObject) (RenameSetResponseObject, error) {
	all, err := s.Plans.RenameSet(ctx, r.Id, r.Set, orLatest(r.Body.Revision), r.Body.Name)
	if err != nil {
		return nil, err
	}
	return RenameSet200JSONResponse(wireSets(all)), nil
}

func (s *server) DropSet(ctx context.Context, r DropSetRequestObject) (DropSetResponseObject, error) {
	all, err := s.Plans.DropSet(ctx, r.Id, r.Set, orLatest(r.Params.Revision))
	if err != nil {
		return nil, err
	}
	return DropSet200JSONResponse(wireSets(all)), nil
}

func (s *server) JoinSet(ctx context.Context, r JoinSetRequestObject) (JoinSetResponseObject, error) {
	all, err := s.Plans.Join(ctx, r.Id, r.Set, plan.Joining{Channels: r.Body.Channels, Out: or(r.Body.Out), Priority: or(r.Body.Priority)})
	if err != nil {
		return nil, err
	}
	return JoinSet200JSONResponse(wireSets(all)), nil
}
