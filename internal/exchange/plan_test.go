package exchange

import (
	"encoding/json"
	"encoding/xml"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"mnemos/core/channel"
	"mnemos/core/document"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/radio"
	"mnemos/core/table"
	"mnemos/core/tone"
)

// season is a plan with a channel of every kind, and of what spreadsheets spoil.
func season(n int) document.Plan {
	lat, lon := 41.02, -55.31
	p := document.Plan{Name: "Walk: night/day", Season: "+0.6; =1+1", Region: "us", Lat: &lat, Lon: &lon, Height: 1.5, Radius: 150, TonePolicy: "encode first", Channels: []document.Channel{}, Units: []document.Unit{{Profile: "trail", Entries: []document.Entry{}}}, Sets: []document.Set{{Kind: "scan", Name: "1E5", Members: []document.Member{}}}}
	sides := []channel.TransmitSide{{Kind: channel.Simplex}, channel.ShiftSide(-600_000), channel.ShiftSide(8_330), channel.SplitSide(147_500_000), {Kind: channel.Blocked}}
	tones := []string{"none", "88.5", "D023N", "D754I", "100.0"}
	names := []string{"Quay", "1E5", "023", "+0.6", "=cmd", "3-4", "Ünder; -x", `a "b", c`, "TRUE", ""}
	for i := range n {
		c := channel.New(freq.Hz(145_000_000 + 12_500*int64(i%80)))
		c.Name, c.Side = names[i%len(names)], sides[i%len(sides)]
		c.TransmitTone, c.ReceiveTone = tone.MustParse(tones[i%len(tones)]), tone.MustParse(tones[i/5%len(tones)])
		c.Width = []channel.Width{channel.Wide, channel.Narrow}[i/3%2]
		c.Power = []channel.Power{channel.High, channel.Mid, channel.Low}[i%3]
		d := document.Channel{Number: new(i + 1), Channel: c}
		if i%2 == 0 {
			d.Repeater = listing.ID{Source: "Harbour list", Key: fmt.Sprint("QX", i)}
		}
		p.Channels = append(p.Channels, d)
		p.Units[0].Entries = append(p.Units[0].Entries, document.Entry{Slot: i + 1, Channel: i + 1, Short: fmt.Sprint("C", i), Pinned: i%7 == 0, Scan: []entry.Scan{entry.ScanYes, entry.ScanSkip}[i%2]})
		if i%4 == 0 {
			p.Sets[0].Members = append(p.Sets[0].Members, document.Member{Channel: i + 1, Priority: i%8 == 0})
		}
	}
	return p
}

func places(id listing.ID) (geo.Point, bool) {
	return geo.Point{Lat: 41, Lon: -55}, id.Key != "QX0"
}

// TestPlanFiles: JSON, CSV and XLSX bring a plan back whole, also when a
// spreadsheet has saved the CSV with other signs between its cells.
func TestPlanFiles(t *testing.T) {
	want := season(60)
	for _, format := range []string{"json", "csv", "xlsx"} {
		f, err := Plan(want, format, places)
		require.NoError(t, err)
		assert.Empty(t, f.Lost, format)
		assert.Equal(t, "Walk- night-day."+format, f.Name)
		path := filepath.Join(t.TempDir(), f.Name)
		require.NoError(t, os.WriteFile(path, f.Data, 0o600))
		got, _, ok, err := ReadPlan(path)
		require.NoError(t, err, format)
		require.True(t, ok)
		assert.Equal(t, want, got, format)
	}
	f, err := Plan(want, "csv", places)
	require.NoError(t, err)
	for _, sep := range []string{";", "\t"} {
		rows, err := divided([]byte(strings.TrimPrefix(string(f.Data), "\ufeff")))
		require.NoError(t, err)
		var out strings.Builder
		for _, row := range rows {
			for i, c := range row {
				row[i] = `"` + strings.ReplaceAll(c, `"`, `""`) + `"`
			}
			out.WriteString(strings.Join(row, sep) + "\r\n")
		}
		path := filepath.Join(t.TempDir(), "again.csv")
		require.NoError(t, os.WriteFile(path, []byte(out.String()), 0o600))
		got, _, ok, err := ReadPlan(path)
		require.NoError(t, err, sep)
		require.True(t, ok)
		assert.Equal(t, want, got, sep)
	}
	_, err = Plan(want, "doc", places)
	assert.ErrorIs(t, err, ErrNoFormat)
}

