package find_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/evidence"
	"mnemos/core/find"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

var (
	today = time.Date(2026, 11, 25, 9, 42, 0, 0, time.UTC)
	here  = geo.Point{Lat: 41.02, Lon: -55.31}
)

func scene() *find.Scene {
	return &find.Scene{
		Band: band.MustLoad("us"), Place: &here, Height: 1.5, Radius: 150, Today: today, Stale: 12, Radio: "Trail",
		Cannot: func(r *listing.Record) string {
			if r.Mode == listing.Digital || r.Output > 500*freq.MHz || r.Output < 100*freq.MHz {
				return "not received"
			}
			return ""
		},
	}
}

var (
	parts    = []string{"Long", "Low", "Grey", "Old", "Tern", "Marran", "Stag", "Fern", "Hollow", "Ridge", "Haven", "Light", "Horn", "Signal", "Moor", "Quay"}
	listings = []string{"Harbour list", "Lantern list", "Third"}
	uplinks  = []listing.Stated{{}, listing.Says(tone.Off), listing.Says(tone.MustParse("88.5")), listing.Says(tone.MustParse("146.2")), listing.Says(tone.MustParse("D023N")), listing.Says(tone.MustParse("1750"))}
)

func pick[T any](r *rand.Rand, list []T) T { return list[r.IntN(len(list))] }

// draw draws records of all sorts around a place. Some speak of one repeater.
func draw(r *rand.Rand, n int, spread float64) []listing.Record {
	out := make([]listing.Record, 0, n)
	for i := range n {
		lower := pick(r, []freq.Hz{29_520_000, 52_810_000, 144_510_000, 146_610_000, 147_000_000, 222_000_000, 442_000_000, 927_600_000, 1_282_000_000})
		x := listing.Record{
			Key: fmt.Sprintf("k%d", i), Source: pick(r, listings), Output: lower + freq.Hz(r.IntN(80)*15_000), UplinkTone: pick(r, uplinks), DownlinkTone: pick(r, uplinks),
			Callsign: fmt.Sprintf("QX%d%c%c%c", r.IntN(10), 'A'+r.IntN(26), 'A'+r.IntN(26), 'A'+r.IntN(26)), Locality: pick(r, parts) + " " + pick(r, parts),
			Mode: pick(r, []listing.Mode{"", listing.FM, listing.FM, listing.Digital, listing.MixedFM}), Width: pick(r, []string{"", "wide", "narrow"}),
			Status: pick(r, []listing.Status{"", listing.OnAir, listing.OffAir}), Access: pick(r, []listing.Access{"", listing.Open, listing.Closed, listing.Private}),
			Note: pick(r, []string{"", "", "DTMF 123", "ask the owner", "ledge"}),
		}
		x.Input = x.Output + freq.Hz(pick(r, []int{0, 600_000, -600_000, 5_000_000}))
		if x.Input == x.Output {
			x.Kind = pick(r, []listing.Kind{listing.SimplexChannel, listing.ListenChannel})
		}
		if r.IntN(10) > 0 {
			lat, lon := here.Lat+(r.Float64()-.5)*spread, math.Mod(here.Lon+(r.Float64()-.5)*spread*2+540, 360)-180
			x.Lat, x.Lon = &lat, &lon
		}
		if r.IntN(2) == 0 {
			h := float64(10 + r.IntN(800))
			x.Height = &h
		}
		if r.IntN(8) > 0 {
			x.Updated = listing.Date{Time: time.Date(2026, 11, 25, 0, 0, 0, 0, time.UTC).AddDate(0, 0, -r.IntN(900))}
		}
		out = append(out, x)
		if r.IntN(3) == 0 { // another listing about the same
			y := x
			y.Source, y.Key = listings[(slices.Index(listings, x.Source)+1)%3], x.Key+"b"
			if r.IntN(3) == 0 {
				y.UplinkTone = pick(r, uplinks)
			}
			out = append(out, y)
		}
	}
	return out
}

// wish is one word of a random line with what it means, worked out from the
// records themselves and not from anything that package find keeps.
type wish struct {
	text  string
	keeps func(rs []listing.Record, best listing.Record) bool
}

func monthsAgo(n int) time.Time {
	return time.Date(2026, 11, 25, 0, 0, 0, 0, time.UTC).AddDate(0, -n, 0)
}

