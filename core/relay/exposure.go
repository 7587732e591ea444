package relay

import (
	"math"

	"mnemos/core/freq"
	"mnemos/core/rf"
)

// Exposure is how far people keep from the aerial of a side, in metres.
type Exposure struct {
	Side     string
	Hz       freq.Hz
	Mean     float64 // W radiated by the aerial against an isotropic one, in the mean
	Nearest  float64 // λ/2π: nearer than that nothing of this is true
	Public   float64 // by the stricter of the limits for anybody
	Own      float64 // by that for people who know and can leave
	By       string  // whose limit is the stricter for anybody
	Exempt   float64 // beyond that the station is exempt, where the region has such a rule; 0
	ExemptBy string
	Minutes  int // over which it is averaged, for anybody
}

// Distance is how far from an aerial the power density falls to a level, in metres, over
// ground that reflects: S = r² EIRP / 4πd², r the reflection in amplitude.
func Distance(eirp, level float64) float64 {
	return math.Sqrt(data.Reflection * data.Reflection * eirp / (4 * math.Pi * level))
}

// exposures are those of both sides. They are averaged over the traffic: a caution, and no
// replacement for the evaluation that rules may ask for.
func exposures(s Setup, l Load) (out []Exposure) {
	gain := math.Pow(10, s.Supply.Gain/10)
	for _, x := range []struct {
		letter       string
		side         Side
		share, watts float64
	}{{"A", s.A, l.A, l.WattsA}, {"B", s.B, l.B, l.WattsB}} {
		f, sends := x.side.sends()
		if !sends || x.side.Channel.Receive == 0 || x.share == 0 {
			continue
		}
		e := Exposure{Side: x.letter, Hz: f, Mean: x.share * x.watts * gain, Nearest: rf.Wavelength(f) / (2 * math.Pi)}
		for _, lim := range data.Limits {
			if level, ok := at(lim.Public, f); ok {
				if d := Distance(e.Mean, level); d > e.Public {
					e.Public, e.By, e.Minutes = d, lim.Name, lim.Averaged.Public
				}
			}
			// Whoever knows of it may still stand there for a whole stretch: it is not
			// averaged over the traffic.
			if level, ok := at(lim.Own, f); ok {
				e.Own = max(e.Own, Distance(e.Mean, level))
			}
		}
		e.Public, e.Own = max(e.Public, e.Nearest), max(e.Own, e.Nearest)
		if per, ok := at(data.Exempt.Steps, f); ok && s.Plan != nil && s.Plan.Region == "us" {
			e.Exempt, e.ExemptBy = max(e.Nearest, math.Sqrt(e.Mean/1.64/per)), data.Exempt.Source
		}
		out = append(out, e)
	}
	return out
}
