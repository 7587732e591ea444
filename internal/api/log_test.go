package api_test

import (
	"fmt"
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestLogOverTheWire: a card, tries, the log with its files, corrections; every answer is as
// the contract says, and what must not be keyed gets no card.
func TestLogOverTheWire(t *testing.T) {
	c := serve(t)
	const path = "/api/loads/1/entries/7/card"
	status, r := c.ask(http.MethodGet, path, nil)
	require.Equal(t, http.StatusOK, status)
	set := r["setting"].(map[string]any)
	try := func(more map[string]any) (int, map[string]any) {
		body := map[string]any{"kind": "key", "setting": set}
		for k, v := range more {
			body[k] = v
		}
		return c.ask(http.MethodPost, path, body)
	}
	status, r = try(map[string]any{"answer": "nothing"})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, r["detail"], "callsign", "no test without one")
	status, r = c.ask(http.MethodPatch, "/api/people/1", map[string]any{"callsign": "blue moon"})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, r["detail"], "QX9ABC")
	status, r = c.ask(http.MethodPatch, "/api/people/1", map[string]any{"callsign": " qx9abc/p"})
	assert.Equal(t, http.StatusOK, status)
	assert.Equal(t, "QX9ABC/P", r["callsign"])
	status, r = try(map[string]any{"answer": "nothing", "spot": "harbour road"})
	require.Equal(t, http.StatusOK, status, r)
	assert.Len(t, r["tries"], 1)
	assert.NotEmpty(t, r["causes"])
	act := r["acts"].([]any)[0].(map[string]any)
	assert.Equal(t, "Send 88.5 Hz", act["says"])
	set = act["setting"].(map[string]any)
	status, r = try(map[string]any{"answer": "reply", "station": "qx7oak", "note": "=1+1, loud"})
	require.Equal(t, http.StatusOK, status, r)
	assert.Equal(t, true, r["answered"])
	set["where"] = "moon"
	status, r = try(map[string]any{"answer": "reply"})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, r["detail"], "where")

	status, r = c.ask(http.MethodGet, "/api/loads/1/log?find=reply", nil)
	assert.Equal(t, http.StatusOK, status)
	require.Len(t, r["tries"], 1)
	line := r["tries"].([]any)[0].(map[string]any)
	assert.Equal(t, "reply from qx7oak", line["says"])
	file := func(as string) string {
		res, err := http.Get(c.url + "/api/loads/1/log/file?as=" + as) //nolint:noctx // a test
		require.NoError(t, err)
		defer res.Body.Close()
		assert.Contains(t, res.Header.Get("Content-Disposition"), "attachment")
		text, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		return string(text)
	}
	csv := file("csv")
	assert.Contains(t, csv, "harbour road")
	assert.NotContains(t, csv, `,"=1+1`, "no formula for a spreadsheet")
	adi := file("adi")
	assert.Contains(t, adi, "<CALL:6>QX7OAK")
	assert.Contains(t, adi, "<STATION_CALLSIGN:8>QX9ABC/P")
	assert.Contains(t, adi, "<FREQ:6>146.34", "it is sent there")
	assert.Contains(t, adi, "<FREQ_RX:6>146.94")
	assert.Contains(t, adi, "<BAND:2>2m")
	assert.Contains(t, adi, "<APP_MNEMOS_TONE_OUT:4>88.5")
	assert.Equal(t, 1, strings.Count(adi, "<EOR>"), "a silent try is no contact")

	id := "/api/log/" + fmt.Sprintf("%.0f", line["id"])
	status, r = c.ask(http.MethodPatch, id, map[string]any{"note": "loud", "answer": "boo"})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, r["detail"], "tail, ident")
	status, r = c.ask(http.MethodPatch, id, map[string]any{"note": "loud"})
	assert.Equal(t, http.StatusOK, status)
	assert.Equal(t, "loud", r["note"])
	status, _ = c.ask(http.MethodDelete, id, nil)
	assert.Equal(t, http.StatusNoContent, status)
	status, _ = c.ask(http.MethodDelete, id, nil)
	assert.Equal(t, http.StatusNotFound, status)
	status, r = c.ask(http.MethodGet, "/api/loads/1/entries/12/card", nil)
	assert.Equal(t, http.StatusOK, status)
	assert.Contains(t, r["refused"], "must not go on the air")
	assert.Empty(t, r["acts"])
}
