package keypad

import (
	"strings"

	"mnemos/core/radio"
	"mnemos/core/tone"
)

// rested are the settings that may rest at a value, in the order in which they
// are put back.
var rested = []radio.Setting{radio.Transmit, radio.Step, radio.AutoShift, radio.Lock, radio.Power}

// back puts back what would reach the next channel.
func (w *writer) back() {
	w.step(Step{Do: "VFO", Again: true, Keys: w.keys(radio.VFO, filling{})})
	w.sheet.Leave = append(w.sheet.Leave, "VFO")
	for _, s := range rested {
		rest, ok := w.p.Rest(s)
		if !ok || s == radio.AutoShift && w.set[s] == "" {
			continue
		}
		was := w.set[s]
		do, unit := s.Label(), ""
		switch s {
		case radio.Step:
			unit = "kHz"
		case radio.Transmit:
			do = "split"
		}
		w.sheet.Leave = append(w.sheet.Leave, strings.TrimSpace(do+" "+rest+" "+unit))
		switch {
		case was == rest:
		case s == radio.Transmit:
			w.split(0, true)
		default:
			w.choose(s, do, rest, unit)
			w.sheet.Steps[len(w.sheet.Steps)-1].Again = was != ""
		}
	}
	w.sheet.Leave = append(w.sheet.Leave, w.sheet.Start...)
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
