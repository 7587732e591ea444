package importing_test

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/intake"
	"mnemos/core/listing"
	"mnemos/internal/catalog"
	"mnemos/internal/demo"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/fault"
	"mnemos/internal/house"
	"mnemos/internal/importing"
	"mnemos/internal/store"
)

const club = `Our repeaters;;;;;
Output;Shift;Tone;Town;Latitude;Longitude
147,255;+;100,0 / 77;Fern Top;41,05;-55,20
146,655;-;CSQ;Low Quay;41,00;-55,30
146,715;-;loud;Nowhere;41,00;-55,30
443,900;7;88,5;Odd Rock;41,00;-55,30
`

func finished(t *testing.T, a *demotest.Rig, id string) importing.State {
	t.Helper()
	var last importing.State
	ctx, cancel := context.WithTimeout(t.Context(), time.Minute)
	defer cancel()
	require.NoError(t, a.Imports.Watch(ctx, id, func(s importing.State) error { last = s; return nil }))
	return last
}

// TestBringAListing brings a table in, sees how it is understood, runs it and
// finds what it says under the entry line.
func TestBringAListing(t *testing.T) {
	a := demotest.Open(t)
	p, err := a.Bring(t.Context(), "../club list.csv", strings.NewReader(club))
	require.NoError(t, err)
	assert.Equal(t, "club list.csv", p.File)
	assert.Equal(t, "club list", p.Source)
	assert.Equal(t, ";", p.Info.Delimiter)
	assert.False(t, p.Prose)
	assert.Equal(t, []int{2, 2}, []int{p.Good, p.Bad})
	assert.Equal(t, intake.Output, p.Columns[0].Role)
	assert.Equal(t, []string{"147,255", "146,655", "146,715"}, p.Columns[0].Samples)
	require.Len(t, p.Rows, 4)
	assert.Equal(t, 3, p.Rows[0].Line)
	assert.Equal(t, "147.855", p.Rows[0].Record.Input.MHz())
	assert.Equal(t, "77.0", p.Rows[0].Record.DownlinkTone.Tone.String())
	assert.True(t, p.Rows[1].Record.UplinkTone.Known, "CSQ is a statement")
	assert.Contains(t, p.Rows[2].Faults[0].Message, "loud")
	assert.Contains(t, p.Rows[3].Faults[0].Message, "no direction")

	_, err = a.Imports.Run(t.Context(), p.ID, importing.Form{Source: " ", Columns: intake.Mapping{{Role: intake.Input}, {Role: intake.Input}}})
	var invalid *fault.Invalid
	require.ErrorAs(t, err, &invalid)
	assert.Len(t, invalid.Fields, 3, "every fault at once")

	_, err = a.Imports.Run(t.Context(), p.ID, importing.Form{Source: "Club list", Columns: p.Mapping(), Confirmed: true})
	require.NoError(t, err)
	s := finished(t, a, p.ID)
	assert.Equal(t, importing.Done, s.State, s.Error)
	assert.Equal(t, []int{4, 2, 2}, []int{s.Rows, s.Good, s.Bad})
	r, err := a.Plans.Read(t.Context(), demotest.Trail, "147.255 + 100", nil)
	require.NoError(t, err)
	require.NotEmpty(t, r.Matches)
	assert.Equal(t, "Club list", r.Matches[0].Source)
	sources, err := a.Catalog.Sources(t.Context(), 1)
	require.NoError(t, err)
	assert.Contains(t, sources, catalog.Source{Name: "Club list", File: "club list.csv", Imported: "2026-11-25T09:42:00Z", Records: 2, Rejects: 2})

	var out strings.Builder
	require.NoError(t, a.Imports.ExportRejects(t.Context(), "Club list", &out))
	assert.Equal(t, 3, strings.Count(out.String(), "\n"))
	assert.Contains(t, out.String(), "Output,Shift,Tone,Town,Latitude,Longitude,what is wrong\n\"146,715\",-,loud,Nowhere,")

	// The same table again is read as it was the last time.
	p, err = a.Bring(t.Context(), "other.csv", strings.NewReader(club))
	require.NoError(t, err)
	assert.True(t, p.Remembered)
	assert.Equal(t, "Club list", p.Source)
	require.NoError(t, a.Imports.Drop(p.ID))
	_, err = a.Imports.State(p.ID)
	assert.ErrorIs(t, err, fault.ErrNotFound)

	require.NoError(t, a.Catalog.DropSource(t.Context(), "Club list"))
	r, err = a.Plans.Read(t.Context(), demotest.Trail, "147.255 + 100", nil)
	require.NoError(t, err)
	assert.Empty(t, r.Matches)
	assert.ErrorIs(t, a.Catalog.DropSource(t.Context(), "Club list"), fault.ErrNotFound)
}

