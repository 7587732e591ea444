package plan_test

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/channel"
	"mnemos/core/template"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/exchange"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
)

// TestPlanThereAndBack writes a plan with a radio of one's own in each format that
// loses nothing, into another folder too, and reads it back: it is the same.
func TestPlanThereAndBack(t *testing.T) {
	a, far := demotest.Open(t), demotest.Open(t)
	mine, err := a.Fleet.NewProfile(t.Context(), "gale", "")
	require.NoError(t, err)
	name := "Loft"
	l, err := a.Plans.AddUnit(t.Context(), 1, mine.ID, plan.UnitForm{Name: &name})
	require.NoError(t, err)
	short := "MINE"
	_, err = a.Plans.Update(t.Context(), l.Load, 7, plan.Update{ShortName: &short, Revision: plan.Latest})
	require.NoError(t, err)
	want, err := a.Plans.Document(t.Context(), 1)
	require.NoError(t, err)
	require.Len(t, want.Units, 4)
	require.Len(t, want.Channels, 26)
	require.NotEmpty(t, want.Sets[0].Members)
	for _, format := range []string{"json", "csv", "xlsx"} {
		f, err := a.Plans.PlanFile(t.Context(), 1, format)
		require.NoError(t, err)
		assert.Empty(t, f.Lost)
		path := filepath.Join(t.TempDir(), f.Name)
		require.NoError(t, os.WriteFile(path, f.Data, 0o600))
		for _, to := range []*demotest.Rig{a, far} {
			b, err := to.Plans.BringFile(t.Context(), demotest.Trail, path, plan.Paste{})
			require.NoError(t, err, format)
			require.NotNil(t, b.Workspace)
			got, err := to.Plans.Document(t.Context(), b.Workspace.Plan.ID)
			require.NoError(t, err)
			for i := range got.Units { // in another folder its profile has another number
				assert.Equal(t, want.Units[i].Entries, got.Units[i].Entries)
				assert.Equal(t, want.Units[i].Name, got.Units[i].Name)
			}
			got.Units, got.Name = want.Units, want.Name
			assert.Equal(t, want, got, format)
			_, err = to.Plans.Undo(t.Context(), b.Workspace.Loads[0].ID, plan.Latest, false)
			require.NoError(t, err, "it is one step")
		}
	}
	f, err := a.Plans.LoadFile(t.Context(), demotest.Trail, "json")
	require.NoError(t, err)
	var lost []string
	for _, x := range f.Lost {
		lost = append(lost, x.String())
	}
	assert.Contains(t, strings.Join(lost, "\n"), "slot 12, Tern Stack: transmit 153.390 MHz becomes receive only")
	for _, format := range exchange.Formats {
		_, err := a.Plans.LoadFile(t.Context(), demotest.Ferry, format)
		require.NoError(t, err, format)
	}
	var invalid *fault.Invalid
	_, err = a.Plans.PlanFile(t.Context(), 1, "doc")
	require.ErrorAs(t, err, &invalid)

	// A table becomes channels; what is no plan and no table is refused.
	for text, says := range map[string]string{
		"receive MHz\n146.61\n": "", "": "empty", "{\"format\":\"mnemos plan\",\"version\":99}": "newer Mnemos", "# mnemos plan,1\n# name,x\n": "missing",
		"# mnemos plan,1\n# name,x\n# region,atlantis\nnumber,receive MHz\n": "atlantis", strings.Repeat("146.61\n", 2001): "too many",
		"# mnemos plan,1\n# name,x\n# region,us\n# radio,x,nosuch\nnumber,receive MHz\n":                                                 `no profile "nosuch"`,
		"# mnemos plan,1\n# name,x\n# region,us\nnumber,receive MHz\n":                                                                   "no radio",
		"# mnemos plan,1\n# name,x\n# region,us\n# latitude,91\n# longitude,0\n# radio,,trail\nnumber,receive MHz\n":                     "a latitude of -90",
		"# mnemos plan,1\n# name,x\n# region,us\n# latitude,1\n# radio,,trail\nnumber,receive MHz\n":                                     "or neither",
		"# mnemos plan,1\n# name,x\n# region,us\n\"# aerial height, m\",-5\n# radio,,trail\nnumber,receive MHz\n":                        "0 to 5000",
		"# mnemos plan,1\n# name,x\n# region,us\n\"# radius, km\",NaN\n# radio,,trail\nnumber,receive MHz\n":                             "1 to 1000",
		"# mnemos plan,1\n# name,x\n# region,us\n# radio,,trail\nnumber,receive MHz,slot in T,short name in T\n1,146.5,1,toolongforit\n": "cannot show",
	} {
		path := filepath.Join(t.TempDir(), "x.csv")
		require.NoError(t, os.WriteFile(path, []byte(text), 0o600))
		b, err := a.Plans.BringFile(t.Context(), demotest.Trail, path, plan.Paste{Slot: 60, Revision: plan.Latest})
		if says == "" {
			require.NoError(t, err)
			assert.Equal(t, []int{60}, b.Pasted.Slots)
			continue
		}
		require.ErrorAs(t, err, &invalid, "%.30q", text)
		assert.Contains(t, invalid.Error(), says)
	}
}

