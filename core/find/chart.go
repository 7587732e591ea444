package find

import (
	"math"
	"slices"

	"mnemos/core/evidence"
	"mnemos/core/geo"
	"mnemos/core/listing"
)

// Window is a part of the chart, in kilometres east and north of where one is:
// the chart is azimuthal, so that every direction and distance from there is
// true.
type Window struct{ West, South, East, North float64 }

// Spot is what stands at a place of the chart.
type Spot struct {
	X, Y            float64 // kilometres east and north, of the middle of what is here
	Held            []int   // slots of the radio that is looked at
	Missing, Cannot int
	Verdict         evidence.Verdict // the gravest of what is held; of one that is missing, how far its listings can be relied on
	ID              listing.ID       // of one of them
	Title           string
	Distance        float64
	Audible         bool
	Number          int // how many are here
}

// Chart is what a line finds, where it lies.
type Chart struct {
	Spots  []Spot
	Number int
}

// singly is how many are shown each for itself; more are put together, in cells that
// are so many times as wide as a mark, so that a crowd has plates that can be read.
const (
	singly = 250
	plates = 4
)

// Chart returns what a line finds in a window, around the given middle where the
// scene has no place. Cell is the size in kilometres of what is drawn as one.
func (b *Book) Chart(line string, s *Scene, middle geo.Point, w Window, cell float64) Chart {
	q := Read(line, b, s)
	var in []seen
	f := s.frame(&q)
	if f.from == nil {
		f.from = &origin{middle, vectorOf(middle)}
	}
	far := math.Max(math.Hypot(math.Max(-w.West, w.East), math.Max(-w.South, w.North)), 1)
	for _, x := range b.keep(&q, s).all {
		x.frame = f
		if x.Placed() {
			x.km = roughly(f.from.at, x.at)
			if x.km <= far*(1+off) {
				in = append(in, x)
			}
		}
	}
	spots := make([]Spot, 0, min(len(in), singly))
	cells := map[[2]int]int{}
	rough := len(in) > 20_000 // the whole earth at once: nobody sees the ellipsoid
	for i := range in {
		x := &in[i]
		east, north, km := x.plane(rough)
		if east < w.West || east > w.East || north < w.South || north > w.North {
			continue
		}
		if len(in) <= singly || cell <= 0 {
			spots = append(spots, x.spot(east, north, km))
			continue
		}
		key := [2]int{int(math.Floor(east / (plates * cell))), int(math.Floor(north / (plates * cell)))}
		at, known := cells[key]
		if !known {
			at = len(spots)
			cells[key] = at
			spots = append(spots, Spot{})
		}
		spots[at] = spots[at].with(x.spot(east, north, km))
	}
	out := Chart{Spots: spots}
	for i := range spots {
		out.Number += spots[i].Number
	}
	return out
}

// plane is where the entry lies on the chart.
func (x *seen) plane(rough bool) (east, north, km float64) {
	var bearing float64
	if rough {
		km, bearing = x.km, azimuth(x.from.Point, x.at)
	} else {
		km, bearing, _ = x.away()
	}
	sin, cos := math.Sincos(bearing * math.Pi / 180)
	return km * sin, km * cos, km
}

// azimuth is the direction of a place on the sphere.
func azimuth(p geo.Point, v vector) float64 {
	sinLat, cosLat := math.Sincos(p.Lat * math.Pi / 180)
	sinLon, cosLon := math.Sincos(p.Lon * math.Pi / 180)
	east := -v[0]*sinLon + v[1]*cosLon
	north := -v[0]*sinLat*cosLon - v[1]*sinLat*sinLon + v[2]*cosLat
	return math.Mod(math.Atan2(east, north)*180/math.Pi+360, 360)
}

func (x *seen) spot(east, north, km float64) Spot {
	s := Spot{X: east, Y: north, Number: 1, ID: x.ID, Title: x.Best.Title(), Distance: km, Audible: x.audible()}
	t := x.trust()
	s.Verdict = t.Verdict
	switch {
	case x.mine:
		for _, h := range x.held {
			if h.Mine {
				s.Held = append(s.Held, h.Number)
			}
		}
		// Of what is held the graver counts: what the plan makes of it, or that the
		// lists differ.
		if v := x.held[0].Verdict; t.Verdict == evidence.Agrees || t.Verdict == evidence.Unverified || slices.Index(gravity, v) < slices.Index(gravity, t.Verdict) {
			s.Verdict = v
		}
	case x.cannot != "":
		s.Cannot = 1
	default:
		s.Missing = 1
	}
	return s
}

// with is the spot with another one in it.
func (s Spot) with(o Spot) Spot {
	n := float64(s.Number + o.Number)
	out := o
	if s.Number > 0 {
		out = s
		out.X, out.Y = (s.X*float64(s.Number)+o.X*float64(o.Number))/n, (s.Y*float64(s.Number)+o.Y*float64(o.Number))/n
		if len(o.Held) > 0 && (len(s.Held) == 0 || slices.Index(gravity, o.Verdict) < slices.Index(gravity, s.Verdict)) {
			out.Verdict = o.Verdict
		}
		out.Held = append(slices.Clone(s.Held), o.Held...)
		out.Missing, out.Cannot, out.Number = s.Missing+o.Missing, s.Cannot+o.Cannot, s.Number+o.Number
	}
	return out
}
