package api_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"os"
	"os/exec"
	"strings"
	"testing"
	"time"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/getkin/kin-openapi/openapi3filter"
	"github.com/getkin/kin-openapi/routers"
	"github.com/getkin/kin-openapi/routers/legacy"
	"github.com/labstack/echo/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/api"
	"mnemos/internal/cli"
	"mnemos/internal/demo"
	"mnemos/internal/house"
	"mnemos/internal/store"
)

var today = time.Date(2026, 11, 25, 9, 42, 0, 0, time.UTC)

// client asks the API and holds every answer against the contract.
type client struct {
	t      *testing.T
	url    string
	router routers.Router
}

func serve(t *testing.T) *client {
	t.Helper()
	s, err := store.Open(t.Context(), t.TempDir())
	require.NoError(t, err)
	require.NoError(t, demo.Fill(t.Context(), s, today))
	server := httptest.NewServer(cli.Server(house.New(s, func() time.Time { return today })))
	t.Cleanup(func() {
		server.Close()
		require.NoError(t, s.Close())
	})
	return asking(t, server.URL)
}

// asking returns a client of a server.
func asking(t *testing.T, url string) *client {
	t.Helper()
	doc, err := openapi3.NewLoader().LoadFromFile("openapi.yaml")
	require.NoError(t, err)
	require.NoError(t, doc.Validate(t.Context()))
	doc.Servers = openapi3.Servers{{URL: url}}
	router, err := legacy.NewRouter(doc)
	require.NoError(t, err)
	return &client{t: t, url: url, router: router}
}

// raw is a body that is sent as it is.
type raw string

// ask sends a request and returns the status and the body, which must be as
// the contract says.
func (c *client) ask(method, path string, body any) (int, map[string]any) {
	c.t.Helper()
	var payload io.Reader
	kind := "application/json"
	if file, ok := body.(raw); ok {
		payload, kind = strings.NewReader(string(file)), "application/octet-stream"
	} else if body != nil {
		b, err := json.Marshal(body)
		require.NoError(c.t, err)
		payload = bytes.NewReader(b)
	}
	req, err := http.NewRequestWithContext(c.t.Context(), method, c.url+path, payload)
	require.NoError(c.t, err)
	req.Header.Set("Content-Type", kind)
	res, err := http.DefaultClient.Do(req)
	require.NoError(c.t, err)
	raw, err := io.ReadAll(res.Body)
	require.NoError(c.t, err)
	require.NoError(c.t, res.Body.Close())
	route, params, err := c.router.FindRoute(req)
	require.NoError(c.t, err)
	require.NoError(c.t, openapi3filter.ValidateResponse(c.t.Context(), &openapi3filter.ResponseValidationInput{
		RequestValidationInput: &openapi3filter.RequestValidationInput{Request: req, PathParams: params, Route: route},
		Status:                 res.StatusCode, Header: res.Header, Body: io.NopCloser(bytes.NewReader(raw)),
	}), "%s %s answered against the contract: %s", method, path, raw)
	var out map[string]any
	if len(raw) > 0 {
		require.NoError(c.t, json.Unmarshal(raw, &out))
	}
	return res.StatusCode, out
}

func (c *client) ledger() (revision float64, rows map[int]map[string]any) {
	c.t.Helper()
	status, l := c.ask("GET", "/api/loads/1", nil)
	require.Equal(c.t, 200, status)
	rows = map[int]map[string]any{}
	for _, r := range l["rows"].([]any) {
		row := r.(map[string]any)
		rows[int(row["slot"].(float64))] = row
	}
	return l["revision"].(float64), rows
}

