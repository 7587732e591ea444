package aprs_test

import (
	"math"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/aprs"
	"mnemos/core/ax25"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/tone"
)

func sym(s string) aprs.Symbol { return aprs.Symbol{Table: s[0], Code: s[1]} }

func at(lat, lon float64) geo.Point { return geo.Point{Lat: lat, Lon: lon} }

// The place of most examples of the specification: 49°03.50′ N, 72°01.75′ W.
var there = at(49+3.5/60, -(72 + 1.75/60))

// The place of the compressed ones: 49°30′ N, 72°45′ W.
var squeezed = at(49.5, -72.75)

func day(d, h, m int) *time.Time {
	t := time.Date(2000, 8, d, h, m, 0, 0, time.UTC)
	return &t
}

func clock(h, m, s int) *time.Time {
	t := time.Date(2000, 8, 1, h, m, s, 0, time.UTC)
	return &t
}

// examples are those of APRS Protocol Reference 1.0.1, by chapter, from memory; callsigns in
// them are replaced by such as begin with Q.
var examples = []struct {
	chapter, to, info string
	packet            aprs.Packet
}{
	{"6, latitude", "", "!4903.50N/07201.75W-", aprs.Packet{Kind: aprs.Position, Place: there, Symbol: sym("/-")}},
	{"6, ambiguity 1", "", "!4903.5 N/07201.7 W-", aprs.Packet{Kind: aprs.Position, Place: there, Ambiguity: 1, Symbol: sym("/-")}},
	{"6, ambiguity 2", "", "!4903.  N/07201.  W-", aprs.Packet{Kind: aprs.Position, Place: there, Ambiguity: 2, Symbol: sym("/-")}},
	{"6, ambiguity 3", "", "!490 .  N/0720 .  W-", aprs.Packet{Kind: aprs.Position, Place: there, Ambiguity: 3, Symbol: sym("/-")}},
	{"6, ambiguity 4", "", "!49  .  N/072  .  W-", aprs.Packet{Kind: aprs.Position, Place: there, Ambiguity: 4, Symbol: sym("/-")}},
	{"8, with a comment", "", "!4903.50N/07201.75W-Test 001234", aprs.Packet{Kind: aprs.Position, Place: there, Symbol: sym("/-"), Comment: "Test 001234"}},
	{"8, with an altitude", "", "!4903.50N/07201.75W-Test /A=001234", aprs.Packet{Kind: aprs.Position, Place: there, Symbol: sym("/-"), Comment: "Test ", Feet: new(1234)}},
	{"8, a repeater", "", "!4903.50N/07201.75Wn", aprs.Packet{Kind: aprs.Position, Place: there, Symbol: sym("/n")}},
	{"8, zulu", "", "/092345z4903.50N/07201.75W>Test1234", aprs.Packet{Kind: aprs.Position, Place: there, Time: day(9, 23, 45), Symbol: sym("/>"), Comment: "Test1234"}},
	{"8, local", "", "@092345/4903.50N/07201.75W>Test1234", aprs.Packet{Kind: aprs.Position, Talks: true, Place: there, Time: day(9, 23, 45), Zone: aprs.Local, Symbol: sym("/>"), Comment: "Test1234"}},
	{"8, with power", "", "=4903.50N/07201.75W#PHG5132", aprs.Packet{Kind: aprs.Position, Talks: true, Place: there, Symbol: sym("/#"), Extension: "PHG5132"}},
	{"8, course and speed", "", "@092345/4903.50N/07201.75W>088/036", aprs.Packet{Kind: aprs.Position, Talks: true, Place: there, Time: day(9, 23, 45), Zone: aprs.Local, Symbol: sym("/>"), Motion: &aprs.Motion{Course: 88, Knots: 36}}},
	{"8, clock and power", "", "@234517h4903.50N/07201.75W>PHG5132", aprs.Packet{Kind: aprs.Position, Talks: true, Place: there, Time: clock(23, 45, 17), Zone: aprs.Clock, Symbol: sym("/>"), Extension: "PHG5132"}},
	{"8, a range", "", "@092345z4903.50N/07201.75W>RNG0050", aprs.Packet{Kind: aprs.Position, Talks: true, Place: there, Time: day(9, 23, 45), Symbol: sym("/>"), Extension: "RNG0050"}},
	{"8, signal strength", "", "/234517h4903.50N/07201.75W>DFS2360", aprs.Packet{Kind: aprs.Position, Place: there, Time: clock(23, 45, 17), Zone: aprs.Clock, Symbol: sym("/>"), Extension: "DFS2360"}},
	{"8, the second table", "", "@092345z4903.50N\\07201.75W-", aprs.Packet{Kind: aprs.Position, Talks: true, Place: there, Time: day(9, 23, 45), Symbol: sym("\\-")}},
	{"9, no course and speed", "", "=/5L!!<*e7> sTComment", aprs.Packet{Kind: aprs.Position, Format: aprs.Compressed, Talks: true, Place: squeezed, Symbol: sym("/>"), Comment: "Comment"}},
	{"9, course and speed", "", "=/5L!!<*e7>7P[", aprs.Packet{Kind: aprs.Position, Format: aprs.Compressed, Talks: true, Place: squeezed, Symbol: sym("/>"), Motion: &aprs.Motion{Course: 88, Knots: 36.2}}},
	{"9, altitude", "", "=/5L!!<*e7OS]S", aprs.Packet{Kind: aprs.Position, Format: aprs.Compressed, Talks: true, Place: squeezed, Symbol: sym("/O"), Feet: new(10004)}},
	{"9, with a time", "", "@092345z/5L!!<*e7>7P[", aprs.Packet{Kind: aprs.Position, Format: aprs.Compressed, Talks: true, Place: squeezed, Time: day(9, 23, 45), Symbol: sym("/>"), Motion: &aprs.Motion{Course: 88, Knots: 36.2}}},
	{"9, an overlay", "", "!d5L!!<*e7# sT", aprs.Packet{Kind: aprs.Position, Format: aprs.Compressed, Place: squeezed, Symbol: sym("3#")}},
	{"10, 33°25.64′ N, 12° W", "S32U6T", "`(_fn\"Oj/", aprs.Packet{Kind: aprs.Position, Format: aprs.MicE, Place: at(33+25.64/60, -(12 + 7.74/60)), Symbol: sym("/j"), Motion: &aprs.Motion{Course: 251, Knots: 20}, Says: 3}},
	{"10, 112°07.74′ W", "S32UVT", "`(_fn\"Oj/", aprs.Packet{Kind: aprs.Position, Format: aprs.MicE, Place: at(33+25.64/60, -(112 + 7.74/60)), Symbol: sym("/j"), Motion: &aprs.Motion{Course: 251, Knots: 20}, Says: 3}},
	{"10, old", "S32UVT", "'(_fn\"Oj/", aprs.Packet{Kind: aprs.Position, Format: aprs.MicE, Old: true, Place: at(33+25.64/60, -(112 + 7.74/60)), Symbol: sym("/j"), Motion: &aprs.Motion{Course: 251, Knots: 20}, Says: 3}},
	{"10, 61 m", "S32UVT", "`(_fn\"Oj/\"4T}", aprs.Packet{Kind: aprs.Position, Format: aprs.MicE, Place: at(33+25.64/60, -(112 + 7.74/60)), Symbol: sym("/j"), Motion: &aprs.Motion{Course: 251, Knots: 20}, Says: 3, Feet: new(200)}},
	{"10, a text", "S32UVT", "`(_fn\"Oj/Hello world!", aprs.Packet{Kind: aprs.Position, Format: aprs.MicE, Place: at(33+25.64/60, -(112 + 7.74/60)), Symbol: sym("/j"), Motion: &aprs.Motion{Course: 251, Knots: 20}, Says: 3, Comment: "Hello world!"}},
	{"11, an object", "", ";LEADER   *092345z4903.50N/07201.75W>088/036", aprs.Packet{Kind: aprs.Object, Name: "LEADER", Place: there, Time: day(9, 23, 45), Symbol: sym("/>"), Motion: &aprs.Motion{Course: 88, Knots: 36}}},
	{"11, killed", "", ";LEADER   _092345z4903.50N/07201.75W>088/036", aprs.Packet{Kind: aprs.Object, Killed: true, Name: "LEADER", Place: there, Time: day(9, 23, 45), Symbol: sym("/>"), Motion: &aprs.Motion{Course: 88, Knots: 36}}},
	{"11, compressed", "", ";LEADER   *092345z/5L!!<*e7>7P[", aprs.Packet{Kind: aprs.Object, Format: aprs.Compressed, Name: "LEADER", Place: squeezed, Time: day(9, 23, 45), Symbol: sym("/>"), Motion: &aprs.Motion{Course: 88, Knots: 36.2}}},
	{"11, for always", "", ";LEADER   *111111z4903.50N/07201.75W>", aprs.Packet{Kind: aprs.Object, Name: "LEADER", Place: there, Symbol: sym("/>")}},
	{"11, an item", "", ")AID #2!4903.50N/07201.75WA", aprs.Packet{Kind: aprs.Item, Name: "AID #2", Place: there, Symbol: sym("/A")}},
	{"11, killed item", "", ")AID #2_4903.50N/07201.75WA", aprs.Packet{Kind: aprs.Item, Killed: true, Name: "AID #2", Place: there, Symbol: sym("/A")}},
	{"11, an item, blurred", "", ")G/QX4APR!53  .  N\\002  .  Wd", aprs.Packet{Kind: aprs.Item, Name: "G/QX4APR", Place: at(53.5, -2.5), Ambiguity: 4, Symbol: sym("\\d")}},
	{"14, a message", "", ":QX2Z     :Testing", aprs.Packet{Kind: aprs.Message, To: "QX2Z", Comment: "Testing"}},
	{"14, numbered", "", ":QX2Z     :Testing{003", aprs.Packet{Kind: aprs.Message, To: "QX2Z", Comment: "Testing", Number: "003"}},
	{"14, acknowledged", "", ":QX2ICI-14:ack003", aprs.Packet{Kind: aprs.Message, To: "QX2ICI-14", Comment: "ack003"}},
	{"14, rejected", "", ":QX2ICI-14:rej003", aprs.Packet{Kind: aprs.Message, To: "QX2ICI-14", Comment: "rej003"}},
	{"14, a bulletin", "", ":BLN3     :Snow expected RSN", aprs.Packet{Kind: aprs.Message, To: "BLN3", Comment: "Snow expected RSN"}},
	{"14, an announcement", "", ":BLNQ     :The digi will be QRT this weekend", aprs.Packet{Kind: aprs.Message, To: "BLNQ", Comment: "The digi will be QRT this weekend"}},
	{"14, for a group", "", ":BLN4WX   :Stand by your snowplows", aprs.Packet{Kind: aprs.Message, To: "BLN4WX", Comment: "Stand by your snowplows"}},
	{"16, a status", "", ">Net Control Center", aprs.Packet{Kind: aprs.Status, Comment: "Net Control Center"}},
	{"16, with a time", "", ">092345zNet Control Center", aprs.Packet{Kind: aprs.Status, Time: day(9, 23, 45), Comment: "Net Control Center"}},
	{"16, a locator", "", ">IO91SX/-", aprs.Packet{Kind: aprs.Status, Comment: "IO91SX/-"}},
	{"16, beam and power", "", ">IO91SX/- ^B7", aprs.Packet{Kind: aprs.Status, Comment: "IO91SX/- ^B7"}},
	{"addendum 1.2, frequency", "", "!4903.50N/07201.75W>146.520MHz T107 Walk", aprs.Packet{Kind: aprs.Position, Place: there, Symbol: sym("/>"), Comment: "146.520MHz T107 Walk"}},
	{"addendum 1.2, shift", "", "!4903.50N/07201.75Wr146.940MHz T100 -060", aprs.Packet{Kind: aprs.Position, Place: there, Symbol: sym("/r"), Comment: "146.940MHz T100 -060"}},
}

