package store

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"

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
// taken back. Either is a change of its own, and is refused with ErrStale if
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
			return ErrNothing
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
			return err
		}
		label = last.Label
		stamp.Label = last.Label
		return e.journal(stamp, kind, &last.ID)
	})
	return label, err
}

// reverse puts every row back as it was before the changes.
func (e *Edit) reverse(changes []change) error {
	// Slots may be exchanged among the rows: park them all first.
	for _, c := range changes {
		if err := e.matches(c); err != nil {
			return err
		}
	}
	for _, c := range changes {
		if c.Table == "entry" {
			if _, err := e.tx.ExecContext(e.ctx, "UPDATE entry SET slot = -1 - id WHERE id = ?", c.ID); err != nil {
				return fmt.Errorf("park entry %d: %w", c.ID, err)
			}
		}
	}
	for i := len(changes) - 1; i >= 0; i-- {
		if err := e.restore(changes[i]); err != nil {
			return err
		}
	}
	return nil
}

// matches reports ErrStale unless the row is as the change left it.
func (e *Edit) matches(c change) error {
	row, err := e.row(c.Table, c.ID)
	now := []byte("null")
	if err == nil {
		if now, err = json.Marshal(row); err != nil {
			return err
		}
	} else if !errors.Is(err, ErrNotFound) {
		return err
	}
	if !bytes.Equal(now, c.After) {
		return ErrStale
	}
	return nil
}

func (e *Edit) restore(c change) error {
	if string(c.Before) == "null" {
		if c.Table == "load" {
			var held int // what was stored there since would be lost
			if err := e.tx.GetContext(e.ctx, &held, "SELECT count(*) FROM entry WHERE load_id = ?", c.ID); err != nil || held > 0 {
				return errors.Join(ErrStale, err)
			}
		}
		if _, err := e.tx.ExecContext(e.ctx, "DELETE FROM "+c.Table+" WHERE id = ?", c.ID); err != nil {
			return fmt.Errorf("delete %s %d: %w", c.Table, c.ID, err)
		}
	} else {
		row := tables[c.Table].row()
		if err := json.Unmarshal(c.Before, row); err != nil {
			return fmt.Errorf("read journal: %w", err)
		}
		if _, err := e.tx.NamedExecContext(e.ctx, tables[c.Table].write, row); err != nil {
			return fmt.Errorf("write %s %d: %w", c.Table, c.ID, err)
		}
	}
	e.changes = append(e.changes, change{Table: c.Table, ID: c.ID, Before: c.After, After: c.Before})
	return nil
}
