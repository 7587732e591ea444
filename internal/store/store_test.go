package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"sync"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/tone"
	"mnemos/internal/fault"
)

func open(t *testing.T, folder string) *Store {
	t.Helper()
	s, err := Open(t.Context(), folder)
	require.NoError(t, err)
	return s
}

func fresh(t *testing.T) (*Store, Plan, Load) {
	t.Helper()
	s := open(t, t.TempDir())
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	p, loads, err := s.NewPlan(t.Context(), Plan{Name: "Walk"}, Stamp{At: stamp.At}, "trail")
	require.NoError(t, err)
	return s, p, loads[0]
}

var stamp = Stamp{PersonID: 1, At: "2026-11-25T09:42:00Z", Label: "store"}

func put(s *Store, p Plan, l Load, slot int, c channel.Channel) error {
	now, err := s.Plan(context.Background(), p.ID)
	if err != nil {
		return err
	}
	return s.Edit(context.Background(), p.ID, now.Revision, stamp, func(e *Edit) error {
		id, err := e.AddChannel(c, listing.ID{})
		if err != nil {
			return err
		}
		return e.AddEntry(Entry{LoadID: l.ID, Slot: slot, ChannelID: id, ShortName: "X", Scan: entry.ScanYes})
	})
}

func TestKeeps(t *testing.T) {
	folder := t.TempDir()
	s := open(t, folder)
	p, loads, err := s.NewPlan(t.Context(), Plan{Name: "Walk"}, Stamp{At: stamp.At}, "trail")
	require.NoError(t, err)
	c := channel.Channel{
		Name: "Quay", Receive: 442_650_000, Side: channel.ShiftSide(5_000_000), TransmitTone: tone.MustParse("D023I"),
		ReceiveTone: tone.MustParse("100"), Width: channel.Narrow, Power: channel.Mid,
	}
	require.NoError(t, put(s, p, loads[0], 7, c))
	lat := 41.5
	o := Person{ID: 1, Name: "a", Colour: "teal", Services: Strings{"gmrs"}, Bands: Strings{"2 m", "70 cm"}, Licence: "full"}
	p, err = s.Plan(t.Context(), p.ID)
	require.NoError(t, err)
	p.Region, p.Lat, p.Height, p.TonePolicy, p.Season = "us", &lat, 3, "tone squelch first", "autumn"
	require.NoError(t, s.Edit(t.Context(), p.ID, Latest, stamp, func(e *Edit) error { return errors.Join(e.Put(o), e.Put(p)) }))
	require.NoError(t, s.Close())

	s = open(t, folder)
	defer func() { require.NoError(t, s.Close()) }()
	entries, err := s.Entries(t.Context(), loads[0].ID)
	require.NoError(t, err)
	require.Len(t, entries, 1)
	assert.Equal(t, c, entries[0].Channel)
	assert.Equal(t, 7, entries[0].Slot)
	people, err := s.People(t.Context())
	require.NoError(t, err)
	o.Rev = people[0].Rev
	assert.Equal(t, []Person{o}, people)
	got, err := s.Plan(t.Context(), p.ID)
	require.NoError(t, err)
	p.Rev, p.Revision = got.Rev, got.Rev
	assert.Equal(t, p, got)
	_, err = s.Load(t.Context(), 99)
	assert.ErrorIs(t, err, fault.ErrNotFound)
}

