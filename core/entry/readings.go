package entry

import (
	"fmt"
	"strconv"
	"strings"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/service"
	"mnemos/core/tone"
)

// reading is one meaning of an item. take puts it into the state and reports
// whether it could; a field that is already taken refuses.
type reading struct {
	as      As
	cost    int
	guess   string
	problem string
	take    func(*state) bool
}

// Costs. They order the readings of a word; their sums order the readings of
// a line. Common practice, no source.
const (
	sure       = 0
	likely     = 1
	possible   = 2
	remote     = 4
	unreadable = 50
	ambiguous  = 2 // two readings of a line closer than this are both shown
)

// lowest is the lowest frequency that a bare decimal number is read as.
const lowest = 25 * freq.MHz

func (it item) readings(plan *band.Plan) []reading {
	switch it.kind {
	case number:
		return it.numbers(plan)
	case signed:
		return []reading{it.signedShift()}
	case sign:
		return []reading{{as: AsShift, take: func(s *state) bool { return s.sign(it.key) }}}
	case pair:
		return []reading{it.tonePair()}
	case keyed:
		return []reading{it.keyedReading(plan)}
	case word:
		return []reading{it.wordReading()}
	case text:
		if it.value == "" {
			return []reading{{as: AsName, take: func(*state) bool { return true }}}
		}
		if n := len([]rune(it.value)); n > channel.MaxName {
			return []reading{{as: AsName, cost: unreadable, problem: fmt.Sprintf("a name has up to %d characters and this one %d: shorten it", channel.MaxName, n), take: ok}}
		}
		return []reading{{as: AsName, cost: sure, take: func(s *state) bool { return s.name(it.value) }}}
	}
	return nil
}

// numbers gives the readings of a bare number.
func (it item) numbers(plan *band.Plan) []reading {
	if it.unit == 1 { // hertz: a tone, or a frequency written out
		if r := it.toneReading(AsTone, sure); r.problem == "" {
			return []reading{r}
		}
	}
	var out []reading
	if it.unit != 0 {
		if n, err := freq.Scale(it.value, it.unit); err == nil && freq.Hz(n) >= lowest {
			out = append(out, reading{as: AsReceive, take: func(s *state) bool { return s.receive(freq.Hz(n)) }},
				reading{as: AsTransmit, cost: possible, take: func(s *state) bool { return s.second(freq.Hz(n)) }})
		}
		return append(out, it.size(plan))
	}
	if strings.Contains(it.value, ".") {
		out = it.decimal(plan)
	} else {
		for _, f := range Candidates(it.value, plan) {
			cost := likely
			if len(it.value) < 4 {
				cost = possible
			}
			out = append(out, reading{as: AsReceive, cost: cost, guess: f.MHz() + "?", take: func(s *state) bool { return s.receive(f) }})
		}
	}
	return append(out, it.bareTone()...)
}

func (it item) decimal(plan *band.Plan) []reading {
	n, err := freq.Scale(it.value, freq.MHz)
	if err != nil {
		return []reading{it.size(plan)}
	}
	f := freq.Hz(n)
	if f < lowest || f > freq.Max {
		return []reading{it.size(plan)}
	}
	_, inside := plan.Band(f)
	out := []reading{{as: AsReceive, take: func(s *state) bool { return s.receive(f) }}}
	if !inside && len(service.At(plan.Region, f)) == 0 {
		out[0].cost = likely // 88.5 after an input is rather a tone
	}
	if inside {
		out = append(out, reading{as: AsTransmit, cost: possible, guess: "transmit?", take: func(s *state) bool { return s.second(f) }})
	}
	return out
}

// bareTone reads a number without a unit as a tone, which it can be only
// after the receive frequency, or as the size of a shift.
func (it item) bareTone() []reading {
	out := []reading{{as: AsShift, cost: possible, take: func(s *state) bool { return s.bareSize(it.value) }}}
	if t, err := tone.Parse("D" + it.value); err == nil && len(it.value) == 3 && it.value[0] == '0' {
		return append(out, reading{as: AsTone, cost: likely, guess: t.String() + "?", take: func(s *state) bool { return s.afterReceive() && s.toneOut(t) }})
	}
	t, err := tone.Parse(it.value)
	if err != nil {
		return out
	}
	cost := sure
	if !t.Standard() {
		// 141 is no tone, but nothing else either: keep it as typed, so that
		// the check can say which one is near.
		cost = remote
		if whole := !strings.Contains(it.value, "."); whole && near(t) {
			cost = possible + 1
		}
	}
	return append(out, reading{as: AsTone, cost: cost, take: func(s *state) bool { return s.afterReceive() && s.toneOut(t) }})
}