func TestBringWords(t *testing.T) {
	a := demotest.Open(t)
	p, err := a.Bring(t.Context(), "pasted", strings.NewReader("147.255+ PL 100 Fern Top\n146.655- Low Quay\nsee the board\n"))
	require.NoError(t, err)
	assert.True(t, p.Prose)
	assert.Equal(t, []int{2, 1}, []int{p.Good, p.Bad})
	_, err = a.Imports.Run(t.Context(), p.ID, importing.Form{Source: "Board", Prose: true})
	require.NoError(t, err)
	assert.Equal(t, 2, finished(t, a, p.ID).Good)
}

// TestFilesThatWereLeft are forgotten, and their copies with them.
func TestFilesThatWereLeft(t *testing.T) {
	a := demotest.Open(t)
	folder := a.Store.Folder()
	var first, last string
	for range 50 {
		p, err := a.Bring(t.Context(), "list.csv", strings.NewReader(many(3)))
		require.NoError(t, err)
		if first == "" {
			first = p.ID
		}
		last = p.ID
	}
	entries, err := os.ReadDir(filepath.Join(folder, store.Incoming))
	require.NoError(t, err)
	assert.Len(t, entries, 20)
	_, err = a.Imports.State(first)
	assert.ErrorIs(t, err, fault.ErrNotFound)
	_, err = a.Imports.State(last)
	assert.NoError(t, err)
}

func TestBringRefuses(t *testing.T) {
	a := demotest.Open(t)
	for _, content := range []string{"", `{"a":1}`, "PK\x03\x04nothing"} {
		_, err := a.Bring(t.Context(), "x", strings.NewReader(content))
		var invalid *fault.Invalid
		assert.ErrorAs(t, err, &invalid, "%q", content)
	}
	_, err := a.Imports.Run(t.Context(), "99", importing.Form{})
	assert.ErrorIs(t, err, fault.ErrNotFound)
}

// many is a long listing, one row a line.
func many(n int) string {
	var b strings.Builder
	b.WriteString("Callsign,Output,Shift,Tone,Town,Latitude,Longitude\n")
	for i := range n {
		fmt.Fprintf(&b, "QX%dAA,%d.%03d,+,103.5,Town %d,%.4f,%.4f\n", i, 147, i%79*5, i, 40+float64(i%1000)/500, -56+float64(i/1000)/50)
	}
	return b.String()
}

// TestTwoImportsQueue runs two at once, cancels the third, and finds nothing
// of what was cancelled.
func TestTwoImportsQueue(t *testing.T) {
	a := demotest.Open(t)
	var ids []string
	for i := range 3 {
		p, err := a.Bring(t.Context(), fmt.Sprintf("list %d.csv", i), strings.NewReader(many(3000)))
		require.NoError(t, err)
		_, err = a.Imports.Run(t.Context(), p.ID, importing.Form{Source: fmt.Sprint("List ", i), Columns: p.Mapping()})
		require.NoError(t, err)
		_, err = a.Imports.Run(t.Context(), p.ID, importing.Form{Source: "again", Columns: p.Mapping()})
		require.Error(t, err, "an import runs once")
		ids = append(ids, p.ID)
	}
	require.NoError(t, a.Imports.Drop(ids[2]))
	for _, id := range ids[:2] {
		s := finished(t, a, id)
		assert.Equal(t, importing.Done, s.State, s.Error)
	}
	assert.Equal(t, importing.Cancelled, finished(t, a, ids[2]).State)
	sources, err := a.Catalog.Sources(t.Context(), 1)
	require.NoError(t, err)
	for _, s := range sources {
		assert.NotEqual(t, "List 2", s.Name)
		if strings.HasPrefix(s.Name, "List") {
			assert.Equal(t, 3000, s.Records)
		}
	}
}

