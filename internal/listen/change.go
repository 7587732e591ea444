package listen

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/radio"
	"mnemos/core/scan"
	"mnemos/core/tone"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

// Form is what somebody says of how a radio scans; nil for what stays.
type Form struct {
	Lists    *[]int64 // scan lists one after another; none for all that is scanned
	Timed    *Timed
	Resume   *string
	Stay     *float64 // s; below 0 for the usual
	Every    *int
	Watch    *int // slot of the channel on the other side; -1 for none
	Goal     *string
	Talk     *Said
	Revision int64
}

// Timed is what somebody timed on the radio: so many channels in so many seconds. With
// none the profile's word counts.
type Timed struct {
	Channels int
	Seconds  float64
}

// Said is what somebody says is on the channel of a slot. Zeros for what the diary says.
type Said struct {
	Slot int
	Talk
}

// Set says how a radio scans.
func (l *Listening) Set(ctx context.Context, loadID int64, form Form) (*plan.Ledger, error) {
	s, err := l.setting(ctx, loadID, time.Time{})
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	row, says := s.row, []string{}
	say := func(format string, values ...any) { says = append(says, fmt.Sprintf(format, values...)) }
	if form.Lists != nil {
		s.readSets(f, *form.Lists, &row)
		say("choose what %s scans", s.Unit.Title())
	}
	if t := form.Timed; t != nil {
		none := t.Channels == 0 && t.Seconds == 0
		if rate := float64(t.Channels) / t.Seconds; !none && !(t.Channels >= 1 && t.Channels <= 10_000 && t.Seconds >= 0.5 && t.Seconds <= 3600 && rate >= 0.1 && rate <= 1000) {
			f.Add("timed", "write how many channels went by in how many seconds, such as 30 channels in 7 s")
		}
		row.TimedChannels, row.TimedSeconds = t.Channels, t.Seconds
		say("time how fast %s scans", s.Unit.Title())
	}
	if form.Resume != nil {
		if *form.Resume != "" && !slices.Contains(s.Radio.Scan.Resume, *form.Resume) {
			f.Add("resume", "%s goes on by %s", s.Radio.Name, strings.Join(s.Radio.Scan.Resume, ", "))
		}
		row.Resume, row.Stay = *form.Resume, -1
		say("set how the scan goes on")
	}
	if form.Stay != nil {
		if v := *form.Stay; v > 600 || math.IsNaN(v) {
			f.Add("stay", "write seconds from 0 to 600")
		}
		row.Stay = max(-1, *form.Stay)
		say("set how long the scan stays")
	}
	if form.Every != nil {
		if *form.Every < 0 || *form.Every > 100 {
			f.Add("every", "write after how many looks at others, 1 to 100")
		}
		row.Every = *form.Every
		say("set how often the priority channel is looked at")
	}
	if form.Watch != nil {
		s.watch(f, *form.Watch, &row)
		if i := s.place(*form.Watch); i >= 0 {
			say("put %s on the other side", title(s.items[i]))
		} else {
			say("put nothing on the other side")
		}
	}
	if form.Goal != nil {
		row.Goal = strings.TrimSpace(*form.Goal)
		if t := scan.Ask(row.Goal, s.named()).Trouble; t != "" || len(row.Goal) > 200 {
			f.Add("goal", "%s", t)
		}
		say("keep what %s should hear", s.Unit.Title())
	}
	if form.Talk != nil {
		s.say(f, *form.Talk, &row)
		say("say how much is on a channel")
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	return l.change(ctx, s, form.Revision, strings.Join(says, ", "), func(e *store.Edit) error { return e.Listen(row) })
}

func (s *setting) readSets(f *fault.Invalid, ids []int64, row *store.Listening) {
	row.Sets = store.Strings{}
	for _, id := range ids {
		if !slices.ContainsFunc(s.lists, func(x plan.SetInfo) bool { return x.ID == id }) {
			f.Add("lists", "a scan list is gone: choose again")
			continue
		}
		if text := strconv.FormatInt(id, 10); !slices.Contains(row.Sets, text) {
			row.Sets = append(row.Sets, text)
		}
	}
}

func (s *setting) watch(f *fault.Invalid, slot int, row *store.Listening) {
	row.WatchID = 0
	if slot < 0 {
		return
	}
	i := s.place(slot)
	switch {
	case i < 0:
		f.Add("watch", "slot %d is empty", slot)
	case s.Radio.Receivers == radio.One:
		f.Add("watch", "%s has one receiver and no dual watch", s.Radio.Name)
	default:
		row.WatchID = s.items[i].Entry.ChannelID
	}
}

func (s *setting) say(f *fault.Invalid, said Said, row *store.Listening) {
	i := s.place(said.Slot)
	if i < 0 {
		f.Add("slot", "slot %d is empty", said.Slot)
		return
	}
	if said.Rate < 0 || said.Rate > 3600 || math.IsNaN(said.Rate) {
		f.Add("rate", "write how many overs an hour, up to 3600; nothing for what the diary says")
	}
	if said.Length < 0 || said.Length > 600 || math.IsNaN(said.Length) {
		f.Add("length", "write how many seconds an over lasts, up to 600")
	}
	length := cmp.Or(said.Length, s.items[i].talk.Length)
	if said.Rate <= 3600 && length <= 600 && said.Rate*length > 0.95*3600 {
		f.Add("rate", "%.0f overs of %s s do not go into an hour", said.Rate, short(length))
	}
	talk := map[string]Talk{}
	for k, v := range s.talk {
		talk[k] = v
	}
	f2 := key(s.items[i].Entry.Channel.Receive)
	if talk[f2] = said.Talk; said.Talk == (Talk{}) {
		delete(talk, f2)
	}
	text, err := json.Marshal(talk)
	if err != nil {
		f.Add("rate", "%v", err)
		return
	}
	row.Talk = string(text)
}

// change changes how a radio scans, in the plan's history, and what is listened to from
// then on.
func (l *Listening) change(ctx context.Context, s *setting, seen int64, label string, f func(*store.Edit) error) (*plan.Ledger, error) {
	stamp, err := l.fleet.Stamp(ctx, label)
	if err != nil {
		return nil, err
	}
	if err := l.store.Edit(ctx, s.Plan.ID, min(seen, s.Revision), stamp, f); err != nil {
		return nil, err
	}
	if err := l.again(ctx, s.row.LoadID); err != nil {
		return nil, err
	}
	return l.plans.Ledger(ctx, s.row.LoadID)
}

// Apply makes changes, all as one step.
func (l *Listening) Apply(ctx context.Context, loadID int64, changes []Change, revision int64) (*plan.Ledger, error) {
	s, err := l.setting(ctx, loadID, time.Time{})
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	if len(changes) == 0 || len(changes) > 500 {
		f.Add("changes", "say what to change")
	}
	w := work{s: s, row: s.row}
	for _, c := range changes {
		w.take(f, c)
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	label := w.says[0]
	if len(w.says) > 1 {
		label = strings.Join(w.says[:2], ", ")
	}
	if n := len(w.says); n > 2 {
		label += fmt.Sprintf(" and %d more", n-2)
	}
	return l.change(ctx, s, revision, label, w.do)
}

// work is what changes of the scan do to the plan.
type work struct {
	s     *setting
	row   store.Listening
	says  []string
	edits []func(*store.Edit) error
}

func (w *work) do(e *store.Edit) error {
	for _, f := range w.edits {
		if err := f(e); err != nil {
			return err
		}
	}
	if !same(w.row, w.s.row) {
		return e.Listen(w.row)
	}
	return nil
}

func same(a, b store.Listening) bool {
	return slices.Equal(a.Sets, b.Sets) && a.Resume == b.Resume && a.Stay == b.Stay && a.WatchID == b.WatchID
}

func (w *work) take(f *fault.Invalid, c Change) {
	if c.Kind == scan.GoOn {
		if !slices.Contains(w.s.Radio.Scan.Resume, string(c.Resume)) {
			f.Add("changes", "%s does not go on by %q", w.s.Radio.Name, c.Resume)
		}
		if c.Stay < 0 || c.Stay > 600 || math.IsNaN(c.Stay) {
			f.Add("changes", "a stop lasts 0 to 600 s")
		}
		w.row.Resume, w.row.Stay = string(c.Resume), c.Stay
		w.says = append(w.says, "go on "+goesOn(c.Resume, c.Stay))
		return
	}
	i := w.s.place(c.Slot)
	if i < 0 {
		f.Add("changes", "slot %d is empty by now", c.Slot)
		return
	}
	x := w.s.items[i]
	name := title(x)
	switch c.Kind {
	case scan.Leave:
		w.member(x, false, false)
		if w.row.WatchID == x.Entry.ChannelID {
			w.row.WatchID = 0
		}
		w.says = append(w.says, "leave "+name+" out of the scan")
	case Back:
		w.member(x, true, false)
		w.says = append(w.says, "scan "+name+" again")
	case scan.Prefer:
		if !w.s.hasPriority() {
			f.Add("changes", "%s has no priority channel", w.s.Radio.Name)
			return
		}
		for _, o := range w.s.items {
			if o.priority && o.Entry.ID != x.Entry.ID {
				w.member(o, true, false)
			}
		}
		w.member(x, true, true)
		w.says = append(w.says, "priority to "+name)
	case scan.Watch, scan.Second:
		if want := map[scan.Kind]radio.Receivers{scan.Watch: radio.DualWatch, scan.Second: radio.DualReceive}[c.Kind]; w.s.Radio.Receivers != want {
			f.Add("changes", "%s has no %s", w.s.Radio.Name, want)
			return
		}
		w.row.WatchID = x.Entry.ChannelID
		w.says = append(w.says, "put "+name+" on the other side")
	case scan.Open:
		w.channel(x, func(c *channel.Channel) { c.ReceiveTone = tone.Off })
		w.says = append(w.says, "wait for no tone on "+name)
	case Listen:
		w.channel(x, func(c *channel.Channel) {
			c.Side, c.TransmitTone = channel.TransmitSide{Kind: channel.Blocked}, tone.Off
		})
		w.says = append(w.says, "only listen on "+name)
	case scan.SplitOff:
		w.split(f, x, c.Stays)
	default:
		f.Add("changes", "%q is not a change of a scan", c.Kind)
	}
}

// member puts a channel into what is scanned, or takes it out.
func (w *work) member(x item, in, priority bool) {
	if len(w.s.chosen) == 0 {
		to := x.Entry
		switch {
		case !in:
			to.Scan = entry.ScanSkip
		case priority:
			to.Scan = entry.ScanPriority
		default:
			to.Scan = entry.ScanYes
		}
		w.edits = append(w.edits, func(e *store.Edit) error { return e.SetEntry(to) })
		return
	}
	for i, set := range w.s.chosen {
		holds := slices.ContainsFunc(set.Members, func(m store.Member) bool { return m.ChannelID == x.Entry.ChannelID })
		id := set.ID
		switch {
		case !in && holds:
			w.edits = append(w.edits, func(e *store.Edit) error { return e.Leave(id, x.Entry.ChannelID) })
		case in && (holds || i == 0 && !x.in):
			w.edits = append(w.edits, func(e *store.Edit) error { return e.Join(id, x.Entry.ChannelID, priority) })
		}
	}
}

func (w *work) channel(x item, f func(*channel.Channel)) {
	c := x.Entry.Channel
	f(&c)
	w.edits = append(w.edits, func(e *store.Edit) error { return e.SetChannel(x.Entry.ChannelID, c, x.Entry.Repeater) })
}

// split makes two lists of what is scanned: one with the channel, one with the others.
func (w *work) split(f *fault.Invalid, x item, stays []int) {
	var here, there []int64
	for i, o := range w.s.items {
		switch {
		case w.s.setup.Channels[i].Out:
		case slices.Contains(stays, o.Entry.Slot) || o.Entry.ID == x.Entry.ID:
			here = append(here, o.Entry.ChannelID)
		default:
			there = append(there, o.Entry.ChannelID)
		}
	}
	if len(there) == 0 {
		f.Add("changes", "nothing would be left for the second list")
		return
	}
	if w.s.Radio.Scan.Lists < 2 {
		f.Add("changes", "%s has no two scan lists", w.s.Radio.Name)
		return
	}
	name := title(x)
	w.says = append(w.says, "split the scan around "+name)
	w.edits = append(w.edits, func(e *store.Edit) error {
		first, err := e.AddSet("scan", w.free("with "+name))
		if err != nil {
			return err
		}
		second, err := e.AddSet("scan", w.free("without "+name))
		if err != nil {
			return err
		}
		for id, channels := range map[int64][]int64{first.ID: here, second.ID: there} {
			for _, c := range channels {
				if err := e.Join(id, c, false); err != nil {
					return err
				}
			}
		}
		w.row.Sets = store.Strings{strconv.FormatInt(first.ID, 10)}
		return nil
	})
}

// free is a name that no scan list has.
func (w *work) free(name string) string {
	runes := []rune(name)
	name = string(runes[:min(36, len(runes))])
	for n := 1; ; n++ {
		try := name
		if n > 1 {
			try = fmt.Sprintf("%s %d", name, n)
		}
		if !slices.ContainsFunc(w.s.lists, func(x plan.SetInfo) bool { return strings.EqualFold(x.Name, try) }) {
			return try
		}
	}
}
