// Package radio describes what a radio can do, and works out what it will
// really hold of a channel. The profiles that ship are invented and generic;
// each is data in profiles/*.yaml.
package radio

import (
	"slices"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/tone"
)

// Entry is how a transmit frequency is keyed into a radio.
type Entry string

// The ways of entry.
const (
	Menu      Entry = "menu"      // a size in a menu and a direction key
	Split     Entry = "split"     // a signed size in a menu, per band; it does not follow when you retune
	Twice     Entry = "twice"     // two stores into one slot: receive first, then transmit with its tone
	Automatic Entry = "automatic" // the radio shifts by its own table
	Columns   Entry = "columns"   // receive and transmit frequency, each typed
)

// Says is the way in a sentence.
func (e Entry) Says() string { return says[e] }

var says = map[Entry]string{
	Menu:      "you set a direction and a size",
	Split:     "you set one size with its sign",
	Twice:     "you store receive, then transmit, in one slot",
	Automatic: "it shifts by itself; you correct the rest",
	Columns:   "you type both frequencies",
}

// Profile is one kind of radio.
type Profile struct {
	ID        string      `yaml:"id" json:"id"`
	Name      string      `yaml:"name" json:"name"`
	Form      string      `yaml:"form" json:"form"` // handheld, mobile
	Entry     Entry       `yaml:"entry" json:"entry"`
	Slots     Slots       `yaml:"slots" json:"slots"`
	Special   []string    `yaml:"special_slots" json:"special_slots"` // call, home
	Receivers Receivers   `yaml:"receivers" json:"receivers"`
	Scan      Scan        `yaml:"scan" json:"scan"`
	Relay     Relay       `yaml:"relay" json:"relay"`
	Timeout   int         `yaml:"timeout_minutes" json:"timeout_minutes"` // of an over; 0 for none
	APRS      APRS        `yaml:"aprs" json:"aprs"`
	Receive   []band.Span `yaml:"receive" json:"-"`
	Transmit  []band.Span `yaml:"transmit" json:"-"`
	Steps     []freq.Hz   `yaml:"steps" json:"-"`
	Names     Names       `yaml:"names" json:"names"`
	CTCSS     int         `yaml:"ctcss" json:"-"`       // tones known: 38 or 50
	Extra     []tone.Tone `yaml:"extra_ctcss" json:"-"` // beside the table, such as 150.0
	DCS       int         `yaml:"dcs" json:"-"`         // codes known: 0, 83 or 104
	Inverted  bool        `yaml:"inverted_dcs" json:"-"`
	Separate  bool        `yaml:"separate_tones" json:"-"` // one tone out, another in
	Burst     bool        `yaml:"burst" json:"-"`
	Offsets   Offsets     `yaml:"offsets" json:"-"`
	AutoFrom  string      `yaml:"automatic_shift_region,omitempty" json:"-"`
	Lock      bool        `yaml:"transmit_lock" json:"transmit_lock"` // can keep a channel from transmitting
	Widths    []string    `yaml:"widths" json:"-"`
	Watts     Watts       `yaml:"watts" json:"watts"`
	Display   Display     `yaml:"display" json:"-"`
	Crib      Crib        `yaml:"crib" json:"-"`
	Keying    Keying      `yaml:"keying,omitempty" json:"-"`
	Checked   []string    `yaml:"checked,omitempty" json:"checked"` // the parts that the owner checked on the radio
	Notes     string      `yaml:"notes,omitempty" json:"notes"`     // the owner's: firmware, "menu accepted, no effect"
	Source    string      `yaml:"source" json:"-"`
	Basis     string      `yaml:"basis" json:"-"`
	AsOf      string      `yaml:"as_of" json:"-"`
}

// Receivers says how a radio listens to two channels.
type Receivers string

// The ways to listen.
const (
	One         Receivers = "one"
	DualWatch   Receivers = "dual watch"   // one receiver that alternates
	DualReceive Receivers = "dual receive" // two receivers
)

// Scan is how a radio scans.
type Scan struct {
	Rate    float64  `yaml:"rate" json:"rate"`       // channels per second
	Resume  []string `yaml:"resume" json:"resume"`   // time, carrier, search
	Seconds []int    `yaml:"seconds" json:"seconds"` // that resume by time waits
	Lists   int      `yaml:"lists" json:"lists"`
	Skip    bool     `yaml:"skip" json:"skip"`
}

// Relay is whether and how a radio relays between bands.
type Relay struct {
	CrossBand  bool `yaml:"cross_band" json:"cross_band"`
	Identifier bool `yaml:"identifier,omitempty" json:"identifier"` // gives the callsign by itself
	Survives   bool `yaml:"survives_power_cycle,omitempty" json:"survives_power_cycle"`
}

// APRS is the packet modem of a radio.
type APRS struct {
	Modem  bool   `yaml:"modem" json:"modem"`
	Side   string `yaml:"side,omitempty" json:"side"`
	Texts  int    `yaml:"texts,omitempty" json:"texts"`
	Length int    `yaml:"text_length,omitempty" json:"text_length"`
}

// Slots is the range of slot numbers, ends included.
type Slots struct {
	First int `yaml:"first" json:"first"`
	Last  int `yaml:"last" json:"last"`
}

