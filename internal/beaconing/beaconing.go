// Package beaconing is the view of somebody who sets up an APRS station on a radio: the
// station is kept with it, and everything else is worked out from that.
package beaconing

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"math"
	"reflect"
	"slices"
	"strings"
	"time"
	"unicode"

	"mnemos/core/aprs"
	"mnemos/core/ax25"
	"mnemos/core/beacon"
	"mnemos/core/entry"
	"mnemos/core/geo"
	"mnemos/core/trial"
	"mnemos/internal/fault"
	"mnemos/internal/fleet"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

// Beaconing works for one data file.
type Beaconing struct {
	store *store.Store
	fleet *fleet.Fleet
	plans *plan.Plans
	now   func() time.Time
}

// New returns the stations over a data file; now is the clock.
func New(s *store.Store, f *fleet.Fleet, p *plan.Plans, now func() time.Time) *Beaconing {
	return &Beaconing{store: s, fleet: f, plans: p, now: now}
}

// View is a station with everything that follows from it.
type View struct {
	*beacon.Report

	Unit     string
	Modem    bool
	Slots    []beacon.Slot
	Demo     bool
	Revision int64
}

type desk struct {
	*plan.Loading
	row     store.Beacon
	station beacon.Station
}

func (b *Beaconing) desk(ctx context.Context, loadID int64) (*desk, error) {
	loading, err := b.plans.Loading(ctx, loadID)
	if err != nil {
		return nil, err
	}
	d := &desk{Loading: loading}
	if d.row, err = b.store.Beacon(ctx, loadID); err != nil {
		return nil, err
	}
	if d.row.Station == "" {
		d.station = beacon.Usual("foot", loading.Me.Callsign)
		return d, nil
	}
	if err := json.Unmarshal([]byte(d.row.Station), &d.station); err != nil {
		return nil, fmt.Errorf("read the beacon: %w", err)
	}
	return d, nil
}

// around is what is known of the circumstances.
func (d *desk) around(now time.Time) beacon.Around {
	a := beacon.Around{Plan: d.Band, Radio: d.Radio, Unit: d.Unit.Title(), Callsign: d.Me.Callsign, Demo: d.Plan.Demo, Now: now}
	if d.Plan.Lat != nil && d.Plan.Lon != nil {
		a.Place = &geo.Point{Lat: *d.Plan.Lat, Lon: *d.Plan.Lon}
	}
	for _, c := range d.Channels {
		a.Slots = append(a.Slots, beacon.Slot{Number: c.Entry.Slot, Channel: c.Entry.Channel, Scanned: c.Entry.Scan != entry.ScanSkip})
	}
	return a
}

// Look works the station of a radio out.
func (b *Beaconing) Look(ctx context.Context, loadID int64) (*View, error) {
	d, err := b.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	return b.view(d), nil
}

func (b *Beaconing) view(d *desk) *View {
	a := d.around(b.now())
	return &View{Report: beacon.Look(d.station, a), Unit: d.Unit.Title(), Modem: d.Radio.APRS.Modem, Slots: a.Slots, Demo: d.Plan.Demo, Revision: d.Revision}
}

// Form is what somebody says of a station: settings by their names, or an act.
type Form struct {
	Set      map[string]any
	Act      string // profile, space, ground, restored, tick, untick, circle, uncircle
	Value    string
	Revision int64
}

// again is how often what somebody says is set anew where somebody else was faster.
const again = 5

// Set keeps what somebody says. Settings are merged into those that are there: with
// store.Latest whatever somebody else set meanwhile stays, and this is set again.
func (b *Beaconing) Set(ctx context.Context, loadID int64, form Form) (*View, error) {
	for n := 0; ; n++ {
		v, err := b.set(ctx, loadID, form)
		if n < again && form.Revision == store.Latest && fault.IsStale(err) {
			continue
		}
		return v, err
	}
}

