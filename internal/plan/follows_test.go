package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/demo/demotest"
	"mnemos/internal/plan"
)

// TestFollows: what the licence and the radio leave of what is published near. The
// demonstration has 26 FM repeaters on 2 m and 10 on 70 cm within 150 km, counted by
// hand in its listings; one of them is for members, one private.
func TestFollows(t *testing.T) {
	a := demotest.Open(t)
	f, err := a.Plans.Follows(t.Context(), 1, demotest.Trail)
	require.NoError(t, err)
	by := map[string]int{}
	for i, b := range f.Bands {
		by[b.Name] = i
		assert.Equal(t, b.Near, b.Talk+b.Ask+b.Out, b.Name)
		assert.True(t, b.Licensed)
	}
	two, seventy, six := f.Bands[by["2 m"]], f.Bands[by["70 cm"]], f.Bands[by["6 m"]]
	assert.Equal(t, 27, two.Near, "one of them is digital only")
	assert.Equal(t, 10, seventy.Near)
	assert.True(t, two.Receives && two.Transmits && seventy.Transmits)
	assert.False(t, six.Receives)
	assert.Zero(t, six.Talk)
	assert.Equal(t, six.Near, six.Out)
	assert.Equal(t, f.Near, f.Talk+f.Ask+f.Out)
	require.NotEmpty(t, f.Tones)
	assert.NotEmpty(t, f.Tones[0].Sent)

	// On 2 m alone the rest is out.
	settings, err := a.Plans.Settings(t.Context(), 1)
	require.NoError(t, err)
	form := plan.SettingsForm{
		Region: settings.Region, Person: settings.Person, Place: settings.Place, Height: "1.5", Radius: "150", TonePolicy: settings.TonePolicy, Bands: []string{"2 m"}, Revision: settings.Revision,
	}
	_, err = a.Plans.SetSettings(t.Context(), 1, form)
	require.NoError(t, err)
	less, err := a.Plans.Follows(t.Context(), 1, demotest.Trail)
	require.NoError(t, err)
	assert.Equal(t, two.Talk, less.Bands[by["2 m"]].Talk)
	assert.Zero(t, less.Bands[by["70 cm"]].Talk)
	assert.Equal(t, two.Talk, less.Talk)
}
