package entry

import (
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/band"
	"mnemos/core/channel"
)

// TestAnyOrderOfWords: words that carry a unit, a sign or a keyword mean the
// same wherever they stand.
func TestAnyOrderOfWords(t *testing.T) {
	us := band.MustLoad("us")
	rapid.Check(t, func(r *rapid.T) {
		of := func(label string, choices ...string) string { return rapid.SampledFrom(choices).Draw(r, label) }
		parts := []string{of("frequency", "147.24 MHz", "rx 146.94 MHz", "output 442.65", "443275 kHz", "freq 146.7")}
		for _, p := range []string{
			of("shift", "", "+600 kHz", "-0.6", "minus 600 kHz", "dup+", "simplex", "rx only", "negative offset"),
			of("tone", "", "tone 103.5", "ts 100.0", "PL 88.5", "dcs 023", "77.0 Hz", "enc 100 dec 77", "no tone"),
			of("name", "", `"Beacon Hill"`, `"Camp 9"`), of("width", "", "nfm", "12.5 kHz"), of("power", "", "low power", "5 W"),
			of("scan", "", "skip", "don't scan"), of("slot", "", "#14", "slot 9"),
		} {
			if p != "" {
				parts = append(parts, p)
			}
		}
		want := Read(strings.Join(parts, " "), us)
		seed := rapid.Uint64().Draw(r, "seed")
		rand.New(rand.NewPCG(seed, 1)).Shuffle(len(parts), func(i, j int) { parts[i], parts[j] = parts[j], parts[i] })
		got := Read(strings.Join(parts, " "), us)
		require.True(r, want.Complete(), "%q: %+v", want.Line, want.Words)
		require.True(r, got.Complete(), "%q: %+v", got.Line, got.Words)
		require.True(r, got.same(want), "%q is not %q", got.Line, want.Line)
	})
}

// TestNamesChangeNothing: whatever stands in a name leaves frequencies, tones
// and the permission to transmit alone, or the line asks.
func TestNamesChangeNothing(t *testing.T) {
	us := band.MustLoad("us")
	names := []string{
		"Camp 9", "Route 66", "70cm backup", "2m calling", "Net 600", "QX1BHL", "QX1BHL Marran", "Mile 5", "Post 77", "UHF North", "Station 19", "Sector 5", "North 146", "Six Mile", "Team 2",
		"Beacon 1", "440 Link", "Hill 1.6", "100 Mile House", "No Name", "Marran 103", "Tower 88", "5 Ways", "Depot 023", "D23 Quay", "T1", "R5", "Wing A", "Plus One", "Low Point",
	}
	rapid.Check(t, func(r *rapid.T) {
		line := rapid.SampledFrom([]string{"147.24 + 103.5 ", "446.675 - 141.3 ", "146.52 simplex no tone ", "146.94 -600 ts 88.5 ", "443.275 +5 d023n ", "162.475 rx only no tone ", "146.94 - 100 Hz "}).Draw(r, "line")
		name := rapid.SampledFrom(names).Draw(r, "name")
		want := Read(line, us)
		require.True(r, want.Complete(), line)
		for _, text := range []string{line + name, line + `"` + name + `"`, `"` + name + `" ` + line} {
			d := Read(text, us)
			if !d.Complete() {
				require.NotContains(r, text, `"`, "in quotes anything is a name")
				continue
			}
			got := d.Channel
			got.Name = ""
			require.Equal(r, want.Channel, got, text)
		}
	})
}

// TestAccessSetsAccess: who may use a repeater is no tone and no shift.
func TestAccessSetsAccess(t *testing.T) {
	us := band.MustLoad("us")
	for word, access := range map[string]string{"open": "open", "OPEN": "open", "closed": "closed", "private": "private", "members only": "closed", "access open": "open"} {
		for _, line := range []string{"147.24", "147.24 + 103.5", "444.1 ts 100", "146.52 simplex"} {
			d := Read(line+" "+word, us)
			require.True(t, d.Complete(), line+" "+word)
			assert.Equal(t, access, d.Access)
			assert.Equal(t, Read(line, us).Channel, d.Channel, line+" "+word)
		}
	}
}

