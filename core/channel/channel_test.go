package channel

import (
	"encoding/json"
	"testing"
	"unicode"

	jsonpatch "github.com/evanphx/json-patch/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/freq"
	"mnemos/core/tone"
)

func any1(t *rapid.T, label string) Channel {
	c := New(freq.Hz(rapid.Int64Range(30_000_000, 1_300_000_000).Draw(t, label)))
	switch rapid.IntRange(0, 3).Draw(t, label) {
	case 1:
		c.Side = ShiftSide(freq.Offset(rapid.Int64Range(-10_000_000, 10_000_000).Draw(t, label)))
	case 2:
		c.Side = SplitSide(freq.Hz(rapid.Int64Range(30_000_000, 1_300_000_000).Draw(t, label)))
	case 3:
		c.Side = TransmitSide{Kind: Blocked}
	}
	c.Name = rapid.StringOfN(rapid.RuneFrom(nil, unicode.L, unicode.N, unicode.P, unicode.S), 0, MaxName, -1).Draw(t, label)
	if rapid.Bool().Draw(t, label) {
		c.TransmitTone = tone.MustParse("103.5")
	}
	if rapid.Bool().Draw(t, label) {
		c.ReceiveTone = tone.MustParse("D023I")
	}
	c.Width = rapid.SampledFrom([]Width{Wide, Narrow}).Draw(t, label)
	c.Power = rapid.SampledFrom([]Power{High, Mid, Low}).Draw(t, label)
	return c
}

// TestPatch applies the patches with a JSON Patch library of others: what
// Diff writes must be RFC 6902 to them too.
func TestPatch(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		a, b := any1(r, "a"), any1(r, "b")
		// Text that is not UTF-8 cannot stand in JSON at all.
		a.Name, b.Name = clean(a.Name), clean(b.Name)
		doc, err := json.Marshal(a)
		require.NoError(r, err)
		ops, err := json.Marshal(Diff(a, b))
		require.NoError(r, err)
		patch, err := jsonpatch.DecodePatch(ops)
		require.NoError(r, err)
		got, err := patch.Apply(doc)
		require.NoError(r, err, string(ops))
		want, err := json.Marshal(b)
		require.NoError(r, err)
		require.JSONEq(r, string(want), string(got))
		var back Channel
		require.NoError(r, json.Unmarshal(got, &back))
		require.Equal(r, b, back)

		if a.Receive != b.Receive {
			other := a
			other.Receive++
			moved, err := json.Marshal(other)
			require.NoError(r, err)
			_, err = patch.Apply(moved)
			require.Error(r, err, "a patch does not fit a channel that has moved on")
		}
	})
}

func clean(s string) string {
	b, err := json.Marshal(s)
	if err != nil {
		return ""
	}
	var out string
	if json.Unmarshal(b, &out) != nil {
		return ""
	}
	return out
}

func TestTransmit(t *testing.T) {
	c := New(146_940_000)
	tx, ok := c.Transmit()
	assert.True(t, ok)
	assert.Equal(t, freq.Hz(146_940_000), tx)
	c.Side = ShiftSide(-600_000)
	tx, _ = c.Transmit()
	assert.Equal(t, freq.Hz(146_340_000), tx)
	c.Side = SplitSide(147_000_000)
	assert.Equal(t, freq.Offset(60_000), c.Offset())
	c.Side = TransmitSide{Kind: Blocked}
	_, ok = c.Transmit()
	assert.False(t, ok)
	assert.Zero(t, c.Offset())
	assert.Equal(t, TransmitSide{Kind: Simplex}, ShiftSide(0))
}

func TestMode(t *testing.T) {
	a, b := tone.MustParse("100"), tone.MustParse("77")
	for _, c := range []struct {
		out, in tone.Tone
		want    Mode
	}{
		// common practice, no source: the names that radios give the modes
		{tone.Off, tone.Off, NoTone}, {a, tone.Off, Encode}, {tone.Off, a, Decode}, {a, a, ToneSquelch}, {a, b, Separate},
	} {
		assert.Equal(t, c.want, Channel{TransmitTone: c.out, ReceiveTone: c.in}.Mode())
	}
}

func TestValidate(t *testing.T) {
	good := New(146_520_000)
	require.NoError(t, good.Validate())
	for name, change := range map[string]func(*Channel){
		"outside":            func(c *Channel) { c.Receive = 0 },
		"bandwidth":          func(c *Channel) { c.Width = "huge" },
		"power":              func(c *Channel) { c.Power = "max" },
		"burst":              func(c *Channel) { c.ReceiveTone = tone.Burst1750 },
		"kind":               func(c *Channel) { c.Side.Kind = "both" },
		"transmit frequency": func(c *Channel) { c.Side = ShiftSide(-200_000_000) },
	} {
		c := good
		change(&c)
		assert.ErrorContains(t, c.Validate(), name)
	}
	var c Channel
	for _, bad := range []string{
		`{"receive_hz":146520000,"transmit":{"kind":"shift"},"bandwidth":"wide","power":"high"}`,
		`{"receive_hz":146520000,"transmit":{"kind":"split"},"bandwidth":"wide","power":"high"}`,
		`{"receive_hz":-1,"transmit":{"kind":"simplex"},"bandwidth":"wide","power":"high"}`,
		`{"receive_hz":"146.52"}`,
	} {
		require.Error(t, json.Unmarshal([]byte(bad), &c), bad)
	}
}
