package recovery

import (
	"bytes"
	"os/exec"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/tone"
	"mnemos/internal/recovery/slips"
)

var today = time.Date(2026, 11, 25, 0, 0, 0, 0, time.UTC)

// TestBounds. source: Newcombe, "Two-sided confidence intervals for the single
// proportion", Statistics in Medicine 17 (1998), table I, Wilson's method;
// basis: from memory.
func TestBounds(t *testing.T) {
	for _, c := range []struct {
		hits, of     int
		lower, upper float64
	}{{81, 263, 0.2553, 0.3662}, {15, 148, 0.0624, 0.1605}, {0, 20, 0, 0.1611}, {1, 29, 0.0061, 0.1718}} {
		lower, upper := count{c.hits, c.of}.bounds()
		assert.InDelta(t, c.lower, lower, 0.0001)
		assert.InDelta(t, c.upper, upper, 0.0001)
	}
}

// TestOracle is a district of three repeaters, classified by hand.
func TestOracle(t *testing.T) {
	at := func(key, output, up string) listing.Record {
		lat, lon := middle.Lat, middle.Lon
		f := freq.MustParse(output)
		return listing.Record{
			Key: key + "-0", Output: f, Input: f.Add(600_000), UplinkTone: listing.Says(tone.MustParse(up)),
			Mode: listing.FM, Lat: &lat, Lon: &lon, Source: "list",
		}
	}
	d := &district{listing: []listing.Record{at("a", "147.210", "103.5"), at("b", "147.240", "103.5"), at("c", "147.240", "107.2")}}
	truth := repeater{Record: d.listing[1]}
	truth.Key = "b"
	for _, c := range []struct {
		typed slips.Line
		class Class
		n     int
	}{
		{slips.Line{Receive: "147.42", Tone: "103.5"}, Unique, 1},                                   // swapped
		{slips.Line{Receive: "147.21", Tone: "103.5"}, Undetectable, 0},                             // that is repeater a
		{slips.Line{Receive: "147.2440", Tone: "103.5"}, Unique, 1},                                 // doubled
		{slips.Line{Receive: "147.2", Tone: "103.5"}, Ambiguous, 2},                                 // a digit left out, of a or of b
		{slips.Line{Receive: "147.24", Tone: "100.0"}, Unique, 1},                                   // beside 103.5
		{slips.Line{Receive: "147.24", Tone: "233.6"}, Unlisted, 0},                                 // no slip
		{slips.Line{Receive: "147.24", Sign: "-", Size: "600", Tone: "103.5"}, Unique, 1},           // sign
		{slips.Line{Receive: "147.24", Sign: "-", Size: "600", Tone: "100.0"}, Unlisted, 0},         // two slips
		{slips.Line{Receive: "147.84", Sign: "-", Size: "600", Tone: "103.5", Mode: ""}, Unique, 1}, // reversed
	} {
		s := style{}
		if c.typed.Sign != "" {
			s.shift = 1
		}
		got := Case{place: middle}
		d.classify(&got, c.typed, s, truth)
		assert.Equal(t, c.class, got.Class, c.typed.String())
		if c.n > 0 {
			assert.Equal(t, c.n, got.Candidates, c.typed.String())
		}
	}
}

func TestDistrict(t *testing.T) {
	for _, region := range []string{"us", "uk", "au"} {
		cases, err := Draw(7, t.TempDir(), today, Sizes{Regions: []string{region}, Districts: 1, Cases: 1, Clean: 4})
		require.NoError(t, err)
		kinds := map[string]bool{}
		for _, c := range cases {
			kinds[c.Kind] = true
			assert.True(t, band.MustLoad(region).MayTransmit(freq.Hz(c.Truth.Transmit)), c.Line)
		}
		assert.Len(t, kinds, len(slips.Kinds)+1, "every kind, and clean entries")
	}
	a, err := Draw(9, t.TempDir(), today, Sizes{Regions: []string{"uk"}, Districts: 1, Cases: 1, Clean: 2})
	require.NoError(t, err)
	folder := t.TempDir()
	_, err = Draw(9, folder, today, Sizes{Regions: []string{"uk"}, Districts: 1, Cases: 1, Clean: 2})
	require.NoError(t, err)
	b, err := ReadCorpus(filepath.Join(folder, Corpus))
	require.NoError(t, err)
	require.Len(t, b, len(a))
	for i := range a {
		assert.Equal(t, a[i].Line, b[i].Line, "the same seed draws the same corpus")
	}
}

// TestRecovery is a small draw with a fixed seed, so that a change which makes
// the search worse is seen at once; `make recovery` measures in earnest.
func TestRecovery(t *testing.T) {
	program := filepath.Join(t.TempDir(), "mnemos")
	out, err := exec.CommandContext(t.Context(), "go", "build", "-o", program, "mnemos/cmd/mnemos").CombinedOutput()
	require.NoError(t, err, string(out))
	folder := t.TempDir()
	cases, err := Draw(3, folder, today, Sizes{Regions: []string{"us", "uk"}, Districts: 1, Cases: 12, Clean: 60})
	require.NoError(t, err)
	outcomes, err := Run(t.Context(), program, folder, "2026-11-25", cases)
	require.NoError(t, err)
	var first, alarms count
	for _, o := range outcomes {
		switch {
		case o.Class == Unique:
			first.add(o.First)
		case o.Kind == "clean":
			alarms.add(o.Alarm)
		}
	}
	assert.GreaterOrEqual(t, first.share(), aimUnique, "of %d", first.of)
	assert.LessOrEqual(t, alarms.share(), 0.01, "of %d", alarms.of)
	assert.Greater(t, alarms.of, 400)
	var said, right count
	for _, o := range outcomes {
		if o.Class == Unique {
			said.add(o.Sure)
		}
		if o.Sure {
			right.add(o.SureRight)
		}
	}
	assert.GreaterOrEqual(t, said.share(), aimSure, "very likely is said of %d", said.of)
	assert.GreaterOrEqual(t, right.share(), aimSureRight-0.01, "and right in %d", right.of) // a small draw
	var report bytes.Buffer
	Report(&report, outcomes)
	assert.Contains(t, report.String(), "unique: the first fix makes the truth")
}