func TestFlow(t *testing.T) {
	c := serve(t)
	status, w := c.ask("GET", "/api/workspace", nil)
	require.Equal(t, 200, status)
	assert.Len(t, w["loads"], 3)
	assert.Equal(t, "GN21ia", w["operator"].(map[string]any)["locator"])
	assert.Equal(t, "Federal Communications Commission", w["operator"].(map[string]any)["authority"])

	line := `147.24 + 100 "Beacon Hill"`
	status, reading := c.ask("POST", "/api/loads/1/read", map[string]any{"line": line})
	require.Equal(t, 200, status)
	assert.EqualValues(t, 4, reading["slot"], "the next vacant slot")
	assert.Equal(t, "conflict", reading["verdict"])
	assert.Equal(t, `147.24 + 103.5 "Beacon Hill"`, reading["lines"].([]any)[0].([]any)[0], "what the first fix makes of the line")

	revision, rows := c.ledger()
	require.NotContains(t, rows, 4)
	status, l := c.ask("POST", "/api/loads/1/entries", map[string]any{"line": line, "revision": revision})
	require.Equal(t, 201, status)
	assert.Equal(t, "store Beacon Hill in slot 4", l["undo"])

	status, found := c.ask("GET", "/api/loads/1/entries/4", nil)
	require.Equal(t, 200, status)
	assert.Equal(t, "conflict", found["verdict"])
	fix := found["findings"].([]any)[0].(map[string]any)["fixes"].([]any)[0].(map[string]any)
	status, _ = c.ask("POST", "/api/loads/1/entries/4/fix", map[string]any{"id": fix["id"], "revision": l["revision"]})
	require.Equal(t, 200, status)
	status, p := c.ask("POST", "/api/loads/1/entries/4/fix", map[string]any{"id": fix["id"], "revision": revision + 2})
	assert.Equal(t, 409, status, "nobody offers it any more: %v", p)
	revision, rows = c.ledger()
	assert.Equal(t, "agrees", rows[4]["verdict"])

	status, p = c.ask("PATCH", "/api/loads/1/entries/4", map[string]any{"name": "Late", "revision": revision - 1})
	require.Equal(t, 409, status)
	assert.EqualValues(t, revision, p["ledger"].(map[string]any)["revision"], "the present state comes along")

	for _, redo := range []bool{false, false, true, true} {
		revision, _ = c.ledger()
		status, _ = c.ask("POST", "/api/loads/1/undo", map[string]any{"redo": redo, "revision": revision})
		require.Equal(t, 200, status)
	}
	revision, rows = c.ledger()
	assert.Equal(t, "103.5", rows[4]["channel"].(map[string]any)["transmit_tone"])
	status, _ = c.ask("POST", "/api/loads/1/undo", map[string]any{"redo": true, "revision": revision})
	assert.Equal(t, 409, status, "nothing is left to do again")

	status, _ = c.ask("DELETE", "/api/loads/1/entries/4?revision="+number(revision), nil)
	require.Equal(t, 200, status)
	status, _ = c.ask("GET", "/api/loads/1/entries/4", nil)
	assert.Equal(t, 404, status)
}

func number(f float64) string {
	b, err := json.Marshal(f)
	if err != nil {
		panic(err) // a number always marshals
	}
	return string(b)
}

func TestBadInput(t *testing.T) {
	c := serve(t)
	revision, before := c.ledger()
	fields := func(p map[string]any) (out []string) {
		for _, e := range p["errors"].([]any) {
			out = append(out, e.(map[string]any)["field"].(string))
		}
		return out
	}
	status, p := c.ask("PATCH", "/api/loads/1/entries/7", map[string]any{
		"revision": revision, "receive": "abc", "shift": "88.5", "transmit_tone": "loud", "receive_tone": "12", "scan": "maybe", "slot": "9999",
		"short_name": "much too long", "name": strings.Repeat("x", 70),
	})
	require.Equal(t, 422, status)
	assert.ElementsMatch(t, []string{"name", "receive", "shift", "transmit_tone", "receive_tone", "scan", "short_name", "slot"}, fields(p), "every field at fault at once")

	for _, x := range []struct {
		body  map[string]any
		field string
		says  string
	}{
		{map[string]any{"line": "146.94 -600 -600"}, "line", "one sign and one size"},
		{map[string]any{"line": ""}, "line", "receive frequency"},
		{map[string]any{"line": "29.64 - 100"}, "line", "two ways"},
		{map[string]any{"line": "146.55 #7"}, "slot", "slot 7 holds Marran Light"},
		{map[string]any{"line": "146.55 #777"}, "slot", "slots 1 to 200"},
	} {
		x.body["revision"] = revision
		status, p := c.ask("POST", "/api/loads/1/entries", x.body)
		require.Equal(t, 422, status, x.body)
		assert.Equal(t, []string{x.field}, fields(p))
		assert.Contains(t, p["detail"], x.says)
	}
	status, p = c.ask("PATCH", "/api/loads/1/entries/7", map[string]any{"revision": revision, "slot": "8"})
	require.Equal(t, 422, status)
	assert.Contains(t, p["detail"], "slot 8 holds Pell Light")
	for _, x := range []struct{ method, path string }{{"GET", "/api/loads/99"}, {"GET", "/api/loads/1/entries/4"}, {"GET", "/api/loads/1/ribbon?band=13+m"}} {
		status, _ := c.ask(x.method, x.path, nil)
		assert.Equal(t, 404, status, x.path)
	}
	for body, says := range map[string]string{`{`: "it is not JSON", `{"line":5}`: "line: write a string", `{}`: "line: it is missing"} {
		res, err := http.Post(c.url+"/api/loads/1/read", "application/json", strings.NewReader(body))
		require.NoError(t, err)
		raw, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		require.NoError(t, res.Body.Close())
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
		assert.Equal(t, "application/problem+json", res.Header.Get("Content-Type"))
		assert.Contains(t, string(raw), says)
		assert.NotContains(t, string(raw), "code=")
	}
	status, _ = c.ask("PATCH", "/api/loads/1/entries/7", map[string]any{"revision": revision, "name": "Marran Light"})
	require.Equal(t, 200, status)
	after, rows := c.ledger()
	assert.Equal(t, revision, after, "a change that changes nothing is none")
	assert.Equal(t, before, rows, "nothing was half stored")
}

