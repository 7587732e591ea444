// Package demo holds the demonstration: the Ostrel Islands, an invented group
// in the open ocean, with invented repeaters, radios and a half-filled plan.
// Nothing in it is a real place, station or listing.
package demo

import (
	"context"
	_ "embed"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"time"

	"github.com/goccy/go-yaml"

	"mnemos/core/band"
	"mnemos/core/beacon"
	"mnemos/core/check"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/naming"
	"mnemos/core/radio"
	"mnemos/core/tone"
	"mnemos/internal/store"
)

//go:embed coast.json
var coast string

//go:embed records.yaml
var recordsYAML []byte

//go:embed plan.yaml
var planYAML []byte

type recordData struct {
	Key, Callsign, Locality, Mode, Width, Status, Access, Source string
	Output, Input                                                freq.Hz
	Up, Down                                                     *string
	Lat, Lon, Height                                             float64
	Days                                                         int
}

// Records returns the published records of the demonstration, dated back
// from the given day.
func Records(today time.Time) ([]listing.Record, error) {
	var data struct{ Records []recordData }
	if err := yaml.UnmarshalWithOptions(recordsYAML, &data, yaml.Strict()); err != nil {
		return nil, fmt.Errorf("demo records: %w", err)
	}
	out := make([]listing.Record, 0, len(data.Records))
	for _, d := range data.Records {
		day := today.UTC().Truncate(24*time.Hour).AddDate(0, 0, -d.Days)
		r := listing.Record{
			Key: d.Key, Callsign: d.Callsign, Locality: d.Locality, Output: d.Output, Input: d.Input, Mode: listing.Mode(d.Mode), Width: d.Width,
			Lat: &d.Lat, Lon: &d.Lon, Height: &d.Height, Status: listing.Status(d.Status), Access: listing.Access(d.Access),
			Updated: listing.Date{Time: day}, Source: d.Source,
		}
		for _, side := range []struct {
			text *string
			to   *listing.Stated
		}{{d.Up, &r.UplinkTone}, {d.Down, &r.DownlinkTone}} {
			if side.text == nil {
				continue
			}
			t, err := tone.Parse(*side.text)
			if err != nil {
				return nil, fmt.Errorf("demo record %s: %w", d.Key, err)
			}
			*side.to = listing.Says(t)
		}
		out = append(out, r)
	}
	return out, nil
}

type planData struct {
	Name     string
	Operator struct {
		Person, Region string
		Lat, Lon       float64
		Height         float64 `yaml:"height_m"`
		Radius         float64 `yaml:"radius_km"`
	}
	Loads []struct {
		Radio string
		Slots map[int]string
	}
	Sets []struct {
		Kind, Name      string
		Slots, Priority []int // of the first radio
	}
	Listening struct {
		Goal    string
		Lengths map[int]float64 // of overs, by slot of the first radio
	}
	Diary []evening
	Relay struct {
		Load     int
		A, B     string
		AmpHours float64 `yaml:"amp_hours"`
		Usable   float64
		Hours    float64
		Standby  float64
		Amps     [2]float64
	}
	Beacon struct {
		From, Words string
		Back        int
		Every       float64
	}
}

// Fill writes the demonstration into a data file, in place of anything in it,
// with somebody to work with it.
func Fill(ctx context.Context, s *store.Store, today time.Time) error {
	// What an earlier filling that was cut off has left would be there twice.
	if err := s.Clear(ctx); err != nil {
		return err
	}
	if _, err := Add(ctx, s, today); err != nil {
		return err
	}
	data, err := planOf()
	if err != nil {
		return err
	}
	// The operator comes last: a file without anybody is not filled yet.
	return s.Edit(ctx, 0, store.Latest, stamp(today), func(e *store.Edit) error {
		id, err := e.ID("person")
		if err != nil {
			return err
		}
		return e.Put(store.Person{ID: id, Name: data.Operator.Person})
	})
}

func planOf() (data planData, err error) {
	if err := yaml.UnmarshalWithOptions(planYAML, &data, yaml.Strict()); err != nil {
		return data, fmt.Errorf("demo plan: %w", err)
	}
	return data, nil
}

// stamp is nobody's doing, so undo does not reach it.
func stamp(today time.Time) store.Stamp {
	return store.Stamp{At: today.UTC().Format(time.RFC3339), Label: "fill the demonstration"}
}

