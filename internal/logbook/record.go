package logbook

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"
	"unicode"

	"mnemos/core/channel"
	"mnemos/core/evidence"
	"mnemos/core/standing"
	"mnemos/core/tone"
	"mnemos/core/trial"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

// Form is a try as somebody tells of it.
type Form struct {
	Kind     trial.Kind
	Setting  trial.Setting
	Answer   trial.Answer
	Yes      bool
	Negative bool   // a call that is to fail
	At       string // when; "" for now
	Spot     string
	Station  string
	Note     string
}

// Record writes a try into the log. What comes back to a call as the channel is stored
// proves it.
func (l *Logbook) Record(ctx context.Context, loadID int64, slot int, form Form) (*Card, error) {
	d, err := l.desk(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	at := form.check(f, d, l.now())
	if err := f.Or(); err != nil {
		return nil, err
	}
	if form.Kind == trial.Key {
		if err := l.mayKey(ctx, d, form); err != nil {
			return nil, err
		}
	}
	c := d.Entry.Channel
	row := store.Attempt{
		PlanID: d.Plan.ID, LoadID: loadID, ChannelID: d.Entry.ChannelID, PersonID: d.Me.ID, At: at, Kind: string(form.Kind), Answer: string(form.Answer), Yes: form.Yes,
		Negative: form.Negative, Slot: slot, Name: c.Name, Receive: int64(c.Receive), Offset: int64(form.Setting.Offset), ToneOut: form.Setting.Tone.String(), ToneIn: c.ReceiveTone.String(),
		Width: string(form.Setting.Width), Power: string(c.Power), Watts: d.Radio.Watts.Of(c.Power), PowerSet: form.Setting.Power, ModeSeen: form.Setting.Mode || form.Kind == trial.Look,
		Place: form.Setting.Where, Spot: form.Spot, Aerial: form.Setting.Aerial, Callsign: d.Me.Callsign, Station: form.Station, Note: form.Note,
	}
	err = l.write(ctx, d, label(d, form), func(e *store.Edit) error {
		var err error
		if row.ID, err = e.ID("attempt"); err != nil {
			return err
		}
		if err := e.Put(row); err != nil {
			return err
		}
		if !proves(row, c) {
			return nil
		}
		return e.Stand(store.Standing{LoadID: loadID, ChannelID: row.ChannelID, State: string(standing.Proven), Fingerprint: d.Fingerprint, PersonID: d.Me.ID, At: at})
	})
	if err != nil {
		return nil, err
	}
	return l.Card(ctx, loadID, slot)
}

func label(d *desk, form Form) string {
	name := d.Entry.Channel.Name
	if name == "" {
		name = d.Entry.Channel.Receive.String()
	}
	switch form.Kind {
	case trial.Listen:
		return "listen to " + name
	case trial.Look:
		return "look at the tone of " + name
	case trial.Ask:
		return "ask about " + name
	default:
		return fmt.Sprintf("test %s: %s", name, form.Answer)
	}
}

func (l *Logbook) write(ctx context.Context, d *desk, label string, f func(*store.Edit) error) error {
	stamp, err := l.fleet.Stamp(ctx, label)
	if err != nil {
		return err
	}
	return l.store.Edit(ctx, d.Plan.ID, plan.Latest, stamp, f)
}

// check says what is wrong with a try as it is told.
func (form *Form) check(f *fault.Invalid, d *desk, now time.Time) (at string) {
	at = told(form.At, now)
	texts(f, map[string]*string{"spot": &form.Spot, "station": &form.Station, "note": &form.Note})
	switch {
	case !slices.Contains([]trial.Kind{trial.Key, trial.Listen, trial.Look, trial.Ask}, form.Kind):
		f.Add("kind", "%q is not a try: use key, listen, look or ask", form.Kind)
	case form.Kind == trial.Key && !form.Answer.Valid():
		f.Add("answer", "say what came back: tail, ident, weak, reply or nothing")
	case form.Kind != trial.Key:
		form.Answer, form.Negative = "", false
	}
	if !slices.ContainsFunc(trial.Places(), func(p trial.Place) bool { return p.ID == form.Setting.Where }) {
		f.Add("where", "say where you stand: indoors, in the vehicle, in the open or higher")
	}
	if !slices.ContainsFunc(trial.Aerials(), func(a trial.Aerial) bool { return a.ID == form.Setting.Aerial }) {
		f.Add("aerial", "say which aerial you use")
	}
	if w := form.Setting.Width; w != channel.Wide && w != channel.Narrow {
		f.Add("width", "write wide or narrow")
	}
	if !d.keyed() {
		form.first(f, d)
		return at
	}
	changes := form.Setting.Changes(d.weighing.Last)
	says := strings.Join(changes, " and ")
	switch {
	case form.Negative && !slices.Equal(changes, []string{"tone"}):
		f.Add("setting", "a negative test changes the tone alone, against the last call")
	case form.Kind == trial.Key && len(changes) > 1:
		f.Add("setting", "change one thing a try: this changes %s", says)
	case form.Kind != trial.Key && len(changes) > 0:
		f.Add("setting", "without a call nothing is changed: this changes %s", says)
	}
	return at
}

// told is when something was. What waited until somebody listened says so itself; a clock
// that is far off is not believed.
func told(at string, now time.Time) string {
	if t, err := time.Parse(time.RFC3339, at); err == nil && !t.After(now.Add(time.Minute)) && now.Sub(t) < evening {
		now = t
	}
	return now.UTC().Format(time.RFC3339)
}

// texts are what is noted in one's own words.
func texts(f *fault.Invalid, fields map[string]*string) {
	for field, text := range fields {
		*text = strings.TrimSpace(*text)
		if len([]rune(*text)) > 200 || strings.ContainsFunc(*text, unicode.IsControl) {
			f.Add(field, "up to 200 characters, in one line")
		}
	}
}

// keyed reports whether there was a call this evening.
func (d *desk) keyed() bool {
	return slices.ContainsFunc(d.tries, func(a store.Attempt) bool { return a.Kind == string(trial.Key) && !a.Negative })
}

// first is a call as the channel is stored: only where one stands and the aerial are new.
func (form *Form) first(f *fault.Invalid, d *desk) {
	if form.Negative {
		f.Add("setting", "call first as the channel is stored; a negative test comes after an answer")
		return
	}
	if form.Kind == trial.Key && (form.Setting.Tone != d.Entry.Channel.TransmitTone || form.Setting.Offset != d.Entry.Channel.Offset() || form.Setting.Width != d.Entry.Channel.Width) {
		f.Add("setting", "call first as the channel is stored; then change one thing a try")
	}
}

// mayKey refuses what must not be keyed.
func (l *Logbook) mayKey(ctx context.Context, d *desk, form Form) error {
	f := &fault.Invalid{}
	if why := d.refused(); why != "" {
		f.Add("channel", "%s", why)
		return f.Or()
	}
	if d.Me.Callsign == "" {
		f.Add("callsign", "write your callsign first: every test begins and ends with it")
	}
	if form.Negative {
		d.negative(f, form)
	} else if s := form.Setting; s.Tone != d.facts.Start.Tone && !slices.Contains(d.facts.Tones, s.Tone) || s.Offset != d.facts.Start.Offset && !slices.Contains(d.facts.Offsets, s.Offset) {
		f.Add("setting", "only published values are tried, and those of the band plan")
	}
	if err := f.Or(); err != nil {
		return err
	}
	r, err := l.plans.Variants(ctx, d.loadID, d.Entry.Slot, []channel.Channel{d.with(form.Setting)})
	if err != nil {
		return err
	}
	if r[0].Verdict == evidence.Stop {
		f.Add("setting", "with this the channel must not go on the air")
	}
	return f.Or()
}

// negative is a call that is to fail: without a tone, or with one that nobody who is
// published on that output within reach listens for. Closed repeaters are left alone.
func (d *desk) negative(f *fault.Invalid, form Form) {
	if d.Closed() {
		f.Add("setting", "a closed repeater is not tried with a wrong tone")
		return
	}
	if form.Setting.Tone == d.Entry.Channel.TransmitTone {
		f.Add("setting", "a negative test is made without the tone, or with another one")
		return
	}
	for _, o := range d.Result.Outputs {
		if t := form.Setting.Tone; t != tone.Off && o.UplinkTone.Known && o.UplinkTone.Tone == t {
			f.Add("setting", "%s opens %s: choose another tone, or none", t, o.Title())
			return
		}
	}
}

// Permit keeps what the owner of a closed repeater said; with "" it is taken back.
func (l *Logbook) Permit(ctx context.Context, loadID int64, slot int, note string) (*Card, error) {
	d, err := l.desk(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	note = strings.TrimSpace(note)
	f := &fault.Invalid{}
	if len([]rune(note)) > 400 {
		f.Add("note", "up to 400 characters")
	}
	if note != "" && len([]rune(note)) < 8 {
		f.Add("note", "write who said it, when, and what: QX1OWN, on the phone, 25 Nov: tests are fine")
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	err = l.write(ctx, d, "note what the owner of "+d.Entry.Channel.Name+" said", func(e *store.Edit) error {
		switch {
		case note == "" && d.said != nil:
			return e.Drop("permission", d.said.ID)
		case note == "":
			return nil
		}
		p := store.Permission{PlanID: d.Plan.ID, Receive: int64(d.Entry.Channel.Receive), Note: note, PersonID: d.Me.ID, At: l.now().UTC().Format(time.RFC3339)}
		if d.said != nil {
			p.ID = d.said.ID
		} else if p.ID, err = e.ID("permission"); err != nil {
			return err
		}
		return e.Put(p)
	})
	if err != nil {
		return nil, err
	}
	return l.Card(ctx, loadID, slot)
}

// Keep stores what worked on the air as the channel: what came back to the last call is
// what is proven.
func (l *Logbook) Keep(ctx context.Context, loadID int64, slot int, revision int64) (*plan.Ledger, error) {
	d, err := l.desk(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	i := len(d.tries) - 1
	for i >= 0 && (d.tries[i].Kind != string(trial.Key) || d.tries[i].Negative) {
		i--
	}
	if i < 0 || !trial.Answer(d.tries[i].Answer).Back() {
		f.Add("channel", "nothing came back to the last call: there is nothing to keep")
		return nil, f.Or()
	}
	to := d.with(setting(d.tries[i]))
	if to == d.Entry.Channel {
		return l.plans.Ledger(ctx, loadID)
	}
	stamp, err := l.fleet.Stamp(ctx, "keep what worked on "+d.Entry.Channel.Name)
	if err != nil {
		return nil, err
	}
	entry := d.Entry
	entry.Channel = to
	held := standing.Fingerprint(standing.Held{Slot: entry.Slot, Channel: to, Short: entry.ShortName, Scan: entry.Scan}, d.Radio)
	err = l.store.Edit(ctx, d.Plan.ID, revision, stamp, func(e *store.Edit) error {
		if err := e.SetChannel(entry.ChannelID, to, entry.Repeater); err != nil {
			return err
		}
		return e.Stand(store.Standing{LoadID: loadID, ChannelID: entry.ChannelID, State: string(standing.Proven), Fingerprint: held, PersonID: d.Me.ID, At: d.tries[i].At})
	})
	if err != nil {
		return nil, err
	}
	return l.plans.Ledger(ctx, loadID)
}
