package scan_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/freq"
	"mnemos/core/scan"
)

var named = []scan.Named{{1, "Calling"}, {2, "Walk control"}, {3, "Walk reserve"}, {5, "Long Ridge"}, {8, "9 of 10"}, {12, "5 s"}, {15, "Weather"}}

// TestAsk reads what people write. The meanings are written by hand.
func TestAsk(t *testing.T) {
	for line, want := range map[string]scan.Goal{
		"9 of 10 overs of 5 s on Walk control":                {Channel: 1, Length: 5, Share: 0.9},
		"walk control 9/10 5s":                                {Channel: 1, Length: 5, Share: 0.9},
		"90% of 5,5 s on #3":                                  {Channel: 2, Length: 5.5, Share: 0.9},
		"hear nine of ten five second overs on long ridge":    {Channel: 3, Length: 5, Share: 0.9},
		"I want to hear half of the overs of 1 min on slot 1": {Channel: 0, Length: 60, Share: 0.5},
		"all 3 seconds Weather":                               {Channel: 6, Length: 3, Share: 1},
		"ridge 8 out of 10 0.5s":                              {Channel: 3, Length: 0.5, Share: 0.8},
		"95 percent 800 ms reserve":                           {Channel: 2, Length: 0.8, Share: 0.95},
	} {
		got := scan.Ask(line, named)
		assert.Empty(t, got.Trouble, line)
		assert.InDelta(t, want.Length, got.Goal.Length, 1e-9, line)
		assert.InDelta(t, want.Share, got.Goal.Share, 1e-9, line)
		assert.Equal(t, want.Channel, got.Goal.Channel, line)
	}
	for line, trouble := range map[string]string{
		"9 of 10 overs of 5 s on Walk": "Write how many", // two begin so
		"11 of 10 on Calling":          "Write how many",
		"9 of 10 overs of 900 s":       "0.1 s to 600 s",
		"blue moon":                    "Write how many",
		"0% on Calling":                "such as 9 of 10",
		"120 % on Calling":             "Write how many",
	} {
		assert.Contains(t, scan.Ask(line, named).Trouble, trouble, line)
	}
	half := scan.Ask("9 of 10", []scan.Named{{1, "Calling"}})
	assert.True(t, half.Share)
	assert.False(t, half.Length || half.Channel, "what it does not say")
	assert.Empty(t, half.Trouble)
}

// TestAskAndWrite: what is written of a goal reads as that goal, whatever the channels
// are called; and no line makes the reader fall over.
func TestAskAndWrite(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		g := scan.Goal{Channel: rapid.IntRange(0, len(named)-1).Draw(t, "channel"), Length: float64(rapid.IntRange(1, 600).Draw(t, "length")), Share: float64(rapid.IntRange(1, 100).Draw(t, "share")) / 100}
		got := scan.Ask(g.Line(named), named)
		assert.Empty(t, got.Trouble, g.Line(named))
		assert.Equal(t, g.Channel, got.Goal.Channel, g.Line(named))
		assert.InDelta(t, g.Share, got.Goal.Share, 1e-9)
		assert.InDelta(t, g.Length, got.Goal.Length, 1e-9)
	})
	rapid.Check(t, func(t *rapid.T) {
		line := rapid.String().Draw(t, "line")
		end := 0
		for _, w := range scan.Ask(line, named).Words {
			assert.GreaterOrEqual(t, w.From, end, "words follow one another")
			assert.Greater(t, w.To, w.From)
			end = w.To
		}
		assert.LessOrEqual(t, end, len([]rune(line)))
	})
}

