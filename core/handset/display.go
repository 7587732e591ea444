package handset

import (
	"fmt"
	"strconv"
	"strings"

	"mnemos/core/freq"
	"mnemos/core/radio"
	"mnemos/core/tone"
)

// Display is what a display shows.
type Display struct {
	Figures string `json:"figures"` // a frequency, or what is being typed
	What    string `json:"what"`    // what the figures are: receive, transmit, typed
	Marks   []Mark `json:"marks"`
	Slot    string `json:"slot"`  // the number of the slot that is shown, or ""
	Name    string `json:"name"`  // of the slot
	Open    string `json:"open"`  // the setting that is open, or ""
	Value   string `json:"value"` // what it is set to so far
	Beep    bool   `json:"beep"`  // the last key did nothing
	Says    string `json:"says"`  // the same in words
}

// Mark is a small sign on the display.
type Mark struct {
	Setting radio.Setting `json:"setting"`
	Text    string        `json:"text"`
	Means   string        `json:"means"`
}

// Display returns what the radio shows now.
func (h *Handset) Display() Display {
	d := Display{Beep: h.beep, Marks: []Mark{}, Figures: h.figures()}
	d.What = "receive"
	switch {
	case h.typed != "":
		d.What = "typed"
	case h.look:
		d.What = "transmit, not sent"
	}
	for _, s := range marked {
		if m := h.mark(s); m.Text != "" {
			d.Marks = append(d.Marks, m)
		}
	}
	if h.memory {
		d.Slot = strconv.Itoa(h.slot)
		if s := h.slots[h.slot]; s != nil {
			d.Name = s.Name
		}
	}
	if h.open != nil {
		d.Open, d.Value = h.open.setting.Label(), h.open.shows()
	}
	d.Says = h.says(d)
	return d
}

// marked are the settings that a display can show while nothing is set.
var marked = []radio.Setting{
	radio.VFO, radio.ShiftDirection, radio.ToneMode, radio.Lock, radio.Power, radio.Width, radio.AutoShift, radio.Skip, radio.Priority,
	radio.ScanKey, radio.DualWatchKey, radio.Reverse, radio.KeyLock, radio.Line,
}

// figures are those of the frequency, as many as the display has.
func (h *Handset) figures() string {
	if h.typed != "" {
		return h.typed
	}
	f := h.now().receive
	if h.look {
		tx, ok := h.Keyable()
		if !ok {
			return "----"
		}
		f = tx
	}
	if f == 0 {
		return ""
	}
	s := fmt.Sprintf("%d.%06d", f/freq.MHz, f%freq.MHz)
	return strings.TrimSuffix(s[:len(s)-6+min(max(h.p.Display.Decimals, 0), 6)], ".")
}

// mark is the sign of one setting; its text is empty where the display shows
// nothing.
func (h *Handset) mark(s radio.Setting) Mark {
	m := Mark{Setting: s, Means: s.Label()}
	now := h.now()
	switch s {
	case radio.VFO:
		m.Means = map[bool]string{true: "memory", false: "vfo"}[h.memory]
		m.Text, _ = h.p.Mark(s, m.Means)
	case radio.ShiftDirection:
		m.Text, m.Means = h.shift(now)
	case radio.ToneMode:
		m.Text, m.Means = h.toneMark(now)
	case radio.ScanKey, radio.DualWatchKey, radio.Reverse, radio.KeyLock:
		if h.radio[s] == "on" {
			m.Text = strings.ToUpper(m.Means)
		}
	case radio.Line:
		if h.p.Keying.StoresFrom != "" {
			m.Text, m.Means = h.radio[s], "line"
		}
	default:
		v := h.Get(s)
		m.Text, _ = h.p.Mark(s, v)
		m.Means += " " + v
	}
	return m
}

func (h *Handset) shift(now *state) (text, means string) {
	if h.p.Entry == radio.Menu || h.p.Entry == radio.Automatic {
		v := now.sets[radio.ShiftDirection]
		text, _ = h.p.Mark(radio.ShiftDirection, v)
		return text, "shift " + v
	}
	tx := now.transmit
	if h.p.Entry == radio.Split {
		tx = now.receive.Add(now.split[h.band(now.receive)])
	}
	if tx != 0 && tx != now.receive {
		return h.p.Display.Split, "split"
	}
	return "", ""
}

func (h *Handset) toneMark(now *state) (text, means string) {
	mode := now.sets[radio.ToneMode]
	out, in := h.tones(*now)
	if h.chooses() {
		mode = chosenMode(out, in)
	} else if radio.Mode(mode) == radio.ModeSquelch && out != in {
		mode = string(radio.ModeSeparate)
	}
	text, _ = h.p.Mark(radio.ToneMode, mode)
	if now.sets[radio.Burst] == "on" && h.p.Keying.Burst == "setting" {
		text = strings.TrimSpace(h.p.Display.Modes["burst"] + " " + text)
	}
	return text, mode
}

// chosenMode names what two registers make.
func chosenMode(out, in tone.Tone) string {
	switch {
	case out.Kind() == tone.DCS || in.Kind() == tone.DCS && out.IsOff():
		return string(radio.ModeDCS)
	case out.IsOff() && in.IsOff():
		return string(radio.ModeOff)
	case in.IsOff():
		return string(radio.ModeTone)
	case out.IsOff():
		return string(radio.ModeReceive)
	case out == in:
		return string(radio.ModeSquelch)
	}
	return string(radio.ModeSeparate)
}

// shows is what an open control shows.
func (c *control) shows() string {
	a := c.acts[min(c.at, len(c.acts)-1)]
	switch {
	case c.setting == radio.Name:
		return string(c.name)
	case a.Kind == radio.Choose && c.setting == radio.Transmit, c.typed == "" && c.setting == radio.Transmit:
		return map[bool]string{true: "−", false: "+"}[c.minus]
	case len(c.values) > 0 && c.typed == "" && hasChoice(c.acts):
		return c.values[c.index]
	}
	return c.typed
}

func hasChoice(acts []radio.Act) bool {
	for _, a := range acts {
		if a.Kind == radio.Choose {
			return true
		}
	}
	return false
}

// says puts the display into words.
func (h *Handset) says(d Display) string {
	switch {
	case d.Beep:
		return "A beep: that key does nothing here."
	case d.Open != "":
		if d.Value == "" {
			return d.Open + " is open."
		}
		return fmt.Sprintf("%s: %s.", d.Open, d.Value)
	case h.typed != "":
		return "Typed so far: " + h.typed + "."
	case len(h.pending) > 0:
		return "Waits for the next key after " + strings.Join(h.pending, " ") + "."
	}
	where := "VFO"
	if h.memory {
		where = fmt.Sprintf("Slot %d", h.slot)
		if h.slots[h.slot] == nil {
			return where + " is empty."
		}
	}
	now := h.now()
	tx, ok := h.Keyable()
	if h.look {
		if !ok {
			return where + ": read-out. It would not transmit."
		}
		return fmt.Sprintf("%s: read-out. It would transmit on %s. Nothing is sent.", where, tx)
	}
	out, in := h.tones(*now)
	send := "transmits nothing"
	if ok {
		send = fmt.Sprintf("would transmit on %s", tx)
		if !out.IsOff() {
			send += " with " + out.Words()
		}
	}
	opens := "the receiver stays open"
	if !in.IsOff() {
		opens = "opens to " + in.Words()
	}
	return fmt.Sprintf("%s: receives %s, %s; %s.", where, now.receive, send, opens)
}
