package store

import (
	"context"
	"encoding/json"
	"fmt"
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
	}
	err := s.read.SelectContext(ctx, &rows, `SELECT id, line, cells, faults FROM reject
		WHERE edition_id IN (SELECT id FROM edition WHERE source = ? AND active = 1) AND id > ? ORDER BY id LIMIT ?`, source, after, limit)
	if err != nil {
		return nil, fmt.Errorf("read rejected rows of %s: %w", source, err)
	}
	out := make([]Reject, len(rows))
	for i, r := range rows {
		out[i] = Reject{ID: r.ID, Line: r.Line, Cells: json.RawMessage(r.Cells), Faults: json.RawMessage(r.Faults)}
	}
	return out, nil
}
