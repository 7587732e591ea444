package geo

import (
	"fmt"
	"strings"
)

// Each pair of a Maidenhead locator divides the square before it: 18 fields,
// 10 squares, 24 subsquares, 10 extended squares. Source: IARU Region 1 VHF
// Managers Handbook, "Locator".
var locatorPairs = [4]struct {
	first byte
	count int
}{{'A', 18}, {'0', 10}, {'A', 24}, {'0', 10}}

// ParseLocator reads a Maidenhead locator of four, six or eight characters in
// any case and returns the centre of its square.
func ParseLocator(s string) (Point, error) {
	t := strings.ToUpper(strings.TrimSpace(s))
	if n := len(t); n != 4 && n != 6 && n != 8 {
		return Point{}, fmt.Errorf("locator %q: write four, six or eight characters such as GN21ia", s)
	}
	lat, lon, size := -90.0, -180.0, 180.0
	for pair := 0; pair*2 < len(t); pair++ {
		p := locatorPairs[pair]
		east, north := int(t[pair*2])-int(p.first), int(t[pair*2+1])-int(p.first)
		if east < 0 || east >= p.count || north < 0 || north >= p.count {
			return Point{}, fmt.Errorf("locator %q: %q is out of place in it", s, t[pair*2:pair*2+2])
		}
		size /= float64(p.count)
		lat += float64(north) * size
		lon += float64(east) * size * 2
	}
	return Point{Lat: lat + size/2, Lon: lon + size}, nil
}

// Locator returns the six-character Maidenhead locator of p.
func (p Point) Locator() string {
	lat, lon := p.Lat+90, (p.Lon+180)/2
	size := 180.0
	var b strings.Builder
	for _, pair := range locatorPairs[:3] {
		size /= float64(pair.count)
		for _, v := range []*float64{&lon, &lat} {
			i := min(int(*v/size), pair.count-1)
			*v -= float64(i) * size
			b.WriteByte(pair.first + byte(i))
		}
	}
	s := b.String()
	return s[:4] + strings.ToLower(s[4:])
}
