package store

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"reflect"
	"strings"

	"github.com/jmoiron/sqlx"

	"mnemos/core/limit"
	"mnemos/internal/fault"
	"mnemos/internal/root"
)

// RowChange is a row before and after; null where it did not or does not exist.
type RowChange struct {
	Table  string          `json:"table"`
	ID     int64           `json:"id"`
	Before json.RawMessage `json:"before"`
	After  json.RawMessage `json:"after"`
}

// Changeset is one change of whatever people edit, whole: what a command did.
type Changeset struct {
	Event    int64 // its number; they follow one another without a gap
	PlanID   int64 // 0 for what is of no plan
	PersonID int64 // 0 for nobody
	Kind     string
	Label    string
	At       string
	Changes  []RowChange
}

// Stamp says who changes something, when, and what the change is called.
type Stamp struct {
	PersonID  int64 // 0 for nobody: undo does not reach it
	At, Label string
	Request   Request // how it is asked for, if under a key
}

// Latest is the revision of somebody who has seen whatever there is.
const Latest = limit.Number

// Edit is one change under way. It is a transaction: it takes place whole or
// not at all.
type Edit struct {
	ctx       context.Context
	tx        *sqlx.Tx
	planID    int64
	event     int64 // the number of this change
	seen      int64 // the last change that whoever edits has seen
	changes   []RowChange
	changeset Changeset
}

// errUnchanged rolls a change back that changes nothing.
var errUnchanged = errors.New("nothing changed")

// Edit changes a plan, or with 0 what is of no plan. A row that somebody
// changed after what was seen is not touched: the change is refused with
// fault.Stale, which names the row. Who has seen other rows alone is not in the
// way. A change that changes no row leaves the journal alone, so that undo
// never takes back nothing.
func (s *Store) Edit(ctx context.Context, planID, seen int64, stamp Stamp, f func(*Edit) error) error {
	err := s.transact(ctx, planID, seen, func(e *Edit) error {
		if err := f(e); err != nil {
			return err
		}
		return e.journal(stamp, "do", 0)
	})
	return s.unchanged(ctx, stamp, err)
}

// unchanged keeps the key of a change that changes nothing.
func (s *Store) unchanged(ctx context.Context, stamp Stamp, err error) error {
	if errors.Is(err, errUnchanged) {
		return s.Keep(ctx, stamp.Request)
	}
	return err
}

func (s *Store) transact(ctx context.Context, planID, seen int64, f func(*Edit) error) error {
	tx, err := s.write.BeginTxx(ctx, nil)
	if err != nil {
		return fmt.Errorf("begin: %w", err)
	}
	defer func() { _ = tx.Rollback() }() // no effect after Commit
	e := &Edit{ctx: ctx, tx: tx, planID: planID, seen: seen}
	if err := tx.GetContext(ctx, &e.event, "SELECT 1 + coalesce((SELECT seq FROM sqlite_sequence WHERE name = 'journal'), 0)"); err != nil {
		return fmt.Errorf("number the change: %w", err)
	}
	var plans int
	if err := tx.GetContext(ctx, &plans, "SELECT count(*) FROM plan WHERE id = ?", planID); err != nil {
		return fmt.Errorf("look for plan %d: %w", planID, err)
	}
	if err := e.lost(f(e)); err != nil {
		return err
	}
	if plans == 0 && planID != 0 && !e.made("plan", planID) {
		return fmt.Errorf("plan %d: %w", planID, fault.ErrNotFound)
	}
	says, err := sayingsOf(e.changeset)
	if err != nil {
		return err
	}
	root.Here("store: commit")
	if err := e.lost(tx.Commit()); err != nil {
		return fmt.Errorf("commit: %w", err)
	}
	s.committed(says)
	return nil
}

