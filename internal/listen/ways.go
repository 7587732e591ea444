package listen

import (
	"fmt"
	"strings"

	"mnemos/core/scan"
)

// asGood is how near to the goal counts as reached: what the figures show as the same.
const asGood = 0.005

// ways looks for what reaches the goal.
func (s *setting) ways(r *Report, g scan.Goal, now *scan.Result) *scan.Result {
	r.Chance = now.Chance(g.Channel, g.Length)
	g.Share -= asGood
	if r.Reached = r.Chance >= g.Share; r.Reached {
		return nil
	}
	best, ok := scan.Reach(s.setup, g, s.room)
	if best.Result == nil || !ok && best.Chance <= r.Chance+0.001 {
		return nil
	}
	w := s.way(best, g, now)
	r.Best = &w
	add := func(x scan.Way) {
		if len(r.Parts) < 4 {
			r.Parts = append(r.Parts, s.way(x, g, now))
		}
	}
	if len(best.Changes) > 1 {
		for _, c := range best.Changes {
			with := scan.Reckon(s.setup.With([]scan.Change{c}, s.room))
			add(scan.Way{Changes: []scan.Change{c}, Result: with, Chance: with.Chance(g.Channel, g.Length)})
		}
	} else {
		for _, x := range scan.Alternatives(s.setup, g, s.room) {
			if x.Changes[0].Kind != best.Changes[0].Kind && x.Chance > r.Chance+asGood {
				add(x)
			}
		}
	}
	return best.Result
}

func (s *setting) way(w scan.Way, g scan.Goal, now *scan.Result) Way {
	out := Way{Chance: w.Chance, Heard: w.Result.Heard, Short: max(0, g.Share-w.Chance), Changes: []Change{}}
	for _, c := range w.Changes {
		out.Changes = append(out.Changes, s.change(c))
	}
	switch len(out.Changes) {
	case 1:
		out.Label = "Make this change"
	case 2:
		out.Label = "Make both changes"
	default:
		out.Label = fmt.Sprintf("Make these %d changes", len(out.Changes))
	}
	gone := map[int]bool{}
	for _, c := range w.Changes {
		if c.Kind == scan.Leave {
			gone[c.Channel] = true
		}
	}
	for i, x := range s.items {
		if !x.in || gone[i] || x.by == ByAlways || x.data {
			continue
		}
		was, is := now.Chance(i, g.Length), w.Result.Chance(i, g.Length)
		if was-is > 0.03 && (out.Loses == nil || was-is > out.Loses.Was-out.Loses.Is) {
			out.Loses = &Loss{title(x), was, is}
		}
	}
	return out
}

// change puts a change into words.
func (s *setting) change(c scan.Change) Change {
	out := Change{Kind: c.Kind, Slot: -1, Resume: c.Resume, Stay: c.Stay, Stays: []int{}}
	name := ""
	if c.Channel != scan.None && c.Channel < len(s.items) {
		out.Slot, name = s.items[c.Channel].Entry.Slot, title(s.items[c.Channel])
	}
	switch c.Kind {
	case scan.Leave:
		out.Says = "Leave out " + name
	case scan.Prefer:
		if out.Says = "Priority to " + name; s.setup.Priority != scan.None && s.watched() == nil {
			out.Says += ", not " + title(s.items[s.setup.Priority])
		}
	case scan.Watch:
		out.Says = fmt.Sprintf("Dual watch with %s on the other side", name)
	case scan.Second:
		out.Says = fmt.Sprintf("Leave the second receiver on %s", name)
	case scan.GoOn:
		out.Says = "Go on " + goesOn(c.Resume, c.Stay)
	case scan.Open:
		out.Says = fmt.Sprintf("Wait for no tone on %s", name)
	case scan.SplitOff:
		for _, i := range c.Stays {
			out.Stays = append(out.Stays, s.items[i].Entry.Slot)
		}
		out.Says = fmt.Sprintf("Split the list: %s and %d more stay, the others get a list of their own", name, max(0, len(c.Stays)-1))
	}
	return out
}

// goesOn is how a scan goes on.
func goesOn(r scan.Resume, stay float64) string {
	switch r {
	case scan.Carrier:
		return fmt.Sprintf("%s s after the signal has gone", short(stay))
	case scan.Search:
		return "when you press a key"
	}
	return fmt.Sprintf("after %s s, whatever is heard", short(stay))
}

func short(x float64) string {
	return strings.TrimSuffix(fmt.Sprintf("%.1f", x), ".0")
}
