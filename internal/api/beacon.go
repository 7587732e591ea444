package api

import (
	"bytes"
	"context"
	"encoding/json"
	"mime"
	"strconv"
	"strings"

	"mnemos/core/aprs"
	"mnemos/core/beacon"
	"mnemos/internal/beaconing"
)

func (s *server) GetBeacon(ctx context.Context, r GetBeaconRequestObject) (GetBeaconResponseObject, error) {
	v, err := s.Beacons.Look(ctx, r.Load)
	if err != nil {
		return nil, err
	}
	out, err := wireBeacon(v)
	return GetBeacon200JSONResponse(out), err
}

func (s *server) SetBeacon(ctx context.Context, r SetBeaconRequestObject) (SetBeaconResponseObject, error) {
	v, err := s.Beacons.Set(ctx, r.Load, beaconing.Form{Set: or(r.Body.Set), Act: or(r.Body.Act), Value: or(r.Body.Value), Revision: r.Body.Revision})
	if err != nil {
		return nil, err
	}
	out, err := wireBeacon(v)
	return SetBeacon200JSONResponse(out), err
}

func (s *server) GetBeaconFile(ctx context.Context, r GetBeaconFileRequestObject) (GetBeaconFileResponseObject, error) {
	name, b, err := s.Beacons.File(ctx, r.Load, string(r.Params.As))
	if err != nil {
		return nil, err
	}
	return GetBeaconFile200ApplicationoctetStreamResponse{
		Body: bytes.NewReader(b), ContentLength: int64(len(b)),
		Headers: GetBeaconFile200ResponseHeaders{ContentDisposition: mime.FormatMediaType("attachment", map[string]string{"filename": name})},
	}, nil
}

func (s *server) DriveTrack(ctx context.Context, r DriveTrackRequestObject) (DriveTrackResponseObject, error) {
	t, err := s.Beacons.Drive(ctx, r.Load, r.Body.Text)
	if err != nil {
		return nil, err
	}
	return DriveTrack200JSONResponse(wireTrip(t)), nil
}

func wireBeacon(v *beaconing.View) (BeaconView, error) {
	station := map[string]any{}
	text, err := json.Marshal(v.Station)
	if err == nil {
		err = json.Unmarshal(text, &station)
	}
	done := map[string]string{}
	for _, t := range v.Station.Ticks {
		done[t[0]] = t[1]
	}
	out := BeaconView{
		Unit: v.Unit, Modem: v.Modem, Demo: v.Demo, Station: station, Interval: v.Interval, Stations: v.Traffic.Stations, Repeats: v.Traffic.Repeats, Busy: v.Traffic.Busy(), Collides: v.Traffic.Collides(),
		Random: v.Random, Verdict: Verdict(v.Verdict), ChannelHz: hertz(v.Channel), Slot: v.Slot, Hidden: v.Hidden, Sees: v.Sees, Space: aprs.ProfileOf(v.Station.Profile).Space, Own: v.Own, WhyNot: v.WhyNot, Revision: v.Revision,
		Profiles: each(aprs.Profiles(), func(p aprs.Profile) BeaconProfile { return BeaconProfile{Id: p.ID, Says: p.Says} }),
		Symbols:  each(aprs.Symbols(), func(s aprs.Symbol) BeaconSymbol { return BeaconSymbol{Id: s.String(), Says: aprs.Words(s)} }),
		Shown:    each(v.Shown, wireFrame),
		Bill: each(v.Bill, func(l beacon.Line) BeaconLine {
			return BeaconLine{
				Id: l.ID, Name: l.Name, Value: l.Value, Note: l.Note, Cost: l.Cost, Mark: string(l.Mark), Why: l.Why,
				Options: each(l.Options, func(o beacon.Option) BeaconOption { return BeaconOption{Label: o.Label, Set: o.Set, Delta: o.Delta} }),
			}
		}),
		Cases: each(v.Cases, func(c beacon.Case) BeaconCase {
			return BeaconCase{Says: c.Says, Busy: c.Busy, Collides: c.Collides, Now: c.Now}
		}),
		Minute: each(v.Minute, func(b aprs.Burst) BeaconBurst {
			return BeaconBurst{Station: b.Station, From: b.From, To: b.To, Repeat: b.Repeat, Collides: b.Collides}
		}),
		Findings: each(v.Findings, func(f beacon.Finding) BeaconFinding {
			return BeaconFinding{
				Rule: f.Rule, Severity: BeaconFindingSeverity(f.Severity), Title: f.Title, Message: f.Message, Source: f.Source, About: f.About(),
				Fixes: each(f.Fixes, func(x beacon.Fix) BeaconFix { return BeaconFix{Label: x.Label, Set: x.Set} }),
			}
		}),
		Flight: each(v.Flight, func(c beacon.Check) BeaconCheck {
			return BeaconCheck{Id: c.ID, Says: c.Says, How: c.How, Sees: c.Sees, Why: c.Why, Main: c.Main, Done: done[c.ID]}
		}),
		Switch: each(v.Switch, func(c beacon.Change) BeaconChange {
			return BeaconChange{Id: c.ID, Says: c.Says, Ground: c.Ground, Space: c.Space, Done: c.Done}
		}),
	}
	for _, x := range v.Slots {
		if t, ok := aprs.BackText(x.Channel); ok {
			out.Slots = append(out.Slots, BeaconProfile{Id: strconv.Itoa(x.Number), Says: strings.TrimSpace(x.Channel.Name + " " + t)})
		}
	}
	out.Slots = orNone(out.Slots)
	if v.Place != nil {
		out.Lat, out.Lon = &v.Place.Lat, &v.Place.Lon
	}
	return out, err
}