// TestExamples writes each example and reads it again: every byte of it, and every field to
// the resolution of its format.
func TestExamples(t *testing.T) {
	require.GreaterOrEqual(t, len(examples), 40)
	for _, x := range examples {
		info, to, fields, err := x.packet.Info()
		require.NoError(t, err, x.chapter)
		assert.Equal(t, x.info, info, x.chapter)
		if x.to != "" {
			assert.Equal(t, x.to, to, x.chapter)
		} else {
			assert.Equal(t, aprs.Experimental, to)
		}
		whole := ""
		for _, f := range fields {
			whole += f.Text
			assert.Equal(t, len(f.Text), f.Bytes)
		}
		assert.Equal(t, info, whole, "the fields are the whole")
		back, err := aprs.ParseInfo(to, x.info)
		require.NoError(t, err, x.chapter)
		same(t, x.packet, back, x.chapter)
	}
}

// same compares what was written with what was read.
func same(t require.TestingT, want aprs.Packet, got aprs.Parsed, what string) {
	p := got.Packet
	assert.Equal(t, want.Kind, p.Kind, what)
	assert.Equal(t, []any{want.Talks, want.Name, want.Killed, want.To, want.Number, want.Extension, want.Old, want.Says, want.Comment}, []any{p.Talks, p.Name, p.Killed, p.To, p.Number, p.Extension, p.Old, p.Says, p.Comment}, what)
	assert.Equal(t, want.Time != nil, got.At != "" && got.At != "111111z", what)
	if want.Kind == aprs.Message || want.Kind == aprs.Status {
		return
	}
	format := want.Format
	if format == "" {
		format = aprs.Plain
	}
	assert.Equal(t, format, p.Format, what)
	assert.Equal(t, want.Symbol.String(), p.Symbol.String(), what)
	// Minutes of uncertainty by how many figures are left out; rounding beside it.
	off := []float64{0.00501, 0.0551, 0.5051, 5.051, 30.51}[want.Ambiguity] / 60
	if format == aprs.Compressed {
		off = 1.0 / 190463
	}
	assert.InDelta(t, want.Place.Lat, p.Place.Lat, off, what)
	assert.InDelta(t, want.Place.Lon, p.Place.Lon, off, what)
	if want.Motion != nil {
		require.NotNil(t, p.Motion, what)
		course, speed := 0.5, 0.5
		if format == aprs.Compressed {
			course, speed = 3.5, 0.04*(want.Motion.Knots+1)+0.01
		}
		assert.InDelta(t, want.Motion.Course%360, p.Motion.Course%360, course, what)
		assert.InDelta(t, want.Motion.Knots, p.Motion.Knots, speed, what)
	}
	if want.Feet != nil {
		require.NotNil(t, p.Feet, what)
		switch {
		case format == aprs.Compressed && want.Motion == nil && *want.Feet > 0:
			assert.InEpsilon(t, math.Max(1, float64(*want.Feet)), math.Max(1, float64(*p.Feet)), 0.0015+1.6/math.Max(1, float64(*want.Feet)), what)
		case format == aprs.MicE:
			assert.InDelta(t, *want.Feet, *p.Feet, 2.1, what)
		default:
			assert.Equal(t, *want.Feet, *p.Feet, what)
		}
	}
}

