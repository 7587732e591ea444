// Package document is a plan as a file: everything that people entered, and
// nothing that follows from it. Written and read back it is the same.
//
//	doc, err := document.Read(text)     // JSON
//	rows := document.Rows(doc)          // for CSV and workbooks
package document

import (
	"bytes"
	"encoding/json"
	"fmt"
	"slices"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/listing"
)

// Format and Version stand in every file.
const (
	Format  = "mnemos plan"
	Version = 1
)

// Plan is a plan with its channels, its radios and its sets.
type Plan struct {
	Name       string    `json:"name"`
	Season     string    `json:"season"`
	Region     string    `json:"region"`
	Lat        *float64  `json:"lat"`
	Lon        *float64  `json:"lon"`
	Height     float64   `json:"height_m"`
	Radius     float64   `json:"radius_km"`
	TonePolicy string    `json:"tone_policy"`
	Marks      string    `json:"marks"`
	Channels   []Channel `json:"channels"`
	Units      []Unit    `json:"radios"`
	Sets       []Set     `json:"sets"`
}

// Channel is a channel of the plan. Its place in the list, from 1, is what
// the rest of the document calls it by.
type Channel struct {
	Number   *int // the slot that everybody uses; nil for none
	Channel  channel.Channel
	Repeater listing.ID // the published statement that it was made from; zero for none
}

// Unit is a radio of the plan and what it holds.
type Unit struct {
	Name    string  `json:"name"` // "" for the name of its profile
	Profile string  `json:"profile"`
	YAML    string  `json:"yaml,omitempty"` // of a profile that does not ship
	Entries []Entry `json:"slots"`
}

// Entry is a channel in a slot.
type Entry struct {
	Slot    int        `json:"slot"`
	Channel int        `json:"channel"` // its place in the list, from 1
	Short   string     `json:"short_name"`
	Pinned  bool       `json:"pinned,omitempty"`
	Scan    entry.Scan `json:"scan"`
}

// Set is channels that belong together.
type Set struct {
	Kind    string   `json:"kind"`
	Name    string   `json:"name"`
	Members []Member `json:"members"`
}

// Member is a channel in a set.
type Member struct {
	Channel  int  `json:"channel"`
	Priority bool `json:"priority,omitempty"`
}

type wireRepeater struct {
	Source string `json:"source"`
	Key    string `json:"key"`
}

// MarshalJSON writes the public form of the channel with its number.
func (c Channel) MarshalJSON() ([]byte, error) {
	of, err := json.Marshal(c.Channel)
	if err != nil {
		return nil, err
	}
	head, err := json.Marshal(struct {
		Number *int `json:"number"`
	}{c.Number})
	if err != nil {
		return nil, err
	}
	out := append(head[:len(head)-1], ',')
	out = append(out, of[1:len(of)-1]...)
	if c.Repeater != (listing.ID{}) {
		r, err := json.Marshal(wireRepeater{c.Repeater.Source, c.Repeater.Key})
		if err != nil {
			return nil, err
		}
		out = append(append(out, `,"repeater":`...), r...)
	}
	return append(out, '}'), nil
}

// UnmarshalJSON reads it and validates the channel.
func (c *Channel) UnmarshalJSON(b []byte) error {
	var w struct {
		Number   *int          `json:"number"`
		Repeater *wireRepeater `json:"repeater"`
	}
	if err := json.Unmarshal(b, &w); err != nil {
		return err
	}
	c.Number = w.Number
	if w.Repeater != nil {
		c.Repeater = listing.ID{Source: w.Repeater.Source, Key: w.Repeater.Key}
	}
	return json.Unmarshal(b, &c.Channel)
}

type file struct {
	Format  string `json:"format"`
	Version int    `json:"version"`
	Plan
}

// JSON writes a plan.
func JSON(p Plan) ([]byte, error) {
	p.Channels, p.Units, p.Sets = orNone(p.Channels), orNone(p.Units), orNone(p.Sets)
	for i := range p.Units {
		p.Units[i].Entries = orNone(p.Units[i].Entries)
	}
	for i := range p.Sets {
		p.Sets[i].Members = orNone(p.Sets[i].Members)
	}
	var out bytes.Buffer
	e := json.NewEncoder(&out)
	e.SetEscapeHTML(false)
	e.SetIndent("", " ")
	err := e.Encode(file{Format, Version, p})
	return out.Bytes(), err
}

func orNone[T any](list []T) []T {
	if list == nil {
		return []T{}
	}
	return list
}

// Is reports whether a text is such a file, whatever else is wrong with it.
func Is(text []byte) bool {
	var f struct {
		Format string `json:"format"`
	}
	return json.Unmarshal(text, &f) == nil && f.Format == Format
}

// Read reads a plan from JSON and checks that it holds together.
func Read(text []byte) (Plan, error) {
	var f file
	d := json.NewDecoder(bytes.NewReader(text))
	d.DisallowUnknownFields()
	if err := d.Decode(&f); err != nil {
		return Plan{}, fmt.Errorf("this is not a plan: %w", err)
	}
	switch {
	case f.Format != Format:
		return Plan{}, fmt.Errorf("this is not a plan: its format is %q, not %q", f.Format, Format)
	case f.Version < 1:
		return Plan{}, fmt.Errorf("this is not a plan: its version is %d, and the first one was 1", f.Version)
	case f.Version > Version:
		return Plan{}, fmt.Errorf("a newer Mnemos made this plan (version %d): use that one", f.Version)
	}
	return f.Plan, f.Plan.Check()
}

// Check reports the first thing that does not hold together: two channels in one
// slot, or a channel that is not in the list.
func (p Plan) Check() error {
	numbers := map[int]bool{}
	for i, c := range p.Channels {
		if err := c.Channel.Validate(); err != nil {
			return fmt.Errorf("channel %d: %w", i+1, err)
		}
		if c.Number == nil {
			continue
		}
		if numbers[*c.Number] {
			return fmt.Errorf("channel %d: another one has the number %d too", i+1, *c.Number)
		}
		numbers[*c.Number] = true
	}
	known := func(n int) bool { return n >= 1 && n <= len(p.Channels) }
	for _, u := range p.Units {
		used, has := map[int]bool{}, map[int]bool{}
		for _, e := range u.Entries {
			switch {
			case !known(e.Channel):
				return fmt.Errorf("%s, slot %d: there is no channel %d in the list", u.Title(), e.Slot, e.Channel)
			case used[e.Slot]:
				return fmt.Errorf("%s: two channels are in slot %d", u.Title(), e.Slot)
			case has[e.Channel]:
				return fmt.Errorf("%s: channel %d is in two slots", u.Title(), e.Channel)
			case !slices.Contains([]entry.Scan{entry.ScanYes, entry.ScanSkip, entry.ScanPriority}, e.Scan):
				return fmt.Errorf("%s, slot %d: scan %q: write yes, skip or priority", u.Title(), e.Slot, e.Scan)
			}
			used[e.Slot], has[e.Channel] = true, true
		}
	}
	for _, s := range p.Sets {
		in := map[int]bool{}
		for _, m := range s.Members {
			if !known(m.Channel) || in[m.Channel] {
				return fmt.Errorf("the set %s: channel %d is not in the list, or twice in the set", s.Name, m.Channel)
			}
			in[m.Channel] = true
		}
	}
	return nil
}

// Title is what a radio is called.
func (u Unit) Title() string {
	if u.Name != "" {
		return u.Name
	}
	return u.Profile
}
