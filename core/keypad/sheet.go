// Package keypad writes down how a channel is keyed into a radio by hand, and
// what the display must show, so that nobody has to transmit to find out what
// was entered.
//
// A sheet begins from a stated state, sets everything that the channel needs
// once, looks at the result without sending, stores it, looks again, and puts
// back what would reach the next channel. Its lines are plain enough to be
// followed word by word; core/handset does so.
package keypad

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/radio"
	"mnemos/core/tone"
)

// Step is one thing to do at the radio.
type Step struct {
	Number int    `json:"number"`
	Do     string `json:"do"`              // what it is for
	Value  string `json:"value,omitempty"` // what must be set; "off" is written out
	Unit   string `json:"unit,omitempty"`
	Again  bool   `json:"again,omitempty"` // it puts back what an earlier step changed
	Keys   string `json:"keys"`            // what to press, and what must be seen meanwhile
	Note   string `json:"note,omitempty"`

	Acts    []Act         `json:"-"` // the keys one by one
	Setting radio.Setting `json:"-"` // what of the radio it sets, or ""
	Opens   string        `json:"-"` // the value at which its list opens, where that is known
	Passes  []string      `json:"-"` // the values from there to the one that must be set, both included
	Presses int           `json:"-"` // how many there are
	Repeats int           `json:"-"` // how many of them are the same key once more: those go quickly
	Guess   bool          `json:"-"` // on average: nobody knows where it opens
}

// Title is what the step is for, with the value: "tone sent 103.5 Hz".
func (s Step) Title() string {
	again := ""
	if s.Again {
		again = "again"
	}
	return strings.Join(slices.DeleteFunc([]string{s.Do, s.Value, s.Unit, again}, func(w string) bool { return w == "" }), " ")
}

// String is the line of the step.
func (s Step) String() string { return fmt.Sprintf("%d. %s: %s.", s.Number, s.Title(), s.Keys) }

// Shown is what a display must show.
type Shown struct {
	Shift   string `json:"shift"` // the sign of the shift, or ""
	Tone    string `json:"tone"`  // the mark of the tone mode, or ""
	Lock    string `json:"lock"`  // the mark of the transmit lock, or ""
	Figures string `json:"figures"`
	Note    string `json:"note,omitempty"`
}

// String joins the marks and the figures: "− T 147.840".
func (s Shown) String() string {
	return strings.Join(slices.DeleteFunc([]string{s.Shift, s.Tone, s.Lock, s.Figures}, func(w string) bool { return w == "" }), " ")
}

// Sheet is the whole instruction for one channel and one radio.
type Sheet struct {
	Reason  string       `json:"reason"` // why there are no steps, or ""
	Locked  string       `json:"locked"` // why the slot must not transmit, or ""
	Start   []string     `json:"start"`  // the state from which the first step begins
	Steps   []Step       `json:"steps"`
	Leave   []string     `json:"leave"`    // the state in which the last step leaves the radio
	Rest    Shown        `json:"rest"`     // what the display must show
	ReadOut string       `json:"read_out"` // how the transmit frequency is shown without sending, or ""
	Keyed   *Shown       `json:"keyed"`    // what it shows while it transmits; nil for a channel that does not
	Hidden  []string     `json:"hidden"`   // what was set and the display cannot show
	Notes   []string     `json:"notes"`    // what the keys cannot do
	Check   []string     `json:"check"`    // what the profile leaves open
	Losses  []radio.Loss `json:"losses"`
	// Holds is what the slot holds in the end; without steps it is empty.
	Holds channel.Channel `json:"-"`
	// Stays is what the channel needs and the ones before have set already.
	Stays []Stay `json:"-"`
}

// Stay is a setting that is left as it is.
type Stay struct {
	Do, Value, Unit string
	Look            string // how it is looked up, or "" where no display shows it
}

// Effort is what a hand does: how often it presses, and how many of that is the same
// key once more, or the next click of a knob.
type Effort struct{ Presses, Repeats int }

// Add adds up.
func (e Effort) Add(o Effort) Effort { return Effort{e.Presses + o.Presses, e.Repeats + o.Repeats} }

// Effort is that of all steps.
func (s Sheet) Effort() (e Effort) {
	for _, x := range s.Steps {
		e = e.Add(Effort{x.Presses, x.Repeats})
	}
	return e
}

// Text is the sheet as lines, to be followed one after the other.
func (s Sheet) Text() string {
	if s.Reason != "" {
		return s.Reason + "\n"
	}
	var lines []string
	if len(s.Start) > 0 {
		lines = append(lines, "Start with: "+strings.Join(s.Start, ", ")+".")
	}
	for _, x := range s.Steps {
		lines = append(lines, x.String())
	}
	if len(s.Leave) > 0 {
		lines = append(lines, "Leave it with: "+strings.Join(s.Leave, ", ")+".")
	}
	return strings.Join(lines, "\n") + "\n"
}

