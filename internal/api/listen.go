package api

import (
	"context"
	"math"
	"slices"
	"time"

	"mnemos/core/freq"
	"mnemos/core/scan"
	"mnemos/internal/fault"
	"mnemos/internal/listen"
)

func (s *server) GetListen(ctx context.Context, r GetListenRequestObject) (GetListenResponseObject, error) {
	ask := listen.Ask{Line: or(r.Params.Line), Slot: -1}
	if r.Params.Slot != nil {
		ask.Slot = *r.Params.Slot
	}
	if text := or(r.Params.At); text != "" {
		at, err := time.Parse(time.RFC3339, text)
		if err != nil || at.Year() < 1970 || at.Year() > 9999 {
			f := &fault.Invalid{}
			f.Add("at", "write a time such as 2026-11-28T21:00:00Z")
			return nil, f.Or()
		}
		ask.At = at
	}
	out, err := s.Scans.Report(ctx, r.Load, ask)
	if err != nil {
		return nil, err
	}
	return GetListen200JSONResponse(wireListen(out)), nil
}

func (s *server) SetListen(ctx context.Context, r SetListenRequestObject) (SetListenResponseObject, error) {
	b := r.Body
	form := listen.Form{Lists: b.Lists, Resume: b.Resume, Every: b.Every, Watch: b.Watch, Goal: b.Goal, Revision: b.Revision}
	if b.Stay != nil {
		v := float64(*b.Stay)
		form.Stay = &v
	}
	if b.Timed != nil {
		form.Timed = &listen.Timed{Channels: b.Timed.Channels, Seconds: float64(b.Timed.Seconds)}
	}
	if b.Talk != nil {
		form.Talk = &listen.Said{Slot: b.Talk.Slot, Talk: listen.Talk{Rate: float64(b.Talk.Rate), Length: float64(b.Talk.Length)}}
	}
	l, err := s.Scans.Set(ctx, r.Load, form)
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) SetListenResponseObject { return SetListen200JSONResponse{l} })
}

func (s *server) ChangeListen(ctx context.Context, r ChangeListenRequestObject) (ChangeListenResponseObject, error) {
	l, err := s.Scans.Apply(ctx, r.Load, each(r.Body.Changes, func(c ListenChange) listen.Change {
		return listen.Change{Kind: scan.Kind(c.Kind), Slot: c.Slot, Resume: scan.Resume(or(c.Resume)), Stay: float64(or(c.Stay)), Stays: or(c.Stays)}
	}), r.Body.Revision)
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) ChangeListenResponseObject { return ChangeListen200JSONResponse{l} })
}

func (s *server) GetDiary(ctx context.Context, r GetDiaryRequestObject) (GetDiaryResponseObject, error) {
	slot := -1
	if r.Params.Slot != nil {
		slot = *r.Params.Slot
	}
	d, err := s.Scans.Diary(ctx, r.Load, slot)
	if err != nil {
		return nil, err
	}
	return GetDiary200JSONResponse(wireDiary(d)), nil
}

func (s *server) NoteDiary(ctx context.Context, r NoteDiaryRequestObject) (NoteDiaryResponseObject, error) {
	do := s.Scans.Note
	switch r.Body.Do {
	case DiaryNoteDoBegin:
		do = s.Scans.Begin
	case DiaryNoteDoStop:
		do = s.Scans.Stop
	default:
	}
	d, err := do(ctx, r.Load, r.Body.Slot)
	if err != nil {
		return nil, err
	}
	return NoteDiary200JSONResponse(wireDiary(d)), nil
}

