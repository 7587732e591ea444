package entry

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/tone"
)

// TestRead checks lines against the channel they mean, written out in full.
// Spellings: common practice, no source. Shifts: the band plan of the region.
func TestRead(t *testing.T) {
	for _, c := range []struct{ region, line, want string }{
		{"us", `147.24 + 100 "Beacon Hill"`, `147.240 MHz +600kHz tone 100.0 "Beacon Hill"`},
		{"us", `"Beacon Hill" 147.24 100 +`, `147.240 MHz +600kHz tone 100.0 "Beacon Hill"`},
		{"uk", "433.35 +1.6 d023n", "433.350 MHz +1.600MHz tone D023N"},
		{"us", "146.52", "146.520 MHz simplex"},
		{"us", "147.24 tx 147.5", "147.240 MHz tx 147.500 MHz"},
		{"us", "tx 147.5 147.24 #14", "147.240 MHz tx 147.500 MHz #14"},
		{"us", "146.52 slot 14", "146.520 MHz simplex #14"},
		{"us", "146.94 ts 103.5", "146.940 MHz -600kHz ts 103.5"},
		{"us", "146.94 100/77", "146.940 MHz -600kHz 100.0/77.0"},
		{"us", "146.94 -/77", "146.940 MHz -600kHz dec 77.0"},
		{"us", "146.94 dec 77", "146.940 MHz -600kHz dec 77.0"},
		{"us", "162.475 rx only", "162.475 MHz rx only"},
		{"us", "162.475", "162.475 MHz rx only"},
		{"us", "146.52 nfm low skip", "146.520 MHz simplex nfm low skip"},
		{"us", "146.52 narrow mid priority", "146.520 MHz simplex nfm mid priority"},
		{"us", "146520", "146.520 MHz simplex"},
		{"us", "14652", "146.520 MHz simplex"},
		{"us", "146940000", "146.940 MHz -600kHz"},
		{"us", "146940 kHz", "146.940 MHz -600kHz"},
		{"us", "52525", "52.525 MHz simplex"},
		{"us", "146,94", "146.940 MHz -600kHz"},
		{"us", "146.94 minus 600", "146.940 MHz -600kHz"},
		{"us", "146.94 - 600 kHz", "146.940 MHz -600kHz"},
		{"us", "146.94 −0,6", "146.940 MHz -600kHz"},
		{"us", "146.94 1.6 negative", "146.940 MHz -1.600MHz"},
		{"us", "146.94 000.600", "146.940 MHz -600kHz"},
		{"us", "442.1 5", "442.100 MHz +5.000MHz"},
		{"us", "146.94 77 hertz", "146.940 MHz -600kHz tone 77.0"},
		{"us", "146.7 146.2", "146.700 MHz -600kHz tone 146.2"},
		{"us", "146.94 dcs 023", "146.940 MHz -600kHz tone D023N"},
		{"us", "146.94 ts d023i", "146.940 MHz -600kHz ts D023I"},
		{"us", "146.94 1750", "146.940 MHz -600kHz tone 1750"},
		{"us", "146.94 burst", "146.940 MHz -600kHz tone 1750"},
		{"us", "146.94 no tone", "146.940 MHz -600kHz"},
		{"us", "146.94 141", "146.940 MHz -600kHz tone 141.3"},
		{"us", "146.94 141.0", "146.940 MHz -600kHz tone 141.0"},
		{"us", "146.94 150.0", "146.940 MHz -600kHz tone 150.0"},
		{"us", "146.94 simplex", "146.940 MHz simplex"},
		{"us", "146.52 tx 146.52", "146.520 MHz simplex"},
		{"us", "146.94 -600 88.5 Marran Light", `146.940 MHz -600kHz tone 88.5 "Marran Light"`},
		{"us", `146.52 "say ""hi"" now"`, `146.520 MHz simplex "say ""hi"" now"`},
		{"uk", "145.725", "145.725 MHz -600kHz"},
		{"uk", "430.9", "430.900 MHz +7.600MHz"},
		{"us", "147.24 147.84", "147.240 MHz tx 147.840 MHz"},
		{"us", "147.240+ PL 100 Beacon Hill", `147.240 MHz +600kHz tone 100.0 "Beacon Hill"`},
		{"us", "146.940-600 88.5", "146.940 MHz -600kHz tone 88.5"},
		{"us", "147.24+100", "147.240 MHz +600kHz tone 100.0"},
		{"us", "146.94 PL88.5", "146.940 MHz -600kHz tone 88.5"},
		{"us", "147.24 ts103.5", "147.240 MHz +600kHz ts 103.5"},
		{"us", "147.24 tone squelch 103.5", "147.240 MHz +600kHz ts 103.5"},
		{"us", "146.94 offset 600 T1", `146.940 MHz -600kHz "T1"`},
		{"us", "146.94 shift -1.6", "146.940 MHz -1.600MHz"},
		{"us", "146 940 88.5", "146.940 MHz -600kHz tone 88.5"},
		{"us", "146 940 000", "146.940 MHz -600kHz"},
		{"us", "in 147.84 +600 100", "147.240 MHz +600kHz tone 100.0"}, // any two of output, input and shift
		{"us", "input 147.84", "147.240 MHz +600kHz"},
		{"us", "in 146.34 - 88.5", "146.940 MHz -600kHz tone 88.5"},
		{"us", "147.24 in 147.84 +", "147.240 MHz +600kHz"},
		{"us", "147.24 +600 147.84", "147.240 MHz +600kHz"},
		{"uk", "in 434.95 +1.6", "433.350 MHz +1.600MHz"},
		{"us", "frs 15", "462.550 MHz simplex nfm"}, // source: 47 CFR 95.563
		{"us", "frs15 code 12", "462.550 MHz simplex ts 100.0 nfm"},
		{"us", "gmrs 20 + 141.3", "462.675 MHz +5.000MHz tone 141.3"},
		{"us", "462.675 + 141.3", "462.675 MHz +5.000MHz tone 141.3"},
		{"us", "murs 5 privacy code 38", "154.600 MHz simplex ts 250.3"},
		{"us", "wx 3", "162.475 MHz rx only"},
		{"uk", "pmr 8 code 12", "446.09375 MHz simplex ts 100.0 nfm"}, // source: ECC Decision (15)05
		{"uk", "PMR446 1", "446.00625 MHz simplex nfm"},
		{"us", "one four six point nine four minus 600 eight eight point five", "146.940 MHz -600kHz tone 88.5"},
		{"us", "one four six nine four", "146.940 MHz -600kHz"},
		{"us", "147.03 ninety four point eight", "147.030 MHz +600kHz tone 94.8"},
		{"us", "147.24 one hundred three point five", "147.240 MHz +600kHz tone 103.5"},
		{"us", "146.94 dash 600", "146.940 MHz -600kHz"},
		{"us", "dcs023 442.65", "442.650 MHz +5.000MHz tone D023N"},
	} {
		d := Read(c.line, band.MustLoad(c.region))
		assert.Equal(t, c.want, Format(d.Channel, d.Slot, d.Scan), c.line)
		assert.True(t, d.Complete(), "%s: %+v", c.line, d.Words)
	}
}

