package intake_test

import (
	"fmt"
	"math/rand/v2"
	"strings"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/intake"
	"mnemos/core/tone"
)

// A club draws tables as clubs publish them. It has its own words, written
// apart from those of the guesser, and knows what every column holds.

// tongue is how a language heads its columns. A pair is one frequency or tone
// word on either side: sent and heard by whoever speaks, or the repeater's
// output and input.
type tongue struct {
	output, input           []string // frequencies, whoever speaks
	sent, heard             []string // TX, RX
	frequency, tone         []string
	sentTone, heardTone     []string // whole headings for tones on a side
	access, down            []string // whole headings for tones that need no viewpoint
	shift                   []string
	callsign, place, remark []string
	comma                   bool
}

var tongues = map[string]tongue{
	"en": {
		output: []string{"Output", "Output Freq", "Output Frequency", "Downlink", "Out"}, input: []string{"Input", "Input Freq", "Input Frequency", "Uplink", "In"},
		sent: []string{"TX", "Tx", "Transmit", "TX Freq", "Transmit Frequency", "TX MHz"}, heard: []string{"RX", "Rx", "Receive", "RX Freq", "Receive Frequency", "RX MHz"},
		frequency: []string{"Freq", "Frequency", "Frequency (MHz)"}, tone: []string{"Tone", "PL", "CTCSS", "CTCSS Hz", "PL Tone"},
		sentTone: []string{"TX Tone", "PL (TX)", "CTCSS TX", "Tone TX", "tx_ctcss", "Transmit Tone"}, heardTone: []string{"RX Tone", "PL (RX)", "CTCSS RX", "Tone RX", "rx_ctcss", "Receive Tone"},
		access: []string{"Uplink Tone", "Input Tone", "Access Tone"}, down: []string{"Downlink Tone", "Output Tone"},
		shift: []string{"Offset", "Shift", "Offset MHz"}, callsign: []string{"Callsign", "Call", "Call Sign"}, place: []string{"Location", "City", "Site"}, remark: []string{"Notes", "Remarks", "Comment"},
	},
	"de": {
		output: []string{"Ausgabe", "Ausgabefrequenz", "Ausgang"}, input: []string{"Eingabe", "Eingabefrequenz", "Eingang"},
		sent: []string{"TX", "Sendefrequenz", "Senden"}, heard: []string{"RX", "Empfangsfrequenz", "Empfang"},
		frequency: []string{"Frequenz", "QRG", "Frequenz [MHz]"}, tone: []string{"Subton", "CTCSS", "Ton"},
		sentTone: []string{"CTCSS TX", "Subton (TX)", "Ton Senden"}, heardTone: []string{"CTCSS RX", "Subton (RX)", "Ton Empfang"},
		access: []string{"CTCSS Eingabe", "Subton Eingang"}, down: []string{"CTCSS Ausgabe", "Subton Ausgang"},
		shift: []string{"Ablage", "Ablage (MHz)", "Shift"}, callsign: []string{"Rufzeichen"}, place: []string{"Standort", "Ort"}, remark: []string{"Bemerkung", "Bemerkungen"}, comma: true,
	},
	"fr": {
		output: []string{"Sortie", "Fréquence de sortie"}, input: []string{"Entrée", "Fréquence d'entrée"},
		sent: []string{"TX", "Émission", "Fréquence TX"}, heard: []string{"RX", "Réception", "Fréquence RX"},
		frequency: []string{"Fréquence", "Fréquence (MHz)"}, tone: []string{"Tonalité", "CTCSS"},
		sentTone: []string{"CTCSS TX", "Tonalité émission", "CTCSS (TX)"}, heardTone: []string{"CTCSS RX", "Tonalité réception", "CTCSS (RX)"},
		access: []string{"CTCSS entrée", "Tonalité d'accès"}, down: []string{"CTCSS sortie", "Tonalité de sortie"},
		shift: []string{"Décalage", "Shift"}, callsign: []string{"Indicatif"}, place: []string{"Localité", "Ville", "Lieu"}, remark: []string{"Remarques"}, comma: true,
	},
	"es": {
		output: []string{"Salida", "Frecuencia de salida"}, input: []string{"Entrada", "Frecuencia de entrada"},
		sent: []string{"TX", "Frecuencia TX", "Emisión"}, heard: []string{"RX", "Frecuencia RX", "Recepción"},
		frequency: []string{"Frecuencia"}, tone: []string{"Subtono", "Tono", "CTCSS"},
		sentTone: []string{"Subtono TX", "Tono (TX)", "CTCSS TX"}, heardTone: []string{"Subtono RX", "Tono (RX)", "CTCSS RX"},
		access: []string{"Tono de entrada", "Tono de acceso"}, down: []string{"Tono de salida"},
		shift: []string{"Desplazamiento", "Shift"}, callsign: []string{"Indicativo"}, place: []string{"Localidad", "Lugar"}, remark: []string{"Observaciones"}, comma: true,
	},
	"it": {
		output: []string{"Uscita", "Frequenza di uscita"}, input: []string{"Ingresso", "Frequenza di ingresso"},
		sent: []string{"TX", "Frequenza TX", "Trasmissione"}, heard: []string{"RX", "Frequenza RX", "Ricezione"},
		frequency: []string{"Frequenza"}, tone: []string{"Tono", "Subtono", "CTCSS"},
		sentTone: []string{"Tono TX", "CTCSS (TX)", "Tono trasmissione"}, heardTone: []string{"Tono RX", "CTCSS (RX)", "Tono ricezione"},
		access: []string{"Tono di ingresso", "Tono accesso"}, down: []string{"Tono di uscita"},
		shift: []string{"Shift", "Scostamento"}, callsign: []string{"Nominativo"}, place: []string{"Località", "Luogo"}, remark: []string{"Note"}, comma: true,
	},
	"nl": {
		output: []string{"Uitgang", "Uitgang frequentie"}, input: []string{"Ingang", "Ingang frequentie"},
		sent: []string{"TX", "Zendfrequentie", "Zenden"}, heard: []string{"RX", "Ontvangstfrequentie", "Ontvangen"},
		frequency: []string{"Frequentie"}, tone: []string{"Toon", "CTCSS"},
		sentTone: []string{"CTCSS TX", "Toon zenden", "Toon (TX)"}, heardTone: []string{"CTCSS RX", "Toon ontvangen", "Toon (RX)"},
		access: []string{"CTCSS ingang"}, down: []string{"CTCSS uitgang"},
		shift: []string{"Shift", "Verschuiving"}, callsign: []string{"Roepletters"}, place: []string{"Plaats", "Locatie"}, remark: []string{"Opmerkingen"}, comma: true,
	},
	"pt": {
		output: []string{"Saída", "Frequência de saída"}, input: []string{"Entrada", "Frequência de entrada"},
		sent: []string{"TX", "Emissão", "Frequência TX"}, heard: []string{"RX", "Recepção", "Frequência RX"},
		frequency: []string{"Frequência"}, tone: []string{"Subtom", "Tom", "CTCSS"},
		sentTone: []string{"Subtom TX", "CTCSS (TX)"}, heardTone: []string{"Subtom RX", "CTCSS (RX)"},
		access: []string{"Tom de entrada", "Tom de acesso"}, down: []string{"Tom de saída"},
		shift: []string{"Desvio", "Shift"}, callsign: []string{"Indicativo"}, place: []string{"Localidade", "Cidade"}, remark: []string{"Observações"}, comma: true,
	},
}