func (s *server) GetSweep(ctx context.Context, r GetSweepRequestObject) (GetSweepResponseObject, error) {
	w, err := s.Scans.Sweep(ctx, r.Load, listen.SweepForm{Lower: or(r.Params.Lower), Upper: or(r.Params.Upper), Step: or(r.Params.Step)})
	if err != nil {
		return nil, err
	}
	out := Sweep{
		LowerHz: int64(w.Lower), UpperHz: int64(w.Upper), StepHz: int64(w.Step), Count: w.Sweep.Steps, Seconds: float64(w.Seconds), PerSecond: float64(w.PerSecond),
		Steps: each(w.Steps, func(f freq.Hz) int64 { return int64(f) }), BestHz: int64(w.Best), All: w.All, Met: w.Met, Off: w.Off, Passed: w.Passed, Digits: w.Digits,
		Passes: each(w.Passes, func(p listen.Pass) SweepPass {
			return SweepPass{ReceiveHz: int64(p.Frequency), NearestHz: int64(p.Nearest), OffHz: int64(p.Meeting.Off), Meets: string(p.Says), Slot: p.Slot, Name: p.Name, Keyed: wireKeyed(p.Keyed, p.CanReach)}
		}),
		Begin: wireKeyed(w.Begin, w.CanBegin),
	}
	return GetSweep200JSONResponse(out), nil
}

func wireKeyed(k scan.Keyed, ok bool) *Keyed {
	if !ok {
		return nil
	}
	return &Keyed{TypeHz: int64(k.Type), StepHz: int64(k.Step), Up: k.Up}
}

// finite is a number, or nothing where there is no end.
func finite(x float64) *float64 {
	if math.IsInf(x, 0) || math.IsNaN(x) {
		return nil
	}
	v := float64(x)
	return &v
}

func numbers(list []float64) []float64 {
	return each(list, func(x float64) float64 { return float64(x) })
}

func wireDiary(d *listen.Diary) Diary {
	out := Diary{
		Slot: d.Slot, Name: d.Name, Heard: d.Heard, Hours: float64(d.Hours), Counted: float64(d.Counted), Since: d.Since, Noted: d.Noted,
		Cells: each(d.Cells, func(c listen.Cell) DiaryCell {
			w := DiaryCell{Day: c.Day, Hour: c.Hour, Heard: c.Heard, Hours: float64(c.Hours)}
			if c.Rate != nil {
				w.Rate = finite(*c.Rate)
			}
			return w
		}),
		Favourites: each(d.Favourites, func(f listen.Favourite) DiaryFavourite {
			return DiaryFavourite{Slot: f.Slot, Name: f.Name, Rate: float64(f.Rate), Day: f.Day, Hour: f.Hour, Best: float64(f.Best)}
		}),
	}
	if d.Rate != nil {
		out.Rate = finite(*d.Rate)
	}
	return out
}

func wireListen(r *listen.Report) ListenReport {
	out := ListenReport{
		Load: r.Load, Unit: r.Unit, At: r.At, Day: int(r.At.Weekday()), Hour: r.At.Hour(), Scanned: r.Scanned, Held: len(r.Rows), Resume: string(r.Resume), Stay: float64(r.Stay), Every: r.Every,
		HasPriority: r.HasPriority, HasLists: r.Holds, Priority: r.Priority, Watch: r.Watch, Receivers: string(r.Receivers), Revision: r.Revision, Says: r.Says,
		Chance: float64(r.Chance), Reached: r.Reached, Round: finite(r.Round), Overs: float64(r.Overs), Heard: float64(r.Heard), FromDiary: r.DiaryOf, Guesses: r.Guesses,
		Rate: ListenRate{PerSecond: float64(r.Rate.PerSecond), Look: float64(r.Rate.Look), Profile: float64(r.Rate.Profile), Timed: r.Rate.Timed, Channels: r.Rate.Channels, Seconds: float64(r.Rate.Seconds)},
		Lists: each(r.Lists, func(l listen.List) ListenList {
			return ListenList{Id: l.ID, Name: l.Name, Channels: l.Channels, Chosen: l.Chosen}
		}),
		Goal: ListenGoal{
			Line: r.Goal.Line, Trouble: r.Goal.Trouble, Slot: r.Goal.Slot, Name: r.Goal.Name, Length: float64(r.Goal.Length), Share: float64(r.Goal.Share), Kept: r.Goal.Kept,
			Words: each(r.Goal.Words, func(w scan.Word) ListenWord {
				return ListenWord{From: w.From, To: w.To, As: w.As, Doubt: w.Doubt}
			}),
		},
		Why:   each(r.Why, func(l listen.Line) ListenLine { return ListenLine{Term: l.Term, Says: l.Says} }),
		Parts: each(r.Parts, wireWay), Rows: each(r.Rows, wireListenRow), Half: wireHalf(r.Half),
		Curve: ListenCurve{Slot: r.Curve.Slot, Longest: float64(r.Curve.Longest), Now: numbers(r.Curve.Now), Then: numbers(r.Curve.Then), Reach: finite(r.Curve.Reach), ReachThen: finite(r.Curve.ReachThen)},
		Modes: each(r.Modes, func(m listen.Mode) ListenMode {
			return ListenMode{Resume: string(m.Resume), Stay: float64(m.Stay), Now: m.Now, Round: finite(m.Round), Heard: float64(m.Heard), Chance: float64(m.Chance), Says: m.Says}
		}),
		Dual: ListenDual{Says: r.Dual.Says, Asks: r.Dual.Asks, Cases: each(r.Dual.Cases, func(c listen.Case) ListenCase {
			w := ListenCase{Side: c.Side, Slot: c.Slot, Name: c.Name, HearsHz: int64(c.Hears), Bad: c.Bad, Lockable: c.Lockable}
			if c.Sends != nil {
				v := int64(*c.Sends)
				w.SendsHz = &v
			}
			return w
		})},
	}
	if r.Best != nil {
		w := wireWay(*r.Best)
		out.Best = &w
	}
	if r.HalfThen != nil {
		h := wireHalf(*r.HalfThen)
		out.HalfThen = &h
	}
	return out
}

