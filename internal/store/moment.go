package store

import (
	"context"
	"database/sql"
	"fmt"

	"github.com/jmoiron/sqlx"
)

// reader is the data file as it is read: as it stands, or under a context of
// Moment as it stood then.
type reader struct{ *sqlx.DB }

type momentKey struct{}

// queryer is what both are asked by.
type queryer interface {
	sqlx.QueryerContext
	GetContext(ctx context.Context, dest any, query string, args ...any) error
	SelectContext(ctx context.Context, dest any, query string, args ...any) error
}

func (r reader) at(ctx context.Context) queryer {
	if tx, ok := ctx.Value(momentKey{}).(*sqlx.Tx); ok {
		return tx
	}
	return r.DB
}

func (r reader) GetContext(ctx context.Context, dest any, query string, args ...any) error {
	return r.at(ctx).GetContext(ctx, dest, query, args...)
}

func (r reader) SelectContext(ctx context.Context, dest any, query string, args ...any) error {
	return r.at(ctx).SelectContext(ctx, dest, query, args...)
}

func (r reader) QueryContext(ctx context.Context, query string, args ...any) (*sql.Rows, error) {
	return r.at(ctx).QueryContext(ctx, query, args...)
}

func (r reader) QueryxContext(ctx context.Context, query string, args ...any) (*sqlx.Rows, error) {
	return r.at(ctx).QueryxContext(ctx, query, args...)
}

func (r reader) QueryRowxContext(ctx context.Context, query string, args ...any) *sqlx.Row {
	return r.at(ctx).QueryRowxContext(ctx, query, args...)
}

// Moment returns a context under which everything is read as it stands at the
// first look, whoever changes it meanwhile, until done is called. One moment
// within another is the same one. Moments have connections of their own: who is
// in one and reads something else as it stands waits for none of them.
func (s *Store) Moment(ctx context.Context) (_ context.Context, done func(), err error) {
	if _, ok := ctx.Value(momentKey{}).(*sqlx.Tx); ok {
		return ctx, func() {}, nil
	}
	tx, err := s.moments.BeginTxx(ctx, nil)
	if err != nil {
		return ctx, func() {}, fmt.Errorf("begin to read: %w", err)
	}
	return context.WithValue(ctx, momentKey{}, tx), func() { _ = tx.Rollback() }, nil // nothing is written
}

// Present returns a context under which things are read as they stand, also
// within a moment: for what is kept for others.
func Present(ctx context.Context) context.Context {
	return context.WithValue(ctx, momentKey{}, nil)
}
