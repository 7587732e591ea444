package api_test

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/api"
	"mnemos/internal/cli"
	"mnemos/internal/demo"
	"mnemos/internal/house"
	"mnemos/internal/root"
	"mnemos/internal/store"
)

// operation is one of the contract that changes something.
type operation struct {
	id, method, path string
	params           openapi3.Parameters
	body             *openapi3.Schema
	file             bool // its body is a file
}

// writing are all operations of the contract that may change something: a new one
// is among them without being named.
func writing(t *testing.T) (out []operation) {
	t.Helper()
	spec, err := api.GetSpec()
	require.NoError(t, err)
	for path, item := range spec.Paths.Map() {
		for method, op := range item.Operations() {
			if method == http.MethodGet || op.Extensions["x-reads"] == true {
				continue
			}
			o := operation{id: op.OperationID, method: method, path: path, params: append(slices.Clone(item.Parameters), op.Parameters...)}
			if op.RequestBody != nil {
				if m := op.RequestBody.Value.Content.Get("application/json"); m != nil {
					o.body = m.Schema.Value
				} else {
					o.file = true
				}
			}
			out = append(out, o)
		}
	}
	slices.SortFunc(out, func(a, b operation) int { return strings.Compare(a.id, b.id) })
	return out
}

// likely are values that an operation can do something with, by their names.
var likely = map[string][]any{
	"line": {`146.55 "Quay"`, "147.24 + 100", "nonsense"}, "revision": {1 << 52}, "slot": {4, 1, 40}, "slots": {[]any{1}, []any{1, 2}}, "state": {"stored", "keyed", "later"}, "act": {"insert", "sort", "tick", "space"},
	"name": {"Storm", "Calm"}, "text": {"146.55\n146.565", "147.24\t+"}, "id": {1}, "radio": {"trail", "ferry"}, "source": {"Harbour list"}, "key": {"h-qx2lhv"}, "field": {"status"}, "value": {"off-air", "vehicle"},
	"region": {"us", "uk"}, "place": {"41.0, -55.3"}, "kind": {"purpose", "scan list", "leave"}, "channels": {[]any{1}}, "also": {[]any{}, []any{2}}, "data": {"MTQ2LjU1Cg=="}, "receive": {"146.565"}, "copy": {"trail"}, "shift": {"+", "simplex"},
	"tone_policy": {"encode first"}, "person": {"QX1NEW"}, "to": {1}, "count": {1}, "column": {"name"}, "set": {map[string]any{"words": "storm"}, 1}, "fields": {map[string]any{"power": "low"}},
}

// made is a value for a schema.
func made(r *rand.Rand, name string, s *openapi3.Schema, depth int) any {
	if len(s.AllOf) == 1 {
		s = s.AllOf[0].Value
	}
	if len(s.Enum) > 0 {
		return s.Enum[r.IntN(len(s.Enum))]
	}
	if vs := likely[name]; vs != nil && r.IntN(6) > 0 {
		v := vs[r.IntN(len(vs))]
		_, text := v.(string)
		_, list := v.([]any)
		_, object := v.(map[string]any)
		if s.Type.Is("string") == text && s.Type.Is("array") == list && s.Type.Is("object") == object {
			return v
		}
	}
	switch {
	case s.Type.Is("string"):
		return []string{"", "1", "storm", "146.55", "−", "👍"}[r.IntN(6)]
	case s.Type.Is("integer"):
		return r.IntN(4)
	case s.Type.Is("number"):
		return r.Float64() * 10
	case s.Type.Is("boolean"):
		return r.IntN(2) == 0
	case s.Type.Is("array"):
		out := []any{}
		for range r.IntN(3) {
			out = append(out, made(r, "", s.Items.Value, depth+1))
		}
		return out
	}
	out := map[string]any{}
	for _, p := range sortedNames(s.Properties) {
		if depth < 6 && (slices.Contains(s.Required, p) || r.IntN(2) == 0) {
			out[p] = made(r, p, s.Properties[p].Value, depth+1)
		}
	}
	return out
}