// wishes are drawn afresh for each line.
func wishes(r *rand.Rand) []wish {
	km := float64(5 + r.IntN(400))
	away := func(b listing.Record) float64 {
		p, ok := b.Place()
		if !ok {
			return math.Inf(1)
		}
		d, _ := geo.Distance(here, p)
		return d
	}
	word := pick(r, parts)
	begin := pick(r, []string{"14", "146", "146.6", "147.0", "44", "443,2", "29.5", "52", "1283"})
	source := pick(r, listings)
	side := r.IntN(8)
	edges := pick(r, []struct {
		word         string
		lower, upper freq.Hz
	}{{"2m", 144_000_000, 148_000_000}, {"1.25 m", 222_000_000, 225_000_000}, {"33cm", 902_000_000, 928_000_000}, {"23 cm", 1_240_000_000, 1_300_000_000}}) // 47 CFR 97.301
	all := []wish{
		{fmt.Sprintf("%vkm", km), func(_ []listing.Record, b listing.Record) bool { return away(b) <= km }},
		{fmt.Sprintf("within %v km", km), func(_ []listing.Record, b listing.Record) bool { return away(b) <= km }},
		{strings.ToUpper(word), func(rs []listing.Record, _ listing.Record) bool {
			return slices.ContainsFunc(rs, func(s listing.Record) bool {
				return strings.Contains(strings.ToLower(s.Callsign+"|"+s.Locality+"|"+s.Note+"|"+s.Source+"|"+s.Key), strings.ToLower(word))
			})
		}},
		{begin, func(_ []listing.Record, b listing.Record) bool {
			figures := strings.Replace(begin, ",", ".", 1)
			return strings.HasPrefix(b.Output.MHz()+"000", figures) || strings.HasPrefix(b.Input.MHz()+"000", figures)
		}},
		{source, func(rs []listing.Record, _ listing.Record) bool {
			return slices.ContainsFunc(rs, func(s listing.Record) bool { return s.Source == source })
		}},
		{edges.word, func(_ []listing.Record, b listing.Record) bool { return b.Output.Within(edges.lower, edges.upper) }},
		{"open", func(_ []listing.Record, b listing.Record) bool { return b.Access == "" || b.Access == listing.Open }},
		{"fm", func(_ []listing.Record, b listing.Record) bool { return b.Mode != listing.Digital }},
		{"off the air", func(_ []listing.Record, b listing.Record) bool { return b.Status == listing.OffAir }},
		{"this year", func(_ []listing.Record, b listing.Record) bool {
			return !b.Updated.IsZero() && !b.Updated.Before(monthsAgo(12))
		}},
		{"3 months", func(_ []listing.Record, b listing.Record) bool {
			return !b.Updated.IsZero() && !b.Updated.Before(monthsAgo(3))
		}},
		{"cannot", func(_ []listing.Record, b listing.Record) bool {
			return b.Mode == listing.Digital || b.Output > 500*freq.MHz || b.Output < 100*freq.MHz
		}},
		{"missing", func(_ []listing.Record, b listing.Record) bool {
			return b.Mode != listing.Digital && b.Output <= 500*freq.MHz && b.Output >= 100*freq.MHz
		}},
		{"only-one", func(rs []listing.Record, _ listing.Record) bool { return len(rs) == 1 }},
		{"differ", func(rs []listing.Record, _ listing.Record) bool {
			return len(rs) == 2 && rs[0].UplinkTone.Known && rs[1].UplinkTone.Known && rs[0].UplinkTone != rs[1].UplinkTone
		}},
		{"narrow", func(_ []listing.Record, b listing.Record) bool { return b.Width == "narrow" }},
		{"repeaters", func(_ []listing.Record, b listing.Record) bool { return b.Kind == "" }},
		{"ts 146.2", func(_ []listing.Record, b listing.Record) bool {
			return b.UplinkTone.Known && b.UplinkTone.Tone.String() == "146.2"
		}},
		{"88.5", func(_ []listing.Record, b listing.Record) bool {
			return b.UplinkTone.Known && b.UplinkTone.Tone.String() == "88.5"
		}},
		{"no place", func(_ []listing.Record, b listing.Record) bool { return b.Lat == nil }},
		{[]string{"north", "north-east", "east", "south east", "south", "south-west", "west", "north west"}[side], func(_ []listing.Record, b listing.Record) bool {
			p, ok := b.Place()
			if !ok {
				return false
			}
			_, deg := geo.Distance(here, p)
			d := math.Abs(math.Mod(deg-float64(side)*45+540, 360) - 180)
			return d <= 22.5
		}},
	}
	r.Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
	return all[:1+r.IntN(3)]
}

