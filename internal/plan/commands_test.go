package plan_test

import (
	"context"
	"errors"
	"fmt"
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/internal/demo/demotest"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
	"mnemos/internal/store"
	"mnemos/internal/who"
)

// thing is a row of the model: a channel with its name, or an entry with its
// slot, its channel and the short name that is made of the name. It is never changed, only put in place of another one.
type thing struct {
	entry   bool
	slot    int
	channel int
	name    string
	power   string // of a channel, where it was filled down
	member  bool   // of the one set that there is
}

// step is what somebody did: rows as they were and as they were left; the zero
// thing is none.
type step struct{ before, after map[int]thing }

// model is the plan as simply as it can be said: rows, when each got what it
// holds, and what each person did.
type model struct {
	rows       map[int]thing
	rev        map[int]int64
	next       int
	undo, redo map[int64][]step
}

// at is the entry in a slot.
func (m *model) at(slot int) (id int, e thing, ok bool) {
	for id, x := range m.rows {
		if x.entry && x.slot == slot {
			return id, x, true
		}
	}
	return 0, thing{}, false
}

func (m *model) take(s step, event int64) {
	for id, x := range s.after {
		m.rev[id] = event
		if m.rows[id] = x; x == (thing{}) {
			delete(m.rows, id)
		}
	}
}

func (m *model) do(person, event int64, after map[int]thing) {
	s := step{map[int]thing{}, after}
	for id, x := range after {
		if s.before[id] = m.rows[id]; m.rows[id] == x {
			delete(s.before, id)
			delete(s.after, id)
		}
	}
	m.take(s, event)
	m.undo[person], m.redo[person] = append(m.undo[person], s), nil
}

// back takes the last step of a stack back, if every row is as it was left and
// no slot is taken; the steps go to the other stack turned round.
func (m *model) back(from, to map[int64][]step, person, event int64) (ok bool) {
	n := len(from[person]) - 1
	s := from[person][n]
	for id, left := range s.after {
		if m.rows[id] != left && !left.member && !s.before[id].member {
			return false
		}
	}
	for _, was := range s.before {
		if id, _, taken := m.at(was.slot); was.entry && taken {
			if _, own := s.after[id]; !own {
				return false
			}
		}
	}
	turned := step{map[int]thing{}, map[int]thing{}}
	is := func(id int) thing { // as it will be
		if x, ok := s.before[id]; ok {
			return x
		}
		return m.rows[id]
	}
	for id, was := range s.before {
		if was.member && (is(was.channel) == thing{} || m.joined(was.channel, id)) {
			continue // a set follows its channels
		}
		if m.rows[id] != was {
			turned.before[id], turned.after[id] = m.rows[id], was
		}
	}
	for id, x := range m.rows {
		if x.member && is(x.channel) == (thing{}) {
			turned.before[id], turned.after[id] = x, thing{}
		}
	}
	if len(turned.after) == 0 {
		return false // nothing of it is left
	}
	m.take(turned, event)
	from[person], to[person] = from[person][:n], append(to[person], turned)
	return true
}

// joined reports whether a channel is in the set, in another row than one.
func (m *model) joined(channel, except int) bool {
	for id, x := range m.rows {
		if x.member && x.channel == channel && id != except {
			return true
		}
	}
	return false
}

// leaves takes a channel that is deleted out of the set.
func (m *model) leaves(channel int, after map[int]thing) {
	for id, x := range m.rows {
		if x.member && x.channel == channel {
			after[id] = thing{}
		}
	}
}

// members are the names of what is in the set.
func (m *model) members() []string {
	out := []string{}
	for _, x := range m.rows {
		if x.member {
			out = append(out, m.rows[x.channel].name)
		}
	}
	slices.Sort(out)
	return out
}

// slots is what the model holds.
func (m *model) slots() map[int]string {
	out := map[int]string{}
	for _, x := range m.rows {
		if x.entry {
			out[x.slot] = m.rows[x.channel].name
		}
	}
	return out
}

