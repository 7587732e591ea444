package api

import (
	"fmt"
	"strconv"

	"github.com/labstack/echo/v5"

	"mnemos/internal/fault"
	"mnemos/internal/who"
)

// PersonHeader names the person on whose behalf a request is made, by number.
// Without it that is the first one.
const PersonHeader = "Mnemos-Person"

func person(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		text := c.Request().Header.Get(PersonHeader)
		if text == "" {
			return next(c)
		}
		id, err := strconv.ParseInt(text, 10, 64)
		if err != nil || id < 1 {
			return fmt.Errorf("person %.20q: %w", text, fault.ErrNotFound)
		}
		c.SetRequest(c.Request().WithContext(who.As(c.Request().Context(), id)))
		return next(c)
	}
}