// near reports whether a standard tone is within one hertz.
func near(t tone.Tone) bool {
	d := tone.Nearest(t.DeciHertz()).DeciHertz() - t.DeciHertz()
	return d > -10 && d < 10
}

func (it item) size(plan *band.Plan) reading {
	return reading{as: AsShift, cost: possible, take: func(s *state) bool {
		if it.unit == 0 {
			return s.bareSize(it.value)
		}
		n, err := freq.Scale(it.value, it.unit)
		return err == nil && s.size(freq.Offset(n))
	}}
}

func (it item) signedShift() reading {
	o, err := freq.ParseSize(it.value + unitText(it.unit))
	if err != nil || o == 0 {
		return reading{as: AsShift, cost: unreadable, problem: fmt.Sprintf("%q is no shift: type a sign and a size such as -600 or +7.6", it.text), take: ok}
	}
	return reading{as: AsShift, take: func(s *state) bool { return s.sign(it.key) && s.size(o) }}
}

func unitText(u freq.Unit) string {
	switch u {
	case 1:
		return "Hz"
	case freq.KHz:
		return "kHz"
	case freq.MHz:
		return "MHz"
	}
	return ""
}

func ok(*state) bool { return true }

func (it item) tonePair() reading {
	a, b, _ := strings.Cut(it.value, "/")
	out, errA := openTone(a)
	in, errB := openTone(b)
	if errA != nil || errB != nil || in.Kind() == tone.Burst {
		return reading{as: AsTones, cost: unreadable, problem: fmt.Sprintf("%q is no pair of tones: type the tone you send, a slash and the tone you listen for, such as 100.0/77.0", it.text), take: ok}
	}
	return reading{as: AsTones, take: func(s *state) bool { return s.toneOut(out) && s.toneIn(in) }}
}

func openTone(s string) (tone.Tone, error) {
	if s == "open" || s == "-" || s == "none" {
		return tone.Off, nil
	}
	return tone.Parse(s)
}

func (it item) toneReading(as As, cost int) reading {
	t, err := tone.Parse(it.value)
	if err != nil {
		return reading{as: as, cost: unreadable, problem: fmt.Sprintf("%q is no tone: type a CTCSS tone such as 103.5 or a DCS code such as D023N", it.value), take: ok}
	}
	return reading{as: as, cost: cost, take: func(s *state) bool {
		switch as {
		case AsSquelch:
			return t.Kind() != tone.Burst && s.toneOut(t) && s.toneIn(t)
		case AsReceiveTone:
			return t.Kind() != tone.Burst && s.toneIn(t)
		}
		return s.toneOut(t)
	}}
}

func (it item) keyedReading(plan *band.Plan) reading {
	switch it.key {
	case "service":
		return it.serviceReading(plan)
	case "code":
		return it.codeReading()
	case "ts", "tone", "dec", "dcs":
		if it.value == "" {
			return reading{as: toneKeys[it.key], cost: unreadable, problem: fmt.Sprintf("%q needs its tone: mode and tone are two settings; type %s 103.5", it.text, it.key), take: ok}
		}
	}
	switch it.key {
	case "ts":
		return it.toneReading(AsSquelch, sure)
	case "tone":
		return it.toneReading(AsTone, sure)
	case "dec":
		return it.toneReading(AsReceiveTone, sure)
	case "dcs":
		if it.value[0] != 'd' {
			it.value = "d" + it.value
		}
		return it.toneReading(AsTone, sure)
	case "slot":
		n, err := strconv.Atoi(it.value)
		if err != nil || n < 0 || n > 9999 {
			return reading{as: AsSlot, cost: unreadable, problem: fmt.Sprintf("%q is no slot: type # and a number such as #14", it.text), take: ok}
		}
		return reading{as: AsSlot, take: func(s *state) bool { return s.slot(n) }}
	}
	f, guess := it.frequency(plan)
	if f == 0 {
		return reading{as: AsTransmit, cost: unreadable, problem: fmt.Sprintf("%q is no frequency: type it in MHz such as %s 147.84", it.value, it.key), take: ok}
	}
	if it.key == "rx" {
		return reading{as: AsReceive, guess: guess, take: func(s *state) bool { return s.receive(f) }}
	}
	return reading{as: AsTransmit, guess: guess, take: func(s *state) bool { return s.transmit(f) }}
}

