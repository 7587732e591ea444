package importing

import (
	"context"
	"errors"
	"fmt"

	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// The states of an import.
const (
	Shown     = "shown"   // it waits for a person to say how to read it
	Waiting   = "waiting" // another one is being written
	Reading   = "reading"
	Done      = "done"
	Failed    = "failed"
	Cancelled = "cancelled"
	Held      = "held"    // it is read; a person has seen how the listing changes, or not
	Doubted   = "doubted" // it would lose most of the listing: a person has to say that it is meant
)

// State says how far an import is.
type State struct {
	State   string         `json:"state"`
	Rows    int            `json:"rows"`
	Good    int            `json:"good"`
	Bad     int            `json:"bad"`
	Aside   int            `json:"aside"` // totals, notes and headings between the rows
	Bytes   int64          `json:"bytes"`
	Total   int64          `json:"total_bytes"`
	Seconds float64        `json:"seconds"`
	Rate    float64        `json:"rows_per_second"`
	Left    *float64       `json:"seconds_left"` // nil where it cannot be told
	Error   string         `json:"error"`
	Source  string         `json:"source"`
	Changes *store.Changes `json:"changes"` // against the edition before; nil for a new listing
}

// Over reports whether the import has ended.
func (s State) Over() bool {
	return s.State == Done || s.State == Failed || s.State == Cancelled || s.State == Doubted || s.State == Held
}

// Busy reports whether it is at work, or waits for its turn.
func (s State) Busy() bool { return s.State == Waiting || s.State == Reading }

// lossError is returned for a file that would leave little of a listing.
type lossError struct {
	source    string
	had, good int
}

func (e lossError) Error() string {
	if e.good == 0 {
		return fmt.Sprintf("no row could be read, and %s has %d records: nothing was changed", e.source, e.had)
	}
	return fmt.Sprintf("%s has %d records, and only %d rows of this file could be read: nothing was changed", e.source, e.had, e.good)
}

// fewest is below how many records a listing is too small to judge a loss by.
const fewest = 10

// losses reports a file that would leave less than half of a listing.
func (m *Imports) losses(ctx context.Context, form Form, good int) error {
	old, err := m.edition(ctx, form.Source)
	if errors.Is(err, fault.ErrNotFound) {
		if good == 0 {
			return errors.New("no row could be read: nothing was imported")
		}
		return nil
	}
	if err != nil {
		return err
	}
	if form.AcceptLosses || old.Records < fewest && good > 0 || good*2 >= old.Records && good > 0 {
		return nil
	}
	return lossError{form.Source, old.Records, good}
}

// Change is one record in which an edition differs from the one before.
type Change = store.Change
