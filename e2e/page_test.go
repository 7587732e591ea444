// Package e2e drives the real interface in a headless browser, the way a
// person at the keyboard does.
package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/cdproto/runtime"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"

	"mnemos/internal/cli"
	"mnemos/internal/demo"
	"mnemos/internal/house"
	"mnemos/internal/store"
)

// today is the day on which the clock of every test stands still.
var today = time.Date(2026, 11, 25, 9, 42, 0, 0, time.UTC)

// chromium is started once; every test gets a context of its own in it.
var chromium context.Context

func TestMain(m *testing.M) {
	os.Exit(func() int {
		path := os.Getenv("MNEMOS_CHROMIUM")
		if path == "" {
			path = "/usr/lib/chromium/chromium-headless-shell"
		}
		if _, err := os.Stat(path); err != nil {
			fmt.Fprintln(os.Stderr, "e2e: no Chromium at", path, "- run make chromium")
			return 1
		}
		opts := append(chromedp.DefaultExecAllocatorOptions[:], chromedp.ExecPath(path), chromedp.NoSandbox, chromedp.DisableGPU,
			chromedp.WindowSize(1280, 800), chromedp.Flag("force-device-scale-factor", "1"), chromedp.Flag("font-render-hinting", "none"),
			chromedp.Flag("lang", "en-US"), chromedp.Flag("log-level", "3"),
			chromedp.Flag("host-resolver-rules", "MAP * ~NOTFOUND , EXCLUDE 127.0.0.1"))
		for _, f := range []string{"disable-component-update", "disable-domain-reliability", "disable-quic", "no-pings", "no-proxy-server", "force-prefers-reduced-motion"} {
			opts = append(opts, chromedp.Flag(f, true))
		}
		alloc, stop := chromedp.NewExecAllocator(context.Background(), opts...)
		defer stop()
		ctx, cancel := chromedp.NewContext(alloc)
		defer cancel()
		if err := chromedp.Do(ctx); err != nil {
			fmt.Fprintln(os.Stderr, "e2e: start Chromium:", err)
			return 1
		}
		chromium = ctx
		return m.Run()
	}())
}

// person is somebody in front of the application with the demonstration data.
type person struct {
	t     *testing.T
	ctx   context.Context
	url   string
	store *store.Store
	wire  *wire
	net   *httptest.Server
	mu    sync.Mutex
	solo  bool     // this browser has no shared workers
	lost  bool     // the application is taken away on purpose: failed requests are no fault of the page
	wrong []string // console errors and requests to elsewhere
}

// sit starts the application and opens it at the given size. The test fails
// if the console shows an error or the page asks anything of another host.
func sit(t *testing.T, width, height int64) *person {
	t.Helper()
	p := begin(t, width, height, func(s *store.Store) error { return demo.Fill(t.Context(), s, today) })
	p.sees("[role=grid] [role=row][aria-selected]")
	return p
}

// beside holds the tests that run beside others already.
var beside sync.Map

// aside lets a test run beside others: most of its time it waits for a page.
func aside(t *testing.T) {
	if _, known := beside.LoadOrStore(t.Name(), true); !known && os.Getenv("MNEMOS_BENCH") == "" {
		t.Parallel()
	}
}

// begin opens the application over a folder that is filled in some way.
func begin(t *testing.T, width, height int64, fill func(*store.Store) error) *person {
	t.Helper()
	aside(t)
	s, err := store.Open(t.Context(), t.TempDir())
	require.NoError(t, err)
	require.NoError(t, fill(s))
	w := &wire{inner: serving(s)}
	server := httptest.NewServer(w)
	tab, cancel := chromedp.NewContext(chromium, chromedp.WithNewBrowserContext())
	ctx, stop := context.WithTimeout(tab, 180*time.Second)
	p := &person{t: t, ctx: ctx, url: server.URL, store: s, wire: w, net: server}
	require.NoError(t, chromedp.Listen(ctx, p.listen))
	t.Cleanup(func() {
		stop()
		cancel()
		server.Close()
		require.NoError(t, s.Close())
		p.mu.Lock()
		defer p.mu.Unlock()
		require.Empty(t, p.wrong, "console errors, or requests to another host")
	})
	p.do(chromedp.EmulateViewport(width, height), chromedp.Navigate(server.URL))
	return p
}