func sortedNames(m openapi3.Schemas) (out []string) {
	for k := range m {
		out = append(out, k)
	}
	slices.Sort(out)
	return out
}

// request is a request for an operation, and its address.
func (o operation) request(r *rand.Rand) (path string, body []byte, kind string) {
	path, query := o.path, []string{}
	for _, p := range o.params {
		v := made(r, p.Value.Name, p.Value.Schema.Value, 0)
		switch p.Value.In {
		case "path":
			if p.Value.Name == "load" || p.Value.Name == "id" || p.Value.Name == "slot" {
				v = 1 + r.IntN(2)
			}
			if text := fmt.Sprint(v); text != "" {
				path = strings.ReplaceAll(path, "{"+p.Value.Name+"}", strings.ReplaceAll(text, " ", "%20"))
			} else {
				path = strings.ReplaceAll(path, "{"+p.Value.Name+"}", "1")
			}
		case "query":
			if p.Value.Required || r.IntN(2) == 0 {
				query = append(query, p.Value.Name+"="+strings.ReplaceAll(strings.Trim(fmt.Sprint(v), "[]"), " ", ","))
			}
		}
	}
	if len(query) > 0 {
		path += "?" + strings.Join(query, "&")
	}
	switch {
	case o.file:
		return path, []byte("Output,Input,Town\n147.24,147.84,Fern Top\n"), "application/octet-stream"
	case o.body != nil:
		body, _ = json.Marshal(made(r, "", o.body, 0))
		return path, body, "application/json"
	}
	return path, nil, ""
}

// sea is a server in a storm.
type sea struct {
	*testing.T
	store  *store.Store
	server *httptest.Server
	folder string
}

func launch(t *testing.T) *sea {
	t.Helper()
	folder := t.TempDir()
	s, err := store.Open(t.Context(), folder)
	require.NoError(t, err)
	require.NoError(t, demo.Fill(t.Context(), s, today))
	x := &sea{t, s, httptest.NewServer(cli.Server(house.New(s, func() time.Time { return today }))), folder}
	t.Cleanup(func() {
		x.server.Close()
		_ = s.Close()
	})
	for _, have := range [][2]string{ // so that there is something to change
		{"/api/people", `{"name":"Second"}`},
		{"/api/plans", `{"name":"Second","region":"us","radio":"trail"}`},
		{"/api/plans/1/sets", `{"kind":"purpose","name":"Calls","channels":[1]}`},
		{"/api/plans/1/snapshots", `{"name":"Before"}`},
		{"/api/corrections", `{"of":{"source":"Harbour list","key":"h-qx2lhv"},"field":"status","value":"off-air","note":""}`},
		{"/api/decisions", `{"a":{"source":"Harbour list","key":"h-qx2lhv"},"b":{"source":"Lantern list","key":"l-qx2lhv"},"same":false}`},
	} {
		status, text := x.send(t.Context(), http.MethodPost, have[0], "application/json", "", []byte(have[1]))
		require.Less(t, status, 300, "%s: %s", have[0], text)
	}
	return x
}

// send sends a request, and returns the status and what was answered. What is
// answered is in words, not in those of Go or the database.
func (x *sea) send(ctx context.Context, method, path, kind, key string, body []byte) (int, string) {
	x.Helper()
	req, err := http.NewRequestWithContext(ctx, method, x.server.URL+path, bytes.NewReader(body))
	require.NoError(x, err, path)
	if kind != "" {
		req.Header.Set("Content-Type", kind)
	}
	if key != "" {
		req.Header.Set("Idempotency-Key", key)
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return 0, err.Error()
	}
	b, err := io.ReadAll(res.Body)
	_ = res.Body.Close()
	if err != nil {
		return 0, err.Error()
	}
	text := string(b)
	if res.StatusCode >= 400 {
		for _, foreign := range []string{"strconv", "json:", "sql:", "SQLITE", "constraint failed", "runtime error", "goroutine", "context deadline", "UNIQUE", "invalid syntax", "unexpected end of JSON", "cannot unmarshal", "reflect"} {
			assert.NotContains(x, text, foreign, "%s %s %s", method, path, body)
		}
	}
	return res.StatusCode, text
}

