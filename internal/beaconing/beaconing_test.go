package beaconing_test

import (
	"fmt"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/aprs"
	"mnemos/core/ax25"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/internal/beaconing"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/fleet"
	"mnemos/internal/logbook"
	"mnemos/internal/plan"
)

func set(t *testing.T, a *demotest.Rig, load int64, f beaconing.Form) *beaconing.View {
	t.Helper()
	f.Revision = plan.Latest
	v, err := a.Beacons.Set(t.Context(), load, f)
	require.NoError(t, err)
	return v
}

// TestDemo: the station of the demonstration says what the study says: twelve like it flood
// the channel, and nothing of it leaves.
func TestDemo(t *testing.T) {
	a := demotest.Open(t)
	v, err := a.Beacons.Look(t.Context(), demotest.Trail)
	require.NoError(t, err)
	assert.True(t, strings.HasPrefix(v.Shown[0].Frame.Text(), "QX2AML-7>APZ001,WIDE1-1,WIDE2-1:!4101.20N/05518.60W[146.550MHz T141 Walk team 2"), v.Shown[0].Frame.Text())
	assert.Equal(t, evidence.Conflict, v.Verdict)
	assert.Equal(t, "beacon-floods", v.Findings[0].Rule)
	_, _, err = a.Beacons.File(t.Context(), demotest.Trail, "tnc2")
	require.ErrorContains(t, err, "demonstration")
	other, err := a.Beacons.Look(t.Context(), demotest.Ferry)
	require.NoError(t, err)
	assert.Contains(t, other.Shown[0].Error, "type your callsign")
	_, err = a.Beacons.Look(t.Context(), 99)
	assert.Error(t, err)
}

// TestSet: settings are kept and undone; what is none says what to write, and changes nothing.
func TestSet(t *testing.T) {
	a := demotest.Open(t)
	v := set(t, a, demotest.Trail, beaconing.Form{Set: map[string]any{"smart": true, "every": 180, "format": "mic-e", "from": " qx2aml-7 "}})
	assert.Equal(t, []any{true, 180.0, "mic-e", "QX2AML-7"}, []any{v.Station.Smart, v.Station.Every, v.Station.Format, v.Station.From})
	_, err := a.Plans.Undo(t.Context(), demotest.Trail, plan.Latest, false)
	require.NoError(t, err)
	v, err = a.Beacons.Look(t.Context(), demotest.Trail)
	require.NoError(t, err)
	assert.Equal(t, "plain", v.Station.Format)
	for field, f := range map[string]beaconing.Form{
		"every": {Set: map[string]any{"every": 0}}, "key_up": {Set: map[string]any{"key_up": 1e9}}, "format": {Set: map[string]any{"format": "smoke"}}, "words": {Set: map[string]any{"words": strings.Repeat("x", 201)}},
		"cannot be set": {Set: map[string]any{"nonsense": 1}}, "like this": {Set: map[string]any{"every": "often"}}, "before": {Set: map[string]any{"before": nil}}, "nothing that is done": {Act: "explode"},
		"is none of": {Act: "profile", Value: "submarine"}, "circle": {Act: "circle", Value: "nowhere"}, "lat": {Set: map[string]any{"lat": 99, "lon": 0}}, "ambiguity": {Set: map[string]any{"ambiguity": 5}},
		"stations": {Set: map[string]any{"stations": 0}}, "status": {Set: map[string]any{"status": "a\nb"}}, "says": {Set: map[string]any{"says": 7}},
	} {
		f.Revision = plan.Latest
		_, err := a.Beacons.Set(t.Context(), demotest.Trail, f)
		require.Error(t, err, field)
		assert.Contains(t, err.Error(), field)
	}
	again, err := a.Beacons.Look(t.Context(), demotest.Trail)
	require.NoError(t, err)
	assert.Equal(t, v.Station, again.Station)
}

// TestProfiles: a profile brings what is usual for it, and keeps the words and the circles.
func TestProfiles(t *testing.T) {
	a := demotest.Open(t)
	set(t, a, demotest.Trail, beaconing.Form{Act: "circle"})
	for _, p := range aprs.Profiles() {
		v := set(t, a, demotest.Trail, beaconing.Form{Act: "profile", Value: p.ID})
		assert.Equal(t, p.Symbol, v.Station.Symbol)
		assert.Equal(t, "Walk team 2", v.Station.Words)
		assert.Empty(t, v.Shown[0].Error, p.ID)
		assert.True(t, v.Hidden, "the place of the plan lies in the circle")
		for _, f := range v.Findings {
			assert.NotEqual(t, "beacon-ssid", f.Rule, "%s: %s", p.ID, f.Title)
			assert.NotContains(t, f.Rule, "path", "%s: %s", p.ID, f.Title)
		}
	}
	v := set(t, a, demotest.Trail, beaconing.Form{Act: "uncircle"})
	assert.False(t, v.Hidden)
}

