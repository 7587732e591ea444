package beacon_test

import (
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/aprs"
	"mnemos/core/ax25"
	"mnemos/core/band"
	"mnemos/core/beacon"
	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/entry"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/radio"
)

var us = band.MustLoad("us")

func around(t testing.TB) beacon.Around {
	t.Helper()
	p, err := radio.Load("skerry")
	require.NoError(t, err)
	c := func(line string) channel.Channel { return entry.Read(line, us).Channel }
	return beacon.Around{
		Plan: us, Radio: p, Unit: "Skerry", Place: &geo.Point{Lat: 41.02, Lon: -55.31}, Callsign: "QX2AML", Now: time.Date(2026, 11, 25, 9, 42, 0, 0, time.UTC),
		Slots: []beacon.Slot{{2, c("146.55 ts 141.3"), true}, {5, c("146.94 - 100"), true}, {14, c("446.00625"), true}, {19, c("144.39 simplex"), false}},
	}
}

// right is a station on which nothing is to be mended.
func right() beacon.Station {
	s := beacon.Usual("foot", "QX2AML")
	s.Back, s.Words = 2, "Walk team 2"
	s.Smart = true
	return s
}

func of(r *beacon.Report, rule string) []beacon.Finding {
	return slices.DeleteFunc(slices.Clone(r.Findings), func(f beacon.Finding) bool { return f.Rule != rule })
}

// TestFrame: the frame of the study, byte by byte; its parts are the whole of it in letters,
// bytes and time. Airtime by hand: 79 bytes and two flags are 648 bits, with one stuffed bit
// and 300 ms of key-up delay 840.8 ms.
func TestFrame(t *testing.T) {
	a, s := around(t), right()
	lat, lon := 41+4.52/60, -(55 + 12.58/60)
	s.Lat, s.Lon = &lat, &lon
	x := beacon.Look(s, a).Shown[0]
	require.Empty(t, x.Error)
	assert.Equal(t, "QX2AML-7>APZ001,WIDE1-1,WIDE2-1:!4104.52N/05512.58W[146.550MHz T141 Walk team 2", x.Frame.Text())
	assert.Equal(t, 1, x.Air.Stuffed)
	assert.InDelta(t, 300+float64(8*79+16+1)/1.2, x.Air.Total, 1e-9)
	assert.InDelta(t, 840.8, x.Air.Total, 0.05)
	n, at := 0, 300+8/1.2
	text := ""
	for _, p := range x.Parts {
		assert.InDelta(t, at, p.From, 1e-9, p.ID)
		n, at = n+len(p.Bytes), p.To
		if n > 30 { // behind the addresses
			text += p.Text
		}
	}
	assert.Equal(t, len(x.Raw)+2, n)
	assert.InDelta(t, x.Air.Total, at+8/1.2, 1e-9)
	assert.Equal(t, string(x.Frame.Info), text)
	back, err := ax25.Decode(x.Raw)
	require.NoError(t, err)
	p, err := aprs.Parse(back)
	require.NoError(t, err)
	assert.Equal(t, "146.550MHz T141 Walk team 2", p.Comment)
}

// TestBill: the lines add up to the airtime, and what an option would cost is what it costs.
func TestBill(t *testing.T) {
	a := around(t)
	for _, profile := range aprs.Profiles() {
		s := beacon.Usual(profile.ID, "QX2AML")
		s.Back, s.Words, s.Object = 2, "hello", "RACE"
		r := beacon.Look(s, a)
		require.Empty(t, r.Shown[0].Error, profile.ID)
		sum := 0.0
		for _, l := range r.Bill {
			if l.ID != "sent" {
				sum += l.Cost
			}
		}
		assert.InDelta(t, r.Shown[0].Air.Total, sum, 1e-6, profile.ID)
		assert.InDelta(t, r.Bill[len(r.Bill)-1].Cost, sum, 1e-6)
		for _, l := range r.Bill {
			assert.GreaterOrEqual(t, l.Cost, 0.0, l.ID)
			for _, o := range l.Options {
				if f, ok := o.Set["format"]; ok {
					x := s
					x.Format = f.(string)
					assert.InDelta(t, beacon.Look(x, a).Shown[0].Air.Total-r.Shown[0].Air.Total, o.Delta, 1e-6)
				}
				if f, ok := o.Set["path"]; ok {
					x := s
					x.Path = f.(string)
					assert.InDelta(t, beacon.Look(x, a).Shown[0].Air.Total-r.Shown[0].Air.Total, o.Delta, 1e-6)
				}
			}
		}
	}
}

