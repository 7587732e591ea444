package check

import (
	"fmt"
	"slices"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/radio"
	"mnemos/core/tone"
)

var operatorRules = []Rule{
	{
		ID: "licence-band", Title: "A band your licence may not cover",
		Doc:     "The settings name the bands that your licence permits, and the transmit frequency is in another. The licence itself decides; no fix is offered, because only you can know.",
		Source:  "the operator's settings",
		Example: "52.525",
		Run:     licenceBand,
	},
	{
		ID: NoLicence, Title: "No licence yet: you listen here", Aside: true,
		Doc:     "Somebody who has no licence yet may listen and not transmit. The channel keeps its transmit side, so that nothing has to be entered again later; sheets leave it locked.",
		Source:  "the operator's statement in Settings; the radio regulations ask for a licence to transmit on amateur frequencies (ITU Radio Regulations, Article 18.1, from memory)",
		Example: "146.94 - 88.5",
		Run:     noLicence,
	},
	{
		ID: "calling-channel", Title: "A calling channel is for calling",
		Doc:     "People listen on the calling channel and call there, then they move. As a working channel, with a tone or under another purpose, it keeps everybody else from calling.",
		Source:  "the band plan of the region; " + practice,
		Example: "146.52 ts 100",
		Run:     callingChannel,
	},
	{
		ID: "aprs-voice", Title: "Voice on an APRS frequency",
		Doc:     "The frequency carries the region's position packets all the time. A memory for a packet modem belongs there, voice does not, and neither do tones or a shift.",
		Source:  "the band plan of the region",
		Example: "144.39", Supersedes: []string{"segment-voice"},
		Run: aprsVoice,
	},
	{
		ID: "off-raster", Title: "Between the channels",
		Doc:     "The receive frequency lies on none of the band's channel rasters (step and origin; some bands have two side by side), and nothing is published there.",
		Source:  "the band plan of the region",
		Example: "146.523",
		Run:     offRaster,
	},
	{
		ID: "width", Title: "Wide or narrow",
		Doc:     "The listing states another bandwidth, or the channels of the band are 12.5 kHz apart and the channel is wide: wide deviation spills into the next channel and is cut off by a narrow receiver.",
		Source:  "the published record; the band plan of the region",
		Example: "145.6 (in the uk)",
		Run:     width,
	},
	{
		ID: "tone-default", Title: "A tone left at the factory setting?",
		Doc:     "67.0, 88.5 and 100.0 Hz are where radios leave the factory. Without a listing that asks for it the tone may just have been there.",
		Source:  practice,
		Example: "147.345 88.5",
		Run:     toneDefault,
	},
	{
		ID: "tone-neighbours", Title: "Repeaters around need a tone",
		Doc:     "The channel has a shift and no tone, nothing is published about it, and every repeater of the band around that states its access needs a tone.",
		Source:  "the published records within 60 km; " + practice,
		Example: "147.345",
		Run:     toneNeighbours,
	},
	{
		ID: "tone-mode", Title: "Open receiver or tone squelch",
		Doc: "Two policies. Encode first leaves the receiver open: you hear idents, courtesy tones and weak users, and can tell a dead repeater from a wrong tone. Tone squelch first mutes whatever is not the repeater. " +
			"The plan's setting decides, and where a published co-channel repeater may be heard and the wanted one sends a tone, both use tone squelch. Never where the downlink tone is none or not stated.",
		Source:  practice,
		Example: "147.24 ts 103.5",
		Run:     toneMode,
	},
	{
		ID: "dcs-equivalent", Title: "The same code by another name",
		Doc:     "A DCS code is a 23-bit word that repeats without a mark, so the inverse of one code is another one: 023 inverted is 047 normal. The listing has the one and the channel the other; both open the repeater.",
		Source:  "TIA-603 (Golay code, generator x¹¹+x¹⁰+x⁶+x⁵+x⁴+x²+1), computed",
		Example: "442.65 d047i",
		Run:     dcsEquivalent,
	},
	{
		ID: "harmonic", Title: "Third harmonic in another channel", Of: OfSet, Aside: true,
		Doc:     "Three times the transmit frequency falls into the receive channel of another slot, and the radio listens to two channels at once: transmitting on the one blocks the other.",
		Source:  "arithmetic; " + practice,
		Example: "146.5",
		Run:     harmonic,
	},
}

// NoLicence is the ID of the rule that keeps somebody without a licence from
// transmitting.
const NoLicence = "licence-none"

func noLicence(p *Pass) {
	if !p.Unlicensed || !p.transmits() {
		return
	}
	p.Report(Finding{
		Severity: Note, Field: channel.FieldTransmit, Title: "No licence yet: you listen here",
		Message: "The channel keeps its transmit side, and the keypad sheet leaves it locked. When you have a licence, say so in Settings. Follow your local rules.",
		Why:     []Reason{{"settings", "no licence yet"}},
	})
}

