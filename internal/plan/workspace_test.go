package plan_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/intake"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
)

// TestEverywhere: what moves in one radio moves in those that have the same in the
// same slots, and the number that everybody uses goes along.
func TestEverywhere(t *testing.T) {
	a := demotest.Open(t)
	l, err := a.Plans.Arrange(t.Context(), demotest.Trail, plan.Arrangement{Act: "move", Slots: []int{1, 2}, To: 8, Everywhere: true, Revision: plan.Latest})
	require.NoError(t, err)
	assert.Equal(t, "Calling", row(l, 8).Channel.Name)
	assert.Equal(t, "Walk control", row(l, 9).Channel.Name)
	assert.Equal(t, "Pell Light", row(l, 1).Channel.Name, "what was in the way is where they were")
	ferry, lantern := a.Ledger(t, demotest.Ferry), a.Ledger(t, demotest.Lantern)
	assert.Equal(t, []string{"Calling", "Walk control"}, []string{row(ferry, 8).Channel.Name, row(ferry, 9).Channel.Name})
	assert.Equal(t, "Pell Light", row(ferry, 1).Channel.Name)
	assert.Equal(t, "Calling", row(lantern, 8).Channel.Name)
	assert.Nil(t, row(lantern, 1), "it has nothing that was in the way")
	numbers, err := a.Store.TeamSlots(t.Context(), l.PlanID)
	require.NoError(t, err)
	by := map[int64]int{}
	for _, n := range numbers {
		by[n.ChannelID] = n.Number
	}
	assert.Equal(t, 8, by[row(l, 8).ID])
	assert.Equal(t, 1, by[row(l, 1).ID])

	// One radio alone goes its own way, and is put right with one act.
	_, err = a.Plans.Arrange(t.Context(), demotest.Ferry, plan.Arrangement{Act: "move", Slots: []int{8}, To: 30, Revision: plan.Latest})
	require.NoError(t, err)
	tasks, err := a.Plans.Work(t.Context(), demotest.Ferry)
	require.NoError(t, err)
	var moved []string
	for _, x := range tasks {
		if x.Kind == "moved" {
			moved = append(moved, x.Title+", "+x.Why)
		}
	}
	assert.Equal(t, []string{"1 channel in other slots than in the other radios, slots 30"}, moved)
	l, err = a.Plans.Arrange(t.Context(), demotest.Ferry, plan.Arrangement{Act: "align", Revision: plan.Latest})
	require.NoError(t, err)
	assert.Equal(t, "Calling", row(l, 8).Channel.Name)
	assert.Equal(t, "move 1 channel to the team's slots", l.Undo)

	var invalid *fault.Invalid
	for _, bad := range []plan.Arrangement{
		{Act: "fly"},
		{Act: "swap", Slots: []int{1, 2}, To: 3},
		{Act: "move", Slots: []int{1}, To: 0},
		{Act: "move", Slots: []int{1, 2}, To: 500},
		{Act: "insert", To: 1, Count: 0},
		{Act: "insert", To: 1, Count: 5000},
		{Act: "step", Slots: []int{1}, Count: 2},
	} {
		_, err := a.Plans.Arrange(t.Context(), demotest.Trail, bad)
		require.ErrorAs(t, err, &invalid, "%+v", bad)
	}
	before := a.Ledger(t, demotest.Trail)
	_, err = a.Plans.Arrange(t.Context(), demotest.Trail, plan.Arrangement{Act: "insert", To: 1, Count: 180, Revision: plan.Latest})
	require.ErrorAs(t, err, &invalid)
	assert.Contains(t, invalid.Fields[0].Message, "no room")
	assert.Equal(t, before.Revision, a.Ledger(t, demotest.Trail).Revision)
}

