package relay

import (
	"time"

	"mnemos/core/rf"
)

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
