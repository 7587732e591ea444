package api

import (
	"bytes"
	"context"
	"mime"
	"strings"
	"unicode"

	"mnemos/core/keypad"
	"mnemos/core/standing"
	"mnemos/core/walk"
	"mnemos/internal/plan"
	"mnemos/internal/print"
)

func (s *server) GetFit(ctx context.Context, r GetFitRequestObject) (GetFitResponseObject, error) {
	f, err := s.Sheets.Fit(ctx, r.Load)
	if err != nil {
		return nil, err
	}
	out := FitReport{
		Plan: f.Plan, Unit: f.Unit, Radio: wireRadio(f.Radio), Channels: f.Channels, Whole: f.Whole, NamesBy: f.NamesBy,
		Held: each(f.Held, wireFitItem), Decide: each(f.Decide, wireFitItem), Changed: each(f.Changed, wireFitItem), Out: each(f.Out, wireFitItem),
	}
	out.Names = each(f.Names, func(n print.ShortName) FitName { return FitName{Slot: n.Slot, Long: n.Long, Name: n.Name} })
	return GetFit200JSONResponse(out), nil
}

func wireFitItem(x print.Item) FitItem {
	return FitItem{
		Slot: x.Slot, Name: x.Name, Channel: wireChannel(x.Channel), Verdict: Verdict(x.Verdict), Title: x.Title, Why: x.Why,
		Fixes: each(x.Fixes, wireFix), Listen: x.Listen, Leave: x.Leave, Scan: x.Scan,
	}
}

func (s *server) GetWalk(ctx context.Context, r GetWalkRequestObject) (GetWalkResponseObject, error) {
	q, err := walkRequest(r.Params.Order, r.Params.Names, r.Params.Again)
	if err != nil {
		return nil, err
	}
	w, err := s.Sheets.Walk(ctx, r.Load, q)
	if err != nil {
		return nil, err
	}
	return GetWalk200JSONResponse(wireWalk(w)), nil
}

func walkRequest(order *string, names, again *bool) (q print.WalkRequest, err error) {
	q = print.WalkRequest{Names: names == nil || *names, Again: again != nil && *again}
	if order != nil && *order != "" {
		q.Order, err = slotList(*order)
	}
	return q, err
}

func (s *server) GetWrong(ctx context.Context, r GetWrongRequestObject) (GetWrongResponseObject, error) {
	q, err := walkRequest(r.Params.Order, r.Params.Names, r.Params.Again)
	if err != nil {
		return nil, err
	}
	shown, err := s.Sheets.Wrong(ctx, r.Load, q, r.Params.Slot)
	if err != nil {
		return nil, err
	}
	return GetWrong200JSONResponse{Shown: each(shown, func(x walk.Shown) WrongShown {
		return WrongShown{Marks: x.Marks, Figures: x.Figures, Slot: x.Slot, ReadOut: x.ReadOut, Mistakes: each(x.Mistakes, func(m walk.Mistake) WrongMistake {
			return WrongMistake{Step: m.Step, Says: m.Says}
		})}
	})}, nil
}

func (s *server) Tick(ctx context.Context, r TickRequestObject) (TickResponseObject, error) {
	l, err := s.Sheets.Mark(ctx, r.Load, plan.Tick{Channel: r.Body.Channel, Fingerprint: r.Body.Fingerprint, State: standing.State(r.Body.State)})
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) TickResponseObject { return Tick200JSONResponse{l} })
}

func wireAct(a keypad.Act) SheetAct {
	return SheetAct{Verb: SheetActVerb(a.Verb), Keys: texts(a.Keys), Other: texts(a.Other), Times: a.Times, Shows: a.Shows, Text: a.Text}
}

func wireWalk(w *print.Walk) Walk {
	return Walk{
		Load: w.Load, Plan: w.Plan, Unit: w.Unit, Radio: wireRadio(w.Radio), Revision: w.Revision, Stops: each(w.Stops, wireStop), End: wireSheet(w.End),
		Effort: Effort(w.Effort), Done: w.Done, All: w.All, Apart: Effort(w.Apart), InSlotOrder: Effort(w.InSlotOrder), Nameless: Effort(w.Nameless), Names: w.Names, ByCable: w.ByCable,
		SlotSeconds: w.Radio.Keying.SlotSeconds,
		Asides: each(w.Asides, func(a print.Aside) WalkAside {
			return WalkAside{Slot: a.Slot, Name: a.Name, Kind: WalkAsideKind(a.Kind), Why: a.Why}
		}),
	}
}

func wireStop(x print.Stop) WalkStop {
	return WalkStop{
		Channel: x.Channel, Slot: x.Slot, Name: x.Name, ShortName: x.Short, Fingerprint: x.Fingerprint, Verdict: Verdict(x.Verdict),
		Standing: wireStanding(x.Standing), Holds: wireChannel(x.Holds), Says: x.Says, Sheet: wireSheet(x.Sheet), Effort: Effort(x.Effort), Alone: Effort(x.Alone),
		Doubts: texts(x.Doubts), Sure: WalkStopSure(x.Sure), WhyNot: x.WhyNot,
		Stays: each(x.Sheet.Stays, func(y keypad.Stay) WalkStay { return WalkStay{Says: y.String(), Look: y.Look} }),
	}
}

func (s *server) GetPaper(ctx context.Context, r GetPaperRequestObject) (GetPaperResponseObject, error) {
	size := "a4"
	if r.Params.Size != nil {
		size = *r.Params.Size
	}
	p, err := s.Sheets.Paper(ctx, r.Load, r.Params.Kind, size)
	if err != nil {
		return nil, err
	}
	var b bytes.Buffer
	as := View
	if r.Params.As != nil {
		as = *r.Params.As
	}
	if as == Pdf {
		if err := p.PDF(&b); err != nil {
			return nil, err
		}
		return GetPaper200ApplicationpdfResponse{
			Body: &b, ContentLength: int64(b.Len()),
			Headers: GetPaper200ResponseHeaders{ContentDisposition: disposition(p, "pdf"), ContentSecurityPolicy: policy},
		}, nil
	}
	if err := p.HTML(&b); err != nil {
		return nil, err
	}
	h := GetPaper200ResponseHeaders{ContentDisposition: "inline", ContentSecurityPolicy: p.Policy()}
	if as == Html {
		h.ContentDisposition = disposition(p, "html")
	}
	return GetPaper200TexthtmlResponse{Body: &b, ContentLength: int64(b.Len()), Headers: h}, nil
}

// disposition names a file by what it is of; letters that some file systems refuse are
// left out.
func disposition(p *print.Paper, ending string) string {
	name := strings.Map(func(r rune) rune {
		if unicode.IsLetter(r) || unicode.IsDigit(r) || r == '-' {
			return r
		}
		return ' '
	}, p.Plan+" "+p.Unit+" "+p.Title())
	name = strings.Join(strings.Fields(name), " ")
	return mime.FormatMediaType("attachment", map[string]string{"filename": name + "." + ending})
}