// TestIncomingIsEmptied leaves no file behind: not after an import, and not
// after a kill, which the next start clears up.
func TestIncomingIsEmptied(t *testing.T) {
	folder := t.TempDir()
	s, err := store.Open(t.Context(), folder)
	require.NoError(t, err)
	require.NoError(t, demo.Fill(t.Context(), s, demotest.Today))
	a := &demotest.Rig{House: house.New(s, func() time.Time { return demotest.Today }), Store: s}
	p, err := a.Bring(t.Context(), "list.csv", strings.NewReader(many(10)))
	require.NoError(t, err)
	_, err = a.Imports.Run(t.Context(), p.ID, importing.Form{Source: "List", Columns: p.Mapping()})
	require.NoError(t, err)
	finished(t, a, p.ID)
	_, err = a.Bring(t.Context(), "list.csv", strings.NewReader(many(10))) // and then nothing
	require.NoError(t, err)
	require.NoError(t, s.Close())
	entries, err := os.ReadDir(filepath.Join(folder, store.Incoming))
	require.NoError(t, err)
	assert.Len(t, entries, 1)
	s, err = store.Open(t.Context(), folder)
	require.NoError(t, err)
	require.NoError(t, s.Close())
	assert.NoDirExists(t, filepath.Join(folder, store.Incoming))
}

const handheld = `RX,TX,TX tone,RX tone,Town
147.255,147.855,100.0,,Fern Top
146.655,146.055,88.5,,Low Quay
146.715,146.115,91.5,91.5,High Quay
`

