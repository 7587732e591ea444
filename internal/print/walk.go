package print

import (
	"context"
	"fmt"
	"slices"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/evidence"
	"mnemos/core/keypad"
	"mnemos/core/radio"
	"mnemos/core/standing"
	"mnemos/core/walk"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
)

// How the transmit side of a channel is made sure of.
const (
	ByReadOut   = "read-out"   // the display shows the transmit frequency, and nothing is sent
	ByDummyLoad = "dummy load" // keyed into a dummy load, after listening
	NotAtAll    = ""
)

// Stop is one channel of a walk.
type Stop struct {
	Channel     int64
	Slot        int
	Name, Short string
	Fingerprint string
	Verdict     evidence.Verdict
	Standing    plan.Standing
	Holds       channel.Channel
	Says        string // what the radio does with it, in a sentence
	Sheet       keypad.Sheet
	Effort      keypad.Effort
	Alone       keypad.Effort // when it is keyed from the stated state
	Doubts      []string
	Sure        string // how the transmit side is made sure of
	WhyNot      string // why not by transmitting
}

// Aside is a channel that the walk leaves out.
type Aside struct {
	Slot int
	Name string
	Kind string // held back, does not fit, stored
	Why  string
}

// Walk leads through a radio.
type Walk struct {
	Load        int64
	Plan, Unit  string
	Radio       *radio.Profile
	Revision    int64
	Stops       []Stop
	End         keypad.Sheet
	Effort      keypad.Effort // of all stops and of the end
	Asides      []Aside
	Done, All   int           // how many are stored already, and of how many
	Apart       keypad.Effort // when each channel is keyed from the stated state
	InSlotOrder keypad.Effort // in the order of the slots, keeping what stands
	Nameless    keypad.Effort // in this order without the names
	Names       bool
	ByCable     string // why nothing can be keyed, or ""
}

// WalkRequest says how to walk.
type WalkRequest struct {
	Order []int // slots, in this order; none for the order that saves presses
	Names bool  // key the names in
	Again bool  // also what is stored already
}

// maxStops is how many channels a walk has at most.
const maxStops = 2000

// Walk returns the way through a radio.
func (p *Sheets) Walk(ctx context.Context, loadID int64, r WalkRequest) (*Walk, error) {
	w, _, err := p.walk(ctx, loadID, r)
	return w, err
}

func (p *Sheets) walk(ctx context.Context, loadID int64, r WalkRequest) (*Walk, walk.Walk, error) {
	l, err := p.plans.Loading(ctx, loadID)
	if err != nil {
		return nil, walk.Walk{}, err
	}
	out := &Walk{
		Load: loadID, Plan: l.Plan.Name, Unit: l.Unit.Title(), Radio: l.Radio, Revision: l.Revision, All: len(l.Channels), Names: r.Names,
		Stops: []Stop{}, Asides: []Aside{},
	}
	if l.Radio.Keying.By != "keypad" {
		out.ByCable = fmt.Sprintf("%s is filled by cable: it has no keys for this.", l.Radio.Name)
		if l.Radio.Keying.By == "" {
			out.ByCable = fmt.Sprintf("The profile of %s does not say how it is keyed. Add that under Radios.", l.Radio.Name)
		}
		return out, walk.Walk{}, nil
	}
	bySlot := map[int]plan.Loaded{}
	var wants, before []keypad.Wanted
	for _, c := range l.Channels {
		bySlot[c.Entry.Slot] = c
		want, aside := out.ask(l, c, r)
		switch {
		case aside == nil:
			wants = append(wants, want)
		case aside.Kind == "stored":
			out.Done++
			before = append(before, want)
			out.Asides = append(out.Asides, *aside)
		default:
			out.Asides = append(out.Asides, *aside)
		}
	}
	ordered, err := order(l.Radio, wants, r.Order)
	if err != nil {
		return nil, walk.Walk{}, err
	}
	way := walk.Along(l.Radio, ordered, before...)
	for _, s := range way.Stops {
		out.Stops = append(out.Stops, stop(l, bySlot[s.Wanted.Slot], s))
	}
	out.End, out.Effort = way.End, way.Effort
	out.costs(l.Radio, wants, ordered)
	return out, way, nil
}

