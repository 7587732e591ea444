// Package importing brings listings in: a file is read as it is understood, a
// person says how it is to be read, and what it says becomes an edition that
// counts all at once. What cannot be read is kept to be mended.
package importing

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
	"time"

	"mnemos/core/band"
	"mnemos/core/freq"
	"mnemos/core/intake"
	"mnemos/core/limit"
	"mnemos/core/listing"
	"mnemos/internal/exchange"
	"mnemos/internal/fault"
	"mnemos/internal/fleet"
	"mnemos/internal/job"
	"mnemos/internal/live"
	"mnemos/internal/store"
)

// MaxListing is the largest file that is brought in, in bytes.
const MaxListing = limit.Listing

// shown and guessed are how many rows of a file are shown as understood, and
// how many a guess looks at.
const (
	shown   = 12
	guessed = 220
)

// Imports are the listings that are being brought in.
type Imports struct {
	store *store.Store
	fleet *fleet.Fleet
	now   func() time.Time
	jobs  *job.Runner[State]
	mu    sync.Mutex
	files map[string]*file // by the ID of the job
}

// New returns those of a data file; now is the clock.
func New(s *store.Store, who *fleet.Fleet, now func() time.Time, hub *live.Hub) *Imports {
	return &Imports{store: s, fleet: who, now: now, jobs: job.NewRunner[State]("import", hub), files: map[string]*file{}}
}

// file is one file on its way in.
type file struct {
	*job.Job[State]
	name, path string
	size       int64
	info       exchange.Info
	layout     intake.Layout
	sample     []numbered
	plan       *band.Plan
	suggested  string
	remembered bool
	view       intake.View
	mu         sync.Mutex
	held       *store.Edition // read, and not counted yet
}

// numbered is a row with its line in the file.
type numbered struct {
	line  int
	cells []string
}

// Preview is a file as it is understood.
type Preview struct {
	ID         string        `json:"id"`
	File       string        `json:"file"`
	Info       exchange.Info `json:"info"`
	Source     string        `json:"source"`
	Remembered bool          `json:"remembered"` // the columns are read as the last time
	Prose      bool          `json:"prose"`      // each line is read as words
	View       View          `json:"view"`       // whose TX it is
	Columns    []Column      `json:"columns"`
	Roles      []intake.Role `json:"roles"`
	Rows       []Row         `json:"rows"`
	Good       int           `json:"good"` // of the rows that were looked at
	Bad        int           `json:"bad"`
	Aside      int           `json:"aside"`    // set aside by themselves: totals, notes, headings again
	Channels   int           `json:"channels"` // of the good: simplex and receive-only channels, no repeaters
}

// View is the viewpoint of a table, with a real row that shows it.
type View struct {
	intake.View
	Sentence string `json:"sentence"` // as it is read
	Other    string `json:"other"`    // as it would be read the other way round
}

// Column is a column of a file and what it is taken for.
type Column struct {
	Heading string       `json:"heading"`
	Role    intake.Role  `json:"role"`
	Unit    intake.Unit  `json:"unit"`
	Order   intake.Order `json:"order"`
	Side    intake.Side  `json:"side"` // sent or heard, where the role follows from the viewpoint
	Samples []string     `json:"samples"`
}

// Mapping is how the columns are read.
func (p *Preview) Mapping() intake.Mapping {
	var m intake.Mapping
	for _, c := range p.Columns {
		m = append(m, intake.Column{Role: c.Role, Unit: c.Unit, Order: c.Order, Side: c.Side})
	}
	return m
}

// Row is a row of a file as it is understood.
type Row struct {
	Line   int             `json:"line"`
	Cells  []string        `json:"cells"`
	Record *listing.Record `json:"record"` // nil if it cannot be read
	Aside  string          `json:"aside"`  // why it is set aside, or ""
	Faults []intake.Fault  `json:"faults"`
}

// Bring takes a file in and says how it is understood, under a band plan. It
// stays until it is run or dropped.
func (m *Imports) Bring(ctx context.Context, name string, content io.Reader, plan *band.Plan) (*Preview, error) {
	f := &file{name: intake.Clean(filepath.Base(name)), plan: plan}
	if err := f.keep(m.store.Folder(), content); err != nil {
		return nil, err
	}
	if err := f.look(ctx); err != nil {
		if ctx.Err() != nil {
			return nil, errors.Join(err, os.Remove(f.path))
		}
		invalid := &fault.Invalid{}
		invalid.Add("file", "%v", err)
		return nil, errors.Join(invalid, os.Remove(f.path))
	}
	var err error
	f.view, err = f.layout.Compare(f.cells(), plan, func(hz freq.Hz) ([]listing.Record, error) {
		return m.store.ByOutput(ctx, band.Span{Lower: hz, Upper: hz}, nil)
	})
	if err != nil {
		return nil, err
	}
	f.layout.View = f.view
	if f.view.Viewpoint != "" {
		f.layout.Mapping = f.layout.Mapping.Under(f.view.Viewpoint)
	}
	mapping, err := m.remember(ctx, f)
	if err != nil {
		return nil, err
	}
	if err := m.add(f); err != nil {
		return nil, err
	}
	return f.preview(mapping, f.view, f.suggested, mapping == nil), nil
}

