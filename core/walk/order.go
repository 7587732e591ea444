package walk

import (
	"slices"

	"mnemos/core/keypad"
	"mnemos/core/radio"
)

// Order puts channels into an order in which little is pressed: settings that several
// need stay, lists and knobs go short ways. It never costs more than the order that is
// given. The nearest comes next, then channels and runs of them are moved and turned
// round as long as that saves presses.
func Order(p *radio.Profile, wants []keypad.Wanted) []keypad.Wanted {
	r := compile(p, wants)
	given := r.all()
	order := r.nearest()
	if r.presses(given) <= r.presses(order) {
		order = slices.Clone(given)
	}
	order = r.improve(order)
	out := make([]keypad.Wanted, len(order))
	for i, c := range order {
		out[i] = wants[c]
	}
	return out
}

// route is what channels need of a radio, in numbers.
type route struct {
	channels [][]event
	fixed    []int // presses that each takes anywhere
	keys     int
	kinds    []kind
	meter    *keypad.Meter
}

// event is a keypad.Event in numbers: keys and values are places in tables.
type event struct {
	key, kind, value       int
	accept                 []int
	always, looks, assigns bool
}

// kind is a table of what it costs to go from one value to another.
type kind struct {
	sample map[int]keypad.Event // by the value that is wanted
	names  *table               // the values of its key
	costs  map[[2]int]int
}

// table numbers texts; 0 is nothing known.
type table struct {
	index map[string]int
	texts []string
}

func newTable() *table { return &table{map[string]int{"": 0}, []string{""}} }

func (t *table) of(s string) int {
	n, ok := t.index[s]
	if !ok {
		n = len(t.texts)
		t.index[s], t.texts = n, append(t.texts, s)
	}
	return n
}

func compile(p *radio.Profile, wants []keypad.Wanted) *route {
	r := &route{meter: keypad.NewMeter(p)}
	keys, kinds := newTable(), map[string]int{}
	values := map[int]*table{}
	for _, want := range wants {
		var events []event
		fixed := 0
		for _, e := range keypad.Events(want, p) {
			if e.Key == "" {
				fixed += e.Presses
				continue
			}
			k := keys.of(string(e.Key))
			if values[k] == nil {
				values[k] = newTable()
			}
			x := event{key: k, value: values[k].of(e.Value), always: e.Always, looks: e.Looks, assigns: e.Assign}
			for _, a := range e.Accept {
				x.accept = append(x.accept, values[k].of(a))
			}
			n, ok := kinds[e.Kind()]
			if !ok {
				n = len(r.kinds)
				kinds[e.Kind()] = n
				r.kinds = append(r.kinds, kind{map[int]keypad.Event{}, values[k], map[[2]int]int{}})
			}
			e.Accept = nil // that is this channel's alone
			x.kind, r.kinds[n].sample[x.value] = n, e
			events = append(events, x)
		}
		r.channels, r.fixed = append(r.channels, events), append(r.fixed, fixed)
	}
	r.keys = len(keys.texts)
	return r
}

func (r *route) all() []int {
	out := make([]int, len(r.channels))
	for i := range out {
		out[i] = i
	}
	return out
}

// cost is what an event takes where its key stands at a value.
func (r *route) cost(e *event, at int) int {
	k := &r.kinds[e.kind]
	if n, ok := k.costs[[2]int{at, e.value}]; ok {
		return n
	}
	n := r.meter.Cost(k.sample[e.value], k.names.texts[at])
	k.costs[[2]int{at, e.value}] = n
	return n
}

// do keys a channel, and changes what is known.
func (r *route) do(c int, state []int) int {
	n := r.fixed[c]
	for i := range r.channels[c] {
		e := &r.channels[c][i]
		at := state[e.key]
		if !e.assigns {
			if !e.always && at != 0 && (at == e.value || slices.Contains(e.accept, at)) {
				continue
			}
			n += r.cost(e, at)
		}
		if !e.looks {
			state[e.key] = e.value
		}
	}
	return n
}

// presses is what an order costs from the stated state, without what puts the radio
// back.
func (r *route) presses(order []int) int {
	state := make([]int, r.keys)
	n := 0
	for _, c := range order {
		n += r.do(c, state)
	}
	return n
}