// station is a repeater, or a simplex channel.
type station struct {
	output, input freq.Hz
	up, down      string // "" is not stated
	call, place   string
}

// drawn is a table, and what is true of it.
type drawn struct {
	rows     [][]string // title rows, heading, data
	roles    []intake.Role
	view     intake.Viewpoint // "" where no heading depends on one
	language string
	region   *band.Plan
}

type club struct {
	r *rand.Rand
}

func pick[T any](r *rand.Rand, of []T) T { return of[r.IntN(len(of))] }

func (c club) chance(percent int) bool { return c.r.IntN(100) < percent }

func (c club) stations(p *band.Plan) []station {
	var out []station
	for range 3 + c.r.IntN(40) {
		s := station{call: fmt.Sprintf("QX%d%c%c%c", c.r.IntN(10), 'A'+c.r.IntN(26), 'A'+c.r.IntN(26), 'A'+c.r.IntN(26)), place: pick(c.r, places)}
		b := pick(c.r, p.Bands)
		if len(b.Shifts) == 0 {
			continue
		}
		rule := pick(c.r, b.Shifts)
		s.output = rule.Lower + freq.Hz(c.r.Int64N(int64(rule.Upper-rule.Lower)/12_500+1))*12_500
		s.input = s.output.Add(rule.Offset)
		switch {
		case c.chance(6):
			s.input = s.output // simplex
		case c.chance(8):
			s.input = s.output.Add(rule.Offset * 3 / 2) // an odd split
		}
		c.tones(&s)
		out = append(out, s)
	}
	return out
}

