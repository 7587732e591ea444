package keypad

import (
	"slices"
	"strconv"

	"mnemos/core/freq"
	"mnemos/core/radio"
)

// Event is one thing that a channel needs of a radio, whatever stood there before.
// What it costs depends on that: Cost says it. Walks are ordered by these.
type Event struct {
	Key     radio.Setting // what of the radio it sets; "" for presses that are always made
	Value   string
	Accept  []string // values that will do as well
	Always  bool     // it is set even where it stands so
	Looks   bool     // it changes nothing for what follows
	Assign  bool     // the radio does it by itself
	Presses int      // where there is no key

	setting radio.Setting
	filling filling
	step    string // the tuning step with which a knob is turned
}

func (w *writer) note(e Event) { w.log = append(w.log, e) }

func (w *writer) accept(values []string) { w.log[len(w.log)-1].Accept = values }

// Events are what a channel needs, in the order of its sheet. They are the same
// whatever came before.
func Events(want Wanted, p *radio.Profile) []Event {
	w := newWriter(want, p, State{})
	if w.counts = true; w.sheet.Reason != "" {
		return nil
	}
	w.write()
	return w.log
}

// Meter tells what events cost on a radio.
type Meter struct{ w writer }

// NewMeter returns the meter of a radio.
func NewMeter(p *radio.Profile) *Meter {
	return &Meter{writer{p: p, set: map[radio.Setting]string{}, counts: true}}
}

// Cost is how many presses an event takes where its key stands at a value; "" is one
// that nobody knows, and costs what it does on average.
func (m *Meter) Cost(e Event, at string) int {
	switch {
	case e.Assign:
		return 0
	case e.Key == "":
		return e.Presses
	case !e.Always && at != "" && (at == e.Value || slices.Contains(e.Accept, at)):
		return 0
	}
	w := &m.w
	clear(w.set)
	w.set[e.Key] = at
	if e.step != "" {
		w.set[radio.Step] = e.step
	}
	if e.setting == radio.Recall {
		w.set[mode] = map[bool]string{true: inMemory, false: inVFO}[w.p.Keying.After == inMemory]
	}
	return w.acts(e.setting, e.filling).presses
}

// Kind is what events have in common of which the cost depends on the values alone.
func (e Event) Kind() string { return string(e.Key) + "|" + string(e.setting) + "|" + e.step }

// counted is how far a list must be gone through.
type counted struct {
	presses, steps int
	exact, back    bool
	guess          bool // nobody knows where it stands: on average
	opens          string
	passes         []string
}

// longest is how many values that are passed are named.
const longest = 60

// count works out how often a key is pressed, or a knob clicks, until a value shows.
func (w *writer) count(s radio.Setting, a radio.Act, f filling) counted {
	key := len(a.Ways[0])
	switch s {
	case radio.Receive:
		if w.p.Keying.Figures > 0 {
			return w.steppingOn(f)
		}
		return w.tuning(f)
	case radio.Transmit:
		if w.p.Entry == radio.Split { // it opens at +
			n := 0
			if f.value != "+" {
				n = 1
			}
			return counted{presses: n}
		}
		return w.tuning(f)
	case radio.VFO, radio.Recall:
		return w.modes(s, a, f)
	case radio.Store, radio.StoreTransmit, radio.Delete:
		return w.slots(f)
	}
	values := w.p.Values(s)
	to := slices.Index(values, f.value)
	if to < 0 {
		return counted{presses: key, guess: true}
	}
	at := -1
	first := slices.Contains(w.p.Keying.First, s)
	if first {
		at = 0
	} else if w.counts {
		at = slices.Index(values, w.set[w.key(s)])
	}
	if at < 0 { // on average
		return counted{presses: len(values) / (2 * len(a.Ways)) * key, guess: true}
	}
	c := counted{exact: true, opens: values[at]}
	n := len(values)
	ends := slices.Contains(w.p.Keying.Ends, s)
	forward, back := (to-at+n)%n, (at-to+n)%n
	switch {
	case len(a.Ways) == 1:
		c.steps = forward
	case ends:
		c.steps, c.back = forward, to < at
		if c.back {
			c.steps = back
		}
	case a.Turn && numeric(values[at], f.value):
		c.steps, c.back = abs(to-at), to < at // towards the figure
	case a.Turn:
		c.steps = forward
	default:
		c.steps, c.back = forward, back < forward
		if c.back {
			c.steps = back
		}
	}
	c.presses = c.steps * key
	if c.steps > 0 && c.steps <= longest {
		way := 1
		if c.back {
			way = -1
		}
		for i := 0; i <= c.steps; i++ {
			c.passes = append(c.passes, values[((at+way*i)%n+n)%n])
		}
	}
	return c
}

