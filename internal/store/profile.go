package store

import (
	"context"
	"fmt"

	"mnemos/internal/fault"
)

// Profile is a radio profile that somebody made, as YAML.
type Profile struct {
	ID      string `db:"id"`
	YAML    string `db:"yaml"`
	SavedAt string `db:"saved_at"`
}

// Profiles returns the profiles that were made, by ID.
func (s *Store) Profiles(ctx context.Context) ([]Profile, error) {
	var out []Profile
	if err := s.read.SelectContext(ctx, &out, "SELECT id, yaml, saved_at FROM profile ORDER BY id"); err != nil {
		return nil, fmt.Errorf("read profiles: %w", err)
	}
	return out, nil
}

// Profile returns one profile.
func (s *Store) Profile(ctx context.Context, id string) (Profile, error) {
	var p Profile
	err := s.read.GetContext(ctx, &p, "SELECT id, yaml, saved_at FROM profile WHERE id = ?", id)
	return p, found(err, "profile "+id)
}

// SaveProfile writes a profile, in place of one with the same ID.
func (s *Store) SaveProfile(ctx context.Context, p Profile) error {
	_, err := s.write.NamedExecContext(ctx, `INSERT INTO profile (id, yaml, saved_at) VALUES (:id, :yaml, :saved_at)
		ON CONFLICT (id) DO UPDATE SET yaml = excluded.yaml, saved_at = excluded.saved_at`, p)
	if err != nil {
		return fmt.Errorf("save profile %s: %w", p.ID, err)
	}
	return nil
}

// DropProfile removes a profile.
func (s *Store) DropProfile(ctx context.Context, id string) error {
	res, err := s.write.ExecContext(ctx, "DELETE FROM profile WHERE id = ?", id)
	if err != nil {
		return fmt.Errorf("delete profile %s: %w", id, err)
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return fmt.Errorf("profile %s: %w", id, fault.ErrNotFound)
	}
	return nil
}
