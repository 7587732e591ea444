package entry

import (
	"fmt"
	"slices"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/service"
	"mnemos/core/tone"
)

// state is a partly read line: the values so far and which are taken.
type state struct {
	plan  *band.Plan
	c     channel.Channel
	n     *int
	sc    Scan
	taken map[string]bool
	signs int          // -1, +1, or 0 if no sign was typed
	sizes freq.Offset  // 0 if no size was typed
	odd   bool         // the size is none that the band plan has
	use   *service.Use // the channel of another service, if one was named
	chose []reading
	cost  int
}

func newState(plan *band.Plan) *state {
	c := channel.New(0)
	return &state{plan: plan, c: c, sc: ScanYes, taken: map[string]bool{}}
}

func (s *state) clone() *state {
	t := *s
	t.taken = make(map[string]bool, len(s.taken))
	for k, v := range s.taken {
		t.taken[k] = v
	}
	t.chose = slices.Clone(s.chose)
	return &t
}

// claim takes a field and reports whether it was free.
func (s *state) claim(field string) bool {
	if s.taken[field] {
		return false
	}
	s.taken[field] = true
	return true
}

func (s *state) receive(f freq.Hz) bool {
	if !s.claim("receive") {
		return false
	}
	s.c.Receive = f
	return true
}

func (s *state) afterReceive() bool { return s.taken["receive"] || s.taken["tx"] }

// transmit takes the input. It may stand beside a shift: of output, input and
// shift any two give the third, and all three may be written if they agree.
func (s *state) transmit(f freq.Hz) bool {
	if s.taken["how"] || !s.claim("tx") {
		return false
	}
	s.c.How = channel.SplitHow(f)
	return true
}

// second is a second bare frequency: the transmit side, if the first is the
// receive side.
func (s *state) second(f freq.Hz) bool { return s.taken["receive"] && s.transmit(f) }

func (s *state) how(h channel.How) bool {
	if s.taken["sign"] || s.taken["size"] || s.taken["tx"] || !s.claim("how") {
		return false
	}
	s.c.How = h
	return true
}

func (s *state) sign(key string) bool {
	if s.taken["how"] || !s.claim("sign") {
		return false
	}
	s.signs = 1
	if key == "-" {
		s.signs = -1
	}
	return true
}

func (s *state) size(o freq.Offset) bool {
	if s.taken["how"] || o <= 0 || !s.claim("size") {
		return false
	}
	s.sizes = o
	return true
}

// bareSize takes a number without a unit as the size of a shift. That is
// nearly as good as a tone if the plan has this size in the band, and remote
// if it does not.
func (s *state) bareSize(v string) bool {
	if !s.afterReceive() {
		return false
	}
	o, err := freq.ParseSize(v)
	if err != nil || !s.size(o) {
		return false
	}
	known := false
	if b, ok := s.plan.Band(s.c.Receive); ok {
		for _, r := range b.Shifts {
			known = known || r.Offset.Abs() == o || slices.ContainsFunc(r.Alternatives, func(a freq.Offset) bool { return a.Abs() == o })
		}
	}
	switch {
	case known && s.taken["sign"]:
		s.cost -= possible - likely
	case !known:
		s.cost += remote + 1
		s.odd = true
	}
	return true
}

func (s *state) toneOut(t tone.Tone) bool {
	if !s.claim("tone out") {
		return false
	}
	s.c.TransmitTone = t
	return true
}

func (s *state) toneIn(t tone.Tone) bool {
	if !s.claim("tone in") {
		return false
	}
	s.c.ReceiveTone = t
	return true
}

func (s *state) name(n string) bool {
	if !s.claim("name") {
		return false
	}
	s.c.Name = n
	return true
}

func (s *state) slot(n int) bool {
	if !s.claim("slot") {
		return false
	}
	s.n = &n
	return true
}

func (s *state) width(w channel.Width) bool { s.c.Width = w; return s.claim("width") }
func (s *state) power(p channel.Power) bool { s.c.Power = p; return s.claim("power") }
func (s *state) scan(v Scan) bool           { s.sc = v; return s.claim("scan") }

// most is how many words of a line are read. No channel needs as many, and
// the search stays short whatever is pasted.
const most = 20

// search returns the cheapest consistent reading of the items and the next
// cheapest that would store another channel, or nil.
func search(items []item, plan *band.Plan) (best, second *state) {
	offers := make([][]reading, len(items))
	for i, it := range items {
		if i < most {
			offers[i] = it.readings(plan)
		}
		offers[i] = append(offers[i], reading{as: AsUnknown, cost: unreadable, take: ok})
	}
	var walk func(i int, s *state)
	walk = func(i int, s *state) {
		if second != nil && s.cost >= second.cost {
			return
		}
		if i == len(items) {
			// A number that is no known size is a shift only beside a sign.
			if s.odd && s.signs == 0 {
				s.cost += unreadable
			}
			switch {
			case best == nil || s.cost < best.cost:
				best, second = s, best
			case s.c != best.c || s.signs != best.signs || s.sizes != best.sizes:
				second = s
			}
			return
		}
		for _, r := range offers[i] {
			t := s.clone()
			t.cost += r.cost
			if !r.take(t) {
				continue
			}
			t.chose = append(t.chose, r)
			walk(i+1, t)
		}
	}
	walk(0, newState(plan))
	return best, second
}

// draft works out what the line leaves out, and words the result.
func (s *state) draft(items []item, plan *band.Plan) *Draft {
	d := &Draft{Channel: s.c, Slot: s.n, Scan: s.sc, From: map[listing.Field]Origin{}, Words: []Word{}}
	for i, it := range items {
		r := s.chose[i]
		w := Word{Text: it.text, Start: it.start, End: it.end, As: r.as, Guess: r.guess, Problem: r.problem}
		if r.as == AsUnknown && r.problem == "" {
			w.Problem = s.complaint(it)
		}
		if f := r.as.Field(); f != "" && r.problem == "" {
			d.From[f] = Typed
		}
		if r.as == AsSquelch || r.as == AsTones {
			d.From[listing.FieldToneIn] = Typed
		}
		d.Words = append(d.Words, w)
	}
	s.resolve(d, plan)
	return d
}

// complaint says why an item has no reading and what to type.
func (s *state) complaint(it item) string {
	switch {
	case it.kind == number && !s.taken["receive"]:
		return fmt.Sprintf("%q is no frequency in %s: begin with the receive frequency in MHz, such as 147.24", it.text, s.plan.Title)
	case it.kind == number:
		return fmt.Sprintf("%q is no tone and no shift: type a tone such as 103.5, a shift such as -600, or put a name in quotes", it.text)
	case it.kind == watts:
		return fmt.Sprintf("%q: type low, mid or high; the radio's profile says how many watts that is", it.text)
	case it.kind == text:
		return fmt.Sprintf("%q is a second name: put the whole name in quotes", it.text)
	case it.kind == signed || it.kind == sign:
		return fmt.Sprintf("%q is a second shift: type one sign and one size", it.text)
	case it.kind == keyed || it.kind == word || it.kind == pair:
		return fmt.Sprintf("%q says again, or against, what another word says: leave one of them out", it.text)
	}
	return fmt.Sprintf("%q is not understood: type a frequency, a shift, a tone or a name in quotes", it.text)
}