func TestUpdate(t *testing.T) {
	c := serve(t)
	change := func(slot string, fields map[string]any) map[int]map[string]any {
		revision, _ := c.ledger()
		fields["revision"] = revision
		status, p := c.ask("PATCH", "/api/loads/1/entries/"+slot, fields)
		require.Equal(t, 200, status, "%v", p)
		_, rows := c.ledger()
		return rows
	}
	channelOf := func(row map[string]any) map[string]any { return row["channel"].(map[string]any) }
	rows := change("7", map[string]any{"name": "Lantern Point", "receive": "146,97", "shift": "-", "transmit_tone": "100", "receive_tone": "", "power": "low", "scan": "skip"})
	assert.Equal(t, "LNTRNP", rows[7]["short_name"], "the short name follows")
	assert.EqualValues(t, 146_970_000, channelOf(rows[7])["receive_hz"])
	assert.EqualValues(t, 146_370_000, channelOf(rows[7])["transmit_hz"])
	assert.Nil(t, channelOf(rows[7])["receive_tone"])
	change("7", map[string]any{"short_name": "LP"})
	rows = change("7", map[string]any{"name": "Other name", "short_name": "LP"})
	assert.Equal(t, "LP", rows[7]["short_name"], "a short name that was chosen stays")
	rows = change("7", map[string]any{"shift": "tx 147.5"})
	assert.Equal(t, "split", channelOf(rows[7])["transmit"].(map[string]any)["kind"])
	rows = change("7", map[string]any{"shift": "rx only"})
	assert.Nil(t, channelOf(rows[7])["transmit_hz"])
	rows = change("7", map[string]any{"slot": "8", "swap": true})
	assert.Equal(t, "Other name", channelOf(rows[8])["name"])
	assert.Equal(t, "Pell Light", channelOf(rows[7])["name"])
	rows = change("8", map[string]any{"slot": "#150"})
	assert.Equal(t, "Other name", channelOf(rows[150])["name"])
	revision, _ := c.ledger()
	status, _ := c.ask("POST", "/api/loads/1/entries", map[string]any{"line": "146.55 #7 Over", "replace": true, "revision": revision})
	require.Equal(t, 201, status, "on purpose a slot can be stored over")
}

