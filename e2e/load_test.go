package e2e

import (
	"net/http"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/handset"
	"mnemos/core/radio"
	"mnemos/core/standing"
	"mnemos/internal/demo/demotest"
)

// now reports whether the page says a text at this moment.
func (p *person) now(text string) bool {
	p.t.Helper()
	return ask[bool](p, "document.querySelector('main').innerText.includes("+quote(text)+")")
}

// walks presses Enter until a step, or the display, is reached.
func (p *person) walks(to string) {
	p.t.Helper()
	here := `(document.querySelector('.do li[aria-current=step] h3') ?? document.querySelector('.do h3') ?? {innerText: ''}).innerText`
	for range 60 {
		if strings.HasPrefix(ask[string](p, here), to) || to == "It shows this" && p.now(to) {
			return
		}
		was := ask[string](p, "document.querySelector('p[aria-live]').innerText")
		p.presses(kb.Enter)
		p.until("document.querySelector('p[aria-live]').innerText !== " + quote(was))
	}
	require.Fail(p.t, "the walk never comes to "+to)
}

// standsAt is how far a channel of the first radio has come.
func (p *person) standsAt(slot int) standing.State {
	p.t.Helper()
	l, err := p.another().Plans.Ledger(p.t.Context(), demotest.Trail)
	require.NoError(p.t, err)
	for _, r := range l.Rows {
		if r.Slot == slot {
			return r.Standing.Now
		}
	}
	return ""
}

// TestLoadByKeys decides what the report asks, walks two channels by keyboard alone,
// finds out what went wrong, and leaves; the plan shows how far they have come.
func TestLoadByKeys(t *testing.T) {
	p := sit(t, 1280, 800)
	p.reads("[role=grid]", "Marran Light")
	p.presses("6", kb.ModifierAlt)
	p.reads("main", "What Trail will hold")
	p.reads("main", "One is held back")
	p.reads("[aria-label='Held back']", "Tern Stack")
	p.accessible()
	p.mouse("Shift +600 kHz")
	p.until("!document.querySelector('[aria-label=\"Held back\"]')")
	p.reads("[role=status]", "Ctrl+Z undoes it")
	p.mouse("Scan as the others: Calling")
	p.until("!document.querySelector('[aria-label=Changed]').innerText.includes('Calling')")
	p.until("document.querySelectorAll('.ribbon rect.block').length > 24") // with what puts the radio back
	p.do(blur())

	p.presses(kb.Enter, kb.ModifierCtrl)
	p.reads("main", "Begin with:")
	p.accessible()
	first := ask[string](p, "document.querySelector('.list [aria-current] .slot').innerText")
	// What is on the screen is followed on a simulated radio, word by word.
	trail, err := handset.New(demoProfile(t))
	require.NoError(t, err)
	for !p.now("It shows this") {
		line := ask[string](p, `(() => {
			const now = document.querySelector('.do li[aria-current=step]');
			return now.querySelector('h3').innerText + ': ' + now.querySelector('.caps').getAttribute('aria-label').replace('Keys: ', '');
		})()`)
		require.NoError(t, trail.Line(line, nil), line)
		was := ask[string](p, "document.querySelector('p[aria-live]').innerText")
		p.presses(kb.Enter)
		p.until("document.querySelector('p[aria-live]').innerText !== " + quote(was))
	}
	held, ok := trail.Holds(atoi(t, first))
	require.True(t, ok)
	p.reads(".see", held.Receive.MHz())
	p.reads("main", "at rest it must show")
	p.reads("main", "Hold REV: it must show")
	p.accessible()
	p.presses(kb.Backspace)
	p.until("document.querySelector('.do li[aria-current=step]') !== null")
	p.presses(kb.Enter)
	p.reads("main", "It shows this")
	p.mouse("Mine shows something else")
	p.reads("main", "Find the row that your radio shows")
	p.reads(".see", "left out: ")
	p.accessible()
	p.presses(kb.Backspace)
	p.presses(kb.Enter)
	p.reads("main", "Stays from")
	p.mouse("check these")
	p.reads(".looks", "press MENU")
	p.until("document.querySelectorAll('.list .row.done').length === 1")
	assert.Equal(t, standing.Keyed, p.standsAt(atoi(t, first)), "the read-out showed the transmit frequency")

	p.presses(kb.Escape)
	p.reads("main", "You stopped")
	p.accessible()
	p.presses("2", kb.ModifierAlt)
	p.reads("#slot-"+first, "keyed")
	p.accessible()
}

