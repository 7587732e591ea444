package app

import (
	"fmt"
	"strings"

	"mnemos/core/intake"
	"mnemos/internal/fault"
)

// cells are the rows with data that were looked at.
func (j *job) cells() [][]string {
	var out [][]string
	for _, r := range j.sample[j.layout.From:] {
		out = append(out, r.cells)
	}
	return out
}

func (j *job) preview(m intake.Mapping, view intake.View, source string, prose bool) *ImportPreview {
	p := &ImportPreview{
		ID: j.id, File: j.file, Info: j.info, Source: source, Remembered: j.remembered, Prose: prose, Roles: intake.Roles,
		Columns: []ImportColumn{}, Rows: []ImportRow{},
	}
	rows := j.sample[j.layout.From:]
	p.View = ImportView{View: view}
	if v := p.View.Viewpoint; v != "" && !prose {
		p.View.Sentence, p.View.Other = m.Sentence(v, j.layout.Heading, j.cells()), m.Sentence(v.Other(), j.layout.Heading, j.cells())
	}
	for i := range max(len(m), len(j.layout.Mapping)) {
		c := ImportColumn{Samples: []string{}}
		if i < len(m) {
			c.Role, c.Unit, c.Order, c.Side = m[i].Role, m[i].Unit, m[i].Order, m[i].Side
		}
		if i < len(j.layout.Heading) {
			c.Heading = intake.Clean(j.layout.Heading[i])
		}
		for _, r := range rows {
			if i < len(r.cells) && strings.TrimSpace(r.cells[i]) != "" && len(c.Samples) < 3 {
				c.Samples = append(c.Samples, intake.Clean(r.cells[i]))
			}
		}
		p.Columns = append(p.Columns, c)
	}
	read, _ := j.reader(m, source, prose)
	for _, r := range rows {
		if why, ok := j.layout.Aside(m, r.cells); ok && !prose {
			p.Aside++
			p.show(ImportRow{Line: r.line, Cells: []string{}, Faults: []intake.Fault{}, Aside: why}, r.cells, len(p.Rows) < shown)
			continue
		}
		rec, faults := read(r.cells)
		row := ImportRow{Line: r.line, Cells: []string{}, Faults: append([]intake.Fault{}, faults...)}
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
func (p *ImportPreview) show(row ImportRow, cells []string, room bool) {
	if !room {
		return
	}
	for _, c := range cells {
		row.Cells = append(row.Cells, intake.Clean(c))
	}
	p.Rows = append(p.Rows, row)
}

// ImportForm is how a person wants a file to be read.
type ImportForm struct {
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
func (j *job) settle(form *ImportForm) (intake.View, error) {
	switch form.Viewpoint {
	case "":
		return j.view, nil
	case intake.Operator, intake.Repeater:
	default:
		f := &fault.Invalid{}
		f.Add("viewpoint", "%q: write operator or repeater", form.Viewpoint)
		return j.view, f
	}
	form.Columns = form.Columns.Under(form.Viewpoint)
	if j.layout.View.Viewpoint == "" {
		return j.view, nil
	}
	return intake.View{Viewpoint: form.Viewpoint, Settled: true, Reasons: []string{"you said so"}}, nil
}

// PreviewImport says how a file would be understood if it were read so.
func (a *App) PreviewImport(id string, form ImportForm) (*ImportPreview, error) {
	j, err := a.imports.find(id)
	if err != nil {
		return nil, err
	}
	view, err := j.settle(&form)
	if err != nil {
		return nil, err
	}
	return j.preview(form.Columns, view, form.Source, form.Prose), nil
}

func (x *imports) find(id string) (*job, error) {
	x.mu.Lock()
	defer x.mu.Unlock()
	j, ok := x.jobs[id]
	if !ok {
		return nil, fmt.Errorf("import %s: %w: import the file again", id, fault.ErrNotFound)
	}
	return j, nil
}
