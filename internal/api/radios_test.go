package api_test

import (
	"encoding/json"
	"maps"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func texts(t *testing.T, form map[string]any) map[string]any {
	t.Helper()
	return maps.Clone(form["texts"].(map[string]any))
}

func faults(p map[string]any) (fields []string) {
	for _, e := range p["errors"].([]any) {
		fields = append(fields, e.(map[string]any)["field"].(string))
	}
	return fields
}

// TestRadios copies a profile, edits it, uses it in the plan, brings another
// in as YAML and deletes that.
func TestRadios(t *testing.T) {
	c := serve(t)
	status, list := c.ask("GET", "/api/radios", nil)
	require.Equal(t, 200, status)
	require.Len(t, list["radios"], 10)

	status, mine := c.ask("POST", "/api/radios", map[string]any{"copy": "cairn"})
	require.Equal(t, 201, status)
	assert.Equal(t, "own-my-cairn", mine["id"])
	assert.Equal(t, true, mine["own"])
	_, twin := c.ask("POST", "/api/radios", map[string]any{"copy": "cairn"})
	assert.Equal(t, "own-my-cairn-2", twin["id"], "every profile has an ID of its own")

	form := texts(t, mine)
	form["name"], form["receive"], form["transmit"], form["crib_step"] = "Loft radio", "136-174, 400-470", "144-148, 430-450", "menu 5 on mine"
	status, mine = c.ask("PUT", "/api/radios/own-my-cairn", map[string]any{"texts": form})
	require.Equal(t, 200, status)
	assert.Equal(t, "Loft radio", mine["name"])
	form["slots"], form["steps"] = "x", "y"
	status, p := c.ask("PUT", "/api/radios/own-my-cairn", map[string]any{"texts": form})
	require.Equal(t, 422, status)
	assert.ElementsMatch(t, []string{"slots", "steps"}, faults(p), "every field at fault at once")
	status, _ = c.ask("PUT", "/api/radios/trail", map[string]any{"texts": texts(t, mine)})
	assert.Equal(t, 422, status, "what ships is not changed")

	status, l := c.ask("POST", "/api/radios/own-my-cairn/use", nil)
	require.Equal(t, 201, status)
	assert.NotEmpty(t, l["rows"])
	slots := map[float64]bool{}
	for _, r := range l["rows"].([]any) {
		slots[r.(map[string]any)["slot"].(float64)] = true
	}
	_, trail := c.ledger()
	for slot := range slots {
		if row, ok := trail[int(slot)]; ok {
			assert.NotNil(t, row, "slot %v means the same in both", slot)
		}
	}
	status, k := c.ask("GET", "/api/loads/4/entries/1/keypad", nil)
	require.Equal(t, 200, status)
	steps, err := json.Marshal(k["sheet"])
	require.NoError(t, err)
	assert.Contains(t, string(steps), "menu 5 on mine", "the crib is printed on the keypad sheet")
	status, p = c.ask("POST", "/api/radios/own-my-cairn/use", nil)
	assert.Equal(t, 422, status)
	assert.Contains(t, p["detail"], "in the plan already")
	status, p = c.ask("DELETE", "/api/radios/own-my-cairn", nil)
	require.Equal(t, 422, status)
	assert.Contains(t, p["detail"], "the plan uses")

	// Out of the plan and back by undo, with every slot as it was.
	status, left := c.ask("DELETE", "/api/radios/own-my-cairn/use", nil)
	require.Equal(t, 200, status)
	assert.EqualValues(t, 1, left["load"], "the answer is the ledger of a radio that stays")
	status, _ = c.ask("GET", "/api/loads/4", nil)
	assert.Equal(t, 404, status)
	status, p = c.ask("DELETE", "/api/radios/own-my-cairn/use", nil)
	require.Equal(t, 422, status)
	assert.Contains(t, p["detail"], "not in the plan")
	status, _ = c.ask("POST", "/api/loads/1/undo", map[string]any{"redo": false, "revision": left["revision"]})
	require.Equal(t, 200, status)
	status, again := c.ask("GET", "/api/loads/4", nil)
	require.Equal(t, 200, status)
	assert.Equal(t, l["rows"], again["rows"])

	status, gone := c.ask("DELETE", "/api/radios/own-my-cairn-2", nil)
	require.Equal(t, 200, status)
	status, back := c.ask("POST", "/api/radios", map[string]any{"yaml": gone["yaml"]})
	require.Equal(t, 201, status, "what was deleted comes back from what was returned")
	assert.Equal(t, gone["texts"], back["texts"])
	for yaml, says := range map[string]string{"nonsense: [": "not a radio profile", "name: X\n": "136-174", strings.Repeat("#", 70_000): "bytes"} {
		status, p = c.ask("POST", "/api/radios", map[string]any{"yaml": yaml})
		require.Equal(t, 422, status)
		assert.Contains(t, p["detail"], says)
	}
	for _, path := range []string{"/api/radios/none", "/api/rules/none"} {
		status, _ = c.ask("GET", path, nil)
		assert.Equal(t, 404, status)
	}
	status, rule := c.ask("GET", "/api/rules/slip", nil)
	require.Equal(t, 200, status)
	assert.NotEmpty(t, rule["doc"])
}

func TestPreview(t *testing.T) {
	c := serve(t)
	_, trail := c.ask("GET", "/api/radios/trail", nil)
	form := texts(t, trail)
	count := func(key string) float64 {
		status, v := c.ask("POST", "/api/radios/trail/preview", map[string]any{"texts": form})
		require.Equal(t, 200, status)
		require.Empty(t, v["faults"])
		return v[key].(float64)
	}
	lost := count("lose") + count("cannot")
	form["ctcss"], form["separate_tones"], form["burst"], form["dcs"] = "38", "no", "no", "0"
	assert.Greater(t, count("lose")+count("cannot"), lost, "a poorer radio holds less")
	form["receive"], form["transmit"] = "400-480", "420-450"
	assert.Greater(t, count("cannot"), 10.0, "without 2 m most of the plan is gone")
	form["receive"] = "fast"
	status, v := c.ask("POST", "/api/radios/trail/preview", map[string]any{"texts": form})
	require.Equal(t, 200, status, "while somebody types, a fault is no error")
	assert.Equal(t, "receive", v["faults"].([]any)[0].(map[string]any)["field"])
}

func TestSettings(t *testing.T) {
	c := serve(t)
	status, s := c.ask("GET", "/api/settings", nil)
	require.Equal(t, 200, status)
	assert.Equal(t, "41.0200, -55.3100", s["place"])
	assert.GreaterOrEqual(t, len(s["regions"].([]any)), 9)
	body := map[string]any{
		"region": "us", "person": "Keeper", "place": "GN21ia", "height_m": "3,5", "radius_km": "120", "tone_policy": "tone squelch first",
		"licence": "general", "services": []string{"gmrs", "pmr446"}, "bands": []string{"2 m", "4 m"},
	}
	status, s = c.ask("PUT", "/api/settings", body)
	require.Equal(t, 200, status, "%v", s)
	assert.Equal(t, []any{"gmrs"}, s["services"], "a service of another region is left out")
	assert.Equal(t, []any{"2 m"}, s["bands"])
	assert.InDelta(t, 3.5, s["height_m"], 0)

	_, found := c.ask("GET", "/api/loads/1/entries/13", nil)
	var rules []string
	for _, f := range found["findings"].([]any) {
		rules = append(rules, f.(map[string]any)["rule"].(string))
	}
	assert.True(t, slices.Contains(rules, "licence-band"), "70 cm is not among the permitted bands: %v", rules)
	_, r := c.ask("POST", "/api/loads/1/read", map[string]any{"line": "gmrs 20 + 141.3"})
	assert.NotContains(t, toText(t, r["findings"]), "service-other", "the operator uses the service")

	for field, bad := range map[string]any{"region": "atlantis", "person": "", "place": "somewhere", "height_m": "tall", "radius_km": "0", "tone_policy": "old", "licence": strings.Repeat("x", 500)} {
		wrong := maps.Clone(body)
		wrong[field] = bad
		status, p := c.ask("PUT", "/api/settings", wrong)
		require.Equal(t, 422, status, field)
		assert.Contains(t, faults(p), field)
	}
	body["region"], body["place"] = "uk", ""
	status, s = c.ask("PUT", "/api/settings", body)
	require.Equal(t, 200, status)
	assert.Empty(t, s["place"])
	assert.Equal(t, []any{"pmr446"}, s["services"])
	_, w := c.ask("GET", "/api/workspace", nil)
	assert.Equal(t, "Ofcom", w["operator"].(map[string]any)["authority"])
}

func toText(t *testing.T, v any) string {
	t.Helper()
	b, err := json.Marshal(v)
	require.NoError(t, err)
	return string(b)
}
