package logbook_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/channel"
	"mnemos/core/evidence"
	"mnemos/core/standing"
	"mnemos/core/tone"
	"mnemos/core/trial"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/fleet"
	"mnemos/internal/logbook"
	"mnemos/internal/plan"
)

func open(t *testing.T) *demotest.Rig {
	t.Helper()
	a := demotest.Open(t)
	call := "qx9abc"
	_, err := a.Fleet.ChangePerson(t.Context(), 1, fleet.PersonForm{Callsign: &call, Revision: plan.Latest})
	require.NoError(t, err)
	return a
}

func stands(t *testing.T, a *demotest.Rig, slot int) standing.State {
	t.Helper()
	for _, r := range a.Ledger(t, demotest.Trail).Rows {
		if r.Slot == slot {
			return r.Standing.Now
		}
	}
	return ""
}

func card(t *testing.T, a *demotest.Rig, slot int) *logbook.Card {
	t.Helper()
	c, err := a.Log.Card(t.Context(), demotest.Trail, slot)
	require.NoError(t, err)
	return c
}

func try(t *testing.T, a *demotest.Rig, slot int, f logbook.Form) (*logbook.Card, error) {
	t.Helper()
	if f.Kind == "" {
		f.Kind = trial.Key
	}
	return a.Log.Record(t.Context(), demotest.Trail, slot, f)
}

// TestProven: what comes back proves the channel as it is stored; undo takes it back, and
// an edit of the channel makes it planned again.
func TestProven(t *testing.T) {
	a := open(t)
	c := card(t, a, 8)
	assert.Empty(t, c.Refused)
	assert.Equal(t, "QX9ABC", c.Callsign)
	assert.Equal(t, 10, c.Clock.Minutes, "47 CFR 97.119: every ten minutes")
	require.Len(t, c.Acts, 1)
	s := c.Acts[0].Setting
	s.Where = "vehicle"
	c, err := try(t, a, 8, logbook.Form{Setting: s, Answer: trial.Ident, Spot: "harbour road", At: "2026-11-25T09:40:00Z"})
	require.NoError(t, err)
	assert.Equal(t, "2026-11-25T09:40:00Z", c.Tries[0].At, "it waited two minutes")
	assert.True(t, c.Answered)
	assert.Equal(t, standing.Proven, stands(t, a, 8))
	assert.Equal(t, standing.Planned, stands(t, a, 7))
	assert.NotEmpty(t, c.Clock.First)
	_, err = a.Plans.Undo(t.Context(), demotest.Trail, plan.Latest, false)
	require.NoError(t, err)
	assert.Equal(t, standing.Planned, stands(t, a, 8))
	assert.Empty(t, card(t, a, 8).Tries)
	_, err = a.Plans.Undo(t.Context(), demotest.Trail, plan.Latest, true)
	require.NoError(t, err)
	assert.Equal(t, standing.Proven, stands(t, a, 8))
	nothing := "nothing"
	id := card(t, a, 8).Tries[0].ID
	_, err = a.Log.Correct(t.Context(), id, logbook.Edit{Answer: &nothing})
	require.NoError(t, err)
	assert.Equal(t, standing.Stored, stands(t, a, 8), "nothing came back after all")
	_, err = a.Plans.Undo(t.Context(), demotest.Trail, plan.Latest, false)
	require.NoError(t, err)
	require.NoError(t, a.Log.Drop(t.Context(), id))
	assert.Equal(t, standing.Stored, stands(t, a, 8), "what proved it is gone")
	_, err = a.Plans.Undo(t.Context(), demotest.Trail, plan.Latest, false)
	require.NoError(t, err)
	assert.Equal(t, standing.Proven, stands(t, a, 8))
	tones := "100"
	_, err = a.Plans.Update(t.Context(), demotest.Trail, 8, plan.Update{TransmitTone: &tones, Revision: plan.Latest})
	require.NoError(t, err)
	assert.Equal(t, standing.Planned, stands(t, a, 8), "it was proven with another tone")
}

