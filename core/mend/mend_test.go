package mend

import (
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

var (
	us    = band.MustLoad("us")
	here  = geo.Point{Lat: 41, Lon: -55}
	today = time.Date(2026, 11, 25, 0, 0, 0, 0, time.UTC)
	query = listing.Query{Place: &here, RadiusKM: 150, Height: 1.5}
)

// at publishes a repeater so many kilometres north of here.
func at(km float64, locality, output, shift, up string) listing.Record {
	lat, lon := here.Lat+km/111.1, here.Lon
	f := freq.MustParse(output)
	o, err := freq.ParseOffset(shift)
	if err != nil {
		panic(err) // written below
	}
	return listing.Record{
		Key: locality, Callsign: "QX" + locality, Locality: locality, Output: f, Input: f.Add(o), UplinkTone: listing.Says(tone.MustParse(up)),
		Mode: listing.FM, Lat: &lat, Lon: &lon, Status: listing.OnAir, Updated: listing.Date{Time: today.AddDate(0, -1, 0)}, Source: "list",
	}
}

// search types a line and returns what one slip leads to.
func search(t *testing.T, line string, records ...listing.Record) []Candidate {
	t.Helper()
	e, ok := Typed(entry.Read(line, us), us)
	require.True(t, ok, line)
	found, err := Search(t.Context(), listing.Memory(records), us, e, query, today)
	require.NoError(t, err)
	return found
}

// TestSlips has a repeater, and what a hand makes of it by one slip of each
// kind. The slips are those that a listing and a keypad lead to; common
// practice, no source.
func TestSlips(t *testing.T) {
	hill := at(10, "Hill", "147.240 MHz", "+600 kHz", "103.5")
	hill.DownlinkTone = listing.Says(tone.MustParse("77"))
	coded := at(10, "Coded", "442.650 MHz", "+5 MHz", "D131N")
	for _, c := range []struct {
		line string
		slip Slip
		meant,
		beside listing.Record
	}{
		{"147.24 - 103.5", WrongSign, hill, listing.Record{}},
		{"147.84 103.5", Reversed, hill, listing.Record{}},
		{"147.84 - 103.5", Reversed, hill, listing.Record{}},
		{"147.24 +6M 103.5", ShiftUnit, hill, listing.Record{}},
		{"147.24 +60k 103.5", ShiftUnit, hill, listing.Record{}},
		{"147.24 + 77", Downlink, hill, listing.Record{}},
		{"147.24 + 100", ToneBeside, hill, listing.Record{}},
		{"147.24 + 107.2", ToneBeside, hill, listing.Record{}},
		{"147.24 + 105.3", ToneBeside, hill, listing.Record{}}, // no tone at all; the nearest is meant
		{"147.24 +", NoTone, hill, listing.Record{}},
		{"174.24 + 103.5", SwappedDigits, hill, listing.Record{}},
		{"147.42 + 103.5", SwappedDigits, hill, listing.Record{}},
		{"147.25 + 103.5", AdjacentDigit, hill, listing.Record{}},
		{"147.29 + 103.5", OtherDigit, hill, listing.Record{}},
		{"147.4 + 103.5", MissingDigit, hill, listing.Record{}},
		{"147.224 + 103.5", DoubledDigit, hill, listing.Record{}},
		{"442.65 + D131I", Polarity, coded, listing.Record{}},
		{"442.65 + 131.8", CodeOrTone, coded, listing.Record{}},
		{"147.24 + 94.8", OtherLine, hill, at(80, "Pell", "147.260 MHz", "+600 kHz", "94.8")},
	} {
		records := []listing.Record{c.meant}
		if c.beside.Key != "" {
			records = append(records, c.beside)
		}
		found := search(t, c.line, records...)
		if !assert.NotEmpty(t, found, c.line) {
			continue
		}
		assert.Equal(t, c.slip, found[0].Slip, c.line)
		assert.Equal(t, c.meant.Key, found[0].Key, c.line)
		tx, sends := found[0].Result.Transmit()
		assert.True(t, sends)
		assert.Equal(t, c.meant.Output, found[0].Result.Receive, c.line)
		assert.Equal(t, c.meant.Input, tx, c.line)
		assert.Equal(t, c.meant.UplinkTone.Tone, found[0].Result.TransmitTone, c.line)
	}
}

// TestNoSlip has entries from which no single slip leads to the repeater.
func TestNoSlip(t *testing.T) {
	hill := at(10, "Hill", "147.240 MHz", "+600 kHz", "103.5")
	digital := hill
	digital.Mode = listing.Digital
	for line, record := range map[string]listing.Record{
		"147.24 + 103.5":  hill,                                                // it agrees
		"147.24 - 100":    hill,                                                // the sign and the tone
		"147.25 + 107.2":  hill,                                                // a digit and the tone
		"146.94 - 88.5":   hill,                                                // another one altogether
		"147.24 + 225.7":  hill,                                                // a tone from nowhere near
		"147.24 - 103.5 ": digital,                                             // of no use to FM
		"147.25 + 103.5":  at(140, "Far", "147.240 MHz", "+600 kHz", "103.5"),  // past the horizon and beyond 100 km
		"147.24 -  103.5": at(400, "Away", "147.240 MHz", "+600 kHz", "103.5"), // beyond the radius
	} {
		assert.Empty(t, search(t, line, record), line)
	}
}

// TestRank puts the likelier first: the nearer, the fresher, the one on the
// air, the one that is named.
func TestRank(t *testing.T) {
	near := at(5, "Near", "147.240 MHz", "+600 kHz", "103.5")
	far := at(70, "Far", "147.260 MHz", "+600 kHz", "103.5")
	old, off := near, near
	old.Key, old.Updated = "Old", listing.Date{Time: today.AddDate(-3, 0, 0)}
	off.Key, off.Status = "Off", listing.OffAir
	old.Output, old.Input = far.Output, far.Input
	off.Output, off.Input = far.Output, far.Input

	first := func(line string, records ...listing.Record) string {
		found := search(t, line, records...)
		require.NotEmpty(t, found, line)
		return found[0].Key
	}
	assert.Equal(t, "Near", first("147.25 + 103.5", far, near)) // a digit beside either
	assert.Equal(t, "Near", first("147.25 + 103.5", old, near))
	assert.Equal(t, "Near", first("147.25 + 103.5", off, near))
	assert.Equal(t, "Far", first("147.25 + 103.5 Far", far, near), "a name outweighs everything")

	// Two records that make the same channel are one choice.
	twin := near
	twin.Key, twin.Source = "Twin", "other list"
	assert.Len(t, search(t, "147.25 + 103.5", near, twin), 1)
}

// TestSquelchIsKept makes the same use of the receiver as was typed.
func TestSquelchIsKept(t *testing.T) {
	hill := at(10, "Hill", "147.240 MHz", "+600 kHz", "103.5")
	r := search(t, "147.24 + tsq 100", hill)[0].Result
	assert.Equal(t, channel.ToneSquelch, r.Mode())
	assert.Equal(t, tone.MustParse("103.5"), r.ReceiveTone)
	r = search(t, "147.24 + 100", hill)[0].Result
	assert.True(t, r.ReceiveTone.IsOff(), "the receiver stays open")
}

// TestAnyOrder draws a listing and an entry: what is found does not depend on
// the order of the records or on where they are kept.
func TestAnyOrder(t *testing.T) {
	tones := []string{"100", "103.5", "107.2", "77"}
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, 30).Draw(t, "records")
		records := make([]listing.Record, n)
		for i := range records {
			output := freq.Hz(147_000_000 + 15_000*rapid.Int64Range(0, 26).Draw(t, "output"))
			records[i] = at(float64(rapid.IntRange(0, 90).Draw(t, "km")), string(rune('A'+i)), output.String(), "+600 kHz", rapid.SampledFrom(tones).Draw(t, "tone"))
		}
		line := freq.Hz(147_000_000+15_000*rapid.Int64Range(0, 26).Draw(t, "typed")).MHz() + rapid.SampledFrom([]string{" + ", " - "}).Draw(t, "shift") +
			rapid.SampledFrom(tones).Draw(t, "typed tone")
		e, ok := Typed(entry.Read(line, us), us)
		require.True(t, ok)
		want, err := Search(t.Context(), listing.Memory(records), us, e, query, today)
		require.NoError(t, err)
		for _, c := range want {
			assert.NotEqual(t, e.Channel, c.Result, "a candidate changes something")
		}
		shuffled := slices.Clone(records)
		rand.New(rand.NewPCG(uint64(n), 7)).Shuffle(n, func(i, j int) { shuffled[i], shuffled[j] = shuffled[j], shuffled[i] })
		for _, src := range []listing.Source{listing.Memory(shuffled), listing.Index(shuffled)} {
			got, err := Search(t.Context(), src, us, e, query, today)
			require.NoError(t, err)
			assert.Equal(t, want, got, line)
		}
	})
}

