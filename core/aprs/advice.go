package aprs

import (
	_ "embed"
	"fmt"
	"slices"
	"strings"

	"github.com/goccy/go-yaml"

	"mnemos/core/ax25"
	"mnemos/core/freq"
)

//go:embed symbols.yaml
var symbolsYAML []byte

//go:embed advice.yaml
var adviceYAML []byte

// SSID is what a number behind a callsign says.
type SSID struct {
	ID   int
	Says string
}

// Profile is what a station is for, with what is usual for it.
type Profile struct {
	ID, Says      string
	SSID          int
	Symbol, Path  string
	Every, Least  int // s
	Smart, Object bool
	Space         bool
	Fast          float64 // km/h from which FastEvery holds
	FastEvery     int     `yaml:"fast_every"`
	Slow          float64 // km/h below which SlowEvery holds
	SlowEvery     int     `yaml:"slow_every"`
	Turn, Slope   float64 // degrees, and degrees times km/h
	TurnAfter     int     `yaml:"turn_after"`
}

var advice = func() (a struct {
	Basis      string
	AsOf       string `yaml:"as_of"`
	SSIDs      []SSID `yaml:"ssids"`
	Profiles   []Profile
	Obsolete   []string
	Space      []string
	Hops       struct{ Most, Far int }
	SpaceHz    int64   `yaml:"space_hz"`
	RelayDelay float64 `yaml:"relay_delay"`
},
) {
	if err := yaml.UnmarshalWithOptions(adviceYAML, &a, yaml.Strict()); err != nil {
		panic(fmt.Sprintf("advice: %v", err)) // embedded: cannot fail in a built binary
	}
	return a
}()

var symbols = func() (s struct {
	Basis         string
	AsOf          string `yaml:"as_of"`
	First, Second map[string]string
},
) {
	if err := yaml.UnmarshalWithOptions(symbolsYAML, &s, yaml.Strict()); err != nil {
		panic(fmt.Sprintf("symbols: %v", err)) // embedded: cannot fail in a built binary
	}
	return s
}()

// Basis says what the tables rest on.
func Basis() string { return symbols.Basis }

// SSIDs are what the numbers behind a callsign say, 0 to 15.
func SSIDs() []SSID { return slices.Clone(advice.SSIDs) }

// Profiles are what a station can be for.
func Profiles() []Profile { return slices.Clone(advice.Profiles) }

// ProfileOf finds a profile; the first one where there is none of this name.
func ProfileOf(id string) Profile {
	for _, p := range advice.Profiles {
		if p.ID == id {
			return p
		}
	}
	return advice.Profiles[0]
}

// SpaceFrequency is where packets go through space.
func SpaceFrequency() freq.Hz { return freq.Hz(advice.SpaceHz) }

// Words is a symbol in words.
func Words(s Symbol) string {
	table := symbols.First
	if s.Table != '/' {
		table = symbols.Second
	}
	says := table[string(s.Code)]
	if overlay(s.Table) {
		says += ", with " + string(s.Table) + " over it"
	}
	return says
}

// Symbols are those of both tables, by table and code.
func Symbols() (out []Symbol) {
	for _, table := range []byte{'/', '\\'} {
		for c := byte('!'); c <= '~'; c++ {
			out = append(out, Symbol{table, c})
		}
	}
	return out
}

// ParseSymbol reads "/[".
func ParseSymbol(s string) (Symbol, error) {
	if len(s) != 2 || s[1] < '!' || s[1] > '~' || s[0] != '/' && s[0] != '\\' && !overlay(s[0]) {
		return Symbol{}, fmt.Errorf("%q is not a symbol: / or \\ or an overlay, and a code, such as /[", s)
	}
	return Symbol{s[0], s[1]}, nil
}

// Hop says what an address in a path asks for.
func Hop(a ax25.Address) string {
	switch {
	case slices.Contains(advice.Space, a.Call):
		return "the station in space sends it once more"
	case a.Call == "WIDE1" && a.SSID == 1:
		return "asks the nearest repeater, even a small one, to send it once more"
	case strings.HasPrefix(a.Call, "WIDE") && len(a.Call) == 5 && a.SSID > 0:
		return fmt.Sprintf("asks %d repeaters over a wide area, one after the other", a.SSID)
	}
	return "asks this repeater to send it once more"
}

// Hops is how many repeats a path asks for.
func Hops(path []ax25.Address) (n int) {
	for _, a := range path {
		if strings.HasPrefix(a.Call, "WIDE") && len(a.Call) == 5 {
			n += a.SSID
			continue
		}
		n++
	}
	return n
}

// ParsePath reads WIDE1-1,WIDE2-1; "" or "direct" is none.
func ParsePath(s string) (path []ax25.Address, err error) {
	s = strings.TrimSpace(s)
	if s == "" || strings.EqualFold(s, "direct") {
		return nil, nil
	}
	for _, part := range strings.FieldsFunc(s, func(r rune) bool { return r == ',' || r == ' ' }) {
		a, err := ax25.ParseAddress(part)
		if err != nil {
			return nil, err
		}
		path = append(path, a)
	}
	if len(path) > 8 {
		return nil, fmt.Errorf("a path of %d: up to 8", len(path))
	}
	return path, nil
}
