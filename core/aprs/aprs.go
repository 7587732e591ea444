// Package aprs writes and reads the packets of the Automatic Packet Reporting System:
// positions plain, compressed and in the address (Mic-E), with time, objects, items,
// messages and status; and works out what a beacon does to the channel.
//
//	p := aprs.Packet{Kind: aprs.Position, Format: aprs.Plain, Place: here, Symbol: aprs.Symbol{'/', '['}, Comment: "Walk"}
//	f, fields, err := p.Frame(from, path)  // an AX.25 frame, and what each part of it is
//	back, err := aprs.Parse(f)             // the same, to the format's resolution
//
// Source: APRS Protocol Reference 1.0.1 (29 August 2000), chapters named beside each
// table; frequencies in text after the addenda 1.1 and 1.2. All from memory, confirm.
//
// # Resolution
//
// Plain and Mic-E: a hundredth of a minute, 18.5 m to the north. Compressed: 1/380926 of a
// degree of latitude and 1/190463 of longitude, 0.3 m. Speed in knots, plain whole,
// compressed in steps of 8 %; course in degrees, compressed in steps of four.
package aprs

import (
	"errors"
	"fmt"
	"math"
	"strings"
	"time"

	"mnemos/core/ax25"
	"mnemos/core/geo"
)

// Kind is what a packet is about.
type Kind string

// The kinds of packets that are written here.
const (
	Position Kind = "position"
	Object   Kind = "object"
	Item     Kind = "item"
	Status   Kind = "status"
	Message  Kind = "message"
)

// Format is how a position is written.
type Format string

// The formats of a position.
const (
	Plain      Format = "plain"
	Compressed Format = "compressed"
	MicE       Format = "mic-e" // latitude in the destination address
)

// Symbol is what a station is drawn as: a table and a code in it. A figure or a capital in
// place of the table is laid over the symbol of the second one.
type Symbol struct{ Table, Code byte }

// String is the symbol as it is written: "/[".
func (s Symbol) String() string { return string([]byte{s.Table, s.Code}) }

// Zone is how a time is written.
type Zone byte

// The ways to write a time (chapter 6).
const (
	Zulu  Zone = 'z' // day, hours and minutes, UTC
	Local Zone = '/' // the same in local time: it does not say which
	Clock Zone = 'h' // hours, minutes and seconds, UTC
)

// Motion is course and speed.
type Motion struct {
	Course int     // degrees, 1 to 360; 0 for not known
	Knots  float64 // over ground
}

// Packet is what a packet says.
type Packet struct {
	Kind      Kind
	Format    Format
	Talks     bool // it can receive messages
	Place     geo.Point
	Ambiguity int // how many figures are left out of each of latitude and longitude, 0 to 4
	Symbol    Symbol
	Time      *time.Time
	Zone      Zone // Zulu where it is 0
	Motion    *Motion
	Feet      *int   // altitude
	Extension string // power, range and so on as they are written: PHG5132
	Comment   string
	Name      string // of an object or item
	Killed    bool   // it is there no more
	To        string // whom a message is for
	Number    string // of a message
	Old       bool   // Mic-E: the fix is not of now
	Says      int    // Mic-E: what the station is at, 0 off duty … 6 priority; 7 is never written
}

// Experimental is the destination of software under trial (chapter 4: APZ).
const Experimental = "APZ001"

// Field is a part of a frame, for people.
type Field struct {
	ID, Name string
	Text     string // as it stands; empty for what has no letters
	Says     string // what it means
	Bytes    int
}

// The longest texts. Chapters 5, 11, 14 and 16.
const (
	mostComment = 43
	mostText    = 67
	mostStatus  = 62
	mostTimed   = 55
)

// degrees are those of a latitude or longitude with minutes to a hundredth.
func degrees(v float64) (d, hundredths int) {
	total := int(math.Round(math.Abs(v) * 6000))
	return total / 6000, total % 6000
}

// latitude is 4903.50N; with ambiguity figures become spaces from the right.
func latitude(v float64, ambiguity int) string {
	d, h := degrees(v)
	side := "N"
	if v < 0 {
		side = "S"
	}
	return blur(fmt.Sprintf("%02d%02d.%02d", d, h/100, h%100), ambiguity) + side
}

// longitude is 07201.75W.
func longitude(v float64, ambiguity int) string {
	d, h := degrees(v)
	side := "E"
	if v < 0 {
		side = "W"
	}
	return blur(fmt.Sprintf("%03d%02d.%02d", d, h/100, h%100), ambiguity) + side
}

