package store

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"

	"mnemos/internal/fault"

	"github.com/jmoiron/sqlx"
)

// Undoable names the changes that Undo and Redo would act on; a label is
// empty where there is none.
type Undoable struct{ Undo, Redo string }

type journalRow struct {
	ID     int64  `db:"id"`
	Kind   string `db:"kind"`
	Target *int64 `db:"target"`
	Label  string `db:"label"`
}

// depth is how many journal entries undo looks back over.
const depth = 1000

// stacks replays a person's journal into what can be undone and redone.
func stacks(ctx context.Context, q sqlx.QueryerContext, planID int64, person string) (undo, redo []journalRow, err error) {
	var rows []journalRow
	err = sqlx.SelectContext(ctx, q, &rows, `SELECT id, kind, target, label FROM
		(SELECT id, kind, target, label FROM journal WHERE plan_id = ? AND person = ? ORDER BY id DESC LIMIT ?) ORDER BY id`, planID, person, depth)
	if err != nil {
		return nil, nil, fmt.Errorf("read journal: %w", err)
	}
	for _, r := range rows {
		switch r.Kind {
		case "do":
			undo, redo = append(undo, r), nil
		case "undo":
			if n := len(undo); n > 0 {
				undo, redo = undo[:n-1], append(redo, r)
			}
		case "redo":
			if n := len(redo); n > 0 {
				undo, redo = append(undo, r), redo[:n-1]
			}
		}
	}
	return undo, redo, nil
}

// Undoable returns what a person can undo and redo in a plan.
func (s *Store) Undoable(ctx context.Context, planID int64, person string) (Undoable, error) {
	undo, redo, err := stacks(ctx, s.read, planID, person)
	if err != nil {
		return Undoable{}, err
	}
	var u Undoable
	if n := len(undo); n > 0 {
		u.Undo = undo[n-1].Label
	}
	if n := len(redo); n > 0 {
		u.Redo = redo[n-1].Label
	}
	return u, nil
}

// Undo takes the person's last change back; redo brings the last one that was
// taken back. Either is a change of its own, and is refused with fault.Stale if
// the rows are no longer as that change left them.
func (s *Store) Undo(ctx context.Context, planID, revision int64, stamp Stamp, redo bool) (label string, err error) {
	err = s.transact(ctx, planID, revision, stamp.At, func(tx *sqlx.Tx) error {
		undoStack, redoStack, err := stacks(ctx, tx, planID, stamp.Person)
		if err != nil {
			return err
		}
		stack, kind := undoStack, "undo"
		if redo {
			stack, kind = redoStack, "redo"
		}
		if len(stack) == 0 {
			return fault.ErrNothing
		}
		last := stack[len(stack)-1]
		var text string // read for this one alone: all of them are large
		if err := tx.GetContext(ctx, &text, "SELECT changes FROM journal WHERE id = ?", last.ID); err != nil {
			return fmt.Errorf("read journal %d: %w", last.ID, err)
		}
		var changes []change
		if err := json.Unmarshal([]byte(text), &changes); err != nil {
			return fmt.Errorf("read journal %d: %w", last.ID, err)
		}
		e := &Edit{ctx: ctx, tx: tx, planID: planID}
		if err := e.reverse(changes); err != nil {
			var c *fault.Stale
			if errors.As(err, &c) {
				c.Why = fmt.Sprintf("%q cannot be %s: %s", last.Label, done[redo], c.Why)
			}
			return err
		}
		label = last.Label
		stamp.Label = last.Label
		return e.journal(stamp, kind, &last.ID)
	})
	return label, err
}

var done = map[bool]string{false: "taken back", true: "done again"}

// reverse puts every row back as it was before the changes, or says which row
// it cannot put back and why.
func (e *Edit) reverse(changes []change) error {
	changes = merged(changes) // of journals that were written row by row
	// Rows may refer to each other in any order, and slots may be exchanged
	// among them: references are looked at in the end, and slots are parked.
	if _, err := e.tx.ExecContext(e.ctx, "PRAGMA defer_foreign_keys = ON"); err != nil {
		return fmt.Errorf("undo: %w", err)
	}
	own := map[string][]int64{}
	for _, c := range changes {
		if err := e.matches(c); err != nil {
			return err
		}
		own[c.Table] = append(own[c.Table], c.ID)
	}
	for _, id := range own["entry"] {
		if _, err := e.tx.ExecContext(e.ctx, "UPDATE entry SET slot = -1 - id WHERE id = ?", id); err != nil {
			return fmt.Errorf("park entry %d: %w", id, err)
		}
	}
	for _, c := range slices.Backward(changes) {
		if err := e.restore(c, own); err != nil {
			return err
		}
	}
	return e.dropUnused(changes)
}

