// Package scan works out what a scanning receiver catches: how long it is away from
// each channel, which of the overs there it hears, and what would have to change for
// it to hear more.
//
//	r := scan.Reckon(scan.Setup{Channels: list, Look: 7.0 / 30, Resume: scan.Time, Stay: 5, Priority: scan.None})
//	r.Chance(2, 5) // how much of the overs of 5 s on the third channel is heard
//
// Times are in seconds, rates in overs an hour.
//
// # What is reckoned
//
// The receiver looks at one channel after another; a look takes D. An over is heard
// if the squelch opens on it, which takes d: it must last into a look, and the look
// must last until the squelch is open. Without stops an over of length L is heard with
// the chance clamp((L + D − 2d) / T, 0, 1), T being the round, and never if L < d or
// d > D. With stops the times away differ from round to round, and each channel is
// found busy more often the longer nobody looked; both are carried through, as a
// process that is silent or not, looked at again after what the other channels take.
//
// Overs are taken to begin at random, and to be as widely spread in their lengths as a
// decay is (an exponential law: common practice for talk, no source). What stops at one
// channel is taken not to depend on what stops at another, unless both hear the same
// output. A stop counts as one look; the channel with priority is not looked at while
// the receiver stays somewhere else.
package scan

import "math"

// Resume is how a scan goes on after it has stopped.
type Resume string

// The ways in which a scan goes on.
const (
	Time    Resume = "time"    // Stay seconds after it has stopped, whatever is heard
	Carrier Resume = "carrier" // Stay seconds after the signal has gone
	Search  Resume = "search"  // when the person presses a key, reckoned with Stay seconds
)

// Resumes are the ways in which a scan goes on.
var Resumes = []Resume{Time, Carrier, Search}

// None is no channel.
const None = -1

// away reports whether the scan leaves a channel out.
func (c Channel) away() bool { return c.Out || c.Second }

// Channel is a channel as a scan meets it.
type Channel struct {
	Opens  float64 // s until the squelch is open on a signal that it is for
	Rate   float64 // overs an hour
	Length float64 // of an over, the mean in s
	Always bool    // a carrier that never falls silent
	Out    bool    // it is not scanned: it keeps its place in the list
	Second bool    // a second receiver stays on it; it is not scanned
	// Output numbers what is heard: channels of the same number hear the same overs. 0
	// for one that shares with nobody.
	Output int
}

// Setup is what a receiver scans, and how.
type Setup struct {
	Channels []Channel // in the order of the looks
	Look     float64   // s that a look takes
	Resume   Resume
	Stay     float64 // s, see Resume
	Priority int     // the channel that is looked at between others; None for none
	Every    int     // after how many looks at others
}

// Figures are what a scan makes of one channel.
type Figures struct {
	Return float64 // s from one look to the next, the revisit time
	Away   float64 // s from leaving the channel until the next look
	Wait   float64 // s until the receiver looks, from any moment
	Share  float64 // of the receiver's time, 0 to 1
	Stops  float64 // an hour
	Stop   float64 // the chance that a look stops
	Stayed float64 // s that a stop takes
	Missed float64 // overs an hour that are not heard
	Never  bool    // a look is too short for the squelch to open
}

// Result is what a scan makes of its channels.
type Result struct {
	Setup   Setup
	Round   float64 // s until every channel was looked at; +Inf where it never goes on
	Looks   float64 // a round
	Of      []Figures
	Stuck   int     // the channel from which it never goes on; None where there is none
	Overs   float64 // an hour on all channels, without carriers that never fall silent
	Heard   float64 // of these
	windows [][]window
}

// Chance is how much of the overs of a length is heard on a channel, 0 to 1.
func (r *Result) Chance(channel int, length float64) float64 {
	c := r.Setup.Channels[channel]
	switch {
	case c.Second && length >= c.Opens:
		return 1
	case c.Out, c.Second:
		return 0
	case r.Stuck == channel || c.Always && r.Stuck == None && !r.Of[channel].Never:
		return 1
	case r.Stuck != None, length < c.Opens:
		return 0
	}
	var caught, all float64
	for _, w := range r.windows[channel] {
		c, a := w.begun(length)
		caught += c
		all += a
	}
	if all <= 0 {
		return 0
	}
	return min(1, max(0, caught/all))
}

// Reach is the shortest over of which a share is heard on a channel; +Inf where none
// below an hour is.
func (r *Result) Reach(channel int, share float64) float64 {
	low, high := 0.0, 3600.0
	if r.Chance(channel, high) < share {
		return math.Inf(1)
	}
	for high-low > 0.005 {
		if mid := (low + high) / 2; r.Chance(channel, mid) >= share {
			high = mid
		} else {
			low = mid
		}
	}
	return high
}
