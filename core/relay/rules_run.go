package relay

import (
	"fmt"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/freq"
)

// move offers the best link frequency in place of one that will not do.
func (p *pass) move(f *Finding, letter string) {
	if linkSide(p.Setup) != letter {
		return
	}
	for _, l := range p.report.Links {
		if !l.Now {
			f.Fixes = append(f.Fixes, on(letter, "Move both ends to "+l.Freq.MHz(), Linked(p.side(letter).Channel, l.Freq)))
			return
		}
	}
}

// now is how clear the link is that is set, or nil.
func (p *pass) now() *Link {
	for i := range p.report.Links {
		if p.report.Links[i].Now {
			return &p.report.Links[i]
		}
	}
	return nil
}

var linkRules = []Rule{
	{
		ID: "relay-calling", Title: "The link on or beside a calling channel", Source: "the region’s band plan; Carson’s rule",
		Doc: "FM speech takes 16 kHz. A link that is nearer than that to the calling channel is heard there, and every call there can key the relay.",
		Run: func(p *pass) {
			l := p.now()
			if l == nil || l.CallingAt == 0 || l.Calling >= occupied {
				return
			}
			f := Finding{Severity: check.Fix, Side: p.report.LinkSide, Title: "Your link reaches into the calling channel", Message: fmt.Sprintf("%s from %s; FM speech takes 16 kHz.", khz(l.Calling), l.CallingAt.MHz())}
			if l.Calling == 0 {
				f.Title, f.Message = "Your link is the calling channel", "It is there to call on, and every call would key the relay."
			}
			p.move(&f, p.report.LinkSide)
			p.report1(f)
		},
	},
	{
		ID: "relay-segment", Title: "The link outside parts for simplex and links", Source: "the region’s band plan",
		Doc: "A link belongs into parts of the band plan for simplex, for links, or for all modes: not among inputs and outputs of repeaters, and not where weak signals are sought.",
		Run: func(p *pass) {
			letter := p.report.LinkSide
			if letter == "" {
				return
			}
			seg, ok := p.Plan.Segment(p.side(letter).Channel.Receive)
			if !ok || seg.Use == band.Simplex || seg.Use == band.Auxiliary || seg.Use == band.Mixed || seg.Use == band.Satellite || seg.Use == band.Data {
				return // the last two have rules of their own, or are nobody's plan for voice
			}
			f := Finding{Severity: check.Fix, Side: letter, Title: fmt.Sprintf("The band plan has %s on %s", seg.Label, p.side(letter).Channel.Receive.MHz()), Message: "A link belongs into a part for simplex or for links."}
			p.move(&f, letter)
			p.report1(f)
		},
	},
	{
		ID: "relay-ask", Title: "A part for links that are co-ordinated", Source: "the region’s band plan",
		Doc: "Parts for links are handed out by a co-ordinator in many areas: a frequency that sounds free there may not be.",
		Run: func(p *pass) {
			if l := p.now(); l != nil && l.Ask {
				p.report1(Finding{Severity: check.Check, Side: p.report.LinkSide, Title: "Links are co-ordinated there", Message: "Ask your frequency co-ordinator before you use it."})
			}
		},
	},
	{
		ID: "relay-taken", Title: "The link on a published frequency", Source: "the listing",
		Doc: "A repeater within reach has its output or input there or beside it.",
		Run: func(p *pass) {
			l := p.now()
			if l == nil || l.ListedAt == 0 || l.Listed >= occupied {
				return
			}
			f := Finding{Severity: check.Fix, Side: p.report.LinkSide, Title: fmt.Sprintf("%s is published within reach", l.ListedAt.MHz()), Message: "Your link would disturb it, and it would key your relay."}
			p.move(&f, p.report.LinkSide)
			p.report1(f)
		},
	},
	{
		ID: "relay-product", Title: "A harmonic or product in a receiver of the car", Source: "arithmetic; " + practice,
		Doc: "Two transmitters in one car make harmonics and mixing products. One that falls on a receiver in the car keys the relay by itself, or makes it deaf: three times a 2 m frequency lies in 70 cm.",
		Run: func(p *pass) {
			l := p.now()
			if l == nil || l.Of == "" || l.Product >= occupied {
				return
			}
			f := Finding{Severity: check.Fix, Side: p.report.LinkSide, Title: fmt.Sprintf("%s falls into a receiver of the car", l.Of), Message: fmt.Sprintf("It is %s off: the relay would hear itself.", khz(l.Product))}
			p.move(&f, p.report.LinkSide)
			p.report1(f)
		},
	},
}

