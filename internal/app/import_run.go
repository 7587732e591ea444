package app

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"
	"time"
	"unicode/utf8"

	"mnemos/core/intake"
	"mnemos/internal/exchange"
	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// RunImport begins to read a file into an edition of a source. Nobody sees
// any of it before all of it is there.
func (a *App) RunImport(ctx context.Context, id string, form ImportForm) (*ImportState, error) {
	j, err := a.imports.find(id)
	if err != nil {
		return nil, err
	}
	source := intake.Clean(form.Source)
	view, err := j.settle(&form)
	if err != nil {
		return nil, err
	}
	f := &fault.Invalid{}
	if view.Asked() && !form.Prose && form.Columns.Viewpoint() != "" {
		f.Add("viewpoint", "say whose TX it is. %s Or the other way round?", form.Columns.Sentence(view.Viewpoint, j.layout.Heading, j.cells()))
	}
	if source == "" || utf8.RuneCountInString(source) > 60 {
		f.Add("source", "name the listing, in up to 60 characters: it stands beside every record")
	}
	used := map[intake.Role]int{}
	for _, c := range form.Columns {
		used[c.Role]++
	}
	for role, n := range used {
		if role != intake.Ignore && n > 1 {
			f.Add("columns", "two columns are %s: choose one", role)
		}
	}
	if !form.Prose && used[intake.Output] == 0 {
		f.Add("columns", "say which column is the output frequency")
	}
	if err := f.Or(); err != nil {
		return nil, err
	}
	j.mu.Lock()
	if held := j.held; held != nil && j.state.State == ImportHeld {
		j.held = nil
		j.mu.Unlock()
		return a.count(ctx, j, held)
	}
	if j.state.State != ImportShown && j.state.State != ImportDoubted {
		j.mu.Unlock()
		f.Add("id", "this import is %s already", j.state.State)
		return nil, f
	}
	run, cancel := context.WithCancel(context.WithoutCancel(ctx))
	j.cancel = cancel
	j.state.State, j.state.Source = ImportWaiting, source
	state := j.state
	j.mu.Unlock()
	form.Source = source
	go a.run(run, j, form)
	return &state, nil
}

// count lets an edition count that was held back.
func (a *App) count(ctx context.Context, j *job, held *store.Edition) (*ImportState, error) {
	err := held.Activate(ctx)
	j.update(func(s *ImportState) {
		if s.State = ImportDone; err != nil {
			s.State, s.Error = ImportFailed, err.Error()
		}
	})
	if err != nil {
		return nil, errors.Join(err, held.Abandon())
	}
	j.mu.Lock()
	defer j.mu.Unlock()
	s := j.state
	return &s, nil
}

// run waits for its turn, reads the file and ends the job one way or another.
func (a *App) run(ctx context.Context, j *job, form ImportForm) {
	defer j.cancel()
	var err error
	select {
	case <-a.imports.turn:
		defer func() { a.imports.turn <- struct{}{} }()
		err = a.write(ctx, j, form)
	case <-ctx.Done():
		err = ctx.Err()
	}
	j.mu.Lock()
	held := j.held
	if held != nil && ctx.Err() != nil { // cancelled in the last moment
		j.held = nil
		err = errors.Join(ctx.Err(), held.Abandon())
	}
	j.mu.Unlock()
	var loss lossError
	if doubted := errors.As(err, &loss); !doubted {
		// What is done is done, also where its file stays: the next start clears it.
		if gone := os.Remove(j.path); err != nil {
			err = errors.Join(err, gone)
		}
	}
	j.update(func(s *ImportState) {
		switch {
		case err != nil && ctx.Err() != nil: // whatever the cancelled transaction says
			s.State = ImportCancelled
		case loss.source != "":
			s.State, s.Error = ImportDoubted, loss.Error()
		case err != nil:
			s.State, s.Error = ImportFailed, err.Error()
		case j.held != nil:
			s.State = ImportHeld
		default:
			s.State = ImportDone
		}
		s.Left = nil
	})
}

// update changes the state and wakes those who watch it.
func (j *job) update(f func(*ImportState)) {
	j.mu.Lock()
	defer j.mu.Unlock()
	f(&j.state)
	close(j.changed)
	j.changed = make(chan struct{})
}

// tick is how often an import says how far it is.
const tick = 200 * time.Millisecond

// write reads the whole file into a new edition and activates it.
func (a *App) write(ctx context.Context, j *job, form ImportForm) (err error) {
	heading, err := json.Marshal(nonNil(j.layout.Heading))
	if err != nil {
		return err
	}
	if form.Prose {
		form.Columns = nil // lines of words have no columns, also when one is mended
	}
	mapping, err := json.Marshal(nonNilMapping(form.Columns))
	if err != nil {
		return err
	}
	mended, err := a.store.Mended(ctx, form.Source)
	if err != nil {
		return err
	}
	e, err := a.store.NewEdition(ctx, form.Source, a.now().UTC().Format(time.RFC3339), j.file, string(heading), string(mapping))
	if err != nil {
		return err
	}
	defer func() {
		if err != nil {
			err = errors.Join(err, e.Abandon())
		}
	}()
	t, _, err := exchange.Open(j.path)
	if err != nil {
		return err
	}
	good, err := j.rows(ctx, t, e, form, mended)
	if err = errors.Join(err, t.Close()); err != nil { // closed before the edition counts: what fails, fails whole
		return err
	}
	if err := a.losses(ctx, form, good); err != nil {
		return err
	}
	changes, again, err := e.Changes(ctx)
	if err != nil {
		return err
	}
	if again {
		j.update(func(s *ImportState) { s.Changes = &changes })
	}
	if j.layout.Heading != nil && !form.Prose && form.Confirmed {
		if err := a.store.SaveMapping(ctx, j.layout.Heading, form.Source, string(mapping)); err != nil {
			return err
		}
	}
	if again && form.Hold {
		if err := ctx.Err(); err != nil {
			return err
		}
		j.mu.Lock()
		j.held = e
		j.mu.Unlock()
		return nil
	}
	return e.Activate(ctx)
}

