package relay_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/entry"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/radio"
	"mnemos/core/relay"
	"mnemos/core/tone"
)

var us = band.MustLoad("us")

func ptr[T any](v T) *T { return &v }

func chan1(t testing.TB, line string) channel.Channel {
	t.Helper()
	d := entry.Read(line, us)
	require.Nil(t, d.Problem(), line)
	return d.Channel
}

// published is a repeater as a listing has it.
func published(name string, output, input float64, up, down string) *listing.Match {
	m := &listing.Match{Record: listing.Record{Key: name, Locality: name, Callsign: "QX1AAA", Output: freq.Hz(output * 1e6), Input: freq.Hz(input * 1e6), Source: "a list", Status: listing.OnAir, Access: listing.Open}}
	if up != "" {
		m.UplinkTone = listing.Says(tone.MustParse(up))
	}
	if down != "" {
		m.DownlinkTone = listing.Says(tone.MustParse(down))
	}
	m.Distance, m.Reach = ptr(27.9), 70
	return m
}

func orrin() *listing.Match  { return published("Orrin Moor", 145.290, 144.690, "110.9", "none") }
func hollin() *listing.Match { return published("Hollin Fell", 443.275, 448.275, "131.8", "131.8") }
func pell() *listing.Match   { return published("Pell Light", 147.030, 147.630, "94.8", "94.8") }

func profile(t testing.TB, id string) *radio.Profile {
	t.Helper()
	p, err := radio.Load(id)
	require.NoError(t, err)
	return p
}

// link is a set-up that is right: a handheld through a vehicle into a repeater.
func link(t testing.TB) relay.Setup {
	t.Helper()
	s := relay.Defaults()
	s.Plan, s.Vehicle, s.Hand = us, relay.Unit{Name: "Ferry", Radio: profile(t, "ferry")}, relay.Unit{Name: "Trail", Radio: profile(t, "trail")}
	s.A = relay.Side{Channel: chan1(t, "446.1 simplex ts 186.2 low")}
	s.B = relay.Side{Channel: chan1(t, "145.29 - 110.9 mid"), Meant: orrin()}
	s.IdentifyA, s.Control = relay.Operator, "QX9ABC at the vehicle"
	s.Supply.AmpHours, s.Supply.Hours = 100, 8
	return s
}

func two(t testing.TB) relay.Setup {
	t.Helper()
	s := link(t)
	s.A = relay.Side{Channel: chan1(t, "443.275 +5 ts 131.8 low"), Meant: hollin()}
	s.B = relay.Side{Channel: chan1(t, "147.03 + ts 94.8 low"), Meant: pell()}
	s.IdentifyB = relay.Operator
	return s
}

func of(r *relay.Report, rule string) []relay.Finding {
	return slices.DeleteFunc(slices.Clone(r.Findings), func(f relay.Finding) bool { return f.Rule != rule })
}

