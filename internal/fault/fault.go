// Package fault holds the errors that every layer above the core speaks. What
// they say is meant for people; which of them it is decides what a caller does.
//
//	if errors.Is(err, fault.ErrNotFound) { ... }
//	var invalid *fault.Invalid
//	if errors.As(err, &invalid) { ... invalid.Fields ... }
package fault

import (
	"cmp"
	"errors"
	"fmt"
	"slices"
	"strings"
)

var (
	// ErrNotFound is returned where something that was asked for does not exist.
	ErrNotFound = errors.New("not found")

	// ErrNothing is returned where there is nothing to undo or redo.
	ErrNothing = errors.New("nothing to undo or redo")

	// ErrDone is returned for a change that took place already, when it was asked
	// for under the same key.
	ErrDone = errors.New("it is done already")

	// ErrGone is returned for every change after the data file was removed or
	// replaced while it was open: what is written into it then is lost.
	ErrGone = errors.New("the data file is gone")

	// ErrBusy is returned where another process writes the data file and does not
	// let go. The change did not take place.
	ErrBusy = errors.New("the data file is busy")

	// ErrFull is returned where the disk has no room for a change. The change did
	// not take place.
	ErrFull = errors.New("the disk is full")
)

// Field is one thing that is wrong with a request.
type Field struct {
	Field   string `json:"field"`
	Message string `json:"message"`
}

// Invalid is a request that cannot be carried out because of what it says;
// every field at fault is named. Nothing was changed.
type Invalid struct{ Fields []Field }

// Error joins what is wrong with each field.
func (f *Invalid) Error() string {
	var parts []string
	for _, x := range f.Fields {
		parts = append(parts, x.Field+": "+x.Message)
	}
	return strings.Join(parts, "; ")
}

// Add notes what is wrong with a field.
func (f *Invalid) Add(field, message string, args ...any) {
	f.Fields = append(f.Fields, Field{Field: field, Message: fmt.Sprintf(message, args...)})
}

// Has reports whether a field is at fault already.
func (f *Invalid) Has(field string) bool {
	return slices.ContainsFunc(f.Fields, func(x Field) bool { return x.Field == field })
}

// Or returns f as an error if any field is at fault.
func (f *Invalid) Or() error {
	if len(f.Fields) == 0 {
		return nil
	}
	return f
}

// Stale is a change that was refused because what it changes is no longer as
// the caller saw it, or as the change that is taken back left it.
type Stale struct {
	Now any    // how things stand now, for who shows them; nil below
	Why string // which row, what it was and what it is; or empty
	Who string // whose change stands in the way, where that is known
}

// Error says which row stands in the way, where that is known.
func (s *Stale) Error() string {
	why := cmp.Or(s.Why, "it has changed meanwhile; here it is as it stands now")
	if s.Who != "" {
		why += " (by " + s.Who + ")"
	}
	return why
}

// IsStale reports whether an error is one.
func IsStale(err error) bool {
	var s *Stale
	return errors.As(err, &s)
}
