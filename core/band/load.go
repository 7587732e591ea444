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

// loaded holds each plan once it has been asked for: reading all of them
// would cost every start half a second.
var loaded = func() map[string]func() *Plan {
	entries, err := files.ReadDir("plans")
	if err != nil {
		panic(err) // embedded: cannot fail in a built binary
	}
	out := make(map[string]func() *Plan, len(entries))
	for _, e := range entries {
		region := strings.TrimSuffix(e.Name(), ".yaml")
		out[region] = sync.OnceValue(func() *Plan { return read(region) })
	}
	return out
}()

func read(region string) *Plan {
	b, err := files.ReadFile("plans/" + region + ".yaml")
	if err != nil {
		panic(err)
	}
	var p Plan
	if err := yaml.UnmarshalWithOptions(b, &p, yaml.Strict()); err != nil {
		panic(fmt.Sprintf("band plan %s: %v", region, err))
	}
	if p.Base != "" {
		p.inherit(read(p.Base))
	}
	if !p.Firm() {
		for i := range p.Bands {
			for j := range p.Bands[i].Shifts {
				p.Bands[i].Shifts[j].Certainty = Confirm
			}
		}
	}
	return &p
}

// inherit takes the bands that the plan does not name from its base.
func (p *Plan) inherit(base *Plan) {
	for _, b := range base.Bands {
		if !slices.ContainsFunc(p.Bands, func(own Band) bool { return own.Name == b.Name }) {
			p.Bands = append(p.Bands, b)
		}
	}
	slices.SortFunc(p.Bands, func(a, b Band) int { return cmp.Compare(a.Lower, b.Lower) })
}

// Load returns the plan of a region by its short name, such as "us". It is
// shared: do not change it.
func Load(region string) (*Plan, error) {
	if p, ok := loaded[strings.ToLower(region)]; ok {
		return p(), nil
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
	for name := range loaded {
		names = append(names, name)
	}
	slices.Sort(names)
	return names
}
