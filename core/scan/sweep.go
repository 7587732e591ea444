package scan

import (
	"cmp"
	"slices"

	"mnemos/core/freq"
)

// Meeting is how a step scan meets a frequency.
type Meeting struct {
	Frequency freq.Hz
	Nearest   freq.Hz // of the steps
	Off       freq.Hz // how far it is off, without a sign
	Says      Meets
}

// Meets says how well.
type Meets string

// A receiver hears what is a little off its centre, the worse the further. Common
// practice, no source: a third of the width of the channel.
const (
	OnCentre  Meets = "on centre"
	OffCentre Meets = "off centre"
	PassedBy  Meets = "passed by"
)

// Sweep is a step scan of a range.
type Sweep struct {
	Lower, Upper, Step freq.Hz
	Steps              int
	Seconds            float64
	Meetings           []Meeting
	Met, Off, Passed   int
}

// Target is something that a sweep may meet.
type Target struct {
	Frequency freq.Hz
	Narrow    bool // 12.5 kHz wide or less, else 20 to 25 kHz
}

// StepScan goes through a range from its lower end by a step, looking rate times a
// second.
func StepScan(lower, upper, step freq.Hz, rate float64, targets []Target) Sweep {
	s := Sweep{Lower: lower, Upper: upper, Step: step}
	if step <= 0 || upper < lower || rate <= 0 {
		return s
	}
	s.Steps = int((upper-lower)/step) + 1
	s.Seconds = float64(s.Steps) / rate
	for _, t := range targets {
		if t.Frequency < lower || t.Frequency > upper {
			continue
		}
		n := (t.Frequency - lower + step/2) / step
		m := Meeting{Frequency: t.Frequency, Nearest: lower + n*step}
		if m.Nearest > upper {
			m.Nearest -= step
		}
		m.Off = m.Nearest - t.Frequency
		if m.Off < 0 {
			m.Off = -m.Off
		}
		width := freq.Hz(8_000)
		if t.Narrow {
			width = 4_000
		}
		switch {
		case m.Off == 0:
			m.Says = OnCentre
			s.Met++
		case m.Off <= width:
			m.Says = OffCentre
			s.Off++
		default:
			m.Says = PassedBy
			s.Passed++
		}
		s.Meetings = append(s.Meetings, m)
	}
	slices.SortFunc(s.Meetings, func(a, b Meeting) int { return cmp.Compare(a.Frequency, b.Frequency) })
	return s
}

// MeetsAll is the widest of some steps with which a sweep from the lower end meets all
// targets on their centre; where none does, the one that meets most of them, the widest
// of those.
func MeetsAll(lower, upper freq.Hz, steps []freq.Hz, targets []Target) (step freq.Hz, all bool) {
	best := -1
	for _, s := range steps {
		w := StepScan(lower, upper, s, 1, targets)
		if w.Met > best || w.Met == best && s > step {
			step, best, all = s, w.Met, w.Met == len(w.Meetings)
		}
	}
	return step, all
}

// Keyed is how a frequency is reached that cannot be typed: type one that can, then go
// up by steps.
type Keyed struct {
	Type freq.Hz
	Step freq.Hz
	Up   int // presses; 0 where it can be typed
}

// Reaches says how a frequency is reached with so many digits (4 for 146.9, 6 for
// 146.940) and some steps. Of the ways it is that with the fewest presses. ok is false
// where no step leads there.
func Reaches(f freq.Hz, digits int, steps []freq.Hz) (k Keyed, ok bool) {
	if digits <= 0 {
		return k, false
	}
	unit := freq.Hz(1)
	for range max(0, 9-digits) {
		unit *= 10
	}
	if f%unit == 0 {
		return Keyed{Type: f}, true
	}
	for _, s := range slices.Backward(slices.Sorted(slices.Values(steps))) { // of two, the wider
		// Going down from f step by step, the first that can be typed; after unit steps
		// the last digits repeat.
		for n := freq.Hz(1); s > 0 && n <= unit && f-n*s > 0; n++ {
			if ok && int(n) >= k.Up {
				break
			}
			if from := f - n*s; from%unit == 0 {
				k, ok = Keyed{Type: from, Step: s, Up: int(n)}, true
				break
			}
			if n > 200 {
				break
			}
		}
	}
	return k, ok
}
