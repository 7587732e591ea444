package fleet

import (
	"context"
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strings"

	"mnemos/core/band"
	"mnemos/core/intake"
	"mnemos/core/service"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Colours are those that a person can have, by name: the themes say what each
// looks like.
var Colours = []string{"teal", "plum", "ochre", "moss", "slate", "rust"}

// callsign is what one looks like: letters with a figure among them, or none.
var callsign = regexp.MustCompile(`^([A-Z0-9]{1,4}/)?[A-Z0-9]{1,3}[0-9][A-Z0-9]{1,5}(/[A-Z0-9]{1,4})?$|^$`)

// PersonForm is what was typed about a person; nil for what stays.
type PersonForm struct {
	Name, Colour, Licence *string
	Callsign              *string
	Bands, Services       *[]string
	Unlicensed            *bool
	Revision              int64 // of the person that was seen
}

// Read takes over what was typed, and notes what is wrong with it.
func (form PersonForm) Read(p *store.Person, f *fault.Invalid) {
	if form.Name != nil {
		p.Name = strings.TrimSpace(*form.Name)
	}
	if p.Name == "" || len([]rune(p.Name)) > 40 || intake.Clean(p.Name) != p.Name {
		f.Add("person", "write a name or callsign, up to 40 characters: changes are noted under it")
	}
	if form.Colour != nil {
		if p.Colour = *form.Colour; p.Colour != "" && !slices.Contains(Colours, p.Colour) {
			f.Add("colour", "use one of %s", strings.Join(Colours, ", "))
		}
	}
	if form.Callsign != nil {
		p.Callsign = strings.ToUpper(strings.TrimSpace(*form.Callsign))
		if !callsign.MatchString(p.Callsign) {
			f.Add("callsign", "write your callsign, such as QX9ABC: letters and figures, with a stroke where there is one")
		}
	}
	if form.Licence != nil {
		if p.Licence = strings.TrimSpace(*form.Licence); len([]rune(p.Licence)) > 400 {
			f.Add("licence", "up to 400 characters")
		}
	}
	if form.Bands != nil {
		p.Bands = slices.Clone(*form.Bands)
	}
	if form.Services != nil {
		p.Services = slices.Clone(*form.Services)
	}
	bands, services := known()
	for _, b := range p.Bands {
		if !bands[b] && !f.Has("bands") {
			f.Add("bands", "%q is not a band of any region", b)
		}
	}
	for _, id := range p.Services {
		if !services[id] && !f.Has("services") {
			f.Add("services", "%q is not a service of any region", id)
		}
	}
	if form.Unlicensed != nil {
		p.Unlicensed = *form.Unlicensed
	}
}

// known are the names of the bands, and the IDs of the services, of all regions.
func known() (bands, services map[string]bool) {
	bands, services = map[string]bool{}, map[string]bool{}
	for _, id := range band.Regions() {
		for _, b := range band.MustLoad(id).Bands {
			bands[b.Name] = true
		}
		for _, s := range service.Of(id) {
			services[s.ID] = true
		}
	}
	return bands, services
}

// Free is a colour that nobody has, or else the first.
func Free(people []store.Person) string {
	for _, c := range Colours {
		if !slices.ContainsFunc(people, func(p store.Person) bool { return p.Colour == c }) {
			return c
		}
	}
	return Colours[0]
}

// AddPerson adds somebody who works with the plans.
func (f *Fleet) AddPerson(ctx context.Context, form PersonForm) (store.Person, error) {
	people, err := f.store.People(ctx)
	if err != nil {
		return store.Person{}, err
	}
	p := store.Person{Colour: Free(people)}
	wrong := &fault.Invalid{}
	form.Read(&p, wrong)
	if err := wrong.Or(); err != nil {
		return p, err
	}
	stamp, err := f.Stamp(ctx, "add "+p.Name)
	if err != nil {
		return p, err
	}
	err = f.store.Edit(ctx, 0, store.Latest, stamp, func(e *store.Edit) (err error) {
		if p.ID, err = e.ID("person"); err != nil {
			return err
		}
		return e.Put(p)
	})
	if err != nil {
		return p, err
	}
	return f.person(ctx, p.ID)
}

// ChangePerson changes what is known of a person.
func (f *Fleet) ChangePerson(ctx context.Context, id int64, form PersonForm) (store.Person, error) {
	p, err := f.person(ctx, id)
	if err != nil {
		return p, err
	}
	was := p.Name
	wrong := &fault.Invalid{}
	form.Read(&p, wrong)
	if err := wrong.Or(); err != nil {
		return p, err
	}
	stamp, err := f.Stamp(ctx, "change "+was)
	if err != nil {
		return p, err
	}
	err = f.store.Edit(ctx, 0, form.Revision, stamp, func(e *store.Edit) error { return e.Put(p) })
	var stale *fault.Stale
	if err != nil && !errors.As(err, &stale) {
		return p, err
	}
	now, perr := f.person(ctx, id)
	if perr != nil {
		return p, errors.Join(err, perr)
	}
	if stale != nil {
		stale.Now = now
		return p, stale
	}
	return now, nil
}

func (f *Fleet) person(ctx context.Context, id int64) (store.Person, error) {
	people, err := f.store.People(ctx)
	if err != nil {
		return store.Person{}, err
	}
	i := slices.IndexFunc(people, func(p store.Person) bool { return p.ID == id })
	if i < 0 {
		return store.Person{}, fmt.Errorf("person %d: %w", id, fault.ErrNotFound)
	}
	return people[i], nil
}
