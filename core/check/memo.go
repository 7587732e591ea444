package check

import (
	"context"
	"runtime"
	"sync"

	"golang.org/x/sync/errgroup"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/mend"
)

// facts are what the listings say about one channel, looked up once. They
// depend on the channel, the operator's place and the listings, and neither on
// the radio nor on what else it holds.
type facts struct {
	mu       sync.Mutex
	found    bool // outputs, inputs and unsearched are looked up
	searched bool // candidates and census are, because somebody doubted

	outputs, inputs []listing.Match
	unsearched      bool
	candidates      []mend.Candidate
	census          *Census
}

// judge runs the rules over a subject with its facts, and looks up those that
// are missing.
func (f *facts) judge(ctx context.Context, src listing.Source, s Subject) (Result, error) {
	f.mu.Lock()
	defer f.mu.Unlock()
	if err := f.find(ctx, src, s); err != nil {
		return Result{}, err
	}
	s.Outputs, s.Inputs, s.Unsearched = f.outputs, f.inputs, f.unsearched
	r := Run(s)
	if !doubtful(s, r) {
		return r, nil
	}
	if err := f.search(ctx, src, s, r); err != nil {
		return Result{}, err
	}
	if len(f.candidates) == 0 && f.census == nil {
		return r, nil
	}
	s.Candidates, s.Census = f.candidates, f.census
	return Run(s), nil
}

func (f *facts) find(ctx context.Context, src listing.Source, s Subject) (err error) {
	if f.found {
		return nil
	}
	if s.Channel.Receive != 0 {
		if f.outputs, f.inputs, err = listing.Find(ctx, src, s.Plan, s.Channel, s.query()); err != nil {
			return err
		}
	}
	s.Outputs, s.Inputs = f.outputs, f.inputs
	if f.unsearched, err = unsearched(ctx, src, s, s.query()); err != nil {
		return err
	}
	f.found = true
	return nil
}

func (f *facts) search(ctx context.Context, src listing.Source, s Subject, r Result) (err error) {
	if f.searched {
		return nil
	}
	e, ok := mend.Stored(s.Channel), true
	if s.Draft != nil {
		e, ok = mend.Typed(s.Draft, s.Plan)
	}
	if ok {
		e.Weight = s.SlipWeight
		if f.candidates, err = mend.Search(ctx, src, s.Plan, e, s.query(), s.Today); err != nil {
			return err
		}
		if f.census, err = census(ctx, src, s, r, s.query()); err != nil {
			return err
		}
	}
	f.searched = true
	return nil
}

// Memo remembers what the listings say about the channels of plans, so that a
// plan is not looked up anew after each change of it. The zero value is ready,
// and several may judge at once.
type Memo struct {
	mu    sync.Mutex
	at    conditions
	known map[channel.Channel]*facts
}

// conditions are what facts depend on beside the channel: with any other
// everything is looked up again.
type conditions struct {
	generation           int64
	plan                 *band.Plan
	place                geo.Point
	placed               bool
	radius, height, slip float64
	day                  string
}

// most is how many channels are remembered: some plans of a thousand.
const most = 10_000

// JudgeAll judges stored channels side by side, on every processor, under one
// set of conditions. The results stand in the order of the subjects. The
// generation must change whenever src says something else.
func (m *Memo) JudgeAll(ctx context.Context, src listing.Source, generation int64, subjects []Subject) ([]Result, error) {
	out := make([]Result, len(subjects))
	g, ctx := errgroup.WithContext(ctx)
	g.SetLimit(runtime.GOMAXPROCS(0))
	for i, s := range subjects {
		f := m.of(s, generation)
		g.Go(func() (err error) {
			out[i], err = f.judge(ctx, src, s)
			return err
		})
	}
	return out, g.Wait()
}

// of returns the facts of a subject, known or to be looked up.
func (m *Memo) of(s Subject, generation int64) *facts {
	if s.Draft != nil {
		return &facts{} // what was typed counts too
	}
	at := conditions{generation: generation, plan: s.Plan, radius: s.RadiusKM, height: s.Height, slip: s.SlipWeight, day: s.Today.Format("2006-01-02")}
	if s.Place != nil {
		at.place, at.placed = *s.Place, true
	}
	m.mu.Lock()
	defer m.mu.Unlock()
	if m.at != at || len(m.known) >= most {
		m.at, m.known = at, map[channel.Channel]*facts{}
	}
	f := m.known[s.Channel]
	if f == nil {
		f = &facts{}
		m.known[s.Channel] = f
	}
	return f
}

// JudgeAll judges the channels of a plan, all looked up anew.
func JudgeAll(ctx context.Context, src listing.Source, subjects []Subject) ([]Result, error) {
	return new(Memo).JudgeAll(ctx, src, 0, subjects)
}