func (b *Beaconing) set(ctx context.Context, loadID int64, form Form) (*View, error) {
	d, err := b.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	says := "set up the beacon of " + d.Unit.Title()
	var next beacon.Station
	if form.Act == "" {
		next = merged(f, d.station, form.Set)
	} else {
		next, says = b.act(f, d, form, says)
	}
	valid(f, next)
	if err := f.Or(); err != nil {
		return nil, err
	}
	text, err := json.Marshal(next)
	if err != nil {
		return nil, fmt.Errorf("keep the beacon: %w", err)
	}
	stamp, err := b.fleet.Stamp(ctx, says)
	if err != nil {
		return nil, err
	}
	row := d.row
	row.Station = string(text)
	line := b.logged(d, loadID, next)
	err = b.store.Edit(ctx, d.Plan.ID, min(form.Revision, d.Revision), stamp, func(e *store.Edit) error {
		if err := e.Beacons(row); err != nil || line == nil {
			return err
		}
		var err error
		if line.ID, err = e.ID("attempt"); err != nil {
			return err
		}
		return e.Put(*line)
	})
	if err != nil {
		return nil, err
	}
	return b.Look(ctx, loadID)
}

// logged is the line of the log for a switch between ground and space, or for the last
// setting that was put back after it; nil for anything else.
func (b *Beaconing) logged(d *desk, loadID int64, next beacon.Station) *store.Attempt {
	now := b.now()
	was, is := aprs.ProfileOf(d.station.Profile).Space, aprs.ProfileOf(next.Profile).Space
	says, of := "", next
	switch {
	case !was && is:
		says = "to space"
	case was && !is:
		says = "back to the ground"
	case d.station.Before != nil && next.Before == nil && !is:
		says, of = "all put back after space", d.station
	default:
		return nil
	}
	around := d.around(now)
	from, to := beacon.Look(d.station, around).Channel, beacon.Look(next, around).Channel
	notes := []string{"frequency: " + to.MHz()}
	if is {
		notes[0] = fmt.Sprintf("frequency: %s → %s", from.MHz(), to.MHz())
	}
	for _, c := range beacon.Look(of, around).Switch {
		switch {
		case c.ID == "frequency":
		case is:
			notes = append(notes, fmt.Sprintf("%s: %s → %s", c.Says, c.Ground, c.Space))
		default:
			notes = append(notes, fmt.Sprintf("%s: %s", c.Says, c.Ground))
		}
	}
	return &store.Attempt{
		PlanID: d.Plan.ID, LoadID: loadID, PersonID: d.Me.ID, At: now.UTC().Format(time.RFC3339), Kind: string(trial.Switch), Answer: says, Name: "Beacon of " + d.Unit.Title(),
		Receive: int64(to), Callsign: d.Me.Callsign, Note: strings.Join(notes, "; "),
	}
}

// settings are those of a station that are set by their names, written exactly
// so: what is done as a whole is not among them.
var settings = func() (out []string) {
	t := reflect.TypeFor[beacon.Station]()
	for i := range t.NumField() {
		name, _, _ := strings.Cut(t.Field(i).Tag.Get("json"), ",")
		if !slices.Contains([]string{"before", "switched", "restored", "ticks", "circles", "profile"}, name) {
			out = append(out, name)
		}
	}
	return out
}()

// merged is a station with some settings set anew.
func merged(f *fault.Invalid, s beacon.Station, set map[string]any) beacon.Station {
	for name := range set {
		if !slices.Contains(settings, name) {
			f.Add(name, "it cannot be set like this")
			return s
		}
	}
	text, err := json.Marshal(set)
	if err != nil {
		f.Add("set", "%v", err)
		return s
	}
	next := s
	d := json.NewDecoder(bytes.NewReader(text))
	d.DisallowUnknownFields()
	if err := d.Decode(&next); err != nil {
		f.Add("set", "it cannot be set like this: %s", strings.TrimPrefix(err.Error(), "json: "))
		return s
	}
	next.From = strings.ToUpper(strings.TrimSpace(next.From))
	next.Path = strings.ToUpper(strings.TrimSpace(next.Path))
	return next
}

