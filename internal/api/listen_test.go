package api_test

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
)

// TestListenOverTheWire: what a radio hears, what is set and changed, and the diary; every
// answer is as the contract says, also where a scan never comes back and no figure exists.
func TestListenOverTheWire(t *testing.T) {
	c := serve(t)
	const path = "/api/loads/1/listen"
	status, r := c.ask(http.MethodGet, path+"?at=2026-11-28T21:00:00Z&slot=7", nil)
	assert.Equal(t, http.StatusOK, status)
	assert.EqualValues(t, 6, r["day"])
	assert.Len(t, r["rows"], 24)
	assert.EqualValues(t, 7, r["curve"].(map[string]any)["slot"])
	head := int64(1_000_000)
	// On by carrier, with a carrier that never falls silent in the list: never back.
	status, _ = c.ask(http.MethodPut, path, map[string]any{"resume": "carrier", "revision": head})
	assert.Equal(t, http.StatusOK, status)
	status, _ = c.ask(http.MethodPost, path+"/changes", map[string]any{"changes": []any{map[string]any{"kind": "back", "slot": 15}}, "revision": head})
	assert.Equal(t, http.StatusOK, status)
	status, r = c.ask(http.MethodGet, path, nil)
	assert.Equal(t, http.StatusOK, status)
	assert.NotContains(t, r, "round")
	assert.Contains(t, r["says"], "never falls silent")
	assert.Contains(t, r["best"].(map[string]any)["label"], "change")
	status, r = c.ask(http.MethodPut, path, map[string]any{"stay": 1e6, "revision": head})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, r["detail"], "0 to 600")

	status, r = c.ask(http.MethodPost, "/api/loads/1/diary", map[string]any{"do": "heard", "slot": 7})
	assert.Equal(t, http.StatusOK, status)
	assert.EqualValues(t, 1, r["noted"])
	status, r = c.ask(http.MethodGet, "/api/loads/1/diary?slot=7", nil)
	assert.Equal(t, http.StatusOK, status)
	assert.Equal(t, "Marran Light", r["name"])
	status, r = c.ask(http.MethodGet, "/api/loads/1/sweep?lower=144&upper=148&step=12.5", nil)
	assert.Equal(t, http.StatusOK, status)
	assert.EqualValues(t, 321, r["count"])
	status, _ = c.ask(http.MethodGet, "/api/loads/1/sweep?lower=blue", nil)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
}