// serving is the application over a data file, as if it had just been started.
func serving(s *store.Store) http.Handler {
	return cli.Server(house.New(s, func() time.Time { return today }))
}

// tab opens the application once more: in the same browser, or as somebody else
// would in another one.
func (p *person) tab(path string, options ...chromedp.ContextOption) *person {
	p.t.Helper()
	parent := p.ctx
	if len(options) > 0 {
		parent = chromium
	}
	made, cancel := chromedp.NewContext(parent, options...)
	ctx, stop := context.WithTimeout(made, 180*time.Second)
	q := &person{t: p.t, ctx: ctx, url: p.url, store: p.store, wire: p.wire, net: p.net, lost: p.lost}
	require.NoError(p.t, chromedp.Listen(ctx, q.listen))
	p.t.Cleanup(func() {
		stop()
		cancel()
		q.mu.Lock()
		defer q.mu.Unlock()
		require.Empty(p.t, q.wrong, "console errors, or requests to another host")
	})
	if p.solo {
		q.alone()
	}
	q.do(chromedp.EmulateViewport(1280, 800), chromedp.Navigate(p.url+path))
	return q
}

// another is somebody else at the same data.
func (p *person) another() *house.House { return house.New(p.store, func() time.Time { return today }) }

// revision is that of the plan as it stands.
func (p *person) revision() int64 {
	p.t.Helper()
	l, err := p.another().Plans.Ledger(p.t.Context(), 1)
	require.NoError(p.t, err)
	return l.Revision
}

func (p *person) listen(ev any) {
	p.mu.Lock()
	defer p.mu.Unlock()
	switch e := ev.(type) {
	case *runtime.EventExceptionThrown:
		p.wrong = append(p.wrong, e.ExceptionDetails.Text+" "+describe(e.ExceptionDetails))
	case *runtime.EventConsoleAPICalled:
		if e.Type == runtime.ConsoleAPICalledTypeError {
			var parts []string
			for _, a := range e.Args {
				parts = append(parts, string(a.Value)+a.Description)
			}
			p.wrong = append(p.wrong, strings.Join(parts, " "))
		}
	case *page.EventJavascriptDialogOpening: // it asks before it is left; the answer is yes
		go func() { _ = chromedp.Do(p.ctx, answer) }()
	case *network.EventRequestWillBeSent:
		if u := e.Request.URL; !strings.HasPrefix(u, p.url) && !strings.HasPrefix(u, "data:") && !strings.HasPrefix(u, "about:") && !strings.HasPrefix(u, "file:") {
			p.wrong = append(p.wrong, "request to "+u)
		}
	}
}

var answer = chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
	_, err := cdp.Call(ctx, t, page.HandleJavaScriptDialog, page.HandleJavaScriptDialogParams{Accept: true})
	return err
})

func describe(d *runtime.ExceptionDetails) string {
	if d.Exception == nil {
		return d.URL
	}
	return d.Exception.Description
}

func (p *person) do(actions ...chromedp.Action[chromedp.Void]) {
	p.t.Helper()
	require.NoError(p.t, chromedp.Do(p.ctx, actions...))
}

// types presses keys one after the other, wherever the focus is.
func (p *person) types(text string) {
	p.t.Helper()
	for _, r := range text {
		p.presses(string(r))
	}
}

// presses presses one key. The character goes with the key and not after it,
// so that a key which the page takes for itself types nothing, as in a
// browser in somebody's hands.
func (p *person) presses(key string, with ...chromedp.Modifier) {
	p.t.Helper()
	p.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error { return stroke(ctx, t, []rune(key)[0], with...) }))
}

// hammers types fast, wherever the focus is.
func (p *person) hammers(text string) {
	p.t.Helper()
	p.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		for _, r := range text {
			if err := stroke(ctx, t, r); err != nil {
				return err
			}
		}
		return nil
	}))
}