// TestColumns keeps columns, writes a radio in them, and reads the file back; what
// somebody else changed meanwhile is not lost.
func TestColumns(t *testing.T) {
	a := demotest.Open(t)
	tp := template.Template{Name: "Club", Divide: ";", Columns: []template.Column{
		{Of: template.Slot},
		{Of: template.Name},
		{Of: template.Receive, Unit: "MHz", Decimals: 4},
		{Of: template.Transmit, Unit: "MHz", Decimals: 4, Words: map[string]string{"none": "-"}},
		{Of: template.Out},
		{Of: template.In},
		{Of: template.Width},
		{Of: template.Power},
		{Of: template.Scan},
		{Of: template.Short},
	}}
	all, err := a.Plans.SaveTemplate(t.Context(), plan.Template{Template: tp})
	require.NoError(t, err)
	require.Len(t, all, 1)
	assert.Equal(t, tp, all[0].Template)
	v, err := a.Plans.Sample(t.Context(), demotest.Ferry, tp)
	require.NoError(t, err)
	require.Len(t, v.Rows, 9)
	assert.Contains(t, string(v.File.Data), "15;Weather;162.4750;-;none;none;wide;high;skip;")
	got, err := a.Plans.BringBy(t.Context(), demotest.Lantern, all[0].ID, v.File.Data, plan.Paste{Slot: 60, Revision: plan.Latest})
	require.NoError(t, err)
	weather := row(got.Ledger, got.Slots[len(got.Slots)-1])
	assert.Equal(t, "Weather", weather.Channel.Name)
	assert.Equal(t, channel.Blocked, weather.Channel.Side.Kind)
	require.NotEmpty(t, got.Left, "52 MHz is not for that radio")

	var invalid *fault.Invalid
	_, err = a.Plans.SaveTemplate(t.Context(), plan.Template{Template: tp})
	require.ErrorAs(t, err, &invalid, "the name is taken")
	_, err = a.Plans.SaveTemplate(t.Context(), plan.Template{Template: template.Template{Name: "x"}})
	require.ErrorAs(t, err, &invalid)
	bad, err := a.Plans.Sample(t.Context(), demotest.Ferry, template.Template{Name: "x"})
	require.NoError(t, err)
	require.NotEmpty(t, bad.Faults)
	tp.Name = "Harbour"
	all, err = a.Plans.SaveTemplate(t.Context(), plan.Template{Template: tp, ID: all[0].ID, Revision: all[0].Revision})
	require.NoError(t, err)
	var stale *fault.Stale
	_, err = a.Plans.SaveTemplate(t.Context(), plan.Template{Template: tp, ID: all[0].ID, Revision: 1})
	require.ErrorAs(t, err, &stale)
	_, err = a.Plans.DropTemplate(t.Context(), all[0].ID, plan.Latest)
	require.NoError(t, err)
	_, err = a.Plans.Undo(t.Context(), demotest.Ferry, plan.Latest, false)
	require.NoError(t, err)
	all, err = a.Plans.Templates(t.Context())
	require.NoError(t, err)
	assert.Equal(t, "Harbour", all[0].Name)
	_, err = a.Plans.BringBy(t.Context(), demotest.Lantern, 99, nil, plan.Paste{})
	require.ErrorIs(t, err, fault.ErrNotFound)
}

