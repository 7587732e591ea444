package api_test

import (
	"bufio"
	"fmt"
	"io"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"mnemos/internal/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const table = "Output;Shift;Tone;Town;Latitude;Longitude;Call\n147,255;+;100;Fern Top;41,05;-55,20;QX9FT\n146,655;-;CSQ;Low Quay;41,00;-55,30;QX9LQ\n146,715;-;loud;Odd Rock;41,00;-55,30;QX9OR\n"

// bring sends a file as the page does.
func (c *client) bring(name, content string) (int, map[string]any) {
	c.t.Helper()
	return c.ask("POST", "/api/imports?name="+name, raw(content))
}

func form(p map[string]any, source string) map[string]any {
	var columns []map[string]any
	for _, x := range p["columns"].([]any) {
		col := x.(map[string]any)
		columns = append(columns, map[string]any{"role": col["role"], "unit": col["unit"], "order": col["order"]})
	}
	return map[string]any{"source": source, "prose": p["prose"], "columns": columns}
}

// TestListings walks the whole way of a listing over the API.
func TestListings(t *testing.T) {
	c := serve(t)
	status, p := c.bring("club.csv", table)
	require.Equal(t, 201, status)
	assert.EqualValues(t, 2, p["good"])
	id := p["id"].(string)
	f := form(p, "Club")
	f["columns"].([]map[string]any)[2]["role"] = "" // the tone is not wanted
	status, p = c.ask("POST", "/api/imports/"+id+"/preview", f)
	require.Equal(t, 200, status)
	assert.EqualValues(t, 3, p["good"], "without the tone every row can be read")
	f["columns"].([]map[string]any)[2]["role"] = "uplink_tone"
	status, _ = c.ask("POST", "/api/imports/"+id+"/run", f)
	require.Equal(t, 202, status)

	res, err := http.Get(c.url + "/api/imports/" + id + "/events")
	require.NoError(t, err)
	defer func() { require.NoError(t, res.Body.Close()) }()
	assert.Equal(t, "text/event-stream", res.Header.Get("Content-Type"))
	last := ""
	for lines := bufio.NewScanner(res.Body); lines.Scan(); {
		if l := lines.Text(); l != "" {
			last = l
		}
	}
	assert.Contains(t, last, `"state":"done"`)
	status, s := c.ask("GET", "/api/imports/"+id, nil)
	require.Equal(t, 200, status)
	assert.EqualValues(t, 1, s["bad"])

	// What could not be read is kept, and can be mended.
	status, r := c.ask("GET", "/api/sources/Club/rejects", nil)
	require.Equal(t, 200, status)
	row := r["rows"].([]any)[0].(map[string]any)
	assert.EqualValues(t, 4, row["line"])
	path := fmt.Sprintf("/api/sources/Club/rejects/%v", row["id"])
	cells := row["cells"].([]any)
	status, bad := c.ask("PUT", path, map[string]any{"cells": cells})
	require.Equal(t, 422, status)
	assert.Equal(t, []string{"cells/2"}, faults(bad))
	cells[2] = "88,5"
	status, rec := c.ask("PUT", path, map[string]any{"cells": cells})
	require.Equal(t, 200, status)
	assert.Equal(t, "88.5", rec["uplink_tone"])
	status, _ = c.ask("PUT", path, map[string]any{"cells": cells})
	assert.Equal(t, 404, status, "it is no reject any more")
	_, sources := c.ask("GET", "/api/sources", nil)
	assert.Contains(t, fmt.Sprint(sources), "records:3")

	status, _ = c.ask("DELETE", "/api/sources/Club", nil)
	require.Equal(t, 204, status)
	status, _ = c.ask("DELETE", "/api/sources/Club", nil)
	assert.Equal(t, 404, status)
	status, _ = c.bring("x", "")
	assert.Equal(t, 422, status)
	status, _ = c.ask("DELETE", "/api/imports/77", nil)
	assert.Equal(t, 404, status)
}

// TestFindAndAdd finds what the demonstration publishes, joins and parts two
// statements, and takes repeaters into the plan.
func TestFindAndAdd(t *testing.T) {
	c := serve(t)
	status, v := c.ask("GET", "/api/find?line=beacon", nil)
	require.Equal(t, 200, status)
	list := v["repeaters"].([]any)
	require.NotEmpty(t, list)
	hill := list[0].(map[string]any)
	assert.Equal(t, "Beacon Hill", hill["title"])
	assert.InDelta(t, 11.8, hill["distance_km"], 0.05)

	status, v = c.ask("GET", "/api/find?line=this-year+on-air+open+tone-known+missing+60km", nil)
	require.Equal(t, 200, status)
	last := 0.0
	for _, x := range v["repeaters"].([]any) {
		r := x.(map[string]any)
		d := r["distance_km"].(float64)
		assert.GreaterOrEqual(t, d, last)
		assert.LessOrEqual(t, d, 60.0)
		assert.Empty(t, r["slots"], "what the plan has is left out")
		assert.NotEqual(t, "old", r["trust"].(map[string]any)["says"])
		last = d
	}
	status, v = c.ask("GET", "/api/find?line=4m", nil)
	require.Equal(t, 200, status)
	assert.Contains(t, v["words"].([]any)[0].(map[string]any)["says"], "is not a band in United States")
	for opens, fits := range map[string]func(string) bool{
		"carrier": func(s string) bool { return s == "none" }, "burst": func(s string) bool { return s == "1750" },
		"dcs": func(s string) bool { return s[0] == 'D' }, "ctcss": func(s string) bool { return s[0] != 'D' && strings.Contains(s, ".") },
	} {
		status, v = c.ask("GET", "/api/find?line="+opens, nil)
		require.Equal(t, 200, status)
		assert.NotEmpty(t, v["repeaters"], opens)
		for _, x := range v["repeaters"].([]any) {
			for _, s := range x.(map[string]any)["statements"].([]any) {
				assert.True(t, fits(s.(map[string]any)["uplink_tone"].(string)), opens)
			}
		}
	}
	status, v = c.ask("GET", "/api/find?line=147.24", nil)
	require.Equal(t, 200, status)
	assert.NotEmpty(t, v["repeaters"])
	status, v = c.ask("GET", "/api/find?line=GN21ia+30km", nil)
	require.Equal(t, 200, status)
	assert.Equal(t, "GN21ia", v["locator"])
	status, v = c.ask("GET", "/api/find/chart?west=-60&south=-60&east=60&north=60&cell=2", nil)
	require.Equal(t, 200, status)
	assert.Positive(t, v["number"])

	_, before := c.ask("GET", "/api/loads/1", nil)
	add := func(ids ...any) map[string]any {
		_, l := c.ask("GET", "/api/loads/1", nil)
		status, out := c.ask("POST", "/api/loads/1/found", map[string]any{"ids": ids, "revision": l["revision"]})
		require.Equal(t, 201, status)
		return out
	}
	out := add(hill["id"], hill["id"], map[string]any{"source": "nowhere", "key": "x"})
	assert.Len(t, out["slots"], 1)
	assert.Len(t, out["skipped"], 2, "one is there already by then, one does not exist")
	out = add(hill["id"])
	assert.Empty(t, out["slots"])
	assert.Contains(t, fmt.Sprint(out["skipped"]), "already in this radio")
	status, u := c.ask("POST", "/api/loads/1/undo", map[string]any{"redo": false, "revision": out["ledger"].(map[string]any)["revision"]})
	require.Equal(t, 200, status)
	assert.Equal(t, before["rows"], u["rows"], "one step back takes all of them out again")

	// Two statements are parted, and joined again.
	_, v = c.ask("GET", "/api/find", nil)
	for _, x := range v["repeaters"].([]any) {
		r := x.(map[string]any)
		st := r["statements"].([]any)
		if len(st) < 2 {
			continue
		}
		id := func(i int) map[string]any {
			s := st[i].(map[string]any)
			return map[string]any{"source": s["source"], "key": s["key"]}
		}
		n := len(v["repeaters"].([]any))
		status, _ = c.ask("POST", "/api/decisions", map[string]any{"a": id(0), "b": id(1), "same": false})
		require.Equal(t, 204, status)
		_, parted := c.ask("GET", "/api/find", nil)
		assert.Len(t, parted["repeaters"], n+1)
		status, _ = c.ask("POST", "/api/decisions", map[string]any{"a": id(1), "b": id(0), "same": true})
		require.Equal(t, 204, status)
		_, again := c.ask("GET", "/api/find", nil)
		assert.Len(t, again["repeaters"], n)
		status, _ = c.ask("POST", "/api/decisions", map[string]any{"a": id(1), "b": id(1), "same": true})
		assert.Equal(t, 422, status)
		return
	}
	t.Fatal("the demonstration has no repeater of two listings")
}

// TestDTMF is a repeater that a sequence of keys opens: it is found by that,
// and said so.
func TestDTMF(t *testing.T) {
	c := serve(t)
	_, p := c.bring("d.csv", "Output,Shift,Tone,Town,Latitude,Longitude\n147.255,+,DTMF 123,Key Top,41.0,-55.3\n147.270,+,100,Tone Top,41.0,-55.3\n")
	status, _ := c.ask("POST", "/api/imports/"+p["id"].(string)+"/run", form(p, "D"))
	require.Equal(t, 202, status)
	require.Eventually(t, func() bool {
		_, s := c.ask("GET", "/api/imports/"+p["id"].(string), nil)
		return s["state"] == "done"
	}, time.Minute, 20*time.Millisecond)
	_, v := c.ask("GET", "/api/find?line=dtmf", nil)
	require.Len(t, v["repeaters"], 1)
	r := v["repeaters"].([]any)[0].(map[string]any)
	assert.Equal(t, "Key Top", r["title"])
	assert.Contains(t, r["remark"], "key it by hand")
}

// TestCorrections believes one of two listings, sees every check go by it,
// and finds it open again when a newer edition says something else.
func TestCorrections(t *testing.T) {
	c := serve(t)
	row := "Output;Input;Tone;Town;Latitude;Longitude;Call\n146,880;146,280;%s;Holm Rigg;41,0094;-55,7122;QX3HLR\n"
	publish := func(tone string) {
		status, p := c.bring("third.csv", fmt.Sprintf(row, tone))
		require.Equal(t, 201, status)
		status, _ = c.ask("POST", "/api/imports/"+p["id"].(string)+"/run", form(p, "Third"))
		require.Equal(t, 202, status)
		require.Eventually(t, func() bool {
			_, s := c.ask("GET", "/api/imports/"+p["id"].(string), nil)
			return s["state"] == "done"
		}, time.Minute, 20*time.Millisecond)
	}
	holm := func() map[string]any {
		_, v := c.ask("GET", "/api/find?line=holm", nil)
		require.Len(t, v["repeaters"], 1)
		return v["repeaters"].([]any)[0].(map[string]any)
	}
	toneFits := func(tone string) bool {
		_, r := c.ask("POST", "/api/loads/1/read", map[string]any{"line": "146.88 - " + tone})
		for _, m := range r["matches"].([]any) {
			for _, d := range m.(map[string]any)["differences"].([]any) {
				if d.(map[string]any)["field"] == "transmit_tone" {
					return false
				}
			}
		}
		return len(r["matches"].([]any)) > 0
	}
	publish("156,7")
	r := holm()
	require.NotEmpty(t, r["conflicts"])
	status, _ := c.ask("POST", "/api/corrections", map[string]any{"of": r["id"], "field": "uplink_tone", "value": "131.8", "note": "heard on the air"})
	require.Equal(t, 204, status)
	r = holm()
	assert.Equal(t, "131.8", r["best"].(map[string]any)["uplink_tone"])
	assert.Len(t, r["statements"], 3, "each witness stays")
	assert.NotContains(t, fmt.Sprint(r["conflicts"]), "uplink_tone")
	assert.Equal(t, "heard on the air", r["corrected"].([]any)[0].(map[string]any)["note"])
	assert.True(t, toneFits("131.8"), "the entry line goes by it")
	assert.False(t, toneFits("110.9"))

	publish("100,0") // a newer edition of one of the three
	r = holm()
	assert.Equal(t, true, r["corrected"].([]any)[0].(map[string]any)["open"])
	assert.Contains(t, fmt.Sprint(r["conflicts"]), "uplink_tone", "in question again")

	status, _ = c.ask("POST", "/api/corrections", map[string]any{"of": r["id"], "field": "uplink_tone", "value": "", "note": ""})
	require.Equal(t, 204, status)
	assert.Empty(t, holm()["corrected"])
	for _, bad := range []map[string]any{
		{"of": r["id"], "field": "uplink_tone", "value": "loud", "note": ""}, {"of": r["id"], "field": "name", "value": "x", "note": ""},
	} {
		status, p := c.ask("POST", "/api/corrections", bad)
		assert.Equal(t, 422, status)
		assert.Equal(t, []string{"value"}, faults(p))
	}
	status, _ = c.ask("POST", "/api/corrections", map[string]any{"of": map[string]any{"source": "x", "key": "y"}, "field": "mode", "value": "fm", "note": ""})
	assert.Equal(t, 404, status)
}

// TestOnlyListingsAreLarge refuses a large body anywhere else.
func TestOnlyListingsAreLarge(t *testing.T) {
	c := serve(t)
	status, _ := c.bring("big.csv", "Output,Town\n"+strings.Repeat("147.24,Hill\n", 200_000))
	assert.Equal(t, 201, status)
	status, _ = c.ask("POST", "/api/loads/1/read", map[string]any{"line": strings.Repeat("x", 2<<20)})
	assert.Equal(t, 413, status)
}

// TestSeenClosely: a repeater seen closely comes with the way of a signal through it; one
// past its horizon says how high an aerial would have to be, and what does not
// exist is not found.
func TestSeenClosely(t *testing.T) {
	c := serve(t)
	status, v := c.ask("GET", "/api/find/look?source=Harbour+list&key=h-qx3hlr&load=1", nil)
	require.Equal(t, 200, status)
	assert.Equal(t, true, v["stored"])
	up := v["evidence"].(map[string]any)["path"].(map[string]any)["up"].(map[string]any)
	assert.Equal(t, []any{"110.9", "156.7"}, up["either"], "the two lists exchange its tones")
	assert.Equal(t, "It may not hear you", up["says"])
	_, far := c.ask("GET", "/api/find?line=far", nil)
	id := far["repeaters"].([]any)[0].(map[string]any)["id"].(map[string]any)
	status, v = c.ask("GET", "/api/find/look?load=1&source="+url.QueryEscape(id["source"].(string))+"&key="+url.QueryEscape(id["key"].(string)), nil)
	require.Equal(t, 200, status)
	r := v["repeater"].(map[string]any)
	if r["horizon"] == true && r["distance_km"].(float64) > r["reach_km"].(float64) {
		assert.Greater(t, v["needed_m"], 1.5)
	}
	status, _ = c.ask("GET", "/api/find/look?source=nowhere&key=x", nil)
	assert.Equal(t, 404, status)
	_, v = c.ask("GET", "/api/find/complete?line=mar&caret=3&load=1", nil)
	assert.Equal(t, "Marran Light", v["completions"].([]any)[0].(map[string]any)["text"])
	_, v = c.ask("GET", "/api/find/around?load=1", nil)
	assert.Equal(t, []any{4.0, 10.0, 11.0, 19.0}, v["vacant"].([]any)[:4])
	assert.Equal(t, "east", v["thin"].(map[string]any)["direction"])
	_, v = c.ask("GET", "/api/settings/follows?load=1", nil)
	assert.Equal(t, v["near"], v["talk"].(float64)+v["ask"].(float64)+v["out"].(float64))
	_, v = c.ask("GET", "/api/about", nil)
	assert.NotEmpty(t, v["folder"])
	assert.NotEmpty(t, v["sources"])
}

// TestBackup: the file that is saved is one that restore takes, and holds the plan.
func TestBackup(t *testing.T) {
	c := serve(t)
	res, err := http.Get(c.url + "/api/backup")
	require.NoError(t, err)
	defer func() { assert.NoError(t, res.Body.Close()) }()
	require.Equal(t, 200, res.StatusCode)
	file := filepath.Join(t.TempDir(), "saved.db")
	b, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(file, b, 0o600))
	folder := t.TempDir()
	_, err = store.Restore(t.Context(), folder, file, "2026-11-25T09:42:00Z")
	require.NoError(t, err)
	s, err := store.Open(t.Context(), folder)
	require.NoError(t, err)
	plans, err := s.Plans(t.Context())
	require.NoError(t, err)
	assert.NotEmpty(t, plans)
	require.NoError(t, s.Close())
}