// TestStaleAndWhole: a row that somebody changed meanwhile is refused and
// named, others are not; and a change takes place whole or not at all.
func TestStaleAndWhole(t *testing.T) {
	s, p, l := fresh(t)
	require.NoError(t, call(t, s, "Ann"))
	rename := func(seen int64, slot int, name string) error {
		es, err := s.Entries(t.Context(), l.ID)
		require.NoError(t, err)
		c := es[slot-1].Channel
		c.Name = name
		return s.Edit(t.Context(), p.ID, seen, stamp, func(e *Edit) error { return e.SetChannel(es[slot-1].ChannelID, c, listing.ID{}) })
	}
	for slot := range 2 {
		require.NoError(t, put(s, p, l, slot+1, channel.New(146_520_000)))
	}
	seen := revisionOf(t, s, p)
	require.NoError(t, rename(seen, 1, "Quay"))
	require.NoError(t, rename(seen, 2, "Pier"), "another row")
	err := rename(seen, 1, "Lock")
	require.True(t, fault.IsStale(err))
	require.EqualError(t, err, "146.520 MHz was changed since: name is Quay now and was none (by Ann)")

	before := revisionOf(t, s, p)
	require.NoError(t, s.Edit(t.Context(), p.ID, before, stamp, func(*Edit) error { return nil }))
	assert.Equal(t, before, revisionOf(t, s, p), "a change that changes nothing is none")
	boom := errors.New("boom")
	err = s.Edit(t.Context(), p.ID, before, stamp, func(e *Edit) error {
		_, err := e.AddChannel(channel.New(146_550_000), listing.ID{})
		require.NoError(t, err)
		return boom
	})
	require.ErrorIs(t, err, boom)
	assert.Equal(t, before, revisionOf(t, s, p), "a failed change leaves nothing behind")
	var n int
	require.NoError(t, s.read.Get(&n, "SELECT count(*) FROM channel"))
	assert.Equal(t, 2, n)
	assert.True(t, fault.IsStale(put(s, p, l, 1, channel.New(146_550_000))), "a slot holds one channel")
	assert.ErrorIs(t, s.Edit(t.Context(), 99, Latest, stamp, func(e *Edit) error { return e.Put(Person{ID: 7}) }), fault.ErrNotFound)
}

func revisionOf(t *testing.T, s *Store, p Plan) int64 {
	t.Helper()
	now, err := s.Plan(t.Context(), p.ID)
	require.NoError(t, err)
	return now.Revision
}

// TestUndo makes random changes and takes them back one by one: every state
// must come back exactly, and forward again.
func TestUndo(t *testing.T) {
	s, _, _ := fresh(t)
	rapid.Check(t, func(r *rapid.T) {
		ctx := t.Context()
		p, loads, err := s.NewPlan(ctx, Plan{Name: "Walk"}, Stamp{At: stamp.At}, "trail")
		require.NoError(r, err)
		l := loads[0]
		state := func() []Entry {
			es, err := s.Entries(ctx, l.ID)
			require.NoError(r, err)
			for i := range es {
				es[i].Rev = 0 // when it came there
			}
			return es
		}
		revision := func() int64 {
			now, err := s.Plan(ctx, p.ID)
			require.NoError(r, err)
			return now.Revision
		}
		states := [][]Entry{state()}
		for range rapid.IntRange(1, 8).Draw(r, "changes") {
			es := state()
			used := map[int]Entry{}
			for _, e := range es {
				used[e.Slot] = e
			}
			slot := rapid.IntRange(1, 4).Draw(r, "slot")
			old, taken := used[slot]
			other := rapid.IntRange(1, 4).Draw(r, "other")
			err := s.Edit(ctx, p.ID, revision(), stamp, func(e *Edit) error {
				switch {
				case !taken:
					id, err := e.AddChannel(channel.New(freq.Hz(146_000_000+slot*5_000)), listing.ID{})
					require.NoError(r, err)
					return e.AddEntry(Entry{LoadID: l.ID, Slot: slot, ChannelID: id, Scan: entry.ScanYes})
				case rapid.Bool().Draw(r, "delete"):
					require.NoError(r, e.DropEntry(old.ID))
					return e.DropChannel(old.ChannelID)
				case used[other].ID != 0 && other != slot:
					return e.Arrange([]Placing{{old, other}, {used[other], slot}})
				default:
					c := old.Channel
					c.Name += "x"
					return e.SetChannel(old.ChannelID, c, listing.ID{})
				}
			})
			require.NoError(r, err)
			states = append(states, state())
		}
		for i := len(states) - 2; i >= 0; i-- {
			_, err := s.Undo(ctx, p.ID, revision(), stamp, false)
			require.NoError(r, err)
			require.Equal(r, states[i], state())
		}
		_, err = s.Undo(ctx, p.ID, revision(), stamp, false)
		require.ErrorIs(r, err, fault.ErrNothing)
		for i := 1; i < len(states); i++ {
			_, err := s.Undo(ctx, p.ID, revision(), stamp, true)
			require.NoError(r, err)
			require.Equal(r, states[i], state())
		}
	})
}