func TestLooks(t *testing.T) {
	c := serve(t)
	for _, load := range []string{"1", "2", "3"} {
		status, l := c.ask("GET", "/api/loads/"+load, nil)
		require.Equal(t, 200, status)
		for _, r := range l["rows"].([]any) {
			slot := number(r.(map[string]any)["slot"].(float64))
			status, _ = c.ask("GET", "/api/loads/"+load+"/entries/"+slot, nil)
			require.Equal(t, 200, status)
			status, k := c.ask("GET", "/api/loads/"+load+"/entries/"+slot+"/keypad", nil)
			require.Equal(t, 200, status)
			assert.NotEmpty(t, k["sheet"].(map[string]any)["steps"])
			status, h := c.ask("POST", "/api/loads/"+load+"/entries/"+slot+"/handset", map[string]any{"acts": []string{"line 0", "line 1", "key 1"}})
			require.Equal(t, 200, status)
			assert.Empty(t, h["trouble"])
			assert.NotEmpty(t, h["frames"])
		}
		status, r := c.ask("GET", "/api/loads/"+load+"/ribbon", nil)
		require.Equal(t, 200, status)
		for _, b := range r["bands"].([]any) {
			status, _ = c.ask("GET", "/api/loads/"+load+"/ribbon?band="+strings.ReplaceAll(b.(string), " ", "+"), nil)
			require.Equal(t, 200, status)
		}
	}
}

// TestHandsetRefuses what is not an act, a slot that is empty, and a radio that
// cannot be followed.
func TestHandsetRefuses(t *testing.T) {
	c := serve(t)
	for _, x := range []struct {
		path, body string
		status     int
		says       string
	}{
		{"/api/loads/1/entries/8/handset", `{"acts":["dance"]}`, 422, "is not an act"},
		{"/api/loads/1/entries/8/handset", `{"acts":["line 99"]}`, 422, "is not an act"},
		{"/api/loads/1/entries/99/handset", `{"acts":[]}`, 404, "slot 99 is empty"},
		{"/api/loads/9/entries/8/handset", `{"acts":[]}`, 404, ""},
		{"/api/loads/1/entries/8/handset", `{"acts":"line 1"}`, 422, "acts: write an array"},
	} {
		status, p := c.ask("POST", x.path, json.RawMessage(x.body))
		assert.Equal(t, x.status, status, x.body)
		assert.Contains(t, fmt.Sprint(p), x.says)
	}
}

// TestContracted: what the contract does not allow is refused with the field
// and what to write, and is never half understood.
func TestContracted(t *testing.T) {
	c := serve(t)
	for query, says := range map[string]string{
		"most=0":                           "most: write a number from 1 to 500",
		"most=501":                         "most: write a number from 1 to 500",
		"plan=x":                           "plan: ",
		"line=" + strings.Repeat("a", 401): "line: write up to 400 characters",
		"most=a&load=b":                    "; ",
	} {
		status, p := c.ask("GET", "/api/find?"+query, nil)
		assert.Equal(t, http.StatusUnprocessableEntity, status, query)
		assert.Contains(t, p["detail"], says, query)
	}
	for _, query := range []string{"", "line=60km", "line=60.5km+by-reach", "line=" + strings.Repeat("%C3%A9", 400), "line=digital+open", "most=500"} {
		status, _ := c.ask("GET", "/api/find?"+query, nil)
		assert.Equal(t, http.StatusOK, status, query)
	}
	for _, number := range []string{"NaN", "Inf", "near"} {
		status, p := c.ask("GET", "/api/find/chart?south=-60&east=60&north=60&cell=1&west="+number, nil)
		assert.Equal(t, http.StatusUnprocessableEntity, status, number)
		assert.Contains(t, p["detail"], "west: write a number from -20100 to 20100")
	}
	res, err := http.Post(c.url+"/api/loads/1/read", "application/xml", strings.NewReader("<line/>"))
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	assert.Equal(t, http.StatusUnsupportedMediaType, res.StatusCode)
}