// TestLed: a channel whose tone is not the published one is silent; what is proposed is the
// published one, and what worked is kept.
func TestLed(t *testing.T) {
	a := open(t)
	c := card(t, a, 7) // Marran Light with its downlink tone: a conflict, no stop
	s := c.Acts[0].Setting
	s.Where = "vehicle"
	c, err := try(t, a, 7, logbook.Form{Setting: s, Answer: trial.Nothing})
	require.NoError(t, err)
	assert.Equal(t, "tone", c.Causes[0].IDs[0], "the listings say another tone")
	i := slices.IndexFunc(c.Acts, func(x logbook.Act) bool { return x.Change == "tone" })
	require.GreaterOrEqual(t, i, 0)
	assert.Contains(t, c.Acts[i].Says, "88.5")
	assert.Contains(t, c.Acts[i].Why, "published by")
	for _, x := range c.Acts {
		assert.Contains(t, []tone.Tone{s.Tone, tone.MustParse("88.5")}, x.Setting.Tone, "published values only")
	}
	two := c.Acts[i].Setting
	two.Where = "open"
	_, err = try(t, a, 7, logbook.Form{Setting: two, Answer: trial.Nothing})
	require.ErrorContains(t, err, "change one thing a try")
	c, err = try(t, a, 7, logbook.Form{Setting: c.Acts[i].Setting, Answer: trial.Tail})
	require.NoError(t, err)
	assert.True(t, c.Answered)
	v, err := a.Plans.Evidence(t.Context(), demotest.Trail, 7)
	require.NoError(t, err)
	assert.Equal(t, "heard-otherwise", v.Findings[0].Rule, "the verdict goes by it at once")
	assert.Equal(t, "It answered to 88.5 Hz", v.Findings[0].Title)
	assert.Equal(t, "Send 88.5 Hz", v.Findings[0].Fixes[0].Label)
	assert.Equal(t, standing.Planned, stands(t, a, 7), "proven is what is stored, and that is another tone")
	_, err = a.Log.Keep(t.Context(), demotest.Trail, 7, plan.Latest)
	require.NoError(t, err)
	assert.Equal(t, standing.Proven, stands(t, a, 7))
	for _, r := range a.Ledger(t, demotest.Trail).Rows {
		if r.Slot == 7 {
			assert.Equal(t, "88.5", r.Channel.TransmitTone.String())
		}
	}
	v, err = a.Plans.Evidence(t.Context(), demotest.Trail, 7)
	require.NoError(t, err)
	assert.Equal(t, evidence.Agrees, v.Verdict)
	i = slices.IndexFunc(v.Rows, func(r evidence.Row) bool { return r.Field == channel.FieldTransmitTone })
	assert.Equal(t, "88.5", v.Rows[i].Heard.Text)
	// The negative test: without a tone it must stay silent; with one that is published
	// there it is no test.
	neg := c.Setting
	neg.Tone = tone.Off
	far := neg
	far.Offset = 0
	_, err = try(t, a, 7, logbook.Form{Setting: far, Answer: trial.Nothing, Negative: true})
	require.ErrorContains(t, err, "the tone alone")
	_, err = try(t, a, 7, logbook.Form{Setting: neg, Answer: trial.Nothing, Negative: true})
	require.NoError(t, err)
}

// TestRefused: no card for what must not be keyed, and none for a closed repeater before
// its owner was asked.
func TestRefused(t *testing.T) {
	a := open(t)
	for slot, why := range map[int]string{12: "+600 kHz", 15: "for listening"} {
		c := card(t, a, slot)
		assert.Contains(t, c.Refused, why)
		assert.Empty(t, c.Acts)
		_, err := try(t, a, slot, logbook.Form{Setting: c.Setting, Answer: trial.Nothing})
		assert.Error(t, err)
	}
	_, err := a.Log.Card(t.Context(), demotest.Trail, 99)
	assert.Error(t, err)
	c := card(t, a, 8)
	for field, f := range map[string]logbook.Form{
		"answer": {Setting: c.Setting, Answer: "boo"}, "kind": {Kind: "dance", Setting: c.Setting}, "where": {Setting: trial.Setting{Tone: c.Setting.Tone, Offset: c.Setting.Offset, Width: c.Setting.Width, Aerial: "short"}, Answer: trial.Tail},
	} {
		_, err := try(t, a, 8, f)
		require.Error(t, err, field)
		assert.Contains(t, err.Error(), field)
	}
	unlicensed := true
	_, err = a.Fleet.ChangePerson(t.Context(), 1, fleet.PersonForm{Unlicensed: &unlicensed, Revision: plan.Latest})
	require.NoError(t, err)
	assert.Contains(t, card(t, a, 8).Refused, "no licence yet")
}
