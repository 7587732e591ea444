// Package recovery measures how well a slip on the entry line is found and
// put right. It draws districts, makes slips on typed lines, says by brute
// force what could be known about each, and asks `mnemos read --batch`: the
// program is tested from outside, as anybody could.
package recovery

import (
	"math"
	"math/rand/v2"
	"strconv"
	"strings"
	"time"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/tone"
	"mnemos/internal/recovery/slips"
)

// Case is one line of a corpus file: a typed line, where it was typed, and
// what was meant. Listing names a listing file beside the corpus.
type Case struct {
	Region     string  `json:"region"`
	Listing    string  `json:"listing"`
	At         string  `json:"at"`
	Kind       string  `json:"kind"` // the kind of slip, or "clean"
	Class      Class   `json:"class"`
	Candidates int     `json:"candidates"` // how many records lead to the line by one slip
	Line       string  `json:"line"`
	Truth      Channel `json:"truth"`

	place geo.Point
}

// Channel is what has to come out.
type Channel struct {
	Receive      int64   `json:"receive_hz"`
	Transmit     int64   `json:"transmit_hz"`
	TransmitTone *string `json:"transmit_tone"`
	ReceiveTone  *string `json:"receive_tone"`
}

// style is which fields somebody types, and how.
type style struct {
	shift    int // 0 none, 1 sign and size, 2 transmit frequency
	squelch  bool
	name     bool
	trailing bool // three decimals, or as many as needed
}

func drawStyle(r *rand.Rand) style {
	return style{shift: []int{0, 1, 1, 1, 2}[r.IntN(5)], squelch: r.IntN(5) == 0, name: r.IntN(4) == 0, trailing: r.IntN(2) == 0}
}

// line writes a record in the style. ok is false if a right line in this style
// would be another: one that needs a tone is not right without. Of a record
// whose tone nobody states the typed tone is taken as right.
func (s style) line(r listing.Record, typed slips.Line) (l slips.Line, ok bool) {
	l.Receive = r.Output.MHz()
	if !s.trailing {
		l.Receive = plain(l.Receive)
	}
	o, _ := r.Offset()
	switch s.shift {
	case 1:
		l.Sign, l.Size = "+", strconv.FormatInt(int64(o.Abs())/freq.KHz, 10)
		if o < 0 {
			l.Sign = "-"
		}
		if o.Abs() > 99*freq.MHz || o.Abs() < 100*freq.KHz {
			return l, false
		}
	case 2:
		l.Input = r.Input.MHz()
	}
	switch {
	case !r.UplinkTone.Known:
		l.Tone, l.Mode = typed.Tone, typed.Mode
	case !r.UplinkTone.Tone.IsOff():
		l.Tone = r.UplinkTone.Tone.String()
		if s.squelch {
			l.Mode = "ts"
		}
	}
	if s.name {
		l.Name = r.Locality
	}
	return l, true
}

var table = func() []string {
	var out []string
	for _, d := range tone.CTCSS50 {
		t, err := tone.NewCTCSS(d)
		if err != nil {
			panic(err) // the table holds tones only
		}
		out = append(out, t.String())
	}
	return out
}()

// around is what stands beside line i of the listing.
func (d *district) around(i int) slips.Around {
	r := d.listing[i]
	a := slips.Around{Output: r.Output.MHz(), Input: r.Input.MHz(), Tones: table}
	if r.DownlinkTone.Known && !r.DownlinkTone.Tone.IsOff() {
		a.Downlink = r.DownlinkTone.Tone.String()
	}
	for _, j := range []int{i - 1, i + 1} {
		if j >= 0 && j < len(d.listing) && d.listing[j].Source == r.Source && d.listing[j].UplinkTone.Known && !d.listing[j].UplinkTone.Tone.IsOff() {
			a.Beside = append(a.Beside, d.listing[j].UplinkTone.Tone.String())
		}
	}
	return a
}

// index returns the line of the listing in which a repeater stands, or -1.
func (d *district) index(x repeater) int {
	for i := range d.listing {
		if len(x.listed) > 0 && d.listing[i].Key == x.listed[0].Key {
			return i
		}
	}
	return -1
}

// sit puts the operator within 60 km of a repeater and where it may be heard.
func sit(r *rand.Rand, x repeater) geo.Point {
	far := 60.0
	if x.Height != nil {
		far = min(far, geo.Horizon(*x.Height, 1.5))
	}
	km, bearing := 2+r.Float64()*(far-2), r.Float64()*2*math.Pi
	return geo.Point{Lat: *x.Lat + km*math.Cos(bearing)/111.2, Lon: *x.Lon + km*math.Sin(bearing)/(111.4*math.Cos(*x.Lat*math.Pi/180))}
}