// TestRules breaks a station that is right in one way after another: the rule speaks, and
// not for what is near and right.
func TestRules(t *testing.T) {
	assert.Equal(t, evidence.Agrees, beacon.Look(right(), around(t)).Verdict, "%+v", beacon.Look(right(), around(t)).Findings)
	type change = func(*beacon.Station, *beacon.Around)
	path := func(p string) change { return func(s *beacon.Station, _ *beacon.Around) { s.Path = p } }
	words := func(w string) change {
		return func(s *beacon.Station, _ *beacon.Around) { s.Back, s.Words = -1, w }
	}
	as := func(profile string, more change) change {
		return func(s *beacon.Station, a *beacon.Around) {
			*s = beacon.Usual(profile, "QX2AML")
			s.Object = "RACE"
			if more != nil {
				more(s, a)
			}
		}
	}
	spoken := map[string]bool{}
	for _, c := range []struct {
		rule     string
		severity check.Severity
		wrong    change
		says     string
		near     change
	}{
		{"beacon-emergency", check.Stop, words("EMERGENCY at the hut"), "call an emergency", words("emergent behaviour")},
		{"beacon-emergency", check.Stop, func(s *beacon.Station, _ *beacon.Around) { s.Symbol = "\\!" }, "call an emergency", func(s *beacon.Station, _ *beacon.Around) { s.Symbol = "/!" }},
		{"beacon-emergency", check.Stop, func(s *beacon.Station, _ *beacon.Around) { s.Format, s.Says = "mic-e", 7 }, "call an emergency", func(s *beacon.Station, _ *beacon.Around) { s.Format, s.Says = "mic-e", 6 }},
		{"beacon-callsign", check.Stop, func(s *beacon.Station, _ *beacon.Around) { s.From = "" }, "no callsign", nil},
		{"beacon-callsign", check.Stop, func(s *beacon.Station, _ *beacon.Around) { s.From = "blue moon" }, "not a callsign", nil},
		{"beacon-callsign", check.Fix, func(s *beacon.Station, _ *beacon.Around) { s.From = "QX9ABC-7" }, "you are QX2AML", func(s *beacon.Station, _ *beacon.Around) { s.From = "QX2AML-9" }},
		{"beacon-ssid", check.Check, func(s *beacon.Station, _ *beacon.Around) { s.From = "QX2AML-9" }, "-9 says", as("fixed", func(s *beacon.Station, _ *beacon.Around) { s.From = "QX2AML-3" })},
		{"beacon-frame", check.Stop, words("Grüße vom Weg"), "cannot be sent", nil},
		{"beacon-frame", check.Stop, as("event", func(s *beacon.Station, _ *beacon.Around) { s.Object = "MUCH TOO LONG" }), "nine letters", as("event", nil)},
		{"beacon-long", check.Fix, words(strings.Repeat("x", 43)), "Skerry holds 42", words(strings.Repeat("x", 42))},
		{"beacon-path-old", check.Fix, path("RELAY,WIDE2-1"), "of yesterday", path("WIDE1-1")},
		{"beacon-path-long", check.Check, path("WIDE1-1,WIDE2-2"), "3 repeats", path("WIDE2-2")},
		{"beacon-path-long", check.Fix, path("WIDE7-7"), "7 repeats", nil},
		{"beacon-path-fixed", check.Fix, as("fixed", path("WIDE1-1,WIDE2-1")), "small repeaters", as("fixed", path("WIDE2-1"))},
		{"beacon-path-air", check.Stop, as("air", path("WIDE1-1")), "From the air", as("air", path("WIDE2-1"))},
		{"beacon-path-space", check.Fix, as("space", path("WIDE2-1")), "of the ground", as("space", path("RS0ISS"))},
		{"beacon-path-space", check.Fix, path("ARISS"), "of space", nil},
		{"beacon-space-long", check.Fix, as("space", func(s *beacon.Station, _ *beacon.Around) { s.Speed = true }), "long for a pass", as("space", nil)},
		{"beacon-interval", check.Fix, func(s *beacon.Station, _ *beacon.Around) { s.Smart, s.Every = false, 20 }, "Every 20 s", func(s *beacon.Station, _ *beacon.Around) { s.Smart, s.Every, s.Stations = false, 60, 1 }},
		{"beacon-interval", check.Check, as("fixed", func(s *beacon.Station, _ *beacon.Around) { s.Every = 300 }), "Every 5 min", as("fixed", func(s *beacon.Station, _ *beacon.Around) { s.Every = 600 })},
		{"beacon-floods", check.Fix, func(s *beacon.Station, _ *beacon.Around) { s.Smart, s.Every = false, 60 }, "12 stations set like this flood", func(s *beacon.Station, _ *beacon.Around) { s.Smart, s.Every, s.Stations = false, 60, 11 }},
		{"beacon-symbol", check.Fix, func(s *beacon.Station, _ *beacon.Around) { s.Symbol = "/Q" }, "reserved", func(s *beacon.Station, _ *beacon.Around) { s.Symbol = "/b" }},
		{"beacon-symbol", check.Stop, func(s *beacon.Station, _ *beacon.Around) { s.Symbol = "man" }, "not a symbol", nil},
		{"beacon-call-back", check.Fix, words("146.550MHz T100 hello"), "otherwise than slot 2", words("146.550MHz T141 hello")},
		{"beacon-call-back", check.Fix, words("147.420MHz hello"), "is stored nowhere", nil},
		{"beacon-call-back", check.Check, words("call on 147.42"), "147.42 is stored nowhere", words("call on 146.55")},
		{"beacon-call-back", check.Fix, func(s *beacon.Station, _ *beacon.Around) { s.Back = 14 }, "cannot be told", func(s *beacon.Station, _ *beacon.Around) { s.Back = 5 }},
		{"beacon-call-back", check.Fix, func(s *beacon.Station, _ *beacon.Around) { s.Back = 77 }, "is empty", nil},
		{"beacon-slot", check.Check, func(_ *beacon.Station, a *beacon.Around) { a.Slots = a.Slots[:2] }, "has no channel on 144.390", nil},
		{"beacon-slot", check.Fix, func(_ *beacon.Station, a *beacon.Around) { a.Slots[3].Scanned = true }, "is scanned", nil},
		{"beacon-slot", check.Fix, func(_ *beacon.Station, a *beacon.Around) {
			a.Slots[3].Channel = entry.Read("144.39 simplex ts 100", us).Channel
		}, "waits for a tone", func(_ *beacon.Station, a *beacon.Around) {
			a.Slots[3].Channel = entry.Read("144.39 simplex 100", us).Channel
		}},
		{"beacon-modem", check.Check, func(_ *beacon.Station, a *beacon.Around) { a.Radio, a.Unit = radio.Profiles()[0], "Beck" }, "no modem", nil},
		{"beacon-status", check.Note, func(s *beacon.Station, _ *beacon.Around) { s.Status = strings.Repeat("on the way ", 3) }, "more", func(s *beacon.Station, _ *beacon.Around) { s.Status = "en route" }},
		{"beacon-home", check.Check, as("fixed", nil), "marks your house", as("fixed", func(s *beacon.Station, _ *beacon.Around) { s.Ambiguity = 1 })},
		{"beacon-clock", check.Check, func(s *beacon.Station, _ *beacon.Around) { s.Time = true }, "sends a time", nil},
		{"beacon-key-up", check.Fix, func(s *beacon.Station, _ *beacon.Around) { s.KeyUp = 900 }, "900 ms", func(s *beacon.Station, _ *beacon.Around) { s.KeyUp = 500 }},
		{"beacon-key-up", check.Check, func(s *beacon.Station, _ *beacon.Around) { s.KeyUp = 50 }, "50 ms", func(s *beacon.Station, _ *beacon.Around) { s.KeyUp = 100 }},
	} {
		s, a := right(), around(t)
		c.wrong(&s, &a)
		got := of(beacon.Look(s, a), c.rule)
		if assert.NotEmpty(t, got, "%s: %s", c.rule, c.says) {
			spoken[c.rule] = true
			assert.Contains(t, got[0].Title+" "+got[0].Message, c.says, c.rule)
			assert.Equal(t, c.severity, got[0].Severity, "%s: %s", c.rule, c.says)
		}
		s, a = right(), around(t)
		if c.near != nil {
			c.near(&s, &a)
		}
		for _, f := range of(beacon.Look(s, a), c.rule) {
			assert.Fail(t, "it speaks for what is right", "%s: %s", c.rule, f.Title)
		}
	}
	for _, r := range beacon.Rules {
		assert.True(t, spoken[r.ID], "%s never spoke", r.ID)
		assert.NotEmpty(t, r.Doc)
		assert.NotEmpty(t, r.Source)
	}
}

