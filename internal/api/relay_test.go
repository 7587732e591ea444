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

func titles(report any) (out []string) {
	for _, f := range report.(map[string]any)["findings"].([]any) {
		out = append(out, f.(map[string]any)["title"].(string))
	}
	return out
}

// TestRelayOverTheWire: a relay is worked out for what is written, kept when it is said to be,
// taken into the radios, and undone; every answer is as the contract says.
func TestRelayOverTheWire(t *testing.T) {
	c := serve(t)
	const path = "/api/loads/2/relay"
	status, v := c.ask(http.MethodGet, path, nil)
	require.Equal(t, http.StatusOK, status, v)
	report := v["report"].(map[string]any)
	assert.Equal(t, "conflict", report["verdict"])
	assert.Contains(t, titles(report), "Side B waits for a tone that never comes")
	over := report["over"].(map[string]any)
	assert.InDelta(t, 0.82, over["wait"], 1e-9)
	assert.Len(t, report["legs"], 4)
	assert.Equal(t, true, v["kept"])

	status, v = c.ask(http.MethodGet, path+"?a=443.275+%2B5+ts+131.8&b=147.03+%2B+ts+94.8", nil)
	require.Equal(t, http.StatusOK, status)
	loop := v["report"].(map[string]any)["loop"].(map[string]any)
	assert.Equal(t, true, loop["does"])
	assert.Equal(t, false, v["kept"])
	for _, line := range []string{"", "blue", "77", "%22", "1e999", "-5", "146.52+146.52", "%00", "446.1+ts", strings.Repeat("9", 390)} {
		status, _ = c.ask(http.MethodGet, path+"?a="+line, nil)
		assert.Contains(t, []int{http.StatusOK, http.StatusBadRequest, http.StatusUnprocessableEntity}, status, line)
	}
	status, _ = c.ask(http.MethodGet, path+"?a="+strings.Repeat("9", 500), nil)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	status, _ = c.ask(http.MethodGet, "/api/loads/99/relay", nil)
	assert.Equal(t, http.StatusNotFound, status)
	status, v = c.ask(http.MethodGet, "/api/loads/1/relay", nil)
	require.Equal(t, http.StatusOK, status)
	assert.Equal(t, false, v["can"], "Trail has one receiver")

	_, v = c.ask(http.MethodGet, path, nil)
	revision := v["revision"]
	status, v = c.ask(http.MethodPut, path, map[string]any{"a": "446.1 simplex ts 186.2 low", "b": "145.29 - 110.9 mid", "identify_a": "operator", "timeout": 3, "control": "QX9ABC at the van", "revision": revision})
	require.Equal(t, http.StatusOK, status, v)
	assert.Equal(t, "agrees", v["report"].(map[string]any)["verdict"])
	assert.Equal(t, false, v["taken"])
	status, r := c.ask(http.MethodPost, path+"/take", map[string]any{"revision": v["revision"]})
	require.Equal(t, http.StatusOK, status, r)
	_, v = c.ask(http.MethodGet, path, nil)
	assert.Equal(t, true, v["taken"])
	status, v = c.ask(http.MethodPut, path, map[string]any{"tick": map[string]any{"step": "before-battery", "done": true}, "rehearsed": true, "revision": v["revision"]})
	require.Equal(t, http.StatusOK, status, v)
	assert.NotEmpty(t, v["ticks"].(map[string]any)["before-battery"])
	assert.NotEmpty(t, v["rehearsed"])
	for field, form := range map[string]map[string]any{
		"way": {"way": "up"}, "timeout": {"timeout": 99}, "usable": {"usable": 7}, "over": {"over": 0}, "consent": {"consent": "ok"},
	} {
		form["revision"] = v["revision"]
		status, r := c.ask(http.MethodPut, path, form)
		assert.Equal(t, http.StatusUnprocessableEntity, status, field)
		assert.Contains(t, fmt.Sprint(r["errors"]), field)
	}
	status, _ = c.ask(http.MethodPut, path, map[string]any{"timeout": "soon", "revision": 1})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
}

