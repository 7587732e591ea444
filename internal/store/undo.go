package store

import (
	"context"
	"database/sql"
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
	PlanID int64  `db:"plan_id"`
	Label  string `db:"label"`
}

// What a person can take back next is the last change, done or done again, that
// is not taken back; and what they can do again the last that was taken back,
// is not done again, and after which they did nothing else. The journal is read
// from its end, so it does not matter how long it is. What is of no plan counts
// in every plan.
var (
	undoNext = next("kind <> 'undo' AND NOT EXISTS (SELECT 1 FROM journal AS u WHERE u.target = j.id)")
	redoNext = next("id > ?3 AND kind = 'undo' AND NOT EXISTS (SELECT 1 FROM journal AS u WHERE u.target = j.id)")
	doLast   = next("kind = 'do'")
)

func next(where string) string {
	one := "SELECT * FROM (SELECT id, plan_id, label FROM journal AS j WHERE person_id = ?1 AND plan_id = %s AND " + where + " ORDER BY id DESC LIMIT 1)"
	return fmt.Sprintf("SELECT id, plan_id, label FROM ("+one+" UNION ALL "+one+") ORDER BY id DESC LIMIT 1", "0", "?2")
}

// nextUndo and nextRedo return those changes; ok is false where there is none.
func nextUndo(ctx context.Context, q sqlx.QueryerContext, planID, person int64) (r journalRow, ok bool, err error) {
	return one(ctx, q, undoNext, person, planID)
}

func nextRedo(ctx context.Context, q sqlx.QueryerContext, planID, person int64) (r journalRow, ok bool, err error) {
	last, _, err := one(ctx, q, doLast, person, planID)
	if err != nil {
		return r, false, err
	}
	return one(ctx, q, redoNext, person, planID, last.ID)
}

func one(ctx context.Context, q sqlx.QueryerContext, query string, person int64, args ...any) (r journalRow, ok bool, err error) {
	if person == 0 {
		return r, false, nil // nobody's doing is nobody's to take back
	}
	err = sqlx.GetContext(ctx, q, &r, query, append([]any{person}, args...)...)
	if errors.Is(err, sql.ErrNoRows) {
		return r, false, nil
	}
	if err != nil {
		return r, false, fmt.Errorf("read journal: %w", err)
	}
	return r, true, nil
}

// Undoable returns what a person can undo and redo in a plan.
func (s *Store) Undoable(ctx context.Context, planID, person int64) (Undoable, error) {
	undo, _, err := nextUndo(ctx, s.read, planID, person)
	if err != nil {
		return Undoable{}, err
	}
	redo, _, err := nextRedo(ctx, s.read, planID, person)
	return Undoable{undo.Label, redo.Label}, err
}

// Undo takes the person's last change back; redo brings the last one that was
// taken back. Either is a change of its own, and is refused with fault.Stale if
// the rows are no longer as that change left them, or if the person has done
// something since that was not seen where undo was asked for.
func (s *Store) Undo(ctx context.Context, planID, seen int64, stamp Stamp, redo bool) (label string, err error) {
	err = s.transact(ctx, planID, Latest, func(e *Edit) error {
		find, kind := nextUndo, "undo"
		if redo {
			find, kind = nextRedo, "redo"
		}
		last, ok, err := find(ctx, e.tx, planID, stamp.PersonID)
		if err != nil {
			return err
		}
		if !ok {
			return fault.ErrNothing
		}
		if last.ID > seen {
			return conflict("you did something else meanwhile: %s", last.Label)
		}
		var text string // read for this one alone: all of them are large
		if err := e.tx.GetContext(ctx, &text, "SELECT changes FROM journal WHERE id = ?", last.ID); err != nil {
			return fmt.Errorf("read journal %d: %w", last.ID, err)
		}
		var changes []RowChange
		if err := json.Unmarshal([]byte(text), &changes); err != nil {
			return fmt.Errorf("read journal %d: %w", last.ID, err)
		}
		e.planID = last.PlanID
		if err := e.reverse(changes); err != nil {
			var c *fault.Stale
			if errors.As(err, &c) {
				c.Why = fmt.Sprintf("%q cannot be %s: %s", last.Label, undone[redo], c.Why)
			}
			return err
		}
		label = last.Label
		stamp.Label = last.Label
		err = e.journal(stamp, kind, last.ID)
		if errors.Is(err, errUnchanged) { // all of it follows from something else by now
			return conflict("%q: nothing of it is left to be %s", last.Label, undone[redo])
		}
		return err
	})
	return label, err
}

