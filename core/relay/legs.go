package relay

import (
	"fmt"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/tone"
)

// Leg is one of the ways of a signal: from an end to the vehicle, or from the vehicle to
// an end.
type Leg struct {
	evidence.Leg
	From, To string // you, the vehicle, a repeater
	Gloss    string // who transmits
	Locks    string // whose key and whose lock it is
	Dead     bool   // it fits, but nothing comes to it
	Loop     bool
}

// End is one end of the chain.
type End struct {
	Name     string
	Callsign string
	Says     string // power, distance
	Repeater bool
	Outcome  string // whether it would hear the other end
	Passes   evidence.Passes
}

// stated is what a station sends or waits for, where somebody says so.
type stated struct {
	known bool
	tone  tone.Tone
}

// terminal is an end as the legs meet it.
type terminal struct {
	name       string
	hears      freq.Hz
	lock       stated
	sendsOn    freq.Hz
	key        stated
	repeater   bool
	silent     bool // it sends nothing
	possessive string
}

func (s Setup) terminal(letter string) terminal {
	side := s.side(letter)
	if side.Repeater() {
		t := terminal{name: side.name(), repeater: true, sendsOn: side.Channel.Receive, possessive: "its"}
		t.hears, _ = side.sends()
		if m := side.Meant; m != nil {
			t.lock, t.key = stated{m.UplinkTone.Known, m.UplinkTone.Tone}, stated{m.DownlinkTone.Known, m.DownlinkTone.Tone}
			if m.Input != 0 {
				t.hears = m.Input
			}
		}
		return t
	}
	t := terminal{name: "you", possessive: "your"}
	if linkSide(s) != letter {
		t.name, t.possessive = side.name(), "their"
		c := side.Channel
		t.hears, t.sendsOn = c.Receive, c.Receive
		t.lock, t.key = stated{false, tone.Off}, stated{true, c.ReceiveTone}
		if c.ReceiveTone.IsOff() {
			t.key = stated{true, c.TransmitTone}
		}
		return t
	}
	c := s.hand(side)
	t.hears, t.lock = c.Receive, stated{true, c.ReceiveTone}
	tx, sends := c.Transmit()
	t.sendsOn, t.key, t.silent = tx, stated{true, c.TransmitTone}, !sends
	return t
}

// legs are the four ways: A's end to the vehicle, the vehicle to B's end, and back.
func legs(s Setup) []Leg {
	a, b := s.terminal("A"), s.terminal("B")
	v := s.Vehicle.Name
	out := []Leg{
		inward(a, s.A, v, "A"), outward(s.B, b, v),
		inward(b, s.B, v, "B"), outward(s.A, a, v),
	}
	loops := s.Way == Both && a.repeater && b.repeater
	for i := range out {
		out[i].Loop = loops && out[i].Passes == evidence.Would
	}
	silent := func(leg *Leg) {
		leg.Dead = true
	}
	if s.Way == Out || out[2].Passes == evidence.WouldNot {
		silent(&out[3])
	}
	if s.Way == Back || out[0].Passes == evidence.WouldNot {
		silent(&out[1])
	}
	if s.Way == Out {
		silent(&out[2])
	}
	if s.Way == Back {
		silent(&out[0])
	}
	return out
}

// inward is from an end to a side of the vehicle.
func inward(t terminal, side Side, vehicle, letter string) Leg {
	lock := side.Channel.ReceiveTone
	l := Leg{From: t.name, To: vehicle, Gloss: sending(t.name), Locks: t.possessive + " key, side " + letter + "’s lock"}
	l.Hz = t.sendsOn
	l.lock(lock, true)
	if t.key.known {
		l.Key = evidence.KeyOf(t.key.tone)
	}
	opened := vehicle + " would hear " + t.name
	switch {
	case t.silent:
		l.Passes, l.Says = evidence.WouldNot, "Its transmitter is blocked"
	case t.sendsOn != side.Channel.Receive:
		l.Elsewhere, l.Passes, l.Says = true, evidence.WouldNot, "Side "+letter+" listens on "+side.Channel.Receive.MHz()
	case lock.IsOff():
		l.Passes, l.Says = evidence.Would, opened
	case !t.key.known:
		l.Passes, l.Says = evidence.Unknown, "Nobody says what it sends"
	case opensTo(lock, t.key.tone):
		l.Passes, l.Says = evidence.Would, opened
	default:
		l.Passes, l.Says = evidence.WouldNot, "Side "+letter+" would stay shut"
	}
	return l
}