// TestDraw: the drawn time is consistent in itself, and near to what was reckoned.
func TestDraw(t *testing.T) {
	s := many(14)
	s.Channels[9].Always = true
	s.Channels[4].Out = true
	r := scan.Reckon(s)
	d := scan.Draw(r, 30, 1)
	require.NotEmpty(t, d.Visits)
	for i, v := range d.Visits[1:] {
		assert.InDelta(t, d.Visits[i].To, v.From, 1e-9, "the receiver is in one place at a time")
		assert.NotEqual(t, 4, v.Channel, "it is left out")
	}
	assert.LessOrEqual(t, d.Visits[0].From, 0.0)
	assert.GreaterOrEqual(t, d.Visits[len(d.Visits)-1].To, 30.0)
	var overs, heard, want float64
	spent := 0.0
	for i, c := range s.Channels {
		if c.Always || c.Out {
			continue
		}
		want += (c.Rate - r.Of[i].Missed) / 3600 * 30
		for _, o := range d.Overs[i] {
			if o.To > 0 && o.From < 30 {
				overs++
				if len(d.Heard(s, i, o)) > 0 {
					heard++
				}
			}
		}
	}
	for _, v := range d.Visits {
		if v.Channel == 9 {
			spent += min(v.To, 30) - max(v.From, 0)
		}
	}
	assert.InDelta(t, want, heard, 2)
	assert.InDelta(t, r.Of[9].Share*30, spent, 5.3, "one stop more or less")
	again := scan.Follow(s.With([]scan.Change{{Kind: scan.Leave, Channel: 9}}, scan.Room{}), d.Overs, 30)
	assert.Equal(t, d.Overs, again.Overs, "the same overs, before and after")
}

func mhz(x string) freq.Hz { return freq.MustParse(x + " MHz") }

// TestStepScan: 2 m in 12.5 kHz is 161 steps (4 MHz / 12.5 kHz × 2 + 1 = by hand).
func TestStepScan(t *testing.T) {
	targets := []scan.Target{{Frequency: mhz("146.52")}, {Frequency: mhz("146.94")}, {Frequency: mhz("145.3")}, {Frequency: mhz("147.0125"), Narrow: true}}
	w := scan.StepScan(mhz("144"), mhz("148"), 12_500, 4, targets)
	assert.Equal(t, 321, w.Steps)
	assert.InDelta(t, 80.25, w.Seconds, 1e-9)
	// 146.520 = 144 + 201.6 steps: 5 kHz off; 146.940: 235.2 steps, 2.5 off; 145.300:
	// 104 steps; 147.0125: 241 steps.
	says := map[freq.Hz]scan.Meets{}
	off := map[freq.Hz]freq.Hz{}
	for _, m := range w.Meetings {
		says[m.Frequency], off[m.Frequency] = m.Says, m.Off
	}
	assert.Equal(t, map[freq.Hz]scan.Meets{mhz("146.52"): scan.OffCentre, mhz("146.94"): scan.OffCentre, mhz("145.3"): scan.OnCentre, mhz("147.0125"): scan.OnCentre}, says)
	assert.EqualValues(t, 5_000, off[mhz("146.52")])
	assert.EqualValues(t, 2_500, off[mhz("146.94")])
	w = scan.StepScan(mhz("144"), mhz("148"), 50_000, 4, targets)
	assert.Equal(t, 3, w.Passed, "146.520 is 20 kHz from the steps, 146.940 10, 147.0125 12.5")
	step, all := scan.MeetsAll(mhz("144"), mhz("148"), []freq.Hz{2_500, 5_000, 10_000, 12_500}, targets)
	assert.True(t, all)
	assert.EqualValues(t, 2_500, step)
	step, all = scan.MeetsAll(mhz("144"), mhz("148"), []freq.Hz{5_000, 10_000, 15_000, 20_000}, targets[:3])
	assert.True(t, all)
	assert.EqualValues(t, 20_000, step, "the widest")
	assert.Zero(t, scan.StepScan(mhz("148"), mhz("144"), 5_000, 4, targets).Steps)
}

