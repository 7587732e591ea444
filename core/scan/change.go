package scan

import (
	"cmp"
	"fmt"
	"slices"
)

// Goal is what somebody wants to hear.
type Goal struct {
	Channel int
	Length  float64 // s
	Share   float64 // of the overs, 0 to 1
}

// Kind is a kind of change.
type Kind string

// The kinds of changes, in the order in which they are thought of.
const (
	Leave    Kind = "leave"    // the channel is left out
	Prefer   Kind = "priority" // the channel is looked at between the others
	Watch    Kind = "watch"    // every second look goes to the channel, on the other side
	Second   Kind = "second"   // the second receiver stays on the channel
	GoOn     Kind = "resume"   // the scan goes on in another way
	Open     Kind = "open"     // the receiver no longer waits for a tone there
	SplitOff Kind = "split"    // only some channels stay; the others become a list of their own
)

// Change is one change of what is scanned.
type Change struct {
	Kind    Kind
	Channel int
	Resume  Resume  // of GoOn
	Stay    float64 // of GoOn
	Stays   []int   // of SplitOff: what stays in this list
}

// prefers reports whether the change gives the goal more of the receiver.
func (c Change) prefers() bool { return c.Kind == Prefer || c.Kind == Watch || c.Kind == Second }

// costs is how many changes one counts for: a second list is more to remember.
func (c Change) costs() int {
	if c.Kind == SplitOff {
		return 3
	}
	return 1
}

// Cost is what changes count for.
func Cost(changes []Change) (n int) {
	for _, c := range changes {
		n += c.costs()
	}
	return n
}

// Option is a way in which the receiver can go on.
type Option struct {
	Resume Resume
	Stay   float64
}

// Room is what may be changed.
type Room struct {
	Priority bool     // the receiver has priority looks
	Watch    bool     // it can watch another side while it scans
	Second   bool     // it has a second receiver
	Every    int      // after how many others, where there was none before
	Resumes  []Option // besides the one that is set
	Lists    bool     // it has more than one list
	Carrier  float64  // s until a squelch without a tone opens
}

// Way is a set of changes and what comes of it.
type Way struct {
	Changes []Change
	Result  *Result
	Chance  float64 // of the goal
}

// With is the set-up after some changes.
func (s Setup) With(changes []Change, room Room) Setup {
	s.Channels = slices.Clone(s.Channels)
	for _, c := range changes {
		switch c.Kind {
		case Leave:
			s.Channels[c.Channel].Out = true
		case Prefer:
			s.Priority = c.Channel
			s.Every = max(1, room.Every)
		case Watch:
			s.Priority, s.Every = c.Channel, 1
		case Second:
			for i := range s.Channels {
				s.Channels[i].Second = i == c.Channel
			}
		case GoOn:
			s.Resume, s.Stay = c.Resume, c.Stay
		case Open:
			s.Channels[c.Channel].Opens = room.Carrier
		case SplitOff:
			for i := range s.Channels {
				s.Channels[i].Out = s.Channels[i].Out || !slices.Contains(c.Stays, i)
			}
		}
	}
	return s
}

// search looks for the smallest set of changes that reaches a goal.
type search struct {
	s    Setup
	g    Goal
	room Room
}

// Reach returns the smallest set of changes that reaches a goal, and of those the one
// with which most is heard in all. ok is false where none does: then it is what comes
// nearest.
func Reach(s Setup, g Goal, room Room) (best Way, ok bool) {
	x := search{s, g, room}
	if now := x.way(nil); now.Chance >= g.Share {
		return now, true
	}
	singles := x.singles()
	if w, ok := x.among(each(singles), g.Share); ok {
		return w, true
	}
	if w, ok := x.among(pairs(singles), g.Share); ok {
		return w, true
	}
	return x.more()
}

// Alternatives are the single changes that hear more of a goal, one of each kind: that
// which does most of it. Some reach the goal, some only come nearer.
func Alternatives(s Setup, g Goal, room Room) (out []Way) {
	x := search{s, g, room}
	now, _ := x.quick(nil)
	most := map[Kind]float64{}
	best := map[Kind]Change{}
	for _, c := range x.singles() {
		if chance, _ := x.quick([]Change{c}); chance > max(most[c.Kind], now) {
			most[c.Kind], best[c.Kind] = chance, c
		}
	}
	for _, k := range []Kind{Leave, Prefer, Watch, Second, GoOn, Open} {
		if c, ok := best[k]; ok {
			out = append(out, x.way([]Change{c}))
		}
	}
	slices.SortStableFunc(out, func(a, b Way) int { return cmp.Compare(b.Chance, a.Chance) })
	return out
}