// rows reads every row: the good ones into the edition, the others beside it.
func (j *job) rows(ctx context.Context, t exchange.Table, e *store.Edition, form ImportForm, mended map[string][]string) (good int, err error) {
	read, reader := j.reader(form.Columns, form.Source, form.Prose)
	start, last := time.Now(), time.Time{}
	bad, aside := 0, 0
	tell := func() {
		last = time.Now()
		j.update(func(s *ImportState) {
			s.State, s.Rows, s.Good, s.Bad, s.Aside, s.Bytes = ImportReading, good+bad, good, bad, aside, t.Bytes()
			s.Seconds = time.Since(start).Seconds()
			s.Rate = float64(s.Rows) / max(s.Seconds, 0.001)
			if s.Bytes > 0 && s.Total > 0 {
				left := max(0, s.Seconds*(float64(s.Total)/float64(s.Bytes)-1))
				s.Left = &left
			}
		})
	}
	tell()
	for n := 0; ; n++ {
		line, cells, err := t.Next()
		if errors.Is(err, io.EOF) {
			tell()
			return good, e.Settle(ctx, reader.Repeated())
		}
		if err != nil {
			return good, err
		}
		if n < j.layout.From {
			continue
		}
		if n%256 == 0 && time.Since(last) > tick {
			tell()
		}
		if err := ctx.Err(); err != nil {
			return good, err
		}
		if _, ok := j.layout.Aside(form.Columns, cells); ok && !form.Prose {
			aside++
			continue
		}
		if form.Prose {
			cells = []string{strings.Join(cells, cmp.Or(j.info.Delimiter, " "))}
		}
		rec, faults := read(cells)
		if len(faults) > 0 && len(mended) > 0 {
			was, err := json.Marshal(cells)
			if err != nil {
				return good, err
			}
			if again, ok := mended[string(was)]; ok && again == nil {
				aside++ // somebody discarded this very row
				continue
			} else if ok {
				rec, faults = read(again)
			}
		}
		if len(faults) == 0 {
			good++
			err = e.Add(ctx, rec)
		} else {
			bad++
			err = keep(ctx, e, line, cells, faults)
		}
		if err != nil {
			return good, err
		}
	}
}

// keep keeps a row that could not be read.
func keep(ctx context.Context, e *store.Edition, line int, cells []string, faults []intake.Fault) error {
	c, err := json.Marshal(cells)
	if err != nil {
		return err
	}
	f, err := json.Marshal(faults)
	if err != nil {
		return err
	}
	return e.Reject(ctx, store.Reject{Line: line, Cells: c, Faults: f})
}

func nonNilMapping(m intake.Mapping) intake.Mapping { return append(intake.Mapping{}, m...) }

func nonNil(s []string) []string { return append([]string{}, s...) }

// Import says how far an import is.
func (a *App) Import(id string) (*ImportState, error) {
	j, err := a.imports.find(id)
	if err != nil {
		return nil, err
	}
	j.mu.Lock()
	defer j.mu.Unlock()
	s := j.state
	return &s, nil
}

// WatchImport calls f with the state now and whenever it changes, until the
// import is over.
func (a *App) WatchImport(ctx context.Context, id string, f func(ImportState) error) error {
	j, err := a.imports.find(id)
	if err != nil {
		return err
	}
	for {
		j.mu.Lock()
		s, changed := j.state, j.changed
		j.mu.Unlock()
		if err := f(s); err != nil || s.Over() {
			return err
		}
		select {
		case <-changed:
		case <-ctx.Done():
			return ctx.Err()
		}
	}
}

// DropImport cancels an import, or forgets a file that was only looked at.
func (a *App) DropImport(id string) error {
	j, err := a.imports.find(id)
	if err != nil {
		return err
	}
	j.mu.Lock()
	state, cancel := j.state.State, j.cancel
	j.mu.Unlock()
	if cancel != nil && (state == ImportWaiting || state == ImportReading) {
		cancel()
		return nil
	}
	a.imports.mu.Lock()
	delete(a.imports.jobs, id)
	a.imports.mu.Unlock()
	j.mu.Lock()
	held := j.held
	j.held = nil
	j.mu.Unlock()
	if held != nil {
		return held.Abandon()
	}
	if state == ImportShown || state == ImportDoubted {
		return os.Remove(j.path)
	}
	return nil
}

// Source is a listing that counts.
type Source struct {
	Name    string `json:"name"`
	File    string `json:"file"`
	Updated string `json:"updated"` // when it was brought in
	Records int    `json:"records"`
	Rejects int    `json:"rejects"`
}

// Sources returns the listings that count.
func (a *App) Sources(ctx context.Context) ([]Source, error) {
	editions, err := a.store.Editions(ctx)
	if err != nil {
		return nil, err
	}
	out := []Source{}
	for _, e := range editions {
		out = append(out, Source{Name: e.Source, File: e.File, Updated: e.ImportedAt, Records: e.Records, Rejects: e.Rejects})
	}
	return out, nil
}

// DropSource removes a listing.
func (a *App) DropSource(ctx context.Context, name string) error {
	if strings.TrimSpace(name) == "" {
		return fmt.Errorf("source: %w", fault.ErrNotFound)
	}
	return a.store.DropSource(ctx, name)
}