// TestRules breaks a set-up that is right in one way after another: the rule speaks, and
// it does not for what is near and right. What is expected is what the rule is for; the
// sources stand with the rules.
func TestRules(t *testing.T) {
	type change = func(*relay.Setup)
	b := func(line string, m *listing.Match) change {
		return func(s *relay.Setup) { s.B = relay.Side{Channel: chan1(t, line), Meant: m} }
	}
	a := func(line string) change {
		return func(s *relay.Setup) { s.A = relay.Side{Channel: chan1(t, line)} }
	}
	unit := func(id string) change {
		return func(s *relay.Setup) { s.Vehicle = relay.Unit{Name: "Unit", Radio: profile(t, id)} }
	}
	hand := func(line string) change {
		return func(s *relay.Setup) { s.Hand.Channel = ptr(chan1(t, line)) }
	}
	silent := func(change func(*listing.Match)) change {
		return func(s *relay.Setup) { s.B.Meant = orrin(); change(s.B.Meant) }
	}
	spoken := map[string]bool{}
	for _, c := range []struct {
		rule     string
		severity check.Severity
		wrong    change
		says     string
		near     change
	}{
		{"relay-one-receiver", check.Stop, unit("beck"), "one receiver", unit("gale")},
		{"relay-same-band", check.Stop, a("146.55 simplex ts 186.2 low"), "Both sides are VHF", a("446.15 simplex ts 186.2 low")},
		{"relay-vehicle-cannot", check.Stop, b("224.64 - 110.9 low", nil), "does not transmit on 223.04", b("145.23 - 162.2 low", nil)},
		{"relay-hand-cannot", check.Stop, func(s *relay.Setup) { s.Hand = relay.Unit{Name: "Beck", Radio: profile(t, "beck")} }, "Beck does not receive 446.100 MHz", nil},
		{"relay-hand-differs", check.Fix, hand("446.1 simplex ts 141.3"), "sends 141.3 Hz, and side A waits for 186.2 Hz", hand("446.1 simplex 186.2")},
		{"relay-hand-differs", check.Fix, hand("446.1 +5 ts 186.2"), "not on 446.100", hand("446.1 simplex ts 186.2")},
		{"relay-microphone", check.Note, func(s *relay.Setup) { s.Microphone = "live" }, "stays live", nil},
		{"relay-side", check.Fix, func(s *relay.Setup) {
			s.B.Findings = []check.Finding{{Rule: "tone-differs", Severity: check.Fix, Title: "It listens for 110.9 Hz"}}
		}, "Side B: It listens for", func(s *relay.Setup) {
			s.B.Findings = []check.Finding{{Rule: "listing-stale", Severity: check.Check}}
		}},
		{"relay-waits-for-tone", check.Fix, b("145.29 - ts 110.9 mid", orrin()), "waits for a tone that never comes", b("145.29 - 110.9 mid", orrin())},
		{"relay-waits-for-tone", check.Check, func(s *relay.Setup) {
			s.B = relay.Side{Channel: chan1(t, "145.29 - ts 110.9 mid"), Meant: published("Orrin Moor", 145.290, 144.690, "110.9", "")}
		}, "Nobody says whether", func(s *relay.Setup) {
			s.B = relay.Side{Channel: chan1(t, "145.29 - ts 110.9 mid"), Meant: published("Orrin Moor", 145.290, 144.690, "110.9", "110.9")}
		}},
		{"relay-waits-for-tone", check.Fix, func(s *relay.Setup) {
			s.B = relay.Side{Channel: chan1(t, "145.29 - ts 110.9 mid"), Meant: published("Orrin Moor", 145.290, 144.690, "110.9", "88.5")}
		}, "Orrin Moor sends 88.5 Hz", nil},
		{"relay-no-tone", check.Fix, a("446.1 simplex 186.2 low"), "opens to anything", a("446.1 simplex ts 186.2 low")},
		{"relay-same-tone", check.Note, a("446.1 simplex ts 110.9 low"), "the tone of the other side", a("446.1 simplex ts 114.8 low")},
		{"relay-service", check.Stop, b("162.55 simplex low", nil), "in no amateur band", nil},
		{"relay-space", check.Stop, b("145.8 simplex 67.0 low", nil), "for stations in space", b("147.42 simplex low", nil)},
		{"relay-data", check.Stop, b("144.39 simplex low", nil), "for packets", b("145.01 simplex low", nil)},
		{"relay-barred", check.Stop, a("432.5 simplex ts 186.2 low"), "Repeaters may not send on 432.500", a("433.5 simplex ts 186.2 low")},
		{"relay-licence", check.Stop, func(s *relay.Setup) { s.Unlicensed = true }, "no licence yet", nil},
		{"relay-licence", check.Stop, func(s *relay.Setup) { s.Bands = []string{"2 m"} }, "does not permit 70 cm", func(s *relay.Setup) { s.Bands = []string{"2 m", "70 cm"} }},
		{"relay-closed", check.Stop, func(s *relay.Setup) { s.Closed = "B" }, "closed or private", nil},
		{"relay-closed", check.Fix, silent(func(m *listing.Match) { m.Status = listing.OffAir }), "off the air", silent(func(m *listing.Match) { m.Status = "" })},
		{"relay-far", check.Check, silent(func(m *listing.Match) { m.Distance = ptr(90.0) }), "past its horizon", silent(func(m *listing.Match) { m.Distance = ptr(69.0) })},
		{"relay-unlisted", check.Check, b("145.29 - 110.9 mid", nil), "Nobody publishes", nil},
		{"relay-calling", check.Fix, a("446.0125 simplex ts 186.2 low"), "reaches into the calling channel", a("446.025 simplex ts 186.2 low")},
		{"relay-calling", check.Fix, a("446.0 simplex ts 186.2 low"), "is the calling channel", nil},
		{"relay-segment", check.Fix, a("444.3 simplex ts 186.2 low"), "The band plan has outputs", a("446.15 simplex ts 186.2 low")},
		{"relay-ask", check.Check, a("433.525 simplex ts 186.2 low"), "co-ordinated", a("446.15 simplex ts 186.2 low")},
		{"relay-taken", check.Fix, func(s *relay.Setup) { s.Published = []freq.Hz{446_110_000} }, "446.110 is published", func(s *relay.Setup) { s.Published = []freq.Hz{446_120_000, 443_000_000} }},
		// 3 × 144.690 = 434.070, which a link on 434.075 hears; 3 × 146.5 = 439.5 by the handbooks.
		{"relay-product", check.Fix, a("434.075 simplex ts 186.2 low"), "3 × 144.690 falls into a receiver", a("434.15 simplex ts 186.2 low")},
		{"relay-one-way", check.Note, func(s *relay.Setup) { s.Way = relay.Out }, "from side A to side B", nil},
		{"relay-heat", check.Fix, func(s *relay.Setup) { s.B.Channel.Power = channel.High; s.Talk = relay.Talk{Mine: 30, Seconds: 20} }, "rated for 25 W", func(s *relay.Setup) { s.B.Channel.Power = channel.High }},
		{"relay-power", check.Check, a("446.1 simplex ts 186.2 high"), "50 W on the link", nil},
		{"relay-battery", check.Fix, func(s *relay.Setup) { s.Supply.Starting = true }, "starts the engine", nil},
		{"relay-battery", check.Fix, func(s *relay.Setup) { s.Supply.AmpHours = 10 }, "it is needed for 8 h", nil},
		{"relay-timeout", check.Fix, func(s *relay.Setup) { s.Timeout = 0 }, "is off", func(s *relay.Setup) { s.Timeout = 5 }},
		{"relay-timeout", check.Check, func(s *relay.Setup) { s.Timeout = 10 }, "is 10 minutes", nil},
		{"relay-identify", check.Fix, func(s *relay.Setup) { s.IdentifyA = relay.Nobody }, "Nobody identifies side A", unit("gale")},
		{"relay-control", check.Check, func(s *relay.Setup) { s.Control = "" }, "shut off", nil},
		{"relay-survives", check.Note, unit("ferry"), "survives", unit("gale")},
		{"relay-two-repeaters", check.Stop, func(s *relay.Setup) { *s = two(t) }, "make a loop", nil},
		{"relay-two-repeaters", check.Check, func(s *relay.Setup) { *s = two(t); s.Consent = "QX1OWN and QX2OWN, on the phone, 20 Nov" }, "make a loop", nil},
		{"relay-two-repeaters", check.Check, func(s *relay.Setup) { *s = two(t); s.Way = relay.Out }, "one way", nil},
		{"relay-two-repeaters", check.Stop, func(s *relay.Setup) { *s = two(t); s.A.Channel.ReceiveTone = tone.MustParse("100") }, "not relayed into each other", nil},
	} {
		s := link(t)
		c.wrong(&s)
		got := of(relay.Look(s), c.rule)
		if assert.NotEmpty(t, got, "%s: %s", c.rule, c.says) {
			assert.Contains(t, got[0].Title+" "+got[0].Message, c.says, c.rule)
			assert.Equal(t, c.severity, got[0].Severity, "%s: %s", c.rule, c.says)
			spoken[c.rule] = true
		}
		s = link(t)
		if c.near != nil {
			c.near(&s)
		}
		if c.near != nil || !slices.Contains([]string{"relay-microphone", "relay-survives"}, c.rule) {
			for _, f := range of(relay.Look(s), c.rule) {
				assert.Fail(t, "it speaks for what is right", "%s: %s", c.rule, f.Title)
			}
		}
	}
	spoken["relay-authority"] = true // it always speaks
	for _, r := range relay.Rules {
		assert.True(t, spoken[r.ID], "%s never spoke", r.ID)
		assert.NotEmpty(t, r.Doc, r.ID)
		assert.NotEmpty(t, r.Source, r.ID)
		assert.False(t, strings.HasSuffix(r.Title, "."), r.ID)
	}
}