// rounds is how many random lines are tried; make proof asks for more.
func rounds(t *testing.T) int {
	t.Helper()
	s := os.Getenv("MNEMOS_LINES")
	if s == "" {
		return 1_000
	}
	n, err := strconv.Atoi(s)
	require.NoError(t, err)
	return n
}

// TestFindIsAPlainScan sets what random lines find against a scan of the joined
// records by the meaning of each word, measured on the ellipsoid throughout, in
// the order of the distances.
func TestFindIsAPlainScan(t *testing.T) {
	r := rand.New(rand.NewPCG(13, 1))
	s := scene()
	lines := rounds(t)
	var book *find.Book
	var joined []listing.Repeater
	some := 0
	for n := range lines {
		if n%500 == 0 {
			records := draw(r, 700, pick(r, []float64{2, 8, 60}))
			book = find.Bind(records, nil, nil)
			joined = nil
			var repeaters []listing.Record
			for _, x := range records {
				if x.Kind == "" {
					repeaters = append(repeaters, x)
				} else {
					joined = append(joined, listing.Repeater{Statements: []listing.Record{x}})
				}
			}
			joined = append(joined, listing.Join(repeaters, nil)...)
		}
		ws := wishes(r)
		texts := make([]string, len(ws))
		for i, w := range ws {
			texts[i] = w.text
		}
		line := strings.Join(texts, pick(r, []string{" ", "  ", " , "}))
		want := map[listing.ID]bool{}
		var km []float64
		for _, x := range joined {
			best := x.Best()
			if slices.ContainsFunc(ws, func(w wish) bool { return !w.keeps(x.Statements, best) }) {
				continue
			}
			want[x.Statements[0].ID()] = true
			if p, ok := best.Place(); ok {
				d, _ := geo.Distance(here, p)
				km = append(km, d)
			}
		}
		got := book.Search(line, s, 20)
		require.Equal(t, len(want), got.Found, "%q", line)
		assert.Equal(t, got.Found, got.Held+got.Missing+got.Cannot)
		some += min(1, got.Found)
		slices.Sort(km)
		for i, row := range got.Rows {
			require.True(t, want[row.ID], "%q found %s", line, row.Best.Title())
			if i < len(km) {
				require.InDelta(t, km[i], *row.Distance, 1e-6, "%q, row %d", line, i)
			}
		}
		left := 0
		for _, l := range got.LeftOut {
			left += l.Number
		}
		require.Equal(t, book.Len(), got.Found+left, "%q: what is left out and what is found are all", line)
	}
	assert.Greater(t, some, lines/3, "most lines find something")
}

