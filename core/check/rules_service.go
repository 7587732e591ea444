package check

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/service"
)

var serviceRules = []Rule{
	{
		ID: "service-other", Title: "A channel of another service",
		Doc:     "The transmit frequency belongs to another radio service, and the settings do not say that you use it. Such services want their own licence or certified equipment; an amateur licence does not cover them.",
		Source:  "the service's rules, as cited in its data file",
		Example: "frs 15", Supersedes: []string{"transmit-band", "segment-voice", "unlisted"},
		Run: serviceOther,
	},
	{
		ID: "service-limits", Title: "Beyond the limits of the service",
		Doc:     "The service limits power and width on this channel, allows repeaters on some channels only, and wants certified equipment. What the channel says is held against that.",
		Source:  "the service's rules, as cited in its data file",
		Example: "gmrs 3", Supersedes: []string{"transmit-band", "segment-voice", "unlisted"},
		Run: serviceLimits,
	},
	{
		ID: "service-privacy", Title: "A code gives no privacy", Of: OfLine,
		Doc:     "A \"privacy code\" is a CTCSS tone: it keeps your own receiver quiet. Everybody without a code hears you, and you may talk over people whom you do not hear.",
		Source:  practice,
		Example: "frs 15 code 12",
		Run:     servicePrivacy,
	},
	{
		ID: "monitoring", Title: "Listening may be restricted here",
		Doc:     "Outside the amateur bands and the services known here a channel can only be listened to. In some countries even storing or hearing public-safety, marine or air channels is unlawful.",
		Source:  "the monitoring rule of the region's band plan file; " + practice,
		Example: "155.34 rx only",
		Run:     monitoring,
	},
}

// uses returns the services that have the transmit frequency, and which of
// them the operator uses.
func (p *Pass) uses() (all, own []service.Use) {
	tx, ok := p.Channel.Transmit()
	if !ok || p.Channel.Receive == 0 || p.Plan.MayTransmit(tx) {
		return nil, nil
	}
	for _, u := range service.At(p.Plan.Region, tx) {
		all = append(all, u)
		if slices.Contains(p.Services, u.ID) {
			own = append(own, u)
		}
	}
	return all, own
}

func serviceOther(p *Pass) {
	all, own := p.uses()
	if len(all) == 0 || len(own) > 0 {
		return
	}
	var names []string
	why := []Reason{}
	for _, u := range all {
		names = append(names, fmt.Sprintf("%s channel %s", u.Name, u.Number))
		why = append(why, Reason{"service", fmt.Sprintf("%s: %s; %s", u.Name, u.Licence, u.Source)})
	}
	p.Report(Finding{
		Severity: Stop, Field: channel.FieldTransmit, Title: fmt.Sprintf("%s is %s", p.transmitWords(), strings.Join(names, " and ")),
		Message: "An amateur licence does not cover it. If you may use the service, say so in Settings. Follow your local rules and your licence.",
		Why:     why,
	})
}

// serviceMeant is the service by which the channel is judged: the one that the
// line names, or else the one whose limits it keeps, or else the widest.
func (p *Pass) serviceMeant(own []service.Use) service.Use {
	for _, u := range own {
		if p.Draft != nil && p.Draft.Service == u.ID {
			return u
		}
	}
	keeps := func(u service.Use) bool {
		o := p.Channel.Offset()
		return !u.Input && (o == 0 || o == u.Offset) && !(u.Narrow && p.Channel.Width == channel.Wide) && (p.Radio == nil || p.Radio.Watts.Of(p.Channel.Power) <= u.Watts)
	}
	if i := slices.IndexFunc(own, keeps); i >= 0 {
		return own[i]
	}
	return slices.MaxFunc(own, func(a, b service.Use) int { return cmp.Compare(a.Watts, b.Watts) })
}

