package relay

import (
	"fmt"
	"slices"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/space"
	"mnemos/core/tone"
)

var sideRules = []Rule{
	{
		ID: "relay-side", Title: "A side is wrong by itself", Source: "the rules of the channel",
		Doc: "What the check says of each side’s channel counts here too: a wrong shift or tone does not become right by relaying.",
		Run: func(p *pass) {
			p.each(func(letter string, side Side) {
				for _, f := range side.Findings {
					if f.Severity != check.Stop && f.Severity != check.Fix || f.Aside() || slices.Contains(toldBetter, f.Rule) {
						continue
					}
					x := Finding{Severity: f.Severity, Side: letter, Title: "Side " + letter + ": " + f.Title, Message: f.Message, Source: f.Source, Why: f.Why}
					for _, r := range f.Fixes {
						if r.Slot == nil {
							x.Fixes = append(x.Fixes, on(letter, r.Label, r.Result))
						}
					}
					p.report1(x)
				}
			})
		},
	},
	{
		ID: "relay-waits-for-tone", Title: "A side waits for a tone that never comes", Source: "the listing; " + practice,
		Doc: "A side that waits for a tone stays shut where the repeater sends none, or another. Nothing comes back then, though you are heard.",
		Run: waits,
	},
	{
		ID: "relay-no-tone", Title: "The link has no tone", Source: practice,
		Doc: "On the link both ends send a tone and wait for it: without one, whatever opens the squelch, a stray or noise, goes out on the other side.",
		Run: func(p *pass) {
			l := linkSide(p.Setup)
			if l == "" || p.side(l).Channel.Side.Kind == channel.Blocked {
				return
			}
			c := p.side(l).Channel
			if !c.ReceiveTone.IsOff() {
				return
			}
			to := c
			if to.TransmitTone.IsOff() {
				to.TransmitTone = spare(p.side(other(l)).Channel)
			}
			to.ReceiveTone = to.TransmitTone
			p.report1(Finding{
				Severity: check.Fix, Side: l, Title: "Side " + l + " opens to anything", Message: "Whatever opens its squelch goes out on the other side. Send a tone on the link and wait for it, both ends.",
				Fixes: []Fix{on(l, "Put "+to.TransmitTone.Words()+" both ways on the link", to)},
			})
		},
	},
	{
		ID: "relay-same-tone", Title: "Both sides with one tone", Source: practice,
		Doc: "With the same tone on both sides a handheld that hears the other band by chance, or a repeater whose tone passes, opens what was not meant. Another tone on the link costs nothing.",
		Run: func(p *pass) {
			l := linkSide(p.Setup)
			if l == "" {
				return
			}
			link, far := p.side(l).Channel, p.side(other(l)).Channel
			if link.ReceiveTone.IsOff() || !tone.Same(link.ReceiveTone, far.TransmitTone) {
				return
			}
			to := link
			to.TransmitTone = spare(far)
			to.ReceiveTone = to.TransmitTone
			p.report1(Finding{
				Severity: check.Note, Side: l, Title: "The link has the tone of the other side", Message: "Another one keeps the two apart.",
				Fixes: []Fix{on(l, "Put "+to.TransmitTone.Words()+" on the link", to)},
			})
		},
	},
	{
		ID: "relay-service", Title: "Another service on one side", Source: "47 CFR 97.113(c), from memory, confirm; ITU Radio Regulations 25",
		Doc: "What another service sends is not relayed into an amateur band, nor amateur traffic into another service.",
		Run: func(p *pass) {
			p.each(func(letter string, side Side) {
				for _, f := range side.frequencies() {
					if bandName(p.Plan, f) == "" {
						p.report1(Finding{Severity: check.Stop, Side: letter, Title: fmt.Sprintf("%s is in no amateur band here", f), Message: "Another service is not relayed into amateur bands, nor amateurs into another service."})
						return
					}
				}
			})
		},
	},
	{
		ID: "relay-space", Title: "A space station on one side", Source: practice,
		Doc: "The way to a satellite moves with Doppler and belongs to everybody who hears it: a relay blocks it.",
		Run: func(p *pass) {
			p.each(func(letter string, side Side) {
				tx, sends := side.sends()
				if _, exact, ok := space.Find(p.Plan.Region, side.Channel.Receive, tx, sends); ok && exact || p.uses(side, band.Satellite) {
					p.report1(Finding{Severity: check.Stop, Side: letter, Title: "Side " + letter + " is for stations in space", Message: "A satellite is not relayed: its frequencies move, and you would hold it against everybody."})
				}
			})
		},
	},
	{
		ID: "relay-data", Title: "A data channel on one side", Source: "the region’s band plan",
		Doc: "Packets on a data channel would key the relay again and again, and what it sends there would spoil theirs.",
		Run: func(p *pass) {
			p.each(func(letter string, side Side) {
				for _, f := range side.frequencies() {
					if slices.ContainsFunc(p.Plan.APRS, func(a freq.Hz) bool { return gap(a, f) < occupied }) {
						p.report1(Finding{Severity: check.Stop, Side: letter, Title: fmt.Sprintf("%s is for packets", f), Message: "Every packet would key the relay, and what it sends would spoil them."})
						return
					}
				}
			})
		},
	},
	{
		ID: "relay-barred", Title: "Stations that relay are barred there", Source: "the region’s rules",
		Doc: "Regions keep repeaters and auxiliary stations out of some segments. A relay is one or the other by most rules.",
		Run: func(p *pass) {
			p.each(func(letter string, side Side) {
				tx, sends := side.sends()
				if !sends || p.silent(letter) {
					return
				}
				b := bar(p.Plan.Region, tx)
				if b == nil {
					return
				}
				f := Finding{Severity: check.Stop, Side: letter, Title: fmt.Sprintf("%s may not send on %s", upper(b.Who), tx), Message: "A station that relays is one. Choose another segment.", Source: b.Source}
				p.move(&f, letter)
				p.report1(f)
			})
		},
	},
	{
		ID: "relay-licence", Title: "The licence", Source: "your licence",
		Doc: "Without a licence nobody sets a relay up, and each side has to lie in bands that the licence permits.",
		Run: func(p *pass) {
			if p.Unlicensed {
				p.report1(Finding{Severity: check.Stop, Title: "You said that you have no licence yet", Message: "A relay is a transmitter that runs without you: somebody with a licence sets it up."})
				return
			}
			p.each(func(letter string, side Side) {
				tx, sends := side.sends()
				if name := bandName(p.Plan, tx); sends && len(p.Bands) > 0 && name != "" && !slices.Contains(p.Bands, name) {
					p.report1(Finding{Severity: check.Stop, Side: letter, Title: "Your licence does not permit " + name, Message: fmt.Sprintf("Side %s sends on %s.", letter, tx)})
				}
			})
		},
	},
	{
		ID: "relay-closed", Title: "A closed repeater", Source: "the listing",
		Doc: "A closed or private repeater is not linked before its owner was asked; one that is published as off the air answers nobody.",
		Run: func(p *pass) {
			p.each(func(letter string, side Side) {
				m := side.Meant
				if m == nil || !side.Repeater() {
					return
				}
				switch {
				case p.Closed == letter:
					p.report1(Finding{Severity: check.Stop, Side: letter, Title: side.name() + " is closed or private", Message: "Ask its owner first, and note in Log what was said."})
				case m.Status == listing.OffAir:
					p.report1(Finding{Severity: check.Fix, Side: letter, Title: side.name() + " is published as off the air", Message: "Listen whether it is there before you set anything up."})
				}
			})
		},
	},
	{
		ID: "relay-far", Title: "The repeater is past its horizon", Source: "ITU-R P.310, smooth earth",
		Doc: "A vehicle does not reach farther than the horizon of the two aerials, whatever its power.",
		Run: func(p *pass) {
			p.each(func(letter string, side Side) {
				if m := side.Meant; m != nil && side.Repeater() && m.Distance != nil && m.Reach > 0 && *m.Distance > m.Reach {
					p.report1(Finding{Severity: check.Check, Side: letter, Title: fmt.Sprintf("%s is %.0f km away, past its horizon of %.0f km", side.name(), *m.Distance, m.Reach), Message: "Drive the vehicle higher, or to where it hears the repeater by itself."})
				}
			})
		},
	},
	{
		ID: "relay-unlisted", Title: "Nobody publishes the repeater", Source: "the listing",
		Doc: "A side has a shift and no listing says what is there: whether it sends a tone, what opens it and how long its tail is, is not known.",
		Run: func(p *pass) {
			p.each(func(letter string, side Side) {
				if side.Repeater() && side.Meant == nil {
					p.report1(Finding{Severity: check.Check, Side: letter, Title: fmt.Sprintf("Nobody publishes a repeater on %s near here", side.Channel.Receive), Message: "What opens it, and what it sends, is not known: test it by itself first."})
				}
			})
		},
	},
}

