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
	"mnemos/internal/fault"
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

// Mapping is how the columns are read.
func (p *ImportPreview) Mapping() intake.Mapping {
	var m intake.Mapping
	for _, c := range p.Columns {
		m = append(m, intake.Column{Role: c.Role, Unit: c.Unit, Order: c.Order, Side: c.Side})
	}
	return m
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
		f := &fault.Invalid{}
		f.Add("file", "%v", err)
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
		invalid := &fault.Invalid{}
		invalid.Add("file", "it is larger than %d MB: this is not a listing", MaxListing>>20)
		err = invalid
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
		case !errors.Is(err, fault.ErrNotFound):
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
