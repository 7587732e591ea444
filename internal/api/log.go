package api

import (
	"bytes"
	"context"
	"mime"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/tone"
	"mnemos/core/trial"
	"mnemos/internal/fault"
	"mnemos/internal/logbook"
)

func (s *server) GetCard(ctx context.Context, r GetCardRequestObject) (GetCardResponseObject, error) {
	c, err := s.Log.Card(ctx, r.Load, r.Slot)
	if err != nil {
		return nil, err
	}
	return GetCard200JSONResponse(wireCard(c)), nil
}

func (s *server) RecordTry(ctx context.Context, r RecordTryRequestObject) (RecordTryResponseObject, error) {
	set, err := coreSetting(r.Body.Setting)
	if err != nil {
		return nil, err
	}
	c, err := s.Log.Record(ctx, r.Load, r.Slot, logbook.Form{
		Kind: trial.Kind(r.Body.Kind), Setting: set, Answer: trial.Answer(or(r.Body.Answer)), Yes: or(r.Body.Yes), Negative: or(r.Body.Negative),
		At: or(r.Body.At), Spot: or(r.Body.Spot), Station: or(r.Body.Station), Note: or(r.Body.Note),
	})
	if err != nil {
		return nil, err
	}
	return RecordTry200JSONResponse(wireCard(c)), nil
}

func (s *server) RecordSearch(ctx context.Context, r RecordSearchRequestObject) (RecordSearchResponseObject, error) {
	c, err := s.Log.Searched(ctx, r.Load, r.Slot, logbook.SearchForm{
		Side: trial.Side(r.Body.Side), System: trial.System(r.Body.System), Tone: r.Body.Tone, At: or(r.Body.At), Spot: or(r.Body.Spot), Station: or(r.Body.Station), Note: or(r.Body.Note),
	})
	if err != nil {
		return nil, err
	}
	return RecordSearch200JSONResponse(wireCard(c)), nil
}

func (s *server) BringContacts(ctx context.Context, r BringContactsRequestObject) (BringContactsResponseObject, error) {
	b, err := s.Log.Bring(ctx, r.Load, r.Body.Text)
	if err != nil {
		return nil, err
	}
	return BringContacts200JSONResponse{Added: b.Added, Known: b.Known, Losses: texts(b.Losses)}, nil
}

func (s *server) Permit(ctx context.Context, r PermitRequestObject) (PermitResponseObject, error) {
	c, err := s.Log.Permit(ctx, r.Load, r.Slot, r.Body.Note)
	if err != nil {
		return nil, err
	}
	return Permit200JSONResponse(wireCard(c)), nil
}

func (s *server) KeepTry(ctx context.Context, r KeepTryRequestObject) (KeepTryResponseObject, error) {
	l, err := s.Log.Keep(ctx, r.Load, r.Slot, r.Body.Revision)
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) KeepTryResponseObject { return KeepTry200JSONResponse{l} })
}

func (s *server) GetLog(ctx context.Context, r GetLogRequestObject) (GetLogResponseObject, error) {
	l, err := s.Log.List(ctx, r.Load, or(r.Params.Find))
	if err != nil {
		return nil, err
	}
	_, losses, err := s.Log.ADI(ctx, r.Load)
	if err != nil {
		return nil, err
	}
	return GetLog200JSONResponse{Tries: each(l.Tries, wireTry), Answered: l.Answered, Silent: l.Silent, Losses: texts(losses)}, nil
}

func (s *server) EditTry(ctx context.Context, r EditTryRequestObject) (EditTryResponseObject, error) {
	a, err := s.Log.Correct(ctx, r.Id, logbook.Edit{Answer: r.Body.Answer, Spot: r.Body.Spot, Station: r.Body.Station, Note: r.Body.Note})
	if err != nil {
		return nil, err
	}
	return EditTry200JSONResponse(wireTry(a)), nil
}

func (s *server) DropTry(ctx context.Context, r DropTryRequestObject) (DropTryResponseObject, error) {
	if err := s.Log.Drop(ctx, r.Id); err != nil {
		return nil, err
	}
	return DropTry204Response{}, nil
}

func (s *server) GetLogFile(ctx context.Context, r GetLogFileRequestObject) (GetLogFileResponseObject, error) {
	name := "log.csv"
	b, err := s.Log.CSV(ctx, r.Load)
	if r.Params.As == GetLogFileParamsAsAdi {
		var text string
		text, _, err = s.Log.ADI(ctx, r.Load)
		name, b = "contacts.adi", []byte(text)
	}
	if err != nil {
		return nil, err
	}
	return GetLogFile200ApplicationoctetStreamResponse{
		Body: bytes.NewReader(b), ContentLength: int64(len(b)),
		Headers: GetLogFile200ResponseHeaders{ContentDisposition: mime.FormatMediaType("attachment", map[string]string{"filename": name})},
	}, nil
}

