package recovery

import (
	"cmp"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"time"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

// The measures of a district.
const (
	repeaters = 2_000
	side      = 200.0 // kilometres
	staleIn   = 10    // one of so many is long out of date
	offIn     = 20    // one of so many is off the air
)

// repeater is one that stands in the district, whatever is listed of it.
type repeater struct {
	listing.Record
	listed   []listing.Record // what the sources say of it; empty if nobody does
	outdated bool             // they say something that is no longer so
}

// district is an invented country of 200 × 200 km with its listing.
type district struct {
	plan    *band.Plan
	all     []repeater
	listing []listing.Record // sorted as a listing is: by source and output
}

var middle = geo.Point{Lat: 41, Lon: -55}

// newDistrict draws a district on the rasters and shift rules of a region.
func newDistrict(r *rand.Rand, plan *band.Plan, today time.Time) *district {
	d := &district{plan: plan}
	outputs := outputs(plan)
	used := map[freq.Hz][]geo.Point{}
	for i := range repeaters {
		place := geo.Point{Lat: middle.Lat + (r.Float64()-0.5)*side/111.1, Lon: middle.Lon + (r.Float64()-0.5)*side/(111.3*math.Cos(middle.Lat*math.Pi/180))}
		o := coordinated(r, outputs, used, place)
		used[o.frequency] = append(used[o.frequency], place)
		d.all = append(d.all, repeater{Record: record(r, i, o, place, today)})
	}
	for i := range d.all {
		d.all[i].publish(r, outputs)
		d.listing = append(d.listing, d.all[i].listed...)
	}
	slices.SortFunc(d.listing, func(a, b listing.Record) int {
		return cmp.Or(cmp.Compare(a.Source, b.Source), cmp.Compare(a.Output, b.Output), cmp.Compare(a.Callsign, b.Callsign))
	})
	return d
}

type output struct {
	frequency freq.Hz
	offsets   []freq.Offset
}

// outputs lists the channels on which repeaters of a region send, on the
// coarsest raster of each band that meets the shift rules.
func outputs(plan *band.Plan) []output {
	var out []output
	for _, b := range plan.Bands {
		for _, rule := range b.Shifts {
			for f := rule.Lower; f <= rule.Upper; f += 2_500 {
				on := slices.ContainsFunc(b.Rasters, func(x freq.Raster) bool { return x.On(f) })
				_, ruled := plan.Shift(f)
				if !on || !ruled || !rule.Firm() && rule.Certainty != band.Varied {
					continue
				}
				o := output{frequency: f}
				for _, offset := range append([]freq.Offset{rule.Offset}, rule.Alternatives...) {
					if mayListen(plan, &b, f.Add(offset)) {
						o.offsets = append(o.offsets, offset)
					}
				}
				if len(o.offsets) > 0 {
					out = append(out, o)
				}
			}
		}
	}
	return out
}

// mayListen reports whether a repeater may have an input there: inside the
// band by half an emission, and where FM voice belongs.
func mayListen(plan *band.Plan, b *band.Band, input freq.Hz) bool {
	const half = 8_000
	seg, known := plan.Segment(input)
	return input-half >= b.Lower && input+half <= b.Upper && (!known || seg.Voice())
}

// coordinated takes, of a few channels, the one whose nearest user is
// farthest away, as whoever hands out frequencies does.
func coordinated(r *rand.Rand, all []output, used map[freq.Hz][]geo.Point, at geo.Point) output {
	best, far := output{}, -1.0
	for range 12 {
		o := all[r.IntN(len(all))]
		nearest := math.Inf(1)
		for _, p := range used[o.frequency] {
			nearest = min(nearest, flat(p, at))
		}
		if nearest > far {
			best, far = o, nearest
		}
	}
	return best
}

// syllables make names that exist nowhere.
var syllables = strings.Fields("bra kel mor tun vas ost rin hal dov pel gar sul ner tav wick ford")

func record(r *rand.Rand, i int, o output, at geo.Point, today time.Time) listing.Record {
	offset := o.offsets[0]
	if len(o.offsets) > 1 && r.IntN(4) == 0 {
		offset = o.offsets[1+r.IntN(len(o.offsets)-1)]
	}
	name := syllables[r.IntN(16)] + syllables[r.IntN(16)] + syllables[r.IntN(16)]
	days := r.IntN(330)
	if r.IntN(staleIn) == 0 {
		days = 400 + r.IntN(1200)
	}
	rec := listing.Record{
		Key: fmt.Sprint(i), Callsign: fmt.Sprintf("Q%c%d%c%c", 'A'+r.IntN(26), r.IntN(10), 'A'+r.IntN(26), 'A'+r.IntN(26)),
		Output: o.frequency, Input: o.frequency.Add(offset), Mode: listing.FM, Locality: strings.ToUpper(name[:1]) + name[1:],
		Lat: &at.Lat, Lon: &at.Lon, Status: listing.OnAir, Access: listing.Open, Updated: listing.Date{Time: today.AddDate(0, 0, -days)},
	}
	rec.UplinkTone, rec.DownlinkTone = tones(r)
	if r.IntN(5) < 3 {
		h := math.Round(20 * math.Exp(r.Float64()*3)) // 20 to 400 m
		rec.Height = &h
	}
	if r.IntN(offIn) == 0 {
		rec.Status = listing.OffAir
	}
	if r.IntN(25) == 0 {
		rec.Mode = listing.Digital
	}
	return rec
}

// tones draws how a repeater is opened and what it sends.
func tones(r *rand.Rand) (up, down listing.Stated) {
	draw := func() tone.Tone {
		if r.IntN(10) == 0 {
			t, _ := tone.NewDCS(tone.DCS83[r.IntN(len(tone.DCS83))], false)
			return t
		}
		t, _ := tone.NewCTCSS(tone.CTCSS38[r.IntN(len(tone.CTCSS38))])
		return t
	}
	switch n := r.IntN(20); {
	case n == 0:
		return listing.Says(tone.Off), listing.Says(tone.Off) // carrier access
	case n == 1:
		return listing.Stated{}, listing.Stated{}
	}
	t := draw()
	switch n := r.IntN(20); {
	case n < 10:
		return listing.Says(t), listing.Says(t)
	case n < 13:
		return listing.Says(t), listing.Says(tone.Off)
	case n < 16:
		return listing.Says(t), listing.Says(draw())
	}
	return listing.Says(t), listing.Stated{}
}

// publish decides what the two sources say: nothing, something old, or what
// is so.
func (x *repeater) publish(r *rand.Rand, all []output) {
	said := x.Record
	switch r.IntN(10) {
	case 0:
		return // nobody lists it
	case 1:
		x.outdated = true
		if r.IntN(2) == 0 {
			said.UplinkTone, said.DownlinkTone = tones(r)
		} else {
			o := all[r.IntN(len(all))]
			said.Output, said.Input = o.frequency, o.frequency.Add(o.offsets[0])
		}
	}
	n := r.IntN(4)
	for i, source := range []string{"first list", "second list"} {
		if n == 0 || n == i+1 || n == 3 && i == 0 {
			said.Source, said.Key = source, fmt.Sprintf("%s-%d", x.Key, i)
			x.listed = append(x.listed, said)
		}
	}
}
