package plan

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"mnemos/core/band"
	"mnemos/core/check"
	"mnemos/core/find"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/service"
	"mnemos/internal/fault"
	"mnemos/internal/fleet"
	"mnemos/internal/store"
)

// Settings are the operator's circumstances with what can be chosen.
type Settings struct {
	Region       string
	Person       string
	Place        string // "LAT, LON", or "" if unknown
	Locator      string
	Height       float64
	Radius       float64
	TonePolicy   string
	Marks        string // places that somebody named
	Licence      string
	Services     []string
	Bands        []string // permitted; empty for all
	Unlicensed   bool     // no licence yet: the person listens
	TonePolicies []string
	Revision     int64 // to be sent back with a change
	Regions      []Region
}

// Region is a region that can be chosen, and what its plan says.
type Region struct {
	ID         string
	Title      string
	Authority  string
	Source     string
	Basis      string
	AsOf       string
	Firm       bool // its tables can be cited
	Monitoring band.Monitoring
	Identify   band.Identify
	APRS       []string // MHz
	Bands      []BandInfo
	Services   []ServiceInfo
}

// BandInfo is a band in which the region's amateurs may transmit.
type BandInfo struct {
	Name    string
	Limits  string   // MHz
	Calling []string // MHz
	Shifts  []ShiftInfo
}

// ShiftInfo is what the plan says of the repeaters of a range.
type ShiftInfo struct {
	Outputs      string // MHz
	Shift        string
	Certainty    string
	Alternatives []string
}

// ServiceInfo names a service of a region.
type ServiceInfo struct {
	ID      string
	Name    string
	Licence string
	Source  string
}

// Settings returns the circumstances of a plan, with 0 of the first one, and
// what the person who looks may do.
func (p *Plans) Settings(ctx context.Context, planID int64) (*Settings, error) {
	plan, err := p.Plan(ctx, planID)
	if err != nil {
		return nil, err
	}
	me, err := p.fleet.Me(ctx)
	if err != nil {
		return nil, err
	}
	s := &Settings{
		Region: plan.Region, Person: me.Name, Height: plan.Height, Radius: plan.Radius, TonePolicy: plan.TonePolicy, Marks: plan.Marks, Licence: me.Licence,
		Services: append([]string{}, me.Services...), Bands: append([]string{}, me.Bands...), Unlicensed: me.Unlicensed, Revision: max(plan.Rev, me.Rev),
		TonePolicies: []string{string(check.EncodeFirst), string(check.SquelchFirst)},
	}
	if plan.Lat != nil && plan.Lon != nil {
		at := geo.Point{Lat: *plan.Lat, Lon: *plan.Lon}
		s.Place, s.Locator = fmt.Sprintf("%.4f, %.4f", at.Lat, at.Lon), at.Locator()
	}
	s.Regions = Regions()
	return s, nil
}

// Regions returns those that can be chosen.
func Regions() (out []Region) {
	for _, id := range band.Regions() {
		out = append(out, region(band.MustLoad(id)))
	}
	return out
}

func region(p *band.Plan) Region {
	r := Region{
		ID: p.Region, Title: p.Title, Authority: p.Authority, Source: p.Source, Basis: p.Basis, AsOf: p.AsOf, Firm: p.Firm(),
		Monitoring: p.Monitoring, Identify: p.Identify, APRS: []string{}, Bands: []BandInfo{}, Services: []ServiceInfo{},
	}
	for _, f := range p.APRS {
		r.APRS = append(r.APRS, f.MHz())
	}
	for _, b := range p.Bands {
		if b.Transmit {
			r.Bands = append(r.Bands, bandInfo(b))
		}
	}
	for _, s := range service.Of(p.Region) {
		if s.Transmit {
			r.Services = append(r.Services, ServiceInfo{ID: s.ID, Name: s.Name, Licence: s.Licence, Source: s.Source})
		}
	}
	return r
}

func bandInfo(b band.Band) BandInfo {
	info := BandInfo{Name: b.Name, Limits: short(b.Lower) + "–" + short(b.Upper), Calling: []string{}, Shifts: []ShiftInfo{}}
	for _, f := range b.Calling {
		info.Calling = append(info.Calling, f.MHz())
	}
	for _, r := range b.Shifts {
		s := ShiftInfo{Outputs: limits(r.Span), Shift: listing.ShiftWords(r.Offset), Certainty: string(r.Certainty), Alternatives: []string{}}
		for _, o := range r.Alternatives {
			s.Alternatives = append(s.Alternatives, listing.ShiftWords(o))
		}
		info.Shifts = append(info.Shifts, s)
	}
	return info
}

