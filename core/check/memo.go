package check

import (
	"context"
	"runtime"
	"slices"
	"strings"
	"sync"
	"time"

	"golang.org/x/sync/errgroup"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/evidence"
	"mnemos/core/geo"
	"mnemos/core/listing"
	"mnemos/core/mend"
	"mnemos/core/radio"
)

// facts are what the listings say about one channel, looked up once. They
// depend on the channel, the operator's place and the listings, and neither on
// the radio nor on what else it holds.
type facts struct {
	mu       sync.Mutex
	of       int64 // the generation that they are of
	asked    asked // what was looked up for them
	found    bool  // outputs, inputs and unsearched are looked up
	searched bool  // candidates and census are, because somebody doubted

	outputs, inputs []listing.Match
	unsearched      bool
	candidates      []mend.Candidate
	census          *Census

	judged map[judgedBy]*judgement
}

// judgedBy are what a channel is judged by beside the facts.
type judgedBy struct {
	radio           *radio.Profile
	stale           int
	policy          TonePolicy
	unlicensed      bool
	services, bands string
	heard           evidence.Heard // a test that is logged changes the verdict at once
}

// kept is how many judgements of one channel are remembered: for each of the
// radios that hold it and each of the people who look.
const kept = 16

func (s Subject) judgedBy() judgedBy {
	return judgedBy{s.Radio, s.Stale, s.TonePolicy, s.Unlicensed, strings.Join(s.Services, "\n"), strings.Join(s.Bands, "\n"), s.Heard}
}

// judge runs the rules over a subject with its facts, and looks up those that
// are missing or that changed.
func (f *facts) judge(ctx context.Context, src listing.Source, e Generation, s Subject) (Result, error) {
	f.mu.Lock()
	defer f.mu.Unlock()
	if f.of != e.Number {
		if f.found && f.asked.changed(e, f.of) {
			f.found, f.searched, f.judged = false, false, nil
			f.candidates, f.census = nil, nil
		}
		f.of = e.Number
	}
	c := s.judgedBy()
	if j := f.judged[c]; j != nil {
		return j.with(s), nil
	}
	j, err := f.judgement(ctx, watched{src, &f.asked}, s)
	if err != nil {
		return Result{}, err
	}
	if len(f.judged) >= kept {
		f.judged = nil
	}
	if f.judged == nil {
		f.judged = map[judgedBy]*judgement{}
	}
	f.judged[c] = j
	return j.with(s), nil
}

func (f *facts) judgement(ctx context.Context, src listing.Source, s Subject) (*judgement, error) {
	if err := f.find(ctx, src, s); err != nil {
		return nil, err
	}
	s.Outputs, s.Inputs, s.Unsearched = f.outputs, f.inputs, f.unsearched
	j := alone(s)
	r := Result{Verdict: j.verdict(nil), Meant: j.pass.Meant}
	if !doubtful(s, r) {
		return j, nil
	}
	if err := f.search(ctx, src, s, r); err != nil {
		return nil, err
	}
	if len(f.candidates) == 0 && f.census == nil {
		return j, nil
	}
	s.Candidates, s.Census = f.candidates, f.census
	return alone(s), nil
}

func (f *facts) find(ctx context.Context, src listing.Source, s Subject) (err error) {
	if f.found {
		return nil
	}
	f.asked = asked{} // what was asked by one that failed
	if s.Channel.Receive != 0 {
		if f.outputs, f.inputs, err = listing.Find(ctx, src, s.Plan, s.Channel, s.query()); err != nil {
			return err
		}
	}
	f.asked.joined = slices.Clone(f.asked.outputs)
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

// Memo remembers what the listings say about the channels of plans and how
// those are judged, so that a plan is not judged anew after each change of it.
// The zero value is ready, and several may judge at once.
type Memo struct {
	mu    sync.Mutex
	day   string
	known map[question]*facts
}

// question is what facts answer.
type question struct {
	channel              channel.Channel
	plan                 *band.Plan
	place                geo.Point
	placed               bool
	radius, height, slip float64
}

// most is how many channels are remembered: some plans of a thousand.
const most = 10_000

// JudgeAll judges stored channels side by side, on every processor. The
// results stand in the order of the subjects. src is what is published in the
// generation.
func (m *Memo) JudgeAll(ctx context.Context, src listing.Source, e Generation, subjects []Subject) ([]Result, error) {
	e.Changed = remembered(e.Changed)
	all := m.of(subjects)
	out := make([]Result, len(subjects))
	g, ctx := errgroup.WithContext(ctx)
	parts := min(runtime.GOMAXPROCS(0), len(subjects))
	for part := range parts {
		g.Go(func() (err error) {
			for i := part; i < len(subjects); i += parts {
				if out[i], err = all[i].judge(ctx, src, e, subjects[i]); err != nil {
					return err
				}
			}
			return nil
		})
	}
	return out, g.Wait()
}

// of returns the facts of each subject, known or to be looked up.
func (m *Memo) of(subjects []Subject) []*facts {
	m.mu.Lock()
	defer m.mu.Unlock()
	out := make([]*facts, len(subjects))
	var at time.Time
	for i, s := range subjects {
		if s.Draft != nil {
			out[i] = &facts{} // what was typed counts too
			continue
		}
		if i == 0 || !s.Today.Equal(at) {
			at = s.Today
			if day := at.Format("2006-01-02"); day != m.day {
				m.day, m.known = day, nil // ages are of a day
			}
		}
		q := question{channel: s.Channel, plan: s.Plan, radius: s.RadiusKM, height: s.Height, slip: s.SlipWeight}
		if s.Place != nil {
			q.place, q.placed = *s.Place, true
		}
		f := m.known[q]
		if f == nil {
			if m.known == nil || len(m.known) >= most {
				m.known = map[question]*facts{}
			}
			f = &facts{}
			m.known[q] = f
		}
		out[i] = f
	}
	return out
}

// JudgeAll judges the channels of a plan, all looked up anew.
func JudgeAll(ctx context.Context, src listing.Source, subjects []Subject) ([]Result, error) {
	return new(Memo).JudgeAll(ctx, src, Generation{}, subjects)
}