var undone = map[bool]string{false: "taken back", true: "done again"}

// reverse puts every row back as it was before the changes, or says which row
// it cannot put back and why.
func (e *Edit) reverse(changes []RowChange) error {
	changes = merged(changes) // of journals that were written row by row
	// Rows may refer to each other in any order, and slots may be exchanged
	// among them: references are looked at in the end, and slots are parked.
	if _, err := e.tx.ExecContext(e.ctx, "PRAGMA defer_foreign_keys = ON"); err != nil {
		return fmt.Errorf("undo: %w", err)
	}
	own := map[string][]int64{}
	var back []reversal
	for _, c := range changes {
		r, err := e.reversal(c)
		if err != nil {
			return err
		}
		back = append(back, r)
		own[c.Table] = append(own[c.Table], c.ID)
	}
	for _, id := range own["entry"] {
		if err := e.park(id); err != nil {
			return err
		}
	}
	for _, last := range []bool{false, true} { // numbers and sets follow their channels
		for _, r := range slices.Backward(back) {
			if follows[r.table] != last {
				continue
			}
			if err := e.restore(r, own); err != nil {
				return err
			}
		}
	}
	for _, c := range changes { // what was taken back can be done again
		if c.Table == "edition" {
			if _, err := e.tx.ExecContext(e.ctx, "UPDATE edition SET kept = 1 WHERE id = ?", c.ID); err != nil {
				return fmt.Errorf("keep edition: %w", err)
			}
		}
	}
	return e.dropUnused(changes)
}

// follows are the tables whose rows follow from what happens to channels: they
// are no reason to refuse that something is taken back.
var follows = map[string]bool{"team_slot": true, "member": true, "standing": true, "listening": true, "relay": true, "beacon": true}

// reversal is a row as it stands, and as it is to be; nil for none.
type reversal struct {
	table    string
	id       int64
	now, was Row
}

// reversal reads both, and reports a conflict unless the row is as the change
// left it.
func (e *Edit) reversal(c RowChange) (r reversal, err error) {
	r = reversal{table: c.Table, id: c.ID}
	if r.was, _, err = tables[c.Table].read(c.Before); err != nil {
		return r, err
	}
	left, _, err := tables[c.Table].read(c.After)
	if err != nil {
		return r, err
	}
	if r.now, err = e.row(c.Table, c.ID); errors.Is(err, fault.ErrNotFound) {
		r.now = nil
	} else if err != nil {
		return r, err
	}
	if left == nil && r.now == nil || same(left, r.now) || follows[c.Table] {
		return r, nil
	}
	now, err := image(r.now)
	if err != nil {
		return r, err
	}
	err = differs(c.After, now)
	if r.now != nil {
		err = e.by(revision(r.now), err)
	}
	return r, err
}

// dropUnused removes the channels that no slot holds any more: one that stayed
// for another radio when it was taken back is of nobody when that lets go too.
func (e *Edit) dropUnused(changes []RowChange) error {
	for _, c := range changes {
		if c.Table != "entry" {
			continue
		}
		for _, text := range []json.RawMessage{c.Before, c.After} {
			r, ok, err := tables["entry"].read(text)
			if err != nil {
				return err
			}
			if !ok {
				continue
			}
			if err := e.DropChannel(r.(entryRow).ChannelID); err != nil && !errors.Is(err, fault.ErrNotFound) { //nolint:forcetypeassert // of entry
				return err
			}
		}
	}
	return nil
}

// restore puts one row back. own are the rows that are put back with it.
func (e *Edit) restore(r reversal, own map[string][]int64) error {
	switch {
	case r.table == "team_slot":
		return e.renumber(r)
	case r.table == "member":
		return e.rejoin(r)
	case r.table == "standing":
		return e.restand(r)
	case r.table == "listening" || r.table == "relay" || r.table == "beacon":
		return e.outfit(r)
	case r.was != nil:
		if x, ok := r.was.(entryRow); ok {
			if err := e.room(x, own); err != nil {
				return err
			}
		}
		return e.write(r.now, r.was)
	}
	if keep, err := e.held(r, own); err != nil || keep {
		return err
	}
	if r.table == "channel" {
		return e.dropChannel(r.now)
	}
	if r.table == "load" {
		if err := e.forget("load_id", r.id); err != nil {
			return err
		}
		if err := e.strip(r.id); err != nil {
			return err
		}
	}
	return e.remove(r.now)
}