func licenceBand(p *Pass) {
	tx, ok := p.Channel.Transmit()
	if !ok || len(p.Bands) == 0 || p.Unlicensed || p.Channel.Receive == 0 {
		return
	}
	b, known := p.Plan.Band(tx)
	if !known || !b.Transmit || slices.Contains(p.Bands, b.Name) {
		return
	}
	p.Report(Finding{
		Severity: Stop, Field: channel.FieldTransmit, Title: fmt.Sprintf("Your licence does not cover %s", b.Name),
		Message: "By your settings you may listen here and not transmit. If your licence covers the band, say so in Settings.",
		Why:     []Reason{{"settings", "bands you may transmit on: " + strings.Join(p.Bands, ", ")}},
	})
}

func callingChannel(p *Pass) {
	b, ok := p.Plan.Band(p.Channel.Receive)
	if !ok || !b.IsCalling(p.Channel.Receive) || !p.transmits() {
		return
	}
	f := Finding{
		Severity: Note, Field: channel.FieldReceive, Title: fmt.Sprintf("%s is the calling channel of %s", p.Channel.Receive, b.Name),
		Message: "Call here, then move to another channel.",
		Why:     []Reason{{"band plan", "calling channel"}},
	}
	if !p.Channel.ReceiveTone.IsOff() || p.Channel.Offset() != 0 {
		f.Severity = Check
		f.Message = "Set up like this you would not hear whoever calls. Choose another channel to work on."
	}
	p.Report(f)
}

func aprsVoice(p *Pass) {
	tx, ok := p.Channel.Transmit()
	if !ok || !slices.Contains(p.Plan.APRS, tx) {
		return
	}
	f := Finding{
		Severity: Check, Field: channel.FieldTransmit, Title: fmt.Sprintf("%s is the APRS frequency", tx),
		Message: "Position packets are on it all the time. Keep voice away.",
		Why:     []Reason{{"band plan", fmt.Sprintf("APRS in %s: %s", p.Plan.Title, tx)}}, Fixes: []Remedy{p.blockTransmit()},
	}
	c := p.Channel
	c.Side, c.TransmitTone, c.ReceiveTone = channel.TransmitSide{Kind: channel.Simplex}, tone.Off, tone.Off
	if c == p.Channel {
		f.Message += " If it is for a packet modem, put APRS in its name."
	} else {
		f.Message += " For a packet modem set no tone and no shift."
	}
	if name := strings.ToLower(c.Name); strings.Contains(name, "aprs") || strings.Contains(name, "beacon") || strings.Contains(name, "packet") {
		f.Severity, f.Message, f.Fixes = Note, "A memory for the packet modem. Keep it out of scan lists.", nil
		if c != p.Channel {
			f.Severity, f.Message = Check, "A packet channel has no tone and no shift."
			f.Fixes = []Remedy{p.Remedy("No tone, no shift", func(to *channel.Channel) { *to = c })}
		}
	}
	p.Report(f)
}

func offRaster(p *Pass) {
	b, ok := p.Plan.Band(p.Channel.Receive)
	if !ok || p.Meant != nil || b.OnRaster(p.Channel.Receive) || !p.transmits() {
		return
	}
	var near []string
	for _, r := range b.Rasters {
		near = append(near, fmt.Sprintf("%s (every %s kHz from %s)", r.Nearest(p.Channel.Receive).MHz(), trimKHz(r.Step), r.Origin.MHz()))
	}
	p.Report(Finding{
		Severity: Note, Field: channel.FieldReceive, Title: fmt.Sprintf("%s lies between the channels", p.Channel.Receive),
		Message: "The nearest are " + strings.Join(near, " and ") + ".",
		Why:     []Reason{{"band plan", "rasters of " + b.Name}},
	})
}

func trimKHz(f freq.Hz) string {
	return strings.TrimSuffix(fmt.Sprintf("%.1f", float64(f)/freq.KHz), ".0")
}