// TestCommands has two people, who each look now and then, do what they please
// to one radio, take it back and do it again in any order, while the program is
// started anew in between. After every step the plan is what a model of thirty
// lines says, and a command is refused exactly where the model says so.
func TestCommands(t *testing.T) {
	a := demotest.Open(t)
	a.Person(t, "Bob")
	cat := a.Person(t, "Cat")
	seen, refused, steps := map[string]int{}, 0, 0
	rapid.Check(t, func(r *rapid.T) {
		p, loads, err := a.Store.NewPlan(t.Context(), store.Plan{Name: "Walk", Region: "us", Radius: 150}, store.Stamp{At: "2026-11-25T09:42:00Z", Label: "new"}, "trail")
		require.NoError(r, err)
		load := loads[0].ID
		sets, err := a.Plans.AddSet(cat, p.ID, plan.SetForm{Kind: "bank", Name: "Set"}, nil)
		require.NoError(r, err)
		set := sets[0].ID
		m := &model{rows: map[int]thing{}, rev: map[int]int64{}, undo: map[int64][]step{}, redo: map[int64][]step{}}
		views := map[int64]int64{1: p.Revision, 2: p.Revision} // what each has seen
		for n := range rapid.IntRange(1, 12).Draw(r, "steps") {
			steps++
			person := int64(rapid.IntRange(1, 2).Draw(r, "person"))
			ctx := who.As(t.Context(), person)
			if rapid.IntRange(0, 2).Draw(r, "looks") > 0 {
				l, err := a.Plans.Ledger(ctx, load)
				require.NoError(r, err)
				views[person] = l.Revision
			}
			if rapid.IntRange(0, 20).Draw(r, "restart") == 0 {
				a.Again(t)
			}
			act := rapid.SampledFrom([]string{"store", "store", "replace", "delete", "rename", "move", "swap", "several", "order", "gap", "duplicate", "empty", "fill", "paste", "join", "leave", "undo", "undo", "undo", "redo", "redo", "redo"}).Draw(r, "act")
			slot, other := rapid.IntRange(1, 4).Draw(r, "slot"), rapid.IntRange(1, 4).Draw(r, "other")
			if carried := carry(ctx, r, a, m, load, set, act, slot, other, fmt.Sprint("N", n), person, views[person]); carried {
				seen[act]++
				l, err := a.Plans.Ledger(ctx, load)
				require.NoError(r, err)
				views[person] = l.Revision // the answer shows it
			} else {
				refused++
			}
			l, err := a.Plans.Ledger(ctx, load)
			require.NoError(r, err)
			have := map[int]string{}
			for _, row := range l.Rows {
				have[row.Slot] = row.Channel.Name
			}
			require.Equal(r, m.slots(), have, "after %s", act)
			now, err := a.Plans.Sets(ctx, p.ID)
			require.NoError(r, err)
			in := []string{}
			for _, x := range now[0].Members {
				for _, row := range l.Rows {
					if row.ID == x.ChannelID {
						in = append(in, row.Channel.Name)
					}
				}
			}
			slices.Sort(in)
			require.Equal(r, m.members(), in, "the set after %s", act)
			require.Equal(r, len(m.undo[person]) > 0, l.Undo != "")
			require.Equal(r, len(m.redo[person]) > 0, l.Redo != "")
		}
	})
	if steps < 400 { // a sample: not everything need happen in it
		return
	}
	require.Greater(t, refused, 10)
	require.GreaterOrEqual(t, len(seen), 13, "%v", slices.Sorted(maps.Keys(seen))) // of 17
}