// TestOwn: frames leave with one's own callsign alone, and never out of the demonstration.
func TestOwn(t *testing.T) {
	a := around(t)
	assert.True(t, beacon.Look(right(), a).Own)
	a.Demo = true
	assert.Contains(t, beacon.Look(right(), a).WhyNot, "demonstration")
	a = around(t)
	a.Callsign = ""
	assert.Contains(t, beacon.Look(right(), a).WhyNot, "own callsign")
	a.Callsign = "QX9ABC"
	assert.Contains(t, beacon.Look(right(), a).WhyNot, "this one is QX2AML")
}

// TestSwitch: to space and back is what it was; what changed stands on the list until it was
// seen on the radio.
func TestSwitch(t *testing.T) {
	a, s := around(t), right()
	s.Status, s.Height = "on the ridge", true
	up := beacon.ToSpace(s, "2026-11-25T09:42:00Z")
	r := beacon.Look(up, a)
	assert.Equal(t, freq.Hz(145_825_000), r.Channel)
	assert.Equal(t, "ARISS", up.Path)
	assert.Empty(t, of(r, "beacon-space-long"))
	ids := func(list []beacon.Change) (out []string) {
		for _, c := range list {
			out = append(out, c.ID)
		}
		return out
	}
	want := []string{"frequency", "path", "interval", "status", "height"}
	assert.Equal(t, want, ids(r.Switch))
	assert.Equal(t, up, beacon.ToSpace(up, "later"), "it is there already")
	down := beacon.ToGround(up)
	assert.Equal(t, []any{s.Path, s.Words, s.Status, s.Height, s.Profile, s.Smart}, []any{down.Path, down.Words, down.Status, down.Height, down.Profile, down.Smart})
	assert.Equal(t, want, ids(beacon.Look(down, a).Switch), "until the radio was put back too")
	down.Restored = []string{"path"}
	for _, c := range beacon.Look(down, a).Switch {
		assert.Equal(t, c.ID == "path", c.Done)
	}
	assert.Equal(t, "foot", beacon.ToGround(beacon.Usual("space", "QX2AML")).Profile)
}