func width(p *Pass) {
	c := p.Channel
	if !p.transmits() {
		return
	}
	if p.Meant != nil && (p.Meant.Width == "narrow" || p.Meant.Width == "wide") {
		if p.Meant.Width != string(c.Width) {
			to := channel.Width(p.Meant.Width)
			p.Report(Finding{
				Severity: Check, Field: channel.FieldWidth, Title: fmt.Sprintf("%s is %s", p.Meant.Title(), to),
				Message: fmt.Sprintf("The channel is %s: audio will be quiet or distorted.", c.Width),
				Why:     []Reason{{"entered", string(c.Width)}, {"published", p.cite(*p.Meant) + ": " + string(to)}},
				Fixes:   []Remedy{p.Remedy("Make it "+string(to), func(c *channel.Channel) { c.Width = to })},
			})
		}
		return
	}
	b, ok := p.Plan.Band(c.Receive)
	if !ok || c.Width != channel.Wide || len(b.Rasters) != 1 || b.Rasters[0].Step > 12_500 || b.Rasters[0].Step <= 10_000 {
		return
	}
	message := "Narrow keeps out of the next one."
	if c.Offset() != 0 {
		message += " Confirm what the repeater uses."
	}
	p.Report(Finding{
		Severity: Note, Field: channel.FieldWidth, Title: "The channels here are 12.5 kHz apart",
		Message: message,
		Why:     []Reason{{"band plan", fmt.Sprintf("%s: every %s kHz", b.Name, trimKHz(b.Rasters[0].Step))}},
		Fixes:   []Remedy{p.Remedy("Make it narrow", func(c *channel.Channel) { c.Width = channel.Narrow })},
	})
}

var factory = []tone.Tone{tone.MustParse("67.0"), tone.MustParse("88.5"), tone.MustParse("100.0")}

func toneDefault(p *Pass) {
	have := p.Channel.TransmitTone
	if !slices.Contains(factory, have) || !p.transmits() || p.Channel.Offset() == 0 || p.Meant != nil && p.Meant.UplinkTone.Known {
		return
	}
	p.Report(Finding{
		Severity: Note, Field: channel.FieldTransmitTone, Title: fmt.Sprintf("%s is a factory setting", have.Words()),
		Message: "No listing asks for it. Check that you meant it.",
		Why:     []Reason{{"radio", "many radios leave the factory with 67.0, 88.5 or 100.0 Hz"}, {"published", "no uplink tone is stated here"}},
	})
}

func toneNeighbours(p *Pass) {
	const few = 3
	if p.Census == nil || p.Meant != nil || p.Census.Stated < few || p.Census.Toned < p.Census.Stated {
		return
	}
	p.Report(Finding{
		Severity: Check, Field: channel.FieldTransmitTone, Title: "Every repeater around needs a tone",
		Message: "This channel sends none, and nothing is published about it. Ask, or search for the tone on the input.",
		Why:     []Reason{{"published", fmt.Sprintf("%d of %d repeaters of the band within %.0f km need a tone", p.Census.Toned, p.Census.Stated, float64(around))}},
	})
}

func dcsEquivalent(p *Pass) {
	up, ok := p.uplink()
	have := p.Channel.TransmitTone
	if !ok || have == up || have.Kind() != tone.DCS || !tone.Same(have, up) {
		return
	}
	p.Report(Finding{
		Severity: Note, Field: channel.FieldTransmitTone, Title: fmt.Sprintf("%s and %s are the same signal", have, up),
		Message: "One is the other upside down; the repeater opens to both.",
		Why: []Reason{
			{"entered", have.String()},
			{"published", up.String()},
			{"radio", fmt.Sprintf("words on the air: %06X and %06X, each without end", tone.Word(octal(have)), tone.Word(octal(up)))},
		},
	})
}

func octal(t tone.Tone) int { code, _ := t.Code(); return code }

// inside is how near a harmonic has to be, in hertz: half a wide channel and
// three times the deviation of the other.
const inside = 15_000

func harmonic(p *Pass) {
	if p.Radio == nil || p.Radio.Receivers != radio.DualReceive || p.Channel.Receive == 0 {
		return
	}
	tx, sends := p.Channel.Transmit()
	if sends {
		if o, hit := p.first(p.Occupancy.receiving(3*tx-inside, 3*tx+inside), whichever); hit {
			p.Report(p.harmonicOf(tx, o.Channel.Receive, fmt.Sprintf("slot %d, %s", o.Slot, title(o))))
			return
		}
	}
	rx := p.Channel.Receive
	if o, hit := p.first(p.Occupancy.sending((rx-inside+2)/3, (rx+inside)/3), whichever); hit { // 3 × tx within the range, rounded inwards
		p.Report(p.harmonicOf(transmits(o), rx, "this channel, from slot "+fmt.Sprint(o.Slot)))
	}
}

func (p *Pass) harmonicOf(tx, rx freq.Hz, where string) Finding {
	return Finding{
		Severity: Check, Field: channel.FieldTransmit, Title: fmt.Sprintf("The third harmonic falls on %s", rx),
		Message: fmt.Sprintf("3 × %s is %s: %s. While you transmit on the one you hear nothing on the other.", tx.MHz(), 3*tx, where),
		Why:     []Reason{{"entered", fmt.Sprintf("transmit %s", tx)}},
	}
}
