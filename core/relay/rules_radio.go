package relay

import (
	"fmt"

	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/radio"
)

var radioRules = []Rule{
	{
		ID: "relay-one-receiver", Title: "The radio cannot relay", Source: practice,
		Doc: "A relay hears on one side while it sends on the other. That needs a radio with two real receivers and a cross-band mode; dual watch is one receiver that looks to and fro.",
		Run: func(p *pass) {
			r := p.Vehicle.Radio
			switch {
			case r.Receivers != radio.DualReceive:
				p.report1(Finding{Severity: check.Stop, Title: p.Vehicle.Name + " has one receiver", Message: "A relay hears on one side while it sends on the other: dual watch will not do. Choose a unit with two receivers."})
			case !r.Relay.CrossBand:
				p.report1(Finding{Severity: check.Stop, Title: p.Vehicle.Name + " has no cross-band mode", Message: "It has two receivers, and nothing that keys one side by the other."})
			}
		},
	},
	{
		ID: "relay-same-band", Title: "Both sides in one band", Source: practice,
		Doc: "One side has to be VHF and the other UHF: on one band the transmitter next to it makes the receiver deaf.",
		Run: func(p *pass) {
			if p.A.Channel.Receive == 0 || p.B.Channel.Receive == 0 || !sameBand(p.Setup) {
				return
			}
			p.report1(Finding{Severity: check.Stop, Title: "Both sides are " + p.A.half(), Message: "One side has to be VHF and the other UHF: the side that sends would make the other deaf."})
		},
	},
	{
		ID: "relay-vehicle-cannot", Title: "A side is beyond the vehicle unit", Source: "the radio’s profile",
		Doc: "The unit has to hear and send on both sides, in its steps, with the tones that are set.",
		Run: func(p *pass) {
			p.each(func(letter string, side Side) { p.cannot(letter, p.Vehicle, side.Channel) })
		},
	},
	{
		ID: "relay-hand-cannot", Title: "The link is beyond the handheld", Source: "the radio’s profile",
		Doc: "The handheld has to hear and send on the link, in its steps, with the tone of the link both ways.",
		Run: func(p *pass) {
			if l := linkSide(p.Setup); l != "" && p.Hand.Radio != nil {
				p.cannot(l, p.Hand, p.hand(p.side(l)))
			}
		},
	},
	{
		ID: "relay-hand-differs", Title: "The handheld is set otherwise", Source: practice,
		Doc: "The handheld holds a channel on the link whose tones or frequency do not meet those of the vehicle: one of the two stays shut.",
		Run: handDiffers,
	},
	{
		ID: "relay-microphone", Title: "The microphone while relaying", Source: practice,
		Doc: "On some radios the microphone stays live while they relay, and everything that is said in the vehicle goes out; on others it is dead, and nobody in the vehicle can identify.",
		Run: func(p *pass) {
			switch p.Microphone {
			case "live":
				p.report1(Finding{Severity: check.Note, Title: "The microphone stays live", Message: "Unplug it while the relay runs: whatever presses its key goes out. It is on the run card."})
			case "dead":
				p.report1(Finding{Severity: check.Note, Title: "The microphone is dead while relaying", Message: "Nobody in the vehicle can break in: shut the relay off by its own keys."})
			default:
				p.report1(Finding{Severity: check.Note, Title: "Nobody knows whether the microphone stays live", Message: "Try it on the dummy load; until then unplug it. It is on the run card."})
			}
		},
	},
}

// cannot reports what a radio cannot do of a channel.
func (p *pass) cannot(letter string, u Unit, c channel.Channel) {
	tx, sends := c.Transmit()
	switch {
	case !u.Radio.CanReceive(c.Receive):
		p.report1(Finding{Severity: check.Stop, Side: letter, Title: fmt.Sprintf("%s does not receive %s", u.Name, c.Receive), Message: "Choose another channel for side " + letter + "."})
		return
	case sends && !u.Radio.CanTransmit(tx):
		p.report1(Finding{Severity: check.Stop, Side: letter, Title: fmt.Sprintf("%s does not transmit on %s", u.Name, tx), Message: "Choose another channel for side " + letter + "."})
		return
	}
	_, losses := radio.Fit(c, u.Radio)
	for _, l := range losses {
		if l.Field == channel.FieldName {
			continue
		}
		p.report1(Finding{
			Severity: check.Fix, Side: letter, Title: fmt.Sprintf("%s would hold %s for %s", u.Name, l.Held, l.Wanted), Message: l.Why + ".",
			Why: []check.Reason{{Witness: "radio", Text: u.Name + ": " + l.Why}},
		})
	}
}

func handDiffers(p *pass) {
	l := linkSide(p.Setup)
	if l == "" || p.Hand.Channel == nil {
		return
	}
	link, h := p.side(l).Channel, *p.Hand.Channel
	tx, sends := h.Transmit()
	title := ""
	switch {
	case !sends:
		title = p.Hand.Name + "’s transmitter is blocked there"
	case tx != link.Receive:
		title = fmt.Sprintf("%s sends on %s, not on %s", p.Hand.Name, tx.MHz(), link.Receive.MHz())
	case !opensTo(link.ReceiveTone, h.TransmitTone):
		title = fmt.Sprintf("%s sends %s, and side %s waits for %s", p.Hand.Name, h.TransmitTone.Words(), l, link.ReceiveTone.Words())
	case !opensTo(h.ReceiveTone, link.TransmitTone):
		title = fmt.Sprintf("%s waits for %s, and side %s sends %s", p.Hand.Name, h.ReceiveTone.Words(), l, link.TransmitTone.Words())
	default:
		return
	}
	f := Finding{Severity: check.Fix, Side: l, Title: title, Message: "Both ends of the link have to be set alike.", Why: []check.Reason{{Witness: "radio", Text: p.Hand.Name + " holds it otherwise"}}}
	if sends && tx == h.Receive && !h.TransmitTone.IsOff() {
		to := link
		to.TransmitTone, to.ReceiveTone = h.TransmitTone, h.TransmitTone
		if opensTo(h.ReceiveTone, to.TransmitTone) {
			f.Fixes = append(f.Fixes, on(l, "Set side "+l+" to "+h.TransmitTone.Words()+" both ways", to))
		}
	}
	p.report1(f)
}
