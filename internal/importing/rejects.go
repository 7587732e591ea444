package importing

import (
	"context"
	"encoding/json"
	"fmt"
	"io"
	"slices"
	"strings"

	"mnemos/core/band"
	"mnemos/core/intake"
	"mnemos/core/listing"
	"mnemos/internal/exchange"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// page is how many rejected rows are shown at once.
const page = 100

// Rejects are rows of a listing that could not be read.
type Rejects struct {
	Columns []string    `json:"columns"`
	Rows    []RejectRow `json:"rows"`
	More    bool        `json:"more"`
}

// RejectRow is one of them.
type RejectRow struct {
	ID     int64          `json:"id"`
	Line   int            `json:"line"` // in the file
	Cells  []string       `json:"cells"`
	Faults []intake.Fault `json:"faults"`
	State  string         `json:"state"` // "", later, discarded
}

// Rejects returns the rows of a source that could not be read, after one.
func (m *Imports) Rejects(ctx context.Context, source string, after int64) (*Rejects, error) {
	e, err := m.edition(ctx, source)
	if err != nil {
		return nil, err
	}
	rows, err := m.store.Rejects(ctx, source, after, page+1)
	if err != nil {
		return nil, err
	}
	out := &Rejects{Columns: []string{}, Rows: []RejectRow{}, More: len(rows) > page}
	if err := json.Unmarshal([]byte(e.Heading), &out.Columns); err != nil {
		return nil, fmt.Errorf("read heading: %w", err)
	}
	for _, r := range rows[:min(len(rows), page)] {
		x := RejectRow{ID: r.ID, Line: r.Line, State: r.State}
		if err := json.Unmarshal(r.Cells, &x.Cells); err != nil {
			return nil, fmt.Errorf("read row %d: %w", r.Line, err)
		}
		if err := json.Unmarshal(r.Faults, &x.Faults); err != nil {
			return nil, fmt.Errorf("read row %d: %w", r.Line, err)
		}
		out.Rows = append(out.Rows, x)
	}
	return out, nil
}

func (m *Imports) edition(ctx context.Context, source string) (store.EditionInfo, error) {
	editions, err := m.store.Editions(ctx)
	for _, e := range editions {
		if e.Source == source {
			return e, err
		}
	}
	if err == nil {
		err = fmt.Errorf("source %s: %w", source, fault.ErrNotFound)
	}
	return store.EditionInfo{}, err
}

// MendReject reads a row again as a person changed it, under a band plan. If it can be read now
// it joins the listing; if not, what is wrong is said and it stays as it was.
func (m *Imports) MendReject(ctx context.Context, source string, id int64, cells []string, plan *band.Plan) (*listing.Record, error) {
	e, err := m.edition(ctx, source)
	if err != nil {
		return nil, err
	}
	var mapping intake.Mapping
	if err := json.Unmarshal([]byte(e.Mapping), &mapping); err != nil {
		return nil, fmt.Errorf("read mapping: %w", err)
	}
	read, _ := (&file{plan: plan}).reader(mapping, source, len(mapping) == 0)
	rec, faults := read(cells)
	if len(faults) > 0 {
		f := &fault.Invalid{}
		for _, x := range faults {
			f.Add(fmt.Sprintf("cells/%d", x.Column), "%s", x.Message)
		}
		return nil, f
	}
	return &rec, m.store.TakeReject(ctx, e.ID, id, &rec, cells)
}

// SetReject says of a row that could not be read that it is to be kept for
// later, or that it is discarded; "" takes that back.
func (m *Imports) SetReject(ctx context.Context, source string, id int64, state string) error {
	if state != "" && state != "later" && state != "discarded" {
		f := &fault.Invalid{}
		f.Add("state", "%q: write later, discarded, or nothing", state)
		return f
	}
	e, err := m.edition(ctx, source)
	if err != nil {
		return err
	}
	return m.store.SetReject(ctx, e, id, state)
}

// ExportRejects writes the rows of a source that could not be read as CSV, each
// with what is wrong.
func (m *Imports) ExportRejects(ctx context.Context, source string, w io.Writer) error {
	r, err := m.Rejects(ctx, source, 0)
	if err != nil {
		return err
	}
	return exchange.CSV(w, func(write func([]string) error) error {
		if err := write(append(slices.Clone(r.Columns), "what is wrong")); err != nil {
			return err
		}
		for {
			last := int64(0)
			for _, row := range r.Rows {
				if last = row.ID; row.State == "discarded" {
					continue
				}
				cells := slices.Clone(row.Cells)
				for len(cells) < len(r.Columns) {
					cells = append(cells, "")
				}
				var wrong []string
				for _, f := range row.Faults {
					wrong = append(wrong, f.Message)
				}
				if err := write(append(cells, strings.Join(wrong, "; "))); err != nil {
					return err
				}
			}
			if !r.More {
				return nil
			}
			if r, err = m.Rejects(ctx, source, last); err != nil {
				return err
			}
		}
	})
}
