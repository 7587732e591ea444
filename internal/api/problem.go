package api

import (
	"context"
	"encoding/json"
	"errors"
	"log/slog"
	"net/http"

	"github.com/labstack/echo/v5"

	"mnemos/internal/fault"
	"mnemos/internal/fleet"
	"mnemos/internal/house"
	"mnemos/internal/plan"
	"mnemos/internal/root"
)

// ErrorHandler writes every error as a problem detail (RFC 9457).
func ErrorHandler(c *echo.Context, err error) {
	if res, _ := echo.UnwrapResponse(c.Response()); res != nil && res.Committed {
		slog.Error("answer cut off", "path", c.Request().URL.Path, "error", err)
		panic(http.ErrAbortHandler) // half an answer must not look like a whole one
	}
	if errors.Is(err, context.Canceled) {
		if err := c.NoContent(statusLeft); err != nil {
			slog.Debug("write answer", "error", err)
		}
		return
	}
	if errors.Is(err, fault.ErrDone) {
		if err := c.NoContent(http.StatusNoContent); err != nil {
			slog.Debug("write answer", "error", err)
		}
		return
	}
	p := problem(err)
	if p.Status == http.StatusInternalServerError {
		slog.Error("request failed", "path", c.Request().URL.Path, "error", err)
	}
	body, merr := json.Marshal(p)
	if merr != nil {
		body = []byte(`{"type":"about:blank","title":"Internal error","status":500}`)
	}
	if werr := c.Blob(p.Status, "application/problem+json", body); werr != nil {
		slog.Debug("write problem", "error", werr)
	}
}

// statusLeft is the answer to somebody who has left before it.
const statusLeft = 499

// words say what to do where nothing can be saved.
var words = map[error]string{
	fault.ErrFull: "The disk is full. Nothing of this change was saved. Make room on it, then do it again.",
	fault.ErrBusy: "Another program is writing the data file. Nothing of this change was saved. Try again; if it stays so, look which program has the folder.",
	fault.ErrGone: "The data file was removed or replaced while Mnemos was running. Nothing is saved any more. Stop Mnemos, put the folder back or restore a backup, and start it again.",
}

func problem(err error) Problem {
	detail := err.Error()
	p := Problem{Type: "about:blank", Title: "Something went wrong", Status: http.StatusInternalServerError}
	var invalid *fault.Invalid
	var stale *fault.Stale
	var fell *root.Panic
	var httpErr interface{ StatusCode() int }
	switch trouble := house.Trouble(err); {
	case trouble != nil:
		p.Status, p.Title, detail = http.StatusInsufficientStorage, "Not saved", words[trouble]
		if errors.Is(trouble, fault.ErrBusy) {
			p.Status = http.StatusServiceUnavailable
		}
		p.Detail = &detail
	case errors.Is(err, context.DeadlineExceeded):
		p.Status, p.Title, detail = http.StatusServiceUnavailable, "It took too long", "Mnemos did not finish in time, and stopped. Nothing was changed. Ask for less at once, or try again."
		p.Detail = &detail
	case errors.As(err, &fell):
		detail = fell.Error()
		p.Detail = &detail
	case errors.As(err, &invalid):
		fields := each(invalid.Fields, wireFault)
		p.Status, p.Title, p.Detail, p.Errors = http.StatusUnprocessableEntity, "Check the marked fields", &detail, &fields
	case errors.As(err, &stale):
		p.Status, p.Title, p.Detail = http.StatusConflict, "Somebody changed it meanwhile", &detail
		p.now(stale)
	case errors.Is(err, fault.ErrNothing):
		p.Status, p.Title, p.Detail = http.StatusConflict, "Nothing to undo", &detail
	case errors.Is(err, fault.ErrNotFound):
		p.Status, p.Title, p.Detail = http.StatusNotFound, "Not found", &detail
	case errors.As(err, &httpErr):
		p.Status, p.Title = httpErr.StatusCode(), http.StatusText(httpErr.StatusCode())
		if p.Status < http.StatusInternalServerError {
			detail = plainly(err)
			p.Detail = &detail
		}
	}
	return p
}

// now adds how things stand, for who shows them.
func (p *Problem) now(s *fault.Stale) {
	switch x := s.Now.(type) {
	case *plan.Ledger:
		l := wireLedger(x)
		p.Ledger = &l
	case *plan.Settings:
		v := wireSettings(x)
		p.Settings = &v
	case *plan.Workspace:
		w := wireWorkspace(x)
		p.Workspace = &w
	case fleet.Person:
		v := wirePerson(x)
		p.Person = &v
	case *fleet.ProfileForm:
		v := wireForm(x, nil, nil)
		p.Radio = &v
	}
}

// plainly words an error of the router without its codes.
func plainly(err error) string {
	var e *echo.HTTPError
	if !errors.As(err, &e) {
		return err.Error()
	}
	if inner := errors.Unwrap(e); inner != nil {
		return e.Message + ": " + inner.Error()
	}
	return e.Message
}