func (m *Imports) add(f *file) (err error) {
	m.mu.Lock()
	defer m.mu.Unlock()
	f.Job, err = m.jobs.Add(State{State: Shown, Total: f.size}, func() error { return m.forget(f) })
	m.files[f.ID] = f
	return err
}

// forget leaves nothing of a file behind that nobody waits for.
func (m *Imports) forget(f *file) error {
	delete(m.files, f.ID)
	var err error
	if held := f.take(); held != nil {
		err = held.Abandon()
	}
	if s := f.State().State; s == Shown || s == Doubted {
		err = errors.Join(err, os.Remove(f.path))
	}
	return err
}

func (m *Imports) find(id string) (*file, error) {
	m.mu.Lock()
	defer m.mu.Unlock()
	f, ok := m.files[id]
	if !ok {
		return nil, fmt.Errorf("import %s: %w: import the file again", id, fault.ErrNotFound)
	}
	return f, nil
}

// keep writes the content to a file of the data folder.
func (f *file) keep(folder string, content io.Reader) error {
	incoming := filepath.Join(folder, store.Incoming)
	if err := os.MkdirAll(incoming, 0o700); err != nil {
		return fmt.Errorf("keep %s: %w", f.name, err)
	}
	to, err := os.CreateTemp(incoming, "listing-*")
	if err != nil {
		return fmt.Errorf("keep %s: %w", f.name, err)
	}
	f.path = to.Name()
	n, err := io.Copy(to, io.LimitReader(content, MaxListing+1))
	if err = errors.Join(err, to.Close()); err == nil && n > MaxListing {
		invalid := &fault.Invalid{}
		invalid.Add("file", "it is larger than %d MB: this is not a listing", MaxListing>>20)
		err = invalid
	}
	if err != nil {
		return errors.Join(err, os.Remove(f.path))
	}
	f.size = n
	return nil
}

// look reads the beginning of the file and guesses what it holds.
func (f *file) look(ctx context.Context) error {
	t, info, err := exchange.Open(f.path)
	if err != nil {
		return err
	}
	f.info = info
	var rows [][]string
	for len(f.sample) < guessed {
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
		f.sample = append(f.sample, numbered{line, cells})
		rows = append(rows, cells)
	}
	if err := t.Close(); err != nil {
		return err
	}
	if len(rows) == 0 {
		return errors.New("it has no rows")
	}
	f.layout = intake.Look(rows, info.Named, f.plan)
	f.view = f.layout.View
	f.suggested = strings.TrimSuffix(f.name, filepath.Ext(f.name))
	return nil
}

// remember returns how a table with these headings was read the last time, or
// else the guess; nil if the lines are words rather than cells.
func (m *Imports) remember(ctx context.Context, f *file) (intake.Mapping, error) {
	if f.layout.Heading != nil {
		kept, source, err := m.store.Mapping(ctx, f.layout.Heading)
		switch {
		case err == nil:
			var m intake.Mapping
			if err := json.Unmarshal([]byte(kept), &m); err != nil {
				return nil, fmt.Errorf("read mapping: %w", err)
			}
			f.suggested = source
			if m, f.view, f.remembered = f.layout.Again(m, f.cells(), f.plan); f.remembered {
				return m, nil
			}
		case !errors.Is(err, fault.ErrNotFound):
			return nil, err
		}
	}
	if f.layout.Prose {
		return nil, nil
	}
	return f.layout.Mapping, nil
}

// reader reads rows of the file by a mapping, or as words.
func (f *file) reader(m intake.Mapping, source string, prose bool) (read func(cells []string) (listing.Record, []intake.Fault), r *intake.Reader) {
	r = &intake.Reader{Mapping: m, Plan: f.plan, Source: source}
	if !prose {
		return r.Row, r
	}
	return func(cells []string) (listing.Record, []intake.Fault) {
		return r.Prose(strings.Join(cells, cmp.Or(f.info.Delimiter, " "))) // a mended line is one cell
	}, r
}
