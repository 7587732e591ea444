package plan

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/intake"
	"mnemos/core/radio"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// SetKind is a way in which channels belong together.
type SetKind struct {
	ID, Title string
	Says      string // what it is for
	// Room says how many of the kind a radio has, and whether it is known.
	Room func(*radio.Profile) (n int, known bool)
}

// SetKinds are the ways in which channels belong together.
var SetKinds = []SetKind{
	{"purpose", "purpose", "what you go out for: the way to work, an event, a disaster, a journey", nil},
	{"scan", "scan list", "what is scanned together; those with priority are looked at between the others", func(p *radio.Profile) (int, bool) { return p.Scan.Lists, true }},
	{"bank", "bank", "a part of the memory that is chosen as one", func(*radio.Profile) (int, bool) { return 0, false }},
	{"call", "call channels", "what a key calls up at once", func(p *radio.Profile) (int, bool) {
		n := 0
		for _, s := range p.Special {
			if s == "call" {
				n++
			}
		}
		return n, true
	}},
	{"primary", "primary group", "what somebody always listens to", nil},
	{"listen", "listen only", "what is heard and never answered", nil},
}

// Member is a channel in a set.
type Member = store.Member

// SetInfo is a set with what is in it and what the radios can hold of it.
type SetInfo struct {
	store.Set
	Members []store.Member
	Units   []SetUnit
}

// SetUnit is what one radio has of a set.
type SetUnit struct {
	Load   int64
	Held   int // channels of the set that it holds
	Could  int // that it lacks and could hold
	Cannot int // that it cannot receive
	// Says is what the radio lacks for such a set; "" for nothing that is known.
	Says string
}

// Sets returns the sets of a plan.
func (p *Plans) Sets(ctx context.Context, planID int64) ([]SetInfo, error) {
	x, err := p.Plan(ctx, planID)
	if err != nil {
		return nil, err
	}
	sets, err := p.store.Sets(ctx, x.ID)
	if err != nil {
		return nil, err
	}
	members, err := p.store.Members(ctx, x.ID)
	if err != nil {
		return nil, err
	}
	out := []SetInfo{}
	if len(sets) == 0 {
		return out, nil
	}
	loads, err := p.equipped(ctx, x.ID)
	if err != nil {
		return nil, err
	}
	holds := map[int64]map[int64]bool{}
	channels := map[int64]channel.Channel{}
	for _, l := range loads {
		entries, err := p.store.Entries(ctx, l.ID)
		if err != nil {
			return nil, err
		}
		holds[l.ID] = map[int64]bool{}
		for _, e := range entries {
			holds[l.ID][e.ChannelID], channels[e.ChannelID] = true, e.Channel
		}
	}
	kinds := map[string]int{}
	for _, s := range sets {
		kinds[s.Kind]++
	}
	for _, s := range sets {
		info := SetInfo{Set: s, Members: []store.Member{}}
		for _, m := range members {
			if m.SetID == s.ID {
				info.Members = append(info.Members, m)
			}
		}
		for _, l := range loads {
			u := SetUnit{Load: l.ID, Says: lacks(l.Unit.Radio, s.Kind, kinds[s.Kind])}
			for _, m := range info.Members {
				switch {
				case holds[l.ID][m.ChannelID]:
					u.Held++
				case l.Unit.Radio.CanReceive(channels[m.ChannelID].Receive):
					u.Could++
				default:
					u.Cannot++
				}
			}
			info.Units = append(info.Units, u)
		}
		out = append(out, info)
	}
	return out, nil
}

// lacks says what a radio lacks for sets of a kind.
func lacks(p *radio.Profile, kind string, wanted int) string {
	i := slices.IndexFunc(SetKinds, func(k SetKind) bool { return k.ID == kind })
	if i < 0 || SetKinds[i].Room == nil {
		return ""
	}
	n, known := SetKinds[i].Room(p)
	title := SetKinds[i].Title
	switch {
	case !known:
		return fmt.Sprintf("whether %s has such a %s is not in its profile", p.Name, title)
	case n == 0:
		return fmt.Sprintf("%s has no %s", p.Name, strings.TrimSuffix(title, "s"))
	case n < wanted:
		return fmt.Sprintf("%s has %d, and the plan %d", p.Name, n, wanted)
	}
	return ""
}

// SetForm is what was typed about a set.
type SetForm struct{ Kind, Name string }