// Wanted is what a slot of a radio is to hold.
type Wanted struct {
	Channel        channel.Channel
	Slot           int
	Short          string // the name as the radio shows it, or ""
	Skip, Priority bool
	Forbidden      string // why it may not be transmitted, or "": the slot is locked
}

// Write returns the sheet for a channel in a slot of a radio. The channel is
// fitted first: the sheet is about what the radio will really hold, and the
// losses say what that leaves out.
func Write(want Wanted, p *radio.Profile) Sheet {
	w := newWriter(want, p, State{})
	if w.sheet.Reason == "" {
		w.write()
		w.back()
	}
	return w.sheet
}

// Continue returns the sheet of a channel for a radio of which something is known:
// what stands already is left out, and what is done is counted. The radio is not put
// back afterwards: Restore does that when the last channel is in. known is what is
// known of it then. From the zero State everything is set, from a stated start.
func Continue(want Wanted, p *radio.Profile, from State) (s Sheet, known State) {
	w := newWriter(want, p, from)
	w.counts = true
	if w.sheet.Reason != "" {
		return w.sheet, from
	}
	w.write()
	return w.sheet, State{w.set}
}

// Restore returns the steps that put a radio back in which channels were stored. A
// split stays in its band: before are frequencies that were keyed when nobody can say
// any more what stands there.
func Restore(p *radio.Profile, from State, before ...freq.Hz) Sheet {
	w := newWriter(Wanted{}, p, from)
	w.sheet.Reason, w.counts = "", true
	if p.Entry == radio.Split {
		for _, f := range before {
			if i := bandOf(p, f); w.set[splitOf(i)] == "" {
				w.set[splitOf(i)], w.set[lastIn(i)] = "?", f.MHz()
			}
		}
	}
	w.back()
	w.sheet.Leave = append(w.sheet.Leave, w.stated()...)
	return w.sheet
}

func newWriter(want Wanted, p *radio.Profile, from State) *writer {
	c := want.Channel
	if want.Forbidden != "" {
		c.Side, c.TransmitTone = channel.TransmitSide{Kind: channel.Blocked}, tone.Off
	}
	held, losses := radio.Fit(c, p)
	w := &writer{p: p, want: want, c: held, set: maps.Clone(from.set), fresh: from.set == nil}
	if w.fresh {
		w.set = map[radio.Setting]string{}
	}
	w.sheet = Sheet{
		Start: []string{}, Steps: []Step{}, Leave: []string{}, Hidden: []string{}, Notes: []string{}, Check: []string{}, Losses: []radio.Loss{},
	}
	w.sheet.Losses = append(w.sheet.Losses, losses...)
	if w.sheet.Reason = w.reason(); w.sheet.Reason == "" {
		w.sheet.Holds = w.c
		if p.Keying.Burst == "key" && w.c.TransmitTone.Kind() == tone.Burst {
			w.sheet.Holds.TransmitTone = tone.Off // no slot holds it
		}
	}
	return w
}

// reason says why there is nothing to key.
func (w *writer) reason() string {
	p := w.p
	_, transmits := w.c.Transmit()
	wanted := w.want.Channel.Side.Kind
	switch {
	case !p.Slots.Holds(w.want.Slot):
		return fmt.Sprintf("%s has no slot %d: its slots are %d to %d.", p.Name, w.want.Slot, p.Slots.First, p.Slots.Last)
	case !p.CanReceive(w.want.Channel.Receive):
		return fmt.Sprintf("%s does not receive %s: there is nothing to key in.", p.Name, w.want.Channel.Receive)
	case p.Keying.By == "cable":
		return fmt.Sprintf("%s is filled by cable: it has no keys for this.", p.Name)
	case !p.Lock && p.CanTransmit(w.c.Receive) && (!transmits || wanted == channel.Blocked || w.want.Forbidden != ""):
		why := "the channel is receive only"
		if w.want.Forbidden != "" {
			why = "you may not transmit here"
		} else if wanted != channel.Blocked {
			why = fmt.Sprintf("%s cannot transmit as the channel needs", p.Name)
		}
		return fmt.Sprintf("%s cannot lock its transmitter, and %s: stored, %s would go on the air at a touch of the key. Leave it out of this radio.", p.Name, why, w.c.Receive)
	}
	return ""
}

func (w *writer) write() {
	w.start()
	w.begin()
	w.frequencies()
	w.lock()
	w.tones()
	w.settings()
	w.look()
	w.store()
	w.slot()
	w.hidden()
	w.sheet.Check = append(w.sheet.Check, w.p.Unsaid()...)
}
