package store

import (
	"context"
	"encoding/binary"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"reflect"
	"strings"
	"syscall"

	"github.com/jmoiron/sqlx"
	_ "modernc.org/sqlite" // the driver

	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/limit"
)

func notOne(path, why string, args ...any) error {
	return fmt.Errorf("%s is not a backup of Mnemos, or is damaged: %s", path, fmt.Sprintf(why, args...))
}

// regular refuses what is no plain file of SQLite, before anything of it is read
// that might never end; and the data file itself.
func regular(path, own string) (err error) {
	info, err := os.Lstat(path)
	if err != nil {
		return fmt.Errorf("read backup: %w", err)
	}
	if !info.Mode().IsRegular() {
		return notOne(path, "it is not a plain file")
	}
	if same, err := os.Stat(own); err == nil && os.SameFile(info, same) {
		return fmt.Errorf("%s is the data file of this folder itself: name a backup of it", path)
	}
	if s, ok := info.Sys().(*syscall.Stat_t); ok && s.Blocks*512 < info.Size()/2 {
		return notOne(path, "most of it is holes")
	}
	f, err := os.Open(path)
	if err != nil {
		return fmt.Errorf("read backup: %w", err)
	}
	defer func() { err = errors.Join(err, f.Close()) }()
	head := make([]byte, 100) // https://sqlite.org/fileformat2.html#the_database_header
	if _, err := io.ReadFull(f, head); err != nil || string(head[:16]) != "SQLite format 3\x00" {
		return notOne(path, "it is not a file of SQLite")
	}
	page, pages := int64(binary.BigEndian.Uint16(head[16:])), int64(binary.BigEndian.Uint32(head[28:]))
	if page == 1 {
		page = 65536
	}
	if wal, err := os.Stat(path + "-wal"); (err != nil || wal.Size() == 0) && page*pages != info.Size() {
		return notOne(path, "it is %d bytes long, and says %d", info.Size(), page*pages)
	}
	return nil
}

// passed copies a backup, with the log beside it if there is one, into a folder,
// looks at all of it, brings it to this version, and returns the whole as one file.
func passed(ctx context.Context, from, aside string) (whole string, err error) {
	path := filepath.Join(aside, dataFile)
	if err := copyFile(from, path); err != nil {
		return "", err
	}
	if _, err := os.Lstat(from + "-wal"); err == nil {
		if err := copyFile(from+"-wal", path+"-wal"); err != nil {
			return "", err
		}
	}
	db, err := sqlx.Open("sqlite", dsn(path, "&_pragma=trusted_schema(0)"))
	if err != nil {
		return "", notOne(from, "%v", err)
	}
	db.SetMaxOpenConns(1)
	defer func() { err = errors.Join(err, db.Close()) }()
	if err := asMade(ctx, db, from); err != nil {
		return "", err
	}
	if err := migrate(ctx, db, path); err != nil {
		return "", err
	}
	if err := kept(ctx, db, from); err != nil {
		return "", err
	}
	whole = filepath.Join(aside, "whole.db")
	return whole, copyAside(ctx, db, whole)
}

// asMade reports what in a file is not as its version of Mnemos made it: its
// pages, its tables, or rows that refer to nothing.
func asMade(ctx context.Context, db *sqlx.DB, path string) error {
	var found []string
	if err := db.SelectContext(ctx, &found, "PRAGMA integrity_check(1)"); err != nil || len(found) != 1 || found[0] != "ok" {
		return notOne(path, "its pages do not fit together")
	}
	var versions int
	if err := db.GetContext(ctx, &versions, "SELECT count(*) FROM sqlite_schema WHERE type = 'table' AND name = 'goose_db_version'"); err != nil || versions != 1 {
		return notOne(path, "it has no version")
	}
	provider, err := steps(db.DB)
	if err != nil {
		return err
	}
	current, target, err := provider.GetVersions(ctx)
	if err != nil {
		return notOne(path, "its version cannot be read")
	}
	if err := known(path, current, target); err != nil {
		return err
	}
	if current < 1 {
		return notOne(path, "it has no version")
	}
	want, err := madeBy(ctx, current)
	if err != nil {
		return err
	}
	have, err := schemaOf(ctx, db)
	if err != nil {
		return notOne(path, "%v", err)
	}
	for name, sql := range have {
		if want[name] != sql {
			return notOne(path, "its %s is not as version %d of Mnemos makes it", name, current)
		}
	}
	for name := range want {
		if _, ok := have[name]; !ok {
			return notOne(path, "it lacks its %s", name)
		}
	}
	var broken bool
	if err := db.GetContext(ctx, &broken, "SELECT EXISTS (SELECT 1 FROM pragma_foreign_key_check)"); err != nil || broken {
		return notOne(path, "rows refer to others that are not there")
	}
	return nil
}

