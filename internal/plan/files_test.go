package plan_test

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

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
		"# mnemos plan,1\n# name,x\n# region,us\n# radio,x,nosuch\nnumber,receive MHz\n": `no profile "nosuch"`,
		"# mnemos plan,1\n# name,x\n# region,us\nnumber,receive MHz\n":                   "no radio",
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