// carry carries a command out in the application and in the model, and holds
// the two against each other.
func carry(ctx context.Context, r *rapid.T, a *demotest.Rig, m *model, load, set int64, act string, slot, other int, name string, person, view int64) bool {
	id, e, taken := m.at(slot)
	otherID, o, both := m.at(other)
	fresh := func(ids ...int) bool { // nobody changed them after they were seen
		return !slices.ContainsFunc(ids, func(id int) bool { return m.rev[id] > view })
	}
	line := fmt.Sprintf(`146.5%d "%s"`, slot, name)
	added := func(after map[int]thing) map[int]thing {
		after[m.next+1], after[m.next+2] = thing{channel: m.next + 1, name: name}, thing{entry: true, slot: slot, channel: m.next + 1, name: name}
		return after
	}
	var want bool
	var after map[int]thing
	var err error
	switch act {
	case "store":
		want, after = !taken, added(map[int]thing{})
		_, err = a.Plans.Store(ctx, load, plan.Save{Line: line, Slot: &slot, Revision: view})
	case "replace":
		want, after = !taken || fresh(id, e.channel), added(map[int]thing{})
		if taken {
			after[id], after[e.channel] = thing{}, thing{}
			m.leaves(e.channel, after)
		}
		_, err = a.Plans.Store(ctx, load, plan.Save{Line: line, Slot: &slot, Replace: true, Revision: view})
	case "delete":
		want, after = taken && fresh(id, e.channel), map[int]thing{id: {}, e.channel: {}}
		m.leaves(e.channel, after)
		_, err = a.Plans.Delete(ctx, load, slot, view)
	case "rename":
		want, after = taken && fresh(id, e.channel), map[int]thing{e.channel: {channel: e.channel, name: name}, id: {entry: true, slot: slot, channel: e.channel, name: name}}
		_, err = a.Plans.Update(ctx, load, slot, plan.Update{Name: &name, Revision: view})
	case "move", "swap":
		to := fmt.Sprint(other)
		_, err = a.Plans.Update(ctx, load, slot, plan.Update{Slot: &to, Swap: act == "swap", Revision: view})
		want = taken && fresh(id, e.channel) && (!both || act == "swap" && fresh(otherID) || slot == other)
		after = map[int]thing{id: {entry: true, slot: other, channel: e.channel, name: e.name}}
		if both && slot != other {
			after[otherID] = thing{entry: true, slot: slot, channel: o.channel, name: o.name}
		}
		if slot == other {
			after = nil // nothing changes
		}
	case "several", "order", "gap", "duplicate", "empty", "fill", "paste":
		want, after, err = m.several(ctx, a, load, act, slot, other, name, view)
	case "join", "leave":
		after = map[int]thing{}
		var of []int64
		l, lerr := a.Plans.Ledger(ctx, load)
		require.NoError(r, lerr)
		for i, s := range slices.Compact([]int{slot, other}) {
			_, e, held := m.at(s)
			if !held {
				continue
			}
			of = append(of, row(l, s).ID)
			switch {
			case act == "leave":
				m.leaves(e.channel, after)
			case !m.joined(e.channel, 0):
				after[m.next+1+i] = thing{member: true, channel: e.channel}
			}
		}
		want = true
		_, err = a.Plans.Join(ctx, l.PlanID, set, plan.Joining{Channels: of, Out: act == "leave"})
	case "undo", "redo":
		from, to := m.undo, m.redo
		if act == "redo" {
			from, to = m.redo, m.undo
		}
		var l *plan.Ledger
		l, err = a.Plans.Undo(ctx, load, view, act == "redo")
		if len(from[person]) == 0 {
			require.ErrorIs(r, err, fault.ErrNothing)
			return false
		}
		var stale *fault.Stale
		if errors.As(err, &stale) && stale.Why != "" && l == nil {
			before := len(from[person])
			trial := m.clone()
			require.False(r, trial.back(trial.pick(act), trial.other(act), person, 0), "refused: %v", err)
			require.Len(r, from[person], before)
			return false
		}
		require.NoError(r, err)
		require.True(r, m.back(from, to, person, l.Revision), "the model refuses")
		return true
	}
	if !want {
		require.Error(r, err, "%s of %d by %d", act, slot, person)
		return false
	}
	require.NoError(r, err, "%s of %d by %d", act, slot, person)
	if len(after) == 0 {
		return false
	}
	l, err := a.Plans.Ledger(ctx, load)
	require.NoError(r, err)
	m.do(person, l.Revision, after)
	m.next += 4
	return true
}

func (m *model) pick(act string) map[int64][]step {
	if act == "redo" {
		return m.redo
	}
	return m.undo
}

func (m *model) other(act string) map[int64][]step {
	if act == "redo" {
		return m.undo
	}
	return m.redo
}

func (m *model) clone() *model {
	return &model{rows: maps.Clone(m.rows), rev: maps.Clone(m.rev), undo: maps.Clone(m.undo), redo: maps.Clone(m.redo)}
}

