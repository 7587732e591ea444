// Package listen is the view of somebody who listens: what a radio scans of a plan and
// how, what that catches, what to change, and what was heard.
package listen

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strconv"
	"time"

	"mnemos/core/check"
	"mnemos/core/entry"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/radio"
	"mnemos/core/scan"
	"mnemos/core/service"
	"mnemos/core/tone"
	"mnemos/internal/fleet"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

// Listening works for one data file.
type Listening struct {
	store *store.Store
	fleet *fleet.Fleet
	plans *plan.Plans
	now   func() time.Time
}

// New returns the listening over a data file; now is the clock.
func New(s *store.Store, f *fleet.Fleet, p *plan.Plans, now func() time.Time) *Listening {
	return &Listening{store: s, fleet: f, plans: p, now: now}
}

// How long a squelch takes to open, in s. A tone decoder needs some periods of its tone
// (150 to 350 ms, common practice, no source); DCS at least two words of 23 bits at
// 134.4 bit/s; without a tone it is noise that has to go (a guess).
const (
	opensCarrier = 0.06
	opensTone    = 0.20
	opensDCS     = 2 * 23 / 134.4
)

// What is taken where nothing is known. Guesses, and said to be.
const (
	guessRate   = 10 // overs an hour
	guessLength = 6  // s
	dataRate    = 200
	dataLength  = 0.6
	usualEvery  = 3 // looks at others before one at the priority channel; common practice, no source
	usualStay   = 5
	usualHang   = 2  // s that a scan waits after a carrier has gone
	patience    = 30 // s until somebody presses a key in search mode
)

// Talk is what is on a channel, as somebody says or the diary tells.
type Talk struct {
	Rate   float64 `json:"rate"`   // overs an hour
	Length float64 `json:"length"` // s
}

// By is who says how much is on a channel.
type By string

// Who says how much is on a channel.
const (
	ByDiary  By = "diary"
	BySaid   By = "said"
	ByGuess  By = "guess"
	ByAlways By = "always"
)

// item is a channel that is scanned, or could be.
type item struct {
	plan.Loaded
	in       bool // in what is scanned
	priority bool
	data     bool
	by       By
	talk     Talk
}

// setting is a radio with how it scans.
type setting struct {
	*plan.Loading
	row    store.Listening
	lists  []plan.SetInfo // scan lists of the plan
	chosen []plan.SetInfo // that are scanned, one after another; none for all that is scanned
	items  []item         // by slot
	talk   map[string]Talk
	diary  diary
	at     time.Time // for which what is heard is reckoned
	setup  scan.Setup
	room   scan.Room
}

// rate is how many channels a second the radio looks at, and who says so.
func (s *setting) rate() (perSecond float64, timed bool) {
	if s.row.TimedChannels > 0 && s.row.TimedSeconds > 0 {
		return float64(s.row.TimedChannels) / s.row.TimedSeconds, true
	}
	return s.Radio.Scan.Rate, false
}

// resume is how the scan goes on.
func (s *setting) resume() scan.Resume {
	if s.row.Resume != "" {
		return scan.Resume(s.row.Resume)
	}
	if len(s.Radio.Scan.Resume) > 0 {
		return scan.Resume(s.Radio.Scan.Resume[0])
	}
	return scan.Time
}

// usual is how long the scan stays, in a way of going on.
func usual(r scan.Resume, p *radio.Profile) float64 {
	switch {
	case r == scan.Carrier:
		return usualHang
	case r == scan.Search:
		return patience
	case len(p.Scan.Seconds) > 0:
		return float64(p.Scan.Seconds[0])
	}
	return usualStay
}

func (s *setting) stay() float64 {
	if s.row.Stay >= 0 {
		return s.row.Stay
	}
	return usual(s.resume(), s.Radio)
}

// watched is the channel on the other side, or nil.
func (s *setting) watched() *item {
	for i := range s.items {
		if s.row.WatchID != 0 && s.items[i].Entry.ChannelID == s.row.WatchID {
			return &s.items[i]
		}
	}
	return nil
}

// setting reads how a radio scans. at is for when it is reckoned; the zero time is now.
func (l *Listening) setting(ctx context.Context, loadID int64, at time.Time) (*setting, error) {
	loading, err := l.plans.Loading(ctx, loadID)
	if err != nil {
		return nil, err
	}
	// the hours of the diary are those of the clock here
	s := &setting{Loading: loading, at: cmp.Or(at, l.now()).In(l.now().Location())}
	if s.row, err = l.store.Listening(ctx, loadID); err != nil {
		return nil, err
	}
	if err := json.Unmarshal([]byte(s.row.Talk), &s.talk); err != nil {
		return nil, fmt.Errorf("read what is on the channels of load %d: %w", loadID, err)
	}
	if err := l.readLists(ctx, s); err != nil {
		return nil, err
	}
	if s.diary, err = l.diary(ctx, s); err != nil {
		return nil, err
	}
	for _, c := range loading.Channels {
		s.items = append(s.items, s.item(c))
	}
	s.arrange()
	return s, nil
}

func (l *Listening) readLists(ctx context.Context, s *setting) error {
	sets, err := l.plans.Sets(ctx, s.Plan.ID)
	if err != nil {
		return err
	}
	for _, x := range sets {
		if x.Kind == "scan" {
			s.lists = append(s.lists, x)
		}
	}
	for _, id := range s.row.Sets {
		i := slices.IndexFunc(s.lists, func(x plan.SetInfo) bool { return strconv.FormatInt(x.ID, 10) == id })
		if i >= 0 {
			s.chosen = append(s.chosen, s.lists[i])
		}
	}
	return nil
}

