// Package evidence sets the witnesses for a channel side by side, field by
// field: what was entered, what is published, what the band plan implies, and what
// was answered on the air. A
// dash is no evidence; it is never agreement.
//
// "Agrees" is a statement about the listing and the band plan. Whether a
// channel works on the air is a different thing, which only a test on the air
// can show.
package evidence

import (
	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

// Verdict is the standing of a whole channel against its evidence.
type Verdict string

// The verdicts, gravest first.
const (
	Stop       Verdict = "stop"       // must not go on the air as it is
	Conflict   Verdict = "conflict"   // a witness says otherwise
	Unverified Verdict = "unverified" // nothing contradicts it, nothing supports it
	Agrees     Verdict = "agrees"
)

// Mark is the verdict on one field.
type Mark string

// The marks.
const (
	FieldAgrees  Mark = "agrees"
	FieldDiffers Mark = "differs"
	NoEvidence   Mark = "no evidence"
)

// Kind says how a cell is to be read.
type Kind string

// The kinds of cell.
const (
	KindNone      Kind = ""
	KindFrequency Kind = "frequency"
	KindOffset    Kind = "offset"
	KindTone      Kind = "tone"
	KindWord      Kind = "word"
)

// Cell is what one witness says about one field. An empty cell says nothing.
type Cell struct {
	Kind Kind   `json:"kind"`
	Text string `json:"text"`
}

// Row is one field with its witnesses.
type Row struct {
	Field     channel.Field `json:"field"`
	Entered   Cell          `json:"entered"`
	Published Cell          `json:"published"`
	Plan      Cell          `json:"plan"`
	Heard     Cell          `json:"heard"`
	Mark      Mark          `json:"mark"`
}

// Heard is what something came back to when the channel was tested last: the fourth
// witness, and the strongest. Or it is what a search on the input found that others send:
// that speaks of the tone alone.
type Heard struct {
	Known    bool
	Searched bool
	Tone     tone.Tone // that was sent
	Offset   freq.Offset
	Day      string // when, as 25 Nov 2026
}

// Opens reports whether a tone opens what was heard: the one that did, or any where it
// opened to none.
func (h Heard) Opens(t tone.Tone) bool { return h.Tone.IsOff() || tone.Same(h.Tone, t) }

// Case is everything that speaks about a channel.
type Case struct {
	Channel channel.Channel
	Plan    *band.Plan
	Meant   *listing.Match  // the published record that is meant, or nil
	Others  []listing.Match // what else is said about the same repeater
	Fresh   bool            // that record is recent and says it is on the air
	Heard   Heard           // what was answered on the air
	// Service names the channel of another service that is used; its limits
	// are checked elsewhere, and its channels are no band edge.
	Service string
}

// Rows returns the witnesses for every field.
func (c Case) Rows() []Row {
	rows := []Row{c.receive()}
	if c.Channel.Side.Kind != channel.Blocked {
		rows = append(rows, c.shift(), c.transmit(), c.toneOut())
		c.hear(rows)
	}
	rows = append(rows, c.toneIn())
	if w, ok := c.width(); ok {
		rows = append(rows, w)
	}
	return rows
}

// hear adds what was heard. Where it is known it decides: the repeater answered.
func (c Case) hear(rows []Row) {
	if !c.Heard.Known {
		return
	}
	for i := range rows {
		r := &rows[i]
		if c.Heard.Searched && r.Field != channel.FieldTransmitTone {
			continue
		}
		switch r.Field {
		case channel.FieldShift:
			r.Heard, r.Mark = offset(c.Heard.Offset), compare(c.Heard.Offset == c.Channel.Offset())
		case channel.FieldTransmit:
			tx, _ := c.Channel.Transmit()
			heard := c.Channel.Receive + freq.Hz(c.Heard.Offset)
			r.Heard, r.Mark = frequency(heard), compare(heard == tx)
		case channel.FieldTransmitTone:
			r.Heard, r.Mark = toneCell(c.Heard.Tone, "no tone"), compare(c.Heard.Opens(c.Channel.TransmitTone))
		default:
		}
	}
}

// width is the row of the bandwidth, where the record states one.
func (c Case) width() (Row, bool) {
	if c.Meant == nil || c.Meant.Width == "" || c.Channel.Side.Kind == channel.Blocked {
		return Row{}, false
	}
	w := string(c.Channel.Width)
	return Row{Field: channel.FieldWidth, Entered: word(w), Published: word(c.Meant.Width), Mark: compare(w == c.Meant.Width)}, true
}

// Overall returns the verdict on the channel, given whether a rule wants it
// stopped, mended or looked at. Precedence: stop, conflict, unverified, agrees.
func (c Case) Overall(rows []Row, stop, fix, check bool) Verdict {
	if stop {
		return Stop
	}
	agrees := !check && (c.Meant == nil || c.Fresh)
	for _, r := range rows {
		if fix || r.Mark == FieldDiffers {
			return Conflict
		}
		// A tone that nobody publishes is no reason to doubt a simplex channel.
		optional := r.Field == channel.FieldReceiveTone || r.Field == channel.FieldTransmitTone && c.Meant == nil
		if r.Mark == NoEvidence && !optional {
			agrees = false
		}
	}
	if agrees {
		return Agrees
	}
	return Unverified
}

func (c Case) receive() Row {
	r := Row{Field: channel.FieldReceive, Entered: frequency(c.Channel.Receive), Mark: NoEvidence}
	if seg, ok := c.Plan.Segment(c.Channel.Receive); ok {
		r.Plan = word(string(seg.Use))
		b, _ := c.Plan.Band(c.Channel.Receive)
		simplex := seg.Use == band.Simplex && c.Channel.Side.Kind == channel.Simplex
		heard := seg.Use == band.ReceiveOnly && c.Channel.Side.Kind == channel.Blocked
		if b.IsCalling(c.Channel.Receive) {
			r.Plan = word("calling")
		}
		if simplex || heard {
			r.Mark = FieldAgrees
		}
	}
	if c.Service != "" {
		r.Plan, r.Mark = word(c.Service), FieldAgrees
	}
	if c.Meant != nil {
		r.Published = frequency(c.Meant.Output)
		r.Mark = compare(c.Meant.Output == c.Channel.Receive)
	}
	return r
}

func (c Case) shift() Row {
	o := c.Channel.Offset()
	r := Row{Field: channel.FieldShift, Entered: offset(o), Mark: NoEvidence}
	seg, _ := c.Plan.Segment(c.Channel.Receive)
	rule, ruled := c.Plan.Shift(c.Channel.Receive)
	switch {
	case ruled:
		r.Plan = offset(rule.Offset)
		// Local practice varies; only a firm rule is evidence by itself.
		if rule.Firm() {
			r.Mark = compare(rule.Allows(o))
		}
	case c.Service != "":
		r.Mark = FieldAgrees
	case seg.Use == band.Simplex:
		r.Plan = offset(0)
		r.Mark = compare(o == 0)
	}
	if c.Meant != nil {
		if published, ok := c.Meant.Offset(); ok {
			r.Published = offset(published)
			r.Mark = compare(published == o)
		}
	}
	return r
}

func (c Case) transmit() Row {
	tx, _ := c.Channel.Transmit()
	r := Row{Field: channel.FieldTransmit, Entered: frequency(tx), Mark: NoEvidence}
	seg, ok := c.Plan.Segment(tx)
	switch {
	case ok:
		r.Plan = word(string(seg.Use))
		if seg.Use == band.Simplex && c.Channel.Offset() == 0 || seg.Use == band.Input && c.Channel.Offset() != 0 {
			r.Mark = FieldAgrees
		}
	case c.Service != "":
		r.Plan, r.Mark = word(c.Service), FieldAgrees
	case !c.Plan.MayTransmit(tx) && c.Plan.Firm():
		if _, elsewhere := c.Plan.Elsewhere(tx); elsewhere {
			r.Plan = word("not covered")
			break
		}
		r.Plan = word("outside")
		r.Mark = FieldDiffers
	}
	if c.Meant != nil && c.Meant.Input != 0 {
		r.Published = frequency(c.Meant.Input)
		r.Mark = compare(c.Meant.Input == tx)
	}
	return r
}

func (c Case) toneOut() Row {
	r := Row{Field: channel.FieldTransmitTone, Entered: toneCell(c.Channel.TransmitTone, "no tone"), Mark: NoEvidence}
	if c.Meant != nil && c.Meant.UplinkTone.Known {
		r.Published = toneCell(c.Meant.UplinkTone.Tone, "none")
		r.Mark = compare(tone.Same(c.Meant.UplinkTone.Tone, c.Channel.TransmitTone))
	}
	return r
}

func (c Case) toneIn() Row {
	r := Row{Field: channel.FieldReceiveTone, Entered: toneCell(c.Channel.ReceiveTone, "open"), Mark: NoEvidence}
	if c.Meant != nil && c.Meant.DownlinkTone.Known {
		r.Published = toneCell(c.Meant.DownlinkTone.Tone, "none")
		open := c.Channel.ReceiveTone.IsOff() // an open receiver hears whatever is sent
		r.Mark = compare(open || tone.Same(c.Meant.DownlinkTone.Tone, c.Channel.ReceiveTone))
	}
	return r
}

func compare(same bool) Mark {
	if same {
		return FieldAgrees
	}
	return FieldDiffers
}

func frequency(f freq.Hz) Cell { return Cell{KindFrequency, f.MHz()} }

func offset(o freq.Offset) Cell {
	if o == 0 {
		return word("simplex")
	}
	return Cell{KindOffset, o.MHz()}
}

func toneCell(t tone.Tone, off string) Cell {
	if t.IsOff() {
		return word(off)
	}
	return Cell{KindTone, t.String()}
}

func word(s string) Cell { return Cell{KindWord, s} }