// TestViewpoint: whose TX it is is proven by the values, or asked; it is turned
// for all columns together, remembered only once it was confirmed, and asked
// again where the values deny it.
func TestViewpoint(t *testing.T) {
	a := demotest.Open(t)
	bring := func(text string) *importing.Preview {
		p, err := a.Bring(t.Context(), "list.csv", strings.NewReader(text))
		require.NoError(t, err)
		return p
	}
	first := func(p *importing.Preview) string {
		r := p.Rows[0].Record
		return r.Output.MHz() + " " + r.Input.MHz() + " " + r.UplinkTone.Tone.String()
	}
	p := bring(handheld)
	assert.True(t, p.View.Settled)
	assert.Equal(t, `In this table "TX" and "TX tone" are what you send: 147.855 MHz with 100.0 Hz.`, p.View.Sentence)
	assert.Equal(t, `In this table "TX" and "TX tone" are what the repeater sends: 147.855 MHz with 100.0 Hz.`, p.View.Other)
	assert.Equal(t, "147.255 147.855 100.0", first(p))

	turned, err := a.Imports.Preview(p.ID, importing.Form{Source: "x", Columns: p.Mapping(), Viewpoint: intake.Repeater})
	require.NoError(t, err)
	assert.Equal(t, intake.Input, turned.Columns[0].Role)
	assert.Equal(t, intake.DownlinkTone, turned.Columns[2].Role, "frequencies and tones turn together")
	back, err := a.Imports.Preview(p.ID, importing.Form{Source: "x", Columns: turned.Mapping(), Viewpoint: intake.Operator})
	require.NoError(t, err)
	assert.Equal(t, p.Mapping(), back.Mapping())
	_, err = a.Imports.Preview(p.ID, importing.Form{Viewpoint: "mine"})
	assert.ErrorContains(t, err, "operator or repeater")

	// Repeaters that other listings have settle it too.
	p = bring("Output,TX tone,RX tone\n146.94,88.5,127.3\n146.76,123.0,100.0\n444.5,146.2,77.0\n")
	assert.True(t, p.View.Settled)
	assert.Equal(t, intake.Operator, p.View.Viewpoint)
	assert.Contains(t, p.View.Reasons, "3 rows are repeaters that other listings have in this way")
	p = bring("Output,TX tone,RX tone\n146.94,127.3,88.5\n146.76,100.0,123.0\n444.5,77.0,146.2\n")
	assert.Equal(t, intake.Repeater, p.View.Viewpoint)
	assert.Equal(t, "88.5", p.Rows[0].Record.UplinkTone.Tone.String())

	// A table that does not tell is asked, and not imported until somebody says.
	unclear := "Output,TX tone,RX tone\n147.255,100.0,88.5\n146.655,88.5,100.0\n"
	p = bring(unclear)
	assert.False(t, p.View.Settled)
	_, err = a.Imports.Run(t.Context(), p.ID, importing.Form{Source: "Unclear", Columns: p.Mapping(), Confirmed: true})
	assert.ErrorContains(t, err, "say whose TX it is")
	_, err = a.Imports.Run(t.Context(), p.ID, importing.Form{Source: "Unclear", Columns: p.Mapping(), Viewpoint: intake.Repeater, Confirmed: true})
	require.NoError(t, err)
	assert.Equal(t, importing.Done, finished(t, a, p.ID).State)
	r, err := a.Plans.Read(t.Context(), demotest.Trail, "147.255", nil)
	require.NoError(t, err)
	require.NotEmpty(t, r.Matches)
	assert.Equal(t, "88.5", r.Matches[0].UplinkTone.Tone.String(), "what the repeater hears")

	// The answer is remembered for the next table with these headings, and asked
	// again where the values say the opposite.
	p = bring(unclear)
	assert.True(t, p.Remembered && p.View.Settled)
	assert.Equal(t, intake.Repeater, p.View.Viewpoint)
	p = bring("Output,TX tone,RX tone\n" + strings.Repeat("147.255,100.0,\n146.655,88.5,\n", 4))
	assert.False(t, p.Remembered)
	assert.False(t, p.View.Settled)
	assert.Contains(t, p.View.Reasons, "it was read the other way round the last time")
}

// TestRowsThatAreNoRepeaters: simplex, calling and receive-only rows become
// channels that can be added, and never move a channel by a fix; headings,
// notes and totals between the rows are set aside.
func TestRowsThatAreNoRepeaters(t *testing.T) {
	a := demotest.Open(t)
	p, err := a.Bring(t.Context(), "club.csv", strings.NewReader(`Output,Shift,Tone,Town,Type
147.255,+,100.0,Fern Top,FM
146.580,simplex,88.5,Club talk,
146.595,,,Calling here,calling
162.550,rx only,,Weather,
Repeaters further away,,,,
Output,Shift,Tone,Town,Type
146.655,-,,Low Quay,FM
Total: 5,,,,
146.715,-,loud,Odd Rock,FM
`))
	require.NoError(t, err)
	assert.Equal(t, []int{5, 1, 3, 3}, []int{p.Good, p.Bad, p.Aside, p.Channels})
	var aside []string
	for _, r := range p.Rows {
		if r.Aside != "" {
			aside = append(aside, r.Aside)
		}
	}
	assert.Equal(t, []string{"a note or a total: it has no frequency", "the heading again", "a note or a total: it has no frequency"}, aside)
	_, err = a.Imports.Run(t.Context(), p.ID, importing.Form{Source: "Club", Columns: p.Mapping(), Confirmed: true})
	require.NoError(t, err)
	s := finished(t, a, p.ID)
	assert.Equal(t, []int{5, 1, 3}, []int{s.Good, s.Bad, s.Aside}, s.Error)

	r, err := a.Plans.Read(t.Context(), demotest.Trail, "146.58 88.5", nil)
	require.NoError(t, err)
	assert.Empty(t, r.Matches, "a simplex channel is not a repeater on its frequency")
	for _, line := range []string{"146.585 -", "146.595 + 100"} {
		r, err := a.Plans.Read(t.Context(), demotest.Trail, line, nil)
		require.NoError(t, err)
		for _, f := range r.Findings {
			for _, fix := range f.Fixes {
				assert.NotEqual(t, "146.580", fix.Result.Receive.MHz(), "%s: %s", line, f.Title)
				assert.NotEqual(t, "146.595", fix.Result.Receive.MHz(), "%s: %s", line, f.Title)
			}
		}
	}
	found, err := a.Find(t.Context(), "Club")
	require.NoError(t, err)
	remarks := map[string]string{}
	ids := map[string]listing.ID{}
	for _, x := range found.Rows {
		remarks[x.Best.Title()], ids[x.Best.Title()] = x.Remark(), x.ID
	}
	assert.Len(t, remarks, 5, "also without a place")
	assert.Equal(t, "a simplex channel, not a repeater", remarks["Club talk"])
	assert.Equal(t, "a channel to listen to, not a repeater", remarks["Weather"])
	l, err := a.Plans.Ledger(t.Context(), demotest.Trail)
	require.NoError(t, err)
	added, err := a.Plans.AddFound(t.Context(), demotest.Trail, l.Revision, []listing.ID{ids["Club talk"], ids["Weather"], ids["Calling here"]})
	require.NoError(t, err)
	require.Len(t, added.Slots, 3, "%v", added.Skipped)
	for i, want := range []string{"146.580 simplex", "162.550 none", "146.595 simplex"} {
		v, err := a.Plans.Evidence(t.Context(), demotest.Trail, added.Slots[i])
		require.NoError(t, err)
		assert.Equal(t, want, v.Channel.Receive.MHz()+" "+string(v.Channel.Side.Kind))
	}
}

