package walk

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"mnemos/core/handset"
	"mnemos/core/keypad"
	"mnemos/core/radio"
)

// Mistake is a slip of the hand in one step, and what the radio shows after it.
type Mistake struct {
	Step int    // 0 for something that stood so before the first step
	Says string // "MENU not pressed at the end"
}

// Shown is a display that is not as it must be, and the slips that lead to it.
type Shown struct {
	Marks    string // shift, tone, lock
	Figures  string
	Slot     string // of the slot that is shown, or ""
	ReadOut  string // what it shows then while the read-out is held, "" where there is none
	Mistakes []Mistake
}

// Wrong works out what the display shows after slips in the last stop of a walk, once
// the slot is recalled: the nearest slips are tried out on a simulated radio that was
// led through the stops before. Slips that show nothing wrong are left out.
func Wrong(p *radio.Profile, stops []Stop) ([]Shown, error) {
	last := stops[len(stops)-1]
	lead := func() (*handset.Handset, error) {
		h, err := handset.New(p)
		if err != nil {
			return nil, err
		}
		for _, s := range stops[:len(stops)-1] {
			if err := h.Follow(s.Sheet.Text()); err != nil {
				return nil, fmt.Errorf("lead to slot %d: %w", last.Wanted.Slot, err)
			}
		}
		return h, nil
	}
	start, err := lead()
	if err != nil {
		return nil, err
	}
	run := func(x slip) Shown {
		h := start.Clone()
		for _, key := range x.before {
			h.Press(key)
		}
		for i, step := range last.Sheet.Steps {
			line := step.String()
			if i == x.step-1 {
				line = x.line
			}
			if line != "" {
				_ = h.Line(line, nil) // nobody noticed: that is the slip
			}
			if i == 0 {
				for _, key := range x.touched {
					h.Press(key)
				}
			}
			if step.Setting == radio.Recall {
				break
			}
		}
		return shown(h, p)
	}
	right := run(slip{})
	var out []Shown
	for _, x := range slips(p, last.Sheet) {
		s := run(x)
		if s.same(right) {
			continue
		}
		i := slices.IndexFunc(out, s.same)
		if i < 0 {
			i = len(out)
			out = append(out, s)
		}
		m := Mistake{x.step, x.says}
		if !slices.Contains(out[i].Mistakes, m) {
			out[i].Mistakes = append(out[i].Mistakes, m)
		}
	}
	return out, nil
}

func (s Shown) same(o Shown) bool {
	return s.Marks == o.Marks && s.Figures == o.Figures && s.Slot == o.Slot && s.ReadOut == o.ReadOut
}

// shown is what a person sees who looks, and holds the read-out.
func shown(h *handset.Handset, p *radio.Profile) Shown {
	d := h.Display()
	s := Shown{Figures: d.Figures, Slot: d.Slot}
	var marks []string
	for _, m := range d.Marks {
		switch m.Setting {
		case radio.ShiftDirection, radio.ToneMode, radio.Lock, radio.Reverse, radio.KeyLock, radio.ScanKey, radio.DualWatchKey:
			marks = append(marks, m.Text)
		}
	}
	if d.Open != "" {
		marks = append(marks, d.Open)
		s.Figures = d.Value
	}
	s.Marks = strings.Join(marks, " ")
	if acts, ok := radio.Acts(p.Crib[radio.ReadOut]); ok {
		keys, _ := radio.Opens(acts)
		for _, k := range keys {
			h.Press(k)
		}
		if d := h.Display(); d.What == "transmit, not sent" {
			s.ReadOut = d.Figures
		}
	}
	return s
}

// slip is one thing that goes wrong.
type slip struct {
	step    int
	line    string   // what is done instead; "" for nothing
	before  []string // keys that were pressed before the first step
	touched []string // keys that were pressed in the VFO, between two steps
	says    string
}

