package recovery

import (
	"math"
	"strings"

	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/internal/recovery/slips"
)

// Class says what can be known about a case from the listing alone.
type Class string

// The classes of a case with a slip, and of clean ones.
const (
	Undetectable Class = "undetectable" // the slip equals another record
	Unlisted     Class = "unlisted"     // the truth is not, or no longer, in the listing
	Unique       Class = "unique"       // one record leads to the line by one slip
	Ambiguous    Class = "ambiguous"    // several do
	Untold       Class = "untold"       // a slip of a kind that the searcher is not told of

	CleanListed   Class = "clean, listed"
	CleanStale    Class = "clean, stale listed"
	CleanUnlisted Class = "clean, right but unlisted"
	CleanSimplex  Class = "clean, simplex"
)

// reachKM is how far from the operator a record counts as a candidate.
const reachKM = 100.0

// classify tries every slip on every record around and counts those that lead
// to the line. It is brute force on purpose.
func (d *district) classify(c *Case, typed slips.Line, style style, truth repeater) {
	candidates := map[string]bool{}
	listed := false
	for i := range d.listing {
		r := &d.listing[i]
		if flat(c.place, geo.Point{Lat: *r.Lat, Lon: *r.Lon}) > reachKM || r.Mode == listing.Digital {
			continue
		}
		clean, ok := style.line(*r, typed)
		if !ok {
			continue
		}
		if equal(clean, typed) {
			c.Class = Undetectable
			return
		}
		if d.leads(i, clean, typed) {
			candidates[channelKey(*r)] = true
			listed = listed || own(*r, truth)
		}
	}
	c.Candidates = len(candidates)
	switch {
	case !listed:
		c.Class = Unlisted
	case len(candidates) == 1:
		c.Class = Unique
	default:
		c.Class = Ambiguous
	}
}

// flat is the distance in kilometres on a plane, which is near enough within
// a district.
func flat(a, b geo.Point) float64 {
	return math.Hypot((a.Lat-b.Lat)*111.1, (a.Lon-b.Lon)*111.3*math.Cos(a.Lat*math.Pi/180))
}

// own reports whether a record is about the repeater that was meant, and says
// what is so.
func own(r listing.Record, truth repeater) bool {
	return strings.HasPrefix(r.Key, truth.Key+"-") && channelKey(r) == channelKey(truth.Record)
}

// channelKey tells repeaters apart by what is stored of them.
func channelKey(r listing.Record) string {
	return r.Output.String() + r.Input.String() + r.UplinkTone.String()
}

// leads reports whether some slip on the clean line of a record makes the
// typed line.
func (d *district) leads(i int, clean, typed slips.Line) bool {
	// What no slip changes must be equal already; this only saves time.
	if clean.Name != typed.Name || clean.Tone != typed.Tone && !sameNumber(clean.Receive, typed.Receive) {
		return false
	}
	around := d.around(i)
	for _, k := range slips.Kinds {
		for _, l := range k.Make(clean, around) {
			if equal(l, typed) {
				return true
			}
		}
	}
	return false
}

func equal(a, b slips.Line) bool {
	if !sameNumber(a.Receive, b.Receive) || !sameNumber(a.Input, b.Input) {
		return false
	}
	a.Receive, b.Receive, a.Input, b.Input = "", "", "", ""
	return a == b
}

func sameNumber(a, b string) bool { return plain(a) == plain(b) }

func plain(s string) string {
	if strings.Contains(s, ".") {
		return strings.TrimSuffix(strings.TrimRight(s, "0"), ".")
	}
	return s
}
