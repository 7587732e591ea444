// Package entry reads the entry line: one line of text that says what a
// channel is to be, in any order and in the spellings people use.
//
//	d := entry.Read(`147.24 + 100 "Beacon Hill"`, band.MustLoad("us"))
//	d.Channel.Receive       // 147.240 MHz
//	d.Channel.Offset()      // +600 kHz, d.From[channel.FieldShift] is BandPlan
//	d.Channel.TransmitTone  // 100.0 Hz
//
// Every word yields all the readings it can have, each with a cost. The
// cheapest set of readings that do not contradict each other wins; if another
// set is nearly as cheap, it is reported as an alternative and somebody has
// to choose. Units and signs always win over guesses.
package entry

import (
	"fmt"
	"math"
	"strings"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
)

// Scan says what a scan does with a channel.
type Scan string

// The scan settings.
const (
	ScanYes      Scan = "yes"
	ScanSkip     Scan = "skip"
	ScanPriority Scan = "priority"
)

// As is what a word was taken for.
type As string

// The meanings of words.
const (
	AsReceive     As = "receive"
	AsTransmit    As = "transmit"
	AsShift       As = "shift"
	AsSimplex     As = "simplex"
	AsReceiveOnly As = "receive only"
	AsTone        As = "tone"
	AsReceiveTone As = "receive tone"
	AsSquelch     As = "tone squelch"
	AsTones       As = "tones"
	AsName        As = "name"
	AsSlot        As = "slot"
	AsWidth       As = "bandwidth"
	AsPower       As = "power"
	AsScan        As = "scan"
	AsPair        As = "receive and transmit"
	AsBand        As = "band"
	AsCallsign    As = "callsign"
	AsAccess      As = "access"
	AsJoins       As = "joins" // says nothing by itself
	AsUnknown     As = "unknown"
)

// Field returns the channel field that a word of this meaning sets.
func (a As) Field() channel.Field {
	switch a {
	case AsReceive, AsPair, AsBand:
		return channel.FieldReceive
	case AsTransmit:
		return channel.FieldTransmit
	case AsShift, AsSimplex, AsReceiveOnly:
		return channel.FieldShift
	case AsTone, AsSquelch, AsTones:
		return channel.FieldTransmitTone
	case AsReceiveTone:
		return channel.FieldReceiveTone
	case AsName, AsCallsign:
		return channel.FieldName
	case AsSlot:
		return channel.FieldSlot
	case AsWidth:
		return channel.FieldWidth
	case AsPower:
		return channel.FieldPower
	case AsAccess:
		return channel.FieldListing
	}
	return ""
}

// Word is a stretch of the line with one meaning. Start and End count
// characters (Unicode code points) from the start of the line.
type Word struct {
	Text    string `json:"text"`
	Start   int    `json:"start"`
	End     int    `json:"end"`
	As      As     `json:"as"`
	Guess   string `json:"guess,omitempty"`   // the reading, where it is not certain
	Problem string `json:"problem,omitempty"` // what is wrong and what to type

	code bool // a "privacy code" set a tone
}

// Code reports whether the word is a channel with a "privacy code".
func (w Word) Code() bool { return w.code }

// Origin is where a value of a draft came from.
type Origin string

// The origins.
const (
	Typed    Origin = "entered"
	BandPlan Origin = "band plan"
	Solved   Origin = "calculated" // from the other two of output, input and shift
	Service  Origin = "service"    // the limits of a service that was named
	Default  Origin = "default"
)

// Draft is what a line says.
type Draft struct {
	Line    string // as it was typed
	Channel channel.Channel
	Slot    *int // nil if the line names none
	Scan    Scan
	Words   []Word
	From    map[channel.Field]Origin
	Rule    *band.ShiftRule // the shift rule that was applied, if one was
	// Borrowed is set where the rule is that of the outputs for which the
	// frequency is an input: only its size was taken.
	Borrowed bool
	Other    *Draft   // another reading that is about as likely
	Offers   []*Draft // the channels of several lines at once
	Callsign string   // the callsign that the line names, in capitals
	Service  string   // the ID of the service whose channel the line names, or ""
	Access   string   // open, closed or private, where the line says it
}

// Query is what a line without a frequency asks the listings for: a name or a
// callsign; "" if it is anything else.
func (d *Draft) Query() string {
	if d.Channel.Receive != 0 || len(d.Words) == 0 || d.Channel.Side.Kind == channel.Split {
		return ""
	}
	for _, w := range d.Words {
		if w.As != AsName && w.As != AsCallsign && w.As != AsJoins || w.Problem != "" {
			return ""
		}
	}
	return d.Channel.Name
}

// Complete reports whether the draft can be stored: it has a receive
// frequency, nothing unread and no second reading.
func (d *Draft) Complete() bool {
	return d.Channel.Receive != 0 && d.Problem() == nil && d.Other == nil && d.Channel.Validate() == nil
}

// Problem returns the first word that could not be read, or nil.
func (d *Draft) Problem() *Word {
	for i := range d.Words {
		if d.Words[i].Problem != "" {
			return &d.Words[i]
		}
	}
	return nil
}

