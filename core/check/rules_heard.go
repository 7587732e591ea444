package check

import (
	"fmt"

	"mnemos/core/channel"
	"mnemos/core/tone"
)

var heardRules = []Rule{
	{
		ID: "heard-otherwise", Title: "It answered to something else",
		Doc:     "Something came back on the air to another tone or shift than the channel has, or than the listing says; or two searches on the input found another tone. What was answered is the strongest witness: where the channel differs, it is set; where the listing differs, the record wants correcting.",
		Source:  "the log; " + practice,
		Example: "146.94 127.3", Supersedes: []string{"tone-differs", "tone-downlink", "tone-missing"},
		Run: heardOtherwise,
	},
}

func heardOtherwise(p *Pass) {
	h := p.Heard
	if _, sends := p.Channel.Transmit(); !h.Known || !sends {
		return
	}
	if h.Offset != p.Channel.Offset() {
		p.Report(Finding{
			Severity: Fix, Field: channel.FieldShift, Title: fmt.Sprintf("It answered to a shift of %s", h.Offset),
			Message: fmt.Sprintf("That was on %s. The channel has %s.", h.Day, p.Channel.Offset()),
			Why:     []Reason{{"heard", fmt.Sprintf("%s: %s", h.Day, h.Offset)}},
			Fixes: []Remedy{p.Remedy("Shift "+h.Offset.String(), func(to *channel.Channel) {
				to.Side = channel.TransmitSide{Kind: channel.Shift, Offset: h.Offset}
				if h.Offset == 0 {
					to.Side = channel.TransmitSide{Kind: channel.Simplex}
				}
			})},
		})
	}
	why := []Reason{{"heard", fmt.Sprintf("%s: %s", h.Day, h.Tone.Words())}}
	says, when := "It answered to "+h.Tone.Words(), "That was on "+h.Day
	if h.Searched {
		says, when = "Others send "+h.Tone.Words(), "Two searches on its input agree, the last on "+h.Day
	}
	switch published := p.Meant != nil && p.Meant.UplinkTone.Known; {
	case !h.Opens(p.Channel.TransmitTone):
		p.Report(Finding{
			Severity: Fix, Field: channel.FieldTransmitTone, Title: says,
			Message: fmt.Sprintf("%s. The channel sends %s.", when, p.Channel.TransmitTone.Words()), Why: why,
			Fixes: []Remedy{p.Remedy("Send "+h.Tone.Words(), func(to *channel.Channel) { to.TransmitTone = h.Tone })},
		})
	case published && !tone.Same(h.Tone, p.Meant.UplinkTone.Tone):
		p.Report(Finding{
			Severity: Note, Field: channel.FieldTransmitTone, Title: fmt.Sprintf("%s, and the listing says %s", says, p.Meant.UplinkTone.Tone.Words()),
			Message: when + ". Correct the record in Find, so that it is right for every channel.",
			Why:     append(why, Reason{"published", p.cite(*p.Meant) + ": " + p.Meant.UplinkTone.Tone.Words()}),
		})
	}
}