// TestAnything: any settings have an answer, and every figure of it is one.
func TestAnything(t *testing.T) {
	a := around(t)
	texts := []string{"", "x", "Grüße", strings.Repeat("y", 300), "146.520MHz", "a|b", "{", "\x00"}
	for i := range 2000 {
		pick := func(n, of int) int { return i / n % of }
		s := beacon.Usual(aprs.Profiles()[i%8].ID, "QX2AML")
		s.From = []string{"QX2AML-7", "", "x y", "QX2AML-99", "A"}[pick(8, 5)]
		s.Format = []string{"plain", "compressed", "mic-e", "smoke", ""}[pick(3, 5)]
		s.Words, s.Status, s.Text, s.To, s.Object = texts[pick(5, 8)], texts[pick(7, 8)], texts[pick(11, 8)], texts[pick(13, 8)], texts[pick(17, 8)]
		s.Path = []string{"", "WIDE1-1,WIDE2-1", "WIDE7-7", "a b c", ",,", "X-99", strings.Repeat("A,", 9)}[pick(19, 7)]
		s.Symbol = []string{"/[", "", "x", "\\!", "9#", "||"}[pick(23, 6)]
		s.KeyUp = []float64{0, 300, 1e6, -5}[pick(29, 4)]
		s.Every = []float64{0, 1, 60, 1e9, -1}[pick(31, 5)]
		s.Ambiguity, s.Back, s.Stations, s.Says = pick(37, 8)-2, pick(3, 30)-5, []int{0, 1, 12, 5000}[pick(41, 4)], pick(43, 9)
		s.Height, s.Speed, s.Time = i%2 == 0, i%3 == 0, i%5 == 0
		r := beacon.Look(s, a)
		for _, v := range []float64{r.Traffic.Busy(), r.Traffic.Collides(), r.Random, r.Shown[0].Air.Total} {
			assert.False(t, math.IsNaN(v) || math.IsInf(v, 0), "%+v", s)
		}
		if r.Shown[0].Error != "" && s.From != "" {
			assert.Equal(t, evidence.Stop, r.Verdict)
		}
	}
}

