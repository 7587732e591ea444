package exchange

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"os"
	"strconv"
	"strings"

	"github.com/xuri/excelize/v2"

	"mnemos/core/channel"
	"mnemos/core/document"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/table"
)

// Places says where a published repeater stands; ok is false where nothing is
// published about that.
type Places func(listing.ID) (p geo.Point, ok bool)

// File is a plan or what a radio holds, in one of the formats.
type File struct {
	Name string // without a folder
	Type string // media type
	Data []byte
	Lost []document.Loss
}

// Formats are those that a plan and a load can be written in.
var Formats = []string{"json", "csv", "xlsx", "geojson", "gpx"}

var types = map[string]string{
	"json": "application/json", "csv": "text/csv; charset=utf-8", "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
	"geojson": "application/geo+json", "gpx": "application/gpx+xml",
}

// ErrNoFormat is returned for a format that is none of them.
var ErrNoFormat = errors.New("choose one of json, csv, xlsx, geojson, gpx")

// Plan writes a plan. JSON, CSV and XLSX lose nothing.
func Plan(p document.Plan, format string, places Places) (File, error) {
	f := File{Name: FileName(p.Name, format), Type: types[format], Lost: []document.Loss{}}
	var err error
	switch format {
	case "json":
		f.Data, err = document.JSON(p)
	case "csv":
		f.Data, err = csvOf(document.Rows(p))
	case "xlsx":
		f.Data, err = xlsxOf(document.Rows(p))
	case "geojson", "gpx":
		var marks []mark
		marks, f.Lost = marksOf(p, places)
		if format == "gpx" {
			f.Data, err = gpx(p.Name, marks)
		} else {
			f.Data, err = geojson(marks)
		}
	default:
		return f, ErrNoFormat
	}
	return f, err
}

// Load writes what a radio will hold.
func Load(l document.Load, format string, of document.Plan, places Places) (File, error) {
	f := File{Name: FileName(l.Plan+" "+l.Radio, format), Type: types[format], Lost: l.Lost}
	heading, rows := []string{}, [][]string{}
	for _, c := range table.Columns {
		heading = append(heading, c.Heading)
	}
	rows = append(rows, heading)
	for _, line := range l.Rows {
		row := []string{}
		for _, c := range table.Columns {
			row = append(row, c.Write(line))
		}
		rows = append(rows, row)
	}
	var err error
	switch format {
	case "json":
		var image document.Image
		if image, err = document.NewImage(l); err == nil {
			f.Data, err = json.Marshal(image)
		}
		f.Lost = append([]document.Loss{{Why: "a memory image has short names only"}}, f.Lost...)
	case "csv":
		f.Data, err = csvOf(rows)
	case "xlsx":
		f.Data, err = xlsxOf(rows)
	case "geojson", "gpx":
		var x File
		x, err = Plan(of, format, places)
		f.Data, f.Lost = x.Data, append(x.Lost, f.Lost...)
	default:
		return f, ErrNoFormat
	}
	return f, err
}

// FileName makes a file name of a title.
func FileName(name, format string) string {
	clean := strings.Map(func(r rune) rune {
		if strings.ContainsRune(`/\:*?"<>|`, r) || r < ' ' {
			return '-'
		}
		return r
	}, strings.TrimSpace(name))
	if clean = strings.Trim(clean, ". "); clean == "" {
		clean = "plan"
	}
	return clean + "." + format
}

// csvOf writes rows as UTF-8 with a mark, without which spreadsheets read letters
// beyond ASCII wrongly.
func csvOf(rows [][]string) ([]byte, error) {
	var out bytes.Buffer
	out.WriteString("\ufeff")
	w := csv.NewWriter(&out)
	w.UseCRLF = true // RFC 4180
	err := w.WriteAll(rows)
	return out.Bytes(), err
}

// xlsxOf writes every cell as text: no spreadsheet makes a number, a date or a formula
// of it.
func xlsxOf(rows [][]string) (data []byte, err error) {
	f := excelize.NewFile()
	defer func() { err = errors.Join(err, f.Close()) }()
	const sheet = "plan"
	if err := f.SetSheetName("Sheet1", sheet); err != nil {
		return nil, err
	}
	w, err := f.NewStreamWriter(sheet)
	if err != nil {
		return nil, err
	}
	style, err := f.NewStyle(&excelize.Style{NumFmt: 49}) // 49 is text
	if err != nil {
		return nil, err
	}
	for i, row := range rows {
		cells := make([]any, len(row))
		for j, c := range row {
			cells[j] = excelize.Cell{StyleID: style, Value: c}
		}
		if err := w.SetRow("A"+strconv.Itoa(i+1), cells); err != nil {
			return nil, err
		}
	}
	if err := w.Flush(); err != nil {
		return nil, err
	}
	b, err := f.WriteToBuffer()
	if err != nil {
		return nil, err
	}
	return b.Bytes(), nil
}

// mark is a channel at the place of its repeater.
type mark struct {
	document.Channel
	at geo.Point
}

