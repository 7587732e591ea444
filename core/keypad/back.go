package keypad

import (
	"strings"

	"mnemos/core/freq"
	"mnemos/core/radio"
	"mnemos/core/tone"
)

// rested are the settings that may rest at a value, in the order in which they
// are put back.
var rested = []radio.Setting{radio.Transmit, radio.Step, radio.AutoShift, radio.Lock, radio.Power}

// back puts back what would reach the next channel.
func (w *writer) back() {
	w.vfo(true)
	w.sheet.Leave = append(w.sheet.Leave, "VFO")
	for _, s := range rested {
		rest, ok := w.p.Rest(s)
		if !ok || s == radio.AutoShift && w.set[s] == "" {
			continue
		}
		was := w.set[w.key(s)]
		do, unit := s.Label(), ""
		switch s {
		case radio.Step:
			unit = "kHz"
		case radio.Transmit:
			do = "split"
		}
		w.sheet.Leave = append(w.sheet.Leave, strings.TrimSpace(do+" "+rest+" "+unit))
		switch {
		case s == radio.Transmit && (w.counts || was != rest):
			w.backSplit()
		case was == rest:
		default:
			w.choose(s, do, rest, unit)
			w.sheet.Steps[len(w.sheet.Steps)-1].Again = was != ""
		}
	}
	if w.fresh {
		w.sheet.Leave = append(w.sheet.Leave, w.sheet.Start...)
	}
}

// backSplit takes away the splits of all bands in which something was keyed; each is
// reached by a frequency that was keyed there.
func (w *writer) backSplit() {
	here := w.key(radio.Transmit)
	step, value, f := splitStep(0)
	step.Again = true
	if was := w.set[here]; was != "" && was != value || !w.counts {
		w.settle(radio.Transmit, step, value, f)
	}
	if !w.counts {
		return
	}
	for i := range w.p.Receive {
		there := splitOf(i)
		if was := w.set[there]; was == "" || was == value {
			continue
		}
		at, err := freq.Parse(w.set[lastIn(i)])
		if err != nil {
			continue // nothing was keyed there
		}
		w.reach(at)
		w.frequency(radio.Receive, "receive", at)
		w.settle(radio.Transmit, step, value, f)
	}
}

// hidden says what was set and cannot be seen afterwards.
func (w *writer) hidden() {
	add := func(hidden bool, what string) {
		if hidden {
			w.sheet.Hidden = append(w.sheet.Hidden, what)
		}
	}
	add(w.c.Offset() != 0 && w.sheet.ReadOut == "", "the size of the shift")
	add(w.c.TransmitTone.Kind() == tone.CTCSS || w.c.ReceiveTone.Kind() == tone.CTCSS, "which tone")
	add(w.c.TransmitTone.Kind() == tone.DCS || w.c.ReceiveTone.Kind() == tone.DCS, "which code")
	for _, s := range []radio.Setting{radio.Width, radio.Power} {
		_, shown := w.p.Mark(s, w.set[s])
		add(w.set[s] != "" && !shown, map[radio.Setting]string{radio.Width: "the bandwidth", radio.Power: "the power"}[s])
	}
}
