package aprs

import (
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"math"
	"time"

	"mnemos/core/geo"
)

// Point is a place on a track, at a time.
type Point struct {
	geo.Point
	At float64 // s since the first
}

// Track is somebody's way.
type Track []Point

// mostPoints are as many as a day of a point a second.
const mostPoints = 100_000

// ReadGPX reads the track points of a GPX file (GPX 1.1, Topografix 2004). Points without
// a time follow each other by a second.
func ReadGPX(r io.Reader) (Track, error) {
	d := xml.NewDecoder(r)
	var out Track
	var first time.Time
	for {
		token, err := d.Token()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return nil, fmt.Errorf("it is not a GPX file: %w", err)
		}
		start, ok := token.(xml.StartElement)
		if !ok || start.Name.Local != "trkpt" {
			continue
		}
		var p struct {
			Lat  float64 `xml:"lat,attr"`
			Lon  float64 `xml:"lon,attr"`
			Time string  `xml:"time"`
		}
		if err := d.DecodeElement(&p, &start); err != nil {
			return nil, fmt.Errorf("a point of the track cannot be read: %w", err)
		}
		at := Point{Point: geo.Point{Lat: p.Lat, Lon: p.Lon}}
		if !at.Valid() {
			return nil, fmt.Errorf("%g, %g is not a place on the earth", p.Lat, p.Lon)
		}
		if t, err := time.Parse(time.RFC3339, p.Time); err == nil {
			if first.IsZero() {
				first = t
			}
			at.At = t.Sub(first).Seconds()
		} else if len(out) > 0 {
			at.At = out[len(out)-1].At + 1
		}
		if n := len(out); n > 0 && at.At <= out[n-1].At {
			continue // the clock stood still, or went back
		}
		if out = append(out, at); len(out) > mostPoints {
			return nil, fmt.Errorf("more than %d points: thin it out first", mostPoints)
		}
	}
	if len(out) < 2 {
		return nil, errors.New("it has no track of two points or more")
	}
	return out, nil
}

// Steer is the speed and turn algorithm: seldom while slow, often while fast, at once after
// a turn. Published as SmartBeaconing; the steps are common practice.
type Steer struct {
	FastKmh   float64
	FastEvery float64 // s, from FastKmh on
	SlowKmh   float64
	SlowEvery float64 // s, below SlowKmh
	Turn      float64 // degrees, at least
	Slope     float64 // degrees times km/h: slow stations turn more before it counts
	TurnAfter float64 // s since the last beacon, at least
}

// due reports whether a beacon is due: so long after the last, so fast, so far from the
// course of the last.
func (s Steer) due(since, kmh, turned float64) bool {
	if kmh < s.SlowKmh {
		return since >= s.SlowEvery
	}
	if kmh > 0 && turned >= s.Turn+s.Slope/kmh && since >= s.TurnAfter {
		return true
	}
	every := s.FastEvery
	if kmh < s.FastKmh {
		every = min(s.SlowEvery, s.FastEvery*s.FastKmh/kmh)
	}
	return since >= every
}

// Driven is what a way of beaconing makes of a track.
type Driven struct {
	Sent    []int // points at which a beacon went out
	MeanGap float64
	Worst   float64   // m between the true and the last known place
	WorstAt int       // point
	Gaps    []float64 // m, at each point
}

// Every drives a track with a beacon in so many seconds.
func (t Track) Every(s float64) Driven {
	return t.drive(func(since, _, _ float64) bool { return since >= s })
}

// Steered drives a track by speed and turn.
func (t Track) Steered(s Steer) Driven { return t.drive(s.due) }

// drive goes along a track. Between two points the place is in the middle between them as
// much as either: gaps are weighed by time.
func (t Track) drive(due func(since, kmh, turned float64) bool) (d Driven) {
	d.Gaps = make([]float64, len(t))
	plane := project(t[0].Point)
	last, lastAt, lastCourse, sum := plane(t[0].Point), t[0].At, 0.0, 0.0
	before, course := last, 0.0
	for i, p := range t {
		here := plane(p.Point)
		kmh := 0.0
		if i > 0 {
			east, north := here.x-before.x, here.y-before.y
			dt := p.At - t[i-1].At
			kmh = math.Hypot(east, north) / dt * 3.6
			if kmh > 0.5 {
				course = math.Mod(math.Atan2(east, north)*180/math.Pi+360, 360)
			}
		}
		if i == 0 || due(p.At-lastAt, kmh, apart(course, lastCourse)) {
			// What is known is the place to a hundredth of a minute.
			last, lastAt = plane(geo.Point{Lat: hundredth(p.Lat), Lon: hundredth(p.Lon)}), p.At
			if kmh > 0.5 || i == 0 {
				lastCourse = course
			}
			d.Sent = append(d.Sent, i)
		}
		d.Gaps[i] = math.Hypot(here.x-last.x, here.y-last.y)
		if d.Gaps[i] > d.Worst {
			d.Worst, d.WorstAt = d.Gaps[i], i
		}
		if i > 0 {
			sum += d.Gaps[i] * (p.At - t[i-1].At)
		}
		before = here
	}
	if span := t[len(t)-1].At - t[0].At; span > 0 {
		d.MeanGap = sum / span
	}
	return d
}

func hundredth(v float64) float64 { return math.Round(v*6000) / 6000 }

func apart(a, b float64) float64 {
	d := math.Mod(math.Abs(a-b), 360)
	return min(d, 360-d)
}

type flat struct{ x, y float64 } // m

// project is a plane around a place: true to a thousandth over some hundred kilometres.
func project(o geo.Point) func(geo.Point) flat {
	const m = 111_195.0 // of a degree on the mean sphere
	k := math.Cos(o.Lat * math.Pi / 180)
	return func(p geo.Point) flat {
		lon := math.Mod(p.Lon-o.Lon+540, 360) - 180
		return flat{lon * m * k, (p.Lat - o.Lat) * m}
	}
}

// Kilometres is the length of a track.
func (t Track) Kilometres() (km float64) {
	plane := project(t[0].Point)
	for i := 1; i < len(t); i++ {
		a, b := plane(t[i-1].Point), plane(t[i].Point)
		km += math.Hypot(b.x-a.x, b.y-a.y) / 1000
	}
	return km
}

// Circle is a place around which nothing is sent. It is not centred on what it hides.
type Circle struct {
	geo.Point
	Km float64
}

// Hides reports whether a place is in one of the circles.
func Hides(circles []Circle, p geo.Point) bool {
	for _, c := range circles {
		if km, _ := geo.Distance(c.Point, p); km <= c.Km {
			return true
		}
	}
	return false
}

// Around is a circle that holds a place and does not mark it: its middle lies in a random
// direction, up to two thirds of the radius away. seed keeps it where it is.
func Around(p geo.Point, km float64, seed uint64) Circle {
	// A splitmix step makes neighbours unlike each other.
	z := seed + 0x9E3779B97F4A7C15
	z = (z ^ z>>30) * 0xBF58476D1CE4E5B9
	z = (z ^ z>>27) * 0x94D049BB133111EB
	z ^= z >> 31
	angle, away := float64(z&0xFFFF)/0x10000*2*math.Pi, (0.3+0.37*float64(z>>16&0xFFFF)/0x10000)*km
	return Circle{geo.Point{Lat: p.Lat + away*math.Cos(angle)/111.195, Lon: p.Lon + away*math.Sin(angle)/(111.195*math.Cos(p.Lat*math.Pi/180))}, km}
}
