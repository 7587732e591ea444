package aprs_test

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/aprs"
	"mnemos/core/geo"
)

// TestTraffic against a simulation of its own: stations that beacon in periods, each with a
// phase of its own, and repeaters that wait a while; how many of all transmissions meet one
// of another station. Within 2 points in 95 % of set-ups.
func TestTraffic(t *testing.T) {
	rnd := rand.New(rand.NewPCG(20, 1)) //nolint:gosec // the same set-ups each time
	const setups = 120
	near := 0
	for range setups {
		x := aprs.Traffic{Airtime: 0.3 + rnd.Float64(), Every: 30 + 600*rnd.Float64(), Stations: 2 + rnd.IntN(30), Repeats: rnd.IntN(3)}
		hit, all := 0, 0
		for range 240 { // hours with other phases
			type tx struct {
				station  int
				from, to float64
			}
			var list []tx
			for s := range x.Stations {
				at := rnd.Float64() * x.Every
				for period := -2; period < 3; period++ {
					from := at + float64(period)*x.Every
					for k := range 1 + x.Repeats {
						if k > 0 {
							from += 0.1 + 0.5*rnd.Float64() // 0.35 in the mean
						}
						list = append(list, tx{s, from, from + x.Airtime})
						from += x.Airtime
					}
				}
			}
			for _, a := range list {
				if a.from < 0 || a.from >= x.Every {
					continue
				}
				all++
				for _, b := range list {
					if b.station != a.station && b.from < a.to && a.from < b.to {
						hit++
						break
					}
				}
			}
		}
		if math.Abs(float64(hit)/float64(all)-x.Collides()) <= 0.02 {
			near++
		}
	}
	assert.GreaterOrEqual(t, near, setups*95/100, "%d of %d within 2 points", near, setups)
}

// TestFormulas: worked by hand. Twelve stations, 0.84 s, every 60 s, two repeats: busy
// 12 × 3 × 0.84 / 60 = 50.4 %; collide 1 − (1 − (4 × 0.84 + 2 × 0.35)/60)^11 = 54.3 %.
// S = G e^(−2G) is most at a half: 1/2e, 18.4 %.
func TestFormulas(t *testing.T) {
	x := aprs.Traffic{Airtime: 0.84, Every: 60, Stations: 12, Repeats: 2}
	assert.InDelta(t, 0.504, x.Busy(), 1e-9)
	assert.InDelta(t, 1-math.Pow(1-(4*0.84+0.7)/60, 11), x.Collides(), 1e-9)
	one := aprs.Traffic{Airtime: 0.84, Every: 60, Stations: 12}
	assert.InDelta(t, 1-math.Pow(1-2*0.84/60, 11), one.Collides(), 1e-9)
	assert.Zero(t, aprs.Traffic{Airtime: 1, Every: 60, Stations: 1}.Collides(), "nobody else is there")
	assert.InDelta(t, 1/(2*math.E), aprs.Random(aprs.Floods), 1e-12)
	assert.Less(t, aprs.Random(0.6), aprs.Random(0.5))
	m := x.Minute(7)
	hit := 0
	for _, b := range m {
		if b.Collides {
			hit++
		}
	}
	assert.InDelta(t, 36, len(m), 3)
	assert.InDelta(t, x.Collides(), float64(hit)/float64(len(m)), 0.06, "the minute that is drawn is a typical one")
	assert.Nil(t, aprs.Traffic{}.Minute(1))
}

// straight is a way to the north at a speed, a point a second.
func straight(kmh float64, seconds int) aprs.Track {
	var out aprs.Track
	for i := range seconds + 1 {
		out = append(out, aprs.Point{Point: geo.Point{Lat: 41 + kmh/3.6*float64(i)/111_195, Lon: -55}, At: float64(i)})
	}
	return out
}

var walking = aprs.Steer{FastKmh: 5, FastEvery: 180, SlowKmh: 1, SlowEvery: 600, Turn: 40, TurnAfter: 60}

