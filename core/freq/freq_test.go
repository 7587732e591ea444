package freq

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestParse(t *testing.T) {
	for _, c := range []struct {
		in   string
		want Hz
	}{
		// source: SI prefixes (BIPM SI Brochure, table 7); basis: arithmetic
		{"147.24", 147_240_000},
		{"147,24", 147_240_000},
		{"146.520 MHz", 146_520_000},
		{"146520 kHz", 146_520_000},
		{"446.00625", 446_006_250},
		{"144390000Hz", 144_390_000},
		{"29.6m", 29_600_000},
		{" 1297.5 ", 1_297_500_000},
		{"145.4999999999", 0},
		{"146520", 0},
		{"", 0},
		{"x", 0},
		{"0.0", 0},
		{"4000.0", 0},
		{"1.2.3", 0},
		{"147.24 Mx", 0},
	} {
		got, err := Parse(c.in)
		if c.want == 0 {
			assert.Error(t, err, c.in)
			continue
		}
		require.NoError(t, err, c.in)
		assert.Equal(t, c.want, got, c.in)
	}
}

func TestParseOffset(t *testing.T) {
	for _, c := range []struct {
		in   string
		want Offset
		text string
	}{
		// common practice, no source: how people write shifts
		{"+600", 600_000, "+600 kHz"},
		{"-600 kHz", -600_000, "−600 kHz"},
		{"-0.6", -600_000, "−600 kHz"},
		{"−7.6", -7_600_000, "−7.600 MHz"},
		{"+5", 5_000_000, "+5.000 MHz"},
		{"-100k", -100_000, "−100 kHz"},
		{"+1.6 MHz", 1_600_000, "+1.600 MHz"},
		{"+000.600", 600_000, "+600 kHz"},
		{"-28", -28_000_000, "−28.000 MHz"},
		{"+1600", 1_600_000, "+1.600 MHz"},
	} {
		got, err := ParseOffset(c.in)
		require.NoError(t, err, c.in)
		assert.Equal(t, c.want, got, c.in)
		assert.Equal(t, c.text, got.String())
	}
	for _, bad := range []string{"600", "+", "+x", "+6 Mega", "+2000.0"} {
		_, err := ParseOffset(bad)
		assert.Error(t, err, bad)
	}
}

func TestRaster(t *testing.T) {
	// source: ETSI EN 300 405 / PMR446 raster: 446.00625 MHz + n × 12.5 kHz; basis: from memory
	pmr := Raster{Step: 12_500, Origin: 446_006_250}
	assert.True(t, pmr.On(446_193_750))
	assert.False(t, pmr.On(446_200_000))
	assert.Equal(t, Hz(446_193_750), pmr.Nearest(446_194_000))
	assert.Equal(t, Hz(445_993_750), pmr.Nearest(445_994_000), "below the origin too")
	assert.Equal(t, Hz(7), Raster{}.Nearest(7))
}

func TestSameFigures(t *testing.T) {
	for _, c := range []struct {
		a, b Offset
		want bool
	}{{600_000, 6_000_000, true}, {-600_000, 600_000_000, true}, {600_000, 600_000, false}, {600_000, 1_600_000, false}, {0, 600_000, false}, {5_000_000, 50_000_000, true}} {
		assert.Equal(t, c.want, c.a.SameFigures(c.b), "%v %v", c.a, c.b)
		assert.Equal(t, c.want, c.b.SameFigures(c.a), "%v %v", c.b, c.a)
	}
}

func TestRoundTrips(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		f := Hz(rapid.Int64Range(1, int64(Max)).Draw(r, "hz"))
		got, err := Parse(f.String())
		require.NoError(r, err)
		require.Equal(r, f, got)
		o := Offset(rapid.Int64Range(-1_000*MHz, 1_000*MHz).Draw(r, "offset"))
		back, err := ParseOffset(o.String())
		require.NoError(r, err)
		require.Equal(r, o, back)
		require.Equal(r, f, f.Add(o).Add(-o))
		require.Equal(r, o, f.Add(o).Sub(f))

		b, err := json.Marshal(struct {
			F Hz
			O Offset
		}{f, o})
		require.NoError(r, err)
		var v struct {
			F Hz
			O Offset
		}
		require.NoError(r, json.Unmarshal(b, &v))
		require.Equal(r, f, v.F)
		require.Equal(r, o, v.O)
	})
}

func FuzzParse(f *testing.F) {
	for _, s := range []string{"147.24", "-0.6", "+600 kHz", "1e9", "９", "99999999999999999999.9", "0.000001"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		if v, err := Parse(s); err == nil {
			again, err := Parse(v.String())
			require.NoError(t, err)
			require.Equal(t, v, again)
		}
		if v, err := ParseOffset(s); err == nil {
			again, err := ParseOffset(v.String())
			require.NoError(t, err)
			require.Equal(t, v, again)
		}
	})
}