// TestMendedRowsComeAgain: what was made of a row that could not be read is
// made of it again in a newer edition, a discarded row stays away, and lines of
// words can be mended too.
func TestMendedRowsComeAgain(t *testing.T) {
	a := demotest.Open(t)
	run := func(text string, prose bool) importing.State {
		p, err := a.Bring(t.Context(), "club.csv", strings.NewReader(text))
		require.NoError(t, err)
		require.Equal(t, prose, p.Prose)
		_, err = a.Imports.Run(t.Context(), p.ID, importing.Form{Source: "Club", Prose: prose, Columns: p.Mapping(), Confirmed: true, AcceptLosses: true})
		require.NoError(t, err)
		return finished(t, a, p.ID)
	}
	rejects := func() []importing.RejectRow {
		r, err := a.Imports.Rejects(t.Context(), "Club", 0)
		require.NoError(t, err)
		return r.Rows
	}
	table := "Output,Shift,Tone,Town\n147.255,+,100.0,Fern Top\n146.655,-,loud,Low Quay\n146.715,-,louder,High Quay\n146.775,-\n146.805,,quiet\n"
	s := run(table, false)
	assert.Equal(t, []int{2, 3}, []int{s.Good, s.Bad})
	rows := rejects()
	require.Len(t, rows, 3)
	_, err := a.Mend(t.Context(), "Club", rows[0].ID, []string{"146.655", "-", "soft", "Low Quay"})
	require.ErrorContains(t, err, "cells/2", "the fault is beside its cell")
	_, err = a.Mend(t.Context(), "Club", rows[0].ID, []string{"146.655", "-", "88.5", "Low Quay"})
	require.NoError(t, err)
	require.NoError(t, a.Imports.SetReject(t.Context(), "Club", rows[1].ID, "discarded"))
	require.NoError(t, a.Imports.SetReject(t.Context(), "Club", rows[2].ID, "later"))
	require.Error(t, a.Imports.SetReject(t.Context(), "Club", rows[2].ID, "burn"))
	require.ErrorIs(t, a.Imports.SetReject(t.Context(), "Club", 99999, "later"), fault.ErrNotFound)
	// A cell that is missing can be typed too.
	_, err = a.Mend(t.Context(), "Club", rows[2].ID, []string{"146.805", "-", "77", "Far Quay"})
	require.NoError(t, err)
	assert.Equal(t, "discarded", rejects()[0].State)

	s = run(strings.Replace(table, "100.0", "103.5", 1), false)
	assert.Equal(t, []int{4, 0, 1}, []int{s.Good, s.Bad, s.Aside}, "both as they were mended, and the discarded one stays away")
	found, err := a.Find(t.Context(), "low quay")
	require.NoError(t, err)
	require.Len(t, found.Rows, 1)
	assert.Equal(t, "88.5", found.Rows[0].Best.UplinkTone.Tone.String())

	// Keys that are met several times, also one that is named like a second one.
	s = run("Key,Output,Shift\nA #2,147.255,+\nA,146.655,-\nA,146.715,-\n", false)
	assert.Equal(t, []int{3, 0}, []int{s.Good, s.Bad}, s.Error)

	s = run("147.255+ PL 100 Fern Top\n146.655- PL 1O3 Low Quay\n146.715- PL 88.5 Odd Rock\n", true)
	require.Equal(t, []int{2, 1}, []int{s.Good, s.Bad}, s.Error)
	row := rejects()[0]
	require.Len(t, row.Cells, 1, "the line as it came")
	_, err = a.Mend(t.Context(), "Club", row.ID, []string{"146.655- PL 103.5 Low Quay"})
	require.NoError(t, err)
	assert.Empty(t, rejects())
}

