// Package job runs long work: one after another, each with a state that others
// watch, and with an end that somebody may ask for.
package job

import (
	"context"
	"errors"
	"fmt"
	"sync"

	"mnemos/internal/fault"
	"mnemos/internal/live"
	"mnemos/internal/root"
)

// State is how far a job is. Over says that it has ended and waits for nobody;
// Busy that it is at work, or waits for its turn.
type State interface {
	Over() bool
	Busy() bool
}

// Job is one piece of long work.
type Job[S State] struct {
	ID string

	runner  *Runner[S]
	forget  func() error
	mu      sync.Mutex
	state   S
	cancel  context.CancelFunc
	changed chan struct{} // closed and replaced whenever the state changes
}

// Runner knows the jobs of one kind.
type Runner[S State] struct {
	kind string
	hub  *live.Hub
	turn chan struct{} // holds one token
	mu   sync.Mutex
	jobs map[string]*Job[S]
	next int
}

// kept is how many jobs are remembered: those that ended, and those that
// nobody began.
const kept = 20

// NewRunner returns a runner that tells the hub of its jobs.
func NewRunner[S State](kind string, hub *live.Hub) *Runner[S] {
	r := &Runner[S]{kind: kind, hub: hub, turn: make(chan struct{}, 1), jobs: map[string]*Job[S]{}}
	r.turn <- struct{}{}
	return r
}

// Add takes a job in that nobody has begun, and forgets the oldest ones that
// are not at work. forget is called when this one is forgotten.
func (r *Runner[S]) Add(state S, forget func() error) (*Job[S], error) {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.next++
	j := &Job[S]{ID: fmt.Sprint(r.next), runner: r, forget: forget, state: state, changed: make(chan struct{})}
	r.jobs[j.ID] = j
	var err error
	for n := r.next - kept; n > 0; n-- {
		old, ok := r.jobs[fmt.Sprint(n)]
		if !ok || old.State().Busy() {
			continue
		}
		delete(r.jobs, old.ID)
		err = errors.Join(err, old.forget())
	}
	return j, err
}

// Find returns a job by its ID.
func (r *Runner[S]) Find(id string) (*Job[S], error) {
	r.mu.Lock()
	defer r.mu.Unlock()
	j, ok := r.jobs[id]
	if !ok {
		return nil, fmt.Errorf("%s %s: %w", r.kind, id, fault.ErrNotFound)
	}
	return j, nil
}

// States returns how far every job is, the oldest first.
func (r *Runner[S]) States() map[string]S {
	r.mu.Lock()
	defer r.mu.Unlock()
	out := map[string]S{}
	for id, j := range r.jobs {
		out[id] = j.State()
	}
	return out
}

// Drop asks a job that is at work to end, and forgets any other.
func (r *Runner[S]) Drop(id string) error {
	j, err := r.Find(id)
	if err != nil {
		return err
	}
	if j.stop() {
		return nil
	}
	r.remove(id)
	return j.forget()
}

func (r *Runner[S]) remove(id string) {
	r.mu.Lock()
	defer r.mu.Unlock()
	delete(r.jobs, id)
}

// stop asks a job that is at work to end; ok is false for any other.
func (j *Job[S]) stop() (ok bool) {
	j.mu.Lock()
	defer j.mu.Unlock()
	if ok = j.state.Busy() && j.cancel != nil; ok {
		j.cancel()
	}
	return ok
}

// State is how far the job is.
func (j *Job[S]) State() S {
	j.mu.Lock()
	defer j.mu.Unlock()
	return j.state
}

// Update changes the state, and tells those who watch. f waits for nothing: it
// runs under the lock of the job.
func (j *Job[S]) Update(f func(*S)) {
	j.mu.Lock()
	defer j.mu.Unlock()
	root.Here("job: update")
	f(&j.state)
	close(j.changed)
	j.changed = make(chan struct{})
	j.runner.hub.Publish(j.runner.kind, j.ID, Told[S]{j.ID, j.state})
}

// Told is what the hub is told of a job.
type Told[S State] struct {
	ID    string
	State S
}

// Start runs work when its turn comes; begin sets the state that says so, or
// refuses. The work ends early when ctx ends, which outlives the one that is
// given, or when the job is dropped. end puts in order what the work left, and
// says which state that is. A panic in the work is how it failed; one in end has
// end called with it once more.
func (j *Job[S]) Start(ctx context.Context, begin func(*S) error, work func(context.Context) error, end func(ctx context.Context, err error) func(*S)) error {
	j.mu.Lock()
	defer j.mu.Unlock()
	if err := begin(&j.state); err != nil {
		return err
	}
	run, cancel := context.WithCancel(context.WithoutCancel(ctx))
	j.cancel = cancel
	root.Go(j.runner.kind, func() error { return j.turn(run, work) }, func(err error) {
		defer cancel()
		if failed := root.Try(j.runner.kind, func() error { j.Update(end(run, err)); return nil }); failed != nil {
			j.Update(end(run, failed))
		}
	})
	return nil
}

// turn does the work when nobody else does any.
func (j *Job[S]) turn(ctx context.Context, work func(context.Context) error) error {
	select {
	case <-j.runner.turn:
		defer func() { j.runner.turn <- struct{}{} }()
		root.Here("job: work")
		return work(ctx)
	case <-ctx.Done():
		return ctx.Err()
	}
}

// Watch calls f with the state now and whenever it changes, until it is over.
func (j *Job[S]) Watch(ctx context.Context, f func(S) error) error {
	for {
		s, changed := j.look()
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

func (j *Job[S]) look() (S, chan struct{}) {
	j.mu.Lock()
	defer j.mu.Unlock()
	return j.state, j.changed
}
