package api

import (
	"net/http"

	"github.com/labstack/echo/v5"

	"mnemos/internal/fault"
	"mnemos/internal/house"
	"mnemos/internal/who"
)

// OnceHeader is the key under which a change is asked for. Whoever got no
// answer asks again under the same key, and the change takes place once: the
// second time the answer is 204, and how things stand is to be read.
const OnceHeader = "Idempotency-Key"

func once(h *house.House) echo.MiddlewareFunc {
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			key := c.Request().Header.Get(OnceHeader)
			if key == "" {
				return next(c)
			}
			if len(key) > 60 {
				return echo.NewHTTPError(http.StatusBadRequest, "the key of a change has up to 60 characters")
			}
			done, err := h.Done(c.Request().Context(), key)
			if err != nil {
				return err
			}
			if done {
				return fault.ErrDone
			}
			c.SetRequest(c.Request().WithContext(who.Once(c.Request().Context(), key)))
			return next(c)
		}
	}
}