// TestChangesBeforeTheyAreMade: a listing that is there already is held back
// with what would change, and then changes or stays, whole.
func TestChangesBeforeTheyAreMade(t *testing.T) {
	a := demotest.Open(t)
	bring := func(text string) (*importing.Preview, importing.Form) {
		p, err := a.Bring(t.Context(), "club.csv", strings.NewReader(text))
		require.NoError(t, err)
		form := importing.Form{Source: "Club", Columns: p.Mapping(), Confirmed: true, Hold: true}
		_, err = a.Imports.Run(t.Context(), p.ID, form)
		require.NoError(t, err)
		return p, form
	}
	records := func() int {
		sources, err := a.Catalog.Sources(t.Context(), 1)
		require.NoError(t, err)
		for _, s := range sources {
			if s.Name == "Club" {
				return s.Records
			}
		}
		return 0
	}
	p, _ := bring("Key,Output,Shift,Tone,Town\na,147.255,+,100.0,Fern Top\nb,146.655,-,88.5,Low Quay\nc,146.715,-,91.5,Odd Rock\n")
	s := finished(t, a, p.ID)
	assert.Equal(t, importing.Done, s.State, "a new listing changes nothing that is there")
	assert.Nil(t, s.Changes)

	next := "Key,Output,Shift,Tone,Town\na,147.255,+,103.5,Fern Top\nb,146.655,-,88.5,Low Quay\nd,444.5,+,77,High Quay\ne,444.7,+,77,Far Quay\n"
	p, _ = bring(next)
	s = finished(t, a, p.ID)
	assert.Equal(t, importing.Held, s.State, s.Error)
	require.NotNil(t, s.Changes)
	assert.Equal(t, []int{2, 1, 1, 1}, []int{s.Changes.Fresh, s.Changes.Changed, s.Changes.Gone, s.Changes.Same})
	var rows []string
	for _, r := range s.Changes.Rows {
		rows = append(rows, fmt.Sprint(r.What, " ", r.Title, " ", r.Fields))
	}
	assert.Equal(t, []string{"gone Odd Rock []", "new High Quay []", "new Far Quay []", "changed Fern Top [uplink_tone]"}, rows)
	assert.Equal(t, 3, records(), "nothing has changed yet")
	r, err := a.Plans.Read(t.Context(), demotest.Trail, "444.5 +5 77", nil)
	require.NoError(t, err)
	for _, m := range r.Matches {
		assert.NotEqual(t, "Club", m.Source)
	}
	require.NoError(t, a.Imports.Drop(p.ID))
	assert.Equal(t, 3, records(), "and nothing changes where it is left")

	p, form := bring(next)
	require.Equal(t, importing.Held, finished(t, a, p.ID).State)
	done, err := a.Imports.Run(t.Context(), p.ID, form)
	require.NoError(t, err)
	assert.Equal(t, importing.Done, done.State)
	assert.Equal(t, 4, records())
}