// TestReaches: by hand.
func TestReaches(t *testing.T) {
	steps := []freq.Hz{5_000, 6_250, 12_500, 25_000}
	for _, x := range []struct {
		f      string
		digits int
		want   scan.Keyed
	}{
		{"446.00625", 6, scan.Keyed{Type: mhz("446"), Step: 6_250, Up: 1}},
		{"446.01875", 6, scan.Keyed{Type: mhz("446"), Step: 6_250, Up: 3}}, // 446.0125 cannot be typed
		{"446.0125", 6, scan.Keyed{Type: mhz("446"), Step: 12_500, Up: 1}},
		{"146.94", 6, scan.Keyed{Type: mhz("146.94")}},
		{"446.0125", 7, scan.Keyed{Type: mhz("446.0125")}},
	} {
		got, ok := scan.Reaches(mhz(x.f), x.digits, steps)
		assert.True(t, ok, x.f)
		assert.Equal(t, x.want.Type, got.Type, x.f)
		assert.Equal(t, x.want.Up, got.Up, x.f)
		assert.Equal(t, mhz(x.f), got.Type+freq.Hz(got.Up)*got.Step, x.f)
	}
	_, ok := scan.Reaches(mhz("446.00625"), 6, []freq.Hz{5_000})
	assert.False(t, ok, "5 kHz never leads there")
	_, ok = scan.Reaches(mhz("446.00625"), 0, steps)
	assert.False(t, ok, "nothing is typed")
}

// TestDiary divides what was heard by the chance of hearing it: two evenings at a half
// and one with nothing, by hand.
func TestDiary(t *testing.T) {
	at := func(text string) time.Time {
		v, err := time.Parse(time.RFC3339, text)
		require.NoError(t, err)
		return v
	}
	var heard []time.Time
	for range 30 {
		heard = append(heard, at("2026-11-21T21:10:00Z"))
	}
	d := scan.Read([]scan.Listened{
		{From: at("2026-11-21T20:30:00Z"), To: at("2026-11-21T22:00:00Z"), Chance: 0.5}, // a Saturday
		{From: at("2026-11-14T21:00:00Z"), To: at("2026-11-14T22:00:00Z"), Chance: 0.25},
		{From: at("2026-11-18T19:00:00Z"), To: at("2026-11-18T19:12:00Z"), Chance: 0.1}, // 12 min at a tenth tell nothing
	}, heard, time.UTC)
	sat21 := d.Cells[scan.Hour{Day: time.Saturday, Hour: 21}]
	assert.Equal(t, scan.Cell{Heard: 30, Hours: 2, Counted: 0.75}, sat21)
	rate, ok := sat21.Rate()
	assert.True(t, ok)
	assert.InDelta(t, 40, rate, 1e-9, "30 heard in an hour at a half and one at a quarter")
	rate, ok = d.Cells[scan.Hour{Day: time.Saturday, Hour: 20}].Rate()
	assert.True(t, ok, "half an hour at a half")
	assert.Zero(t, rate)
	_, ok = d.Cells[scan.Hour{Day: time.Wednesday, Hour: 19}].Rate()
	assert.False(t, ok, "rarely looked at is not quiet")
	rate, _, ok = d.At(at("2026-11-23T08:00:00Z")) // a Monday on which nobody listened
	assert.True(t, ok)
	assert.InDelta(t, 30/(0.75+0.25+0.02), rate, 1e-9, "all hours together")
	best, _, _ := d.Busiest()
	assert.Equal(t, scan.Hour{Day: time.Saturday, Hour: 21}, best)
	where, err := time.LoadLocation("America/Halifax")
	if err == nil { // four hours behind in winter: the evening is an afternoon there
		e := scan.Read([]scan.Listened{{From: at("2026-11-21T20:30:00Z"), To: at("2026-11-21T21:00:00Z"), Chance: 1}}, nil, where)
		assert.InDelta(t, 0.5, e.Cells[scan.Hour{Day: time.Saturday, Hour: 16}].Hours, 1e-9)
	}
}

// FuzzAsk: no line makes the reader fall over, and its words lie in it.
func FuzzAsk(f *testing.F) {
	for _, line := range []string{"9 of 10 overs of 5 s on Walk control", "#2 90%", "slot", "\"", "nine/ten 5,5s", "of of of"} {
		f.Add(line)
	}
	f.Fuzz(func(t *testing.T, line string) {
		a := scan.Ask(line, named)
		for _, w := range a.Words {
			if w.From < 0 || w.To > len([]rune(line)) || w.From >= w.To {
				t.Fatalf("%q: %v", line, w)
			}
		}
		if a.Trouble == "" && a.Length && (a.Goal.Length < 0.1 || a.Goal.Length > 600) {
			t.Fatalf("%q: %v s", line, a.Goal.Length)
		}
	})
}
