package relay

import (
	"fmt"
	"math"
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

// Part is what one station adds to the wait.
type Part struct {
	Name    string
	Seconds float64
}

// Band is a stretch on the air, or of a receiver that listens, in seconds.
type Band struct {
	Of   string // endA, A, B, endB
	From float64
	To   float64
	Tail bool
}

// Met is how a receiver came to open, in seconds; negative for never.
type Met struct {
	Of                          string
	Carrier, Squelch, Open, End float64
}

// Over is one over from the end of the link through the vehicle.
type Over struct {
	Speaks  string  // which end, A or B
	Release float64 // when the key is let go, in s after it was pressed
	Until   float64
	Wait    float64 // before the first word is heard; negative where nothing is
	Parts   []Part
	Breaks  string  // where it ends, if nothing is heard
	Again   float64 // after letting go, until the vehicle hears one again
	Gap     float64 // a gap that is too short
	Lost    float64 // of what is said after that gap, in s
	Sent    []Band
	Met     []Met
}

const (
	speech  = 4 * time.Second
	tooSoon = time.Second
)

// over follows one over from end A to end B, or from B to A where A only listens.
func (w *world) over() *Over {
	s := w.setup
	if s.Way == Back || linkSide(s) == "B" && s.Way == Both {
		return w.turned().over1("B")
	}
	return w.over1("A")
}

// turned is the same world with its sides the other way round, so that what follows has to
// know of one way alone.
func (w *world) turned() *world {
	s := w.setup
	s.A, s.B = s.B, s.A
	switch s.Way {
	case Back:
		s.Way = Out
	case Out:
		s.Way = Back
	default:
	}
	return newWorld(s)
}

func (w *world) over1(speaks string) *Over {
	until := speech + 3*ms(data.Hang) + 10*time.Second
	r := w.Run([]rf.Over{{Tx: port(endA, 0), To: speech}}, until)
	o := &Over{Speaks: speaks, Release: speech.Seconds(), Until: until.Seconds(), Gap: tooSoon.Seconds(), Wait: -1}
	if w.setup.A.Repeater() { // somebody speaks into it
		return w.overFrom(o, speaks)
	}
	w.follow(o, r, port(endA, 0))
	w.again(o, r)
	w.draw(o, r, speaks)
	return o
}

// overFrom is an over by somebody who speaks into the repeater at end A.
func (w *world) overFrom(o *Over, speaks string) *Over {
	w.Stations[them] = w.talker("A")
	r := w.Run([]rf.Over{{Tx: port(them, 0), To: speech}}, time.Duration(o.Until*float64(time.Second)))
	w.follow(o, r, port(them, 0))
	o.Again = 0
	w.draw(o, r, speaks)
	return o
}

// follow adds up what the stations take, one after the other.
func (w *world) follow(o *Over, r *rf.Run, first rf.Port) {
	at := time.Duration(0)
	step := func(name string, until time.Duration, ok bool) bool {
		if !ok {
			o.Breaks = name
			return false
		}
		o.Parts = append(o.Parts, Part{name, (until - at).Seconds()})
		at = until
		return true
	}
	began := func(p rf.Port) (time.Duration, bool) {
		list := r.Sent(p)
		return firstFrom(list), len(list) > 0 && list[0].From < speech
	}
	if t, ok := began(first); !step(w.Stations[first.Station].Name, t, ok) {
		return
	}
	if first.Station == them {
		if t, ok := began(port(endA, 0)); !step(w.Stations[endA].Name, t, ok) {
			return
		}
	}
	if t, ok := began(port(van, sideB)); !step(w.Stations[van].Name, t, ok) {
		return
	}
	last := port(listener, 0)
	if w.setup.B.Repeater() {
		if t, ok := began(port(endB, 0)); !step(w.Stations[endB].Name, t, ok) {
			return
		}
	} else {
		last = port(endB, 0)
	}
	for _, h := range r.Heard(last) {
		if h.Open != rf.None && h.Open < speech {
			name := w.Stations[listener].Name
			if last.Station == endB {
				name = w.Stations[endB].Name
			}
			step(name, h.Open, true)
			o.Wait = h.Open.Seconds()
			return
		}
	}
	o.Breaks = w.Stations[last.Station].Name
}

func firstFrom(list []rf.Sent) time.Duration {
	if len(list) == 0 {
		return 0
	}
	return list[0].From
}

// again is when one can key again after letting go, and what is lost of an over that comes
// too soon.
func (w *world) again(o *Over, r *rf.Run) {
	free := speech
	for _, x := range r.Sent(port(van, sideA)) {
		if x.To > speech {
			free = max(free, x.To+ms(data.Vehicle.Recover))
		}
	}
	o.Again = (free - speech).Seconds()
	key := speech + tooSoon
	second := w.Run([]rf.Over{{Tx: port(endA, 0), To: speech}, {Tx: port(endA, 0), From: key, To: key + 20*time.Second}}, key+25*time.Second)
	heard := rf.None
	far := port(endB, 0)
	for _, h := range second.Heard(far) {
		if h.Open != rf.None && h.Open > key && heard == rf.None {
			heard = h.Open
		}
	}
	if heard == rf.None {
		o.Lost = -1
		return
	}
	if w.setup.B.Repeater() { // it may hang still, and else has to rise
		for _, x := range second.Sent(far) {
			if x.From >= heard || x.To > heard {
				heard = max(heard, x.From)
				break
			}
		}
	}
	o.Lost = (heard - key).Seconds()
}

// draw notes who was on the air and who heard.
func (w *world) draw(o *Over, r *rf.Run, speaks string) {
	names := map[bool][4]string{true: {"endA", "A", "B", "endB"}, false: {"endB", "B", "A", "endA"}}[speaks == "A"]
	ports := [4]rf.Port{port(endA, 0), port(van, sideA), port(van, sideB), port(endB, 0)}
	for i, p := range ports {
		for _, x := range r.Sent(p) {
			o.Sent = append(o.Sent, Band{names[i], x.From.Seconds(), x.To.Seconds(), x.Tail})
		}
		for _, h := range r.Heard(p) {
			o.Met = append(o.Met, Met{names[i], h.Carrier.Seconds(), seconds(h.Squelch), seconds(h.Open), h.End.Seconds()})
		}
	}
}

func seconds(d time.Duration) float64 {
	if d == rf.None {
		return -1
	}
	return d.Seconds()
}

// Loop is what two repeaters do to each other through the vehicle.
type Loop struct {
	May    bool    // by who hears whom
	Does   bool    // it goes on without anybody
	Quiet  float64 // s after the call until all is silent; 0 where it never is
	Period float64 // s of a turn
	Hourly float64 // turns
	Long   float64 // s of the longest stretch on the air: no time-out that is longer ends it
	Shares [4]float64
	Ends   []Ending
	Sent   []Band
	Call   float64
	Until  float64
}

// Ending is a change that may end a loop.
type Ending struct {
	Says  string
	Quiet float64 // s after the call; 0 for never
	Way   Way     // a fix that can be taken, or ""
}

const (
	call  = 2 * time.Second
	watch = 5 * time.Minute
)

// loop runs two repeaters after one short call on the first.
func (w *world) loop() *Loop {
	w.Stations[them] = w.talker("A")
	l := &Loop{May: w.MayLoop(), Call: call.Seconds(), Until: watch.Seconds()}
	r := w.Run([]rf.Over{{Tx: port(them, 0), To: call}}, watch)
	l.Quiet, l.Does = silentAfter(r)
	from := watch / 2
	for i, p := range []rf.Port{port(endA, 0), port(van, sideA), port(van, sideB), port(endB, 0)} {
		l.Shares[i] = r.Share(p, from, watch)
		for _, x := range r.Sent(p) {
			if x.From < 30*time.Second {
				l.Sent = append(l.Sent, Band{[]string{"endA", "A", "B", "endB"}[i], x.From.Seconds(), min(x.To, 30*time.Second).Seconds(), x.Tail})
			}
			l.Long = max(l.Long, (x.To - x.From).Seconds())
		}
	}
	if !l.Does {
		return l
	}
	if list := starts(r.Sent(port(van, sideB))); len(list) > 3 {
		n := len(list)
		l.Period = (list[n-1] - list[n-3]).Seconds() / 2
		l.Hourly = math.Round(3600 / l.Period)
	}
	l.Ends = w.endings()
	return l
}

// starts are when carriers came on.
func starts(list []rf.Sent) (out []time.Duration) {
	last := rf.None
	for _, x := range list {
		if x.From != last {
			out = append(out, x.From)
		}
		last = x.To
	}
	return out
}

// silentAfter is when all fell silent after the call, in seconds; does where nothing did.
func silentAfter(r *rf.Run) (quiet float64, does bool) {
	at, ok := r.Last()
	if !ok || at > r.Until-20*time.Second {
		return 0, true
	}
	return max(0, (at - call).Seconds()), false
}

// endings tries what would end the loop.
func (w *world) endings() []Ending {
	try := func(change func(*world)) float64 {
		v := newWorld(w.setup)
		v.Stations[them] = v.talker("A")
		change(v)
		quiet, _ := silentAfter(v.Run([]rf.Over{{Tx: port(them, 0), To: call}}, watch))
		return quiet
	}
	far := w.Stations[endB].Name
	hang := func(d time.Duration) func(*world) {
		return func(v *world) { v.Stations[endB].Transmitters[0].Hang = d }
	}
	timeout := try(func(v *world) {
		v.Stations[van].Transmitters[sideA].Timeout, v.Stations[van].Transmitters[sideB].Timeout = 3*time.Minute, 3*time.Minute
	})
	low, high := time.Duration(0), ms(data.Hang)
	for high-low > ms(10) {
		if mid := (low + high) / 2; try(hang(mid)) > 0 {
			low = mid
		} else {
			high = mid
		}
	}
	out := []Ending{
		{Says: w.setup.Vehicle.Name + "’s time-out at 3 min", Quiet: timeout},
		{Says: far + "’s tail cut from 3.0 to 1.0 s", Quiet: try(hang(time.Second))},
	}
	if q := try(hang(low)); q > 0 {
		out = append(out, Ending{Says: fmt.Sprintf("%s’s tail cut below %.2f s", far, high.Seconds()), Quiet: q})
	}
	return append(out,
		Ending{Says: "No tone on " + far + "’s tail", Quiet: try(func(v *world) { v.Stations[endB].Transmitters[0].Bare = true })},
		Ending{Says: "One way, " + w.Stations[endA].Name + " to " + far, Quiet: try(func(v *world) { v.Stations[van].Receivers[sideB].Keys = nil }), Way: Out},
	)
}

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
