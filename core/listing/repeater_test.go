package listing

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/freq"
	"mnemos/core/tone"
)

// says is a statement; km is how far north of 41° it is, below zero without a
// position.
func says(source, key, call, town, up string, km float64, month time.Month) Record {
	r := Record{
		Key: key, Source: source, Callsign: call, Locality: town, Output: freq.MustParse("147.240"), Input: freq.MustParse("147.840"),
		Updated: Date{Time: time.Date(2026, month, 1, 0, 0, 0, 0, time.UTC)},
	}
	if up != "" {
		r.UplinkTone = Says(tone.MustParse(up))
	}
	if km >= 0 {
		lat, lon := 41+km/111.1, -55.0
		r.Lat, r.Lon = &lat, &lon
	}
	return r
}

// shape is which statements stand together.
func shape(repeaters []Repeater) (out []string) {
	for _, r := range repeaters {
		var keys []string
		for _, s := range r.Statements {
			keys = append(keys, s.Source+s.Key)
		}
		slices.Sort(keys)
		out = append(out, fmt.Sprint(keys))
	}
	slices.Sort(out)
	return out
}

func TestJoin(t *testing.T) {
	for name, c := range map[string]struct {
		records []Record
		want    []string
	}{
		"same callsign":              {[]Record{says("A", "1", "QX1A", "Hill", "100", 0, 1), says("B", "1", "qx1a/r", "Town", "100", 20, 1)}, []string{"[A1 B1]"}},
		"same callsign far away":     {[]Record{says("A", "1", "QX1A", "Hill", "100", 0, 1), says("B", "1", "QX1A", "Hill", "100", 100, 1)}, []string{"[A1]", "[B1]"}},
		"other callsigns on a hill":  {[]Record{says("A", "1", "QX1A", "Hill", "100", 0, 1), says("B", "1", "QX2B", "Hill", "100", 0, 1)}, []string{"[A1]", "[B1]"}},
		"one without, same hill":     {[]Record{says("A", "1", "QX1A", "Hill", "100", 0, 1), says("B", "1", "", "", "100", 2, 1)}, []string{"[A1 B1]"}},
		"one without, other hill":    {[]Record{says("A", "1", "QX1A", "Hill", "100", 0, 1), says("B", "1", "", "Hill", "100", 5, 1)}, []string{"[A1]", "[B1]"}},
		"no position, same town":     {[]Record{says("A", "1", "", "Hill", "100", -1, 1), says("B", "1", "", "hill", "100", -1, 1)}, []string{"[A1 B1]"}},
		"nothing in common":          {[]Record{says("A", "1", "", "", "100", -1, 1), says("B", "1", "", "", "100", -1, 1)}, []string{"[A1]", "[B1]"}},
		"one source":                 {[]Record{says("A", "1", "QX1A", "Hill", "100", 0, 1), says("A", "2", "QX1A", "Hill", "88.5", 0, 1)}, []string{"[A1]", "[A2]"}},
		"one source through another": {[]Record{says("A", "1", "QX1A", "", "100", 0, 1), says("A", "2", "QX1A", "", "100", 30, 1), says("B", "1", "QX1A", "", "100", 29, 1)}, []string{"[A1]", "[A2 B1]"}},
	} {
		assert.Equal(t, c.want, shape(Join(c.records, nil)), name)
	}
}

func TestDecisions(t *testing.T) {
	a, b, c := says("A", "1", "QX1A", "Hill", "100", 0, 1), says("B", "1", "QX1A", "Hill", "100", 0, 1), says("A", "2", "", "Dale", "77", 50, 1)
	all := []Record{a, b, c}
	assert.Equal(t, []string{"[A1 B1]", "[A2]"}, shape(Join(all, nil)))
	assert.Equal(t, []string{"[A1]", "[A2]", "[B1]"}, shape(Join(all, []Decision{{A: a.ID(), B: b.ID()}})), "parted")
	assert.Equal(t, []string{"[A1 A2 B1]"}, shape(Join(all, []Decision{{A: c.ID(), B: a.ID(), Same: true}})), "joined, though of one source")
	assert.Equal(t, []string{"[A1]", "[A2 B1]"}, shape(Join(all, []Decision{{A: c.ID(), B: b.ID(), Same: true}, {A: a.ID(), B: b.ID()}})))
}

func TestConflictsAndBest(t *testing.T) {
	old, fresh := says("A", "1", "QX1A", "Hill", "100", 0, 1), says("B", "1", "QX1A", "", "103.5", -1, 6)
	old.Note, old.Access = "ask first", Closed
	r := Join([]Record{old, fresh}, nil)[0]
	require.Len(t, r.Conflicts, 1)
	assert.Equal(t, Conflict{Field: "uplink_tone", Values: []Value{{ID{"B", "1"}, "103.5", "2026-06-01"}, {ID{"A", "1"}, "100.0", "2026-01-01"}}}, r.Conflicts[0])
	best := r.Best()
	assert.Equal(t, "103.5", best.UplinkTone.Tone.String(), "the newest that says anything")
	assert.Equal(t, "Hill", best.Locality)
	assert.Equal(t, Closed, best.Access)
	assert.Equal(t, "ask first", best.Note)
	assert.NotNil(t, best.Lat)

	silent := fresh
	silent.UplinkTone = Stated{}
	assert.Empty(t, Join([]Record{old, silent}, nil)[0].Conflicts, "saying nothing is no contradiction")

	// One code by its two names is no conflict: 023 is the other polarity of 047.
	n, i := says("A", "1", "QX1A", "", "D023N", 0, 1), says("B", "1", "QX1A", "", "D047I", 0, 1)
	assert.Empty(t, Join([]Record{n, i}, nil)[0].Conflicts)
}

// TestOrder draws listings and decisions: repeaters do not depend on the order
// in which the records came, every statement is in one, and no source is
// twice in one without a decision.
func TestOrder(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var records []Record
		for i := range rapid.IntRange(1, 14).Draw(t, "records") {
			r := says(rapid.SampledFrom([]string{"A", "B", "C"}).Draw(t, "source"), fmt.Sprint(i), rapid.SampledFrom([]string{"", "QX1A", "QX2B"}).Draw(t, "call"),
				rapid.SampledFrom([]string{"", "Hill", "Dale"}).Draw(t, "town"), "100", float64(rapid.IntRange(-1, 40).Draw(t, "km")), 1)
			records = append(records, r)
		}
		var decisions []Decision
		for range rapid.IntRange(0, 3).Draw(t, "decisions") {
			pick := func() ID { return rapid.SampledFrom(records).Draw(t, "of").ID() }
			decisions = append(decisions, Decision{pick(), pick(), rapid.Bool().Draw(t, "same")})
		}
		want := Join(records, decisions)
		shuffled := slices.Clone(records)
		rand.New(rand.NewPCG(uint64(len(records)), 5)).Shuffle(len(shuffled), func(i, k int) { shuffled[i], shuffled[k] = shuffled[k], shuffled[i] })
		require.Equal(t, want, Join(shuffled, decisions))
		n := 0
		for _, r := range want {
			n += len(r.Statements)
			seen := map[string]bool{}
			for _, s := range r.Statements {
				require.True(t, !seen[s.Source] || len(decisions) > 0)
				seen[s.Source] = true
			}
		}
		require.Equal(t, len(records), n)
	})
}