func (x *sea) head() int64 {
	n, err := x.store.Head(x.Context())
	require.NoError(x, err)
	return n
}

// good reports whether a status is one of those that there may be.
func good(status int) bool { return status < 500 || status == 503 || status == 507 }

func rounds(t *testing.T) int {
	n, err := strconv.Atoi(os.Getenv("MNEMOS_STORM"))
	if err != nil {
		return 2
	}
	t.Logf("%d rounds", n)
	return n
}

// TestStorm asks for every operation that changes something in fair and in foul
// weather, MNEMOS_STORM times each. Nothing is answered with 5xx but 503 and 507,
// in words; what was refused changed nothing; and under one key a change takes
// place once.
func TestStorm(t *testing.T) {
	was := store.Waiting
	store.Waiting = 20 * time.Millisecond
	defer func() { store.Waiting = was }()
	var mu sync.Mutex
	done, all := map[string]bool{}, writing(t)
	t.Run("operations", func(t *testing.T) {
		for i, op := range all {
			t.Run(op.id, func(t *testing.T) {
				t.Parallel()
				r := rand.New(rand.NewPCG(30, uint64(i))) //nolint:gosec // the same requests every time
				x := launch(t)
				for n := range rounds(t) {
					if x.weather(r, op, fmt.Sprint(op.id, n)) {
						mu.Lock()
						done[op.id] = true
						mu.Unlock()
					}
				}
			})
		}
	})
	t.Logf("%d of %d operations changed something or could be carried out", len(done), len(all))
	assert.GreaterOrEqual(t, len(all), 66)
	assert.GreaterOrEqual(t, len(done), len(all)/3, "most requests are refused: they show too little")
}

// weather sends requests for one operation, and reports whether one was carried out.
func (x *sea) weather(r *rand.Rand, op operation, key string) (carried bool) {
	x.Helper()
	ctx := x.Context()
	path, body, kind := op.request(r)

	// The file is locked by another process, and the disk is full.
	other, err := sqlx.Open("sqlite", "file:"+filepath.Join(x.folder, "mnemos.db")+"?_txlock=immediate")
	require.NoError(x, err)
	tx, err := other.BeginTxx(ctx, nil)
	require.NoError(x, err)
	before := x.head()
	status, text := x.send(ctx, op.method, path, kind, key+"-locked", body)
	assert.True(x, good(status), "locked: %s %s %s: %d %s", op.method, path, body, status, text)
	require.NoError(x, tx.Rollback())
	require.NoError(x, other.Close())
	assert.Equal(x, before, x.head(), "locked")
	if op.id != "bringListing" { // which would wait beside
		require.NoError(x, x.store.Room(ctx, 0))
		status, text = x.send(ctx, op.method, path, kind, key+"-full", body)
		carried = status < 300
		assert.True(x, good(status), "full: %s %s %s: %d %s", op.method, path, body, status, text)
		if status == http.StatusInsufficientStorage {
			assert.Equal(x, before, x.head(), "what was not saved changed nothing: %s", path)
		}
		require.NoError(x, x.store.Room(ctx, -1))
	}

	// Somebody leaves at a random byte, and asks again under the same key.
	left, leave := context.WithTimeout(ctx, time.Duration(r.IntN(20))*time.Millisecond)
	_, _ = x.send(left, op.method, path, kind, key, body)
	leave()
	status, text = x.send(ctx, op.method, path, kind, key, body)
	assert.True(x, good(status), "%s %s %s: %d %s", op.method, path, body, status, text)
	if status >= 200 && status < 300 {
		carried = true
		head := x.head()
		again, text := x.send(ctx, op.method, path, kind, key, body)
		assert.Equal(x, http.StatusNoContent, again, "the same key: %s %s %s", op.method, path, text)
		assert.Equal(x, head, x.head(), "it took place once: %s", path)
		another, text := x.send(ctx, op.method, path, kind, key, append(bytes.Clone(body), ' '))
		if len(body) > 0 {
			assert.Equal(x, http.StatusUnprocessableEntity, another, "the key of something else: %s %s", path, text)
			assert.Contains(x, text, "something else")
		}
		assert.Equal(x, head, x.head(), "it took place once: %s", path)
	}

	// Every value at and past its bound.
	for _, odd := range []any{-1 << 53, 1 << 53, 1e308, "\u0000", "\uffff", strings.Repeat("x", 5000), strings.Repeat("👍", 4001), nil, []any{}, map[string]any{}} {
		var v map[string]any
		if json.Unmarshal(body, &v) != nil || len(v) == 0 {
			break
		}
		for name := range v {
			w := map[string]any{}
			for k, x := range v {
				w[k] = x
			}
			w[name] = odd
			b, err := json.Marshal(w)
			require.NoError(x, err)
			status, text := x.send(ctx, op.method, path, kind, "", b)
			assert.True(x, good(status), "bounds: %s %s %.200s: %d %s", op.method, path, b, status, text)
		}
	}
	for _, b := range []string{"", "null", "[]", "{", `{"revision":1,"Revision":2}`, "{}{}", strings.Repeat("[", 500)} {
		status, text := x.send(ctx, op.method, path, "application/json", "", []byte(b))
		assert.True(x, good(status), "odd body: %s %s %s: %d %s", op.method, path, b, status, text)
	}
	return carried
}

