// Package rf is a small world of radio stations: transmitters that key, receivers that
// open after their squelch and their tone decoder, and stations that key one by the
// other. It runs as events, and says from its drawing alone whether it can loop.
//
//	w := rf.World{Stations: []rf.Station{handheld, vehicle, repeater}}
//	r := w.Run([]rf.Over{{Tx: rf.Port{Station: 0}, From: 0, To: 4 * time.Second}}, time.Minute)
//	r.Sent(rf.Port{Station: 2}) // when the repeater was on the air
//
// # What is in it
//
// Who hears whom is asked of the world; frequencies have to be the same. A receiver opens
// when a carrier has been there for its squelch and, where it waits for a tone, a carrier
// with that tone for its decoder after that. It holds on for a while when what opened it
// has gone. It hears nothing while its own transmitter is on, and for a moment after.
//
// A receiver that is open keys a transmitter of its station, which turns and rises first;
// a repeater stays on the air for its hang time after that, with its tone or without it.
// A time-out cuts it off until the receiver has closed.
//
// # What is not
//
// Of carriers on one frequency at once each is heard as if it were alone: which of them
// captures the receiver depends on levels that nobody knows. Speech is not part of it.
package rf

import (
	"time"

	"mnemos/core/freq"
	"mnemos/core/tone"
)

// Transmitter is one of a station.
type Transmitter struct {
	Freq freq.Hz
	Key  tone.Tone     // that it sends
	Turn time.Duration // from being keyed to switching over
	Rise time.Duration // from there to a carrier
	// Hang is how long it stays on the air when nothing keys it any more.
	Hang time.Duration
	Bare bool // it sends no tone while it hangs
	// Timeout is how long it may be keyed without a pause; 0 for as long as one likes.
	Timeout time.Duration
}

// Receiver is one of a station.
type Receiver struct {
	Freq    freq.Hz
	Lock    tone.Tone     // what it waits for; Off for any carrier
	Squelch time.Duration // until it sees a carrier
	Decode  time.Duration // until it knows its tone
	Close   time.Duration // that it holds on when what opened it has gone
	Keys    []int         // the transmitters of its station that it keys
	Own     []int         // the transmitters of its station that make it deaf
	Recover time.Duration // that it stays deaf after them
}

// Station has transmitters and receivers.
type Station struct {
	Name         string
	Transmitters []Transmitter
	Receivers    []Receiver
}

// Port names a transmitter or a receiver of a station, each counted from 0.
type Port struct{ Station, At int }

// World is stations, and who hears whom.
type World struct {
	Stations []Station
	// Hears reports whether a receiver's station is in reach of a transmitter's; nil for
	// everybody hears everybody.
	Hears func(receiver, transmitter int) bool
}

// Over is a person who keys a transmitter.
type Over struct {
	Tx       Port
	From, To time.Duration
}

// hears reports whether a receiver is on the frequency of a transmitter, in reach of it,
// and not made deaf by it.
func (w *World) hears(r, t Port) bool {
	rx, tx := &w.Stations[r.Station].Receivers[r.At], &w.Stations[t.Station].Transmitters[t.At]
	if rx.Freq != tx.Freq {
		return false
	}
	if r.Station == t.Station {
		for _, own := range rx.Own {
			if own == t.At {
				return false
			}
		}
		return true
	}
	return w.Hears == nil || w.Hears(r.Station, t.Station)
}

// opens reports whether what a transmitter sends is what a receiver waits for.
func opens(rx *Receiver, key tone.Tone) bool { return rx.Lock.IsOff() || tone.Same(key, rx.Lock) }

func (w *World) transmitters() (out []Port) {
	for i, s := range w.Stations {
		for k := range s.Transmitters {
			out = append(out, Port{i, k})
		}
	}
	return out
}

func (w *World) receivers() (out []Port) {
	for i, s := range w.Stations {
		for k := range s.Receivers {
			out = append(out, Port{i, k})
		}
	}
	return out
}