// TestBase91: chapter 9 writes 12345678 as "1Cmi"; a compressed altitude of 10004 ft is
// 1.002 to the 4610.
func TestBase91(t *testing.T) {
	back, err := aprs.ParseInfo("", "=/5L!!<*e7OS]S")
	require.NoError(t, err)
	assert.Equal(t, 10004, *back.Feet)
	// The digits of "1Cmi" stand for 12345678/380926 degrees from the pole.
	back, err = aprs.ParseInfo("", "=/1Cmi<*e7> sT")
	require.NoError(t, err)
	assert.InDelta(t, 90-12345678.0/380926, back.Place.Lat, 1e-9)
	// A range is 2 × 1.08 to the 30: 20.13 miles.
	back, err = aprs.ParseInfo("", "=/5L!!<*e7>{?!")
	require.NoError(t, err)
	assert.Equal(t, "RNG0020", back.Extension)
}

// TestMicE goes through the edges of the four ways in which degrees of longitude are
// written, in four hemispheres, with every kind of message but the emergency.
func TestMicE(t *testing.T) {
	for _, lon := range []int{0, 1, 9, 10, 11, 99, 100, 101, 109, 110, 111, 179} {
		for _, hemisphere := range [][2]float64{{1, 1}, {1, -1}, {-1, 1}, {-1, -1}} {
			for _, minutes := range []float64{0, 0.01, 9.99, 10, 59.99} {
				p := aprs.Packet{
					Kind: aprs.Position, Format: aprs.MicE, Symbol: sym("/>"), Says: (lon + int(minutes)) % 7,
					Place:  at(hemisphere[0]*(35+minutes/60), hemisphere[1]*(float64(lon)+minutes/60)),
					Motion: &aprs.Motion{Course: lon * 2, Knots: float64(lon * 4)},
				}
				info, to, _, err := p.Info()
				require.NoError(t, err)
				back, err := aprs.ParseInfo(to, info)
				require.NoError(t, err, "%v %q", p.Place, info)
				same(t, p, back, info)
			}
		}
	}
	for says := range 7 {
		p := aprs.Packet{Kind: aprs.Position, Format: aprs.MicE, Place: there, Symbol: sym("/>"), Says: says}
		_, to, _, err := p.Info()
		require.NoError(t, err)
		assert.True(t, strings.ContainsAny(to[:3], "PQRSTUVWXYZ"), "three plain figures would be an emergency")
	}
	p := aprs.Packet{Kind: aprs.Position, Format: aprs.MicE, Place: there, Symbol: sym("/>"), Says: 7}
	_, _, _, err := p.Info()
	require.ErrorContains(t, err, "emergency")
}

