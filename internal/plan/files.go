package plan

import (
	"context"
	"errors"
	"fmt"
	"os"
	"slices"
	"strings"

	"mnemos/core/band"
	"mnemos/core/check"
	"mnemos/core/document"
	"mnemos/core/find"
	"mnemos/core/geo"
	"mnemos/core/limit"
	"mnemos/core/listing"
	"mnemos/core/naming"
	"mnemos/core/radio"
	"mnemos/core/table"
	"mnemos/internal/exchange"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Document is a plan as it stands, whole.
func (p *Plans) Document(ctx context.Context, planID int64) (document.Plan, error) {
	doc, _, err := p.document(ctx, planID)
	return doc, err
}

// meant gives the channels that no published repeater is linked to the one that the
// checks take them for, so that a map knows where they are.
func (p *Plans) meant(ctx context.Context, planID int64, doc *document.Plan, at map[int64]int) error {
	loads, err := p.equipped(ctx, planID)
	if err != nil {
		return err
	}
	for _, l := range loads {
		d, results, err := p.judgedAll(ctx, l.ID)
		if err != nil {
			return err
		}
		for i, e := range d.entries {
			c := &doc.Channels[at[e.ChannelID]-1]
			if m := results[i].Meant; m != nil && c.Repeater == (listing.ID{}) {
				c.Repeater = m.ID()
			}
		}
	}
	return nil
}

// document is also told where in the list each channel is, from 1.
func (p *Plans) document(ctx context.Context, planID int64) (document.Plan, map[int64]int, error) {
	ctx, done, err := p.store.Moment(ctx) // its rows belong together
	if err != nil {
		return document.Plan{}, nil, err
	}
	defer done()
	x, err := p.Plan(ctx, planID)
	if err != nil {
		return document.Plan{}, nil, err
	}
	out := document.Plan{
		Name: x.Name, Season: x.Season, Region: x.Region, Lat: x.Lat, Lon: x.Lon, Height: x.Height, Radius: x.Radius, TonePolicy: x.TonePolicy, Marks: x.Marks,
	}
	channels, err := p.numbered(ctx, x.ID)
	if err != nil {
		return out, nil, err
	}
	at := map[int64]int{} // the place of a channel in the list
	for i, n := range channels {
		c := document.Channel{Channel: n.Channel, Repeater: n.Repeater}
		if !n.spare {
			c.Number = &channels[i].Slot
		}
		out.Channels = append(out.Channels, c)
		at[n.ChannelID] = i + 1
	}
	loads, err := p.equipped(ctx, x.ID)
	if err != nil {
		return out, nil, err
	}
	for _, l := range loads {
		u := document.Unit{Name: l.Unit.Name, Profile: l.Unit.Profile}
		if strings.HasPrefix(u.Profile, "own-") {
			yaml, err := radio.Write(l.Unit.Radio)
			if err != nil {
				return out, nil, err
			}
			u.YAML = string(yaml)
		}
		entries, err := p.store.Entries(ctx, l.ID)
		if err != nil {
			return out, nil, err
		}
		for _, e := range entries {
			u.Entries = append(u.Entries, document.Entry{Slot: e.Slot, Channel: at[e.ChannelID], Short: e.ShortName, Pinned: e.Pinned, Scan: e.Scan})
		}
		out.Units = append(out.Units, u)
	}
	sets, err := p.store.Sets(ctx, x.ID)
	if err != nil {
		return out, nil, err
	}
	members, err := p.store.Members(ctx, x.ID)
	if err != nil {
		return out, nil, err
	}
	for _, s := range sets {
		set := document.Set{Kind: s.Kind, Name: s.Name}
		for _, m := range members {
			if m.SetID == s.ID && at[m.ChannelID] > 0 {
				set.Members = append(set.Members, document.Member{Channel: at[m.ChannelID], Priority: m.Priority})
			}
		}
		out.Sets = append(out.Sets, set)
	}
	return out, at, nil
}

// places says where the published repeaters of a plan stand.
func (p *Plans) places(ctx context.Context) exchange.Places {
	return func(id listing.ID) (geo.Point, bool) {
		_, best, err := p.catalog.Repeater(ctx, id)
		if err != nil {
			return geo.Point{}, false
		}
		return best.Place()
	}
}

// PlanFile writes a plan in a format.
func (p *Plans) PlanFile(ctx context.Context, planID int64, format string) (exchange.File, error) {
	doc, at, err := p.document(ctx, planID)
	if err != nil {
		return exchange.File{}, err
	}
	if format == "geojson" || format == "gpx" {
		x, err := p.Plan(ctx, planID)
		if err != nil {
			return exchange.File{}, err
		}
		if err := p.meant(ctx, x.ID, &doc, at); err != nil {
			return exchange.File{}, err
		}
	}
	f, err := exchange.Plan(doc, format, p.places(ctx))
	return f, noFormat(err)
}

// LoadFile writes what one radio will hold of a plan.
func (p *Plans) LoadFile(ctx context.Context, loadID int64, format string) (exchange.File, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return exchange.File{}, err
	}
	lines := []table.Line{}
	own := document.Plan{Name: d.plan.Name + " " + d.unit.Title()}
	for _, e := range d.entries {
		lines = append(lines, table.Line{Slot: e.Slot, Short: e.ShortName, Scan: e.Scan, Channel: e.Channel})
	}
	held := document.Held(d.plan.Name, d.unit.Title(), d.radio, lines)
	for _, l := range held.Rows { // the map shows what the radio holds
		e, _ := d.at(l.Slot)
		own.Channels = append(own.Channels, document.Channel{Number: new(l.Slot), Channel: l.Channel, Repeater: e.Repeater})
	}
	f, err := exchange.Load(held, format, own, p.places(ctx))
	return f, noFormat(err)
}

