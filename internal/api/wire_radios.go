package api

import (
	"mnemos/core/band"
	"mnemos/core/radio"
	"mnemos/internal/fault"
	"mnemos/internal/fleet"
	"mnemos/internal/plan"
)

func wireFault(f fault.Field) FieldFault { return FieldFault{Field: f.Field, Message: f.Message} }

func wireProfile(p fleet.ProfileInfo, loads map[string]int64, fits map[string]plan.Fits) RadioInfo {
	f := fits[p.ID]
	out := RadioInfo{Id: p.ID, Name: p.Name, Form: p.Form, Entry: p.Entry, Own: p.Own, First: p.Slots.First, Last: p.Slots.Last, Whole: f.Whole, Part: f.Part, Of: f.Of}
	if id, used := loads[p.ID]; used {
		out.Load = &id
	}
	return out
}

func wireForm(p *fleet.ProfileForm, loads map[string]int64, fits map[string]plan.Fits) RadioForm {
	i := wireProfile(p.ProfileInfo, loads, fits)
	return RadioForm{
		Id: i.Id, Name: i.Name, Form: i.Form, Entry: i.Entry, Own: i.Own, Load: i.Load, First: i.First, Last: i.Last, Whole: i.Whole, Part: i.Part, Of: i.Of, Texts: p.Texts, Yaml: p.YAML, Revision: p.Revision,
		Fields: each(p.Fields, func(f radio.Field) RadioField {
			out := RadioField{Key: f.Key, Group: f.Group, Label: f.Label, Hint: f.Hint}
			if f.Options != nil {
				out.Options = &f.Options
			}
			if f.Says != nil {
				out.Says = &f.Says
			}
			return out
		}),
	}
}

func wirePreview(v *plan.Preview) Preview {
	return Preview{
		Faults: each(v.Faults, wireFault), Fit: v.Fit, Lose: v.Lose, Cannot: v.Cannot, Yaml: v.YAML, Drawing: wireDrawing(v.Drawing),
		Rows: each(v.Rows, func(r plan.PreviewRow) RadioPreviewRow {
			return RadioPreviewRow{Slot: r.Slot, Channel: wireChannel(r.Entry.Channel), ShortName: r.Short, Held: r.Held, Losses: each(r.Losses, wireLoss), Lost: string(r.Lost), Half: string(r.Half)}
		}),
	}
}

func wireSpan(s band.Span) Span { return Span{LowerHz: hertz(s.Lower), UpperHz: hertz(s.Upper)} }

func wireDrawing(d plan.Drawing) RadioDrawing {
	out := RadioDrawing{
		Receive: each(d.Receive, wireSpan), Transmit: each(d.Transmit, wireSpan), Codes: d.Codes, UsedCodes: orNone(d.UsedCodes), Checked: orNone(d.Checked), Total: d.Total,
		Bands: each(d.Bands, func(b plan.BandDrawn) DrawnBand {
			return DrawnBand{Name: b.Name, LowerHz: hertz(b.Lower), UpperHz: hertz(b.Upper), Channels: b.Channels}
		}),
		Tones: each(d.Tones, func(t plan.ToneDrawn) DrawnTone {
			return DrawnTone{Text: t.Tone.String(), Known: t.Known, Used: t.Used}
		}),
		Moves: each(d.Moves, func(m plan.Moved) SlotMove { return SlotMove{From: m.From, To: m.To} }),
		Trials: each(d.Trials, func(t radio.Trial) RadioTrial {
			return RadioTrial{Part: RadioTrialPart(t.Part), Says: t.Says, Gain: t.Gain}
		}),
	}
	if e := d.Example; e != nil {
		out.Example = &KeyedExample{Slot: e.Slot, Name: e.Name, Sheet: wireSheet(e.Sheet)}
	}
	return out
}

func wireSettings(s *plan.Settings) Settings {
	return Settings{
		Region: s.Region, Person: s.Person, Place: s.Place, Locator: s.Locator, HeightM: s.Height, RadiusKm: s.Radius, TonePolicy: s.TonePolicy, Licence: s.Licence,
		Services: s.Services, Bands: s.Bands, Unlicensed: s.Unlicensed, Marks: s.Marks, TonePolicies: s.TonePolicies, Revision: s.Revision, Regions: each(s.Regions, wireRegion),
	}
}

func wireRegion(r plan.Region) Region {
	return Region{
		Id: r.ID, Title: r.Title, Authority: r.Authority, Source: r.Source, Basis: r.Basis, AsOf: r.AsOf, Firm: r.Firm, Monitoring: string(r.Monitoring),
		Identify: Identify{Minutes: r.Identify.Minutes, Source: r.Identify.Source}, Aprs: r.APRS,
		Bands: each(r.Bands, func(b plan.BandInfo) RegionBand {
			return RegionBand{Name: b.Name, Limits: b.Limits, Calling: b.Calling, Shifts: each(b.Shifts, func(s plan.ShiftInfo) RegionShift {
				return RegionShift{Outputs: s.Outputs, Shift: s.Shift, Certainty: RegionShiftCertainty(s.Certainty), Alternatives: s.Alternatives}
			})}
		}),
		Services: each(r.Services, func(s plan.ServiceInfo) RegionService {
			return RegionService{Id: s.ID, Name: s.Name, Licence: s.Licence, Source: s.Source}
		}),
	}
}
