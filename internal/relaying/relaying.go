// Package relaying is the view of somebody who sets up a cross-band relay: a vehicle unit
// of the plan, its two sides, and everything that follows from them.
package relaying

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/radio"
	"mnemos/core/relay"
	"mnemos/internal/fleet"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

// Relaying works for one data file.
type Relaying struct {
	store *store.Store
	fleet *fleet.Fleet
	plans *plan.Plans
	now   func() time.Time
}

// New returns the relays over a data file; now is the clock.
func New(s *store.Store, f *fleet.Fleet, p *plan.Plans, now func() time.Time) *Relaying {
	return &Relaying{store: s, fleet: f, plans: p, now: now}
}

// Ask is what the view is to show; nil for what is kept.
type Ask struct{ A, B, Way *string }

// Side is one side as it was written and understood.
type Side struct {
	Line    string
	Reading *plan.Reading
	From    string // where a slot that was named comes from; "" for a line
	Trouble string // why it is no channel
	// Held is in which slots of the vehicle and the handheld the channel is, as it is; −1 for none.
	Vehicle, Hand int
	Standing      plan.Standing
}

// View is a relay with everything around it.
type View struct {
	Row      store.Relay
	Report   *relay.Report // nil while a side is no channel
	A, B     Side
	Vehicle  fleet.Unit
	Loads    []plan.LoadInfo
	Timeout  int
	Kept     bool // the lines are those that are kept
	Taken    bool // both sides are in the radios as they are
	Ticks    map[string]string
	Rehearse string // when this very set-up was rehearsed; ""
	By       int64
	Revision int64
}

// desk is a relay that is looked at.
type desk struct {
	*plan.Loading
	row  store.Relay
	hand *plan.Loading // nil for nobody said which
}

// asWhat names a set-up: another one was not rehearsed.
func asWhat(r store.Relay) string { return strings.Join([]string{r.LineA, r.LineB, r.Way}, "\n") }

func (l *Relaying) desk(ctx context.Context, loadID int64) (*desk, error) {
	loading, err := l.plans.Loading(ctx, loadID)
	if err != nil {
		return nil, err
	}
	d := &desk{Loading: loading}
	if d.row, err = l.store.Relay(ctx, loadID); err != nil {
		return nil, err
	}
	if d.row.Timeout < 0 {
		d.row.Timeout = loading.Radio.Timeout
	}
	if d.row.HandID == 0 {
		d.row.HandID, err = l.handheld(ctx, loading, loadID)
		if err != nil {
			return nil, err
		}
	}
	if d.row.HandID != 0 {
		if d.hand, err = l.plans.Loading(ctx, d.row.HandID); err != nil {
			d.hand, d.row.HandID = nil, 0 // it was taken out of the plan
		}
	}
	return d, nil
}

// handheld is the first handheld of the plan.
func (l *Relaying) handheld(ctx context.Context, loading *plan.Loading, vehicle int64) (int64, error) {
	w, err := l.plans.Workspace(ctx, loading.Plan.ID)
	if err != nil {
		return 0, err
	}
	for _, x := range w.Loads {
		if x.ID != vehicle && x.Unit.Radio.Form == "handheld" {
			return x.ID, nil
		}
	}
	return 0, nil
}

