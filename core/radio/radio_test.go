package radio

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/tone"
)

func load(t *testing.T, id string) *Profile {
	t.Helper()
	p, err := Load(id)
	require.NoError(t, err)
	return p
}

func TestProfilesHoldTogether(t *testing.T) {
	entries := map[Entry]bool{}
	for _, p := range Profiles() {
		entries[p.Entry] = true
		assert.NotEmpty(t, p.Source, p.ID)
		assert.NotEmpty(t, p.Basis, p.ID)
		assert.NotEmpty(t, p.AsOf, p.ID)
		assert.Less(t, p.Slots.First, p.Slots.Last)
		assert.GreaterOrEqual(t, p.Names.Length, 4)
		assert.Contains(t, []Receivers{One, DualWatch, DualReceive}, p.Receivers)
		assert.False(t, p.Relay.CrossBand && p.Receivers != DualReceive, "%s: a relay needs two receivers", p.ID)
		assert.Positive(t, p.Scan.Rate, p.ID)
		assert.NotEmpty(t, p.Steps, p.ID)
		assert.False(t, p.Entry == Automatic && p.AutoFrom == "", p.ID)
		assert.Contains(t, []int{38, 50}, p.CTCSS)
		assert.Contains(t, []int{0, 83, 104}, p.DCS)
		assert.NotEmpty(t, p.Widths)
		for _, s := range p.Transmit {
			assert.True(t, p.CanReceive(s.Lower) && p.CanReceive(s.Upper), "%s receives where it transmits", p.ID)
		}
		for _, m := range []channel.Mode{channel.NoTone, channel.Encode, channel.Decode, channel.ToneSquelch, channel.Separate, "dcs", "burst"} {
			assert.Contains(t, p.Display.Modes, string(m), p.ID)
		}
	}
	assert.Len(t, entries, 5, "five ways of entry")
	assert.Len(t, Profiles(), 10)
	_, err := Load("nothing")
	assert.ErrorContains(t, err, "trail")
}

func TestStep(t *testing.T) {
	trail, ferry := load(t, "trail"), load(t, "ferry")
	for _, c := range []struct {
		p    *Profile
		f    string
		step freq.Hz
	}{
		// basis: arithmetic
		{trail, "146.940", 20_000},
		{trail, "155.3425", 2_500},
		{trail, "446.00625", 6_250},
		{ferry, "146.940", 20_000},
		{ferry, "155.3425", 0},
		{ferry, "145.5875", 12_500},
	} {
		step, ok := c.p.Step(freq.MustParse(c.f))
		assert.Equal(t, c.step != 0, ok, c.f)
		assert.Equal(t, c.step, step, c.f)
	}
	assert.Equal(t, freq.MustParse("155.3400"), ferry.Nearest(freq.MustParse("155.3410")))
}

