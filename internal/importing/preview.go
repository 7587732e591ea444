package importing

import (
	"strings"

	"mnemos/core/intake"
	"mnemos/internal/fault"
)

// cells are the rows with data that were looked at.
func (f *file) cells() [][]string {
	var out [][]string
	for _, r := range f.sample[f.layout.From:] {
		out = append(out, r.cells)
	}
	return out
}

func (f *file) preview(m intake.Mapping, view intake.View, source string, prose bool) *Preview {
	p := &Preview{
		ID: f.ID, File: f.name, Info: f.info, Source: source, Remembered: f.remembered, Prose: prose, Roles: intake.Roles,
		Columns: []Column{}, Rows: []Row{},
	}
	rows := f.sample[f.layout.From:]
	p.View = View{View: view}
	if v := p.View.Viewpoint; v != "" && !prose {
		p.View.Sentence, p.View.Other = m.Sentence(v, f.layout.Heading, f.cells()), m.Sentence(v.Other(), f.layout.Heading, f.cells())
	}
	for i := range max(len(m), len(f.layout.Mapping)) {
		c := Column{Samples: []string{}}
		if i < len(m) {
			c.Role, c.Unit, c.Order, c.Side = m[i].Role, m[i].Unit, m[i].Order, m[i].Side
		}
		if i < len(f.layout.Heading) {
			c.Heading = intake.Clean(f.layout.Heading[i])
		}
		for _, r := range rows {
			if i < len(r.cells) && strings.TrimSpace(r.cells[i]) != "" && len(c.Samples) < 3 {
				c.Samples = append(c.Samples, intake.Clean(r.cells[i]))
			}
		}
		p.Columns = append(p.Columns, c)
	}
	read, _ := f.reader(m, source, prose)
	for _, r := range rows {
		if why, ok := f.layout.Aside(m, r.cells); ok && !prose {
			p.Aside++
			p.show(Row{Line: r.line, Cells: []string{}, Faults: []intake.Fault{}, Aside: why}, r.cells, len(p.Rows) < shown)
			continue
		}
		rec, faults := read(r.cells)
		row := Row{Line: r.line, Cells: []string{}, Faults: append([]intake.Fault{}, faults...)}
		if len(faults) == 0 {
			row.Record = &rec
			p.Good++
			if !rec.IsRepeater() {
				p.Channels++
			}
		} else {
			p.Bad++
		}
		// A row that cannot be read is shown before one more that can.
		p.show(row, r.cells, len(p.Rows) < shown || len(faults) > 0 && len(p.Rows) < 2*shown)
	}
	return p
}

// show takes a row among those that are shown, if there is room.
func (p *Preview) show(row Row, cells []string, room bool) {
	if !room {
		return
	}
	for _, c := range cells {
		row.Cells = append(row.Cells, intake.Clean(c))
	}
	p.Rows = append(p.Rows, row)
}

// Form is how a person wants a file to be read.
type Form struct {
	Source  string
	Prose   bool
	Columns intake.Mapping
	// Viewpoint is what a person said of whose TX it is; "" leaves it to the
	// values.
	Viewpoint intake.Viewpoint
	// Confirmed is set where a person saw how the file is read: only then is it
	// remembered for the next time.
	Confirmed bool
	// AcceptLosses takes a file although the listing loses most of its records.
	AcceptLosses bool
	// Hold stops before anything changes, to show how the listing would.
	Hold bool
}

// settle turns the columns to the viewpoint that a person chose, and says
// what is settled then.
func (f *file) settle(form *Form) (intake.View, error) {
	switch form.Viewpoint {
	case "":
		return f.view, nil
	case intake.Operator, intake.Repeater:
	default:
		invalid := &fault.Invalid{}
		invalid.Add("viewpoint", "%q: write operator or repeater", form.Viewpoint)
		return f.view, invalid
	}
	form.Columns = form.Columns.Under(form.Viewpoint)
	if f.layout.View.Viewpoint == "" {
		return f.view, nil
	}
	return intake.View{Viewpoint: form.Viewpoint, Settled: true, Reasons: []string{"you said so"}}, nil
}

// Preview says how a file would be understood if it were read so.
func (m *Imports) Preview(id string, form Form) (*Preview, error) {
	f, err := m.find(id)
	if err != nil {
		return nil, err
	}
	view, err := f.settle(&form)
	if err != nil {
		return nil, err
	}
	return f.preview(form.Columns, view, form.Source, form.Prose), nil
}
