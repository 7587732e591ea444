package print

import (
	"bytes"
	_ "embed"
	"fmt"
	"io"
	"strconv"
	"strings"

	"codeberg.org/go-pdf/fpdf"

	"mnemos/core/evidence"
	"mnemos/core/standing"
)

// The fonts of the screen, cut to one weight each (fonts/README.md).
var (
	//go:embed fonts/text.ttf
	textFont []byte
	//go:embed fonts/text-strong.ttf
	textStrong []byte
	//go:embed fonts/figures.ttf
	figuresFont []byte
	//go:embed fonts/figures-strong.ttf
	figuresStrong []byte
)

const (
	text    = "text"
	figures = "figures"
	strong  = "B"
	margin  = 12.0 // mm
)

// pdf writes on pages; all lengths are millimetres.
type pdf struct {
	*fpdf.Fpdf
	p             *Paper
	width, height float64
}

// PDF writes the paper as a PDF with its fonts in it.
func (p *Paper) PDF(w io.Writer) error {
	orientation := "P"
	if p.Kind == Pocket {
		orientation = "L"
	}
	d := &pdf{Fpdf: fpdf.New(orientation, "mm", map[string]string{"a4": "A4", "letter": "Letter"}[p.Size], ""), p: p}
	for _, f := range []struct {
		family, style string
		data          []byte
	}{{text, "", textFont}, {text, strong, textStrong}, {figures, "", figuresFont}, {figures, strong, figuresStrong}} {
		d.AddUTF8FontFromBytes(f.family, f.style, f.data)
	}
	d.width, d.height = d.GetPageSize()
	d.SetTitle(shown(p.Head()), true)
	d.SetCreator("Mnemos", true)
	d.SetCreationDate(p.Date)
	d.SetModificationDate(p.Date)
	d.SetMargins(margin, margin, margin)
	d.SetAutoPageBreak(false, margin)
	d.SetFillColor(0, 0, 0)
	switch p.Kind {
	case Pocket:
		d.pocket()
	case Cards:
		d.cards()
	case Keypads:
		d.sheets()
	default:
		d.field()
	}
	var b bytes.Buffer
	if err := d.Output(&b); err != nil {
		return fmt.Errorf("write the PDF: %w", err)
	}
	_, err := w.Write(b.Bytes())
	return err
}

func (d *pdf) font(family, style string, size float64) { d.SetFont(family, style, size) }

// at writes at a place, cut to a width.
func (d *pdf) at(x, y, width float64, s, align string) {
	d.SetXY(x, y)
	d.CellFormat(width, d.line(), d.fit(shown(s), width), "", 0, align, false, 0, "")
}

func (d *pdf) line() float64 {
	_, size := d.GetFontSize()
	return size * 1.25
}

// fit makes a text smaller, not shorter, where it is wider than its place: nothing on
// a sheet is cut.
func (d *pdf) fit(s string, width float64) string {
	points, _ := d.GetFontSize()
	for points > 5 && d.GetStringWidth(s) > width-2*d.GetCellMargin() {
		points -= 0.25
		d.SetFontSize(points)
	}
	return s
}

// paragraph writes several lines, and returns the place below.
func (d *pdf) paragraph(x, y, width float64, s string) float64 {
	d.SetXY(x, y)
	d.MultiCell(width, d.line(), shown(s), "", "L", false)
	return d.GetY()
}

func (d *pdf) rule(x, y, width, weight float64) {
	d.SetLineWidth(weight)
	d.Line(x, y, x+width, y)
}

// box is a square to tick.
func (d *pdf) box(x, y, size float64) {
	d.SetLineWidth(0.25)
	d.Rect(x, y, size, size, "D")
}

// mark draws the mark of a verdict: its shape says it without colour.
func (d *pdf) mark(x, y, size float64, v evidence.Verdict) {
	d.SetLineWidth(0.3)
	r := size / 2
	switch v {
	case evidence.Agrees:
		d.Circle(x+r, y+r, r*0.8, "F")
	case evidence.Conflict:
		d.Polygon([]fpdf.PointType{{X: x + r, Y: y}, {X: x + size, Y: y + r}, {X: x + r, Y: y + size}, {X: x, Y: y + r}}, "F")
	case evidence.Stop:
		d.Rect(x+size*0.1, y+size*0.1, size*0.8, size*0.8, "F")
	default:
		d.Circle(x+r, y+r, r*0.7, "D")
	}
}