func TestProblems(t *testing.T) {
	us := band.MustLoad("us")
	for line, c := range map[string]struct{ word, says string }{
		"100":                      {"100", "begin with the receive frequency"},
		"146.94 -600 -600":         {"-600", "one sign and one size"},
		"146.94 999":               {"999", "not a tone and not a shift"},
		"146.94 88.5 100/77":       {"100/77", ""},
		"146.94 #x":                {"#", "#14"},
		"146.94 ts 300":            {"ts 300", "such as 103.5"},
		"146.94 ???":               {"???", "not understood"},
		`146.94 Marran 88.5 Light`: {"Light", "second name"},
		"162.475 +":                {"+", "type the size too"},
		"147.24 in 147.84 -":       {"-", "leave one of the three out"},
		"frs 23":                   {"frs 23", "channels 1 to 22"},
		"pmr 8":                    {"pmr 8", "not a service of United States"},
		"frs 1 code 39":            {"frs 1 code 39", "above them makers differ"},
		"frs 1 code 023":           {"frs 1 code 023", "D023N"},
		"146.94 ts":                {"ts", "the tone is missing"},
		"146.94 tone squelch":      {"tone squelch", "the tone is missing"},
		"70.45 tx 1e9":             {"", ""},
	} {
		d := Read(line, us)
		p := d.Problem()
		require.NotNil(t, p, line)
		if c.says == "" {
			continue // which of two words is at fault is not settled
		}
		assert.Equal(t, c.word, p.Text, line)
		assert.Contains(t, p.Problem, c.says, line)
		assert.False(t, d.Complete(), line)
	}
	assert.False(t, Read("", us).Complete())
	assert.False(t, Read("tx 147.5", us).Complete(), "no receive frequency")
}