func anyPacket(t *rapid.T) aprs.Packet {
	text := rapid.StringMatching(`[A-Za-z0-9 ,.?:-]{0,30}`)
	kinds := []aprs.Kind{aprs.Position, aprs.Object, aprs.Item, aprs.Status, aprs.Message}
	p := aprs.Packet{Kind: rapid.SampledFrom(kinds).Draw(t, "kind"), Comment: text.Draw(t, "text")}
	if p.Kind == aprs.Message {
		p.To, p.Number = rapid.StringMatching(`[A-Z0-9-]{1,9}`).Draw(t, "to"), rapid.StringMatching(`[A-Z0-9]{0,5}`).Draw(t, "number")
		return p
	}
	if rapid.Bool().Draw(t, "timed") && p.Kind != aprs.Item {
		moment := time.Date(2026, 1, rapid.IntRange(1, 28).Draw(t, "day"), rapid.IntRange(0, 23).Draw(t, "hour"), rapid.IntRange(0, 59).Draw(t, "minute"), 0, 0, time.UTC)
		if moment.Day() != 11 || moment.Hour() != 11 || moment.Minute() != 11 { // that is for always
			p.Time = &moment
		}
	}
	if p.Kind == aprs.Status {
		p.Comment = "s" + p.Comment
		return p
	}
	p.Place = at(rapid.Float64Range(-89.99, 89.99).Draw(t, "lat"), rapid.Float64Range(-179.99, 179.99).Draw(t, "lon"))
	p.Symbol = rapid.SampledFrom([]aprs.Symbol{sym("/["), sym("\\n"), sym("7#"), sym("Wk")}).Draw(t, "symbol")
	p.Format = rapid.SampledFrom([]aprs.Format{aprs.Plain, aprs.Compressed, aprs.MicE}).Draw(t, "format")
	if p.Kind != aprs.Position {
		p.Name = "a" + rapid.StringMatching(`[A-Za-z0-9 #-]{2,6}x`).Draw(t, "name")
		if p.Format == aprs.MicE {
			p.Format = aprs.Plain
		}
		p.Killed = rapid.Bool().Draw(t, "killed")
	}
	if p.Kind == aprs.Position && p.Format != aprs.MicE {
		p.Talks = rapid.Bool().Draw(t, "talks")
	}
	if p.Format == aprs.MicE {
		p.Time, p.Says = nil, rapid.IntRange(0, 6).Draw(t, "says")
		p.Comment = "c" + p.Comment // what looks like an altitude is one
	}
	if p.Format != aprs.Compressed {
		p.Ambiguity = rapid.IntRange(0, 4).Draw(t, "ambiguity")
	}
	if rapid.Bool().Draw(t, "moves") {
		p.Motion = &aprs.Motion{Course: rapid.IntRange(0, 359).Draw(t, "course"), Knots: float64(rapid.IntRange(0, 500).Draw(t, "knots"))}
	} else if p.Comment != "" {
		p.Comment = "w" + p.Comment // what looks like course and speed is that
	}
	if rapid.Bool().Draw(t, "high") {
		feet := rapid.IntRange(1, 90_000).Draw(t, "feet")
		p.Feet = &feet
	}
	return p
}

