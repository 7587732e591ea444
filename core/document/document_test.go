package document

import (
	"encoding/csv"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/core/tone"
)

// text draws what people type, and what spreadsheets spoil.
func text(r *rapid.T, label string) string {
	return strings.TrimSpace(rapid.OneOf(rapid.StringMatching(`[A-Za-zäж0-9 "'=+\-@/.,;:#()]{0,14}`), rapid.SampledFrom([]string{"1E5", "023", "+0.6", "1-2", "Mar 3", "=1+1", "'", `"a"`, "TRUE", "x (pinned)", "# name"})).Draw(r, label))
}

func channels(r *rapid.T) Channel {
	c := channel.New(freq.Hz(rapid.Int64Range(28_000_000, 1_300_000_000).Draw(r, "receive")))
	c.Name = text(r, "name")
	switch rapid.IntRange(0, 3).Draw(r, "side") {
	case 0:
		c.Side = channel.ShiftSide(freq.Offset(rapid.Int64Range(-9_999_999, 9_999_999).Draw(r, "offset")))
	case 1:
		c.Side = channel.SplitSide(c.Receive + freq.Hz(rapid.Int64Range(1, 9_000_000).Draw(r, "split")))
	case 2:
		c.Side = channel.TransmitSide{Kind: channel.Blocked}
	}
	tones := rapid.SampledFrom([]string{"none", "67.0", "100.0", "254.1", "D023N", "D754I"})
	c.TransmitTone, c.ReceiveTone = tone.MustParse(rapid.OneOf(tones, rapid.Just("1750")).Draw(r, "out")), tone.MustParse(tones.Draw(r, "in"))
	c.Width = rapid.SampledFrom([]channel.Width{channel.Wide, channel.Narrow}).Draw(r, "width")
	c.Power = rapid.SampledFrom([]channel.Power{channel.High, channel.Mid, channel.Low}).Draw(r, "power")
	out := Channel{Channel: c}
	if rapid.Bool().Draw(r, "listed") {
		out.Repeater = listing.ID{Source: "list" + text(r, "source"), Key: text(r, "key")}
	}
	return out
}

func plans(r *rapid.T) Plan {
	lat, lon := rapid.Float64Range(-90, 90).Draw(r, "lat"), rapid.Float64Range(-180, 180).Draw(r, "lon")
	p := Plan{Name: text(r, "plan"), Season: text(r, "season"), Region: "us", Height: rapid.Float64Range(0, 100).Draw(r, "height"), Radius: 150, TonePolicy: "encode first", Channels: []Channel{}, Units: []Unit{}, Sets: []Set{}}
	if rapid.Bool().Draw(r, "placed") {
		p.Lat, p.Lon = &lat, &lon
	}
	n := rapid.IntRange(0, 6).Draw(r, "channels")
	numbers := rapid.Permutation([]int{1, 2, 3, 4, 5, 6}).Draw(r, "numbers")
	for i := range n {
		c := channels(r)
		if rapid.Bool().Draw(r, "numbered") {
			c.Number = &numbers[i]
		}
		p.Channels = append(p.Channels, c)
	}
	for i := range rapid.IntRange(0, 3).Draw(r, "radios") {
		u := Unit{Name: text(r, "unit"), Profile: fmt.Sprint("trail", i), Entries: []Entry{}}
		if rapid.Bool().Draw(r, "own") {
			u.YAML = "name: Mine\nslots: {first: 1, last: 9}\n"
		}
		slot := 0
		for c := range n {
			if rapid.Bool().Draw(r, "held") {
				slot += rapid.IntRange(1, 3).Draw(r, "slot")
				u.Entries = append(u.Entries, Entry{slot, c + 1, rapid.StringMatching(`[A-Z0-9/+\-]{0,6}`).Draw(r, "short"), rapid.Bool().Draw(r, "pinned"), rapid.SampledFrom([]entry.Scan{entry.ScanYes, entry.ScanSkip, entry.ScanPriority}).Draw(r, "scan")})
			}
		}
		p.Units = append(p.Units, u)
	}
	for range rapid.IntRange(0, 2).Draw(r, "sets") {
		s := Set{Kind: "scan", Name: text(r, "set"), Members: []Member{}}
		order := make([]int, n)
		for i := range order {
			order[i] = i + 1
		}
		if n > 0 {
			for _, c := range rapid.Permutation(order).Draw(r, "order")[:rapid.IntRange(0, n).Draw(r, "members")] {
				s.Members = append(s.Members, Member{c, rapid.Bool().Draw(r, "priority")})
			}
		}
		p.Sets = append(p.Sets, s)
	}
	return p
}

// same makes nothing and an empty list alike.
func same(p Plan) Plan {
	p.Channels, p.Units, p.Sets = orNone(p.Channels), orNone(p.Units), orNone(p.Sets)
	for i := range p.Units {
		p.Units[i].Entries = orNone(p.Units[i].Entries)
	}
	for i := range p.Sets {
		p.Sets[i].Members = orNone(p.Sets[i].Members)
	}
	return p
}

