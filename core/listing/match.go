package listing

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/tone"
)

// Source is where records come from: a file in memory or a database.
type Source interface {
	// All of them return repeaters only: a simplex channel on a frequency is not
	// a repeater there.

	// ByOutput returns the records whose output lies in the range and which
	// are inside the box or have no position; a nil box is the whole world.
	ByOutput(ctx context.Context, r band.Span, box *geo.Box) ([]Record, error)
	// ByInput does the same by the input frequency.
	ByInput(ctx context.Context, r band.Span, box *geo.Box) ([]Record, error)
	// OnOutputs returns the records whose output is one of the given
	// frequencies; the box is as above.
	OnOutputs(ctx context.Context, outputs []freq.Hz, box *geo.Box) ([]Record, error)
	// ByName returns the records whose callsign or locality holds every word of
	// the text, at most MaxNamed of them.
	ByName(ctx context.Context, text string, box *geo.Box) ([]Record, error)
	// Decisions returns what people decided about statements: that two speak
	// of one repeater, or of two.
	Decisions(ctx context.Context) ([]Decision, error)
}

// Memory is a Source over a slice.
type Memory []Record

// ByOutput implements Source.
func (m Memory) ByOutput(_ context.Context, r band.Span, box *geo.Box) ([]Record, error) {
	return m.filter(r, box, func(x *Record) freq.Hz { return x.Output }), nil
}

// ByInput implements Source.
func (m Memory) ByInput(_ context.Context, r band.Span, box *geo.Box) ([]Record, error) {
	return m.filter(r, box, func(x *Record) freq.Hz { return x.Input }), nil
}

// OnOutputs implements Source.
func (m Memory) OnOutputs(_ context.Context, outputs []freq.Hz, box *geo.Box) ([]Record, error) {
	var out []Record
	for i := range m {
		if slices.Contains(outputs, m[i].Output) && m[i].IsRepeater() && inside(&m[i], box) {
			out = append(out, m[i])
		}
	}
	return out, nil
}

// ByName implements Source.
func (m Memory) ByName(_ context.Context, text string, box *geo.Box) ([]Record, error) {
	return byName(m, text, box), nil
}

// MaxNamed is how many records are looked at for a name.
const MaxNamed = 200

// byName returns the records that a text names.
func byName(records []Record, text string, box *geo.Box) []Record {
	words := strings.Fields(strings.ToLower(text))
	var out []Record
	for i := range records {
		r := &records[i]
		at := strings.ToLower(r.Callsign + " " + r.Locality)
		all := len(words) > 0 && r.IsRepeater()
		for _, w := range words {
			all = all && strings.Contains(at, w)
		}
		if all && inside(r, box) && len(out) < MaxNamed {
			out = append(out, *r)
		}
	}
	return out
}

// Decisions implements Source: nobody decided anything.
func (m Memory) Decisions(context.Context) ([]Decision, error) { return nil, nil }

func (m Memory) filter(r band.Span, box *geo.Box, of func(*Record) freq.Hz) []Record {
	var out []Record
	for i := range m {
		if r.Holds(of(&m[i])) && m[i].IsRepeater() && inside(&m[i], box) {
			out = append(out, m[i])
		}
	}
	return out
}

func inside(r *Record, box *geo.Box) bool {
	p, ok := r.Place()
	return box == nil || !ok || p.Lat >= box.South && p.Lat <= box.North && p.Lon >= box.West && p.Lon <= box.East
}

// Query says around where and how far to look. Without a place every record
// counts and none has a distance.
type Query struct {
	Place    *geo.Point
	RadiusKM float64
	Height   float64 // own aerial above the surrounding surface, metres
}

// Box returns the box that holds every place within the radius, or nil for
// the whole world.
func (q Query) Box() *geo.Box {
	if q.Place == nil {
		return nil
	}
	b := geo.Around(*q.Place, q.RadiusKM)
	return &b
}

