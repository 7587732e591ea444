package bench

import (
	"bufio"
	"fmt"
	"net/http"
	"net/http/httptest"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"mnemos/internal/cli"
	"mnemos/internal/house"
	"mnemos/internal/store"
)

// BenchmarkEvents has twenty clients on loopback listen while changes are made, and measures how long each takes to each of them; the baseline is one
// client.
func BenchmarkEvents(b *testing.B) {
	for _, clients := range []int{1, 20} {
		b.Run(fmt.Sprintf("clients=%d", clients), func(b *testing.B) {
			s := filled(b)
			h := house.New(s, time.Now)
			server := httptest.NewServer(cli.Server(h))
			defer server.Close()
			defer h.Hub.Close()
			var mu sync.Mutex
			var took []time.Duration
			var ready, done sync.WaitGroup
			const events = 400
			ready.Add(clients)
			sent := make([]time.Time, events)
			for range clients {
				done.Go(func() {
					res, err := http.Get(server.URL + "/api/events") //nolint:noctx // it ends with the server
					if err != nil {
						b.Error(err)
						ready.Done()
						return
					}
					defer func() { _ = res.Body.Close() }()
					lines := bufio.NewScanner(res.Body)
					for n := 0; n < events && lines.Scan(); {
						switch text := lines.Text(); {
						case strings.HasPrefix(text, "event: hello"):
							ready.Done()
						case strings.HasPrefix(text, "event: change"):
							now := time.Now()
							mu.Lock()
							took = append(took, now.Sub(sent[n]))
							mu.Unlock()
							n++
						}
					}
				})
			}
			ready.Wait()
			at := 0
			s.Woken(func() {
				mu.Lock()
				sent[at] = time.Now()
				mu.Unlock()
				h.Hub.Wake()
			})
			for at = range events {
				require.NoError(b, s.Edit(b.Context(), 0, store.Latest, store.Stamp{Label: "count"}, func(e *store.Edit) error {
					return e.Put(store.Person{ID: 1, Name: fmt.Sprint(at)})
				}))
				time.Sleep(2 * time.Millisecond)
			}
			done.Wait()
			require.Len(b, took, clients*events)
			slices.Sort(took)
			b.ReportMetric(0, "ns/op")
			b.ReportMetric(float64(took[len(took)/2].Microseconds())/1000, "p50-ms")
			b.ReportMetric(float64(took[len(took)*99/100].Microseconds())/1000, "p99-ms")
		})
	}
}
