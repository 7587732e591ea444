package store

import (
	"context"
	"fmt"
	"strings"

	"mnemos/core/listing"
	"mnemos/internal/fault"
)

// holding is a pattern of LIKE, with ESCAPE '\', for a text that holds a word.
func holding(word string) string {
	return "%" + strings.NewReplacer(`\`, `\\`, "%", `\%`, "_", `\_`).Replace(word) + "%"
}

var joined = "r." + strings.ReplaceAll(recordColumns, ", ", ", r.")

func (s *Store) rows(ctx context.Context, query string, args []any) ([]listing.Record, error) {
	var rows []recordRow
	if err := s.read.SelectContext(ctx, &rows, query, args...); err != nil {
		return nil, fmt.Errorf("search records: %w", err)
	}
	out := make([]listing.Record, 0, len(rows))
	for _, row := range rows {
		rec, err := row.record()
		if err != nil {
			return nil, err
		}
		out = append(out, rec)
	}
	return out, nil
}

// Record returns one statement of the listings that count.
func (s *Store) Record(ctx context.Context, source, key string) (listing.Record, error) {
	out, err := s.rows(ctx, "SELECT r.edition_id, "+joined+` FROM record AS r
		WHERE r.edition_id IN (SELECT id FROM edition WHERE source = ? AND active = 1) AND r.key = ?`, []any{source, key})
	if err == nil && len(out) == 0 {
		err = fmt.Errorf("record %s of %s: %w", key, source, fault.ErrNotFound)
	}
	if err != nil {
		return listing.Record{}, err
	}
	return out[0], nil
}
