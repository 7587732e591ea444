package store

import (
	"context"
	"fmt"
)

// Profiles returns the profiles that were made, by what they are called.
func (s *Store) Profiles(ctx context.Context) ([]Profile, error) {
	var out []Profile
	if err := s.read.SelectContext(ctx, &out, "SELECT "+tables["profile"].columns+" FROM profile ORDER BY slug"); err != nil {
		return nil, fmt.Errorf("read profiles: %w", err)
	}
	return out, nil
}

// Profile returns one profile.
func (s *Store) Profile(ctx context.Context, slug string) (Profile, error) {
	var p Profile
	err := s.read.GetContext(ctx, &p, "SELECT "+tables["profile"].columns+" FROM profile WHERE slug = ?", slug)
	return p, found(err, "profile "+slug)
}

// Units returns all radios, oldest first.
func (s *Store) Units(ctx context.Context) ([]Unit, error) {
	var out []Unit
	if err := s.read.SelectContext(ctx, &out, "SELECT "+tables["unit"].columns+" FROM unit ORDER BY id"); err != nil {
		return nil, fmt.Errorf("read units: %w", err)
	}
	return out, nil
}

// Unit returns one radio.
func (s *Store) Unit(ctx context.Context, id int64) (Unit, error) {
	var u Unit
	err := s.read.GetContext(ctx, &u, "SELECT "+tables["unit"].columns+" FROM unit WHERE id = ?", id)
	return u, found(err, fmt.Sprintf("radio %d", id))
}

// People returns everybody, oldest first.
func (s *Store) People(ctx context.Context) ([]Person, error) {
	var out []Person
	if err := s.read.SelectContext(ctx, &out, "SELECT "+tables["person"].columns+" FROM person ORDER BY id"); err != nil {
		return nil, fmt.Errorf("read people: %w", err)
	}
	return out, nil
}
