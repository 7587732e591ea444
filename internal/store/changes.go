package store

import (
	"context"
	"fmt"
	"strings"
)

// Changes is how an edition differs from the one before it.
type Changes struct {
	Fresh   int      `json:"new"`
	Changed int      `json:"changed"`
	Gone    int      `json:"gone"`
	Same    int      `json:"same"`
	Rows    []Change `json:"rows"` // the first of each
}

// Change is one record that differs.
type Change struct {
	What   string   `json:"what"` // new, changed, gone
	Title  string   `json:"title" db:"title"`
	Output int64    `json:"output_hz" db:"output_hz"`
	Fields []string `json:"fields"` // that changed
}

// compared are the fields whose change counts, with the words for them.
var compared = []struct{ column, words string }{
	{"output_hz", "output"},
	{"input_hz", "input"},
	{"uplink_tone", "uplink_tone"},
	{"downlink_tone", "downlink_tone"},
	{"mode", "mode"},
	{"width", "width"},
	{"status", "status"},
	{"access", "access"},
	{"kind", "kind"},
	{"locality", "place"},
	{"lat", "position"},
}

// most is how many changes of a kind are named.
const most = 12

const title = "coalesce(nullif(%[1]s.locality, ''), nullif(%[1]s.callsign, ''), %[1]s.key)"

// Changes compares the records that are there so far with those of the edition
// of its source that counts; ok is false where there is none.
func (e *Edition) Changes(ctx context.Context) (c Changes, ok bool, err error) {
	if err := e.flush(ctx); err != nil {
		return c, false, err
	}
	var old []int64
	if err := e.s.read.SelectContext(ctx, &old, "SELECT id FROM edition WHERE source = ? AND active = 1", e.Source); err != nil || len(old) == 0 {
		return c, false, err
	}
	var differ []string
	for _, x := range compared {
		differ = append(differ, fmt.Sprintf("o.%[1]s IS NOT n.%[1]s", x.column))
	}
	changed := "(" + strings.Join(differ, " OR ") + ")"
	const pairs = " FROM record AS n JOIN record AS o ON o.edition_id = ? AND o.key = n.key WHERE n.edition_id = ?"
	var both int
	for _, q := range []struct {
		into *int
		sql  string
	}{{&both, "SELECT count(*)" + pairs}, {&c.Changed, "SELECT count(*)" + pairs + " AND " + changed}} {
		if err := e.s.read.GetContext(ctx, q.into, q.sql, old[0], e.ID); err != nil {
			return c, false, fmt.Errorf("compare editions of %s: %w", e.Source, err)
		}
	}
	before, err := e.s.Count(ctx, old[0])
	if err != nil {
		return c, false, err
	}
	c.Fresh, c.Gone, c.Same = e.Records-both, before-both, both-c.Changed
	c.Rows = []Change{}
	if err := e.name(ctx, &c, "gone", "SELECT "+fmt.Sprintf(title, "o")+" AS title, o.output_hz FROM record AS o WHERE o.edition_id = ? AND NOT EXISTS (SELECT 1 FROM record AS n WHERE n.edition_id = ? AND n.key = o.key) ORDER BY o.output_hz LIMIT ?", old[0], e.ID); err != nil {
		return c, false, err
	}
	if err := e.name(ctx, &c, "new", "SELECT "+fmt.Sprintf(title, "n")+" AS title, n.output_hz FROM record AS n WHERE n.edition_id = ? AND NOT EXISTS (SELECT 1 FROM record AS o WHERE o.edition_id = ? AND o.key = n.key) ORDER BY n.output_hz LIMIT ?", e.ID, old[0]); err != nil {
		return c, false, err
	}
	return c, true, e.nameChanged(ctx, &c, old[0], pairs+" AND "+changed)
}

func (e *Edition) name(ctx context.Context, c *Changes, what, sql string, a, b int64) error {
	var rows []Change
	if err := e.s.read.SelectContext(ctx, &rows, sql, a, b, most); err != nil {
		return fmt.Errorf("compare editions of %s: %w", e.Source, err)
	}
	for _, r := range rows {
		r.What, r.Fields = what, []string{}
		c.Rows = append(c.Rows, r)
	}
	return nil
}

// nameChanged says field by field what changed in the first records.
func (e *Edition) nameChanged(ctx context.Context, c *Changes, old int64, from string) error {
	columns := fmt.Sprintf(title, "n") + " AS title, n.output_hz"
	for _, x := range compared {
		columns += fmt.Sprintf(", o.%[1]s IS NOT n.%[1]s", x.column)
	}
	rows, err := e.s.read.QueryxContext(ctx, "SELECT "+columns+from+" ORDER BY n.output_hz LIMIT ?", old, e.ID, most)
	if err != nil {
		return fmt.Errorf("compare editions of %s: %w", e.Source, err)
	}
	defer func() { _ = rows.Close() }() // read to its end below
	for rows.Next() {
		r := Change{What: "changed", Fields: []string{}}
		differs := make([]bool, len(compared))
		into := []any{&r.Title, &r.Output}
		for i := range differs {
			into = append(into, &differs[i])
		}
		if err := rows.Scan(into...); err != nil {
			return fmt.Errorf("compare editions of %s: %w", e.Source, err)
		}
		for i, d := range differs {
			if d {
				r.Fields = append(r.Fields, compared[i].words)
			}
		}
		c.Rows = append(c.Rows, r)
	}
	return rows.Err()
}