// TestWordsAreTaken is what people type, and what each word is taken as. Common
// practice, no source.
func TestWordsAreTaken(t *testing.T) {
	at := func(name, call string, lat float64) listing.Record {
		lon := -55.3
		return listing.Record{Key: call, Source: "Harbour list", Output: freq.MustParse("146.94"), Input: freq.MustParse("146.34"), Callsign: call, Locality: name, Lat: &lat, Lon: &lon}
	}
	book := find.Bind([]listing.Record{at("Old Signal", "QX1OSG", 41), at("Marran Light", "QX2MRN", 41.1), at("Málaga Tor", "QX3MLG", 41.2)}, nil, nil)
	for line, want := range map[string]string{
		"":                       "",
		"60km fm":                "within|usable with FM",
		"60 km":                  "within",
		"Within 60 KM":           "within",
		"2m 70 cm":               "band|band",
		"old signal":             "name",
		"stale":                  "old or undated",
		"this year open":         "confirmed within 12 months|open to all",
		"missing":                "not in Trail",
		"harbour list":           "listing",
		`"harbour list"`:         "listing",
		"harbour":                "name",
		"146.9":                  "frequency begins",
		"146,9":                  "frequency begins",
		"88.5":                   "opens to 88.5 Hz",
		"146.2":                  "?frequency begins",
		"ts 146.2":               "opens to 146.2 Hz",
		"146.2 hz":               "opens to 146.2 Hz",
		"d023n":                  "opens to D023N",
		"north":                  "lies north",
		`"north"`:                "?name",
		"gn21ia":                 "from here",
		"near marran light 30km": "from here|within",
		"near marran":            "from here",
		"near 41.02,-55.31":      "from here",
		"near nowhere":           "?unknown place",
		"near":                   "?name",
		"malaga":                 "name",
		"zebra":                  "?name",
		"9m":                     "?no band here",
		"0km":                    "?no distance",
		"2 weeks":                "confirmed within",
		"the lazy dog":           "?name|?name|?name",
		"by frequency":           "lowest output first",
		"146.94 MHz":             "frequency begins",
		"2 metres":               "band",
		"dcs 023":                "opens to D023N",
		"ctcss 127.3 hz":         "opens to 127.3 Hz",
		"41.02 -55.31":           "from here",
		"near me 20km":           "from you|within",
	} {
		got := book.Search(line, scene(), 10)
		var parts []string
		for _, w := range got.Words {
			mark := ""
			if w.State == find.Doubt {
				mark = "?"
				assert.NotEmpty(t, w.Says, line)
			}
			parts = append(parts, mark+w.As)
			assert.Equal(t, w.Text, string([]rune(line)[w.From:w.To]))
		}
		assert.Equal(t, want, strings.Join(parts, "|"), line)
	}
	assert.Equal(t, "Marran Light", find.Read("near marran", book, scene()).Named)
	assert.Equal(t, 3, book.Search("2m 70cm", scene(), 1).Found, "on either band")
	assert.Zero(t, book.Search("70cm 23cm", scene(), 1).Found)
	found := book.Search("malaga", scene(), 10)
	assert.Equal(t, 1, found.Found, "accents need not be typed")
}

// TestAnyLineIsRead: no line breaks the reading, every word lies in the line, and
// the words stand in its order.
func TestAnyLineIsRead(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 5))
	book := find.Bind(draw(r, 200, 4), nil, nil)
	alphabet := []rune("aé0159.,\"“” kmnear-−hzd\t\n%_'\\\u0301字")
	for range 5_000 {
		line := make([]rune, r.IntN(40))
		for i := range line {
			line[i] = pick(r, alphabet)
		}
		last := 0
		for _, w := range book.Search(string(line), scene(), 3).Words {
			require.GreaterOrEqual(t, w.From, last, "%q", string(line))
			require.Less(t, w.From, w.To)
			require.LessOrEqual(t, w.To, len(line))
			last = w.To
		}
		book.Complete(string(line), r.IntN(45)-2, scene(), 8)
	}
}

