// Package space is a small listing of its own: the published pairs of FM
// stations in space. They cross bands, lie in satellite segments and move with
// Doppler, so the rules for repeaters on the ground do not fit them.
package space

import (
	_ "embed"
	"fmt"
	"slices"
	"sync"

	"github.com/goccy/go-yaml"

	"mnemos/core/freq"
	"mnemos/core/tone"
)

// Pair is a downlink and the uplink that goes with it.
type Pair struct {
	Name     string    `yaml:"name"`
	Receive  freq.Hz   `yaml:"receive"`
	Transmit freq.Hz   `yaml:"transmit"`
	Tone     tone.Tone `yaml:"tone"` // sent on the uplink
	Packet   bool      `yaml:"packet"`
	Regions  []string  `yaml:"regions"` // where this uplink is used; empty for everywhere
}

// Table is the listing with its source.
type Table struct {
	Source string `yaml:"source"`
	Basis  string `yaml:"basis"`
	AsOf   string `yaml:"as_of"`
	Pairs  []Pair `yaml:"pairs"`
}

//go:embed pairs.yaml
var file []byte

// Published returns the listing. It is shared: do not change it.
var Published = sync.OnceValue(func() *Table {
	var t Table
	if err := yaml.UnmarshalWithOptions(file, &t, yaml.Strict()); err != nil {
		panic(fmt.Sprintf("pairs of space stations: %v", err)) // embedded
	}
	return &t
})

// Doppler is the largest shift of a signal from a low orbit at f, with what a
// tuning step adds: people store a ladder of memories around the figure.
// Computed from 7.8 km/s, of which at most 0.9 points at the listener, as
// f × v/c.
func Doppler(f freq.Hz) freq.Hz { return f/42_000 + 2_500 }

// Find returns the published pair whose downlink is received, within Doppler.
// exact reports whether the uplink is that of the pair too; a channel that
// never transmits has it as well.
func Find(region string, receive, transmit freq.Hz, sends bool) (p Pair, exact, ok bool) {
	for _, x := range Published().Pairs {
		if len(x.Regions) > 0 && !slices.Contains(x.Regions, region) || !near(receive, x.Receive) {
			continue
		}
		if fits := !sends || near(transmit, x.Transmit); fits || !ok {
			p, exact, ok = x, fits, true
		}
		if exact {
			return p, true, true
		}
	}
	return p, exact, ok
}

func near(a, b freq.Hz) bool { return freq.Offset(a-b).Abs() <= freq.Offset(Doppler(b)) }
