package plan

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/intake"
	"mnemos/core/radio"
	"mnemos/core/standing"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// UnitForm is what was typed about a radio; nil for what stays.
type UnitForm struct {
	Name     *string
	Holder   *int64 // 0 for nobody
	Revision int64  // of the radio that was seen
	Fill     bool   // also what has no slot of its number in it
}

func (form UnitForm) read(ctx context.Context, p *Plans, u *store.Unit, f *fault.Invalid) error {
	if form.Name != nil {
		if u.Name = strings.TrimSpace(*form.Name); len([]rune(u.Name)) > 40 || intake.Clean(u.Name) != u.Name {
			f.Add("name", "name the radio, in up to 40 characters")
		}
	}
	if form.Holder == nil {
		return nil
	}
	if u.Holder = form.Holder; *form.Holder == 0 {
		u.Holder = nil
		return nil
	}
	people, err := p.fleet.People(ctx)
	if !slices.ContainsFunc(people, func(x store.Person) bool { return x.ID == *form.Holder }) {
		f.Add("holder", "nobody has the number %d", *form.Holder)
	}
	return err
}

// AddUnit takes a radio of a profile into a plan and gives it every channel
// that it can hold, under the numbers that everybody uses. There may be several
// of one profile.
func (p *Plans) AddUnit(ctx context.Context, planID int64, profileID string, form UnitForm) (*Ledger, error) {
	profile, err := p.fleet.Profile(ctx, profileID)
	if err != nil {
		return nil, err
	}
	plan, err := p.Plan(ctx, planID)
	if err != nil {
		return nil, err
	}
	u, f := store.Unit{Profile: profile.ID}, &fault.Invalid{}
	if err := form.read(ctx, p, &u, f); err != nil {
		return nil, err
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	if u.Name == "" {
		if u.Name, err = p.another(ctx, plan.ID, profile); err != nil {
			return nil, err
		}
	}
	channels, err := p.numbered(ctx, plan.ID)
	if err != nil {
		return nil, err
	}
	title := profile.Name
	if u.Name != "" {
		title = u.Name
	}
	shown, err := p.called(ctx, plan.ID, profile.Names)
	if err != nil {
		return nil, err
	}
	stamp, err := p.fleet.Stamp(ctx, "load the plan into "+title)
	if err != nil {
		return nil, err
	}
	var l store.Load
	err = p.store.Edit(ctx, plan.ID, store.Latest, stamp, func(x *store.Edit) error {
		if l, err = x.AddLoad(u); err != nil {
			return err
		}
		shown.all(channels)
		entries, _ := placed(channels, profile, form.Fill)
		for _, e := range entries {
			short := shown.name(e.ChannelID, e.Channel.Name)
			if err := x.AddEntry(store.Entry{LoadID: l.ID, Slot: e.Slot, ChannelID: e.ChannelID, ShortName: short, Pinned: shown.pinned[e.ChannelID], Scan: e.Scan}); err != nil {
				return err
			}
		}
		return nil
	})
	return p.after(ctx, l, err)
}

// another is a name for a radio whose profile's name another one in the plan
// goes by: "Trail 2". The first needs none.
func (p *Plans) another(ctx context.Context, planID int64, profile *radio.Profile) (string, error) {
	loads, err := p.equipped(ctx, planID)
	if err != nil {
		return "", err
	}
	taken := func(name string) bool {
		return slices.ContainsFunc(loads, func(l LoadInfo) bool { return l.Unit.Title() == name })
	}
	if !taken(profile.Name) {
		return "", nil
	}
	for n := 2; ; n++ {
		if name := fmt.Sprintf("%s %d", profile.Name, n); !taken(name) {
			return name, nil
		}
	}
}

// ChangeUnit changes what a radio is called and who holds it.
func (p *Plans) ChangeUnit(ctx context.Context, id int64, form UnitForm) error {
	u, err := p.fleet.Unit(ctx, id)
	if err != nil {
		return err
	}
	row, f := u.Unit, &fault.Invalid{}
	if err := form.read(ctx, p, &row, f); err != nil {
		return err
	}
	if err := f.Or(); err != nil {
		return err
	}
	stamp, err := p.fleet.Stamp(ctx, "change the radio "+u.Title())
	if err != nil {
		return err
	}
	return p.store.Edit(ctx, 0, form.Revision, stamp, func(e *store.Edit) error { return e.Put(row) })
}

// DropUnit takes a radio out of a plan, with what only it holds. Undo brings
// both back.
func (p *Plans) DropUnit(ctx context.Context, loadID, seen int64) (*Ledger, error) {
	l, err := p.store.Load(ctx, loadID)
	if err != nil {
		return nil, err
	}
	u, err := p.fleet.Unit(ctx, l.UnitID)
	if err != nil {
		return nil, err
	}
	loads, err := p.store.Loads(ctx, l.PlanID)
	if err != nil {
		return nil, err
	}
	if len(loads) == 1 {
		f := &fault.Invalid{}
		f.Add("load", "it is the only radio of the plan: add another one first")
		return nil, f
	}
	stamp, err := p.fleet.Stamp(ctx, "take "+u.Title()+" out of the plan")
	if err != nil {
		return nil, err
	}
	err = p.store.Edit(ctx, l.PlanID, seen, stamp, func(x *store.Edit) error { return x.DropLoad(l) })
	return p.after(ctx, l, err)
}

// Held says where a radio has a channel, or why it has not.
type Held struct {
	Channel int64
	Load    int64
	Slot    *int     // nil where the radio does not have it
	Losses  []string // in what it is not held as it is, or why it cannot be
	Can     bool     // it could be held
	State   standing.State
}

// Absent is a channel that a radio does not have, and where another one has it.
type Absent struct {
	Held
	Channel channel.Channel
	ID      int64
	From    store.Entry
	Number  *int // the slot in which everybody has it
}

// Holdings says for every channel of a plan and every radio of it where the
// radio has the channel, and which ones the given radio does not have; 0 for
// none.
func (p *Plans) Holdings(ctx context.Context, planID, of int64) ([]Held, []Absent, error) {
	plan, err := p.Plan(ctx, planID)
	if err != nil {
		return nil, nil, err
	}
	loads, err := p.equipped(ctx, plan.ID)
	if err != nil {
		return nil, nil, err
	}
	numbers, err := p.store.TeamSlots(ctx, plan.ID)
	if err != nil {
		return nil, nil, err
	}
	number := map[int64]*int{}
	for _, n := range numbers {
		number[n.ChannelID] = &n.Number
	}
	standings, err := p.store.Standings(ctx, plan.ID)
	if err != nil {
		return nil, nil, err
	}
	type at struct{ load, channel int64 }
	slots := map[at]store.Entry{}
	var channels []store.Entry
	seen := map[int64]bool{}
	for _, l := range loads {
		entries, err := p.store.Entries(ctx, l.ID)
		if err != nil {
			return nil, nil, err
		}
		for _, e := range entries {
			slots[at{l.ID, e.ChannelID}] = e
			if !seen[e.ChannelID] {
				seen[e.ChannelID] = true
				channels = append(channels, e)
			}
		}
	}
	var out []Held
	var absent []Absent
	for _, c := range channels {
		for _, l := range loads {
			h := Held{Channel: c.ChannelID, Load: l.ID, Can: l.Unit.Radio.CanReceive(c.Channel.Receive)}
			held, losses := radio.Fit(c.Channel, l.Unit.Radio)
			if e, ok := slots[at{l.ID, c.ChannelID}]; ok {
				h.Slot = &e.Slot
				st := standings[l.ID][c.ChannelID]
				h.State = standing.Planned
				if st.State != "" { // few have one: nothing is worked out for the others
					h.State, _ = standing.Record{State: standing.State(st.State), Fingerprint: st.Fingerprint}.Now(standing.OfFitted(heldOf(e), held))
				}
			}
			for _, x := range losses {
				h.Losses = append(h.Losses, x.Why)
			}
			out = append(out, h)
			if h.Slot == nil && l.ID == of {
				absent = append(absent, Absent{Held: h, ID: c.ChannelID, Channel: c.Channel, From: c, Number: number[c.ChannelID]})
			}
		}
	}
	return out, absent, nil
}

// Put is where a channel went in another radio, or why it did not.
type Put struct {
	Load int64
	Slot int
	Why  string // "" where it went in
}

// beside is other radios of the plan that are to get channels too.
type beside struct {
	desks []*desk
	shown []*called // what the channels are called on each of them
	top   int       // the highest number that everybody uses
}

func (p *Plans) beside(ctx context.Context, d *desk, loads []int64) (beside, error) {
	var b beside
	numbers, err := p.store.TeamSlots(ctx, d.plan.ID)
	if err != nil {
		return b, err
	}
	for _, n := range numbers {
		b.top = max(b.top, n.Number)
	}
	for _, id := range loads {
		if id == d.load.ID || slices.ContainsFunc(b.desks, func(o *desk) bool { return o.load.ID == id }) {
			continue
		}
		o, err := p.desk(ctx, id)
		if err != nil {
			return b, err
		}
		if o.plan.ID == d.plan.ID {
			c, err := p.called(ctx, o.plan.ID, o.radio.Names)
			if err != nil {
				return b, err
			}
			b.desks, b.shown = append(b.desks, o), append(b.shown, c)
		}
	}
	return b, nil
}

// place chooses the slot of a channel in each of the radios: the same one where
// that is vacant, else the first vacant one above the numbers that everybody
// uses. What it chose is taken for the next.
func (b beside) place(e store.Entry) (puts []Put, entries []store.Entry) {
	for i, o := range b.desks {
		x := e
		x.ID, x.LoadID = 0, o.load.ID
		why := o.room(e.Channel, &x.Slot, b.top)
		if puts = append(puts, Put{o.load.ID, x.Slot, why}); why == "" {
			x.ShortName, x.Pinned = b.shown[i].name(e.ChannelID, e.Channel.Name), b.shown[i].pinned[e.ChannelID]
			entries = append(entries, x)
			o.entries = append(o.entries, x)
		}
	}
	return puts, entries
}

// room finds a slot for a channel near the one that is wished for, or says why
// there is none.
func (d *desk) room(c channel.Channel, slot *int, top int) (why string) {
	if !d.radio.CanReceive(c.Receive) {
		return fmt.Sprintf("%s does not receive %s", d.unit.Title(), c.Receive)
	}
	if i := slices.IndexFunc(d.entries, func(e store.Entry) bool { return same(e.Channel, c) }); i >= 0 {
		return fmt.Sprintf("already in %s (%d)", d.unit.Title(), d.entries[i].Slot)
	}
	if _, taken := d.at(*slot); !taken && d.radio.Slots.Holds(*slot) {
		return ""
	}
	n, ok := d.vacant(min(max(top+1, d.radio.Slots.First), d.radio.Slots.Last))
	if !ok {
		return d.unit.Title() + " is full"
	}
	*slot = n
	return ""
}

// CopyTo puts a channel that one radio has into another one of the plan.
func (p *Plans) CopyTo(ctx context.Context, loadID int64, slot int, to, revision int64) (*Ledger, error) {
	d, e, err := p.occupied(ctx, loadID, slot)
	if err != nil {
		return nil, err
	}
	others, err := p.beside(ctx, d, []int64{to})
	if err != nil {
		return nil, err
	}
	puts, entries := others.place(e)
	f := &fault.Invalid{}
	switch {
	case len(puts) == 0:
		f.Add("load", "choose another radio of this plan")
	case puts[0].Why != "":
		f.Add("load", "%s", puts[0].Why)
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	return p.change(ctx, d, revision, fmt.Sprintf("also store %s in slot %d", label(e.Channel), entries[0].Slot), func(x *store.Edit) error {
		return x.AddEntry(entries[0])
	})
}