// TestHeldAndAround is worked out by hand: what a radio holds, lacks and cannot
// use around a place, and what is in doubt of it.
func TestHeldAndAround(t *testing.T) {
	at := func(key, output, input, up string, north, east float64, updated string) listing.Record {
		lat, lon := here.Lat+north/111.1, here.Lon+east/83.9 // km, within 0.3 %
		d, err := listing.ParseDate(updated)
		require.NoError(t, err)
		h := 100.0
		return listing.Record{
			Key: key, Source: "Harbour list", Locality: key, Output: freq.MustParse(output), Input: freq.MustParse(input), UplinkTone: listing.Says(tone.MustParse(up)),
			Lat: &lat, Lon: &lon, Height: &h, Updated: d, Status: listing.OnAir, Access: listing.Open, Mode: listing.FM,
		}
	}
	second := func(r listing.Record, up string) listing.Record {
		r.Source, r.UplinkTone = "Lantern list", listing.Says(tone.MustParse(up))
		return r
	}
	north, east, old, lack, far := at("North", "146.94", "146.34", "88.5", 10, 0, "2026-11-01"), at("East", "147.24", "147.84", "103.5", 0, 20, "2026-10-01"),
		at("East Two", "147.30", "147.90", "100.0", 1, 30, "2024-10-01"), at("East Three", "147.36", "147.96", "100.0", 0, 40, "2026-11-20"), at("Far", "147.06", "147.66", "100.0", 140, 0, "2026-11-24")
	ghz := at("Gigahertz", "1292.2", "1272.2", "88.5", 5, 5, "2026-11-01")
	book := find.Bind([]listing.Record{north, second(north, "88.5"), east, second(east, "77.0"), old, lack, far, ghz}, nil, nil)
	s := scene()
	slot := func(n int, receive, tone string, offset freq.Offset, mine bool) find.Slot {
		c := channel.New(freq.MustParse(receive))
		c.Side = channel.ShiftSide(offset)
		c.TransmitTone = toneOf(tone)
		return find.Slot{Channel: c, Load: map[bool]int64{true: 1, false: 2}[mine], Number: n, Mine: mine, Verdict: evidence.Agrees}
	}
	s.Slots = []find.Slot{slot(5, "146.94", "88.5", -600_000, true), slot(9, "147.24", "77.0", 600_000, true), slot(3, "147.30", "100.0", 600_000, true), slot(4, "147.36", "100.0", 600_000, false)}
	s.Slots[1].Of = east.ID() // its tone is another one, but it was made of this record
	s.Slots[1].Verdict, s.Slots[1].Why = evidence.Conflict, "another tone"

	found := book.Search("", s, 10)
	assert.Equal(t, []int{6, 3, 2, 1}, []int{found.Found, found.Held, found.Missing, found.Cannot})
	lacks := book.Search("missing 60km", s, 10)
	require.Len(t, lacks.Rows, 1)
	assert.Equal(t, "East Three", lacks.Rows[0].Best.Locality)
	require.Len(t, lacks.Rows[0].Slots, 1, "another radio has it")
	assert.Nil(t, lacks.Rows[0].Mine())

	a := book.Around("", s, 4)
	require.Len(t, a.Missing, 1, "what is far past its horizon is not offered")
	assert.Equal(t, "East Three", a.Missing[0].Best.Locality)
	var doubts []string
	for i := range a.Doubt {
		_, why := a.Doubt[i].Doubt()
		doubts = append(doubts, strconv.Itoa(a.Doubt[i].Mine().Number)+" "+why)
	}
	assert.Equal(t, []string{"9 another tone", "3 old"}, doubts, "the gravest first; the lists also differ about 9")
	assert.Equal(t, []find.BandCount{{Name: "2 m", Held: 3, Missing: 2}}, a.Bands)
	assert.Equal(t, 1, a.Other)
	assert.Equal(t, "Far", a.Confirmed[0].Best.Locality)
	require.NotNil(t, a.Thin)
	assert.Equal(t, find.Thin{Direction: "east", Held: 2, All: 3, Within: 60}, *a.Thin)
}

func toneOf(s string) tone.Tone { return tone.MustParse(s) }

// TestSettledIsNoConflict: what a person knows better is no longer in doubt, until
// a listing says something else.
func TestSettledIsNoConflict(t *testing.T) {
	a := listing.Record{Key: "a", Source: "Harbour list", Callsign: "QX1AAA", Output: freq.MustParse("146.94"), Input: freq.MustParse("146.34"), UplinkTone: listing.Says(tone.MustParse("88.5"))}
	b := a
	b.Source, b.UplinkTone = "Lantern list", listing.Says(tone.MustParse("100.0"))
	fix := func(r listing.Record) listing.Correction {
		return listing.Correction{Of: r.ID(), Field: "uplink_tone", Value: "100.0", Against: r.UplinkTone.Tone.String()}
	}
	known := listing.Corrections{a.ID(): {fix(a)}, b.ID(): {fix(b)}}
	for _, x := range []struct {
		records []listing.Record
		known   listing.Corrections
		words   int
	}{{[]listing.Record{a, b}, nil, 1}, {[]listing.Record{a, b}, known, 0}} {
		found := find.Bind(x.records, x.known, nil).Search("differ", scene(), 5)
		assert.Equal(t, x.words, found.Found)
	}
	a.UplinkTone = listing.Says(tone.MustParse("77.0")) // a newer edition
	assert.Equal(t, 1, find.Bind([]listing.Record{a, b}, known, nil).Search("differ", scene(), 5).Found)
}

