// Package assess says everything that is known about a line: what each word
// means, what is published, and what the rules find.
package assess

import (
	"context"
	"math"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/entry"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/radio"
)

// Question is a line, and the circumstances to read it in.
type Question struct {
	Line      string
	Plan      *band.Plan
	Radio     *radio.Profile // may be nil
	Source    listing.Source
	Settings  check.Settings
	Slot      *int             // where it is to go if the line does not say
	Occupancy *check.Occupancy // what the radio holds
}

// Answer is everything that is known about a line. Its JSON is the public
// output of `mnemos read --json` (docs/cli.md).
type Answer struct {
	Channel  channel.Channel  `json:"channel"`
	Slot     *int             `json:"slot"`
	Words    []entry.Word     `json:"words"`
	Matches  []Match          `json:"matches"`
	Verdict  evidence.Verdict `json:"verdict"`
	Findings []check.Finding  `json:"findings"`
	Offers   []Offer          `json:"offers"` // the channels of several lines at once

	Draft  *entry.Draft `json:"-"`
	Result check.Result `json:"-"`
}

// Match is a published record on the output that was entered.
type Match struct {
	Key          string               `json:"key"`
	Callsign     string               `json:"callsign"`
	Locality     string               `json:"locality"`
	Output       freq.Hz              `json:"output_hz"`
	Input        *freq.Hz             `json:"input_hz"`
	UplinkTone   listing.Stated       `json:"uplink_tone"`
	DownlinkTone listing.Stated       `json:"downlink_tone"`
	Distance     *float64             `json:"distance_km"`
	Bearing      *float64             `json:"bearing_deg"`
	Updated      string               `json:"updated"`
	Source       string               `json:"source"`
	Meant        bool                 `json:"meant"`
	Repeater     int                  `json:"repeater"` // statements with one number speak of one repeater
	Age          string               `json:"age"`
	Differences  []listing.Difference `json:"differences"`
}

// Offer is one of several lines.
type Offer struct {
	Line     string          `json:"line"`
	Channel  channel.Channel `json:"channel"`
	Complete bool            `json:"complete"`
}

// Ask reads a line, finds what is published about it and judges it.
func Ask(ctx context.Context, q Question) (*Answer, error) {
	reader := entry.Reader{Plan: q.Plan}
	if q.Radio != nil {
		reader.Levels = entry.Levels{Low: q.Radio.Watts.Low, Mid: q.Radio.Watts.Mid, High: q.Radio.Watts.High}
	}
	d := reader.Read(q.Line)
	if d.Slot == nil {
		d.Slot = q.Slot
	}
	a := &Answer{Channel: d.Channel, Slot: d.Slot, Words: d.Words, Offers: []Offer{}, Draft: d}
	for _, o := range d.Offers {
		a.Offers = append(a.Offers, Offer{Line: o.Line, Channel: o.Channel, Complete: o.Complete()})
	}
	s := check.Subject{Draft: d, Channel: d.Channel, Slot: d.Slot, Plan: q.Plan, Radio: q.Radio, Occupancy: q.Occupancy, Settings: q.Settings}
	r, err := check.Judge(ctx, q.Source, s)
	if err != nil {
		return nil, err
	}
	a.Result = r
	a.Verdict, a.Findings, a.Matches = r.Verdict, r.Findings, Matches(r, q.Settings)
	return a, nil
}

// Matches are the published records on an output, as they are shown.
func Matches(r check.Result, s check.Settings) []Match {
	out := make([]Match, 0, len(r.Outputs))
	for _, m := range r.Outputs {
		v := Match{
			Key: m.Key, Callsign: m.Callsign, Locality: m.Locality, Output: m.Output, UplinkTone: m.UplinkTone, DownlinkTone: m.DownlinkTone,
			Updated: m.Updated.String(), Source: m.Source, Age: check.AgeWords(m, s), Differences: m.Differences,
			Repeater: m.Repeater, Meant: r.Meant != nil && r.Meant.Key == m.Key && r.Meant.Source == m.Source,
		}
		if m.Input != 0 {
			v.Input = &m.Input
		}
		if m.Distance != nil {
			// To the metre and a hundredth of a degree: the rest is noise.
			km, bearing := math.Round(*m.Distance*1000)/1000, math.Mod(math.Round(m.Bearing*100)/100, 360)
			v.Distance, v.Bearing = &km, &bearing
		}
		out = append(out, v)
	}
	return out
}
