package keypad

import (
	"strings"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/radio"
)

func profile(t *testing.T, id string) *radio.Profile {
	t.Helper()
	p, err := radio.Load(id)
	require.NoError(t, err)
	return p
}

func wanted(t *testing.T, line string, slot int) Wanted {
	t.Helper()
	d := entry.Read(line, band.MustLoad("us"))
	require.True(t, d.Complete(), line)
	return Wanted{Channel: d.Channel, Slot: slot, Short: d.Channel.Name, Skip: d.Scan == entry.ScanSkip, Priority: d.Scan == entry.ScanPriority}
}

func sheet(t *testing.T, id, line string) Sheet {
	t.Helper()
	return Write(wanted(t, line, 12), profile(t, id))
}

// TestPaper compares sheets word by word with those worked out by hand, one
// for each way of entry and one that is locked.
func TestPaper(t *testing.T) {
	a, err := txtar.ParseFile("testdata/paper.txtar")
	require.NoError(t, err)
	ways := map[radio.Entry]bool{}
	for _, f := range a.Files {
		parts := strings.Split(f.Name, " | ")
		require.Len(t, parts, 3, f.Name)
		p := profile(t, parts[0])
		ways[p.Entry] = true
		slot := 0
		for _, r := range parts[1] {
			slot = slot*10 + int(r-'0')
		}
		s := Write(wanted(t, parts[2], slot), p)
		assert.Equal(t, string(f.Data), s.Text(), f.Name)
		assert.Empty(t, s.Check, f.Name)
	}
	assert.Len(t, ways, 5, "every way of entry")
}

var _ = channel.New
