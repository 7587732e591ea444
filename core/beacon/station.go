package beacon

import (
	"fmt"
	"strings"
	"time"

	"mnemos/core/aprs"
	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/geo"
	"mnemos/core/radio"
)

// Station is how a station is set up. It is kept as JSON.
type Station struct {
	Profile   string      `json:"profile"`
	From      string      `json:"from"`   // callsign and number
	Symbol    string      `json:"symbol"` // table and code
	Source    string      `json:"source"` // receiver, fixed
	Lat       *float64    `json:"lat"`
	Lon       *float64    `json:"lon"`
	Ambiguity int         `json:"ambiguity"`
	Format    string      `json:"format"`
	Back      int         `json:"back"` // slot that others call back on; -1 for none
	Words     string      `json:"words"`
	Height    bool        `json:"height"`
	Speed     bool        `json:"speed"`
	Time      bool        `json:"time"`
	Says      int         `json:"says"` // Mic-E: what the station is at
	Path      string      `json:"path"`
	KeyUp     float64     `json:"key_up"` // ms
	Every     float64     `json:"every"`  // s
	Smart     bool        `json:"smart"`
	Steer     Steer       `json:"steer"`
	Status    string      `json:"status"`
	Object    string      `json:"object"` // name of the event or call-back object
	To        string      `json:"to"`     // of a message
	Text      string      `json:"text"`
	Stations  int         `json:"stations"` // on the channel, with this one
	Circles   []Circle    `json:"circles"`
	Before    *Station    `json:"before"` // what it was before it was switched to space
	Switched  string      `json:"switched"`
	Restored  []string    `json:"restored"`
	Ticks     [][2]string `json:"ticks"` // line of the pre-flight, when
}

// Steer are the settings of the speed and turn algorithm.
type Steer struct {
	Fast      float64 `json:"fast"` // km/h
	FastEvery float64 `json:"fast_every"`
	Slow      float64 `json:"slow"`
	SlowEvery float64 `json:"slow_every"`
	Turn      float64 `json:"turn"`
	Slope     float64 `json:"slope"`
	TurnAfter float64 `json:"turn_after"`
}

// Of is the algorithm.
func (s Steer) Of() aprs.Steer {
	return aprs.Steer{FastKmh: s.Fast, FastEvery: s.FastEvery, SlowKmh: s.Slow, SlowEvery: s.SlowEvery, Turn: s.Turn, Slope: s.Slope, TurnAfter: s.TurnAfter}
}

// Circle is a place around which nothing is sent.
type Circle struct {
	Lat float64 `json:"lat"`
	Lon float64 `json:"lon"`
	Km  float64 `json:"km"`
}

// Slot is a channel of the radio.
type Slot struct {
	Number  int
	Channel channel.Channel
	Scanned bool
}

// Around is what is known of the circumstances.
type Around struct {
	Plan     *band.Plan
	Radio    *radio.Profile
	Unit     string
	Slots    []Slot
	Place    *geo.Point // of the plan
	Callsign string     // of the person
	Demo     bool
	Now      time.Time
}

// Usual is a station as a profile has it.
func Usual(profile, callsign string) Station {
	p := aprs.ProfileOf(profile)
	s := Station{
		Profile: p.ID, Symbol: p.Symbol, Source: "receiver", Format: string(aprs.Plain), Back: -1, Path: p.Path, KeyUp: 300, Every: float64(p.Every), Smart: p.Smart, Stations: 12,
		Steer:   Steer{p.Fast, float64(p.FastEvery), p.Slow, float64(p.SlowEvery), p.Turn, p.Slope, float64(p.TurnAfter)},
		Circles: []Circle{}, Restored: []string{}, Ticks: [][2]string{},
	}
	if p.ID == "fixed" || p.ID == "event" {
		s.Source = "fixed"
	}
	if callsign != "" {
		s.From = numbered(callsign, p.SSID)
	}
	return s
}

// numbered is a callsign with a number.
func numbered(call string, ssid int) string {
	call, _, _ = strings.Cut(strings.ToUpper(call), "-")
	if ssid == 0 {
		return call
	}
	return fmt.Sprintf("%s-%d", call, ssid)
}
