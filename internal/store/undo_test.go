package store

import (
	"errors"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/internal/fault"
)

// people are who does something, by number.
var people = map[string]int64{"ann": 1, "bob": 2}

// bench is a plan with two radios, and what people do in it.
type bench struct {
	t     require.TestingT
	s     *Store
	plan  int64
	loads []Load
}

func newBench(t *testing.T, r require.TestingT, s *Store) *bench {
	p, loads, err := s.NewPlan(t.Context(), Plan{Name: "Walk"}, Stamp{At: stamp.At}, "trail", "bay")
	require.NoError(r, err)
	require.Len(r, loads, 2)
	return &bench{r, s, p.ID, loads}
}

func (b *bench) revision(t *testing.T) int64 {
	p, err := b.s.Plan(t.Context(), b.plan)
	require.NoError(b.t, err)
	return p.Revision
}

func (b *bench) edit(t *testing.T, who, label string, f func(*Edit) error) {
	require.NoError(b.t, b.s.Edit(t.Context(), b.plan, b.revision(t), Stamp{PersonID: people[who], At: stamp.At, Label: label}, f))
}

func (b *bench) undo(t *testing.T, who string, redo bool) error {
	_, err := b.s.Undo(t.Context(), b.plan, b.revision(t), Stamp{PersonID: people[who], At: stamp.At}, redo)
	return err
}

func (b *bench) at(t *testing.T, load int) map[int]Entry {
	es, err := b.s.Entries(t.Context(), b.loads[load].ID)
	require.NoError(b.t, err)
	out := map[int]Entry{}
	for _, e := range es {
		e.Rev = 0 // when it came there
		out[e.Slot] = e
	}
	return out
}

func (b *bench) store(t *testing.T, who string, load, slot int, name string) {
	b.edit(t, who, "store "+name, func(e *Edit) error {
		c := channel.New(freq.Hz(146_000_000 + slot*5_000))
		c.Name = name
		id, err := e.AddChannel(c, listing.ID{})
		require.NoError(b.t, err)
		return e.AddEntry(Entry{LoadID: b.loads[load].ID, Slot: slot, ChannelID: id, Scan: entry.ScanYes})
	})
}

func rename(t require.TestingT, e *Edit, v Entry, names ...string) error {
	for _, n := range names {
		c := v.Channel
		c.Name = n
		require.NoError(t, e.SetChannel(v.ChannelID, c, listing.ID{}))
	}
	return nil
}

// TestUndoTouchedTwice: an edit may write one row more than once.
func TestUndoTouchedTwice(t *testing.T) {
	b := newBench(t, t, open(t, t.TempDir()))
	b.store(t, "ann", 0, 1, "Quay")
	b.edit(t, "ann", "rename", func(e *Edit) error { return rename(t, e, b.at(t, 0)[1], "Pier", "Dock") })
	require.NoError(t, b.undo(t, "ann", false))
	assert.Equal(t, "Quay", b.at(t, 0)[1].Channel.Name)
	require.NoError(t, b.undo(t, "ann", true))
	assert.Equal(t, "Dock", b.at(t, 0)[1].Channel.Name)
	revision := b.revision(t)
	b.edit(t, "ann", "there and back", func(e *Edit) error { return rename(t, e, b.at(t, 0)[1], "Pier", "Dock") })
	assert.Equal(t, revision, b.revision(t), "what ends as it began is no change")
}

// TestUndoSharedChannel: a channel that another radio holds by now stays there.
func TestUndoSharedChannel(t *testing.T) {
	b := newBench(t, t, open(t, t.TempDir()))
	b.store(t, "ann", 0, 1, "Quay")
	quay := b.at(t, 0)[1].ChannelID
	b.edit(t, "bob", "also there", func(e *Edit) error {
		return e.AddEntry(Entry{LoadID: b.loads[1].ID, Slot: 7, ChannelID: quay, Scan: entry.ScanYes})
	})
	require.NoError(t, b.undo(t, "ann", false))
	assert.Empty(t, b.at(t, 0))
	assert.Equal(t, "Quay", b.at(t, 1)[7].Channel.Name)
	require.NoError(t, b.undo(t, "ann", true))
	assert.Equal(t, quay, b.at(t, 0)[1].ChannelID)
}