// TestFlight: the four things come first and in this radio's own words; what is forgotten
// stands behind them, and the status only for space.
func TestFlight(t *testing.T) {
	a, s := around(t), right()
	r := beacon.Look(s, a)
	var four []string
	for _, c := range r.Flight {
		if c.Main {
			four = append(four, c.Says)
		}
	}
	assert.Equal(t, []string{"modem on", "position valid", "beacon on", "frequency right"}, four)
	line := func(r *beacon.Report, id string) beacon.Check {
		for _, c := range r.Flight {
			if c.ID == id {
				return c
			}
		}
		return beacon.Check{}
	}
	assert.Contains(t, line(r, "frequency").How, "slot 19 on the upper side")
	for id, how := range map[string]string{"modem": "menu 6 1, packet on", "position": "menu 6 3, own place", "beacon": "menu 6 4, by itself"} {
		assert.Equal(t, how, line(r, id).How, "its own keys")
	}
	bare := *a.Radio
	bare.Crib = nil
	assert.Equal(t, "as its manual says", line(beacon.Look(s, beacon.Around{Plan: us, Radio: &bare}), "modem").How)
	assert.Equal(t, "144.390", line(r, "frequency").Sees)
	assert.Contains(t, line(r, "modem").Sees, "upper side")
	assert.Contains(t, line(r, "position").Sees, "fix")
	assert.Empty(t, line(r, "status").ID)
	up := beacon.Look(beacon.ToSpace(s, ""), a)
	assert.NotEmpty(t, line(up, "status").ID)
	assert.Equal(t, "145.825", line(up, "frequency").Sees)
	a.Slots = nil
	assert.Equal(t, "store it first", line(beacon.Look(s, a), "frequency").How)
	s.Source = "fixed"
	assert.Contains(t, line(beacon.Look(s, a), "position").Sees, "that you wrote")
	a.Radio = nil
	assert.NotContains(t, line(beacon.Look(s, a), "modem").Sees, "the the")
}

// TestSees: what a stranger reads is as exact as the format, and as often.
func TestSees(t *testing.T) {
	a := around(t)
	for says, change := range map[string]func(*beacon.Station){
		"to 18 m":         func(*beacon.Station) {},
		"to 0.3 m":        func(s *beacon.Station) { s.Format = "compressed" },
		"to 1.9 km":       func(s *beacon.Station) { s.Ambiguity = 2 },
		"while you move":  func(s *beacon.Station) { s.Smart = true },
		"every 10 min":    func(s *beacon.Station) { s.Smart, s.Every = false, 600 },
		"on the internet": func(*beacon.Station) {},
	} {
		s := right()
		change(&s)
		assert.Contains(t, beacon.Look(s, a).Sees, says)
	}
	assert.Empty(t, beacon.Look(beacon.Usual("foot", ""), a).Sees, "nothing is sent yet")
}

// TestCases: the single changes are what they say: each is the station with that one thing
// otherwise.
func TestCases(t *testing.T) {
	a, s := around(t), right()
	s.Smart, s.Every = false, 60
	r := beacon.Look(s, a)
	require.NotEmpty(t, r.Cases)
	assert.True(t, r.Cases[0].Now)
	assert.InDelta(t, r.Traffic.Busy(), r.Cases[0].Busy, 1e-12)
	for _, c := range r.Cases[1:] {
		x := s
		switch c.Says {
		case "key-up 200 ms":
			x.KeyUp = 200
		case "path WIDE1-1":
			x.Path = "WIDE1-1"
		case "compressed":
			x.Format = "compressed"
		case "speed and turn":
			u := beacon.Usual("foot", "")
			x.Smart, x.Steer, x.Every = true, u.Steer, u.Every
		case "every 3 min":
			x.Every = 180
		default:
			assert.Fail(t, c.Says)
		}
		y := beacon.Look(x, a)
		assert.InDelta(t, y.Traffic.Busy(), c.Busy, 1e-12, c.Says)
		assert.InDelta(t, y.Traffic.Collides(), c.Collides, 1e-12, c.Says)
		assert.Less(t, c.Busy, r.Traffic.Busy(), c.Says)
	}
}

// TestObject: an event is an object with a name; a callsign without a number stands for a
// fixed station; the regions have their own frequencies.
func TestObject(t *testing.T) {
	a := around(t)
	s := beacon.Usual("event", "QX2AML")
	s.Object = "RACE"
	x := beacon.Look(s, a).Shown[0]
	require.Empty(t, x.Error)
	assert.True(t, strings.HasPrefix(string(x.Frame.Info), ";RACE     *111111z4101.20N/05518.60WE"), string(x.Frame.Info))
	assert.Equal(t, "QX2AML", x.Frame.From.String())
	for region, mhz := range map[string]string{"us": "144.390", "uk": "144.800", "de": "144.800", "au": "145.175", "nz": "144.575"} {
		b := a
		b.Plan = band.MustLoad(region)
		assert.Equal(t, mhz, beacon.Look(right(), b).Channel.MHz(), region)
	}
	s = right()
	s.Status, s.To, s.Text = "on the ridge", "QX1ABC", "see you at noon"
	r := beacon.Look(s, a)
	require.Len(t, r.Shown, 3)
	assert.Equal(t, ">on the ridge", string(r.Shown[1].Frame.Info))
	assert.Equal(t, ":QX1ABC   :see you at noon{1", string(r.Shown[2].Frame.Info))
}