// outward is from a side of the vehicle to an end.
func outward(side Side, t terminal, vehicle string) Leg {
	l := Leg{From: vehicle, To: t.name, Gloss: sending(vehicle), Locks: vehicle + "’s key, " + t.possessive + " lock"}
	tx, sends := side.sends()
	l.Hz = tx
	if !sends {
		l.Hz = side.Channel.Receive
		l.Passes, l.Says = evidence.WouldNot, "The side does not transmit"
		return l
	}
	l.Key = evidence.KeyOf(side.Channel.TransmitTone)
	l.lock(t.lock.tone, t.lock.known)
	hears := t.name + " would hear " + vehicle
	switch {
	case t.hears != tx:
		l.Elsewhere, l.Passes, l.Says = true, evidence.WouldNot, t.name+" listens on "+t.hears.MHz()
	case !t.lock.known && !t.repeater:
		l.Passes, l.Says = evidence.Would, "Stations set alike would hear "+vehicle
	case !t.lock.known:
		l.Passes, l.Says = evidence.Unknown, "Nobody says what opens "+t.name
	case opensTo(t.lock.tone, side.Channel.TransmitTone):
		l.Passes, l.Says = evidence.Would, hears
	default:
		l.Passes, l.Says = evidence.WouldNot, t.name+" would not hear "+vehicle
	}
	return l
}

func (l *Leg) lock(t tone.Tone, known bool) {
	l.Wants = evidence.KeyOf(t)
	switch {
	case !known:
		l.Lock, l.Wants = evidence.LockUnknown, nil
	case t.Kind() == tone.Burst:
		l.Lock = evidence.LockBurst
	case t.IsOff():
		l.Lock = evidence.LockOpen
	default:
		l.Lock = evidence.LockTone
	}
}

func sending(who string) string {
	if who == "you" {
		return "you transmit"
	}
	return who + " transmits"
}

// ends says of each end what comes of it.
func ends(r *Report) []End {
	l := r.Legs
	return []End{r.end("A", l[2], l[3]), r.end("B", l[0], l[1])}
}

// end is one end, with the legs by which it would hear the other.
func (r *Report) end(letter string, hears ...Leg) End {
	s := r.Setup
	t := s.terminal(letter)
	e := End{Name: t.name, Repeater: t.repeater, Passes: evidence.Would}
	if m := s.side(letter).Meant; t.repeater && m != nil {
		e.Callsign = m.Callsign
	}
	switch m := s.side(letter).Meant; {
	case t.repeater && m != nil && m.Distance != nil:
		e.Says = fmt.Sprintf("%.1f km, %03.0f°", *m.Distance, m.Bearing)
	case t.name == "you" && s.Hand.Radio != nil:
		e.Says = fmt.Sprintf("%s, %g W", s.Hand.Name, s.Hand.Radio.Watts.Of(s.hand(s.side(letter)).Power))
	}
	for _, l := range hears {
		switch {
		case l.Passes == evidence.WouldNot || l.Dead:
			e.Passes = evidence.WouldNot
		case l.Passes == evidence.Unknown && e.Passes == evidence.Would:
			e.Passes = evidence.Unknown
		}
	}
	verb := map[evidence.Passes]string{evidence.Would: " would hear ", evidence.WouldNot: " would not hear ", evidence.Unknown: " may hear "}[e.Passes]
	e.Outcome = strings.ToUpper(t.name[:1]) + t.name[1:] + verb + s.terminal(other(letter)).name
	return e
}

// mirrored is a link as the handheld has it: with its tones turned round.
func mirrored(c channel.Channel) channel.Channel {
	c.TransmitTone, c.ReceiveTone = c.ReceiveTone, c.TransmitTone
	if c.TransmitTone.IsOff() { // a tone out alone is sent by both
		c.TransmitTone = c.ReceiveTone
	}
	return c
}
