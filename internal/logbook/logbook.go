// Package logbook is what happened on the air: test cards for channels, tries with what
// came back, why nothing did and what to change next, and the log of all of it.
package logbook

import (
	"context"
	"fmt"
	"slices"
	"time"

	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/tone"
	"mnemos/core/trial"
	"mnemos/internal/fault"
	"mnemos/internal/fleet"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

// Logbook works for one data file.
type Logbook struct {
	store *store.Store
	fleet *fleet.Fleet
	plans *plan.Plans
	now   func() time.Time
}

// New returns the log over a data file; now is the clock.
func New(s *store.Store, f *fleet.Fleet, p *plan.Plans, now func() time.Time) *Logbook {
	return &Logbook{store: s, fleet: f, plans: p, now: now}
}

// Attempt is one line of the log.
type Attempt = store.Attempt

// evening is how long tries belong together: after it the world may be another one.
const evening = 12 * time.Hour

// Card is a test of one channel: what to set, what to say, and what to change next.
type Card struct {
	Load       int64
	Slot       int
	Name       string
	Unit       string
	Channel    channel.Channel // as it is stored
	Refused    string          // why it must not be keyed, or ""
	Closed     bool            // its owner is to be asked first
	Owner      string          // who that is, as far as it is published
	Permission *store.Permission
	Callsign   string
	Clock      Clock
	Setting    trial.Setting // of the last call
	Tries      []store.Attempt
	Causes     []trial.Cause
	Found      bool // nothing that is left to do would tell more
	Answered   bool // something came back to the last call
	Acts       []Act
	Meant      *listing.Match
	Standing   plan.Standing
	Search     Search
	Basis      string
	Watts      float64
	Revision   int64
}

// Clock is when the callsign is due.
type Clock struct {
	Minutes int
	Source  string
	First   string // of this test, RFC 3339; "" for none within the minutes
}

// Act is what can be done next, with the channel as it would be then.
type Act struct {
	trial.Act
	Channel channel.Channel
	Why     string // who says so
}

// desk is a channel that is tested, with what is known of it.
type desk struct {
	*plan.Loading
	plan.Loaded
	loadID   int64
	tries    []store.Attempt // of this evening, oldest first
	searches []store.Attempt // for its tone, ever, on the frequency that it has
	facts    trial.Facts
	weighing *trial.Weighing
	said     *store.Permission
}

func (l *Logbook) desk(ctx context.Context, loadID int64, slot int) (*desk, error) {
	loading, err := l.plans.Loading(ctx, loadID)
	if err != nil {
		return nil, err
	}
	i := slices.IndexFunc(loading.Channels, func(c plan.Loaded) bool { return c.Entry.Slot == slot })
	if i < 0 {
		return nil, fmt.Errorf("a channel in slot %d: %w", slot, fault.ErrNotFound)
	}
	d := &desk{Loading: loading, Loaded: loading.Channels[i], loadID: loadID}
	all, err := l.store.Attempts(ctx, loading.Plan.ID)
	if err != nil {
		return nil, err
	}
	for _, a := range all {
		at, err := time.Parse(time.RFC3339, a.At)
		if err != nil {
			return nil, fmt.Errorf("read the log: %w", err)
		}
		if a.ChannelID != d.Entry.ChannelID {
			continue
		}
		switch trial.Kind(a.Kind) {
		case trial.Contact:
		case trial.Seeking:
			if a.Receive == int64(d.Entry.Channel.Receive) {
				d.searches = append(d.searches, a)
			}
		default:
			if a.LoadID == loadID && l.now().Sub(at) < evening {
				d.tries = append(d.tries, a)
			}
		}
	}
	said, err := l.store.Permissions(ctx, loading.Plan.ID)
	if err != nil {
		return nil, err
	}
	if p, ok := said[int64(d.Entry.Channel.Receive)]; ok {
		d.said = &p
	}
	d.facts = d.known()
	d.weighing = trial.Weigh(d.facts, d.weighed())
	return d, nil
}

// start is how the first call is set.
func (d *desk) start() trial.Setting {
	c := d.Entry.Channel
	s := trial.Setting{Tone: c.TransmitTone, Offset: c.Offset(), Width: c.Width, Where: "open", Aerial: "short"}
	for _, a := range d.tries { // where the first one was made
		if a.Kind == string(trial.Key) && !a.Negative {
			return setting(a)
		}
	}
	return s
}

// setting is how a try was set.
func setting(a store.Attempt) trial.Setting {
	t, err := tone.Parse(a.ToneOut)
	if err != nil {
		t = tone.Off
	}
	return trial.Setting{Tone: t, Offset: freq.Offset(a.Offset), Width: channel.Width(a.Width), Power: a.PowerSet, Mode: a.ModeSeen, Where: a.Place, Aerial: a.Aerial}
}

// weighed are the tries as causes are weighed by them. A negative test was to fail: it
// says nothing of why nothing comes back.
func (d *desk) weighed() (out []trial.Try) {
	for _, a := range d.tries {
		if a.Negative {
			continue
		}
		back := a.Yes
		if a.Kind == string(trial.Key) {
			back = trial.Answer(a.Answer).Back()
		}
		out = append(out, trial.Try{Kind: trial.Kind(a.Kind), Setting: setting(a), Back: back})
	}
	return out
}

// known are the facts of a channel: what is published, other than what is set, and
// passes the check on the transmit side.
func (d *desk) known() trial.Facts {
	c := d.Entry.Channel
	f := trial.Facts{Start: d.start(), Tone: trial.None, Shift: trial.None, SendsTone: !c.TransmitTone.IsOff()}
	// What two searches on the input agree on is as good as what is published.
	if found := trial.Seek(trial.Input, store.Hits(d.searches)).Found; found != nil && !found.None && !tone.Same(found.Tone, c.TransmitTone) {
		f.Tone, f.Tones = trial.Differ, append(f.Tones, found.Tone)
	}
	m := d.Result.Meant
	if m == nil {
		return f
	}
	f.Shift = trial.Agree
	if f.Tone == trial.None {
		f.Tone = trial.Agree
	}
	for _, o := range d.Result.Outputs {
		if o.ID() != m.ID() && (o.Repeater == 0 || o.Repeater != m.Repeater) {
			continue
		}
		if t := o.UplinkTone.Tone; o.UplinkTone.Known && t != c.TransmitTone {
			f.Tone = trial.Differ
			if !slices.Contains(f.Tones, t) {
				f.Tones = append(f.Tones, t)
			}
		}
		if off, ok := o.Offset(); ok && off != c.Offset() {
			f.Shift = trial.Differ
			if !slices.Contains(f.Offsets, off) {
				f.Offsets = append(f.Offsets, off)
			}
		}
		if o.Width != "" && o.Width != string(c.Width) {
			f.Width = true
		}
	}
	if f.Tone == trial.Agree && d.stale(m) {
		f.Tone = trial.Stale
	}
	if m.Distance != nil && m.Horizon && m.Reach > 0 {
		f.Reach = *m.Distance / m.Reach
	}
	f.OffAir = m.Status == listing.OffAir || d.Closed()
	return f
}

// stale reports whether nobody has confirmed the record for a year.
func (d *desk) stale(m *listing.Match) bool {
	return !m.Updated.IsZero() && m.Updated.AddDate(0, check.Defaults(d.At).Stale, 0).Before(d.At)
}

// refused says why a channel must not be keyed for a test, or "".
func (d *desk) refused() string {
	c := d.Entry.Channel
	tx, transmits := c.Transmit()
	switch {
	case d.Me.Unlicensed:
		return "You said that you have no licence yet: listen, and let somebody else call."
	case !transmits:
		return "The channel is for listening."
	case d.Result.Verdict == evidence.Stop:
		for _, f := range d.Result.Findings {
			if f.Severity == check.Stop {
				return f.Title + ". It must not go on the air as it is."
			}
		}
		return "It must not go on the air as it is."
	case !d.Radio.CanTransmit(tx):
		return fmt.Sprintf("%s does not transmit on %s.", d.Unit.Title(), tx)
	}
	if why := d.InSpace(d.Loaded); why != "" {
		return why
	}
	if d.Closed() && d.said == nil {
		return "The repeater is closed or private: ask its owner first, and note here what was said."
	}
	return ""
}

// with is the channel as a try sets it.
func (d *desk) with(s trial.Setting) channel.Channel { return as(d.Entry.Channel, s) }
