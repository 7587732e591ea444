package catalog

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Form is what somebody looks for.
type Form struct {
	Text    string
	Band    string
	All     bool   // digital-only repeaters too
	Tone    bool   // only with a known tone
	Opens   string // carrier, tone, code, burst or dtmf
	OnAir   bool
	Open    bool
	Fresh   bool   // confirmed within the months after which a record is old
	New     bool   // not in the plan
	Source  string // the name of a listing
	Nowhere bool   // only what has no place
	Within  float64
	Sort    string // distance, reach, frequency
	Most    int
	Seen    *geo.Box // what the map shows; nil for all around
	Degrees float64  // size of a cell of the map
}

// Found is what is published around.
type Found struct {
	Place     *geo.Point // nil if nobody has said where they are
	Locator   string
	Height    float64
	Within    float64
	Repeaters []Repeater
	More      bool // there are others: narrow the search
	Bands     []string
	Records   int // in all listings
	Nowhere   int // records without a place that match
	Sources   []string
}

// Repeater is one repeater as its listings have it.
type Repeater struct {
	ID         listing.ID
	Title      string
	Best       listing.Record
	Shift      string // in words; empty if the input is unknown
	Distance   *float64
	Bearing    *float64
	Reach      float64
	Horizon    bool // the reach is its radio horizon, from a published height
	Audible    bool
	Age        string
	Stale      bool
	Slots      []int // of the plan that hold it
	FM         bool
	Remark     string // why it is no plain FM repeater for everybody; empty if it is
	Statements []listing.Record
	Corrected  []Corrected
	Conflicts  []listing.Conflict
}

// Scene is where somebody looks around from, and what their plan holds.
type Scene struct {
	PlanID   int64
	Band     *band.Plan
	Settings check.Settings
	Held     map[store.Pair][]int // slots
}

func (s Scene) filter(form Form) (store.Filter, error) {
	f := store.Filter{Plan: s.PlanID, FM: !form.All, ToneKnown: form.Tone, Opens: form.Opens, OnAir: form.OnAir, Open: form.Open, Box: form.Seen, Source: form.Source, Nowhere: form.Nowhere}
	f.Text = strings.TrimSpace(form.Text)
	if form.Band != "" {
		i := slices.IndexFunc(s.Band.Bands, func(b band.Band) bool { return b.Name == form.Band })
		if i < 0 {
			invalid := &fault.Invalid{}
			invalid.Add("band", "%q is not a band in %s", form.Band, s.Band.Title)
			return f, invalid
		}
		f.Lower, f.Upper = s.Band.Bands[i].Lower, s.Band.Bands[i].Upper
	}
	if form.Fresh {
		f.Since = s.Settings.Today.AddDate(0, -s.Settings.Stale, 0).Format(time.DateOnly)
	}
	if form.New {
		for p := range s.Held {
			f.Not = append(f.Not, p)
		}
	}
	return f, nil
}

// most is how many repeaters a search returns at most.
const most = 500

// Find returns the repeaters that a search finds, joined from all listings.
func (c *Catalog) Find(ctx context.Context, s Scene, form Form) (*Found, error) {
	filter, err := s.filter(form)
	if err != nil {
		return nil, err
	}
	limit := form.Most
	if limit <= 0 || limit > most {
		limit = 200
	}
	out := &Found{Place: s.Settings.Place, Height: s.Settings.Height, Within: form.Within, Repeaters: []Repeater{}, Bands: []string{}, Sources: []string{}}
	for _, b := range s.Band.Bands {
		out.Bands = append(out.Bands, b.Name)
	}
	place := s.Settings.Place
	if p, err := geo.ParseLocator(filter.Text); err == nil {
		place, filter.Text = &p, "" // somewhere else
	}
	if place != nil {
		out.Place, out.Locator = place, place.Locator()
	}
	records, err := c.search(ctx, place, out.Within, filter, 3*limit)
	if err != nil {
		return nil, err
	}
	// What has no place is on no map: it is found by name, by listing, or asked for.
	extra := 0
	if filter.Text != "" || form.Source != "" || form.Nowhere {
		extra = limit
	}
	placeless, number, err := c.store.Placeless(ctx, filter, extra)
	if err != nil {
		return nil, err
	}
	if out.Nowhere = number; place != nil || filter.Box != nil {
		records = append(records, placeless...)
	}
	repeaters := slices.DeleteFunc(slices.Clone(records), func(r listing.Record) bool { return !r.IsRepeater() })
	joined, err := c.join(ctx, repeaters)
	if err != nil {
		return nil, err
	}
	for _, r := range records {
		if !r.IsRepeater() { // a channel is joined with nothing
			joined = append(joined, listing.Repeater{Statements: []listing.Record{r}})
		}
	}
	corrections, err := c.Corrections(ctx)
	if err != nil {
		return nil, err
	}
	for _, r := range joined {
		v := s.repeater(r, place, corrections)
		if v.Distance == nil && place != nil && !form.Nowhere && filter.Text == "" && form.Source == "" {
			continue
		}
		if v.Distance == nil || out.Within <= 0 || *v.Distance <= out.Within {
			out.Repeaters = append(out.Repeaters, v)
		}
	}
	slices.SortStableFunc(out.Repeaters, order(form.Sort))
	if len(out.Repeaters) > limit {
		out.Repeaters, out.More = out.Repeaters[:limit], true
	}
	out.More = out.More || len(records) >= 3*limit
	sources, err := c.Sources(ctx, s.PlanID)
	for _, x := range sources {
		out.Records += x.Records
		out.Sources = append(out.Sources, x.Name)
	}
	return out, err
}

