package api

import (
	"bufio"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net/http"

	"github.com/labstack/echo/v5"

	"mnemos/core/limit"
	"mnemos/internal/fault"
	"mnemos/internal/house"
	"mnemos/internal/root"
	"mnemos/internal/who"
)

// OnceHeader is the key under which a change is asked for. Whoever got no
// answer asks again under the same key, and the change takes place once: the
// second time the answer is 204, and how things stand is to be read. Under the
// key of something else nothing takes place.
const OnceHeader = "Idempotency-Key"

func once(h *house.House) echo.MiddlewareFunc {
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			r := c.Request()
			key := r.Header.Get(OnceHeader)
			if key == "" || r.Method == http.MethodGet {
				return next(c)
			}
			if len(key) > limit.Key {
				return echo.NewHTTPError(http.StatusBadRequest, fmt.Sprintf("the key of a change has up to %d characters", limit.Key))
			}
			hash, err := digest(r)
			if err != nil {
				return err
			}
			asked := who.Request{Key: key, Hash: hash}
			done, err := h.Done(r.Context(), asked)
			if err != nil {
				return err
			}
			if done {
				return fault.ErrDone
			}
			c.SetRequest(r.WithContext(who.Once(r.Context(), asked)))
			return settled(context.WithoutCancel(r.Context()), h, asked, next(c))
		}
	}
}

// settled is what came of a change: what was carried out is known under its key,
// also if nothing had to be changed; and what failed after it was carried out
// was carried out.
func settled(ctx context.Context, h *house.House, asked who.Request, err error) error {
	var fell *root.Panic
	if err != nil && !errors.As(err, &fell) && !errors.Is(err, context.DeadlineExceeded) && !errors.Is(err, context.Canceled) {
		return err
	}
	done, lookErr := h.Done(ctx, asked)
	switch {
	case lookErr != nil:
		slog.Warn("look for a request", "error", lookErr)
	case err != nil && done:
		return fault.ErrDone
	case err == nil && !done:
		if err := h.Keep(ctx, asked); err != nil { // asked for again, nothing is changed again
			slog.Warn("keep a request", "error", err)
		}
	}
	return err
}

// digest tells a request from another one: by its method, its path, and as much
// of its body as is looked at. The body is read again by whoever answers.
func digest(r *http.Request) (string, error) {
	h := sha256.New()
	_, _ = fmt.Fprintf(h, "%s %s %d\n", r.Method, r.URL.RequestURI(), r.ContentLength) // a hash takes everything
	if r.Body != nil && r.Body != http.NoBody {
		b := bufio.NewReaderSize(r.Body, limit.Hashed)
		head, err := b.Peek(limit.Hashed)
		if err != nil && !errors.Is(err, io.EOF) {
			return "", err
		}
		_, _ = h.Write(head)
		r.Body = struct {
			io.Reader
			io.Closer
		}{b, r.Body}
	}
	return hex.EncodeToString(h.Sum(nil)), nil
}