// TestSteer: cases worked by hand. At 5 km/h and more every 180 s; at 3 km/h every
// 180 × 5/3 = 300 s; at rest every 600 s; a turn of 90° at once when 60 s have passed since
// the last.
func TestSteer(t *testing.T) {
	for _, c := range []struct {
		kmh   float64
		every int
	}{{6, 180}, {5.01, 180}, {3, 300}, {2, 450}, {0.5, 600}} {
		d := straight(c.kmh, 1800).Steered(walking)
		require.GreaterOrEqual(t, len(d.Sent), 3, c.kmh)
		for i := 1; i < len(d.Sent); i++ {
			assert.InDelta(t, c.every, d.Sent[i]-d.Sent[i-1], 1.1, "%g km/h", c.kmh)
		}
	}
	// North for 100 s, then east.
	var bent aprs.Track
	for i := range 200 {
		p := geo.Point{Lat: 41 + 1.5*float64(min(i, 100))/111_195, Lon: -55 + 1.5*float64(max(0, i-100))/(111_195*math.Cos(41*math.Pi/180))}
		bent = append(bent, aprs.Point{Point: p, At: float64(i)})
	}
	d := bent.Steered(walking)
	assert.Equal(t, []int{0, 101}, d.Sent, "at the turn")
	// A car at 60 km/h turns by 28 + 400/60 = 34.7° before it counts; 30° do not.
	car := aprs.Steer{FastKmh: 90, FastEvery: 90, SlowKmh: 5, SlowEvery: 1200, Turn: 28, Slope: 400, TurnAfter: 15}
	for _, c := range []struct {
		turn  float64
		sends bool
	}{{30, false}, {36, true}} {
		var road aprs.Track
		at, rad := geo.Point{Lat: 41, Lon: -55}, 0.0
		for i := range 60 {
			if i == 40 {
				rad = c.turn * math.Pi / 180
			}
			road = append(road, aprs.Point{Point: at, At: float64(i)})
			at.Lat += 16.67 * math.Cos(rad) / 111_195
			at.Lon += 16.67 * math.Sin(rad) / (111_195 * math.Cos(41*math.Pi/180))
		}
		assert.Equal(t, c.sends, len(road.Steered(car).Sent) > 1, "%g°", c.turn)
	}
}

// TestEvery: at a steady speed the gap grows from none to what is covered in an interval,
// and is half of that in the mean. 3.6 km/h is a metre a second: 60 m, and 30.
func TestEvery(t *testing.T) {
	d := straight(3.6, 3600).Every(60)
	assert.Len(t, d.Sent, 61)
	assert.InDelta(t, 60, d.Worst, 10, "beside it the place is told to a hundredth of a minute, 18.5 m")
	assert.InDelta(t, 30, d.MeanGap, 6)
	assert.InDelta(t, 3.6, straight(3.6, 3600).Kilometres(), 0.001)
}

func TestGPX(t *testing.T) {
	track, err := aprs.ReadGPX(strings.NewReader(`<?xml version="1.0"?><gpx version="1.1"><trk><trkseg>
<trkpt lat="41.0" lon="-55.0"><ele>1</ele><time>2026-11-25T09:00:00Z</time></trkpt>
<trkpt lat="41.001" lon="-55.0"><time>2026-11-25T09:00:10Z</time></trkpt>
<trkpt lat="41.002" lon="-55.0"><time>2026-11-25T09:00:05Z</time></trkpt>
<trkpt lat="41.003" lon="-55.0"/></trkseg></trk></gpx>`))
	require.NoError(t, err)
	require.Len(t, track, 3, "the clock went back once")
	assert.Equal(t, []float64{0, 10, 11}, []float64{track[0].At, track[1].At, track[2].At})
	for _, bad := range []string{"", "blue moon", "<gpx/>", `<gpx><trkpt lat="99" lon="0"/><trkpt lat="1" lon="0"/></gpx>`, `<gpx><trkpt lat="x" lon="0"/></gpx>`, `<gpx><trkpt lat="1" lon="0"/>`} {
		_, err := aprs.ReadGPX(strings.NewReader(bad))
		assert.Error(t, err, bad)
	}
}

// TestCircles: a circle holds what it is to hide, and its middle is somewhere else, every
// time in the same place.
func TestCircles(t *testing.T) {
	home := geo.Point{Lat: 41.02, Lon: -55.31}
	directions := map[int]bool{}
	for seed := range uint64(200) {
		c := aprs.Around(home, 1, seed)
		km, bearing := geo.Distance(home, c.Point)
		assert.True(t, aprs.Hides([]aprs.Circle{c}, home))
		assert.Greater(t, km, 0.28, "it would mark the house")
		assert.Less(t, km, 0.69)
		directions[int(bearing/45)] = true
		assert.Equal(t, c, aprs.Around(home, 1, seed), "several circles around one place would give it away")
	}
	assert.Len(t, directions, 8)
	assert.False(t, aprs.Hides([]aprs.Circle{aprs.Around(home, 1, 3)}, geo.Point{Lat: 41.1, Lon: -55.31}))
}

// TestTables: both tables of symbols are there from the first code to the last.
func TestTables(t *testing.T) {
	all := aprs.Symbols()
	assert.Len(t, all, 2*94)
	words := map[string]string{}
	for _, s := range all {
		says := aprs.Words(s)
		assert.NotEmpty(t, says, s.String())
		key := string(s.Table) + says
		if !strings.HasPrefix(says, "reserved") && s.Table == '/' {
			assert.Empty(t, words[key], "%s and %s are both %s", s, words[key], says)
		}
		words[key] = s.String()
	}
	assert.Equal(t, "person on foot", aprs.Words(sym("/[")))
	assert.Contains(t, aprs.Words(sym("3#")), "with 3 over it")
	assert.Len(t, aprs.SSIDs(), 16)
}

// BenchmarkTrack drives a hundred thousand points by speed and turn.
func BenchmarkTrack(b *testing.B) {
	track := straight(40, 99_999)
	for b.Loop() {
		track.Steered(walking)
	}
}