// TestThereAndBack: whatever a plan holds, JSON and CSV bring it back whole.
func TestThereAndBack(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		want := plans(r)
		b, err := JSON(want)
		require.NoError(r, err)
		require.True(r, Is(b))
		got, err := Read(b)
		require.NoError(r, err)
		require.Equal(r, same(want), same(got))

		var out strings.Builder
		w := csv.NewWriter(&out)
		require.NoError(r, w.WriteAll(Rows(want)))
		in := csv.NewReader(strings.NewReader(out.String()))
		in.FieldsPerRecord = -1
		rows, err := in.ReadAll()
		require.NoError(r, err)
		for _, row := range rows {
			for i, c := range row {
				if i != 3 { // a profile is text with lines, and no formula
					require.NotRegexp(r, `^[=+@\-]`, c)
				}
			}
		}
		got, err = FromRows(rows)
		require.NoError(r, err)
		require.Equal(r, same(want), same(got))
	})
}

// TestRefused: a file that does not hold together says where.
func TestRefused(t *testing.T) {
	ok := `{"format":"mnemos plan","version":1,"name":"x","season":"","region":"us","lat":null,"lon":null,"height_m":1.5,"radius_km":150,"tone_policy":"encode first","marks":"","channels":[%s],"radios":[%s],"sets":[%s]}`
	c := `{"number":%s,"name":"a","receive_hz":146520000,"transmit":{"kind":"simplex"},"transmit_tone":null,"receive_tone":null,"bandwidth":"wide","power":"high"}`
	one := fmt.Sprintf(c, "1")
	_, err := Read([]byte(fmt.Sprintf(ok, one, `{"name":"T","profile":"trail","slots":[{"slot":1,"channel":1,"short_name":"A","scan":"yes"}]}`, `{"kind":"bank","name":"b","members":[{"channel":1}]}`)))
	require.NoError(t, err)
	for text, says := range map[string]string{
		"": "not a plan", "[]": "not a plan", `{"format":"other","version":1}`: `"other"`, `{"format":"mnemos plan","version":9}`: "newer Mnemos",
		`{"format":"mnemos plan","version":-1}`: "the first one was 1", `{"format":"mnemos plan","version":null}`: "the first one was 1",
		`{"format":"mnemos plan","version":1,"colour":1}`:                                                                                                                "colour",
		fmt.Sprintf(ok, one+","+one, "", ""):                                                                                                                             "another one has the number 1",
		fmt.Sprintf(ok, strings.Replace(one, "146520000", "-1", 1), "", ""):                                                                                              "outside 0 to",
		fmt.Sprintf(ok, one, `{"name":"T","profile":"t","slots":[{"slot":1,"channel":2,"short_name":"","scan":"yes"}]}`, ""):                                             "no channel 2",
		fmt.Sprintf(ok, one, `{"name":"T","profile":"t","slots":[{"slot":1,"channel":1,"short_name":"","scan":"maybe"}]}`, ""):                                           "maybe",
		fmt.Sprintf(ok, one+","+fmt.Sprintf(c, "2"), `{"name":"T","profile":"t","slots":[{"slot":1,"channel":1,"scan":"yes"},{"slot":1,"channel":2,"scan":"yes"}]}`, ""): "two channels are in slot 1",
		fmt.Sprintf(ok, one, `{"name":"T","profile":"t","slots":[{"slot":1,"channel":1,"scan":"yes"},{"slot":2,"channel":1,"scan":"yes"}]}`, ""):                         "in two slots",
		fmt.Sprintf(ok, one, "", `{"kind":"bank","name":"b","members":[{"channel":1},{"channel":1}]}`):                                                                   "twice",
	} {
		_, err := Read([]byte(text))
		require.ErrorContains(t, err, says, text)
	}
	good := Rows(Plan{Name: "x", Units: []Unit{{Profile: "trail"}}, Channels: []Channel{{Channel: channel.New(146_520_000)}}})
	spoil := func(f func([][]string)) error {
		rows := make([][]string, len(good))
		for i := range good {
			rows[i] = append([]string{}, good[i]...)
		}
		f(rows)
		_, err := FromRows(rows)
		return err
	}
	require.NoError(t, spoil(func([][]string) {}))
	last := len(good) - 1
	for says, f := range map[string]func([][]string){
		"not a plan":        func(r [][]string) { r[0][0] = "name" },
		"newer Mnemos":      func(r [][]string) { r[0][1] = "7" },
		"not a word about":  func(r [][]string) { r[1][0] = "# colour" },
		`row 5: "x" is not`: func(r [][]string) { r[4][1] = "x" },
		"says which radio":  func(r [][]string) { r[10][0] = "# season" },
		"receive MHz":       func(r [][]string) { r[last][2] = "abc" },
		`number: "x"`:       func(r [][]string) { r[last][0] = "x" },
		`"y" is not a slot`: func(r [][]string) { r[last][len(r[last])-3] = "y" },
		"no slot before it": func(r [][]string) { r[last][len(r[last])-1] = "skip" },
		"does not lead to":  func(r [][]string) { r[last][3] = "none" },
	} {
		require.ErrorContains(t, spoil(f), says)
	}
	_, err = FromRows(good[:last-1])
	assert.ErrorContains(t, err, "the table of the channels is missing")
}