// Look works out the relay on a vehicle unit.
func (l *Relaying) Look(ctx context.Context, loadID int64, ask Ask) (*View, error) {
	d, err := l.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	kept := asWhat(d.row)
	for _, x := range []struct {
		from *string
		to   *string
	}{{ask.A, &d.row.LineA}, {ask.B, &d.row.LineB}, {ask.Way, &d.row.Way}} {
		if x.from != nil {
			*x.to = strings.TrimSpace(*x.from)
		}
	}
	if !slices.Contains(relay.Ways, relay.Way(d.row.Way)) {
		d.row.Way = string(relay.Both)
	}
	v := &View{Row: d.row, Vehicle: d.Unit, Timeout: d.row.Timeout, Kept: asWhat(d.row) == kept, Revision: d.Revision, Ticks: map[string]string{}}
	w, err := l.plans.Workspace(ctx, d.Plan.ID)
	if err != nil {
		return nil, err
	}
	v.Loads = w.Loads
	if err := json.Unmarshal([]byte(cmp.Or(d.row.Ticks, "{}")), &v.Ticks); err != nil {
		return nil, fmt.Errorf("read ticks: %w", err)
	}
	if d.row.RehearsedAs == asWhat(d.row) {
		v.Rehearse, v.By = d.row.RehearsedAt, d.row.RehearsedBy
	}
	for _, s := range []struct {
		line string
		to   *Side
	}{{d.row.LineA, &v.A}, {d.row.LineB, &v.B}} {
		if *s.to, err = l.side(ctx, d, s.line); err != nil {
			return nil, err
		}
	}
	if v.A.Trouble != "" || v.B.Trouble != "" || v.A.Line == "" || v.B.Line == "" {
		return v, nil
	}
	setup, err := l.setup(ctx, d, v)
	if err != nil {
		return nil, err
	}
	v.Report = relay.Look(setup)
	v.Taken = v.A.Vehicle >= 0 && v.B.Vehicle >= 0 && (d.hand == nil || v.Report.LinkSide == "" || v.side(v.Report.LinkSide).Hand >= 0)
	return v, nil
}

func (v *View) side(letter string) *Side {
	if letter == "B" {
		return &v.B
	}
	return &v.A
}

// slotWord is the number of a slot in place of a line: 14, #14, slot 14.
var slotWord = regexp.MustCompile(`^(?i:slot\s*|#)?(\d{1,4})$`)

// side reads what is written of a side: an entry line, or the number of a slot.
func (l *Relaying) side(ctx context.Context, d *desk, line string) (Side, error) {
	s := Side{Line: line, Vehicle: -1, Hand: -1}
	if line == "" {
		return s, nil
	}
	read := line
	if m := slotWord.FindStringSubmatch(line); m != nil {
		n, _ := strconv.Atoi(m[1]) // four digits at the most
		c, from := d.inSlot(n)
		if from == "" {
			s.Trouble = fmt.Sprintf("slot %d is empty: write a frequency such as 446.1, or another slot", n)
			return s, nil
		}
		read, s.From = entry.Format(c, nil, ""), from
	}
	none := 0
	r, err := l.plans.Read(ctx, d.row.LoadID, read, &none)
	if err != nil {
		return s, err
	}
	s.Reading = r
	switch word := r.Draft.Problem(); {
	case word != nil:
		s.Trouble = cmp.Or(word.Problem, fmt.Sprintf("what is %q?", word.Text))
	case r.Channel.Receive == 0:
		s.Trouble = "write the frequency that the side receives, such as 446.1, or a slot"
	}
	if s.Trouble != "" {
		return s, nil
	}
	if i := slices.IndexFunc(d.Channels, func(c plan.Loaded) bool { return same(c.Entry.Channel, r.Channel) }); i >= 0 {
		s.Vehicle, s.Standing = d.Channels[i].Entry.Slot, d.Channels[i].Standing
	}
	if d.hand != nil {
		if i := slices.IndexFunc(d.hand.Channels, func(c plan.Loaded) bool { return same(c.Entry.Channel, r.Channel) }); i >= 0 {
			s.Hand = d.hand.Channels[i].Entry.Slot
		}
	}
	return s, nil
}

// inSlot is the channel in a slot of the vehicle, or else of the handheld.
func (d *desk) inSlot(n int) (c channel.Channel, from string) {
	for _, x := range []*plan.Loading{d.Loading, d.hand} {
		if x == nil {
			continue
		}
		for _, e := range x.Channels {
			if e.Entry.Slot == n {
				return e.Entry.Channel, fmt.Sprintf("slot %d of %s", n, x.Unit.Title())
			}
		}
	}
	return c, ""
}

// same reports whether two channels are the same on the air: names and power are not.
func same(a, b channel.Channel) bool {
	a.Name, b.Name, a.Power, b.Power = "", "", "", ""
	return a == b
}

