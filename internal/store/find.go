package store

import (
	"context"
	"encoding/json"
	"fmt"
	"math"
	"strconv"
	"strings"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/internal/fault"
)

// Filter says which records are looked for. Its zero value is all of them.
type Filter struct {
	Plan         int64 // whose listings count beside those that serve every plan
	Box          *geo.Box
	Lower, Upper freq.Hz // of the output; 0 for any
	Text         string  // words, each in some field of the record, or the first figures of its output
	Source       string  // the name of its listing
	Nowhere      bool    // without a position
	FM           bool    // not digital only
	ToneKnown    bool
	Opens        string // what opens it: carrier, tone, code, burst or dtmf; empty for anything
	OnAir        bool   // not known to be off
	Open         bool   // not known to be closed or private
	Since        string
	Not          []Pair // output and input of channels that one has already
}

// Pair is an output with its input.
type Pair struct{ Output, Input freq.Hz }

// opens says how what opens a repeater stands in its record.
var opens = map[string]string{
	"carrier": "r.uplink_tone = 'none'",
	"tone":    "r.uplink_tone GLOB '[0-9]*.*'",
	"code":    "r.uplink_tone GLOB 'D[0-9]*'",
	"burst":   "r.uplink_tone = '1750'",
	"dtmf":    "r.note LIKE '%DTMF%'",
}

// where is the filter as SQL over the record table r.
func (f Filter) where() (string, []any) {
	parts, args := []string{"r.edition_id IN (SELECT id FROM edition WHERE active = 1 AND plan_id IN (0, ?))"}, []any{f.Plan}
	add := func(sql string, values ...any) {
		parts = append(parts, sql)
		args = append(args, values...)
	}
	if f.Box != nil {
		add("r.lat BETWEEN ? AND ? AND r.lon BETWEEN ? AND ?", f.Box.South, f.Box.North, f.Box.West, f.Box.East)
	}
	if f.Upper > 0 {
		add("r.output_hz BETWEEN ? AND ?", int64(f.Lower), int64(f.Upper))
	}
	if f.FM {
		add("r.mode <> 'digital'")
	}
	if f.ToneKnown {
		add("r.uplink_tone IS NOT NULL")
	}
	if sql, ok := opens[f.Opens]; ok {
		add(sql)
	}
	if f.OnAir {
		add("r.status <> 'off-air'")
	}
	if f.Open {
		add("r.access NOT IN ('closed', 'private')")
	}
	if f.Since != "" {
		add("r.updated >= ?", f.Since)
	}
	if f.Source != "" {
		add("r.source = ?", f.Source)
	}
	if f.Nowhere {
		add("r.lat IS NULL")
	}
	for _, word := range strings.Fields(f.Text) {
		sql, values := anywhere(word)
		add("("+sql+")", values...)
	}
	if len(f.Not) > 0 {
		list := make([]string, len(f.Not))
		for i, p := range f.Not {
			list[i] = fmt.Sprintf("%d/%d", p.Output, p.Input)
		}
		b, err := json.Marshal(list)
		if err == nil { // strings always marshal
			add("r.output_hz || '/' || r.input_hz NOT IN (SELECT value FROM json_each(?))", string(b))
		}
	}
	return strings.Join(parts, " AND "), args
}

// holding is a pattern of LIKE, with ESCAPE '\', for a text that holds a word.
func holding(word string) string {
	return "%" + strings.NewReplacer(`\`, `\\`, "%", `\%`, "_", `\_`).Replace(word) + "%"
}

// anywhere finds a word in any field of a record, and figures as the first of its
// output.
func anywhere(word string) (sql string, args []any) {
	like := holding(word)
	var parts []string
	for _, field := range []string{"callsign", "locality", "note", "source", "key"} {
		parts, args = append(parts, "r."+field+` LIKE ? ESCAPE '\'`), append(args, like)
	}
	for _, x := range beginning(word) {
		parts, args = append(parts, "r.output_hz BETWEEN ? AND ?"), append(args, int64(x.Lower), int64(x.Upper))
	}
	return strings.Join(parts, " OR "), args
}

// beginning returns the ranges of frequencies that begin with figures: 146.9
// is 146.900 to 146.999 MHz, 44 is 44 MHz and 440 to 449 MHz. A
// range holds its ends.
func beginning(word string) []band.Span {
	whole, part, point := strings.Cut(strings.Replace(word, ",", ".", 1), ".")
	if len(whole) < 2 || len(whole) > 4 || strings.Trim(whole+part, "0123456789") != "" || len(part) > 6 {
		return nil
	}
	n, err := strconv.ParseInt(whole+(part + "000000")[:6], 10, 64)
	if err != nil {
		return nil
	}
	width := int64(freq.MHz)
	for range part {
		width /= 10
	}
	out := []band.Span{{Lower: freq.Hz(n), Upper: freq.Hz(n + width - 1)}}
	if point {
		return out
	}
	for length := len(whole); length < 4; length++ { // further figures before the point
		n, width = n*10, width*10
		out = append(out, band.Span{Lower: freq.Hz(n), Upper: freq.Hz(n + width - 1)})
	}
	return out
}

var joined = "r." + strings.ReplaceAll(recordColumns, ", ", ", r.")