// TestAgainst compares a radio with files of several kinds and takes parts: what is
// new, gone and changed, as one step.
func TestAgainst(t *testing.T) {
	a := demotest.Open(t)
	l := a.Ledger(t, demotest.Trail)
	write := func(text string) string {
		path := filepath.Join(t.TempDir(), "x.csv")
		require.NoError(t, os.WriteFile(path, []byte(text), 0o600))
		return path
	}
	text, err := a.Plans.Copied(t.Context(), demotest.Trail, []int{1, 2, 3, 5, 6, 7})
	require.NoError(t, err)
	text = strings.Replace(text, "127.3\t127.3", "88.5\t127.3", 1) + "40\tNew one\t\t146.610\t146.610\tsimplex\tnone\tnone\twide\thigh\tyes\n"
	r, err := a.Plans.Against(t.Context(), demotest.Trail, write(text), "")
	require.NoError(t, err)
	assert.Equal(t, 5, r.Same)
	var parts []int
	for i, d := range r.Differences {
		if d.Is != nil || d.Was.Slot == 8 {
			parts = append(parts, i)
		}
	}
	require.Len(t, parts, 3, "Marran, the new one, and Pell that is gone")
	now, err := a.Plans.Take(t.Context(), demotest.Trail, write(text), "", parts, plan.Latest)
	require.NoError(t, err)
	assert.Equal(t, "88.5", row(now, 7).Channel.TransmitTone.String())
	assert.Equal(t, "New one", row(now, 40).Channel.Name)
	assert.Nil(t, row(now, 8))
	assert.Len(t, now.Rows, len(l.Rows))
	undone, err := a.Plans.Undo(t.Context(), demotest.Trail, now.Revision, false)
	require.NoError(t, err)
	assert.Equal(t, "127.3", row(undone, 7).Channel.TransmitTone.String())

	// A memory image says what the radio will not hold; another plan is matched by the radio.
	f, err := a.Plans.LoadFile(t.Context(), demotest.Trail, "json")
	require.NoError(t, err)
	r, err = a.Plans.Against(t.Context(), demotest.Trail, write(string(f.Data)), "")
	require.NoError(t, err)
	require.Len(t, r.Differences, 1, "Tern Stack, whose transmitter is blocked")
	assert.Equal(t, 12, r.Differences[0].Was.Slot)
	f, err = a.Plans.PlanFile(t.Context(), 1, "csv")
	require.NoError(t, err)
	for _, load := range []int64{demotest.Trail, demotest.Ferry} {
		r, err = a.Plans.Against(t.Context(), load, write(string(f.Data)), "")
		require.NoError(t, err)
		assert.Empty(t, r.Differences)
	}
	var invalid *fault.Invalid
	for text, says := range map[string]string{"": "empty", "Name,Freq,Tone TX,Tone RX\nN,146.61,88.5,100\nS,146.67,77,107.2\n": "whose TX is it"} {
		_, err = a.Plans.Against(t.Context(), demotest.Trail, write(text), "")
		require.ErrorAs(t, err, &invalid)
		assert.Contains(t, invalid.Error(), says)
	}
	_, err = a.Plans.Take(t.Context(), demotest.Trail, write(text), "", []int{99}, plan.Latest)
	require.ErrorAs(t, err, &invalid)
}
