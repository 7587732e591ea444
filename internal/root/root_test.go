package root

import (
	"errors"
	"os"
	"os/exec"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestTry: a panic of any kind is an error that says what was being done, also
// out of a deferred call; an error stays what it is.
func TestTry(t *testing.T) {
	own := errors.New("own")
	require.NoError(t, Try("rest", func() error { return nil }))
	require.ErrorIs(t, Try("fail", func() error { return own }), own)
	var list []int
	for name, work := range map[string]func() error{
		"text":     func() error { panic("x") },
		"error":    func() error { panic(own) },
		"index":    func() error { return errors.New(string(rune(list[len(os.Args)]))) },
		"deferred": func() error { defer func() { panic("late") }(); return nil },
		"nothing":  func() error { panic(nil) },
	} {
		var p *Panic
		require.ErrorAs(t, Try("count to three", work), &p, name)
		assert.Contains(t, p.Error(), "failed to count to three")
		assert.NotContains(t, p.Error(), "goroutine", "Go's own words are for the log")
	}
}

// TestGo: what came of the work arrives, be it a panic.
func TestGo(t *testing.T) {
	got := make(chan error, 2)
	Go("panic", func() error { panic("x") }, func(err error) { got <- err })
	Go("rest", func() error { return nil }, func(err error) { got <- err })
	panics := 0
	for range 2 {
		var p *Panic
		if errors.As(<-got, &p) {
			panics++
		}
	}
	assert.Equal(t, 1, panics)
}

// TestCannotGoOn: where even the end of work panics, the process ends, with a
// code that says so.
func TestCannotGoOn(t *testing.T) {
	if os.Getenv("MNEMOS_CANNOT_GO_ON") != "" {
		Go("end", func() error { return nil }, func(error) { panic("nobody knows how things stand") })
		select {}
	}
	cmd := exec.CommandContext(t.Context(), os.Args[0], "-test.run=TestCannotGoOn")
	cmd.Env = append(os.Environ(), "MNEMOS_CANNOT_GO_ON=1")
	var ended *exec.ExitError
	require.ErrorAs(t, cmd.Run(), &ended)
	assert.Equal(t, Failed, ended.ExitCode())
}

// TestHere: without a test that watches a place costs nothing and does nothing.
func TestHere(t *testing.T) {
	Here("nobody")
	var seen []string
	end := Watch(func(place string) { seen = append(seen, place) })
	Here("a")
	end()
	Here("b")
	assert.Equal(t, []string{"a"}, seen)
}
