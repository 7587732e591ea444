package band

import (
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/freq"
)

// TestShiftTables checks outputs against the published shift tables. basis of
// every row: from memory.
func TestShiftTables(t *testing.T) {
	const (
		us  = "source: US national VHF/UHF band plan"
		ca  = "source: Canadian national band plans"
		r1  = "source: IARU Region 1 VHF Managers Handbook"
		au  = "source: Australian national band plans"
		nz  = "source: New Zealand national band plans"
		itu = "source: ITU Radio Regulations, Article 5: no table of shifts, so none is given"
		uk  = "source: UK national band plan, IARU Region 1 VHF Managers Handbook"
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
		{us, "us", "146.985", "-600 kHz"},
		{us, "us", "53.230", "-1 MHz"},
		{us, "us", "52.525", ""},
		{us, "us", "146.520", ""},
		{us, "us", "147.540", ""},
		{us, "us", "446.000", ""},
		{us, "us", "162.475", ""},
		{uk, "uk", "29.640", "-100 kHz"},
		{uk, "uk", "50.770", "+500 kHz"},
		{uk, "uk", "145.725", "-600 kHz"},
		{uk, "uk", "145.600", "-600 kHz"},
		{uk, "uk", "145.5875", ""},
		{uk, "uk", "430.900", "+7.6 MHz"},
		{uk, "uk", "433.350", "+1.6 MHz"},
		{uk, "uk", "439.700", "-9 MHz"},
		{uk, "uk", "1297.075", "-6 MHz"},
		{uk, "uk", "70.450", ""},
		{uk, "uk", "145.500", ""},
		{uk, "uk", "147.240", ""},
		{ca, "ca", "146.940", "-600 kHz"},
		{ca, "ca", "53.610", "-1 MHz"},
		{ca, "ca", "444.200", "+5 MHz"},
		{ca, "ca", "224.500", "-1.6 MHz"},
		{r1, "r1", "29.640", "-100 kHz"},
		{r1, "r1", "51.890", "-600 kHz"},
		{r1, "r1", "145.575", "-600 kHz"},
		{r1, "r1", "145.7875", "-600 kHz"},
		{r1, "r1", "438.950", "-7.6 MHz"},
		{r1, "r1", "1298.500", "-28 MHz"},
		{r1, "r1", "433.500", ""},
		{r1, "r1", "434.700", "-1.6 MHz"},
		{r1, "r1", "1258.300", "+35 MHz"},
		{r1, "r1", "1242.300", "+28 MHz"},
		{r1, "de", "438.650", "-7.6 MHz"},
		{r1, "de", "439.425", "-7.6 MHz"},
		{r1, "de", "145.600", "-600 kHz"},
		{r1, "de", "433.500", ""},
		{au, "au", "146.650", "-600 kHz"},
		{au, "au", "147.000", "-600 kHz"},
		{au, "au", "147.250", "+600 kHz"},
		{au, "au", "438.525", "-5 MHz"},
		{au, "au", "53.750", "-1 MHz"},
		{au, "au", "29.640", "-100 kHz"},
		{au, "au", "146.500", ""},
		{au, "au", "439.000", ""},
		{nz, "nz", "145.300", "-600 kHz"},
		{nz, "nz", "147.200", "+600 kHz"},
		{au, "au", "147.400", ""},
		{au, "au", "1273.500", "+20 MHz"},
		{nz, "nz", "147.400", ""},
		{nz, "nz", "53.500", "-1 MHz"},
		{nz, "nz", "439.800", "-5 MHz"},
		{nz, "nz", "434.000", ""},
		{itu, "r2", "146.940", ""},
		{itu, "r3", "439.000", ""},
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
	require.Equal(t, []string{"au", "ca", "de", "nz", "r1", "r2", "r3", "uk", "us"}, Regions())
	for _, region := range Regions() {
		p := MustLoad(region)
		assert.Equal(t, region, p.Region, "a file has the name of its region")
		for _, s := range []string{p.Title, p.Source, p.Basis, p.Authority, p.Identify.Source} {
			assert.NotEmpty(t, s, region)
		}
		assert.Regexp(t, `^20\d\d-\d\d$`, p.AsOf)
		assert.Contains(t, []Monitoring{MonitoringOpen, MonitoringRestricted, MonitoringConfirm}, p.Monitoring)
		for _, f := range p.APRS {
			seg, ok := p.Segment(f)
			assert.True(t, ok && seg.Use == Data, "%s: APRS on %v", region, f)
		}
		for i, b := range p.Bands {
			for _, other := range p.Bands[i+1:] {
				assert.False(t, b.Holds(other.Lower) || b.Holds(other.Upper), "%s %s overlaps %s", region, b.Name, other.Name)
			}
			t.Run(region+" "+b.Name, func(t *testing.T) { holdsTogether(t, p, &b) })
		}
	}
	_, err := Load("atlantis")
	assert.ErrorContains(t, err, "uk, us")
}

var uses = []Use{WeakSignal, Beacon, Satellite, Data, Simplex, Output, Input, Auxiliary, Mixed, ReceiveOnly}

func holdsTogether(t *testing.T, p *Plan, b *Band) {
	assert.Less(t, b.Lower, b.Upper)
	assert.Positive(t, b.Tolerance(), "has a raster")
	for i, s := range b.Segments {
		assert.LessOrEqual(t, s.Lower, s.Upper, s.Label)
		assert.Contains(t, uses, s.Use, s.Label)
		assert.NotEmpty(t, s.Label)
		assert.True(t, b.Holds(s.Lower) && b.Holds(s.Upper), s.Label)
		for _, x := range s.Except {
			assert.True(t, s.Span.Holds(x.Lower) && s.Span.Holds(x.Upper), "an exception lies inside its segment: %s", s.Label)
		}
		for _, o := range b.Segments[i+1:] {
			assert.LessOrEqual(t, s.Lower, o.Lower, "segments in order: %s", o.Label)
			assert.False(t, o.Lower < s.Upper && s.Holds(o.Lower), "%s overlaps %s", s.Label, o.Label)
		}
	}
	for _, r := range b.Shifts {
		assert.Contains(t, []Certainty{Fixed, Usual, Varied, Confirm}, r.Certainty)
		assert.False(t, r.Certainty == Varied && len(r.Alternatives) == 0 && r.Note == "", "%v: say what else is used", r.Span)
		for _, o := range r.offsets() {
			in := Span{r.Lower.Add(o), r.Upper.Add(o)}
			assert.False(t, r.Holds(in.Lower) || in.Holds(r.Lower), "%v: outputs overlap their own inputs", r.Span)
			assert.True(t, b.Holds(in.Lower) && b.Holds(in.Upper), "%v %v: inputs inside the band", r.Span, o)
			for _, edge := range []freq.Hz{in.Lower, in.Upper} {
				if seg, ok := p.Segment(edge); ok && r.Firm() {
					assert.True(t, seg.Voice(), "%v %v: an input among %s", r.Span, o, seg.Label)
				}
			}
		}
		seg, ok := p.Segment(r.Lower)
		require.True(t, ok)
		assert.Equal(t, Output, seg.Use, "%v: shifts belong to output segments", r.Span)
	}
	for _, f := range b.Calling {
		seg, ok := p.Segment(f)
		require.True(t, ok, f)
		assert.Equal(t, Simplex, seg.Use, "%v", f)
		_, shifted := p.Shift(f)
		assert.False(t, shifted, "a calling channel is simplex: %v", f)
	}
}

func TestInputsOfAnUnknownRepeater(t *testing.T) {
	for _, c := range []struct {
		region, output string
		inputs         []string
	}{
		// basis: worked out by hand from the shift tables above
		{"us", "146.940", []string{"146.340"}},
		{"us", "147.000", []string{"147.600", "146.400"}},
		{"us", "442.100", []string{"447.100"}},
		{"us", "52.810", []string{"52.310", "51.810", "51.110"}},
		{"r1", "438.950", []string{"431.350"}},
		{"au", "438.525", []string{"433.525", "431.525"}},
		{"us", "162.475", nil},
		{"r2", "146.940", nil},
	} {
		var got []string
		for _, in := range MustLoad(c.region).InputsOf(freq.MustParse(c.output)) {
			got = append(got, in.Frequency.MHz())
			assert.Equal(t, in.Offset, in.Frequency.Sub(freq.MustParse(c.output)))
		}
		assert.Equal(t, c.inputs, got, "%s %s", c.region, c.output)
	}
}

func TestARegionWithoutATableIsNeverFirm(t *testing.T) {
	assert.True(t, MustLoad("us").Firm())
	assert.False(t, MustLoad("r2").Firm())
	for _, b := range MustLoad("nz").Bands {
		if b.Name == "2 m" {
			for _, r := range b.Shifts {
				assert.False(t, r.Firm())
			}
		}
	}
}

// TestElsewhere: a band that a plan lacks is not covered by it; what is only
// beyond the edge of a band that it has is outside.
func TestElsewhere(t *testing.T) {
	name, ok := MustLoad("uk").Elsewhere(freq.MustParse("224.34"))
	assert.True(t, ok)
	assert.Equal(t, "1.25 m", name)
	for region, f := range map[string]string{"uk": "442.1", "us": "148.2", "de": "146.94", "au": "144.39"} {
		_, ok := MustLoad(region).Elsewhere(freq.MustParse(f))
		assert.False(t, ok, "%s %s", region, f)
	}
}

// TestRasters: channels that are in use beside each other, and figures that
// are not. source: US national VHF/UHF band plan; basis: from memory.
func TestRasters(t *testing.T) {
	for f, on := range map[string]bool{"146.94": true, "146.64": true, "146.62": true, "147.08": true, "52.525": true, "53.23": true, "52.81": true, "146.985": true, "146.943": false, "444.02": true, "52.533": false} {
		b, ok := MustLoad("us").Band(freq.MustParse(f))
		require.True(t, ok)
		assert.Equal(t, on, b.OnRaster(freq.MustParse(f)), f)
	}
}

func TestDesignators(t *testing.T) {
	// source: IARU Region 1 VHF Managers Handbook; basis: from memory
	for name, f := range map[string]string{"V40": "145.500", "RV48": "145.600", "RV63": "145.7875", "U280": "433.500", "RU692": "438.650", "S20": "145.500", "R7": "145.775"} {
		i := strings.IndexAny(name, "0123456789")
		n, err := strconv.Atoi(name[i:])
		require.NoError(t, err)
		found := false
		for _, d := range MustLoad("de").Designators {
			if d.Prefix == name[:i] {
				got, ok := d.Frequency(n)
				found = ok
				assert.Equal(t, f, got.MHz(), name)
			}
		}
		assert.True(t, found, name)
	}
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