func stroke(ctx context.Context, t *chromedp.Target, key rune, with ...chromedp.Modifier) error {
	events := kb.Encode(key)
	down, up := *events[0], *events[len(events)-1]
	for _, m := range with {
		down.Modifiers |= int64(m)
	}
	up.Modifiers = down.Modifiers
	if len(events) == 3 && down.Modifiers&int64(kb.ModifierCtrl|kb.ModifierAlt) == 0 {
		down.Text, down.UnmodifiedText = events[1].Text, events[1].UnmodifiedText
	}
	if _, err := cdp.Call(ctx, t, input.DispatchKeyEvent, down); err != nil {
		return err
	}
	_, err := cdp.Call(ctx, t, input.DispatchKeyEvent, up)
	return err
}

// clears empties the text field that has the focus.
func (p *person) clears() {
	p.presses("a", kb.ModifierCtrl)
	p.presses(kb.Backspace)
}

// until waits for a JavaScript expression to become true.
func (p *person) until(expression string) {
	p.t.Helper()
	_, err := chromedp.Run(p.ctx, chromedp.Poll[bool](expression, chromedp.WithPollingTimeout(45*time.Second)))
	if err != nil {
		if folder := os.Getenv("MNEMOS_FAILURES"); folder != "" {
			p.shot(filepath.Join(folder, strings.ReplaceAll(p.t.Name(), "/", "-")+".png"))
		}
		text := ask[string](p, "document.body.innerText")
		require.NoError(p.t, err, "waiting for %s; the page says:\n%s", expression, text)
	}
}

// sees waits until an element is there.
func (p *person) sees(selector string) {
	p.t.Helper()
	p.until(fmt.Sprintf("document.querySelector(%s) !== null", quote(selector)))
}

// reads waits until an element holds a text.
func (p *person) reads(selector, text string) {
	p.t.Helper()
	p.until(fmt.Sprintf("[...document.querySelectorAll(%s)].some((e) => e.innerText.replace(/\\s+/g, ' ').includes(%s))", quote(selector), quote(text)))
}

// misses waits until no element holds a text.
func (p *person) misses(selector, text string) {
	p.t.Helper()
	p.until(fmt.Sprintf("![...document.querySelectorAll(%s)].some((e) => e.innerText.replace(/\\s+/g, ' ').includes(%s))", quote(selector), quote(text)))
}

func ask[T any](p *person, expression string) T {
	p.t.Helper()
	v, err := chromedp.Run(p.ctx, chromedp.Evaluate[T](expression))
	require.NoError(p.t, err, expression)
	return v
}

func quote(s string) string {
	b, err := json.Marshal(s)
	if err != nil {
		panic(err) // a string always marshals
	}
	return string(b)
}

// shot saves a picture of the page as it stands.
func (p *person) shot(path string) {
	p.t.Helper()
	_, err := chromedp.Run(p.ctx, chromedp.Evaluate[bool]("document.fonts.ready.then(() => true)", chromedp.EvalAwaitPromise))
	require.NoError(p.t, err)
	b, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	require.NoError(p.t, err)
	require.NoError(p.t, os.MkdirAll(filepath.Dir(path), 0o755))
	require.NoError(p.t, os.WriteFile(path, b, 0o644))
}

// accessible runs axe-core in the page and wants no violation.
func (p *person) accessible() {
	p.t.Helper()
	source, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	require.NoError(p.t, err, "run npm ci in web first")
	_, err = chromedp.Run(p.ctx, chromedp.Evaluate[bool](string(source)+"; true"))
	require.NoError(p.t, err)
	found, err := chromedp.Run(p.ctx, chromedp.Evaluate[string](`axe.run(document, {resultTypes: ['violations']}).then((r) => r.violations.map(
		(v) => v.id + ': ' + v.help + '\n' + v.nodes.slice(0, 4).map((n) => '  ' + n.html + '\n    ' + n.failureSummary).join('\n')).join('\n'))`, chromedp.EvalAwaitPromise))
	require.NoError(p.t, err)
	require.Empty(p.t, found, "axe-core")
}

// reloads loads the page again, as after a restart of the browser.
func (p *person) reloads() {
	p.t.Helper()
	p.do(chromedp.Reload())
	p.sees("[role=grid] [role=row][aria-selected]")
}

// goes opens another view by its address.
func (p *person) goes(path string) {
	p.t.Helper()
	p.do(chromedp.Navigate(p.url + path))
	p.sees("main h1")
}

// fills replaces what a text field holds and leaves it.
func (p *person) fills(selector, text string) {
	p.t.Helper()
	p.sees(selector)
	p.do(focus(selector))
	p.clears()
	p.types(text)
	p.do(blur())
}