var toneKeys = map[string]As{"ts": AsSquelch, "tone": AsTone, "dec": AsReceiveTone, "dcs": AsTone}

// serviceReading reads a channel of another service by its number.
func (it item) serviceReading(plan *band.Plan) reading {
	word, number, _ := strings.Cut(it.value, " ")
	s, known := service.Find(plan.Region, word)
	if !known {
		return reading{as: AsReceive, cost: unreadable, problem: fmt.Sprintf("%q is no service in %s: type the frequency", word, plan.Title), take: ok}
	}
	c, known := s.Channel(number)
	if !known {
		return reading{as: AsReceive, cost: unreadable, problem: fmt.Sprintf("%s has channels %s: type one of them, such as %s %s", s.Name, s.Range(), word, s.Channels[0].Number), take: ok}
	}
	return reading{as: AsReceive, guess: c.Frequency.MHz(), take: func(st *state) bool {
		st.use = &service.Use{Service: s, Channel: c}
		return st.receive(c.Frequency)
	}}
}

// codeReading reads the "privacy code" of a licence-free radio, which such
// radios send and listen for.
func (it item) codeReading() reading {
	n, err := strconv.Atoi(it.value)
	t, known := service.Code(n)
	if err != nil || !known || len(it.value) > 2 {
		return reading{as: AsSquelch, cost: unreadable, problem: fmt.Sprintf("%q: codes 1 to 38 are the classic tones, and above them makers differ: type the tone such as 103.5, or the DCS code such as D023N", it.text), take: ok}
	}
	return reading{as: AsSquelch, guess: t.Words(), take: func(s *state) bool { return s.toneOut(t) && s.toneIn(t) }}
}

// frequency reads the value as a frequency; guess is set if digits had to be
// guessed at.
func (it item) frequency(plan *band.Plan) (f freq.Hz, guess string) {
	if it.unit == 0 && !strings.Contains(it.value, ".") {
		if c := Candidates(it.value, plan); len(c) > 0 {
			return c[0], c[0].MHz() + "?"
		}
	}
	unit := it.unit
	if unit == 0 {
		unit = freq.MHz
	}
	n, err := freq.Scale(it.value, unit)
	if err != nil || freq.Hz(n) < lowest || freq.Hz(n) > freq.Max {
		return 0, ""
	}
	return freq.Hz(n), ""
}

func (it item) wordReading() reading {
	as, take := AsUnknown, ok
	switch it.key {
	case "simplex":
		as, take = AsSimplex, func(s *state) bool { return s.how(channel.How{Kind: channel.Simplex}) }
	case "rx only":
		as, take = AsReceiveOnly, func(s *state) bool { return s.how(channel.How{Kind: channel.Blocked}) }
	case "narrow", "wide":
		as, take = AsWidth, func(s *state) bool { return s.width(channel.Width(it.key)) }
	case "low", "mid", "high":
		as, take = AsPower, func(s *state) bool { return s.power(channel.Power(it.key)) }
	case "skip", "priority":
		as, take = AsScan, func(s *state) bool { return s.scan(Scan(it.key)) }
	case "scan":
		as, take = AsScan, func(s *state) bool { return s.scan(ScanYes) }
	case "no tone":
		as, take = AsTone, func(s *state) bool { return s.toneOut(tone.Off) }
	case "burst":
		as, take = AsTone, func(s *state) bool { return s.toneOut(tone.Burst1750) }
	}
	return reading{as: as, take: take}
}
