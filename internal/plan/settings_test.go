package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/demo/demotest"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
)

// TestSettingsNameEveryFault tries each field with what it cannot be, among
// it numbers that are none, and expects nothing to be stored.
func TestSettingsNameEveryFault(t *testing.T) {
	a := demotest.Open(t)
	before, err := a.Plans.Settings(t.Context(), 0)
	require.NoError(t, err)
	good := plan.SettingsForm{Region: "us", Person: "QX1AA", Place: "GN21ia", Height: "1,5", Radius: "150", TonePolicy: before.TonePolicy, Revision: before.Revision}
	for _, c := range []struct {
		field string
		spoil func(*plan.SettingsForm)
	}{
		{"region", func(f *plan.SettingsForm) { f.Region = "atlantis" }},
		{"region", func(f *plan.SettingsForm) { f.Region = "US" }},
		{"person", func(f *plan.SettingsForm) { f.Person = "a\u202eb" }},
		{"person", func(f *plan.SettingsForm) { f.Person = " " }},
		{"place", func(f *plan.SettingsForm) { f.Place = "999,999" }},
		{"place", func(f *plan.SettingsForm) { f.Place = "NaN,0" }},
		{"height_m", func(f *plan.SettingsForm) { f.Height = "NaN" }},
		{"height_m", func(f *plan.SettingsForm) { f.Height = "-1" }},
		{"radius_km", func(f *plan.SettingsForm) { f.Radius = "+Inf" }},
		{"radius_km", func(f *plan.SettingsForm) { f.Radius = "0" }},
		{"tone_policy", func(f *plan.SettingsForm) { f.TonePolicy = "loud" }},
	} {
		form := good
		c.spoil(&form)
		_, err := a.Plans.SetSettings(t.Context(), 0, form)
		var invalid *fault.Invalid
		if assert.ErrorAs(t, err, &invalid, c.field) {
			assert.Equal(t, c.field, invalid.Fields[0].Field, "%+v", form)
		}
	}
	after, err := a.Plans.Settings(t.Context(), 0)
	require.NoError(t, err)
	assert.Equal(t, before, after)

	// What belongs to another region is dropped with it.
	good.Bands, good.Services = []string{"2 m", "1.25 m"}, []string{"gmrs"}
	s, err := a.Plans.SetSettings(t.Context(), 0, good)
	require.NoError(t, err)
	assert.Equal(t, []string{"2 m", "1.25 m"}, s.Bands)
	assert.Equal(t, 1.5, s.Height)
	good.Region = "uk"
	_, err = a.Plans.SetSettings(t.Context(), 0, good)
	var stale *fault.Stale
	require.ErrorAs(t, err, &stale, "another window that still shows what was there before")
	assert.Equal(t, s, stale.Now)
	good.Revision = s.Revision
	s, err = a.Plans.SetSettings(t.Context(), 0, good)
	require.NoError(t, err)
	assert.Equal(t, []string{"2 m"}, s.Bands)
	assert.Empty(t, s.Services)
}