// Match is a record near the operator that may be the one that is meant.
type Match struct {
	Record
	Distance    *float64     // kilometres; nil if either place is unknown
	Bearing     float64      // degrees from the operator; counts only with Distance
	Reach       float64      // kilometres to which it may be heard
	Horizon     bool         // Reach is its radio horizon, from a published height
	Audible     bool         // it may be heard at the operator's place
	Named       bool         // the channel's name says that it is this one
	Repeater    int          // which of the repeaters on its output it speaks of, counted from 1; 0 if not joined
	Differences []Difference // between channel and record, field by field
	Score       float64      // likelihood that this record is meant; larger is likelier
}

// Difference is one field in which a channel and a record are not alike.
type Difference struct {
	Field     channel.Field `json:"field"`
	Entered   string        `json:"entered"`
	Published string        `json:"published"`
}

// Find returns the records on the channel's receive frequency, likeliest
// first, and separately those whose input it is, nearest first: a channel
// typed from the wrong column of a listing is found there.
func Find(ctx context.Context, src Source, plan *band.Plan, c channel.Channel, q Query) (outputs, inputs []Match, err error) {
	near := freq.Hz(2_500)
	if b, ok := plan.Band(c.Receive); ok {
		near = b.Tolerance() - 1
	}
	span := band.Span{Lower: c.Receive - near, Upper: c.Receive + near}
	box := q.Box()
	out, err := src.ByOutput(ctx, span, box)
	if err != nil {
		return nil, nil, err
	}
	in, err := src.ByInput(ctx, span, box)
	if err != nil {
		return nil, nil, err
	}
	outputs = Measure(out, c, q)
	slices.SortStableFunc(outputs, func(a, b Match) int {
		return cmp.Or(cmp.Compare(b.Score, a.Score), b.Updated.Compare(a.Updated.Time), cmp.Compare(a.Key, b.Key))
	})
	if err := joined(ctx, src, outputs); err != nil {
		return nil, nil, err
	}
	inputs = Measure(in, c, q)
	slices.SortStableFunc(inputs, func(a, b Match) int {
		return cmp.Or(cmp.Compare(a.away(), b.away()), cmp.Compare(a.Key, b.Key))
	})
	return outputs, inputs, nil
}

// FindNamed returns the records that a text names, the nearest first.
func FindNamed(ctx context.Context, src Source, text string, q Query) ([]Match, error) {
	records, err := src.ByName(ctx, text, q.Box())
	if err != nil {
		return nil, err
	}
	out := Measure(records, channel.Channel{}, q)
	slices.SortStableFunc(out, func(a, b Match) int {
		return cmp.Or(cmp.Compare(a.away(), b.away()), b.Updated.Compare(a.Updated.Time), cmp.Compare(a.Source, b.Source), cmp.Compare(a.Key, b.Key))
	})
	for i := range out {
		out[i].Differences, out[i].Named = []Difference{}, true
	}
	return out, joined(ctx, src, out)
}

// joined says which matches speak of one repeater.
func joined(ctx context.Context, src Source, matches []Match) error {
	if len(matches) == 0 {
		return nil
	}
	decisions, err := src.Decisions(ctx)
	if err != nil {
		return err
	}
	records := make([]Record, len(matches))
	for i, m := range matches {
		records[i] = m.Record
	}
	of := map[ID]int{}
	for i, r := range Join(records, decisions) {
		for _, s := range r.Statements {
			of[s.ID()] = i + 1
		}
	}
	for i := range matches {
		matches[i].Repeater = of[matches[i].ID()]
	}
	return nil
}

// Measure sets records against a channel and the operator's place, and leaves
// out those beyond the radius.
func Measure(records []Record, c channel.Channel, q Query) []Match {
	out := make([]Match, 0, len(records))
	for i := range records {
		r := &records[i]
		m := Match{Record: *r}
		m.Reach, m.Horizon = Reach(r, q.Height)
		if p, ok := r.Place(); ok && q.Place != nil {
			km, bearing := geo.Distance(*q.Place, p)
			if km > q.RadiusKM {
				continue
			}
			m.Distance, m.Bearing = &km, bearing
		}
		m.Differences, m.Named = Differences(c, *r), c.Name != "" && named(c.Name, *r)
		switch {
		case m.Distance != nil:
			m.Audible = *m.Distance <= max(m.Reach, Nearby)
		default: // nobody says where one of the two is: only a name tells that it is meant
			m.Audible = q.Place == nil || m.Named
		}
		m.Score = score(c, m)
		out = append(out, m)
	}
	return out
}