func numeric(a, b string) bool {
	_, err := strconv.ParseFloat(a, 64)
	_, err2 := strconv.ParseFloat(b, 64)
	return err == nil && err2 == nil
}

func abs(n int) int { return max(n, -n) }

// modes counts the presses of a key that goes between VFO and slots, and of what
// chooses the slot there.
func (w *writer) modes(s radio.Setting, a radio.Act, f filling) counted {
	if s == radio.Recall && a.Shows == "" { // a knob that goes through the slots
		return w.slots(f)
	}
	wanted := map[radio.Setting]string{radio.VFO: inVFO, radio.Recall: inMemory}[s]
	if w.set[mode] == wanted {
		return counted{}
	}
	return counted{presses: len(a.Ways[0]), guess: w.set[mode] == ""}
}

// slots counts the clicks from one slot to another.
func (w *writer) slots(f filling) counted {
	at, err := strconv.Atoi(w.set[pointer])
	if err != nil {
		return counted{presses: (w.p.Slots.Last - w.p.Slots.First + 1) / 3, guess: true} // of two that are drawn at random
	}
	return counted{presses: abs(f.slot - at), opens: strconv.Itoa(at)}
}

// tuning counts the clicks of a knob from one frequency to another.
func (w *writer) tuning(f filling) counted {
	step, err := freq.Scale(w.set[radio.Step], freq.KHz)
	from, err2 := freq.Parse(w.set[radio.Receive])
	if err != nil || step <= 0 {
		step = int64(w.p.Steps[len(w.p.Steps)-1])
	}
	if err2 != nil {
		r := w.p.Receive[0]
		return counted{presses: int(int64(r.Upper-r.Lower) / step / 3), guess: true}
	}
	return counted{presses: clicks(int64(from), f.hertz, step), opens: w.figures(from)}
}

// steppingOn counts the presses from what can be typed to a frequency that cannot: the
// radio makes up the figures that are left out by its tuning step.
func (w *writer) steppingOn(f filling) counted {
	step, err := freq.Scale(w.set[radio.Step], freq.KHz)
	if err != nil || step <= 0 {
		return counted{guess: true}
	}
	unit := int64(1)
	for range w.p.MHzFigures() + 6 - w.p.Keying.Figures {
		unit *= 10
	}
	typed := f.hertz / unit * unit
	at := (typed + step - 1) / step * step
	if at >= typed+unit {
		at = typed / step * step
	}
	n := int((f.hertz - at) / step)
	return counted{presses: abs(n), steps: abs(n), back: n < 0, exact: true, opens: w.figures(freq.Hz(at))}
}

// clicks are those between two frequencies on a raster; the first one goes to the
// raster where it was off it.
func clicks(from, to, step int64) int {
	if from <= to {
		return int(to/step - from/step)
	}
	return int((from+step-1)/step - to/step)
}

// spelling counts the presses of a name, and how many repeat the one before: each
// letter is turned in from the first.
func (w *writer) spelling(name string) (presses, repeats int) {
	letters := []rune(w.p.Names.Characters)
	for _, r := range name {
		turns := max(0, slices.Index(letters, r))
		presses += turns + 1
		repeats += max(0, turns-1)
	}
	return presses, repeats
}
