package freq

// Raster is a channel raster: every frequency Origin + n × Step.
type Raster struct {
	Step   Hz `yaml:"step"`
	Origin Hz `yaml:"origin"`
}

// On reports whether f lies on the raster. A raster without a step holds
// every frequency.
func (r Raster) On(f Hz) bool { return r.Step <= 0 || (f-r.Origin)%r.Step == 0 }

// Nearest returns the raster frequency closest to f; halfway it is the lower.
func (r Raster) Nearest(f Hz) Hz {
	if r.Step <= 0 {
		return f
	}
	past := ((f-r.Origin)%r.Step + r.Step) % r.Step
	if past*2 > r.Step {
		return f - past + r.Step
	}
	return f - past
}