// TestLoadByThumb walks on a phone while the application is gone for a while, is put
// away and found again, and goes on as if nothing was or from the stated state.
func TestLoadByThumb(t *testing.T) {
	p := sit(t, 390, 844)
	p.touchscreen()
	p.reads("[role=grid]", "Marran Light")
	p.presses("t", kb.ModifierAlt)
	p.presses("t", kb.ModifierAlt) // red
	p.goes("/load")
	p.thumb("Start with slot")
	p.until("document.documentElement.scrollWidth <= 390")
	p.accessible()
	p.reads("main", "Begin with:")
	slot := atoi(t, ask[string](p, "document.querySelector('.who .slot').innerText"))

	p.lose()
	p.wire.set(func(w *wire) { w.gone = true })
	for range 40 {
		if p.until("document.querySelector('.foot .main') !== null"); ask[string](p, "document.querySelector('.foot .main').innerText") != "Done, next step" {
			break
		}
		p.thumb("Done, next step")
	}
	p.reads(".see", "must show")
	p.accessible()
	p.thumb("It shows this")
	p.reads("main", "Stays from") // the walk goes on
	assert.Equal(t, standing.Planned, p.standsAt(slot), "nothing arrived yet")
	p.wire.set(func(w *wire) { w.gone = false })
	p.until("!document.querySelector('[role=alert]')")
	for range 100 {
		if p.standsAt(slot) == standing.Keyed {
			break
		}
		ask[any](p, "new Promise((r) => setTimeout(r, 100))")
	}
	assert.Equal(t, standing.Keyed, p.standsAt(slot), "it was told as soon as somebody listened")

	p.thumb("Done, next step")
	p.thumb("Done, next step")
	second := ask[string](p, "document.querySelector('.who .slot').innerText")
	p.goes("/load") // the page is closed and opened again
	p.reads("main", "You stopped")
	p.reads("main", "at slot "+second)
	p.thumb("Go on: the radio is untouched")
	p.reads(".who", second)
	p.reads("main", "Stays from")
	p.thumb("Leave")
	p.thumb("Start slot " + second + " again")
	p.reads(".who", second)
	p.reads("main", "Begin with:") // nothing is known of the radio any more
	p.until("document.documentElement.scrollWidth <= 390")
}

// TestPhoneFile opens the file for a phone from a disk: it asks nobody for anything,
// searches, and keeps its ticks.
func TestPhoneFile(t *testing.T) {
	p := sit(t, 390, 844)
	p.touchscreen()
	res, err := http.Get(p.url + "/api/loads/1/paper?kind=phone&as=html") //nolint:noctx // a test
	require.NoError(t, err)
	defer res.Body.Close()
	assert.Contains(t, res.Header.Get("Content-Disposition"), "Three Lights Walk Trail")
	path := filepath.Join(t.TempDir(), "trail.html")
	f, err := os.Create(path)
	require.NoError(t, err)
	_, err = f.ReadFrom(res.Body)
	require.NoError(t, err)
	require.NoError(t, f.Close())
	p.do(chromedp.Navigate("file://" + path))
	p.sees("summary")
	assert.Equal(t, 24, ask[int](p, "document.querySelectorAll('details').length"))
	p.accessible()
	p.do(focus("#search"))
	p.types("146,94")
	p.until("[...document.querySelectorAll('details')].filter((d) => !d.hidden).length === 1")
	p.thumb("Marran Light")
	p.reads("details[open]", "At rest it must show")
	p.accessible()
	ask[any](p, "document.querySelectorAll('details[open] li input').forEach((b) => b.click())")
	p.until("document.querySelector('details[open]').classList.contains('done')")
	p.fills("#search", "nothing of that name")
	p.reads("main", "No channel has that")
	p.do(chromedp.Navigate("file://" + path))
	p.until("document.querySelectorAll('details.done').length === 1")
	p.until("performance.getEntriesByType('resource').length === 0")
	p.until("document.documentElement.scrollWidth <= 390")
}

// TestPaperView opens the sheets as pages of their own, and finds every link to them.
func TestPaperView(t *testing.T) {
	p := sit(t, 1280, 800)
	p.goes("/load")
	p.reads("aside", "field sheet")
	links := ask[[]string](p, "[...document.querySelectorAll('aside a')].map((a) => a.getAttribute('href'))")
	assert.Len(t, links, 9)
	for _, link := range links {
		res, err := http.Get(p.url + link) //nolint:noctx // a test
		require.NoError(t, err)
		assert.Equal(t, http.StatusOK, res.StatusCode, link)
		require.NoError(t, res.Body.Close())
		if !strings.Contains(link, "as=view") {
			continue
		}
		p.do(chromedp.Navigate(p.url + link))
		p.reads("main", "Marran Light")
		p.accessible()
	}
}

func atoi(t *testing.T, s string) int {
	t.Helper()
	n, err := strconv.Atoi(strings.TrimSpace(s))
	require.NoError(t, err)
	return n
}

func demoProfile(t *testing.T) *radio.Profile {
	t.Helper()
	p, err := radio.Load("trail")
	require.NoError(t, err)
	return p
}