// act is something that is done with a station as a whole.
func (b *Beaconing) act(f *fault.Invalid, d *desk, form Form, says string) (beacon.Station, string) {
	s := d.station
	now := b.now().UTC().Format(time.RFC3339)
	switch form.Act {
	case "profile":
		if !slices.ContainsFunc(aprs.Profiles(), func(p aprs.Profile) bool { return p.ID == form.Value }) {
			f.Add("profile", "%q is none of: on foot, bicycle, vehicle, boat, fixed, event, air, space", form.Value)
			return s, says
		}
		call, _, _ := strings.Cut(s.From, "-")
		x := beacon.Usual(form.Value, call)
		x.Words, x.Back, x.KeyUp, x.Stations, x.Lat, x.Lon, x.Circles, x.Format, x.Object, x.Ticks = s.Words, s.Back, s.KeyUp, s.Stations, s.Lat, s.Lon, s.Circles, s.Format, s.Object, s.Ticks
		if x.Object == "" {
			x.Object = "EVENT"
		}
		return x, says + ": " + aprs.ProfileOf(form.Value).Says
	case "space":
		return beacon.ToSpace(s, now), "switch the beacon of " + d.Unit.Title() + " to space"
	case "ground":
		return beacon.ToGround(s), "switch the beacon of " + d.Unit.Title() + " back to the ground"
	case "restored":
		if !slices.Contains(s.Restored, form.Value) && len(form.Value) < 20 {
			s.Restored = append(slices.Clone(s.Restored), form.Value)
		}
		if left := slices.ContainsFunc(beacon.Look(s, d.around(b.now())).Switch, func(c beacon.Change) bool { return !c.Done }); !left && !aprs.ProfileOf(s.Profile).Space {
			s.Before, s.Restored, s.Switched = nil, []string{}, ""
		}
		return s, "put " + form.Value + " back after space"
	case "tick", "untick":
		s.Ticks = slices.DeleteFunc(slices.Clone(s.Ticks), func(t [2]string) bool { return t[0] == form.Value })
		if form.Act == "tick" && len(form.Value) < 20 && len(s.Ticks) < 40 {
			s.Ticks = append(s.Ticks, [2]string{form.Value, now})
		}
		return s, "tick the pre-flight of the beacon"
	case "circle":
		return circled(f, d, s, form.Value)
	case "uncircle":
		s.Circles = []beacon.Circle{}
		return s, "take the circles of the beacon out"
	}
	f.Add("act", "%q is nothing that is done here", form.Act)
	return s, says
}

// circled adds a circle around a place: that of the plan, or one that is written.
func circled(f *fault.Invalid, d *desk, s beacon.Station, where string) (beacon.Station, string) {
	says := "keep the beacon silent around a place"
	at := d.around(time.Time{}).Place
	if strings.TrimSpace(where) != "" {
		p, err := geo.Parse(where)
		if err != nil {
			f.Add("circle", "%v", err)
			return s, says
		}
		at = &p
	}
	if at == nil {
		f.Add("circle", "write a place, such as 41.02,-55.31 or a locator")
		return s, says
	}
	if len(s.Circles) >= 10 {
		f.Add("circle", "up to ten circles")
		return s, says
	}
	seed := math.Float64bits(at.Lat) ^ math.Float64bits(at.Lon)<<1 ^ uint64(d.Plan.ID)
	c := aprs.Around(*at, 1, seed)
	s.Circles = append(slices.Clone(s.Circles), beacon.Circle{Lat: c.Lat, Lon: c.Lon, Km: c.Km})
	return s, says
}

