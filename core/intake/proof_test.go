package intake_test

import (
	"fmt"
	"maps"
	"math/rand/v2"
	"os"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/intake"
)

// TestGeneratedTables guesses tables that a club of its own draws: headings in
// seven languages, both viewpoints, units and brackets in headings, titles
// above, up to 30 % bad rows. MNEMOS_TABLES asks for more than the sample.
func TestGeneratedTables(t *testing.T) {
	tables := 800
	if s := os.Getenv("MNEMOS_TABLES"); s != "" {
		var err error
		tables, err = strconv.Atoi(s)
		require.NoError(t, err)
	}
	c := club{rand.New(rand.NewPCG(10, 2026))}
	right, columns, asked, exchanged, depends := 0, 0, 0, 0, 0
	confusion := map[[2]intake.Role]int{}
	askedOf := map[intake.Viewpoint]int{}
	for n := range tables {
		d := c.table()
		l := intake.Look(d.rows, false, d.region)
		if d.view != "" {
			depends++
		}
		if l.View.Asked() {
			asked++
			askedOf[d.view]++
			continue
		}
		for i, want := range d.roles {
			got := intake.Ignore
			if i < len(l.Mapping) {
				got = l.Mapping[i].Role
			}
			columns++
			if got == want {
				right++
			}
			confusion[[2]intake.Role{want, got}]++
		}
		if swapped(d.roles, l.Mapping, d.rows) {
			exchanged++
			if exchanged <= 5 {
				t.Logf("table %d (%s, %s, %q): %v\n%s", n, d.language, d.region.Region, d.view, l.View, text(d.rows))
			}
		}
	}
	share := float64(right) / float64(columns)
	t.Logf("%d tables, %d with a viewpoint; asked %d (%.1f %%: %v); exchanged without a question %d; columns right %.2f %%",
		tables, depends, asked, 100*float64(asked)/float64(tables), askedOf, exchanged, 100*share)
	for _, pair := range slices.SortedFunc(maps.Keys(confusion), func(a, b [2]intake.Role) int { return confusion[b] - confusion[a] }) {
		if pair[0] != pair[1] {
			t.Logf("%6d  %-14s taken for %s", confusion[pair], or(pair[0]), or(pair[1]))
		}
	}
	assert.LessOrEqual(t, exchanged, tables/5000) // none in the sample, one in 5,000
	assert.LessOrEqual(t, float64(asked)/float64(tables), 0.15)
	assert.GreaterOrEqual(t, share, 0.98)
}

func or(r intake.Role) string {
	if r == intake.Ignore {
		return "(ignored)"
	}
	return string(r)
}

// swapped reports whether a frequency or a tone is taken for the one of the
// other side, and some row says two different things there.
func swapped(want []intake.Role, got intake.Mapping, rows [][]string) bool {
	for _, pair := range [][2]intake.Role{{intake.Output, intake.Input}, {intake.UplinkTone, intake.DownlinkTone}} {
		a, b := slices.Index(want, pair[0]), slices.Index(want, pair[1])
		is := func(at int, r intake.Role) bool { return at >= 0 && at < len(got) && got[at].Role == r }
		if !is(a, pair[1]) && !is(b, pair[0]) {
			continue
		}
		if a < 0 || b < 0 || slices.ContainsFunc(rows, func(r []string) bool {
			return len(r) > max(a, b) && strings.ContainsAny(r[a]+r[b], "0123456789") && r[a] != r[b]
		}) {
			return true
		}
	}
	return false
}

func text(rows [][]string) string {
	var out []string
	for _, r := range rows[:min(len(rows), 9)] {
		out = append(out, strings.Join(r, " | "))
	}
	return fmt.Sprint(strings.Join(out, "\n"))
}