func wireFrame(x beacon.Shown) BeaconFrame {
	out := BeaconFrame{
		Kind: string(x.Kind), Error: x.Error, Total: x.Air.Total, KeyUp: x.Air.KeyUp, Flags: x.Air.Flags, Bits: x.Air.Bits, Stuffed: x.Air.Stuffed, Bytes: len(x.Raw) + 2, Parts: []BeaconPart{},
	}
	if x.Error != "" {
		return out
	}
	out.Text = x.Frame.Text()
	for _, p := range x.Parts {
		part := BeaconPart{Id: p.ID, Name: p.Name, Text: seen(p.Text), Says: p.Says, From: p.From, To: p.To, Stuffed: p.Stuffed, Bytes: []int{}}
		for _, b := range p.Bytes {
			part.Bytes = append(part.Bytes, int(b))
		}
		out.Parts = append(out.Parts, part)
	}
	return out
}

// seen is a text with a dot for each letter that cannot be seen.
func seen(s string) string {
	return strings.Map(func(r rune) rune {
		if r < ' ' || r > '~' {
			return '·'
		}
		return r
	}, s)
}

// mostDrawn is how many points of a track are drawn.
const mostDrawn = 900

func wireTrip(t *beaconing.Trip) BeaconTrip {
	out := BeaconTrip{Km: t.Km, Seconds: t.Seconds, Every: t.Every}
	step := max(1, len(t.Track)/mostDrawn)
	at := make([]int, len(t.Track)) // where each point is among those that are drawn
	for i, p := range t.Track {
		if i%step == 0 || i == len(t.Track)-1 {
			out.Points = append(out.Points, struct {
				FixedM   float64 `json:"fixed_m"`
				Lat      float64 `json:"lat"`
				Lon      float64 `json:"lon"`
				SteeredM float64 `json:"steered_m"`
				T        float64 `json:"t"`
			}{t.Fixed.Gaps[i], p.Lat, p.Lon, t.Steered.Gaps[i], p.At})
		}
		at[i] = len(out.Points) - 1
	}
	driven := func(d aprs.Driven) BeaconDriven {
		x := BeaconDriven{Sent: len(d.Sent), MeanM: d.MeanGap, WorstM: d.Worst, WorstAt: at[d.WorstAt], OnAirS: float64(len(d.Sent)) * t.Airtime, At: []int{}}
		for _, i := range d.Sent {
			if n := len(x.At); n == 0 || x.At[n-1] != at[i] {
				x.At = append(x.At, at[i])
			}
		}
		return x
	}
	out.Fixed, out.Steered = driven(t.Fixed), driven(t.Steered)
	return out
}