// marksOf are the channels of repeaters whose place is published, and what a map
// cannot say.
func marksOf(p document.Plan, places Places) (out []mark, lost []document.Loss) {
	lost = []document.Loss{{Why: "radios, slots, short names, scanning and sets are not in it"}}
	for _, c := range p.Channels {
		at, ok := geo.Point{}, false
		if c.Repeater != (listing.ID{}) {
			at, ok = places(c.Repeater)
		}
		if !ok {
			lost = append(lost, document.Loss{What: named(c), Why: "no place of it is published"})
			continue
		}
		out = append(out, mark{c, at})
	}
	return out, lost
}

func named(c document.Channel) string {
	name := c.Channel.Name
	if name == "" {
		name = c.Channel.Receive.String()
	}
	if c.Number != nil {
		return fmt.Sprintf("%d %s", *c.Number, name)
	}
	return name
}

func geojson(marks []mark) ([]byte, error) {
	type geometry struct {
		Type        string     `json:"type"`
		Coordinates [2]float64 `json:"coordinates"`
	}
	type feature struct {
		Type       string           `json:"type"`
		Geometry   geometry         `json:"geometry"`
		Properties document.Channel `json:"properties"`
	}
	out := struct {
		Type     string    `json:"type"`
		Features []feature `json:"features"`
	}{"FeatureCollection", []feature{}}
	for _, m := range marks {
		out.Features = append(out.Features, feature{"Feature", geometry{"Point", [2]float64{m.at.Lon, m.at.Lat}}, m.Channel})
	}
	return json.MarshalIndent(out, "", " ")
}

// says is a channel in words, for a device that shows no more.
func says(c channel.Channel) string {
	out := "receive " + c.Receive.MHz() + " MHz"
	tx, sends := c.Transmit()
	if !sends {
		return out + ", receive only"
	}
	out += ", transmit " + tx.MHz() + " MHz"
	if !c.TransmitTone.IsOff() {
		out += ", send " + c.TransmitTone.Words()
	}
	return out
}

func gpx(name string, marks []mark) ([]byte, error) {
	type point struct {
		Lat  float64 `xml:"lat,attr"`
		Lon  float64 `xml:"lon,attr"`
		Name string  `xml:"name"`
		Desc string  `xml:"desc"`
	}
	doc := struct {
		XMLName xml.Name `xml:"http://www.topografix.com/GPX/1/1 gpx"`
		Version string   `xml:"version,attr"`
		Creator string   `xml:"creator,attr"`
		Title   string   `xml:"metadata>name"`
		Points  []point  `xml:"wpt"`
	}{Version: "1.1", Creator: "Mnemos", Title: name}
	for _, m := range marks {
		doc.Points = append(doc.Points, point{m.at.Lat, m.at.Lon, named(m.Channel), says(m.Channel.Channel)})
	}
	b, err := xml.MarshalIndent(doc, "", " ")
	return append([]byte(xml.Header), b...), err
}

// ReadPlan reads a plan from a file of any of the formats that lose nothing. ok is
// false for a file that is no plan but a table, of which the rows come.
func ReadPlan(path string) (p document.Plan, rows [][]string, ok bool, err error) {
	text, err := os.ReadFile(path)
	if err != nil {
		return p, nil, false, err
	}
	text = bytes.TrimPrefix(text, []byte("\ufeff"))
	switch {
	case document.Is(text):
		p, err = document.Read(text)
		return p, nil, true, err
	case bytes.HasPrefix(bytes.TrimPrefix(text, []byte(`"`)), []byte(document.Sign)):
		if rows, err = divided(text); err != nil {
			return p, nil, true, err
		}
	default:
		if rows, err = whole(path); err != nil {
			return p, nil, false, err
		}
	}
	if document.IsRows(rows) {
		p, err = document.FromRows(rows)
		return p, nil, true, err
	}
	return p, rows, false, nil
}

// divided reads our own CSV: whatever a spreadsheet divides cells by when it saves
// them stands behind the first.
func divided(text []byte) ([][]string, error) {
	r := csv.NewReader(bytes.NewReader(text))
	r.FieldsPerRecord, r.LazyQuotes = -1, true
	after := bytes.TrimPrefix(bytes.TrimPrefix(bytes.TrimPrefix(text, []byte(`"`)), []byte(document.Sign)), []byte(`"`))
	if len(after) > 0 && strings.ContainsRune(";\t|", rune(after[0])) {
		r.Comma = rune(after[0])
	}
	return r.ReadAll()
}

// whole reads every row of a table.
func whole(path string) (rows [][]string, err error) {
	t, _, err := Open(path)
	if err != nil {
		return nil, err
	}
	defer func() { err = errors.Join(err, t.Close()) }()
	for {
		_, cells, err := t.Next()
		if errors.Is(err, io.EOF) {
			return rows, nil
		}
		if err != nil {
			return nil, err
		}
		rows = append(rows, cells)
	}
}