// toldBetter are rules of the channel that have a better word here, or that speak of a
// single radio.
var toldBetter = []string{
	"squelch-silent", "squelch-differs", "squelch-unknown", "radio-range", "radio-step", "radio-shift", "radio-tone", "radio-setting", "radio-auto-shift", "space-station", "calling-channel",
	"aprs-voice", "segment-simplex", "cross-band", "harmonic-own", "listing-closed", "listing-off-air", "transmit-band", "receive-only", "licence-band", check.NoLicence, "unlisted", "service-other",
}

// spare is a tone for a link that the other side does not have.
func spare(far channel.Channel) tone.Tone {
	for _, s := range []string{"186.2", "179.9", "173.8"} {
		if t := tone.MustParse(s); !tone.Same(t, far.TransmitTone) && !tone.Same(t, far.ReceiveTone) {
			return t
		}
	}
	return tone.MustParse("167.9")
}

func upper(s string) string { return string(s[0]-'a'+'A') + s[1:] }

// uses reports whether a side lies in a segment of a use.
func (p *pass) uses(side Side, use band.Use) bool {
	for _, f := range side.frequencies() {
		if seg, ok := p.Plan.Segment(f); ok && seg.Use == use {
			return true
		}
	}
	return false
}

func waits(p *pass) {
	p.each(func(letter string, side Side) {
		lock, m := side.Channel.ReceiveTone, side.Meant
		if lock.IsOff() || m == nil || !side.Repeater() || p.Way == Out && letter == "B" || p.Way == Back && letter == "A" {
			return
		}
		open := side.Channel
		open.ReceiveTone = tone.Off
		fixes := []Fix{on(letter, "Open side "+letter+"’s receiver", open)}
		why := []check.Reason{{Witness: "published", Text: m.Source + ": " + m.DownlinkTone.Tone.Words()}}
		switch {
		case !m.DownlinkTone.Known:
			p.report1(Finding{Severity: check.Check, Side: letter, Title: fmt.Sprintf("Nobody says whether %s sends %s", side.name(), lock.Words()), Message: "If it does not, side " + letter + " stays shut and you hear nothing.", Fixes: fixes})
		case m.DownlinkTone.Tone.IsOff():
			p.report1(Finding{Severity: check.Fix, Side: letter, Title: "Side " + letter + " waits for a tone that never comes", Message: fmt.Sprintf("%s sends none: you would be heard, and hear nothing.", side.name()), Why: why, Fixes: fixes})
		case !tone.Same(lock, m.DownlinkTone.Tone):
			to := side.Channel
			to.ReceiveTone = m.DownlinkTone.Tone
			if p.Vehicle.Radio.Separate || tone.Same(to.TransmitTone, to.ReceiveTone) {
				fixes = append([]Fix{on(letter, "Wait for "+to.ReceiveTone.Words(), to)}, fixes...)
			}
			p.report1(Finding{Severity: check.Fix, Side: letter, Title: fmt.Sprintf("Side %s waits for %s, and %s sends %s", letter, lock.Words(), side.name(), m.DownlinkTone.Tone.Words()), Message: "It stays shut: you would be heard, and hear nothing.", Why: why, Fixes: fixes})
		}
	})
}
