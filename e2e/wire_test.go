package e2e

import (
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"sync/atomic"

	"github.com/labstack/echo/v5"

	"mnemos/internal/api"
)

// wire stands between the browser and the application, and breaks when a test
// says so: the application may be gone, refuse, or do what it was asked and have
// its answer lost.
type wire struct {
	mu      sync.Mutex
	inner   http.Handler
	gone    bool
	fails   error  // what changes are answered with
	lose    bool   // changes take place, their answers are lost
	unread  string // the path that cannot be read
	streams atomic.Int32
	opened  atomic.Int32 // streams since the start
	changes atomic.Int32 // changes that reached the application
}

func (w *wire) set(f func(*wire)) {
	w.mu.Lock()
	defer w.mu.Unlock()
	f(w)
}

func (w *wire) ServeHTTP(rw http.ResponseWriter, r *http.Request) {
	w.mu.Lock()
	inner, gone, fails, lose, unread := w.inner, w.gone, w.fails, w.lose, w.unread
	w.mu.Unlock()
	change := r.Method != http.MethodGet && !strings.HasSuffix(r.URL.Path, "/read")
	switch {
	case gone:
		hang(rw)
		return
	case change && fails != nil:
		c := echo.New().NewContext(r, rw)
		api.ErrorHandler(c, fails)
		return
	case unread != "" && r.Method == http.MethodGet && (r.URL.Path == unread || strings.Contains(r.URL.Path, "/assets/"+unread)):
		http.Error(rw, `{"title":"Something went wrong","status":500}`, http.StatusInternalServerError)
		return
	case change && lose:
		w.changes.Add(1)
		inner.ServeHTTP(httptest.NewRecorder(), r)
		hang(rw)
		return
	case change:
		w.changes.Add(1)
	case r.URL.Path == "/api/events":
		w.streams.Add(1)
		w.opened.Add(1)
		defer w.streams.Add(-1)
	}
	inner.ServeHTTP(rw, r)
}

// hang ends the connection without an answer.
func hang(rw http.ResponseWriter) {
	if c, _, err := http.NewResponseController(rw).Hijack(); err == nil {
		_ = c.Close()
	}
}