// TestPaste takes tables in the shapes that come from spreadsheets. What each row
// is was written down before: transmit is what the operator sends.
func TestPaste(t *testing.T) {
	a := demotest.Open(t)
	paste := func(text string, over bool, v intake.Viewpoint) (*plan.Pasted, error) {
		return a.Plans.Paste(t.Context(), demotest.Trail, plan.Paste{Text: text, Slot: 40, Replace: over, Viewpoint: v, Revision: plan.Latest})
	}
	said := func(v *plan.Pasted) (out []string) {
		for _, n := range v.Slots {
			c := row(v.Ledger, n).Channel
			tx, _ := c.Transmit()
			out = append(out, fmt.Sprintf("%d %s %s %s %s/%s", n, c.Name, c.Receive.MHz(), tx.MHz(), c.TransmitTone, c.ReceiveTone))
		}
		return out
	}
	// Our own, as it was copied.
	text, err := a.Plans.Copied(t.Context(), demotest.Trail, []int{7, 15})
	require.NoError(t, err)
	v, err := paste(text, false, "")
	require.NoError(t, err)
	assert.Equal(t, []string{"40 Marran Light 146.940 146.340 127.3/127.3", "41 Weather 162.475 0.000 none/none"}, said(v))
	assert.NotEqual(t, row(v.Ledger, 7).ShortName, row(v.Ledger, 40).ShortName, "two channels, two short names")

	// Lines in words, and one that is none.
	v, err = paste("146.61 - 88.5 North\nhello there\n446.0 simplex", false, "")
	require.NoError(t, err)
	assert.Equal(t, []string{"42 North 146.610 146.010 88.5/none", "43  446.000 446.000 none/none"}, said(v))
	require.Len(t, v.Left, 1)
	assert.Equal(t, 2, v.Left[0].Row)

	// A table of somebody else, from whose side nothing proves.
	both := "Name\tFreq\tTone TX\tTone RX\nNorth\t146.61\t88.5\t100\nSouth\t146.67\t77\t107.2\n"
	v, err = paste(both, false, "")
	require.NoError(t, err)
	require.NotNil(t, v.Ask)
	assert.Nil(t, v.Ledger)
	assert.Contains(t, v.Ask.Operator, "you send")
	v, err = paste(both, true, intake.Repeater)
	require.NoError(t, err)
	assert.Equal(t, []string{"40 North 146.610 146.010 100.0/none", "41 South 146.670 146.070 107.2/none"}, said(v), "what the repeater hears is what you send")
	assert.Equal(t, "paste 2 channels into 40 and 41", v.Ledger.Undo)

	var invalid *fault.Invalid
	for text, says := range map[string]string{
		"": "holds no text", " \n\t\n": "holds no text", "receive MHz\tname\nabc\tx": "row 2", strings.Repeat("146.5\n", 2001): "too many", "just words": "nothing of it",
		"receive MHz\n1090\n": "does not receive",
	} {
		_, err := paste(text, false, "")
		require.ErrorAs(t, err, &invalid, "%.20q", text)
		assert.Contains(t, invalid.Error(), says, "%.20q", text)
	}
	_, err = a.Plans.Copied(t.Context(), demotest.Trail, []int{199})
	require.ErrorAs(t, err, &invalid)
	v, err = paste("146.52\n446.0", false, "")
	require.NoError(t, err)
	assert.Len(t, v.Slots, 2, "frequencies alone are lines")
}

