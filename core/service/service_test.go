package service

import (
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/freq"
)

// TestChannels checks numbers against the published tables. basis of every
// row: from memory.
func TestChannels(t *testing.T) {
	const (
		part95 = "source: 47 CFR Part 95"
		ecc    = "source: ECC Decision (15)05: 446.00625 MHz + n × 12.5 kHz"
		wx     = "common practice, no source"
		uhf    = "source: AS/NZS 4365"
		cept   = "source: ECC Decision (11)03"
		fn     = "source: Bundesnetzagentur, general assignment of 149 MHz"
		rss    = "source: RSS-210"
	)
	for _, c := range []struct {
		source, region, word, number, frequency string
		watts                                   float64
	}{
		{part95, "us", "frs", "1", "462.5625", 2},
		{part95, "us", "frs", "7", "462.7125", 2},
		{part95, "us", "frs", "8", "467.5625", 0.5},
		{part95, "us", "frs", "14", "467.7125", 0.5},
		{part95, "us", "frs", "15", "462.5500", 2},
		{part95, "us", "FRS", "22", "462.7250", 2},
		{part95, "us", "gmrs", "15", "462.5500", 50},
		{part95, "us", "gmrs", "3", "462.6125", 5},
		{part95, "us", "gmrs", "08", "467.5625", 0.5},
		{part95, "us", "murs", "1", "151.820", 2},
		{part95, "us", "murs", "5", "154.600", 2},
		{ecc, "uk", "pmr", "1", "446.00625", 0.5},
		{ecc, "de", "pmr446", "8", "446.09375", 0.5},
		{ecc, "r1", "pmr", "16", "446.19375", 0.5},
		{wx, "us", "wx", "1", "162.550", 0},
		{uhf, "au", "cb", "1", "476.425", 5},
		{uhf, "au", "uhf", "40", "477.400", 5},
		{uhf, "nz", "cb", "41", "476.4375", 5},
		{uhf, "au", "cb", "80", "477.4125", 5},
		{cept, "uk", "cb", "1", "26.965", 4},
		{cept, "de", "cb", "23", "27.255", 4},
		{cept, "us", "cb", "40", "27.405", 4},
		{fn, "de", "freenet", "1", "149.025", 1},
		{fn, "de", "freenet", "6", "149.1125", 1},
		{rss, "ca", "gmrs", "15", "462.5500", 2},
	} {
		s, ok := Find(c.region, c.word)
		require.True(t, ok, "%s %s", c.region, c.word)
		ch, ok := s.Channel(c.number)
		require.True(t, ok, "%s %s", c.word, c.number)
		assert.Equal(t, freq.MustParse(c.frequency), ch.Frequency, "%s %s (%s)", c.word, c.number, c.source)
		assert.InDelta(t, c.watts, ch.Watts, 0, "%s %s (%s)", c.word, c.number, c.source)
	}
	_, ok := Find("us", "pmr")
	assert.False(t, ok, "PMR446 is not a service of this region")
	frs, _ := Find("us", "frs")
	_, ok = frs.Channel("23")
	assert.False(t, ok)
	assert.Equal(t, "1 to 22", frs.Range())
}

// TestServicesHoldTogether is the schema of every service file.
func TestServicesHoldTogether(t *testing.T) {
	var ids []string
	for _, s := range all() {
		ids = append(ids, s.ID)
	}
	require.Equal(t, []string{"cb27", "freenet", "frs-ca", "frs", "gmrs-ca", "gmrs", "murs", "pmr446", "uhfcb", "weather"}, ids)
	for _, s := range all() {
		for _, text := range []string{s.ID, s.Name, s.Licence, s.Source, s.Basis, s.AsOf} {
			assert.NotEmpty(t, text, s.ID)
		}
		assert.NotEmpty(t, s.Words, s.ID)
		for _, r := range s.Regions {
			plan, err := band.Load(r)
			require.NoError(t, err, s.ID)
			for _, c := range s.Channels {
				if s.Transmit && r == "us" {
					assert.False(t, plan.MayTransmit(c.Frequency), "%s %s is not an amateur frequency", s.ID, c.Number)
				}
				assert.Equal(t, s.Transmit, c.Watts > 0, "%s %s", s.ID, c.Number)
			}
		}
	}
}

// TestRepeatersOnTheEightOutputsOnly. source: 47 CFR 95.1763; basis: from
// memory.
func TestRepeatersOnTheEightOutputsOnly(t *testing.T) {
	gmrs, _ := Find("us", "gmrs")
	outputs := 0
	for _, c := range gmrs.Channels {
		if c.Offset != 0 {
			outputs++
			assert.Equal(t, freq.MustParseOffset("+5 MHz"), c.Offset, c.Number)
		}
	}
	assert.Equal(t, 8, outputs)
	uses := At("us", freq.MustParse("462.5500"))
	require.Len(t, uses, 2)
	assert.Equal(t, "FRS", uses[0].Name)
	uses = At("us", freq.MustParse("467.5500"))
	require.Len(t, uses, 1)
	assert.True(t, uses[0].Input)
	assert.Empty(t, At("us", freq.MustParse("146.520")))
	assert.Len(t, At("uk", freq.MustParse("446.00625")), 1)
}

// TestUHFCBRepeaters: outputs 1 to 8 and 41 to 48, each listened to 30 channels
// higher. source: AS/NZS 4365; basis: from memory.
func TestUHFCBRepeaters(t *testing.T) {
	cb, _ := Find("au", "cb")
	outputs := 0
	for _, c := range cb.Channels {
		if c.Offset == 0 {
			continue
		}
		outputs++
		n, err := strconv.Atoi(c.Number)
		require.NoError(t, err)
		input, _ := cb.Channel(strconv.Itoa(n + 30))
		assert.Equal(t, input.Frequency, c.Frequency.Add(c.Offset), c.Number)
	}
	assert.Equal(t, 16, outputs)
}

// TestLimits say which power they mean. source: 47 CFR 95.567, 95.1767, 95.2767;
// ECC Decision (15)05; basis: from memory.
func TestLimits(t *testing.T) {
	for _, c := range []struct{ region, word, number, limit string }{
		{"us", "frs", "1", "2 W radiated (ERP)"},
		{"us", "gmrs", "3", "5 W radiated (ERP)"},
		{"us", "gmrs", "15", "50 W at the transmitter"},
		{"us", "murs", "1", "2 W at the transmitter"},
		{"uk", "pmr", "8", "0.5 W radiated (ERP)"},
	} {
		s, _ := Find(c.region, c.word)
		ch, _ := s.Channel(c.number)
		assert.Equal(t, c.limit, ch.Limit(), c.word)
	}
}

// TestCodes. common practice, no source: codes 1 to 38 are the classic tones
// in ascending order.
func TestCodes(t *testing.T) {
	for n, want := range map[int]string{1: "67.0", 12: "100.0", 38: "250.3"} {
		got, ok := Code(n)
		require.True(t, ok)
		assert.Equal(t, want, got.String())
	}
	for _, n := range []int{0, 39, 121, -1} {
		_, ok := Code(n)
		assert.False(t, ok)
	}
}