// TestRight: a set-up that is right has nothing to mend, and its ends hear each other.
func TestRight(t *testing.T) {
	r := relay.Look(link(t))
	assert.Equal(t, evidence.Agrees, r.Verdict, "%+v", r.Findings)
	assert.Equal(t, []string{"You would hear Orrin Moor", "Orrin Moor would hear you"}, []string{r.Ends[0].Outcome, r.Ends[1].Outcome})
	assert.Equal(t, "Orrin Moor through Ferry", r.Title)
	for _, l := range r.Legs {
		assert.Equal(t, evidence.Would, l.Passes, l.Says)
		assert.False(t, l.Dead)
	}
	// The sum by hand: see TestOneOver of core/rf.
	assert.InDelta(t, 0.82, r.Over.Wait, 1e-9)
	assert.Equal(t, []string{"you", "Ferry", "Orrin Moor", "a listener"}, []string{r.Over.Parts[0].Name, r.Over.Parts[1].Name, r.Over.Parts[2].Name, r.Over.Parts[3].Name})
	assert.InDelta(t, 3.41, r.Over.Again, 0.01, "the tail of 3 s, 0.12 each of the vehicle, the repeater and its end, and 0.05 to recover")
	assert.Empty(t, r.Over.Breaks)
	ids := map[string]bool{}
	for _, x := range r.Card {
		assert.False(t, ids[x.ID], "%s is there twice", x.ID)
		ids[x.ID] = true
	}
	for _, p := range relay.Parts {
		assert.True(t, slices.ContainsFunc(r.Card, func(s relay.Step) bool { return s.Part == p.ID }), p.ID)
	}
}