func TestUndoIsPersonal(t *testing.T) {
	s, p, l := fresh(t)
	require.NoError(t, put(s, p, l, 1, channel.New(146_520_000)))
	u, err := s.Undoable(t.Context(), p.ID, 2)
	require.NoError(t, err)
	assert.Empty(t, u.Undo)
	es, err := s.Entries(t.Context(), l.ID)
	require.NoError(t, err)
	theirs := stamp
	theirs.PersonID = 2
	require.NoError(t, s.Edit(t.Context(), p.ID, Latest, theirs, func(e *Edit) error {
		c := es[0].Channel
		c.Name = "theirs"
		return e.SetChannel(es[0].ChannelID, c, listing.ID{})
	}))
	_, err = s.Undo(t.Context(), p.ID, Latest, stamp, false)
	assert.True(t, fault.IsStale(err), "the row is no longer as my change left it")
	u, err = s.Undoable(t.Context(), p.ID, 2)
	require.NoError(t, err)
	assert.Equal(t, "store", u.Undo)
}

// TestUndoSeen: what a person did in another window is not taken back by one
// that does not show it.
func TestUndoSeen(t *testing.T) {
	s, p, l := fresh(t)
	require.NoError(t, put(s, p, l, 1, channel.New(146_520_000)))
	seen := revisionOf(t, s, p)
	require.NoError(t, put(s, p, l, 2, channel.New(146_520_000)))
	_, err := s.Undo(t.Context(), p.ID, seen, stamp, false)
	require.True(t, fault.IsStale(err))
	_, err = s.Undo(t.Context(), p.ID, revisionOf(t, s, p), stamp, false)
	require.NoError(t, err)
}

// TestUndoOfNoPlan: what is of no plan is taken back from any plan, once.
func TestUndoOfNoPlan(t *testing.T) {
	s, p, l := fresh(t)
	other, _, err := s.NewPlan(t.Context(), Plan{Name: "Drive"}, Stamp{At: stamp.At}, "bay")
	require.NoError(t, err)
	undo := func(plan int64, redo bool) string {
		t.Helper()
		label, err := s.Undo(t.Context(), plan, Latest, stamp, redo)
		if errors.Is(err, fault.ErrNothing) {
			return "nothing"
		}
		require.NoError(t, err)
		return label
	}
	require.NoError(t, call(t, s, "Ann"))
	require.NoError(t, put(s, p, l, 1, channel.New(146_520_000)))
	assert.Equal(t, "name", undo(other.ID, false))
	assert.Empty(t, firstName(t, s))
	assert.Equal(t, "nothing", undo(other.ID, false), "the channel is of another plan")
	assert.Equal(t, "store", undo(p.ID, false), "the name is taken back already")
	assert.Equal(t, "nothing", undo(p.ID, false))
	assert.Equal(t, "store", undo(p.ID, true))
	assert.Equal(t, "name", undo(p.ID, true))
	assert.Equal(t, "Ann", firstName(t, s))
	assert.Equal(t, "nothing", undo(other.ID, true))
}

// TestTold: what follows reads of every change once, in order and as it was
// committed, however many people make them; and is told where it is too much.
func TestTold(t *testing.T) {
	s, p, l := fresh(t)
	var woken atomic.Int64
	s.Woken(func() { woken.Add(1) })
	from := revisionOf(t, s, p)
	var g sync.WaitGroup
	for n := range 40 {
		g.Go(func() { assert.NoError(t, put(s, p, l, n+1, channel.New(146_520_000))) })
	}
	g.Wait()
	assert.EqualValues(t, 40, woken.Load())
	told, ok, err := s.Told(t.Context(), from)
	require.NoError(t, err)
	require.True(t, ok)
	require.Len(t, told, 40)
	for i, c := range told {
		assert.Equal(t, from+int64(i)+1, c.Event)
		assert.NotEmpty(t, c.Changes)
	}
	assert.Equal(t, told[39].Event, revisionOf(t, s, p))
	_, err = s.write.Exec("WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < ?) INSERT INTO journal (plan_id, person_id, kind, target, label, at, changes) SELECT 0, 0, 'do', 0, '', '', '[]' FROM n", toldChanges)
	require.NoError(t, err)
	_, ok, err = s.Told(t.Context(), told[39].Event)
	require.NoError(t, err)
	assert.True(t, ok)
	_, ok, err = s.Told(t.Context(), told[38].Event)
	require.NoError(t, err)
	assert.False(t, ok, "one more than is told one by one")
}