// TestGuard tries what another page or a foreign host name would try.
func TestGuard(t *testing.T) {
	c := serve(t)
	with := func(headers ...string) func(*http.Request) {
		return func(r *http.Request) {
			for i := 0; i < len(headers); i += 2 {
				r.Header.Set(headers[i], headers[i+1])
			}
		}
	}
	// What browsers send of themselves: Fetch (WHATWG), Fetch Metadata (W3C).
	link := []string{"Sec-Fetch-Site", "cross-site", "Sec-Fetch-Mode", "navigate", "Sec-Fetch-Dest", "document"}
	for name, x := range map[string]struct {
		method, path string
		change       func(*http.Request)
		status       int
	}{
		"host":                  {"GET", "/api/workspace", func(r *http.Request) { r.Host = "evil.example" }, http.StatusForbidden},
		"origin":                {"GET", "/api/workspace", with("Origin", "http://evil.example"), http.StatusForbidden},
		"site":                  {"GET", "/api/workspace", with("Sec-Fetch-Site", "cross-site"), http.StatusForbidden},
		"another port":          {"POST", "/api/loads/1/undo", with("Origin", "http://127.0.0.1:1"), http.StatusForbidden},
		"another loopback name": {"POST", "/api/loads/1/undo", with("Origin", "http://localhost"), http.StatusForbidden},
		"same site":             {"POST", "/api/loads/1/undo", with("Sec-Fetch-Site", "same-site", "Sec-Fetch-Mode", "no-cors"), http.StatusForbidden},
		"a frame or a file":     {"POST", "/api/loads/1/undo", with("Origin", "null"), http.StatusForbidden},
		"the own page":          {"GET", "/api/workspace", with("Origin", c.url, "Sec-Fetch-Site", "same-origin"), http.StatusOK},
		"a typed address":       {"GET", "/", with("Sec-Fetch-Site", "none", "Sec-Fetch-Mode", "navigate"), http.StatusOK},
		"a link to the page":    {"GET", "/", with(link...), http.StatusOK},
		"a link to the data":    {"GET", "/api/workspace", with(link...), http.StatusForbidden},
		"a form of another":     {"POST", "/", with(link...), http.StatusForbidden},
		"a frame of another":    {"GET", "/", with("Sec-Fetch-Site", "cross-site", "Sec-Fetch-Mode", "navigate", "Sec-Fetch-Dest", "iframe"), http.StatusForbidden},
	} {
		req, err := http.NewRequestWithContext(t.Context(), x.method, c.url+x.path, nil)
		require.NoError(t, err)
		x.change(req)
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		require.NoError(t, res.Body.Close())
		assert.Equal(t, x.status, res.StatusCode, name)
	}
	res, err := http.Get(c.url + "/")
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	assert.Contains(t, res.Header.Get("Content-Security-Policy"), "script-src 'self'")
	assert.NotContains(t, res.Header.Get("Content-Security-Policy"), "unsafe")
	res, err = http.Post(c.url+"/api/loads/1/read", "application/json", strings.NewReader(`{"line":"`+strings.Repeat("x", 2<<20)+`"}`))
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	assert.Equal(t, http.StatusRequestEntityTooLarge, res.StatusCode)
}

// TestGenerated fails when the contract has changed and the server has not.
func TestGenerated(t *testing.T) {
	want, err := os.ReadFile("server_gen.go")
	require.NoError(t, err)
	config := t.TempDir() + "/oapi.yaml"
	b, err := os.ReadFile("oapi.yaml")
	require.NoError(t, err)
	output := t.TempDir() + "/server_gen.go"
	require.NoError(t, os.WriteFile(config, bytes.Replace(b, []byte("output: server_gen.go"), []byte("output: "+output), 1), 0o600))
	out, err := exec.CommandContext(t.Context(), "go", "tool", "oapi-codegen", "-config", config, "openapi.yaml").CombinedOutput()
	require.NoError(t, err, string(out))
	got, err := os.ReadFile(output)
	require.NoError(t, err)
	require.Equal(t, string(want), string(got), "run make generate")
	spec, err := api.GetSpecJSON()
	require.NoError(t, err)
	assert.Contains(t, string(spec), "/api/workspace")
}

// TestMeant: what is meant for another folder's Mnemos is refused; pages say no
// token and are served.
func TestMeant(t *testing.T) {
	for said, want := range map[string]int{"": http.StatusOK, "RIGHT": http.StatusOK, "WRONG": http.StatusForbidden} {
		e := echo.New()
		e.HTTPErrorHandler = api.ErrorHandler
		e.Pre(api.Meant("RIGHT"))
		e.GET("/", func(c *echo.Context) error { return c.NoContent(http.StatusOK) })
		r, w := httptest.NewRequest(http.MethodGet, "/", nil), httptest.NewRecorder()
		r.Header.Set(api.TokenHeader, said)
		e.ServeHTTP(w, r)
		assert.Equal(t, want, w.Code, said)
	}
}
