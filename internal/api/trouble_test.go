package api_test

import (
	"io"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/cli"
	"mnemos/internal/demo"
	"mnemos/internal/house"
	"mnemos/internal/store"
)

// TestDataGone removes the data under a server that runs: no change is
// acknowledged any more, and the answer says so and what to do.
func TestDataGone(t *testing.T) {
	folder := filepath.Join(t.TempDir(), "data")
	s, err := store.Open(t.Context(), folder)
	require.NoError(t, err)
	require.NoError(t, demo.Fill(t.Context(), s, today))
	server := httptest.NewServer(cli.Server(house.New(s, func() time.Time { return today })))
	defer server.Close()
	defer func() { _ = s.Close() }() // its files are gone
	remove := func(source string) (int, string) {
		req, err := http.NewRequestWithContext(t.Context(), http.MethodDelete, server.URL+"/api/sources/"+source, http.NoBody)
		require.NoError(t, err)
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		body, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		require.NoError(t, res.Body.Close())
		return res.StatusCode, string(body)
	}
	sources, err := s.Editions(t.Context())
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(sources), 2)
	status, body := remove(sources[0].Source)
	require.Less(t, status, 300, body)
	require.NoError(t, os.RemoveAll(folder))
	status, body = remove(sources[1].Source)
	assert.Equal(t, http.StatusInsufficientStorage, status)
	assert.Contains(t, body, "Nothing is saved any more")
	assert.NotContains(t, body, "constraint", "in words, not in those of the database")
}
