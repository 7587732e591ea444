package trial_test

import (
	"math/rand/v2"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/tone"
	"mnemos/core/trial"
)

// What follows is a repeater, a radio and a place that answer, written from what they are
// and not from how causes are weighed.

type nature struct {
	r         *rand.Rand
	onAir     bool
	tone      tone.Tone
	offset    freq.Offset
	width     channel.Width
	strength  float64 // how well a short whip in the open gets in, about 1 where it does
	sendsTone bool    // before anybody looked
	power     bool    // before anybody looked
	noisy     bool
	wrong     []string
}

var (
	set      = tone.MustParse("110.9")
	listed   = []tone.Tone{tone.MustParse("156.7"), tone.MustParse("88.5")}
	unlisted = tone.MustParse("203.5")
	down     = freq.Offset(-600_000)
	up       = freq.Offset(600_000)
)

// facts are what is published in some case.
func facts(r *rand.Rand) trial.Facts {
	f := trial.Facts{
		Start: trial.Setting{Tone: set, Offset: down, Width: channel.Wide, Where: []string{"indoors", "vehicle", "open"}[r.IntN(3)], Aerial: "short"},
		Tone:  []trial.Listings{trial.Agree, trial.Differ, trial.Stale, trial.None}[r.IntN(4)], Shift: trial.Agree,
		Reach: 1.2 * r.Float64(), SendsTone: true, OffAir: r.IntN(8) == 0, Width: r.IntN(6) == 0,
	}
	if f.Tone == trial.Differ {
		f.Tones = listed[:1+r.IntN(2)]
	}
	if r.IntN(5) == 0 {
		f.Shift, f.Offsets = trial.Differ, []freq.Offset{up}
	}
	return f
}

// wrong makes a repeater with one or two things wrong, as often as the weights say.
func wrong(r *rand.Rand, f trial.Facts) *nature {
	n := &nature{r: r, onAir: true, tone: f.Start.Tone, offset: f.Start.Offset, width: f.Start.Width, strength: 1.2 + r.Float64(), sendsTone: true, power: true}
	causes := trial.Weigh(f, nil).Causes
	pick := func() string {
		x := r.Float64()
		for _, c := range causes {
			for range c.IDs {
				// those that stand in one share its weight as the file has it
				if x -= c.Was / float64(len(c.IDs)); x < 0 {
					return c.IDs[r.IntN(len(c.IDs))]
				}
			}
		}
		return "tone"
	}
	many := 1
	if r.Float64() < 0.13 {
		many = 2
	}
	for len(n.wrong) < many {
		c := pick()
		if len(n.wrong) == 1 && n.wrong[0] == c {
			continue
		}
		n.wrong = append(n.wrong, c)
		n.spoil(c, f)
	}
	return n
}

func (n *nature) spoil(cause string, f trial.Facts) {
	switch cause {
	case "tone":
		n.tone = unlisted
		if len(f.Tones) > 0 && n.r.Float64() < 0.85 {
			n.tone = f.Tones[n.r.IntN(len(f.Tones))]
		}
	case "off":
		n.onAir = false
	case "weak":
		n.strength = 0.2 + 0.3*n.r.Float64()
	case "mode":
		n.sendsTone = false
	case "noise":
		n.noisy = true
	case "power":
		n.power = false
	case "shift":
		n.offset = 0
		if len(f.Offsets) > 0 && n.r.Float64() < 0.85 {
			n.offset = f.Offsets[0]
		}
	case "width":
		n.width = channel.Narrow
	}
}

// quality is how much of a signal is left where one stands.
func quality(where string) float64 {
	return map[string]float64{"indoors": 0.55, "vehicle": 0.8, "open": 1, "high": 2.2}[where]
}

func gain(aerial string) float64 {
	return map[string]float64{"short": 1, "long": 1.4, "vehicle": 1.7, "fixed": 2.4}[aerial]
}

// answers is what comes of a try: a signal that fades from try to try has to be strong
// enough, and everything that is set has to fit.
func (n *nature) answers(k trial.Kind, s trial.Setting) bool {
	sends := n.sendsTone || s.Mode
	fade := 0.55 + 0.9*n.r.Float64()
	level := n.strength * quality(s.Where) * gain(s.Aerial) * fade
	drowned := n.noisy && n.r.Float64() > map[string]float64{"indoors": 0.12, "vehicle": 0.3, "open": 0.75, "high": 0.85}[s.Where]
	stray := n.onAir && n.r.Float64() < 0.02
	switch k {
	case trial.Look:
		return !sends != (n.r.Float64() < 0.03)
	case trial.Ask:
		return n.onAir && n.r.Float64() < 0.8 || n.r.Float64() < 0.01
	case trial.Listen:
		return n.onAir && !drowned && 2.5*level > 0.5 && n.r.Float64() < 0.82
	}
	power := 1.0
	if !n.power && !s.Power {
		power = 0.1
	}
	fits := s.Tone == n.tone && sends && s.Offset == n.offset && (s.Width == n.width || n.r.Float64() < 0.2)
	return n.onAir && (stray || fits && !drowned && level*power > 0.5)
}