// TestFixes: what is offered mends what it is offered for, and nothing gets worse.
func TestFixes(t *testing.T) {
	rank := map[evidence.Verdict]int{evidence.Agrees: 0, evidence.Unverified: 1, evidence.Conflict: 2, evidence.Stop: 3}
	offered := 0
	for _, s := range []relay.Setup{link(t), two(t)} {
		for _, change := range []func(*relay.Setup){
			func(s *relay.Setup) { s.B.Channel.ReceiveTone = tone.MustParse("110.9") },
			func(s *relay.Setup) { s.A.Channel.Receive = 446_012_500 },
			func(s *relay.Setup) { s.A.Channel.ReceiveTone = tone.Off },
			func(s *relay.Setup) { s.A.Channel.Power = channel.High },
			func(*relay.Setup) {},
		} {
			x := s
			change(&x)
			r := relay.Look(x)
			for _, f := range r.Findings {
				for _, fix := range f.Fixes {
					y := x
					if fix.A != nil {
						y.A.Channel = *fix.A
					}
					if fix.B != nil {
						y.B.Channel = *fix.B
					}
					if fix.Way != "" {
						y.Way = fix.Way
					}
					if fix.Set != nil {
						continue
					}
					offered++
					after := relay.Look(y)
					assert.LessOrEqual(t, rank[after.Verdict], rank[r.Verdict], fix.Label)
					assert.False(t, slices.ContainsFunc(after.Findings, func(g relay.Finding) bool {
						return g.Rule == f.Rule && g.Side == f.Side && g.Severity == f.Severity && g.Title == f.Title
					}), "%s: %s", f.Title, fix.Label)
				}
			}
		}
	}
	assert.Greater(t, offered, 6)
}
