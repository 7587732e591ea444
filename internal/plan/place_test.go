package plan_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/radio"
	"mnemos/core/standing"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/plan"
)

func line(s string) channel.Channel { return entry.Read(s, band.MustLoad("us")).Channel }

func rowOn(t *testing.T, a *demotest.Rig, load int64, f freq.Hz) (plan.Row, bool) {
	t.Helper()
	for _, r := range a.Ledger(t, load).Rows {
		if r.Channel.Receive == f {
			return r, true
		}
	}
	return plan.Row{}, false
}

// TestPlace: a new channel goes into a vacant slot of each radio, as one channel of the plan;
// one that is there is set alike everywhere, is there once, and is planned again where it
// was stored; all of it is one step to undo.
func TestPlace(t *testing.T) {
	a := demotest.Open(t)
	both := []int64{demotest.Ferry, demotest.Trail}
	place := func(text string, loads ...int64) error {
		_, err := a.Plans.Place(t.Context(), demotest.Ferry, []plan.Placement{{Channel: line(text), Loads: loads}}, plan.Latest, "place it")
		return err
	}
	require.NoError(t, place(`446.1 simplex ts 186.2 low "Link"`, both...))
	one, ok := rowOn(t, a, demotest.Ferry, 446_100_000)
	require.True(t, ok)
	two, ok := rowOn(t, a, demotest.Trail, 446_100_000)
	require.True(t, ok)
	assert.Equal(t, one.Channel, two.Channel, "one channel of the plan")
	assert.Equal(t, entry.ScanSkip, one.Scan, "a link is not scanned")
	_, err := a.Plans.Stand(t.Context(), demotest.Trail, []int{two.Slot}, standing.Stored, plan.Latest)
	require.NoError(t, err)

	before := len(a.Ledger(t, demotest.Ferry).Rows)
	require.NoError(t, place(`446.1 simplex ts 179.9 low`, both...))
	assert.Len(t, a.Ledger(t, demotest.Ferry).Rows, before)
	for _, load := range both {
		r, _ := rowOn(t, a, load, 446_100_000)
		assert.Equal(t, []string{"179.9", "179.9", "Link"}, []string{r.Channel.TransmitTone.String(), r.Channel.ReceiveTone.String(), r.Channel.Name}, "its name stays")
	}
	r, _ := rowOn(t, a, demotest.Trail, 446_100_000)
	assert.Equal(t, standing.Planned, r.Standing.Now, "the radio holds another tone")
	_, err = a.Plans.Undo(t.Context(), demotest.Ferry, plan.Latest, false)
	require.NoError(t, err)
	r, _ = rowOn(t, a, demotest.Trail, 446_100_000)
	assert.Equal(t, standing.Stored, r.Standing.Now)

	// Radios that hold two channels of the plan on one frequency are both set.
	require.NoError(t, place(`446.05 simplex 100`, demotest.Ferry))
	require.NoError(t, place(`446.05 simplex 123`, demotest.Trail, demotest.Ferry))
	one, _ = rowOn(t, a, demotest.Ferry, 446_050_000)
	two, _ = rowOn(t, a, demotest.Trail, 446_050_000)
	assert.Equal(t, one.Channel, two.Channel)
	assert.Equal(t, "123.0", one.Channel.TransmitTone.String())
}

// TestPlaceFull: a radio that is full says so, and nothing of the step is done.
func TestPlaceFull(t *testing.T) {
	a := demotest.Open(t)
	p := a.Ledger(t, demotest.Lantern)
	profile, err := radio.Load("lantern")
	require.NoError(t, err)
	slots := profile.Slots
	taken := map[int]bool{}
	for _, r := range p.Rows {
		taken[r.Slot] = true
	}
	var list []plan.Placement
	step := freq.Hz(12_500)
	for i := 0; len(taken)+len(list) <= slots.Last-slots.First; i++ {
		c := channel.New(430_000_000 + freq.Hz(i)*step)
		if _, there := rowOn(t, a, demotest.Lantern, c.Receive); !there {
			list = append(list, plan.Placement{Channel: c, Loads: []int64{demotest.Lantern}})
		}
	}
	_, err = a.Plans.Place(t.Context(), demotest.Lantern, list, plan.Latest, "fill it")
	require.NoError(t, err)
	before := len(a.Ledger(t, demotest.Ferry).Rows)
	_, err = a.Plans.Place(t.Context(), demotest.Ferry, []plan.Placement{{Channel: line("446.1 simplex"), Loads: []int64{demotest.Ferry, demotest.Lantern}}}, plan.Latest, "one more")
	require.ErrorContains(t, err, "is full")
	assert.Len(t, a.Ledger(t, demotest.Ferry).Rows, before)
	_, err = a.Plans.Place(t.Context(), 99, nil, plan.Latest, "nowhere")
	assert.Error(t, err)
}

// TestHeardTellsOf: what was answered is what counts until a search finds something later;
// a search of which no two hits agree tells of nothing, nor does one on another frequency.
func TestHeardPrefers(t *testing.T) {
	a := demotest.Open(t)
	tone := func() string {
		v, err := a.Plans.Evidence(t.Context(), demotest.Trail, 7)
		require.NoError(t, err)
		for _, r := range v.Rows {
			if r.Field == channel.FieldTransmitTone {
				return r.Heard.Text
			}
		}
		return ""
	}
	assert.Empty(t, tone())
	for i, hit := range []string{"100", "88.5", "88.5"} {
		found(t, a, hit)
		if i < 2 {
			assert.Empty(t, tone(), "hit %d", i)
		}
	}
	assert.Equal(t, "88.5", tone())
	moved := "147.0"
	_, err := a.Plans.Update(t.Context(), demotest.Trail, 7, plan.Update{Receive: &moved, Revision: plan.Latest})
	require.NoError(t, err)
	assert.Empty(t, tone(), "that was heard on another frequency")
	slots := []int{}
	for _, r := range a.Ledger(t, demotest.Trail).Rows {
		slots = append(slots, r.Slot)
	}
	assert.True(t, slices.IsSorted(slots))
}
