package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"

	"mnemos/core/listing"
	"mnemos/internal/fault"
)

// Edition is a listing under way. Nobody sees any of it until Activate.
type Edition struct {
	s       *Store
	writing writing
	queue   []listing.Record
	rejects []Reject
	ID      int64
	Source  string
	Records int
}

// EditionInfo is an edition as it stands.
type EditionInfo struct {
	ID         int64  `db:"id"`
	Source     string `db:"source"`
	PlanID     int64  `db:"plan_id"` // the plan that it serves alone; 0 for every plan
	ImportedAt string `db:"imported_at"`
	File       string `db:"file"`
	Records    int    `db:"records"`
	Rejects    int    `db:"rejects"`
	Heading    string `db:"heading"` // JSON
	Mapping    string `db:"mapping"` // JSON
}

// Reject is a row of a file that could not be read.
type Reject struct {
	ID     int64           `db:"id"`
	Line   int             `db:"line"`
	Cells  json.RawMessage `db:"cells"`
	Faults json.RawMessage `db:"faults"`
	State  string          `db:"state"` // "", later or discarded
}

// NewEdition begins an edition of a source. heading and mapping say what the
// columns of its file were and how they were read.
func (s *Store) NewEdition(ctx context.Context, source, at, file, heading, mapping string) (*Edition, error) {
	e := &Edition{s: s, Source: source}
	if err := s.write.GetContext(ctx, &e.ID, "UPDATE edition_serial SET next = next + 1 RETURNING next - 1"); err != nil {
		return nil, fmt.Errorf("new edition of %s: %w", source, err)
	}
	s.pending.Store(e.ID, true) // before it is there: the sweeper may be at work
	_, err := s.write.ExecContext(ctx, `INSERT INTO edition (id, source, imported_at, active, file, heading, mapping, plan_id)
		VALUES (?1, ?2, ?3, 0, ?4, ?5, ?6, coalesce((SELECT plan_id FROM edition WHERE source = ?2 ORDER BY active DESC, id DESC LIMIT 1), 0))`,
		e.ID, source, at, file, heading, mapping)
	if err != nil {
		s.pending.Delete(e.ID)
		return nil, fmt.Errorf("new edition of %s: %w", source, err)
	}
	return e, nil
}

// Settle gives the records that share a key their numbers by what they say and
// not by the order in which they came: the same rows have the same keys in
// every edition.
func (e *Edition) Settle(ctx context.Context, keys []string) error {
	if len(keys) == 0 {
		return nil
	}
	if err := e.flush(ctx); err != nil {
		return err
	}
	tx, err := e.s.write.BeginTxx(ctx, nil)
	if err != nil {
		return fmt.Errorf("settle keys of %s: %w", e.Source, err)
	}
	defer func() { _ = tx.Rollback() }() // no effect after Commit
	for _, key := range keys {
		var ids []int64
		if err := tx.SelectContext(ctx, &ids, `SELECT id FROM record WHERE edition_id = ?2 AND (key = ?1 OR substr(key, 1, length(?1) + 2) = ?1 || ' #' AND substr(key, length(?1) + 3) <> '' AND substr(key, length(?1) + 3) NOT GLOB '*[^0-9]*')
			ORDER BY output_hz, input_hz, uplink_tone, downlink_tone, callsign, locality, lat, lon, mode, width, status, access, note, updated, id`,
			key, e.ID); err != nil {
			return fmt.Errorf("settle keys of %s: %w", e.Source, err)
		}
		for _, turn := range []string{"\x00%s %d", ""} { // out of the way first: no two may be alike meanwhile
			for i, id := range ids {
				name := fmt.Sprintf("%s #%d", key, i+1)
				if i == 0 {
					name = key
				}
				if turn != "" {
					name = fmt.Sprintf(turn, key, i)
				}
				if _, err := tx.ExecContext(ctx, "UPDATE record SET key = ? WHERE id = ?", name, id); err != nil {
					return fmt.Errorf("settle keys of %s: %w", e.Source, err)
				}
			}
		}
	}
	if err := tx.Commit(); err != nil {
		return fmt.Errorf("settle keys of %s: %w", e.Source, err)
	}
	return nil
}

