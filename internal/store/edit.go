package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"reflect"

	"github.com/jmoiron/sqlx"

	"mnemos/core/channel"
	"mnemos/internal/fault"
)

// change is a row before and after; null where it did not or does not exist.
type change struct {
	Table  string          `json:"table"`
	ID     int64           `json:"id"`
	Before json.RawMessage `json:"before"`
	After  json.RawMessage `json:"after"`
}

// Edit is one change of a plan under way. It is a transaction: it takes place
// whole or not at all.
type Edit struct {
	ctx     context.Context
	tx      *sqlx.Tx
	planID  int64
	changes []change
}

// Stamp says who changes a plan, when, and what the change is called.
type Stamp struct{ Person, At, Label string }

// errUnchanged rolls a change back that changes nothing.
var errUnchanged = errors.New("nothing changed")

// Edit changes a plan. The revision must be the plan's present one, or the
// change is refused with fault.Stale. A change that changes no row leaves the
// revision and the journal alone, so that undo never takes back nothing.
func (s *Store) Edit(ctx context.Context, planID, revision int64, stamp Stamp, f func(*Edit) error) error {
	err := s.transact(ctx, planID, revision, stamp.At, func(tx *sqlx.Tx) error {
		e := &Edit{ctx: ctx, tx: tx, planID: planID}
		if err := f(e); err != nil {
			return err
		}
		if e.changes = merged(e.changes); len(e.changes) == 0 {
			return errUnchanged
		}
		return e.journal(stamp, "do", nil)
	})
	if errors.Is(err, errUnchanged) {
		return nil
	}
	return err
}

func (s *Store) transact(ctx context.Context, planID, revision int64, at string, f func(*sqlx.Tx) error) error {
	tx, err := s.write.BeginTxx(ctx, nil)
	if err != nil {
		return fmt.Errorf("begin: %w", err)
	}
	defer func() { _ = tx.Rollback() }() // no effect after Commit
	res, err := tx.ExecContext(ctx, "UPDATE plan SET revision = revision + 1, saved_at = ? WHERE id = ? AND revision = ?", at, planID, revision)
	if err != nil {
		return fmt.Errorf("claim plan %d: %w", planID, err)
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return errors.Join(&fault.Stale{}, err)
	}
	if err := f(tx); err != nil {
		return err
	}
	if err := tx.Commit(); err != nil {
		return fmt.Errorf("commit: %w", err)
	}
	return nil
}

func (e *Edit) journal(stamp Stamp, kind string, target *int64) error {
	b, err := json.Marshal(e.changes)
	if err != nil {
		return fmt.Errorf("journal: %w", err)
	}
	_, err = e.tx.ExecContext(e.ctx, "INSERT INTO journal (plan_id, person, kind, target, label, at, changes) VALUES (?, ?, ?, ?, ?, ?, ?)",
		e.planID, stamp.Person, kind, target, stamp.Label, stamp.At, string(b))
	if err != nil {
		return fmt.Errorf("journal: %w", err)
	}
	return nil
}

// AddChannel stores a new channel and returns its ID.
func (e *Edit) AddChannel(c channel.Channel) (int64, error) {
	id, err := e.next("channel")
	if err != nil {
		return 0, err
	}
	return id, e.put("channel", id, nil, toRow(id, e.planID, c))
}

// SetChannel replaces a channel.
func (e *Edit) SetChannel(id int64, c channel.Channel) error {
	before, err := e.row("channel", id)
	if err != nil {
		return err
	}
	return e.put("channel", id, before, toRow(id, e.planID, c))
}

// DropChannel removes a channel that no entry uses any more; it does nothing
// while one does.
func (e *Edit) DropChannel(id int64) error {
	var used int
	if err := e.tx.GetContext(e.ctx, &used, "SELECT count(*) FROM entry WHERE channel_id = ?", id); err != nil {
		return fmt.Errorf("count uses of channel %d: %w", id, err)
	}
	if used > 0 {
		return nil
	}
	return e.remove("channel", id)
}

// AddEntry puts a channel into a slot.
func (e *Edit) AddEntry(v Entry) error {
	id, err := e.next("entry")
	if err != nil {
		return err
	}
	return e.put("entry", id, nil, entryRow{ID: id, LoadID: v.LoadID, Slot: v.Slot, ChannelID: v.ChannelID, ShortName: v.ShortName, Scan: string(v.Scan)})
}

// SetEntry replaces an entry, its slot included.
func (e *Edit) SetEntry(v Entry) error {
	before, err := e.row("entry", v.ID)
	if err != nil {
		return err
	}
	return e.put("entry", v.ID, before, entryRow{ID: v.ID, LoadID: v.LoadID, Slot: v.Slot, ChannelID: v.ChannelID, ShortName: v.ShortName, Scan: string(v.Scan)})
}

// Swap exchanges the slots of two entries. SQLite checks uniqueness row by
// row, so one of them waits on a negative slot meanwhile.
func (e *Edit) Swap(a, b Entry) error {
	if _, err := e.tx.ExecContext(e.ctx, "UPDATE entry SET slot = -1 - id WHERE id = ?", b.ID); err != nil {
		return fmt.Errorf("park entry %d: %w", b.ID, err)
	}
	parked := b
	a.Slot, b.Slot = b.Slot, a.Slot
	if err := e.SetEntry(a); err != nil {
		return err
	}
	before := entryRow{ID: parked.ID, LoadID: parked.LoadID, Slot: parked.Slot, ChannelID: parked.ChannelID, ShortName: parked.ShortName, Scan: string(parked.Scan)}
	after := before
	after.Slot = b.Slot
	return e.put("entry", b.ID, before, after)
}

