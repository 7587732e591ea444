package plan

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"mnemos/core/band"
	"mnemos/core/check"
	"mnemos/core/geo"
	"mnemos/core/intake"
	"mnemos/internal/fault"
	"mnemos/internal/fleet"
	"mnemos/internal/store"
)

// Form is what was typed about a plan; nil for what stays.
type Form struct {
	Name, Season, Region, Place *string
	Archived                    *bool
	Revision                    int64 // of the plan that was seen
}

// read takes over what was typed, and notes what is wrong with it.
func (form Form) read(p *store.Plan, f *fault.Invalid) {
	if form.Name != nil {
		p.Name = strings.TrimSpace(*form.Name)
	}
	if p.Name == "" || len([]rune(p.Name)) > 60 || intake.Clean(p.Name) != p.Name {
		f.Add("name", "name the plan, in up to 60 characters")
	}
	if form.Season != nil {
		if p.Season = strings.TrimSpace(*form.Season); len([]rune(p.Season)) > 200 || intake.Clean(p.Season) != p.Season {
			f.Add("season", "up to 200 characters on one line")
		}
	}
	if form.Region != nil {
		p.Region = *form.Region
	}
	if !slices.Contains(band.Regions(), p.Region) {
		f.Add("region", "%q is not a region: use one of %s", p.Region, strings.Join(band.Regions(), ", "))
	}
	if form.Place != nil {
		p.Lat, p.Lon = nil, nil
		if strings.TrimSpace(*form.Place) != "" {
			at, err := geo.Parse(*form.Place)
			if err != nil {
				f.Add("place", "%v", err)
			}
			p.Lat, p.Lon = &at.Lat, &at.Lon
		}
	}
	if form.Archived != nil {
		p.Archived = *form.Archived
	}
}

// fresh is a plan before anybody said anything about it.
func fresh(today check.Settings) store.Plan {
	return store.Plan{Height: today.Height, Radius: today.RadiusKM, TonePolicy: string(today.TonePolicy)}
}