// TestBeaconOverTheWire: a station is set up field by field, its frame shown whole, a track
// driven, and nothing of the demonstration leaves.
func TestBeaconOverTheWire(t *testing.T) {
	c := serve(t)
	const path = "/api/loads/1/beacon"
	status, v := c.ask(http.MethodGet, path, nil)
	require.Equal(t, http.StatusOK, status, v)
	frame := v["shown"].([]any)[0].(map[string]any)
	assert.InDelta(t, 840.83, frame["total"], 0.01)
	bytes := 0
	for _, p := range frame["parts"].([]any) {
		bytes += len(p.(map[string]any)["bytes"].([]any))
	}
	assert.EqualValues(t, frame["bytes"], bytes)
	assert.Len(t, v["symbols"], 188)
	assert.Equal(t, false, v["own"])
	res, err := http.Get(c.url + path + "/file?as=tnc2") //nolint:noctx // a test
	require.NoError(t, err)
	text, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, string(text), "demonstration")

	set := func(body map[string]any) (int, map[string]any) {
		body["revision"] = 1e15
		return c.ask(http.MethodPut, path, body)
	}
	status, v = set(map[string]any{"set": map[string]any{"smart": true, "every": 180, "words": "hut"}})
	require.Equal(t, http.StatusOK, status, v)
	station := v["station"].(map[string]any)
	assert.Equal(t, []any{true, 180.0, "hut", "QX2AML-7"}, []any{station["smart"], station["every"], station["words"], station["from"]}, "and nothing else")
	status, v = set(map[string]any{"act": "profile", "value": "boat"})
	require.Equal(t, http.StatusOK, status, v)
	assert.Equal(t, "QX2AML-8", v["station"].(map[string]any)["from"])
	status, v = set(map[string]any{"act": "space"})
	require.Equal(t, http.StatusOK, status)
	assert.Equal(t, true, v["space"])
	assert.EqualValues(t, 145_825_000, v["channel_hz"])
	for says, body := range map[string]map[string]any{
		"nothing that is done": {"act": "launch"}, "write a number": {"set": map[string]any{"every": -1}}, "cannot be set": {"set": map[string]any{"rocket": true}}, "cannot be set like this": {"set": map[string]any{"before": map[string]any{}}},
		"up to 200": {"set": map[string]any{"words": strings.Repeat("x", 300)}}, "none of": {"act": "profile", "value": "submarine"},
	} {
		status, r := set(body)
		assert.Equal(t, http.StatusUnprocessableEntity, status, says)
		assert.Contains(t, fmt.Sprint(r), says)
	}

	var gpx strings.Builder
	gpx.WriteString("<gpx><trk><trkseg>")
	for i := range 40_000 { // over a megabyte
		fmt.Fprintf(&gpx, `<trkpt lat="%.6f" lon="-55.31"></trkpt>`, 41.02+float64(i)/111_195)
	}
	gpx.WriteString("</trkseg></trk></gpx>")
	require.Greater(t, gpx.Len(), 1<<20)
	status, v = c.ask(http.MethodPost, path+"/track", map[string]any{"text": gpx.String()})
	require.Equal(t, http.StatusOK, status, v["detail"])
	assert.InDelta(t, 40, v["km"], 0.01)
	assert.LessOrEqual(t, len(v["points"].([]any)), 1000, "it is thinned out for the drawing")
	status, v = c.ask(http.MethodPost, path+"/track", map[string]any{"text": "blue moon"})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, v["detail"], "no track")
	for range 5 {
		gpx.WriteString(gpx.String())
	}
	status, _ = c.ask(http.MethodPost, path+"/track", map[string]any{"text": gpx.String()})
	assert.Equal(t, http.StatusRequestEntityTooLarge, status)
}

// TestContactsOverTheWire: a file of contacts that is larger than a request may be elsewhere,
// a search that is written down, and what the log leaves out of an ADI file.
func TestContactsOverTheWire(t *testing.T) {
	c := serve(t)
	var adi strings.Builder
	adi.WriteString("from elsewhere<eoh>\n")
	for i := range 3000 {
		fmt.Fprintf(&adi, "<call:6>QX%dTAM<qso_date:8>2026%02d%02d<time_on:4>%02d%02d<mode:2>FM<freq:6>147.03<comment:400>%s<eor>\n", i%10, 1+i/10%9, 1+i/90%28, i/10%24, i%60, strings.Repeat("x", 400))
	}
	require.Greater(t, adi.Len(), 1<<20)
	status, r := c.ask(http.MethodPost, "/api/loads/1/log/file", map[string]any{"text": adi.String()})
	require.Equal(t, http.StatusOK, status, r["detail"])
	assert.InDelta(t, 3000, r["added"].(float64)+r["known"].(float64), 0)
	assert.Greater(t, r["added"], 100.0)
	status, r = c.ask(http.MethodPost, "/api/loads/1/log/file", map[string]any{"text": "blue moon"})
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, r["detail"], "no contact was found")

	const path = "/api/loads/1/entries/7/card/search"
	for range 2 {
		status, r = c.ask(http.MethodPost, path, map[string]any{"side": "input", "system": "ctcss", "tone": "88.5", "station": "QX7OAK"})
		require.Equal(t, http.StatusOK, status, r)
	}
	search := r["search"].(map[string]any)
	offer := search["input"].(map[string]any)["offer"].(map[string]any)
	assert.Equal(t, []any{"Send 88.5 Hz", "transmit_tone", "88.5", false}, []any{offer["says"], offer["field"], offer["tone"], offer["same"]})
	assert.EqualValues(t, 146_340_000, search["input"].(map[string]any)["sit_hz"])
	for _, bad := range []map[string]any{{"side": "roof", "system": "ctcss", "tone": ""}, {"side": "input", "system": "morse", "tone": ""}, {"side": "input", "system": "dcs", "tone": "999"}} {
		status, _ = c.ask(http.MethodPost, path, bad)
		assert.Equal(t, http.StatusUnprocessableEntity, status, bad)
	}
	status, r = c.ask(http.MethodGet, "/api/loads/1/log?find=search", nil)
	assert.Equal(t, http.StatusOK, status)
	assert.NotEmpty(t, r["losses"], "a search is no contact")
}