// TestUndoSays what stands in the way, by its row, with what it was and is.
func TestUndoSays(t *testing.T) {
	b := newBench(t, t, open(t, t.TempDir()))
	b.store(t, "ann", 0, 1, "Quay")
	quay := b.at(t, 0)[1]
	says := func(redo bool, want string) {
		t.Helper()
		before := b.at(t, 0)
		err := b.undo(t, "ann", redo)
		require.True(t, fault.IsStale(err))
		assert.EqualError(t, err, want)
		assert.Equal(t, before, b.at(t, 0), "nothing is half done")
	}
	b.edit(t, "bob", "rename", func(e *Edit) error { return rename(t, e, quay, "Pier") })
	says(false, `"store Quay" cannot be taken back: "Quay" was changed since: name is Pier now and was Quay`)
	require.NoError(t, b.undo(t, "bob", false))

	b.edit(t, "ann", "delete Quay", func(e *Edit) error {
		return errors.Join(e.DropEntry(quay.ID), e.DropChannel(quay.ChannelID))
	})
	b.store(t, "bob", 0, 1, "Lock")
	says(false, `"delete Quay" cannot be taken back: slot 1 holds "Lock" by now: move it first`)
	require.NoError(t, b.undo(t, "bob", false))
	require.NoError(t, b.undo(t, "ann", false))
	assert.Equal(t, quay, b.at(t, 0)[1])

	b.edit(t, "ann", "shift", func(e *Edit) error {
		c := quay.Channel
		c.Side = channel.ShiftSide(-600_000)
		return e.SetChannel(quay.ChannelID, c, listing.ID{})
	})
	b.edit(t, "bob", "delete", func(e *Edit) error {
		return errors.Join(e.DropEntry(quay.ID), e.DropChannel(quay.ChannelID))
	})
	says(false, `"shift" cannot be taken back: "Quay" was removed since`)
}

// TestUndoInAnyOrder has two people change two radios, and take back and do
// again as they please. Whatever they do, it works or says why not; a refusal
// changes nothing; and the plan stays whole.
func TestUndoInAnyOrder(t *testing.T) {
	s := open(t, t.TempDir())
	_, err := s.write.Exec("PRAGMA synchronous = OFF") // nothing is killed here
	require.NoError(t, err)
	undone, refused := 0, 0
	rapid.Check(t, func(r *rapid.T) {
		b := newBench(t, r, s)
		state := func() string { return fmt.Sprint(b.at(t, 0), b.at(t, 1)) }
		for n := range rapid.IntRange(1, 25).Draw(r, "steps") {
			who := rapid.SampledFrom([]string{"ann", "bob"}).Draw(r, "who")
			load, slot := rapid.IntRange(0, 1).Draw(r, "load"), rapid.IntRange(1, 3).Draw(r, "slot")
			old, taken := b.at(t, load)[slot]
			other, both := b.at(t, 1-load)[rapid.IntRange(1, 3).Draw(r, "other")]
			action := rapid.SampledFrom([]string{"undo", "undo", "redo", "share", "delete", "rename", "move", "slot"}).Draw(r, "action")
			switch {
			case action == "undo", action == "redo":
				before, revision := state(), b.revision(t)
				err := b.undo(t, who, action == "redo")
				if errors.Is(err, fault.ErrNothing) {
					continue
				}
				if err != nil {
					var c *fault.Stale
					require.ErrorAs(r, err, &c)
					require.Equal(r, before, state())
					require.Equal(r, revision, b.revision(t))
					refused++
					continue
				}
				undone++
			case !taken && action == "share" && both:
				b.edit(t, who, "share", func(e *Edit) error {
					return e.AddEntry(Entry{LoadID: b.loads[load].ID, Slot: slot, ChannelID: other.ChannelID, Scan: entry.ScanYes})
				})
			case !taken:
				b.store(t, who, load, slot, fmt.Sprint("c", n))
			case action == "delete":
				b.edit(t, who, "delete", func(e *Edit) error { return errors.Join(e.DropEntry(old.ID), e.DropChannel(old.ChannelID)) })
			case action == "move":
				b.edit(t, who, "move", func(e *Edit) error {
					if next, ok := b.at(t, load)[slot%3+1]; ok {
						return e.Arrange([]Placing{{old, next.Slot}, {next, old.Slot}})
					}
					return e.Arrange([]Placing{{old, slot%3 + 1}})
				})
			default:
				b.edit(t, who, "rename", func(e *Edit) error { return rename(r, e, old, fmt.Sprint("r", n), fmt.Sprint("s", n)) })
			}
			var broken []struct {
				Table string `db:"table"`
			}
			require.NoError(r, s.read.Unsafe().Select(&broken, "PRAGMA foreign_key_check"))
			require.Empty(r, broken)
			var odd int
			require.NoError(r, s.read.Get(&odd, "SELECT (SELECT count(*) FROM entry WHERE slot < 1) + (SELECT count(*) FROM channel WHERE plan_id = ? AND id NOT IN (SELECT channel_id FROM entry))", b.plan))
			require.Zero(r, odd, "no slot is parked, and no channel is left over")
		}
	})
	assert.Positive(t, undone)
	assert.Positive(t, refused, "both happened: %d undone", undone)
}
