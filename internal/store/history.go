package store

import (
	"context"
	"encoding/json"
	"fmt"
	"reflect"
	"slices"

	"mnemos/core/entry"
	"mnemos/core/listing"
	"mnemos/internal/fault"
)

// Past is a change as the journal keeps it.
type Past struct {
	Event    int64  `db:"id"`
	PersonID int64  `db:"person_id"` // 0 for nobody
	Kind     string `db:"kind"`      // do, undo, redo
	Label    string `db:"label"`
	At       string `db:"at"`
	Undone   bool   `db:"undone"` // taken back, and not done again
}

// History returns the last changes of a plan before one, newest first; of all with
// Latest.
func (s *Store) History(ctx context.Context, planID, before int64, most int) ([]Past, error) {
	var out []Past
	err := s.read.SelectContext(ctx, &out, `SELECT id, person_id, kind, label, at, EXISTS (SELECT 1 FROM journal AS u WHERE u.target = j.id) AS undone
		FROM journal AS j WHERE plan_id = ? AND id < ? ORDER BY id DESC LIMIT ?`, planID, before, most)
	if err != nil {
		return nil, fmt.Errorf("read journal: %w", err)
	}
	return out, nil
}

// Snapshots returns the snapshots of a plan, newest first.
func (s *Store) Snapshots(ctx context.Context, planID int64) ([]Snapshot, error) {
	var out []Snapshot
	if err := s.read.SelectContext(ctx, &out, "SELECT "+tables["snapshot"].columns+" FROM snapshot WHERE plan_id = ? ORDER BY event DESC, id DESC", planID); err != nil {
		return nil, fmt.Errorf("read snapshots: %w", err)
	}
	return out, nil
}

// stays are the tables that going back in a plan leaves alone: what happened on the air
// happened.
var stays = []string{"snapshot", "plan", "attempt", "permission"}

// since are the changes of a plan after one, merged: each row as it was after
// that one, and as it was left last. A snapshot is no part of what it shows.
func since(changes []string) ([]RowChange, error) {
	var all []RowChange
	for _, text := range changes {
		var some []RowChange
		if err := json.Unmarshal([]byte(text), &some); err != nil {
			return nil, fmt.Errorf("read journal: %w", err)
		}
		all = append(all, some...)
	}
	all = slices.DeleteFunc(all, func(c RowChange) bool { return slices.Contains(stays, c.Table) })
	return merged(all), nil
}

const journalSince = "SELECT changes FROM journal WHERE plan_id = ? AND id > ? ORDER BY id"

// GoBack puts a plan back as it was after a change, as one change of its own that
// can be taken back. What happened to rows that are of no plan, such as people and
// profiles, stays.
func (s *Store) GoBack(ctx context.Context, planID, event, seen int64, stamp Stamp) error {
	err := s.transact(ctx, planID, Latest, func(e *Edit) error {
		var head int64
		if err := e.tx.GetContext(ctx, &head, "SELECT revision FROM plan WHERE id = ?", planID); err != nil {
			return found(err, fmt.Sprintf("plan %d", planID))
		}
		if head > seen {
			return conflict("the plan was changed meanwhile: look at it again")
		}
		var texts []string
		if err := e.tx.SelectContext(ctx, &texts, journalSince, planID, event); err != nil {
			return fmt.Errorf("read journal: %w", err)
		}
		changes, err := since(texts)
		if err != nil {
			return err
		}
		if err := e.reverse(changes); err != nil {
			return err
		}
		return e.journal(stamp, "do", 0)
	})
	return s.unchanged(ctx, stamp, err)
}

// Was is what a plan held after a change.
type Was struct {
	Loads   []Load
	Entries map[int64][]Entry // by load, in the order of the slots
	Numbers map[int64]int     // what everybody uses, by channel
}

