package api

import (
	"time"

	"mnemos/core/band"
	"mnemos/core/check"
	"mnemos/core/entry"
	"mnemos/core/evidence"
	"mnemos/core/listing"
	"mnemos/internal/assess"
	"mnemos/internal/fleet"
	"mnemos/internal/plan"
)

func wireWorkspace(w *plan.Workspace) Workspace {
	return Workspace{
		Me: wirePerson(w.Me), People: each(w.People, wirePerson), Plan: wirePlan(w.Plan), Plans: each(w.Plans, wirePlan), Loads: each(w.Loads, wireLoad),
		Operator: OperatorInfo{Region: w.Plan.Region, Authority: w.Authority, Locator: w.Locator, HeightM: w.Plan.Height, RadiusKm: w.Plan.Radius},
		Loading:  w.Loading,
	}
}

func wirePerson(p fleet.Person) Person {
	return Person{
		Id: p.ID, Name: p.Name, Colour: p.Colour, Callsign: p.Callsign, Licence: p.Licence, Bands: texts(p.Bands), Services: texts(p.Services), Unlicensed: p.Unlicensed, Revision: p.Rev,
	}
}

func wirePlan(p plan.Plan) PlanInfo {
	return PlanInfo{Id: p.ID, Name: p.Name, Season: p.Season, Archived: p.Archived, Demo: p.Demo, Region: p.Region, Revision: p.Rev}
}

func wireLoad(l plan.LoadInfo) LoadInfo {
	return LoadInfo{Id: l.ID, Unit: Unit{Id: l.Unit.ID, Name: l.Unit.Title(), Holder: l.Unit.Holder, Profile: l.Unit.Profile, Revision: l.Unit.Rev}, Radio: wireRadio(l.Unit.Radio)}
}

func wireLedger(l *plan.Ledger) Ledger {
	out := Ledger{
		Load: l.Load, Plan: l.PlanID, Revision: l.Revision, Rows: each(l.Rows, wireRow), NextSlot: l.NextSlot, Undo: l.Undo, Redo: l.Redo, Checking: l.Checking, Gone: []int{}, Puts: each(l.Puts, wirePut),
		Kinds: each(l.Kinds, func(k plan.Kind) Kind {
			return Kind{Rule: k.Rule, Title: k.Title, Severity: string(k.Severity), Channels: k.Channels, Fixable: k.Fixable}
		}),
		Tally: Tally{Agrees: l.Tally[evidence.Agrees], Unverified: l.Tally[evidence.Unverified], Conflict: l.Tally[evidence.Conflict], Stop: l.Tally[evidence.Stop]},
	}
	if at, err := time.Parse(time.RFC3339, l.SavedAt); err == nil { // written so by the store
		out.SavedAt = at
	}
	return out
}

func wirePut(p plan.Put) Put { return Put{Load: p.Load, Slot: p.Slot, Why: p.Why} }

func wireRow(r plan.Row) Row {
	out := Row{
		Id: r.ID, Slot: r.Slot, Channel: wireChannel(r.Channel), ShortName: r.ShortName, Pinned: r.Pinned, Standing: wireStanding(r.Standing), Watts: r.Watts, Scan: string(r.Scan), Verdict: Verdict(r.Verdict),
		Flags: map[string]string{}, Rules: orNone(r.Rules), Line: r.Line,
	}
	for field, severity := range r.Flags {
		out.Flags[string(field)] = severity
	}
	if r.Top != nil {
		top := wireFinding(*r.Top)
		out.Top = &top
	}
	if r.Repeater != (listing.ID{}) {
		id := wireID(r.Repeater)
		out.Repeater = &id
	}
	return out
}

func wireReading(r *plan.Reading) Reading {
	return Reading{
		Channel: wireChannel(r.Channel), Slot: r.Slot, Words: each(r.Words, wireWord), Matches: each(r.Matches, wireMatch), Verdict: Verdict(r.Verdict),
		Findings: each(r.Findings, wireFinding), Complete: r.Complete, ShortName: r.ShortName, Watts: r.Watts, Scan: string(r.Scan), Occupied: r.Occupied,
		Offers: each(r.Offers, func(o assess.Offer) Offer {
			return Offer{Line: o.Line, Channel: wireChannel(o.Channel), Complete: o.Complete}
		}),
		Sentence: each(r.Sentence, func(p entry.Phrase) Phrase {
			return Phrase{Kind: p.Kind, Text: p.Text, Origin: some(string(p.Origin))}
		}),
		Lines: r.Lines, Losses: each(r.Losses, wireLoss), Evidence: someEvidence(r.Evidence), Puts: each(r.Puts, wirePut),
	}
}

// someEvidence leaves out what the reading says already.
func someEvidence(v *plan.Evidence) *Evidence {
	if v == nil {
		return nil
	}
	out := wireEvidence(v)
	out.Findings, out.Matches = []Finding{}, []Match{}
	return &out
}

