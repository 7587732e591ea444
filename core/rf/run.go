package rf

import (
	"slices"
	"time"

	"mnemos/core/tone"
)

// Sent is a stretch for which a transmitter was on the air in one way: keyed, or in its
// hang time. Stretches that follow each other are one carrier.
type Sent struct {
	From, To time.Duration
	Tail     bool
}

// Heard is a carrier as a receiver met it: when it was there, when the squelch saw it, when
// the receiver opened, and when that closed or the carrier went. What did not come is None.
type Heard struct {
	Carrier, Squelch, Open, End time.Duration
}

// None is a time that never came.
const None = time.Duration(-1)

// Run is what happened in a world.
type Run struct {
	Until time.Duration
	sent  map[Port][]Sent
	heard map[Port][]Heard
}

// Sent is when a transmitter was on the air.
func (r *Run) Sent(p Port) []Sent { return r.sent[p] }

// Heard is what a receiver met.
func (r *Run) Heard(p Port) []Heard { return r.heard[p] }

// Last is when the last transmitter fell silent; ok is false where one is still on the
// air at the end.
func (r *Run) Last() (at time.Duration, ok bool) {
	for _, list := range r.sent {
		if n := len(list); n > 0 {
			at = max(at, list[n-1].To)
		}
	}
	return at, at < r.Until
}

// Share is how much of a time a transmitter was on the air.
func (r *Run) Share(p Port, from, to time.Duration) float64 {
	var on time.Duration
	for _, s := range r.sent[p] {
		on += max(0, min(s.To, to)-max(s.From, from))
	}
	return float64(on) / float64(to-from)
}

// least is what every delay takes at the least: nothing happens at once with what causes it.
const least = time.Millisecond

type receiver struct {
	Port
	*Receiver
	hears []int // of the transmitters of the run
	own   []int
	// Since when, or None.
	seen, decoding, gone time.Duration
	squelched, open      bool
	free                 time.Duration // until then it is deaf
	now                  *Heard
}

type transmitter struct {
	Port
	*Transmitter
	by          []int // receivers that key it
	overs       []Over
	keyed, on   bool
	cut         bool // by its time-out
	since       time.Duration
	keyedSince  time.Duration
	hangs       time.Duration // until then it hangs
	wants, tail bool
}

// simulation is the state of a run.
type simulation struct {
	rx  []*receiver
	tx  []*transmitter
	at  time.Duration
	run *Run
}

// Run lets people key what they key, until a time. Overs of one transmitter may overlap.
func (w *World) Run(overs []Over, until time.Duration) *Run {
	s := w.simulation(overs, until)
	for {
		s.settle()
		next := s.next()
		if next > until {
			break
		}
		s.at = next
	}
	s.at = until
	for _, t := range s.tx {
		s.log(t)
	}
	return s.run
}

func (w *World) simulation(overs []Over, until time.Duration) *simulation {
	s := &simulation{run: &Run{Until: until, sent: map[Port][]Sent{}, heard: map[Port][]Heard{}}}
	index := map[Port]int{}
	for i, p := range w.transmitters() {
		index[p] = i
		t := &transmitter{Port: p, Transmitter: &w.Stations[p.Station].Transmitters[p.At], since: None}
		for _, o := range overs {
			if o.Tx == p && o.To > o.From {
				t.overs = append(t.overs, o)
			}
		}
		s.tx = append(s.tx, t)
	}
	for i, p := range w.receivers() {
		r := &receiver{Port: p, Receiver: &w.Stations[p.Station].Receivers[p.At], seen: None, decoding: None, gone: None}
		for _, t := range s.tx {
			if w.hears(p, t.Port) {
				r.hears = append(r.hears, index[t.Port])
			}
		}
		for _, at := range r.Own {
			r.own = append(r.own, index[Port{p.Station, at}])
		}
		for _, at := range r.Keys {
			t := s.tx[index[Port{p.Station, at}]]
			t.by = append(t.by, i)
		}
		s.rx = append(s.rx, r)
	}
	return s
}

// settle carries what happens at this moment through, until nothing changes any more.
// Delays keep it from going on for ever: what a receiver opens keys later.
func (s *simulation) settle() {
	for changed := true; changed; {
		changed = false
		for _, r := range s.rx {
			changed = s.receive(r) || changed
		}
		for _, t := range s.tx {
			changed = s.transmit(t) || changed
		}
	}
}

// sends is the tone that is on the air.
func (t *transmitter) sends() tone.Tone {
	if t.tail && t.Bare {
		return tone.Off
	}
	return t.Key
}

