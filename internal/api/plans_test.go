package api_test

import (
	"fmt"
	"net/http/httptest"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/cli"
	"mnemos/internal/house"
	"mnemos/internal/store"
)

// empty serves a new folder.
func empty(t *testing.T) *client {
	t.Helper()
	s, err := store.Open(t.Context(), t.TempDir())
	require.NoError(t, err)
	server := httptest.NewServer(cli.Server(house.New(s, func() time.Time { return today })))
	t.Cleanup(func() {
		server.Close()
		require.NoError(t, s.Close())
	})
	return asking(t, server.URL)
}

func get[T any](m map[string]any, path ...any) T {
	var v any = m
	for _, p := range path {
		switch k := p.(type) {
		case string:
			v = v.(map[string]any)[k]
		case int:
			v = v.([]any)[k]
		}
	}
	return v.(T)
}

// TestStart begins with an empty folder: three answers make an empty plan, and
// the demonstration is a plan beside it whose listings stay with it.
func TestStart(t *testing.T) {
	c := empty(t)
	_, s := c.ask("GET", "/api/start", nil)
	assert.Equal(t, true, s["needed"])
	assert.Nil(t, s["demo"])
	assert.NotEmpty(t, s["regions"])
	assert.NotEmpty(t, s["radios"])
	status, _ := c.ask("GET", "/api/workspace", nil)
	assert.Equal(t, 404, status)
	status, p := c.ask("POST", "/api/start", map[string]any{
		"person": map[string]any{"name": " ", "colour": "infra"}, "plan": map[string]any{"name": "", "region": "US", "place": "somewhere", "radio": "spaceship"},
	})
	require.Equal(t, 422, status)
	assert.ElementsMatch(t, []string{"person", "colour", "name", "region", "place", "radio"}, faults(p), "every answer at once")
	ask := map[string]any{
		"person": map[string]any{"name": "QX1AA", "unlicensed": true}, "plan": map[string]any{"name": "Season", "region": "us", "place": "GN21ia", "radio": "trail"},
	}
	status, w := c.ask("POST", "/api/start", ask)
	require.Equal(t, 201, status)
	assert.Equal(t, "QX1AA", get[string](w, "me", "name"))
	assert.Equal(t, true, get[bool](w, "me", "unlicensed"))
	assert.Equal(t, "GN21ia", get[string](w, "operator", "locator"))
	status, _ = c.ask("POST", "/api/start", ask)
	assert.Equal(t, 422, status, "once")
	_, l := c.ask("GET", "/api/loads/"+number(get[float64](w, "loads", 0, "id")), nil)
	assert.Empty(t, l["rows"])
	assert.Empty(t, l["undo"], "there is nothing to go back to")
	_, f := c.ask("GET", "/api/find", nil)
	assert.Empty(t, f["repeaters"])

	status, d := c.ask("POST", "/api/demo", nil)
	require.Equal(t, 201, status)
	demo := get[float64](d, "plan", "id")
	assert.Equal(t, true, get[bool](d, "plan", "demo"))
	_, again := c.ask("POST", "/api/demo", nil)
	assert.EqualValues(t, demo, get[float64](again, "plan", "id"), "it is there already")
	_, f = c.ask("GET", "/api/find?plan="+number(demo), nil)
	assert.NotEmpty(t, f["repeaters"])
	_, f = c.ask("GET", "/api/find", nil)
	assert.Empty(t, f["repeaters"], "what is invented stays there")
	_, r := c.ask("POST", fmt.Sprintf("/api/loads/%s/read", number(get[float64](d, "loads", 0, "id"))), map[string]any{"line": "146.94 - 88.5"})
	assert.NotEmpty(t, r["matches"])

	// Removed, its listings go with it; undone, all is there.
	status, _ = c.ask("DELETE", "/api/plans/"+number(demo), nil)
	require.Equal(t, 204, status)
	status, _ = c.ask("GET", "/api/workspace?plan="+number(demo), nil)
	assert.Equal(t, 404, status)
	load := "/api/loads/" + number(get[float64](w, "loads", 0, "id"))
	_, l = c.ask("GET", load, nil)
	assert.Equal(t, "remove the plan Three Lights Walk", l["undo"])
	status, _ = c.ask("POST", load+"/undo", map[string]any{"revision": l["revision"]})
	require.Equal(t, 200, status)
	_, f = c.ask("GET", "/api/find?plan="+number(demo), nil)
	assert.NotEmpty(t, f["repeaters"])
	_, l = c.ask("GET", "/api/loads/"+number(get[float64](d, "loads", 0, "id")), nil)
	assert.Len(t, l["rows"], 24)
}

