package core

import (
	"os/exec"
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

func list(t *testing.T, args ...string) []string {
	t.Helper()
	out, err := exec.CommandContext(t.Context(), "go", append([]string{"list"}, args...)...).Output()
	require.NoError(t, err)
	return strings.Fields(string(out))
}

func under(pkg string, roots ...string) bool {
	for _, r := range roots {
		if pkg == r || strings.HasPrefix(pkg, r+"/") {
			return true
		}
	}
	return false
}

// TestArrowsPointOneWay holds the imports against the layout of the house:
// cli and api use app; app uses store and core; nobody below looks up.
func TestArrowsPointOneWay(t *testing.T) {
	for _, pkg := range list(t, "-deps", "-f", "{{if not .Standard}}{{.ImportPath}}{{end}}", "./...") {
		assert.True(t, under(pkg, append(pure, "mnemos/core")...), "core may not import %s", pkg)
	}
	for _, pkg := range list(t, "-deps", "./...") {
		assert.False(t, under(pkg, "net/http", "database/sql", "os/exec"), "core computes; it does not use %s", pkg)
	}
	for from, forbidden := range map[string][]string{
		"mnemos/internal/store": {"mnemos/internal/app", "mnemos/internal/api", "mnemos/internal/cli", "mnemos/internal/demo"},
		"mnemos/internal/app":   {"mnemos/internal/api", "mnemos/internal/cli", "mnemos/internal/webui", "mnemos/internal/demo"},
		"mnemos/internal/api":   {"mnemos/internal/store/", "mnemos/internal/cli", "mnemos/internal/webui", "mnemos/internal/demo"},
		"mnemos/internal/webui": {"mnemos/internal/app", "mnemos/internal/store", "mnemos/core"},
	} {
		for _, pkg := range list(t, "-deps", from) {
			assert.False(t, under(pkg, forbidden...), "%s may not import %s", from, pkg)
		}
	}
	for _, pkg := range list(t, "mnemos/core/...", "mnemos/internal/...", "mnemos/cmd/...") {
		for _, name := range []string{"util", "utils", "common", "helpers", "misc"} {
			assert.False(t, strings.HasSuffix(pkg, "/"+name), "%s has a name that says nothing", pkg)
		}
	}
}
