package api

import (
	"context"

	"mnemos/internal/house"
	"mnemos/internal/plan"
)

func (s *server) GetFollows(ctx context.Context, r GetFollowsRequestObject) (GetFollowsResponseObject, error) {
	v, err := s.Plans.Follows(ctx, or(r.Params.Plan), or(r.Params.Load))
	if err != nil {
		return nil, err
	}
	return GetFollows200JSONResponse{
		Radio: v.Radio, Placed: v.Placed, WithinKm: v.Within, Near: v.Near, Talk: v.Talk, Ask: v.Ask, Out: v.Out, Bands: each(v.Bands, wireBandFollows),
		Tones: each(v.Tones, func(t plan.ToneFollows) ToneFollows {
			return ToneFollows{Slot: t.Slot, Name: t.Name, Sends: t.Sends, Sent: t.Sent}
		}),
	}, nil
}

func wireBandFollows(b plan.BandFollows) BandFollows {
	return BandFollows{
		Name: b.Name, LowerHz: hertz(b.Lower), UpperHz: hertz(b.Upper), OutputsHz: each(b.Outputs, hertz), Near: b.Near, Licensed: b.Licensed, Receives: b.Receives,
		Transmits: b.Transmits, Talk: b.Talk, Ask: b.Ask, Out: b.Out,
	}
}

func (s *server) GetBackup(ctx context.Context, _ GetBackupRequestObject) (GetBackupResponseObject, error) {
	file, size, err := s.Backup(ctx)
	if err != nil {
		return nil, err
	}
	return GetBackup200ApplicationvndSqlite3Response{Body: file, ContentLength: size}, nil
}

func (s *server) GetAbout(context.Context, GetAboutRequestObject) (GetAboutResponseObject, error) {
	return GetAbout200JSONResponse{Folder: s.Folder(), Sources: each(house.Sources, func(x house.Source) AboutSource {
		return AboutSource{What: x.What, Source: x.Source, Sure: x.Sure}
	})}, nil
}
