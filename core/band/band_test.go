package band

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/freq"
)

// TestShiftTables checks outputs against the published shift tables. basis of
// every row: from memory.
func TestShiftTables(t *testing.T) {
	const (
		us = "source: US national VHF/UHF band plan"
		uk = "source: UK national band plan, IARU Region 1 VHF Managers Handbook"
	)
	for _, c := range []struct {
		source, region, output, offset string
	}{
		{us, "us", "29.640", "-100 kHz"},
		{us, "us", "51.820", "-500 kHz"},
		{us, "us", "52.810", "-500 kHz"},
		{us, "us", "53.850", "-500 kHz"},
		{us, "us", "145.230", "-600 kHz"},
		{us, "us", "146.610", "-600 kHz"},
		{us, "us", "146.970", "-600 kHz"},
		{us, "us", "147.015", "+600 kHz"},
		{us, "us", "147.390", "+600 kHz"},
		{us, "us", "224.500", "-1.6 MHz"},
		{us, "us", "442.100", "+5 MHz"},
		{us, "us", "447.600", "-5 MHz"},
		{us, "us", "927.600", "-25 MHz"},
		{us, "us", "1283.100", "-12 MHz"},
		{us, "us", "1292.200", "-20 MHz"},
		{us, "us", "52.525", ""},
		{us, "us", "146.520", ""},
		{us, "us", "147.540", ""},
		{us, "us", "446.000", ""},
		{us, "us", "162.475", ""},
		{uk, "uk", "29.640", "-100 kHz"},
		{uk, "uk", "50.770", "+500 kHz"},
		{uk, "uk", "145.725", "-600 kHz"},
		{uk, "uk", "145.5875", "-600 kHz"},
		{uk, "uk", "430.900", "+7.6 MHz"},
		{uk, "uk", "433.350", "+1.6 MHz"},
		{uk, "uk", "439.700", "-9 MHz"},
		{uk, "uk", "1297.075", "-6 MHz"},
		{uk, "uk", "70.450", ""},
		{uk, "uk", "145.500", ""},
		{uk, "uk", "147.240", ""},
	} {
		rule, ok := MustLoad(c.region).Shift(freq.MustParse(c.output))
		assert.Equal(t, c.offset != "", ok, "%s %s (%s)", c.region, c.output, c.source)
		if ok {
			assert.Equal(t, freq.MustParseOffset(c.offset), rule.Offset, "%s %s (%s)", c.region, c.output, c.source)
		}
	}
}

// TestPlansHoldTogether is the schema of every plan file.
func TestPlansHoldTogether(t *testing.T) {
	require.Equal(t, []string{"uk", "us"}, Regions())
	for _, region := range Regions() {
		p := MustLoad(region)
		assert.NotEmpty(t, p.Source)
		assert.NotEmpty(t, p.Basis)
		assert.NotEmpty(t, p.AsOf)
		assert.NotEmpty(t, p.Authority)
		for i, b := range p.Bands {
			for _, other := range p.Bands[i+1:] {
				assert.False(t, b.Holds(other.Lower) || b.Holds(other.Upper), "%s %s overlaps %s", region, b.Name, other.Name)
			}
			assert.Less(t, b.Lower, b.Upper)
			assert.Positive(t, b.Tolerance(), "%s %s has a raster", region, b.Name)
			last := b.Lower
			for _, s := range b.Segments {
				assert.LessOrEqual(t, last, s.Lower, "%s %s: segments in order", region, s.Label)
				assert.Less(t, s.Lower, s.Upper)
				assert.True(t, b.Holds(s.Lower) && b.Holds(s.Upper))
				last = s.Upper
			}
			for _, r := range b.Shifts {
				for _, o := range append([]freq.Offset{r.Offset}, r.Alternatives...) {
					in := Span{r.Lower.Add(o), r.Upper.Add(o)}
					assert.False(t, r.Holds(in.Lower) || in.Holds(r.Lower), "%s %v: outputs overlap their own inputs", region, r.Span)
					assert.True(t, b.Holds(in.Lower) && b.Holds(in.Upper), "%s %v %v: inputs inside the band", region, r.Span, o)
				}
				seg, ok := p.Segment(r.Lower)
				require.True(t, ok)
				assert.Equal(t, Output, seg.Use, "%s %v: shifts belong to output segments", region, r.Span)
			}
			for _, f := range b.Calling {
				seg, ok := p.Segment(f)
				require.True(t, ok, "%s %v", region, f)
				if !assert.Contains(t, []Use{Simplex, Output}, seg.Use, "%s %v", region, f) {
					continue
				}
				_, shifted := p.Shift(f)
				assert.False(t, shifted, "a calling channel is simplex: %v", f)
			}
		}
	}
	_, err := Load("atlantis")
	assert.ErrorContains(t, err, "uk, us")
}

func TestLookup(t *testing.T) {
	p := MustLoad("us")
	seg, ok := p.Segment(freq.MustParse("145.9"))
	require.True(t, ok)
	assert.Equal(t, Satellite, seg.Use)
	assert.False(t, seg.Voice())
	seg, _ = p.Segment(freq.MustParse("147.000"))
	assert.Equal(t, "outputs +600", seg.Label, "a shared edge belongs to the segment above")
	assert.False(t, p.MayTransmit(freq.MustParse("153.390")))
	assert.False(t, p.MayTransmit(freq.MustParse("162.475")), "weather broadcast is receive only")
	assert.True(t, p.MayTransmit(freq.MustParse("146.34")))
	assert.Equal(t, []freq.Hz{freq.MustParse("146.940")}, p.OutputsOf(freq.MustParse("146.340")))
	assert.Equal(t, []freq.Hz{freq.MustParse("147.240")}, p.OutputsOf(freq.MustParse("147.840")))
	assert.Empty(t, p.OutputsOf(freq.MustParse("146.52")))
	rule, _ := p.Shift(freq.MustParse("147.000"))
	assert.True(t, rule.Allows(freq.MustParseOffset("-600 kHz")))
	b, _ := p.Band(freq.MustParse("146.94"))
	assert.Equal(t, freq.Hz(7500), b.Tolerance())
}
