package check

import (
	"fmt"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/radio"
	"mnemos/core/space"
)

var crossBandRules = []Rule{
	{
		ID: "space-station", Title: "A station in space",
		Doc:     "The pair is that of a published station in space, as far as Doppler moves it. Transmit only on its uplink and only while it is above your horizon; the downlink is for listening. A band plan's satellite segment is meant for exactly this, so it is no stop here.",
		Source:  "the operators' published frequencies, from memory (core/space)",
		Example: "437.8 tx 145.99 67.0", Supersedes: []string{"cross-band", "shift-size", "shift-missing", "unlisted", "off-raster", "harmonic-own"},
		Run: spaceStation,
	},
	{
		ID: "cross-band", Title: "Receive and transmit in different bands",
		Doc:     "The channel receives in one amateur band and transmits in another. Some repeaters are made so, and stations in space are; otherwise it is usually a slip. Nothing is assumed about it from the band plan's shifts.",
		Source:  practice,
		Example: "146.52 tx 446",
		Run:     crossBand,
	},
	{
		ID: "harmonic-own", Title: "Third harmonic in your own receiver",
		Doc:     "Three times the transmit frequency falls into the receive channel of the same memory: while you transmit you hear yourself and nothing else, and a radio with two receivers is deaf there.",
		Source:  "arithmetic; " + practice,
		Example: "439.5 tx 146.5",
		Run:     harmonicOwn,
	},
}

// crossBand reports whether the channel receives in one amateur band and
// transmits in another.
func (p *Pass) crossBand() bool {
	tx, ok := p.Channel.Transmit()
	if !ok {
		return false
	}
	a, okA := p.Plan.Band(p.Channel.Receive)
	b, okB := p.Plan.Band(tx)
	return okA && okB && a.Transmit && b.Transmit && a.Name != b.Name
}

// space is the published station in space that the channel receives.
func (p *Pass) space() (pair space.Pair, exact, ok bool) {
	tx, sends := p.Channel.Transmit()
	return space.Find(p.Plan.Region, p.Channel.Receive, tx, sends)
}

func spaceStation(p *Pass) {
	pair, exact, ok := p.space()
	if !ok || p.Meant != nil {
		return
	}
	tx, sends := p.Channel.Transmit()
	f := Finding{
		Severity: Note, Field: channel.FieldReceive, Title: fmt.Sprintf("This is the %s", pair.Name),
		Message: "Transmit only while it is above your horizon, and allow for Doppler. Follow your local rules and your licence.",
		Why:     []Reason{{"published", fmt.Sprintf("%s: down %s, up %s, %s; %s", pair.Name, pair.Receive, pair.Transmit, pair.Tone.Words(), space.Published().Basis)}},
	}
	switch {
	case !sends:
		f.Message = "The channel listens to it and never transmits."
	case !exact:
		f.Severity, f.Field, f.Title = Stop, channel.FieldTransmit, fmt.Sprintf("%s is not its uplink", tx)
		if tx == p.Channel.Receive {
			f.Title = "This would transmit on its downlink"
		}
		f.Message = fmt.Sprintf("The %s listens on %s. Follow your local rules and your licence.", pair.Name, pair.Transmit)
		f.Fixes = []Remedy{p.Remedy(fmt.Sprintf("Transmit on %s", pair.Transmit), func(c *channel.Channel) {
			c.Side, c.TransmitTone = channel.SplitSide(pair.Transmit), pair.Tone
		}), p.blockTransmit()}
	case p.Channel.TransmitTone != pair.Tone:
		f.Severity, f.Field = Check, channel.FieldTransmitTone
		f.Message = fmt.Sprintf("Its uplink needs %s.", pair.Tone.Words())
		f.Fixes = []Remedy{p.send(pair.Tone)}
	case pair.Packet:
		f.Message = "It is for packets while the station is above your horizon; no voice. Follow your local rules and your licence."
	}
	p.Report(f)
}

func crossBand(p *Pass) {
	if !p.crossBand() {
		return
	}
	tx, _ := p.Channel.Transmit()
	if p.Meant != nil && p.Meant.Input == tx {
		return
	}
	a, _ := p.Plan.Band(p.Channel.Receive)
	b, _ := p.Plan.Band(tx)
	f := Finding{
		Severity: Check, Field: channel.FieldTransmit, Title: fmt.Sprintf("Receives in %s and transmits in %s", a.Name, b.Name),
		Message: "Nothing that is published pairs these two. Check that you meant it: such a pair is for a repeater across bands or a station in space.",
		Why:     []Reason{{"entered", fmt.Sprintf("receive %s, transmit %s", p.Channel.Receive, tx)}},
	}
	if b.IsCalling(tx) {
		f.Message = fmt.Sprintf("%s is the calling channel of %s: whoever answers there is not heard on this channel. Choose a simplex channel.", tx, b.Name)
	}
	if p.Radio != nil && p.Radio.Entry != radio.Columns && p.Radio.Entry != radio.Twice {
		f.Why = append(f.Why, Reason{"radio", fmt.Sprintf("%s stores a shift of up to %s MHz, which a pair across bands exceeds", p.Radio.Name, freq.Hz(p.Radio.Offsets.Max).MHz())})
	}
	p.Report(f)
}

func harmonicOwn(p *Pass) {
	tx, ok := p.Channel.Transmit()
	if !ok || p.Channel.Receive == 0 || freq.Offset(3*tx-p.Channel.Receive).Abs() > inside {
		return
	}
	p.Report(p.harmonicOf(tx, p.Channel.Receive, "the receive side of this very channel"))
}
