package plan

import (
	"context"
	"fmt"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/evidence"
	"mnemos/core/find"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/internal/assess"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Scene is where somebody who works on a plan looks around from, with one of its
// radios in the hand.
type Scene struct {
	find.Scene
	Book   *find.Book
	PlanID int64
	Load   int64 // 0 where the plan has no radio
	Vacant []int // the next slots that are free in it
}

// offered is how many vacant slots are named.
const offered = 8

// Outlook returns from where somebody looks around and with which radio, without
// what the radios hold: enough to read a line and to complete it at each key.
func (p *Plans) Outlook(ctx context.Context, planID, loadID int64) (*Scene, error) {
	s, _, err := p.outlook(ctx, planID, loadID)
	return s, err
}

func (p *Plans) outlook(ctx context.Context, planID, loadID int64) (*Scene, []LoadInfo, error) {
	plan, err := p.Plan(ctx, planID)
	if err != nil {
		return nil, nil, err
	}
	me, err := p.fleet.Me(ctx)
	if err != nil {
		return nil, nil, err
	}
	set := settings(plan, me, p.now())
	s := &Scene{PlanID: plan.ID, Scene: find.Scene{Place: set.Place, Height: set.Height, Radius: set.RadiusKM, Today: set.Today, Stale: set.Stale}}
	if s.Marks, err = find.ReadMarks(plan.Marks); err != nil {
		return nil, nil, err
	}
	if s.Book, err = p.catalog.Book(ctx, plan.ID); err != nil {
		return nil, nil, err
	}
	if s.Band, err = band.Load(plan.Region); err != nil {
		return nil, nil, err
	}
	loads, err := p.equipped(ctx, plan.ID)
	for i, l := range loads {
		if l.ID == loadID || loadID == 0 && i == 0 {
			s.Load, s.Radio = l.ID, l.Unit.Title()
		}
	}
	return s, loads, err
}

// Scene returns what somebody sees who looks around; with 0 it is the first plan,
// and its first radio.
func (p *Plans) Scene(ctx context.Context, planID, loadID int64) (*Scene, error) {
	s, loads, err := p.outlook(ctx, planID, loadID)
	if err != nil {
		return nil, err
	}
	for _, l := range loads {
		d, err := p.desk(ctx, l.ID)
		if err != nil {
			return nil, err
		}
		results, err := p.judge(ctx, d, d.entries)
		if err != nil {
			return nil, err
		}
		mine := l.ID == s.Load
		for j, e := range d.entries {
			slot := find.Slot{Channel: e.Channel, Of: e.Repeater, Load: l.ID, Number: e.Slot, Mine: mine, Verdict: results[j].Verdict}
			if m := results[j].Meant; m != nil {
				slot.Of = m.ID()
			}
			if mine {
				slot.Differs, slot.Why = otherwise(results[j])
			}
			s.Slots = append(s.Slots, slot)
		}
		if mine {
			s.hand(d)
		}
	}
	return s, nil
}

// hand takes a radio into the hand.
func (s *Scene) hand(d *desk) {
	s.Cannot = func(r *listing.Record) string {
		switch {
		case r.Mode == listing.Digital:
			return "digital only"
		case !d.radio.CanReceive(r.Output):
			return "does not receive " + r.Output.String()
		}
		return ""
	}
	for from := d.radio.Slots.First; len(s.Vacant) < offered && from <= d.radio.Slots.Last; {
		n, ok := d.vacant(from)
		if !ok || n < from {
			return
		}
		s.Vacant = append(s.Vacant, n)
		from = n + 1
	}
}

// departures are the words for a field that is otherwise than published.
var departures = map[channel.Field]string{
	channel.FieldShift: "another shift", channel.FieldTransmit: "another shift",
	channel.FieldTransmitTone: "another tone", channel.FieldReceiveTone: "another tone in", channel.FieldWidth: "another width",
}

// otherwise says in what a channel is otherwise than published, and in a few words
// what is the matter with it.
func otherwise(r check.Result) (fields []string, why string) {
	for _, row := range r.Rows {
		if row.Mark != evidence.FieldDiffers || row.Published.Kind == evidence.KindNone {
			continue
		}
		fields = append(fields, string(row.Field))
		if why == "" {
			why = departures[row.Field]
		}
	}
	if why != "" || r.Verdict != evidence.Stop && r.Verdict != evidence.Conflict {
		return fields, why
	}
	for _, f := range r.Findings { // gravest first
		return fields, f.Title
	}
	return fields, why
}

// From is where a scene is looked at from: one's own place, or the middle of what
// is published.
func (s *Scene) From() *geo.Point {
	if s.Place != nil {
		return s.Place
	}
	return s.Book.Middle()
}

// Look is one repeater, seen closely.
type Look struct {
	find.Row
	Evidence *Evidence // of the channel that holds it or would be stored for it; nil where there is none
	Stored   bool
	Needed   *float64 // metres that one's own aerial lacks of being inside its horizon
}

// Look looks at a repeater closely from where a line looks around.
func (p *Plans) Look(ctx context.Context, s *Scene, line string, id listing.ID) (*Look, error) {
	row, ok := s.Book.Row(line, id, &s.Scene)
	if !ok {
		return nil, fmt.Errorf("record %s of %s: %w", id.Key, id.Source, fault.ErrNotFound)
	}
	out := &Look{Row: row}
	if h := row.Best.Height; h != nil && row.Distance != nil && *row.Distance > row.Reach {
		needed := geo.HeightFor(*row.Distance, *h)
		out.Needed = &needed
	}
	if s.Load == 0 {
		return out, nil
	}
	d, err := p.desk(ctx, s.Load)
	if err != nil {
		return nil, err
	}
	e := store.Entry{LoadID: s.Load, Repeater: id}
	if m := row.Mine(); m != nil {
		e, out.Stored = d.at(m.Number)
	}
	if !out.Stored {
		if e.Channel, err = p.channelOf(ctx, d, id); err != nil {
			return out, nil //nolint:nilerr // nothing can be stored for it: the row says why
		}
		if e.Slot = d.radio.Slots.First; len(s.Vacant) > 0 {
			e.Slot = s.Vacant[0]
		}
	}
	results, err := p.judge(ctx, d, []store.Entry{e})
	if err != nil {
		return nil, err
	}
	out.Evidence = d.evidence(e, results[0], assess.Matches(results[0], d.settings))
	return out, nil
}