// TestTeamSlots: a channel has one number in a plan, and loses it with itself.
func TestTeamSlots(t *testing.T) {
	b := newBench(t, t, open(t, t.TempDir()))
	b.store(t, "ann", 0, 1, "Quay")
	b.store(t, "ann", 0, 2, "Pier")
	quay, pier := b.at(t, 0)[1], b.at(t, 0)[2]
	numbers := func() map[int64]int {
		rows, err := b.s.TeamSlots(t.Context(), b.plan)
		require.NoError(t, err)
		out := map[int64]int{}
		for _, r := range rows {
			out[r.ChannelID] = r.Number
		}
		return out
	}
	b.edit(t, "ann", "number", func(e *Edit) error {
		return errors.Join(e.Number(quay.ChannelID, 1), e.Number(pier.ChannelID, 1), e.Number(pier.ChannelID, 2), e.Number(pier.ChannelID, 3))
	})
	both := map[int64]int{quay.ChannelID: 1, pier.ChannelID: 2}
	require.Equal(t, both, numbers(), "the first to ask has it")
	b.edit(t, "ann", "exchange", func(e *Edit) error {
		return e.Arrange([]Placing{{quay, 2}, {pier, 1}})
	})
	require.Equal(t, map[int64]int{quay.ChannelID: 2, pier.ChannelID: 1}, numbers())
	require.NoError(t, b.undo(t, "ann", false))
	require.Equal(t, both, numbers())
	b.edit(t, "ann", "delete", func(e *Edit) error { return errors.Join(e.DropEntry(quay.ID), e.DropChannel(quay.ChannelID)) })
	require.Equal(t, map[int64]int{pier.ChannelID: 2}, numbers())
	move := func(to int) func(e *Edit) error {
		return func(e *Edit) error {
			from := pier
			pier.Slot = to
			return e.Arrange([]Placing{{from, to}})
		}
	}
	b.edit(t, "bob", "on another radio too", func(e *Edit) error {
		return e.AddEntry(Entry{LoadID: b.loads[1].ID, Slot: 2, ChannelID: pier.ChannelID, Scan: entry.ScanYes})
	})
	b.edit(t, "bob", "move", move(4))
	require.Equal(t, map[int64]int{pier.ChannelID: 2}, numbers(), "the other radio has it there")
	b.edit(t, "bob", "back", move(2))
	b.edit(t, "bob", "off that radio", func(e *Edit) error { return e.DropEntry(b.at(t, 1)[2].ID) })
	b.edit(t, "bob", "take", move(1))
	b.edit(t, "bob", "make room", func(e *Edit) error {
		pier.Slot = 9
		return e.SetEntry(pier)
	})
	require.NoError(t, b.undo(t, "ann", false), "a number is no reason to refuse")
	require.Equal(t, map[int64]int{pier.ChannelID: 1}, numbers())
}

