package listen

import (
	"fmt"
	"slices"

	"mnemos/core/scan"
)

// seconds is how long is drawn.
const seconds = 30

func (s *setting) draw(r *Report, now, then *scan.Result, focus int) {
	d := scan.Draw(now, seconds, focus)
	r.Half = s.half(now.Setup, d)
	if then != nil {
		h := s.half(then.Setup, scan.Follow(then.Setup, d.Overs, seconds))
		r.HalfThen = &h
	}
}

func (s *setting) half(setup scan.Setup, d scan.Drawing) Half {
	h := Half{Seconds: d.Seconds, Overs: map[int][]Over{}, Visits: []Visit{}}
	for i, overs := range d.Overs {
		for _, o := range overs {
			if o.To <= 0 || o.From >= d.Seconds {
				continue
			}
			x := Over{max(0, o.From), min(d.Seconds, o.To), []scan.Over{}}
			if setup.Channels[i].Second {
				x.Heard = append(x.Heard, scan.Over{From: x.From, To: x.To})
			}
			for _, part := range d.Heard(setup, i, o) {
				if from, to := max(0, part.From), min(d.Seconds, part.To); to > from {
					x.Heard = append(x.Heard, scan.Over{From: from, To: to})
				}
			}
			h.Overs[s.items[i].Entry.Slot] = append(h.Overs[s.items[i].Entry.Slot], x)
		}
	}
	for _, v := range d.Visits {
		h.Visits = append(h.Visits, Visit{s.items[v.Channel].Entry.Slot, v.From, v.To, v.Stop, v.Priority})
	}
	return h
}

// points is how many steps a curve has.
const points = 60

func (s *setting) curve(r *Report, focus int, g scan.Goal, now, then *scan.Result) {
	r.Curve = Curve{Slot: -1, Longest: 12, Now: []float64{}, Then: []float64{}}
	if focus == scan.None {
		return
	}
	r.Curve.Slot = s.items[focus].Entry.Slot
	for r.Curve.Longest < 1.6*g.Length {
		r.Curve.Longest *= 2
	}
	for i := range points + 1 {
		length := r.Curve.Longest * float64(i) / points
		r.Curve.Now = append(r.Curve.Now, now.Chance(focus, length))
		if then != nil {
			r.Curve.Then = append(r.Curve.Then, then.Chance(focus, length))
		}
	}
	r.Curve.Reach = now.Reach(focus, g.Share)
	if then != nil {
		r.Curve.ReachThen = then.Reach(focus, g.Share)
	}
}

// modes says what each way of going on makes of this list.
func (s *setting) modes(r *Report, g scan.Goal) {
	seen := []scan.Option{}
	add := func(resume scan.Resume, stay float64, is bool) {
		if slices.Contains(seen, scan.Option{Resume: resume, Stay: stay}) {
			return
		}
		seen = append(seen, scan.Option{Resume: resume, Stay: stay})
		setup := s.setup
		setup.Resume, setup.Stay = resume, stay
		with := scan.Reckon(setup)
		m := Mode{Resume: resume, Stay: stay, Now: is, Round: with.Round, Heard: with.Heard}
		if g.Channel != scan.None {
			m.Chance = with.Chance(g.Channel, g.Length)
		}
		switch {
		case with.Stuck != scan.None:
			m.Says = fmt.Sprintf("stays on %s for good: it never falls silent", title(s.items[with.Stuck]))
		case resume == scan.Carrier:
			m.Says = fmt.Sprintf("stays until the signal has gone, and %s s more", short(stay))
		case resume == scan.Search:
			m.Says = fmt.Sprintf("stops at the first and stays; reckoned with %s s until you press a key", short(stay))
		default:
			m.Says = fmt.Sprintf("goes on after %s s, also in the middle of an over", short(stay))
		}
		r.Modes = append(r.Modes, m)
	}
	add(s.setup.Resume, s.setup.Stay, true)
	for _, m := range s.Radio.Scan.Resume {
		if m == "time" {
			for _, n := range s.Radio.Scan.Seconds {
				add(scan.Time, float64(n), false)
			}
			continue
		}
		add(scan.Resume(m), usual(scan.Resume(m), s.Radio), false)
	}
}
