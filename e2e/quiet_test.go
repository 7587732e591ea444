package e2e

import (
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// TestViewsRest: a view that is only looked at does nothing by itself, once it has
// loaded: nothing is drawn again, nothing is asked again, it grows no longer.
func TestViewsRest(t *testing.T) {
	p := sit(t, 1280, 800)
	for _, path := range []string{"/", "/find", "/radios/beck", "/settings"} {
		p.goes(path)
		p.reads("header", "Trail")
		time.Sleep(1500 * time.Millisecond) // whatever follows the first paint
		p.do(chromedp.Evaluate[chromedp.Void](`window.drawn = 0; window.tall = document.documentElement.scrollHeight;
			performance.clearResourceTimings(); new MutationObserver((l) => (window.drawn += l.length)).observe(document, {subtree: true, childList: true, attributes: true, characterData: true})`))
		time.Sleep(time.Second)
		assert.Zero(t, ask[float64](p, "window.drawn"), "%s is drawn again and again", path)
		assert.Zero(t, ask[float64](p, "performance.getEntriesByType('resource').length"), "%s asks again and again", path)
		if path == "/" || path == "/find" {
			assert.LessOrEqual(t, ask[float64](p, "window.tall"), 800.0, "%s fits the window: only its parts scroll", path)
		}
		assert.Equal(t, ask[float64](p, "window.tall"), ask[float64](p, "document.documentElement.scrollHeight"), "%s grows", path)
	}
}