// several carries out what is done to several slots at once; the model lays cards
// on a table.
func (m *model) several(ctx context.Context, a *demotest.Rig, load int64, act string, slot, other int, name string, view int64) (want bool, after map[int]thing, err error) {
	some := slices.Compact([]int{min(slot, other), max(slot, other)})
	after, want = map[int]thing{}, true
	var held []int
	for _, s := range some {
		if _, _, ok := m.at(s); ok {
			held = append(held, s)
		}
	}
	lies := func(s int, to int) { // the card of a slot goes to another one
		id, e, ok := m.at(s)
		if !ok || s == to {
			return
		}
		want = want && m.rev[id] <= view
		e.slot = to
		after[id] = e
	}
	touch := func(s int, f func(e thing)) { // a channel that somebody has to have seen
		id, e, _ := m.at(s)
		want = want && m.rev[id] <= view && m.rev[e.channel] <= view
		f(e)
	}
	fresh := func(at int, name string) {
		n := m.next + 1 + len(after)
		after[n], after[n+1] = thing{channel: n, name: name}, thing{entry: true, slot: at, channel: n, name: fmt.Sprint("short of ", n)}
	}
	vacant := func(from int) (out []int) {
		for s := from; s < from+20; s++ {
			if _, _, taken := m.at(s); !taken {
				out = append(out, s)
			}
		}
		return out
	}
	switch act {
	case "several": // the two go to slots 3 and 4; what is there goes where they were
		free := slices.DeleteFunc(slices.Clone(held), func(s int) bool { return s >= 3 && s < 3+len(held) })
		for i, s := range held {
			lies(s, 3+i)
		}
		for s := 3; s < 3+len(held); s++ {
			if _, _, there := m.at(s); there && !slices.Contains(held, s) {
				lies(s, free[0])
				free = free[1:]
			}
		}
		_, err = a.Plans.Arrange(ctx, load, plan.Arrangement{Act: "move", Slots: some, To: 3, Revision: view})
	case "order": // the other way round
		if len(held) == 2 {
			lies(held[0], held[1])
			lies(held[1], held[0])
		}
		slices.Reverse(some)
		_, err = a.Plans.Arrange(ctx, load, plan.Arrangement{Act: "order", Slots: some, Revision: view})
	case "gap":
		for s, to := slot, slot+1; ; s, to = s+1, to+1 {
			if _, _, taken := m.at(s); !taken {
				break
			}
			lies(s, to)
		}
		_, err = a.Plans.Arrange(ctx, load, plan.Arrangement{Act: "insert", To: slot, Count: 1, Revision: view})
	case "duplicate":
		if want = len(held) > 0; want {
			free := vacant(held[len(held)-1] + 1)
			for i, s := range held {
				_, e, _ := m.at(s)
				c := m.rows[e.channel]
				fresh(free[i], c.name)
				made := after[m.next+1+2*i]
				made.power = c.power
				after[m.next+1+2*i] = made
			}
		}
		_, err = a.Plans.DuplicateSome(ctx, load, some, view)
	case "empty":
		want = len(held) > 0
		for _, s := range held {
			id, _, _ := m.at(s)
			touch(s, func(e thing) {
				after[id], after[e.channel] = thing{}, thing{}
				m.leaves(e.channel, after)
			})
		}
		_, err = a.Plans.DeleteSome(ctx, load, some, view)
	case "fill":
		want = len(held) > 0
		power := []string{"high", "mid", "low"}[(slot+other)%3]
		for _, s := range held {
			_, e, _ := m.at(s)
			c := m.rows[e.channel]
			if now := c.power; now == power || now == "" && power == "high" {
				want = want && m.rev[e.channel] <= view // it is looked at all the same
				id, _, _ := m.at(s)
				want = want && m.rev[id] <= view
				continue
			}
			touch(s, func(thing) {})
			c.power = power
			after[e.channel] = c
		}
		_, err = a.Plans.UpdateSome(ctx, load, some, plan.Update{Power: &power, Revision: view})
	case "paste":
		free := vacant(slot)
		fresh(free[0], name)
		fresh(free[1], name+"b")
		_, err = a.Plans.Paste(ctx, load, plan.Paste{Text: fmt.Sprintf("name\treceive MHz\n%s\t146.9\n%sb\t146.91\n", name, name), Slot: slot, Revision: view})
	}
	return want, after, err
}
