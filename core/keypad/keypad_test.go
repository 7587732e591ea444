package keypad

import (
	"maps"
	"slices"
	"strings"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/radio"
)

func profile(t *testing.T, id string) *radio.Profile {
	t.Helper()
	p, err := radio.Load(id)
	require.NoError(t, err)
	return p
}

func wanted(t *testing.T, line string, slot int) Wanted {
	t.Helper()
	d := entry.Read(line, band.MustLoad("us"))
	require.True(t, d.Complete(), line)
	return Wanted{Channel: d.Channel, Slot: slot, Short: d.Channel.Name, Skip: d.Scan == entry.ScanSkip, Priority: d.Scan == entry.ScanPriority}
}

func sheet(t *testing.T, id, line string) Sheet {
	t.Helper()
	return Write(wanted(t, line, 12), profile(t, id))
}

// TestPaper compares sheets word by word with those worked out by hand, one
// for each way of entry and one that is locked.
func TestPaper(t *testing.T) {
	a, err := txtar.ParseFile("testdata/paper.txtar")
	require.NoError(t, err)
	ways := map[radio.Entry]bool{}
	for _, f := range a.Files {
		parts := strings.Split(f.Name, " | ")
		require.Len(t, parts, 3, f.Name)
		p := profile(t, parts[0])
		ways[p.Entry] = true
		slot := 0
		for _, r := range parts[1] {
			slot = slot*10 + int(r-'0')
		}
		s := Write(wanted(t, parts[2], slot), p)
		assert.Equal(t, string(f.Data), s.Text(), f.Name)
		assert.Empty(t, s.Check, f.Name)
	}
	assert.Len(t, ways, 5, "every way of entry")
}

// TestNothingToKey: what cannot be received, locked or keyed has no steps but
// the reason.
func TestNothingToKey(t *testing.T) {
	for _, c := range []struct {
		radio, line string
		slot        int
		says        string
	}{
		{"trail", "52.525", 12, "does not receive 52.525 MHz"},
		{"tarn", "446.00625 nfm", 12, "filled by cable"},
		{"trail", "146.52", 300, "has no slot 300"},
		{"beck", "146.55 rx only", 12, "cannot lock its transmitter"},
	} {
		s := Write(wanted(t, c.line, c.slot), profile(t, c.radio))
		assert.Contains(t, s.Reason, c.says, c.line)
		assert.Empty(t, s.Steps, c.line)
		assert.Equal(t, s.Reason+"\n", s.Text())
	}
	w := wanted(t, "146.94 -", 12)
	w.Forbidden = "no licence"
	assert.Contains(t, Write(w, profile(t, "beck")).Reason, "you may not transmit here")
	assert.Empty(t, Write(wanted(t, "162.475 rx only", 12), profile(t, "beck")).Reason, "it cannot transmit there anyway")
}

// TestLocked: what may not be transmitted is locked, sends no tone, and the
// lock is taken off again before the radio is left.
func TestLocked(t *testing.T) {
	w := wanted(t, "146.94 - ts 88.5 low", 12)
	w.Forbidden = "your licence does not cover 2 m"
	s := Write(w, profile(t, "trail"))
	assert.Equal(t, w.Forbidden, s.Locked)
	assert.Nil(t, s.Keyed)
	titles := titles(s)
	assert.Contains(t, titles, "transmit lock on")
	assert.Contains(t, titles, "transmit lock off again")
	assert.Contains(t, titles, "shift direction off")
	assert.Contains(t, titles, "tone mode receive tone")
	assert.Contains(t, titles, "tone heard 88.5 Hz")
	assert.NotContains(t, strings.Join(titles, "|"), "power")
	assert.Contains(t, s.Leave, "transmit lock off")
	assert.Equal(t, "R NO 146.940", s.Rest.String())
}

func titles(s Sheet) []string {
	var out []string
	for _, x := range s.Steps {
		out = append(out, x.Title())
	}
	return out
}