func noFormat(err error) error {
	if !errors.Is(err, exchange.ErrNoFormat) {
		return err
	}
	f := &fault.Invalid{}
	f.Add("format", "%v", err)
	return f
}

// Brought is what came of a file: a new plan, or channels in a radio.
type Brought struct {
	Workspace *Workspace // of a plan that was in the file
	Pasted    *Pasted    // of a table
}

// BringFile takes a file in: a plan becomes a new one, a table becomes channels of a
// radio, from a slot on.
func (p *Plans) BringFile(ctx context.Context, loadID int64, path string, s Paste) (*Brought, error) {
	f := &fault.Invalid{}
	if text, err := os.ReadFile(path); err == nil {
		if image, err := document.ReadImage(text); image.Format == document.ImageFormat {
			if err != nil {
				f.Add("file", "%v", err)
				return nil, f
			}
			return p.bringImage(ctx, loadID, image, s)
		}
	}
	doc, rows, isPlan, err := exchange.ReadPlan(path)
	if err != nil {
		f.Add("file", "%v", err)
		return nil, f
	}
	if isPlan {
		w, err := p.Import(ctx, doc)
		return &Brought{Workspace: w}, err
	}
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	rows = slices.DeleteFunc(rows, func(r []string) bool { return strings.TrimSpace(strings.Join(r, "")) == "" })
	switch {
	case len(rows) == 0:
		f.Add("file", "the file has no rows")
	case len(rows) > limit.Rows:
		f.Add("file", "%d rows are too many for a radio: import it as a listing in Find", len(rows))
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	v, err := p.paste(ctx, d, rows, s)
	return &Brought{Pasted: v}, err
}

// bringImage stores what was read out of a radio, or saved for one.
func (p *Plans) bringImage(ctx context.Context, loadID int64, image document.Image, s Paste) (*Brought, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	var lines []line
	for i, l := range d.fromImage(image) {
		lines = append(lines, line{l, i + 1, ""})
	}
	v, err := p.stored(ctx, d, s, lines)
	return &Brought{Pasted: v}, err
}

// Import makes a new plan of a document, as one step. A radio whose profile is not
// here comes with it.
func (p *Plans) Import(ctx context.Context, doc document.Plan) (*Workspace, error) {
	f := &fault.Invalid{}
	x := store.Plan{
		Name: doc.Name, Season: doc.Season, Region: doc.Region, Lat: doc.Lat, Lon: doc.Lon, Height: doc.Height, Radius: doc.Radius, TonePolicy: doc.TonePolicy, Marks: doc.Marks,
	}
	if x.Radius == 0 { // the file does not say
		x.Radius = check.Defaults(p.now()).RadiusKM
	}
	if _, err := band.Load(x.Region); err != nil {
		f.Add("region", "%v", err)
	}
	if (x.Lat == nil) != (x.Lon == nil) || x.Lat != nil && !(*x.Lat >= -90 && *x.Lat <= 90 && *x.Lon >= -180 && *x.Lon <= 180) { // so that NaN is refused too
		f.Add("place", "a place is a latitude of -90 to 90 and a longitude of -180 to 180 degrees, or neither")
	}
	if !(x.Height >= 0 && x.Height <= 5000) {
		f.Add("height_m", "write metres above the surroundings, 0 to 5000")
	}
	if !(x.Radius >= 1 && x.Radius <= 1000) {
		f.Add("radius_km", "write kilometres, 1 to 1000")
	}
	if _, err := find.ReadMarks(x.Marks); err != nil {
		f.Add("marks", "%v", err)
	}
	if x.TonePolicy != string(check.EncodeFirst) && x.TonePolicy != string(check.SquelchFirst) {
		x.TonePolicy = string(check.EncodeFirst)
	}
	Form{Name: &doc.Name, Season: &doc.Season}.read(&x, f)
	sets := []store.Set{}
	for i, s := range doc.Sets {
		form := SetForm{s.Kind, s.Name}.read(f, sets, 0)
		sets = append(sets, store.Set{ID: int64(i + 1), Kind: form.Kind, Name: form.Name})
	}
	if len(doc.Units) == 0 {
		f.Add("radios", "the plan has no radio")
	}
	profiles := make([]*radio.Profile, len(doc.Units))
	for i, u := range doc.Units {
		var err error
		if profiles[i], err = p.profileOf(ctx, u); err != nil {
			f.Add("radios", "%s: %v", u.Title(), err)
			continue
		}
		for _, e := range u.Entries {
			if !profiles[i].Slots.Holds(e.Slot) {
				f.Add("radios", "%s has no slot %d", u.Title(), e.Slot)
				break
			}
			if !naming.Fits(e.Short, profiles[i].Names) {
				f.Add("radios", "%s, slot %d: it cannot show %.20q", u.Title(), e.Slot, e.Short)
				break
			}
		}
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	ids := make([]string, len(doc.Units))
	for i, u := range doc.Units {
		ids[i] = u.Profile
		if profiles[i].ID == "" { // it is not here yet
			made, err := p.fleet.NewProfile(ctx, "", u.YAML)
			if err != nil {
				return nil, err
			}
			ids[i] = made.ID
		}
	}
	stamp, err := p.fleet.Stamp(ctx, "import the plan "+x.Name)
	if err != nil {
		return nil, err
	}
	err = p.store.Edit(ctx, 0, store.Latest, stamp, func(e *store.Edit) error {
		if x, err = e.AddPlan(x); err != nil {
			return err
		}
		return fill(e, doc, ids)
	})
	if err != nil {
		return nil, err
	}
	return p.Workspace(ctx, x.ID)
}

// profileOf is the profile of a radio in a document: the one that is here, or the one
// that came with it, which has no ID yet.
func (p *Plans) profileOf(ctx context.Context, u document.Unit) (*radio.Profile, error) {
	here, err := p.fleet.Profile(ctx, u.Profile)
	if u.YAML == "" {
		if errors.Is(err, fault.ErrNotFound) {
			return nil, fmt.Errorf("there is no profile %q here, and none in the file", u.Profile)
		}
		return here, err
	}
	if err == nil {
		if y, werr := radio.Write(here); werr == nil && string(y) == u.YAML {
			return here, nil
		}
	}
	own, err := radio.Read([]byte(u.YAML))
	if err != nil {
		return nil, err
	}
	own.ID = ""
	return own, nil
}

// fill puts the channels, the radios and the sets of a document into a plan.
func fill(e *store.Edit, doc document.Plan, profiles []string) error {
	channels := make([]int64, len(doc.Channels))
	used := map[int]bool{}
	for _, u := range doc.Units {
		for _, x := range u.Entries {
			used[x.Channel] = true
		}
	}
	for i, c := range doc.Channels {
		if !used[i+1] {
			continue // a channel lives in the radios that hold it
		}
		id, err := e.AddChannel(c.Channel, c.Repeater)
		if err != nil {
			return err
		}
		channels[i] = id
	}
	for i, u := range doc.Units {
		l, err := e.AddLoad(store.Unit{Name: u.Name, Profile: profiles[i]})
		if err != nil {
			return err
		}
		for _, x := range u.Entries {
			if err := e.AddEntry(store.Entry{LoadID: l.ID, Slot: x.Slot, ChannelID: channels[x.Channel-1], ShortName: x.Short, Pinned: x.Pinned, Scan: x.Scan}); err != nil {
				return err
			}
		}
	}
	for i, c := range doc.Channels {
		if c.Number == nil || channels[i] == 0 {
			continue
		}
		if err := e.Number(channels[i], *c.Number); err != nil {
			return err
		}
	}
	for _, s := range doc.Sets {
		made, err := e.AddSet(s.Kind, s.Name)
		if err != nil {
			return err
		}
		for _, m := range s.Members {
			if channels[m.Channel-1] == 0 {
				continue
			}
			if err := e.Join(made.ID, channels[m.Channel-1], m.Priority); err != nil {
				return err
			}
		}
	}
	return nil
}
