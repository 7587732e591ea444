package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"

	"mnemos/core/listing"
	"mnemos/internal/fault"
)

// Mapping returns how a table with these headings was read the last time, as
// JSON, and the source that it was.
func (s *Store) Mapping(ctx context.Context, heading []string) (columns, source string, err error) {
	h, err := json.Marshal(heading)
	if err != nil {
		return "", "", fmt.Errorf("read mapping: %w", err)
	}
	var m struct {
		Source  string `db:"source"`
		Columns string `db:"columns"`
	}
	err = s.read.GetContext(ctx, &m, "SELECT source, columns FROM mapping WHERE heading = ?", string(h))
	return m.Columns, m.Source, found(err, "mapping")
}

// SaveMapping remembers how a table with these headings was read.
func (s *Store) SaveMapping(ctx context.Context, heading []string, source, columns string) error {
	h, err := json.Marshal(heading)
	if err != nil {
		return fmt.Errorf("save mapping: %w", err)
	}
	_, err = s.write.ExecContext(ctx, `INSERT INTO mapping (heading, source, columns) VALUES (?, ?, ?)
		ON CONFLICT (heading) DO UPDATE SET source = excluded.source, columns = excluded.columns`, string(h), source, columns)
	if err != nil {
		return fmt.Errorf("save mapping: %w", err)
	}
	return nil
}

// Rejects returns rows of a source that could not be read, after a given one.
func (s *Store) Rejects(ctx context.Context, source string, after int64, limit int) ([]Reject, error) {
	var rows []struct {
		ID     int64  `db:"id"`
		Line   int    `db:"line"`
		Cells  string `db:"cells"`
		Faults string `db:"faults"`
		State  string `db:"state"`
	}
	err := s.read.SelectContext(ctx, &rows, `SELECT id, line, cells, faults, state FROM reject
		WHERE edition_id IN (SELECT id FROM edition WHERE source = ? AND active = 1) AND id > ? ORDER BY id LIMIT ?`, source, after, limit)
	if err != nil {
		return nil, fmt.Errorf("read rejected rows of %s: %w", source, err)
	}
	out := make([]Reject, len(rows))
	for i, r := range rows {
		out[i] = Reject{ID: r.ID, Line: r.Line, Cells: json.RawMessage(r.Cells), Faults: json.RawMessage(r.Faults), State: r.State}
	}
	return out, nil
}

// TakeReject puts a row that could be read at last into its edition, in place
// of the row as it was. A key that is taken gets the number of the row.
func (s *Store) TakeReject(ctx context.Context, edition, id int64, r *listing.Record, cells []string) error {
	defer s.publishes()
	tx, err := s.write.BeginTxx(ctx, nil)
	if err != nil {
		return fmt.Errorf("take row %d: %w", id, err)
	}
	defer func() { _ = tx.Rollback() }() // no effect after Commit
	mended, err := json.Marshal(cells)
	if err != nil {
		return fmt.Errorf("take row %d: %w", id, err)
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO mended (source, was, cells) SELECT ?, cells, ? FROM reject WHERE id = ?
		ON CONFLICT (source, was) DO UPDATE SET cells = excluded.cells`, r.Source, string(mended), id); err != nil {
		return fmt.Errorf("take row %d: %w", id, err)
	}
	res, err := tx.ExecContext(ctx, "DELETE FROM reject WHERE id = ? AND edition_id = ?", id, edition)
	if err != nil {
		return fmt.Errorf("take row %d: %w", id, err)
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, fmt.Errorf("row %d: %w", id, fault.ErrNotFound))
	}
	var used int
	if err := tx.GetContext(ctx, &used, "SELECT count(*) FROM record WHERE edition_id = ? AND key = ?", edition, r.Key); err != nil {
		return fmt.Errorf("take row %d: %w", id, err)
	}
	if used > 0 {
		r.Key = fmt.Sprintf("%s #row %d", r.Key, id)
	}
	if _, err := tx.ExecContext(ctx, insertRecords(1), fields(edition, r.Source, *r)...); err != nil {
		return fmt.Errorf("take row %d: %w", id, err)
	}
	if _, err := tx.ExecContext(ctx, "UPDATE edition SET records = records + 1 WHERE id = ?", edition); err != nil {
		return fmt.Errorf("take row %d: %w", id, err)
	}
	if err := tx.Commit(); err != nil {
		return fmt.Errorf("take row %d: %w", id, err)
	}
	return nil
}

// SetReject keeps a row that could not be read for later, discards it or takes
// that back.
func (s *Store) SetReject(ctx context.Context, e EditionInfo, id int64, state string) error {
	tx, err := s.write.BeginTxx(ctx, nil)
	if err != nil {
		return fmt.Errorf("row %d: %w", id, err)
	}
	defer func() { _ = tx.Rollback() }() // no effect after Commit
	res, err := tx.ExecContext(ctx, "UPDATE reject SET state = ? WHERE id = ? AND edition_id = ?", state, id, e.ID)
	if err != nil {
		return fmt.Errorf("row %d: %w", id, err)
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, fmt.Errorf("row %d: %w", id, fault.ErrNotFound))
	}
	if state == "discarded" {
		_, err = tx.ExecContext(ctx, `INSERT INTO mended (source, was, cells) SELECT ?, cells, NULL FROM reject WHERE id = ?
			ON CONFLICT (source, was) DO UPDATE SET cells = NULL`, e.Source, id)
	} else {
		_, err = tx.ExecContext(ctx, "DELETE FROM mended WHERE source = ? AND was = (SELECT cells FROM reject WHERE id = ?)", e.Source, id)
	}
	if err == nil {
		err = tx.Commit()
	}
	if err != nil {
		return fmt.Errorf("row %d: %w", id, err)
	}
	return nil
}

// Mended returns what was made of rows of a source that could not be read, by
// their cells as they came (JSON); nil for a row that was discarded.
func (s *Store) Mended(ctx context.Context, source string) (map[string][]string, error) {
	var rows []struct {
		Was   string  `db:"was"`
		Cells *string `db:"cells"`
	}
	if err := s.read.SelectContext(ctx, &rows, "SELECT was, cells FROM mended WHERE source = ?", source); err != nil {
		return nil, fmt.Errorf("read mended rows of %s: %w", source, err)
	}
	out := map[string][]string{}
	for _, r := range rows {
		var cells []string
		if r.Cells != nil {
			if err := json.Unmarshal([]byte(*r.Cells), &cells); err != nil {
				return nil, fmt.Errorf("read mended rows of %s: %w", source, err)
			}
		}
		out[r.Was] = cells
	}
	return out, nil
}
