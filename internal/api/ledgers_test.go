package api_test

import (
	"encoding/json"
	"fmt"
	"maps"
	"net/http"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// since asks for the slots of the first radio by somebody who holds a ledger.
func (c *client) since(tag string) map[string]any {
	c.t.Helper()
	req, err := http.NewRequestWithContext(c.t.Context(), http.MethodGet, c.url+"/api/loads/1", http.NoBody)
	require.NoError(c.t, err)
	req.Header.Set("Mnemos-Ledger", tag)
	res, err := http.DefaultClient.Do(req)
	require.NoError(c.t, err)
	defer func() { require.NoError(c.t, res.Body.Close()) }()
	var out map[string]any
	require.NoError(c.t, json.NewDecoder(res.Body).Decode(&out))
	return out
}

// TestOnlyWhatIsDifferent: whoever names the ledger that they hold is told the
// rows that are different, verdicts of neighbours included; put together, both
// ways give the same.
func TestOnlyWhatIsDifferent(t *testing.T) {
	c := serve(t)
	bySlot := func(l map[string]any) map[int]any {
		out := map[int]any{}
		for _, r := range l["rows"].([]any) {
			out[int(r.(map[string]any)["slot"].(float64))] = r
		}
		return out
	}
	held := c.since("")
	for held["checking"] == true {
		held = c.since("")
	}
	require.Empty(t, held["base"])
	mine := bySlot(held)
	acts := []func() int{
		func() int { return 0 }, // nothing happened
		func() int {
			s, _ := c.ask("PATCH", "/api/loads/1/entries/8", map[string]any{"name": "Pell Lamp", "revision": 1 << 40})
			return s
		},
		func() int { // a neighbour on the frequency of another slot: both verdicts may turn
			s, _ := c.ask("POST", "/api/loads/1/entries", map[string]any{"line": "146.94 -600 88.5 Twin", "revision": 1 << 40})
			return s
		},
		func() int {
			s, _ := c.ask("DELETE", "/api/loads/1/entries/5?revision=99999999", nil)
			return s
		},
	}
	for i, act := range acts {
		status := act()
		require.Less(t, status, 300, "act %d", i)
		part := c.since(held["tag"].(string))
		require.Equal(t, held["tag"], part["base"])
		assert.Less(t, len(part["rows"].([]any)), 6, "act %d is answered in part", i)
		maps.Copy(mine, bySlot(part))
		for _, slot := range part["gone"].([]any) {
			delete(mine, int(slot.(float64)))
		}
		whole := c.since("")
		require.Equal(t, bySlot(whole), mine, "act %d", i)
		held = part
	}
	assert.Empty(t, c.since("never-1")["base"], "what nobody knows is told whole")
	for range 70 { // so many others ask that the first is forgotten
		c.since("")
	}
	forgotten := c.since(held["tag"].(string))
	assert.Empty(t, forgotten["base"], fmt.Sprint(slices.Collect(maps.Keys(forgotten))))
}