// receive carries a receiver on; it reports whether it opened or closed.
func (s *simulation) receive(r *receiver) bool {
	deaf := s.at < r.free
	for _, i := range r.own {
		if s.tx[i].on {
			deaf, r.free = true, s.at+max(r.Recover, least)
		}
	}
	carrier, right := false, false
	for _, i := range r.hears {
		if t := s.tx[i]; t.on && !deaf {
			carrier = true
			right = right || opens(r.Receiver, t.sends())
		}
	}
	if r.open {
		return s.hold(r, deaf, carrier, right)
	}
	if !carrier {
		s.end(r)
		return false
	}
	if r.seen == None {
		r.seen, r.now = s.at, &Heard{s.at, None, None, None}
	}
	if !r.squelched && s.at-r.seen >= max(r.Squelch, least) {
		r.squelched, r.now.Squelch = true, s.at
	}
	if !right {
		r.decoding = None
	}
	if !r.squelched || !right {
		return false
	}
	if r.decoding == None {
		r.decoding = s.at
	}
	if !r.Lock.IsOff() && s.at-r.decoding < r.Decode {
		return false
	}
	r.open, r.now.Open, r.gone = true, s.at, None
	return true
}

// hold keeps an open receiver open for as long as what opened it is there, and a moment longer.
func (s *simulation) hold(r *receiver, deaf, carrier, right bool) bool {
	if right {
		r.gone = None
		return false
	}
	if r.gone == None {
		r.gone = s.at
	}
	if !deaf && s.at-r.gone < r.Close {
		return false
	}
	r.open, r.decoding = false, None
	if !carrier {
		s.end(r)
	}
	return true
}

// end closes what is noted of a carrier.
func (s *simulation) end(r *receiver) {
	if r.now != nil {
		r.now.End = s.at
		s.run.heard[r.Port] = append(s.run.heard[r.Port], *r.now)
	}
	r.now, r.seen, r.decoding, r.squelched = nil, None, None, false
}

// transmit carries a transmitter on; it reports whether it came on, went off or began to
// hang.
func (s *simulation) transmit(t *transmitter) bool {
	keyed := slices.ContainsFunc(t.overs, func(o Over) bool { return o.From <= s.at && s.at < o.To })
	for _, i := range t.by {
		keyed = keyed || s.rx[i].open
	}
	switch {
	case keyed && !t.keyed:
		t.keyedSince = s.at
	case !keyed && t.keyed && !t.cut:
		t.hangs = s.at + t.Hang
	}
	t.keyed = keyed
	t.cut = keyed && (t.cut || t.Timeout > 0 && s.at-t.keyedSince >= t.Timeout)
	t.wants = keyed && !t.cut || !keyed && s.at < t.hangs
	if t.cut {
		t.hangs = 0
	}
	if !t.wants {
		t.since = None
	} else if t.since == None {
		t.since = s.at
	}
	on, tail := t.wants && s.at-t.since >= t.Turn+max(t.Rise, least), t.wants && !keyed
	if t.on == on && (!on || t.tail == tail) {
		t.tail = tail
		return false
	}
	s.log(t)
	if on {
		s.run.sent[t.Port] = append(s.run.sent[t.Port], Sent{s.at, None, tail})
	}
	t.on, t.tail = on, tail
	return true
}

// log ends what a transmitter was sending. What began and ended at one moment was not.
func (s *simulation) log(t *transmitter) {
	if !t.on {
		return
	}
	list := s.run.sent[t.Port]
	last := len(list) - 1
	if list[last].To = s.at; list[last].From == s.at {
		s.run.sent[t.Port] = list[:last]
	}
}

// next is when something can happen next.
func (s *simulation) next() time.Duration {
	next := time.Duration(1<<63 - 1)
	due := func(at time.Duration) {
		if at > s.at {
			next = min(next, at)
		}
	}
	for _, r := range s.rx {
		due(r.free)
		if r.seen != None {
			due(r.seen + max(r.Squelch, least))
		}
		if r.decoding != None {
			due(r.decoding + r.Decode)
		}
		if r.open && r.gone != None {
			due(r.gone + r.Close)
		}
	}
	for _, t := range s.tx {
		for _, o := range t.overs {
			due(o.From)
			due(o.To)
		}
		due(t.hangs)
		if t.since != None {
			due(t.since + t.Turn + max(t.Rise, least))
		}
		if t.keyed && t.Timeout > 0 {
			due(t.keyedSince + t.Timeout)
		}
	}
	return next
}
