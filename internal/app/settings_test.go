package app_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/app"
	"mnemos/internal/fault"
)

// TestSettingsNameEveryFault tries each field with what it cannot be, among
// it numbers that are none, and expects nothing to be stored.
func TestSettingsNameEveryFault(t *testing.T) {
	a := demoApp(t)
	before, err := a.Settings(t.Context())
	require.NoError(t, err)
	good := app.SettingsForm{Region: "us", Person: "QX1AA", Place: "GN21ia", Height: "1,5", Radius: "150", TonePolicy: before.TonePolicy}
	for _, c := range []struct {
		field string
		spoil func(*app.SettingsForm)
	}{
		{"region", func(f *app.SettingsForm) { f.Region = "atlantis" }},
		{"person", func(f *app.SettingsForm) { f.Person = " " }},
		{"place", func(f *app.SettingsForm) { f.Place = "999,999" }},
		{"place", func(f *app.SettingsForm) { f.Place = "NaN,0" }},
		{"height_m", func(f *app.SettingsForm) { f.Height = "NaN" }},
		{"height_m", func(f *app.SettingsForm) { f.Height = "-1" }},
		{"radius_km", func(f *app.SettingsForm) { f.Radius = "+Inf" }},
		{"radius_km", func(f *app.SettingsForm) { f.Radius = "0" }},
		{"tone_policy", func(f *app.SettingsForm) { f.TonePolicy = "loud" }},
	} {
		form := good
		c.spoil(&form)
		_, err := a.SetSettings(t.Context(), form)
		var invalid *fault.Invalid
		if assert.ErrorAs(t, err, &invalid, c.field) {
			assert.Equal(t, c.field, invalid.Fields[0].Field, "%+v", form)
		}
	}
	after, err := a.Settings(t.Context())
	require.NoError(t, err)
	assert.Equal(t, before, after)

	// What belongs to another region is dropped with it.
	good.Bands, good.Services = []string{"2 m", "1.25 m"}, []string{"gmrs"}
	s, err := a.SetSettings(t.Context(), good)
	require.NoError(t, err)
	assert.Equal(t, []string{"2 m", "1.25 m"}, s.Bands)
	assert.Equal(t, 1.5, s.Height)
	good.Region = "uk"
	s, err = a.SetSettings(t.Context(), good)
	require.NoError(t, err)
	assert.Equal(t, []string{"2 m"}, s.Bands)
	assert.Empty(t, s.Services)
}
