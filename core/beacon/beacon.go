// Package beacon works out an APRS station: the very frames that it will send, what each of
// its settings costs on the air, what it does to the channel, and what is wrong with it.
//
//	r := beacon.Look(station, circumstances)
//	r.Shown.Frame.Text() // what goes out
//	r.Bill               // what each setting costs, and what else it could be
//
// Nothing is ever sent from here: it makes files and cards, and a person keys the radio.
package beacon

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"mnemos/core/aprs"
	"mnemos/core/ax25"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/geo"
)

// Baud is the speed of packets on VHF, in bit/s.
const Baud = 1200

// Part is a field of a frame with its bytes and its time.
type Part struct {
	aprs.Field
	Bytes   []byte
	From    float64 // ms after the key
	To      float64
	Stuffed int
}

// Shown is a frame as it will be sent.
type Shown struct {
	Kind  aprs.Kind
	Frame ax25.Frame
	Raw   []byte // without flags and check
	Parts []Part
	Air   ax25.Airtime
	Error string // why there is none
}

// Option is another value of a setting, and what it would cost more or less.
type Option struct {
	Label string
	Set   map[string]any
	Delta float64 // ms
}

// Line is a line of the bill: a setting as it is, its cost, what else it could be, and what
// speaks for it.
type Line struct {
	ID, Name string
	Value    string
	Note     string
	Cost     float64 // ms
	Options  []Option
	Mark     evidence.Mark
	Why      string
}

// Cases are what a change would do to the channel.
type Case struct {
	Says     string
	Busy     float64
	Collides float64
	Now      bool
}

// Report is what there is to say of a station.
type Report struct {
	Station  Station
	Profile  aprs.Profile
	Shown    []Shown // position or object first, then status, message
	Bill     []Line
	Interval float64 // s between beacons, in the mean
	Traffic  aprs.Traffic
	Cases    []Case
	Minute   []aprs.Burst
	Random   float64 // what is carried of the load if packets came at random
	Findings []Finding
	Verdict  evidence.Verdict
	Channel  freq.Hz
	Slot     int // where the radio has it; -1 for nowhere
	Place    *geo.Point
	Hidden   bool   // it lies in a circle where nothing is sent
	Sees     string // what a stranger can read
	Flight   []Check
	Switch   []Change
	Own      bool // it may be exported
	WhyNot   string
}

// Look works a station out.
func Look(s Station, a Around) *Report {
	r := &Report{Station: s, Profile: aprs.ProfileOf(s.Profile), Slot: -1}
	r.Place = placeOf(s, a)
	r.Channel = channelOf(s, a)
	for _, x := range a.Slots {
		if near(x.Channel.Receive, r.Channel) {
			r.Slot = x.Number
			break
		}
	}
	r.Shown = shown(s, a)
	r.Interval = s.Every
	if s.Smart && s.Steer.FastEvery > 0 {
		r.Interval = math.Max(s.Every, s.Steer.FastEvery)
	}
	r.Traffic = traffic(s, r.Shown[0].Air.Total/1000, r.Interval)
	r.Bill = bill(s, a, r)
	r.Cases = cases(s, a, r)
	if r.Shown[0].Error == "" {
		r.Minute = r.Traffic.Minute(7)
		r.Random = aprs.Random(r.Traffic.Busy())
	}
	var circles []aprs.Circle
	for _, c := range s.Circles {
		circles = append(circles, aprs.Circle{Point: geo.Point{Lat: c.Lat, Lon: c.Lon}, Km: c.Km})
	}
	r.Hidden = r.Place != nil && aprs.Hides(circles, *r.Place)
	r.Sees = sees(s, r)
	r.Own, r.WhyNot = own(s, a)
	r.Flight = flight(s, a, r)
	r.Switch = switched(s)
	p := &pass{Station: s, Around: a, r: r}
	p.run()
	r.Findings, r.Verdict = p.findings, p.verdict()
	return r
}

// own reports whether what is made here may leave: with one's own callsign alone, and never
// out of the demonstration.
func own(s Station, a Around) (bool, string) {
	call, _, _ := strings.Cut(s.From, "-")
	mine, _, _ := strings.Cut(strings.ToUpper(a.Callsign), "-")
	switch {
	case a.Demo:
		return false, "It is the demonstration: open a plan of your own to copy frames."
	case mine == "":
		return false, "Copying needs your own callsign: write it in People."
	case call != mine:
		return false, "Copying needs your own callsign as the source: this one is " + call + "."
	}
	return true, ""
}

func near(a, b freq.Hz) bool { return max(a-b, b-a) < 5_000 }

// channelOf is the frequency on which the station sends.
func channelOf(s Station, a Around) freq.Hz {
	if aprs.ProfileOf(s.Profile).Space {
		return aprs.SpaceFrequency()
	}
	if a.Plan != nil && len(a.Plan.APRS) > 0 {
		return a.Plan.APRS[0]
	}
	return 0
}

