package bench

import (
	"strings"
	"testing"

	"mnemos/core/band"
	"mnemos/core/entry"
)

// BenchmarkHardLines reads a usual line, the baseline, and lines of 400 characters
// that are made to be hard.
func BenchmarkHardLines(b *testing.B) {
	us := band.MustLoad("us")
	for _, c := range []struct{ name, line string }{
		{"baseline", `147.24 + 103.5 "Beacon Hill" low`},
		{"row", "QX1BHL | 147.240 | +0.600 | 103.5 | Beacon Hill | OPEN"},
		{"pairs", strings.Repeat("52.5 88.5 147.0 ", 25)},
		{"bands", strings.Repeat("2 m ", 100)},
		{"letters", strings.Repeat("a ", 200)},
		{"signs", strings.Repeat("+ ", 200)},
	} {
		b.Run(c.name, func(b *testing.B) {
			for b.Loop() {
				entry.Read(c.line, us)
			}
		})
	}
}