func TestFit(t *testing.T) {
	at := func(f string, change func(*channel.Channel)) channel.Channel {
		c := channel.New(freq.MustParse(f))
		change(&c)
		return c
	}
	shift := func(o string) channel.TransmitSide { return channel.ShiftSide(freq.MustParseOffset(o)) }
	for _, c := range []struct {
		name  string
		radio string
		in    channel.Channel
		lost  []channel.Field
		held  func(channel.Channel) bool
	}{
		{"fits", "trail", at("146.94", func(c *channel.Channel) { c.Side = shift("-0.6") }), nil, nil},
		{"out of range", "trail", at("52.525", func(*channel.Channel) {}), []channel.Field{channel.FieldReceive}, nil},
		{
			"receives but does not transmit", "trail", at("162.475", func(*channel.Channel) {}),
			[]channel.Field{channel.FieldTransmit},
			func(h channel.Channel) bool { return h.Side.Kind == channel.Blocked },
		},
		{
			"shift finer than the resolution", "trail", at("146.94", func(c *channel.Channel) { c.Side = shift("-0.612") }),
			[]channel.Field{channel.FieldShift},
			func(h channel.Channel) bool { return h.Offset() == -600_000 },
		},
		{
			"tone outside the 38", "lantern", at("146.94", func(c *channel.Channel) { c.TransmitTone = tone.MustParse("254.1") }),
			[]channel.Field{channel.FieldTransmitTone},
			func(h channel.Channel) bool { return h.TransmitTone.IsOff() },
		},
		{
			"one tone for both directions", "ferry", at("146.94", func(c *channel.Channel) {
				c.TransmitTone, c.ReceiveTone = tone.MustParse("100"), tone.MustParse("77")
			}), []channel.Field{channel.FieldReceiveTone}, func(h channel.Channel) bool { return h.ReceiveTone.IsOff() },
		},
		{
			"inverted code has an equivalent", "ferry", at("146.94", func(c *channel.Channel) {
				c.TransmitTone, c.ReceiveTone = tone.MustParse("D023I"), tone.MustParse("D023I")
			}), nil,
			func(h channel.Channel) bool {
				return h.TransmitTone == tone.MustParse("D047N") && h.ReceiveTone == tone.MustParse("D047N")
			},
		},
		{
			"no code without needing it to open", "ferry", at("146.94", func(c *channel.Channel) { c.TransmitTone = tone.MustParse("D023N") }),
			[]channel.Field{channel.FieldReceiveTone},
			func(h channel.Channel) bool { return h.ReceiveTone == tone.MustParse("D023N") },
		},
		{"a code sent and an open receiver", "trail", at("146.94", func(c *channel.Channel) { c.TransmitTone = tone.MustParse("D023N") }), nil, nil},
		{
			"a code to listen for, with no mode for it", "ferry", at("146.94", func(c *channel.Channel) { c.ReceiveTone = tone.MustParse("D023N") }),
			[]channel.Field{channel.FieldReceiveTone},
			func(h channel.Channel) bool { return h.ReceiveTone.IsOff() },
		},
		{
			"no mode for a tone that only opens", "cairn", at("146.94", func(c *channel.Channel) { c.ReceiveTone = tone.MustParse("100") }),
			[]channel.Field{channel.FieldReceiveTone},
			func(h channel.Channel) bool { return h.ReceiveTone.IsOff() },
		},
		{
			"no middle power", "lantern", at("146.94", func(c *channel.Channel) { c.Power = channel.Mid }),
			[]channel.Field{channel.FieldPower},
			func(h channel.Channel) bool { return h.Power == channel.Low },
		},
		{
			"blocked, so no tone is sent", "trail", at("162.475", func(c *channel.Channel) {
				c.Side, c.TransmitTone = channel.TransmitSide{Kind: channel.Blocked}, tone.MustParse("100")
			}), nil, func(h channel.Channel) bool { return h.TransmitTone.IsOff() },
		},
		{
			"cannot block its transmitter", "beck", at("145.9", func(c *channel.Channel) { c.Side = channel.TransmitSide{Kind: channel.Blocked} }),
			[]channel.Field{channel.FieldTransmit},
			func(h channel.Channel) bool { return h.Side.Kind == channel.Simplex },
		},
		{"needs no lock where it cannot transmit", "beck", at("162.475", func(c *channel.Channel) { c.Side = channel.TransmitSide{Kind: channel.Blocked} }), nil, nil},
		{
			"one width", "tarn", at("446.00625", func(*channel.Channel) {}),
			[]channel.Field{channel.FieldWidth},
			func(h channel.Channel) bool { return h.Width == channel.Narrow },
		},
		{"a tone beside the table", "gale", at("146.94", func(c *channel.Channel) { c.TransmitTone = tone.MustParse("150.0") }), nil, nil},
		{
			"largest shift", "cairn", at("144.0", func(c *channel.Channel) { c.Side = channel.SplitSide(freq.MustParse("147.9875")) }),
			[]channel.Field{channel.FieldShift},
			func(h channel.Channel) bool { return h.Offset() == freq.MustParseOffset("+3.985") },
		},
		{"no burst", "lantern", at("146.94", func(c *channel.Channel) { c.TransmitTone = tone.Burst1750 }), []channel.Field{channel.FieldTransmitTone}, nil},
		{
			"typed column off the raster", "lantern", at("146.94", func(c *channel.Channel) { c.Side = channel.SplitSide(freq.MustParse("146.341")) }),
			[]channel.Field{channel.FieldTransmit},
			func(h channel.Channel) bool { tx, _ := h.Transmit(); return tx == freq.MustParse("146.340") },
		},
	} {
		held, losses := Fit(c.in, load(t, c.radio))
		var fields []channel.Field
		for _, l := range losses {
			fields = append(fields, l.Field)
			assert.NotEmpty(t, l.Why)
		}
		assert.Equal(t, c.lost, fields, c.name)
		if c.held != nil {
			assert.True(t, c.held(held), "%s: %+v", c.name, held)
		}
		again, none := Fit(held, load(t, c.radio))
		if len(losses) > 0 && losses[0].Held != "nothing" {
			assert.Equal(t, held, again, "%s: what a radio holds fits it", c.name)
			assert.Empty(t, none, c.name)
		}
	}
}

func TestAutoShift(t *testing.T) {
	ferry := load(t, "ferry")
	assert.Equal(t, freq.MustParseOffset("-0.6"), ferry.AutoShift(freq.MustParse("146.94")))
	assert.Zero(t, ferry.AutoShift(freq.MustParse("146.52")))
	assert.Zero(t, load(t, "trail").AutoShift(freq.MustParse("146.94")))
}

// TestProfilesThatWouldStopTheProgram are refused when they are read, and do no
// harm where one is stored all the same.
func TestProfilesThatWouldStopTheProgram(t *testing.T) {
	b, err := Write(Profiles()[0])
	require.NoError(t, err)
	for _, c := range []struct{ from, to, says string }{
		{"decimals: 3", "decimals: 7", "0 to 6 digits"},
		{"decimals: 3", "decimals: -1", "0 to 6 digits"},
		{"name:", "automatic_shift_region: atlantis\nname:", "is not a region"},
	} {
		text := strings.Replace(string(b), c.from, c.to, 1)
		require.NotEqual(t, string(b), text)
		_, err := Read([]byte(text))
		require.ErrorContains(t, err, c.says)
	}
	p := *Profiles()[0]
	p.AutoFrom = "atlantis"
	assert.Zero(t, p.AutoShift(146_940_000))
}