// TestThereAndBack: whatever is written is read as it was, to the resolution of its format.
func TestThereAndBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := anyPacket(t)
		info, to, _, err := p.Info()
		if err != nil {
			t.Fatalf("%+v: %v", p, err)
		}
		back, err := aprs.ParseInfo(to, info)
		if err != nil {
			t.Fatalf("%q to %q: %v", info, to, err)
		}
		same(t, p, back, info)
	})
}

// TestRefused: what cannot be written says why.
func TestRefused(t *testing.T) {
	good := aprs.Packet{Kind: aprs.Position, Place: there, Symbol: sym("/[")}
	for says, change := range map[string]func(*aprs.Packet){
		"plain letters":  func(p *aprs.Packet) { p.Comment = "Grüße" },
		"| and ~":        func(p *aprs.Packet) { p.Comment = "a|b" },
		"not a symbol":   func(p *aprs.Packet) { p.Symbol = sym("x[") },
		"no position":    func(p *aprs.Packet) { p.Place = at(91, 0) },
		"four figures":   func(p *aprs.Packet) { p.Ambiguity = 5 },
		"nine letters":   func(p *aprs.Packet) { p.Kind, p.Name = aprs.Object, "ABCDEFGHIJ" },
		"three to nine":  func(p *aprs.Packet) { p.Kind, p.Name = aprs.Item, "A!" },
		"says up to 67":  func(p *aprs.Packet) { p.Kind, p.To, p.Comment = aprs.Message, "QX2Z", strings.Repeat("x", 68) },
		"says up to 62":  func(p *aprs.Packet) { p.Kind, p.Comment = aprs.Status, strings.Repeat("x", 63) },
		"not a kind":     func(p *aprs.Packet) { p.Kind = "smoke" },
		"or compressed":  func(p *aprs.Packet) { p.Kind, p.Name, p.Format = aprs.Object, "A", aprs.MicE },
		"nor { in a mes": func(p *aprs.Packet) { p.Kind, p.To, p.Comment = aprs.Message, "QX2Z", "a{b" },
	} {
		p := good
		change(&p)
		_, _, _, err := p.Info()
		require.ErrorContains(t, err, says)
	}
	for _, bad := range []string{
		"", "x", "!", "!4903.50N", "!4960.00N/07201.75W-", "!9903.50N/07201.75W-", "!4903.50X/07201.75W-", "!4903.50N 07201.75W-", "@992345z4903.50N/07201.75W>", "@09234z", "=/5L!!<*e7", "=/\x7f\x7f\x7f\x7f<*e7> sT",
		";SHORT*", ":X:", ":         :nobody", ")A!", ")TOOLONGNAME!4903.50N/07201.75W-", ":QX2Z     :x{123456",
	} {
		_, err := aprs.ParseInfo("APZ001", bad)
		assert.Error(t, err, "%q", bad)
	}
	for _, to := range []string{"", "S32UV", "S32UV!", "S32UVTX", "SL2UVT", "S99999"} {
		_, err := aprs.ParseInfo(to, "`(_fn\"Oj/")
		assert.Error(t, err, to)
	}
}

