package listen_test

import (
	"math"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/entry"
	"mnemos/core/scan"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/listen"
	"mnemos/internal/plan"
)

// saturday is an evening of which the demonstration's diary tells.
var saturday = time.Date(2026, 11, 28, 21, 0, 0, 0, time.UTC)

func row(r *listen.Report, slot int) *listen.Row {
	for i := range r.Rows {
		if r.Rows[i].Slot == slot {
			return &r.Rows[i]
		}
	}
	return nil
}

// TestReport: what the demonstration's first radio hears on a Saturday evening.
func TestReport(t *testing.T) {
	a := demotest.Open(t)
	r, err := a.Scans.Report(t.Context(), demotest.Trail, listen.Ask{Slot: -1, At: saturday})
	require.NoError(t, err)
	assert.Equal(t, 22, r.Scanned, "24 of which 2 are skipped")
	assert.Equal(t, 2, r.Goal.Slot)
	assert.InDelta(t, 0.9, r.Goal.Share, 1e-9)
	control := row(r, 2)
	// In the diary: 60 an hour for two hours and 66 for one, at a chance of 0.48.
	assert.Equal(t, listen.ByDiary, control.By)
	assert.InDelta(t, (60+66)/(2*0.48), control.Talk.Rate, 1e-6)
	assert.InDelta(t, 5, control.Talk.Length, 1e-9, "said, and the diary does not tell it")
	// By hand: 4.3 looks a second. The round is 22 looks and the stops that it makes.
	assert.InDelta(t, 1/4.3, r.Rate.Look, 1e-9)
	stops := 0.0
	for _, x := range r.Rows {
		stops += x.Figures.Stop * max(0, x.Figures.Stayed-r.Rate.Look)
	}
	assert.InDelta(t, 22/4.3+stops, r.Round, 1e-6)
	assert.Less(t, r.Chance, 0.9)
	require.NotNil(t, r.Best)
	assert.GreaterOrEqual(t, r.Best.Chance, 0.895)
	assert.Contains(t, r.Says, "Trail hears")
	assert.False(t, row(r, 15).In)
	assert.Equal(t, listen.ByAlways, row(r, 15).By, "162.475 MHz is a weather broadcast: 47 CFR says nothing of it, the service's data do")
	assert.Contains(t, row(r, 20).Call.Title, "never opens D023N", "two words of 171 ms do not go into a look of 0.23 s")
	assert.Contains(t, row(r, 12).Call.Title, "+600 kHz")
	heard, overs := 0.0, 0.0
	for _, x := range r.Rows {
		if x.By != listen.ByAlways {
			overs += x.Talk.Rate
			heard += x.Talk.Rate - x.Missed
		}
	}
	assert.InDelta(t, r.Overs, overs, 1e-6)
	assert.InDelta(t, r.Heard, heard, 1e-6)
	assert.NotEmpty(t, r.Half.Visits)
	// With no rate known for the hour, all hours together count.
	monday, err := a.Scans.Report(t.Context(), demotest.Trail, listen.Ask{Slot: -1, At: time.Date(2026, 11, 30, 4, 0, 0, 0, time.UTC)})
	require.NoError(t, err)
	assert.InDelta(t, 404/(3*0.48+0.48+3*0.93+2*0.5+0.5), row(monday, 2).Talk.Rate, 1e-6)
}

