package importing

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
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

// Run begins to read a file into an edition of a source. Nobody sees
// any of it before all of it is there.
func (m *Imports) Run(ctx context.Context, id string, form Form) (*State, error) {
	f, err := m.find(id)
	if err != nil {
		return nil, err
	}
	source := intake.Clean(form.Source)
	view, err := f.settle(&form)
	if err != nil {
		return nil, err
	}
	wrong := &fault.Invalid{}
	if view.Asked() && !form.Prose && form.Columns.Viewpoint() != "" {
		wrong.Add("viewpoint", "say whose TX it is. %s Or the other way round?", form.Columns.Sentence(view.Viewpoint, f.layout.Heading, f.cells()))
	}
	if source == "" || source == "." || source == ".." || utf8.RuneCountInString(source) > 60 { // the dots are a path

		wrong.Add("source", "name the listing, in up to 60 characters: it stands beside every record")
	}
	used := map[intake.Role]int{}
	for _, c := range form.Columns {
		used[c.Role]++
	}
	for role, n := range used {
		if role != intake.Ignore && n > 1 {
			wrong.Add("columns", "two columns are %s: choose one", role)
		}
	}
	if !form.Prose && used[intake.Output] == 0 {
		wrong.Add("columns", "say which column is the output frequency")
	}
	if err := wrong.Or(); err != nil {
		return nil, err
	}
	stamp, err := m.fleet.Stamp(ctx, "import "+source)
	if err != nil {
		return nil, err
	}
	if f.State().State == Held {
		if held := f.take(); held != nil {
			return f.count(ctx, held, stamp)
		}
	}
	form.Source = source
	err = f.Start(ctx, func(s *State) error {
		if s.State != Shown && s.State != Doubted {
			wrong.Add("id", "this import is %s already", s.State)
			return wrong
		}
		s.State, s.Source = Waiting, source
		return nil
	}, func(ctx context.Context) error { return m.write(ctx, f, form, stamp) }, f.end)
	if err != nil {
		return nil, err
	}
	s := f.State()
	return &s, nil
}

// count lets an edition count that was held back.
func (f *file) count(ctx context.Context, held *store.Edition, stamp store.Stamp) (*State, error) {
	err := held.Activate(ctx, stamp)
	f.Update(func(s *State) {
		if s.State = Done; err != nil {
			s.State, s.Error = Failed, err.Error()
		}
	})
	if err != nil {
		return nil, errors.Join(err, held.Abandon())
	}
	s := f.State()
	return &s, nil
}

// hold keeps an edition that waits for a person; take gives it to whoever asks
// first.
func (f *file) hold(e *store.Edition) {
	f.mu.Lock()
	defer f.mu.Unlock()
	f.held = e
}

func (f *file) take() (held *store.Edition) {
	f.mu.Lock()
	defer f.mu.Unlock()
	held, f.held = f.held, nil
	return held
}

func (f *file) holds() bool {
	f.mu.Lock()
	defer f.mu.Unlock()
	return f.held != nil
}

// end puts an import in order that is over, and says what became of it.
func (f *file) end(ctx context.Context, err error) func(*State) {
	if ctx.Err() != nil { // perhaps in the last moment
		if held := f.take(); held != nil {
			err = errors.Join(ctx.Err(), held.Abandon())
		}
	}
	var loss lossError
	if doubted := errors.As(err, &loss); !doubted {
		// What is done is done, also where its file stays: the next start clears it.
		if gone := os.Remove(f.path); err != nil && !errors.Is(gone, os.ErrNotExist) {
			err = errors.Join(err, gone)
		}
	}
	cancelled, held := ctx.Err() != nil, f.holds()
	return func(s *State) {
		switch {
		case err != nil && cancelled: // whatever the cancelled transaction says
			s.State = Cancelled
		case loss.source != "":
			s.State, s.Error = Doubted, loss.Error()
		case err != nil:
			s.State, s.Error = Failed, err.Error()
		case held:
			s.State = Held
		default:
			s.State = Done
		}
		s.Left = nil
	}
}

