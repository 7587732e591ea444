package plan_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/check"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/internal/assess"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/fault"
	"mnemos/internal/plan"
)

func row(l *plan.Ledger, slot int) *plan.Row {
	for i := range l.Rows {
		if l.Rows[i].Slot == slot {
			return &l.Rows[i]
		}
	}
	return nil
}

func text(s string) *string { return &s }

func TestReadChoosesSlotAndName(t *testing.T) {
	a := demotest.Open(t)
	r, err := a.Plans.Read(t.Context(), demotest.Trail, `147.24 "Marran Lights"`, nil)
	require.NoError(t, err)
	require.NotNil(t, r.Slot)
	assert.Equal(t, 4, *r.Slot, "the next vacant slot")
	assert.NotEqual(t, "MARRAN", r.ShortName, "that one is taken in slot 7")
	assert.True(t, strings.HasPrefix(r.ShortName, "M"))
	assert.Empty(t, r.Occupied)
	assert.InDelta(t, 5, *r.Watts, 0)

	slot := 10
	r, err = a.Plans.Read(t.Context(), demotest.Trail, "147.24", &slot)
	require.NoError(t, err)
	assert.Equal(t, 10, *r.Slot, "a slot that was chosen goes before the next vacant one")
	r, err = a.Plans.Read(t.Context(), demotest.Trail, "147.24 #7", &slot)
	require.NoError(t, err)
	assert.Equal(t, "Marran Light", r.Occupied, "and a slot that was typed before both")
	assert.Len(t, r.Lines, len(r.Findings))

	r, err = a.Plans.Read(t.Context(), demotest.Lantern, "147.3 1750", nil)
	require.NoError(t, err)
	require.Len(t, r.Losses, 1)
	assert.Equal(t, channel.FieldTransmitTone, r.Losses[0].Field)
	r, err = a.Plans.Read(t.Context(), demotest.Trail, "", nil)
	require.NoError(t, err)
	assert.False(t, r.Complete)
	assert.Empty(t, r.Sentence)
}

// TestFixesOfALine applies every fix that is offered for a line, and wants
// the line that it makes to read as the channel that it promised.
func TestFixesOfALine(t *testing.T) {
	a := demotest.Open(t)
	us := band.MustLoad("us")
	for _, line := range []string{
		`147.24 + 100 "Beacon Hill"`, "146.94 + 127.3", "147.39 +6 107.2", "146.34 tx 146.94 88.5", "146.943 88.5", "145.31 ts 114.8",
		"145.27", "162.475 simplex", "145.9", "146.94 141", "443.275 131.8/100", "146.76 ts 123 nfm low", "29.64 - 100", "146.55 #1",
		`147.24 "Beacon Hill" skip #9`, "146.64", "146.88 156.7",
	} {
		r, err := a.Plans.Read(t.Context(), demotest.Trail, line, nil)
		require.NoError(t, err)
		fixes := 0
		for i, f := range r.Findings {
			for j, fix := range f.Fixes {
				fixes++
				made := r.Lines[i][j]
				again, err := assess.Ask(t.Context(), assess.Question{Line: made, Plan: us, Source: listing.Memory(nil), Settings: check.Defaults(demotest.Today)})
				require.NoError(t, err)
				assert.Equal(t, fix.Result, again.Channel, "%q by %q is %q", line, fix.Label, made)
				if fix.Slot != nil {
					assert.Equal(t, *fix.Slot, *again.Slot, made)
				}
			}
		}
		assert.NotZero(t, fixes, "%q has a fix", line)
	}
}

func TestStoreAndSharedChannels(t *testing.T) {
	a := demotest.Open(t)
	l := a.Ledger(t, demotest.Trail)
	_, err := a.Plans.Store(t.Context(), demotest.Trail, plan.Save{Line: `146.55 "Mine" #7`, Revision: l.Revision})
	var invalid *fault.Invalid
	require.ErrorAs(t, err, &invalid)
	assert.Equal(t, "slot", invalid.Fields[0].Field)

	// The radios of a plan share a channel: a change is a change for all.
	l, err = a.Plans.Update(t.Context(), demotest.Trail, 1, plan.Update{Name: text("Hailing"), Revision: l.Revision})
	require.NoError(t, err)
	assert.Equal(t, "Hailing", row(a.Ledger(t, demotest.Ferry), 1).Channel.Name)

	// Emptying a slot of one radio leaves the others theirs.
	l, err = a.Plans.Delete(t.Context(), demotest.Trail, 1, l.Revision)
	require.NoError(t, err)
	assert.Nil(t, row(l, 1))
	assert.Equal(t, "Hailing", row(a.Ledger(t, demotest.Ferry), 1).Channel.Name)
	assert.Equal(t, 1, *l.NextSlot)

	// Over a channel, on purpose; undo brings the old one back.
	l, err = a.Plans.Store(t.Context(), demotest.Trail, plan.Save{Line: `146.55 "Mine" #7`, Replace: true, Revision: l.Revision})
	require.NoError(t, err)
	assert.Equal(t, "Mine", row(l, 7).Channel.Name)
	l, err = a.Plans.Undo(t.Context(), demotest.Trail, l.Revision, false)
	require.NoError(t, err)
	assert.Equal(t, "Marran Light", row(l, 7).Channel.Name)
	assert.Equal(t, "store Mine in slot 7", l.Redo)

	_, err = a.Plans.Delete(t.Context(), demotest.Trail, 7, l.Revision-1)
	var stale *fault.Stale
	require.ErrorAs(t, err, &stale)
	assert.Equal(t, l.Revision, stale.Now.(*plan.Ledger).Revision)
	_, err = a.Plans.Delete(t.Context(), demotest.Trail, 150, l.Revision)
	assert.ErrorIs(t, err, fault.ErrNotFound)
}