func TestImport(t *testing.T) {
	folder := t.TempDir()
	s := open(t, folder)
	lat, lon := 41.0, -55.0
	record := func(key string, out freq.Hz, placed bool) listing.Record {
		r := listing.Record{Key: key, Output: out, Input: out + 600_000, UplinkTone: listing.Says(tone.Off), Mode: listing.FM, Source: "list"}
		if placed {
			r.Lat, r.Lon = &lat, &lon
		}
		return r
	}
	first := []listing.Record{record("a", 146_940_000, true), record("b", 146_940_000, false), record("c", 147_000_000, true)}
	require.NoError(t, s.Import(t.Context(), "list", "2026-11-25T09:42:00Z", first))
	find := func(by func(context.Context, band.Span, *geo.Box) ([]listing.Record, error), f freq.Hz, box *geo.Box) (keys []string) {
		rs, err := by(t.Context(), band.Span{Lower: f, Upper: f}, box)
		require.NoError(t, err)
		for _, r := range rs {
			keys = append(keys, r.Key)
		}
		return keys
	}
	far := geo.Around(geo.Point{Lat: -30}, 100)
	assert.ElementsMatch(t, []string{"a", "b"}, find(s.ByOutput, 146_940_000, nil))
	assert.ElementsMatch(t, []string{"b"}, find(s.ByOutput, 146_940_000, &far), "a record without a place may be anywhere")
	assert.Equal(t, []string{"c"}, find(s.ByInput, 147_600_000, nil))
	rs, err := s.ByOutput(t.Context(), band.Span{Lower: 147_000_000, Upper: 147_000_000}, nil)
	require.NoError(t, err)
	assert.Equal(t, first[2], rs[0], "nothing is lost on the way through the table")

	require.NoError(t, s.Import(t.Context(), "list", "2026-11-26T09:42:00Z", []listing.Record{record("d", 146_940_000, true)}))
	assert.Equal(t, []string{"d"}, find(s.ByOutput, 146_940_000, nil), "a new edition takes the place of the old one")

	// An import that is cut off leaves nothing that anybody sees, and nothing
	// at all after the next start.
	bad := []listing.Record{record("e", 146_940_000, true), record("e", 146_940_000, true)}
	require.Error(t, s.Import(t.Context(), "list", "2026-11-27T09:42:00Z", bad))
	assert.Equal(t, []string{"d"}, find(s.ByOutput, 146_940_000, nil))
	require.NoError(t, s.Close())
	s = open(t, folder)
	defer func() { require.NoError(t, s.Close()) }()
	var n int
	require.NoError(t, s.read.Get(&n, "SELECT count(*) FROM record"))
	assert.Equal(t, 4, n, "the one that counts, and the three of the one before it")
}

// TestWritersQueue stores from many sides at once: each change is whole, nobody
// is in the way of those in other slots, and of two in one slot the later is
// told so.
func TestWritersQueue(t *testing.T) {
	s, p, l := fresh(t)
	var wg sync.WaitGroup
	results := make(chan error, 8)
	for i := range 8 {
		wg.Go(func() { results <- put(s, p, l, i/2, channel.New(freq.Hz(146_400_000+i*5_000))) })
	}
	wg.Wait()
	close(results)
	stored := 0
	for err := range results {
		if err == nil {
			stored++
			continue
		}
		assert.True(t, fault.IsStale(err), err)
	}
	assert.Equal(t, 4, stored)
	es, err := s.Entries(t.Context(), l.ID)
	require.NoError(t, err)
	assert.Len(t, es, 4)
	assert.EqualValues(t, 1+stored, revisionOf(t, s, p))
}

// TestReadsWhileImporting asks while an import runs: nobody waits, and nobody
// sees half an edition.
func TestReadsWhileImporting(t *testing.T) {
	s, _, _ := fresh(t)
	edition := func(name string) (out []listing.Record) {
		for i := range 3000 {
			out = append(out, listing.Record{Key: fmt.Sprint(i), Locality: name, Output: 146_940_000})
		}
		return out
	}
	require.NoError(t, s.Import(t.Context(), "list", stamp.At, edition("old")))
	done := make(chan error, 1)
	go func() { done <- s.Import(context.Background(), "list", stamp.At, edition("new")) }()
	for running := true; running; {
		select {
		case err := <-done:
			require.NoError(t, err)
			running = false
		default:
		}
		rs, err := s.ByOutput(t.Context(), band.Span{Lower: 146_940_000, Upper: 146_940_000}, nil)
		require.NoError(t, err)
		require.Len(t, rs, 3000)
		for _, r := range rs[1:] {
			require.Equal(t, rs[0].Locality, r.Locality)
		}
	}
}