// TestNames: all radios with the same display show one word, adding renames
// nobody, and what a person typed stays.
func TestNames(t *testing.T) {
	a := demotest.Open(t)
	before := a.Ledger(t, demotest.Trail)
	old := map[int]string{}
	for _, r := range before.Rows {
		old[r.Slot] = r.ShortName
	}
	second, err := a.Plans.AddUnit(t.Context(), before.PlanID, "trail", plan.UnitForm{})
	require.NoError(t, err)
	for _, r := range second.Rows {
		if s, ok := old[r.Slot]; ok {
			assert.Equal(t, s, r.ShortName, "slot %d", r.Slot)
		}
	}
	slot := 40
	l, err := a.Plans.Store(t.Context(), demotest.Trail, plan.Save{Line: `146.61 "Marran Light 2"`, Slot: &slot, Also: []int64{second.Load}, Revision: plan.Latest})
	require.NoError(t, err)
	for _, r := range l.Rows {
		if s, ok := old[r.Slot]; ok {
			assert.Equal(t, s, r.ShortName, "adding renamed slot %d", r.Slot)
		}
	}
	assert.Equal(t, row(l, 40).ShortName, row(a.Ledger(t, second.Load), 40).ShortName)

	mine := "MARR"
	l, err = a.Plans.Update(t.Context(), demotest.Trail, 7, plan.Update{ShortName: &mine, Revision: plan.Latest})
	require.NoError(t, err)
	assert.True(t, row(l, 7).Pinned)
	assert.Equal(t, mine, row(a.Ledger(t, second.Load), 7).ShortName, "the other one shows it too")
	other := "Mer Light"
	l, err = a.Plans.Update(t.Context(), demotest.Trail, 7, plan.Update{Name: &other, Revision: plan.Latest})
	require.NoError(t, err)
	assert.Equal(t, mine, row(l, 7).ShortName, "pinned")
	renamed := "Holm Fell"
	l, err = a.Plans.Update(t.Context(), demotest.Trail, 8, plan.Update{Name: &renamed, Revision: plan.Latest})
	require.NoError(t, err)
	assert.NotEqual(t, old[8], row(l, 8).ShortName)
	assert.Equal(t, row(l, 8).ShortName, row(a.Ledger(t, second.Load), 8).ShortName)

	options, err := a.Plans.Names(t.Context(), demotest.Trail, 8)
	require.NoError(t, err)
	require.NotEmpty(t, options)
	for _, s := range options {
		assert.LessOrEqual(t, len(s), 6)
	}
	l, err = a.Plans.Rename(t.Context(), demotest.Trail, nil, plan.Latest)
	require.NoError(t, err)
	assert.Equal(t, mine, row(l, 7).ShortName)
	seen := map[string]bool{}
	for _, r := range l.Rows {
		assert.False(t, seen[r.ShortName], r.ShortName)
		seen[r.ShortName] = true
		assert.Equal(t, r.ShortName, row(a.Ledger(t, second.Load), r.Slot).ShortName)
	}
}

