package e2e

import (
	"context"
	"fmt"
	"math/rand/v2"
	"net/http"
	"os"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"mnemos/core/freq"
	"mnemos/core/listing"
)

// TestMapCost measures the map with 100,000 records; `make bench` runs it. It
// asserts no time: it prints when the map was painted and which tasks kept
// the page from answering for longer than 50 ms.
func TestMapCost(t *testing.T) {
	if os.Getenv("MNEMOS_BENCH") == "" {
		t.Skip("set MNEMOS_BENCH, or run make bench")
	}
	p := sit(t, 1280, 800)
	r := rand.New(rand.NewPCG(1, 2))
	records := make([]listing.Record, 100_000)
	for i := range records {
		lat, lon := r.Float64()*110-50, r.Float64()*340-170
		if i%10 == 0 {
			lat, lon = 41+r.Float64()*6-3, -55.3+r.Float64()*8-4
		}
		out := freq.Hz(145_000_000 + 5_000*r.Int64N(400))
		records[i] = listing.Record{Key: fmt.Sprint(i), Output: out, Input: out + 600_000, Locality: fmt.Sprint("Place ", i), Lat: &lat, Lon: &lon, Mode: listing.FM, Source: "many"}
	}
	require.NoError(t, p.store.Import(t.Context(), "many", today.Format(time.RFC3339), records))
	asked, err := http.Get(p.url + "/api/find/around") // the listing is in memory by then, as after any first look
	require.NoError(t, err)
	require.NoError(t, asked.Body.Close())
	p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		_, err := cdp.Call(ctx, target, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{
			Source: "window.long = []; new PerformanceObserver((l) => l.getEntries().forEach((e) => window.long.push([Math.round(e.startTime), Math.round(e.duration)]))).observe({entryTypes: ['longtask']})",
		})
		return err
	}))
	p.do(chromedp.Navigate(p.url + "/find"))
	p.sees("[role=option]")
	p.until("document.querySelectorAll('.chart .plate').length > 1")
	painted := ask[float64](p, "performance.now()")
	first := ask[float64](p, "(performance.getEntriesByName('first-contentful-paint')[0] ?? {startTime: -1}).startTime")
	time.Sleep(2 * time.Second)
	load := ask[string](p, "JSON.stringify(window.long)")
	for range 3 {
		p.do(click("button[aria-label=Farther]"))
		time.Sleep(400 * time.Millisecond)
	}
	zoom := ask[string](p, "JSON.stringify(window.long.splice(0))")
	for range 6 {
		p.do(chromedp.Evaluate[chromedp.Void](`{ const c = document.querySelector('.chart .hand'); const at = (type, x) => c.dispatchEvent(new PointerEvent(type, {bubbles: true, pointerId: 1, clientX: 900 + x, clientY: 250, button: 0, buttons: 1}));
			at('pointerdown', 0); for (let i = 1; i <= 12; i++) at('pointermove', -10 * i); at('pointerup', -120); }`))
		time.Sleep(500 * time.Millisecond)
	}
	pan := ask[string](p, "JSON.stringify(window.long)")
	t.Logf("first contentful paint %.0f ms, map with its numbers %.0f ms after the start of the page\nlong tasks [at, for] ms: while loading %s, with three steps out %s, while panning %s", first, painted, load, zoom, pan)
}
