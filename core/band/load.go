package band

import (
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
	return plans
})

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
