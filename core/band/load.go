package band

import (
	"cmp"
	"embed"
	"fmt"
	"slices"
	"strings"
	"sync"

	"github.com/goccy/go-yaml"
)

//go:embed plans/*.yaml
var files embed.FS

var all = sync.OnceValue(func() map[string]*Plan {
	entries, err := files.ReadDir("plans")
	if err != nil {
		panic(err) // embedded: cannot fail in a built binary
	}
	plans := make(map[string]*Plan, len(entries))
	for _, e := range entries {
		b, err := files.ReadFile("plans/" + e.Name())
		if err != nil {
			panic(err)
		}
		var p Plan
		if err := yaml.UnmarshalWithOptions(b, &p, yaml.Strict()); err != nil {
			panic(fmt.Sprintf("band plan %s: %v", e.Name(), err))
		}
		plans[p.Region] = &p
	}
	for _, p := range plans {
		p.inherit(plans)
	}
	return plans
})

// inherit takes the bands that the plan does not name from its base, and
// makes every shift of a region without a citable table one to confirm.
func (p *Plan) inherit(plans map[string]*Plan) {
	if p.Base != "" {
		base, ok := plans[p.Base]
		if !ok || base.Base != "" {
			panic(fmt.Sprintf("band plan %s: %q is no base", p.Region, p.Base))
		}
		for _, b := range base.Bands {
			if !slices.ContainsFunc(p.Bands, func(own Band) bool { return own.Name == b.Name }) {
				b.Shifts = slices.Clone(b.Shifts) // the base keeps its own certainty
				p.Bands = append(p.Bands, b)
			}
		}
		slices.SortFunc(p.Bands, func(a, b Band) int { return cmp.Compare(a.Lower, b.Lower) })
		p.Bands = slices.DeleteFunc(p.Bands, func(b Band) bool { return len(b.Segments) == 0 }) // named only to be left out
	}
	if p.Firm() {
		return
	}
	for i := range p.Bands {
		for j := range p.Bands[i].Shifts {
			p.Bands[i].Shifts[j].Certainty = Confirm
		}
	}
}

// Load returns the plan of a region by its short name, such as "us".
func Load(region string) (*Plan, error) {
	if p, ok := all()[strings.ToLower(region)]; ok {
		return p, nil
	}
	return nil, fmt.Errorf("region %q is not known, use one of: %s", region, strings.Join(Regions(), ", "))
}

// MustLoad is Load for regions known to be there; it panics otherwise.
func MustLoad(region string) *Plan {
	p, err := Load(region)
	if err != nil {
		panic(err)
	}
	return p
}

// Regions lists the short names of all regions, sorted.
func Regions() []string {
	var names []string
	for name := range all() {
		names = append(names, name)
	}
	slices.Sort(names)
	return names
}
