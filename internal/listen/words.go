package listen

import (
	"fmt"
	"math"

	"mnemos/core/scan"
)

// says puts the result into a sentence, and the reckoning into lines.
func (s *setting) says(r *Report, g scan.Goal, now *scan.Result) {
	unit := s.Unit.Title()
	switch {
	case len(s.items) == 0:
		r.Goal.Trouble = "" // there is nothing that it could mean
		r.Says = fmt.Sprintf("%s holds no channels yet. Add some in Plan or Find, then say here what you want to hear, such as: %s", unit, scan.Such)
		return
	case r.Scanned == 0:
		r.Says = fmt.Sprintf("%s scans nothing. Choose a list, or put channels back.", unit)
		return
	case g.Channel == scan.None || r.Goal.Trouble != "":
		return
	}
	c, f := now.Setup.Channels[g.Channel], now.Of[g.Channel]
	name := title(s.items[g.Channel])
	hears := fmt.Sprintf("%s hears %s of 10.", unit, ten(r.Chance))
	switch {
	case c.Second:
		r.Says = hears + " Its second receiver stays on " + name + "."
	case c.Always:
		r.Says = fmt.Sprintf("%s never falls silent: whenever %s looks, it hears it.", name, unit)
	case f.Never:
		r.Says = hears + fmt.Sprintf(" A look of %.2f s is too short for %s, which needs %.2f s.", s.setup.Look, s.items[g.Channel].Entry.Channel.ReceiveTone, c.Opens)
	case now.Stuck != scan.None:
		r.Says = hears + fmt.Sprintf(" It stays on %s, which never falls silent.", title(s.items[now.Stuck]))
	case r.Scanned == 1:
		r.Says = hears + " It looks at nothing else."
	default:
		r.Says = hears + fmt.Sprintf(" It is away for %.1f s at a time", f.Away)
		if i, takes := s.thief(now, g.Channel); i != scan.None {
			r.Says += fmt.Sprintf(", and spends %.1f s of them on %s", takes, title(s.items[i]))
		}
		r.Says += "."
	}
	if now.Stuck == scan.None && !c.Second {
		r.Why = s.why(r, g, now)
	}
}

func ten(share float64) string { return fmt.Sprintf("%.1f", 10*share) }

// thief is the channel that takes most of the time away from another, and how much of
// a round; None where all take about the same.
func (s *setting) thief(now *scan.Result, from int) (i int, takes float64) {
	i = scan.None
	var sum float64
	for j := range now.Of {
		if j == from || math.IsInf(now.Round, 1) {
			continue
		}
		t := now.Of[j].Share * now.Of[from].Return
		sum += t
		if t > takes {
			i, takes = j, t
		}
	}
	if takes < 0.2*sum || takes < 0.5 {
		return scan.None, 0
	}
	return i, takes
}

func (s *setting) why(r *Report, g scan.Goal, now *scan.Result) []Line {
	f, c := now.Of[g.Channel], now.Setup.Channels[g.Channel]
	rate := fmt.Sprintf("the profile says %.1f channels a second", r.Rate.Profile)
	if r.Rate.Timed {
		rate = fmt.Sprintf("timed: %d channels in %s s", r.Rate.Channels, short(r.Rate.Seconds))
	}
	opens := "the squelch needs"
	if lock := s.items[g.Channel].Entry.Channel.ReceiveTone; !lock.IsOff() {
		opens = "the decoder of " + lock.String() + " needs"
	}
	stops := now.Round - now.Looks*now.Setup.Look
	out := []Line{
		{"looks", fmt.Sprintf("%.0f a round, %.2f s each (%s); %s %.2f s of it", now.Looks, now.Setup.Look, rate, opens, c.Opens)},
		{"stops", fmt.Sprintf("%s goes on %s; stops take %.1f s of a round of %.1f s", s.Unit.Title(), goesOn(now.Setup.Resume, now.Setup.Stay), stops, now.Round)},
		{"chance", fmt.Sprintf("an over is heard if it lasts into a look: %s + %.2f − 2 × %.2f = %.1f s of the %.1f s from look to look, and whatever begins while %s stays there. Rounds differ: all of them counted, %.2f", short(g.Length), now.Setup.Look, c.Opens, max(0, g.Length+now.Setup.Look-2*c.Opens), f.Return, s.Unit.Title(), r.Chance)},
	}
	if r.Guesses > 0 {
		out = append(out, Line{"guesses", fmt.Sprintf("nobody has listened long enough to %s: %d overs an hour of %d s are taken there", many(r.Guesses, "channel"), guessRate, guessLength)})
	}
	return out
}

func many(n int, what string) string {
	if n == 1 {
		return "one " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}
