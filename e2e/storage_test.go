package e2e

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// kept are the names under which something is kept in a browser.
var kept = []string{"waiting", "radios", "also", "keys", "pace", "walk 1", "theme", "person", "plan", "load", "single-keys", "log spot", "everywhere", "line-1"}

// weathers are what a browser may do to a page, each as a script before it.
func weathers() map[string]string {
	out := map[string]string{
		"forbidden": `for (const name of ['localStorage', 'sessionStorage']) Object.defineProperty(window, name, { get() { throw new DOMException('denied', 'SecurityError'); } })`,
		"no room":   `Storage.prototype.setItem = () => { throw new DOMException('full', 'QuotaExceededError'); }`,
		"full soon": `{ let n = 0; const set = Storage.prototype.setItem; Storage.prototype.setItem = function (...a) { if (n++ > 2) throw new DOMException('full', 'QuotaExceededError'); set.apply(this, a); } }`,
		"refused":   `window.SharedWorker = function () { throw new DOMException('no', 'SecurityError'); }; window.BroadcastChannel = window.SharedWorker`,
		"little":    `delete window.SharedWorker; delete window.BroadcastChannel; delete window.EventSource; delete Navigator.prototype.locks`,
	}
	for i, damaged := range []string{"{", "[null]", "null", `"x"`, "7", `{"a":[{}]}`, "[{}]", "-1", "1e99", `[1,"2"]`, "\\u0000", `{"walk":{}}`} {
		var set []string
		for _, name := range kept {
			set = append(set, fmt.Sprintf("localStorage.setItem(%[1]s, %[2]s); sessionStorage.setItem(%[1]s, %[2]s)", quote(name), quote(damaged)))
		}
		out[fmt.Sprint("damaged ", i)] = "if (location.protocol === 'http:') { " + strings.Join(set, "; ") + " }"
	}
	return out
}

// TestStorage: whatever the browser does with what is kept in it, every view is
// there, and what is typed is stored.
func TestStorage(t *testing.T) {
	for name, script := range weathers() {
		t.Run(name, func(t *testing.T) {
			p := sit(t, 1280, 800)
			p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
				_, err := cdp.Call(ctx, target, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: script})
				return err
			}))
			for _, path := range []string{"/find", "/listen", "/relay", "/beacon", "/load", "/log", "/radios", "/settings", "/"} {
				p.do(chromedp.Navigate(p.url + path))
				p.sees("main h1, main h2, [role=grid]")
				assert.NotContains(t, ask[string](p, "document.body.innerText"), "cannot be shown", path)
			}
			p.sees("[role=grid] [role=row][aria-selected]")
			p.presses("/")
			p.clears()
			p.types("146.55 Quay")
			p.reads("section", "Store in slot 4")
			p.presses(kb.Enter)
			p.reads("#slot-4", "Quay")
			p.reads("header", "saved")
			p.until("document.querySelector('#line, [name=line], input')?.value === ''")
		})
	}
}

// TestOneSlotTwice: a radio that holds another channel in the slot that the plan
// has for one which is not in it is shown all the same.
func TestOneSlotTwice(t *testing.T) {
	p := sit(t, 1280, 800)
	p.goes("/find")
	p.reads("header", "Trail")
	p.presses("=")
	p.goes("/radios")
	p.sees("main h1, main h2")
	assert.NotContains(t, ask[string](p, "document.body.innerText"), "cannot be shown")
}