// slips are the nearest: a step that is left out, a press too many or too few, a value
// beside the right one, a closing key that is forgotten, a menu beside the right one,
// two figures exchanged; and what the stated state excludes and somebody left on.
func slips(p *radio.Profile, s keypad.Sheet) []slip {
	var out []slip
	for _, step := range s.Steps {
		if step.Do == "check" {
			continue
		}
		n := step.Number
		add := func(says string, acts []keypad.Act) {
			x := step
			x.Keys = keypad.Words(acts)
			line := x.String()
			if len(acts) == 0 {
				line = ""
			}
			out = append(out, slip{step: n, line: line, says: says})
		}
		add("left out: "+step.Title(), nil)
		for i, a := range step.Acts {
			with := func(b ...keypad.Act) []keypad.Act {
				return slices.Concat(step.Acts[:i:i], b, step.Acts[i+1:])
			}
			switch {
			case a.Times > 0:
				for _, d := range []int{-1, 1} {
					b := a
					b.Times, b.Shows = 0, ""
					b.Keys = slices.Repeat(a.Keys, a.Times+d)
					word := map[int]string{-1: "too few", 1: "too many"}[d]
					if len(b.Keys) == 0 {
						add(fmt.Sprintf("one %s too few", a.Keys[0]), with())
						continue
					}
					add(fmt.Sprintf("one %s %s", a.Keys[0], word), with(b))
				}
			case a.Verb == "type":
				if text := exchanged(a.Text); text != a.Text {
					b := a
					b.Text = text
					add("two figures exchanged: "+text, with(b))
				}
			case a.Verb == "press" && a.Shows == "" && i > 0 && i == len(step.Acts)-1:
				add(fmt.Sprintf("%s not pressed at the end of step %d", strings.Join(a.Keys, " "), n), with())
			case a.Verb == "press" && a.Shows == "" && i == 0 && len(step.Acts) > 1:
				for _, keys := range beside(a.Keys) {
					b := a
					b.Keys = keys
					add(fmt.Sprintf("%s pressed, not %s", strings.Join(keys, " "), strings.Join(a.Keys, " ")), with(b))
				}
			}
			if a.Shows != "" && a.Verb != "see" && a.Times == 0 && step.Setting != "" {
				for _, v := range neighbours(p, step) {
					b := a
					b.Times, b.Shows = 0, v.shows
					if i > 0 || v.shows != "" {
						add(step.Do+" set to "+v.value, with(b))
					}
				}
			}
		}
	}
	for _, c := range radio.Cribs {
		acts, ok := radio.Acts(p.Crib[c.Setting])
		if !ok || acts[0].Kind != radio.Choose || acts[0].Turn || c.Setting == radio.VFO || c.Setting == radio.Recall || c.Setting.Printed() {
			continue // opened by keys of its own
		}
		for i, word := range []string{"once", "twice"} {
			keys := strings.Join(acts[0].Ways[0], " ")
			out = append(out, slip{touched: slices.Repeat(acts[0].Ways[0], i+1), says: fmt.Sprintf("%s pressed %s by mistake", keys, word)})
		}
	}
	for _, left := range []radio.Setting{radio.Reverse, radio.DualWatchKey, radio.KeyLock, radio.ScanKey} {
		if acts, ok := radio.Acts(p.Crib[left]); ok {
			if keys, rest := radio.Opens(acts); len(rest) == 0 {
				out = append(out, slip{before: keys, says: left.Label() + " was on"})
			}
		}
	}
	return out
}

// exchanged is a number with two figures beside one another in the wrong order.
func exchanged(figures string) string {
	b := []byte(figures)
	for i := len(b) - 2; i > 0; i-- {
		if b[i] != b[i+1] && b[i+1] != '0' {
			b[i], b[i+1] = b[i+1], b[i]
			return string(b)
		}
	}
	return figures
}

// beside are the keys of the menus before and after one.
func beside(keys []string) (out [][]string) {
	n := len(keys) - 1
	figure, err := strconv.Atoi(keys[n])
	if err != nil || len(keys[n]) != 1 || n == 0 {
		return nil
	}
	for _, f := range []int{figure - 1, figure + 1} {
		if f >= 0 && f <= 9 {
			k := slices.Clone(keys)
			k[n] = strconv.Itoa(f)
			out = append(out, k)
		}
	}
	return out
}

// neighbour is a value beside the right one in its list, and how it shows.
type neighbour struct{ value, shows string }

func neighbours(p *radio.Profile, s keypad.Step) (out []neighbour) {
	values := p.Values(s.Setting)
	at := slices.Index(values, s.Value)
	if at < 0 || len(values) < 2 {
		return nil
	}
	acts, _ := radio.Acts(p.Crib[s.Setting])
	opening, _ := radio.Opens(acts)
	for _, i := range []int{at - 1, at + 1} {
		v := values[(i+len(values))%len(values)]
		if v == s.Value {
			continue
		}
		shows := v
		if len(opening) == 0 { // it is set while nothing is open: the display shows its mark
			shows, _ = p.Mark(s.Setting, v)
		}
		if shows != "" {
			out = append(out, neighbour{v, shows})
		}
	}
	return out
}
