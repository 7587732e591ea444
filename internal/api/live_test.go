package api_test

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/api"
	"mnemos/internal/api/contract"
)

// TestContractIsFresh: what the generators read is what the parts say.
func TestContractIsFresh(t *testing.T) {
	want, err := contract.Merge()
	require.NoError(t, err)
	have, err := os.ReadFile("openapi.yaml")
	require.NoError(t, err)
	assert.Equal(t, string(want), string(have), "run make generate")
}

// told is a server-sent event.
type told struct {
	kind, id string
	data     api.Event
}

// watch reads so many events after the one with an ID.
func (c *client) watch(after string, n int) (out []told) {
	c.t.Helper()
	ctx, done := context.WithTimeout(c.t.Context(), 20*time.Second)
	defer done()
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, c.url+"/api/events", nil)
	require.NoError(c.t, err)
	req.Header.Set("Last-Event-ID", after)
	res, err := http.DefaultClient.Do(req)
	require.NoError(c.t, err)
	defer func() { require.NoError(c.t, res.Body.Close()) }()
	require.Equal(c.t, "text/event-stream", res.Header.Get("Content-Type"))
	var e told
	for lines := bufio.NewScanner(res.Body); len(out) < n && lines.Scan(); {
		name, value, _ := strings.Cut(lines.Text(), ": ")
		switch name {
		case "event":
			e.kind = value
		case "id":
			e.id = value
		case "data":
			d := json.NewDecoder(strings.NewReader(value))
			d.DisallowUnknownFields()
			require.NoError(c.t, d.Decode(&e.data))
			if e.kind != "hello" { // which every stream begins with
				out = append(out, e)
			}
			e = told{}
		}
	}
	return out
}

// TestHello: a stream begins with how far the changes are.
func TestHello(t *testing.T) {
	c := serve(t)
	revision, _ := c.ledger()
	res, err := http.Get(c.url + "/api/events") //nolint:noctx // closed below
	require.NoError(t, err)
	defer func() { require.NoError(t, res.Body.Close()) }()
	lines := bufio.NewScanner(res.Body)
	require.True(t, lines.Scan())
	assert.Equal(t, "event: hello", lines.Text())
	require.True(t, lines.Scan())
	assert.Regexp(t, `^id: \w{8}-\d+-\d+$`, lines.Text())
	require.True(t, lines.Scan())
	assert.Equal(t, fmt.Sprintf(`data: {"event":%d}`, int(revision)), lines.Text())
}

// TestEvents: who watches is told of every change with its rows, and of how
// far an import is; who comes back gets what they missed.
func TestEvents(t *testing.T) {
	c := serve(t)
	reset := c.watch("nowhere-3", 1)
	require.Equal(t, "reset", reset[0].kind)
	at := reset[0].id
	revision, _ := c.ledger()
	status, l := c.ask("POST", "/api/loads/1/entries", map[string]any{"line": `146.55 "Quay"`, "revision": revision})
	require.Equal(t, 201, status)
	change := c.watch(at, 1)[0]
	for change.kind == "catalog" { // it may still be read
		change = c.watch(change.id, 1)[0]
	}
	require.Equal(t, "change", change.kind)
	assert.EqualValues(t, l["revision"], *change.data.Event)
	assert.Equal(t, "store Quay in slot 4", *change.data.Label)
	tables := []string{}
	for _, r := range *change.data.Changes {
		tables = append(tables, r.Table)
		assert.Nil(t, r.Before)
	}
	assert.ElementsMatch(t, []string{"channel", "entry", "team_slot"}, tables)
	assert.Equal(t, "Quay", (*(*change.data.Changes)[0].After)["name"])

	_, undone := c.ask("POST", "/api/loads/1/undo", map[string]any{"revision": l["revision"]})
	missed := c.watch(change.id, 1)
	assert.EqualValues(t, undone["revision"], *missed[0].data.Event)

	status, p := c.bring("list.csv", "Output,Input,Town\n147.24,147.84,Fern Top\n")
	require.Equal(t, 201, status)
	f := form(p, "List")
	status, _ = c.ask("POST", "/api/imports/"+p["id"].(string)+"/run", f)
	require.Equal(t, 202, status)
	after, last := missed[0].id, ""
	for last != "done" {
		e := c.watch(after, 1)[0]
		if after = e.id; e.kind == "import" {
			last = string(e.data.State.State)
			assert.Equal(t, p["id"], *e.data.Import)
		}
	}
	status, all := c.ask("GET", "/api/imports", nil)
	require.Equal(t, 200, status)
	assert.Equal(t, "done", all["imports"].(map[string]any)[p["id"].(string)].(map[string]any)["state"])
}