// TestSpace: to space and back; the list of what to put back stays until each line of it was
// seen, and the history tells of both.
func TestSpace(t *testing.T) {
	a := demotest.Open(t)
	up := set(t, a, demotest.Trail, beaconing.Form{Act: "space"})
	assert.Equal(t, "ARISS", up.Station.Path)
	down := set(t, a, demotest.Trail, beaconing.Form{Act: "ground"})
	assert.Equal(t, "WIDE1-1,WIDE2-1", down.Station.Path)
	require.NotEmpty(t, down.Switch)
	for i, c := range down.Switch {
		v := set(t, a, demotest.Trail, beaconing.Form{Act: "restored", Value: c.ID})
		if i < len(down.Switch)-1 {
			assert.NotEmpty(t, v.Switch)
		} else {
			assert.Empty(t, v.Switch, "all is put back")
		}
	}
	h, err := a.Plans.History(t.Context(), 1, 0)
	require.NoError(t, err)
	text := fmt.Sprintf("%+v", h)
	assert.Contains(t, text, "to space")
	assert.Contains(t, text, "back to the ground")
	log := func() (out []string) {
		l, err := a.Log.List(t.Context(), demotest.Trail, "beacon of")
		require.NoError(t, err)
		for _, x := range l.Tries {
			out = append(out, x.Name+" "+logbook.Says(x)+" "+freq.Hz(x.Receive).MHz())
		}
		return out
	}
	assert.Equal(t, []string{"Beacon of Trail all put back after space 144.390", "Beacon of Trail back to the ground 144.390", "Beacon of Trail to space 145.825"}, log(), "and so does the log, newest first")
	l, err := a.Log.List(t.Context(), demotest.Trail, "to space")
	require.NoError(t, err)
	assert.Contains(t, l.Tries[0].Note, "frequency: 144.390 → 145.825; path: WIDE1-1,WIDE2-1 → ARISS")
	_, err = a.Plans.Undo(t.Context(), demotest.Trail, plan.Latest, false)
	require.NoError(t, err)
	assert.Len(t, log(), 2, "undone with what it tells of")
	v := set(t, a, demotest.Trail, beaconing.Form{Act: "tick", Value: "modem"})
	assert.Equal(t, [][2]string{{"modem", "2026-11-25T09:42:00Z"}}, v.Station.Ticks)
	assert.Empty(t, set(t, a, demotest.Trail, beaconing.Form{Act: "untick", Value: "modem"}).Station.Ticks)
}

// TestFile: with one's own callsign in a plan of one's own the frames leave, and read as
// they were.
func TestFile(t *testing.T) {
	a := demotest.Open(t)
	call := "QX9ABC"
	_, err := a.Fleet.ChangePerson(t.Context(), 1, fleet.PersonForm{Callsign: &call, Revision: plan.Latest})
	require.NoError(t, err)
	name, place, region := "My walk", "41.0,-55.3", "us"
	w, err := a.Plans.New(t.Context(), plan.Form{Name: &name, Place: &place, Region: &region, Revision: plan.Latest}, "skerry")
	require.NoError(t, err)
	load := w.Loads[0].ID
	v := set(t, a, load, beaconing.Form{Set: map[string]any{"status": "on the way"}})
	assert.Equal(t, "QX9ABC-7", v.Station.From)
	_, text, err := a.Beacons.File(t.Context(), load, "tnc2")
	require.NoError(t, err)
	lines := strings.Split(strings.TrimSpace(string(text)), "\n")
	require.Len(t, lines, 2)
	_, kiss, err := a.Beacons.File(t.Context(), load, "kiss")
	require.NoError(t, err)
	for i, raw := range ax25.Unwrap(kiss) {
		f, err := ax25.Decode(raw)
		require.NoError(t, err)
		assert.Equal(t, lines[i], f.Text())
	}
	set(t, a, load, beaconing.Form{Set: map[string]any{"from": "QX1XYZ-7"}})
	_, _, err = a.Beacons.File(t.Context(), load, "kiss")
	require.ErrorContains(t, err, "own callsign")
}

// TestDrive: a track of a kilometre at 3.6 km/h, a point each ten seconds.
func TestDrive(t *testing.T) {
	a := demotest.Open(t)
	var b strings.Builder
	b.WriteString("<gpx><trk><trkseg>")
	for i := range 100 {
		fmt.Fprintf(&b, `<trkpt lat="%.6f" lon="-55.31"><time>2026-11-25T09:%02d:%02dZ</time></trkpt>`, 41.02+float64(i)*10/111_195, i/6, i%6*10)
	}
	b.WriteString("</trkseg></trk></gpx>")
	trip, err := a.Beacons.Drive(t.Context(), demotest.Trail, b.String())
	require.NoError(t, err)
	assert.InDelta(t, 0.99, trip.Km, 0.001)
	assert.Len(t, trip.Fixed.Sent, 17, "one a minute in 990 s")
	assert.Less(t, len(trip.Steered.Sent), 6, "180 × 5 / 3.6 = 250 s")
	assert.Greater(t, trip.Steered.Worst, trip.Fixed.Worst)
	_, err = a.Beacons.Drive(t.Context(), demotest.Trail, "blue moon")
	require.ErrorContains(t, err, "no track")
}

// TestSetAtOnce: several set different things at the same time, and nothing that
// one of them set is lost.
func TestSetAtOnce(t *testing.T) {
	a := demotest.Open(t)
	var g sync.WaitGroup
	for name, value := range map[string]any{"words": "on the hill", "status": "listening", "text": "call me", "stations": 17.0} {
		g.Go(func() {
			_, err := a.Beacons.Set(t.Context(), demotest.Trail, beaconing.Form{Set: map[string]any{name: value}, Revision: plan.Latest})
			assert.NoError(t, err)
		})
	}
	g.Wait()
	v, err := a.Beacons.Look(t.Context(), demotest.Trail)
	require.NoError(t, err)
	s := v.Station
	assert.Equal(t, []any{"on the hill", "listening", "call me", 17}, []any{s.Words, s.Status, s.Text, s.Stations})
}