// Holds reports whether n is one of the slots.
func (s Slots) Holds(n int) bool { return s.First <= n && n <= s.Last }

// Names is what a radio takes as a channel name.
type Names struct {
	Length     int    `yaml:"length" json:"length"`         // characters
	Characters string `yaml:"characters" json:"characters"` // every one it can show
	Keypad     bool   `yaml:"keypad" json:"keypad"`         // can be entered without a cable
}

// Offsets is the range of shift sizes that a radio can hold.
type Offsets struct {
	Max        freq.Offset `yaml:"max"`
	Resolution freq.Offset `yaml:"resolution"`
}

// Watts is the transmitter power at each step.
type Watts struct {
	High float64 `yaml:"high" json:"high"`
	Mid  float64 `yaml:"mid" json:"mid"`
	Low  float64 `yaml:"low" json:"low"`
	// More are the levels between high and low that no channel asks for by a word.
	More []float64 `yaml:"more,omitempty" json:"-"`
}

// WattsOf takes the levels of a radio, in any order: the highest and the lowest, and
// of those between the second highest for the middle.
func WattsOf(levels []float64) Watts {
	l := slices.Compact(slices.Sorted(slices.Values(levels)))
	if len(l) == 0 {
		return Watts{}
	}
	slices.Reverse(l)
	w := Watts{High: l[0], Low: l[len(l)-1]}
	if len(l) > 2 {
		w.Mid = l[1]
	}
	if len(l) > 3 {
		w.More = l[2 : len(l)-1]
	}
	return w
}

// Levels are all power levels in watts, the highest first.
func (w Watts) Levels() []float64 {
	all := append([]float64{w.High, w.Mid, w.Low}, w.More...)
	all = slices.DeleteFunc(all, func(v float64) bool { return v <= 0 })
	slices.Sort(all)
	slices.Reverse(all)
	return slices.Compact(all)
}

// Of returns the watts of a power step; a radio without a middle step uses
// the lower of its two, because less is the safer error.
func (w Watts) Of(p channel.Power) float64 {
	switch {
	case p == channel.High:
		return w.High
	case p == channel.Mid && w.Mid > 0:
		return w.Mid
	}
	return w.Low
}

// Display is how a radio shows a channel.
type Display struct {
	Decimals int               `yaml:"decimals"` // digits after the point
	Plus     string            `yaml:"plus"`
	Minus    string            `yaml:"minus"`
	Split    string            `yaml:"split"`
	Modes    map[string]string `yaml:"modes"` // the mark of each tone mode
	// Shows holds the marks of other settings, by value; what is not here the
	// display does not show.
	Shows map[Setting]map[string]string `yaml:"shows,omitempty"`
}

// CanReceive reports whether the radio receives f.
func (p *Profile) CanReceive(f freq.Hz) bool { return in(p.Receive, f) }

// CanTransmit reports whether the radio transmits on f.
func (p *Profile) CanTransmit(f freq.Hz) bool { return in(p.Transmit, f) }

func in(spans []band.Span, f freq.Hz) bool {
	return slices.ContainsFunc(spans, func(s band.Span) bool { return s.Holds(f) })
}

// Step returns the widest tuning step on which every one of fs can be
// entered; ok is false if no step of the radio reaches them all.
func (p *Profile) Step(fs ...freq.Hz) (step freq.Hz, ok bool) {
	for _, s := range p.Steps {
		if s > step && !slices.ContainsFunc(fs, func(f freq.Hz) bool { return f%s != 0 }) {
			step = s
		}
	}
	return step, step > 0
}

// Nearest returns the frequency closest to f that the radio can be set to.
func (p *Profile) Nearest(f freq.Hz) freq.Hz {
	best := freq.Hz(0)
	for _, s := range p.Steps {
		g := freq.Raster{Step: s}.Nearest(f)
		if best == 0 || freq.Offset(g-f).Abs() < freq.Offset(best-f).Abs() {
			best = g
		}
	}
	return best
}

// Knows reports whether the radio has the tone or code in its table.
func (p *Profile) Knows(t tone.Tone) bool {
	switch t.Kind() {
	case tone.CTCSS:
		table := tone.CTCSS50
		if p.CTCSS == len(tone.CTCSS38) {
			table = tone.CTCSS38
		}
		return slices.Contains(table, t.DeciHertz()) || slices.Contains(p.Extra, t)
	case tone.DCS:
		code, inverted := t.Code()
		if inverted && !p.Inverted {
			return false
		}
		return p.DCS == len(tone.DCS104) && slices.Contains(tone.DCS104, code) ||
			p.DCS == len(tone.DCS83) && slices.Contains(tone.DCS83, code)
	case tone.Burst:
		return p.Burst
	}
	return true
}

// AutoShift returns the shift that the radio's own table gives to a receive
// frequency; it is 0 for a radio without one.
func (p *Profile) AutoShift(f freq.Hz) freq.Offset {
	if p.AutoFrom == "" {
		return 0
	}
	plan, err := band.Load(p.AutoFrom)
	if err != nil {
		return 0 // Check refuses such a profile; one that is stored all the same must not stop the program
	}
	rule, ok := plan.Shift(f)
	if !ok {
		return 0
	}
	return rule.Offset
}