// search reads the records of what the map shows, or within a distance, or the
// nearest wherever they are.
func (c *Catalog) search(ctx context.Context, place *geo.Point, km float64, f store.Filter, limit int) ([]listing.Record, error) {
	switch box := f.Box; {
	case box != nil && place == nil:
		middle := geo.Point{Lat: (box.South + box.North) / 2, Lon: (box.West + box.East) / 2}
		return c.store.Inside(ctx, *box, middle, f, limit)
	case place == nil:
		return c.store.Any(ctx, f, limit)
	case box != nil:
		return c.store.Inside(ctx, *box, *place, f, limit)
	case km <= 0:
		return c.store.Nearest(ctx, *place, f, limit)
	}
	return c.store.Inside(ctx, geo.Around(*place, km), *place, f, limit)
}

func (c *Catalog) join(ctx context.Context, records []listing.Record) ([]listing.Repeater, error) {
	decisions, err := c.store.Decisions(ctx)
	if err != nil {
		return nil, err
	}
	return listing.Join(records, decisions), nil
}

func order(by string) func(a, b Repeater) int {
	away := func(r Repeater) float64 {
		if r.Distance == nil {
			return math.MaxFloat64
		}
		return *r.Distance
	}
	last := func(a, b Repeater) int {
		return cmp.Or(cmp.Compare(a.Best.Output, b.Best.Output), cmp.Compare(a.ID.Source, b.ID.Source), cmp.Compare(a.ID.Key, b.ID.Key))
	}
	switch by {
	case "frequency":
		return func(a, b Repeater) int { return cmp.Or(last(a, b), cmp.Compare(away(a), away(b))) }
	case "reach":
		// How far inside its reach one is: the share of the reach that the
		// distance takes.
		return func(a, b Repeater) int { return cmp.Or(cmp.Compare(away(a)/a.Reach, away(b)/b.Reach), last(a, b)) }
	}
	return func(a, b Repeater) int { return cmp.Or(cmp.Compare(away(a), away(b)), last(a, b)) }
}

// remark says why a repeater is not simply for everybody with an FM radio.
func remark(r listing.Record) string {
	var parts []string
	switch r.Kind {
	case listing.SimplexChannel:
		parts = append(parts, "a simplex channel, not a repeater")
	case listing.ListenChannel:
		parts = append(parts, "a channel to listen to, not a repeater")
	}
	if r.Mode == listing.Digital {
		parts = append(parts, "digital only: an FM radio hears noise, so it is left out of plans")
	}
	if strings.Contains(strings.ToUpper(r.Note), "DTMF") {
		parts = append(parts, "opened by DTMF, which no memory holds: key it by hand, with the sequence from the owner")
	}
	if r.Status == listing.OffAir {
		parts = append(parts, "said to be off the air")
	}
	switch r.Access {
	case listing.Closed:
		parts = append(parts, "for members: ask the owner before you use it")
	case listing.Private:
		parts = append(parts, "private: leave it alone unless the owner invites you")
	}
	return strings.Join(parts, "; ")
}

func (s Scene) repeater(r listing.Repeater, place *geo.Point, c listing.Corrections) Repeater {
	rules := s.Settings
	best := c.Best(r)
	m := listing.Measure([]listing.Record{best}, channel.New(best.Output), listing.Query{Place: place, RadiusKM: 40_000, Height: rules.Height})[0]
	v := Repeater{
		ID: r.Statements[0].ID(), Title: best.Title(), Best: best, Reach: m.Reach, Horizon: m.Horizon, Audible: m.Audible && m.Distance != nil,
		Age: check.AgeWords(m, rules), Slots: append([]int{}, s.Held[store.Pair{Output: best.Output, Input: best.Input}]...),
		FM: best.Mode != listing.Digital, Remark: remark(best), Statements: r.Statements, Corrected: known(c, r), Conflicts: append([]listing.Conflict{}, r.Conflicts...),
	}
	// Where somebody knows better the listings are no longer in question.
	v.Conflicts = slices.DeleteFunc(v.Conflicts, func(x listing.Conflict) bool {
		return slices.ContainsFunc(v.Corrected, func(k Corrected) bool { return k.Field == x.Field && !k.Open })
	})
	if m.Distance != nil {
		km, deg := math.Round(*m.Distance*10)/10, math.Mod(math.Round(m.Bearing), 360)
		v.Distance, v.Bearing = &km, &deg
	}
	if o, known := best.Offset(); known {
		v.Shift = listing.ShiftWords(o)
	}
	v.Stale = best.Updated.IsZero() || rules.Today.AddDate(0, -rules.Stale, 0).After(best.Updated.Time)
	return v
}

// MapSpots is what the map shows of a search.
type MapSpots struct {
	Spots  []store.Spot
	Number int
}

// Spots counts what a search finds by places on the map.
func (c *Catalog) Spots(ctx context.Context, s Scene, form Form) (*MapSpots, error) {
	filter, err := s.filter(form)
	if err != nil {
		return nil, err
	}
	if _, err := geo.ParseLocator(filter.Text); err == nil {
		filter.Text = ""
	}
	spots, err := c.store.Spots(ctx, filter, max(form.Degrees, 0.0001))
	if err != nil {
		return nil, err
	}
	out := &MapSpots{Spots: append([]store.Spot{}, spots...)}
	for _, x := range spots {
		out.Number += x.Number
	}
	return out, nil
}

// Outlines returns the coasts that are drawn beside those of the world.
func (c *Catalog) Outlines(ctx context.Context) ([]map[string]any, error) {
	texts, err := c.store.Outlines(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]map[string]any, len(texts))
	for i, text := range texts {
		if err := json.Unmarshal([]byte(text), &out[i]); err != nil {
			return nil, fmt.Errorf("read outline: %w", err)
		}
	}
	return out, nil
}

// Spot is a place on the map with the number of records there.
type Spot = store.Spot
