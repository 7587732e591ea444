package listen

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"time"

	"mnemos/core/freq"
	"mnemos/core/scan"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

// forgotten is how long somebody listens after the last thing they heard, unless they say
// that they stopped.
const forgotten = time.Hour

// diary is what was heard in a plan.
type diary struct {
	listened []store.Listened
	spans    []span
	heard    map[int64][]time.Time // by frequency
	in       *time.Location
	read     map[int64]scan.Diary
}

type span struct {
	from, to time.Time
	chances  map[string]float64
}

func (l *Listening) diary(ctx context.Context, s *setting) (diary, error) {
	d := diary{heard: map[int64][]time.Time{}, in: l.now().Location(), read: map[int64]scan.Diary{}}
	listened, heard, err := l.store.Diary(ctx, s.Plan.ID)
	if err != nil {
		return d, err
	}
	d.listened = listened
	last := map[int64]time.Time{}
	for _, h := range heard {
		t, err := time.Parse(time.RFC3339, h.At)
		if err != nil {
			return d, fmt.Errorf("read the diary: %w", err)
		}
		d.heard[h.Receive] = append(d.heard[h.Receive], t)
		if t.After(last[h.ListenedID]) {
			last[h.ListenedID] = t
		}
	}
	for _, x := range listened {
		p, err := spanOf(x, last[x.ID], l.now())
		if err != nil {
			return d, err
		}
		d.spans = append(d.spans, p)
	}
	return d, nil
}

// spanOf is when somebody listened. Who does not say that they stopped listens for an
// hour after the last over that they noted.
func spanOf(x store.Listened, last, now time.Time) (p span, err error) {
	if p.from, err = time.Parse(time.RFC3339, x.Began); err != nil {
		return p, fmt.Errorf("read the diary: %w", err)
	}
	if x.Ended != "" {
		if p.to, err = time.Parse(time.RFC3339, x.Ended); err != nil {
			return p, fmt.Errorf("read the diary: %w", err)
		}
	} else {
		p.to = p.from.Add(forgotten)
		if t := last.Add(forgotten); t.After(p.to) {
			p.to = t
		}
		if now.Before(p.to) {
			p.to = now
		}
	}
	return p, json.Unmarshal([]byte(x.Chances), &p.chances)
}

// of is the diary of a frequency.
func (d diary) of(f freq.Hz) scan.Diary {
	if out, ok := d.read[int64(f)]; ok {
		return out
	}
	var listened []scan.Listened
	for _, p := range d.spans {
		if c, ok := p.chances[key(f)]; ok {
			listened = append(listened, scan.Listened{From: p.from, To: p.to, Chance: c})
		}
	}
	out := scan.Read(listened, d.heard[int64(f)], d.in)
	d.read[int64(f)] = out
	return out
}

// running is the listening of a person that goes on with a radio, or nil.
func (d diary) running(loadID, person int64, now time.Time) *store.Listened {
	for i, x := range slices.Backward(d.listened) {
		if x.LoadID == loadID && x.PersonID == person && x.Ended == "" && !d.spans[i].to.Before(now) {
			return &d.listened[i]
		}
	}
	return nil
}

// Diary is what is known of when something is heard.
type Diary struct {
	Slot       int
	Name       string
	Cells      []Cell
	Heard      int
	Hours      float64
	Counted    float64 // hours times the chance
	Rate       *float64
	Favourites []Favourite
	Since      string // since when the person listens; "" for not now
	Noted      int    // overs in this listening
}

// Cell is one hour of the week with something known.
type Cell struct {
	Day, Hour int
	Heard     int
	Hours     float64
	Rate      *float64 // overs an hour, those that were missed too; nil for too little to tell
}

// Favourite is a channel by how much is on it, with its best hour.
type Favourite struct {
	Slot      int
	Name      string
	Rate      float64
	Day, Hour int
	Best      float64
}

// Diary returns what was heard on the channel of a slot.
func (l *Listening) Diary(ctx context.Context, loadID int64, slot int) (*Diary, error) {
	s, err := l.setting(ctx, loadID, time.Time{})
	if err != nil {
		return nil, err
	}
	return l.told(s, slot), nil
}

func (l *Listening) told(s *setting, slot int) *Diary {
	out := &Diary{Slot: -1, Cells: []Cell{}, Favourites: []Favourite{}}
	for _, x := range s.items {
		d := s.diary.of(x.Entry.Channel.Receive)
		if rate, ok := d.All.Rate(); ok && rate > 0 && x.by != ByAlways && !x.data {
			f := Favourite{Slot: x.Entry.Slot, Name: title(x), Rate: rate}
			best, overs, _ := d.Busiest()
			f.Day, f.Hour, f.Best = int(best.Day), best.Hour, overs
			out.Favourites = append(out.Favourites, f)
		}
	}
	slices.SortStableFunc(out.Favourites, func(a, b Favourite) int {
		switch {
		case a.Rate > b.Rate:
			return -1
		case a.Rate < b.Rate:
			return 1
		}
		return 0
	})
	if run := s.diary.running(s.row.LoadID, s.Me.ID, l.now()); run != nil {
		out.Since = run.Began
		for _, h := range s.diary.heard {
			for _, t := range h {
				if t.Format(time.RFC3339) >= run.Began {
					out.Noted++
				}
			}
		}
	}
	i := s.place(slot)
	if i < 0 {
		return out
	}
	out.Slot, out.Name = slot, title(s.items[i])
	d := s.diary.of(s.items[i].Entry.Channel.Receive)
	out.Heard, out.Hours, out.Counted = d.All.Heard, d.All.Hours, d.All.Counted
	if rate, ok := d.All.Rate(); ok {
		out.Rate = &rate
	}
	for day := range 7 {
		for hour := range 24 {
			c, ok := d.Cells[scan.Hour{Day: time.Weekday(day), Hour: hour}]
			if !ok {
				continue
			}
			cell := Cell{Day: day, Hour: hour, Heard: c.Heard, Hours: c.Hours}
			if rate, ok := c.Rate(); ok {
				cell.Rate = &rate
			}
			out.Cells = append(out.Cells, cell)
		}
	}
	return out
}