// madeBy is what a file holds that a version of Mnemos has just made.
func madeBy(ctx context.Context, version int64) (map[string]string, error) {
	db, err := sqlx.Open("sqlite", ":memory:")
	if err != nil {
		return nil, err
	}
	db.SetMaxOpenConns(1)
	defer func() { _ = db.Close() }() // it is gone with it
	provider, err := steps(db.DB)
	if err != nil {
		return nil, err
	}
	if _, err := provider.UpTo(ctx, version); err != nil {
		return nil, fmt.Errorf("make version %d: %w", version, err)
	}
	return schemaOf(ctx, db)
}

// schemaOf is what stands in a file by kind and name, without SQLite's own.
func schemaOf(ctx context.Context, db *sqlx.DB) (map[string]string, error) {
	var rows []struct {
		Type string `db:"type"`
		Name string `db:"name"`
		SQL  string `db:"sql"`
	}
	if err := db.SelectContext(ctx, &rows, "SELECT type, name, coalesce(sql, '') AS sql FROM sqlite_schema WHERE name NOT LIKE 'sqlite\\_%' ESCAPE '\\'"); err != nil {
		return nil, err
	}
	out := map[string]string{}
	for _, r := range rows {
		out[r.Type+" "+r.Name] = strings.Join(strings.Fields(r.SQL), " ")
	}
	return out, nil
}

// kept reports what in the rows of a file Mnemos never keeps: each is read as its
// type, and so is each image of the journal.
func kept(ctx context.Context, db *sqlx.DB, path string) error {
	for name, t := range tables {
		rows, err := db.QueryxContext(ctx, "SELECT "+t.columns+" FROM "+name)
		if err != nil {
			return notOne(path, "%s: %v", name, err)
		}
		err = each(rows, func() error {
			r := reflect.New(t.row)
			if err := rows.StructScan(r.Interface()); err != nil {
				return err
			}
			return readable(r.Elem().Interface())
		})
		if err != nil {
			return notOne(path, "%s: %v", name, err)
		}
	}
	rows, err := db.QueryxContext(ctx, "SELECT changes FROM journal")
	if err != nil {
		return notOne(path, "%v", err)
	}
	err = each(rows, func() error {
		var text string
		var changes []RowChange
		if err := rows.Scan(&text); err != nil {
			return err
		}
		if err := json.Unmarshal([]byte(text), &changes); err != nil {
			return err
		}
		for _, c := range changes {
			t, known := tables[c.Table]
			if !known {
				return fmt.Errorf("there is no table %q", c.Table)
			}
			for _, image := range []json.RawMessage{c.Before, c.After} {
				r, ok, err := t.read(image)
				if err != nil {
					return err
				}
				if ok {
					if err := sound(r); err != nil {
						return err
					}
				}
			}
		}
		return nil
	})
	if err != nil {
		return notOne(path, "its journal: %v", err)
	}
	for what, query := range map[string]string{
		"a number is beyond all that are given": "SELECT EXISTS (SELECT 1 FROM sqlite_sequence WHERE seq < 0 OR seq > ?1 OR name = 'journal' AND seq < (SELECT coalesce(max(id), 0) FROM journal)) OR EXISTS (SELECT 1 FROM serial WHERE last < 0 OR last > ?1) OR EXISTS (SELECT 1 FROM edition_serial WHERE next < 0 OR next > ?1)",
		"a record is beyond its bounds":         "SELECT EXISTS (SELECT 1 FROM record WHERE output_hz NOT BETWEEN 0 AND ?2 OR input_hz NOT BETWEEN 0 AND ?2 OR abs(lat) > 90 OR abs(lon) > 180 OR abs(height_m) > ?1) AND ?1 > 0",
	} {
		var bad bool
		if err := db.GetContext(ctx, &bad, query, int64(limit.Number), int64(freq.Max)); err != nil || bad {
			return notOne(path, "%s", what)
		}
	}
	return nil
}

// readable reports why a row cannot be used as what it is.
func readable(r any) error {
	if err := sound(r); err != nil {
		return err
	}
	if c, ok := r.(channelRow); ok {
		made, err := c.channel()
		if err != nil {
			return err
		}
		for _, f := range made.Faults() {
			if f.Field != channel.FieldName { // an older version may have taken another one
				return errors.New(f.Text)
			}
		}
	}
	return nil
}

// each calls f for every row, and closes them.
func each(rows *sqlx.Rows, f func() error) error {
	defer func() { _ = rows.Close() }() // read to its end below
	for rows.Next() {
		if err := f(); err != nil {
			return err
		}
	}
	return rows.Err()
}