func (x search) way(changes []Change) Way {
	r := Reckon(x.s.With(changes, x.room))
	return Way{Changes: changes, Result: r, Chance: r.Chance(x.g.Channel, x.g.Length)}
}

// settings are the changes that leave the list as it is.
func (x search) settings() (out []Change) {
	is := x.s.Priority == x.g.Channel
	for _, o := range []struct {
		can  bool
		kind Kind
	}{
		{x.room.Priority && !is, Prefer},
		{x.room.Watch && (!is || x.s.Every != 1), Watch},
		{x.room.Second && !x.s.Channels[x.g.Channel].Second, Second},
	} {
		if o.can {
			out = append(out, Change{Kind: o.kind, Channel: x.g.Channel})
		}
	}
	for _, o := range x.room.Resumes {
		if o.Resume != x.s.Resume || o.Stay != x.s.Stay {
			out = append(out, Change{Kind: GoOn, Channel: None, Resume: o.Resume, Stay: o.Stay})
		}
	}
	if x.s.Channels[x.g.Channel].Opens > x.s.Look && x.room.Carrier <= x.s.Look {
		out = append(out, Change{Kind: Open, Channel: x.g.Channel})
	}
	return out
}

// often is how many channels are tried to be left out, alone and in pairs: those that
// take most of the time. To leave out another one would gain less.
const often = 16

func (x search) singles() []Change {
	order := x.order(nil)
	return append(order[:min(often, len(order))], x.settings()...)
}

func each(changes []Change) [][]Change {
	out := make([][]Change, len(changes))
	for i, c := range changes {
		out[i] = []Change{c}
	}
	return out
}

func pairs(changes []Change) (out [][]Change) {
	for i, a := range changes {
		for _, b := range changes[i+1:] {
			if (a.Kind != b.Kind || a.Kind == Leave) && !(a.prefers() && b.prefers()) {
				out = append(out, []Change{a, b})
			}
		}
	}
	return out
}

// quick is about what comes of changes: the chance of the goal, and what is heard.
func (x search) quick(changes []Change) (chance, heard float64) {
	s := x.s.With(changes, x.room)
	r, k := begin(s)
	if r.Stuck != None {
		return r.stuck().Chance(x.g.Channel, x.g.Length), 0
	}
	for range settles {
		k.means()
		k.stops()
	}
	k.means()
	k.one(x.g.Channel)
	for c, ways := range k.places {
		for _, w := range ways {
			r.windows[c] = append(r.windows[c], k.window(c, w)...)
		}
	}
	k.share()
	for c, ch := range s.Channels {
		if !ch.Always && !ch.away() && !r.twin(c) {
			heard += ch.Rate * r.Chance(c, ch.Length)
		}
	}
	return r.Chance(x.g.Channel, x.g.Length), heard
}

// near is how far the quick reckoning may be off.
const near = 0.06

// among returns of some sets of changes the one that reaches the goal and hears most.
func (x search) among(sets [][]Change, share float64) (Way, bool) {
	type tried struct {
		changes       []Change
		chance, heard float64
	}
	var all []tried
	for _, c := range sets {
		if chance, heard := x.quick(c); chance >= share-near {
			all = append(all, tried{c, chance, heard})
		}
	}
	slices.SortStableFunc(all, func(a, b tried) int { return cmp.Compare(b.heard, a.heard) })
	var best Way
	found, reached := false, 0
	for _, t := range all {
		if reached >= sure {
			break // those that follow hear less
		}
		w := x.way(t.changes)
		if w.Chance < share {
			continue
		}
		reached++
		if !found || w.Result.Heard > best.Result.Heard {
			best, found = w, true
		}
	}
	return best, found
}

// sure is how many that reach the goal are reckoned whole.
const sure = 3