// TestBack: a channel as others are told of it. A tone of 107.2 Hz becomes T107; a channel
// that lies between two kilohertz cannot be told.
func TestBack(t *testing.T) {
	c := channel.New(146_520_000)
	c.TransmitTone = tone.MustParse("107.2")
	text, ok := aprs.BackText(c)
	assert.True(t, ok)
	assert.Equal(t, "146.520MHz T107", text)
	c = channel.New(146_940_000)
	c.Side, c.TransmitTone = channel.TransmitSide{Kind: channel.Shift, Offset: -600_000}, tone.MustParse("100")
	text, _ = aprs.BackText(c)
	assert.Equal(t, "146.940MHz T100 -060", text)
	b, ok := aprs.ReadBack(text + " hello")
	require.True(t, ok)
	assert.Equal(t, aprs.Back{Freq: 146_940_000, Tone: "T100", Offset: -600_000, Shifts: true}, b)
	assert.True(t, b.Matches(c))
	other := c
	other.TransmitTone = tone.MustParse("100.0")
	assert.True(t, b.Matches(other))
	other.TransmitTone = tone.MustParse("103.5")
	assert.False(t, b.Matches(other))
	other = c
	other.Side.Offset = 600_000
	assert.False(t, b.Matches(other))
	for _, f := range []freq.Hz{446_006_250, 0, 52_525_000} {
		_, ok := aprs.BackText(channel.New(f))
		assert.False(t, ok, f)
	}
	_, rest := aprs.SplitFrequency("146.550MHz T141 Walk team 2")
	assert.Equal(t, "Walk team 2", rest)
	_, ok = aprs.ReadBack("14.55MHz")
	assert.False(t, ok)
}

