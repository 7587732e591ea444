package entry

import (
	"slices"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/service"
	"mnemos/core/tone"
)

func sorted(s []string) []string { slices.Sort(s); return s }

// field is something that a line says once.
type field uint32

const (
	fReceive field = 1 << iota
	fTransmit
	fHow
	fSign
	fSize
	fToneOut
	fToneIn
	fBoth
	fSlot
	fScan
	fWidth
	fPower
	fBand
	fCallsign
	fAccess
	fRx // receive and transmit were written with the words rx and tx
	fTx
)

// facts are what has been read of a line so far. They compare, so that two
// ways to the same facts are one.
type facts struct {
	taken             field
	receive, transmit freq.Hz
	how               channel.Kind
	sign              int
	size              freq.Offset
	unusual           int // what the size costs where the band does not use it
	out, in           tone.Tone
	name              string
	naming            int // 0: no name yet; 1: in the middle of it; 2: done
	slot              int
	scan              Scan
	width             channel.Width
	power             channel.Power
	band              string
	callsign          string
	access            string
	use               *service.Use
}

// state is a way through the line up to a token.
type state struct {
	facts
	r    *reading
	cost int
	prev *state
	edge *edge
	at   int // the token at which edge begins
	n    int // edges so far: of two equal ways the shorter
}

// claim takes a field and reports whether it was free.
func (s *state) claim(f field) bool {
	if s.taken&f != 0 {
		return false
	}
	s.taken |= f
	return true
}

func (s *state) has(f field) bool { return s.taken&f != 0 }

func (s *state) setReceive(f freq.Hz) bool {
	s.receive = f
	return s.claim(fReceive)
}

// setTransmit takes the input. It may stand beside a shift: of output, input
// and shift any two give the third, and all three may be written if they agree.
func (s *state) setTransmit(f freq.Hz) bool {
	s.transmit = f
	return !s.has(fHow) && s.claim(fTransmit)
}

// pairs reports whether the band plan has a repeater that sends on the one and
// listens on the other, or whether a service has.
func (s *state) pairs(output, input freq.Hz) bool {
	if rule, ok := s.r.plan.Shift(output); ok && rule.Allows(input.Sub(output)) {
		return true
	}
	return slices.ContainsFunc(service.At(s.r.plan.Region, output), func(u service.Use) bool { return u.Offset != 0 && output.Add(u.Offset) == input })
}

// second takes a bare frequency behind the receive frequency as the transmit
// side. Only a pair that the band plan has is taken without asking; one that
// it has the other way round can be read both ways.
func (s *state) second(f freq.Hz) bool {
	if !s.has(fReceive) {
		return false
	}
	switch {
	case f == s.receive:
		s.cost += possible // written twice: simplex
	case s.size != 0 && s.size == f.Sub(s.receive).Abs(): // output, input and shift written out
		s.cost += possible
	case s.pairs(s.receive, f):
		s.cost += possible
	case s.pairs(f, s.receive):
		s.cost += doubted
	default:
		return false
	}
	return s.setTransmit(f)
}

// swap takes a bare frequency as the receive side and the one before it as the
// transmit side, where the band plan has that pair.
func (s *state) swap(f freq.Hz) bool {
	if !s.has(fReceive) || s.has(fTransmit) || !s.pairs(f, s.receive) || s.pairs(s.receive, f) {
		return false
	}
	s.cost += doubted
	first := s.receive
	s.receive = f
	return s.setTransmit(first)
}

func (s *state) setHow(k channel.Kind) bool {
	if s.has(fHow) {
		return s.how == k // said twice
	}
	s.how = k
	return !s.has(fSign|fSize|fTransmit) && s.claim(fHow)
}

func (s *state) setSign(sign int) bool {
	s.sign = sign
	return !s.has(fHow) && s.claim(fSign)
}

func (s *state) setSize(o freq.Offset) bool {
	s.size = o
	return !s.has(fHow) && o > 0 && s.claim(fSize)
}

// bareSize takes a number as the size of a shift: where the band has it, that
// is as good as a tone; elsewhere it needs a sign.
func (s *state) bareSize(o freq.Offset) bool {
	if !s.has(fReceive | fTransmit) {
		return false
	}
	b, ok := s.r.plan.Band(max(s.receive, s.transmit))
	known := ok && s.r.usualIn(b, o)
	if !known {
		if !s.has(fSign) {
			return false
		}
		s.cost += remote
	}
	return s.setSize(o)
}

func (s *state) setOut(t tone.Tone) bool {
	s.out = t
	return s.claim(fToneOut)
}

func (s *state) setIn(t tone.Tone) bool {
	s.in = t
	return t.Kind() != tone.Burst && !s.has(fBoth) && s.claim(fToneIn)
}

// setBoth takes tone squelch: the tone that is sent is waited for too,
// wherever in the line it stands.
func (s *state) setBoth() bool { return !s.has(fToneIn) && s.claim(fBoth) }

// setCode takes a code, with the polarity of both sides where it says so.
func (s *state) setCode(v value) bool {
	if v.text != "both" {
		return s.setOut(v.tone)
	}
	c, _ := v.tone.Code()
	in, _ := tone.NewDCS(c, v.n == 1)
	return s.setOut(v.tone) && s.setIn(in)
}

// addName adds a word to the name. A name stands together.
func (s *state) addName(text string) bool {
	switch {
	case s.naming == 2:
		return false
	case s.naming == 1 && (s.r.at(s.at).cell || s.r.at(s.at-1).labelled):
		return false
	case s.naming == 1:
		if !s.r.at(s.at).glued {
			s.name += " "
		}
		s.name += text
		return true
	}
	s.name, s.naming = text, 1
	s.cost += possible
	return true
}

func (s *state) setSlot(n int) bool {
	s.slot = n
	return n >= 0 && n <= 9999 && s.claim(fSlot)
}

func (s *state) setScan(v Scan) bool {
	if s.has(fScan) {
		return s.scan == v // "scan skip" says it twice
	}
	s.scan = v
	return s.claim(fScan)
}

func (s *state) setWidth(w channel.Width) bool {
	if s.has(fWidth) {
		return s.width == w
	}
	s.width = w
	return s.claim(fWidth)
}

func (s *state) setPower(p channel.Power) bool { s.power = p; return s.claim(fPower) }

func (s *state) setAccess(a string) bool { s.access = a; return s.claim(fAccess) }
