package app

import (
	"context"
	"errors"
	"fmt"

	"mnemos/internal/fault"
	"mnemos/internal/store"
)

// The states of an import.
const (
	ImportShown     = "shown"   // it waits for a person to say how to read it
	ImportWaiting   = "waiting" // another one is being written
	ImportReading   = "reading"
	ImportDone      = "done"
	ImportFailed    = "failed"
	ImportCancelled = "cancelled"
	ImportHeld      = "held"    // it is read; a person has seen how the listing changes, or not
	ImportDoubted   = "doubted" // it would lose most of the listing: a person has to say that it is meant
)

// ImportState says how far an import is.
type ImportState struct {
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
func (s ImportState) Over() bool {
	return s.State == ImportDone || s.State == ImportFailed || s.State == ImportCancelled || s.State == ImportDoubted || s.State == ImportHeld
}

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
func (a *App) losses(ctx context.Context, form ImportForm, good int) error {
	old, err := a.edition(ctx, form.Source)
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