// FuzzParse: no panic, and what was read can be written and is read as the same again.
func FuzzParse(f *testing.F) {
	for _, x := range examples {
		f.Add(x.to, x.info)
	}
	f.Fuzz(func(t *testing.T, to, info string) {
		p, err := aprs.ParseInfo(to, info)
		if err != nil {
			return
		}
		if !p.Place.Valid() {
			t.Fatalf("%q is nowhere: %v", info, p.Place)
		}
		again, dest, _, err := p.Packet.Info()
		if err != nil {
			return // longer, or with letters that are not written here
		}
		back, err := aprs.ParseInfo(dest, again)
		if err != nil {
			t.Fatalf("%q became %q: %v", info, again, err)
		}
		if back.Kind != p.Kind || math.Abs(back.Place.Lat-p.Place.Lat) > 1 {
			t.Fatalf("%q became %q", info, again)
		}
	})
}

func frames(n int) []ax25.Frame {
	var out []ax25.Frame
	for i := range n {
		x := examples[i%len(examples)]
		to := x.to
		if to == "" {
			to = aprs.Experimental
		}
		out = append(out, ax25.Frame{To: ax25.MustAddress(to), From: ax25.MustAddress("QX2AML-7"), Info: []byte(x.info)})
	}
	return out
}

// BenchmarkDecode reads a hundred thousand frames, from bytes.
func BenchmarkDecode(b *testing.B) {
	var all [][]byte
	for _, f := range frames(100_000) {
		bytes, err := f.Bytes()
		require.NoError(b, err)
		all = append(all, bytes)
	}
	for b.Loop() {
		for _, x := range all {
			f, err := ax25.Decode(x)
			if err != nil {
				b.Fatal(err)
			}
			if _, err := aprs.Parse(f); err != nil {
				b.Fatal(err)
			}
		}
	}
}
