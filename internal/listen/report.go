package listen

import (
	"context"
	"fmt"
	"math"
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

// goal reads what is wanted: what the line says, and where it says nothing what is kept.
func (s *setting) goal(r *Report, line string) scan.Goal {
	names := s.named()
	kept := scan.Ask(s.row.Goal, names)
	g := scan.Goal{Channel: scan.None, Length: 5, Share: 0.9}
	for i, x := range s.items { // without any: a channel that is scanned
		if x.in && x.by != ByAlways && !x.data && (g.Channel == scan.None || x.talk.Rate > s.items[g.Channel].talk.Rate) {
			g.Channel = i
		}
	}
	use := func(a scan.Asked) {
		if a.Channel {
			g.Channel = a.Goal.Channel
		}
		if a.Length {
			g.Length = a.Goal.Length
		}
		if a.Share {
			g.Share = a.Goal.Share
		}
	}
	if kept.Trouble == "" {
		use(kept)
	}
	r.Goal = Goal{Line: line, Words: []scan.Word{}, Slot: -1, Kept: s.row.Goal != "" && (line == "" || line == s.row.Goal)}
	if line == "" {
		line = s.row.Goal
		if line == "" && g.Channel != scan.None {
			line = g.Line(names)
		}
		r.Goal.Line = line
	}
	asked := scan.Ask(line, names)
	r.Goal.Words, r.Goal.Trouble = append(r.Goal.Words, asked.Words...), asked.Trouble
	if asked.Trouble == "" {
		use(asked)
	}
	if g.Channel != scan.None {
		x := s.items[g.Channel]
		r.Goal.Slot, r.Goal.Name = x.Entry.Slot, title(x)
		if r.Goal.Trouble == "" && s.setup.Channels[g.Channel].Out {
			r.Goal.Trouble = fmt.Sprintf("%s is not scanned. Put it back, or choose another channel.", title(x))
		}
	}
	r.Goal.Length, r.Goal.Share = g.Length, g.Share
	return g
}

// title is what a channel is called.
func title(x item) string {
	if n := x.Entry.Channel.Name; n != "" {
		return n
	}
	return x.Entry.Channel.Receive.String()
}

// asGood is how near to the goal counts as reached: what the figures show as the same.
const asGood = 0.005

// ways looks for what reaches the goal.
func (s *setting) ways(r *Report, g scan.Goal, now *scan.Result) *scan.Result {
	r.Chance = now.Chance(g.Channel, g.Length)
	g.Share -= asGood
	if r.Reached = r.Chance >= g.Share; r.Reached {
		return nil
	}
	best, ok := scan.Reach(s.setup, g, s.room)
	if best.Result == nil || !ok && best.Chance <= r.Chance+0.001 {
		return nil
	}
	w := s.way(best, g, now)
	r.Best = &w
	add := func(x scan.Way) {
		if len(r.Parts) < 4 {
			r.Parts = append(r.Parts, s.way(x, g, now))
		}
	}
	if len(best.Changes) > 1 {
		for _, c := range best.Changes {
			with := scan.Reckon(s.setup.With([]scan.Change{c}, s.room))
			add(scan.Way{Changes: []scan.Change{c}, Result: with, Chance: with.Chance(g.Channel, g.Length)})
		}
	} else {
		for _, x := range scan.Alternatives(s.setup, g, s.room) {
			if x.Changes[0].Kind != best.Changes[0].Kind && x.Chance > r.Chance+asGood {
				add(x)
			}
		}
	}
	return best.Result
}

func (s *setting) way(w scan.Way, g scan.Goal, now *scan.Result) Way {
	out := Way{Chance: w.Chance, Heard: w.Result.Heard, Short: max(0, g.Share-w.Chance), Changes: []Change{}}
	for _, c := range w.Changes {
		out.Changes = append(out.Changes, s.change(c))
	}
	switch len(out.Changes) {
	case 1:
		out.Label = "Make this change"
	case 2:
		out.Label = "Make both changes"
	default:
		out.Label = fmt.Sprintf("Make these %d changes", len(out.Changes))
	}
	gone := map[int]bool{}
	for _, c := range w.Changes {
		if c.Kind == scan.Leave {
			gone[c.Channel] = true
		}
	}
	for i, x := range s.items {
		if !x.in || gone[i] || x.by == ByAlways || x.data {
			continue
		}
		was, is := now.Chance(i, g.Length), w.Result.Chance(i, g.Length)
		if was-is > 0.03 && (out.Loses == nil || was-is > out.Loses.Was-out.Loses.Is) {
			out.Loses = &Loss{title(x), was, is}
		}
	}
	return out
}

// change puts a change into words.
func (s *setting) change(c scan.Change) Change {
	out := Change{Kind: c.Kind, Slot: -1, Resume: c.Resume, Stay: c.Stay, Stays: []int{}}
	name := ""
	if c.Channel != scan.None && c.Channel < len(s.items) {
		out.Slot, name = s.items[c.Channel].Entry.Slot, title(s.items[c.Channel])
	}
	switch c.Kind {
	case scan.Leave:
		out.Says = "Leave out " + name
	case scan.Prefer:
		if out.Says = "Priority to " + name; s.setup.Priority != scan.None && s.watched() == nil {
			out.Says += ", not " + title(s.items[s.setup.Priority])
		}
	case scan.Watch:
		out.Says = fmt.Sprintf("Dual watch with %s on the other side", name)
	case scan.Second:
		out.Says = fmt.Sprintf("Leave the second receiver on %s", name)
	case scan.GoOn:
		out.Says = "Go on " + goesOn(c.Resume, c.Stay)
	case scan.Open:
		out.Says = fmt.Sprintf("Wait for no tone on %s", name)
	case scan.SplitOff:
		for _, i := range c.Stays {
			out.Stays = append(out.Stays, s.items[i].Entry.Slot)
		}
		out.Says = fmt.Sprintf("Split the list: %s and %d more stay, the others get a list of their own", name, max(0, len(c.Stays)-1))
	}
	return out
}

// goesOn is how a scan goes on.
func goesOn(r scan.Resume, stay float64) string {
	switch r {
	case scan.Carrier:
		return fmt.Sprintf("%s s after the signal has gone", short(stay))
	case scan.Search:
		return "when you press a key"
	}
	return fmt.Sprintf("after %s s, whatever is heard", short(stay))
}

func short(x float64) string {
	return strings.TrimSuffix(fmt.Sprintf("%.1f", x), ".0")
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

// seconds is how long is drawn.
const seconds = 30

func (s *setting) draw(r *Report, now, then *scan.Result, focus int) {
	d := scan.Draw(now, seconds, focus)
	r.Half = s.half(now.Setup, d)
	if then != nil {
		h := s.half(then.Setup, scan.Follow(then.Setup, d.Overs, seconds))
		r.HalfThen = &h
	}
}

func (s *setting) half(setup scan.Setup, d scan.Drawing) Half {
	h := Half{Seconds: d.Seconds, Overs: map[int][]Over{}, Visits: []Visit{}}
	for i, overs := range d.Overs {
		for _, o := range overs {
			if o.To <= 0 || o.From >= d.Seconds {
				continue
			}
			x := Over{max(0, o.From), min(d.Seconds, o.To), []scan.Over{}}
			if setup.Channels[i].Second {
				x.Heard = append(x.Heard, scan.Over{From: x.From, To: x.To})
			}
			for _, part := range d.Heard(setup, i, o) {
				if from, to := max(0, part.From), min(d.Seconds, part.To); to > from {
					x.Heard = append(x.Heard, scan.Over{From: from, To: to})
				}
			}
			h.Overs[s.items[i].Entry.Slot] = append(h.Overs[s.items[i].Entry.Slot], x)
		}
	}
	for _, v := range d.Visits {
		h.Visits = append(h.Visits, Visit{s.items[v.Channel].Entry.Slot, v.From, v.To, v.Stop, v.Priority})
	}
	return h
}

// points is how many steps a curve has.
const points = 60

func (s *setting) curve(r *Report, focus int, g scan.Goal, now, then *scan.Result) {
	r.Curve = Curve{Slot: -1, Longest: 12, Now: []float64{}, Then: []float64{}}
	if focus == scan.None {
		return
	}
	r.Curve.Slot = s.items[focus].Entry.Slot
	for r.Curve.Longest < 1.6*g.Length {
		r.Curve.Longest *= 2
	}
	for i := range points + 1 {
		length := r.Curve.Longest * float64(i) / points
		r.Curve.Now = append(r.Curve.Now, now.Chance(focus, length))
		if then != nil {
			r.Curve.Then = append(r.Curve.Then, then.Chance(focus, length))
		}
	}
	r.Curve.Reach = now.Reach(focus, g.Share)
	if then != nil {
		r.Curve.ReachThen = then.Reach(focus, g.Share)
	}
}

// modes says what each way of going on makes of this list.
func (s *setting) modes(r *Report, g scan.Goal) {
	seen := []scan.Option{}
	add := func(resume scan.Resume, stay float64, is bool) {
		if slices.Contains(seen, scan.Option{Resume: resume, Stay: stay}) {
			return
		}
		seen = append(seen, scan.Option{Resume: resume, Stay: stay})
		setup := s.setup
		setup.Resume, setup.Stay = resume, stay
		with := scan.Reckon(setup)
		m := Mode{Resume: resume, Stay: stay, Now: is, Round: with.Round, Heard: with.Heard}
		if g.Channel != scan.None {
			m.Chance = with.Chance(g.Channel, g.Length)
		}
		switch {
		case with.Stuck != scan.None:
			m.Says = fmt.Sprintf("stays on %s for good: it never falls silent", title(s.items[with.Stuck]))
		case resume == scan.Carrier:
			m.Says = fmt.Sprintf("stays until the signal has gone, and %s s more", short(stay))
		case resume == scan.Search:
			m.Says = fmt.Sprintf("stops at the first and stays; reckoned with %s s until you press a key", short(stay))
		default:
			m.Says = fmt.Sprintf("goes on after %s s, also in the middle of an over", short(stay))
		}
		r.Modes = append(r.Modes, m)
	}
	add(s.setup.Resume, s.setup.Stay, true)
	for _, m := range s.Radio.Scan.Resume {
		if m == "time" {
			for _, n := range s.Radio.Scan.Seconds {
				add(scan.Time, float64(n), false)
			}
			continue
		}
		add(scan.Resume(m), usual(scan.Resume(m), s.Radio), false)
	}
}

// says puts the result into a sentence, and the reckoning into lines.
func (s *setting) says(r *Report, g scan.Goal, now *scan.Result) {
	unit := s.Unit.Title()
	switch {
	case len(s.items) == 0:
		r.Goal.Trouble = "" // there is nothing that it could mean
		r.Says = fmt.Sprintf("%s holds no channels yet. Add some in Plan or Find, then say here what you want to hear, such as: %s", unit, scan.Such)
		return
	case r.Scanned == 0:
		r.Says = fmt.Sprintf("%s scans nothing. Choose a list, or put channels back.", unit)
		return
	case g.Channel == scan.None || r.Goal.Trouble != "":
		return
	}
	c, f := now.Setup.Channels[g.Channel], now.Of[g.Channel]
	name := title(s.items[g.Channel])
	hears := fmt.Sprintf("%s hears %s of 10.", unit, ten(r.Chance))
	switch {
	case c.Second:
		r.Says = hears + " Its second receiver stays on " + name + "."
	case c.Always:
		r.Says = fmt.Sprintf("%s never falls silent: whenever %s looks, it hears it.", name, unit)
	case f.Never:
		r.Says = hears + fmt.Sprintf(" A look of %.2f s is too short for %s, which needs %.2f s.", s.setup.Look, s.items[g.Channel].Entry.Channel.ReceiveTone, c.Opens)
	case now.Stuck != scan.None:
		r.Says = hears + fmt.Sprintf(" It stays on %s, which never falls silent.", title(s.items[now.Stuck]))
	case r.Scanned == 1:
		r.Says = hears + " It looks at nothing else."
	default:
		r.Says = hears + fmt.Sprintf(" It is away for %.1f s at a time", f.Away)
		if i, takes := s.thief(now, g.Channel); i != scan.None {
			r.Says += fmt.Sprintf(", and spends %.1f s of them on %s", takes, title(s.items[i]))
		}
		r.Says += "."
	}
	if now.Stuck == scan.None && !c.Second {
		r.Why = s.why(r, g, now)
	}
}

func ten(share float64) string { return fmt.Sprintf("%.1f", 10*share) }

// thief is the channel that takes most of the time away from another, and how much of
// a round; None where all take about the same.
func (s *setting) thief(now *scan.Result, from int) (i int, takes float64) {
	i = scan.None
	var sum float64
	for j := range now.Of {
		if j == from || math.IsInf(now.Round, 1) {
			continue
		}
		t := now.Of[j].Share * now.Of[from].Return
		sum += t
		if t > takes {
			i, takes = j, t
		}
	}
	if takes < 0.2*sum || takes < 0.5 {
		return scan.None, 0
	}
	return i, takes
}

func (s *setting) why(r *Report, g scan.Goal, now *scan.Result) []Line {
	f, c := now.Of[g.Channel], now.Setup.Channels[g.Channel]
	rate := fmt.Sprintf("the profile says %.1f channels a second", r.Rate.Profile)
	if r.Rate.Timed {
		rate = fmt.Sprintf("timed: %d channels in %s s", r.Rate.Channels, short(r.Rate.Seconds))
	}
	opens := "the squelch needs"
	if lock := s.items[g.Channel].Entry.Channel.ReceiveTone; !lock.IsOff() {
		opens = "the decoder of " + lock.String() + " needs"
	}
	stops := now.Round - now.Looks*now.Setup.Look
	out := []Line{
		{"looks", fmt.Sprintf("%.0f a round, %.2f s each (%s); %s %.2f s of it", now.Looks, now.Setup.Look, rate, opens, c.Opens)},
		{"stops", fmt.Sprintf("%s goes on %s; stops take %.1f s of a round of %.1f s", s.Unit.Title(), goesOn(now.Setup.Resume, now.Setup.Stay), stops, now.Round)},
		{"chance", fmt.Sprintf("an over is heard if it lasts into a look: %s + %.2f − 2 × %.2f = %.1f s of the %.1f s from look to look, and whatever begins while %s stays there. Rounds differ: all of them counted, %.2f", short(g.Length), now.Setup.Look, c.Opens, max(0, g.Length+now.Setup.Look-2*c.Opens), f.Return, s.Unit.Title(), r.Chance)},
	}
	if r.Guesses > 0 {
		out = append(out, Line{"guesses", fmt.Sprintf("nobody has listened long enough to %s: %d overs an hour of %d s are taken there", many(r.Guesses, "channel"), guessRate, guessLength)})
	}
	return out
}

func many(n int, what string) string {
	if n == 1 {
		return "one " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

// Dual is what the two sides of a radio would do.
type Dual struct {
	Says  string
	Asks  bool // it can hear another side, and none is chosen
	Cases []Case
}

// Case is a signal on one side while the other is selected.
type Case struct {
	Side     string // A or B: the one that is selected
	Slot     int
	Name     string
	Hears    freq.Hz
	Sends    *freq.Hz // nil where nothing is sent
	Bad      string   // why that must not be, or ""
	Lockable bool     // the radio can block its transmitter there
}

func (s *setting) dual(focus int) Dual {
	d := Dual{Cases: []Case{}}
	unit := s.Unit.Title()
	switch s.Radio.Receivers {
	case radio.DualWatch:
		d.Says = "the selected side sends, whichever it hears"
	case radio.DualReceive:
		d.Says = "both sides are heard at once; the selected one sends"
	default:
		d.Says = fmt.Sprintf("%s has one receiver and no dual watch", unit)
		return d
	}
	b := s.watched()
	if b == nil || focus == scan.None || s.items[focus].Entry.ID == b.Entry.ID {
		d.Asks = b == nil
		if b == nil {
			return d
		}
	}
	a := s.items[max(0, focus)]
	if a.Entry.ID == b.Entry.ID {
		i := slices.IndexFunc(s.items, func(x item) bool { return x.in && x.Entry.ID != b.Entry.ID })
		if i < 0 {
			return d
		}
		a = s.items[i]
	}
	d.Cases = append(d.Cases, s.side("A", a, *b), s.side("B", *b, a))
	return d
}

func (s *setting) side(name string, selected, other item) Case {
	c := Case{Side: name, Slot: selected.Entry.Slot, Name: title(selected), Hears: other.Entry.Channel.Receive, Lockable: s.Radio.Lock}
	ch := selected.Entry.Channel
	tx, ok := ch.Transmit()
	switch reason := selected.stops(); {
	case !ok && s.Radio.Lock:
	case !ok && s.Radio.CanTransmit(ch.Receive):
		c.Sends, c.Bad = &ch.Receive, "receive only, and the radio cannot block its transmitter"
	case !ok:
	default:
		c.Sends, c.Bad = &tx, lower(reason)
		if c.Bad == "" && !s.Radio.CanTransmit(tx) {
			c.Sends = nil
		}
	}
	return c
}
