package relay

import (
	"fmt"

	"mnemos/core/radio"
)

// Step is a line of the run card.
type Step struct {
	ID   string // stable: ticks hang on it
	Part string // before, in, rehearse, negative, while, out, left
	Says string
	Why  string
}

// Parts are those of the run card, in their order, with their headings.
var Parts = []struct{ ID, Says string }{
	{"before", "Before"},
	{"in", "Into relaying"},
	{"rehearse", "Rehearsal, on a dummy load, with two handhelds"},
	{"negative", "What must fail"},
	{"while", "While it runs"},
	{"out", "Out of it"},
	{"left", "What is left behind"},
}

// card is the run card of a set-up that is not refused.
func card(r *Report) (out []Step) {
	s := r.Setup
	add := func(part, id, says, why string) { out = append(out, Step{part + "-" + id, part, says, why}) }
	v := s.Vehicle
	crib := v.Radio.Crib[radio.RelayKey]

	add("before", "antenna", "Both sides have an aerial, or a dummy load, on them.", "a transmitter without one is damaged")
	for _, letter := range []string{"A", "B"} {
		side := s.side(letter)
		says := fmt.Sprintf("Side %s shows %s", letter, side.Channel.Receive.MHz())
		if tx, sends := side.sends(); !sends {
			says += ", and does not send"
		} else if tx != side.Channel.Receive {
			says += fmt.Sprintf(", and %s when you press reverse", tx.MHz())
		}
		says += fmt.Sprintf("; it sends %s and waits for %s.", side.Channel.TransmitTone.Words(), side.Channel.ReceiveTone.Words())
		add("before", "side-"+letter, says, "")
		add("before", "power-"+letter, fmt.Sprintf("Side %s sends %g W.", letter, s.watts(side)), "the lowest that works; high power is rated for half the time at most")
	}
	if s.Microphone != "dead" {
		add("before", "microphone", "The microphone is unplugged.", "on some radios it stays live")
	}
	if s.Timeout > 0 {
		add("before", "timeout", fmt.Sprintf("The time-out is on: %d minutes.", s.Timeout), "a carrier that sticks ends by itself")
	}
	add("before", "battery", "It is fed from a battery of its own, with a fuse, and has air.", "not from the one that starts the engine; the heatsink gets hot")
	if len(r.People) > 0 {
		far := 0.0
		for _, x := range r.People {
			far = max(far, x.Public)
		}
		add("before", "people", fmt.Sprintf("Nobody can come nearer to the aerial than %.1f m.", far), "exposure, averaged over the traffic; follow your local rules")
	}
	if s.Consent != "" {
		add("before", "consent", "The owners agreed: "+s.Consent, "")
	}

	if crib != "" {
		add("in", "keys", v.Name+": "+crib+".", "in this radio’s own keys")
	} else {
		add("in", "keys", "Go into relaying as the manual of "+v.Name+" says; write its keys into its crib in Radios.", "the crib has no line for it")
	}
	add("in", "shows", "The display says that it relays, on both sides.", "")

	add("rehearse", "load", "Both sides of the vehicle are on dummy loads, at low power.", "handhelds hear that across the yard")
	if l := r.LinkSide; l != "" {
		link := s.side(l).Channel
		add("rehearse", "near", fmt.Sprintf("One handheld is set to the link, %s with %s.", link.Receive.MHz(), link.ReceiveTone.Words()), "")
		add("rehearse", "far", fmt.Sprintf("The other is on the far side, reversed: it hears %s and sends %s.", sendsOn(s.side(other(l))), s.side(other(l)).Channel.Receive.MHz()), "it stands in for the repeater")
		add("rehearse", "out", "What the first says is heard in the second.", "")
		if s.Way == Both {
			add("rehearse", "back", "What the second says is heard in the first.", "it sends what the repeater sends: with its tone, or with none")
		}
	}
	add("rehearse", "tail", "Hold the second one’s key for three seconds after the last word, and let go: all falls silent.", "a loop shows only with a tail")

	if l := r.LinkSide; l != "" {
		add("negative", "no-tone", "The first handheld without its tone keys nothing.", "a filter is proven only by what it keeps out")
		add("negative", "wrong-tone", "The first handheld with another tone keys nothing.", "")
	}
	add("negative", "off", "When it is shut off, nothing is relayed any more.", "")

	if o := r.Over; o != nil && o.Wait > 0 {
		add("while", "wait", fmt.Sprintf("Key, wait %.1f s, then speak.", roundUp(o.Wait)), "until every receiver on the way is open")
		if o.Again > 0.3 {
			add("while", "again", fmt.Sprintf("After your own over wait %.1f s, until the tail drops, before you key again.", roundUp(o.Again)), "until then the vehicle sends to you and cannot hear you")
		}
	}
	add("while", "gaps", "Leave gaps: two tails have to drop.", "who is far away cannot break in before")
	for _, i := range r.Identify {
		if i.Who != "" {
			add("while", "identify-"+i.Side, fmt.Sprintf("Side %s is identified by %s, %s.", i.Side, i.Who, i.often()), i.Why)
		}
	}
	add("while", "heat", "Feel the heatsink after ten minutes, then every hour.", "careful: it can burn")
	if s.Control != "" {
		add("while", "control", "To shut it off at once: "+s.Control+".", "")
	}
	add("while", "driving", "Nobody operates it while driving.", "")

	if crib != "" {
		add("out", "keys", v.Name+": the same keys again; the display says that it no longer relays.", "")
	} else {
		add("out", "keys", "Go out of relaying as the manual says; the display says that it no longer relays.", "")
	}
	add("out", "identify", "Say your callsign once more, on both sides.", "at the end of the communication")

	if v.Radio.Relay.Survives {
		add("left", "cycle", "Switch "+v.Name+" off and on: it must not relay.", "on this radio the mode survives")
	}
	add("left", "microphone", "Microphone, power, time-out and squelch are as they were.", "")
	add("left", "handheld", "The handhelds are back on their channels.", "")
	return out
}

func sendsOn(s Side) string {
	if tx, ok := s.sends(); ok {
		return tx.MHz()
	}
	return "nothing"
}

// roundUp goes up to the next tenth: who waits for less is cut off.
func roundUp(s float64) float64 { return float64(int(s*10+0.999)) / 10 }