// Add adds the plan of the demonstration, with its listings, to whatever is
// there, and returns the number of the plan.
func Add(ctx context.Context, s *store.Store, today time.Time) (int64, error) {
	data, err := planOf()
	if err != nil {
		return 0, err
	}
	sources, err := importRecords(ctx, s, today, stamp(today).At)
	if err != nil {
		return 0, err
	}
	if err := s.SetOutline(ctx, "Ostrel Islands", coast); err != nil {
		return 0, err
	}
	var radios []string
	for _, l := range data.Loads {
		radios = append(radios, l.Radio)
	}
	o := data.Operator
	plan, loads, err := s.NewPlan(ctx, store.Plan{
		Name: data.Name, Demo: true, Region: o.Region, Lat: &o.Lat, Lon: &o.Lon, Height: o.Height, Radius: o.Radius, TonePolicy: string(check.EncodeFirst),
	}, stamp(today), radios...)
	if err != nil {
		return 0, err
	}
	for _, source := range sources {
		if err := s.Confine(ctx, source, plan.ID); err != nil {
			return 0, err
		}
	}
	return plan.ID, s.Edit(ctx, plan.ID, store.Latest, stamp(today), func(e *store.Edit) error {
		channels := map[string]int64{}
		for i, l := range data.Loads {
			if err := fillLoad(e, loads[i], l.Radio, l.Slots, band.MustLoad(o.Region), channels); err != nil {
				return err
			}
		}
		if err := fillDiary(e, data, plan.ID, loads[0].ID, today); err != nil {
			return err
		}
		if err := e.Relays(data.relay(loads)); err != nil {
			return err
		}
		station, err := data.station()
		if err != nil {
			return err
		}
		if err := e.Beacons(store.Beacon{LoadID: loads[0].ID, Station: station}); err != nil {
			return err
		}
		for _, set := range data.Sets {
			made, err := e.AddSet(set.Kind, set.Name)
			if err != nil {
				return err
			}
			for _, slot := range set.Slots {
				if err := e.Join(made.ID, channels[data.Loads[0].Slots[slot]], slices.Contains(set.Priority, slot)); err != nil {
					return err
				}
			}
		}
		return nil
	})
}

// station is the APRS station on the first radio, as it is kept.
func (d planData) station() (string, error) {
	s := beacon.Usual("foot", "")
	s.From, s.Words, s.Back, s.Every, s.Smart = d.Beacon.From, d.Beacon.Words, d.Beacon.Back, d.Beacon.Every, false
	text, err := json.Marshal(s)
	return string(text), err
}

// relay is the relay on one of the radios.
func (d planData) relay(loads []store.Load) store.Relay {
	r := d.Relay
	return store.Relay{
		LoadID: loads[r.Load].ID, LineA: r.A, LineB: r.B, Way: "both", Timeout: -1, Mine: 8, Theirs: 12, Over: 15, Gain: 3, Ticks: "{}",
		AmpHours: r.AmpHours, Usable: r.Usable, Hours: r.Hours, Standby: r.Standby, AmpsA: r.Amps[0], AmpsB: r.Amps[1],
	}
}

func importRecords(ctx context.Context, s *store.Store, today time.Time, at string) (sources []string, err error) {
	records, err := Records(today)
	if err != nil {
		return nil, err
	}
	bySource := map[string][]listing.Record{}
	for _, r := range records {
		bySource[r.Source] = append(bySource[r.Source], r)
	}
	for _, source := range slices.Sorted(maps.Keys(bySource)) {
		if err := s.Import(ctx, source, at, bySource[source]); err != nil {
			return nil, err
		}
		sources = append(sources, source)
	}
	return sources, nil
}

// fillLoad stores the lines of one radio. Radios share the channels that have
// the same line.
func fillLoad(e *store.Edit, l store.Load, profile string, slots map[int]string, plan *band.Plan, channels map[string]int64) error {
	p, err := radio.Load(profile)
	if err != nil {
		return err
	}
	order := slices.Sorted(maps.Keys(slots))
	long := make([]string, len(order))
	for i, slot := range order {
		long[i] = entry.Read(slots[slot], plan).Channel.Name
	}
	short := naming.Among(long).All(long, make([]string, len(long)), p.Names)
	for i, slot := range order {
		line := slots[slot]
		d := entry.Read(line, plan)
		if !d.Complete() {
			return fmt.Errorf("demo plan, slot %d: %q cannot be read", slot, line)
		}
		id, known := channels[line]
		if !known {
			if id, err = e.AddChannel(d.Channel, listing.ID{}); err != nil {
				return err
			}
			channels[line] = id
		}
		if err := e.AddEntry(store.Entry{LoadID: l.ID, Slot: slot, ChannelID: id, ShortName: short[i], Scan: d.Scan}); err != nil {
			return err
		}
		if err := e.Number(id, slot); err != nil {
			return err
		}
	}
	return nil
}
