package entry

import (
	"strings"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/tone"
)

var signWords = map[string]int{
	"+": 1, "plus": 1, "positive": 1, "pos": 1, "up": 1, "+ve": 1,
	"-": -1, "dash": -1, "minus": -1, "negative": -1, "neg": -1, "down": -1, "-ve": -1,
}

func (r *reading) sign(at int, found func(int, value)) {
	if t := r.at(at); !t.quoted && signWords[t.low] != 0 {
		found(1, value{sign: signWords[t.low]})
	}
}

// loneSign reads a sign without a size. A number written onto it belongs to
// it, unless the number is a tone.
func (r *reading) loneSign(at int, found func(int, value)) {
	r.sign(at, func(n int, v value) {
		next := r.at(at + 1)
		if !r.at(at).sign() || !next.number() || !next.glued {
			found(n, v)
			return
		}
		behind := r.at(at).glued && r.at(at-1).number() // "147.24+100": the sign belongs to the frequency
		t, err := tone.Parse(next.low)
		if err != nil || t.Kind() != tone.CTCSS || !t.Standard() {
			return
		}
		if !behind {
			v.cost = likely
		}
		found(n, v)
	})
}

// quantity reads the size of a shift with or without a unit.
func (r *reading) quantity(at int) (o freq.Offset, n int, unit freq.Unit) {
	text := r.at(at).low
	if !r.at(at).number() {
		spoken, ok := spokenWord(text)
		if !ok || r.at(at).quoted {
			return 0, 0, 0
		}
		text = spoken
	}
	if u, k := r.unit(at + 1); k > 0 && u >= freq.KHz {
		v, err := freq.Scale(text, u)
		if err != nil || v > 1_000*freq.MHz {
			return 0, 0, 0
		}
		return freq.Offset(v), 2, u
	} else if k > 0 {
		return 0, 0, 0 // hertz are a tone
	}
	v, err := freq.ParseSize(text)
	if err != nil || v > 30*freq.MHz { // a frequency or a tone
		return 0, 0, 0
	}
	return v, 1, 0
}

// spacing reports whether a size is the distance between two channels, which
// says how wide they are and is never a shift.
func spacing(o freq.Offset) bool {
	return o == 12_500 || o == 20*freq.KHz || o == 25*freq.KHz
}

// channelOf reports whether a size with its unit is rather a frequency.
func (r *reading) channelOf(o freq.Offset, unit freq.Unit) bool {
	return (unit == freq.MHz && o >= freq.Offset(lowest) || unit == freq.KHz && o >= 100*freq.MHz) && r.known(freq.Hz(o))
}

// signed reads a sign and a size.
func (r *reading) signed(at int, found func(int, value)) {
	r.sign(at, func(_ int, v value) {
		o, n, unit := r.quantity(at + 1)
		if n == 0 {
			return
		}
		if r.channelOf(o, unit) && !r.at(at+1).glued {
			return // "+ 147.24 MHz" is a sign and a frequency
		}
		if spacing(o) && unit == freq.KHz && !(r.at(at).sign() && r.at(at+1).glued) {
			return // "+ 12.5 kHz" is a sign and a bandwidth
		}
		v.size = o
		if r.at(at).sign() && r.at(at).glued && r.at(at-1).number() && r.at(at+1).glued && strings.HasPrefix(r.at(at+1).low, "0") && !strings.Contains(r.at(at+1).low, ".") && r.at(at+1).low != "0" {
			return // "147-09" is no shift of 9 MHz
		}
		switch t, err := tone.Parse(r.at(at + 1).low); {
		case unit != 0 || o == 0:
		case err == nil && t.Standard() && t.Kind() == tone.CTCSS:
			// A tone behind a sign. Written onto it, it could be either.
			v.n = remote
			if r.at(at+1).glued && r.at(at+1).whole() && !(r.at(at).glued && r.at(at-1).number()) {
				v.n = likely
			}
		case !r.at(at + 1).glued:
			v.n = remote
			if _, figures := toneOf(r.at(at + 1).low); figures {
				v.n = unreadable // "+ 885" is rather 88.5 Hz without its point: ask
			}
		}
		found(n+1, v)
	})
}

// usual reports whether a rule of the plan has a shift of this size.
func (r *reading) usual(o freq.Offset) bool {
	for i := range r.plan.Bands {
		if r.usualIn(&r.plan.Bands[i], o) {
			return true
		}
	}
	return false
}

func (r *reading) usualIn(b *band.Band, o freq.Offset) bool {
	for _, rule := range b.Shifts {
		if rule.Offset.Abs() == o {
			return true
		}
		for _, a := range rule.Alternatives {
			if a.Abs() == o {
				return true
			}
		}
	}
	return false
}

// size reads the size of a shift behind a word for it.
func (r *reading) size(at int, found func(int, value)) {
	if o, n, unit := r.quantity(at); n > 0 {
		if unit == freq.KHz && spacing(o) || r.channelOf(o, unit) {
			return
		}
		v := value{size: o}
		if t, err := tone.Parse(r.at(at).low); unit == 0 && err == nil && t.Standard() {
			v.n = remote
		}
		found(n, v)
	}
}

// knownSize reads the size of a shift that nothing stands before: it has a
// unit, or some rule of the plan uses it.
func (r *reading) knownSize(at int, found func(int, value)) {
	if !r.at(at).number() || bandWords[r.at(at).low] != "" && r.at(at+1).low == "m" {
		return // "2 m" is a band
	}
	o, n, unit := r.quantity(at)
	if n == 0 || o == 0 || unit == 0 && !r.usual(o) || o >= freq.Offset(lowest) && unit != 0 || spacing(o) {
		return
	}
	v := value{size: o}
	if unit == 0 && r.afterName(at) {
		v.cost = remote // a number behind a name belongs to it
	}
	found(n, v)
}

// notShift reads a sign and a size that no shift has.
func (r *reading) notShift(at int, found func(int, value)) {
	n := r.at(at + 1)
	u, k := r.unit(at + 2)
	if !r.at(at).sign() || !n.number() || !n.glued || k == 0 || u < freq.KHz {
		return
	}
	if v, err := freq.Scale(n.low, u); err != nil || v > 1_000*freq.MHz {
		found(3, value{problem: "that is more than any shift: did you mean kHz? Type a size such as 600 kHz or 5 MHz"})
	}
}

// hyphened and slashed read two numbers that are joined, and that are neither
// a frequency with its shift nor two tones.
func (r *reading) hyphened(at int, found func(int, value)) {
	a, sign, b := r.at(at), r.at(at+1), r.at(at+2)
	if a.number() && sign.low == "-" && sign.glued && b.number() && b.glued {
		found(3, value{text: a.low + "-" + b.low})
	}
}

func (r *reading) slashed(at int, found func(int, value)) {
	a, slash, b := r.at(at), r.at(at+1), r.at(at+2)
	if a.number() && slash.low == "/" && b.number() {
		found(3, value{text: a.low + "/" + b.low})
	}
}