func wireWord(w entry.Word) Word {
	return Word{Text: w.Text, Start: w.Start, End: w.End, As: string(w.As), Guess: some(w.Guess), Problem: some(w.Problem)}
}

func wireMatch(m assess.Match) Match {
	return Match{
		Key: m.Key, Callsign: m.Callsign, Locality: m.Locality, OutputHz: hertz(m.Output), InputHz: someHertz(m.Input), UplinkTone: wireStated(m.UplinkTone),
		DownlinkTone: wireStated(m.DownlinkTone), DistanceKm: m.Distance, BearingDeg: m.Bearing, Updated: m.Updated, Source: m.Source, Meant: m.Meant,
		Repeater: m.Repeater, Age: m.Age,
		Differences: each(m.Differences, func(d listing.Difference) Difference {
			return Difference{Field: string(d.Field), Entered: d.Entered, Published: d.Published}
		}),
	}
}

func wireEvidence(v *plan.Evidence) Evidence {
	out := Evidence{
		Slot: v.Slot, Name: v.Name, ShortName: v.ShortName, Channel: wireChannel(v.Channel), Verdict: Verdict(v.Verdict), Findings: each(v.Findings, wireFinding),
		Path:    EvidencePath{Through: v.Path.Through, Up: someLeg(v.Path.Up), Down: wireLeg(v.Path.Down)},
		Matches: each(v.Matches, wireMatch), Losses: each(v.Losses, wireLoss), Band: v.BandName, Statements: v.Statements,
		Rows: each(v.Rows, func(r evidence.Row) EvidenceRow {
			return EvidenceRow{Field: string(r.Field), Entered: wireCell(r.Entered), Published: wireCell(r.Published), Plan: wireCell(r.Plan), Heard: wireCell(r.Heard), Mark: EvidenceRowMark(r.Mark)}
		}),
	}
	if p := v.Published; p != nil {
		m := wireMatch(p.Match)
		out.Published = &Published{
			Key: m.Key, Callsign: m.Callsign, Locality: m.Locality, OutputHz: m.OutputHz, InputHz: m.InputHz, UplinkTone: m.UplinkTone, DownlinkTone: m.DownlinkTone,
			DistanceKm: m.DistanceKm, BearingDeg: m.BearingDeg, Updated: m.Updated, Source: m.Source, Meant: m.Meant, Repeater: m.Repeater, Age: m.Age,
			Differences: m.Differences, HorizonKm: p.Horizon, Within: p.Within,
		}
	}
	return out
}

func wireCell(c evidence.Cell) Cell { return Cell{Kind: CellKind(c.Kind), Text: c.Text} }

func wireLeg(l evidence.Leg) Leg {
	return Leg{
		Hz: hertz(l.Hz), Key: wireKey(l.Key), Lock: LegLock(l.Lock), Wants: wireKey(l.Wants), Passes: LegPasses(l.Passes), Elsewhere: l.Elsewhere, Either: orNone(l.Either), Says: l.Says,
	}
}

func someLeg(l *evidence.Leg) *Leg {
	if l == nil {
		return nil
	}
	out := wireLeg(*l)
	return &out
}

func wireKey(k *evidence.Key) *Key {
	if k == nil {
		return nil
	}
	return &Key{Text: k.Text, Index: k.Index}
}

func wireRibbon(r *plan.Ribbon) Ribbon {
	return Ribbon{
		Bands: r.Bands, Source: r.Source, NearbyHz: each(r.Nearby, hertz),
		Thirds: each(r.Thirds, func(t plan.Third) Third { return Third{Slot: t.Slot, AtHz: hertz(t.At), Says: t.Says} }),
		Band: RibbonBand{
			Name: r.Band.Name, LowerHz: hertz(r.Band.Lower), UpperHz: hertz(r.Band.Upper), Transmit: r.Band.Transmit, CallingHz: each(r.Band.Calling, hertz),
			Segments: each(r.Band.Segments, func(s band.Segment) BandSegment {
				return BandSegment{LowerHz: hertz(s.Lower), UpperHz: hertz(s.Upper), Use: string(s.Use), Label: s.Label}
			}),
		},
		Channels: each(r.Channels, func(c plan.RibbonChannel) RibbonChannel {
			return RibbonChannel{Meets: each(c.Meets, wireMeeting), Slot: c.Slot, ReceiveHz: hertz(c.Receive), TransmitHz: someHertz(c.Transmit), Verdict: Verdict(c.Verdict), Inside: c.Inside, Says: c.Says}
		}),
	}
}

func wireMeeting(m check.Meeting) Meeting {
	return Meeting{Kind: MeetingKind(m.Kind), Slot: m.Other, AtHz: hertz(m.At), Says: m.Says}
}

func wireStanding(s plan.Standing) RowStanding {
	out := RowStanding{Now: RowStandingNow(s.Now), Was: string(s.Was), Person: s.Person}
	if at := moment(s.At); !at.IsZero() {
		out.At = &at
	}
	if s.With != "" {
		out.With = &s.With
	}
	return out
}