// chooses picks a value of a list that opens.
func (p *person) chooses(selector, value string) {
	p.t.Helper()
	p.sees(selector)
	p.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf("document.querySelector(%s).focus()", quote(selector))))
	p.presses(kb.Enter)
	option := fmt.Sprintf("[role=option][data-value=%s]", quote(value))
	p.sees(option)
	p.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf("{ const o = document.querySelector(%s); o.scrollIntoView({block: 'nearest'}); for (const type of ['pointerdown', 'pointerup']) o.dispatchEvent(new PointerEvent(type, {bubbles: true, pointerType: 'mouse', button: 0})); }", quote(option))))
	p.until("document.querySelector('[role=option][data-highlighted]') === null || document.querySelector('[data-state=open][role=listbox]') === null")
}

func click(selector string) chromedp.Action[chromedp.Void] {
	return chromedp.Click(chromedp.CSS(selector))
}

func focus(selector string) chromedp.Action[chromedp.Void] {
	return chromedp.Evaluate[chromedp.Void](fmt.Sprintf("{ const e = document.querySelector(%s); e.click(); e.focus(); }", quote(selector)))
}

func blur() chromedp.Action[chromedp.Void] {
	return chromedp.Evaluate[chromedp.Void]("document.activeElement.blur()")
}

// clickOption clicks the option of a list that holds a text.
func clickOption(text string) chromedp.Action[chromedp.Void] {
	return chromedp.Evaluate[chromedp.Void](fmt.Sprintf(
		"{ const o = [...document.querySelectorAll('[role=option]')].find((o) => o.innerText.includes(%s)); o.scrollIntoView({block: 'nearest'}); o.click(); }", quote(text)))
}

// clickCell chooses a cell of a row, as a click of the mouse does.
func clickCell(row, column string) chromedp.Action[chromedp.Void] {
	return chromedp.Evaluate[chromedp.Void](fmt.Sprintf("document.querySelector(%s).click()", quote(row+" [data-column="+column+"]")))
}

// lose says that the application is taken away on purpose: requests that fail
// are no fault of the page.
func (p *person) lose() {
	p.mu.Lock()
	defer p.mu.Unlock()
	p.lost = true
}

// front brings the tab before the others, for its keys to reach it.
func (p *person) front() {
	p.t.Helper()
	p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		_, err := cdp.Call(ctx, target, page.BringToFront, cdp.Empty{})
		return err
	}))
}

// alone takes shared workers away from the browser.
func (p *person) alone() {
	p.t.Helper()
	p.solo = true
	p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		_, err := cdp.Call(ctx, target, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: "delete window.SharedWorker"})
		return err
	}))
}

// runs carries out a command from the list of all of them.
func (p *person) runs(command string) {
	p.t.Helper()
	p.presses("k", kb.ModifierCtrl)
	p.sees("[role=dialog] input")
	p.types(command)
	p.reads("[role=option][data-selected], [data-command-item][data-selected]", command)
	p.presses(kb.Enter)
}

// clickLabel clicks the label that says a text.
func clickLabel(text string) chromedp.Action[chromedp.Void] {
	return chromedp.Evaluate[chromedp.Void](fmt.Sprintf("[...document.querySelectorAll('label')].find((l) => l.innerText.trim().startsWith(%s)).click()", quote(text)))
}

// clickText clicks the visible button with a text.
func clickText(text string) chromedp.Action[chromedp.Void] {
	return chromedp.Evaluate[chromedp.Void](fmt.Sprintf(
		"[...document.querySelectorAll('button')].find((b) => b.offsetParent !== null && b.innerText.replace(/\\s+/g, ' ').includes(%s)).click()", quote(text)))
}

// tabsTo goes on with the Tab key until what has a name has the focus.
func (p *person) tabsTo(name string) {
	p.t.Helper()
	p.until("document.querySelector('[aria-label=' + JSON.stringify(" + quote(name) + ") + ']') !== null")
	for range 120 {
		if ask[string](p, "document.activeElement.getAttribute('aria-label') ?? ''") == name {
			return
		}
		p.presses(kb.Tab)
	}
	require.Fail(p.t, "the Tab key does not reach "+name)
}