// TestFix carries out what a finding offers, under its ID and while it does.
func TestFix(t *testing.T) {
	a := demotest.Open(t)
	l := a.Ledger(t, demotest.Trail)
	fix := row(l, 7).Top.Fixes[0]
	assert.Equal(t, "Send 88.5 Hz", fix.Label)
	other := row(l, 6).Channel
	l, err := a.Plans.Fix(t.Context(), demotest.Trail, 7, l.Revision, fix.ID)
	require.NoError(t, err)
	assert.Equal(t, evidence.Agrees, row(l, 7).Verdict)
	assert.Empty(t, row(l, 7).Flags)
	assert.Equal(t, "fix Marran Light in slot 7", l.Undo)
	for _, bad := range []struct {
		slot int
		id   string
	}{{7, fix.ID}, {6, fix.ID}, {7, ""}, {7, "tone-differs"}} {
		_, err := a.Plans.Fix(t.Context(), demotest.Trail, bad.slot, l.Revision, bad.id)
		assert.True(t, fault.IsStale(err), "%v", bad)
	}
	assert.Equal(t, l.Revision, a.Ledger(t, demotest.Trail).Revision)
	assert.Equal(t, other, row(l, 6).Channel)
}

func TestEvidence(t *testing.T) {
	a := demotest.Open(t)
	v, err := a.Plans.Evidence(t.Context(), demotest.Trail, 7)
	require.NoError(t, err)
	require.NotNil(t, v.Published)
	assert.Equal(t, "QX2MRN", v.Published.Callsign)
	assert.Equal(t, 2, v.Statements)
	assert.True(t, v.Published.Within)
	// source: 4.12 (√h₁+√h₂) km, common practice; aerials of 110 m and 1.5 m
	assert.InDelta(t, 4.12*(10.488+1.2247), *v.Published.Horizon, 0.01)
	assert.Equal(t, "2 m", v.BandName)
	assert.Equal(t, evidence.WouldNot, v.Path.Up.Passes)
	v, err = a.Plans.Evidence(t.Context(), demotest.Trail, 27)
	require.NoError(t, err)
	assert.Nil(t, v.Published)
	assert.Zero(t, v.Statements)
}

func TestKeypad(t *testing.T) {
	a := demotest.Open(t)
	k, err := a.Sheets.Keypad(t.Context(), demotest.Trail, 12)
	require.NoError(t, err)
	assert.NotEmpty(t, k.Stops)
	assert.Empty(t, k.Sheet.Rest.Tone, "what is not sent has no mark")
	k, err = a.Sheets.Keypad(t.Context(), demotest.Trail, 7)
	require.NoError(t, err)
	assert.Empty(t, k.Stops)
	assert.Equal(t, []string{"You send the tone the repeater sends. 127.3 Hz is its downlink. It listens for 88.5 Hz."}, k.Doubts)
	assert.Equal(t, "Harbour list, 2026-11-02", k.Source)
	_, err = a.Sheets.Keypad(t.Context(), demotest.Trail, 4)
	assert.ErrorIs(t, err, fault.ErrNotFound)
}

func TestRibbon(t *testing.T) {
	a := demotest.Open(t)
	r, err := a.Plans.Ribbon(t.Context(), demotest.Trail, "")
	require.NoError(t, err)
	assert.Equal(t, "2 m", r.Band.Name)
	assert.Equal(t, []string{"2 m", "70 cm", "weather broadcast"}, r.Bands)
	off := 0
	for _, c := range r.Channels {
		assert.True(t, r.Band.Holds(c.Receive))
		if !c.Inside {
			off++
			assert.Equal(t, 12, c.Slot)
		}
	}
	assert.Equal(t, 1, off)
	have := map[freq.Hz]bool{}
	for _, row := range a.Ledger(t, demotest.Trail).Rows {
		have[row.Channel.Receive] = true
	}
	require.NotEmpty(t, r.Nearby)
	for _, f := range r.Nearby {
		assert.False(t, have[f], "%v is in the radio", f)
		assert.NotEqual(t, freq.MustParse("145.270"), f, "a digital repeater is left out")
	}
	_, err = a.Plans.Ribbon(t.Context(), demotest.Trail, "13 m")
	assert.ErrorIs(t, err, fault.ErrNotFound)
}

func TestWriteText(t *testing.T) {
	src := listing.Memory{{Key: "k", Callsign: "QX1BHL", Locality: "Beacon Hill", Output: 147_240_000, Input: 147_840_000, Mode: listing.FM}}
	a, err := assess.Ask(t.Context(), assess.Question{Line: "14724 88.5", Plan: band.MustLoad("us"), Source: src, Settings: check.Defaults(demotest.Today)})
	require.NoError(t, err)
	var b strings.Builder
	require.NoError(t, a.WriteText(&b))
	for _, want := range []string{
		"14724            receive (147.240?)", "88.5             tone", "transmits 147.840 MHz with 88.5 Hz", "Beacon Hill QX1BHL",
		"uplink not stated, downlink not stated; place unknown, undated", "verdict: unverified",
	} {
		assert.Contains(t, b.String(), want)
	}
}
