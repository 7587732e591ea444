package relay_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/relay"
	"mnemos/core/tone"
)

// TestLegs follows the four ways of a signal through set-ups of which one thing is otherwise.
// Expected: which of the ways passes, in the order of the drawing, and what each end would
// hear; as an operator would say it from the two channels and the listing alone.
func TestLegs(t *testing.T) {
	const yes, no, unknown = evidence.Would, evidence.WouldNot, evidence.Unknown
	for name, c := range map[string]struct {
		change func(*relay.Setup)
		passes [4]evidence.Passes
		dead   [4]bool
		ends   [2]string
	}{
		"as it should be": {func(*relay.Setup) {}, [4]evidence.Passes{yes, yes, yes, yes}, [4]bool{}, [2]string{"You would hear Orrin Moor", "Orrin Moor would hear you"}},
		"side B waits for a tone": {
			func(s *relay.Setup) { s.B.Channel.ReceiveTone = tone.MustParse("110.9") },
			[4]evidence.Passes{yes, yes, no, yes},
			[4]bool{3: true},
			[2]string{"You would not hear Orrin Moor", "Orrin Moor would hear you"},
		},
		"the vehicle sends another tone": {
			func(s *relay.Setup) { s.B.Channel.TransmitTone = tone.MustParse("100") },
			[4]evidence.Passes{yes, no, yes, yes},
			[4]bool{},
			[2]string{"You would hear Orrin Moor", "Orrin Moor would not hear you"},
		},
		"the handheld sends no tone": {
			func(s *relay.Setup) { s.Hand.Channel = new(chan1(t, "446.1 simplex")) },
			[4]evidence.Passes{no, yes, yes, yes},
			[4]bool{1: true},
			[2]string{"You would hear Orrin Moor", "Orrin Moor would not hear you"},
		},
		"the handheld waits for another": {
			func(s *relay.Setup) { s.Hand.Channel = new(chan1(t, "446.1 simplex 186.2/100")) },
			[4]evidence.Passes{yes, yes, yes, no},
			[4]bool{},
			[2]string{"You would not hear Orrin Moor", "Orrin Moor would hear you"},
		},
		"the handheld is elsewhere": {
			func(s *relay.Setup) { s.Hand.Channel = new(chan1(t, "446.2 simplex ts 186.2")) },
			[4]evidence.Passes{no, yes, yes, no},
			[4]bool{1: true},
			[2]string{"You would not hear Orrin Moor", "Orrin Moor would not hear you"},
		},
		"out alone": {
			func(s *relay.Setup) { s.Way = relay.Out },
			[4]evidence.Passes{yes, yes, yes, yes},
			[4]bool{2: true, 3: true},
			[2]string{"You would not hear Orrin Moor", "Orrin Moor would hear you"},
		},
		"back alone": {
			func(s *relay.Setup) { s.Way = relay.Back },
			[4]evidence.Passes{yes, yes, yes, yes},
			[4]bool{0: true, 1: true},
			[2]string{"You would hear Orrin Moor", "Orrin Moor would not hear you"},
		},
		"nobody says what opens it": {
			func(s *relay.Setup) { s.B.Meant = published("Orrin Moor", 145.29, 144.69, "", "") },
			[4]evidence.Passes{yes, unknown, yes, yes},
			[4]bool{},
			[2]string{"You would hear Orrin Moor", "Orrin Moor may hear you"},
		},
		"it listens elsewhere": {
			func(s *relay.Setup) { s.B.Meant = published("Orrin Moor", 145.29, 145.89, "110.9", "none") },
			[4]evidence.Passes{yes, no, yes, yes},
			[4]bool{},
			[2]string{"You would hear Orrin Moor", "Orrin Moor would not hear you"},
		},
		"a code is a code by its other name": {
			func(s *relay.Setup) {
				s.A.Channel.TransmitTone, s.A.Channel.ReceiveTone = tone.MustParse("D023N"), tone.MustParse("D023N")
				s.Hand.Channel = new(chan1(t, "446.1 simplex ts D047I"))
			},
			[4]evidence.Passes{yes, yes, yes, yes},
			[4]bool{},
			[2]string{"You would hear Orrin Moor", "Orrin Moor would hear you"},
		},
	} {
		s := link(t)
		c.change(&s)
		r := relay.Look(s)
		require.Len(t, r.Legs, 4)
		for i, l := range r.Legs {
			assert.Equal(t, c.passes[i], l.Passes, "%s, way %d: %s", name, i+1, l.Says)
			assert.Equal(t, c.dead[i], l.Dead, "%s, way %d", name, i+1)
			assert.NotEmpty(t, l.Says)
		}
		assert.Equal(t, c.ends, [2]string{r.Ends[0].Outcome, r.Ends[1].Outcome}, name)
	}
}

