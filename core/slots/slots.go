// Package slots works out where channels come to stand when they are moved
// about in the memory of a radio. People learn the numbers of their channels, so
// whatever is moved, as few others as can be change theirs:
//
//	m := slots.Memory{First: 1, Last: 200, Used: []int{1, 2, 3, 7}}
//	m.Move([]int{2, 3}, 7) // 2 to 7, 3 to 8; what was in 7 goes to 2
package slots

import (
	"fmt"
	"slices"
)

// Memory is the slots of a radio: the range of their numbers, ends included, and
// which are in use.
type Memory struct {
	First, Last int
	Used        []int
}

// Moves says for slots in use where what is in them goes. No two go to one, and
// what is not named stays.
type Moves map[int]int

// Move puts what is in some slots into those from one on, in their order. What
// is there goes into those that become vacant, lowest first; nothing else moves.
func (m Memory) Move(some []int, to int) (Moves, error) {
	some = m.held(some)
	want := Moves{}
	for i, s := range some {
		want[s] = to + i
	}
	if n := len(some); n > 0 && (to < m.First || to+n-1 > m.Last) {
		return nil, fmt.Errorf("%d channels from slot %d on would need slot %d: the radio has %d to %d", n, to, to+n-1, m.First, m.Last)
	}
	return m.Place(want), nil
}

// Step moves what is in some slots by one slot up or down, each of a run past
// what stands beside the run. At an end of the memory it stays.
func (m Memory) Step(some []int, by int) Moves {
	want := Moves{}
	for _, s := range m.held(some) {
		if s+by < m.First || s+by > m.Last {
			return Moves{}
		}
		want[s] = s + by
	}
	return m.Place(want)
}

// Swap exchanges what is in two slots; one of them may be vacant.
func (m Memory) Swap(a, b int) Moves {
	want := Moves{}
	if m.uses(a) {
		want[a] = b
	} else {
		a, b = b, a
		if m.uses(a) {
			want[a] = b
		}
	}
	return m.Place(want)
}

// Insert makes n slots vacant from one on. What is in the way moves up, and past
// the next gaps nothing does.
func (m Memory) Insert(at, n int) (Moves, error) {
	out := Moves{}
	free := at + n // the first slot that what is moved may go to
	for _, s := range m.sorted() {
		if s < at {
			continue
		}
		if s >= free {
			break
		}
		if free > m.Last {
			return nil, fmt.Errorf("the radio has no room: its last slot is %d; delete a channel above slot %d, or close a gap there", m.Last, at)
		}
		out[s] = free
		free++
	}
	return out, nil
}

// Close moves what is between two slots, ends included, down over the gaps.
func (m Memory) Close(from, to int) Moves {
	out := Moves{}
	next := max(from, m.First)
	for _, s := range m.sorted() {
		if s < from || s > to {
			continue
		}
		if s != next {
			out[s] = next
		}
		next++
	}
	return out
}

// Order puts what is in some slots into another order, over those same slots.
func (m Memory) Order(wanted []int) Moves {
	out := Moves{}
	kept := slices.DeleteFunc(slices.Clone(wanted), func(s int) bool { return !m.uses(s) })
	into := slices.Compact(slices.Sorted(slices.Values(kept)))
	if len(into) != len(kept) {
		return out // one slot twice is no order
	}
	for i, s := range kept {
		if into[i] != s {
			out[s] = into[i]
		}
	}
	return out
}

// Place carries out what is wanted and finds room for what is in the way: the
// slots that become vacant, lowest first.
func (m Memory) Place(want Moves) Moves {
	out, targets := Moves{}, map[int]bool{}
	for s, to := range want {
		targets[to] = true
		if s != to {
			out[s] = to
		}
	}
	var left []int
	for _, s := range m.sorted() {
		if _, moves := want[s]; moves && !targets[s] {
			left = append(left, s)
		}
	}
	for _, s := range m.sorted() {
		if _, moves := want[s]; !moves && targets[s] {
			out[s], left = left[0], left[1:]
		}
	}
	return out
}

// Vacant returns the next n vacant slots from one on, and from the first slot
// where those are not enough; fewer where the memory is full.
func (m Memory) Vacant(from, n int) (out []int) {
	used := map[int]bool{}
	for _, s := range m.Used {
		used[s] = true
	}
	from = min(max(from, m.First), m.Last+1)
	for _, span := range [][2]int{{from, m.Last}, {m.First, from - 1}} {
		for s := span[0]; s <= span[1] && len(out) < n; s++ {
			if !used[s] {
				out = append(out, s)
			}
		}
	}
	return out
}

func (m Memory) uses(s int) bool { return slices.Contains(m.Used, s) }

// held are those of some slots that are in use, in order and once each.
func (m Memory) held(some []int) []int {
	out := slices.DeleteFunc(slices.Clone(some), func(s int) bool { return !m.uses(s) })
	slices.Sort(out)
	return slices.Compact(out)
}

func (m Memory) sorted() []int { return slices.Sorted(slices.Values(m.Used)) }

// Runs writes slots as people say them: "3, 5 and 30–33".
func Runs(some []int) string {
	some = slices.Compact(slices.Sorted(slices.Values(some)))
	var parts []string
	for i := 0; i < len(some); {
		j := i
		for j+1 < len(some) && some[j+1] == some[j]+1 {
			j++
		}
		switch j - i {
		case 0:
			parts = append(parts, fmt.Sprint(some[i]))
		case 1:
			parts = append(parts, fmt.Sprint(some[i]), fmt.Sprint(some[j]))
		default:
			parts = append(parts, fmt.Sprintf("%d–%d", some[i], some[j]))
		}
		i = j + 1
	}
	switch n := len(parts); n {
	case 0:
		return ""
	case 1:
		return parts[0]
	default:
		const most = 6
		if n > most {
			return fmt.Sprintf("%s and %d more", join(parts[:most-1]), n-most+1)
		}
		return join(parts[:n-1]) + " and " + parts[n-1]
	}
}

func join(parts []string) (out string) {
	for i, p := range parts {
		if i > 0 {
			out += ", "
		}
		out += p
	}
	return out
}