// lost says of a change that its rows no longer fit what is there that somebody
// was faster: it was decided by what they removed or took.
func (e *Edit) lost(err error) error {
	switch broken(err) {
	case foreign:
		slog.Warn("a change lost its race", "error", err)
		return conflict("something that this is about was removed meanwhile: look at it again")
	case twice:
		slog.Warn("a change lost its race", "error", err)
		return conflict("somebody else did the same meanwhile: look at it again")
	}
	return err
}

// made reports whether the change makes a row.
func (e *Edit) made(table string, id int64) bool {
	for _, c := range e.changes {
		if c.Table == table && c.ID == id && string(c.Before) == "null" {
			return true
		}
	}
	return false
}

func (e *Edit) journal(stamp Stamp, kind string, target int64) error {
	if e.changes = merged(e.changes); len(e.changes) == 0 {
		return errUnchanged
	}
	if err := stamp.Request.claim(e.ctx, e.tx); err != nil {
		return err
	}
	root.Here("store: journal")
	b, err := json.Marshal(e.changes)
	if err != nil {
		return fmt.Errorf("journal: %w", err)
	}
	_, err = e.tx.ExecContext(e.ctx, "INSERT INTO journal (plan_id, person_id, kind, target, label, at, changes) VALUES (?, ?, ?, ?, ?, ?, ?)",
		e.planID, stamp.PersonID, kind, target, stamp.Label, stamp.At, string(b))
	if err == nil {
		_, err = e.tx.ExecContext(e.ctx, "UPDATE plan SET revision = ?, saved_at = ? WHERE id = ?", e.event, stamp.At, e.planID)
	}
	if err != nil {
		return fmt.Errorf("journal: %w", err)
	}
	e.changeset = Changeset{Event: e.event, PlanID: e.planID, PersonID: stamp.PersonID, Kind: kind, Label: stamp.Label, At: stamp.At, Changes: e.changes}
	return nil
}

// ID returns a number for a new row of a table: one that none ever had,
// because the journal can bring a row back under its own.
func (e *Edit) ID(table string) (id int64, err error) {
	err = e.tx.GetContext(e.ctx, &id, "INSERT INTO serial (name, last) VALUES (?, 1) ON CONFLICT (name) DO UPDATE SET last = last + 1 RETURNING last", table)
	if err != nil {
		return 0, fmt.Errorf("next %s: %w", table, err)
	}
	return id, nil
}

// Put writes a row, in place of the one with its number.
func (e *Edit) Put(r Row) error {
	r = composed(r)
	if err := sound(r); err != nil {
		return err
	}
	table, id := r.of()
	root.Here("store: put " + table)
	before, err := e.row(table, id)
	if err != nil && !errors.Is(err, fault.ErrNotFound) {
		return err
	}
	if before != nil {
		if err := e.saw(before); err != nil {
			return err
		}
	}
	return e.write(before, r)
}

// Lean refuses the change where a row that it was decided by, such as the radio or
// the place, is not as it was when it was read. What is built in has no row.
func (e *Edit) Lean(rows ...Row) error {
	for _, was := range rows {
		table, id := was.of()
		if id == 0 {
			continue
		}
		now, err := e.row(table, id)
		if errors.Is(err, fault.ErrNotFound) {
			return conflict("%s was removed meanwhile", strings.ReplaceAll(table, "_", " "))
		}
		if err != nil {
			return err
		}
		if revision(now) == revision(was) || same(now, was) {
			continue
		}
		before, err := image(was)
		if err != nil {
			return err
		}
		after, err := image(now)
		if err != nil {
			return err
		}
		return e.by(revision(now), differs(before, after))
	}
	return nil
}

// Drop removes a row.
func (e *Edit) Drop(table string, id int64) error {
	root.Here("store: drop " + table)
	before, err := e.row(table, id)
	if errors.Is(err, fault.ErrNotFound) && e.seen != Latest {
		return e.removed(table, id, err)
	}
	if err != nil {
		return err
	}
	if err := e.saw(before); err != nil {
		return err
	}
	return e.remove(before)
}

