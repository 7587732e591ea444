package app

import (
	"context"
	"fmt"
	"slices"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/radio"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Evidence is everything that speaks about one stored channel.
type Evidence struct {
	Slot       int              `json:"slot"`
	Name       string           `json:"name"`
	ShortName  string           `json:"short_name"`
	Channel    channel.Channel  `json:"channel"`
	Verdict    evidence.Verdict `json:"verdict"`
	Published  *Published       `json:"published"` // nil where nothing is
	Path       evidence.Path    `json:"path"`
	Rows       []evidence.Row   `json:"rows"`
	Findings   []check.Finding  `json:"findings"`
	Matches    []Match          `json:"matches"`
	Losses     []radio.Loss     `json:"losses"`
	BandName   string           `json:"band"` // "" outside every band
	Statements int              `json:"statements"`
}

// Published sums up the record that is meant.
type Published struct {
	Match
	Horizon *float64 `json:"horizon_km"` // nil where no height is published
	Within  bool     `json:"within"`     // inside the horizon, or inside the usual reach
}

// judged returns the channel in a slot with what the checks say of it.
func (a *App) judged(ctx context.Context, loadID int64, slot int) (*desk, store.Entry, check.Result, error) {
	d, e, err := a.occupied(ctx, loadID, slot)
	if err != nil {
		return nil, e, check.Result{}, err
	}
	r, err := a.judge(ctx, d, []store.Entry{e})
	if err != nil {
		return nil, e, check.Result{}, err
	}
	return d, e, r[0], nil
}

// Evidence returns what speaks about the channel in a slot.
func (a *App) Evidence(ctx context.Context, loadID int64, slot int) (*Evidence, error) {
	d, e, r, err := a.judged(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	v := &Evidence{
		Slot: slot, Name: e.Channel.Name, ShortName: e.ShortName, Channel: e.Channel, Verdict: r.Verdict,
		Path: evidence.Case{Channel: e.Channel, Plan: d.band, Meant: r.Meant}.Path(),
		Rows: r.Rows, Findings: r.Findings, Matches: matches(r, d.settings), Losses: []radio.Loss{},
	}
	if _, losses := radio.Fit(e.Channel, d.radio); losses != nil {
		v.Losses = losses
	}
	if b, ok := d.band.Band(e.Channel.Receive); ok {
		v.BandName = b.Name
	}
	for _, m := range v.Matches {
		if !m.Meant {
			if r.Meant != nil && m.Repeater == r.Meant.Repeater {
				v.Statements++
			}
			continue
		}
		v.Statements++
		p := &Published{Match: m, Within: r.Meant.Audible}
		if r.Meant.Horizon {
			p.Horizon = &r.Meant.Reach
		}
		v.Published = p
	}
	return v, nil
}

// Ribbon is a band to scale with the channels of a load in it.
type Ribbon struct {
	Bands    []string        `json:"bands"` // the bands that the load has channels in
	Band     *band.Band      `json:"band"`
	Source   string          `json:"source"`
	Channels []RibbonChannel `json:"channels"`
	Nearby   []freq.Hz       `json:"nearby_hz"` // published outputs that the load lacks
}

// RibbonChannel is a channel on the ribbon.
type RibbonChannel struct {
	Slot     int              `json:"slot"`
	Receive  freq.Hz          `json:"receive_hz"`
	Transmit *freq.Hz         `json:"transmit_hz"`
	Verdict  evidence.Verdict `json:"verdict"`
	Inside   bool             `json:"inside"` // the transmit frequency is on the band
	Says     string           `json:"says"`   // why this shift applies
}

// Ribbon returns a band by its name, or the first one that has channels.
func (a *App) Ribbon(ctx context.Context, loadID int64, name string) (*Ribbon, error) {
	d, err := a.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	r := &Ribbon{Bands: []string{}, Channels: []RibbonChannel{}, Nearby: []freq.Hz{}, Source: d.band.Source}
	for i := range d.band.Bands {
		b := &d.band.Bands[i]
		has := false
		for _, e := range d.entries {
			has = has || b.Holds(e.Channel.Receive)
		}
		if has {
			r.Bands = append(r.Bands, b.Name)
		}
		if b.Name == name || name == "" && has && r.Band == nil {
			r.Band = b
		}
	}
	if r.Band == nil {
		return nil, fmt.Errorf("band %q: %w", name, fault.ErrNotFound)
	}
	on := slices.DeleteFunc(slices.Clone(d.entries), func(e store.Entry) bool { return !r.Band.Holds(e.Channel.Receive) })
	results, err := a.judge(ctx, d, on)
	if err != nil {
		return nil, err
	}
	for i, e := range on {
		r.Channels = append(r.Channels, d.ribbonChannel(r.Band, e, results[i].Verdict))
	}
	return r, a.nearby(ctx, d, r)
}

func (d *desk) ribbonChannel(b *band.Band, e store.Entry, v evidence.Verdict) RibbonChannel {
	c := RibbonChannel{Slot: e.Slot, Receive: e.Channel.Receive, Verdict: v, Inside: true}
	if tx, ok := e.Channel.Transmit(); ok {
		c.Transmit, c.Inside = &tx, b.Holds(tx)
	}
	seg, ok := d.band.Segment(e.Channel.Receive)
	if !ok {
		return c
	}
	c.Says = fmt.Sprintf("%s, %s to %s", seg.Label, seg.Lower.MHz(), seg.Upper.MHz())
	if rule, ok := d.band.Shift(e.Channel.Receive); ok {
		c.Says += fmt.Sprintf(": the band plan gives %s (%s)", rule.Offset, rule.Certainty)
	}
	return c
}

// nearby adds the published outputs in the band that may be heard here and
// are not in the load.
func (a *App) nearby(ctx context.Context, d *desk, r *Ribbon) error {
	if d.settings.Place == nil {
		return nil
	}
	box := geo.Around(*d.settings.Place, d.settings.RadiusKM)
	records, err := a.store.ByOutput(ctx, r.Band.Span, &box)
	if err != nil {
		return err
	}
	have := map[freq.Hz]bool{}
	for _, e := range d.entries {
		have[e.Channel.Receive] = true
	}
	for _, rec := range records {
		if rec.Mode != listing.Digital && !have[rec.Output] {
			have[rec.Output] = true
			r.Nearby = append(r.Nearby, rec.Output)
		}
	}
	return nil
}