// TestMaps: what has no published place is not in them and is named, and nothing else
// of the channels is lost without a word.
func TestMaps(t *testing.T) {
	p := season(6)
	f, err := Plan(p, "geojson", places)
	require.NoError(t, err)
	var g struct {
		Features []struct {
			Geometry   struct{ Coordinates [2]float64 }
			Properties document.Channel
		}
	}
	require.NoError(t, json.Unmarshal(f.Data, &g))
	require.Len(t, g.Features, 2, "2 and 4 of 0 2 4")
	assert.Equal(t, [2]float64{-55, 41}, g.Features[0].Geometry.Coordinates, "longitude first (RFC 7946)")
	assert.Equal(t, p.Channels[2], g.Features[0].Properties)
	require.Len(t, f.Lost, 1+4)
	assert.Equal(t, "1 Quay: no place of it is published", f.Lost[1].String())
	f, err = Plan(p, "gpx", places)
	require.NoError(t, err)
	var x struct {
		XMLName xml.Name
		Points  []struct {
			Lat  float64 `xml:"lat,attr"`
			Name string  `xml:"name"`
			Desc string  `xml:"desc"`
		} `xml:"wpt"`
	}
	require.NoError(t, xml.Unmarshal(f.Data, &x))
	assert.Equal(t, "http://www.topografix.com/GPX/1/1", x.XMLName.Space)
	require.Len(t, x.Points, 2)
	assert.Equal(t, "5 =cmd", x.Points[1].Name)
	assert.Contains(t, x.Points[1].Desc, "receive only")
}

// TestNoTransmitter: in whatever format, a channel that may only be received has no
// frequency to transmit on. Its own frequency stands there once, to receive, and
// where there is a word for the transmitter that word says none.
func TestNoTransmitter(t *testing.T) {
	radio := trail(t)
	folder := t.TempDir()
	rapid.Check(t, func(r *rapid.T) {
		c := channel.New(freq.Hz(rapid.Int64Range(136_000, 174_000).Draw(r, "kHz") * 1000))
		c.Name, c.Side = rapid.StringMatching(`[A-Za-z]{0,8}`).Draw(r, "name"), channel.TransmitSide{Kind: channel.Blocked}
		tones := rapid.SampledFrom([]string{"none", "88.5", "D023N", "1750"})
		c.TransmitTone = tone.MustParse(tones.Draw(r, "tone"))
		p := document.Plan{Name: "p", Channels: []document.Channel{{Number: new(1), Channel: c, Repeater: listing.ID{Source: "x", Key: "y"}}}, Units: []document.Unit{}, Sets: []document.Set{}}
		l := document.Held("p", "Trail", radio, []table.Line{{Slot: 1, Short: "WX", Scan: entry.ScanYes, Channel: c}})
		for _, format := range Formats {
			for _, made := range []func() (File, error){
				func() (File, error) { return Plan(p, format, places) },
				func() (File, error) { return Load(l, format, p, places) },
			} {
				f, err := made()
				require.NoError(r, err)
				text := string(f.Data)
				if format == "xlsx" {
					path := filepath.Join(folder, "x.xlsx")
					require.NoError(r, os.WriteFile(path, f.Data, 0o600))
					rows, err := whole(path)
					require.NoError(r, err)
					text = fmt.Sprint(rows)
				}
				n := strings.Count(text, c.Receive.MHz()) + strings.Count(text, fmt.Sprint(int64(c.Receive)))
				if c.Name == "" && format == "gpx" {
					n-- // it is called by its frequency
				}
				require.LessOrEqual(r, n, 1, "%s: %s", format, text)
				require.Regexp(r, `none|null|receive only`, text, format)
			}
		}
	})
}

// TestLoadFiles: what a radio cannot hold is told before the file is made, and the
// image is refused where somebody changed it.
func TestLoadFiles(t *testing.T) {
	split := channel.New(147_390_000)
	split.Name, split.Side = "Tern", channel.ShiftSide(6_000_000)
	away := channel.New(1_290_000_000)
	l := document.Held("Walk", "Trail", trail(t), []table.Line{{Slot: 12, Short: "TERN", Scan: entry.ScanYes, Channel: split}, {Slot: 13, Scan: entry.ScanYes, Channel: away}})
	require.Len(t, l.Rows, 1, "1290 MHz cannot be in it")
	assert.Equal(t, channel.Blocked, l.Rows[0].Channel.Side.Kind)
	require.Len(t, l.Lost, 2)
	assert.Contains(t, l.Lost[0].String(), "slot 12, Tern: transmit 153.390 MHz becomes receive only")
	f, err := Load(l, "json", document.Plan{}, places)
	require.NoError(t, err)
	i, err := document.ReadImage(f.Data)
	require.NoError(t, err)
	assert.Nil(t, i.Slots[0].Transmit)
	_, err = document.ReadImage([]byte(strings.Replace(string(f.Data), "147390000", "147390001", 1)))
	require.ErrorContains(t, err, "changed after it was made")
	f, err = Load(l, "csv", document.Plan{}, places)
	require.NoError(t, err)
	rows, err := divided([]byte(strings.TrimPrefix(string(f.Data), "\ufeff")))
	require.NoError(t, err)
	got, faults := table.Read(rows[0], rows[1])
	require.Empty(t, faults)
	assert.Equal(t, l.Rows[0], got)
}

func BenchmarkPlanFiles(b *testing.B) {
	p := season(1000)
	for _, format := range Formats {
		b.Run(format, func(b *testing.B) {
			for b.Loop() {
				_, err := Plan(p, format, places)
				require.NoError(b, err)
			}
		})
	}
}

func trail(t *testing.T) *radio.Profile {
	t.Helper()
	p, err := radio.Load("trail")
	require.NoError(t, err)
	return p
}
