// Package standing says how far a channel has come into a radio: planned, stored,
// keyed, proven. What was done to a radio holds for what the radio held then: it
// hangs on a fingerprint, and any edit that changes what the radio is to hold makes
// the channel planned again.
package standing

import (
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"slices"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/radio"
)

// State is how far a channel has come.
type State string

// The states, in their order.
const (
	Planned State = "planned" // in the plan alone
	Stored  State = "stored"  // in the radio
	Keyed   State = "keyed"   // the display showed the right transmit frequency
	Proven  State = "proven"  // it was answered on the air
)

// States are all of them, in their order.
var States = []State{Planned, Stored, Keyed, Proven}

// Valid reports whether s is one of them.
func (s State) Valid() bool { return slices.Contains(States, s) }

// Held is what a slot of a radio is to hold.
type Held struct {
	Slot    int
	Channel channel.Channel
	Short   string
	Scan    entry.Scan
}

// Fingerprint is that of what a radio will really hold: the frequencies, tones and
// settings after Fit, the slot, the short name and the scanning. The long name is
// not in it: no radio holds that.
func Fingerprint(h Held, p *radio.Profile) string {
	c, _ := radio.Fit(h.Channel, p)
	return of(h, c)
}

// OfFitted is the fingerprint where the channel was fitted already.
func OfFitted(h Held, fitted channel.Channel) string { return of(h, fitted) }

func of(h Held, c channel.Channel) string {
	tx, sends := c.Transmit()
	sum := sha256.Sum256(fmt.Appendf(nil, "%d|%d|%d|%t|%s|%s|%s|%s|%q|%s", h.Slot, c.Receive, tx, sends, c.TransmitTone, c.ReceiveTone, c.Width, c.Power, h.Short, h.Scan))
	return hex.EncodeToString(sum[:12])
}

// Record is what was done to a radio for a channel, and what it held then.
type Record struct {
	State       State
	Fingerprint string
}

// Now is how far the channel has come, with what the radio is to hold now; was is
// what it had come to before that changed, or "".
func (r Record) Now(fingerprint string) (now, was State) {
	if r.State == "" || r.State == Planned {
		return Planned, ""
	}
	if r.Fingerprint != fingerprint {
		return Planned, r.State
	}
	return r.State, ""
}
