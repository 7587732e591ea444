package find

import (
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestGuideNamesEveryWord: docs/find-line.md has a row for every word there is, and
// none that there is not.
func TestGuideNamesEveryWord(t *testing.T) {
	b, err := os.ReadFile("../../docs/find-line.md")
	require.NoError(t, err)
	known := map[string]bool{}
	for _, c := range Choices {
		known[c.Word] = true
		row := fmt.Sprintf("| `%s`", c.Word)
		assert.Contains(t, string(b), row)
	}
	_, table, found := strings.Cut(string(b), "## Wishes")
	require.True(t, found)
	for _, line := range strings.Split(table, "\n") {
		if rest, ok := strings.CutPrefix(line, "| `"); ok {
			word, _, _ := strings.Cut(rest, "`")
			assert.True(t, known[word], word)
		}
	}
}
