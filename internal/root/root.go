// Package root is where work begins that has nobody above it: a request, a job,
// a goroutine. A panic in it fails that piece of work, in words, and nothing
// else. What cannot go on ends the process at once: the data file is whole at
// every moment, and the next start reads it.
//
//	root.Go("read the records", build, func(err error) { ... })
package root

import (
	"fmt"
	"log/slog"
	"os"
	"runtime/debug"
	"sync/atomic"
)

// Panic is what a piece of work failed with that met what nobody foresaw.
type Panic struct {
	What  string // what was being done: "import a listing"
	Value any
}

// Error is for whoever asked for the work. The stack is in the log.
func (p *Panic) Error() string {
	return fmt.Sprintf("Mnemos failed to %s, through a fault of its own. What was saved before is safe. Try again; if it fails again, report it with the log", p.What)
}

// Try does work, and returns a panic in it as a *Panic.
func Try(what string, work func() error) (err error) {
	defer func() {
		if v := recover(); v != nil {
			slog.Error("panic", "while", what, "value", v, "stack", string(debug.Stack()))
			err = &Panic{what, v}
		}
	}()
	return work()
}

// Go does work beside whatever goes on, and tells over what came of it. If even
// that panics, nobody knows any more how things stand, and the process ends.
func Go(what string, work func() error, over func(error)) {
	go func() {
		err := Try(what, work)
		Must(what, func() { over(err) })
	}()
}

// Must does what others rely on. If it panics, the process ends.
func Must(what string, work func()) {
	if err := Try(what, func() error { work(); return nil }); err != nil {
		slog.Error("cannot go on", "while", what)
		exit(Failed)
	}
}

// Failed is the code with which a process ends that cannot go on.
const Failed = 70

var exit = os.Exit

var probe atomic.Pointer[func(place string)]

// Here names a place in the work. It does nothing, unless a test watches.
func Here(place string) {
	if f := probe.Load(); f != nil {
		(*f)(place)
	}
}

// Watch has a test called at every named place, until it calls the function that
// comes back.
func Watch(f func(place string)) (end func()) {
	probe.Store(&f)
	return func() { probe.Store(nil) }
}
