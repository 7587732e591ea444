package listen

import (
	"fmt"

	"mnemos/core/scan"
)

// goal reads what is wanted: what the line says, and where it says nothing what is kept.
func (s *setting) goal(r *Report, line string) scan.Goal {
	names := s.named()
	kept := scan.Ask(s.row.Goal, names)
	g := scan.Goal{Channel: scan.None, Length: 5, Share: 0.9}
	for i, x := range s.items { // without any: a channel that is scanned
		if x.in && x.by != ByAlways && !x.data && (g.Channel == scan.None || x.talk.Rate > s.items[g.Channel].talk.Rate) {
			g.Channel = i
		}
	}
	use := func(a scan.Asked) {
		if a.Channel {
			g.Channel = a.Goal.Channel
		}
		if a.Length {
			g.Length = a.Goal.Length
		}
		if a.Share {
			g.Share = a.Goal.Share
		}
	}
	if kept.Trouble == "" {
		use(kept)
	}
	r.Goal = Goal{Line: line, Words: []scan.Word{}, Slot: -1, Kept: s.row.Goal != "" && (line == "" || line == s.row.Goal)}
	if line == "" {
		line = s.row.Goal
		if line == "" && g.Channel != scan.None {
			line = g.Line(names)
		}
		r.Goal.Line = line
	}
	asked := scan.Ask(line, names)
	r.Goal.Words, r.Goal.Trouble = append(r.Goal.Words, asked.Words...), asked.Trouble
	if asked.Trouble == "" {
		use(asked)
	}
	if g.Channel != scan.None {
		x := s.items[g.Channel]
		r.Goal.Slot, r.Goal.Name = x.Entry.Slot, title(x)
		if r.Goal.Trouble == "" && s.setup.Channels[g.Channel].Out {
			r.Goal.Trouble = fmt.Sprintf("%s is not scanned. Put it back, or choose another channel.", title(x))
		}
	}
	r.Goal.Length, r.Goal.Share = g.Length, g.Share
	return g
}

// title is what a channel is called.
func title(x item) string {
	if n := x.Entry.Channel.Name; n != "" {
		return n
	}
	return x.Entry.Channel.Receive.String()
}
