package api

import (
	"crypto/subtle"
	"net"
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"
)

// policy lets the page load only what ships with the application. Svelte sets
// styles through the DOM, which needs no inline style attribute.
const policy = "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src 'self'; connect-src 'self'; " +
	"base-uri 'none'; form-action 'none'; frame-ancestors 'none'"

// Guard refuses requests that do not come from a page of this application: a
// foreign Host is how DNS rebinding looks, a foreign Origin is a request
// forged by another page. A page on another port of this computer is another
// page. A link that somebody follows from elsewhere opens the application.
func Guard(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		r := c.Request()
		if !loopback(r.Host) {
			return echo.NewHTTPError(http.StatusForbidden, "this host name is not served here")
		}
		if origin := r.Header.Get("Origin"); origin != "" && origin != "http://"+r.Host {
			return echo.NewHTTPError(http.StatusForbidden, "requests from other pages are refused")
		}
		if site := r.Header.Get("Sec-Fetch-Site"); (site == "cross-site" || site == "same-site") && !visit(r) {
			return echo.NewHTTPError(http.StatusForbidden, "requests from other pages are refused")
		}
		h := c.Response().Header()
		h.Set("Content-Security-Policy", policy)
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "no-referrer")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		return next(c)
	}
}

// TokenHeader says which Mnemos is meant: the one that owns a data folder told its
// token to whoever can read that folder.
const TokenHeader = "Mnemos-Token"

// Meant refuses what is meant for another Mnemos, one that served at this address
// before. Pages of the application need no token.
func Meant(token string) echo.MiddlewareFunc {
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			if said := c.Request().Header.Get(TokenHeader); said != "" && subtle.ConstantTimeCompare([]byte(said), []byte(token)) != 1 {
				return echo.NewHTTPError(http.StatusForbidden, "this Mnemos serves another folder: try again")
			}
			return next(c)
		}
	}
}

// visit reports whether a browser opens a page of the application in a tab.
func visit(r *http.Request) bool {
	return r.Method == http.MethodGet && r.Header.Get("Sec-Fetch-Mode") == "navigate" && r.Header.Get("Sec-Fetch-Dest") == "document" &&
		!strings.HasPrefix(r.URL.Path, "/api/")
}

func loopback(hostport string) bool {
	host, _, err := net.SplitHostPort(hostport)
	if err != nil {
		host = hostport
	}
	if host == "localhost" {
		return true
	}
	ip := net.ParseIP(host)
	return ip != nil && ip.IsLoopback()
}
