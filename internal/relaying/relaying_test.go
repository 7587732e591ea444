package relaying_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/channel"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/relay"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/plan"
	"mnemos/internal/relaying"
)

func look(t *testing.T, a *demotest.Rig, lines ...string) *relaying.View {
	t.Helper()
	ask := relaying.Ask{}
	if len(lines) > 0 {
		ask.A, ask.B = &lines[0], &lines[1]
	}
	v, err := a.Relays.Look(t.Context(), demotest.Ferry, ask)
	require.NoError(t, err)
	return v
}

func rules(v *relaying.View) (out []string) {
	for _, f := range v.Report.Findings {
		out = append(out, f.Rule)
	}
	return out
}

func set(t *testing.T, a *demotest.Rig, f relaying.Form) *relaying.View {
	t.Helper()
	f.Revision = plan.Latest
	v, err := a.Relays.Set(t.Context(), demotest.Ferry, f)
	require.NoError(t, err)
	return v
}

// TestDemo: the relay of the demonstration is the one of the study: the repeater sends no
// tone, the link reaches into the calling channel, and nobody identifies side A.
func TestDemo(t *testing.T) {
	a := demotest.Open(t)
	v := look(t, a)
	require.NotNil(t, v.Report)
	assert.True(t, v.Kept)
	assert.Equal(t, "Orrin Moor through Ferry", v.Report.Title)
	assert.Equal(t, evidence.Conflict, v.Report.Verdict)
	for _, want := range []string{"relay-waits-for-tone", "relay-calling", "relay-identify", "relay-survives", "relay-control", "relay-timeout"} {
		assert.Contains(t, rules(v), want)
	}
	assert.Equal(t, []string{"You would not hear Orrin Moor", "Orrin Moor would hear you"}, []string{v.Report.Ends[0].Outcome, v.Report.Ends[1].Outcome})
	assert.Equal(t, "A", v.Report.LinkSide)
	assert.Equal(t, freq.Hz(446_100_000), v.Report.Links[0].Freq, "the middle between the calling channel and the end of the part")
	assert.Equal(t, 10, v.Timeout, "that of the profile")
	assert.InDelta(t, 27.9, *v.Report.Setup.B.Meant.Distance, 0.1)
	assert.Equal(t, int64(demotest.Trail), v.Row.HandID)
	require.NotNil(t, v.Report.Setup.Hand.Channel, "Trail holds the link as Van link")
	assert.Equal(t, "Van link", v.Report.Setup.Hand.Channel.Name)
}

// TestSides: a side is a line or a slot; what is neither says what to write.
func TestSides(t *testing.T) {
	a := demotest.Open(t)
	v := look(t, a, "14", "slot 18")
	assert.Equal(t, "slot 14 of Trail", v.A.From)
	assert.Equal(t, freq.Hz(446_012_500), v.A.Reading.Channel.Receive)
	assert.Equal(t, "Orrin Moor", v.B.Reading.Channel.Name)
	assert.False(t, v.Kept)
	for line, says := range map[string]string{"77": "slot 77 is empty", "blue moon": "", "+5": "the frequency that the side receives", "999999999 MHz": ""} {
		v := look(t, a, line, "145.29 - 110.9")
		assert.NotEmpty(t, v.A.Trouble, line)
		assert.Contains(t, v.A.Trouble, says, line)
		assert.True(t, v.Report == nil, line)
	}
	assert.True(t, look(t, a, "", "").Report == nil, "nothing is written yet")
	way := "sideways"
	x, err := a.Relays.Look(t.Context(), demotest.Ferry, relaying.Ask{Way: &way})
	require.NoError(t, err)
	assert.Equal(t, relay.Both, x.Report.Setup.Way)
	_, err = a.Relays.Look(t.Context(), 99, relaying.Ask{})
	assert.Error(t, err)
	assert.Equal(t, evidence.Stop, func() evidence.Verdict {
		v, err := a.Relays.Look(t.Context(), demotest.Trail, relaying.Ask{A: new("446.1 ts 186.2"), B: new("145.29 - 110.9")})
		require.NoError(t, err)
		return v.Report.Verdict
	}(), "a handheld with one receiver does not relay")
}