// right draws a repeater, a place and the right line for it.
func (d *district) right(r *rand.Rand) (repeater, style, slips.Line, Case, bool) {
	x := d.all[r.IntN(len(d.all))]
	s := drawStyle(r)
	if x.Mode == listing.Digital || !x.UplinkTone.Known || x.Status == listing.OffAir && r.IntN(2) == 0 {
		return x, s, slips.Line{}, Case{}, false
	}
	if s.squelch && (x.UplinkTone.Tone.IsOff() || !x.DownlinkTone.Known || x.DownlinkTone.Tone != x.UplinkTone.Tone) {
		s.squelch = false
	}
	if rule, ok := d.plan.Shift(x.Output); s.shift == 0 && (!ok || x.Input.Sub(x.Output) != rule.Offset) {
		s.shift = 1 // the band plan does not say it, so it has to be typed
	}
	l, ok := s.line(x.Record, slips.Line{})
	place := sit(r, x)
	c := Case{Region: d.plan.Region, At: strconv.FormatFloat(place.Lat, 'f', 4, 64) + "," + strconv.FormatFloat(place.Lon, 'f', 4, 64), place: place}
	c.Truth = Channel{Receive: int64(x.Output), Transmit: int64(x.Input)}
	if t := x.UplinkTone.Tone; !t.IsOff() {
		text := t.String()
		c.Truth.TransmitTone = &text
		if l.Mode != "" {
			c.Truth.ReceiveTone = &text
		}
	}
	return x, s, l, c, ok
}

// slipped draws a case with a slip of the kind; ok is false if this kind does
// not fit the repeater that was drawn.
func (d *district) slipped(r *rand.Rand, k slips.Kind) (Case, bool) {
	x, s, l, c, ok := d.right(r)
	if !ok {
		return c, false
	}
	around := slips.Around{Output: x.Output.MHz(), Input: x.Input.MHz(), Tones: table}
	if i := d.index(x); i >= 0 {
		around = d.around(i)
		around.Output, around.Input = x.Output.MHz(), x.Input.MHz()
	}
	lines := k.Make(l, around)
	if len(lines) == 0 {
		return c, false
	}
	typed := lines[r.IntN(len(lines))]
	c.Kind, c.Line = k.Name, typed.String()
	d.classify(&c, typed, s, x)
	return c, true
}

// untold draws a case with a slip of a kind that the searcher does not know.
// The oracle does not know it either, so the class says only that; what equals
// another record, or the truth itself, is left out.
func (d *district) untold(r *rand.Rand, k slips.Kind) (Case, bool) {
	c, ok := d.slipped(r, k)
	if !ok || c.Class == Undetectable {
		return c, false
	}
	c.Class = Untold
	return c, true
}

// clean draws a right entry.
func (d *district) clean(r *rand.Rand, today time.Time) (Case, bool) {
	x, _, l, c, ok := d.right(r)
	if !ok || x.outdated {
		return c, false
	}
	c.Kind, c.Line = "clean", l.String()
	switch {
	case len(x.listed) == 0:
		c.Class = CleanUnlisted
	case today.Sub(x.Updated.Time) > 365*24*time.Hour:
		c.Class = CleanStale
	default:
		c.Class = CleanListed
	}
	return c, true
}

// simplex draws a simplex channel where the band plan has them.
func (d *district) simplex(r *rand.Rand) (Case, bool) {
	b := d.plan.Bands[r.IntN(len(d.plan.Bands))]
	s := b.Segments[r.IntN(len(b.Segments))]
	if s.Use != band.Simplex || s.Upper == s.Lower {
		return Case{}, false
	}
	raster := b.Rasters[r.IntN(len(b.Rasters))]
	f := raster.Nearest(s.Lower + freq.Hz(r.Int64N(int64(s.Upper-s.Lower))))
	if seg, ok := d.plan.Segment(f); !ok || seg.Use != band.Simplex || !mayListen(d.plan, &b, f) {
		return Case{}, false
	}
	place := sit(r, d.all[r.IntN(len(d.all))])
	c := Case{Region: d.plan.Region, Kind: "clean", Class: CleanSimplex, Line: f.MHz(), place: place}
	c.At = strconv.FormatFloat(place.Lat, 'f', 4, 64) + "," + strconv.FormatFloat(place.Lon, 'f', 4, 64)
	c.Truth = Channel{Receive: int64(f), Transmit: int64(f)}
	if r.IntN(2) == 0 {
		t := table[r.IntN(len(table))]
		c.Line += " ts " + t
		c.Truth.TransmitTone, c.Truth.ReceiveTone = &t, &t
	}
	if r.IntN(2) == 0 {
		c.Line += ` "` + strings.ToUpper(syllables[r.IntN(16)]) + `"`
	}
	return c, true
}
