package store

import (
	"context"
	"fmt"

	"mnemos/core/listing"
)

// Correction is what somebody knows better than a statement about one field.
type Correction struct {
	Source  string `db:"source"`
	Key     string `db:"key"`
	Field   string `db:"field"`
	Value   string `db:"value"`
	Against string `db:"against"`
	Note    string `db:"note"`
	Person  string `db:"person"`
	At      string `db:"at"`
}

// Corrections returns all of them.
func (s *Store) Corrections(ctx context.Context) ([]Correction, error) {
	var out []Correction
	if err := s.read.SelectContext(ctx, &out, "SELECT source, key, field, value, against, note, person, at FROM correction ORDER BY source, key, field"); err != nil {
		return nil, fmt.Errorf("read corrections: %w", err)
	}
	return out, nil
}

// Correct keeps corrections, in place of those of the same fields. One
// without a value takes the one before back.
func (s *Store) Correct(ctx context.Context, list []Correction) error {
	tx, err := s.write.BeginTxx(ctx, nil)
	if err != nil {
		return fmt.Errorf("keep correction: %w", err)
	}
	defer func() { _ = tx.Rollback() }() // no effect after Commit
	for _, c := range list {
		if _, err := tx.NamedExecContext(ctx, "DELETE FROM correction WHERE source = :source AND key = :key AND field = :field", c); err != nil {
			return fmt.Errorf("keep correction: %w", err)
		}
		if c.Value == "" {
			continue
		}
		if _, err := tx.NamedExecContext(ctx, `INSERT INTO correction (source, key, field, value, against, note, person, at)
			VALUES (:source, :key, :field, :value, :against, :note, :person, :at)`, c); err != nil {
			return fmt.Errorf("keep correction: %w", err)
		}
	}
	if err := tx.Commit(); err != nil {
		return fmt.Errorf("keep correction: %w", err)
	}
	said := Said{}
	for _, c := range list {
		said.Of = append(said.Of, listing.ID{Source: c.Source, Key: c.Key})
	}
	s.says(said)
	return nil
}
