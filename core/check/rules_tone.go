package check

import (
	"fmt"

	"mnemos/core/channel"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

var toneRules = []Rule{
	{
		ID: "tone-missing", Title: "No tone where one is needed",
		Doc:     "The listing states an uplink tone and the channel sends none: the repeater ignores it. Tone mode and tone frequency are two settings; forgetting one is the classic error.",
		Source:  "the published record",
		Example: "147.24",
		Run:     toneMissing,
	},
	{
		ID: "tone-downlink", Title: "The downlink tone is sent as uplink",
		Doc:     "The tone that the channel sends is the one the repeater sends, and the repeater listens for another. A tone search on the output finds this one.",
		Source:  "the published record; " + practice,
		Example: "146.94 127.3", Supersedes: []string{"tone-differs"},
		Run: toneDownlink,
	},
	{
		ID: "tone-differs", Title: "Another tone is published",
		Doc:     "The tone that the channel sends is not the published uplink tone.",
		Source:  "the published record",
		Example: "147.24 100",
		Run:     toneDiffers,
	},
	{
		ID: "tone-standard", Title: "Not a standard tone",
		Doc:     "The tone is not one of the fifty that radios offer, or the code not one of the 104. Tones are never rounded: 141.0 is not 141.3, and 70.0 is not a tone.",
		Source:  "TIA-603 and common practice (tables of core/tone)",
		Example: "146.94 141.0",
		Run:     toneStandard,
	},
	{
		ID: "squelch-silent", Title: "Tone squelch on a repeater that sends no tone",
		Doc:     "The listing says that the output carries no tone. With tone squelch the receiver stays shut and nothing is ever heard; a frequent mistake, and a silent one.",
		Source:  "the published record; " + practice,
		Example: "145.31 ts 114.8", Supersedes: []string{"squelch-differs"},
		Run: squelchSilent,
	},
	{
		ID: "squelch-differs", Title: "The receiver waits for another tone",
		Doc:     "The receive tone is not the published downlink tone, so the receiver stays shut.",
		Source:  "the published record",
		Example: "443.275 131.8/100",
		Run:     squelchDiffers,
	},
	{
		ID: "squelch-unknown", Title: "Nobody states the downlink tone",
		Doc:     "The channel uses tone squelch, and no listing says whether the repeater sends a tone. Unknown and none are different things; leave the receiver open until the tone is known.",
		Source:  practice,
		Example: "146.76 ts 123.0",
		Run:     squelchUnknown,
	},
	{
		ID: "co-channel", Title: "Another repeater on the same output",
		Doc:     "A second published repeater sends on the same output. Inside its horizon it may be heard; tone squelch keeps it quiet where the wanted repeater sends a tone that the other does not. Where both need the same tone, one key-up opens both. The horizon needs the aerial height, and where none is published 80 km is taken.",
		Source:  "ITU-R P.310 (effective earth radius); " + practice,
		Example: "147.24 103.5",
		Run:     coChannel,
	},
}

func (p *Pass) send(t tone.Tone) Remedy {
	label := "Send " + t.Words()
	if t.IsOff() {
		label = "Send no tone"
	}
	return p.Remedy(label, func(c *channel.Channel) {
		// Tone squelch means one tone both ways, so both move together.
		if c.Mode() == channel.ToneSquelch && p.downlink() == t {
			c.ReceiveTone = t
		}
		c.TransmitTone = t
	})
}

// downlink returns the published downlink tone, or none.
func (p *Pass) downlink() tone.Tone {
	if p.Meant == nil || !p.Meant.DownlinkTone.Known {
		return tone.Off
	}
	return p.Meant.DownlinkTone.Tone
}

// uplink returns the published uplink tone; ok is false if none is stated.
func (p *Pass) uplink() (t tone.Tone, ok bool) {
	if p.Meant == nil || !p.transmits() || !p.Meant.UplinkTone.Known || p.Channel.Offset() == 0 {
		return tone.Off, false
	}
	return p.Meant.UplinkTone.Tone, true
}

func toneMissing(p *Pass) {
	up, ok := p.uplink()
	if !ok || up.IsOff() || !p.Channel.TransmitTone.IsOff() {
		return
	}
	f := Finding{
		Severity: Fix, Field: channel.FieldTransmitTone,
		Title:   fmt.Sprintf("%s needs %s", p.Meant.Title(), up.Words()),
		Message: "The channel sends no tone; the repeater would not open.",
		Why:     p.becauseTone(), Fixes: []Remedy{p.send(up)},
	}
	if !p.sureMeant() {
		f.Severity = Check
	}
	p.Report(f)
}

func toneDownlink(p *Pass) {
	up, ok := p.uplink()
	down := p.downlink()
	have := p.Channel.TransmitTone
	if !ok || up.IsOff() || down.IsOff() || have.IsOff() || tone.Same(have, up) || !tone.Same(have, down) {
		return
	}
	p.Report(Finding{
		Severity: Fix, Field: channel.FieldTransmitTone, Title: "You send the tone the repeater sends",
		Message: fmt.Sprintf("%s is its downlink. It listens for %s.", down.Words(), up.Words()),
		Why:     p.becauseTone(), Fixes: []Remedy{p.send(up)},
	})
}

func toneDiffers(p *Pass) {
	up, ok := p.uplink()
	have := p.Channel.TransmitTone
	if !ok || have.IsOff() || tone.Same(up, have) || p.slipOf(up) {
		return
	}
	f := Finding{
		Severity: Fix, Field: channel.FieldTransmitTone,
		Title:   fmt.Sprintf("%s needs %s", p.Meant.Title(), up.Words()),
		Message: fmt.Sprintf("The channel sends %s.", have.Words()),
		Why:     p.becauseTone(), Fixes: []Remedy{p.send(up)},
	}
	if !p.sureMeant() || !p.explained() && !p.Meant.Named {
		f.Severity = Check // no slip leads there, or it is far off: another repeater may be meant
	}
	if up.IsOff() {
		f.Severity = Check
		f.Title = fmt.Sprintf("%s is published without an uplink tone", p.Meant.Title())
		f.Message = "Sending one does no harm there; it may belong to another repeater."
	}
	for _, m := range p.Outputs {
		if !sameRepeater(m, *p.Meant) && m.UplinkTone.Known && tone.Same(m.UplinkTone.Tone, have) {
			where := away(m)
			if m.Distance != nil && !m.Audible {
				where += ", past your horizon"
			}
			f.Message = fmt.Sprintf("%s is %s, %s.", have.Words(), m.Title(), where)
			f.Why = append(f.Why, Reason{"published", fmt.Sprintf("%s: uplink %s", p.cite(m), m.UplinkTone)})
			break
		}
	}
	p.Report(f)
}

// slipOf reports whether the tone sent is no standard tone and the one that
// is meant is the nearest standard one: then tone-standard says it better.
func (p *Pass) slipOf(up tone.Tone) bool {
	have := p.Channel.TransmitTone
	return have.Kind() == tone.CTCSS && !have.Standard() && tone.Nearest(have.DeciHertz()) == up
}

func toneStandard(p *Pass) {
	for _, side := range []struct {
		field channel.Field
		tone  tone.Tone
		set   func(*channel.Channel, tone.Tone)
		verb  string
	}{
		{channel.FieldTransmitTone, p.Channel.TransmitTone, func(c *channel.Channel, t tone.Tone) { c.TransmitTone = t }, "Send"},
		{channel.FieldReceiveTone, p.Channel.ReceiveTone, func(c *channel.Channel, t tone.Tone) { c.ReceiveTone = t }, "Listen for"},
	} {
		if side.tone.Standard() {
			continue
		}
		f := Finding{
			Severity: Fix, Field: side.field, Title: fmt.Sprintf("%s is not a standard tone", side.tone.Words()),
			Why: []Reason{{"radio", "fifty CTCSS tones from 67.0 to 254.1 Hz, 104 DCS codes from D023 to D754"}},
		}
		if side.tone.Kind() == tone.DCS {
			f.Severity = Check
			f.Title = fmt.Sprintf("%s is not one of the 104 codes", side.tone)
			f.Message = "Few radios know it. Check the three digits."
			p.Report(f)
			continue
		}
		near := tone.Nearest(side.tone.DeciHertz())
		f.Message = fmt.Sprintf("The nearest standard tone is %s.", near.Words())
		fix := p.Remedy(side.verb+" "+near.Words(), func(c *channel.Channel) {
			squelch := c.Mode() == channel.ToneSquelch
			side.set(c, near)
			if squelch {
				c.TransmitTone, c.ReceiveTone = near, near
			}
		})
		f.Fixes = []Remedy{fix}
		if side.tone == tone.MustParse("150.0") {
			f.Severity = Check
			f.Title = "150.0 Hz is outside the standard table"
			f.Message = "Some radios have it. Check that yours does, and that the repeater asks for it."
		}
		p.Report(f)
		if p.Channel.Mode() == channel.ToneSquelch {
			return // one tone, one finding
		}
	}
}

func squelchSilent(p *Pass) {
	in := p.Channel.ReceiveTone
	if p.Meant == nil || in.IsOff() || !p.Meant.DownlinkTone.Known || !p.downlink().IsOff() {
		return
	}
	p.Report(Finding{
		Severity: p.deaf(), Field: channel.FieldReceiveTone, Title: "You would hear nothing",
		Message: fmt.Sprintf("%s sends no tone, and the receiver waits for %s.", p.Meant.Title(), in.Words()),
		Why:     p.becauseTone(), Fixes: []Remedy{p.listen(tone.Off)},
	})
}

// deaf is the severity of a receiver that stays shut: a fix, unless it is not
// sure which repeater is meant.
func (p *Pass) deaf() Severity {
	if p.sureMeant() {
		return Fix
	}
	return Check
}

func (p *Pass) listen(t tone.Tone) Remedy {
	label := "Listen for " + t.Words()
	if t.IsOff() {
		label = "Leave the receiver open"
	}
	return p.Remedy(label, func(c *channel.Channel) { c.ReceiveTone = t })
}

func squelchDiffers(p *Pass) {
	in, down := p.Channel.ReceiveTone, p.downlink()
	if in.IsOff() || down.IsOff() || tone.Same(down, in) {
		return
	}
	p.Report(Finding{
		Severity: p.deaf(), Field: channel.FieldReceiveTone, Title: "You would hear nothing",
		Message: fmt.Sprintf("%s sends %s, and the receiver waits for %s.", p.Meant.Title(), down.Words(), in.Words()),
		Why:     p.becauseTone(), Fixes: []Remedy{p.listen(down), p.listen(tone.Off)},
	})
}

func squelchUnknown(p *Pass) {
	if p.Meant == nil || p.Channel.ReceiveTone.IsOff() || p.Meant.DownlinkTone.Known {
		return
	}
	p.Report(Finding{
		Severity: Check, Field: channel.FieldReceiveTone, Title: "The downlink tone is not published",
		Message: fmt.Sprintf("If %s sends no tone, you would hear nothing.", p.Meant.Title()),
		Why:     p.becauseTone(), Fixes: []Remedy{p.listen(tone.Off)},
	})
}

func coChannel(p *Pass) {
	if p.Meant == nil {
		return
	}
	for _, m := range p.Outputs {
		if sameRepeater(m, *p.Meant) || m.Distance == nil {
			continue
		}
		text := fmt.Sprintf("%s: %.0f km away, may be heard to about %.0f km", p.cite(m), *m.Distance, m.Reach)
		if m.Horizon {
			text = fmt.Sprintf("%s: %.0f km away, horizon %.0f km", p.cite(m), *m.Distance, m.Reach)
		}
		f := Finding{
			Severity: Note, Field: channel.FieldReceive,
			Title:   fmt.Sprintf("%s is on the same output", m.Title()),
			Message: fmt.Sprintf("It is %.0f km away, past your horizon.", *m.Distance),
			Why:     []Reason{{"published", text}},
		}
		if m.Audible {
			f.Message = fmt.Sprintf("It is %.0f km away and may be heard here.", *m.Distance)
			p.apart(&f, m)
		}
		p.Report(f)
		return
	}
}

// apart says what keeps a rival on the same output from the repeater that is
// meant: the tone that is sent, and the tone that is waited for.
func (p *Pass) apart(f *Finding, rival listing.Match) {
	up, _ := p.uplink()
	opens := func(m listing.Match) bool {
		return m.UplinkTone.Known && (m.UplinkTone.Tone.IsOff() || tone.Same(m.UplinkTone.Tone, p.Channel.TransmitTone))
	}
	if rival.Input == p.Meant.Input && p.transmits() && !up.IsOff() && opens(rival) && opens(*p.Meant) {
		f.Severity = Check
		f.Message += fmt.Sprintf(" Both open to %s: keying this channel opens both.", p.Channel.TransmitTone.Words())
	}
	down := p.downlink()
	switch {
	case down.IsOff() || !p.Channel.ReceiveTone.IsOff():
	case rival.DownlinkTone.Known && tone.Same(rival.DownlinkTone.Tone, down) && !rival.DownlinkTone.Tone.IsOff():
		f.Message += fmt.Sprintf(" Both send %s, so tone squelch would not separate them.", down.Words())
	case rival.DownlinkTone.Known:
		f.Message += fmt.Sprintf(" %s sends %s and the other does not: tone squelch keeps it quiet.", p.Meant.Title(), down.Words())
		f.Fixes = []Remedy{p.listen(down)}
	default:
		f.Message += fmt.Sprintf(" %s sends %s: tone squelch keeps the other quiet unless it sends the same.", p.Meant.Title(), down.Words())
		f.Fixes = []Remedy{p.listen(down)}
	}
}
