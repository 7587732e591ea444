package api

import (
	"context"

	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/relay"
	"mnemos/internal/plan"
	"mnemos/internal/relaying"
)

func (s *server) GetRelay(ctx context.Context, r GetRelayRequestObject) (GetRelayResponseObject, error) {
	v, err := s.Relays.Look(ctx, r.Load, relaying.Ask{A: r.Params.A, B: r.Params.B, Way: r.Params.Way})
	if err != nil {
		return nil, err
	}
	return GetRelay200JSONResponse(wireRelay(v)), nil
}

func (s *server) SetRelay(ctx context.Context, r SetRelayRequestObject) (SetRelayResponseObject, error) {
	b := r.Body
	form := relaying.Form{
		Hand: b.Hand, A: b.A, B: b.B, Way: b.Way, Consent: b.Consent, IdentifyA: b.IdentifyA, IdentifyB: b.IdentifyB, Control: b.Control, Microphone: b.Microphone,
		Timeout: b.Timeout, Mine: b.Mine, Theirs: b.Theirs, Over: b.Over, AmpHours: b.AmpHours, Usable: b.Usable, Hours: b.Hours, Standby: b.Standby, AmpsA: b.AmpsA, AmpsB: b.AmpsB,
		Gain: b.Gain, Starting: b.Starting, Rehearsed: b.Rehearsed, Revision: b.Revision,
	}
	if b.Tick != nil {
		form.Tick = &relaying.Tick{Step: b.Tick.Step, Done: b.Tick.Done}
	}
	v, err := s.Relays.Set(ctx, r.Load, form)
	if err != nil {
		return nil, err
	}
	return SetRelay200JSONResponse(wireRelay(v)), nil
}

func (s *server) TakeRelay(ctx context.Context, r TakeRelayRequestObject) (TakeRelayResponseObject, error) {
	l, err := s.Relays.Take(ctx, r.Load, r.Body.Revision)
	return ledger(ctx, s, l, err, func(l LedgerJSONResponse) TakeRelayResponseObject { return TakeRelay200JSONResponse{l} })
}

func wireRelay(v *relaying.View) RelayView {
	r := v.Row
	out := RelayView{
		Vehicle: v.Vehicle.Title(), Can: relaying.Vehicles(v.Vehicle.Radio), A: wireRelaySide(v, v.A), B: wireRelaySide(v, v.B), Way: r.Way, Kept: v.Kept, Taken: v.Taken,
		Ticks: v.Ticks, Rehearsed: v.Rehearse, By: v.By, Revision: v.Revision,
		Units: each(v.Loads, func(l plan.LoadInfo) RelayUnit {
			return RelayUnit{Load: l.ID, Name: l.Unit.Title(), Can: relaying.Vehicles(l.Unit.Radio)}
		}),
		Settings: RelaySettings{
			Hand: r.HandID, Consent: r.Consent, IdentifyA: r.IdentifyA, IdentifyB: r.IdentifyB, Control: r.Control, Microphone: r.Microphone, Timeout: v.Timeout, Mine: r.Mine, Theirs: r.Theirs,
			Over: r.Over, AmpHours: r.AmpHours, Usable: r.Usable, Hours: r.Hours, Standby: r.Standby, AmpsA: r.AmpsA, AmpsB: r.AmpsB, Gain: r.Gain, Starting: r.Starting,
		},
	}
	if v.Report != nil {
		x := wireReport(v.Report)
		out.Report = &x
	}
	return out
}

func wireRelaySide(v *relaying.View, s relaying.Side) RelaySide {
	out := RelaySide{Line: s.Line, From: s.From, Trouble: s.Trouble, VehicleSlot: s.Vehicle, HandSlot: s.Hand, Standing: wireStanding(s.Standing)}
	if out.Standing.Now == "" {
		out.Standing.Now = "planned"
	}
	if s.Reading == nil || s.Trouble != "" {
		return out
	}
	c := wireChannel(s.Reading.Channel)
	out.Channel = &c
	tx, ok := s.Reading.Channel.Transmit()
	if ok {
		out.Sends = tx.MHz()
	}
	out.Hears, out.Watts = s.Reading.Channel.Receive.MHz(), v.Vehicle.Radio.Watts.Of(s.Reading.Channel.Power)
	return out
}

