package rf_test

import (
	"time"

	"mnemos/core/rf"
	"mnemos/core/tone"
)

// stepped is a second simulation: it looks at every port each millisecond and counts, and
// knows of no events. Within a step receivers are looked at first, then transmitters, until
// nothing changes.
func stepped(w *rf.World, overs []rf.Over, until time.Duration) map[rf.Port][][2]time.Duration { //nolint:gocognit,cyclop // one rule after another
	type tx struct {
		p                    rf.Port
		on, keyed, tail      bool
		wanted, hang, opened time.Duration
	}
	type rx struct {
		p                        rf.Port
		open, squelched          bool
		seen, right, wrong, deaf time.Duration
	}
	var txs []*tx
	var rxs []*rx
	for i, s := range w.Stations {
		for k := range s.Transmitters {
			txs = append(txs, &tx{p: rf.Port{Station: i, At: k}, wanted: -1, hang: -1})
		}
		for k := range s.Receivers {
			rxs = append(rxs, &rx{p: rf.Port{Station: i, At: k}, seen: -1, right: -1, wrong: -1})
		}
	}
	out := map[rf.Port][][2]time.Duration{}
	same := func(list []int, at int) bool {
		for _, x := range list {
			if x == at {
				return true
			}
		}
		return false
	}
	for now := time.Duration(0); now <= until; now += ms {
		for again := true; again; {
			again = false
			for _, r := range rxs {
				d := w.Stations[r.p.Station].Receivers[r.p.At]
				own, carrier, right := false, false, false
				for _, t := range txs {
					e := w.Stations[t.p.Station].Transmitters[t.p.At]
					mine := t.p.Station == r.p.Station && same(d.Own, t.p.At)
					own = own || mine && t.on
					if !t.on || mine || e.Freq != d.Freq || t.p.Station != r.p.Station && w.Hears != nil && !w.Hears(r.p.Station, t.p.Station) {
						continue
					}
					key := e.Key
					if t.tail && e.Bare {
						key = tone.Off
					}
					carrier = true
					right = right || d.Lock.IsOff() || tone.Same(key, d.Lock)
				}
				if own {
					r.deaf = now + d.Recover
				}
				if own || now < r.deaf {
					carrier, right = false, false
					if r.open {
						r.open, again = false, true
					}
				}
				if r.open {
					if right {
						r.wrong = -1
					} else if r.wrong < 0 {
						r.wrong = now
					}
					if r.wrong >= 0 && now-r.wrong >= d.Close {
						r.open, r.right, again = false, -1, true
					}
				}
				if !r.open && !carrier {
					r.seen, r.squelched, r.right = -1, false, -1
				}
				if r.open || !carrier {
					continue
				}
				if r.seen < 0 {
					r.seen = now
				}
				r.squelched = r.squelched || now-r.seen >= d.Squelch
				if !right {
					r.right = -1
				} else if r.squelched && r.right < 0 {
					r.right = now
				}
				if r.squelched && right && (d.Lock.IsOff() || now-r.right >= d.Decode) {
					r.open, r.wrong, again = true, -1, true
				}
			}
			for _, t := range txs {
				e := w.Stations[t.p.Station].Transmitters[t.p.At]
				keyed := false
				for _, o := range overs {
					keyed = keyed || o.Tx == t.p && o.From <= now && now < o.To
				}
				for _, r := range rxs {
					keyed = keyed || r.open && r.p.Station == t.p.Station && same(w.Stations[r.p.Station].Receivers[r.p.At].Keys, t.p.At)
				}
				if t.keyed && !keyed {
					t.hang = now + e.Hang
				}
				t.keyed = keyed
				want := keyed || now < t.hang
				if !want {
					t.wanted = -1
				} else if t.wanted < 0 {
					t.wanted = now
				}
				on := want && now-t.wanted >= e.Turn+e.Rise
				tail := want && !keyed
				if on && !t.on {
					t.opened = now
				}
				if t.on && !on && now > t.opened { // what begins and ends at one moment was not
					out[t.p] = append(out[t.p], [2]time.Duration{t.opened, now})
				}
				if on != t.on || on && tail != t.tail {
					again = true
				}
				t.on, t.tail = on, tail
			}
		}
	}
	for _, t := range txs {
		if t.on {
			out[t.p] = append(out[t.p], [2]time.Duration{t.opened, until})
		}
	}
	return out
}