func placeOf(s Station, a Around) *geo.Point {
	if s.Lat != nil && s.Lon != nil {
		return &geo.Point{Lat: *s.Lat, Lon: *s.Lon}
	}
	return a.Place
}

// packet is the beacon itself.
func packet(s Station, a Around) (aprs.Packet, error) {
	p := aprs.Packet{Kind: aprs.Position, Format: aprs.Format(s.Format), Ambiguity: s.Ambiguity, Comment: comment(s, a), Says: s.Says}
	if p.Format == aprs.Compressed {
		p.Ambiguity = 0
	}
	var err error
	if p.Symbol, err = aprs.ParseSymbol(s.Symbol); err != nil {
		return p, err
	}
	place := placeOf(s, a)
	if place == nil {
		return p, fmt.Errorf("it has no position: set the place of the plan, or write one")
	}
	p.Place = *place
	if s.Time && p.Format != aprs.MicE {
		now := a.Now.UTC()
		p.Time = &now
	}
	if s.Height {
		feet := 315 // as if 96 m up: an example of as many letters as any
		p.Feet = &feet
	}
	if s.Speed {
		p.Motion = &aprs.Motion{Course: 88, Knots: 3}
	}
	if aprs.ProfileOf(s.Profile).Object {
		p.Kind, p.Name = aprs.Object, s.Object
		if p.Format == aprs.MicE {
			p.Format = aprs.Plain
		}
	}
	return p, nil
}

// comment is the frequency to call back on, and the words.
func comment(s Station, a Around) string {
	text := ""
	for _, x := range a.Slots {
		if x.Number == s.Back {
			if t, ok := aprs.BackText(x.Channel); ok {
				text = t
			}
		}
	}
	if text != "" && s.Words != "" {
		text += " "
	}
	return text + s.Words
}

// shown are the frames that a station can send: its beacon, its status and a message.
func shown(s Station, a Around) []Shown {
	from, err := ax25.ParseAddress(s.From)
	path, err2 := aprs.ParsePath(s.Path)
	one := func(p aprs.Packet, fault error) Shown {
		out := Shown{Kind: p.Kind}
		for _, e := range []error{err, err2, fault} {
			if e != nil {
				out.Error = e.Error()
				return out
			}
		}
		f, fields, e := p.Frame(from, path)
		if e != nil {
			out.Error = e.Error()
			return out
		}
		if out.Raw, e = f.Bytes(); e != nil {
			out.Error = e.Error()
			return out
		}
		out.Frame, out.Air = f, ax25.Air(out.Raw, s.KeyUp, Baud)
		out.Parts = parts(fields, out.Raw, out.Air)
		return out
	}
	if s.From == "" {
		err = fmt.Errorf("type your callsign, such as QX9ABC-7")
	}
	list := []Shown{one(packet(s, a))}
	if s.Status != "" {
		list = append(list, one(aprs.Packet{Kind: aprs.Status, Comment: s.Status}, nil))
	}
	if s.To != "" {
		list = append(list, one(aprs.Packet{Kind: aprs.Message, To: s.To, Comment: s.Text, Number: "1"}, nil))
	}
	return list
}

// parts lays fields over the bytes of a frame and its time.
func parts(fields []aprs.Field, raw []byte, air ax25.Airtime) (out []Part) {
	fcs := ax25.FCS(raw)
	all := append(slices.Clone(raw), byte(fcs), byte(fcs>>8))
	at, from := 0, air.KeyUp+8*1000.0/Baud
	for _, f := range fields {
		n := f.Bytes
		p := Part{Field: f, Bytes: all[at : at+n], From: from, To: air.Ends[at+n-1]}
		for _, extra := range air.Extra[at : at+n] {
			p.Stuffed += extra
		}
		out = append(out, p)
		at, from = at+n, p.To
	}
	return out
}

// seconds writes an interval.
func seconds(s float64) string {
	if s >= 120 && math.Mod(s, 60) == 0 {
		return fmt.Sprintf("%.0f min", s/60)
	}
	return fmt.Sprintf("%.0f s", s)
}

// blurred is how well a place is known that lacks so many figures: a tenth of a minute is
// 185 m of latitude.
func blurred(figures int) string {
	return []string{"18 m", "0.2 km", "1.9 km", "19 km", "111 km"}[min(4, max(0, figures))]
}

// sees is what a stranger can read.
func sees(s Station, r *Report) string {
	what := "where you are to 18 m"
	switch {
	case r.Shown[0].Error != "":
		return ""
	case s.Format == string(aprs.Compressed):
		what = "where you are to 0.3 m"
	case s.Ambiguity > 0:
		what = "where you are to " + blurred(s.Ambiguity)
	}
	every := "every " + seconds(s.Every)
	if s.Smart {
		every = "while you move"
	}
	return fmt.Sprintf("Anybody, also on the internet and for years: %s, %s, %s.", s.From, what, every)
}
