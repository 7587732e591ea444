package relay

import (
	"time"

	"mnemos/core/freq"
	"mnemos/core/rf"
	"mnemos/core/tone"
)

// The stations of the world of a relay, and the ports of the vehicle.
const (
	endA, van, endB, listener, them = 0, 1, 2, 3, 4
	sideA, sideB                    = 0, 1
)

// world is the radio world of a relay.
type world struct {
	rf.World
	setup Setup
}

// newWorld draws the stations: an end on either side, the vehicle, somebody who listens at
// end B, and somebody who talks there.
func newWorld(s Setup) *world {
	w := &world{setup: s}
	w.Stations = []rf.Station{w.end("A"), w.vehicle(), w.end("B"), w.listener(), w.talker("B")}
	return w
}

// twoWords of DCS are 46 bits at 134.4 bit/s. Source: TIA-603.
const twoWords = 342 * time.Millisecond

// decode is how long a receiver takes to know a tone: two words for DCS, common practice
// for CTCSS.
func decode(t tone.Tone) time.Duration {
	if t.Kind() == tone.DCS {
		return twoWords
	}
	return ms(data.DecodeCTCSS)
}

func receiver(f freq.Hz, lock tone.Tone, d delays) rf.Receiver {
	return rf.Receiver{Freq: f, Lock: lock, Squelch: ms(d.Squelch), Decode: decode(lock), Close: ms(d.Close), Recover: ms(d.Recover)}
}

func transmitter(f freq.Hz, key tone.Tone, d delays) rf.Transmitter {
	return rf.Transmitter{Freq: f, Key: key, Turn: ms(d.Turn), Rise: ms(d.Rise)}
}

// end is the station at an end: a repeater, or a radio on simplex.
func (w *world) end(letter string) rf.Station {
	t, side := w.setup.terminal(letter), w.setup.side(letter)
	lock, key := t.lock.tone, t.key.tone
	if t.repeater {
		if !t.lock.known { // taken to open to what is sent
			lock = side.Channel.TransmitTone
		}
		if !t.key.known { // and to send what is waited for: a loop is not argued away
			key = side.Channel.ReceiveTone
		}
		rx, tx := receiver(t.hears, lock, data.Repeater), transmitter(t.sendsOn, key, data.Repeater)
		rx.Keys, tx.Hang = []int{0}, ms(data.Hang)
		return rf.Station{Name: t.name, Transmitters: []rf.Transmitter{tx}, Receivers: []rf.Receiver{rx}}
	}
	if !t.lock.known {
		lock = side.Channel.TransmitTone
	}
	rx := receiver(t.hears, lock, data.Handheld)
	rx.Own = []int{0}
	st := rf.Station{Name: t.name, Receivers: []rf.Receiver{rx}, Transmitters: []rf.Transmitter{transmitter(t.sendsOn, key, data.Handheld)}}
	if t.silent {
		st.Transmitters[0].Freq = 0 // nobody hears it
	}
	return st
}

func (w *world) vehicle() rf.Station {
	s := w.setup
	port := func(side Side, own, keys int) (rf.Receiver, rf.Transmitter) {
		f, sends := side.sends()
		if !sends {
			f = -freq.Hz(own + 1) // nobody hears it
		}
		rx, tx := receiver(side.Channel.Receive, side.Channel.ReceiveTone, data.Vehicle), transmitter(f, side.Channel.TransmitTone, data.Vehicle)
		rx.Own, rx.Keys, tx.Timeout = []int{own}, []int{keys}, time.Duration(s.Timeout)*time.Minute
		return rx, tx
	}
	aIn, aOut := port(s.A, sideA, sideB)
	bIn, bOut := port(s.B, sideB, sideA)
	if s.Way == Out {
		bIn.Keys = nil
	}
	if s.Way == Back {
		aIn.Keys = nil
	}
	return rf.Station{Name: s.Vehicle.Name, Transmitters: []rf.Transmitter{aOut, bOut}, Receivers: []rf.Receiver{aIn, bIn}}
}

// listener is somebody who listens at end B without a tone: what its repeater sends.
func (w *world) listener() rf.Station {
	rx := receiver(w.setup.B.Channel.Receive, tone.Off, data.Listener)
	if !w.setup.B.Repeater() {
		rx = receiver(w.setup.terminal("B").hears, tone.Off, data.Listener)
	}
	return rf.Station{Name: "a listener", Receivers: []rf.Receiver{rx}}
}

// talker is somebody else who uses an end: into its repeater, or on its frequency.
func (w *world) talker(letter string) rf.Station {
	end := w.end(letter)
	tx := transmitter(end.Receivers[0].Freq, end.Receivers[0].Lock, data.Handheld)
	if !w.setup.side(letter).Repeater() {
		tx = end.Transmitters[0]
	}
	return rf.Station{Name: "them", Transmitters: []rf.Transmitter{tx}}
}

func port(station, at int) rf.Port { return rf.Port{Station: station, At: at} }

// shares is how much of ten minutes each side of the vehicle is on the air with a talk.
func (w *world) shares(t Talk) (a, b float64) {
	const ten = 10 * time.Minute
	var overs []rf.Over
	each := time.Duration(t.Seconds * float64(time.Second))
	now, mine, theirs := time.Duration(0), 0, 0
	for mine < t.Mine || theirs < t.Theirs {
		me := theirs >= t.Theirs || mine < t.Mine && mine*t.Theirs <= theirs*t.Mine
		tx := port(them, 0)
		if me {
			tx, mine = port(endA, 0), mine+1
			now += ms(data.Hang) + ms(500) // one waits for the tail to drop
		} else {
			theirs++
			now += 1500 * time.Millisecond
		}
		overs = append(overs, rf.Over{Tx: tx, From: now, To: now + each})
		now += each
	}
	r := w.Run(overs, ten)
	return r.Share(port(van, sideA), 0, ten), r.Share(port(van, sideB), 0, ten)
}