func TestTooLong(t *testing.T) {
	us := band.MustLoad("us")
	assert.Contains(t, Read("146.52 "+strings.Repeat("x", 61), us).Problem().Problem, "up to 60 characters")
	assert.True(t, Read("146.52 "+strings.Repeat("x", 60), us).Complete())
	assert.Contains(t, Read("146.52 low"+strings.Repeat(" ", 400)+"skip", us).Problem().Problem, "was not read", "nothing is cut off in silence")
}

func TestAmbiguous(t *testing.T) {
	us := band.MustLoad("us")
	d := Read("29.64 - 100", us)
	require.NotNil(t, d.Other, "100 is the tone 100.0 and the shift of this band")
	assert.False(t, d.Complete())
	assert.NotEqual(t, d.Channel, d.Other.Channel)
	assert.Nil(t, Read("29.64 - 100 Hz", us).Other, "a unit decides")
	assert.Nil(t, Read("29.64 -100 kHz", us).Other)
	assert.Nil(t, Read("147.24 + 100", us).Other, "no repeater of 2 m shifts by 100 kHz")
}

func TestOrigins(t *testing.T) {
	us := band.MustLoad("us")
	d := Read("147.24 100", us)
	assert.Equal(t, BandPlan, d.From[channel.FieldShift])
	assert.Equal(t, Typed, d.From[channel.FieldTransmitTone])
	assert.Equal(t, Default, d.From[channel.FieldReceiveTone])
	assert.Equal(t, "Receives 147.240, transmits 147.840 MHz with 100.0 Hz; the receiver stays open. Shift: band plan, +600 kHz.", Sentence(Say(d)))
	assert.Equal(t, "Receives 162.475 MHz and never transmits; the receiver stays open. Transmitter blocked: band plan.", Sentence(Say(Read("162.475", us))))
	assert.Equal(t, "Receives 146.520 MHz and transmits there, simplex with 100.0 Hz; the receiver opens to 100.0 Hz.", Sentence(Say(Read("146.52 ts 100", us))))
	assert.Nil(t, Say(Read("", us)))
}

func TestPositionsCountCodePoints(t *testing.T) {
	d := Read(`  "Ünï Ω" 146.94`, band.MustLoad("us"))
	require.Len(t, d.Words, 2)
	assert.Equal(t, Word{Text: `"Ünï Ω"`, Start: 2, End: 9, As: AsName}, d.Words[0])
	assert.Equal(t, 10, d.Words[1].Start)
}

func TestRewrite(t *testing.T) {
	us := band.MustLoad("us")
	for _, c := range []struct {
		line   string
		change func(*channel.Channel)
		want   string
	}{
		{`147.24 + 100 "Beacon Hill"`, func(c *channel.Channel) { c.TransmitTone = tone.MustParse("103.5") }, `147.24 + 103.5 "Beacon Hill"`},
		{`147.24 Beacon`, func(c *channel.Channel) { c.TransmitTone = tone.MustParse("103.5") }, `147.24 103.5 Beacon`},
		{`147.39 +6 107.2`, func(c *channel.Channel) { c.Side = channel.ShiftSide(600_000) }, `147.39 +600 107.2`},
		{`146.94 + 600 88.5`, func(c *channel.Channel) { c.Side = channel.ShiftSide(-600_000) }, `146.94 -600 88.5`},
		{`146.34 tx 146.94 nfm`, func(c *channel.Channel) { c.Receive, c.Side = 146_940_000, channel.ShiftSide(-600_000) }, `146.940 -600 nfm`},
		{`146.94 ts 100`, func(c *channel.Channel) { c.ReceiveTone = tone.Off }, `146.94 100.0`},
		{`146.52 low`, func(c *channel.Channel) { c.Side = channel.TransmitSide{Kind: channel.Blocked} }, `146.52 rx only low`},
	} {
		d := Read(c.line, us)
		to := d.Channel
		c.change(&to)
		assert.Equal(t, c.want, Rewrite(c.line, d, to, us), c.line)
	}
	d := Read("146.52 #3 low", us)
	assert.Equal(t, "146.52 #7 low", RewriteSlot("146.52 #3 low", d, 7))
	assert.Equal(t, "146.52 #7", RewriteSlot("146.52", Read("146.52", us), 7))
}

