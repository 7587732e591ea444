package trial

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"mnemos/core/freq"
	"mnemos/core/tone"
)

// Act is a single change, or something to do without keying.
type Act struct {
	Kind    Kind
	Setting Setting
	Change  string // what it changes: tone, shift, width, power, mode, where, aerial; "" for nothing
	Says    string
	Bits    float64 // how much it is expected to tell
	Back    float64 // the chance of a yes
	Yes, No Cause   // the likeliest cause after either
	Ends    float64 // the chance that it is the last: something comes back, or the cause is found
	Worth   float64 // how good it is as the next: by this acts are put in order
}

// acts are what can be done next: one change against the last call, or none.
func (w *Weighing) acts() (out []Act) {
	add := func(k Kind, change, says string, f func(*Setting)) {
		s := w.Last
		f(&s)
		if k == Key && s == w.Last {
			return
		}
		out = append(out, Act{Kind: k, Setting: s, Change: change, Says: says})
	}
	tones := append([]tone.Tone{w.Facts.Start.Tone}, w.Facts.Tones...)
	for _, t := range tones {
		add(Key, "tone", "Send "+sent(t), func(s *Setting) { s.Tone = t })
	}
	for _, o := range append([]freq.Offset{w.Facts.Start.Offset}, w.Facts.Offsets...) {
		add(Key, "shift", "Shift "+o.String(), func(s *Setting) { s.Offset = o })
	}
	if w.Facts.Width || w.Last.Width != w.Facts.Start.Width {
		add(Key, "width", "Set "+string(other(w.Last.Width)), func(s *Setting) { s.Width = other(w.Last.Width) })
	}
	if !w.Last.Power {
		add(Key, "power", "Set power high again", func(s *Setting) { s.Power = true })
	}
	for i, p := range data.Where {
		if better(i, len(data.Where), func(j int) bool { return data.Where[j].ID == w.Last.Where }) {
			add(Key, "where", "Try again "+p.Says, func(s *Setting) { s.Where = p.ID })
		}
	}
	for i, a := range data.Aerials {
		if better(i, len(data.Aerials), func(j int) bool { return data.Aerials[j].ID == w.Last.Aerial }) {
			add(Key, "aerial", "Use a better aerial: "+a.Says, func(s *Setting) { s.Aerial = a.ID })
		}
	}
	none := func(*Setting) {}
	if w.Facts.SendsTone && !w.done[Look] {
		add(Look, "", "Look for the mark of the tone on the display", none)
	}
	if !w.done[Listen] {
		add(Listen, "", "Only listen for ten minutes", none)
	}
	if !w.done[Ask] {
		add(Ask, "", "Ask somebody whether they hear it", none)
	}
	return out
}

// better reports whether the place is the next one above that which is used.
func better(i, n int, is func(int) bool) bool {
	for j := range n {
		if is(j) {
			return i == j+1
		}
	}
	return false
}

// sure is when a cause counts as found.
const sure = 0.9

// little is how few bits are not worth a try.
const little = 0.02

// Found returns the cause when it is found: likely enough, or the likeliest when nothing
// that is left to do would tell more.
func (w *Weighing) Found() (c Cause, ok bool) {
	if len(w.Causes) == 0 {
		return Cause{}, false
	}
	if w.Causes[0].Now >= sure {
		return w.Causes[0], true
	}
	acts := w.Acts()
	return w.Causes[0], !slices.ContainsFunc(acts, func(a Act) bool { return a.Bits >= little })
}

// Next returns the single change that tells most. ok is false where something came back,
// or nothing would tell more.
func (w *Weighing) Next() (Act, bool) {
	if w.answers {
		return Act{}, false
	}
	if _, found := w.Found(); found {
		return Act{}, false
	}
	for _, a := range w.Acts() {
		if a.Bits >= little {
			return a, true
		}
	}
	return Act{}, false
}

// Acts are what can be done next, that which tells most first.
func (w *Weighing) Acts() []Act {
	out := w.acts()
	for i := range out {
		w.expect(&out[i])
	}
	slices.SortStableFunc(out, func(a, b Act) int { return cmp.Compare(b.Worth, a.Worth) })
	return out
}

// expect reckons what an act is expected to tell of the causes.
func (w *Weighing) expect(a *Act) {
	n := len(w.worlds)
	yes, no := make([]world, n), make([]world, n)
	copy(yes, w.worlds)
	copy(no, w.worlds)
	for i, x := range w.worlds {
		p := x.back(w.Facts, a.Kind, a.Setting)
		a.Back += x.weight * p
		yes[i].weight *= p
		no[i].weight *= 1 - p
	}
	normal(yes)
	normal(no)
	a.Bits = bits(w.worlds) - a.Back*bits(yes) - (1-a.Back)*bits(no)
	a.Yes, a.No = top(yes), top(no)
	if a.Kind == Key || a.Yes.Now >= sure {
		a.Ends += a.Back
	}
	if a.No.Now >= sure {
		a.Ends += 1 - a.Back
	}
	a.Worth = a.Bits + ending*a.Ends // what it tells, and how likely nothing is to be done after it
}

// ending is what an end is worth, in bits. Held against the best policy that there is, in
// cases that are small enough to reckon it.
const ending = 2.5

// bits is how much is not known of the causes.
func bits(ws []world) (h float64) {
	for _, w := range ws {
		if w.weight > 0 {
			h -= w.weight * math.Log2(w.weight)
		}
	}
	return h
}

func top(ws []world) (best Cause) {
	for _, c := range data.Causes {
		if p := share(ws, c.ID); p > best.Now {
			best = Cause{IDs: []string{c.ID}, Says: c.Says, Short: c.Short, Now: p}
		}
	}
	return best
}

// InTen says how likely something is, in tenths.
func InTen(p float64) string {
	switch {
	case p < 0.05:
		return "under 1 in 10"
	case p > 0.95:
		return "over 9 in 10"
	}
	return fmt.Sprintf("%.0f in 10", math.Max(1, math.Round(10*p)))
}

// sent is a tone as one says it.
func sent(t tone.Tone) string {
	switch t.Kind() {
	case tone.None:
		return "no tone"
	case tone.CTCSS:
		return t.String() + " Hz"
	}
	return t.String()
}

// Suspects are the causes that together make up nearly all of it: what may be said in the
// end. Whoever is told of one is told of all of them.
func (w *Weighing) Suspects() (out []Cause) {
	sum := 0.0
	for _, c := range w.Causes {
		out = append(out, c)
		if sum += c.Now; sum >= 0.95 {
			break
		}
	}
	return out
}