// dropUnused removes the channels that no slot holds any more: one that stayed
// for another radio when it was taken back is of nobody when that lets go too.
func (e *Edit) dropUnused(changes []change) error {
	for _, c := range changes {
		if c.Table != "entry" {
			continue
		}
		for _, row := range []json.RawMessage{c.Before, c.After} {
			var r *entryRow
			if err := json.Unmarshal(row, &r); err != nil {
				return fmt.Errorf("read journal: %w", err)
			}
			if r == nil {
				continue
			}
			if err := e.DropChannel(r.ChannelID); err != nil && !errors.Is(err, fault.ErrNotFound) {
				return err
			}
		}
	}
	e.changes = merged(e.changes)
	return nil
}

// matches reports a conflict unless the row is as the change left it.
func (e *Edit) matches(c change) error {
	row, err := e.row(c.Table, c.ID)
	now := []byte("null")
	if err == nil {
		if now, err = json.Marshal(row); err != nil {
			return err
		}
	} else if !errors.Is(err, fault.ErrNotFound) {
		return err
	}
	if !bytes.Equal(now, c.After) {
		return differs(c.After, now)
	}
	return nil
}

// restore puts one row back. own are the rows that are put back with it.
func (e *Edit) restore(c change, own map[string][]int64) error {
	if string(c.Before) == "null" {
		keep, err := e.held(c, own)
		if err != nil || keep {
			return err
		}
		if _, err := e.tx.ExecContext(e.ctx, "DELETE FROM "+c.Table+" WHERE id = ?", c.ID); err != nil {
			return fmt.Errorf("delete %s %d: %w", c.Table, c.ID, err)
		}
	} else {
		row := tables[c.Table].row()
		if err := json.Unmarshal(c.Before, row); err != nil {
			return fmt.Errorf("read journal: %w", err)
		}
		if r, ok := row.(*entryRow); ok {
			if err := e.room(*r, own); err != nil {
				return err
			}
		}
		if _, err := e.tx.NamedExecContext(e.ctx, tables[c.Table].write, row); err != nil {
			return fmt.Errorf("write %s %d: %w", c.Table, c.ID, err)
		}
	}
	e.changes = append(e.changes, change{Table: c.Table, ID: c.ID, Before: c.After, After: c.Before})
	return nil
}

// held reports whether a row that did not exist before stays all the same,
// because others use it by now: a channel that another radio holds. A radio
// that was filled since would be lost with what is in it.
func (e *Edit) held(c change, own map[string][]int64) (keep bool, err error) {
	column, uses := map[string]string{"load": "load_id", "channel": "channel_id"}[c.Table], 0
	if column == "" {
		return false, nil
	}
	err = e.tx.GetContext(e.ctx, &uses, "SELECT count(*) FROM entry WHERE "+column+" = ? AND id NOT IN (SELECT value FROM json_each(?))", c.ID, list(own["entry"]))
	if err != nil {
		return false, fmt.Errorf("look who uses %s %d: %w", c.Table, c.ID, err)
	}
	if uses > 0 && c.Table == "load" {
		return false, conflict("the radio holds %d channels by now, which would be lost: take them out first", uses)
	}
	return uses > 0, nil
}

// room reports a conflict where an entry cannot go back into its slot.
func (e *Edit) room(r entryRow, own map[string][]int64) error {
	var by []string
	err := e.tx.SelectContext(e.ctx, &by, "SELECT channel.name FROM entry JOIN channel ON channel.id = entry.channel_id WHERE load_id = ? AND slot = ? AND entry.id NOT IN (SELECT value FROM json_each(?))",
		r.LoadID, r.Slot, list(own["entry"]))
	if err != nil {
		return fmt.Errorf("look into slot %d: %w", r.Slot, err)
	}
	if len(by) > 0 {
		return conflict("slot %d holds %q by now: move it first", r.Slot, by[0])
	}
	for _, needs := range []struct {
		table, called string
		id            int64
	}{{"load", "the radio", r.LoadID}, {"channel", "the channel", r.ChannelID}} {
		if _, err := e.row(needs.table, needs.id); errors.Is(err, fault.ErrNotFound) && !slices.Contains(own[needs.table], needs.id) {
			return conflict("%s of slot %d was removed since", needs.called, r.Slot)
		} else if err != nil && !errors.Is(err, fault.ErrNotFound) {
			return err
		}
	}
	return nil
}

// list is what json_each takes.
func list(ids []int64) string {
	b, err := json.Marshal(append([]int64{}, ids...))
	if err != nil {
		panic(err) // numbers are always JSON
	}
	return string(b)
}
