package rf

import (
	"math"

	"mnemos/core/freq"
)

// light is the speed of light in m/s, exact by the definition of the metre.
const light = 299_792_458

// Wavelength is the length of a wave in metres.
func Wavelength(f freq.Hz) float64 { return light / float64(f) }

// FreeSpace is the loss in dB between two isotropic aerials that see each other:
// 20 log (4πd/λ), which is 32.45 + 20 log MHz + 20 log km. Source: ITU-R P.525. It holds
// from some wavelengths on, and says nothing of hills, trees and walls.
func FreeSpace(f freq.Hz, km float64) float64 {
	return 20 * math.Log10(4*math.Pi*km*1000/Wavelength(f))
}

// DBm is a power in dB over a milliwatt.
func DBm(watts float64) float64 { return 10 * math.Log10(watts*1000) }
