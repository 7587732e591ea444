package fleet

import (
	"context"
	"errors"
	"fmt"
	"strings"

	"mnemos/core/radio"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// ProfileInfo is a profile in the list of radios.
type ProfileInfo struct {
	ID    string
	Name  string
	Form  string
	Entry string
	Own   bool // made by somebody here; the others ship
	Slots radio.Slots
}

// ProfileForm is a profile to be edited.
type ProfileForm struct {
	ProfileInfo
	Texts    map[string]string
	Fields   []radio.Field
	YAML     string
	Revision int64 // to be sent back with a change
}

// Profile returns a profile by its ID: one that ships, or one that somebody
// made. The same profile is the same pointer, as long as nobody changes it.
func (f *Fleet) Profile(ctx context.Context, id string) (*radio.Profile, error) {
	p, err := radio.Load(id)
	if err == nil {
		return p, nil
	}
	own, serr := f.store.Profile(ctx, id)
	if errors.Is(serr, fault.ErrNotFound) {
		return nil, fmt.Errorf("%w: %w", serr, err)
	}
	if serr != nil {
		return nil, serr
	}
	return f.parse(own)
}

func (f *Fleet) parse(own store.Profile) (*radio.Profile, error) {
	f.mu.Lock()
	defer f.mu.Unlock()
	if known, ok := f.parsed[own.Slug]; ok && known.yaml == own.YAML {
		return known.profile, nil
	}
	p, err := radio.Read([]byte(own.YAML))
	if err != nil {
		return nil, fmt.Errorf("profile %s: %w", own.Slug, err)
	}
	f.parsed[own.Slug] = parsed{own.YAML, p}
	return p, nil
}

// Profiles lists the profiles, one's own first.
func (f *Fleet) Profiles(ctx context.Context) ([]ProfileInfo, error) {
	out := []ProfileInfo{}
	own, err := f.store.Profiles(ctx)
	if err != nil {
		return nil, err
	}
	for _, x := range own {
		p, err := f.parse(x)
		if err != nil {
			return nil, err
		}
		out = append(out, info(p, true))
	}
	for _, p := range radio.Profiles() {
		out = append(out, info(p, false))
	}
	return out, nil
}

func info(p *radio.Profile, own bool) ProfileInfo {
	return ProfileInfo{ID: p.ID, Name: p.Name, Form: p.Form, Entry: p.Entry.Says(), Own: own, Slots: p.Slots}
}

// Form returns a profile to be looked at or edited.
func (f *Fleet) Form(ctx context.Context, id string) (*ProfileForm, error) {
	p, err := f.Profile(ctx, id)
	if err != nil {
		return nil, err
	}
	y, err := radio.Write(p)
	if err != nil {
		return nil, err
	}
	out := &ProfileForm{ProfileInfo: info(p, false), Texts: radio.Form(p), Fields: radio.Fields, YAML: string(y)}
	if _, shipped := radio.Load(id); shipped != nil {
		own, err := f.store.Profile(ctx, id)
		if err != nil {
			return nil, err
		}
		out.Own, out.Revision = true, own.Rev
	}
	return out, nil
}

// NewProfile makes a profile: a copy of another, or one that was brought as
// YAML. Its ID is made from the name.
func (f *Fleet) NewProfile(ctx context.Context, copyOf, yaml string) (*ProfileForm, error) {
	wrong := &fault.Invalid{}
	var p *radio.Profile
	var err error
	if yaml != "" {
		if p, err = radio.Read([]byte(yaml)); err != nil {
			wrong.Add("yaml", "%v", err)
			return nil, wrong
		}
	} else {
		from, err := f.Profile(ctx, copyOf)
		if err != nil {
			return nil, err
		}
		c := *from
		c.Name = strings.TrimSpace("My " + strings.TrimPrefix(from.Name, "My "))
		p = &c
	}
	p.Source, p.Basis = "made here", "the owner's own statement"
	p.AsOf = f.now().UTC().Format("2006-01")
	if p.ID, err = f.freeID(ctx, p.Name); err != nil {
		return nil, err
	}
	return f.save(ctx, p, store.Latest, "make the profile "+p.Name)
}

// freeID makes an ID from a name that no profile has.
func (f *Fleet) freeID(ctx context.Context, name string) (string, error) {
	base := "own-" + strings.Trim(strings.Map(func(r rune) rune {
		switch {
		case r >= 'a' && r <= 'z' || r >= '0' && r <= '9':
			return r
		case r >= 'A' && r <= 'Z':
			return r + 'a' - 'A'
		}
		return '-'
	}, name), "-")
	for n := 1; ; n++ {
		id := base
		if n > 1 {
			id = fmt.Sprintf("%s-%d", base, n)
		}
		if _, err := f.store.Profile(ctx, id); errors.Is(err, fault.ErrNotFound) {
			return id, nil
		} else if err != nil {
			return "", err
		}
	}
}

// save keeps a profile, in place of the one with its ID.
func (f *Fleet) save(ctx context.Context, p *radio.Profile, seen int64, label string) (*ProfileForm, error) {
	y, err := radio.Write(p)
	if err != nil {
		return nil, err
	}
	stamp, err := f.Stamp(ctx, label)
	if err != nil {
		return nil, err
	}
	row := store.Profile{Slug: p.ID, YAML: string(y), SavedAt: stamp.At}
	old, err := f.store.Profile(ctx, p.ID)
	if err != nil && !errors.Is(err, fault.ErrNotFound) {
		return nil, err
	}
	err = f.store.Edit(ctx, 0, seen, stamp, func(e *store.Edit) (err error) {
		if row.ID = old.ID; row.ID == 0 {
			if row.ID, err = e.ID("profile"); err != nil {
				return err
			}
		}
		return e.Put(row)
	})
	return f.after(ctx, p.ID, err)
}

// after returns the profile as it stands; with an error that says so where a
// change was refused because somebody else changed it.
func (f *Fleet) after(ctx context.Context, id string, err error) (*ProfileForm, error) {
	var stale *fault.Stale
	if err != nil && !errors.As(err, &stale) {
		return nil, err
	}
	now, ferr := f.Form(ctx, id)
	if ferr != nil {
		return nil, errors.Join(err, ferr)
	}
	if stale != nil {
		stale.Now = now
		return nil, stale
	}
	return now, nil
}

// SaveProfile changes a profile that was made here; one that ships is copied
// first.
func (f *Fleet) SaveProfile(ctx context.Context, id string, texts map[string]string, seen int64) (*ProfileForm, error) {
	p, wrong, err := f.edited(ctx, id, texts)
	if err != nil {
		return nil, err
	}
	if _, err := radio.Load(id); err == nil {
		wrong.Add("name", "%s ships with the application: copy it, then change the copy", p.Name)
	}
	if err := wrong.Or(); err != nil {
		return nil, err
	}
	return f.save(ctx, p, seen, "change the profile "+p.Name)
}

// Edited returns a profile as texts change it, or what is wrong with them.
// Nothing is saved.
func (f *Fleet) Edited(ctx context.Context, id string, texts map[string]string) (*radio.Profile, []fault.Field, error) {
	p, wrong, err := f.edited(ctx, id, texts)
	if err != nil {
		return nil, nil, err
	}
	return p, wrong.Fields, nil
}

func (f *Fleet) edited(ctx context.Context, id string, texts map[string]string) (*radio.Profile, *fault.Invalid, error) {
	from, err := f.Profile(ctx, id)
	if err != nil {
		return nil, nil, err
	}
	wrong := &fault.Invalid{}
	p, errs := radio.FromForm(*from, texts)
	for _, e := range errs {
		wrong.Add(e.Field, "%s", e.Message)
	}
	return p, wrong, nil
}

// DeleteProfile removes a profile that was made here and that no radio is of.
// It returns the profile, so that it can be brought back.
func (f *Fleet) DeleteProfile(ctx context.Context, id string, seen int64) (*ProfileForm, error) {
	p, err := f.Form(ctx, id)
	if err != nil {
		return nil, err
	}
	wrong := &fault.Invalid{}
	if !p.Own {
		wrong.Add("id", "%s ships with Mnemos and cannot be deleted", p.Name)
	}
	units, err := f.store.Units(ctx)
	if err != nil {
		return nil, err
	}
	for _, u := range units {
		if u.Profile == p.ID && !wrong.Has("id") {
			wrong.Add("id", "the plan uses %s: remove it from the plan first", p.Name)
		}
	}
	if err := wrong.Or(); err != nil {
		return nil, err
	}
	stamp, err := f.Stamp(ctx, "delete the profile "+p.Name)
	if err != nil {
		return nil, err
	}
	own, err := f.store.Profile(ctx, id)
	if err != nil {
		return nil, err
	}
	return p, f.store.Edit(ctx, 0, seen, stamp, func(e *store.Edit) error { return e.Drop("profile", own.ID) })
}
