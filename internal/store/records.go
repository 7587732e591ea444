package store

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

type recordRow struct {
	EditionID int64    `db:"edition_id"`
	Key       string   `db:"key"`
	Callsign  string   `db:"callsign"`
	Output    int64    `db:"output_hz"`
	Input     int64    `db:"input_hz"`
	Uplink    *string  `db:"uplink_tone"`
	Downlink  *string  `db:"downlink_tone"`
	Mode      string   `db:"mode"`
	Width     string   `db:"width"`
	Locality  string   `db:"locality"`
	Lat       *float64 `db:"lat"`
	Lon       *float64 `db:"lon"`
	Height    *float64 `db:"height_m"`
	Status    string   `db:"status"`
	Access    string   `db:"access"`
	Updated   string   `db:"updated"`
	Source    string   `db:"source"`
	Note      string   `db:"note"`
	Kind      string   `db:"kind"`
}

const recordColumns = "key, callsign, output_hz, input_hz, uplink_tone, downlink_tone, mode, width, locality, lat, lon, height_m, status, access, updated, source, note, kind"

func stated(s listing.Stated) *string {
	if !s.Known {
		return nil
	}
	text := s.Tone.String()
	return &text
}

func unstated(s *string) (listing.Stated, error) {
	if s == nil {
		return listing.Stated{}, nil
	}
	t, err := tone.Parse(*s)
	return listing.Says(t), err
}

func (r recordRow) record() (listing.Record, error) {
	up, err := unstated(r.Uplink)
	if err != nil {
		return listing.Record{}, fmt.Errorf("record %s: %w", r.Key, err)
	}
	down, err := unstated(r.Downlink)
	if err != nil {
		return listing.Record{}, fmt.Errorf("record %s: %w", r.Key, err)
	}
	var updated listing.Date
	if r.Updated != "" {
		if updated, err = listing.ParseDate(r.Updated); err != nil {
			return listing.Record{}, fmt.Errorf("record %s: %w", r.Key, err)
		}
	}
	return listing.Record{
		Key: r.Key, Callsign: r.Callsign, Output: freq.Hz(r.Output), Input: freq.Hz(r.Input), UplinkTone: up, DownlinkTone: down,
		Mode: listing.Mode(r.Mode), Width: r.Width, Locality: r.Locality, Lat: r.Lat, Lon: r.Lon, Height: r.Height,
		Status: listing.Status(r.Status), Access: listing.Access(r.Access), Updated: updated, Source: r.Source, Note: r.Note, Kind: listing.Kind(r.Kind),
	}, nil
}

// ByOutput implements listing.Source over the active editions.
func (s *Store) ByOutput(ctx context.Context, r band.Span, box *geo.Box) ([]listing.Record, error) {
	return s.records(ctx, "output_hz", "record_output", r, box)
}

// ByInput implements listing.Source over the active editions.
func (s *Store) ByInput(ctx context.Context, r band.Span, box *geo.Box) ([]listing.Record, error) {
	return s.records(ctx, "input_hz", "record_input", r, box)
}

// OnOutputs implements listing.Source over the active editions.
func (s *Store) OnOutputs(ctx context.Context, outputs []freq.Hz, box *geo.Box) ([]listing.Record, error) {
	list, err := json.Marshal(outputs)
	if err != nil {
		return nil, fmt.Errorf("search records: %w", err)
	}
	return s.search(ctx, "record_output", "output_hz IN (SELECT value FROM json_each(?))", []any{string(list)}, box)
}

// ByName implements listing.Source over the active editions.
func (s *Store) ByName(ctx context.Context, text string, box *geo.Box) ([]listing.Record, error) {
	query := "SELECT edition_id, " + recordColumns + " FROM record WHERE edition_id IN (SELECT id FROM edition WHERE active = 1)"
	var args []any
	for _, w := range strings.Fields(text) {
		query += ` AND callsign || ' ' || locality LIKE ? ESCAPE '\'`
		args = append(args, holding(w))
	}
	if box != nil {
		query += " AND (lat IS NULL OR lat BETWEEN ? AND ? AND lon BETWEEN ? AND ?)"
		args = append(args, box.South, box.North, box.West, box.East)
	}
	return s.rows(ctx, query+" ORDER BY output_hz LIMIT ?", append(args, listing.MaxNamed))
}

func (s *Store) records(ctx context.Context, column, index string, r band.Span, box *geo.Box) ([]listing.Record, error) {
	return s.search(ctx, index, column+" BETWEEN ? AND ?", []any{int64(r.Lower), int64(r.Upper)}, box)
}

func (s *Store) search(ctx context.Context, index, where string, args []any, box *geo.Box) ([]listing.Record, error) {
	// The planner would begin with the edition, which holds everything.
	query := "SELECT edition_id, " + recordColumns + " FROM record INDEXED BY " + index + " WHERE " + where
	if box != nil {
		query += " AND (lat IS NULL OR lat BETWEEN ? AND ? AND lon BETWEEN ? AND ?)"
		args = append(args, box.South, box.North, box.West, box.East)
	}
	query += " AND kind = '' AND edition_id IN (SELECT id FROM edition WHERE active = 1)"
	return s.rows(ctx, query, args)
}

// Published returns every record of the active editions.
func (s *Store) Published(ctx context.Context) ([]listing.Record, error) {
	var n int
	if err := s.read.GetContext(ctx, &n, "SELECT coalesce(sum(records), 0) FROM edition WHERE active = 1"); err != nil {
		return nil, fmt.Errorf("read records: %w", err)
	}
	rows, err := s.read.QueryxContext(ctx, "SELECT edition_id, "+recordColumns+" FROM record WHERE edition_id IN (SELECT id FROM edition WHERE active = 1) ORDER BY id")
	if err != nil {
		return nil, fmt.Errorf("read records: %w", err)
	}
	defer func() { _ = rows.Close() }() // read to its end below
	out := make([]listing.Record, 0, n)
	for rows.Next() { // one by one: there may be hundreds of thousands
		var row recordRow
		if err := rows.StructScan(&row); err != nil {
			return nil, fmt.Errorf("read records: %w", err)
		}
		r, err := row.record()
		if err != nil {
			return nil, err
		}
		out = append(out, r)
	}
	return out, rows.Err()
}

// Count returns how many records an edition holds.
func (s *Store) Count(ctx context.Context, edition int64) (int, error) {
	var n int
	if err := s.read.GetContext(ctx, &n, "SELECT count(*) FROM record WHERE edition_id = ?", edition); err != nil {
		return 0, fmt.Errorf("count records: %w", err)
	}
	return n, nil
}