// Note writes into the diary that an over was heard now on the channel of a slot. Who
// was not listening yet begins to.
func (l *Listening) Note(ctx context.Context, loadID int64, slot int) (*Diary, error) {
	s, err := l.setting(ctx, loadID, time.Time{})
	if err != nil {
		return nil, err
	}
	i := s.place(slot)
	if i < 0 {
		f := &fault.Invalid{}
		f.Add("slot", "slot %d is empty: choose the channel that you heard", slot)
		return nil, f.Or()
	}
	x := s.items[i]
	run := s.diary.running(loadID, s.Me.ID, l.now())
	return l.write(ctx, s, slot, "note "+title(x)+" as heard", func(e *store.Edit) error {
		if run == nil {
			if run, err = l.begin(e, s, i); err != nil {
				return err
			}
		}
		id, err := e.ID("heard")
		if err != nil {
			return err
		}
		return e.Put(store.Heard{ID: id, PlanID: s.Plan.ID, ListenedID: run.ID, Receive: int64(x.Entry.Channel.Receive), PersonID: s.Me.ID, At: l.at()})
	})
}

// Begin says that somebody listens from now on, and Stop that they no longer do.
func (l *Listening) Begin(ctx context.Context, loadID int64, slot int) (*Diary, error) {
	s, err := l.setting(ctx, loadID, time.Time{})
	if err != nil {
		return nil, err
	}
	if s.diary.running(loadID, s.Me.ID, l.now()) != nil {
		return l.told(s, slot), nil
	}
	return l.write(ctx, s, slot, "begin to listen with "+s.Unit.Title(), func(e *store.Edit) error {
		_, err := l.begin(e, s, -1)
		return err
	})
}

// Stop says that somebody no longer listens.
func (l *Listening) Stop(ctx context.Context, loadID int64, slot int) (*Diary, error) {
	s, err := l.setting(ctx, loadID, time.Time{})
	if err != nil {
		return nil, err
	}
	run := s.diary.running(loadID, s.Me.ID, l.now())
	if run == nil {
		return l.told(s, slot), nil
	}
	return l.write(ctx, s, slot, "stop listening with "+s.Unit.Title(), func(e *store.Edit) error {
		run.Ended = l.at()
		return e.Put(*run)
	})
}

func (l *Listening) at() string { return l.now().UTC().Format(time.RFC3339) }

// begin begins a time of listening, with the chances as they are now. A channel that was
// heard though it is not scanned was listened to itself.
func (l *Listening) begin(e *store.Edit, s *setting, heard int) (*store.Listened, error) {
	r := scan.Reckon(s.setup)
	chances := map[string]float64{}
	for i, x := range s.items {
		c := s.setup.Channels[i]
		if chance := 1 - r.Of[i].Missed/max(1e-9, c.Rate); chance > 0 && x.by != ByAlways && c.Rate > 0 {
			f := key(x.Entry.Channel.Receive)
			chances[f] = max(chances[f], chance)
		}
	}
	if heard >= 0 {
		if f := key(s.items[heard].Entry.Channel.Receive); chances[f] == 0 {
			chances[f] = 1
		}
	}
	text, err := json.Marshal(chances)
	if err != nil {
		return nil, err
	}
	run := store.Listened{PlanID: s.Plan.ID, LoadID: s.row.LoadID, PersonID: s.Me.ID, Began: l.at(), Chances: string(text)}
	if run.ID, err = e.ID("listened"); err != nil {
		return nil, err
	}
	return &run, e.Put(run)
}

// again ends a time of listening and begins the next, because the radio scans something
// else now.
func (l *Listening) again(ctx context.Context, loadID int64) error {
	s, err := l.setting(ctx, loadID, time.Time{})
	if err != nil {
		return err
	}
	run := s.diary.running(loadID, s.Me.ID, l.now())
	if run == nil {
		return nil
	}
	_, err = l.write(ctx, s, -1, "go on listening with "+s.Unit.Title(), func(e *store.Edit) error {
		run.Ended = l.at()
		if err := e.Put(*run); err != nil {
			return err
		}
		_, err := l.begin(e, s, -1)
		return err
	})
	return err
}

// write changes the diary, which is of no plan's history: Undo reaches it, and going
// back in a plan does not.
func (l *Listening) write(ctx context.Context, s *setting, slot int, label string, f func(*store.Edit) error) (*Diary, error) {
	stamp, err := l.fleet.Stamp(ctx, label)
	if err != nil {
		return nil, err
	}
	if err := l.store.Edit(ctx, 0, plan.Latest, stamp, f); err != nil {
		return nil, err
	}
	return l.Diary(ctx, s.row.LoadID, slot)
}
