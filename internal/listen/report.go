package listen

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/radio"
	"mnemos/core/scan"
	"mnemos/internal/plan"
)

// Report is what a radio catches of what it scans.
type Report struct {
	Load         int64
	Unit         string
	At           time.Time // when what is heard is reckoned for
	Lists        []List
	Holds        int // scan lists that the radio has
	Scanned      int
	Rate         Rate
	Resume       scan.Resume
	Stay         float64
	Every        int
	HasPriority  bool
	Priority     int // slot; -1 for none
	Watch        int // slot on the other side; -1 for none
	Receivers    radio.Receivers
	Revision     int64
	Goal         Goal
	Says         string
	Why          []Line
	Chance       float64
	Reached      bool
	Best         *Way // what reaches the goal, or comes nearest; nil where nothing has to change
	Parts        []Way
	Rows         []Row
	Round        float64
	Overs, Heard float64 // an hour on all channels
	Half         Half
	HalfThen     *Half
	Curve        Curve
	Modes        []Mode
	Dual         Dual
	DiaryOf      string // channels whose rate is from the diary, of how many
	Guesses      int
}

// List is a scan list that can be scanned.
type List struct {
	ID       int64
	Name     string
	Channels int
	Chosen   bool
}

// Rate is how fast a radio looks.
type Rate struct {
	PerSecond float64
	Look      float64 // s
	Profile   float64 // a second, as the profile says
	Timed     bool
	Channels  int // timed: so many
	Seconds   float64
}

// Goal is what is wanted, as it was written and read.
type Goal struct {
	Line    string
	Words   []scan.Word
	Trouble string
	Slot    int // -1 for no channel
	Name    string
	Length  float64
	Share   float64
	Kept    bool // it is stored like this
}

// Line is a term and what it is.
type Line struct{ Term, Says string }

// Change is a change with its words.
type Change struct {
	Kind   scan.Kind
	Slot   int
	Resume scan.Resume
	Stay   float64
	Stays  []int // slots
	Says   string
}

// Way is a set of changes and what comes of it.
type Way struct {
	Changes []Change
	Chance  float64
	Heard   float64
	Short   float64 // of the goal; 0 where it is reached
	Loses   *Loss
	Label   string
}

// Loss is the channel that loses most.
type Loss struct {
	Name    string
	Was, Is float64
}

// Row is what the scan makes of one channel.
type Row struct {
	Slot        int
	Name, Short string
	Receive     freq.Hz
	In          bool
	Priority    bool
	Second      bool
	Opens       float64
	Lock        string // the tone that it waits for
	Talk        Talk
	By          By
	Chance      float64 // of an over as long as the goal's
	Then        *float64
	Figures     scan.Figures
	Missed      float64
	Call        *Call
}

// Call is what is called out about a channel, with what to do.
type Call struct {
	Kind  string // always, data, twin, never, stop
	Title string
	Short string
	Do    scan.Kind // leave, open, or "listen" for receive only; "" for nothing
	Label string
}

// Listen is the change that makes a channel receive only.
const (
	Listen scan.Kind = "listen"
	Back   scan.Kind = "back" // it is scanned again
)

// Half is half a minute of scanning.
type Half struct {
	Seconds float64
	Overs   map[int][]Over // by slot
	Visits  []Visit
}

// Over is an over with the parts that are heard.
type Over struct {
	From, To float64
	Heard    []scan.Over
}

// Visit is the receiver on a channel.
type Visit struct {
	Slot           int
	From, To       float64
	Stop, Priority bool
}

// Curve is the chance by the length of an over, for one channel.
type Curve struct {
	Slot      int
	Longest   float64
	Now, Then []float64 // at equal steps from 0
	Reach     float64   // s; +Inf where none is long enough
	ReachThen float64
}

// Mode is a way of going on with what it makes of this list.
type Mode struct {
	Resume scan.Resume
	Stay   float64
	Now    bool
	Round  float64
	Heard  float64
	Chance float64
	Says   string
}

// Ask is what somebody wants to see.
type Ask struct {
	Line string // of the goal; "" for the one that is kept
	Slot int    // the channel that is looked at; -1 for that of the goal
	At   time.Time
}

// Report works out what a radio catches.
func (l *Listening) Report(ctx context.Context, loadID int64, ask Ask) (*Report, error) {
	s, err := l.setting(ctx, loadID, ask.At)
	if err != nil {
		return nil, err
	}
	return s.report(ask), nil
}

