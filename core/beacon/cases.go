package beacon

import (
	"fmt"
	"math"

	"mnemos/core/aprs"
)

func traffic(s Station, airtime, every float64) aprs.Traffic {
	path, err := aprs.ParsePath(s.Path)
	repeats := 0
	if err == nil {
		repeats = min(aprs.Hops(path), 7)
	}
	return aprs.Traffic{Airtime: airtime, Every: math.Max(1, every), Stations: max(1, s.Stations), Repeats: repeats}
}

// total is how long the beacon of a station is on the air, in ms; 0 for none.
func total(s Station, a Around) float64 { return shown(s, a)[0].Air.Total }

// cases are single changes, and what they would do to the channel.
func cases(s Station, a Around, r *Report) (out []Case) {
	add := func(says string, x Station, now bool) {
		every := x.Every
		if x.Smart && x.Steer.FastEvery > 0 {
			every = math.Max(x.Every, x.Steer.FastEvery)
		}
		t := traffic(x, total(x, a)/1000, every)
		out = append(out, Case{says, t.Busy(), t.Collides(), now})
	}
	if r.Shown[0].Error != "" {
		return nil
	}
	add("as set", s, true)
	if s.KeyUp > 200 {
		x := s
		x.KeyUp = 200
		add("key-up 200 ms", x, false)
	}
	if path, err := aprs.ParsePath(s.Path); err == nil && aprs.Hops(path) > 1 {
		x := s
		x.Path = path[0].String()
		add("path "+x.Path, x, false)
	}
	if s.Format == string(aprs.Plain) {
		x := s
		x.Format = string(aprs.Compressed)
		add("compressed", x, false)
	}
	if !s.Smart && aprs.ProfileOf(s.Profile).Smart {
		x := s
		u := Usual(s.Profile, "")
		x.Smart, x.Steer, x.Every = true, u.Steer, math.Max(s.Every, u.Every)
		add("speed and turn", x, false)
	}
	if s.Every < 600 {
		x := s
		x.Every, x.Smart = s.Every*3, false
		add(fmt.Sprintf("every %s", seconds(x.Every)), x, false)
	}
	return out
}
