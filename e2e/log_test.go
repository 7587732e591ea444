package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
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
	p.reads("main", "Nothing yet.")
	assert.Empty(t, p.logged().Tries)
	p.thumb("another channel")
	p.thumb("Tern Stack")
	p.reads("main", "must not go on the air")
	p.misses("main", "What came back")
	p.until("document.documentElement.scrollWidth <= 390")
}

// TestToneSearch sits on the input of a repeater, by keyboard: two hits that agree are heard
// evidence, what is found is taken over, and the record in Find is corrected with it.
func TestToneSearch(t *testing.T) {
	p := sit(t, 1280, 900)
	p.reads("[role=grid]", "Long Ridge")
	p.calls("QX9ABC")
	p.goes("/log")
	p.reads("main", "Long Ridge")
	p.tabsOn("Long Ridge") // 146.76 −0.6, stored with 123.0 as it is published
	p.presses(kb.Enter)
	p.reads(".panel", "find out what others send")
	p.tabsOn("Search for the tone")
	p.presses(kb.Enter)
	p.reads("main", "Sit on the input")
	p.reads("main", "146.160")
	p.accessible()
	p.do(focus("#search-tone"))
	p.types("blue moon")
	p.presses(kb.Enter)
	p.reads("main", "write what the radio stopped at")
	for range 2 {
		p.do(focus("#search-tone"))
		ask[any](p, "document.activeElement.select()")
		p.types("118.8")
		p.presses(kb.Enter)
		p.until("document.querySelector('#search-tone').value === ''")
	}
	p.reads("main", "2 searches on the input agree")
	p.accessible()
	p.tabsOn("Send 118.8 Hz")
	p.presses(kb.Enter)
	p.reads("main", "It is what is stored")
	assert.Equal(t, standing.Planned, p.standsAt(5), "nothing was answered")
	p.goes("/")
	p.reads("[role=grid]", "Long Ridge")
	p.slot(5)
	p.reads("aside", "Others send 118.8 Hz, and the listing says 123.0 Hz")
	p.tabsOn("Correct the record")
	p.presses(kb.Enter)
	p.until("document.querySelector('[aria-label=\"uplink tone, as you know it\"]')?.value === '118.8'")
	p.accessible()
}

// TestContactsByMouse brings the contacts of another log, and sees what was left out.
func TestContactsByMouse(t *testing.T) {
	p := sit(t, 1280, 800)
	p.goes("/log")
	p.reads("main", "bring the contacts of another log")
	file := filepath.Join(t.TempDir(), "contacts.adi")
	require.NoError(t, os.WriteFile(file, []byte("x<eoh>\n<call:6>QX7OAK<qso_date:8>20261120<time_on:4>1830<mode:2>FM<freq:6>147.03<eor>\n<call:6>QX1SSB<qso_date:8>20261121<time_on:4>2015<mode:3>SSB<eor>"), 0o600))
	p.do(chromedp.SetUploadFiles("input[type=file]", []string{file}))
	p.reads("main", "1 contact is in the log now")
	p.reads("main", "contact with QX7OAK")
	p.mouse("1 thing was not carried over")
	p.reads("main", "SSB with QX1SSB is not FM")
	p.accessible()
	p.do(chromedp.SetUploadFiles("input[type=file]", []string{file}))
	p.reads("main", "were there already")
	assert.Len(t, p.logged().Tries, 1)
}