// tick is how often an import says how far it is.
const tick = 200 * time.Millisecond

// write reads the whole file into a new edition and activates it.
func (m *Imports) write(ctx context.Context, f *file, form Form, stamp store.Stamp) (err error) {
	heading, err := json.Marshal(nonNil(f.layout.Heading))
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
	mended, err := m.store.Mended(ctx, form.Source)
	if err != nil {
		return err
	}
	e, err := m.store.NewEdition(ctx, form.Source, m.now().UTC().Format(time.RFC3339), f.name, string(heading), string(mapping))
	if err != nil {
		return err
	}
	defer func() {
		if err != nil {
			err = errors.Join(err, e.Abandon())
		}
	}()
	t, _, err := exchange.Open(f.path)
	if err != nil {
		return err
	}
	good, err := f.rows(ctx, t, e, form, mended)
	if err = errors.Join(err, t.Close()); err != nil { // closed before the edition counts: what fails, fails whole
		return err
	}
	if err := m.losses(ctx, form, good); err != nil {
		return err
	}
	changes, again, err := e.Changes(ctx)
	if err != nil {
		return err
	}
	if again {
		f.Update(func(s *State) { s.Changes = &changes })
	}
	if f.layout.Heading != nil && !form.Prose && form.Confirmed {
		if err := m.store.SaveMapping(ctx, f.layout.Heading, form.Source, string(mapping)); err != nil {
			return err
		}
	}
	if again && form.Hold {
		if err := ctx.Err(); err != nil {
			return err
		}
		f.hold(e)
		return nil
	}
	return e.Activate(ctx, stamp)
}

// rows reads every row: the good ones into the edition, the others beside it.
func (f *file) rows(ctx context.Context, t exchange.Table, e *store.Edition, form Form, mended map[string][]string) (good int, err error) {
	read, reader := f.reader(form.Columns, form.Source, form.Prose)
	start, last := time.Now(), time.Time{}
	bad, aside := 0, 0
	tell := func() {
		last = time.Now()
		f.Update(func(s *State) {
			s.State, s.Rows, s.Good, s.Bad, s.Aside, s.Bytes = Reading, good+bad, good, bad, aside, t.Bytes()
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
		if n < f.layout.From {
			continue
		}
		if n%256 == 0 && time.Since(last) > tick {
			tell()
		}
		if err := ctx.Err(); err != nil {
			return good, err
		}
		if _, ok := f.layout.Aside(form.Columns, cells); ok && !form.Prose {
			aside++
			continue
		}
		if form.Prose {
			cells = []string{strings.Join(cells, cmp.Or(f.info.Delimiter, " "))}
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
	wrong, err := json.Marshal(faults)
	if err != nil {
		return err
	}
	return e.Reject(ctx, store.Reject{Line: line, Cells: c, Faults: wrong})
}

func nonNilMapping(m intake.Mapping) intake.Mapping { return append(intake.Mapping{}, m...) }

func nonNil(s []string) []string { return append([]string{}, s...) }

// State says how far an import is.
func (m *Imports) State(id string) (*State, error) {
	f, err := m.find(id)
	if err != nil {
		return nil, err
	}
	s := f.State()
	return &s, nil
}

// States says how far each import is.
func (m *Imports) States() map[string]State { return m.jobs.States() }

// Watch calls f with the state now and whenever it changes, until the import
// is over.
func (m *Imports) Watch(ctx context.Context, id string, f func(State) error) error {
	x, err := m.find(id)
	if err != nil {
		return err
	}
	return x.Watch(ctx, f)
}

// Drop cancels an import, or forgets a file that was only looked at.
func (m *Imports) Drop(id string) error {
	if _, err := m.find(id); err != nil {
		return err
	}
	m.mu.Lock()
	defer m.mu.Unlock()
	return m.jobs.Drop(id)
}