func khz(f freq.Hz) string {
	if f >= freq.MHz {
		return fmt.Sprintf("%.1f MHz", float64(f)/1e6)
	}
	return fmt.Sprintf("%g kHz", float64(f)/1e3)
}

var runRules = []Rule{
	{
		ID: "relay-two-repeaters", Title: "Two repeaters", Source: "worked out in the radio world; " + practice,
		Doc: "Two repeaters relayed into each other never fall silent where each tail opens the other side and outlasts the time it takes to key the far one. Without the consent of both owners it is refused; with it, what was said is kept, and it stays a warning. One way only has no way around.",
		Run: twoRepeaters,
	},
	{
		ID: "relay-one-way", Title: "One way only", Source: practice,
		Doc: "A relay that is locked to one way carries nothing back: whoever is at the far end of it hears nothing of the answer there.",
		Run: func(p *pass) {
			if p.Way != Both {
				from, to := "A", "B"
				if p.Way == Back {
					from, to = to, from
				}
				p.report1(Finding{Severity: check.Note, Title: fmt.Sprintf("One way, from side %s to side %s", from, to), Message: "Nothing comes back. Not every radio can lock a side: try it on the dummy load."})
			}
		},
	},
	{
		ID: "relay-heat", Title: "Too much power for so much time", Source: "rated for half the time: " + practice,
		Doc: "High power is rated for half the time on the air at most. A relay sends whenever either side hears, up to all of the time.",
		Run: func(p *pass) {
			l := p.report.Load
			if l.Fits || l.Rated == 0 {
				return
			}
			f := Finding{
				Severity: check.Fix, Title: fmt.Sprintf("%.0f W in the mean, rated for %.0f W without a pause", l.Mean, l.Rated),
				Message: fmt.Sprintf("High power is rated for half the time at most. %g W is the highest level that fits.", l.Level),
			}
			a, b := p.A.Channel, p.B.Channel
			for _, c := range []*channel.Channel{&a, &b} {
				for _, power := range []channel.Power{channel.Mid, channel.Low} {
					if p.Vehicle.Radio.Watts.Of(c.Power) > l.Level {
						c.Power = power
					}
				}
			}
			if a != p.A.Channel || b != p.B.Channel {
				f.Fixes = append(f.Fixes, Fix{Label: "Lower the power", A: &a, B: &b})
			}
			p.report1(f)
		},
	},
	{
		ID: "relay-power", Title: "More power than the link needs", Source: practice,
		Doc: "The handheld is near: the lowest power that works keeps the link out of other ears, the transmitter cool and the battery full.",
		Run: func(p *pass) {
			letter := p.report.LinkSide
			if letter == "" {
				return
			}
			c := p.side(letter).Channel
			if w := p.Vehicle.Radio.Watts; w.Of(c.Power) > w.Low {
				c.Power = channel.Low
				p.report1(Finding{
					Severity: check.Check, Side: letter, Title: fmt.Sprintf("%g W on the link", w.Of(p.side(letter).Channel.Power)), Message: "Begin with the lowest power that works.",
					Fixes: []Fix{on(letter, fmt.Sprintf("Send %g W on the link", w.Low), c)},
				})
			}
		},
	},
	{
		ID: "relay-battery", Title: "The battery", Source: practice,
		Doc: "A relay is left alone: it must not empty the battery that starts the engine, and has to last as long as it is needed, down to the cut-off that you name.",
		Run: func(p *pass) {
			l, s := p.report.Load, p.Supply
			switch {
			case s.Starting:
				p.report1(Finding{Severity: check.Fix, Title: "It runs on the battery that starts the engine", Message: "Feed it from a second battery, with a fuse of its own.", Fixes: []Fix{{Label: "It has a second battery", Set: map[string]string{"starting": "no"}}}})
			case l.Hours > 0 && s.Hours > 0 && l.Hours < s.Hours:
				p.report1(Finding{Severity: check.Fix, Title: fmt.Sprintf("The battery lasts %.1f h, and it is needed for %g h", l.Hours, s.Hours), Message: fmt.Sprintf("%.1f A in the mean, down to %.0f %% of %g Ah.", l.Amps, 100*(1-s.Usable), s.AmpHours)})
			case s.AmpHours == 0:
				p.report1(Finding{Severity: check.Note, Title: fmt.Sprintf("It takes %.1f A in the mean", l.Amps), Message: "Say which battery feeds it, and how long it is needed."})
			}
		},
	},
	{
		ID: "relay-timeout", Title: "The time-out", Source: practice,
		Doc: "A time-out of about three minutes ends a carrier that sticks. It ends no loop whose stretches are shorter.",
		Run: func(p *pass) {
			set := Fix{Label: "Set it to 3 minutes", Set: map[string]string{"timeout": "3"}}
			switch {
			case p.Timeout == 0:
				p.report1(Finding{Severity: check.Fix, Title: "The time-out is off", Message: "A carrier that sticks would hold the far side for hours.", Fixes: []Fix{set}})
			case p.Timeout > 5:
				p.report1(Finding{Severity: check.Check, Title: fmt.Sprintf("The time-out is %d minutes", p.Timeout), Message: "About three are usual.", Fixes: []Fix{set}})
			}
		},
	},
	{
		ID: "relay-identify", Title: "Nobody identifies a side", Source: "47 CFR 97.119 in the United States; elsewhere your authority",
		Doc: "Both transmitters of the vehicle are yours. What you say on the link identifies the far side; the side back to you carries the words of others, and wants your callsign too.",
		Run: func(p *pass) {
			for _, i := range p.report.Identify {
				if i.Who == "" {
					p.report1(Finding{
						Severity: check.Fix, Side: i.Side, Title: "Nobody identifies side " + i.Side, Message: upper(i.Why) + ". Identify it " + i.often() + ".", Source: i.Source,
						Fixes: []Fix{{Label: "Put “identify " + i.Side + "” on the run card", Set: map[string]string{"identify_" + i.Side: string(Operator)}}},
					})
				}
			}
		},
	},
	{
		ID: "relay-control", Title: "How it is shut off", Source: "47 CFR 97.213 and 97.109 in the United States, from memory, confirm; elsewhere your authority",
		Doc: "A transmitter that runs without you needs a way to shut it off at once. Many administrations license a relay by itself: confirm with your authority.",
		Run: func(p *pass) {
			if p.Control == "" {
				p.report1(Finding{Severity: check.Check, Title: "How is it shut off?", Message: "Say who is at the vehicle, or how you switch it off from where you are."})
			}
		},
	},
	{
		ID: "relay-authority", Title: "Confirm with your authority", Source: "the region’s rules",
		Doc: "Whether a relay needs a licence of its own differs. Nothing here replaces your local rules and your licence.",
		Run: func(p *pass) {
			p.report1(Finding{Severity: check.Note, Title: "Confirm with your authority", Message: fmt.Sprintf("Ask the %s whether a relay needs a licence or a notice of its own.", p.Plan.Authority)})
		},
	},
	{
		ID: "relay-survives", Title: "The mode survives the switch", Source: "the radio’s profile",
		Doc: "On some radios the relay goes on after power was off and on again: a vehicle that is started next week relays.",
		Run: func(p *pass) {
			if p.Vehicle.Radio.Relay.Survives {
				p.report1(Finding{Severity: check.Note, Title: "Relaying survives a power cycle", Message: fmt.Sprintf("Take %s out of it at the end: switching off is not enough. It is on the run card.", p.Vehicle.Name)})
			}
		},
	},
}