// TestPlans makes, names, copies and puts away plans.
func TestPlans(t *testing.T) {
	c := serve(t)
	status, w := c.ask("POST", "/api/plans", map[string]any{"name": "Autumn", "season": "hill days", "region": "uk", "place": "IO91wm", "radio": "ferry"})
	require.Equal(t, 201, status)
	id, load := number(get[float64](w, "plan", "id")), number(get[float64](w, "loads", 0, "id"))
	assert.Equal(t, []any{"uk", "IO91wm"}, []any{get[string](w, "operator", "region"), get[string](w, "operator", "locator")})
	require.Len(t, w["plans"], 2)
	status, l := c.ask("POST", "/api/loads/"+load+"/entries", map[string]any{"line": "433.35 +1.6 82.5 Town", "revision": 1 << 40})
	require.Equal(t, 201, status)
	require.Len(t, l["rows"], 1)

	status, copied := c.ask("POST", "/api/plans/"+id+"/copy", map[string]any{"name": "Winter"})
	require.Equal(t, 201, status)
	_, other := c.ask("GET", "/api/loads/"+number(get[float64](copied, "loads", 0, "id")), nil)
	assert.Equal(t, get[string](l, "rows", 0, "channel", "name"), get[string](other, "rows", 0, "channel", "name"))
	assert.NotEqual(t, get[float64](l, "rows", 0, "id"), get[float64](other, "rows", 0, "id"), "a channel of its own")
	assert.Equal(t, get[float64](w, "loads", 0, "unit", "id"), get[float64](copied, "loads", 0, "unit", "id"), "the same radio")
	status, _ = c.ask("POST", "/api/plans/1/copy", map[string]any{"name": "Mine"})
	assert.Equal(t, 422, status, "the demonstration is invented")

	revision := get[float64](w, "plan", "revision")
	status, w = c.ask("PATCH", "/api/plans/"+id, map[string]any{"name": "Spring", "revision": revision})
	require.Equal(t, 200, status)
	assert.Equal(t, []any{"Spring", "hill days"}, []any{get[string](w, "plan", "name"), get[string](w, "plan", "season")})
	status, p := c.ask("PATCH", "/api/plans/"+id, map[string]any{"season": "late", "revision": revision})
	require.Equal(t, 409, status)
	assert.Contains(t, p["detail"], "name is Spring now and was Autumn")
	assert.Equal(t, "Spring", get[string](p, "workspace", "plan", "name"), "as it stands now")
	status, w = c.ask("PATCH", "/api/plans/"+id, map[string]any{"archived": true})
	require.Equal(t, 200, status)
	assert.Equal(t, true, get[bool](w, "plan", "archived"))
	for _, bad := range []map[string]any{{"name": ""}, {"name": "a\nb"}, {"region": "atlantis"}, {"place": "999,999"}} {
		status, _ = c.ask("PATCH", "/api/plans/"+id, bad)
		assert.Equal(t, 422, status, bad)
	}
	status, _ = c.ask("DELETE", "/api/plans/1", nil)
	assert.Equal(t, 204, status)
	status, _ = c.ask("DELETE", "/api/plans/"+number(get[float64](copied, "plan", "id")), nil)
	assert.Equal(t, 204, status)
	status, p = c.ask("DELETE", "/api/plans/"+id, nil)
	assert.Equal(t, 422, status, "the last one stays")
	assert.Contains(t, p["detail"], "only plan")
	status, _ = c.ask("PATCH", "/api/plans/99", map[string]any{"name": "x"})
	assert.Equal(t, 404, status)
}

// TestPeople adds people, and has each do something of their own.
func TestPeople(t *testing.T) {
	c := serve(t)
	status, p := c.ask("POST", "/api/people", map[string]any{"name": "Bob", "bands": []string{"70 cm"}})
	require.Equal(t, 201, status)
	assert.NotEmpty(t, p["colour"])
	status, again := c.ask("PATCH", "/api/people/"+number(p["id"].(float64)), map[string]any{"name": "Robert", "revision": p["revision"]})
	require.Equal(t, 200, status)
	assert.Equal(t, []any{"70 cm"}, again["bands"])
	status, stale := c.ask("PATCH", "/api/people/"+number(p["id"].(float64)), map[string]any{"name": "Bert", "revision": p["revision"]})
	assert.Equal(t, 409, status)
	assert.Equal(t, "Robert", get[string](stale, "person", "name"))
	_, all := c.ask("GET", "/api/people", nil)
	assert.Len(t, all["people"], 2)
	for field, bad := range map[string]map[string]any{
		"person": {"name": ""}, "bands": {"name": "Eve", "bands": []string{"2 m", "atlantis"}}, "services": {"name": "Eve", "services": []string{"taxi"}}, "colour": {"name": "Eve", "colour": "infra"},
	} {
		status, p := c.ask("POST", "/api/people", bad)
		require.Equal(t, 422, status)
		assert.Equal(t, []string{field}, faults(p))
	}
}