// short writes a frequency in MHz without the zeros at its end.
func short(f freq.Hz) string { return strings.TrimRight(strings.TrimRight(f.MHz(), "0"), ".") }

// limits writes a range in MHz, one frequency as one.
func limits(s band.Span) string {
	if s.Lower == s.Upper {
		return s.Lower.MHz()
	}
	return s.Lower.MHz() + "–" + s.Upper.MHz()
}

// SettingsForm is what a person typed into the settings.
type SettingsForm struct {
	Region, Person, Place, Height, Radius, TonePolicy, Licence string
	Services, Bands                                            []string
	Unlicensed                                                 *bool   // nil for what it was
	Marks                                                      *string // nil for what they were
	Revision                                                   int64   // of the settings that were seen
}

// SetSettings replaces the circumstances of a plan and of the person who asks.
// Every field that cannot be read is named.
func (p *Plans) SetSettings(ctx context.Context, planID int64, form SettingsForm) (*Settings, error) {
	plan, err := p.Plan(ctx, planID)
	if err != nil {
		return nil, err
	}
	me, err := p.fleet.Me(ctx)
	if err != nil {
		return nil, err
	}
	if err := form.read(&plan, &me); err != nil {
		return nil, err
	}
	stamp, err := p.fleet.Stamp(ctx, "change the settings")
	if err != nil {
		return nil, err
	}
	err = p.store.Edit(ctx, plan.ID, form.Revision, stamp, func(x *store.Edit) error {
		return errors.Join(x.Put(plan), x.Put(me))
	})
	var stale *fault.Stale
	if err != nil && !errors.As(err, &stale) {
		return nil, err
	}
	now, serr := p.Settings(ctx, planID)
	if serr != nil {
		return nil, serr
	}
	if stale != nil {
		stale.Now = now
		return nil, stale
	}
	return now, nil
}

// read turns what was typed into a plan and a person.
func (form SettingsForm) read(plan *store.Plan, me *store.Person) error {
	f := &fault.Invalid{}
	Form{Region: &form.Region, Place: &form.Place}.read(plan, f)
	fleet.PersonForm{Name: &form.Person, Licence: &form.Licence, Unlicensed: form.Unlicensed}.Read(me, f)
	plan.TonePolicy = form.TonePolicy
	if form.Marks != nil {
		marks, err := find.ReadMarks(*form.Marks)
		if err != nil {
			f.Add("marks", "%v", err)
		}
		plan.Marks = find.WriteMarks(marks)
	}
	rules := &band.Plan{}
	if !f.Has("region") {
		rules = band.MustLoad(form.Region)
	}
	plan.Height = measure(f, "height_m", form.Height, "metres above the surroundings, such as 1.5", 0, 5000)
	plan.Radius = measure(f, "radius_km", form.Radius, "kilometres, such as 150", 1, 1000)
	if plan.TonePolicy != string(check.EncodeFirst) && plan.TonePolicy != string(check.SquelchFirst) {
		f.Add("tone_policy", "use %s or %s", check.EncodeFirst, check.SquelchFirst)
	}
	info := region(rules)
	me.Bands, me.Services = nil, nil
	for _, b := range form.Bands {
		if slices.ContainsFunc(info.Bands, func(have BandInfo) bool { return have.Name == b }) {
			me.Bands = append(me.Bands, b) // a band of another region is dropped with the region
		}
	}
	for _, id := range form.Services {
		if slices.ContainsFunc(info.Services, func(s ServiceInfo) bool { return s.ID == id }) {
			me.Services = append(me.Services, id)
		}
	}
	return f.Or()
}

func measure(f *fault.Invalid, field, text, hint string, least, most float64) float64 {
	v, err := strconv.ParseFloat(strings.Replace(strings.TrimSpace(text), ",", ".", 1), 64)
	if err != nil || !(v >= least && v <= most) { // NaN is neither
		f.Add(field, "%q: write %s", text, hint)
	}
	return v
}