// TestPanics lets every operation meet a panic at every named place that it comes
// by, also under locks and after the commit. It alone fails, in words; asked for
// again under its key it took place once; everybody else goes on.
func TestPanics(t *testing.T) { //nolint:paralleltest // the places are watched for all
	met := map[string]bool{}
	for i, op := range writing(t) {
		r := rand.New(rand.NewPCG(60, uint64(i))) //nolint:gosec // the same requests every time
		x := launch(t)
		for try := range 3 {
			path, body, kind := op.request(r)
			places := []string{}
			end := root.Watch(func(place string) {
				if !slices.Contains(places, place) {
					places = append(places, place)
				}
			})
			if op.id != "runImport" && op.id != "bringListing" { // which go on beside
				_, _ = x.send(t.Context(), op.method, path, kind, "", body)
			}
			end()
			for _, place := range places {
				if place == "store: sweep" || met[op.id+" "+place] {
					continue
				}
				x.fall(t, op, place, fmt.Sprint(op.id, try, place), met, r)
			}
		}
	}
	t.Logf("%d places", len(met))
	assert.GreaterOrEqual(t, len(met), 60)
}

func (x *sea) fall(t *testing.T, op operation, place, key string, met map[string]bool, r *rand.Rand) {
	t.Helper()
	key = strings.ReplaceAll(key[:min(60, len(key))], " ", "-")
	path, body, kind := op.request(r)
	var once sync.Once
	fell := false
	end := root.Watch(func(at string) {
		if at == place {
			once.Do(func() {
				fell = true
				panic("nobody foresaw this")
			})
		}
	})
	before := x.head()
	status, text := x.send(t.Context(), op.method, path, kind, key, body)
	end()
	if !fell {
		return
	}
	met[op.id+" "+place] = true
	if status == http.StatusInternalServerError {
		assert.Contains(t, text, "a fault of its own", "%s at %s", path, place)
		assert.Equal(t, before, x.head(), "it did not take place: %s at %s", path, place)
	} else {
		assert.Less(t, status, 500, "%s at %s: %s", path, place, text)
	}
	status, text = x.send(t.Context(), op.method, path, kind, key, body)
	assert.True(t, good(status), "again: %s at %s: %d %s", path, place, status, text)
	// Somebody else goes on.
	status, text = x.send(t.Context(), http.MethodPost, "/api/people", "application/json", "", fmt.Appendf(nil, `{"name":"Other %d"}`, len(met)))
	assert.Equal(t, http.StatusCreated, status, "after %s at %s: %s", path, place, text)
}