// blur leaves figures out from the right (chapter 6).
func blur(s string, n int) string {
	b := []byte(s)
	for i := len(b) - 1; i >= 0 && n > 0; i-- {
		if b[i] != '.' {
			b[i] = ' '
			n--
		}
	}
	return string(b)
}

// base91 writes a number in so many letters from "!" on (chapter 9).
func base91(n, letters int) string {
	out := make([]byte, letters)
	for i := letters - 1; i >= 0; i-- {
		out[i] = byte(33 + n%91)
		n /= 91
	}
	return string(out)
}

func fromBase91(s string) (n int, ok bool) {
	for _, c := range []byte(s) {
		if c < 33 || c > 33+90 {
			return 0, false
		}
		n = n*91 + int(c-33)
	}
	return n, true
}

// moment writes a time.
func moment(t time.Time, z Zone) string {
	if z == Clock {
		return t.UTC().Format("150405") + "h"
	}
	if z == Local {
		return t.Format("021504") + "/"
	}
	return t.UTC().Format("021504") + "z"
}

// padded is a name in nine places (chapters 11 and 14).
func padded(s string) string { return fmt.Sprintf("%-9s", s) }

func ascii(s string) bool {
	return !strings.ContainsFunc(s, func(r rune) bool { return r < ' ' || r > '~' })
}

// check says what cannot be written.
func (p Packet) check() error {
	switch {
	case !ascii(p.Comment) || !ascii(p.Name) || !ascii(p.To) || !ascii(p.Number):
		return errors.New("a packet holds plain letters, figures and signs: no accents, no line ends")
	case strings.ContainsAny(p.Comment, "|~") || p.Kind == Message && strings.Contains(p.Comment, "{"):
		return errors.New("the signs | and ~ are not for text, nor { in a message")
	case p.Says < 0 || p.Says > 6:
		return errors.New("an emergency is never written here, from no preset and no drill")
	case p.Ambiguity < 0 || p.Ambiguity > 4:
		return errors.New("up to four figures are left out")
	}
	if p.Kind == Position || p.Kind == Object || p.Kind == Item {
		if !p.Place.Valid() {
			return errors.New("it has no position")
		}
		if p.Symbol.Code < '!' || p.Symbol.Code > '~' || p.Symbol.Table != '/' && p.Symbol.Table != '\\' && !overlay(p.Symbol.Table) {
			return fmt.Errorf("%q is not a symbol: / or \\ or an overlay, and a code", p.Symbol.String())
		}
	}
	switch p.Kind {
	case Object:
		if p.Name == "" || len(p.Name) > 9 {
			return errors.New("an object has a name of up to nine letters")
		}
		if p.Format == MicE {
			return errors.New("an object is written plain or compressed")
		}
	case Item:
		if len(p.Name) < 3 || len(p.Name) > 9 || strings.ContainsAny(p.Name, "!_") {
			return errors.New("an item has a name of three to nine letters, without ! and _")
		}
		if p.Format == MicE {
			return errors.New("an item is written plain or compressed")
		}
	case Message:
		if p.To == "" || len(p.To) > 9 || len(p.Number) > 5 || len(p.Comment) > mostText {
			return fmt.Errorf("a message goes to up to nine letters, says up to %d, and is numbered with up to five", mostText)
		}
	case Status:
		if len(p.Comment) > mostStatus || p.Time != nil && len(p.Comment) > mostTimed {
			return fmt.Errorf("a status says up to %d letters, with a time %d", mostStatus, mostTimed)
		}
	case Position:
	default:
		return fmt.Errorf("%q is not a kind of packet", p.Kind)
	}
	return nil
}

func overlay(c byte) bool { return c >= '0' && c <= '9' || c >= 'A' && c <= 'Z' }

// writer collects the text of a packet, field by field.
type writer struct {
	text   strings.Builder
	fields []Field
}

func (w *writer) put(id, name, text, says string) {
	if text == "" {
		return
	}
	w.text.WriteString(text)
	w.fields = append(w.fields, Field{id, name, text, says, len(text)})
}

