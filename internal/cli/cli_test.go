package cli

import (
	"bytes"
	"context"
	"encoding/json"
	"io"
	"os"
	"os/exec"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/rogpeppe/go-internal/testscript"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/limit"
	"mnemos/core/listing"
	"mnemos/internal/demo"
	"mnemos/internal/store"
)

func TestMain(m *testing.M) {
	testscript.Main(m, map[string]func(){
		"mnemos": func() { os.Exit(Main(os.Args[1:], os.Stdin, os.Stdout, os.Stderr)) },
	})
}

func TestScripts(t *testing.T) {
	testscript.Run(t, testscript.Params{Dir: "testdata/script", Cmds: map[string]func(*testscript.TestScript, bool, []string){
		"filled": filled, "served": serves, "killed": killed,
	}})
}

// filled makes a data folder with the demonstration.
func filled(ts *testscript.TestScript, _ bool, args []string) {
	s, err := store.Open(context.Background(), ts.MkAbs(args[0]))
	ts.Check(err)
	ts.Check(demo.Fill(context.Background(), s, time.Date(2026, 11, 25, 9, 42, 0, 0, time.UTC)))
	ts.Check(s.Close())
}

// serves starts a Mnemos that serves a folder, and waits until it does.
func serves(ts *testscript.TestScript, _ bool, args []string) {
	program, err := exec.LookPath("mnemos")
	ts.Check(err)
	cmd := exec.Command(program, "serve", "--data", ts.MkAbs(args[0]), "--address", "127.0.0.1:0", "--today", "2026-11-25")
	out, err := cmd.StdoutPipe()
	ts.Check(err)
	ts.Check(cmd.Start())
	ts.Defer(func() { _ = cmd.Process.Kill(); _ = cmd.Wait() }) // it may have ended
	_, err = out.Read(make([]byte, 300))
	ts.Check(err)
	servers.Store(ts.Name(), cmd)
}

// killed kills it without a warning.
func killed(ts *testscript.TestScript, _ bool, _ []string) {
	cmd, _ := servers.Load(ts.Name())
	ts.Check(cmd.(*exec.Cmd).Process.Kill())
	_ = cmd.(*exec.Cmd).Wait() // it was killed
}

var servers sync.Map // by script

func TestRulesDocIsFresh(t *testing.T) {
	b, err := os.ReadFile("../../docs/rules.md")
	require.NoError(t, err)
	assert.True(t, bytes.Equal(RulesMarkdown(), b), "docs/rules.md is stale: run make rules")
}

func TestLimitsDocIsFresh(t *testing.T) {
	b, err := os.ReadFile("../../docs/limits.md")
	require.NoError(t, err)
	assert.Equal(t, limit.Markdown(), string(b), "run make rules")
	assert.Contains(t, string(b), "| a listing | 256 MB |")
	assert.Contains(t, string(b), "| 2,000 rows |")
}

func TestWordsDocIsFresh(t *testing.T) {
	b, err := os.ReadFile("../../docs/entry-line.md")
	require.NoError(t, err)
	assert.True(t, bytes.Equal(WordsMarkdown(), b), "docs/entry-line.md is stale: run make rules")
}

func TestExampleListing(t *testing.T) {
	f, err := os.Open("../../docs/formats/listing-example.json")
	require.NoError(t, err)
	defer func() { require.NoError(t, f.Close()) }()
	records, err := listing.Read(f)
	require.NoError(t, err)
	assert.NotEmpty(t, records)
}

func TestOnlyLoopback(t *testing.T) {
	for _, good := range []string{"127.0.0.1:0", "[::1]:80", "localhost:8146"} {
		assert.NoError(t, onlyLoopback(good))
	}
	for _, bad := range []string{"0.0.0.0:80", ":80", "example.org:80", "127.0.0.1"} {
		assert.Error(t, onlyLoopback(bad), bad)
	}
}

func TestExitCodes(t *testing.T) {
	for _, c := range []struct {
		args []string
		code int
	}{
		{[]string{"rules", "nope"}, 2},
		{[]string{"words", "nope"}, 2},
		{[]string{"words", "tsql"}, 0},
		{[]string{"read", "--radius", "NaN", "146.52"}, 2},
		{[]string{"read", "146.52"}, 0},
		{[]string{"read", "147.24 100"}, 0}, // unverified, but nothing worse than notes
		{[]string{"read", "146.94 141.0"}, 1},
		{[]string{"read", ""}, 1},
		{[]string{"read", "a", "b"}, 2},
		{[]string{"read", "--nonsense", "146.52"}, 2},
		{[]string{"read", "--at", "nowhere", "146.52"}, 2},
		{[]string{"read", "--batch", "nowhere.txt"}, 2},
		{[]string{"relay"}, 2},
		{[]string{"relay", "--radio", "ferry", "--a", "blue", "--b", "145.29 -"}, 2},
		{[]string{"relay", "--radio", "ferry", "--way", "up", "--a", "446.1", "--b", "145.29 -"}, 2},
		{[]string{"relay", "--radio", "ferry", "--a", "446.1 simplex", "--b", "145.29 - 110.9", "--json"}, 1},
		{[]string{"relay", "--radio", "ferry", "--identify", "A", "--control", "by me", "--a", "446.1 simplex ts 186.2 low", "--b", "147.42 simplex low"}, 0},
		{[]string{"nonsense"}, 2},
		{[]string{"serve", "extra"}, 2},
	} {
		assert.Equal(t, c.code, Main(c.args, strings.NewReader(""), io.Discard, io.Discard), c.args)
	}
}

// TestRelayJSON: what is printed are the answers of the core: two repeaters whose tails open
// each other are refused, and the loop is told.
func TestRelayJSON(t *testing.T) {
	var out strings.Builder
	code := Main([]string{"relay", "--radio", "ferry", "--hand", "trail", "--a", "443.275 +5 ts 131.8 low", "--b", "147.03 + ts 94.8 low", "--json"}, strings.NewReader(""), &out, io.Discard)
	assert.Equal(t, 1, code)
	var got map[string]any
	require.NoError(t, json.Unmarshal([]byte(out.String()), &got))
	assert.Equal(t, "stop", got["verdict"])
	assert.Equal(t, true, got["loops"])
	assert.Greater(t, got["turns_an_hour"], 400.0)
	assert.Less(t, got["turns_an_hour"], 600.0)
	finding := got["findings"].([]any)[0].(map[string]any)
	assert.Equal(t, []any{"relay-two-repeaters", "stop", "Two repeaters make a loop"}, []any{finding["rule"], finding["severity"], finding["title"]})
}
