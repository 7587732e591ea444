package plan

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
	"mnemos/internal/assess"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Evidence is everything that speaks about one stored channel.
type Evidence struct {
	Slot       int
	Name       string
	ShortName  string
	Channel    channel.Channel
	Verdict    evidence.Verdict
	Published  *Published // nil where nothing is
	Path       evidence.Path
	Rows       []evidence.Row
	Findings   []check.Finding
	Matches    []assess.Match
	Losses     []radio.Loss
	BandName   string // "" outside every band
	Statements int
}

// Published sums up the record that is meant.
type Published struct {
	assess.Match
	Horizon *float64 // nil where no height is published
	Within  bool     // inside the horizon, or inside the usual reach
}

// Judged is a channel in a slot, and what the checks say of it.
type Judged struct {
	Plan   string
	Radio  *radio.Profile
	Entry  store.Entry
	Result check.Result
}

// Judged returns the channel in a slot with what the checks say of it.
func (p *Plans) Judged(ctx context.Context, loadID int64, slot int) (*Judged, error) {
	d, e, r, err := p.judged(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	return &Judged{d.plan.Name, d.radio, e, r}, nil
}

// judged returns the channel in a slot with what the checks say of it.
func (p *Plans) judged(ctx context.Context, loadID int64, slot int) (*desk, store.Entry, check.Result, error) {
	d, e, err := p.occupied(ctx, loadID, slot)
	if err != nil {
		return nil, e, check.Result{}, err
	}
	r, err := p.judge(ctx, d, []store.Entry{e})
	if err != nil {
		return nil, e, check.Result{}, err
	}
	return d, e, r[0], nil
}

// Evidence returns what speaks about the channel in a slot.
func (p *Plans) Evidence(ctx context.Context, loadID int64, slot int) (*Evidence, error) {
	d, e, r, err := p.judged(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	return d.evidence(e, r, assess.Matches(r, d.settings)), nil
}

// evidence puts together what speaks about a channel that is or would be in a
// slot, with what is published on its output.
func (d *desk) evidence(e store.Entry, r check.Result, matches []assess.Match) *Evidence {
	v := &Evidence{
		Slot: e.Slot, Name: e.Channel.Name, ShortName: e.ShortName, Channel: e.Channel, Verdict: r.Verdict,
		Path: evidence.Case{Channel: e.Channel, Plan: d.band, Meant: r.Meant, Others: others(r), Heard: d.witnessed(e)}.Path(),
		Rows: r.Rows, Findings: r.Findings, Matches: matches, Losses: []radio.Loss{},
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
	return v
}

// others are the other statements about the repeater that is meant.
func others(r check.Result) []listing.Match {
	var out []listing.Match
	for _, m := range r.Outputs {
		if r.Meant != nil && m.ID() != r.Meant.ID() && m.Repeater != 0 && m.Repeater == r.Meant.Repeater {
			out = append(out, m)
		}
	}
	return out
}

// Ribbon is a band to scale with the channels of a load in it.
type Ribbon struct {
	Bands    []string // the bands that the load has channels in
	Band     *band.Band
	Source   string
	Channels []RibbonChannel
	Nearby   []freq.Hz // published outputs that the load lacks
	Thirds   []Third   // harmonics of other bands that fall on it
}

// Third is the third harmonic of a channel of another band.
type Third struct {
	Slot int
	At   freq.Hz
	Says string
}

// RibbonChannel is a channel on the ribbon.
type RibbonChannel struct {
	Slot     int
	Receive  freq.Hz
	Transmit *freq.Hz
	Verdict  evidence.Verdict
	Inside   bool   // the transmit frequency is on the band
	Says     string // why this shift applies
	Meets    []check.Meeting
}

// Ribbon returns a band by its name, or the first one that has channels.
func (p *Plans) Ribbon(ctx context.Context, loadID int64, name string) (*Ribbon, error) {
	d, err := p.desk(ctx, loadID)
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
	results, err := p.judge(ctx, d, on)
	if err != nil {
		return nil, err
	}
	for i, e := range on {
		r.Channels = append(r.Channels, d.ribbonChannel(r.Band, e, results[i].Verdict))
	}
	for _, e := range d.entries {
		tx, sends := e.Channel.Transmit()
		if sends && !r.Band.Holds(tx) && r.Band.Holds(3*tx) {
			r.Thirds = append(r.Thirds, Third{e.Slot, 3 * tx, fmt.Sprintf("3 × %s, slot %d, %s", tx.MHz(), e.Slot, label(e.Channel))})
		}
	}
	return r, d.nearby(ctx, r)
}

func (d *desk) ribbonChannel(b *band.Band, e store.Entry, v evidence.Verdict) RibbonChannel {
	c := RibbonChannel{Slot: e.Slot, Receive: e.Channel.Receive, Verdict: v, Inside: true}
	if tx, ok := e.Channel.Transmit(); ok {
		c.Transmit, c.Inside = &tx, b.Holds(tx)
	}
	c.Meets = d.occupancy().Meetings(check.Other{Slot: e.Slot, Channel: e.Channel})
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
func (d *desk) nearby(ctx context.Context, r *Ribbon) error {
	if d.settings.Place == nil {
		return nil
	}
	box := geo.Around(*d.settings.Place, d.settings.RadiusKM)
	records, err := d.listings.ByOutput(ctx, r.Band.Span, &box)
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

// Variants judges what a channel would be with other settings, in the slot that it has.
func (p *Plans) Variants(ctx context.Context, loadID int64, slot int, channels []channel.Channel) ([]check.Result, error) {
	d, e, err := p.occupied(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	subjects := make([]store.Entry, len(channels))
	for i, c := range channels {
		subjects[i] = e
		subjects[i].Channel = c
	}
	return p.judge(ctx, d, subjects)
}
