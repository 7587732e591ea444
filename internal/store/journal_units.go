package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"

	"github.com/pressly/goose/v3"
)

// journalOfUnits brings the journal of a file of version 6 up to date: a load
// there named a profile, and names a unit now, which comes and goes with it.
// What else is new in a row has its zero value, and needs no rewriting.
var journalOfUnits = goose.NewGoMigration(8, &goose.GoFunc{RunTx: func(ctx context.Context, tx *sql.Tx) error {
	rows, err := tx.QueryContext(ctx, "SELECT id, changes FROM journal WHERE EXISTS (SELECT 1 FROM json_each(changes) AS c WHERE c.value ->> 'table' = 'load')")
	if err != nil {
		return fmt.Errorf("read journal: %w", err)
	}
	texts := map[int64]string{}
	for rows.Next() {
		var id int64
		var text string
		if err := rows.Scan(&id, &text); err != nil {
			return fmt.Errorf("read journal: %w", err)
		}
		texts[id] = text
	}
	if err := rows.Err(); err != nil {
		return fmt.Errorf("read journal: %w", err)
	}
	units := map[int64]int64{} // by the load that each was of
	for _, id := range sortedKeys(texts) {
		changes, err := withUnits(ctx, tx, texts[id], units)
		if err != nil {
			return fmt.Errorf("journal %d: %w", id, err)
		}
		if _, err := tx.ExecContext(ctx, "UPDATE journal SET changes = ? WHERE id = ?", changes, id); err != nil {
			return fmt.Errorf("write journal: %w", err)
		}
	}
	return nil
}}, nil)

func withUnits(ctx context.Context, tx *sql.Tx, text string, units map[int64]int64) (string, error) {
	var changes, out []RowChange
	if err := json.Unmarshal([]byte(text), &changes); err != nil {
		return "", err
	}
	for _, c := range changes {
		if c.Table != "load" {
			out = append(out, c)
			continue
		}
		unit := RowChange{Table: "unit", Before: []byte("null"), After: []byte("null")}
		for _, side := range []struct{ load, unit *json.RawMessage }{{&c.Before, &unit.Before}, {&c.After, &unit.After}} {
			var old *struct {
				ID     int64  `json:"id"`
				PlanID int64  `json:"plan_id"`
				Radio  string `json:"radio"`
			}
			if err := json.Unmarshal(*side.load, &old); err != nil {
				return "", err
			}
			if old == nil {
				continue
			}
			u := Unit{Profile: old.Radio}
			var err error
			if u.ID, err = unitOf(ctx, tx, old.ID, units); err != nil {
				return "", err
			}
			unit.ID = u.ID
			if *side.load, err = image(Load{ID: old.ID, PlanID: old.PlanID, UnitID: u.ID}); err != nil {
				return "", err
			}
			if *side.unit, err = image(u); err != nil {
				return "", err
			}
		}
		out = append(out, unit, c)
	}
	b, err := json.Marshal(out)
	return string(b), err
}

// unitOf returns the unit of a load: the one that it has, or for a load that is
// gone a number that nobody else gets.
func unitOf(ctx context.Context, tx *sql.Tx, load int64, units map[int64]int64) (id int64, err error) {
	if id, known := units[load]; known {
		return id, nil
	}
	err = tx.QueryRowContext(ctx, "SELECT unit_id FROM load WHERE id = ?", load).Scan(&id)
	if errors.Is(err, sql.ErrNoRows) {
		err = tx.QueryRowContext(ctx, "UPDATE serial SET last = last + 1 WHERE name = 'unit' RETURNING last").Scan(&id)
	}
	if err != nil {
		return 0, fmt.Errorf("number the unit of load %d: %w", load, err)
	}
	units[load] = id
	return id, nil
}