// TestChanges: each change does what it says, in one step, and undo takes it back.
func TestChanges(t *testing.T) {
	a := demotest.Open(t)
	ask := func(load int64) *listen.Report {
		r, err := a.Scans.Report(t.Context(), load, listen.Ask{Slot: -1, At: saturday})
		require.NoError(t, err)
		return r
	}
	apply := func(load int64, changes ...listen.Change) *plan.Ledger {
		l, err := a.Scans.Apply(t.Context(), load, changes, plan.Latest)
		require.NoError(t, err)
		return l
	}
	undo := func(load int64) {
		_, err := a.Plans.Undo(t.Context(), load, plan.Latest, false)
		require.NoError(t, err)
	}
	before := ask(demotest.Trail)
	require.NotNil(t, before.Best)
	l := apply(demotest.Trail, before.Best.Changes...)
	assert.NotEmpty(t, l.Undo)
	after := ask(demotest.Trail)
	assert.True(t, after.Reached, "what was promised: %v", before.Best.Changes)
	assert.InDelta(t, before.Best.Chance, after.Chance, 1e-6)
	assert.InDelta(t, before.Best.Heard, after.Heard, 1e-6)
	undo(demotest.Trail)
	assert.InDelta(t, before.Chance, ask(demotest.Trail).Chance, 1e-9)

	apply(demotest.Trail, listen.Change{Kind: scan.Leave, Slot: 5}, listen.Change{Kind: listen.Back, Slot: 15})
	r := ask(demotest.Trail)
	assert.False(t, row(r, 5).In)
	assert.Contains(t, row(r, 15).Call.Title, "never falls silent")
	assert.Contains(t, r.Says, "on Weather")
	for _, e := range a.Ledger(t, demotest.Trail).Rows {
		switch e.Slot {
		case 5:
			assert.Equal(t, entry.ScanSkip, e.Scan, "the plan says so")
		case 15:
			assert.Equal(t, entry.ScanYes, e.Scan)
		}
	}
	undo(demotest.Trail)
	assert.True(t, row(ask(demotest.Trail), 5).In)

	apply(demotest.Trail, listen.Change{Kind: scan.Open, Slot: 20})
	assert.Nil(t, row(ask(demotest.Trail), 20).Call)
	undo(demotest.Trail)
	apply(demotest.Trail, listen.Change{Kind: scan.GoOn, Slot: -1, Resume: scan.Carrier, Stay: 2})
	assert.Equal(t, scan.Carrier, ask(demotest.Trail).Resume)
	undo(demotest.Trail)
	apply(demotest.Trail, listen.Change{Kind: scan.Watch, Slot: 12})
	r = ask(demotest.Trail)
	require.Len(t, r.Dual.Cases, 2)
	assert.Equal(t, "B", r.Dual.Cases[1].Side)
	assert.Contains(t, r.Dual.Cases[1].Bad, "+600 kHz", "selected, Tern Stack would send off the band")
	assert.Empty(t, r.Dual.Cases[0].Bad)
	apply(demotest.Trail, listen.Change{Kind: scan.Leave, Slot: 12})
	assert.Equal(t, -1, ask(demotest.Trail).Watch)

	// A radio with priority and lists, and a second receiver.
	apply(demotest.Ferry, listen.Change{Kind: scan.Prefer, Slot: 7})
	r = ask(demotest.Ferry)
	assert.Equal(t, 7, r.Priority)
	assert.False(t, row(r, 1).Priority, "there is one priority channel")
	undo(demotest.Ferry)
	apply(demotest.Ferry, listen.Change{Kind: scan.Second, Slot: 2})
	assert.True(t, row(ask(demotest.Ferry), 2).Second)
	assert.InDelta(t, 1, row(ask(demotest.Ferry), 2).Chance, 1e-9)
	undo(demotest.Ferry)
	apply(demotest.Ferry, listen.Change{Kind: scan.SplitOff, Slot: 2, Stays: []int{1, 2}})
	r = ask(demotest.Ferry)
	assert.Equal(t, 2, r.Scanned)
	assert.Len(t, r.Lists, 3, "one that was there, and two")
	undo(demotest.Ferry)
	assert.Len(t, ask(demotest.Ferry).Lists, 1)

	for _, c := range []listen.Change{
		{Kind: scan.Prefer, Slot: 2}, // Trail has no key for it
		{Kind: scan.Second, Slot: 2},
		{Kind: scan.Leave, Slot: 99},
		{Kind: scan.SplitOff, Slot: 2, Stays: []int{1}}, // it has no lists
		{Kind: "dance", Slot: 2},
		{Kind: scan.GoOn, Slot: -1, Resume: "never", Stay: 1},
		{Kind: scan.GoOn, Slot: -1, Resume: scan.Time, Stay: math.NaN()},
	} {
		_, err := a.Scans.Apply(t.Context(), demotest.Trail, []listen.Change{c}, plan.Latest)
		assert.Error(t, err, "%v", c)
	}
	_, err := a.Scans.Apply(t.Context(), demotest.Trail, nil, plan.Latest)
	assert.Error(t, err)
}