// setup is the relay as it is worked out.
func (l *Relaying) setup(ctx context.Context, d *desk, v *View) (relay.Setup, error) {
	r := d.row
	s := relay.Setup{
		Plan: d.Band, Vehicle: relay.Unit{Name: d.Unit.Title(), Radio: d.Radio}, Way: relay.Way(r.Way), Consent: r.Consent, Unlicensed: d.Me.Unlicensed, Bands: d.Me.Bands,
		IdentifyA: relay.Identity(r.IdentifyA), IdentifyB: relay.Identity(r.IdentifyB), Control: r.Control, Timeout: r.Timeout, Microphone: r.Microphone,
		Talk:   relay.Talk{Mine: r.Mine, Theirs: r.Theirs, Seconds: r.Over},
		Supply: relay.Supply{AmpHours: r.AmpHours, Usable: r.Usable, Starting: r.Starting, Hours: r.Hours, StandbyAmps: r.Standby, AmpsA: r.AmpsA, AmpsB: r.AmpsB, Gain: r.Gain},
		A:      sideOf(v.A), B: sideOf(v.B),
	}
	said, err := l.store.Permissions(ctx, d.Plan.ID)
	if err != nil {
		return s, err
	}
	for letter, side := range map[string]relay.Side{"A": s.A, "B": s.B} {
		if m := side.Meant; m != nil && (m.Access == listing.Closed || m.Access == listing.Private) {
			if _, asked := said[int64(side.Channel.Receive)]; !asked {
				s.Closed = letter
			}
		}
	}
	if d.hand != nil {
		s.Hand = relay.Unit{Name: d.hand.Unit.Title(), Radio: d.hand.Radio}
		for _, side := range []relay.Side{s.A, s.B} {
			if side.Repeater() || s.Hand.Channel != nil {
				continue
			}
			for _, c := range d.hand.Channels {
				if c.Entry.Channel.Receive == side.Channel.Receive {
					s.Hand.Channel = &c.Entry.Channel
					break
				}
			}
			break
		}
	}
	for _, c := range append(slices.Clone(d.Channels), handChannels(d)...) {
		s.Planned = append(s.Planned, c.Entry.Channel.Receive)
	}
	s.Published, err = l.published(ctx, d, s)
	return s, err
}

func handChannels(d *desk) []plan.Loaded {
	if d.hand == nil {
		return nil
	}
	return d.hand.Channels
}

func sideOf(s Side) relay.Side {
	return relay.Side{Channel: s.Reading.Channel, Meant: s.Reading.Result.Meant, Findings: s.Reading.Findings}
}

// within is how far a repeater without a published height is taken to reach, in km.
const within = 80

// published are the outputs and inputs in the bands of both sides of repeaters whose
// horizon holds the place of the plan. Where a place is not known it counts.
func (l *Relaying) published(ctx context.Context, d *desk, s relay.Setup) (out []freq.Hz, err error) {
	for _, side := range []relay.Side{s.A, s.B} {
		b, ok := s.Plan.Band(side.Channel.Receive)
		if !ok {
			continue
		}
		records, err := l.plans.Published(ctx, d.Plan.ID, band.Span{Lower: b.Lower, Upper: b.Upper})
		if err != nil {
			return nil, err
		}
		for _, r := range records {
			if reaches(d.Plan, r) {
				out = append(out, r.Output)
				if r.Input != 0 {
					out = append(out, r.Input)
				}
			}
		}
	}
	return out, nil
}

func reaches(p store.Plan, r listing.Record) bool {
	at, ok := r.Place()
	if !ok || p.Lat == nil || p.Lon == nil {
		return true
	}
	km, _ := geo.Distance(geo.Point{Lat: *p.Lat, Lon: *p.Lon}, at)
	reach := float64(within)
	if r.Height != nil {
		reach = geo.Horizon(math.Max(p.Height, 1.5), *r.Height)
	}
	return km <= reach
}

// Line is a channel as a line of a side.
func Line(c channel.Channel) string { return entry.Format(c, nil, "") }

// Vehicles reports whether a radio can relay at all.
func Vehicles(p *radio.Profile) bool { return p.Relay.CrossBand && p.Receivers == radio.DualReceive }
