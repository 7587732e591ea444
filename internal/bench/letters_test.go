package bench

import (
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"mnemos/internal/cli"
	"mnemos/internal/house"
	"mnemos/internal/plan"
	"mnemos/internal/store"
)

// letters are a thousand distinct lines, each as it grows letter by letter:
// repeaters of the listing, some with a slip, and lines about nothing there.
func letters() []string {
	all := records(count)
	var out []string
	for n := range 1000 {
		r := all[n*97%len(all)]
		line := fmt.Sprintf("%s tx %s %s %s", r.Output.MHz(), r.Input.MHz(), r.UplinkTone, r.Locality)
		switch n % 4 {
		case 1:
			line = fmt.Sprintf("%s - %d.5 Site %d", r.Output.MHz(), 67+n%180, n)
		case 2:
			line = fmt.Sprintf("%s + 100.0 #%d", r.Input.MHz(), n%200)
		}
		for i := range line {
			out = append(out, line[:i+1])
		}
	}
	return out
}

// BenchmarkLetters types a thousand distinct lines letter by letter, over HTTP,
// with 100,000 records: alone (the baseline), and while as many are brought in
// and take their place.
func BenchmarkLetters(b *testing.B) {
	s := filled(b)
	_, loads, err := s.NewPlan(b.Context(), walk, store.Stamp{At: "2026-11-25T09:42:00Z", Label: "new"}, "trail")
	require.NoError(b, err)
	a := house.New(s, func() time.Time { return today })
	for i := range 24 {
		_, err := a.Plans.Store(b.Context(), loads[0].ID, plan.Save{Line: fmt.Sprintf("%d.%03d 100", 146, 610+15*i), Revision: plan.Latest})
		require.NoError(b, err)
	}
	a.Catalog.Prime()
	a.Catalog.Ready()
	server := httptest.NewServer(cli.Server(a))
	b.Cleanup(server.Close)
	url := fmt.Sprintf("%s/api/loads/%d/read", server.URL, loads[0].ID)
	lines, at := letters(), 0
	post := func() {
		body, err := json.Marshal(map[string]string{"line": lines[at%len(lines)]})
		require.NoError(b, err)
		at++
		res, err := http.Post(url, "application/json", strings.NewReader(string(body)))
		require.NoError(b, err)
		_, err = io.Copy(io.Discard, res.Body)
		require.NoError(b, err)
		require.NoError(b, res.Body.Close())
		require.Equal(b, http.StatusOK, res.StatusCode)
	}
	b.Run("baseline: nothing is brought in", func(b *testing.B) { times(b, post) })
	csv := table(b, records(count))
	b.Run("while 100000 rows are brought in", func(b *testing.B) {
		ctx, stop := context.WithCancel(b.Context())
		done := make(chan error)
		go func() { done <- bringAll(ctx, a, csv) }()
		times(b, post)
		stop()
		<-done
	})
}