// Info is the text of a packet, and its destination: in Mic-E that holds the latitude.
func (p Packet) Info() (info, to string, fields []Field, err error) {
	if err := p.check(); err != nil {
		return "", "", nil, err
	}
	w := &writer{}
	to = Experimental
	switch p.Kind {
	case Message:
		w.put("kind", "kind", ":", "a message")
		w.put("addressee", "for", padded(p.To), "padded to nine places")
		w.put("kind2", "then", ":", "")
		w.put("comment", "text", p.Comment, "")
		if p.Number != "" {
			w.put("number", "number", "{"+p.Number, "it asks to be acknowledged")
		}
	case Status:
		w.put("kind", "kind", ">", "a status")
		if p.Time != nil {
			w.put("time", "time", moment(*p.Time, Zulu), "day, hours and minutes, UTC")
		}
		w.put("comment", "text", p.Comment, "")
	case Object:
		w.put("kind", "kind", ";", "an object")
		w.put("name", "name", padded(p.Name), "padded to nine places")
		w.put("alive", "there", map[bool]string{false: "*", true: "_"}[p.Killed], "* it is there, _ it is not any more")
		at := "111111z"
		if p.Time != nil {
			at = moment(*p.Time, p.zone())
		}
		w.put("time", "time", at, "when; 111111z is for always")
		p.position(w)
	case Item:
		w.put("kind", "kind", ")", "an item")
		w.put("name", "name", p.Name, "three to nine letters")
		w.put("alive", "there", map[bool]string{false: "!", true: "_"}[p.Killed], "! it is there, _ it is not any more")
		p.position(w)
	default:
		if p.Format == MicE {
			to = p.micE(w)
			break
		}
		kind, says := "!", "a position without a time, from a station that takes no messages"
		switch {
		case p.Time != nil && p.Talks:
			kind, says = "@", "a position with a time, from a station that takes messages"
		case p.Time != nil:
			kind, says = "/", "a position with a time, from a station that takes no messages"
		case p.Talks:
			kind, says = "=", "a position without a time, from a station that takes messages"
		}
		w.put("kind", "kind", kind, says)
		if p.Time != nil {
			w.put("time", "time", moment(*p.Time, p.zone()), map[Zone]string{Zulu: "day, hours and minutes, UTC", Local: "day, hours and minutes where you are: nobody else knows where that is", Clock: "hours, minutes and seconds, UTC"}[p.zone()])
		}
		p.position(w)
	}
	return w.text.String(), to, w.fields, nil
}

func (p Packet) zone() Zone {
	if p.Zone == 0 {
		return Zulu
	}
	return p.Zone
}

// position writes where it is, plain or compressed, with what follows.
func (p Packet) position(w *writer) {
	if p.Format == Compressed {
		p.compressed(w)
	} else {
		w.put("lat", "latitude", latitude(p.Place.Lat, p.Ambiguity), "degrees, then minutes to a hundredth: 18.5 m")
		w.put("table", "table", string(p.Symbol.Table), "/ is the first table of symbols, \\ the second")
		w.put("lon", "longitude", longitude(p.Place.Lon, p.Ambiguity), "degrees, then minutes to a hundredth")
		w.put("symbol", "symbol", string(p.Symbol.Code), Words(p.Symbol))
		if p.Motion != nil {
			w.put("motion", "course, speed", fmt.Sprintf("%03d/%03.0f", p.Motion.Course, math.Round(p.Motion.Knots)), "degrees, and knots")
		} else {
			w.put("extension", "more", p.Extension, "power, height and gain; or a range")
		}
	}
	p.comment(w, p.Format == Compressed)
}

func (p Packet) comment(w *writer, compressed bool) {
	freq, rest := SplitFrequency(p.Comment)
	w.put("back", "call back on", freq, "others can call back on it")
	w.put("comment", "words", rest, "free text")
	if p.Feet != nil && !(compressed && p.Motion == nil && *p.Feet > 0) {
		w.put("feet", "altitude", fmt.Sprintf("/A=%06d", *p.Feet), "feet over the sea")
	}
}

// compressed writes a position in thirteen letters (chapter 9).
func (p Packet) compressed(w *writer) {
	table := p.Symbol.Table
	if table >= '0' && table <= '9' { // figures would look like a plain position
		table = 'a' + table - '0'
	}
	w.put("table", "table", string(table), "/ is the first table of symbols, \\ the second")
	w.put("lat", "latitude", base91(int(380926*(90-p.Place.Lat)), 4), "380926 times 90° less the latitude, in base 91")
	w.put("lon", "longitude", base91(int(190463*(180+p.Place.Lon)), 4), "190463 times 180° and the longitude, in base 91")
	w.put("symbol", "symbol", string(p.Symbol.Code), Words(p.Symbol))
	const current, gga, rmc, software = 0x20, 0x10, 0x18, 0x02
	switch {
	case p.Motion != nil:
		course := p.Motion.Course % 360 / 4
		speed := int(math.Round(math.Log(p.Motion.Knots+1) / math.Log(1.08)))
		w.put("motion", "course, speed", string([]byte{byte(course + 33), byte(min(speed, 90) + 33), current | rmc | software + 33}), "course in steps of 4°, speed in steps of 8 %")
	case p.Feet != nil && *p.Feet > 0:
		n := int(math.Round(math.Log(float64(*p.Feet)) / math.Log(1.002)))
		w.put("feet", "altitude", base91(n, 2)+string(rune(current|gga|software+33)), "feet, in steps of 0.2 %")
	default:
		w.put("spare", "spare", " sT", "no course, no speed")
	}
}