// TestSimplexToSimplex: two simplex channels through a vehicle, of which side A is the
// handheld's; and a set-up that is written the other way round is the same relay.
func TestSimplexToSimplex(t *testing.T) {
	s := link(t)
	s.B = relay.Side{Channel: chan1(t, "147.42 simplex ts 100 low")}
	r := relay.Look(s)
	assert.Equal(t, evidence.Agrees, r.Verdict, "%+v", r.Findings)
	assert.Equal(t, "446.100 to 147.420 through Ferry", r.Title)
	assert.Equal(t, "A", r.LinkSide)
	require.NotNil(t, r.Over)
	// 0.03 of the handheld, 0.39 of the vehicle, 0.04 and 0.25 of the handheld at the end.
	assert.InDelta(t, 0.03+0.39+0.29, r.Over.Wait, 1e-9)
	assert.Equal(t, "147.420", r.Over.Parts[2].Name)

	s = link(t)
	s.A, s.B = s.B, s.A
	s.IdentifyA, s.IdentifyB = relay.Nobody, relay.Operator
	turned := relay.Look(s)
	assert.Equal(t, "B", turned.LinkSide)
	assert.Equal(t, "B", turned.Over.Speaks)
	straight := relay.Look(link(t))
	assert.InDelta(t, straight.Over.Wait, turned.Over.Wait, 1e-9)
	assert.InDelta(t, straight.Over.Again, turned.Over.Again, 1e-9)
	assert.InDelta(t, straight.Load.A, turned.Load.B, 1e-9)
	assert.InDelta(t, straight.Load.B, turned.Load.A, 1e-9)
	assert.Equal(t, evidence.Agrees, turned.Verdict, "%+v", turned.Findings)
	assert.Equal(t, freq.Hz(446_100_000), turned.Links[0].Freq, "between the calling channel and the end of the part")
	assert.Equal(t, straight.Links[0].Freq, turned.Links[0].Freq)
}

// TestIdentify: what one says on the link identifies the far side; the other way carries the
// words of others; a unit that identifies by itself covers both.
func TestIdentify(t *testing.T) {
	s := link(t)
	s.IdentifyA = relay.Nobody
	who := func(s relay.Setup) map[string]string {
		out := map[string]string{}
		for _, i := range relay.Look(s).Identify {
			out[i.Side] = i.Who
			assert.Equal(t, 10, i.Minutes, "47 CFR 97.119")
		}
		return out
	}
	assert.Equal(t, map[string]string{"A": "", "B": "you"}, who(s))
	s.Way = relay.Out
	assert.Equal(t, map[string]string{"B": "you"}, who(s), "side A never sends")
	s = link(t)
	s.Vehicle = relay.Unit{Name: "Gale", Radio: profile(t, "gale")}
	assert.Equal(t, map[string]string{"A": "Gale", "B": "Gale"}, who(s))
	assert.Equal(t, map[string]string{"A": "", "B": ""}, who(func() relay.Setup {
		x := two(t)
		x.IdentifyA, x.IdentifyB = relay.Nobody, relay.Nobody
		return x
	}()), "nobody of yours speaks")
}

// TestBand: a band bears its name where it is one. Source: ITU Radio Regulations, article 5:
// 144–148 MHz is amateur in Regions 2 and 3, 144–146 MHz in Region 1.
func TestBand(t *testing.T) {
	named := func(region, line string) string {
		s := link(t)
		s.Plan = band.MustLoad(region)
		s.A.Channel = chan1(t, line)
		return s.Band(s.A)
	}
	assert.Equal(t, "2 m", named("us", "147.45 simplex"))
	assert.Equal(t, "VHF", named("r1", "147.45 simplex"), "no amateur band there")
	assert.Equal(t, "2 m", named("r1", "145.45 simplex"))
	assert.Equal(t, "70 cm", named("us", "446.1 simplex"))
	assert.Equal(t, "VHF", named("us", "151.82 simplex"))
	assert.Equal(t, "UHF", named("us", "462.5625 simplex"))
}

// TestCard: the card speaks of this radio: its crib, whether the mode survives, the wait.
func TestCard(t *testing.T) {
	says := func(s relay.Setup, id string) string {
		for _, x := range relay.Look(s).Card {
			if x.ID == id {
				return x.Says
			}
		}
		return ""
	}
	s := link(t)
	assert.Equal(t, "Ferry: set 4 0, relay.", says(s, "in-keys"))
	bare := *s.Vehicle.Radio
	bare.Crib = nil
	s.Vehicle.Radio = &bare
	assert.Contains(t, says(s, "in-keys"), "manual of Ferry", "whose crib has no line for it")
	assert.Contains(t, says(s, "left-cycle"), "must not relay")
	assert.Equal(t, "Key, wait 0.9 s, then speak.", says(s, "while-wait"), "rounded up: who waits for less is cut off")
	assert.Contains(t, says(s, "rehearse-far"), "it hears 144.690 and sends 145.290", "reversed")
	assert.Contains(t, says(s, "while-control"), "QX9ABC at the vehicle")
	s.Vehicle = relay.Unit{Name: "Gale", Radio: profile(t, "gale")}
	assert.Contains(t, says(s, "in-keys"), "menu 403, repeat", "its own keys")
	assert.Empty(t, says(s, "left-cycle"), "on this one it does not survive")
	s.Microphone = "dead"
	assert.Empty(t, says(s, "before-microphone"))
	s.Way = relay.Out
	assert.Empty(t, says(s, "rehearse-back"))
}