// PlanAt returns what a plan held after a change, worked out from what it holds
// now and from the journal; with Latest what it holds now.
func (s *Store) PlanAt(ctx context.Context, planID, event int64) (*Was, error) {
	ctx, done, err := s.Moment(ctx) // rows and journal belong together
	if err != nil {
		return nil, err
	}
	defer done()
	var texts []string
	if err := s.read.SelectContext(ctx, &texts, journalSince, planID, event); err != nil {
		return nil, fmt.Errorf("read journal: %w", err)
	}
	changes, err := since(texts)
	if err != nil {
		return nil, err
	}
	loads, channels, entries, numbers := map[int64]Load{}, map[int64]channelRow{}, map[int64]entryRow{}, map[int64]TeamSlot{}
	for _, q := range []struct {
		table string
		where string
		take  func(Row)
	}{
		{"load", "plan_id = ?", func(r Row) { loads[r.(Load).ID] = r.(Load) }},
		{"channel", "plan_id = ?", func(r Row) { channels[r.(channelRow).ID] = r.(channelRow) }},
		{"entry", "kind = '' AND load_id IN (SELECT id FROM load WHERE plan_id = ?)", func(r Row) { entries[r.(entryRow).ID] = r.(entryRow) }},
		{"team_slot", "plan_id = ?", func(r Row) { numbers[r.(TeamSlot).ID] = r.(TeamSlot) }},
	} {
		if err := all(ctx, s.read, q.table, q.where, planID, q.take); err != nil {
			return nil, err
		}
	}
	for _, c := range changes {
		r, had, err := tables[c.Table].read(c.Before)
		if err != nil {
			return nil, err
		}
		switch c.Table {
		case "load":
			back(loads, c.ID, r, had)
		case "channel":
			back(channels, c.ID, r, had)
		case "entry":
			back(entries, c.ID, r, had)
		case "team_slot":
			back(numbers, c.ID, r, had)
		}
	}
	out := &Was{Entries: map[int64][]Entry{}, Numbers: map[int64]int{}}
	for _, id := range sortedKeys(loads) {
		out.Loads = append(out.Loads, loads[id])
	}
	for _, n := range numbers {
		out.Numbers[n.ChannelID] = n.Number
	}
	for _, id := range sortedKeys(entries) {
		r := entries[id]
		row, ok := channels[r.ChannelID]
		if !ok {
			return nil, fmt.Errorf("entry %d: channel %d: %w", id, r.ChannelID, fault.ErrNotFound)
		}
		c, err := row.channel()
		if err != nil {
			return nil, err
		}
		out.Entries[r.LoadID] = append(out.Entries[r.LoadID], Entry{
			ID: r.ID, LoadID: r.LoadID, Slot: r.Slot, ChannelID: r.ChannelID, ShortName: r.ShortName, Scan: entry.Scan(r.Scan), Pinned: r.Pinned,
			Channel: c, Repeater: listing.ID{Source: row.Source, Key: row.Key},
		})
	}
	for _, list := range out.Entries {
		slices.SortFunc(list, func(a, b Entry) int { return a.Slot - b.Slot })
	}
	return out, nil
}

// back puts a row as it was in place of what it is.
func back[R Row](rows map[int64]R, id int64, was Row, had bool) {
	if !had {
		delete(rows, id)
		return
	}
	rows[id] = was.(R) //nolint:forcetypeassert // of that table
}

// all hands on the rows of a table.
func all(ctx context.Context, q queryer, name, where string, arg int64, take func(Row)) error {
	t := tables[name]
	rows, err := q.QueryxContext(ctx, "SELECT "+t.columns+" FROM "+name+" WHERE "+where, arg)
	if err != nil {
		return fmt.Errorf("read %s: %w", name, err)
	}
	defer func() { _ = rows.Close() }() // read to its end below
	for rows.Next() {
		r := reflect.New(t.row)
		if err := rows.StructScan(r.Interface()); err != nil {
			return fmt.Errorf("read %s: %w", name, err)
		}
		take(r.Elem().Interface().(Row)) //nolint:forcetypeassert // every table has rows
	}
	return rows.Err()
}
