package store

import (
	"context"
	"fmt"
)

// Outlines returns the coasts and borders that are drawn beside those of the
// world, each a GeoJSON feature collection.
func (s *Store) Outlines(ctx context.Context) ([]string, error) {
	out := []string{}
	if err := s.read.SelectContext(ctx, &out, "SELECT geojson FROM outline ORDER BY name"); err != nil {
		return nil, fmt.Errorf("read outlines: %w", err)
	}
	return out, nil
}

// SetOutline keeps an outline, in place of one of the same name.
func (s *Store) SetOutline(ctx context.Context, name, geojson string) error {
	_, err := s.write.ExecContext(ctx, "INSERT INTO outline (name, geojson) VALUES (?, ?) ON CONFLICT (name) DO UPDATE SET geojson = excluded.geojson", name, geojson)
	if err != nil {
		return fmt.Errorf("keep outline %s: %w", name, err)
	}
	return nil
}
