package app

import (
	"context"
	"errors"
	"fmt"
	"strings"
	"time"

	"mnemos/core/channel"
	"mnemos/core/naming"
	"mnemos/core/radio"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// RadioInfo is a profile in the list of radios.
type RadioInfo struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Form  string `json:"form"`
	Entry string `json:"entry"`
	Own   bool   `json:"own"`  // made by somebody here; the others ship
	Load  *int64 `json:"load"` // the load that uses it, or nil
}

// RadioForm is a profile to be edited.
type RadioForm struct {
	RadioInfo
	Texts  map[string]string `json:"texts"`
	Fields []radio.Field     `json:"fields"`
	YAML   string            `json:"yaml"`
}

// Preview is what a profile would hold of the channels of the plan.
type Preview struct {
	Faults []fault.Field `json:"faults"`
	Rows   []PreviewRow  `json:"rows"`
	Fit    int           `json:"fit"`  // channels that it holds as they are
	Lose   int           `json:"lose"` // channels that it holds in part
	Cannot int           `json:"cannot"`
	YAML   string        `json:"yaml"`
}

// PreviewRow is one channel of the plan.
type PreviewRow struct {
	Slot    int             `json:"slot"`
	Channel channel.Channel `json:"channel"`
	Short   string          `json:"short_name"`
	Held    bool            `json:"held"`
	Losses  []radio.Loss    `json:"losses"`
}

// profile returns a profile by its ID: one that somebody made, or one that
// ships.
func (a *App) profile(ctx context.Context, id string) (*radio.Profile, error) {
	p, err := radio.Load(id)
	if err == nil {
		return p, nil
	}
	own, serr := a.store.Profile(ctx, id)
	if errors.Is(serr, fault.ErrNotFound) {
		return nil, fmt.Errorf("%w: %w", serr, err)
	}
	if serr != nil {
		return nil, serr
	}
	return radio.Read([]byte(own.YAML))
}

// Radios lists the profiles: those of the plan and one's own first.
func (a *App) Radios(ctx context.Context) ([]RadioInfo, error) {
	loads, err := a.loads(ctx)
	if err != nil {
		return nil, err
	}
	out := []RadioInfo{}
	own, err := a.store.Profiles(ctx)
	if err != nil {
		return nil, err
	}
	for _, x := range own {
		p, err := radio.Read([]byte(x.YAML))
		if err != nil {
			return nil, fmt.Errorf("profile %s: %w", x.ID, err)
		}
		out = append(out, info(p, true, loads))
	}
	for _, p := range radio.Profiles() {
		out = append(out, info(p, false, loads))
	}
	return out, nil
}

func info(p *radio.Profile, own bool, loads map[string]int64) RadioInfo {
	i := RadioInfo{ID: p.ID, Name: p.Name, Form: p.Form, Entry: p.Entry.Says(), Own: own}
	if id, ok := loads[p.ID]; ok {
		i.Load = &id
	}
	return i
}

// Radio returns a profile to be looked at or edited.
func (a *App) Radio(ctx context.Context, id string) (*RadioForm, error) {
	p, err := a.profile(ctx, id)
	if err != nil {
		return nil, err
	}
	_, shipped := radio.Load(id)
	loads, err := a.loads(ctx)
	if err != nil {
		return nil, err
	}
	y, err := radio.Write(p)
	if err != nil {
		return nil, err
	}
	return &RadioForm{RadioInfo: info(p, shipped != nil, loads), Texts: radio.Form(p), Fields: radio.Fields, YAML: string(y)}, nil
}

// NewRadio makes a profile: a copy of another, or one that was brought as
// YAML. Its ID is made from the name.
func (a *App) NewRadio(ctx context.Context, copyOf, yaml string) (*RadioForm, error) {
	f := &fault.Invalid{}
	var p *radio.Profile
	var err error
	if yaml != "" {
		if p, err = radio.Read([]byte(yaml)); err != nil {
			f.Add("yaml", "%v", err)
			return nil, f
		}
	} else {
		from, err := a.profile(ctx, copyOf)
		if err != nil {
			return nil, err
		}
		c := *from
		c.Name = strings.TrimSpace("My " + strings.TrimPrefix(from.Name, "My "))
		p = &c
	}
	p.Source, p.Basis = "made here", "the owner's own statement"
	p.AsOf = a.now().UTC().Format("2006-01")
	if p.ID, err = a.freeID(ctx, p.Name); err != nil {
		return nil, err
	}
	return a.saveRadio(ctx, p)
}

