package cli

import (
	"bytes"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/require"
)

// edited are the tables whose rows come into being by journalled changes alone.
var edited = []string{"person", "plan", "unit", "load", "channel", "entry", "team_slot", "profile", "decision", "correction"}

// replayed holds the tables against the journal: its changes, carried out one
// after the other on nothing, must lead to exactly the rows that are there. It
// returns how many changes there are; their numbers have no gap.
func replayed(t *testing.T, db *sqlx.DB) (events int) {
	t.Helper()
	var journal []struct {
		ID      int64  `db:"id"`
		Changes string `db:"changes"`
	}
	require.NoError(t, db.Select(&journal, "SELECT id, changes FROM journal ORDER BY id"))
	want := map[string]map[int64]string{}
	for i, j := range journal {
		require.EqualValues(t, i+1, j.ID, "a change is missing")
		var changes []struct {
			Table         string
			ID            int64
			Before, After json.RawMessage
		}
		require.NoError(t, json.Unmarshal([]byte(j.Changes), &changes))
		for _, c := range changes {
			rows := want[c.Table]
			if rows == nil {
				rows = map[int64]string{}
				want[c.Table] = rows
			}
			if slices.Contains(edited, c.Table) {
				had, ok := rows[c.ID]
				require.Equal(t, string(c.Before) != "null", ok, "change %d, %s %d", j.ID, c.Table, c.ID)
				require.Equal(t, canonical(t, c.Before), had, "change %d, %s %d", j.ID, c.Table, c.ID)
			}
			if rows[c.ID] = canonical(t, c.After); string(c.After) == "null" {
				delete(rows, c.ID)
			}
		}
	}
	for _, table := range edited {
		rows, err := db.Queryx("SELECT * FROM " + table)
		require.NoError(t, err)
		have := map[int64]string{}
		for rows.Next() {
			row := map[string]any{}
			require.NoError(t, rows.MapScan(row))
			have[row["id"].(int64)] = plain(row)
		}
		require.NoError(t, rows.Err())
		if want[table] == nil {
			want[table] = map[int64]string{}
		}
		require.Equal(t, want[table], have, table)
	}
	var twice int
	require.NoError(t, db.Get(&twice, "SELECT count(*) FROM (SELECT 1 FROM entry GROUP BY load_id, kind, slot HAVING count(*) > 1)"))
	require.Zero(t, twice, "a slot twice")
	return len(journal)
}

// canonical writes an image so that it can be compared with a row.
func canonical(t *testing.T, image json.RawMessage) string {
	t.Helper()
	var row map[string]any
	d := json.NewDecoder(bytes.NewReader(image))
	d.UseNumber() // large ones are written as they are
	require.NoError(t, d.Decode(&row))
	if row == nil {
		return ""
	}
	return plain(row)
}

// plain writes a row without what is no part of an image, as SQLite holds it.
func plain(row map[string]any) string {
	var parts []string
	for column, v := range row {
		switch x := v.(type) {
		case bool:
			v = map[bool]int{false: 0, true: 1}[x]
		case []any:
			b, err := json.Marshal(x)
			if err != nil {
				panic(err) // it was JSON a moment ago
			}
			v = string(b)
		case nil:
			v = "null"
		}
		if column != "rev" && column != "revision" && column != "saved_at" {
			parts = append(parts, fmt.Sprintf("%s=%v", column, v))
		}
	}
	slices.Sort(parts)
	return strings.Join(parts, " ")
}