// Typed reports whether the field was typed rather than worked out.
func (d *Draft) Typed(f channel.Field) bool { return d.From[f] == Typed }

// MaxLength is the longest line that is read, in characters.
const MaxLength = 400

// Levels are the power steps of a radio in watts.
type Levels struct{ Low, Mid, High float64 }

// handheld are the steps taken where no radio is known: those of a usual
// handheld. Common practice, no source.
var handheld = Levels{1, 2.5, 5}

// nearest returns the step nearest to a power, and its watts. Halfway it is
// the lower.
func (l Levels) nearest(watts float64) (channel.Power, float64) {
	best, of := channel.Low, l.Low
	for _, x := range []struct {
		p channel.Power
		w float64
	}{{channel.Mid, l.Mid}, {channel.High, l.High}} {
		if x.w != 0 && math.Abs(x.w-watts) < math.Abs(of-watts) {
			best, of = x.p, x.w
		}
	}
	return best, of
}

// Reader reads lines against a band plan, for a radio with the given power
// steps.
type Reader struct {
	Plan   *band.Plan
	Levels Levels // zero: those of a handheld
}

// Read reads a line against a band plan. It never fails: what it cannot read
// stands in the words, with what to type instead.
func Read(line string, plan *band.Plan) *Draft { return Reader{Plan: plan}.Read(line) }

// MaxOffers is how many lines are offered of those pasted at once.
const MaxOffers = 100

// Read reads a line, or several at once: then each is an offer, and none of
// them is the channel.
func (x Reader) Read(text string) *Draft {
	if !strings.ContainsAny(strings.TrimSpace(text), "\n\r") {
		return x.line(text)
	}
	d := &Draft{Line: text, Channel: channel.New(0), Scan: ScanYes, From: map[channel.Field]Origin{}, Words: []Word{}}
	for line := range strings.Lines(strings.ReplaceAll(text, "\r", "\n")) {
		line = strings.TrimSpace(line)
		if line == "" {
			continue
		}
		if o := x.line(line); len(d.Offers) < MaxOffers && (o.Channel.Receive != 0 || strings.ContainsAny(line, "0123456789")) {
			d.Offers = append(d.Offers, o) // a heading has no figures
		}
	}
	if len(d.Offers) == 1 {
		return d.Offers[0]
	}
	d.Words = append(d.Words, Word{Text: string([]rune(text)), End: len([]rune(text)), As: AsUnknown, Problem: fmt.Sprintf("these are %d lines: take them one at a time", len(d.Offers))})
	return d
}

func (x Reader) line(line string) *Draft {
	if x.Levels == (Levels{}) {
		x.Levels = handheld
	}
	runes := []rune(line)
	r := &reading{tokens: spoken(tokens(line)), plan: x.Plan, levels: x.Levels}
	best, second := r.search()
	d := best.draft(runes)
	d.Line = line
	if n := len(d.Words); n > 0 && len(runes) > MaxLength && d.Problem() == nil {
		d.Words[n-1].Problem = fmt.Sprintf("a line has up to %d characters, and what follows was not read: shorten it", MaxLength)
	}
	// A second reading counts only if both can be understood to the end and
	// the two would store different channels.
	if second != nil && second.cost-best.cost < ambiguous && d.Problem() == nil {
		if o := second.draft(runes); o.Problem() == nil && !o.same(d) {
			o.Line, d.Other = line, o
		}
	}
	if d.Other == nil && d.Problem() == nil {
		d.Other = best.viewpoint(d)
	}
	return d
}

// same reports whether two drafts would be stored alike.
func (d *Draft) same(o *Draft) bool {
	return d.Channel == o.Channel && d.Scan == o.Scan && (d.Slot == nil) == (o.Slot == nil) && (d.Slot == nil || *d.Slot == *o.Slot)
}

// viewpoint is the other reading of a line with both rx and tx in which the
// band plan has the pair the other way round: some lists mean the repeater's
// receiver.
func (s *state) viewpoint(d *Draft) *Draft {
	if !s.has(fRx) || !s.has(fTx) || s.receive == 0 || s.pairs(s.receive, s.transmit) || !s.pairs(s.transmit, s.receive) {
		return nil
	}
	o := *d
	o.Channel.Receive, o.Channel.Side = s.transmit, channel.SplitSide(s.receive)
	return &o
}

// Candidates returns the frequencies that bare digits may stand for in the
// plan: "146520", "14652" and "146520000" are all 146.520 MHz.
func Candidates(digits string, plan *band.Plan) []freq.Hz {
	var out []freq.Hz
	add := func(f freq.Hz) {
		for _, g := range out {
			if f == g {
				return
			}
		}
		if _, ok := plan.Band(f); ok {
			out = append(out, f)
		}
	}
	if len(digits) < 2 || len(digits) > 10 {
		return nil
	}
	for _, point := range []int{3, 2, 4} {
		if point <= len(digits) {
			if n, err := freq.Scale(digits[:point]+"."+digits[point:], freq.MHz); err == nil {
				add(freq.Hz(n))
			}
		}
	}
	return out
}
