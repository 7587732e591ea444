package store

import (
	"context"
	"fmt"

	"mnemos/core/listing"
)

// Corrections returns all corrections.
func (s *Store) Corrections(ctx context.Context) ([]Correction, error) {
	var out []Correction
	if err := s.read.SelectContext(ctx, &out, "SELECT "+tables["correction"].columns+" FROM correction ORDER BY source, key, field"); err != nil {
		return nil, fmt.Errorf("read corrections: %w", err)
	}
	return out, nil
}

// Decisions implements listing.Source.
func (s *Store) Decisions(ctx context.Context) ([]listing.Decision, error) {
	rows, err := s.Decided(ctx)
	var out []listing.Decision
	for _, r := range rows {
		out = append(out, listing.Decision{A: listing.ID{Source: r.ASource, Key: r.AKey}, B: listing.ID{Source: r.BSource, Key: r.BKey}, Same: r.Same})
	}
	return out, err
}

// Decided returns all decisions as they are kept.
func (s *Store) Decided(ctx context.Context) ([]Decision, error) {
	var out []Decision
	if err := s.read.SelectContext(ctx, &out, "SELECT "+tables["decision"].columns+" FROM decision ORDER BY a_source, a_key, b_source, b_key"); err != nil {
		return nil, fmt.Errorf("read decisions: %w", err)
	}
	return out, nil
}

// Correct keeps a correction, in place of the one of the same field.
func (e *Edit) Correct(c Correction) error {
	var err error
	if c.ID, err = e.known("correction", "source = ? AND key = ? AND field = ?", c.Source, c.Key, c.Field); err != nil {
		return err
	}
	return e.Put(c)
}

// Decide keeps a decision, in place of the one about the same two statements.
func (e *Edit) Decide(d Decision) error {
	if d.ASource > d.BSource || d.ASource == d.BSource && d.AKey > d.BKey {
		d.ASource, d.AKey, d.BSource, d.BKey = d.BSource, d.BKey, d.ASource, d.AKey
	}
	var err error
	if d.ID, err = e.known("decision", "a_source = ? AND a_key = ? AND b_source = ? AND b_key = ?", d.ASource, d.AKey, d.BSource, d.BKey); err != nil {
		return err
	}
	return e.Put(d)
}

// known returns the number of the row that is about the same, or a new one.
func (e *Edit) known(table, where string, args ...any) (int64, error) {
	var ids []int64
	if err := e.tx.SelectContext(e.ctx, &ids, "SELECT id FROM "+table+" WHERE "+where, args...); err != nil {
		return 0, fmt.Errorf("look for %s: %w", table, err)
	}
	if len(ids) > 0 {
		return ids[0], nil
	}
	return e.ID(table)
}