// New makes an empty plan for one radio of a profile.
func (p *Plans) New(ctx context.Context, form Form, profile string) (*Workspace, error) {
	x, f := fresh(check.Defaults(p.now())), &fault.Invalid{}
	form.read(&x, f)
	if _, err := p.fleet.Profile(ctx, profile); err != nil {
		f.Add("radio", "%q is not a radio: choose one", profile)
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	stamp, err := p.fleet.Stamp(ctx, "make the plan "+x.Name)
	if err != nil {
		return nil, err
	}
	err = p.store.Edit(ctx, 0, store.Latest, stamp, func(e *store.Edit) error {
		if x, err = e.AddPlan(x); err != nil {
			return err
		}
		_, err := e.AddLoad(store.Unit{Profile: profile})
		return err
	})
	if err != nil {
		return nil, err
	}
	return p.Workspace(ctx, x.ID)
}

// Start is what somebody says who begins with an empty folder.
type Start struct {
	Person fleet.PersonForm
	Plan   Form
	Radio  string // the profile nearest to theirs
}

// Begin makes the first person, their radio and their plan, all as one step.
func (p *Plans) Begin(ctx context.Context, s Start) (*Workspace, error) {
	people, err := p.fleet.People(ctx)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	if len(people) > 0 {
		f.Add("person", "%s is here already: make a new plan instead", people[0].Name)
		return nil, f
	}
	me, x := store.Person{Colour: fleet.Free(nil)}, fresh(check.Defaults(p.now()))
	s.Person.Read(&me, f)
	s.Plan.read(&x, f)
	if _, err := p.fleet.Profile(ctx, s.Radio); err != nil {
		f.Add("radio", "choose the radio that is nearest to yours")
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	stamp := store.Stamp{At: p.at(), Label: "begin"} // nobody's doing: there is nothing before it to go back to
	err = p.store.Edit(ctx, 0, store.Latest, stamp, func(e *store.Edit) error {
		if me.ID, err = e.ID("person"); err != nil {
			return err
		}
		if err := e.Put(me); err != nil {
			return err
		}
		if x, err = e.AddPlan(x); err != nil {
			return err
		}
		_, err := e.AddLoad(store.Unit{Profile: s.Radio})
		return err
	})
	if err != nil {
		return nil, err
	}
	return p.Workspace(ctx, x.ID)
}

// Demo is the number of the plan of the demonstration, or 0.
func (p *Plans) Demo(ctx context.Context) (int64, error) {
	plans, err := p.store.Plans(ctx)
	for _, x := range plans {
		if x.Demo {
			return x.ID, err
		}
	}
	return 0, err
}

// Change changes what a plan is called, its note, where it is used, and
// whether it is put away.
func (p *Plans) Change(ctx context.Context, id int64, form Form) (*Workspace, error) {
	x, err := p.store.Plan(ctx, id)
	if err != nil {
		return nil, err
	}
	was, f := x, &fault.Invalid{}
	form.read(&x, f)
	if err := f.Or(); err != nil {
		return nil, err
	}
	label := "change the plan " + was.Name
	switch {
	case x.Name != was.Name:
		label = fmt.Sprintf("rename the plan %s to %s", was.Name, x.Name)
	case x.Archived && !was.Archived:
		label = "archive the plan " + x.Name
	case !x.Archived && was.Archived:
		label = "bring back the plan " + x.Name
	}
	stamp, err := p.fleet.Stamp(ctx, label)
	if err != nil {
		return nil, err
	}
	err = p.store.Edit(ctx, id, form.Revision, stamp, func(e *store.Edit) error { return e.Put(x) })
	var stale *fault.Stale
	if err != nil && !errors.As(err, &stale) {
		return nil, err
	}
	w, werr := p.Workspace(ctx, id)
	if werr != nil {
		return nil, errors.Join(err, werr)
	}
	if stale != nil {
		stale.Now = w
		return nil, stale
	}
	return w, nil
}

// Duplicate makes a copy of a plan under another name: the same radios with
// channels of its own in the same slots.
func (p *Plans) Duplicate(ctx context.Context, id int64, name string) (*Workspace, error) {
	from, err := p.store.Plan(ctx, id)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	to := from
	Form{Name: &name}.read(&to, f)
	if from.Demo {
		f.Add("name", "the demonstration is invented, and so are its repeaters: make a new plan instead")
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	loads, err := p.store.Loads(ctx, id)
	if err != nil {
		return nil, err
	}
	numbers, err := p.store.TeamSlots(ctx, id)
	if err != nil {
		return nil, err
	}
	sets, err := p.store.Sets(ctx, id)
	if err != nil {
		return nil, err
	}
	members, err := p.store.Members(ctx, id)
	if err != nil {
		return nil, err
	}
	stamp, err := p.fleet.Stamp(ctx, fmt.Sprintf("copy the plan %s to %s", from.Name, to.Name))
	if err != nil {
		return nil, err
	}
	err = p.store.Edit(ctx, 0, store.Latest, stamp, func(e *store.Edit) error {
		to.Archived = false
		if to, err = e.AddPlan(to); err != nil {
			return err
		}
		channels := map[int64]int64{}
		for _, l := range loads {
			if err := p.copyLoad(ctx, e, l, channels); err != nil {
				return err
			}
		}
		for _, n := range numbers {
			if copied, ok := channels[n.ChannelID]; ok {
				if err := e.Number(copied, n.Number); err != nil {
					return err
				}
			}
		}
		return copySets(e, sets, members, channels)
	})
	if err != nil {
		return nil, err
	}
	return p.Workspace(ctx, to.ID)
}

// copySets makes the sets of another plan in the one that is being made.
func copySets(e *store.Edit, sets []store.Set, members []store.Member, channels map[int64]int64) error {
	for _, s := range sets {
		made, err := e.AddSet(s.Kind, s.Name)
		if err != nil {
			return err
		}
		for _, m := range members {
			copied, ok := channels[m.ChannelID]
			if m.SetID != s.ID || !ok {
				continue
			}
			if err := e.Join(made.ID, copied, m.Priority); err != nil {
				return err
			}
		}
	}
	return nil
}

// copyLoad gives a radio in the plan that is being made what it has in another.
func (p *Plans) copyLoad(ctx context.Context, e *store.Edit, from store.Load, channels map[int64]int64) error {
	entries, err := p.store.Entries(ctx, from.ID)
	if err != nil {
		return err
	}
	to, err := e.AddLoad(store.Unit{ID: from.UnitID})
	if err != nil {
		return err
	}
	for _, x := range entries {
		id, known := channels[x.ChannelID]
		if !known {
			if id, err = e.AddChannel(x.Channel, x.Repeater); err != nil {
				return err
			}
			channels[x.ChannelID] = id
		}
		x.LoadID, x.ChannelID = to.ID, id
		if err := e.AddEntry(x); err != nil {
			return err
		}
	}
	return nil
}

// Remove removes a plan with its channels, and with a demonstration the
// listings that serve it alone. It can be taken back.
func (p *Plans) Remove(ctx context.Context, id, seen int64) error {
	x, err := p.store.Plan(ctx, id)
	if err != nil {
		return err
	}
	all, err := p.store.Plans(ctx)
	if err != nil {
		return err
	}
	if len(all) == 1 {
		f := &fault.Invalid{}
		f.Add("plan", "it is the only plan: make another one first")
		return f
	}
	loads, err := p.store.Loads(ctx, id)
	if err != nil {
		return err
	}
	stamp, err := p.fleet.Stamp(ctx, "remove the plan "+x.Name)
	if err != nil {
		return err
	}
	return p.store.Edit(ctx, 0, seen, stamp, func(e *store.Edit) error {
		for _, l := range loads {
			if err := e.DropLoad(l); err != nil {
				return err
			}
		}
		if err := e.DropSets(id); err != nil {
			return err
		}
		if err := e.Release(id); err != nil {
			return err
		}
		return e.Drop("plan", id)
	})
}
