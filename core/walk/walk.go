// Package walk leads through a whole radio: which channel is keyed next, what stays
// from the one before, how much is pressed, and what was done wrong where the display
// shows something else.
//
//	w := walk.Along(profile, walk.Order(profile, wants))
//
// A walk begins from a stated state. What its steps have set stands until another
// step changes it; after a pause, or when the radio was switched off, nothing is known
// any more and the rest is a walk of its own.
package walk

import (
	"mnemos/core/freq"
	"mnemos/core/keypad"
	"mnemos/core/radio"
)

// Stop is one channel on the way.
type Stop struct {
	Wanted keypad.Wanted
	Sheet  keypad.Sheet
	Effort keypad.Effort
}

// Walk is the way through a radio.
type Walk struct {
	Stops  []Stop
	End    keypad.Sheet  // what puts the radio back
	Effort keypad.Effort // of all
	Left   []Stop        // what cannot be keyed: the sheet has a reason and no steps
}

// Along walks in the order that is given. before are those that were keyed earlier,
// before the radio was put down: what they left is put back at the end too.
func Along(p *radio.Profile, wants []keypad.Wanted, before ...keypad.Wanted) Walk {
	var w Walk
	var known keypad.State
	for _, want := range wants {
		var s keypad.Sheet
		s, known = keypad.Continue(want, p, known)
		stop := Stop{want, s, s.Effort()}
		if s.Reason != "" {
			w.Left = append(w.Left, stop)
			continue
		}
		w.Stops = append(w.Stops, stop)
		w.Effort = w.Effort.Add(stop.Effort)
	}
	if len(w.Stops) > 0 {
		var earlier []freq.Hz
		for _, b := range before {
			held, _ := radio.Fit(b.Channel, p)
			earlier = append(earlier, held.Receive)
		}
		w.End = keypad.Restore(p, known, earlier...)
		w.Effort = w.Effort.Add(w.End.Effort())
	}
	return w
}

// Alone is how much is pressed for one channel that is keyed from the stated state,
// without what puts the radio back.
func Alone(p *radio.Profile, want keypad.Wanted) keypad.Effort {
	s, _ := keypad.Continue(want, p, keypad.State{})
	return s.Effort()
}

// Apart is how much is pressed when each channel is keyed from the stated state.
func Apart(p *radio.Profile, wants []keypad.Wanted) (e keypad.Effort) {
	for _, want := range wants {
		e = e.Add(Along(p, []keypad.Wanted{want}).Effort)
	}
	return e
}