func (s *setting) report(ask Ask) *Report {
	r := &Report{
		Load: s.row.LoadID, Unit: s.Unit.Title(), At: s.at, Resume: s.setup.Resume, Stay: s.setup.Stay, Every: s.setup.Every, HasPriority: s.hasPriority(),
		Priority: -1, Watch: -1, Receivers: s.Radio.Receivers, Revision: s.Revision, Rows: []Row{}, Why: []Line{}, Parts: []Way{}, Lists: []List{}, Modes: []Mode{},
		Holds: s.Radio.Scan.Lists,
	}
	for _, x := range s.lists {
		r.Lists = append(r.Lists, List{x.ID, x.Name, len(x.Members), slices.ContainsFunc(s.chosen, func(c plan.SetInfo) bool { return c.ID == x.ID })})
	}
	perSecond, timed := s.rate()
	r.Rate = Rate{perSecond, s.setup.Look, s.Radio.Scan.Rate, timed, s.row.TimedChannels, s.row.TimedSeconds}
	now := scan.Reckon(s.setup)
	if now.Setup.Priority != scan.None {
		r.Priority = s.items[now.Setup.Priority].Entry.Slot
	}
	if w := s.watched(); w != nil {
		r.Watch = w.Entry.Slot
	}
	r.Round, r.Overs, r.Heard = now.Round, now.Overs, now.Heard
	goal := s.goal(r, ask.Line)
	var then *scan.Result
	if goal.Channel != scan.None && r.Goal.Trouble == "" {
		then = s.ways(r, goal, now)
	}
	s.rows(r, goal, now, then)
	focus := goal.Channel
	if i := s.place(ask.Slot); i >= 0 {
		focus = i
	}
	s.draw(r, now, then, focus)
	s.curve(r, focus, goal, now, then)
	s.modes(r, goal)
	s.says(r, goal, now)
	r.Dual = s.dual(focus)
	return r
}

func (s *setting) rows(r *Report, g scan.Goal, now, then *scan.Result) {
	fromDiary, counted := 0, 0
	for i, x := range s.items {
		c := now.Setup.Channels[i]
		row := Row{
			Slot: x.Entry.Slot, Name: title(x), Short: x.Entry.ShortName, Receive: x.Entry.Channel.Receive, In: !c.Out, Second: c.Second,
			Priority: now.Setup.Priority == i, Opens: c.Opens, Lock: "", Talk: x.talk, By: x.by,
			Chance: now.Chance(i, g.Length), Figures: now.Of[i], Missed: now.Of[i].Missed,
		}
		if !x.Entry.Channel.ReceiveTone.IsOff() {
			row.Lock = x.Entry.Channel.ReceiveTone.String()
		}
		if then != nil {
			v := then.Chance(i, g.Length)
			row.Then = &v
		}
		if row.In || row.Second {
			r.Scanned++
			row.Call = s.call(i, now)
			if x.by != ByAlways {
				counted++
			}
			switch x.by {
			case ByDiary:
				fromDiary++
			case ByGuess:
				r.Guesses++
			default:
			}
		}
		r.Rows = append(r.Rows, row)
	}
	if fromDiary > 0 {
		r.DiaryOf = fmt.Sprintf("%d of %d", fromDiary, counted)
	}
}

// call is what must be said of a channel before its figures mislead.
func (s *setting) call(i int, now *scan.Result) *Call {
	x, f := s.items[i], now.Of[i]
	ch := x.Entry.Channel
	switch reason := x.stops(); {
	case x.by == ByAlways && s.setup.Resume == scan.Carrier:
		return &Call{"always", "never falls silent: " + s.Unit.Title() + " stays here for good", "never stops", scan.Leave, "leave out"}
	case x.by == ByAlways:
		return &Call{"always", fmt.Sprintf("never falls silent: takes %.1f s of every round", f.Stayed), "never stops", scan.Leave, "leave out"}
	case f.Never:
		return &Call{"never", fmt.Sprintf("a look of %.2f s never opens %s", s.setup.Look, ch.ReceiveTone), "never opens", scan.Open, "wait for no tone"}
	case x.data:
		return &Call{"data", fmt.Sprintf("data, no voice: stops you %.0f times an hour", f.Stops), "data", scan.Leave, "leave out"}
	case reason != "" && ch.Side.Kind != channel.Blocked:
		return &Call{"stop", "keying here would send: " + lower(reason), "must not send", Listen, "receive only"}
	case ch.Side.Kind == channel.Blocked && !s.Radio.Lock && s.Radio.CanTransmit(ch.Receive):
		return &Call{"stop", fmt.Sprintf("%s cannot block its transmitter: do not key when it stops here", s.Unit.Title()), "do not key", scan.Leave, "leave out"}
	}
	if o := s.setup.Channels[i].Output; o != 0 {
		for j := range i {
			if s.setup.Channels[j].Output == o && !s.setup.Channels[j].Out {
				return &Call{"twin", fmt.Sprintf("same output as %d: one over stops you twice", s.items[j].Entry.Slot), "twice", scan.Leave, "leave out"}
			}
		}
	}
	return nil
}

// lower begins in the middle of a sentence.
func lower(text string) string {
	if len(text) > 1 && text[0] >= 'A' && text[0] <= 'Z' && text[1] >= 'a' && text[1] <= 'z' {
		return strings.ToLower(text[:1]) + text[1:]
	}
	return text
}
