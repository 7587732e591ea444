// Package entry reads the entry line: one line of text that says what a
// channel is to be, in any order and in the spellings people use.
//
//	d := entry.Read(`147.24 + 100 "Beacon Hill"`, band.MustLoad("us"))
//	d.Channel.Receive       // 147.240 MHz
//	d.Channel.Offset()      // +600 kHz, d.From[listing.FieldShift] is BandPlan
//	d.Channel.TransmitTone  // 100.0 Hz
//
// Every word yields all the readings it can have, each with a cost. The
// cheapest set of readings that do not contradict each other wins; if another
// set is nearly as cheap, it is reported as an alternative and somebody has
// to choose. Units and signs always win over guesses.
package entry

import (
	"fmt"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/listing"
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
	AsUnknown     As = "unknown"
)

// Field returns the channel field that a word of this meaning sets.
func (a As) Field() listing.Field {
	switch a {
	case AsReceive:
		return listing.FieldReceive
	case AsTransmit:
		return listing.FieldTransmit
	case AsShift, AsSimplex, AsReceiveOnly:
		return listing.FieldShift
	case AsTone, AsSquelch, AsTones:
		return listing.FieldToneOut
	case AsReceiveTone:
		return listing.FieldToneIn
	case AsName:
		return listing.FieldName
	case AsSlot:
		return listing.FieldSlot
	case AsWidth:
		return listing.FieldWidth
	case AsPower:
		return listing.FieldPower
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
}

// Origin is where a value of a draft came from.
type Origin string

// The origins.
const (
	Typed    Origin = "entered"
	BandPlan Origin = "band plan"
	Solved   Origin = "worked out" // from the other two of output, input and shift
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
	From    map[listing.Field]Origin
	Rule    *band.ShiftRule // the shift rule that was applied, if one was
	Other   *Draft          // another reading that is about as likely
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
func (d *Draft) Typed(f listing.Field) bool { return d.From[f] == Typed }

// MaxLength is the longest line that is read, in characters.
const MaxLength = 400

// Read reads a line against a band plan. It never fails: what it cannot read
// stands in the words, with what to type instead.
func Read(line string, plan *band.Plan) *Draft {
	items := lex(line)
	best, second := search(items, plan)
	d := best.draft(items, plan)
	d.Line = line
	if n := len(d.Words); n > 0 && len([]rune(line)) > MaxLength && d.Problem() == nil {
		d.Words[n-1].Problem = fmt.Sprintf("a line has up to %d characters, and what follows was not read: shorten it", MaxLength)
	}
	// A second reading counts only if both can be understood to the end and
	// the two would store different channels.
	if second != nil && second.cost-best.cost < ambiguous && d.Problem() == nil {
		if o := second.draft(items, plan); o.Problem() == nil && (o.Channel != d.Channel) {
			d.Other = o
		}
	}
	return d
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
