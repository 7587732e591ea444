package app

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"
	"sync"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/intake"
	"mnemos/core/listing"
	"mnemos/internal/exchange"
	"mnemos/internal/store"
)

// MaxListing is the largest file that is brought in, in bytes.
const MaxListing = 256 << 20

// shown and guessed are how many rows of a file are shown as understood, and
// how many a guess looks at.
const (
	shown   = 12
	guessed = 220
)

// imports are the listings that are being brought in.
type imports struct {
	mu   sync.Mutex
	jobs map[string]*job
	next int
	turn chan struct{} // holds one token: imports are written one after the other
}

// job is one file on its way in.
type job struct {
	id, file, path string
	info           exchange.Info
	layout         intake.Layout
	sample         []numbered
	plan           *band.Plan
	suggested      string
	remembered     bool
	view           intake.View
	cancel         context.CancelFunc
	held           *store.Edition // read, and not counted yet
	mu             sync.Mutex
	state          ImportState
	changed        chan struct{} // closed and replaced whenever the state changes
}

// numbered is a row with its line in the file.
type numbered struct {
	line  int
	cells []string
}

// ImportPreview is a file as it is understood.
type ImportPreview struct {
	ID         string         `json:"id"`
	File       string         `json:"file"`
	Info       exchange.Info  `json:"info"`
	Source     string         `json:"source"`
	Remembered bool           `json:"remembered"` // the columns are read as the last time
	Prose      bool           `json:"prose"`      // each line is read as words
	View       ImportView     `json:"view"`       // whose TX it is
	Columns    []ImportColumn `json:"columns"`
	Roles      []intake.Role  `json:"roles"`
	Rows       []ImportRow    `json:"rows"`
	Good       int            `json:"good"` // of the rows that were looked at
	Bad        int            `json:"bad"`
	Aside      int            `json:"aside"`    // set aside by themselves: totals, notes, headings again
	Channels   int            `json:"channels"` // of the good: simplex and receive-only channels, no repeaters
}

// ImportView is the viewpoint of a table, with a real row that shows it.
type ImportView struct {
	intake.View
	Sentence string `json:"sentence"` // as it is read
	Other    string `json:"other"`    // as it would be read the other way round
}

// ImportColumn is a column of a file and what it is taken for.
type ImportColumn struct {
	Heading string       `json:"heading"`
	Role    intake.Role  `json:"role"`
	Unit    intake.Unit  `json:"unit"`
	Order   intake.Order `json:"order"`
	Side    intake.Side  `json:"side"` // sent or heard, where the role follows from the viewpoint
	Samples []string     `json:"samples"`
}

// ImportRow is a row of a file as it is understood.
type ImportRow struct {
	Line   int             `json:"line"`
	Cells  []string        `json:"cells"`
	Record *listing.Record `json:"record"` // nil if it cannot be read
	Aside  string          `json:"aside"`  // why it is set aside, or ""
	Faults []intake.Fault  `json:"faults"`
}

// Bring takes a file in and says how it is understood. It stays until it is
// run or dropped.
func (a *App) Bring(ctx context.Context, name string, content io.Reader) (*ImportPreview, error) {
	o, err := a.store.Operator(ctx)
	if err != nil {
		return nil, err
	}
	plan, err := band.Load(o.Region)
	if err != nil {
		return nil, err
	}
	j := &job{file: intake.Clean(filepath.Base(name)), plan: plan, changed: make(chan struct{}), state: ImportState{State: ImportShown}}
	if err := j.keep(a.store.Folder(), content); err != nil {
		return nil, err
	}
	if err := j.look(ctx); err != nil {
		if ctx.Err() != nil {
			return nil, errors.Join(err, os.Remove(j.path))
		}
		f := &Fault{}
		f.add("file", "%v", err)
		return nil, errors.Join(f, os.Remove(j.path))
	}
	j.view, err = j.layout.Compare(j.cells(), plan, func(f freq.Hz) ([]listing.Record, error) {
		return a.store.ByOutput(ctx, band.Span{Lower: f, Upper: f}, nil)
	})
	if err != nil {
		return nil, err
	}
	j.layout.View = j.view
	if j.view.Viewpoint != "" {
		j.layout.Mapping = j.layout.Mapping.Under(j.view.Viewpoint)
	}
	mapping, err := a.remember(ctx, j)
	if err != nil {
		return nil, err
	}
	if err := a.imports.add(j); err != nil {
		return nil, err
	}
	return j.preview(mapping, j.view, j.suggested, mapping == nil), nil
}

// kept is how many imports are remembered: those that ended, and files that
// somebody looked at and left.
const kept = 20