// TestSets: a channel may be in several, leaves them when it is deleted, and is in
// them again when that is taken back.
func TestSets(t *testing.T) {
	a := demotest.Open(t)
	l := a.Ledger(t, demotest.Trail)
	marran, petrel := row(l, 7).ID, row(a.Ledger(t, demotest.Ferry), 10).ID
	all, err := a.Plans.AddSet(t.Context(), l.PlanID, plan.SetForm{Kind: "bank", Name: "East"}, []int64{marran, petrel})
	require.NoError(t, err)
	of := func(all []plan.SetInfo, name string) plan.SetInfo {
		for _, s := range all {
			if s.Name == name {
				return s
			}
		}
		t.Fatalf("no set %s", name)
		return plan.SetInfo{}
	}
	east := of(all, "East")
	require.Len(t, east.Members, 2)
	unit := map[int64]plan.SetUnit{}
	for _, u := range east.Units {
		unit[u.Load] = u
	}
	assert.Equal(t, []int{1, 0, 1}, []int{unit[demotest.Trail].Held, unit[demotest.Trail].Could, unit[demotest.Trail].Cannot}, "52 MHz is not for it")
	assert.Equal(t, 2, unit[demotest.Ferry].Held)
	assert.Contains(t, unit[demotest.Trail].Says, "not in its profile")
	scan := of(all, "Ridge scan")
	for _, u := range scan.Units {
		if u.Load == demotest.Trail {
			assert.Equal(t, "Trail has no scan list", u.Says)
		}
	}

	_, err = a.Plans.DeleteSome(t.Context(), demotest.Trail, []int{7}, plan.Latest)
	require.NoError(t, err)
	_, err = a.Plans.DeleteSome(t.Context(), demotest.Ferry, []int{7}, plan.Latest)
	require.NoError(t, err)
	all, err = a.Plans.Sets(t.Context(), l.PlanID)
	require.NoError(t, err)
	require.Len(t, of(all, "East").Members, 1, "nobody has it any more")
	_, err = a.Plans.Undo(t.Context(), demotest.Ferry, plan.Latest, false)
	require.NoError(t, err)
	all, err = a.Plans.Sets(t.Context(), l.PlanID)
	require.NoError(t, err)
	require.Len(t, of(all, "East").Members, 2)

	all, err = a.Plans.Join(t.Context(), l.PlanID, east.ID, plan.Joining{Channels: []int64{petrel}, Out: true})
	require.NoError(t, err)
	require.Len(t, of(all, "East").Members, 1)
	all, err = a.Plans.RenameSet(t.Context(), l.PlanID, east.ID, plan.Latest, "East coast")
	require.NoError(t, err)
	_, err = a.Plans.DropSet(t.Context(), l.PlanID, of(all, "East coast").ID, plan.Latest)
	require.NoError(t, err)
	_, err = a.Plans.Undo(t.Context(), demotest.Trail, plan.Latest, false)
	require.NoError(t, err)
	all, err = a.Plans.Sets(t.Context(), l.PlanID)
	require.NoError(t, err)
	require.Len(t, of(all, "East coast").Members, 1)

	var invalid *fault.Invalid
	for _, form := range []plan.SetForm{{"bank", ""}, {"bank", strings.Repeat("x", 41)}, {"nest", "x"}, {"bank", "EAST COAST"}, {"bank", "a\u202eb"}} {
		_, err := a.Plans.AddSet(t.Context(), l.PlanID, form, nil)
		require.ErrorAs(t, err, &invalid, "%v", form)
	}
	_, err = a.Plans.Join(t.Context(), l.PlanID, east.ID, plan.Joining{Channels: []int64{999999}})
	require.ErrorIs(t, err, fault.ErrNotFound)
}

