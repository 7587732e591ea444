package check

import (
	"fmt"

	"mnemos/core/channel"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

// TonePolicy is which of the two ways with tones a plan prefers.
type TonePolicy string

// The two policies.
const (
	EncodeFirst  TonePolicy = "encode first"       // leave the receiver open
	SquelchFirst TonePolicy = "tone squelch first" // mute what is not the repeater
)

// Decision is how the receiver of a channel should be set, and why.
type Decision struct {
	Mode   channel.Mode
	Reason string
	Why    []Reason
}

// decide chooses between an open receiver and tone squelch for the repeater
// that is meant; ok is false where there is nothing to choose.
func (p *Pass) decide() (d Decision, ok bool) {
	up, stated := p.uplink()
	if !stated || up.IsOff() {
		return d, false
	}
	name := p.Meant.Title()
	down := p.downlink()
	switch {
	case !p.Meant.DownlinkTone.Known:
		return Decision{Mode: channel.Encode, Reason: "nobody states what " + name + " sends"}, true
	case down.IsOff():
		return Decision{Mode: channel.Encode, Reason: name + " sends no tone"}, true
	}
	if rival, text, ok := p.rival(); ok && !(rival.DownlinkTone.Known && tone.Same(rival.DownlinkTone.Tone, down)) {
		return Decision{Mode: channel.ToneSquelch, Reason: fmt.Sprintf("%s is on the same output and may be heard here", rival.Title()), Why: []Reason{{"published", text}}}, true
	}
	if p.TonePolicy == SquelchFirst {
		return Decision{Mode: channel.ToneSquelch, Reason: fmt.Sprintf("%s sends %s, and the plan prefers tone squelch", name, down.Words())}, true
	}
	return Decision{Mode: channel.Encode, Reason: "no other repeater may be heard on the output, and the plan prefers an open receiver"}, true
}

// rival returns the first other repeater on the output that may be heard.
func (p *Pass) rival() (m listing.Match, text string, ok bool) {
	for _, m := range p.Outputs {
		if sameRepeater(m, *p.Meant) || m.Distance == nil || !m.Audible {
			continue
		}
		reach := "may be heard to about"
		if m.Horizon {
			reach = "horizon"
		}
		return m, fmt.Sprintf("%s: %.0f km away, %s %.0f km", p.cite(m), *m.Distance, reach, m.Reach), true
	}
	return m, "", false
}

// toneMode speaks where the channel is set the other way than the plan's
// policy would, and no graver reason has been named already.
func toneMode(p *Pass) {
	d, ok := p.decide()
	mode := p.Channel.Mode()
	if !ok || mode != channel.Encode && mode != channel.ToneSquelch || mode == d.Mode || !p.Meant.DownlinkTone.Known || p.downlink().IsOff() {
		return
	}
	if _, _, co := p.rival(); co {
		return // co-channel says it
	}
	f := Finding{
		Severity: Note, Field: channel.FieldReceiveTone, Title: "The plan prefers tone squelch", Message: "Here " + d.Reason + ".",
		Why: append(d.Why, p.becauseTone()...), Fixes: []Remedy{p.listen(p.downlink())},
	}
	if d.Mode == channel.Encode {
		f.Title, f.Fixes = "The receiver could stay open", []Remedy{p.listen(tone.Off)}
	}
	p.Report(f)
}
