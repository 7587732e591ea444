package webui

import (
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/labstack/echo/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func get(t *testing.T, path string) *httptest.ResponseRecorder {
	t.Helper()
	e := echo.New()
	Register(e)
	w := httptest.NewRecorder()
	e.ServeHTTP(w, httptest.NewRequestWithContext(t.Context(), http.MethodGet, path, nil))
	return w
}

func TestServes(t *testing.T) {
	index := get(t, "/")
	require.Equal(t, http.StatusOK, index.Code)
	assert.Contains(t, index.Body.String(), `<div id="app">`)
	assert.NotContains(t, index.Body.String(), "http://", "nothing comes from elsewhere")
	assert.NotContains(t, index.Body.String(), "https://")
	assert.Equal(t, "no-cache", index.Header().Get("Cache-Control"))
	assert.Equal(t, index.Body.String(), get(t, "/keypad/1/7").Body.String(), "an address of the application is the application")

	_, rest, found := strings.Cut(index.Body.String(), `src="/assets/`)
	require.True(t, found)
	script, _, _ := strings.Cut(rest, `"`)
	js := get(t, "/assets/"+script)
	assert.Equal(t, http.StatusOK, js.Code)
	assert.Equal(t, "text/javascript; charset=utf-8", js.Header().Get("Content-Type"))
	assert.Contains(t, js.Header().Get("Cache-Control"), "immutable")
	assert.Equal(t, "image/svg+xml", get(t, "/icon.svg").Header().Get("Content-Type"))
}

func TestRefuses(t *testing.T) {
	for _, path := range []string{"/api", "/api/nothing", "/x/../api/nothing", "/assets/nothing.js", "/assets", "/nothing.css"} {
		assert.Equal(t, http.StatusNotFound, get(t, path).Code, path)
	}
	for _, path := range []string{"/../../etc/passwd", "/assets/../../webui.go"} {
		assert.NotContains(t, get(t, path).Body.String(), "package webui", path)
		assert.NotContains(t, get(t, path).Body.String(), "root:", path)
	}
	assert.Equal(t, "application/octet-stream", contentType("x.unknown"))
}