// micE writes a position with the latitude in the destination (chapter 10), and returns that.
func (p Packet) micE(w *writer) string {
	d, h := degrees(p.Place.Lat)
	digits := []byte(blur(fmt.Sprintf("%02d%04d", d, h), p.Ambiguity))
	ld, lh := degrees(p.Place.Lon)
	said := 7 - p.Says
	flags := []bool{said&4 != 0, said&2 != 0, said&1 != 0, p.Place.Lat >= 0, ld < 10 || ld >= 100, p.Place.Lon < 0}
	to := make([]byte, 6)
	for i, c := range digits {
		switch {
		case c == ' ' && flags[i]:
			to[i] = 'Z'
		case c == ' ':
			to[i] = 'L'
		case flags[i]:
			to[i] = c - '0' + 'P'
		default:
			to[i] = c
		}
	}
	w.put("kind", "kind", map[bool]string{false: "`", true: "'"}[p.Old], "a position whose latitude stands in the destination")
	deg := map[bool]int{true: ld + 28}[ld >= 10 && ld < 100]
	switch {
	case ld < 10:
		deg = ld + 118
	case ld >= 110:
		deg = ld - 72
	case ld >= 100:
		deg = ld + 8
	}
	minutes := lh/100 + 28
	if lh/100 < 10 {
		minutes += 60
	}
	w.put("lon", "longitude", string([]byte{byte(deg), byte(minutes), byte(lh%100 + 28)}), "degrees, minutes and hundredths, each 28 up")
	m := Motion{}
	if p.Motion != nil {
		m = *p.Motion
	}
	knots := int(math.Round(m.Knots))
	tens := knots/10 + 28
	if knots < 200 {
		tens += 80
	}
	w.put("motion", "course, speed", string([]byte{byte(tens), byte(knots%10*10 + m.Course/100 + 4 + 28), byte(m.Course%100 + 28)}), "knots and degrees, 28 up")
	w.put("symbol", "symbol", string(p.Symbol.Code), Words(p.Symbol))
	w.put("table", "table", string(p.Symbol.Table), "/ is the first table of symbols, \\ the second")
	if p.Feet != nil {
		w.put("feet", "altitude", base91(int(math.Round(float64(*p.Feet)*0.3048))+10_000, 3)+"}", "metres over 10 km below the sea, in base 91")
	}
	freq, rest := SplitFrequency(p.Comment)
	w.put("back", "call back on", freq, "others can call back on it")
	w.put("comment", "words", rest, "free text")
	return string(to)
}

// Frame is a packet as it goes out, and what each part of it is: addresses first.
func (p Packet) Frame(from ax25.Address, via []ax25.Address) (f ax25.Frame, fields []Field, err error) {
	info, to, rest, err := p.Info()
	if err != nil {
		return f, nil, err
	}
	f = ax25.Frame{From: from, Via: via, Info: []byte(info)}
	if f.To, err = ax25.ParseAddress(to); err != nil {
		return f, nil, err
	}
	says := "where a receiver’s address would stand: the software that made the frame; APZ is for experiments"
	if p.Kind == Position && p.Format == MicE {
		says = "the latitude, and what the station is at"
	}
	fields = append(fields, Field{"to", "to", f.To.String(), says, 7}, Field{"from", "from", from.String(), "your callsign, six letters, and which station of yours", 7})
	for i, v := range via {
		fields = append(fields, Field{fmt.Sprintf("via%d", i), "via", v.String(), Hop(v), 7})
	}
	fields = append(fields, Field{"control", "control, protocol", "", "a frame that nobody answers, without another layer", 2})
	fields = append(fields, rest...)
	return f, append(fields, Field{"check", "check", "", "CRC-16 over everything, low byte first", 2}), nil
}