func (form SetForm) read(f *fault.Invalid, all []store.Set, id int64) SetForm {
	form.Name = strings.TrimSpace(form.Name)
	if form.Name == "" || len([]rune(form.Name)) > 40 || intake.Clean(form.Name) != form.Name {
		f.Add("name", "name the set, in up to 40 characters, such as: the way to work")
	}
	if !slices.ContainsFunc(SetKinds, func(k SetKind) bool { return k.ID == form.Kind }) {
		f.Add("kind", "%q is not a kind of set", form.Kind)
	}
	if slices.ContainsFunc(all, func(s store.Set) bool {
		return s.ID != id && s.Kind == form.Kind && strings.EqualFold(s.Name, form.Name)
	}) {
		f.Add("name", "there is a set of that name already: %s", form.Name)
	}
	return form
}

// AddSet makes a set of channels.
func (p *Plans) AddSet(ctx context.Context, planID int64, form SetForm, of []int64) ([]SetInfo, error) {
	return p.changeSets(ctx, planID, Latest, func(all []store.Set, f *fault.Invalid) (string, func(*store.Edit) error) {
		form = form.read(f, all, 0)
		return "make the set " + form.Name, func(e *store.Edit) error {
			s, err := e.AddSet(form.Kind, form.Name)
			if err != nil {
				return err
			}
			for _, c := range of {
				if err := e.Join(s.ID, c, false); err != nil {
					return err
				}
			}
			return nil
		}
	})
}

// RenameSet gives a set another name.
func (p *Plans) RenameSet(ctx context.Context, planID, id, revision int64, name string) ([]SetInfo, error) {
	return p.changeSets(ctx, planID, revision, func(all []store.Set, f *fault.Invalid) (string, func(*store.Edit) error) {
		s := setOf(all, id, f)
		form := SetForm{s.Kind, name}.read(f, all, id)
		return fmt.Sprintf("rename the set %s to %s", s.Name, form.Name), func(e *store.Edit) error {
			s.Name = form.Name
			return e.Put(s)
		}
	})
}

// DropSet removes a set. Its channels stay.
func (p *Plans) DropSet(ctx context.Context, planID, id, revision int64) ([]SetInfo, error) {
	return p.changeSets(ctx, planID, revision, func(all []store.Set, f *fault.Invalid) (string, func(*store.Edit) error) {
		s := setOf(all, id, f)
		return "remove the set " + s.Name, func(e *store.Edit) error { return e.DropSet(id) }
	})
}

func setOf(all []store.Set, id int64, f *fault.Invalid) store.Set {
	i := slices.IndexFunc(all, func(s store.Set) bool { return s.ID == id })
	if i < 0 {
		f.Add("set", "this set is gone")
		return store.Set{Kind: SetKinds[0].ID}
	}
	return all[i]
}

// Joining is channels that come into a set or leave it.
type Joining struct {
	Channels []int64
	Out      bool
	Priority bool
}

// Join puts channels into a set, or takes them out, as one step.
func (p *Plans) Join(ctx context.Context, planID, id int64, j Joining) ([]SetInfo, error) {
	return p.changeSets(ctx, planID, Latest, func(all []store.Set, f *fault.Invalid) (string, func(*store.Edit) error) {
		s := setOf(all, id, f)
		what := fmt.Sprintf("add %s to %s", channels(len(j.Channels)), s.Name)
		if j.Out {
			what = fmt.Sprintf("take %s out of %s", channels(len(j.Channels)), s.Name)
		}
		return what, func(e *store.Edit) error {
			for _, c := range j.Channels {
				err := e.Join(id, c, j.Priority)
				if j.Out {
					err = e.Leave(id, c)
				}
				if err != nil {
					return err
				}
			}
			return nil
		}
	})
}

func (p *Plans) changeSets(ctx context.Context, planID, revision int64, how func([]store.Set, *fault.Invalid) (string, func(*store.Edit) error)) ([]SetInfo, error) {
	x, err := p.Plan(ctx, planID)
	if err != nil {
		return nil, err
	}
	all, err := p.store.Sets(ctx, x.ID)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	label, do := how(all, f)
	if err := f.Or(); err != nil {
		return nil, err
	}
	stamp, err := p.fleet.Stamp(ctx, label)
	if err != nil {
		return nil, err
	}
	if err := p.store.Edit(ctx, x.ID, revision, stamp, do); err != nil {
		return nil, err
	}
	return p.Sets(ctx, x.ID)
}
