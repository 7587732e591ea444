package find

import (
	"slices"
	"strconv"
	"strings"
	"time"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/evidence"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

// Scene is where somebody looks around from, and what their radio can do and
// holds already.
type Scene struct {
	Band   *band.Plan
	Place  *geo.Point // nil if nobody has said where they are
	Height float64    // own aerial above the surrounding surface, metres
	Radius float64    // kilometres that count as around
	Today  time.Time
	Stale  int    // months after which a record is old
	Radio  string // what the radio is called; "" where there is none
	// Cannot says why the radio cannot use a frequency, or "". Nil can all.
	Cannot func(*listing.Record) string
	Marks  []Mark // places that somebody named
	Slots  []Slot // what all radios of the plan hold
}

// Slot is a channel in a radio.
type Slot struct {
	Channel channel.Channel
	Of      listing.ID // the statement that it was made from or is judged by; zero for none
	Load    int64
	Number  int
	Mine    bool // in the radio that is looked at
	Verdict evidence.Verdict
	Differs []string // the fields in which the channel is otherwise than published
	Why     string   // what is the matter with it, in a few words
}

// holds reports whether the channel is that of an entry: made from it or judged
// by it, or the same in all that opens it.
func (s *Slot) holds(e *Entry) bool {
	if s.Of != (listing.ID{}) && slices.ContainsFunc(e.Statements, func(r listing.Record) bool { return r.ID() == s.Of }) {
		return true
	}
	tx, sends := s.Channel.Transmit()
	switch {
	case e.Best.Kind == listing.ListenChannel:
		return true
	case !e.Best.IsRepeater():
		return !sends || tx == e.Best.Output
	}
	return sends && tx == e.Best.Input && e.Best.UplinkTone.Known && tone.Same(s.Channel.TransmitTone, e.Best.UplinkTone.Tone)
}

// radio is what the radio is called in a sentence.
func (s *Scene) radio() string {
	if s.Radio == "" {
		return "your radio"
	}
	return s.Radio
}

// Trust is how far what is published about a repeater can be relied on.
type Trust struct {
	Verdict evidence.Verdict
	Says    string
}

// trusts are the reasons for more or less trust, the first that applies counts.
var trusts = []struct {
	Trust
	when func(*seen) bool
}{
	{Trust{evidence.Conflict, "differ"}, func(e *seen) bool { return len(e.Conflicts) > 0 }},
	{Trust{evidence.Stop, "digital"}, func(e *seen) bool { return e.Best.Mode == listing.Digital }},
	{Trust{evidence.Stop, "private"}, func(e *seen) bool { return e.Best.Access == listing.Private }},
	{Trust{evidence.Unverified, "off the air"}, func(e *seen) bool { return e.Best.Status == listing.OffAir }},
	{Trust{evidence.Unverified, "closed"}, func(e *seen) bool { return e.Best.Access == listing.Closed }},
	{Trust{evidence.Unverified, "DTMF"}, func(e *seen) bool { return dtmf(e.Entry) }},
	{Trust{evidence.Unverified, "undated"}, func(e *seen) bool { return e.Best.Updated.IsZero() }},
	{Trust{evidence.Unverified, "old"}, func(e *seen) bool { return !e.since(e.stale) }},
	{Trust{evidence.Unverified, "only one"}, func(e *seen) bool { return e.lists < 2 }},
}

// trust says how far an entry can be relied on.
func (e *seen) trust() Trust {
	for _, t := range trusts {
		if t.when(e) {
			return t.Trust
		}
	}
	return Trust{evidence.Agrees, strconv.Itoa(e.lists) + " agree"}
}

// since reports whether a listing has confirmed the entry at or after a time.
func (e *Entry) since(t time.Time) bool {
	return !e.Best.Updated.IsZero() && !e.Best.Updated.Before(t)
}

func dtmf(e *Entry) bool { return strings.Contains(strings.ToUpper(e.Best.Note), "DTMF") }

// Days is how long ago a statement was confirmed; ok is false where nobody knows.
func (s *Scene) Days(r *listing.Record) (days int, ok bool) {
	if r.Updated.IsZero() || r.Updated.After(s.Today.AddDate(0, 0, 1)) { // a date to come says nothing; tomorrow is another time zone
		return 0, false
	}
	return max(0, int(s.Today.Sub(r.Updated.Time).Hours()/24)), true
}