// write writes a row over what is there, without asking who saw it.
func (e *Edit) write(before, after Row) error {
	table, id := after.of()
	if same(before, after) {
		return nil
	}
	if _, err := e.tx.NamedExecContext(e.ctx, tables[table].write, revised(after, e.event)); err != nil {
		return fmt.Errorf("write %s %d: %w", table, id, err)
	}
	return e.note(table, id, before, after)
}

func (e *Edit) remove(r Row) error {
	table, id := r.of()
	if _, err := e.tx.ExecContext(e.ctx, "DELETE FROM "+table+" WHERE id = ?", id); err != nil {
		return fmt.Errorf("delete %s %d: %w", table, id, err)
	}
	return e.note(table, id, r, nil)
}

// same reports whether two rows hold the same, whenever they got it.
func same(a, b Row) bool {
	if a == nil || b == nil {
		return false
	}
	x, xerr := image(a)
	y, yerr := image(b)
	return xerr == nil && yerr == nil && bytes.Equal(x, y)
}

// row returns a row of a table.
func (e *Edit) row(table string, id int64) (Row, error) {
	t := tables[table]
	r := reflect.New(t.row)
	if err := e.tx.GetContext(e.ctx, r.Interface(), "SELECT "+t.columns+" FROM "+table+" WHERE id = ?", id); err != nil {
		return nil, found(err, fmt.Sprintf("%s %d", strings.ReplaceAll(table, "_", " "), id))
	}
	return r.Elem().Interface().(Row), nil //nolint:forcetypeassert // every table has rows
}

func (e *Edit) note(table string, id int64, before, after Row) error {
	b, err := image(before)
	if err != nil {
		return err
	}
	a, err := image(after)
	if err != nil {
		return err
	}
	e.changes = append(e.changes, RowChange{Table: table, ID: id, Before: b, After: a})
	return nil
}

// saw reports a conflict where a row was changed after what was seen. What
// this change itself wrote is seen.
func (e *Edit) saw(now Row) error {
	rev := revision(now)
	if rev <= e.seen || rev == e.event {
		return nil
	}
	table, id := now.of()
	was, err := e.asSeen(table, id)
	if err != nil {
		return err
	}
	is, err := image(now)
	if err != nil {
		return err
	}
	if string(was) == "null" { // it was not there at all
		var row map[string]any
		if err := json.Unmarshal(is, &row); err != nil {
			return fmt.Errorf("read row: %w", err)
		}
		return e.by(rev, conflict("%s was added since", called(row)))
	}
	return e.by(rev, differs(was, is))
}

// removed reports who removed a row after what was seen.
func (e *Edit) removed(table string, id int64, none error) error {
	was, err := e.asSeen(table, id)
	if err != nil || string(was) == "null" {
		return errors.Join(none, err)
	}
	return differs(was, []byte("null"))
}

// asSeen returns the image of a row that whoever edits has seen, from what the
// first change after that put away.
func (e *Edit) asSeen(table string, id int64) (json.RawMessage, error) {
	var text []string
	err := e.tx.SelectContext(e.ctx, &text, `SELECT c.value FROM journal, json_each(journal.changes) AS c
		WHERE journal.id > ? AND c.value ->> 'table' = ? AND c.value ->> 'id' = ? ORDER BY journal.id LIMIT 1`, e.seen, table, id)
	if err != nil || len(text) == 0 {
		return []byte("null"), err
	}
	var c RowChange
	err = json.Unmarshal([]byte(text[0]), &c)
	return c.Before, err
}

// by says who made the change that is in the way.
func (e *Edit) by(event int64, err error) error {
	var stale *fault.Stale
	var who []string
	if !errors.As(err, &stale) {
		return err
	}
	if err := e.tx.SelectContext(e.ctx, &who, "SELECT person.name FROM journal JOIN person ON person.id = journal.person_id WHERE journal.id = ?", event); err != nil {
		return fmt.Errorf("look who changed it: %w", err)
	}
	if len(who) > 0 {
		stale.Who = who[0]
	}
	return stale
}
