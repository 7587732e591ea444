package logbook_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/standing"
	"mnemos/core/trial"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/logbook"
	"mnemos/internal/plan"
)

// TestContacts: contacts of another log come in, those that are known stay out, what is
// not kept is said, nothing is proven by them, and they are one step to undo.
func TestContacts(t *testing.T) {
	a := open(t)
	bring := func(text string) (*logbook.Brought, error) {
		return a.Log.Bring(t.Context(), demotest.Trail, text)
	}
	file := `Generated elsewhere
<adif_ver:5>3.1.4 <eoh>
<call:6>QX7OAK <qso_date:8>20261120 <time_on:4>1830 <mode:2>FM <freq:6>147.63 <band:2>2m <rst_sent:2>59 <comment:7>at noon <eor>
<call:6>QX3TAM <qso_date:8>20261121 <time_on:6>201500 <freq:5>146.5 <eor>
<call:6>QX1SSB <qso_date:8>20261121 <time_on:4>2015 <mode:3>SSB <freq:6>14.250 <eor>
<call:4>oops <qso_date:8>20261121 <time_on:4>2015 <eor>
<call:6>QX5LAT <qso_date:8>20271121 <time_on:4>2015 <mode:2>FM <eor>
<call:6>QX5BAD <qso_date:8>20261341 <time_on:4>2015 <mode:2>FM <eor>
<call:6>QX5NOF <qso_date:8>20261101 <time_on:4>0000 <mode:2>FM <band:4>70cm <rst_sent:2>55 <eor>
`
	b, err := bring(file)
	require.NoError(t, err)
	assert.Equal(t, 3, b.Added)
	assert.Equal(t, []string{
		"record 3: SSB with QX1SSB is not FM, and it is left out", `record 4: "OOPS" is not a callsign, and it is left out`,
		"record 5: 21 Nov 2027 is still to come, and the contact with QX5LAT is left out", `record 6: "20261341" at "2015" is no date and time, and the contact with QX5BAD is left out`,
		"record 7: it has no frequency 70cm", "RST_SENT is not kept: 2 records had it",
	}, b.Losses)
	b, err = bring(file)
	require.NoError(t, err)
	assert.Equal(t, [2]int{0, 3}, [2]int{b.Added, b.Known})
	list, err := a.Log.List(t.Context(), demotest.Trail, "")
	require.NoError(t, err)
	require.Len(t, list.Tries, 3)
	assert.Equal(t, 3, list.Answered)
	pell := list.Tries[1] // 147.63 is the input of Pell Light
	assert.Equal(t, []any{"QX7OAK", 8, "Pell Light", int64(147_030_000), int64(600_000), "2026-11-20T18:30:00Z", "at noon"}, []any{pell.Station, pell.Slot, pell.Name, pell.Receive, pell.Offset, pell.At, pell.Note})
	assert.Equal(t, "contact with QX7OAK", logbook.Says(pell))
	assert.Equal(t, standing.Planned, stands(t, a, 8), "nobody knows how the radio was set")
	assert.Empty(t, card(t, a, 8).Tries)
	_, err = a.Plans.Undo(t.Context(), demotest.Trail, plan.Latest, false)
	require.NoError(t, err)
	list, err = a.Log.List(t.Context(), demotest.Trail, "")
	require.NoError(t, err)
	assert.Empty(t, list.Tries)

	_, err = bring("146.94 88.5 hello")
	require.ErrorContains(t, err, "no contact was found")
	_, err = bring(strings.Repeat("<call:6>QX7OAK<eor>\n", 5001))
	require.ErrorContains(t, err, "split the file")
}

// TestContactsThereAndBack: what goes out as ADI comes back as it was.
func TestContactsThereAndBack(t *testing.T) {
	a := open(t)
	set := card(t, a, 8).Acts[0].Setting
	set.Where = "vehicle"
	_, err := try(t, a, 8, logbook.Form{Setting: set, Answer: trial.Reply, Station: "qx7oak", Spot: "harbour road", Note: "loud"})
	require.NoError(t, err)
	text, losses, err := a.Log.ADI(t.Context(), demotest.Trail)
	require.NoError(t, err)
	assert.Empty(t, losses)
	b, err := a.Log.Bring(t.Context(), demotest.Trail, text)
	require.NoError(t, err)
	assert.Equal(t, [2]int{0, 1}, [2]int{b.Added, b.Known}, "it is there already")
	a.Again(t)
	list, err := a.Log.List(t.Context(), demotest.Trail, "")
	require.NoError(t, err)
	before := list.Tries[0]
	require.NoError(t, a.Log.Drop(t.Context(), before.ID))
	b, err = a.Log.Bring(t.Context(), demotest.Trail, text)
	require.NoError(t, err)
	assert.Equal(t, 1, b.Added)
	assert.Empty(t, b.Losses)
	list, err = a.Log.List(t.Context(), demotest.Trail, "loud")
	require.NoError(t, err)
	require.Len(t, list.Tries, 1)
	after := list.Tries[0]
	assert.Equal(t, []any{"QX7OAK", before.At, before.Slot, before.Name, before.Receive, before.Offset, before.ToneOut, before.ToneIn, before.Watts, before.Aerial, before.Note, "QX9ABC", "vehicle, harbour road"},
		[]any{after.Station, after.At, after.Slot, after.Name, after.Receive, after.Offset, after.ToneOut, after.ToneIn, after.Watts, after.Aerial, after.Note, after.Callsign, after.Spot})
}