// TestWhatItSays: single facts of sheets, worked out by hand.
func TestWhatItSays(t *testing.T) {
	for _, c := range []struct{ radio, line, has, hasNot string }{
		{"ferry", "146.94 simplex", "automatic shift off|shift direction off|automatic shift on again", "shift size"},
		{"ferry", "146.52", "automatic shift on", "automatic shift off|shift direction"},
		{"ferry", "146.82 -1.6 low", "automatic shift off|shift direction −|shift size 1.600 MHz|power low", ""},
		{"ferry", "146.94 88.5", "tone mode tone|tone sent 88.5 Hz", "tone heard"},
		{"ferry", "442.1 +5 d023n", "tone mode DCS|code sent and heard D023N", "tone mode tone"},
		{"trail", "442.1 +5 d023n", "tone mode DCS sent|code sent D023N", "code heard"},
		{"trail", "147.3 + 1750", "tone mode off|tone burst on", "tone sent"},
		{"skerry", "146.52", "split off", "split off again|shift direction"},
		{"beck", "146.52", "empty slot 12|store in slot 12", "transmit|store the transmit side"},
		{"trail", "446.00625", "tuning step 6.25 kHz|receive 446.00625 MHz", ""},
		{"lantern", "442.65 tx 447.6625 nfm", "tuning step 12.5 kHz|transmit 447.6625 MHz", ""},
		{"lantern", "442.64 tx 447.6625 nfm", "tuning step 10 kHz|receive 442.640 MHz|tuning step 12.5 kHz|transmit 447.6625 MHz", ""}, // only 2.5 kHz, which it lacks, reaches both
		{"gale", "146.52 skip", "skip on", "priority"},
		{"cairn", "146.52 low", "power low|power high again", "skip|bandwidth"},
	} {
		s := sheet(t, c.radio, c.line)
		all := titles(s)
		at := -1
		for _, has := range strings.Split(c.has, "|") {
			i := slices.Index(all, has)
			assert.Greater(t, i, at, "%s %s: %q after what stands before it in %q", c.radio, c.line, has, all)
			at = i
		}
		for _, title := range all {
			for _, not := range strings.Split(c.hasNot, "|") {
				if not != "" {
					assert.False(t, strings.HasPrefix(title, not), "%s %s: %q", c.radio, c.line, title)
				}
			}
		}
		for i, x := range s.Steps {
			assert.Equal(t, i+1, x.Number)
			assert.False(t, !x.Again && slices.Contains(all[:i], x.Title()), "%s %s: %s twice", c.radio, c.line, x.Title())
		}
	}
	assert.Contains(t, sheet(t, "cairn", "146.52 skip").Notes[0], "no skip")
	assert.Equal(t, []string{"which tone", "the bandwidth"}, sheet(t, "trail", "146.94 - 88.5").Hidden)
	assert.Equal(t, []string{"the size of the shift", "which tone"}, sheet(t, "cairn", "146.94 - 88.5").Hidden, "it has no read-out and one width")
	assert.Contains(t, sheet(t, "harrier", "145.7 -600 1750").Notes[0], "When you mean to be heard: press the side key")
	assert.Equal(t, "the display leaves out the end of 446.0125 MHz", sheet(t, "trail", "446.0125").Rest.Note)
	require.Len(t, sheet(t, "lantern", "147.3 + 1750").Losses, 1, "the radio has no burst")
}

// TestOwnWords: a profile in words of its owner, or with gaps, still gives a
// sheet, which says what to check. Nothing asks for the key that transmits.
func TestOwnWords(t *testing.T) {
	p := *profile(t, "trail")
	p.Keying, p.Display.Shows = radio.Keying{}, nil
	p.Crib = radio.Crib{radio.VFO: "press VFO", radio.Step: "menu 5 on mine", radio.ToneOut: "hold PTT and turn", radio.Receive: "type the digits"}
	s := Write(wanted(t, "146.94 - ts 88.5", 12), &p)
	require.NotEmpty(t, s.Steps)
	text := s.Text()
	assert.Contains(t, text, "tuning step 20 kHz: menu 5 on mine.")
	assert.NotContains(t, text, "PTT")
	all := strings.Join(s.Check, "\n")
	for _, says := range []string{
		"tuning step: \"menu 5 on mine\" cannot be followed", "where tone sent is", "where store in a slot is", "whether a store leaves the VFO",
		"whether both directions share one tone", "how the 1750 Hz burst is sent",
	} {
		assert.Contains(t, all, says)
	}
	q := *profile(t, "ferry")
	q.Display.Modes = map[string]string{"tone": "T", "tone squelch": "T"}
	assert.Contains(t, strings.Join(Write(wanted(t, "146.94 88.5", 12), &q).Check, "\n"), "in the same way for several values")
	q = *profile(t, "cairn")
	q.Crib = maps.Clone(q.Crib)
	delete(q.Crib, radio.Delete)
	assert.Contains(t, strings.Join(Write(wanted(t, "146.94 88.5", 12), &q).Check, "\n"), "how a slot is emptied")
	for _, shipped := range radio.Profiles() {
		for _, line := range []string{"146.94 - ts 88.5", "442.65 +5 d023n", "147.3 + 1750", "146.55 rx only"} {
			for _, x := range Write(wanted(t, line, shipped.Slots.First), shipped).Steps {
				assert.False(t, radio.Transmits(x.Keys), x.Keys)
			}
		}
	}
}

// TestAnyDecimals: a profile that got past the check does not stop the program.
func TestAnyDecimals(t *testing.T) {
	for _, decimals := range []int{-3, 0, 3, 6, 7} {
		p := *radio.Profiles()[0]
		p.Display.Decimals = decimals
		assert.NotPanics(t, func() { Write(Wanted{Channel: channel.New(146_520_000), Slot: p.Slots.First}, &p) }, decimals)
	}
}
