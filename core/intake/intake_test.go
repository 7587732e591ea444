package intake

import (
	"strings"
	"testing"
	"unicode"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

var (
	us = band.MustLoad("us")
	uk = band.MustLoad("uk")
)

// TestGuessByHeading has headings that people write, in four languages.
func TestGuessByHeading(t *testing.T) {
	for _, c := range []struct {
		heading, cells string
		want           []Role
	}{
		{"Callsign|Output|Input|Tone|Location", "QX1BHL|147.240|147.840|103.5|Beacon Hill", []Role{Callsign, Output, Input, UplinkTone, Locality}},
		{"Frequency (MHz)|Offset|PL|TSQ|Use|Status", "147.240|+|103.5|77|OPEN|On-air", []Role{Output, Shift, UplinkTone, DownlinkTone, Access, Status}},
		{"Rufzeichen|Frequenz|Ablage|Tonsquelch ein|Standort|Höhe|Stand", "QX1BHL|439,100|-7,6|103,5|Leuchtberg|410 m|02.11.2026", []Role{Callsign, Output, Shift, UplinkTone, Locality, Height, Updated}},
		{"Indicatif|Fréquence de sortie|Décalage|Tonalité entrée|Lieu|Locator", "QX1BHL|145,600|-0,6|88,5|Mont Clair|JN03aa", []Role{Callsign, Output, Shift, UplinkTone, Locality, Position}},
		{"Indicativo|Frecuencia|Desplazamiento|Subtono|Ubicación|Fecha", "QX1BHL|145.600|-600|88.5|Cerro Alto|2026-11-02", []Role{Callsign, Output, Shift, UplinkTone, Locality, Updated}},
		{"id|call|output_freq|input_freq|lat|lon|last_update", "7|QX1BHL|147240000|147840000|41.07|-55.18|2026-11-02", []Role{Key, Callsign, Output, Input, Latitude, Longitude, Updated}},
		{"Sponsor|Output|Offset size|Shift|Remarks", "nobody|147.24|0.6|+|ask first", []Role{Ignore, Output, Size, Shift, Note}},
	} {
		got, _ := Guess(strings.Split(c.heading, "|"), [][]string{strings.Split(c.cells, "|")}, us)
		roles := make([]Role, len(got))
		for i := range got {
			roles[i] = got[i].Role
		}
		assert.Equal(t, c.want, roles, c.heading)
	}
}

// TestGuessByContent has no heading at all.
func TestGuessByContent(t *testing.T) {
	rows := [][]string{
		{"QX1BHL", "147.240", "147.840", "103.5", "Beacon Hill", "41.07", "-55.18"},
		{"QX2MAR", "146.940", "146.340", "88.5", "Marran Light", "40.88", "-55.17"},
		{"QX3PEL", "147.030", "147.630", "94.8", "Pell Light", "41.20", "-55.40"},
	}
	got, _ := Guess(nil, rows, us)
	want := []Role{Callsign, Output, Input, UplinkTone, Locality, Latitude, Longitude}
	for i := range want {
		assert.Equal(t, want[i], got[i].Role, "column %d", i)
	}
}

func TestUnits(t *testing.T) {
	for _, c := range []struct {
		heading, cell string
		unit          Unit
	}{
		{"Output", "147.24", MHz},
		{"Output", "147240", KHz},
		{"Output", "147240000", Hz},
		{"Output kHz", "147.24", KHz},
		{"Shift", "-0.6", MHz},
		{"Shift", "600", KHz},
		{"Shift", "-7.6", MHz},
		{"Shift", "5", MHz},
		{"Shift", "1600", KHz},
		{"Shift", "600000", Hz},
	} {
		got := guess([]string{c.heading}, [][]string{{c.cell}}, us)
		assert.Equal(t, c.unit, got[0].Unit, "%s %s", c.heading, c.cell)
	}
}

func TestDates(t *testing.T) {
	for _, c := range []struct{ cell, order, want string }{
		{"2026-11-02", "dmy", "2026-11-02"},
		{"2026-11-02T09:00:00Z", "dmy", "2026-11-02"},
		{"2026/11/2", "dmy", "2026-11-02"},
		{"02.11.2026", "dmy", "2026-11-02"},
		{"11/02/2026", "mdy", "2026-11-02"},
		{"11/2/26", "mdy", "2026-11-02"},
		{"2 Nov 2026", "dmy", "2026-11-02"},
		{"Nov 2, 2026", "dmy", "2026-11-02"},
		{"2026-11", "dmy", "2026-11-01"},
		{"20261102", "dmy", "2026-11-02"},
	} {
		d, err := date(c.cell, Order(c.order))
		require.NoError(t, err, c.cell)
		assert.Equal(t, c.want, d.String(), c.cell)
	}
	for _, bad := range []string{"soon", "31.02.2026", "13/13/2026", "0000-01-01", "2026-13"} {
		_, err := date(bad, DMY)
		assert.Error(t, err, bad)
	}
	assert.Equal(t, DMY, guess([]string{"date"}, [][]string{{"02/11/2026"}, {"25/11/2026"}}, us)[0].Order, "25 is no month")
	assert.Equal(t, MDY, guess([]string{"date"}, [][]string{{"11/25/2026"}}, uk)[0].Order)
	assert.Equal(t, MDY, guess([]string{"date"}, [][]string{{"11/02/2026"}}, us)[0].Order, "the habit of the region")
	assert.Equal(t, DMY, guess([]string{"date"}, [][]string{{"11/02/2026"}}, uk)[0].Order)
}

func TestTones(t *testing.T) {
	says := func(s string) listing.Stated { return listing.Says(tone.MustParse(s)) }
	for cell, want := range map[string][2]listing.Stated{
		"100.0": {says("100")}, "100,0 Hz": {says("100")}, "PL 100": {says("100")}, "T103.5": {says("103.5")}, "CTCSS 88.5": {says("88.5")}, "tsq 77": {says("77")},
		"D023": {says("D023N")}, "D023I": {says("D023I")}, "DCS 023": {says("D023N")}, "023 DPL": {says("D023N")}, "DPL023": {says("D023N")},
		"100.0 / 77": {says("100"), says("77")}, "100/CSQ": {says("100"), says("none")}, "-/77": {{}, says("77")}, "100 | N/A": {says("100")},
		"CSQ": {says("none")}, "none": {says("none")}, "no tone": {says("none")}, "0.0": {says("none")}, "keine": {says("none")}, "Sin": {says("none")}, "off": {says("none")},
		"": {}, "-": {}, "N/A": {}, "?": {}, "yes": {}, "unbekannt": {}, "DTMF": {},
		"1750": {says("1750")}, "1750 Hz": {says("1750")}, "burst": {says("1750")}, "141": {says("141")},
	} {
		up, down, err := tones(cell)
		require.NoError(t, err, cell)
		assert.Equal(t, want, [2]listing.Stated{up, down}, cell)
	}
	for _, bad := range []string{"loud", "D999", "100/77/88 Hz", "5000", "D02"} {
		_, _, err := tones(bad)
		assert.Error(t, err, bad)
	}
}

// TestPositions is worked out by hand: 41°04'12" is 41 + 4/60 + 12/3600.
func TestPositions(t *testing.T) {
	for cell, want := range map[string][2]float64{
		"41.07, -55.18": {41.07, -55.18}, "41.07 -55.18": {41.07, -55.18}, "41,07; -55,18": {41.07, -55.18}, "N41.07 W55.18": {41.07, -55.18},
		"41°04.2'N, 55°10.8'W": {41.07, -55.18}, `41°04'12"N, 55°10'48"W`: {41.07, -55.18}, "GN21ia": {41.020833, -55.291667},
	} {
		p, err := position(cell)
		require.NoError(t, err, cell)
		assert.InDelta(t, want[0], p.Lat, 1e-6, cell)
		assert.InDelta(t, want[1], p.Lon, 1e-6, cell)
	}
	for _, bad := range []string{"41.07", "here", "91, 0", "41.07, 181", "41°61'N, 0"} {
		_, err := position(bad)
		assert.Error(t, err, bad)
	}
}

// TestRow reads one row of each kind; the shifts follow the region's plan
// where the row leaves them out.
func TestRow(t *testing.T) {
	columns := func(roles ...Role) Mapping {
		m := Mapping{}
		for _, r := range roles {
			m = append(m, Column{Role: r, Unit: MHz, Order: YMD})
		}
		return m
	}
	for _, c := range []struct {
		roles       []Role
		cells       string
		plan        *band.Plan
		input, says string // says: the fault
	}{
		{[]Role{Output, Input}, "147.24|147.84", us, "147.840", ""},
		{[]Role{Output, Shift}, "147.24|+", us, "147.840", ""},
		{[]Role{Output, Shift}, "147.24|0.6", us, "147.840", ""},
		{[]Role{Output, Shift}, "147.24|+0.6", us, "147.840", ""},
		{[]Role{Output, Shift}, "147.24|600 kHz+", us, "147.840", ""},
		{[]Role{Output, Shift}, "145.600|−", uk, "145.000", ""},
		{[]Role{Output, Shift, Size}, "147.24|-|1.0", us, "146.240", ""},
		{[]Role{Output, Shift}, "146.52|simplex", us, "146.520", ""},
		{[]Role{Output, Shift}, "147.24|", us, "0.000", ""},
		{[]Role{Output, Shift}, "147.24|1.0", us, "", "no direction"},
		{[]Role{Output, Shift}, "162.000|-", us, "", "no size"},
		{[]Role{Output, Input, Shift}, "147.24|147.84|-0.6", us, "", "do not belong together"},
		{[]Role{Output}, "", us, "", "output frequency is missing"},
		{[]Role{Output, UplinkTone}, "147.24|loud", us, "", "not a tone"},
		{[]Role{Output, Latitude, Longitude}, "147.24|91|0", us, "", "not an angle"},
		{[]Role{Output, Height, Status, Updated}, "147.24|tall|maybe|soon", us, "0.000", ""}, // only about the record: unknown
	} {
		r := Reader{Mapping: columns(c.roles...), Plan: c.plan, Source: "list"}
		rec, faults := r.Row(strings.Split(c.cells, "|"))
		if c.says != "" {
			if assert.NotEmpty(t, faults, c.cells) {
				assert.Contains(t, faults[0].Message, c.says, c.cells)
			}
			continue
		}
		require.Empty(t, faults, c.cells)
		assert.Equal(t, c.input, rec.Input.MHz(), c.cells)
	}
}

func TestKeysAreUnique(t *testing.T) {
	r := Reader{Mapping: Mapping{{Role: Output, Unit: MHz}, {Role: Callsign}, {Role: Key}}, Plan: us, Source: "list"}
	var keys []string
	for _, cells := range []string{"147.24|qx1bhl|", "147.24|qx1bhl|", "147.24|qx1bhl|a7", "147.24|qx1bhl|a7"} {
		rec, faults := r.Row(strings.Split(cells, "|"))
		require.Empty(t, faults)
		keys = append(keys, rec.Key)
	}
	assert.Equal(t, []string{"QX1BHL 147.240", "QX1BHL 147.240 #2", "a7", "a7 #2"}, keys)
}

// TestTotals: a row that counts the others is none, also where its number
// stands in the column of the frequency; and no number far below what FM radios
// have is a frequency.
func TestTotals(t *testing.T) {
	heading := []string{"Callsign", "Output", "Shift"}
	rows := [][]string{heading, {"QX1AA", "146.94", "-"}, {"QX2AA", "147.24", "+"}}
	l := Look(rows, false, us)
	for _, row := range [][]string{{"Total", "2", ""}, {"Total:", "147", ""}, {"", "Summe", "2"}, {"Totaal =", "", ""}} {
		_, ok := l.Aside(l.Mapping, row)
		assert.True(t, ok, "%q", row)
	}
	for _, row := range rows[1:] {
		_, ok := l.Aside(l.Mapping, row)
		assert.False(t, ok, "%q", row)
	}
	r := Reader{Mapping: l.Mapping, Plan: us, Source: "list"}
	for _, output := range []string{"1", "2.5", "14.694"} {
		_, faults := r.Row([]string{"QX1AA", output, "-"})
		require.NotEmpty(t, faults, output)
		assert.Contains(t, faults[0].Message, "below 25 MHz", output)
	}
	_, faults := r.Row([]string{"QX1AA", "29.620", "-0.1"})
	assert.Empty(t, faults)
}

func TestProse(t *testing.T) {
	r := Reader{Plan: us, Source: "list"}
	rec, faults := r.Prose("147.240+ PL 100 Beacon Hill")
	require.Empty(t, faults)
	assert.Equal(t, freq.MustParse("147.84"), rec.Input)
	assert.Equal(t, listing.Says(tone.MustParse("100")), rec.UplinkTone)
	assert.Equal(t, "Beacon Hill", rec.Locality)
	rec, faults = r.Prose("146.94 Marran Light")
	require.Empty(t, faults)
	assert.Zero(t, rec.Input, "what is not stated is unknown, not the band plan's")
	assert.False(t, rec.UplinkTone.Known)
	_, faults = r.Prose("see the notice board")
	assert.NotEmpty(t, faults)
}

// TestClean has texts that would break a page or deceive its reader.
func TestClean(t *testing.T) {
	for text, want := range map[string]string{
		"Beacon  Hill\n":                   "Beacon Hill",
		"a\u202Egnp.exe":                   "agnp.exe",
		"zero\u200Bwidth\uFEFF":            "zerowidth",
		"\x00\x1b[31mred":                  "[31mred",
		"<script>alert(1)</script>":        "<script>alert(1)</script>", // shown as it is written; the page never takes it for more
		"Łódź Höhe ñandú 日本":               "Łódź Höhe ñandú 日本",
		"Z" + strings.Repeat("\u0300", 50): "Z\u0300\u0300",
	} {
		assert.Equal(t, want, Clean(text))
	}
	long := Clean(strings.Repeat("x", 10_000))
	assert.Len(t, []rune(long), longest)
	assert.True(t, strings.HasSuffix(long, "…"), "that it is cut off can be seen")
}

func FuzzRow(f *testing.F) {
	for _, s := range []string{"147.24|+|100|41.07|-55.18|2026-11-02|Beacon Hill|open", "1e9|−7,6|D023/CSQ|41°04'N|W55|13.13.13|\u202e|", "||||||||"} {
		f.Add(s)
	}
	roles := Mapping{
		{Role: Output, Unit: MHz}, {Role: Shift, Unit: MHz}, {Role: UplinkTone}, {Role: Latitude}, {Role: Longitude}, {Role: Updated, Order: DMY}, {Role: Locality}, {Role: Access},
	}
	f.Fuzz(func(t *testing.T, s string) {
		cells := strings.Split(s, "|")
		Guess(nil, [][]string{cells}, us)
		Heading([][]string{cells})
		r := Reader{Mapping: roles, Plan: us, Source: "list"}
		rec, faults := r.Row(cells)
		if len(faults) > 0 {
			return
		}
		require.NoError(t, rec.Validate())
		for _, text := range []string{rec.Key, rec.Locality} {
			require.Equal(t, -1, strings.IndexFunc(text, unicode.IsControl), "%q", text)
		}
		if rec.Input != 0 {
			require.Positive(t, rec.Input)
		}
	})
}

func guess(heading []string, rows [][]string, plan *band.Plan) Mapping {
	m, _ := Guess(heading, rows, plan)
	return m
}
