package store

import (
	"database/sql"
	"fmt"
	"io/fs"

	"github.com/pressly/goose/v3"
)

// steps are the migrations, those that are SQL and those that are code.
func steps(db *sql.DB) (*goose.Provider, error) {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		panic(err) // embedded: the folder is there
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, db, files, goose.WithGoMigrations(journalOfUnits))
	if err != nil {
		return nil, fmt.Errorf("read migrations: %w", err)
	}
	return p, nil
}