func twoRepeaters(p *pass) {
	if !p.A.Repeater() || !p.B.Repeater() {
		return
	}
	if p.Way != Both {
		p.report1(Finding{Severity: check.Check, Title: "Two repeaters, one way", Message: "It has no way around. Both owners want to be asked all the same."})
		return
	}
	f := Finding{Severity: check.Stop, Title: "Two repeaters make a loop", Fixes: []Fix{{Label: "Relay one way only", Way: Out}}}
	switch l := p.report.Loop; {
	case l == nil:
		f.Title, f.Message = "Two repeaters are not relayed into each other", "Link a handheld instead."
	case l.Does:
		f.Message = fmt.Sprintf("Each tail opens the other side: %.0f turns an hour, and nobody speaking. No stretch is longer than %.1f s, so no time-out ends it.", l.Hourly, l.Long)
	case l.May:
		f.Title, f.Message = "Two repeaters may make a loop", fmt.Sprintf("With the delays that are taken it falls silent after %.1f s; with other tails it does not.", l.Quiet)
	default:
		f.Title, f.Message = "Two repeaters are not relayed into each other", "Their tones keep the tails apart now; one that changes makes a loop."
	}
	if p.Consent != "" {
		f.Severity, f.Why = check.Check, []check.Reason{{Witness: "owners", Text: p.Consent}}
	}
	p.report1(f)
}
