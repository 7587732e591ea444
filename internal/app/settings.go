package app

import (
	"context"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"mnemos/core/band"
	"mnemos/core/check"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/service"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Settings are the operator's circumstances with what can be chosen.
type Settings struct {
	Region       string   `json:"region"`
	Person       string   `json:"person"`
	Place        string   `json:"place"` // "LAT, LON", or "" if unknown
	Locator      string   `json:"locator"`
	Height       float64  `json:"height_m"`
	Radius       float64  `json:"radius_km"`
	TonePolicy   string   `json:"tone_policy"`
	Licence      string   `json:"licence"`
	Services     []string `json:"services"`
	Bands        []string `json:"bands"` // permitted; empty for all
	TonePolicies []string `json:"tone_policies"`
	Regions      []Region `json:"regions"`
}

// Region is a region that can be chosen, and what its plan says.
type Region struct {
	ID         string          `json:"id"`
	Title      string          `json:"title"`
	Authority  string          `json:"authority"`
	Source     string          `json:"source"`
	Basis      string          `json:"basis"`
	AsOf       string          `json:"as_of"`
	Firm       bool            `json:"firm"` // its tables can be cited
	Monitoring band.Monitoring `json:"monitoring"`
	Identify   band.Identify   `json:"identify"`
	APRS       []string        `json:"aprs"` // MHz
	Bands      []BandInfo      `json:"bands"`
	Services   []ServiceInfo   `json:"services"`
}

// BandInfo is a band in which the region's amateurs may transmit.
type BandInfo struct {
	Name    string      `json:"name"`
	Limits  string      `json:"limits"`  // MHz
	Calling []string    `json:"calling"` // MHz
	Shifts  []ShiftInfo `json:"shifts"`
}

// ShiftInfo is what the plan says of the repeaters of a range.
type ShiftInfo struct {
	Outputs      string   `json:"outputs"` // MHz
	Shift        string   `json:"shift"`
	Certainty    string   `json:"certainty"`
	Alternatives []string `json:"alternatives"`
}

// ServiceInfo names a service of a region.
type ServiceInfo struct {
	ID      string `json:"id"`
	Name    string `json:"name"`
	Licence string `json:"licence"`
	Source  string `json:"source"`
}

// Settings returns the operator's circumstances.
func (a *App) Settings(ctx context.Context) (*Settings, error) {
	o, err := a.store.Operator(ctx)
	if err != nil {
		return nil, err
	}
	s := &Settings{
		Region: o.Region, Person: o.Person, Height: o.Height, Radius: o.Radius, TonePolicy: o.TonePolicy, Licence: o.Licence,
		Services: append([]string{}, o.Services...), Bands: append([]string{}, o.Bands...),
		TonePolicies: []string{string(check.EncodeFirst), string(check.SquelchFirst)},
	}
	if o.Lat != nil && o.Lon != nil {
		p := geo.Point{Lat: *o.Lat, Lon: *o.Lon}
		s.Place, s.Locator = fmt.Sprintf("%.4f, %.4f", p.Lat, p.Lon), p.Locator()
	}
	for _, id := range band.Regions() {
		s.Regions = append(s.Regions, region(band.MustLoad(id)))
	}
	return s, nil
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
}

// SetSettings replaces the operator's circumstances. Every field that cannot
// be read is named.
func (a *App) SetSettings(ctx context.Context, form SettingsForm) (*Settings, error) {
	f := &fault.Invalid{}
	o := store.Operator{Person: strings.TrimSpace(form.Person), Region: form.Region, TonePolicy: form.TonePolicy, Licence: strings.TrimSpace(form.Licence)}
	plan, err := band.Load(form.Region)
	if err != nil {
		f.Add("region", "%v", err)
		plan = &band.Plan{}
	}
	if o.Person == "" || len([]rune(o.Person)) > 40 {
		f.Add("person", "write your name or callsign, up to 40 characters: changes are noted under it")
	}
	if len([]rune(o.Licence)) > 400 {
		f.Add("licence", "up to 400 characters")
	}
	if strings.TrimSpace(form.Place) != "" {
		p, err := geo.Parse(form.Place)
		if err != nil {
			f.Add("place", "%v", err)
		}
		o.Lat, o.Lon = &p.Lat, &p.Lon
	}
	o.Height = measure(f, "height_m", form.Height, "metres above the surroundings, such as 1.5", 0, 5000)
	o.Radius = measure(f, "radius_km", form.Radius, "kilometres, such as 150", 1, 1000)
	if o.TonePolicy != string(check.EncodeFirst) && o.TonePolicy != string(check.SquelchFirst) {
		f.Add("tone_policy", "use %s or %s", check.EncodeFirst, check.SquelchFirst)
	}
	info := region(plan)
	for _, b := range form.Bands {
		if slices.ContainsFunc(info.Bands, func(have BandInfo) bool { return have.Name == b }) {
			o.Bands = append(o.Bands, b) // a band of another region is dropped with the region
		}
	}
	for _, id := range form.Services {
		if slices.ContainsFunc(info.Services, func(s ServiceInfo) bool { return s.ID == id }) {
			o.Services = append(o.Services, id)
		}
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	if err := a.store.SetOperator(ctx, o); err != nil {
		return nil, err
	}
	return a.Settings(ctx)
}

func measure(f *fault.Invalid, field, text, hint string, least, most float64) float64 {
	v, err := strconv.ParseFloat(strings.Replace(strings.TrimSpace(text), ",", ".", 1), 64)
	if err != nil || !(v >= least && v <= most) { // NaN is neither
		f.Add(field, "%q: write %s", text, hint)
	}
	return v
}
