// Package service knows the radio services that lie beside the amateur bands
// and have numbered channels: licence-free voice, family radio, weather
// broadcast. Each has its own limits of power and width, and most want
// equipment certified for them; an amateur radio may not transmit there
// merely because it can be tuned there.
//
//	s, ok := service.Find("us", "frs")
//	c, ok := s.Channel("15")      // 462.550 MHz
//
// The services are data (services/*.yaml), each with its source.
package service

import (
	"embed"
	"fmt"
	"slices"
	"strings"
	"sync"

	"github.com/goccy/go-yaml"

	"mnemos/core/freq"
	"mnemos/core/tone"
)

// Service is a radio service with numbered channels.
type Service struct {
	ID       string    `yaml:"id" json:"id"`
	Name     string    `yaml:"name" json:"name"`
	Words    []string  `yaml:"words" json:"words"` // what people call it on the entry line
	Regions  []string  `yaml:"regions" json:"-"`
	Licence  string    `yaml:"licence" json:"licence"` // who may use it, and with what equipment
	Transmit bool      `yaml:"transmit" json:"transmit"`
	Source   string    `yaml:"source" json:"source"`
	Basis    string    `yaml:"basis" json:"basis"`
	AsOf     string    `yaml:"as_of" json:"as_of"`
	Channels []Channel `yaml:"channels" json:"channels"`
}

// Channel is one channel of a service with its limits.
type Channel struct {
	Number    string      `yaml:"number" json:"number"`
	Frequency freq.Hz     `yaml:"frequency" json:"frequency_hz"`
	Watts     float64     `yaml:"watts" json:"watts"`                // the most that is allowed
	ERP       bool        `yaml:"erp,omitempty" json:"erp"`          // the limit is radiated power, not that of the transmitter
	Narrow    bool        `yaml:"narrow" json:"narrow"`              // 12.5 kHz equipment only
	Offset    freq.Offset `yaml:"offset,omitempty" json:"offset_hz"` // of a repeater, if there may be one; simplex is allowed too
}

//go:embed services/*.yaml
var files embed.FS

var all = sync.OnceValue(func() []*Service {
	entries, err := files.ReadDir("services")
	if err != nil {
		panic(err) // embedded: cannot fail in a built binary
	}
	var out []*Service
	for _, e := range entries {
		b, err := files.ReadFile("services/" + e.Name())
		if err != nil {
			panic(err)
		}
		var s Service
		if err := yaml.UnmarshalWithOptions(b, &s, yaml.Strict()); err != nil {
			panic(fmt.Sprintf("service %s: %v", e.Name(), err))
		}
		out = append(out, &s)
	}
	return out
})

// Of returns the services of a region in the order of their IDs. They are
// shared: do not change them.
func Of(region string) []*Service {
	var out []*Service
	for _, s := range all() {
		if slices.Contains(s.Regions, region) {
			out = append(out, s)
		}
	}
	return out
}

// Limit words the power that a channel allows: "2 W radiated (ERP)".
func (c Channel) Limit() string {
	if c.ERP {
		return fmt.Sprintf("%g W radiated (ERP)", c.Watts)
	}
	return fmt.Sprintf("%g W at the transmitter", c.Watts)
}

// Find returns the service of a region that people call by a word.
func Find(region, word string) (*Service, bool) {
	for _, s := range Of(region) {
		if slices.Contains(s.Words, strings.ToLower(word)) {
			return s, true
		}
	}
	return nil, false
}

// Channel returns a channel by its number.
func (s *Service) Channel(number string) (Channel, bool) {
	number = strings.TrimLeft(number, "0")
	for _, c := range s.Channels {
		if c.Number == number {
			return c, true
		}
	}
	return Channel{}, false
}

// Range words the numbers of the service: "1 to 22".
func (s *Service) Range() string {
	return s.Channels[0].Number + " to " + s.Channels[len(s.Channels)-1].Number
}

// Use is a channel of a service that has a frequency, as output or simplex
// channel or as the input of a repeater.
type Use struct {
	*Service
	Channel
	Input bool
}

// At returns every use of a frequency in a region.
func At(region string, f freq.Hz) []Use {
	var out []Use
	for _, s := range Of(region) {
		for _, c := range s.Channels {
			switch {
			case c.Frequency == f:
				out = append(out, Use{Service: s, Channel: c})
			case c.Offset != 0 && c.Frequency.Add(c.Offset) == f:
				out = append(out, Use{Service: s, Channel: c, Input: true})
			}
		}
	}
	return out
}

// Code returns the tone that the "privacy code" n of a licence-free radio
// stands for: the classic 38 CTCSS tones in ascending order (common practice,
// no source). Makers number what lies above them each in their own way, so
// there ok is false.
func Code(n int) (t tone.Tone, ok bool) {
	if n < 1 || n > len(tone.CTCSS38) {
		return tone.Off, false
	}
	t, err := tone.NewCTCSS(tone.CTCSS38[n-1])
	return t, err == nil
}

// Word reports whether people call a service by this word in any region.
func Word(word string) bool {
	return slices.ContainsFunc(all(), func(s *Service) bool { return slices.Contains(s.Words, word) })
}