// TestGeneration: whatever changes what is published is counted, and what
// changes a plan alone is not.
func TestGeneration(t *testing.T) {
	s, p, l := fresh(t)
	last := s.Generation()
	counted := func(what string, err error) {
		t.Helper()
		require.NoError(t, err, what)
		assert.Greater(t, s.Generation(), last, what)
		last = s.Generation()
	}
	record := listing.Record{Key: "a", Output: 146_940_000, Input: 146_340_000, Mode: listing.FM, Source: "list"}
	counted("an import", s.Import(t.Context(), "list", "2026-11-25T09:42:00Z", []listing.Record{record}))
	counted("a correction", s.Edit(t.Context(), 0, Latest, stamp, func(e *Edit) error {
		return e.Correct(Correction{Source: "list", Key: "a", Field: "uplink_tone", Value: "88.5", PersonID: 1, At: stamp.At})
	}))
	counted("a decision", s.Edit(t.Context(), 0, Latest, stamp, func(e *Edit) error {
		return e.Decide(Decision{ASource: "list", AKey: "b", BSource: "list", BKey: "a", PersonID: 1, At: stamp.At})
	}))
	_, err := s.Undo(t.Context(), p.ID, Latest, stamp, false)
	counted("what was taken back", err)
	e, err := s.NewEdition(t.Context(), "rows", stamp.At, "", "[]", "[]")
	require.NoError(t, err)
	require.NoError(t, e.Reject(t.Context(), Reject{Line: 2, Cells: json.RawMessage(`["x"]`), Faults: json.RawMessage(`[]`)}))
	require.NoError(t, put(s, p, l, 1, channel.New(146_520_000)))
	assert.Equal(t, last, s.Generation(), "an import that is under way, or a plan")
	counted("its end", e.Activate(t.Context(), stamp))
	var id int64
	require.NoError(t, s.read.Get(&id, "SELECT id FROM reject"))
	mended := record
	mended.Source = "rows"
	counted("a row that was mended", s.TakeReject(t.Context(), e.ID, id, &mended, []string{"y"}))
	counted("a listing that is gone", s.DropSource(t.Context(), "list", stamp))
}

// TestImportIsTakenBack: a listing that took the place of another one can be
// taken back, and done again, while no third one came; and one that was removed
// too.
func TestImportIsTakenBack(t *testing.T) {
	s, p, _ := fresh(t)
	edition := func(n int) []listing.Record {
		out := make([]listing.Record, n)
		for i := range out {
			out[i] = listing.Record{Key: fmt.Sprint(n, "-", i), Output: 146_940_000, Input: 146_340_000, Mode: listing.FM, Source: "list"}
		}
		return out
	}
	bring := func(n int) {
		t.Helper()
		e, err := s.NewEdition(t.Context(), "list", stamp.At, "list.csv", "[]", "[]")
		require.NoError(t, err)
		for _, r := range edition(n) {
			require.NoError(t, e.Add(t.Context(), r))
		}
		require.NoError(t, e.Activate(t.Context(), stamp))
		s.Swept()
	}
	undo := func(redo bool) error {
		last := s.Generation()
		_, err := s.Undo(t.Context(), p.ID, Latest, stamp, redo)
		if err == nil {
			assert.Greater(t, s.Generation(), last)
		}
		s.Sweep()
		s.Swept()
		return err
	}
	counts := func() int {
		rs, err := s.ByOutput(t.Context(), band.Span{Lower: 146_940_000, Upper: 146_940_000}, nil)
		require.NoError(t, err)
		return len(rs)
	}
	bring(1)
	bring(2)
	bring(3)
	require.NoError(t, undo(false))
	require.Equal(t, 2, counts())
	require.NoError(t, undo(true))
	require.Equal(t, 3, counts())
	require.NoError(t, undo(false))
	err := undo(false)
	require.True(t, fault.IsStale(err), "the first is gone by now: %v", err)
	require.ErrorContains(t, err, "this edition of list was removed since")
	require.Equal(t, 2, counts())
	require.NoError(t, s.DropSource(t.Context(), "list", stamp))
	require.Zero(t, counts())
	require.NoError(t, undo(false))
	require.Equal(t, 2, counts())
	var kept int
	require.NoError(t, s.read.Get(&kept, "SELECT count(DISTINCT edition_id) FROM record"))
	assert.LessOrEqual(t, kept, 2, "no more than one besides")
}