// TestChartIsTrue: distances and directions from where one is are those of the
// geodesic, nothing is lost when marks are put together, and the sphere is near
// enough to the ellipsoid.
func TestChartIsTrue(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 9))
	records := draw(r, 1_500, 20)
	book := find.Bind(records, nil, nil)
	whole := find.Window{West: -20_100, South: -20_100, East: 20_100, North: 20_100}
	for _, line := range []string{"2m", ""} { // some hundreds each for itself, and all of them in cells
		c := book.Chart(line, scene(), here, whole, 20)
		placed := book.Search(line, scene(), 1)
		assert.Equal(t, placed.Found-placed.Nowhere, c.Number)
		for _, spot := range c.Spots {
			assert.Equal(t, spot.Number, spot.Missing+spot.Cannot+len(spot.Held))
			if spot.Number > 1 {
				continue
			}
			e := book.Entry(spot.ID)
			km, bearing := geo.Distance(here, geo.Point{Lat: *e.Best.Lat, Lon: *e.Best.Lon})
			require.InDelta(t, km, math.Hypot(spot.X, spot.Y), 1e-6)
			require.InDelta(t, 0, math.Mod(math.Atan2(spot.X, spot.Y)*180/math.Pi-bearing+540, 360)-180, 1e-6)
		}
	}
	near := book.Chart("", scene(), here, find.Window{West: -10, South: -10, East: 10, North: 10}, 1)
	assert.Less(t, near.Number, 200)
}

// TestCompletions: what is offered is read as what it says, and stands in the place
// of the word that was begun.
func TestCompletions(t *testing.T) {
	lat, lon, far := 41.0, -55.3, 10.0
	book := find.Bind([]listing.Record{
		{Key: "1", Source: "Harbour list", Output: freq.MustParse("146.94"), Input: freq.MustParse("146.34"), Callsign: "QX2MRN", Locality: "Marran Light", Lat: &lat, Lon: &lon},
		{Key: "2", Source: "Harbour list", Output: freq.MustParse("147.24"), Input: freq.MustParse("147.84"), Callsign: "QX9MRT", Locality: "Martin Fell", Lat: &far, Lon: &far},
	}, nil, nil)
	texts := func(line string, caret int) []string {
		var out []string
		for _, c := range book.Complete(line, caret, scene(), 8) {
			out = append(out, c.Text)
		}
		return out
	}
	assert.Equal(t, []string{"Marran Light", "Martin Fell"}, texts("mar", 3), "the nearest first")
	assert.Equal(t, []string{"Marran Light"}, texts("lig", 3), "any word of a name")
	assert.Contains(t, texts("2m mis", 6), "missing")
	assert.Contains(t, texts("har", 3), "Harbour list")
	assert.Equal(t, []string{"Marran Light", "Martin Fell"}, texts("near m", 6))
	assert.Contains(t, texts("146", 3), "146.940")
	assert.Contains(t, texts("60", 2), "60km")
	assert.Equal(t, "missing", texts("", 0)[0])
	c := book.Complete("2m mar fm", 6, scene(), 1)
	require.Len(t, c, 1)
	assert.Equal(t, []int{3, 6}, []int{c[0].From, c[0].To})
	for _, g := range book.Menu(scene()) {
		for _, x := range g.Choices {
			words := book.Search(x.Text, scene(), 1).Words
			require.Len(t, words, 1, x.Text)
			assert.Equal(t, find.Certain, words[0].State, x.Text)
		}
	}
}

// TestMarks: a place that somebody named is looked around from, before one of a
// listing; what cannot be read says what to write.
func TestMarks(t *testing.T) {
	marks, err := find.ReadMarks(" hut GN21ia;\nNorth Pier 41.1, -55.4 ;; ")
	require.NoError(t, err)
	require.Len(t, marks, 2)
	assert.Equal(t, "North Pier", marks[1].Name)
	again, err := find.ReadMarks(find.WriteMarks(marks))
	require.NoError(t, err)
	assert.InDelta(t, 41.1, again[1].Lat, 1e-5)
	for _, bad := range []string{"hut", "GN21ia", "hut nowhere", "hut GN21ia; HUT GN21ib", strings.Repeat("a", 41) + " GN21ia"} {
		_, err := find.ReadMarks(bad)
		require.Error(t, err, bad)
	}
	s := scene()
	s.Marks = marks
	book := find.Bind(nil, nil, nil)
	q := find.Read("near north pier 20km", book, s)
	assert.Equal(t, "North Pier", q.Named)
	require.Len(t, q.Words, 2)
	assert.Equal(t, "North Pier", book.Complete("near no", 7, s, 3)[0].Text)
}
