package logbook

import (
	"context"
	"fmt"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/tone"
	"mnemos/core/trial"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Search is the guided search for the tone of a channel.
type Search struct {
	Refused string  // why it is not to be searched, or ""
	Input   *Seat   // where others send; nil where the channel sends nothing
	Output  *Seat   // where the repeater sends; nil on a simplex channel
	Back    freq.Hz // where the radio belongs afterwards
	Hits    []store.Attempt
}

// Seat is a frequency to sit on while a tone is searched, with what came of it.
type Seat struct {
	Sit   freq.Hz
	State trial.Search
	Offer *Offer
}

// Offer is what is found, for the field where it belongs.
type Offer struct {
	Says  string
	Why   string
	Field channel.Field
	Tone  tone.Tone
	Same  bool // it is what is stored
}

// search is how far the search for the tone of a channel has come.
func (d *desk) search() Search {
	c := d.Entry.Channel
	s := Search{Hits: d.searches, Back: c.Receive}
	switch why := d.InSpace(d.Loaded); {
	case why != "":
		s.Refused = "Its input is far away: nobody who uses it is in direct range of you."
	case d.Closed() && d.said == nil:
		s.Refused = "The repeater is closed or private: leave it alone, or ask its owner and note here what was said."
	}
	hits := store.Hits(d.searches)
	if tx, ok := c.Transmit(); ok {
		s.Input = &Seat{Sit: tx, State: trial.Seek(trial.Input, hits)}
		s.Input.offer(c.TransmitTone, channel.FieldTransmitTone)
	}
	if tx, ok := c.Transmit(); !ok || tx != c.Receive {
		s.Output = &Seat{Sit: c.Receive, State: trial.Seek(trial.Output, hits)}
		s.Output.offer(c.ReceiveTone, channel.FieldReceiveTone)
	}
	return s
}

// offer is what the hits of a seat agree on, for the field where it belongs.
func (s *Seat) offer(stored tone.Tone, field channel.Field) {
	f := s.State.Found
	if f == nil {
		return
	}
	o := &Offer{Field: field, Tone: f.Tone, Same: tone.Same(f.Tone, stored)}
	switch input := field == channel.FieldTransmitTone; {
	case f.None && input:
		o.Says, o.Why = "Send no tone", "Nothing of either system was sent. Either it needs no tone, or the station that you heard does not open it: see whether the repeater answered."
	case f.None:
		o.Says, o.Why = "Wait for no tone", "Its output carries none: a radio that waits for one stays mute."
	case input:
		o.Says, o.Why = "Send "+f.Tone.Words(), fmt.Sprintf("%d searches on the input agree.", f.Hits)
	default:
		o.Says, o.Why = "Wait for "+f.Tone.Words(), fmt.Sprintf("%d searches on the output agree. It says nothing of what opens the repeater.", f.Hits)
	}
	if !f.Same.IsOff() {
		o.Why += fmt.Sprintf(" %s and %s are one signal: a radio may show either.", f.Tone, f.Same)
	}
	s.Offer = o
}

// SearchForm is a search as somebody tells of it.
type SearchForm struct {
	Side    trial.Side
	System  trial.System
	Tone    string // what the radio stopped at; "" for nothing
	At      string
	Spot    string
	Station string // who was sending
	Note    string
}

// Searched writes down what a search for a tone came to.
func (l *Logbook) Searched(ctx context.Context, loadID int64, slot int, form SearchForm) (*Card, error) {
	d, err := l.desk(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	s := d.search()
	if s.Refused != "" {
		f.Add("channel", "%s", s.Refused)
	}
	if form.Side != trial.Input && form.Side != trial.Output || form.Side == trial.Input && s.Input == nil || form.Side == trial.Output && s.Output == nil {
		f.Add("side", "say whether you sat on the input or the output")
	}
	if form.System != trial.CTCSS && form.System != trial.DCS {
		f.Add("system", "say what was searched: ctcss or dcs")
	}
	t := form.tone(f)
	at := told(form.At, l.now())
	texts(f, map[string]*string{"spot": &form.Spot, "station": &form.Station, "note": &form.Note})
	if err := f.Or(); err != nil {
		return nil, err
	}
	c := d.Entry.Channel
	row := store.Attempt{
		PlanID: d.Plan.ID, LoadID: loadID, ChannelID: d.Entry.ChannelID, PersonID: d.Me.ID, At: at, Kind: string(trial.Seeking), Answer: string(form.System), Yes: !t.IsOff(),
		Slot: slot, Name: c.Name, Receive: int64(c.Receive), Offset: int64(c.Offset()), ToneIn: t.String(), Width: string(c.Width), Power: string(c.Power),
		Spot: form.Spot, Callsign: d.Me.Callsign, Station: form.Station, Note: form.Note, Side: string(form.Side),
	}
	err = l.write(ctx, d, "note a tone search on "+c.Name, func(e *store.Edit) error {
		var err error
		if row.ID, err = e.ID("attempt"); err != nil {
			return err
		}
		return e.Put(row)
	})
	if err != nil {
		return nil, err
	}
	return l.Card(ctx, loadID, slot)
}

// tone is what the radio stopped at: one of the system that was searched.
func (form *SearchForm) tone(f *fault.Invalid) tone.Tone {
	text := strings.TrimSpace(form.Tone)
	if text == "" {
		return tone.Off
	}
	t, err := tone.Parse(text)
	like, kind := "a tone in Hz, such as 88.5", tone.CTCSS
	if form.System == trial.DCS {
		like, kind = "a code, such as 023 or D023I", tone.DCS
		if err != nil || t.Kind() != tone.DCS {
			t, err = tone.Parse("D" + text)
		}
	}
	if err != nil || t.Kind() != kind || !t.Standard() {
		f.Add("tone", "%s found %s: write what the radio stopped at, or say that it found nothing", form.System.Words(), like)
	}
	return t
}
