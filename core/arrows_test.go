package core

import (
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// pure lists the libraries of others that the core may use: computation only.
var pure = []string{
	"github.com/goccy/go-yaml",    // reads the embedded data
	"github.com/tidwall/geodesic", // geodesics on the ellipsoid
	"golang.org/x/sync/errgroup",  // work side by side
	"golang.org/x/text",           // takes accents off names
}

// allowed says what each package above the core may import of the house, beside
// the core. What is not named here may import nothing.
var allowed = map[string][]string{
	"mnemos/internal/fault":              {},
	"mnemos/internal/root":               {},
	"mnemos/internal/who":                {},
	"mnemos/internal/live":               in("root"),
	"mnemos/internal/exchange":           {},
	"mnemos/internal/webui":              {},
	"mnemos/internal/assess":             {},
	"mnemos/internal/recovery/slips":     {},
	"mnemos/internal/recovery":           in("recovery/slips"),
	"mnemos/internal/job":                in("fault", "live", "root"),
	"mnemos/internal/store":              in("fault", "root"),
	"mnemos/internal/fleet":              in("fault", "store", "who"),
	"mnemos/internal/catalog":            in("fault", "store", "live", "fleet", "root"),
	"mnemos/internal/importing":          in("fault", "store", "live", "job", "fleet", "exchange"),
	"mnemos/internal/plan":               in("fault", "store", "assess", "fleet", "catalog", "exchange"),
	"mnemos/internal/print":              in("fault", "store", "plan"),
	"mnemos/internal/listen":             in("fault", "store", "fleet", "plan"),
	"mnemos/internal/logbook":            in("fault", "store", "fleet", "plan"),
	"mnemos/internal/relaying":           in("fault", "store", "fleet", "plan"),
	"mnemos/internal/beaconing":          in("fault", "store", "fleet", "plan"),
	"mnemos/internal/house":              in("root", "who", "listen", "logbook", "relaying", "beaconing", "store", "live", "fleet", "catalog", "importing", "plan", "print", "demo"),
	"mnemos/internal/demo":               in("store"),
	"mnemos/internal/demo/demotest":      in("demo", "store", "who", "catalog", "importing", "plan", "house"), // for tests
	"mnemos/internal/api/contract":       {},
	"mnemos/internal/api/contract/write": in("api/contract"),
	"mnemos/internal/api":                in("fault", "root", "who", "live", "job", "assess", "fleet", "catalog", "importing", "exchange", "plan", "print", "listen", "logbook", "relaying", "beaconing", "house"),
	"mnemos/internal/cli":                in("fault", "store", "demo", "assess", "importing", "exchange", "plan", "house", "api", "webui"),
	"mnemos/internal/bench":              {},
	"mnemos/cmd/mnemos":                  in("cli"),
	"mnemos/cmd/recovery":                in("recovery"),
}

// in names packages of the house.
func in(names ...string) []string {
	out := make([]string, len(names))
	for i, n := range names {
		out[i] = "mnemos/internal/" + n
	}
	return out
}

// crossings returns the imports of a package that go against the arrows.
func crossings(pkg string, imports []string) []string {
	var out []string
	for _, i := range imports {
		if under(i, "mnemos") && !under(i, "mnemos/core") && !slices.Contains(allowed[pkg], i) {
			out = append(out, pkg+" may not import "+i)
		}
	}
	return out
}

// TestCrossingsAreSeen: the check of the arrows can fail.
func TestCrossingsAreSeen(t *testing.T) {
	assert.Equal(t, []string{"mnemos/internal/store may not import mnemos/internal/plan"}, crossings("mnemos/internal/store", []string{"fmt", "mnemos/core/freq", "mnemos/internal/plan"}))
	assert.Len(t, crossings("mnemos/internal/webui", []string{"mnemos/internal/store", "mnemos/internal/api"}), 2)
	assert.Len(t, crossings("mnemos/internal/new", []string{"mnemos/internal/store"}), 1, "a package that is not named")
	assert.Len(t, crossings("mnemos/internal/api", []string{"mnemos/internal/store"}), 1)
	assert.Len(t, crossings("mnemos/internal/catalog", []string{"mnemos/internal/plan", "mnemos/internal/importing"}), 2)
	assert.Empty(t, crossings("mnemos/internal/api", []string{"mnemos/internal/plan", "mnemos/core/check", "net/http"}))
}

func output(t *testing.T, args ...string) string {
	t.Helper()
	out, err := exec.CommandContext(t.Context(), "go", append([]string{"list"}, args...)...).Output()
	require.NoError(t, err)
	return string(out)
}

func list(t *testing.T, args ...string) []string {
	t.Helper()
	return strings.Fields(output(t, args...))
}

func under(pkg string, roots ...string) bool {
	for _, r := range roots {
		if pkg == r || strings.HasPrefix(pkg, r+"/") {
			return true
		}
	}
	return false
}

// reads opens every file of the house. The tool that runs tests keeps a result as long
// as the files that a test opened stay the same; of what another program opens for the
// test it knows nothing.
func reads(t *testing.T) {
	t.Helper()
	for _, root := range []string{".", "../internal", "../cmd"} {
		require.NoError(t, filepath.WalkDir(root, func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || filepath.Ext(path) != ".go" {
				return err
			}
			_, err = os.ReadFile(path)
			return err
		}))
	}
}

// TestArrowsPointOneWay holds the imports against the layout of the house:
// cli and api use app; app uses store and core; nobody below looks up.
func TestArrowsPointOneWay(t *testing.T) {
	reads(t)
	for _, pkg := range list(t, "-deps", "-f", "{{if not .Standard}}{{.ImportPath}}{{end}}", "./...") {
		assert.True(t, under(pkg, append(pure, "mnemos/core")...), "core may not import %s", pkg)
	}
	for _, pkg := range list(t, "-deps", "./...") {
		assert.False(t, under(pkg, "net/http", "database/sql", "os/exec"), "core computes; it does not use %s", pkg)
	}
	for _, line := range strings.Split(strings.TrimSpace(output(t, "-f", "{{.ImportPath}} {{join .Imports \",\"}}", "mnemos/internal/...", "mnemos/cmd/...")), "\n") {
		pkg, imports, _ := strings.Cut(line, " ")
		assert.Empty(t, crossings(pkg, strings.Split(imports, ",")))
	}
	for _, pkg := range list(t, "mnemos/core/...", "mnemos/internal/...", "mnemos/cmd/...") {
		for _, name := range []string{"util", "utils", "common", "helpers", "misc"} {
			assert.False(t, strings.HasSuffix(pkg, "/"+name), "%s has a name that says nothing", pkg)
		}
	}
}
