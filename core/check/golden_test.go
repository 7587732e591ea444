package check

import (
	"fmt"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/entry"
)

// TestGolden runs the cases of testdata/golden, which an operator can read: a
// line that somebody types, and what the rules must say about it. The words
// of a case are explained in testdata/golden/README.txt. Each archive names
// its source; the district is that of this package.
func TestGolden(t *testing.T) {
	files, err := filepath.Glob("testdata/golden/*.txtar")
	require.NoError(t, err)
	spoken, silent, cases := map[string]bool{}, map[string]bool{}, 0
	for _, file := range files {
		archive, err := txtar.ParseFile(file)
		require.NoError(t, err)
		assert.Regexp(t, `(?m)^(source|basis): `, string(archive.Comment), "%s names its source", file)
		for _, f := range archive.Files {
			cases++
			name := strings.TrimSuffix(filepath.Base(file), ".txtar") + "/" + f.Name
			t.Run(name, func(t *testing.T) { golden(t, string(f.Data), spoken, silent) })
		}
	}
	t.Logf("%d cases, in which %d rules speak", cases, len(spoken))
	for _, r := range Rules { // that each speaks is TestRules' to show
		assert.True(t, silent[r.ID], "no near miss that %s leaves alone", r.ID)
	}
}

func golden(t *testing.T, text string, spoken, silent map[string]bool) {
	in := circumstances{region: "us", radio: "trail"}
	var r Result
	for _, line := range strings.Split(strings.TrimSpace(text), "\n") {
		word, rest, _ := strings.Cut(strings.TrimSpace(line), " ")
		switch word {
		case "in":
			in.region = rest
		case "radio":
			in.radio = rest
		case "with":
			in.others = append(in.others, rest)
		case "tones":
			in.tones = TonePolicy(rest)
		case "services":
			in.services = strings.Split(rest, ", ")
		case "heard":
			in.heard = rest
		case "unlicensed":
			in.unlicensed = true
		case "bands":
			in.bands = strings.Split(rest, ", ")
		case "line":
			r = look(t, rest, in)
		case "finds":
			id, severity, graded := strings.Cut(rest, " ")
			require.Contains(t, byID, id)
			spoken[id] = true
			f := of(r, id)
			if assert.NotNil(t, f, "%s must speak: %s", id, said(r)) && graded {
				assert.Equal(t, Severity(severity), f.Severity, f.Title)
			}
		case "silent":
			for _, id := range strings.Split(rest, ", ") {
				require.Contains(t, byID, id)
				silent[id] = true
				assert.Nil(t, of(r, id), "%s must not speak", id)
			}
		case "quiet":
			for _, f := range r.Findings {
				assert.NotContains(t, []Severity{Stop, Fix}, f.Severity, f.Title)
			}
		case "verdict":
			assert.Equal(t, rest, string(r.Verdict), said(r))
		case "first", "second", "third":
			n := map[string]int{"first": 1, "second": 2, "third": 3}[word]
			assert.Equal(t, entry.Read(rest, band.MustLoad(in.region)).Channel, fixNumber(t, r, n).Result, said(r))
		case "says":
			assert.Contains(t, said(r), rest)
		default:
			t.Fatalf("a case has no %q", word)
		}
	}
}

// fixNumber returns the nth fix over all findings, as the keys number them.
func fixNumber(t *testing.T, r Result, n int) Remedy {
	t.Helper()
	for _, f := range r.Findings {
		for _, x := range f.Fixes {
			if n--; n == 0 {
				return x
			}
		}
	}
	require.Fail(t, "no such fix", said(r))
	return Remedy{}
}

func said(r Result) string {
	var b strings.Builder
	for _, f := range r.Findings {
		fmt.Fprintf(&b, "\n%s %s: %s. %s", f.Severity, f.Rule, f.Title, f.Message)
		for _, w := range f.Why {
			b.WriteString("\n    " + w.Witness + ": " + w.Text)
		}
		for i, x := range f.Fixes {
			b.WriteString("\n    " + strconv.Itoa(i+1) + " " + x.Label)
		}
	}
	return b.String()
}