// freeID makes an ID from a name that no profile has.
func (a *App) freeID(ctx context.Context, name string) (string, error) {
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
		if _, err := a.store.Profile(ctx, id); errors.Is(err, fault.ErrNotFound) {
			return id, nil
		} else if err != nil {
			return "", err
		}
	}
}

func (a *App) saveRadio(ctx context.Context, p *radio.Profile) (*RadioForm, error) {
	y, err := radio.Write(p)
	if err != nil {
		return nil, err
	}
	if err := a.store.SaveProfile(ctx, store.Profile{ID: p.ID, YAML: string(y), SavedAt: a.now().UTC().Format(time.RFC3339)}); err != nil {
		return nil, err
	}
	return a.Radio(ctx, p.ID)
}

// SaveRadio changes a profile that was made here; one that ships is copied
// first.
func (a *App) SaveRadio(ctx context.Context, id string, texts map[string]string) (*RadioForm, error) {
	p, f, err := a.edited(ctx, id, texts)
	if err != nil {
		return nil, err
	}
	if _, err := radio.Load(id); err == nil {
		f.Add("name", "%s ships with the application: copy it, then change the copy", p.Name)
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	return a.saveRadio(ctx, p)
}

func (a *App) edited(ctx context.Context, id string, texts map[string]string) (*radio.Profile, *fault.Invalid, error) {
	from, err := a.profile(ctx, id)
	if err != nil {
		return nil, nil, err
	}
	f := &fault.Invalid{}
	p, errs := radio.FromForm(*from, texts)
	for _, e := range errs {
		f.Add(e.Field, "%s", e.Message)
	}
	return p, f, nil
}

// DeleteRadio removes a profile that was made here and that no plan uses. It
// returns the profile, so that it can be brought back.
func (a *App) DeleteRadio(ctx context.Context, id string) (*RadioForm, error) {
	p, err := a.Radio(ctx, id)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	if !p.Own {
		f.Add("id", "%s ships with Mnemos and cannot be deleted", p.Name)
	}
	if p.Load != nil {
		f.Add("id", "the plan uses %s: remove it from the plan first", p.Name)
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	return p, a.store.DropProfile(ctx, id)
}

// PreviewRadio says what a profile, changed by the texts but not saved, would
// hold of the plan.
func (a *App) PreviewRadio(ctx context.Context, id string, texts map[string]string) (*Preview, error) {
	p, f, err := a.edited(ctx, id, texts)
	if err != nil {
		return nil, err
	}
	v := &Preview{Faults: append([]fault.Field{}, f.Fields...), Rows: []PreviewRow{}}
	if len(v.Faults) > 0 {
		return v, nil
	}
	y, err := radio.Write(p)
	if err != nil {
		return nil, err
	}
	v.YAML = string(y)
	channels, err := a.channels(ctx)
	if err != nil {
		return nil, err
	}
	taken := map[string]bool{}
	for _, e := range channels {
		_, losses := radio.Fit(e.Channel, p)
		row := PreviewRow{Slot: e.Slot, Channel: e.Channel, Held: p.Slots.Holds(e.Slot) && p.CanReceive(e.Channel.Receive), Losses: append([]radio.Loss{}, losses...)}
		row.Short = naming.Short(e.Channel.Name, p.Names, func(s string) bool { return taken[s] })
		taken[row.Short] = true
		switch {
		case !row.Held:
			v.Cannot++
		case len(losses) > 0:
			v.Lose++
		default:
			v.Fit++
		}
		v.Rows = append(v.Rows, row)
	}
	return v, nil
}
