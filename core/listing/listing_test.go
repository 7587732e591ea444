package listing

import (
	"encoding/json"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/tone"
)

const sample = `[{"key":"1","callsign":"QX1BHL","output_hz":147240000,"input_hz":147840000,"uplink_tone":"103.5","downlink_tone":"none",
	"mode":"fm","width":"wide","locality":"Beacon Hill","lat":41.07,"lon":-55.18,"height_m":180,"status":"on-air","access":"open",
	"updated":"2026-11-02","source":"Harbour list"},
	{"key":"2","callsign":"","output_hz":147240000,"input_hz":0,"uplink_tone":null,"downlink_tone":null,"mode":"","width":"","locality":"",
	"lat":null,"lon":null,"height_m":null,"status":"","access":"","updated":null,"source":""}]`

func TestRead(t *testing.T) {
	records, err := Read(strings.NewReader(sample))
	require.NoError(t, err)
	require.Len(t, records, 2)
	assert.Equal(t, Says(tone.MustParse("103.5")), records[0].UplinkTone)
	assert.Equal(t, Stated{Known: true}, records[0].DownlinkTone, "none is a statement")
	assert.Equal(t, Stated{}, records[1].UplinkTone, "null is none at all")
	assert.Equal(t, time.Date(2026, 11, 2, 0, 0, 0, 0, time.UTC), records[0].Updated.Time)
	_, placed := records[1].Place()
	assert.False(t, placed)

	b, err := json.Marshal(records)
	require.NoError(t, err)
	assert.JSONEq(t, sample, string(b), "reading loses nothing")

	for bad, says := range map[string]string{
		`{}`:                                  "JSON array",
		`[{"key":""}]`:                        "record 1: key is missing",
		`[{"key":"a"}]`:                       "output_hz is missing",
		`[{"key":"a","output_hz":1,"lat":3}]`: "belong together",
		`[{"key":"a","output_hz":1,"lat":99,"lon":0}]`:     "not on the earth",
		`[{"key":"a","output_hz":1,"uplink_tone":"loud"}]`: "write a CTCSS tone",
		`[{"key":"a","output_hz":1,"updated":"soon"}]`:     "YYYY-MM-DD",
		`[{"key":"a","output_hz":1}`:                       "ends early",
	} {
		_, err := Read(strings.NewReader(bad))
		assert.ErrorContains(t, err, says, bad)
	}
}

func place(lat, lon float64) (a, b *float64) { return &lat, &lon }

func record(key, locality, output, input, up string, lat float64) Record {
	r := Record{Key: key, Locality: locality, Output: freq.MustParse(output), Input: freq.MustParse(input), UplinkTone: Says(tone.MustParse(up)), Mode: FM}
	r.Lat, r.Lon = place(lat, -55)
	return r
}

func TestFind(t *testing.T) {
	src := Memory{
		record("near", "Beacon Hill", "147.240", "147.840", "103.5", 41.1),
		record("far", "Sarn Ness", "147.240", "147.840", "100.0", 41.6),
		record("beyond", "Elsewhere", "147.240", "147.840", "100.0", 43),
		record("off", "Next channel", "147.255", "147.855", "100.0", 41.1),
	}
	us := band.MustLoad("us")
	q := Query{Place: &geo.Point{Lat: 41, Lon: -55}, RadiusKM: 150}
	find := func(c channel.Channel) (keys []string, inputs []string) {
		out, in, err := Find(t.Context(), src, us, c, q)
		require.NoError(t, err)
		for _, m := range out {
			keys = append(keys, m.Key)
		}
		for _, m := range in {
			inputs = append(inputs, m.Key)
		}
		return keys, inputs
	}
	c := channel.New(freq.MustParse("147.24"))
	c.Side = channel.ShiftSide(600_000)
	keys, _ := find(c)
	assert.Equal(t, []string{"near", "far"}, keys, "nearest first; the one beyond the radius is not there")
	c.Name = "Sarn Ness"
	keys, _ = find(c)
	assert.Equal(t, []string{"far", "near"}, keys, "a name outweighs the distance")
	keys, inputs := find(channel.New(freq.MustParse("147.84")))
	assert.Empty(t, keys)
	assert.Equal(t, []string{"near", "far"}, inputs)
	keys, _ = find(channel.New(freq.MustParse("147.243")))
	assert.Len(t, keys, 2, "half a raster off is still the same output")

	q = Query{}
	keys, _ = find(channel.New(freq.MustParse("147.24")))
	assert.Len(t, keys, 3, "without a place every record counts")
}

func TestDifferences(t *testing.T) {
	r := record("k", "Beacon Hill", "147.240", "147.840", "103.5", 41)
	r.DownlinkTone = Says(tone.MustParse("D023N"))
	c := channel.New(r.Output)
	c.Side, c.TransmitTone = channel.ShiftSide(600_000), tone.MustParse("103.5")
	assert.Empty(t, Differences(c, r), "an open receiver is no difference")
	c.ReceiveTone = tone.MustParse("D047I")
	assert.Empty(t, Differences(c, r), "the same signal by another name")
	c.ReceiveTone, c.TransmitTone, c.Side = tone.MustParse("100"), tone.Off, channel.ShiftSide(-600_000)
	var fields []channel.Field
	for _, d := range Differences(c, r) {
		fields = append(fields, d.Field)
	}
	assert.Equal(t, []channel.Field{channel.FieldShift, channel.FieldTransmit, channel.FieldTransmitTone, channel.FieldReceiveTone}, fields)
	c.Side = channel.TransmitSide{Kind: channel.Blocked}
	assert.Len(t, Differences(c, r), 1, "a receive-only channel sends nothing that could differ")
}

// TestIndex checks the index against the plain filter.
func TestIndex(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		var records []Record
		for i := range rapid.IntRange(0, 40).Draw(r, "n") {
			rec := Record{Key: string(rune('a' + i)), Output: freq.Hz(rapid.Int64Range(1, 30).Draw(r, "out")), Input: freq.Hz(rapid.Int64Range(0, 30).Draw(r, "in"))}
			if rapid.Bool().Draw(r, "placed") {
				rec.Lat, rec.Lon = place(rapid.Float64Range(-5, 5).Draw(r, "lat"), 0)
			}
			records = append(records, rec)
		}
		lo := freq.Hz(rapid.Int64Range(0, 30).Draw(r, "lo"))
		span := band.Span{Lower: lo, Upper: lo + freq.Hz(rapid.Int64Range(0, 5).Draw(r, "width"))}
		box := geo.Around(geo.Point{}, 200)
		for _, b := range []*geo.Box{nil, &box} {
			wantOut, _ := Memory(records).ByOutput(t.Context(), span, b)
			gotOut, _ := Index(records).ByOutput(t.Context(), span, b)
			require.ElementsMatch(r, wantOut, gotOut)
			wantIn, _ := Memory(records).ByInput(t.Context(), span, b)
			gotIn, _ := Index(records).ByInput(t.Context(), span, b)
			require.ElementsMatch(r, wantIn, gotIn)
		}
	})
}

func FuzzRead(f *testing.F) {
	f.Add(sample)
	f.Add(`[{"key":"a","output_hz":1}]`)
	f.Add(`[null]`)
	f.Fuzz(func(t *testing.T, s string) {
		records, err := Read(strings.NewReader(s))
		if err != nil {
			return
		}
		b, err := json.Marshal(records)
		require.NoError(t, err)
		if len(records) == 0 {
			return
		}
		again, err := Read(strings.NewReader(string(b)))
		require.NoError(t, err, "what was read can be read again")
		require.Len(t, again, len(records))
	})
}