// nearest goes on with the channel that takes the least from where the radio stands.
func (r *route) nearest() []int {
	state, try := make([]int, r.keys), make([]int, r.keys)
	left := r.all()
	var out []int
	for len(left) > 0 {
		best, least := 0, 0
		for i, c := range left {
			copy(try, state)
			if n := r.do(c, try) - r.fixed[c]; i == 0 || n < least {
				best, least = i, n
			}
		}
		c := left[best]
		r.do(c, state)
		out, left = append(out, c), slices.Delete(left, best, best+1)
	}
	return out
}

// pairs is what each channel takes after each other one, with nothing known but that.
// The last row is from the stated state.
func (r *route) pairs() [][]int {
	n := len(r.channels)
	after, state := make([]int, r.keys), make([]int, r.keys)
	out := make([][]int, n+1)
	for i := range out {
		clear(after)
		if i < n {
			r.do(i, after)
		}
		out[i] = make([]int, n)
		for j := range n {
			copy(state, after)
			out[i][j] = r.do(j, state)
		}
	}
	return out
}

// few is up to how many channels every move is tried out; of more only those that
// look well by pairs.
const few = 24

// tries is how many orders are walked through at most.
const tries = 20_000

// improve moves runs of one to three channels, turns runs round, and keeps what saves
// presses.
func (r *route) improve(order []int) []int {
	n := len(order)
	if n < 3 {
		return order
	}
	var pairs [][]int
	if n > few {
		pairs = r.pairs()
	}
	best, left := r.presses(order), tries
	for again := true; again && left > 0; {
		again = false
		moves(n, func(m move) bool {
			if pairs != nil && m.saves(order, pairs) <= 0 {
				return left > 0
			}
			left--
			next := m.do(order)
			if p := r.presses(next); p < best {
				order, best, again = next, p, true
			}
			return left > 0
		})
	}
	return order
}

// move takes the run from..to (to not included) to another place, or turns it round.
type move struct {
	from, to, at int
	turned       bool
}

// moves calls yield with every move among n channels, until it says no.
func moves(n int, yield func(move) bool) {
	for from := range n {
		for length := 1; length <= 3 && from+length <= n; length++ {
			for at := 0; at <= n; at++ {
				if (at < from || at > from+length) && !yield(move{from, from + length, at, false}) {
					return
				}
			}
		}
		for to := from + 2; to <= n; to++ {
			if !yield(move{from, to, from, true}) {
				return
			}
		}
	}
}

func (m move) do(order []int) []int {
	run := slices.Clone(order[m.from:m.to])
	if m.turned {
		slices.Reverse(run)
	}
	out := slices.Delete(slices.Clone(order), m.from, m.to)
	at := m.at
	if at >= m.to {
		at -= m.to - m.from
	}
	return slices.Insert(out, at, run...)
}

// saves is how much a move saves by pairs.
func (m move) saves(order []int, pairs [][]int) int {
	n := len(order)
	after := func(i, j int) int { // of the channel in place j after that in place i
		if j >= n {
			return 0
		}
		if i < 0 {
			return pairs[n][order[j]]
		}
		return pairs[order[i]][order[j]]
	}
	if m.turned {
		if m.to-m.from > 60 {
			return 0 // what a long run costs backwards is dear to add up
		}
		save := after(m.from-1, m.from) + after(m.to-1, m.to) - after(m.from-1, m.to-1)
		if m.to < n {
			save -= pairs[order[m.from]][order[m.to]]
		}
		for i := m.from; i+1 < m.to; i++ {
			save += after(i, i+1) - after(i+1, i)
		}
		return save
	}
	save := after(m.from-1, m.from) + after(m.to-1, m.to) - after(m.from-1, m.to)
	return save + after(m.at-1, m.at) - after(m.at-1, m.from) - after(m.to-1, m.at)
}

// Presses is what the channels take in an order, from the stated state, before the
// radio is put back.
func Presses(p *radio.Profile, wants []keypad.Wanted) int {
	r := compile(p, wants)
	return r.presses(r.all())
}