func (c club) tones(s *station) {
	draw := func() string {
		if c.chance(8) {
			return fmt.Sprintf("D%03oN", tone.DCS83[c.r.IntN(len(tone.DCS83))])
		}
		d := tone.CTCSS38[c.r.IntN(len(tone.CTCSS38))]
		return fmt.Sprintf("%d.%d", d/10, d%10)
	}
	switch {
	case c.chance(75):
		s.up = draw()
	case c.chance(50):
		s.up = "off"
	}
	switch {
	case s.up != "" && s.up != "off" && c.chance(40):
		s.down = s.up
	case c.chance(6):
		s.down = draw()
	}
}

var places = []string{"Beacon Hill", "Marran", "Long Ridge", "Cairn Head", "Fold Top", "Holm Rigg", "Low Haven", "Stag Rock", "Ebb Lock", "Skua Point"}

// column is a heading with its cells.
type drawnColumn struct {
	heading string
	role    intake.Role
	cell    func(station) string
}

func (c club) table() drawn {
	languages := []string{"en", "en", "en", "de", "fr", "es", "it", "nl", "pt"}
	d := drawn{language: pick(c.r, languages)}
	regions := []string{"r1", "r1", "uk"}
	if d.language == "en" {
		regions = []string{"us", "us", "uk", "au", "nz"}
	}
	d.region = band.MustLoad(pick(c.r, regions))
	t := tongues[d.language]
	var stations []station
	for len(stations) < 3 {
		stations = c.stations(d.region)
	}
	d.view = pick(c.r, []intake.Viewpoint{"", intake.Operator, intake.Repeater})
	columns := append(c.frequencies(&d, t), c.toneColumns(&d, t)...)
	columns = c.others(columns, t)
	var heading []string
	for _, x := range columns {
		heading = append(heading, x.heading)
		d.roles = append(d.roles, x.role)
	}
	for range c.r.IntN(3) {
		title := make([]string, len(columns))
		title[0] = pick(c.r, []string{"Repeaters of the valley", "Stand 2026", "", "Liste"})
		d.rows = append(d.rows, title)
	}
	d.rows = append(d.rows, heading)
	bad := c.r.IntN(31)
	for _, s := range stations {
		var row []string
		for _, x := range columns {
			row = append(row, x.cell(s))
		}
		if c.chance(bad) {
			row[c.r.IntN(len(row))] = pick(c.r, []string{"see page 3", "???", "off", "12x", "total", ""})
		}
		d.rows = append(d.rows, row)
	}
	return d
}

// writeMHz writes a frequency as the table does.
func (c club) writer(t tongue) func(freq.Hz) string {
	decimals := pick(c.r, []int{3, 4, 5})
	comma := t.comma && c.chance(80)
	return func(f freq.Hz) string {
		s := fmt.Sprintf("%d.%06d", f/freq.MHz, f%freq.MHz)
		s = s[:len(s)-6+decimals]
		if f%1000 != 0 && decimals == 3 {
			s = fmt.Sprintf("%d.%06d", f/freq.MHz, f%freq.MHz)
			s = strings.TrimRight(s, "0")
		}
		if comma {
			s = strings.Replace(s, ".", ",", 1)
		}
		return s
	}
}

// frequencies are the columns of the frequencies. Where the shift stands
// beside one of them, that one is the output.
func (c club) frequencies(d *drawn, t tongue) []drawnColumn {
	write := c.writer(t)
	out := func(h string) drawnColumn {
		return drawnColumn{h, intake.Output, func(s station) string { return write(s.output) }}
	}
	in := func(h string) drawnColumn {
		return drawnColumn{h, intake.Input, func(s station) string { return write(s.input) }}
	}
	shift := drawnColumn{pick(c.r, t.shift), intake.Shift, func(s station) string {
		o := s.input.Sub(s.output)
		if o == 0 {
			return pick(c.r, []string{"simplex", "0"})
		}
		text := write(freq.Hz(o.Abs()))
		if o < 0 {
			return "-" + text
		}
		return "+" + text
	}}
	i := c.r.IntN(3)
	var columns []drawnColumn
	switch {
	case d.view == "" && i == 0:
		columns = []drawnColumn{out(pick(c.r, t.frequency)), shift}
	case d.view == "" && i == 1:
		columns = []drawnColumn{out(pick(c.r, t.output)), shift}
	case d.view == "":
		columns = []drawnColumn{out(pick(c.r, t.output)), in(pick(c.r, t.input))}
	case d.view == intake.Operator:
		k := c.r.IntN(min(len(t.sent), len(t.heard)))
		columns = []drawnColumn{out(t.heard[k]), in(t.sent[k])}
	default:
		k := c.r.IntN(min(len(t.sent), len(t.heard)))
		columns = []drawnColumn{out(t.sent[k]), in(t.heard[k])}
	}
	if len(columns) == 2 && columns[1].role == intake.Input && c.chance(30) {
		columns[0], columns[1] = columns[1], columns[0]
	}
	if d.view != "" && c.chance(15) { // the frequencies need no viewpoint; the tones do
		columns = []drawnColumn{out(pick(c.r, t.output)), in(pick(c.r, t.input))}
	}
	return columns
}