// renumber gives a channel the number that it had, unless somebody else has it
// by now or the channel is gone: a number is no reason to refuse.
func (e *Edit) renumber(r reversal) error {
	now, _ := r.now.(TeamSlot)
	was, had := r.was.(TeamSlot)
	switch {
	case r.now != nil && !had:
		return e.remove(now)
	case !had:
		return nil
	}
	var taken int
	err := e.tx.GetContext(e.ctx, &taken, `SELECT (SELECT count(*) FROM team_slot WHERE id <> ? AND (plan_id = ? AND number = ? OR channel_id = ?)) +
		(SELECT count(*) = 0 FROM channel WHERE id = ?)`, r.id, was.PlanID, was.Number, was.ChannelID, was.ChannelID)
	if err != nil || taken > 0 {
		return err
	}
	return e.write(r.now, was)
}

// rejoin puts a channel back into a set, or takes it out, unless one of them is
// gone by now or that is done already.
func (e *Edit) rejoin(r reversal) error {
	now, _ := r.now.(Member)
	was, had := r.was.(Member)
	switch {
	case r.now != nil && !had:
		return e.remove(now)
	case !had:
		return nil
	}
	var possible bool
	err := e.tx.GetContext(e.ctx, &possible, `SELECT EXISTS (SELECT 1 FROM channel WHERE id = ?1) AND EXISTS (SELECT 1 FROM channel_set WHERE id = ?2)
		AND NOT EXISTS (SELECT 1 FROM member WHERE channel_id = ?1 AND set_id = ?2 AND id <> ?3)`, was.ChannelID, was.SetID, r.id)
	if err != nil || !possible {
		return err
	}
	return e.write(r.now, was)
}

// restand gives a channel the standing back that it had in a radio, unless one of
// them is gone by now or somebody has said something else since.
func (e *Edit) restand(r reversal) error {
	now, _ := r.now.(Standing)
	was, had := r.was.(Standing)
	switch {
	case r.now != nil && !had:
		return e.remove(now)
	case !had:
		return nil
	}
	var possible bool
	err := e.tx.GetContext(e.ctx, &possible, `SELECT EXISTS (SELECT 1 FROM channel WHERE id = ?1) AND EXISTS (SELECT 1 FROM load WHERE id = ?2)
		AND NOT EXISTS (SELECT 1 FROM standing WHERE channel_id = ?1 AND load_id = ?2 AND id <> ?3)`, was.ChannelID, was.LoadID, r.id)
	if err != nil || !possible {
		return err
	}
	return e.write(r.now, was)
}

// held reports whether a row that did not exist before stays all the same,
// because others use it by now: a channel that another radio holds, a radio
// that another plan does. A radio that was filled since would be lost with what
// is in it, and so would a plan.
func (e *Edit) held(r reversal, own map[string][]int64) (keep bool, err error) {
	by, uses := map[string][2]string{"load": {"entry", "load_id"}, "channel": {"entry", "channel_id"}, "unit": {"load", "unit_id"}, "plan": {"load", "plan_id"}}[r.table], 0
	if by[0] == "" {
		return false, nil
	}
	err = e.tx.GetContext(e.ctx, &uses, "SELECT count(*) FROM "+by[0]+" WHERE "+by[1]+" = ? AND id NOT IN (SELECT value FROM json_each(?))", r.id, list(own[by[0]]))
	switch {
	case err != nil:
		return false, fmt.Errorf("look who uses %s %d: %w", r.table, r.id, err)
	case uses > 0 && r.table == "load":
		return false, conflict("the radio holds %d channels by now, which would be lost: take them out first", uses)
	case uses > 0 && r.table == "plan":
		return false, conflict("the plan has %d radios by now, which would be lost: take them out first", uses)
	}
	return uses > 0, nil
}

// room reports a conflict where an entry cannot go into its slot: another one
// that is not put back with it is there, or what it belongs to is gone.
func (e *Edit) room(r entryRow, own map[string][]int64) error {
	var by []string
	err := e.tx.SelectContext(e.ctx, &by, "SELECT channel.name FROM entry JOIN channel ON channel.id = entry.channel_id WHERE load_id = ? AND entry.kind = ? AND slot = ? AND entry.id NOT IN (SELECT value FROM json_each(?))",
		r.LoadID, r.Kind, r.Slot, list(own["entry"]))
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