// TestCancelledAtEveryMoment cancels imports over a listing at many moments,
// also while the edition before is still being swept: what the state says is
// what the listing holds, the old whole or the new whole.
func TestCancelledAtEveryMoment(t *testing.T) {
	a := demotest.Open(t)
	lists := []string{many(1500), strings.ReplaceAll(many(2100), "Town", "City")}
	begun := time.Now()
	p, err := a.Bring(t.Context(), "list.csv", strings.NewReader(lists[1]))
	require.NoError(t, err)
	_, err = a.Imports.Run(t.Context(), p.ID, importing.Form{Source: "List", Columns: p.Mapping()})
	require.NoError(t, err)
	require.Equal(t, importing.Done, finished(t, a, p.ID).State)
	whole := time.Since(begun)
	holds := 2100
	ended := map[string]int{}
	const rounds = 16
	for i := range rounds {
		text := lists[i%2]
		p, err := a.Bring(t.Context(), "list.csv", strings.NewReader(text))
		require.NoError(t, err)
		_, err = a.Imports.Run(t.Context(), p.ID, importing.Form{Source: "List", Columns: p.Mapping(), AcceptLosses: true})
		require.NoError(t, err)
		time.Sleep(whole * time.Duration(i) * 2 / rounds)
		require.NoError(t, a.Imports.Drop(p.ID))
		s, err := a.Imports.State(p.ID)
		if err == nil && !s.Over() {
			*s = finished(t, a, p.ID)
		}
		state := importing.Done // an import that was over is forgotten
		if err == nil {
			state = s.State
		}
		ended[state]++
		if state == importing.Done {
			holds = []int{1500, 2100}[i%2]
		} else {
			require.Equal(t, importing.Cancelled, state, s.Error)
		}
		found := 0
		sources, err := a.Catalog.Sources(t.Context(), 1)
		require.NoError(t, err)
		for _, x := range sources {
			if x.Name == "List" {
				found = x.Records
			}
		}
		require.Equal(t, holds, found, "round %d: %s", i, state)
	}
	assert.Positive(t, ended[importing.Cancelled])
	assert.Positive(t, ended[importing.Done], "%v", ended)
}

// TestKeysDoNotDependOnOrder: the same rows in another order are the same
// records, also where several share what a key is made of.
func TestKeysDoNotDependOnOrder(t *testing.T) {
	rows := []string{
		"146.655,-,88.5,Low Quay", "146.655,-,91.5,Low Quay", "146.655,-,100.0,Low Quay", "147.255,+,77.0,Fern Top", "147.255,+,79.7,Fern Top", "444.5,+,77.0,High Quay",
	}
	read := func(order []int) map[string]string {
		a := demotest.Open(t)
		text := "Output,Shift,Tone,Town\n"
		for _, i := range order {
			text += rows[i] + "\n"
		}
		p, err := a.Bring(t.Context(), "club.csv", strings.NewReader(text))
		require.NoError(t, err)
		_, err = a.Imports.Run(t.Context(), p.ID, importing.Form{Source: "Club", Columns: p.Mapping()})
		require.NoError(t, err)
		s := finished(t, a, p.ID)
		require.Equal(t, importing.Done, s.State, s.Error)
		found, err := a.Find(t.Context(), "Club")
		require.NoError(t, err)
		out := map[string]string{}
		for _, x := range found.Rows {
			for _, st := range x.Statements {
				out[st.Key] = st.UplinkTone.Tone.String()
			}
		}
		return out
	}
	want := read([]int{0, 1, 2, 3, 4, 5})
	assert.Len(t, want, 6)
	for _, order := range [][]int{{5, 4, 3, 2, 1, 0}, {2, 0, 4, 1, 5, 3}} {
		assert.Equal(t, want, read(order))
	}
}