func wireReport(r *relay.Report) RelayReport {
	out := RelayReport{
		Title: r.Title, Verdict: Verdict(r.Verdict), LinkSide: r.LinkSide, Basis: relay.Basis(), Bands: []string{r.Setup.Band(r.Setup.A), r.Setup.Band(r.Setup.B)},
		Ends: each(r.Ends, func(e relay.End) RelayEnd {
			return RelayEnd{Name: e.Name, Callsign: e.Callsign, Repeater: e.Repeater, Outcome: e.Outcome, Passes: string(e.Passes), Says: e.Says}
		}),
		Legs: each(r.Legs, func(l relay.Leg) RelayLeg {
			return RelayLeg{Leg: wireLeg(l.Leg), From: l.From, To: l.To, Gloss: l.Gloss, Locks: l.Locks, Dead: l.Dead, Loop: l.Loop}
		}),
		Findings: each(r.Findings, wireRelayFinding),
		Links: each(r.Links, func(l relay.Link) RelayLink {
			c := r.Setup.A.Channel
			if r.LinkSide == "B" {
				c = r.Setup.B.Channel
			}
			return RelayLink{
				Hz: hertz(l.Freq), Label: l.Label, Ask: l.Ask, CallingHz: hertz(l.Calling), CallingAtHz: hertz(l.CallingAt), ProductHz: hertz(l.Product), Product: l.Of,
				ListedHz: hertz(l.Listed), ListedAtHz: hertz(l.ListedAt), ClearHz: hertz(l.Clear), Now: l.Now, Line: relaying.Line(relay.Linked(c, l.Freq)),
			}
		}),
		Load: wireRelayLoad(r.Load),
		People: each(r.People, func(x relay.Exposure) RelayExposure {
			return RelayExposure{
				Side: x.Side, Hz: hertz(x.Hz), Mean: x.Mean, Nearest: x.Nearest, Public: x.Public, Own: x.Own, By: x.By, Exempt: x.Exempt, ExemptBy: x.ExemptBy, Minutes: x.Minutes,
			}
		}),
		Identify: each(r.Identify, func(i relay.Identification) RelayIdentify {
			return RelayIdentify{Side: i.Side, Who: i.Who, Minutes: i.Minutes, Source: i.Source, Why: i.Why}
		}),
		Card:  each(r.Card, func(s relay.Step) RelayStep { return RelayStep{Id: s.ID, Part: s.Part, Says: s.Says, Why: s.Why} }),
		Parts: []TestChoice{},
	}
	for _, p := range relay.Parts {
		out.Parts = append(out.Parts, TestChoice{Id: p.ID, Says: p.Says})
	}
	if o := r.Over; o != nil {
		x := wireOver(o)
		out.Over = &x
	}
	if l := r.Loop; l != nil {
		x := wireLoop(l)
		out.Loop = &x
	}
	return out
}

func wireRelayFinding(f relay.Finding) RelayFinding {
	line := func(c *channel.Channel) *string {
		if c == nil {
			return nil
		}
		s := relaying.Line(*c)
		return &s
	}
	return RelayFinding{
		Rule: f.Rule, Severity: RelayFindingSeverity(f.Severity), Side: f.Side, Title: f.Title, Message: f.Message, Source: f.Source, About: f.About(),
		Why: each(f.Why, func(r check.Reason) Reason { return Reason{Witness: r.Witness, Text: r.Text} }),
		Fixes: each(f.Fixes, func(x relay.Fix) RelayFix {
			set := x.Set
			if set == nil {
				set = map[string]string{}
			}
			return RelayFix{Id: x.ID, Label: x.Label, A: line(x.A), B: line(x.B), Way: string(x.Way), Set: set}
		}),
	}
}

func wireBand(b relay.Band) RelayBand {
	return RelayBand{Of: b.Of, From: b.From, To: b.To, Tail: b.Tail}
}

func wireOver(o *relay.Over) RelayOver {
	out := RelayOver{
		Speaks: o.Speaks, Release: o.Release, Until: o.Until, Wait: o.Wait, Breaks: o.Breaks, Again: o.Again, Gap: o.Gap, Lost: o.Lost, Sent: each(o.Sent, wireBand),
	}
	for _, p := range o.Parts {
		out.Parts = append(out.Parts, struct {
			Name    string  `json:"name"`
			Seconds float64 `json:"seconds"`
		}{p.Name, p.Seconds})
	}
	for _, m := range o.Met {
		out.Met = append(out.Met, struct {
			Carrier float64 `json:"carrier"`
			End     float64 `json:"end"`
			Of      string  `json:"of"`
			Open    float64 `json:"open"`
			Squelch float64 `json:"squelch"`
		}{m.Carrier, m.End, m.Of, m.Open, m.Squelch})
	}
	out.Parts, out.Met = orNone(out.Parts), orNone(out.Met)
	return out
}

func wireLoop(l *relay.Loop) RelayLoop {
	out := RelayLoop{
		May: l.May, Does: l.Does, Quiet: l.Quiet, Period: l.Period, Hourly: l.Hourly, Long: l.Long, Shares: l.Shares[:], Sent: each(l.Sent, wireBand), Call: l.Call,
	}
	for _, e := range l.Ends {
		out.Ends = append(out.Ends, struct {
			Quiet float64 `json:"quiet"`
			Says  string  `json:"says"`
			Way   string  `json:"way"`
		}{e.Quiet, e.Says, string(e.Way)})
	}
	out.Ends = orNone(out.Ends)
	return out
}

func wireRelayLoad(l relay.Load) RelayLoad {
	return RelayLoad{
		A: l.A, B: l.B, WattsA: l.WattsA, WattsB: l.WattsB, Mean: l.Mean, Rated: l.Rated, Fits: l.Fits, Level: l.Level, Amps: l.Amps, Guessed: l.Guessed, Hours: l.Hours, Overtime: l.Overtime,
	}
}