// TestKept: what people say about listings can be listed and taken back, by
// its number or by undo.
func TestKept(t *testing.T) {
	c := serve(t)
	id := map[string]any{"source": "Harbour list", "key": "h-qx2lhv"}
	list := func(what string) []any {
		status, v := c.ask("GET", "/api/"+what, nil)
		require.Equal(t, 200, status)
		return v[what].([]any)
	}
	status, _ := c.ask("POST", "/api/corrections", map[string]any{"of": id, "field": "status", "value": "off-air", "note": "silent since May"})
	require.Equal(t, 204, status)
	kept := list("corrections")
	require.Len(t, kept, 2, "both listings that speak of it")
	one := kept[0].(map[string]any)
	assert.Equal(t, []any{"status", "off-air", "silent since May", "operator"}, []any{one["field"], one["value"], one["note"], one["person"]})
	status, p := c.ask("DELETE", "/api/corrections/"+number(one["id"].(float64))+"?revision=0", nil)
	assert.Equal(t, 409, status, "somebody who has not seen it: %v", p)
	status, _ = c.ask("DELETE", "/api/corrections/"+number(one["id"].(float64))+"?revision="+number(one["revision"].(float64)), nil)
	assert.Equal(t, 204, status)
	assert.Len(t, list("corrections"), 1)
	for _, step := range []struct {
		label string
		left  int
	}{{"take back the corrected status of h-qx2lhv", 2}, {"correct the status of Low Haven", 0}} {
		_, l := c.ask("GET", "/api/loads/1", nil)
		assert.Equal(t, step.label, l["undo"])
		status, _ = c.ask("POST", "/api/loads/1/undo", map[string]any{"revision": l["revision"]})
		require.Equal(t, 200, status)
		assert.Len(t, list("corrections"), step.left)
	}
	assert.Empty(t, list("decisions"))
	status, _ = c.ask("POST", "/api/decisions", map[string]any{"a": id, "b": map[string]any{"source": "Lantern list", "key": "l-qx2lhv"}, "same": false})
	require.Equal(t, 204, status)
	d := list("decisions")[0].(map[string]any)
	assert.Equal(t, false, d["same"])
	status, _ = c.ask("DELETE", "/api/decisions/"+number(d["id"].(float64)), nil)
	assert.Equal(t, 204, status)
	assert.Empty(t, list("decisions"))
	for _, gone := range []string{"/api/decisions/", "/api/corrections/"} {
		status, _ = c.ask("DELETE", gone+"99", nil)
		assert.Equal(t, 404, status)
	}
}

// TestPersonHeader: a request is made on behalf of somebody who is there.
func TestPersonHeader(t *testing.T) {
	c := serve(t)
	for value, want := range map[string]int{"": 200, "1": 200, "2": 404, "0": 404, "me": 404, "-1": 404} {
		req, err := http.NewRequestWithContext(t.Context(), http.MethodGet, c.url+"/api/loads/1", nil)
		require.NoError(t, err)
		if value != "" {
			req.Header.Set(api.PersonHeader, value)
		}
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		_, _ = io.Copy(io.Discard, res.Body)
		require.NoError(t, res.Body.Close())
		assert.Equal(t, want, res.StatusCode, value)
	}
}
