package tone

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestParse(t *testing.T) {
	for _, c := range []struct{ in, want string }{
		// common practice, no source: the spellings met in listings and speech
		{"100", "100.0"},
		{"100.0", "100.0"},
		{"100.0 Hz", "100.0"},
		{"94,8", "94.8"},
		{"PL 103.5", "103.5"},
		{"D023", "D023N"},
		{"d023n", "D023N"},
		{"023I", "D023I"},
		{"DCS 023", "D023N"},
		{"dpl 754", "D754N"},
		{"D023R", "D023I"},
		{"1750", "1750"},
		{"1750 Hz", "1750"},
		{"none", "none"},
		{"off", "none"},
		{"141", "141.0"},
		{"150.0", "150.0"},
	} {
		got, err := Parse(c.in)
		require.NoError(t, err, c.in)
		assert.Equal(t, c.want, got.String(), c.in)
	}
	for _, bad := range []string{"12", "300", "D888N", "D023X", "abc", "103.55", "1e2", "-5", "d000n"} {
		_, err := Parse(bad)
		assert.ErrorContains(t, err, bad, "the message quotes the input")
	}
}

func TestSets(t *testing.T) {
	// basis: common practice; the sizes are what radios are sold with
	assert.Len(t, CTCSS50, 50)
	assert.Len(t, CTCSS38, 38)
	assert.Len(t, DCS83, 83)
	assert.Len(t, DCS104, 104)
	assert.IsIncreasing(t, CTCSS50)
	assert.IsIncreasing(t, DCS104)
	assert.True(t, MustParse("141.3").Standard())
	assert.False(t, MustParse("141").Standard())
	assert.False(t, MustParse("150.0").Standard(), "met on some radios, outside the table")
	assert.Equal(t, MustParse("141.3"), Nearest(1410))
	assert.Equal(t, MustParse("254.1"), Nearest(9999))
	assert.Equal(t, 13, MustParse("103.5").Index())
}

// TestGolay checks the code words by the algebra that defines them rather
// than by a remembered table.
func TestGolay(t *testing.T) {
	assert.EqualValues(t, 0x763813, Word(0o023), "source: TIA-603, worked example; basis: from memory")
	for _, code := range DCS104 {
		w := Word(code)
		assert.Zero(t, divide(w&0xFFF<<11|w>>12), "code %03o divides by the generator", code)
		assert.EqualValues(t, code|0x800, w&0xFFF)
	}
	for i, a := range DCS104 {
		for _, b := range DCS104[i+1:] {
			assert.NotEqual(t, signal(Word(a)), signal(Word(b)), "%03o and %03o", a, b)
			assert.GreaterOrEqual(t, distance(Word(a), Word(b)), 7, "the Golay code has minimum distance 7")
		}
	}
}

func divide(v uint32) uint32 {
	for bit := 22; bit >= 11; bit-- {
		if v>>bit&1 == 1 {
			v ^= 0xC75 << (bit - 11)
		}
	}
	return v
}

func distance(a, b uint32) (n int) {
	for x := a ^ b; x != 0; x &= x - 1 {
		n++
	}
	return n
}

func TestEquivalent(t *testing.T) {
	// common practice, no source: the pairs that radio manuals warn of
	for a, b := range map[string]string{"D023I": "D047N", "D025I": "D244N", "D172I": "D036N", "D246I": "D523N"} {
		got, ok := Equivalent(MustParse(a))
		require.True(t, ok)
		assert.Equal(t, b, got.String(), a)
		assert.True(t, Same(MustParse(a), MustParse(b)))
	}
	for _, code := range DCS104 {
		v, err := NewDCS(code, false)
		require.NoError(t, err)
		e, ok := Equivalent(v)
		require.True(t, ok, "every code of the set has its inverse inside the set: %v", v)
		back, _ := Equivalent(e)
		assert.Equal(t, v, back)
	}
	assert.False(t, Same(MustParse("D023N"), MustParse("D047N")))
	_, ok := Equivalent(MustParse("100"))
	assert.False(t, ok)
}

func any50() *rapid.Generator[Tone] {
	return rapid.Custom(func(t *rapid.T) Tone {
		switch rapid.IntRange(0, 3).Draw(t, "kind") {
		case 0:
			return Off
		case 1:
			return Burst1750
		case 2:
			v, _ := NewDCS(rapid.SampledFrom(DCS104).Draw(t, "code"), rapid.Bool().Draw(t, "inverted"))
			return v
		}
		v, _ := NewCTCSS(rapid.IntRange(minCTCSS, maxCTCSS).Draw(t, "deci"))
		return v
	})
}

func TestRoundTrip(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		want := any50().Draw(r, "tone")
		got, err := Parse(want.String())
		require.NoError(r, err)
		require.Equal(r, want, got)
		b, err := json.Marshal(want)
		require.NoError(r, err)
		var again Tone
		require.NoError(r, json.Unmarshal(b, &again))
		require.Equal(r, want, again)
	})
}

func FuzzParse(f *testing.F) {
	for _, s := range []string{"100", "D023N", "1750", "94,8 Hz", "dcs 754", "", "1e9", "d\x00"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		v, err := Parse(s)
		if err != nil {
			return
		}
		again, err := Parse(v.String())
		require.NoError(t, err)
		require.Equal(t, v, again)
	})
}