func wireWay(w listen.Way) ListenWay {
	out := ListenWay{Chance: float64(w.Chance), Heard: float64(w.Heard), Short: float64(w.Short), Label: w.Label, Changes: each(w.Changes, func(c listen.Change) ListenChange {
		stay, stays := float64(c.Stay), c.Stays
		return ListenChange{Kind: string(c.Kind), Slot: c.Slot, Resume: some(string(c.Resume)), Stay: &stay, Stays: &stays, Says: some(c.Says)}
	})}
	if w.Loses != nil {
		out.Loses = &ListenLoss{Name: w.Loses.Name, Was: float64(w.Loses.Was), Is: float64(w.Loses.Is)}
	}
	return out
}

func wireListenRow(r listen.Row) ListenRow {
	out := ListenRow{
		Slot: r.Slot, Name: r.Name, ShortName: r.Short, ReceiveHz: int64(r.Receive), In: r.In, Priority: r.Priority, Second: r.Second, Opens: float64(r.Opens), Lock: r.Lock,
		Rate: float64(r.Talk.Rate), Length: float64(r.Talk.Length), By: ListenRowBy(r.By), Chance: float64(r.Chance),
		Return: finite(r.Figures.Return), Away: finite(r.Figures.Away), Wait: finite(r.Figures.Wait), Share: float64(r.Figures.Share), Stops: float64(r.Figures.Stops), Stop: float64(r.Figures.Stop), Missed: float64(r.Missed),
	}
	if r.Then != nil {
		out.Then = finite(*r.Then)
	}
	if r.Call != nil {
		out.Call = &ListenCall{Kind: r.Call.Kind, Title: r.Call.Title, Short: r.Call.Short, Do: string(r.Call.Do), Label: r.Call.Label}
	}
	return out
}

func wireHalf(h listen.Half) ListenHalf {
	out := ListenHalf{Seconds: float64(h.Seconds), Traffic: []ListenTraffic{}, Visits: each(h.Visits, func(v listen.Visit) ListenVisit {
		return ListenVisit{Slot: v.Slot, From: float64(v.From), To: float64(v.To), Stop: v.Stop, Priority: v.Priority}
	})}
	for slot, overs := range h.Overs {
		out.Traffic = append(out.Traffic, ListenTraffic{Slot: slot, Overs: each(overs, func(o listen.Over) ListenOver {
			return ListenOver{From: float64(o.From), To: float64(o.To), Heard: each(o.Heard, func(p scan.Over) []float64 { return []float64{float64(p.From), float64(p.To)} })}
		})})
	}
	slices.SortFunc(out.Traffic, func(a, b ListenTraffic) int { return a.Slot - b.Slot })
	return out
}