// TestSet: what a person says of the radio counts, and nonsense is refused in words.
func TestSet(t *testing.T) {
	a := demotest.Open(t)
	ask := func(line string) *listen.Report {
		r, err := a.Scans.Report(t.Context(), demotest.Trail, listen.Ask{Slot: -1, Line: line, At: saturday})
		require.NoError(t, err)
		return r
	}
	set := func(f listen.Form) error {
		f.Revision = plan.Latest
		_, err := a.Scans.Set(t.Context(), demotest.Trail, f)
		return err
	}
	require.NoError(t, set(listen.Form{Timed: &listen.Timed{Channels: 30, Seconds: 7}}))
	r := ask("")
	assert.True(t, r.Rate.Timed)
	assert.InDelta(t, 30.0/7, r.Rate.PerSecond, 1e-9, "30 channels in 7 s are 4.3 a second")
	require.NoError(t, set(listen.Form{Lists: &[]int64{r.Lists[0].ID}}))
	r = ask("")
	assert.Equal(t, 5, r.Scanned, "the list of the ridge")
	assert.Equal(t, -1, r.Priority, "Trail has no priority, whatever the list says")
	line := "8 of 10 overs of 4 s on long ridge"
	require.NoError(t, set(listen.Form{Goal: &line}))
	r = ask("")
	assert.Equal(t, 5, r.Goal.Slot)
	assert.True(t, r.Goal.Kept)
	assert.InDelta(t, 4, r.Goal.Length, 1e-9)
	assert.Equal(t, 7, ask("marran").Goal.Slot, "the rest is as it is kept")
	assert.Contains(t, ask("weather").Goal.Trouble, "not scanned")
	assert.Contains(t, ask("3 of 2 on marran").Goal.Trouble, "Write how many")
	require.NoError(t, set(listen.Form{Talk: &listen.Said{Slot: 7, Talk: listen.Talk{Rate: 200, Length: 6}}}))
	assert.Equal(t, listen.BySaid, row(ask(""), 7).By)
	require.NoError(t, set(listen.Form{Talk: &listen.Said{Slot: 7}}))
	assert.Equal(t, listen.ByDiary, row(ask(""), 7).By)
	watch, never, long := 2, "never", 1e6
	require.NoError(t, set(listen.Form{Watch: &watch}))
	assert.Equal(t, 2, ask("").Watch)
	bad := "blue moon"
	for field, f := range map[string]listen.Form{
		"timed":  {Timed: &listen.Timed{Channels: 30, Seconds: 0}},
		"resume": {Resume: &never},
		"stay":   {Stay: &long},
		"goal":   {Goal: &bad},
		"lists":  {Lists: &[]int64{4711}},
		"rate ":  {Talk: &listen.Said{Slot: 7, Talk: listen.Talk{Rate: 3600}}}, // of the usual length they do not go into an hour
		"rate":   {Talk: &listen.Said{Slot: 7, Talk: listen.Talk{Rate: 1000, Length: 600}}},
		"slot":   {Talk: &listen.Said{Slot: 99}},
	} {
		err := set(f)
		require.Error(t, err, field)
		assert.Contains(t, strings.ToLower(err.Error()), strings.TrimSpace(field))
	}
}

// TestEmpty: a radio without channels, and one with a single one, say what to do.
func TestEmpty(t *testing.T) {
	a := demotest.Open(t)
	var slots []int
	for _, r := range a.Ledger(t, demotest.Trail).Rows {
		slots = append(slots, r.Slot)
	}
	_, err := a.Plans.DeleteSome(t.Context(), demotest.Trail, slots[1:], plan.Latest)
	require.NoError(t, err)
	r, err := a.Scans.Report(t.Context(), demotest.Trail, listen.Ask{Slot: -1})
	require.NoError(t, err)
	assert.Contains(t, r.Goal.Trouble, "Write how many", "the goal that was kept is of a channel that is gone")
	r, err = a.Scans.Report(t.Context(), demotest.Trail, listen.Ask{Slot: -1, Line: "calling"})
	require.NoError(t, err)
	assert.Contains(t, r.Says, "looks at nothing else")
	assert.InDelta(t, 1, r.Chance, 0.02)
	_, err = a.Plans.DeleteSome(t.Context(), demotest.Trail, slots[:1], plan.Latest)
	require.NoError(t, err)
	r, err = a.Scans.Report(t.Context(), demotest.Trail, listen.Ask{Slot: -1})
	require.NoError(t, err)
	assert.Contains(t, r.Says, "holds no channels yet")
	assert.Empty(t, r.Rows)
}