func coreSetting(t TrySetting) (trial.Setting, error) {
	s := trial.Setting{Offset: freq.Offset(t.OffsetHz), Width: channel.Width(t.Width), Power: t.Power, Mode: t.Mode, Where: t.Where, Aerial: t.Aerial}
	var err error
	if s.Tone, err = tone.Parse(t.Tone); err != nil {
		f := &fault.Invalid{}
		f.Add("tone", "%v", err)
		return s, f.Or()
	}
	return s, nil
}

func wireSetting(s trial.Setting) TrySetting {
	return TrySetting{Tone: s.Tone.String(), OffsetHz: int64(s.Offset), Width: string(s.Width), Power: s.Power, Mode: s.Mode, Where: s.Where, Aerial: s.Aerial}
}

func wireTry(a logbook.Attempt) LoggedTry {
	return LoggedTry{
		Id: a.ID, At: a.At, Kind: a.Kind, Answer: a.Answer, Yes: a.Yes, Negative: a.Negative, Slot: a.Slot, Name: a.Name, ReceiveHz: a.Receive,
		Setting: TrySetting{Tone: a.ToneOut, OffsetHz: a.Offset, Width: a.Width, Power: a.PowerSet, Mode: a.ModeSeen, Where: a.Place, Aerial: a.Aerial},
		ToneIn:  a.ToneIn, Power: a.Power, Watts: a.Watts, Spot: a.Spot, Callsign: a.Callsign, Station: a.Station, Note: a.Note, Person: a.PersonID, Says: logbook.Says(a), Side: sided(a.Side),
	}
}

func wireCard(c *logbook.Card) TestCard {
	out := TestCard{
		Load: c.Load, Slot: c.Slot, Name: c.Name, Unit: c.Unit, Channel: wireChannel(c.Channel), Refused: c.Refused, Closed: c.Closed, Owner: c.Owner, Callsign: c.Callsign,
		Minutes: c.Clock.Minutes, Source: c.Clock.Source, First: c.Clock.First, Setting: wireSetting(c.Setting), Tries: each(c.Tries, wireTry),
		Causes: each(c.Causes, func(x trial.Cause) TestCause {
			return TestCause{Says: x.Says, Short: x.Short, Now: x.Now, Was: x.Was, InTen: trial.InTen(x.Now)}
		}),
		Found: c.Found, Answered: c.Answered, Standing: wireStanding(c.Standing), Search: wireSearch(c.Search), Basis: c.Basis, Watts: c.Watts, Revision: c.Revision,
		Acts: each(c.Acts, func(a logbook.Act) TestAct {
			return TestAct{
				Kind: string(a.Kind), Change: a.Change, Says: a.Says, Why: a.Why, Bits: a.Bits, Worth: a.Worth, Back: a.Back, Setting: wireSetting(a.Setting), Channel: wireChannel(a.Channel),
				Yes: outlook(a.Yes), No: outlook(a.No),
			}
		}),
		Places:  each(trial.Places(), func(p trial.Place) TestChoice { return TestChoice{Id: p.ID, Says: p.Says} }),
		Aerials: each(trial.Aerials(), func(a trial.Aerial) TestChoice { return TestChoice{Id: a.ID, Says: a.Says} }),
		Answers: []TestChoice{},
	}
	for _, a := range trial.Answers {
		out.Answers = append(out.Answers, TestChoice{Id: string(a.Answer), Says: a.Says})
	}
	if c.Permission != nil {
		out.Permission = &c.Permission.Note
	}
	if m := c.Meant; m != nil {
		out.DistanceKm = m.Distance
		if m.Distance != nil {
			out.Bearing = &m.Bearing
		}
		if m.Horizon {
			out.ReachKm = &m.Reach
		}
	}
	return out
}

func wireSearch(s logbook.Search) ToneSearch {
	return ToneSearch{Refused: s.Refused, BackHz: int64(s.Back), Input: wireSeat(s.Input), Output: wireSeat(s.Output), Hits: each(s.Hits, wireTry)}
}

func wireSeat(s *logbook.Seat) *SearchSeat {
	if s == nil {
		return nil
	}
	out := &SearchSeat{SitHz: int64(s.Sit), System: string(s.State.System), Why: s.State.Why, Doubt: s.State.Doubt}
	if o := s.Offer; o != nil {
		out.Offer = &SearchOffer{Says: o.Says, Why: o.Why, Field: string(o.Field), Tone: o.Tone.String(), Same: o.Same}
	}
	return out
}

// outlook says what a cause would be after a try, and how likely.
func outlook(c trial.Cause) string {
	if c.Short == "" {
		return ""
	}
	return c.Short + ": " + trial.InTen(c.Now)
}

// sided is where a search sat; nil for every other line of the log.
func sided(side string) *string {
	if side == "" {
		return nil
	}
	return &side
}