// Inside returns the records in a box that the filter lets through, roughly
// nearest to a place first, at most so many. Those without a position are not
// among them.
func (s *Store) Inside(ctx context.Context, box geo.Box, p geo.Point, f Filter, limit int) ([]listing.Record, error) {
	where, args := f.where()
	shrink := math.Cos(p.Lat * math.Pi / 180) // a degree of longitude is shorter than one of latitude
	query := `SELECT r.edition_id, ` + joined + ` FROM record_place AS p CROSS JOIN record AS r ON r.id = p.id
		WHERE p.north >= ? AND p.south <= ? AND p.east >= ? AND p.west <= ? AND ` + where + `
		ORDER BY (r.lat - ?) * (r.lat - ?) + (r.lon - ?) * (r.lon - ?) * ? LIMIT ?`
	args = append([]any{box.South, box.North, box.West, box.East}, args...)
	args = append(args, p.Lat, p.Lat, p.Lon, p.Lon, shrink*shrink, limit)
	return s.rows(ctx, query, args)
}

// Nearest returns the records nearest to a place, at most so many: the search
// begins close by and grows until there are enough or the whole earth was
// searched.
func (s *Store) Nearest(ctx context.Context, p geo.Point, f Filter, limit int) ([]listing.Record, error) {
	for km := 25.0; ; km *= 2 {
		out, err := s.Inside(ctx, geo.Around(p, km), p, f, limit)
		if err != nil || len(out) >= limit || km > 20_000 {
			return out, err
		}
	}
}

// Any returns records that the filter lets through, by output, at most so
// many: for somebody who has not said where they are.
func (s *Store) Any(ctx context.Context, f Filter, limit int) ([]listing.Record, error) {
	where, args := f.where()
	return s.rows(ctx, "SELECT r.edition_id, "+joined+" FROM record AS r WHERE "+where+" ORDER BY r.output_hz, r.lat LIMIT ?", append(args, limit))
}

// Placeless returns records without a position, by output, at most so many, and
// how many there are.
func (s *Store) Placeless(ctx context.Context, f Filter, limit int) (records []listing.Record, number int, err error) {
	f.Nowhere, f.Box = true, nil
	where, args := f.where()
	if err := s.read.GetContext(ctx, &number, "SELECT count(*) FROM record AS r WHERE "+where, args...); err != nil {
		return nil, 0, fmt.Errorf("count records without a place: %w", err)
	}
	if limit == 0 || number == 0 {
		return nil, number, nil
	}
	records, err = s.Any(ctx, f, limit)
	return records, number, err
}

func (s *Store) rows(ctx context.Context, query string, args []any) ([]listing.Record, error) {
	var rows []recordRow
	if err := s.read.SelectContext(ctx, &rows, query, args...); err != nil {
		return nil, fmt.Errorf("search records: %w", err)
	}
	out := make([]listing.Record, 0, len(rows))
	for _, row := range rows {
		rec, err := row.record()
		if err != nil {
			return nil, err
		}
		out = append(out, rec)
	}
	return out, nil
}

// Record returns one statement of the listings that count.
func (s *Store) Record(ctx context.Context, source, key string) (listing.Record, error) {
	out, err := s.rows(ctx, "SELECT r.edition_id, "+joined+` FROM record AS r
		WHERE r.edition_id IN (SELECT id FROM edition WHERE source = ? AND active = 1) AND r.key = ?`, []any{source, key})
	if err == nil && len(out) == 0 {
		err = fmt.Errorf("record %s of %s: %w", key, source, fault.ErrNotFound)
	}
	if err != nil {
		return listing.Record{}, err
	}
	return out[0], nil
}

// Spot is a place on the map with the number of records there.
type Spot struct {
	Lat    float64 `db:"lat" json:"lat"`
	Lon    float64 `db:"lon" json:"lon"`
	Number int     `db:"number" json:"number"`
	Source string  `db:"source" json:"source"` // of one of them
	Key    string  `db:"key" json:"key"`
}

// Spots counts the records that the filter lets through in cells of so many
// degrees, each at the middle of what is in it.
func (s *Store) Spots(ctx context.Context, f Filter, cell float64) ([]Spot, error) {
	where, args := f.where()
	from := "record AS r"
	if f.Box != nil && f.Box.North-f.Box.South < 20 {
		from = "record_place AS p CROSS JOIN record AS r ON r.id = p.id"
		where = "p.north >= ? AND p.south <= ? AND p.east >= ? AND p.west <= ? AND " + where
		args = append([]any{f.Box.South, f.Box.North, f.Box.West, f.Box.East}, args...)
	}
	var out []Spot
	err := s.read.SelectContext(ctx, &out, `SELECT avg(r.lat) AS lat, avg(r.lon) AS lon, count(*) AS number, min(r.source) AS source, min(r.key) AS key
		FROM `+from+` WHERE r.lat IS NOT NULL AND `+where+`
		GROUP BY CAST((r.lat + 90) / ? AS INTEGER), CAST((r.lon + 180) / ? AS INTEGER)`, append(args, cell, cell)...)
	if err != nil {
		return nil, fmt.Errorf("count records: %w", err)
	}
	return out, nil
}
