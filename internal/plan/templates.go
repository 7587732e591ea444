package plan

import (
	"bytes"
	"context"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"strings"

	"mnemos/core/document"
	"mnemos/core/limit"
	"mnemos/core/slots"
	"mnemos/core/table"
	"mnemos/core/template"
	"mnemos/internal/exchange"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// Template is columns that somebody defined and kept.
type Template struct {
	template.Template
	ID       int64
	Revision int64
}

// Templates returns the columns that people kept.
func (p *Plans) Templates(ctx context.Context) ([]Template, error) {
	rows, err := p.store.Templates(ctx)
	if err != nil {
		return nil, err
	}
	out := []Template{}
	for _, r := range rows {
		t, err := templateOf(r)
		if err != nil {
			return nil, err
		}
		out = append(out, t)
	}
	return out, nil
}

func templateOf(r store.Template) (Template, error) {
	t := Template{ID: r.ID, Revision: r.Rev}
	if err := json.Unmarshal([]byte(r.Body), &t.Template); err != nil {
		return t, fmt.Errorf("read the columns %s: %w", r.Name, err)
	}
	t.Name = r.Name
	return t, nil
}

// SaveTemplate keeps columns, new ones with ID 0.
func (p *Plans) SaveTemplate(ctx context.Context, t Template) ([]Template, error) {
	t.Name = strings.TrimSpace(t.Name)
	f := &fault.Invalid{}
	for _, x := range t.Check() {
		f.Add(columnField(x.Column), "%s", x.Text)
	}
	all, err := p.store.Templates(ctx)
	if err != nil {
		return nil, err
	}
	for _, r := range all {
		if r.ID != t.ID && strings.EqualFold(r.Name, t.Name) {
			f.Add("name", "there are columns of that name already: %s", r.Name)
		}
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	body, err := json.Marshal(t.Template)
	if err != nil {
		return nil, err
	}
	stamp, err := p.fleet.Stamp(ctx, "keep the columns "+t.Name)
	if err != nil {
		return nil, err
	}
	err = p.store.Edit(ctx, 0, t.Revision, stamp, func(e *store.Edit) error {
		if t.ID == 0 {
			if t.ID, err = e.ID("template"); err != nil {
				return err
			}
		}
		return e.Put(store.Template{ID: t.ID, Name: t.Name, Body: string(body)})
	})
	if err != nil {
		return nil, err
	}
	return p.Templates(ctx)
}

func columnField(i int) string {
	if i < 0 {
		return "columns"
	}
	return fmt.Sprintf("columns.%d", i)
}

// DropTemplate removes columns.
func (p *Plans) DropTemplate(ctx context.Context, id, revision int64) ([]Template, error) {
	stamp, err := p.fleet.Stamp(ctx, "remove columns")
	if err != nil {
		return nil, err
	}
	if err := p.store.Edit(ctx, 0, revision, stamp, func(e *store.Edit) error { return e.Drop("template", id) }); err != nil {
		return nil, err
	}
	return p.Templates(ctx)
}

// Sample is how columns look with the channels of a radio.
type Sample struct {
	Faults []fault.Field
	Rows   [][]string
	Lost   []document.Loss
	File   exchange.File // nothing while there are faults
}

// Sample writes the channels of a radio, as it will hold them, in columns.
func (p *Plans) Sample(ctx context.Context, loadID int64, t template.Template) (*Sample, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	out := &Sample{Faults: []fault.Field{}, Rows: [][]string{}, Lost: []document.Loss{}}
	for _, x := range t.Check() {
		out.Faults = append(out.Faults, fault.Field{Field: columnField(x.Column), Message: x.Text})
	}
	if len(out.Faults) > 0 {
		return out, nil
	}
	lines := []table.Line{}
	for _, e := range d.entries {
		lines = append(lines, table.Line{Slot: e.Slot, Short: e.ShortName, Scan: e.Scan, Channel: e.Channel})
	}
	held := document.Held(d.plan.Name, d.unit.Title(), d.radio, lines)
	rows, lost := t.Write(held.Rows)
	out.Rows = append(out.Rows, rows...)
	out.Lost = append(out.Lost, together(lost)...)
	out.Lost = append(out.Lost, held.Lost...)
	var data bytes.Buffer
	data.WriteString("\ufeff")
	w := csv.NewWriter(&data)
	w.UseCRLF, w.Comma = true, rune(t.Divide[0])
	if err := w.WriteAll(rows); err != nil {
		return nil, err
	}
	out.File = exchange.File{Name: exchange.FileName(d.plan.Name+" "+d.unit.Title()+" "+t.Name, "csv"), Type: "text/csv; charset=utf-8", Data: data.Bytes(), Lost: out.Lost}
	return out, nil
}

// together says once what is the same of several channels.
func together(lost []template.Lost) (out []document.Loss) {
	of := map[string][]template.Lost{}
	var order []string
	for _, l := range lost {
		if len(of[l.Why]) == 0 {
			order = append(order, l.Why)
		}
		of[l.Why] = append(of[l.Why], l)
	}
	for _, why := range order {
		some := of[why]
		what := fmt.Sprintf("slot %d, %s", some[0].Slot, some[0].Name)
		if len(some) > 1 {
			var at []int
			for _, l := range some {
				at = append(at, l.Slot)
			}
			what = "slots " + slots.Runs(at)
		}
		out = append(out, document.Loss{What: what, Why: why})
	}
	return out
}

// BringBy takes a file in that was written in columns that somebody kept.
func (p *Plans) BringBy(ctx context.Context, loadID, templateID int64, data []byte, s Paste) (*Pasted, error) {
	d, err := p.desk(ctx, loadID)
	if err != nil {
		return nil, err
	}
	row, err := p.store.Template(ctx, templateID)
	if err != nil {
		return nil, err
	}
	t, err := templateOf(row)
	if err != nil {
		return nil, err
	}
	r := csv.NewReader(bytes.NewReader(bytes.TrimPrefix(data, []byte("\ufeff"))))
	r.Comma, r.FieldsPerRecord, r.LazyQuotes = rune(t.Divide[0]), -1, true
	rows, err := r.ReadAll()
	f := &fault.Invalid{}
	if t.Heading && len(rows) > 0 {
		rows = rows[1:]
	}
	switch {
	case err != nil:
		f.Add("file", "it cannot be read: %v", err)
	case len(rows) == 0:
		f.Add("file", "the file has no rows")
	case len(rows) > limit.Rows:
		f.Add("file", "%d rows are too many for a radio", len(rows))
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	var lines []line
	for i, cells := range rows {
		l := line{row: i + 1}
		if t.Heading {
			l.row++
		}
		if l.Line, err = t.Read(cells); err != nil {
			l.why = err.Error()
		}
		lines = append(lines, l)
	}
	return p.stored(ctx, d, s, lines)
}
