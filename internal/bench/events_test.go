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
)

// BenchmarkEvents has twenty clients on loopback listen while changes are told
// of, and measures how long each takes to each of them; the baseline is one
// client.
func BenchmarkEvents(b *testing.B) {
	for _, clients := range []int{1, 20} {
		b.Run(fmt.Sprintf("clients=%d", clients), func(b *testing.B) {
			h := house.New(filled(b), time.Now)
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
						case strings.HasPrefix(text, "event: count"):
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
			for i := range events {
				mu.Lock()
				sent[i] = time.Now()
				mu.Unlock()
				h.Hub.Publish("count", nil)
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
