// Package webui serves the interface that is built into the binary.
package webui

import (
	"embed"
	"io/fs"
	"net/http"
	"path"
	"strings"

	"github.com/labstack/echo/v5"
)

//go:embed all:dist
var dist embed.FS

// Register serves the built interface for every path that is no API path. A
// path without a file is the application itself, which reads the address.
func Register(e *echo.Echo) {
	files, err := fs.Sub(dist, "dist")
	if err != nil {
		panic(err) // embedded: the folder is there
	}
	e.GET("/*", func(c *echo.Context) error {
		name := strings.TrimPrefix(path.Clean(c.Request().URL.Path), "/")
		if name == "api" || strings.HasPrefix(name, "api/") {
			return echo.ErrNotFound
		}
		if _, err := fs.Stat(files, name); err != nil || name == "" {
			if _, file := types[path.Ext(name)]; file || strings.HasPrefix(name, "assets") {
				return echo.ErrNotFound // a file that is not there, and no address of the application
			}
			name = "index.html"
		}
		b, err := fs.ReadFile(files, name)
		if err != nil {
			return echo.NewHTTPError(http.StatusNotFound, "this copy of Mnemos was built without its interface")
		}
		cache := "no-cache"
		if strings.HasPrefix(name, "assets/") {
			cache = "public, max-age=31536000, immutable" // the name holds a hash
		}
		c.Response().Header().Set("Cache-Control", cache)
		return c.Blob(http.StatusOK, contentType(name), b)
	})
}

var types = map[string]string{
	".html": "text/html; charset=utf-8", ".js": "text/javascript; charset=utf-8", ".css": "text/css; charset=utf-8",
	".woff2": "font/woff2", ".svg": "image/svg+xml", ".png": "image/png", ".json": "application/json",
}

func contentType(name string) string {
	if t, ok := types[path.Ext(name)]; ok {
		return t
	}
	return "application/octet-stream"
}
