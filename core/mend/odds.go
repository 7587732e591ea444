package mend

import (
	"math"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/service"
	"mnemos/core/tone"
)

// How likely a candidate is follows from weighing it against everything else
// that could be behind the entry: the other candidates; a repeater that nobody
// lists, typed rightly or with a slip; and a listing that is out of date about
// its tone. Each explanation gets a weight: how common its kind is, how many
// repeaters of that kind are about, and how likely it makes these very
// figures. The shares below are stated odds, common practice without a source;
// docs/recovery.md measures what follows from them.
const (
	unlistedShare = 0.2  // of the repeaters that people enter, nobody lists
	outdatedShare = 0.05 // of the listed ones the tone has changed since
	rightToSlip   = 3.0  // entries that no listing supports: right ones to slipped ones
	apart         = 0.3  // how much rarer a second repeater is on an output that is in use nearby
	commonTone    = 0.025
)

// weights are how likely each slip makes one particular result: the share of
// the kind, one in twelve, divided by how many results it can have.
var weights = map[Slip]float64{
	WrongSign: 1, Reversed: 1, ShiftUnit: 1. / 3, Downlink: 1, Polarity: 1,
	AdjacentDigit: 1. / 16, SwappedDigits: 1. / 5, MissingDigit: 1. / 6, DoubledDigit: 1. / 6, OtherDigit: 1. / 400,
	ToneBeside: 1. / 2, ToneDigits: 1. / 3, CodeOrTone: 1, OtherLine: 1. / 2, OtherLines: 1. / 20, ToneNear: 1. / 6, NoTone: 1. / 4, OtherTone: 1. / 400,
}

const kinds = 12.0

func (s *searcher) weight(slip Slip) float64 { return s.scale * weights[slip] / kinds }

// uses is how likely it is that somebody here means the repeater, compared with
// one beside them and with no name typed.
func (s *searcher) uses(m listing.Match) float64 {
	h := s.hears(m)
	switch {
	case s.entered.Channel.Name == "":
	case m.Named:
		h *= 200
	default:
		h *= 0.05 // most people who type a name type its own
	}
	return h
}

// hears is the same without regard to a name.
func (s *searcher) hears(m listing.Match) float64 {
	km := unplacedKM
	if m.Distance != nil {
		km = *m.Distance
	}
	h := math.Exp(-km / 60)
	if !m.Audible {
		h *= 0.02
	}
	if m.Status == listing.OffAir {
		h *= 0.5
	}
	return h
}

const unplacedKM = 60.0

// odds sets the likelihood of each candidate.
func (s *searcher) odds() {
	match := s.toneShare(s.entered.Channel.TransmitTone)
	own := make([]float64, len(s.found))
	all := s.otherwise(match)
	for i, c := range s.found {
		own[i] = (1 - unlistedShare - outdatedShare) * s.uses(c.Match) * s.weight(c.Slip)
		if !c.UplinkTone.Known {
			own[i] *= match // nobody says that it wants the tone that was typed
		}
		all += own[i]
		if c.Slip == Downlink || c.Slip == OtherLine || c.Slip == OtherLines {
			// The listing is out of date, and what was typed stands in it all the same.
			all += outdatedShare * s.uses(c.Match) * s.weight(c.Slip)
		}
	}
	for i := range s.found {
		same := 0.0 // what makes the same channel is the same offer
		for j := range s.found {
			if s.found[j].Result == s.found[i].Result {
				same += own[j]
			}
		}
		// To a millionth, so that the order of the records does not show.
		s.found[i].Odds = math.Round(same/all*1e6) / 1e6
	}
}

// otherwise weighs what else could be behind the entry than a slip from a
// listed repeater.
func (s *searcher) otherwise(match float64) float64 {
	w := 0.0
	// Nobody lists it, and its receive frequency slipped.
	for slip, heard := range s.around {
		w += unlistedShare * match * s.weight(slip) * heard
	}
	// It is listed, with a tone that has changed since.
	w += outdatedShare * match * s.inUse
	if !s.anOutput(s.entered.Channel.Receive) {
		return w
	}
	here := s.perOutput()
	if s.inUse > 0 {
		here *= apart
	}
	// Nobody lists it, and something else slipped.
	w += unlistedShare * here * match * s.scale * 4 / kinds
	// Nobody lists it, and it is right as it is.
	if s.plausible(s.entered.Channel) {
		w += unlistedShare * here * match * rightToSlip
	}
	return w
}

// perOutput is how many repeaters in hearing there are on an output, on
// average over those that a slip leads to.
func (s *searcher) perOutput() float64 {
	heard := 0.0
	for _, h := range s.around {
		heard += h
	}
	return (heard + 0.5) / (float64(s.outputs) + 5)
}

// toneShare is how common a tone is among the repeaters around, apart from the
// one that is meant.
func (s *searcher) toneShare(t tone.Tone) float64 {
	return (float64(max(s.tones[t]-1, 0)) + 40*commonTone) / (float64(s.toned) + 40)
}

// anOutput reports whether a repeater could send on f.
func (s *searcher) anOutput(f freq.Hz) bool {
	b, ok := s.plan.Band(f)
	if !ok {
		return len(service.At(s.plan.Region, f)) > 0
	}
	seg, known := s.plan.Segment(f)
	return b.OnRaster(f) && (!known || seg.Voice())
}

// plausible reports whether the entry could be right without being listed: the
// plan has such a channel there, and its tone is a tone.
func (s *searcher) plausible(c channel.Channel) bool {
	if !c.TransmitTone.Standard() || s.entered.Size != "" {
		return false
	}
	if c.Offset() == 0 {
		seg, known := s.plan.Segment(c.Receive)
		return !known || seg.Use == band.Simplex || seg.Use == band.Mixed || seg.Use == band.Auxiliary
	}
	rule, ok := s.plan.Shift(c.Receive)
	return ok && rule.Allows(c.Offset())
}

// census counts what stands around: the repeaters in hearing from which each
// slip of the receive frequency leads to the entry, whatever their tone, and
// how common each tone is.
func (s *searcher) census(origins []freq.Hz, records []listing.Record, slipOf func(listing.Record) Slip) {
	s.around, s.tones = map[Slip]float64{}, map[tone.Tone]int{}
	for _, f := range origins {
		if _, ruled := s.plan.Shift(f); ruled {
			if b, ok := s.plan.Band(f); ok && b.OnRaster(f) {
				s.outputs++
			}
		}
	}
	for _, m := range listing.Measure(records, channel.Channel{}, s.query) {
		if m.UplinkTone.Known {
			s.toned++
			s.tones[m.UplinkTone.Tone]++
		}
		if slip := slipOf(m.Record); slip != "" {
			s.around[slip] += s.hears(m)
		}
	}
}

// Likely is seven to one: from there on a candidate is called very likely. The odds are
// cautious: docs/recovery.md measures how often such a candidate is right.
const Likely = 7.0 / 8

// VeryLikely reports whether the candidate is much likelier than everything
// else that could be behind the entry.
func (c Candidate) VeryLikely() bool { return c.Odds >= Likely }
