package naming

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/radio"
)

// classes are the displays that radios have: six capitals, eight characters,
// sixteen characters.
var classes = []radio.Names{
	upper6,
	{Length: 8, Characters: upper6.Characters + "abcdefghijklmnopqrstuvwxyz"},
	{Length: 16, Characters: upper6.Characters + "abcdefghijklmnopqrstuvwxyz.,'&()"},
}

// season draws the names of a large plan: places of one and two words, some with
// figures, as clubs call their repeaters. The words are invented.
func season(n int, seed uint64) []string {
	r := rand.New(rand.NewPCG(seed, 7))
	starts, ends := strings.Fields("ba be bri ca cor da du el fa fen ga gor hal har in kel kin la lin mar mel nor or pen quar ros sal sel tar thor ul vel wen wil yar"), strings.Fields("bury by combe dale den don fold ford garth ham holm ley mere moor ness ridge stead ton wick worth")
	kinds := strings.Fields("Hill Light Fell Head Down Tower Mast House Quay Lock Ridge Point")
	seen := map[string]bool{}
	var out []string
	for len(out) < n {
		name := starts[r.IntN(len(starts))] + ends[r.IntN(len(ends))]
		name = strings.ToUpper(name[:1]) + name[1:]
		if r.IntN(3) > 0 {
			name += " " + kinds[r.IntN(len(kinds))]
		}
		if r.IntN(4) == 0 {
			name += fmt.Sprintf(" %d", r.IntN(30)+1)
		}
		if !seen[name] {
			seen[name] = true
			out = append(out, name)
		}
	}
	return out
}

// TestSeason names a thousand channels for three displays, half of which have
// names that must stay. No two are alike, all fit, none of the old ones changes, and
// nearly all keep their figures and begin the words that tell them apart.
func TestSeason(t *testing.T) {
	names := season(1000, 1)
	for _, limits := range classes {
		half := Among(names[:500]).All(names[:500], make([]string, 500), limits)
		g := Among(names)
		all := g.All(names, append(append([]string{}, half...), make([]string, 500)...), limits)
		require.Equal(t, half, all[:500], "adding renames nobody")
		seen, kept := map[string]string{}, 0
		for i, s := range all {
			require.NotEmpty(t, s)
			require.True(t, Fits(s, limits), "%q", s)
			require.Empty(t, seen[s], "%s is %s and %s", s, seen[s], names[i])
			seen[s] = names[i]
			if g.Keeps(s, names[i], limits) {
				kept++
			} else if testing.Verbose() {
				t.Logf("%-24s %s", names[i], s)
			}
		}
		t.Logf("%d characters: %.1f %% keep every figure and begin each word that tells them apart", limits.Length, float64(kept)/10)
		assert.GreaterOrEqual(t, kept, 950)
	}
}

// TestTellsApart is what a person would write on a strip of tape for pairs of
// neighbours. common practice, no source.
func TestTellsApart(t *testing.T) {
	for _, c := range []struct {
		names string
		want  string
	}{
		{"Walk 1|Walk 2", "WALK 1|WALK 2"},
		{"Marran Light|Pell Light", "MARRAN|PELL L"},
		{"Walk control 12|Walk reserve 12", "CNTR12|RSRV12"},
		{"North Ridge|North Hill", "NRIDGE|N HILL"},
		{"R7 Quay|R17 Quay", "R7QUAY|R17QUY"},
	} {
		names := strings.Split(c.names, "|")
		assert.Equal(t, c.want, strings.Join(Among(names).All(names, make([]string, len(names)), upper6), "|"))
	}
	g := Among([]string{"Beacon Hill", "Beacon Fell"})
	assert.True(t, g.Keeps("BCNHLL", "Beacon Hill", upper6))
	assert.False(t, g.Keeps("BEACON", "Beacon Hill", upper6), "Fell begins so too")
	assert.False(t, Among(nil).Keeps("WALK", "Walk 12", upper6), "the figures are lost")
}

func BenchmarkNames(b *testing.B) {
	names := season(1000, 1)
	for b.Loop() {
		for _, limits := range classes {
			g := Among(names)
			half := g.All(names[:500], make([]string, 500), limits)
			g.All(names, append(half, make([]string, 500)...), limits)
		}
	}
}
