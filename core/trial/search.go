package trial

import (
	"fmt"
	"slices"

	"mnemos/core/tone"
)

// Side is where a radio sits while it searches for a tone.
type Side string

// The sides of a repeater. What opens it is sent on its input; its output carries the
// repeater's own tone, which may be another one or none.
const (
	Input  Side = "input"
	Output Side = "output"
)

// System is what a radio searches for. Most search one at a time.
type System string

// The systems, in the order in which they are searched.
const (
	CTCSS System = "ctcss"
	DCS   System = "dcs"
)

// Words names a system as it stands on a radio.
func (s System) Words() string {
	if s == DCS {
		return "DCS"
	}
	return "CTCSS"
}

// Hit is what a search came to while a signal was there: a tone, or none of a system.
type Hit struct {
	Side   Side
	System System
	Tone   tone.Tone // Off for none
}

// Recent is how many of the latest hits of a side count: a repeater can change its tone.
const Recent = 6

// agree is how many hits have to say the same before one is believed: a search can stop
// too early on a short over.
const agree = 2

// Found is what the hits of one side agree on.
type Found struct {
	Side Side
	Tone tone.Tone // as it is entered: a DCS code in its normal polarity
	None bool      // neither system was found: no tone is sent
	Same tone.Tone // the other name of the same DCS signal, or Off
	Hits int
}

// Field says which of a channel's tones it is: what others send to the input is to be
// sent, what the output carries can be waited for.
func (f Found) Field() string {
	if f.Side == Input {
		return "tone out"
	}
	return "tone in"
}

// Search is how far a search has come on one side.
type Search struct {
	Side   Side
	System System // to search now
	Why    string
	Found  *Found
	Doubt  string // hits that do not agree, and what to make of it
}

// Seek says what to search next on a side, and what is found. hits are of both sides,
// oldest first.
func Seek(side Side, hits []Hit) Search {
	var own []Hit
	for _, h := range hits {
		if h.Side == side {
			own = append(own, h)
		}
	}
	own = own[max(0, len(own)-Recent):]
	s := Search{Side: side, System: CTCSS, Why: "CTCSS first: it is commoner."}
	tones, none := counts(own)
	// A hit that is never seen again where two searches find nothing was misread.
	tones = slices.DeleteFunc(tones, func(f Found) bool { return f.Hits < agree && none[system(f.Tone)] >= agree })
	switch {
	case len(tones) > 0 && tones[0].Hits >= agree && (len(tones) == 1 || tones[1].Hits < tones[0].Hits):
		s.Found = &tones[0]
		s.System, s.Why = system(tones[0].Tone), "Two hits agree: that is enough."
		if len(tones) > 1 {
			s.Doubt = fmt.Sprintf("Another hit said %s: a misread over, or a station that does not open it.", tones[1].Tone.Words())
		}
	case len(tones) > 0:
		s.System, s.Why = system(tones[0].Tone), "Once more, to be sure: one hit can be misread."
		s.Doubt = apart(tones)
	case none[CTCSS] >= agree && none[DCS] >= agree:
		s.Found = &Found{Side: side, None: true, Hits: none[CTCSS] + none[DCS]}
		s.System, s.Why = DCS, "Nothing of either, twice."
	case none[CTCSS] >= agree:
		s.System, s.Why = DCS, "Two searches found no CTCSS: now DCS."
	case none[CTCSS] > 0 && none[CTCSS] >= none[DCS]:
		s.Why = "CTCSS once more: an over can be too short."
	}
	return s
}

// counts are the tones of hits, those with the most first and the newer before the older,
// and how often there was none of a system.
func counts(hits []Hit) (tones []Found, none map[System]int) {
	none = map[System]int{}
	for _, h := range slices.Backward(hits) {
		if h.Tone.IsOff() {
			none[h.System]++
			continue
		}
		i := slices.IndexFunc(tones, func(f Found) bool { return tone.Same(f.Tone, h.Tone) })
		if i < 0 {
			i = len(tones)
			t, same := named(h.Tone)
			tones = append(tones, Found{Side: h.Side, Tone: t, Same: same})
		}
		tones[i].Hits++
	}
	slices.SortStableFunc(tones, func(a, b Found) int { return b.Hits - a.Hits })
	return tones, none
}

// named is a tone as a channel has it, with the other name of the same signal. A code
// upside down that is another code's signal is that code: every radio has it.
func named(t tone.Tone) (is, same tone.Tone) {
	e, ok := tone.Equivalent(t)
	if !ok {
		return t, tone.Off
	}
	if _, inverted := t.Code(); inverted {
		return e, t
	}
	return t, e
}

func system(t tone.Tone) System {
	if t.Kind() == tone.DCS {
		return DCS
	}
	return CTCSS
}

// apart says what to make of hits that do not agree.
func apart(tones []Found) string {
	if len(tones) < 2 {
		return ""
	}
	a, b := tones[0].Tone, tones[1].Tone
	if i, j := a.Index(), b.Index(); a.Kind() == tone.CTCSS && b.Kind() == tone.CTCSS && i >= 0 && j >= 0 && max(i, j)-min(i, j) == 1 {
		return fmt.Sprintf("%s and %s are neighbours: one was misread. Search on a longer over.", a.Words(), b.Words())
	}
	return fmt.Sprintf("%s and %s do not agree: two stations may use two tones, or one over was too short. Note which of them the repeater answers.", a.Words(), b.Words())
}