// TestKeypad: the neighbours of each digit by the place that it has on a keypad
// of three columns (ITU-T E.161) and in the row of digits of a keyboard; a
// neighbour of a neighbour is none, and it goes both ways.
func TestKeypad(t *testing.T) {
	for d, want := range map[byte]string{
		'0': "89", '1': "24", '2': "135", '3': "246", '4': "1357", '5': "2468", '6': "3579", '7': "468", '8': "5790", '9': "680",
	} {
		assert.ElementsMatch(t, []byte(want), []byte(keypad[d]), string(d))
		for i := range want {
			assert.Contains(t, keypad[want[i]], string(d), "%c lies beside %c both ways", d, want[i])
		}
	}
}

func TestCompare(t *testing.T) {
	for _, c := range []struct {
		typed, right string
		slip         Slip
		ok           bool
	}{
		{"147.24", "147.240", "", true},
		{"14724", "147.240", "", true},
		{"147.42", "147.240", SwappedDigits, true},
		{"1472.4", "147.240", "", false},
		{"147.24", "146.940", "", false},
		{"147.2400", "147.240", "", true},
	} {
		slip, ok := compare(c.typed, c.right)
		if assert.Equal(t, c.ok, ok, c.typed) && ok {
			assert.Equal(t, c.slip, slip, c.typed)
		}
	}
}
