package api_test

import (
	"bytes"
	"encoding/json"
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// under asks under a key, as a browser does that got no answer.
func (c *client) under(key, method, path string, body any) (int, string) {
	c.t.Helper()
	b, err := json.Marshal(body)
	require.NoError(c.t, err)
	req, err := http.NewRequestWithContext(c.t.Context(), method, c.url+path, bytes.NewReader(b))
	require.NoError(c.t, err)
	req.Header.Set("Content-Type", "application/json")
	req.Header.Set("Idempotency-Key", key)
	res, err := http.DefaultClient.Do(req)
	require.NoError(c.t, err)
	text, err := io.ReadAll(res.Body)
	require.NoError(c.t, err)
	require.NoError(c.t, res.Body.Close())
	return res.StatusCode, string(text)
}

// TestOnce asks for each kind of change twice under one key: it takes place
// once, and the second answer says so without an error.
func TestOnce(t *testing.T) {
	c := serve(t)
	revision, _ := c.ledger()
	rows := func() int {
		_, l := c.ask("GET", "/api/loads/1", nil)
		return len(l["rows"].([]any))
	}
	before := rows()
	line := map[string]any{"line": `146.55 "Quay"`, "revision": revision}
	for _, want := range []int{201, 204, 204} {
		status, body := c.under("one", "POST", "/api/loads/1/entries", line)
		require.Equal(t, want, status, body)
		require.Equal(t, before+1, rows())
	}
	revision, _ = c.ledger()
	for _, want := range []int{200, 204} {
		status, body := c.under("two", "POST", "/api/loads/1/undo", map[string]any{"revision": revision})
		require.Equal(t, want, status, body)
		require.Equal(t, before, rows(), "undone once and not twice")
	}
	status, _ := c.under("three", "POST", "/api/loads/1/entries", map[string]any{"line": "nonsense", "revision": revision})
	require.Equal(t, 422, status)
	status, _ = c.under("three", "POST", "/api/loads/1/entries", map[string]any{"line": "146.55", "revision": revision})
	assert.Equal(t, 201, status, "what was refused did not take place")
	status, _ = c.under(strings.Repeat("3", 80), "POST", "/api/loads/1/entries", line)
	assert.Equal(t, 400, status)
}