// add takes a job in, and forgets the oldest that nobody waits for.
func (x *imports) add(j *job) error {
	x.mu.Lock()
	defer x.mu.Unlock()
	x.next++
	j.id = fmt.Sprint(x.next)
	x.jobs[j.id] = j
	var err error
	for n := x.next - kept; n > 0; n-- {
		old, ok := x.jobs[fmt.Sprint(n)]
		if !ok {
			continue
		}
		old.mu.Lock()
		state := old.state.State
		old.mu.Unlock()
		if state == ImportWaiting || state == ImportReading {
			continue
		}
		delete(x.jobs, old.id)
		if old.held != nil {
			err = errors.Join(err, old.held.Abandon())
		}
		if state == ImportShown || state == ImportDoubted {
			err = errors.Join(err, os.Remove(old.path))
		}
	}
	return err
}

// keep writes the content to a file of the data folder.
func (j *job) keep(folder string, content io.Reader) error {
	incoming := filepath.Join(folder, store.Incoming)
	if err := os.MkdirAll(incoming, 0o700); err != nil {
		return fmt.Errorf("keep %s: %w", j.file, err)
	}
	f, err := os.CreateTemp(incoming, "listing-*")
	if err != nil {
		return fmt.Errorf("keep %s: %w", j.file, err)
	}
	j.path = f.Name()
	n, err := io.Copy(f, io.LimitReader(content, MaxListing+1))
	if err = errors.Join(err, f.Close()); err == nil && n > MaxListing {
		fault := &Fault{}
		fault.add("file", "it is larger than %d MB: this is not a listing", MaxListing>>20)
		err = fault
	}
	if err != nil {
		return errors.Join(err, os.Remove(j.path))
	}
	j.state.Total = n
	return nil
}

// look reads the beginning of the file and guesses what it holds.
func (j *job) look(ctx context.Context) error {
	t, info, err := exchange.Open(j.path)
	if err != nil {
		return err
	}
	j.info = info
	var rows [][]string
	for len(j.sample) < guessed {
		if err := ctx.Err(); err != nil {
			return errors.Join(err, t.Close()) // nobody waits for it any more
		}
		line, cells, err := t.Next()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return errors.Join(err, t.Close())
		}
		j.sample = append(j.sample, numbered{line, cells})
		rows = append(rows, cells)
	}
	if err := t.Close(); err != nil {
		return err
	}
	if len(rows) == 0 {
		return errors.New("it has no rows")
	}
	j.layout = intake.Look(rows, info.Named, j.plan)
	j.view = j.layout.View
	j.suggested = strings.TrimSuffix(j.file, filepath.Ext(j.file))
	return nil
}

// remember returns how a table with these headings was read the last time, or
// else the guess; nil if the lines are words rather than cells.
func (a *App) remember(ctx context.Context, j *job) (intake.Mapping, error) {
	if j.layout.Heading != nil {
		kept, source, err := a.store.Mapping(ctx, j.layout.Heading)
		switch {
		case err == nil:
			var m intake.Mapping
			if err := json.Unmarshal([]byte(kept), &m); err != nil {
				return nil, fmt.Errorf("read mapping: %w", err)
			}
			j.suggested = source
			if m, j.view, j.remembered = j.layout.Again(m, j.cells(), j.plan); j.remembered {
				return m, nil
			}
		case !errors.Is(err, store.ErrNotFound):
			return nil, err
		}
	}
	if j.layout.Prose {
		return nil, nil
	}
	return j.layout.Mapping, nil
}

// reader reads rows of the file by a mapping, or as words.
func (j *job) reader(m intake.Mapping, source string, prose bool) (read func(cells []string) (listing.Record, []intake.Fault), r *intake.Reader) {
	r = &intake.Reader{Mapping: m, Plan: j.plan, Source: source}
	if !prose {
		return r.Row, r
	}
	return func(cells []string) (listing.Record, []intake.Fault) {
		return r.Prose(strings.Join(cells, cmp.Or(j.info.Delimiter, " "))) // a mended line is one cell
	}, r
}

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
		other := intake.Operator
		if v == intake.Operator {
			other = intake.Repeater
		}
		p.View.Sentence, p.View.Other = m.Sentence(v, j.layout.Heading, j.cells()), m.Sentence(other, j.layout.Heading, j.cells())
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
		f := &Fault{}
		f.add("viewpoint", "%q: write operator or repeater", form.Viewpoint)
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
		return nil, fmt.Errorf("import %s: %w: import the file again", id, store.ErrNotFound)
	}
	return j, nil
}
