package exchange

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestNeutral has the beginnings that spreadsheets take for formulas, by
// common practice, and the figures of a listing that must stay as they are.
func TestNeutral(t *testing.T) {
	for _, cell := range []string{"=cmd|' /C calc'!A0", "@SUM(A1)", "+1+cmd()", "-2+3", "  =1", "=", "-inf", "+0x10"} {
		assert.Equal(t, "'"+cell, Neutral(cell), cell)
	}
	for cell, want := range map[string]string{"a;=1": "a;'=1", "a;b;@x": "a;b;'@x", "a\t=1": "a\t'=1", "=1;=2": "'=1;'=2", "\t=1": "'\t'=1", "-0.6;=1": "-0.6;'=1"} {
		assert.Equal(t, want, Neutral(cell), cell)
	}
	for _, cell := range []string{"", "147.240", "-0.6", "a;b", "-0.6; +5", "-;", "a\tb", "+600", "-7,6", "+", "-", "Beacon Hill", "a=b", "'=1"} {
		assert.Equal(t, cell, Neutral(cell), cell)
	}
}

func TestCSV(t *testing.T) {
	var b bytes.Buffer
	require.NoError(t, CSV(&b, func(write func([]string) error) error {
		if err := write([]string{"Output", "Town"}); err != nil {
			return err
		}
		return write([]string{"147,24", "=1, \"2\""})
	}))
	assert.Equal(t, "Output,Town\n\"147,24\",\"'=1, \"\"2\"\"\"\n", b.String())
	got, _, info := rows(t, b.Bytes())
	assert.Equal(t, ",", info.Delimiter)
	assert.Equal(t, "'=1, \"2\"", got[1][1], "it comes back as it was written")
}