// page begins a page with its head, and says at its foot where the data come from.
func (d *pdf) page(n int) float64 {
	d.AddPage()
	width := d.width - 2*margin
	d.font(text, strong, 13)
	d.at(margin, margin-2, width*0.7, d.p.Plan+" · "+d.p.Unit, "L")
	d.font(text, "", 9)
	d.at(margin+width*0.7, margin-1, width*0.3, d.p.Title()+", page "+strconv.Itoa(n), "R")
	d.font(text, "", 8)
	d.at(margin, margin+4.5, width, fmt.Sprintf("Edition %d, %s, made by %s. %s", d.p.Edition, d.p.Date.Format("2 January 2006, 15:04 UTC"), d.p.Person, radioWords(d.p)), "L")
	d.rule(margin, margin+9.5, width, 0.5)
	foot := d.height - margin - 7
	d.rule(margin, foot-1, width, 0.2)
	d.font(text, "", 7)
	d.at(margin, foot, width, d.p.From(), "L")
	d.font(text, "", 7)
	d.at(margin, foot+3.2, width, Reminder, "L")
	return margin + 11
}

func radioWords(p *Paper) string {
	return fmt.Sprintf("%s, %s, slots %d to %d.", p.Radio.Name, p.Radio.Form, p.Radio.Slots.First, p.Radio.Slots.Last)
}

// column is one column of the field sheet.
type column struct {
	head  string
	width float64 // a share of the page
	align string
	font  string
	value func(r PaperRow) string
}

var fieldColumns = []column{
	{"slot", 0.05, "R", figures, func(r PaperRow) string { return strconv.Itoa(r.Slot) }},
	{"name", 0.185, "L", text, func(r PaperRow) string { return r.Name }},
	{"on display", 0.115, "L", figures, func(r PaperRow) string { return r.Short }},
	{"receive MHz", 0.105, "R", figures, func(r PaperRow) string { return r.Receive }},
	{"transmit MHz", 0.105, "R", figures, func(r PaperRow) string { return r.Transmit }},
	{"shift MHz", 0.1, "R", figures, func(r PaperRow) string { return r.Shift }},
	{"tone sent", 0.095, "R", figures, func(r PaperRow) string { return r.Out }},
	{"tone heard", 0.095, "R", figures, func(r PaperRow) string { return r.In }},
	{"power", 0.06, "R", text, func(r PaperRow) string { return r.Power }},
	{"", 0.09, "L", text, func(r PaperRow) string { return "" }},
}

// field writes every channel in a row.
func (d *pdf) field() {
	const row = 5.6
	y, n := 0.0, 0
	bottom := d.height - margin - 9
	width := d.width - 2*margin - 6
	for i, r := range d.p.Rows {
		if i == 0 || y+row > bottom {
			n++
			y = d.page(n)
			x := margin + 6
			for _, c := range fieldColumns {
				d.font(text, "", 7)
				d.at(x, y, width*c.width, c.head, c.align)
				x += width * c.width
			}
			if y += 4; y > 0 {
				d.rule(margin, y, d.width-2*margin, 0.3)
			}
		}
		d.box(margin+0.5, y+1.4, 2.8)
		x := margin + 6
		for _, c := range fieldColumns {
			style, size := "", 8.0
			if c.head == "receive MHz" || c.head == "slot" {
				style, size = strong, 9
			}
			d.font(c.font, style, size)
			d.at(x, y+1, width*c.width, c.value(r), c.align)
			x += width * c.width
		}
		w := width * fieldColumns[len(fieldColumns)-1].width
		d.mark(x-w+1, y+1.7, 2.4, r.Verdict)
		d.font(text, "", 7)
		word := string(r.Verdict)
		if r.Standing != standing.Planned {
			word = string(r.Standing)
		}
		d.at(x-w+3.6, y+1.3, w-3.6, word, "L")
		y += row
		d.rule(margin, y, d.width-2*margin, map[bool]float64{true: 0.25, false: 0.08}[i%5 == 4])
	}
	if len(d.p.Rows) == 0 {
		y = d.page(1)
		d.font(text, "", 10)
		d.at(margin, y+4, 120, "Nothing is planned for this radio yet.", "L")
	}
}

