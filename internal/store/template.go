package store

import (
	"context"
	"fmt"
)

// Templates returns the columns that people defined, by their names.
func (s *Store) Templates(ctx context.Context) ([]Template, error) {
	var out []Template
	if err := s.read.SelectContext(ctx, &out, "SELECT "+tables["template"].columns+" FROM template ORDER BY name"); err != nil {
		return nil, fmt.Errorf("read templates: %w", err)
	}
	return out, nil
}

// Template returns one of them.
func (s *Store) Template(ctx context.Context, id int64) (Template, error) {
	var t Template
	err := s.read.GetContext(ctx, &t, "SELECT "+tables["template"].columns+" FROM template WHERE id = ?", id)
	return t, found(err, fmt.Sprintf("the columns %d", id))
}