// ask decides about one channel: it is keyed, or left aside.
func (w *Walk) ask(l *plan.Loading, c plan.Loaded, r WalkRequest) (keypad.Wanted, *Aside) {
	a := wanted(c.Entry, c.Result)
	if !r.Names {
		a.Short = ""
	}
	aside := &Aside{Slot: c.Entry.Slot, Name: c.Entry.Channel.Name}
	if reason := keypad.Write(a.Wanted, l.Radio).Reason; reason != "" {
		aside.Kind, aside.Why = "does not fit", reason
		return a.Wanted, aside
	}
	if _, transmits := c.Entry.Channel.Transmit(); transmits && len(a.stops) > 0 {
		aside.Kind, aside.Why = "held back", a.stops[0]
		return a.Wanted, aside
	}
	if !r.Again && c.Standing.Now != standing.Planned && !slices.Contains(r.Order, c.Entry.Slot) {
		aside.Kind, aside.Why = "stored", string(c.Standing.Now)
		return a.Wanted, aside
	}
	return a.Wanted, nil
}

// order puts channels into the order that is asked for, or the one that saves
// presses.
func order(p *radio.Profile, wants []keypad.Wanted, slots []int) ([]keypad.Wanted, error) {
	if len(slots) == 0 {
		return walk.Order(p, wants), nil
	}
	f := &fault.Invalid{}
	if len(slots) > maxStops {
		f.Add("order", "up to %d slots", maxStops)
		return nil, f
	}
	var out []keypad.Wanted
	for _, s := range slots {
		i := place(wants, s)
		if i < 0 || place(out, s) >= 0 {
			continue // taken out, held back or named twice meanwhile: the others go on
		}
		out = append(out, wants[i])
	}
	return out, nil
}

func place(wants []keypad.Wanted, slot int) int {
	return slices.IndexFunc(wants, func(w keypad.Wanted) bool { return w.Slot == slot })
}

// costs compares what the walk costs with other ways.
func (w *Walk) costs(p *radio.Profile, wants, ordered []keypad.Wanted) {
	w.Apart = walk.Apart(p, wants)
	w.InSlotOrder = walk.Along(p, wants).Effort
	nameless := slices.Clone(ordered)
	for i := range nameless {
		nameless[i].Short = ""
	}
	w.Nameless = walk.Along(p, nameless).Effort
}

func stop(l *plan.Loading, c plan.Loaded, s walk.Stop) Stop {
	e := c.Entry
	out := Stop{
		Channel: e.ChannelID, Slot: e.Slot, Name: e.Channel.Name, Short: e.ShortName, Fingerprint: c.Fingerprint, Verdict: c.Result.Verdict,
		Standing: c.Standing, Holds: s.Sheet.Holds, Sheet: s.Sheet, Effort: s.Effort, Alone: walk.Alone(l.Radio, s.Wanted), Doubts: wanted(e, c.Result).doubts,
		Says: entry.Sentence(entry.Say(&entry.Draft{Channel: s.Sheet.Holds})),
	}
	out.Sure, out.WhyNot = sure(l, c, s)
	return out
}

// sure says how the transmit side is made sure of. The read-out sends nothing; a
// dummy load is keyed, and so it is not offered for what must not be keyed.
func sure(l *plan.Loading, c plan.Loaded, s walk.Stop) (how, whyNot string) {
	_, transmits := s.Sheet.Holds.Transmit()
	_, planned := c.Entry.Channel.Transmit()
	switch {
	case !transmits && s.Wanted.Forbidden != "":
		return NotAtAll, s.Wanted.Forbidden + ": the transmitter is locked here."
	case !transmits && planned:
		return NotAtAll, "This radio cannot transmit as the channel needs: it is locked."
	case !transmits:
		return NotAtAll, "The channel is for listening."
	}
	if whyNot = l.InSpace(c); whyNot == "" && c.Closed() {
		whyNot = "The repeater is closed or private: ask its owner before you key it."
	}
	if _, ok := radio.Acts(l.Radio.Crib[radio.ReadOut]); ok {
		return ByReadOut, whyNot
	}
	if whyNot != "" {
		return NotAtAll, whyNot
	}
	return ByDummyLoad, ""
}

// Wrong returns what the display would show after slips in a stop of a walk.
func (p *Sheets) Wrong(ctx context.Context, loadID int64, r WalkRequest, slot int) ([]walk.Shown, error) {
	w, way, err := p.walk(ctx, loadID, r)
	if err != nil {
		return nil, err
	}
	i := slices.IndexFunc(way.Stops, func(s walk.Stop) bool { return s.Wanted.Slot == slot })
	if i < 0 {
		f := &fault.Invalid{}
		f.Add("slot", "slot %d is not on this walk", slot)
		return nil, f
	}
	if len(w.Stops[i].Sheet.Check) > 0 {
		return nil, nil // the profile leaves something open: nothing can be tried out
	}
	return walk.Wrong(w.Radio, way.Stops[:i+1])
}

// Mark says what a person did to a radio for a channel.
func (p *Sheets) Mark(ctx context.Context, loadID int64, t plan.Tick) (*plan.Ledger, error) {
	return p.plans.Tick(ctx, loadID, t)
}