// valid says what is no setting at all; what is unwise the rules say.
func valid(f *fault.Invalid, s beacon.Station) {
	for field, x := range map[string]struct {
		text string
		most int
	}{
		"from": {s.From, 12}, "symbol": {s.Symbol, 2}, "words": {s.Words, 200}, "path": {s.Path, 100}, "status": {s.Status, 200}, "object": {s.Object, 40}, "to": {s.To, 40}, "text": {s.Text, 200}, "source": {s.Source, 10},
	} {
		if len([]rune(x.text)) > x.most || strings.ContainsFunc(x.text, unicode.IsControl) {
			f.Add(field, "up to %d characters, in one line", x.most)
		}
	}
	for field, x := range map[string]struct{ v, low, high float64 }{
		"key_up": {s.KeyUp, 0, 2000}, "every": {s.Every, 1, 86_400}, "stations": {float64(s.Stations), 1, 500}, "ambiguity": {float64(s.Ambiguity), 0, 4}, "says": {float64(s.Says), 0, 6}, "back": {float64(s.Back), -1, 100_000},
		"fast": {s.Steer.Fast, 0, 2000}, "fast_every": {s.Steer.FastEvery, 0, 86_400}, "slow": {s.Steer.Slow, 0, 2000}, "slow_every": {s.Steer.SlowEvery, 0, 86_400}, "turn": {s.Steer.Turn, 0, 180}, "slope": {s.Steer.Slope, 0, 5000}, "turn_after": {s.Steer.TurnAfter, 0, 3600},
	} {
		if math.IsNaN(x.v) || x.v < x.low || x.v > x.high {
			f.Add(field, "write a number from %g to %g", x.low, x.high)
		}
	}
	if !slices.Contains([]string{"plain", "compressed", "mic-e"}, s.Format) {
		f.Add("format", "choose plain, compressed or mic-e")
	}
	if s.Lat != nil && s.Lon != nil && !(geo.Point{Lat: *s.Lat, Lon: *s.Lon}).Valid() {
		f.Add("lat", "write degrees, such as 41.02, -55.31")
	}
}

// File is a frame of the station as others take it: TNC2 text, or KISS.
func (b *Beaconing) File(ctx context.Context, loadID int64, as string) (name string, data []byte, err error) {
	v, err := b.Look(ctx, loadID)
	if err != nil {
		return "", nil, err
	}
	f := &fault.Invalid{}
	if !v.Own {
		f.Add("from", "%s", v.WhyNot)
	}
	if s := v.Shown[0]; s.Error != "" {
		f.Add("frame", "%s", s.Error)
	}
	if err := f.Or(); err != nil {
		return "", nil, err
	}
	var raw [][]byte
	var text strings.Builder
	for _, s := range v.Shown {
		if s.Error == "" {
			raw = append(raw, s.Raw)
			text.WriteString(s.Frame.Text() + "\n")
		}
	}
	if as == "kiss" {
		return "beacon.kiss", ax25.KISS(raw...), nil
	}
	return "beacon.txt", []byte(text.String()), nil
}

// Trip is a track, driven in two ways.
type Trip struct {
	Km, Seconds float64
	Track       aprs.Track
	Fixed       aprs.Driven
	Steered     aprs.Driven
	Every       float64
	Airtime     float64 // s of one beacon
}

// Drive drives a track in GPX with the station as it is set, at a fixed interval and by
// speed and turn.
func (b *Beaconing) Drive(ctx context.Context, loadID int64, text string) (*Trip, error) {
	d, err := b.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	track, err := aprs.ReadGPX(strings.NewReader(text))
	if err != nil {
		f := &fault.Invalid{}
		f.Add("file", "%v", err)
		return nil, f.Or()
	}
	r := beacon.Look(d.station, d.around(b.now()))
	steer := d.station.Steer
	if steer.FastEvery <= 0 {
		steer = beacon.Usual("foot", "").Steer
	}
	return &Trip{
		Km: track.Kilometres(), Seconds: track[len(track)-1].At, Track: track, Fixed: track.Every(d.station.Every), Steered: track.Steered(steer.Of()), Every: d.station.Every, Airtime: r.Shown[0].Air.Total / 1000,
	}, nil
}
