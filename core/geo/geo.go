// Package geo answers how far, in which direction and whether beyond the
// horizon: the geometry between an operator and a repeater on the WGS-84
// ellipsoid.
package geo

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"github.com/tidwall/geodesic"
)

// Point is a position in WGS-84 degrees, north and east positive.
type Point struct {
	Lat float64 `json:"lat" yaml:"lat"`
	Lon float64 `json:"lon" yaml:"lon"`
}

// Valid reports whether p is a position on the earth.
func (p Point) Valid() bool {
	return p.Lat >= -90 && p.Lat <= 90 && p.Lon >= -180 && p.Lon <= 180
}

// Parse reads a position: "41.0,-55.3" in degrees or a Maidenhead locator of
// four, six or eight characters such as "GN21ia", which is its centre.
func Parse(s string) (Point, error) {
	t := strings.TrimSpace(s)
	if lat, lon, ok := strings.Cut(t, ","); ok {
		a, errA := strconv.ParseFloat(strings.TrimSpace(lat), 64)
		b, errB := strconv.ParseFloat(strings.TrimSpace(lon), 64)
		p := Point{a, b}
		if errA != nil || errB != nil || !p.Valid() {
			return Point{}, fmt.Errorf("position %q: write latitude,longitude in degrees such as 41.02,-55.31", s)
		}
		return p, nil
	}
	return ParseLocator(t)
}

// String formats p as Parse reads it, to a tenth of a metre or so.
func (p Point) String() string { return fmt.Sprintf("%.6f,%.6f", p.Lat, p.Lon) }

// Distance returns the length in kilometres of the geodesic from p to q and
// the bearing in degrees, 0 to 360, at which it leaves p.
func Distance(p, q Point) (km, bearing float64) {
	var metres, azimuth float64
	geodesic.WGS84.Inverse(coarse(p.Lat), coarse(p.Lon), coarse(q.Lat), coarse(q.Lon), &metres, &azimuth, nil)
	if azimuth < 0 {
		azimuth += 360
	}
	return metres / 1000, azimuth
}

// coarse takes away what is less than some 10⁻¹⁷ of a degree: the geodesic
// between points that far off the equator and nearly opposite to each other
// comes out with a negative length. Karney (2013) rounds angles in this way.
func coarse(deg float64) float64 {
	const z = 1.0 / 16
	if a := math.Abs(deg); a < z {
		return math.Copysign(z-(z-a), deg)
	}
	return deg
}

// Box is a range of latitude and longitude that holds every point within some
// distance of a centre; a search reads the box first and measures after.
type Box struct{ South, North, West, East float64 }

// Around returns the box around p that holds all points within km. It is a
// little too large, never too small. A box that touches a pole or the
// antimeridian spans all longitudes.
func Around(p Point, km float64) Box {
	const kmPerDegree = 110.5 // the shortest degree of latitude is 110.57 km
	d := km / kmPerDegree
	b := Box{South: max(p.Lat-d, -90), North: min(p.Lat+d, 90), West: -180, East: 180}
	if b.South > -90 && b.North < 90 {
		widest := math.Max(math.Abs(b.South), math.Abs(b.North))
		w := d / math.Cos(widest*math.Pi/180)
		if p.Lon-w >= -180 && p.Lon+w <= 180 {
			b.West, b.East = p.Lon-w, p.Lon+w
		}
	}
	return b
}

// Horizon returns the distance in kilometres at which two aerials of the
// given heights in metres above the surface between them see each other over
// a smooth earth with standard refraction (effective radius 4/3).
// Source: ITU-R P.310, effective earth radius; common practice 4.12 (√h₁+√h₂).
func Horizon(h1, h2 float64) float64 {
	return horizon * (math.Sqrt(math.Max(h1, 0)) + math.Sqrt(math.Max(h2, 0)))
}

// horizon is what the root of a height in metres is multiplied by for kilometres.
const horizon = 4.12

// HeightFor returns how high in metres an aerial has to be for one of height h to
// be on its horizon at a distance in kilometres: Horizon turned round.
func HeightFor(km, h float64) float64 {
	root := math.Max(km/horizon-math.Sqrt(math.Max(h, 0)), 0)
	return root * root
}
