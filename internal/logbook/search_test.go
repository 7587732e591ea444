package logbook_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/standing"
	"mnemos/core/trial"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/logbook"
	"mnemos/internal/plan"
)

// TestSearched: the radio sits on the input; two hits that agree are heard evidence at once,
// and what is found is offered for the field where it belongs, and may be called with.
func TestSearched(t *testing.T) {
	a := open(t)
	s := card(t, a, 7).Search // Marran Light, 146.94 −0.6, stored with its downlink tone
	assert.Empty(t, s.Refused)
	assert.Equal(t, freq.Hz(146_340_000), s.Input.Sit, "where others send")
	assert.Equal(t, freq.Hz(146_940_000), s.Output.Sit)
	assert.Equal(t, freq.Hz(146_940_000), s.Back)
	assert.Nil(t, s.Input.Offer)
	seek := func(side trial.Side, system trial.System, found string) (*logbook.Card, error) {
		return a.Log.Searched(t.Context(), demotest.Trail, 7, logbook.SearchForm{Side: side, System: system, Tone: found, Station: "QX7OAK"})
	}
	c, err := seek(trial.Input, trial.CTCSS, "88,5 Hz")
	require.NoError(t, err)
	assert.Nil(t, c.Search.Input.Offer, "one hit is none")
	v, err := a.Plans.Evidence(t.Context(), demotest.Trail, 7)
	require.NoError(t, err)
	assert.NotEqual(t, "heard-otherwise", v.Findings[0].Rule)
	c, err = seek(trial.Input, trial.CTCSS, "88.5")
	require.NoError(t, err)
	assert.Equal(t, "Send 88.5 Hz", c.Search.Input.Offer.Says)
	assert.Equal(t, channel.FieldTransmitTone, c.Search.Input.Offer.Field)
	assert.False(t, c.Search.Input.Offer.Same)
	assert.Nil(t, c.Search.Output.Offer, "the input says nothing of the output")
	v, err = a.Plans.Evidence(t.Context(), demotest.Trail, 7)
	require.NoError(t, err)
	assert.Equal(t, "heard-otherwise", v.Findings[0].Rule)
	assert.Equal(t, "Others send 88.5 Hz", v.Findings[0].Title)
	for _, r := range v.Rows {
		assert.Equal(t, r.Field == channel.FieldTransmitTone, r.Heard.Text != "", "a search speaks of the tone alone: %s", r.Field)
	}
	assert.Equal(t, standing.Planned, stands(t, a, 7), "nothing was proven")
	assert.Empty(t, c.Tries, "nothing was tried")

	for field, f := range map[string]logbook.SearchForm{
		"side": {Side: "roof", System: trial.CTCSS}, "system": {Side: trial.Input, System: "morse"},
		"CTCSS found a tone": {Side: trial.Input, System: trial.CTCSS, Tone: "D023N"}, "DCS found a code": {Side: trial.Input, System: trial.DCS, Tone: "88.5"},
		"such as 88.5": {Side: trial.Input, System: trial.CTCSS, Tone: "123.4"}, "one line": {Side: trial.Input, System: trial.CTCSS, Note: "a\nb"},
	} {
		_, err := a.Log.Searched(t.Context(), demotest.Trail, 7, f)
		require.Error(t, err, field)
		assert.Contains(t, err.Error(), field)
	}
	_, err = a.Plans.Undo(t.Context(), demotest.Trail, plan.Latest, false)
	require.NoError(t, err)
	assert.Nil(t, card(t, a, 7).Search.Input.Offer)

	// A search that found what is published nowhere may be called with.
	for range 3 {
		_, err = seek(trial.Input, trial.CTCSS, "")
		require.NoError(t, err)
	}
	for _, code := range []string{"047I", "D023N"} {
		c, err = seek(trial.Input, trial.DCS, code)
		require.NoError(t, err)
	}
	assert.Equal(t, "D023N", c.Search.Input.Offer.Tone.String())
	assert.Contains(t, c.Search.Input.Offer.Why, "D023N and D047I are one signal")
	set := c.Acts[0].Setting
	set.Where = "open"
	c, err = try(t, a, 7, logbook.Form{Setting: set, Answer: trial.Nothing})
	require.NoError(t, err)
	found := ""
	for _, x := range c.Acts {
		if x.Setting.Tone.String() == "D023N" {
			found = x.Why
		}
	}
	assert.Equal(t, "found by a search on its input", found)
}

// TestSearchRefused: a closed repeater is left alone until its owner was asked; a channel
// for listening has no input, and nobody needs a licence to listen.
func TestSearchRefused(t *testing.T) {
	a := open(t)
	s := card(t, a, 15).Search
	assert.Nil(t, s.Input)
	assert.NotNil(t, s.Output)
	closed := 28 // Mast House
	assert.Contains(t, card(t, a, closed).Search.Refused, "leave it alone")
	_, err := a.Log.Searched(t.Context(), demotest.Trail, closed, logbook.SearchForm{Side: trial.Input, System: trial.CTCSS})
	require.ErrorContains(t, err, "leave it alone")
	_, err = a.Log.Permit(t.Context(), demotest.Trail, closed, "QX1OWN, on the phone: tests are fine")
	require.NoError(t, err)
	assert.Empty(t, card(t, a, closed).Search.Refused)
}
