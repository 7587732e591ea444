package api

import (
	"math"
	"time"

	"mnemos/core/evidence"
	"mnemos/core/find"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/internal/catalog"
	"mnemos/internal/plan"
)

func wirePlace(p *geo.Point) *Place {
	if p == nil {
		return nil
	}
	return &Place{Lat: p.Lat, Lon: p.Lon}
}

func wireFound(s *plan.Scene, v find.Result, rows []FoundRepeater) Found {
	out := Found{
		Words: []FindWord{}, Place: wirePlace(s.Place), Middle: wirePlace(s.Book.Middle()), Named: v.Named, HeightM: s.Height, WithinKm: v.Within, Order: FoundOrder(v.Order),
		Repeaters: rows, Found: v.Found, Held: v.Held, Missing: v.Missing, Cannot: v.Cannot, Bands: []string{}, Records: s.Book.Records(), Nowhere: v.Nowhere,
		Sources: orNone(s.Book.Sources()), Radio: s.Radio, Load: s.Load, Today: s.Today.Format(time.DateOnly), Vacant: orNone(s.Vacant),
		Marks:  each(s.Marks, func(m find.Mark) NamedPlace { return NamedPlace{Name: m.Name, Lat: m.Lat, Lon: m.Lon} }),
		Trusts: Tally{Agrees: v.Trusts[evidence.Agrees], Unverified: v.Trusts[evidence.Unverified], Conflict: v.Trusts[evidence.Conflict], Stop: v.Trusts[evidence.Stop]},
	}
	if v.From != nil {
		out.Place = wirePlace(v.From)
	}
	if out.Place != nil {
		out.Locator = geo.Point{Lat: out.Place.Lat, Lon: out.Place.Lon}.Locator()
	}
	for _, b := range s.Band.Bands {
		out.Bands = append(out.Bands, b.Name)
	}
	left := map[int]int{}
	for _, l := range v.LeftOut {
		left[l.Word] = l.Number
	}
	for i, w := range v.Words {
		out.Words = append(out.Words, FindWord{From: w.From, To: w.To, Text: w.Text, As: w.As, State: FindWordState(w.State), Says: w.Says, LeftOut: left[i], Rest: w.Rest, Menu: w.Menu})
	}
	return out
}

func wireFoundRow(r *find.Row, known listing.Corrections) FoundRepeater {
	out := FoundRepeater{
		Id: wireID(r.ID), Title: r.Best.Title(), Best: wireRecord(r.Best), ReachKm: r.Reach, Horizon: r.Horizon, Slots: []int{}, Held: each(r.Slots, wireHeld),
		Cannot: r.Cannot, Trust: Trust{Verdict: Verdict(r.Trust.Verdict), Says: r.Trust.Says}, Fm: r.Best.Mode != listing.Digital, Remark: r.Remark(),
		Statements: each(r.Statements, wireRecord), Corrected: each(catalog.Known(known, r.Repeater), wireCorrectedField), Conflicts: each(r.Conflicts, wireConflict),
	}
	if o, ok := r.Best.Offset(); ok {
		hz := int(o)
		out.Shift = &hz
	}
	for _, s := range r.Slots {
		if s.Mine {
			out.Slots = append(out.Slots, s.Number)
		}
	}
	if r.Distance != nil {
		km, deg := math.Round(*r.Distance*10)/10, math.Mod(math.Round(r.Bearing), 360)
		out.DistanceKm, out.BearingDeg = &km, &deg
	}
	return out
}

func wireHeld(s find.Slot) HeldSlot {
	return HeldSlot{Load: s.Load, Slot: s.Number, Mine: s.Mine, Verdict: Verdict(s.Verdict), Differs: orNone(s.Differs), Why: s.Why}
}

func wireCorrectedField(c catalog.Corrected) CorrectedField {
	return CorrectedField{Field: c.Field, Value: c.Value, Note: c.Note, Person: c.Person, At: c.At, Open: c.Open}
}

func wireConflict(c listing.Conflict) FieldConflict {
	return FieldConflict{Field: c.Field, Values: each(c.Values, func(v listing.Value) ConflictValue {
		return ConflictValue{Source: v.Source, Key: v.Key, Text: v.Text, Updated: v.Updated}
	})}
}

func wireBandCount(b find.BandCount) BandCount {
	return BandCount{Name: b.Name, Held: b.Held, Missing: b.Missing, Cannot: b.Cannot}
}

func wireSpot(s find.Spot) ChartSpot {
	return ChartSpot{
		X: s.X, Y: s.Y, Held: orNone(s.Held), Missing: s.Missing, Cannot: s.Cannot, Number: s.Number, Verdict: Verdict(s.Verdict), Id: wireID(s.ID), Title: s.Title,
		Km: s.Distance, Audible: s.Audible,
	}
}