// more leaves out channel after channel, under each of the settings, until the goal is
// reached.
func (x search) more() (Way, bool) {
	var bests []Way
	var nearest Way
	for _, set := range x.settingSets() {
		order := x.order(set)
		n := len(order)
		// The fewest that reach it: leaving out more never hears less of the goal.
		at := func(k int) Way { return x.way(append(slices.Clone(set), order[:k]...)) }
		last := at(n)
		if nearest.Result == nil || last.Chance > nearest.Chance+1e-9 {
			nearest = last
		}
		if last.Chance < x.g.Share {
			continue
		}
		k, w := n, last
		for low := 0; low < k; {
			mid := (low + k) / 2
			if m := at(mid); m.Chance >= x.g.Share {
				k, w = mid, m
			} else {
				low = mid + 1
			}
		}
		if k <= often && n <= often {
			if m, ok := x.fewer(set, order, k-1); ok {
				w, k = m, len(m.Changes)-len(set)
			}
		}
		if x.room.Lists && k > 3 {
			set := slices.Clone(set)
			split := Change{Kind: SplitOff, Channel: x.g.Channel}
			for i, c := range x.s.Channels {
				if !c.Out && !slices.ContainsFunc(w.Changes, func(l Change) bool { return l.Kind == Leave && l.Channel == i }) {
					split.Stays = append(split.Stays, i)
				}
			}
			w.Changes = append(set, split)
		}
		bests = append(bests, w)
	}
	if len(bests) == 0 {
		return nearest, false
	}
	return slices.MinFunc(bests, func(a, b Way) int {
		return cmp.Or(cmp.Compare(Cost(a.Changes), Cost(b.Changes)), cmp.Compare(b.Result.Heard, a.Result.Heard))
	}), true
}

// beam is how many sets are carried on while channel after channel is left out.
const beam = 5

// fewer looks for a set of at most so many channels to leave out that reaches the goal.
func (x search) fewer(set, order []Change, most int) (Way, bool) {
	type tried struct {
		changes []Change
		chance  float64
	}
	sets := []tried{{changes: set}}
	for range most {
		var next []tried
		seen := map[string]bool{}
		for _, have := range sets {
			for _, c := range order {
				if slices.ContainsFunc(have.changes, func(o Change) bool { return o.Kind == Leave && o.Channel == c.Channel }) {
					continue
				}
				more := append(slices.Clone(have.changes), c)
				if key := left(more); !seen[key] {
					seen[key] = true
					chance, _ := x.quick(more)
					next = append(next, tried{more, chance})
				}
			}
		}
		slices.SortStableFunc(next, func(a, b tried) int { return cmp.Compare(b.chance, a.chance) })
		sets = next[:min(beam, len(next))]
		for _, s := range sets {
			if s.chance < x.g.Share-near {
				break
			}
			if w := x.way(s.changes); w.Chance >= x.g.Share {
				return w, true
			}
		}
	}
	return Way{}, false
}

// left names the channels that are left out, whatever the order.
func left(changes []Change) string {
	var out []int
	for _, c := range changes {
		if c.Kind == Leave {
			out = append(out, c.Channel)
		}
	}
	slices.Sort(out)
	return fmt.Sprint(out)
}

// settingSets are the ways to set the receiver: at most one of each kind.
func (x search) settingSets() [][]Change {
	out := [][]Change{nil}
	for _, c := range x.settings() {
		for _, set := range out {
			if !slices.ContainsFunc(set, func(o Change) bool { return o.Kind == c.Kind || o.prefers() && c.prefers() }) {
				out = append(out, append(slices.Clone(set), c))
			}
		}
	}
	return out
}

// order are the channels to leave out, those first that take most of the time.
func (x search) order(set []Change) []Change {
	r := Reckon(x.s.With(set, x.room))
	var out []Change
	for i, c := range x.s.Channels {
		if i != x.g.Channel && !c.away() {
			out = append(out, Change{Kind: Leave, Channel: i})
		}
	}
	// What hears the same as the goal helps it: it goes last.
	goal := x.s.Channels[x.g.Channel].Output
	helps := func(c Change) int {
		if goal != 0 && x.s.Channels[c.Channel].Output == goal {
			return 1
		}
		return 0
	}
	slices.SortStableFunc(out, func(a, b Change) int {
		return cmp.Or(cmp.Compare(helps(a), helps(b)), cmp.Compare(r.Of[b.Channel].Share, r.Of[a.Channel].Share))
	})
	return out
}