func (c club) toneColumns(d *drawn, t tongue) []drawnColumn {
	spell := c.spelling(t)
	up := func(h string) drawnColumn {
		return drawnColumn{h, intake.UplinkTone, func(s station) string { return spell(s.up) }}
	}
	down := func(h string) drawnColumn {
		return drawnColumn{h, intake.DownlinkTone, func(s station) string { return spell(s.down) }}
	}
	k := c.r.IntN(min(len(t.sentTone), len(t.heardTone)))
	var columns []drawnColumn
	switch {
	case d.view == "" && c.chance(50):
		return []drawnColumn{up(pick(c.r, t.tone))}
	case d.view == "":
		return []drawnColumn{up(pick(c.r, t.access)), down(pick(c.r, t.down))}
	case d.view == intake.Operator:
		columns = []drawnColumn{up(t.sentTone[k]), down(t.heardTone[k])}
	default:
		columns = []drawnColumn{up(t.heardTone[k]), down(t.sentTone[k])}
	}
	if c.chance(30) {
		columns[0], columns[1] = columns[1], columns[0]
	}
	if c.chance(20) {
		return slicesOf(columns, intake.UplinkTone)
	}
	return columns
}

func slicesOf(columns []drawnColumn, role intake.Role) []drawnColumn {
	for _, x := range columns {
		if x.role == role {
			return []drawnColumn{x}
		}
	}
	return columns
}

// spelling writes tones in one of the ways of a club, or in several.
func (c club) spelling(t tongue) func(string) string {
	mixed := c.chance(25)
	way := c.r.IntN(4)
	blank := pick(c.r, []string{"", "", "-", "n/a"})
	comma := t.comma && c.chance(80)
	return func(s string) string {
		w := way
		if mixed {
			w = c.r.IntN(4)
		}
		switch {
		case s == "":
			return blank
		case s == "off":
			return pick(c.r, []string{"none", "CSQ", "none"})
		case strings.HasPrefix(s, "D"):
			return pick(c.r, []string{s, "DCS " + s[1:4], "D" + s[1:4]})
		}
		if comma {
			s = strings.Replace(s, ".", ",", 1)
		}
		switch w {
		case 1:
			return s + " Hz"
		case 2:
			return "CTCSS " + s
		case 3:
			return strings.TrimSuffix(strings.TrimSuffix(s, ".0"), ",0")
		}
		return s
	}
}

// others are the columns beside frequencies and tones, in any place.
func (c club) others(columns []drawnColumn, t tongue) []drawnColumn {
	add := func(x drawnColumn, percent int) {
		if !c.chance(percent) {
			return
		}
		at := c.r.IntN(len(columns) + 1)
		columns = append(columns[:at], append([]drawnColumn{x}, columns[at:]...)...)
	}
	add(drawnColumn{pick(c.r, t.callsign), intake.Callsign, func(s station) string { return s.call }}, 80)
	add(drawnColumn{pick(c.r, t.place), intake.Locality, func(s station) string { return s.place }}, 80)
	add(drawnColumn{pick(c.r, t.remark), intake.Note, func(station) string { return pick(c.r, []string{"", "ask first", "147 m"}) }}, 30)
	add(drawnColumn{"", intake.Ignore, func(station) string { return "" }}, 15)
	n := 0
	add(drawnColumn{pick(c.r, []string{"#", "Pos.", "Row"}), intake.Ignore, func(station) string { n++; return fmt.Sprint(n) }}, 15)
	lat, lon := 35+c.r.Float64()*20, -10+c.r.Float64()*20
	if c.chance(30) {
		columns = append(columns,
			drawnColumn{"Lat", intake.Latitude, func(station) string { return fmt.Sprintf("%.4f", lat+c.r.Float64()) }},
			drawnColumn{"Lon", intake.Longitude, func(station) string { return fmt.Sprintf("%.4f", lon+c.r.Float64()) }})
	}
	return columns
}
