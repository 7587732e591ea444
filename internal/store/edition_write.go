package store

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"mnemos/core/listing"
	"mnemos/internal/root"
)

// gathered is how many records are put in order of their outputs before they
// are written: neighbours in an index are then written together.
const gathered = 10_000

const recordFields = 19 // edition_id and those of recordColumns

func insertRecords(n int) string {
	one := "(" + strings.TrimSuffix(strings.Repeat("?, ", recordFields), ", ") + ")"
	return "INSERT INTO record (edition_id, " + recordColumns + ") VALUES " + strings.TrimSuffix(strings.Repeat(one+", ", n), ", ")
}

// writing is the part of an edition that writes what is gathered while more is
// being read.
type writing struct {
	insert *sqlx.Stmt // a whole batch at once
	values []any      // of a batch
	cancel context.CancelFunc
	done   chan error // nil while nothing is written
	failed error      // for good: what was not written is not held any more
}

// wait waits until nothing is being written.
func (w *writing) wait() error {
	if w.done != nil {
		w.failed = <-w.done
		w.cancel()
		w.done = nil
	}
	return w.failed
}

// close ends the writing, with whatever is not written yet.
func (w *writing) close() error {
	if w.done != nil {
		w.cancel()
		_ = w.wait() // it was told to end
	}
	if w.insert == nil {
		return nil
	}
	err := w.insert.Close()
	w.insert = nil
	return err
}

// Add takes a record into the edition. An error may be that of a record before.
func (e *Edition) Add(ctx context.Context, r listing.Record) error {
	e.Records++
	if e.queue = append(e.queue, r); len(e.queue) < gathered {
		return nil
	}
	return e.pass(ctx)
}

// Reject keeps a row that could not be read.
func (e *Edition) Reject(ctx context.Context, r Reject) error {
	if e.rejects = append(e.rejects, r); len(e.rejects) < gathered {
		return nil
	}
	return e.pass(ctx)
}

// pass has what is gathered written: meanwhile, where nobody else needs the
// processors.
func (e *Edition) pass(ctx context.Context) error {
	if e.s.alone {
		return e.hand(ctx)
	}
	return e.flush(ctx)
}

// hand has what is gathered written, in the order of the outputs.
func (e *Edition) hand(ctx context.Context) error {
	w := &e.writing
	if err := w.wait(); err != nil {
		return err
	}
	queue, rejects := e.queue, e.rejects
	e.queue, e.rejects = nil, nil
	ctx, w.cancel = context.WithCancel(ctx)
	w.done = make(chan error, 1)
	done := w.done
	root.Go("write the records of "+e.Source, func() error {
		root.Here("store: write records")
		slices.SortStableFunc(queue, func(a, b listing.Record) int { return cmp.Compare(a.Output, b.Output) })
		if err := e.write(ctx, queue, rejects); err != nil {
			return fmt.Errorf("write records of %s: %w", e.Source, err)
		}
		return nil
	}, func(err error) { done <- err })
	return nil
}

// flush writes what is gathered, and returns when everything is written.
func (e *Edition) flush(ctx context.Context) error {
	if err := e.hand(ctx); err != nil {
		return err
	}
	return e.writing.wait()
}

func (e *Edition) write(ctx context.Context, queue []listing.Record, rejects []Reject) error {
	w := &e.writing
	if w.insert == nil && len(queue) >= batch {
		var err error // once: it takes apart a statement of thousands of values
		if w.insert, err = e.s.write.PreparexContext(ctx, insertRecords(batch)); err != nil {
			return err
		}
	}
	return e.s.yielding(ctx, func(tx *sqlx.Tx) (bool, error) {
		rows, bad := queue[:min(batch, len(queue))], rejects[:min(batch, len(rejects))]
		queue, rejects = queue[len(rows):], rejects[len(bad):]
		if err := e.writeRecords(ctx, tx, rows); err != nil {
			return false, err
		}
		return len(queue)+len(rejects) > 0, e.writeRejects(ctx, tx, bad)
	})
}

func (e *Edition) writeRecords(ctx context.Context, tx *sqlx.Tx, rows []listing.Record) error {
	w := &e.writing
	if len(rows) == 0 {
		return nil
	}
	w.values = w.values[:0]
	for _, r := range rows {
		w.values = append(w.values, fields(e.ID, e.Source, r)...)
	}
	if len(rows) < batch {
		_, err := tx.ExecContext(ctx, insertRecords(len(rows)), w.values...)
		return err
	}
	_, err := tx.StmtxContext(ctx, w.insert).ExecContext(ctx, w.values...)
	return err
}

func (e *Edition) writeRejects(ctx context.Context, tx *sqlx.Tx, rows []Reject) error {
	for _, r := range rows {
		if _, err := tx.ExecContext(ctx, "INSERT INTO reject (edition_id, line, cells, faults) VALUES (?, ?, ?, ?)", e.ID, r.Line, string(r.Cells), string(r.Faults)); err != nil {
			return fmt.Errorf("row %d: %w", r.Line, err)
		}
	}
	return nil
}

// fields are what insertRecords wants for one record.
func fields(edition int64, source string, r listing.Record) []any {
	return []any{
		edition, r.Key, r.Callsign, int64(r.Output), int64(r.Input), stated(r.UplinkTone), stated(r.DownlinkTone), string(r.Mode), r.Width,
		r.Locality, r.Lat, r.Lon, r.Height, string(r.Status), string(r.Access), r.Updated.String(), source, r.Note, kind(r),
	}
}

func kind(r listing.Record) string {
	if r.Kind == "" && !r.IsRepeater() {
		return string(listing.SimplexChannel)
	}
	return string(r.Kind)
}
