package listing

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/tone"
)

func TestACorrectionHoldsUntilTheStatementChanges(t *testing.T) {
	r := says("A", "1", "QX1A", "Hill", "100", 0, 1)
	c := Corrections{r.ID(): {{Of: r.ID(), Field: "uplink_tone", Value: "103.5", Against: "100.0"}, {Of: r.ID(), Field: "status", Value: "off-air", Against: ""}}}
	got := c.Apply(r)
	assert.Equal(t, tone.MustParse("103.5"), got.UplinkTone.Tone)
	assert.Equal(t, OffAir, got.Status)
	assert.Equal(t, tone.MustParse("100"), r.UplinkTone.Tone, "what was said stays")
	assert.Equal(t, r.Input, got.Input)

	newer := says("A", "1", "QX1A", "Hill", "88.5", 0, 6)
	newer.Status = OnAir
	got = c.Apply(newer)
	assert.Equal(t, tone.MustParse("88.5"), got.UplinkTone.Tone, "the newer edition says something else: it is open again")
	assert.Equal(t, OnAir, got.Status)
	assert.Equal(t, newer, Corrections{}.Apply(newer))
}

func TestReadField(t *testing.T) {
	for name, good := range map[string]string{
		"input": "147.84", "uplink_tone": "D023N", "downlink_tone": "none", "mode": "fm", "width": "narrow", "status": "on-air", "access": "private",
	} {
		r, err := ReadField(name, good)
		require.NoError(t, err, name)
		f, ok := field(name)
		require.True(t, ok)
		_, says := f.Says(&r)
		assert.True(t, says, name)
	}
	for field, bad := range map[string]string{"input": "far", "uplink_tone": "loud", "mode": "morse", "width": "medium", "status": "asleep", "access": "maybe", "name": "Hill"} {
		_, err := ReadField(field, bad)
		assert.Error(t, err, field)
	}
}