// Activate makes the edition the one of its source that counts, all at once.
// It is done whole or not at all, whatever becomes of ctx meanwhile. The
// edition before is kept, so that this can be taken back, until another one
// takes its place in turn.
func (e *Edition) Activate(ctx context.Context, stamp Stamp) error {
	if err := e.flush(ctx); err != nil {
		return err
	}
	if err := ctx.Err(); err != nil {
		return err
	}
	ctx = context.WithoutCancel(ctx)
	if err := e.writing.close(); err != nil {
		return fmt.Errorf("activate edition of %s: %w", e.Source, err)
	}
	err := e.s.Edit(ctx, 0, Latest, stamp, func(x *Edit) error {
		if _, err := x.tx.ExecContext(ctx, "UPDATE edition SET records = ? WHERE id = ?", e.Records, e.ID); err != nil {
			return fmt.Errorf("count records: %w", err)
		}
		return x.flip(e.Source, e.ID)
	})
	if err != nil {
		return fmt.Errorf("activate edition of %s: %w", e.Source, err)
	}
	e.s.pending.Delete(e.ID)
	e.s.Sweep()
	return nil
}

// flip lets one edition of a source count, or none with 0, and keeps the one
// that counted.
func (e *Edit) flip(source string, id int64) error {
	var rows []editionRow
	if err := e.tx.SelectContext(e.ctx, &rows, "SELECT "+tables["edition"].columns+" FROM edition WHERE source = ? AND (active = 1 OR id = ?)", source, id); err != nil {
		return fmt.Errorf("read editions of %s: %w", source, err)
	}
	if _, err := e.tx.ExecContext(e.ctx, "UPDATE edition SET kept = active WHERE source = ?", source); err != nil {
		return fmt.Errorf("keep edition of %s: %w", source, err)
	}
	for _, r := range rows {
		to := r
		to.Active = r.ID == id
		if err := e.write(r, to); err != nil {
			return err
		}
	}
	return nil
}

// Abandon gives the edition up: it never counted, and is swept away.
func (e *Edition) Abandon() error {
	err := e.writing.close()
	e.s.pending.Delete(e.ID)
	e.s.Sweep()
	return err
}

// Import writes an edition of records and makes it the one of its source that
// counts.
func (s *Store) Import(ctx context.Context, source, at string, records []listing.Record) error {
	e, err := s.NewEdition(ctx, source, at, "", "[]", "[]")
	if err != nil {
		return err
	}
	for _, r := range records {
		if err := e.Add(ctx, r); err != nil {
			return errors.Join(err, e.Abandon())
		}
	}
	return e.Activate(ctx, Stamp{At: at, Label: "import " + source})
}

// Editions returns the editions that count, by source.
func (s *Store) Editions(ctx context.Context) ([]EditionInfo, error) {
	var out []EditionInfo
	err := s.read.SelectContext(ctx, &out, `SELECT id, source, plan_id, imported_at, file, records, heading, mapping,
		(SELECT count(*) FROM reject WHERE edition_id = edition.id AND state <> 'discarded') AS rejects FROM edition WHERE active = 1 ORDER BY source`)
	if err != nil {
		return nil, fmt.Errorf("read sources: %w", err)
	}
	return out, nil
}

// Confine lets a source serve one plan alone.
func (s *Store) Confine(ctx context.Context, source string, planID int64) error {
	defer s.publishes()
	if _, err := s.write.ExecContext(ctx, "UPDATE edition SET plan_id = ? WHERE source = ?", planID, source); err != nil {
		return fmt.Errorf("confine source %s: %w", source, err)
	}
	return nil
}

// DropSource removes a source with all it says; it can be taken back.
func (s *Store) DropSource(ctx context.Context, source string, stamp Stamp) error {
	err := s.Edit(ctx, 0, Latest, stamp, func(e *Edit) error {
		var counts int
		if err := e.tx.GetContext(ctx, &counts, "SELECT count(*) FROM edition WHERE source = ? AND active = 1", source); err != nil {
			return fmt.Errorf("look for source %s: %w", source, err)
		}
		if counts == 0 {
			return fmt.Errorf("source %s: %w", source, fault.ErrNotFound)
		}
		return e.flip(source, 0)
	})
	if err != nil {
		return err
	}
	s.Sweep()
	return nil
}

// Release lets the sources that serve a plan alone no longer count: it goes.
func (e *Edit) Release(planID int64) error {
	var sources []string
	if err := e.tx.SelectContext(e.ctx, &sources, "SELECT source FROM edition WHERE plan_id = ? AND active = 1", planID); err != nil {
		return fmt.Errorf("read sources of plan %d: %w", planID, err)
	}
	for _, s := range sources {
		if err := e.flip(s, 0); err != nil {
			return err
		}
	}
	return nil
}