// TestUnits has several radios in one plan, two of them of one kind: what is
// stored goes into those that are chosen, in the same slot where it can.
func TestUnits(t *testing.T) {
	c := serve(t)
	status, l := c.ask("POST", "/api/plans/1/units", map[string]any{"radio": "trail", "holder": 1})
	require.Equal(t, 201, status)
	second := l["load"].(float64)
	_, w := c.ask("GET", "/api/workspace", nil)
	require.Len(t, w["loads"], 4)
	unit := get[map[string]any](w, "loads", 3, "unit")
	assert.Equal(t, []any{"Trail 2", 1.0, "trail"}, []any{unit["name"], unit["holder"], unit["profile"]})
	status, _ = c.ask("PATCH", "/api/units/"+number(unit["id"].(float64)), map[string]any{"name": "Car", "holder": 0, "revision": unit["revision"]})
	require.Equal(t, 204, status)
	for _, bad := range []map[string]any{{"holder": 99}, {"name": "a\tb"}} {
		status, _ = c.ask("PATCH", "/api/units/"+number(unit["id"].(float64)), bad)
		assert.Equal(t, 422, status)
	}

	// Slot 10 is vacant in the first, and taken in the second radio (Ferry).
	status, l = c.ask("POST", "/api/loads/1/entries", map[string]any{"line": `146.55 Hut #10`, "revision": l["revision"], "also": []float64{2, second, 1, 2}})
	require.Equal(t, 201, status)
	puts := l["puts"].([]any)
	require.Len(t, puts, 2)
	assert.NotEqual(t, 10.0, get[float64](l, "puts", 0, "slot"), "somebody else's number")
	assert.Equal(t, 10.0, get[float64](l, "puts", 1, "slot"))
	assert.Equal(t, "store Hut in slot 10 of 3 radios", l["undo"])
	row := func(load float64, name string) map[string]any {
		_, l := c.ask("GET", "/api/loads/"+number(load), nil)
		for _, r := range l["rows"].([]any) {
			if get[string](r.(map[string]any), "channel", "name") == name {
				return r.(map[string]any)
			}
		}
		return nil
	}
	for _, load := range []float64{1, 2, second} {
		assert.Equal(t, row(1, "Hut")["id"], row(load, "Hut")["id"], "one channel in all of them")
	}
	_, h := c.ask("GET", "/api/plans/1/holdings", nil)
	held, could, cannot := 0, 0, 0
	for _, x := range h["holdings"].([]any) {
		switch m := x.(map[string]any); {
		case m["slot"] != nil:
			held++
		case m["can"] == true:
			could++
		default:
			cannot++
		}
	}
	_, w = c.ask("GET", "/api/workspace", nil)
	total := 0
	for _, x := range w["loads"].([]any) {
		_, l := c.ask("GET", "/api/loads/"+number(x.(map[string]any)["id"].(float64)), nil)
		total += len(l["rows"].([]any))
	}
	assert.Equal(t, total, held)
	assert.Positive(t, could)
	assert.Positive(t, cannot)

	// Before it is stored, the line says where it would go.
	_, r := c.ask("POST", "/api/loads/1/read", map[string]any{"line": `146.565 "Loft" #11`, "also": []any{2}})
	require.Len(t, r["puts"], 1)
	assert.EqualValues(t, 2, get[float64](r, "puts", 0, "load"))
	assert.Equal(t, "Loft", get[string](r, "evidence", "name"))

	// Not in this radio: add.
	require.Nil(t, row(2, "Gannet Down"))
	absent := func() (names []string) {
		_, h := c.ask("GET", "/api/plans/1/holdings?load=2", nil)
		for _, a := range h["absent"].([]any) {
			names = append(names, get[string](a.(map[string]any), "channel", "name"))
		}
		return names
	}
	assert.Contains(t, absent(), "Gannet Down")
	status, l = c.ask("POST", "/api/loads/1/entries/6/copy", map[string]any{"load": 2, "revision": 1 << 40})
	require.Equal(t, 201, status)
	assert.Equal(t, row(1, "Gannet Down")["id"], row(2, "Gannet Down")["id"])
	assert.NotContains(t, absent(), "Gannet Down")
	status, p := c.ask("POST", "/api/loads/1/entries/6/copy", map[string]any{"load": 2, "revision": 1 << 40})
	require.Equal(t, 422, status)
	assert.Contains(t, p["detail"], "already in Ferry (6)")
	status, _ = c.ask("POST", "/api/loads/1/undo", map[string]any{"revision": l["revision"]})
	require.Equal(t, 200, status)
	assert.Nil(t, row(2, "Gannet Down"))

	status, _ = c.ask("DELETE", "/api/loads/"+number(second), nil)
	require.Equal(t, 200, status)
	_, w = c.ask("GET", "/api/workspace", nil)
	assert.Len(t, w["loads"], 3)
}