// TestReadsItsOwnWords: the line and the sentence that are printed for a
// channel are read back whole, and other values that are shown one by one.
func TestReadsItsOwnWords(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		c := anyChannel(r)
		if tx, sends := c.Transmit(); c.Validate() != nil || sends && tx < lowest {
			return
		}
		plan := band.MustLoad(rapid.SampledFrom(band.Regions()).Draw(r, "region"))
		d := Read(Format(c, nil, ScanYes), plan)
		sentence := Sentence(Say(d))
		got := Read(sentence, plan)
		require.True(r, got.Complete(), "%s: %+v", sentence, got.Words)
		tx, sends := c.Transmit()
		gotTx, gotSends := got.Channel.Transmit()
		require.Equal(r, c.Receive, got.Channel.Receive, sentence)
		require.Equal(r, sends, gotSends, sentence)
		require.Equal(r, tx, gotTx, sentence)
		require.Equal(r, c.ReceiveTone, got.Channel.ReceiveTone, sentence)
		if sends {
			require.Equal(r, c.TransmitTone, got.Channel.TransmitTone, sentence)
		}
		base := "147.240 MHz "
		us := band.MustLoad("us")
		for _, text := range []string{c.TransmitTone.Words(), "send " + c.TransmitTone.Words()} {
			one := Read(base+text, us)
			require.True(r, one.Complete(), "%s: %+v", text, one.Words)
			require.Equal(r, c.TransmitTone, one.Channel.TransmitTone, text)
		}
		if o := c.Offset(); o != 0 && o > -100_000_000 && o <= 1_000_000_000 {
			for _, text := range []string{o.String(), "shift " + o.String(), o.MHz()} {
				one := Read(base+text, us)
				if o.Abs() > 30_000_000 && text == o.MHz() {
					continue // figures without a unit are no shift of this size
				}
				require.True(r, one.Complete(), "%s: %+v", text, one.Words)
				require.Equal(r, o, one.Channel.Offset(), text)
			}
		}
		require.Equal(r, c.Receive, Read(c.Receive.String()+" simplex", us).Channel.Receive)
		require.Equal(r, channel.Simplex, Read(c.Receive.String()+" simplex", us).Channel.Side.Kind)
	})
}

// TestLongLinesAreQuick: the search is bounded, whatever is pasted. The count
// of ways is asserted; the time is only printed (the benchmark compares).
func TestLongLinesAreQuick(t *testing.T) {
	us := band.MustLoad("us")
	for _, unit := range []string{"52.5 88.5 147.0 ", "146.94 ", "- ", "100 ", "a ", "one ", "Camp 9 ", "100/77 ", "tx ", "no ", "d023 ", "\"a\" ", "2 m ", "+600", "146,", "#", "1/", "++"} {
		line := strings.Repeat(unit, 400/len(unit))
		start := time.Now()
		d := Read(line, us)
		t.Logf("%-18q %v", unit, time.Since(start))
		assert.False(t, d.Complete(), unit)
	}
}

// TestPatterns: every pattern has an example in which it is used, and says
// what it means.
func TestPatterns(t *testing.T) {
	seen := map[string]bool{}
	for _, p := range Patterns {
		assert.False(t, seen[p.ID], "%s stands twice", p.ID)
		seen[p.ID] = true
		assert.NotEmpty(t, p.Meaning, p.ID)
		assert.NotEmpty(t, p.Group, p.ID)
		region := "us"
		if p.ID == "designator" || p.ID == "burst" {
			region = "uk"
		}
		r := &reading{tokens: spoken(tokens(p.Example)), plan: band.MustLoad(region), levels: handheld}
		best, second := r.search()
		used := false
		for _, s := range []*state{best, second} {
			for ; s != nil && s.edge != nil; s = s.prev {
				used = used || s.edge.pattern.ID == p.ID
			}
		}
		assert.True(t, used, "%s is not used in %q", p.ID, p.Example)
	}
}
