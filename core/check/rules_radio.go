package check

import (
	"fmt"

	"mnemos/core/channel"
	"mnemos/core/listing"
	"mnemos/core/naming"
	"mnemos/core/radio"
)

var radioRules = []Rule{
	{
		ID: "radio-range", Title: "Outside the radio's range", Aside: true,
		Doc:     "The radio does not receive, or does not transmit, on the frequency.",
		Source:  "the radio's profile",
		Example: "52.525",
		Run:     fits(radio.LostRange, Stop),
	},
	{
		ID: "radio-step", Title: "No tuning step reaches the frequency", Aside: true,
		Doc:     "None of the radio's tuning steps divides the frequency, so it cannot be typed. The nearest one that can is given; it may be too far off to work.",
		Source:  "the radio's profile",
		Example: "146.943",
		Run:     fits(radio.LostStep, Check),
	},
	{
		ID: "radio-shift", Title: "The radio cannot hold the shift", Aside: true,
		Doc:     "The shift is larger than the radio's largest, or finer than its resolution: the radio would transmit on another frequency than the repeater listens on. A radio with a transmit frequency of its own can still hold it.",
		Source:  "the radio's profile",
		Example: "146.94 -612",
		Run:     fits(radio.LostShift, Stop),
	},
	{
		ID: "radio-tone", Title: "The radio lacks the tone", Aside: true,
		Doc:     "The radio's table has no such tone or code, or it has one tone for both directions and the channel needs two.",
		Source:  "the radio's profile",
		Example: "146.94 100/77",
		Run:     fits(radio.LostTone, Check),
	},
	{
		ID: "radio-setting", Title: "The radio lacks a setting", Aside: true,
		Doc:     "The radio has no such bandwidth or power step; the nearest is used.",
		Source:  "the radio's profile",
		Example: "146.52 mid",
		Run:     fits(radio.LostSetting, Note),
	},
	{
		ID: "radio-auto-shift", Title: "The radio shifts by itself", Aside: true,
		Doc:     "The radio's own table would give another shift here than the channel has; it fires on simplex channels in a repeater segment too.",
		Source:  "the radio's profile",
		Example: "146.94 simplex",
		Run:     radioAutoShift,
	},
	{
		ID: "name-length", Title: "Name too long for the display", Aside: true,
		Doc:     "The radio shows fewer characters than the name has; a short name is made for it.",
		Source:  "the radio's profile",
		Example: `147.24 103.5 "Beacon Hill repeater"`,
		Run:     nameLength,
	},
	{
		ID: "name-characters", Title: "Characters the display does not have", Aside: true,
		Doc:     "The name has characters that the radio cannot show; they are replaced or left out.",
		Source:  "the radio's profile",
		Example: `146.52 "Café*"`,
		Run:     nameCharacters,
	},
	{
		ID: "name-duplicate", Title: "Name used twice", Of: OfSet, Aside: true,
		Doc:     "Another channel of the radio has the same name, so the display does not tell them apart.",
		Source:  practice,
		Example: `146.55 "Calling"`,
		Run:     nameDuplicate,
	},
}

// fits returns a rule that reports the losses of one kind.
func fits(kind radio.Kind, severity Severity) func(*Pass) {
	return func(p *Pass) {
		if p.Radio == nil || p.Channel.Receive == 0 {
			return
		}
		_, losses := radio.Fit(p.Channel, p.Radio)
		for _, l := range losses {
			if l.Kind != kind {
				continue
			}
			severity := severity
			if kind == radio.LostShift && l.Held == "receive only" {
				severity = Check // nothing is sent on a wrong frequency
			}
			f := Finding{
				Severity: severity, Field: l.Field, Title: fmt.Sprintf("%s: %s", l.Wanted, l.Why),
				Message: fmt.Sprintf("It would hold %s instead.", l.Held),
				Why:     []Reason{{"radio", fmt.Sprintf("%s would hold %s for %s", p.Radio.Name, l.Held, l.Wanted)}},
			}
			if l.Held == "nothing" {
				f.Message = fmt.Sprintf("%s cannot hold this channel.", p.Radio.Name)
			}
			if tx, sends := p.Channel.Transmit(); sends && kind == radio.LostRange && l.Field == channel.FieldTransmit && p.Plan.MayTransmit(tx) {
				f.Fixes = []Remedy{p.blockTransmit()}
			}
			p.Report(f)
		}
	}
}

func radioAutoShift(p *Pass) {
	if p.Radio == nil || p.Radio.Entry != radio.Automatic || !p.transmits() {
		return
	}
	auto := p.Radio.AutoShift(p.Channel.Receive)
	if auto == 0 || auto == p.Channel.Offset() {
		return
	}
	p.Report(Finding{
		Severity: Note, Field: channel.FieldShift,
		Title:   fmt.Sprintf("%s would shift %s by itself", p.Radio.Name, auto),
		Message: fmt.Sprintf("Switch its automatic shift off and set %s by hand; the keypad sheet says how.", listing.ShiftWords(p.Channel.Offset())),
		Why:     []Reason{{"radio", fmt.Sprintf("automatic shift by the table of region %s: %s", p.Radio.AutoFrom, auto)}},
	})
}

func nameLength(p *Pass) {
	if p.Radio == nil || len([]rune(p.Channel.Name)) <= p.Radio.Names.Length {
		return
	}
	p.Report(Finding{
		Severity: Note, Field: channel.FieldName,
		Title:   fmt.Sprintf("%s shows %d characters", p.Radio.Name, p.Radio.Names.Length),
		Message: fmt.Sprintf("%q becomes %q.", p.Channel.Name, naming.Short(p.Channel.Name, p.Radio.Names, func(string) bool { return false })),
		Why:     []Reason{{"radio", fmt.Sprintf("%d characters of %s", p.Radio.Names.Length, p.Radio.Names.Characters)}},
	})
}

func nameCharacters(p *Pass) {
	if p.Radio == nil || p.Channel.Name == "" {
		return
	}
	for _, r := range p.Channel.Name {
		if naming.Clean(string(r), p.Radio.Names.Characters) != "" || r == ' ' {
			continue
		}
		clean := naming.Clean(p.Channel.Name, p.Radio.Names.Characters)
		f := Finding{
			Severity: Note, Field: channel.FieldName, Title: fmt.Sprintf("%s has no %q", p.Radio.Name, string(r)),
			Message: fmt.Sprintf("The name becomes %q.", clean),
			Why:     []Reason{{"radio", "characters " + p.Radio.Names.Characters}},
		}
		if clean == "" {
			f.Severity, f.Message = Check, "Nothing is left of the name. Type one in Latin letters."
		}
		p.Report(f)
		return
	}
}

func nameDuplicate(p *Pass) {
	if p.Channel.Name == "" {
		return
	}
	if o, ok := p.first(p.Occupancy.named(p.Channel.Name), whichever); ok {
		p.Report(Finding{
			Severity: Check, Field: channel.FieldName, Title: fmt.Sprintf("Slot %d has this name too", o.Slot),
			Message: "The display would not tell the two apart. Give one of them another name.",
			Why:     []Reason{{"entered", fmt.Sprintf("slot %d: %s on %s", o.Slot, o.Channel.Name, o.Channel.Receive)}},
		})
	}
}