// anyChannel draws a channel that can be stored.
func anyChannel(t *rapid.T) channel.Channel {
	c := channel.New(freq.Hz(rapid.Int64Range(25*freq.MHz, 1_400*freq.MHz).Draw(t, "receive")))
	switch rapid.IntRange(0, 3).Draw(t, "how") {
	case 1:
		o := freq.Offset(rapid.Int64Range(-20*freq.MHz, 20*freq.MHz).Draw(t, "offset"))
		c.Side = channel.ShiftSide(o)
	case 2:
		c.Side = channel.SplitSide(freq.Hz(rapid.Int64Range(25*freq.MHz, 1_400*freq.MHz).Draw(t, "split")))
		if c.Side.Frequency == c.Receive {
			c.Side = channel.TransmitSide{Kind: channel.Simplex}
		}
	case 3:
		c.Side = channel.TransmitSide{Kind: channel.Blocked}
	}
	pick := func(label string, burst bool) tone.Tone {
		switch rapid.IntRange(0, 3).Draw(t, label) {
		case 1:
			v, _ := tone.NewCTCSS(rapid.SampledFrom(tone.CTCSS50).Draw(t, label))
			return v
		case 2:
			v, _ := tone.NewDCS(rapid.SampledFrom(tone.DCS104).Draw(t, label), rapid.Bool().Draw(t, label))
			return v
		case 3:
			if burst {
				return tone.Burst1750
			}
		}
		return tone.Off
	}
	c.TransmitTone, c.ReceiveTone = pick("out", true), pick("in", false)
	c.Name = strings.TrimSpace(rapid.StringMatching(`[\pL\pN "/#+-]{0,20}`).Draw(t, "name"))
	c.Width = rapid.SampledFrom([]channel.Width{channel.Wide, channel.Narrow}).Draw(t, "width")
	c.Power = rapid.SampledFrom([]channel.Power{channel.High, channel.Mid, channel.Low}).Draw(t, "power")
	return c
}

func TestRoundTrip(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		c := anyChannel(r)
		if c.Validate() != nil {
			return
		}
		slot := rapid.IntRange(0, 999).Draw(r, "slot")
		scan := rapid.SampledFrom([]Scan{ScanYes, ScanSkip, ScanPriority}).Draw(r, "scan")
		plan := band.MustLoad(rapid.SampledFrom(band.Regions()).Draw(r, "region"))
		line := Format(c, &slot, scan)
		d := Read(line, plan)
		require.True(r, d.Complete(), "%s: %+v", line, d.Words)
		require.Equal(r, c, d.Channel, line)
		require.Equal(r, slot, *d.Slot)
		require.Equal(r, scan, d.Scan)
	})
}

func FuzzRead(f *testing.F) {
	for _, s := range []string{`147.24 + 100 "Beacon Hill"`, "tx tx tx", "- - -", "100/77/88", `"`, "#", "ts", "1 2 3 4 5 6 7 8", "＋600 146.94", "d023 d023n", "146.94 -1e9", "rx only only"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		for _, region := range []string{"us", "uk"} {
			d := Read(s, band.MustLoad(region))
			runes := []rune(s)
			last := 0
			for _, w := range d.Words {
				require.LessOrEqual(t, last, w.Start)
				require.LessOrEqual(t, w.End, len(runes))
				require.Equal(t, string(runes[w.Start:w.End]), w.Text)
				last = w.End
			}
			if !d.Complete() {
				continue
			}
			line := Format(d.Channel, d.Slot, d.Scan)
			again := Read(line, band.MustLoad(region))
			require.True(t, again.Complete(), line)
			require.Equal(t, d.Channel, again.Channel, line)
		}
	})
}

// TestGuesses are marked as such, with the reading that was taken.
func TestGuesses(t *testing.T) {
	us := band.MustLoad("us")
	for line, want := range map[string]string{
		"14652": "146.520?", "52525": "52.525?", "1294500": "1294.500?", "146": "146.000?", "tx 147500 147.24": "147.500?", "146.94 023": "D023N?", "147.24 147.84": "transmit?",
	} {
		var guesses []string
		for _, w := range Read(line, us).Words {
			if w.Guess != "" {
				guesses = append(guesses, w.Guess)
			}
		}
		assert.Equal(t, []string{want}, guesses, line)
	}
	for _, sure := range []string{"146.52", "146,52", "146520 kHz", "147.24 tx 147.84", "146.94 d023n"} {
		for _, w := range Read(sure, us).Words {
			assert.Empty(t, w.Guess, sure)
		}
	}
	assert.Empty(t, Candidates("1", us))
	assert.Empty(t, Candidates("99999999999", us))
	assert.Equal(t, []freq.Hz{146_520_000}, Candidates("146520000", us))
}
