package api

import (
	"context"
	"errors"
	"net/http"
	"strings"
	"time"

	"github.com/getkin/kin-openapi/routers"
	"github.com/labstack/echo/v5"

	"mnemos/core/limit"
	"mnemos/internal/house"
	"mnemos/internal/root"
)

// Recovered is the root of every request: a panic fails that request alone.
func Recovered(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		err := root.Try("answer a request", func() error {
			root.Here("api: answer")
			return next(c)
		})
		var fell *root.Panic
		if errors.As(err, &fell) && fell.Value == http.ErrAbortHandler { //nolint:errorlint // it is thrown as it is
			panic(fell.Value) // somebody means to cut the connection
		}
		return err
	}
}

// Heads answers HEAD as GET: the server leaves the body out.
func Heads(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		if r := c.Request(); r.Method == http.MethodHead {
			r = r.Clone(r.Context())
			r.Method = http.MethodGet
			c.SetRequest(r)
		}
		return next(c)
	}
}

// timely ends the work on a request that takes too long. Streams go on.
func timely(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		r := c.Request()
		if strings.HasSuffix(r.URL.Path, "/events") {
			return next(c)
		}
		most := limit.Answer
		if r.ContentLength < 0 || r.ContentLength > limit.Body {
			most = limit.File
		}
		ctx, done := context.WithTimeout(r.Context(), most)
		defer done()
		c.SetRequest(r.WithContext(ctx))
		return next(c)
	}
}

// reads is the extension of the contract for what is asked with a body and changes
// nothing.
const reads = "x-reads"

// still has everything that is asked and not changed read as it stands at one
// time, whoever changes it meanwhile.
func still(h *house.House, router routers.Router) echo.MiddlewareFunc {
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			r := c.Request()
			route, _, err := router.FindRoute(r)
			if err != nil || strings.HasSuffix(r.URL.Path, "/events") || r.Method != http.MethodGet && route.Operation.Extensions[reads] != true {
				return next(c)
			}
			ctx, done, err := h.Moment(r.Context())
			if err != nil {
				return err
			}
			defer done()
			c.SetRequest(r.WithContext(ctx))
			return next(c)
		}
	}
}

// deadline is until when somebody who follows has to take what they are told.
func deadline() time.Time { return time.Now().Add(limit.Reader) }