// TestHistory: the past is told, named, compared and gone back to; each is one step.
func TestHistory(t *testing.T) {
	a := demotest.Open(t)
	l := a.Ledger(t, demotest.Trail)
	h, err := a.Plans.Keep(t.Context(), l.PlanID, "before")
	require.NoError(t, err)
	require.Len(t, h.Snapshots, 1)
	shot := h.Snapshots[0]
	was := a.Ledger(t, demotest.Trail).Rows

	_, err = a.Plans.Arrange(t.Context(), demotest.Trail, plan.Arrangement{Act: "move", Slots: []int{1, 2, 3}, To: 40, Revision: plan.Latest})
	require.NoError(t, err)
	_, err = a.Plans.DeleteSome(t.Context(), demotest.Trail, []int{5, 7}, plan.Latest)
	require.NoError(t, err)
	bob := a.Person(t, "Bob")
	slot := 50
	_, err = a.Plans.Store(bob, demotest.Trail, plan.Save{Line: `146.61 - "Bob's"`, Slot: &slot, Revision: plan.Latest})
	require.NoError(t, err)

	h, err = a.Plans.History(t.Context(), l.PlanID, 0)
	require.NoError(t, err)
	var said []string
	for _, c := range h.Changes[:4] {
		said = append(said, c.Says+" · "+c.Person)
	}
	assert.Equal(t, []string{"Stored Bob's in slot 50 · Bob", "Deleted 2 channels from 5 and 7 · operator", "Moved 3 channels to 40–42 · operator", "Kept a snapshot: before · operator"}, said)
	assert.True(t, h.Changes[0].Latest)

	side := plan.Side{Plan: l.PlanID, Event: shot.Event, Load: demotest.Trail}
	c, err := a.Plans.Compare(t.Context(), side, plan.Side{Plan: l.PlanID, Load: demotest.Trail})
	require.NoError(t, err)
	told := map[string]int{}
	for _, d := range c.Differences {
		switch {
		case d.Was == nil:
			told["new"]++
		case d.Is == nil:
			told["gone"]++
		default:
			told[d.Fields[0].Name]++
		}
	}
	assert.Equal(t, map[string]int{"new": 1, "gone": 2, "slot": 3}, told)
	assert.Equal(t, len(was)-5, c.Same)

	now := a.Ledger(t, demotest.Trail)
	back, err := a.Plans.GoBack(t.Context(), demotest.Trail, shot.Event, now.Revision)
	require.NoError(t, err)
	require.Len(t, back.Rows, len(was))
	for i, r := range back.Rows {
		assert.Equal(t, []any{was[i].Slot, was[i].Channel, was[i].ShortName, was[i].ID}, []any{r.Slot, r.Channel, r.ShortName, r.ID})
	}
	c, err = a.Plans.Compare(t.Context(), side, plan.Side{Plan: l.PlanID, Load: demotest.Trail})
	require.NoError(t, err)
	assert.Empty(t, c.Differences)
	again, err := a.Plans.Undo(t.Context(), demotest.Trail, back.Revision, false)
	require.NoError(t, err)
	assert.Len(t, again.Rows, len(now.Rows))

	var stale *fault.Stale
	_, err = a.Plans.GoBack(t.Context(), demotest.Trail, shot.Event, now.Revision)
	require.ErrorAs(t, err, &stale, "somebody changed it meanwhile")
	_, err = a.Plans.GoBack(t.Context(), demotest.Trail, 999999, plan.Latest)
	require.ErrorIs(t, err, fault.ErrNotFound)
	h, err = a.Plans.Forget(t.Context(), l.PlanID, shot.ID)
	require.NoError(t, err)
	assert.Empty(t, h.Snapshots)
}

// TestOfAKind: everything of one kind is fixed as one step, as it was shown.
func TestOfAKind(t *testing.T) {
	a := demotest.Open(t)
	l := a.Ledger(t, demotest.Trail)
	require.NotEmpty(t, l.Kinds)
	total := 0
	for _, k := range l.Kinds {
		fixes, look, err := a.Plans.OfKind(t.Context(), demotest.Trail, k.Rule)
		require.NoError(t, err)
		assert.Len(t, fixes, k.Fixable, k.Rule)
		assert.Equal(t, k.Channels, len(fixes)+len(look), k.Rule)
		total += len(fixes)
		if len(fixes) == 0 {
			continue
		}
		ids := map[int]string{}
		for _, f := range fixes {
			ids[f.Slot] = f.ID
		}
		fixed, err := a.Plans.FixAll(t.Context(), demotest.Trail, plan.Latest, k.Rule, ids)
		require.NoError(t, err)
		for _, f := range fixes {
			assert.Equal(t, f.Is, row(fixed, f.Slot).Channel)
		}
		var stale *fault.Stale
		_, err = a.Plans.FixAll(t.Context(), demotest.Trail, plan.Latest, k.Rule, ids)
		require.ErrorAs(t, err, &stale, "it is not offered a second time")
		undone, err := a.Plans.Undo(t.Context(), demotest.Trail, plan.Latest, false)
		require.NoError(t, err)
		assert.Equal(t, l.Tally, undone.Tally)
	}
	assert.Positive(t, total)

	n, err := a.Plans.Nearest(t.Context(), demotest.Lantern, row(l, 12).ID)
	require.NoError(t, err)
	assert.True(t, n.Can)
	assert.Nil(t, n.Slot)
	tasks, err := a.Plans.Work(t.Context(), demotest.Trail)
	require.NoError(t, err)
	assert.Equal(t, "stop", tasks[0].Kind)
	assert.Equal(t, 12, *tasks[0].Slot)
}