// Reach returns the kilometres to which a repeater may be heard by somebody with
// an aerial of some height in metres, and whether that is its radio horizon: where
// its own height is not published it is what is plausible.
func Reach(r *Record, height float64) (km float64, horizon bool) {
	if r.Height == nil {
		return plausible, false
	}
	return geo.Horizon(*r.Height, height), true
}

// plausible is the distance in kilometres within which a repeater of unknown
// height may be heard, and Nearby the one within which even a low one may.
// Common practice, no source: a hilltop repeater serves 50 to 100 km.
const (
	plausible = 80.0
	Nearby    = 30.0
)

// unplaced is the distance at which a record without a position is ranked.
const unplaced = 100.0

func (m Match) away() float64 {
	if m.Distance == nil {
		return unplaced
	}
	return *m.Distance
}

// score weighs the clues to which record is meant. The weights are common
// practice, no source: a name is the strongest clue, then whether it may be
// heard at all; a shift or tone that agrees each outweigh sixty kilometres, and a repeater that FM cannot
// use or that is off the air is seldom meant.
func score(c channel.Channel, m Match) float64 {
	s := -m.away() / 30
	if m.Named {
		s += 8
	}
	if m.Audible {
		s += 3
	}
	if o, ok := m.Offset(); ok && o == c.Offset() {
		s += 2
	}
	switch {
	case c.TransmitTone.IsOff() && m.UplinkTone.Known && m.UplinkTone.Tone.IsOff():
		s += 2
	case c.TransmitTone.IsOff():
	case !m.UplinkTone.Known:
		s++ // it may well be this one
	case tone.Same(m.UplinkTone.Tone, c.TransmitTone):
		s += 2
	}
	if m.Mode == Digital {
		s -= 3
	}
	if m.Status == OffAir {
		s--
	}
	return s
}

func named(name string, r Record) bool {
	n := strings.ToLower(name)
	return strings.EqualFold(n, r.Callsign) || r.Locality != "" && strings.Contains(n, strings.ToLower(r.Locality)) ||
		len(n) >= 4 && strings.HasPrefix(strings.ToLower(r.Locality), n)
}

// Differences compares a channel with a record field by field. A field the
// record does not state is no difference, and neither is an open receiver on
// a repeater that sends a tone.
func Differences(c channel.Channel, r Record) []Difference {
	out := []Difference{}
	add := func(f channel.Field, entered, published string) {
		out = append(out, Difference{Field: f, Entered: entered, Published: published})
	}
	if c.Receive != r.Output {
		add(channel.FieldReceive, c.Receive.String(), r.Output.String())
	}
	if tx, ok := c.Transmit(); ok && r.Input != 0 {
		if published, _ := r.Offset(); c.Offset() != published {
			add(channel.FieldShift, ShiftWords(c.Offset()), ShiftWords(published))
		}
		if tx != r.Input {
			add(channel.FieldTransmit, tx.String(), r.Input.String())
		}
		if r.UplinkTone.Known && !tone.Same(r.UplinkTone.Tone, c.TransmitTone) {
			add(channel.FieldTransmitTone, c.TransmitTone.Words(), r.UplinkTone.String())
		}
	}
	if r.DownlinkTone.Known && !c.ReceiveTone.IsOff() && !tone.Same(r.DownlinkTone.Tone, c.ReceiveTone) {
		add(channel.FieldReceiveTone, c.ReceiveTone.Words(), r.DownlinkTone.String())
	}
	return out
}

// ShiftWords formats a shift for people: "+600 kHz", or "simplex" for zero.
func ShiftWords(o freq.Offset) string {
	if o == 0 {
		return "simplex"
	}
	return o.String()
}
