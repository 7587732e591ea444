package relay

import (
	_ "embed"
	"fmt"
	"time"

	"github.com/goccy/go-yaml"

	"mnemos/core/band"
	"mnemos/core/freq"
)

//go:embed data.yaml
var dataYAML []byte

// delays of a station, in milliseconds.
type delays struct{ Turn, Rise, Squelch, Close, Recover int }

func ms(n int) time.Duration { return time.Duration(n) * time.Millisecond }

// barred is who must keep out of which segments.
type barred struct {
	Source, Who string
	Spans       []band.Span
}

// limit holds between two frequencies in MHz: a level, or so many times the frequency in MHz.
type limit struct{ From, To, Level, Times float64 }

type limits struct {
	Name     string
	Averaged struct{ Public, Own int }
	Public   []limit
	Own      []limit
}

type figures struct {
	Basis                                 string
	AsOf                                  string `yaml:"as_of"`
	Handheld, Vehicle, Repeater, Listener delays
	DecodeCTCSS                           int `yaml:"decode_ctcss"`
	Hang                                  int
	Efficiency, Volts                     float64
	StandbyAmps                           float64 `yaml:"standby_amps"`
	RatedDuty                             float64 `yaml:"rated_duty"`
	Barred                                map[string][]barred
	Limits                                []limits
	Exempt                                struct {
		Source string
		Steps  []limit
	}
	Reflection       float64
	ReflectionSource string `yaml:"reflection_source"`
}

var data = func() (f figures) {
	if err := yaml.UnmarshalWithOptions(dataYAML, &f, yaml.Strict()); err != nil {
		panic(fmt.Sprintf("relay: %v", err)) // embedded: cannot fail in a built binary
	}
	return f
}()

// Basis says what the delays rest on.
func Basis() string { return data.Basis }

// at is the level of limits at a frequency; false where they say nothing.
func at(list []limit, f freq.Hz) (float64, bool) {
	mhz := float64(f) / 1e6
	for _, l := range list {
		if mhz < l.From || mhz > l.To {
			continue
		}
		if l.Level > 0 {
			return l.Level, true
		}
		return l.Times * mhz, true
	}
	return 0, false
}