func serviceLimits(p *Pass) {
	_, own := p.uses()
	if len(own) == 0 {
		return
	}
	u := p.serviceMeant(own)
	why := []Reason{{"service", fmt.Sprintf("%s channel %s: up to %s; %s; %s", u.Name, u.Number, u.Limit(), u.Licence, u.Source)}}
	if o := p.Channel.Offset(); o != 0 && o != u.Offset || u.Input && o == 0 {
		f := Finding{
			Severity: Stop, Field: channel.FieldShift, Title: fmt.Sprintf("%s channel %s has no repeaters", u.Name, u.Number),
			Message: "Only simplex is allowed here. Follow your local rules and your licence.", Why: why, Fixes: []Remedy{p.shiftTo(0)},
		}
		if u.Input {
			f.Title, f.Message = fmt.Sprintf("%s is an input of %s", p.transmitWords(), u.Name), fmt.Sprintf("Its outputs are %s lower, and the shift is exactly that.", u.Offset)
			f.Fixes = []Remedy{p.Remedy("Receive "+u.Frequency.String(), func(c *channel.Channel) { c.Receive, c.Side = u.Frequency, channel.ShiftSide(u.Offset) })}
		}
		p.Report(f)
		return
	}
	if u.Narrow && p.Channel.Width == channel.Wide {
		p.Report(Finding{
			Severity: Fix, Field: channel.FieldWidth, Title: fmt.Sprintf("%s channel %s is narrow", u.Name, u.Number),
			Message: "Wide deviation spills into the channels beside it.", Why: why,
			Fixes: []Remedy{p.Remedy("Make it narrow", func(c *channel.Channel) { c.Width = channel.Narrow })},
		})
	}
	if p.Radio != nil && p.Radio.Watts.Of(p.Channel.Power) > u.Watts {
		f := Finding{
			Severity: Check, Field: channel.FieldPower, Title: fmt.Sprintf("%s channel %s allows %s", u.Name, u.Number, u.Limit()),
			Message: fmt.Sprintf("%s sends %g W at the transmitter. The equipment has to be certified for the service too. Follow your local rules and your licence.", p.Radio.Name, p.Radio.Watts.Of(p.Channel.Power)),
			Why:     why,
		}
		for _, level := range []channel.Power{channel.Mid, channel.Low} {
			if p.Radio.Watts.Of(level) <= u.Watts && p.Channel.Power != level {
				f.Fixes = append(f.Fixes, p.Remedy("Power "+string(level), func(c *channel.Channel) { c.Power = level }))
				break
			}
		}
		p.Report(f)
		return
	}
	p.Report(Finding{
		Severity: Note, Field: channel.FieldPower, Title: fmt.Sprintf("%s channel %s", u.Name, u.Number),
		Message: fmt.Sprintf("Up to %s with certified equipment. Follow your local rules and your licence.", u.Limit()), Why: why,
	})
}

func servicePrivacy(p *Pass) {
	if p.Draft == nil {
		return
	}
	for _, w := range p.Draft.Words {
		if !w.Code() || w.Problem != "" {
			continue
		}
		p.Report(Finding{
			Severity: Note, Field: channel.FieldReceiveTone, Title: fmt.Sprintf("The code is the tone %s", p.Channel.TransmitTone.Words()),
			Message: "It gives no privacy: everybody without a code hears you. Listen with the receiver open before you talk.",
			Why:     []Reason{{"radio", "codes 1 to 38 are the classic CTCSS tones in ascending order"}},
		})
		return
	}
}

func monitoring(p *Pass) {
	c := p.Channel
	if c.Receive == 0 || c.Side.Kind != channel.Blocked {
		return
	}
	if _, known := p.Plan.Band(c.Receive); known || len(service.At(p.Plan.Region, c.Receive)) > 0 {
		return
	}
	f := Finding{
		Severity: Note, Field: channel.FieldReceive, Title: "This is not an amateur channel",
		Message: "The transmitter is blocked. Follow your local rules about listening.",
		Why:     []Reason{{"band plan", fmt.Sprintf("listening in %s: %s", p.Plan.Title, p.Plan.Monitoring)}},
	}
	if p.Plan.Monitoring == band.MonitoringRestricted {
		f.Severity = Check
		f.Title = "Listening here may be unlawful"
		f.Message = fmt.Sprintf("In %s even storing a channel of public safety, marine or air can be. Ask %s before you keep it.", p.Plan.Title, p.Plan.Authority)
	}
	if c.Receive.Within(108*freq.MHz, 137*freq.MHz) {
		f.Message += " Aircraft use AM, which an FM channel does not receive."
	}
	p.Report(f)
}