// DropEntry empties a slot.
func (e *Edit) DropEntry(id int64) error { return e.remove("entry", id) }

// AddLoad takes a radio into the plan, without any channel.
func (e *Edit) AddLoad(radio string) (Load, error) {
	l := Load{PlanID: e.planID, Radio: radio}
	// The journal may bring a load back that was taken out: its ID is taken too.
	err := e.tx.GetContext(e.ctx, &l.ID, `SELECT 1 + max(coalesce((SELECT max(id) FROM load), 0), coalesce((SELECT max(c.value ->> 'id')
		FROM journal, json_each(journal.changes) AS c WHERE c.value ->> 'table' = 'load'), 0))`)
	if err != nil {
		return l, fmt.Errorf("next load: %w", err)
	}
	return l, e.put("load", l.ID, nil, l)
}

// DropLoad takes a radio and what it holds out of the plan. The channels stay
// where another radio holds them.
func (e *Edit) DropLoad(id int64) error {
	var entries []entryRow
	if err := e.tx.SelectContext(e.ctx, &entries, "SELECT id, load_id, slot, channel_id, short_name, scan FROM entry WHERE load_id = ? ORDER BY id", id); err != nil {
		return fmt.Errorf("read load %d: %w", id, err)
	}
	for _, r := range entries {
		if err := e.remove("entry", r.ID); err != nil {
			return err
		}
		if err := e.DropChannel(r.ChannelID); err != nil {
			return err
		}
	}
	return e.remove("load", id)
}

// A table is how the journal reads and writes the rows of one.
type table struct {
	read, write string
	row         func() any
}

var tables = map[string]table{
	"load": {
		"SELECT id, plan_id, radio FROM load WHERE id = ?",
		"INSERT INTO load (id, plan_id, radio) VALUES (:id, :plan_id, :radio)",
		func() any { return &Load{} },
	},
	"channel": {
		"SELECT id, plan_id, name, receive_hz, transmit_kind, offset_hz, split_hz, transmit_tone, receive_tone, bandwidth, power FROM channel WHERE id = ?",
		`INSERT INTO channel (id, plan_id, name, receive_hz, transmit_kind, offset_hz, split_hz, transmit_tone, receive_tone, bandwidth, power)
		VALUES (:id, :plan_id, :name, :receive_hz, :transmit_kind, :offset_hz, :split_hz, :transmit_tone, :receive_tone, :bandwidth, :power)
		ON CONFLICT (id) DO UPDATE SET name = excluded.name, receive_hz = excluded.receive_hz, transmit_kind = excluded.transmit_kind,
			offset_hz = excluded.offset_hz, split_hz = excluded.split_hz, transmit_tone = excluded.transmit_tone,
			receive_tone = excluded.receive_tone, bandwidth = excluded.bandwidth, power = excluded.power`,
		func() any { return &channelRow{} },
	},
	"entry": {
		"SELECT id, load_id, slot, channel_id, short_name, scan FROM entry WHERE id = ?",
		`INSERT INTO entry (id, load_id, slot, channel_id, short_name, scan) VALUES (:id, :load_id, :slot, :channel_id, :short_name, :scan)
		ON CONFLICT (id) DO UPDATE SET slot = excluded.slot, channel_id = excluded.channel_id, short_name = excluded.short_name, scan = excluded.scan`,
		func() any { return &entryRow{} },
	},
}

func (e *Edit) next(table string) (id int64, err error) {
	// The journal can bring a deleted row back under its own ID, so an ID is
	// never used twice: the tables are AUTOINCREMENT, and this is their count.
	err = e.tx.GetContext(e.ctx, &id, "SELECT 1 + coalesce((SELECT seq FROM sqlite_sequence WHERE name = ?), 0)", table)
	if err != nil {
		return 0, fmt.Errorf("next %s: %w", table, err)
	}
	return id, nil
}

// row returns a row as the type of its table.
func (e *Edit) row(table string, id int64) (any, error) {
	r := tables[table].row()
	err := e.tx.GetContext(e.ctx, r, tables[table].read, id)
	return reflect.ValueOf(r).Elem().Interface(), found(err, fmt.Sprintf("%s %d", table, id))
}

func (e *Edit) put(table string, id int64, before, after any) error {
	if reflect.DeepEqual(before, after) {
		return nil
	}
	if _, err := e.tx.NamedExecContext(e.ctx, tables[table].write, after); err != nil {
		return fmt.Errorf("write %s %d: %w", table, id, err)
	}
	return e.note(table, id, before, after)
}

func (e *Edit) remove(table string, id int64) error {
	before, err := e.row(table, id)
	if err != nil {
		return err
	}
	if _, err := e.tx.ExecContext(e.ctx, "DELETE FROM "+table+" WHERE id = ?", id); err != nil {
		return fmt.Errorf("delete %s %d: %w", table, id, err)
	}
	return e.note(table, id, before, nil)
}

func (e *Edit) note(table string, id int64, before, after any) error {
	b, err := json.Marshal(before)
	if err != nil {
		return fmt.Errorf("journal: %w", err)
	}
	a, err := json.Marshal(after)
	if err != nil {
		return fmt.Errorf("journal: %w", err)
	}
	e.changes = append(e.changes, change{Table: table, ID: id, Before: b, After: a})
	return nil
}