// pocket writes eight small panels: folded once lengthwise and then like a fan, they
// are a card for a pocket. The upper row stands on its head so that it reads upright
// once folded.
func (d *pdf) pocket() {
	const cols, line = 4, 4.3
	w, h := d.width/cols, d.height/2
	perPanel := int((h - 14) / line)
	rows := d.p.Rows
	panel := 0
	for first := true; first || len(rows) > 0; panel++ {
		first = false
		if panel%(2*cols) == 0 {
			d.AddPage()
			d.SetDashPattern([]float64{1, 2}, 0)
			d.rule(0, h, d.width, 0.1)
			for c := 1; c < cols; c++ {
				d.SetLineWidth(0.1)
				d.Line(float64(c)*w, 0, float64(c)*w, d.height)
			}
			d.SetDashPattern(nil, 0)
		}
		at := panel % (2 * cols)
		x, y := float64(at%cols)*w, h
		if at >= cols { // the upper row, on its head
			d.TransformBegin()
			x, y = float64(at%cols)*w, 0
			d.TransformRotate(180, x+w/2, h/2)
		}
		if panel == 0 {
			d.cover(x, y, w, h)
		} else {
			n := min(perPanel, len(rows))
			d.panel(x, y, w, rows[:n], line)
			rows = rows[n:]
		}
		if at >= cols {
			d.TransformEnd()
		}
	}
}

func (d *pdf) cover(x, y, w, h float64) {
	d.font(text, strong, 15)
	d.at(x+5, y+8, w-10, d.p.Plan, "L")
	d.font(text, strong, 11)
	d.at(x+5, y+16, w-10, d.p.Unit, "L")
	d.font(text, "", 8)
	yy := d.paragraph(x+5, y+23, w-10, fmt.Sprintf("Edition %d, %s, by %s. %d channels.", d.p.Edition, d.p.Date.Format("2 January 2006"), d.p.Person, len(d.p.Rows)))
	d.font(text, "", 7)
	yy = d.paragraph(x+5, yy+2, w-10, d.p.From())
	yy = d.paragraph(x+5, yy+2, w-10, Reminder)
	for i, v := range []evidence.Verdict{evidence.Agrees, evidence.Unverified, evidence.Conflict, evidence.Stop} {
		d.mark(x+6, yy+3+float64(i)*4, 2.2, v)
		d.font(text, "", 7)
		d.at(x+10, yy+2.4+float64(i)*4, 40, string(v), "L")
	}
}

func (d *pdf) panel(x, y, w float64, rows []PaperRow, line float64) {
	d.font(text, "", 6)
	d.at(x+4, y+4, w-8, "slot   receive   shift   tone   name", "L")
	d.rule(x+4, y+7.5, w-8, 0.2)
	yy := y + 8.2
	for _, r := range rows {
		d.font(figures, strong, 8)
		d.at(x+3, yy, 8, strconv.Itoa(r.Slot), "R")
		d.font(figures, strong, 8)
		d.at(x+10.5, yy, 17, r.Receive, "R")
		d.font(figures, "", 7)
		d.at(x+27, yy, 13, short(r.Shift), "R")
		d.font(figures, "", 7)
		d.at(x+39.5, yy, 11, strings.TrimSuffix(r.Out, " Hz"), "R")
		d.font(text, "", 7)
		d.at(x+50.5, yy, w-57, r.Name, "L")
		d.mark(x+w-6.5, yy+0.9, 2, r.Verdict)
		yy += line
	}
}

// short is a shift for a narrow place.
func short(shift string) string {
	return strings.NewReplacer("simplex", "simp", "listen only", "listen", "not in this radio", "–").Replace(shift)
}

