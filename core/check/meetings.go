package check

import (
	"fmt"

	"mnemos/core/freq"
)

// Meeting is how a channel gets into another one of the same radio on the air.
type Meeting struct {
	Kind  MeetingKind
	Other int     // the slot of the other channel
	At    freq.Hz // where
	Says  string
}

// MeetingKind is the way in which two channels meet.
type MeetingKind string

// The ways to meet.
const (
	SharedInput MeetingKind = "input"    // both key the same input: one over opens two repeaters
	OnOutput    MeetingKind = "output"   // one transmits where the other listens
	ThirdOf     MeetingKind = "harmonic" // the third harmonic of one falls on the other
)

// Meetings returns how a channel in a slot meets the others. Simplex channels on
// one frequency are the same channel twice, and no meeting.
func (r *Occupancy) Meetings(in Other) (out []Meeting) {
	tx, sends := in.Channel.Transmit()
	if !sends {
		return nil
	}
	rx := in.Channel.Receive
	for _, o := range r.sending(tx, tx) {
		if o.Slot != in.Slot && o.Channel.Receive != rx && tx != rx && transmits(o) != o.Channel.Receive {
			out = append(out, Meeting{SharedInput, o.Slot, tx, fmt.Sprintf("%s has the same input: what you send may open both", title(o))})
		}
	}
	for _, o := range r.receiving(tx, tx) {
		if o.Slot != in.Slot && o.Channel.Receive != rx {
			out = append(out, Meeting{OnOutput, o.Slot, tx, fmt.Sprintf("you transmit where %s is received", title(o))})
		}
	}
	for _, o := range r.receiving(3*tx-inside, 3*tx+inside) {
		if o.Slot != in.Slot {
			out = append(out, Meeting{ThirdOf, o.Slot, 3 * tx, fmt.Sprintf("3 × %s falls on %s", tx.MHz(), title(o))})
		}
	}
	return out
}
