package intake

import (
	"runtime"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"mnemos/core/band"
)

// TestWordy: a cell of prose is a note, whatever it begins with, and is not
// read as everything else first. The bound is ten times what the cells
// themselves hold; reading each as each kind of value took four hundred times.
func TestWordy(t *testing.T) {
	plan := band.MustLoad("us")
	heading := []string{"Callsign", "Output", "Shift", "Tone", "Remarks"}
	table := func(note string) [][]string {
		rows := [][]string{heading}
		for range 20 {
			rows = append(rows, []string{"QX1AA", "146.940", "-", "100.0", note})
		}
		return rows
	}
	short := Look(table("146.94 on the hill"), false, plan)
	long := Look(table("146.94 "+strings.Repeat("on the hill ", 800)), false, plan)
	assert.Equal(t, short.Mapping, long.Mapping)
	assert.Equal(t, Note, long.Mapping[4].Role)

	const columns, size = 500, 2000
	wide := make([][]string, 20)
	for i := range wide {
		for range columns {
			wide[i] = append(wide[i], strings.Repeat("43°N ", size/6))
		}
	}
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	Look(wide, false, plan)
	runtime.ReadMemStats(&after)
	assert.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(10*20*columns*size))
}