// TestKept: what is said is kept, undone, ticked and rehearsed; another set-up is not.
func TestKept(t *testing.T) {
	a := demotest.Open(t)
	one, b, operator, control := "446.1 simplex ts 186.2 low", "145.29 - 110.9 mid", "operator", "QX9ABC stays at the van"
	three, yes := 3, true
	v := set(t, a, relaying.Form{A: &one, B: &b, IdentifyA: &operator, Control: &control, Timeout: &three})
	assert.True(t, v.Kept)
	assert.NotContains(t, rules(v), "relay-waits-for-tone")
	assert.NotContains(t, rules(v), "relay-hand-differs", "Trail has nothing on 446.1 yet")
	assert.False(t, v.Taken)
	v = set(t, a, relaying.Form{Tick: &relaying.Tick{Step: "before-battery", Done: true}, Rehearsed: &yes})
	assert.Equal(t, "2026-11-25T09:42:00Z", v.Ticks["before-battery"])
	assert.Equal(t, "2026-11-25T09:42:00Z", v.Rehearse)
	way := "out"
	v = set(t, a, relaying.Form{Way: &way})
	assert.Empty(t, v.Rehearse, "that is another set-up")
	_, err := a.Plans.Undo(t.Context(), demotest.Ferry, plan.Latest, false)
	require.NoError(t, err)
	assert.NotEmpty(t, look(t, a).Rehearse)
	a.Again(t)
	assert.Equal(t, one, look(t, a).Row.LineA)
	nan := 0.0
	nan /= nan
	for field, f := range map[string]relaying.Form{
		"way": {Way: new("up")}, "microphone": {Microphone: new("loud")}, "timeout": {Timeout: new(-1)}, "mine": {Mine: new(9999)}, "over": {Over: &nan}, "usable": {Usable: new(2.0)},
		"consent": {Consent: new("ok")}, "control": {Control: new("a\nb")}, "a": {A: new(strings.Repeat("1", 300))}, "hand": {Hand: new(int64(demotest.Ferry))}, "tick": {Tick: &relaying.Tick{Step: strings.Repeat("x", 60)}},
	} {
		f.Revision = plan.Latest
		_, err := a.Relays.Set(t.Context(), demotest.Ferry, f)
		require.Error(t, err, field)
		assert.Contains(t, err.Error(), field)
	}
}

// TestTake: both sides go into the vehicle and the link into the handheld, set alike, as one
// step; what stops is not taken.
func TestTake(t *testing.T) {
	a := demotest.Open(t)
	one, b := "446.1 simplex ts 186.2 low", "145.29 - 110.9 mid"
	set(t, a, relaying.Form{A: &one, B: &b})
	_, err := a.Relays.Take(t.Context(), demotest.Ferry, plan.Latest)
	require.NoError(t, err)
	v := look(t, a)
	assert.True(t, v.Taken)
	assert.NotContains(t, rules(v), "relay-hand-differs")
	for load, want := range map[int64][]freq.Hz{demotest.Ferry: {446_100_000, 145_290_000}, demotest.Trail: {446_100_000}} {
		for _, f := range want {
			i := slices.IndexFunc(a.Ledger(t, load).Rows, func(r plan.Row) bool { return r.Channel.Receive == f })
			require.GreaterOrEqual(t, i, 0, "%s in load %d", f, load)
			if f == 446_100_000 {
				c := a.Ledger(t, load).Rows[i].Channel
				assert.Equal(t, []any{"186.2", "186.2", channel.Low, "Link"}, []any{c.TransmitTone.String(), c.ReceiveTone.String(), c.Power, c.Name})
			}
		}
	}
	rows := len(a.Ledger(t, demotest.Ferry).Rows)
	two := "446.1 simplex ts 179.9 low"
	set(t, a, relaying.Form{A: &two})
	assert.False(t, look(t, a).Taken)
	_, err = a.Relays.Take(t.Context(), demotest.Ferry, plan.Latest)
	require.NoError(t, err)
	assert.Len(t, a.Ledger(t, demotest.Ferry).Rows, rows, "it is set, and not there twice")
	assert.True(t, look(t, a).Taken)
	_, err = a.Plans.Undo(t.Context(), demotest.Ferry, plan.Latest, false)
	require.NoError(t, err)
	assert.False(t, look(t, a).Taken)
	loop := "443.275 +5 ts 131.8"
	set(t, a, relaying.Form{A: &loop})
	_, err = a.Relays.Take(t.Context(), demotest.Ferry, plan.Latest)
	require.ErrorContains(t, err, "Two repeaters")
}
