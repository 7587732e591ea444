package radio

import (
	"fmt"
	"slices"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
)

// Part is one of the five things in which radios differ most. Whoever makes a
// profile checks these on the radio in the hand; the other rows can wait.
type Part string

// The parts, in the order in which a channel meets them.
const (
	PartBands Part = "bands"
	PartSlots Part = "slots"
	PartShift Part = "shift"
	PartTones Part = "tones"
	PartNames Part = "names"
	PartRest  Part = "rest" // width, power, the transmit lock: what is not drawn
)

// Parts are the five that are drawn.
var Parts = []Part{PartBands, PartSlots, PartShift, PartTones, PartNames}

// Slotted is a channel with the slot that it has in a plan.
type Slotted struct {
	Slot    int
	Channel channel.Channel
}

// Thread is how far a channel comes through a radio: the part that loses it, and
// the first that holds it otherwise than wanted. Both are empty for a channel
// that the radio holds as it is.
type Thread struct {
	Lost Part
	Half Part
}

// partOf says which part causes a loss.
var partOf = map[Kind]Part{LostRange: PartBands, LostStep: PartBands, LostShift: PartShift, LostTone: PartTones, LostSetting: PartRest}

// Thread follows a channel through the radio. The first cause counts.
func (p *Profile) Thread(s Slotted) Thread {
	switch {
	case !p.CanReceive(s.Channel.Receive):
		return Thread{Lost: PartBands}
	case !p.Slots.Holds(s.Slot):
		return Thread{Lost: PartSlots}
	}
	_, losses := Fit(s.Channel, p)
	half := Part("")
	for _, l := range losses {
		if k := partOf[l.Kind]; half == "" || slices.Index(order, k) < slices.Index(order, half) {
			half = k
		}
	}
	return Thread{Half: half}
}

var order = append(slices.Clone(Parts), PartRest)

// Trial is a test of one part on the radio in the hand, and how many channels
// hang on its outcome.
type Trial struct {
	Part Part
	Says string // what to do, and what it tells
	Gain int    // channels that would be held better if it has the likely other value
	with func(*Profile)
}

// Trials are the tests of the parts for the channels of a plan: the likely other
// value of each part, and what Fit would say with it. Common practice, no source.
func (p *Profile) Trials(plan *band.Plan, channels []Slotted) []Trial {
	out := []Trial{p.tryBands(plan, channels), p.trySlots(channels), p.tryShift(), p.tryTones(), p.tryNames()}
	for i := range out {
		if out[i].with == nil {
			continue
		}
		other := *p
		out[i].with(&other)
		for _, c := range channels {
			if better(p.Thread(c), other.Thread(c)) {
				out[i].Gain++
			}
		}
	}
	return out
}

func better(now, then Thread) bool {
	return now.Lost != "" && then.Lost == "" || now.Half != "" && then == Thread{}
}

// tryBands looks for the band of which the plan loses the most channels, or else
// for one of the two that most radios have.
func (p *Profile) tryBands(plan *band.Plan, channels []Slotted) Trial {
	t := Trial{Part: PartBands}
	lost := map[string][]freq.Hz{}
	for _, c := range channels {
		if b, ok := plan.Band(c.Channel.Receive); ok && !p.CanReceive(c.Channel.Receive) {
			lost[b.Name] = append(lost[b.Name], c.Channel.Receive)
		}
	}
	var other *band.Band
	for i := range plan.Bands {
		b := &plan.Bands[i]
		usual := (b.Name == "2 m" || b.Name == "70 cm") && !p.CanReceive((b.Lower+b.Upper)/2)
		if len(lost[b.Name]) > 0 && (other == nil || len(lost[b.Name]) > len(lost[other.Name])) || usual && other == nil {
			other = b
		}
	}
	if other == nil {
		lowest, highest := p.Receive[0], p.Receive[len(p.Receive)-1]
		t.Says = fmt.Sprintf("Turn below %s and above %s: does it stop there?", lowest.Lower, highest.Upper)
		return t
	}
	turn := (other.Lower + other.Upper) / 2 / freq.MHz * freq.MHz
	if at := lost[other.Name]; len(at) > 0 {
		turn = at[0]
	}
	t.Says = fmt.Sprintf("Turn to %s. If it goes there, it has %s too", turn, other.Name)
	t.with = func(p *Profile) {
		p.Receive = append(slices.Clone(p.Receive), other.Span)
		p.Transmit = append(slices.Clone(p.Transmit), other.Span)
	}
	return t
}

func (p *Profile) trySlots(channels []Slotted) Trial {
	last := p.Slots.Last + 100
	for _, c := range channels {
		last = max(last, c.Slot)
	}
	return Trial{Part: PartSlots, Says: fmt.Sprintf("Turn past slot %d. If it goes on, it has more", p.Slots.Last), with: func(p *Profile) {
		p.Slots.First, p.Slots.Last = 0, last
	}}
}

// shiftTests are the tests of the ways in which a shift is set.
var shiftTests = map[Entry]string{
	Menu:      "Set a shift of 7.6 MHz: does it show that size? If it stops at %s MHz, the sizes are right",
	Split:     "Set a size of −7.6 MHz: does it show that? If it stops at %s MHz, the sizes are right",
	Automatic: "Turn to an output of your band: does the mark of the shift appear by itself? Then set 7.6 MHz; the largest here is %s",
	Twice:     "Store a slot both ways, into a dummy load: do both frequencies show?",
	Columns:   "Store a slot both ways, into a dummy load: do both frequencies show?",
}

func (p *Profile) tryShift() Trial {
	says := shiftTests[p.Entry]
	if p.Entry == Twice || p.Entry == Columns {
		return Trial{Part: PartShift, Says: says}
	}
	return Trial{Part: PartShift, Says: fmt.Sprintf(says, plain(freq.Hz(p.Offsets.Max))), with: func(p *Profile) { p.Entry = Columns }}
}

func (p *Profile) tryTones() Trial {
	t := Trial{Part: PartTones, Says: "Look for 254.1 after 250.3 among the tones. If it is not there, it knows the classic 38 alone"}
	switch {
	case p.CTCSS < 50:
		t.Says = "Look for 69.3 after 67.0. If it is there, it knows all 50"
	case p.DCS == 0:
		t.Says = "Look for codes beside the tones, such as D023. If they are there, it has DCS"
	case !p.Separate:
		t.Says = "Set one tone to send and another to wait for. If it keeps both, they are separate"
	}
	t.with = func(p *Profile) {
		p.CTCSS, p.DCS, p.Inverted, p.Separate, p.Burst = 50, 104, true, true, true
		p.Keying.Modes = nil // and a mode for each
	}
	return t
}

func (p *Profile) tryNames() Trial {
	if p.Names.Length == 0 {
		return Trial{Part: PartNames, Says: "Look for a way to name a slot. If there is none, its numbers are all you see"}
	}
	return Trial{Part: PartNames, Says: "Name a slot: count the places, and try a small letter"}
}