// cards writes one card a channel, eight on a page.
func (d *pdf) cards() {
	const cols, lines = 2, 4
	w, h := (d.width-2*margin)/cols, (d.height-2*margin)/lines
	for i, r := range d.p.Rows {
		n := i % (cols * lines)
		if n == 0 {
			d.AddPage()
		}
		x, y := margin+float64(n%cols)*w, margin+float64(n/cols)*h
		d.SetDashPattern([]float64{1, 2}, 0)
		d.SetLineWidth(0.1)
		d.Rect(x, y, w, h, "D")
		d.SetDashPattern(nil, 0)
		d.font(figures, strong, 22)
		d.at(x+3, y+3, 22, strconv.Itoa(r.Slot), "L")
		d.font(text, strong, 13)
		d.at(x+24, y+4, w-42, r.Name, "L")
		d.font(figures, "", 9)
		d.at(x+24, y+10, w-42, r.Short, "L")
		d.mark(x+w-16, y+5.2, 3, r.Verdict)
		d.font(text, "", 7)
		d.at(x+w-13, y+4.9, 13, string(r.Verdict), "L")
		d.rule(x+4, y+15.5, w-8, 0.3)
		for j, c := range []struct{ what, value string }{{"receive", r.Receive + " MHz"}, {"transmit", r.Transmit + "  " + short(r.Shift)}, {"tone sent", r.Out}, {"tone heard", r.In}, {"width, power", strings.TrimSuffix(r.Width+", "+r.Power, ", ")}} {
			yy := y + 17.5 + float64(j)*5.6
			d.font(text, "", 8)
			d.at(x+3, yy+0.8, 24, c.what, "L")
			d.font(figures, map[bool]string{true: strong, false: ""}[j == 0], 11)
			d.at(x+27, yy, w-30, c.value, "L")
		}
		d.font(text, "", 6.5)
		foot := "Not keyed: " + r.Sheet.Reason
		if r.Sheet.Reason == "" {
			foot = "At rest it must show " + r.Sheet.Rest.String()
		}
		yy := d.paragraph(x+3, y+46.5, w-6, foot)
		if len(r.Doubts) > 0 {
			d.paragraph(x+3, yy, w-6, r.Doubts[0])
		}
		d.font(text, "", 5.5)
		yy = d.paragraph(x+3, y+h-11.5, w-6, d.p.Head()+". "+d.p.From())
		d.font(text, "", 5.5)
		d.paragraph(x+3, yy, w-6, Reminder)
	}
	if len(d.p.Rows) == 0 {
		d.field()
	}
}

// stepLine is the height of a step.
const stepLine = 5.0

// sheets writes every keypad sheet, as many on a page as fit whole.
func (d *pdf) sheets() {
	y, n := 0.0, 0
	bottom := d.height - margin - 10
	width := d.width - 2*margin
	for i, r := range d.p.Rows {
		need := 19 + float64(len(r.Sheet.Steps))*stepLine + 12
		if i == 0 || y+need > bottom {
			n++
			y = d.page(n)
		}
		y = d.sheet(r, y, width) + 5
	}
	if len(d.p.Rows) == 0 {
		d.field()
	}
}

func (d *pdf) sheet(r PaperRow, y, width float64) float64 {
	d.font(figures, strong, 16)
	d.at(margin, y, 18, strconv.Itoa(r.Slot), "L")
	d.font(text, strong, 12)
	d.at(margin+18, y+0.8, width-50, r.Name+"  "+r.Short, "L")
	d.mark(d.width-margin-20, y+1.9, 3, r.Verdict)
	d.font(text, "", 9)
	d.at(d.width-margin-16, y+1.3, 18, string(r.Verdict), "L")
	d.font(text, "", 8.5)
	y = d.paragraph(margin, y+7.5, width, r.Says)
	for _, x := range r.Doubts {
		d.font(text, strong, 8.5)
		y = d.paragraph(margin, y, width, x)
	}
	if r.Sheet.Locked != "" {
		d.font(text, strong, 8.5)
		y = d.paragraph(margin, y, width, "Listening only: "+r.Sheet.Locked+".")
	}
	if r.Sheet.Reason != "" {
		d.font(text, strong, 9)
		return d.paragraph(margin, y, width, r.Sheet.Reason)
	}
	d.font(text, "", 8.5)
	y = d.paragraph(margin, y, width, "Start with: "+strings.Join(r.Sheet.Start, ", ")+".")
	d.rule(margin, y+0.5, width, 0.3)
	y++
	for _, s := range r.Sheet.Steps {
		d.box(margin+0.5, y+1.1, 2.6)
		d.font(figures, "", 8)
		d.at(margin+4, y+0.6, 7, strconv.Itoa(s.Number), "R")
		d.font(text, strong, 8.5)
		d.at(margin+12, y+0.6, width*0.33-12, s.Title(), "L")
		d.font(text, "", 8.5)
		d.at(margin+width*0.33, y+0.6, width*0.67, s.Keys, "L")
		y += stepLine
		d.rule(margin, y, width, 0.08)
	}
	d.font(text, "", 8.5)
	y = d.paragraph(margin, y+0.8, width, "Leave it with: "+strings.Join(r.Sheet.Leave, ", ")+".")
	show := "At rest it must show " + r.Sheet.Rest.String() + "."
	if r.Sheet.Keyed != nil && r.Sheet.ReadOut != "" {
		show += " Without sending, " + r.Sheet.ReadOut + ": " + r.Sheet.Keyed.Figures + "."
	}
	d.font(text, strong, 9)
	y = d.paragraph(margin, y, width, show)
	for _, note := range r.Sheet.Notes {
		d.font(text, "", 8.5)
		y = d.paragraph(margin, y, width, note)
	}
	return y
}
