package beacon

import (
	"fmt"

	"mnemos/core/aprs"
	"mnemos/core/radio"
)

// Check is a line of the pre-flight: what to see, and how on this radio.
type Check struct {
	ID   string
	Says string
	How  string // in the radio's own keys, as far as its crib has them
	Sees string
	Why  string
	Main bool // one of the four
}

// flight is what to see before the first beacon: four things, and those that are forgotten.
func flight(s Station, a Around, r *Report) (out []Check) {
	side := "side of the modem"
	if a.Radio != nil && a.Radio.APRS.Side != "" && a.Radio.APRS.Side != "either" {
		side = a.Radio.APRS.Side + " side"
	}
	crib := func(x radio.Setting, or string) string {
		if a.Radio != nil && a.Radio.Crib[x] != "" {
			return a.Radio.Crib[x]
		}
		return or
	}
	slot := "store it first"
	if r.Slot >= 0 {
		slot = fmt.Sprintf("slot %d on the %s: %s", r.Slot, side, crib(radio.Recall, "recall it"))
	}
	keys := func(x radio.Setting) string { return crib(x, "as its manual says") }
	fix := "the receiver shows a fix"
	if s.Source == "fixed" {
		fix = "the place that you wrote"
	}
	add := func(id, says, how, sees, why string, main bool) {
		out = append(out, Check{id, says, how, sees, why, main})
	}
	add("modem", "modem on", keys(radio.ModemKey), "its sign, on the "+side, "without it nothing is made", true)
	add("position", "position valid", keys(radio.PositionKey), fix, "else it sends none, or an old one", true)
	add("beacon", "beacon on", keys(radio.BeaconKey), "its sign, and that it sends by itself", "", true)
	add("frequency", "frequency right", slot, r.Channel.MHz(), "", true)
	add("side", "the modem is on the "+side, "", "", "the other side hears voice, and would send packets there", false)
	add("volume", "volume down on that side", "", "", "packets are loud", false)
	add("pop-ups", "pop-ups short, or off while driving", "", "", "a driver must not read", false)
	if aprs.ProfileOf(s.Profile).Space {
		add("status", "status text off", "", "", "a pass is short", false)
	}
	add("queue", "queue emptied before the modem is on", "", "", "else messages of last week go out first", false)
	add("clock", "clock and its zone", "", "", "a log in UTC, and a display in local time", false)
	add("antenna", "an aerial is on", "", "", "a transmitter without one is damaged", false)
	return out
}

// Change is a setting that goes with the switch between ground and space, and back.
type Change struct {
	ID            string
	Says          string
	Ground, Space string
	Done          bool // put back
}

// ToSpace is the station as it goes through space, with what it was kept inside it.
func ToSpace(s Station, now string) Station {
	if aprs.ProfileOf(s.Profile).Space {
		return s
	}
	before := s
	before.Before = nil
	u := Usual("space", "")
	x := s
	x.Profile, x.Path, x.Every, x.Smart, x.Status, x.Height, x.Speed, x.Before, x.Switched, x.Restored = "space", u.Path, u.Every, false, "", false, false, &before, now, []string{}
	if len(x.Words) > 20 {
		x.Words = x.Words[:20]
	}
	return x
}

// ToGround puts back what was before: the list of it stays until each line was seen on the
// radio.
func ToGround(s Station) Station {
	if s.Before == nil {
		u := Usual("foot", "")
		s.Profile, s.Path, s.Every, s.Smart, s.Steer = u.Profile, u.Path, u.Every, u.Smart, u.Steer
		return s
	}
	x := *s.Before
	x.Before, x.Switched, x.Restored, x.Ticks = s.Before, s.Switched, []string{}, s.Ticks
	return x
}

// switched is the restore list: what differs between ground and space. It is there while a
// station is in space, and after it until every line was put back on the radio.
func switched(s Station) (out []Change) {
	if s.Before == nil {
		return nil
	}
	space, ground := s, *s.Before
	if !aprs.ProfileOf(s.Profile).Space {
		space = ToSpace(*s.Before, "")
	}
	line := func(id, says, g, sp string) {
		if g == sp {
			return
		}
		if g == "" {
			g = "none"
		}
		if sp == "" {
			sp = "none"
		}
		done := false
		for _, x := range s.Restored {
			done = done || x == id
		}
		out = append(out, Change{id, says, g, sp, done})
	}
	line("frequency", "frequency", "that of the ground", aprs.SpaceFrequency().MHz())
	line("path", "path", ground.Path, space.Path)
	interval := func(x Station) string {
		if x.Smart {
			return "speed and turn"
		}
		return "every " + seconds(x.Every)
	}
	line("interval", "interval", interval(ground), interval(space))
	line("comment", "comment", ground.Words, space.Words)
	line("status", "status", ground.Status, space.Status)
	on := map[bool]string{true: "on", false: "off"}
	line("height", "height", on[ground.Height], on[space.Height])
	line("speed", "speed", on[ground.Speed], on[space.Speed])
	return out
}
