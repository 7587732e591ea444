package geo

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestDistance(t *testing.T) {
	for _, c := range []struct {
		name         string
		p, q         Point
		km, azimuth  float64
		withinMetres float64
	}{
		// source: GeographicLib documentation, GeodSolve example JFK to LHR; basis: from memory
		{"40.6N 73.8W to 51.6N 0.5W", Point{40.6, -73.8}, Point{51.6, -0.5}, 5551.759400, 51.198883, 1},
		// source: WGS-84 defining axes (NGA.STND.0036): a quarter of the equator is π/2 × 6378.137 km
		{"along the equator", Point{0, 0}, Point{0, 90}, math.Pi / 2 * 6378.137, 90, 0.01},
		// source: WGS-84 meridian quadrant, 10001.965729 km; basis: from memory
		{"equator to pole", Point{0, 10}, Point{90, 10}, 10001.965729, 0, 0.01},
	} {
		km, azimuth := Distance(c.p, c.q)
		assert.InDelta(t, c.km, km, c.withinMetres/1000, c.name)
		assert.InDelta(t, c.azimuth, azimuth, 1e-5, c.name)
	}
}

func TestLocator(t *testing.T) {
	for loc, want := range map[string]Point{
		// source: definition in the IARU Region 1 VHF handbook; basis: computed by hand
		"AA00":   {-89.5, -179},
		"JJ00aa": {0.5 / 24, 1.0 / 24},
		"RR99xx": {90 - 0.5/24, 180 - 1.0/24},
	} {
		p, err := ParseLocator(loc)
		require.NoError(t, err)
		assert.InDelta(t, want.Lat, p.Lat, 1e-9, loc)
		assert.InDelta(t, want.Lon, p.Lon, 1e-9, loc)
	}
	for _, bad := range []string{"", "GN2", "ZZ00", "GN2x", "GN21zz", "GN21ia7"} {
		_, err := ParseLocator(bad)
		assert.Error(t, err, bad)
	}
	for _, bad := range []string{"91,0", "41", "x,y", "41,-181"} {
		_, err := Parse(bad)
		assert.Error(t, err, bad)
	}
}

func point(t *rapid.T) Point {
	return Point{rapid.Float64Range(-89, 89).Draw(t, "lat"), rapid.Float64Range(-180, 180).Draw(t, "lon")}
}

func TestProperties(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		p, q := point(r), point(r)
		back, err := ParseLocator(p.Locator())
		require.NoError(r, err)
		require.LessOrEqual(r, math.Abs(back.Lat-p.Lat), 0.5/24+1e-9)
		require.LessOrEqual(r, math.Abs(back.Lon-p.Lon), 1.0/24+1e-9)

		again, err := Parse(p.String())
		require.NoError(r, err)
		require.InDelta(r, p.Lat, again.Lat, 1e-6)

		km, _ := Distance(p, q)
		// A sphere of the mean radius is never more than 0.6 % off.
		require.InDelta(r, haversine(p, q), km, 0.006*km+0.01)

		b := Around(p, km+0.001)
		require.True(r, q.Lat >= b.South && q.Lat <= b.North && q.Lon >= b.West && q.Lon <= b.East, "%v outside %v", q, b)
	})
}

// TestNearlyOpposite: points a hair off the equator and nearly opposite to each
// other are half the earth apart. Expected by the sphere of the mean radius,
// and by the same points on the equator itself.
func TestNearlyOpposite(t *testing.T) {
	for _, lat := range []float64{-3.469446951953614e-18, 5e-324, 1e-300, -1e-17, 1e-16, 1e-13, 0} {
		p, q := Point{lat, 180}, Point{lat, 0.5}
		km, bearing := Distance(p, q)
		assert.InDelta(t, haversine(p, q), km, 0.006*km, "%g", lat)
		level, _ := Distance(Point{0, 180}, Point{0, 0.5})
		assert.InDelta(t, level, km, 0.001, "%g", lat)
		assert.True(t, bearing >= 0 && bearing <= 360)
	}
}

func haversine(p, q Point) float64 {
	rad := math.Pi / 180
	s := func(x float64) float64 { v := math.Sin(x * rad / 2); return v * v }
	h := s(q.Lat-p.Lat) + math.Cos(p.Lat*rad)*math.Cos(q.Lat*rad)*s(q.Lon-p.Lon)
	return 2 * 6371.0088 * math.Asin(math.Sqrt(min(h, 1)))
}

func TestHorizon(t *testing.T) {
	// basis: effective radius 4/3 × 6371 km, horizon √(2·R·h)
	for _, h := range []float64{1.5, 10, 100, 1000} {
		assert.InEpsilon(t, math.Sqrt(2*4.0/3*6371*h/1000), Horizon(h, 0), 0.001)
	}
	assert.Zero(t, Horizon(-5, 0))
	// by the same radius: d = √(2·R·h₁) + √(2·R·h₂), solved for h₂
	r := 2 * 4.0 / 3 * 6371
	assert.InEpsilon(t, math.Pow(60-math.Sqrt(r*0.1), 2)/r*1000, HeightFor(60, 100), 0.003)
	assert.Zero(t, HeightFor(10, 100))
}

func FuzzParse(f *testing.F) {
	for _, s := range []string{"41.0,-55.3", "GN21ia", "gn21IA00", "NaN,0", ",", "é"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		if p, err := Parse(s); err == nil {
			require.True(t, p.Valid())
		}
	})
}
