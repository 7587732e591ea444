package e2e

import (
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/standing"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/fleet"
	"mnemos/internal/logbook"
	"mnemos/internal/plan"
)

// logged is the log as the application holds it.
func (p *person) logged() *logbook.List {
	p.t.Helper()
	l, err := p.another().Log.List(p.t.Context(), demotest.Trail, "")
	require.NoError(p.t, err)
	return l
}

// calls gives the person a callsign.
func (p *person) calls(sign string) {
	p.t.Helper()
	_, err := p.another().Fleet.ChangePerson(p.t.Context(), 1, fleet.PersonForm{Callsign: &sign, Revision: plan.Latest})
	require.NoError(p.t, err)
}

// tabsOn presses the tabulator until what has the focus begins with a text.
func (p *person) tabsOn(text string) {
	p.t.Helper()
	for range 90 {
		if ask[bool](p, "(document.activeElement?.innerText ?? '').replace(/^[\\d\\s]+/, '').startsWith("+quote(text)+")") {
			return
		}
		p.presses(kb.Tab)
	}
	require.Fail(p.t, "no way to "+text)
}

// TestLogByKeys tests a channel whose tone is not the published one: nothing comes back, the
// next change is the published tone, what worked is kept and proven, and undone; by keyboard
// alone.
func TestLogByKeys(t *testing.T) {
	p := sit(t, 1280, 900)
	p.reads("[role=grid]", "Marran Light")
	p.presses("7", kb.ModifierAlt)
	p.reads("main", "Test a channel on the air")
	p.accessible()
	p.do(focus("#pick-find"))
	p.types("marran")
	p.until("document.querySelectorAll('main li').length === 1")
	p.tabsOn("Marran Light")
	p.presses(kb.Enter)
	p.reads("main", "Your callsign")
	p.do(focus("#callsign"))
	p.types("blue moon")
	p.presses(kb.Enter)
	p.reads("main", "such as QX9ABC")
	ask[any](p, "document.activeElement.select()")
	p.types("qx9abc")
	p.presses(kb.Enter)
	p.reads("main", "QX9ABC testing")
	p.accessible()
	p.tabsOn("in the vehicle")
	p.presses(kb.Enter)
	p.tabsOn("nothing")
	p.presses(kb.Enter)
	p.reads(".panel", "Why nothing came back")
	p.reads(".panel", "Send 88.5 Hz")
	p.reads("main", "88.5 Hz")
	p.accessible()
	p.tabsOn("ident")
	p.presses(kb.Enter)
	p.reads("main", "What worked is not what is stored")
	assert.Equal(t, standing.Planned, p.standsAt(7))
	p.tabsOn("Keep what worked")
	p.presses(kb.Enter)
	p.reads(".panel", "proven")
	p.misses("main", "What worked is not what is stored")
	assert.Equal(t, standing.Proven, p.standsAt(7))
	assert.Len(t, p.logged().Tries, 2)
	p.do(blur())
	p.presses("z", kb.ModifierCtrl)
	p.reads("main", "What worked is not what is stored")
	assert.Equal(t, standing.Planned, p.standsAt(7))
	p.presses("z", kb.ModifierCtrl)
	p.reads("main", "0 answered")
	assert.Len(t, p.logged().Tries, 1)
}

// TestLogByThumb taps what came back while the application is gone: it is told once when
// it is there again.
func TestLogByThumb(t *testing.T) {
	p := sit(t, 390, 844)
	p.touchscreen()
	p.reads("[role=grid]", "Marran Light")
	p.calls("QX9ABC")
	p.goes("/log")
	p.thumb("Pell Light")
	p.reads("main", "QX9ABC testing")
	p.until("document.documentElement.scrollWidth <= 390")
	p.accessible()
	p.lose()
	p.wire.set(func(w *wire) { w.gone = true })
	p.thumb("tail")
	p.reads("main", "Kept here, 1 to send")
	assert.Empty(t, p.logged().Tries)
	p.wire.set(func(w *wire) { w.gone = false })
	p.reads("main", "1 answered")
	assert.Len(t, p.logged().Tries, 1, "once")
	assert.Equal(t, standing.Proven, p.standsAt(8))
	p.thumb("edit")
	p.accessible()
	p.thumb("take it out")
	p.until("!document.querySelector('main').innerText.includes('The log')")
	assert.Empty(t, p.logged().Tries)
	p.thumb("another channel")
	p.thumb("Tern Stack")
	p.reads("main", "must not go on the air")
	p.misses("main", "What came back")
	p.until("document.documentElement.scrollWidth <= 390")
}