// TestDiary: a tap begins to listen, and what was heard is divided by the chance of it.
func TestDiary(t *testing.T) {
	a := demotest.Open(t)
	d, err := a.Scans.Note(t.Context(), demotest.Trail, 7)
	require.NoError(t, err)
	assert.NotEmpty(t, d.Since)
	assert.Equal(t, 1, d.Noted)
	was := d.Heard
	d, err = a.Scans.Note(t.Context(), demotest.Trail, 7)
	require.NoError(t, err)
	assert.Equal(t, was+1, d.Heard)
	d, err = a.Scans.Stop(t.Context(), demotest.Trail, 7)
	require.NoError(t, err)
	assert.Empty(t, d.Since)
	_, err = a.Scans.Note(t.Context(), demotest.Trail, 99)
	assert.Error(t, err)
	// Undo takes a tap back, and leaves the history of the plan alone.
	_, err = a.Plans.Undo(t.Context(), demotest.Trail, plan.Latest, false) // the stop
	require.NoError(t, err)
	_, err = a.Plans.Undo(t.Context(), demotest.Trail, plan.Latest, false) // a tap
	require.NoError(t, err)
	d, err = a.Scans.Diary(t.Context(), demotest.Trail, 7)
	require.NoError(t, err)
	assert.Equal(t, was, d.Heard)
	h, err := a.Plans.History(t.Context(), 1, plan.Latest)
	require.NoError(t, err)
	for _, x := range h.Changes {
		assert.NotContains(t, x.Label, "heard")
	}
	// The channel goes, and what was heard of its frequency stays.
	heard := d.Heard
	_, err = a.Plans.Delete(t.Context(), demotest.Trail, 7, plan.Latest)
	require.NoError(t, err)
	_, err = a.Plans.Undo(t.Context(), demotest.Trail, plan.Latest, false)
	require.NoError(t, err)
	d, err = a.Scans.Diary(t.Context(), demotest.Trail, 7)
	require.NoError(t, err)
	assert.Equal(t, heard, d.Heard)
	assert.Equal(t, "Walk control", d.Favourites[0].Name)
	assert.Equal(t, []int{int(time.Saturday), 21}, []int{d.Favourites[0].Day, d.Favourites[0].Hour})
}

// TestSweep: 2 m in the steps of the radio.
func TestSweep(t *testing.T) {
	a := demotest.Open(t)
	w, err := a.Scans.Sweep(t.Context(), demotest.Trail, listen.SweepForm{Lower: "144", Upper: "148.000", Step: "12.5"})
	require.NoError(t, err)
	assert.Equal(t, 321, w.Sweep.Steps)
	assert.InDelta(t, 321/4.3, w.Seconds, 1e-6)
	assert.NotZero(t, w.Off, "US repeaters lie on 15 and 20 kHz, not on 12.5")
	assert.True(t, w.All)
	for _, p := range w.Passes {
		assert.Zero(t, (p.Frequency-144_000_000)%w.Best, "%s with a step of %s", p.Frequency, w.Best)
	}
	held := map[int]bool{}
	for _, p := range w.Passes {
		held[p.Slot] = true
	}
	assert.True(t, held[2] && held[-1], "what the radio holds, and what is only published")
	for field, f := range map[string]listen.SweepForm{
		"lower": {Lower: "blue"}, "upper": {Lower: "147", Upper: "145"}, "step": {Step: "0.01"},
	} {
		_, err := a.Scans.Sweep(t.Context(), demotest.Trail, f)
		require.Error(t, err)
		assert.Contains(t, err.Error(), field)
	}
	w, err = a.Scans.Sweep(t.Context(), demotest.Trail, listen.SweepForm{Lower: "446", Upper: "446.1"})
	require.NoError(t, err)
	for _, p := range w.Passes {
		if p.Frequency == 446_012_500 {
			assert.Equal(t, scan.Keyed{Type: 446_000_000, Step: 12_500, Up: 1}, p.Keyed, "six figures do not reach 446.0125 MHz")
		}
	}
}
