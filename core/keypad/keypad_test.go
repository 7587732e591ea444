package keypad

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/radio"
)

func sheet(t *testing.T, id, line string) Sheet {
	t.Helper()
	p, err := radio.Load(id)
	require.NoError(t, err)
	d := entry.Read(line, band.MustLoad("us"))
	require.True(t, d.Complete(), line)
	return Write(d.Channel, p, 12, d.Channel.Name)
}

// steps writes a sheet's steps in one line, without where they are.
func steps(s Sheet) string {
	var parts []string
	for _, x := range s.Steps {
		parts = append(parts, strings.TrimSpace(fmt.Sprintf("%s %s %s", x.Do, x.Value, x.Unit)))
	}
	return strings.Join(parts, "; ")
}

// TestFiveWays is worked out by hand for each way of entry. Common practice,
// no source: everything is set before storing, and "off" is written out.
func TestFiveWays(t *testing.T) {
	for _, c := range []struct{ radio, line, steps, rest, keyed string }{
		{
			"trail", `147.24 + 103.5 "BEACON"`,
			"go to VFO; tuning step 20 kHz; automatic shift off; receive 147.240 MHz; shift direction +; shift size 0.600 MHz; " +
				"tone mode tone; tone sent 103.5 Hz; tone heard off; bandwidth wide; power high; store in slot 12; name BEACON",
			"+  T  147.240", "+  T  147.840",
		},
		{
			"trail", "146.52",
			"go to VFO; tuning step 20 kHz; automatic shift off; receive 146.520 MHz; shift direction off; tone mode off; bandwidth wide; power high; store in slot 12",
			"146.520", "146.520",
		},
		{
			"ferry", "146.94 ts 88.5",
			"go to VFO; tuning step 20 kHz; automatic shift on; receive 146.940 MHz; tone mode tone squelch; tone sent 88.5 Hz; " +
				"bandwidth wide; power high; store in slot 12",
			"−  ENC DEC  146.940", "−  ENC DEC  146.340",
		},
		{
			"ferry", "146.94 simplex",
			"go to VFO; tuning step 20 kHz; automatic shift off; receive 146.940 MHz; shift direction off; tone mode off; bandwidth wide; power high; store in slot 12",
			"146.940", "146.940",
		},
		{
			"ferry", "146.82 -1.6 low",
			"go to VFO; tuning step 20 kHz; automatic shift off; receive 146.820 MHz; shift direction −; shift size 1.600 MHz; tone mode off; " +
				"bandwidth wide; power low; store in slot 12",
			"−  146.820", "−  145.220",
		},
		{
			"lantern", `442.65 +5 ts d023n nfm "QUAY"`,
			"go to VFO; tuning step 25 kHz; receive 442.650 MHz; transmit 447.650 MHz; tone sent D023N; tone heard D023N; " +
				"bandwidth narrow; power high; store in slot 12; name none",
			"+−  DCS  442.65000", "+−  DCS  447.65000",
		},
		{
			"lantern", "162.475 rx only",
			"go to VFO; tuning step 25 kHz; receive 162.475 MHz; transmit none; tone off; bandwidth wide; store in slot 12",
			"162.47500", "",
		},
		{
			"trail", "147.3 + 1750",
			"go to VFO; tuning step 25 kHz; automatic shift off; receive 147.300 MHz; shift direction +; shift size 0.600 MHz; tone mode off; " +
				"tone burst 1750 Hz; tone heard off; bandwidth wide; power high; store in slot 12",
			"+  B  147.300", "+  B  147.900",
		},
		{
			"skerry", "146.94 ts 88.5",
			"go to VFO; tuning step 20 kHz; automatic shift off; receive 146.940 MHz; split −0.600 MHz; tone mode tone squelch; tone sent 88.5 Hz; " +
				"tone heard 88.5 Hz; bandwidth wide; power high; store in slot 12",
			"sp  TS  146.940", "sp  TS  146.340",
		},
		{
			"skerry", "146.52",
			"go to VFO; tuning step 20 kHz; automatic shift off; receive 146.520 MHz; split off; tone mode off; bandwidth wide; power high; store in slot 12",
			"146.520", "146.520",
		},
		{
			"beck", "147.24 103.5",
			"go to VFO; tuning step 20 kHz; receive 147.240 MHz; tone mode tone; tone sent 103.5 Hz; tone heard off; bandwidth wide; power high; " +
				"store in slot 12; transmit 147.840 MHz; store again in slot 12",
			"-+  T  147.240", "-+  T  147.840",
		},
		{
			"beck", "146.52",
			"go to VFO; tuning step 20 kHz; receive 146.520 MHz; tone mode off; bandwidth wide; power high; store in slot 12",
			"146.520", "146.520",
		},
	} {
		s := sheet(t, c.radio, c.line)
		assert.Equal(t, c.steps, steps(s), "%s %s", c.radio, c.line)
		assert.Equal(t, c.rest, s.Rest.String(), "%s %s", c.radio, c.line)
		if c.keyed == "" {
			assert.Nil(t, s.Keyed, c.line)
		} else if assert.NotNil(t, s.Keyed, c.line) {
			assert.Equal(t, c.keyed, s.Keyed.String(), "%s %s", c.radio, c.line)
		}
		for i, x := range s.Steps {
			assert.Equal(t, i+1, x.Number)
			assert.NotEmpty(t, x.Where, "%s: %s", c.radio, x.Do)
			assert.NotEmpty(t, x.Value, "%s: %s", c.radio, x.Do)
		}
	}
}

func TestLosses(t *testing.T) {
	s := sheet(t, "lantern", "147.3 + 1750")
	require.Len(t, s.Losses, 1, "the radio has no burst")
	assert.Equal(t, "+−  147.30000", s.Rest.String(), "and the display shows none")
	assert.Equal(t, "the display leaves out the end of 446.0125 MHz", sheet(t, "trail", "446.0125").Rest.Note)
	assert.Contains(t, sheet(t, "ferry", "146.94 simplex").After, "automatic shift on again, for the next repeater")
	assert.Empty(t, sheet(t, "trail", "146.52").Losses)
}

// TestAnyDecimals: a profile that got past the check does not stop the program.
func TestAnyDecimals(t *testing.T) {
	for _, decimals := range []int{-3, 0, 3, 6, 7} {
		p := *radio.Profiles()[0]
		p.Display.Decimals = decimals
		assert.NotPanics(t, func() { Write(channel.New(146_520_000), &p, p.Slots.First, "") }, decimals)
	}
}