func (s *setting) item(c plan.Loaded) item {
	ch := c.Entry.Channel
	x := item{Loaded: c, data: slices.Contains(s.Band.APRS, ch.Receive)}
	if len(s.chosen) == 0 {
		x.in, x.priority = c.Entry.Scan != entry.ScanSkip, c.Entry.Scan == entry.ScanPriority
	}
	for _, set := range s.chosen {
		for _, m := range set.Members {
			if m.ChannelID == c.Entry.ChannelID {
				x.in, x.priority = true, x.priority || m.Priority
			}
		}
	}
	if !s.Radio.CanReceive(ch.Receive) {
		x.in = false
	}
	x.talk, x.by = Talk{guessRate, guessLength}, ByGuess
	if x.data {
		x.talk = Talk{dataRate, dataLength}
	}
	said, ok := s.talk[key(ch.Receive)]
	if ok && said.Length > 0 {
		x.talk.Length = said.Length
	}
	switch rate, _, known := s.diary.of(ch.Receive).At(s.at); {
	case s.broadcasts(ch.Receive):
		x.by, x.talk = ByAlways, Talk{}
	case ok && said.Rate > 0:
		x.talk.Rate, x.by = said.Rate, BySaid
	case known:
		x.talk.Rate, x.by = rate, ByDiary
	}
	return x
}

func key(f freq.Hz) string { return strconv.FormatInt(int64(f), 10) }

// broadcasts reports whether a frequency never falls silent: that of a service which
// only sends.
func (s *setting) broadcasts(f freq.Hz) bool {
	for _, v := range service.Of(s.Plan.Region) {
		if !v.Transmit && slices.ContainsFunc(v.Channels, func(c service.Channel) bool { return c.Frequency == f }) {
			return true
		}
	}
	return false
}

// opens is how long the squelch takes on a channel.
func opens(t tone.Tone) float64 {
	switch {
	case t.IsOff():
		return opensCarrier
	case t.Kind() == tone.DCS:
		return opensDCS
	}
	return opensTone
}

// arrange makes what is reckoned of what is set.
func (s *setting) arrange() {
	rate, _ := s.rate()
	s.setup = scan.Setup{Look: 1 / max(0.1, rate), Resume: s.resume(), Stay: s.stay(), Priority: scan.None, Every: cmp.Or(s.row.Every, usualEvery)}
	same := map[string]int{}
	for i, x := range s.items {
		c := x.Entry.Channel
		heard := c.Receive.String() + " " + c.ReceiveTone.String()
		if same[heard] == 0 {
			same[heard] = len(same) + 1
		}
		s.setup.Channels = append(s.setup.Channels, scan.Channel{
			Opens: opens(c.ReceiveTone), Rate: x.talk.Rate, Length: x.talk.Length, Always: x.by == ByAlways, Out: !x.in, Output: same[heard],
		})
		if x.priority && x.in && s.setup.Priority == scan.None && s.hasPriority() {
			s.setup.Priority = i
		}
		if w := s.watched(); w != nil && w.Entry.ID == x.Entry.ID {
			switch s.Radio.Receivers {
			case radio.DualReceive:
				s.setup.Channels[i].Second = true
			case radio.DualWatch:
				s.setup.Priority, s.setup.Every = i, 1
				s.setup.Channels[i].Out = false
			}
		}
	}
	s.room = scan.Room{
		Priority: s.hasPriority(), Every: cmp.Or(s.row.Every, usualEvery), Watch: s.Radio.Receivers == radio.DualWatch, Second: s.Radio.Receivers == radio.DualReceive,
		Lists: s.Radio.Scan.Lists > 1, Carrier: opensCarrier,
	}
	for _, r := range s.Radio.Scan.Resume {
		seconds := []float64{usual(scan.Resume(r), s.Radio)}
		if r == "time" {
			seconds = nil
			for _, n := range s.Radio.Scan.Seconds {
				seconds = append(seconds, float64(n))
			}
		}
		if r == "search" {
			continue // it stays where it stopped: no way to hear more elsewhere
		}
		for _, n := range seconds {
			s.room.Resumes = append(s.room.Resumes, scan.Option{Resume: scan.Resume(r), Stay: n})
		}
	}
}

// hasPriority reports whether the radio has priority looks.
func (s *setting) hasPriority() bool { return s.Radio.Crib[radio.Priority] != "" }

// named are the channels as people speak of them.
func (s *setting) named() []scan.Named {
	out := make([]scan.Named, len(s.items))
	for i, x := range s.items {
		out[i] = scan.Named{Slot: x.Entry.Slot, Name: x.Entry.Channel.Name}
	}
	return out
}

// at returns the place of a slot; scan.None where nothing is in it.
func (s *setting) place(slot int) int {
	return slices.IndexFunc(s.items, func(x item) bool { return x.Entry.Slot == slot })
}

// stops reports why a channel must not go on the air, or "".
func (x item) stops() string {
	if x.Result.Verdict != evidence.Stop {
		return ""
	}
	for _, f := range x.Result.Findings {
		if f.Severity == check.Stop {
			return f.Title
		}
	}
	return "must not go on the air as it is"
}
