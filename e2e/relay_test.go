package e2e

import (
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/evidence"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/plan"
	"mnemos/internal/relaying"
)

// relays is the relay as the application holds it.
func (p *person) relays() *relaying.View {
	p.t.Helper()
	v, err := p.another().Relays.Look(p.t.Context(), demotest.Ferry, relaying.Ask{})
	require.NoError(p.t, err)
	return v
}

// TestRelayByKeys mends the relay of the demonstration by keyboard alone, takes it into both
// radios, rehearses it, and undoes.
func TestRelayByKeys(t *testing.T) {
	p := sit(t, 1280, 900)
	p.reads("[role=grid]", "Marran Light")
	p.presses("4", kb.ModifierAlt)
	p.reads("main", "Trail does not relay")
	p.accessible()
	p.tabsOn("Relay with Ferry")
	p.presses(kb.Enter)
	p.reads(".panel", "You would not hear Orrin Moor")
	p.reads("main", "Speak from here, after 0.82 s.")
	p.accessible()
	p.do(blur())
	p.presses("=")
	p.reads(".panel", "You would hear Orrin Moor")
	p.reads("main", "Key again from here, after 3.4 s.")
	p.do(blur())
	p.presses("=")
	p.until("document.querySelector('#side-A').value.startsWith('446.1')")
	p.misses(".panel", "reaches into the calling channel")
	p.do(blur())
	p.presses("=")
	p.misses(".panel", "Nobody identifies side A")
	p.reads(".panel", "Take both sides")
	assert.Equal(t, evidence.Unverified, p.relays().Report.Verdict)
	p.do(blur())
	p.presses(kb.Enter, kb.ModifierCtrl)
	p.reads(".panel", "Both sides are in the radios as they are")
	app := p.another()
	for _, load := range []int64{demotest.Trail, demotest.Ferry} {
		l, err := app.Plans.Ledger(t.Context(), load)
		require.NoError(t, err)
		found := false
		for _, r := range l.Rows {
			found = found || r.Channel.Receive == 446_100_000 && r.Channel.ReceiveTone.String() == "186.2"
		}
		assert.True(t, found, "the link is in load %d", load)
	}
	p.tabsOn("Open the run card")
	p.presses(kb.Enter)
	p.reads("main", "What must fail")
	p.reads("main", "Key, wait 0.9 s, then speak.")
	p.accessible()
	p.do(focus(".step input"))
	p.presses(" ")
	p.reads("main", "1 of")
	p.tabsOn("It was rehearsed")
	p.presses(kb.Enter)
	p.reads("main", "Rehearsed 25 Nov")
	assert.NotEmpty(t, p.relays().Rehearse)
	p.do(blur())
	p.presses("z", kb.ModifierCtrl)
	p.reads("main", "It was rehearsed, and worked")
	assert.Empty(t, p.relays().Rehearse)
}

// TestTwoRepeaters writes two repeaters: it is refused, drawn as the loop that it is, and
// what would end it is said; what the owners said makes it a warning.
func TestTwoRepeaters(t *testing.T) {
	p := sit(t, 1280, 900)
	p.reads("[role=grid]", "Marran Light")
	p.goes("/relay")
	p.mouse("Relay with Ferry")
	p.reads(".panel", "Orrin Moor through Ferry")
	for _, line := range []string{"blue moon", "77", "999999999", "-1", "446.1 446.2 446.3", `"`, "145.29 - - -"} {
		p.fills("#side-B", line)
		p.until("!document.querySelector('main').innerText.includes('undefined') && !document.querySelector('main').innerText.includes('NaN')")
	}
	p.fills("#side-A", "443.275 +5 ts 131.8 low")
	p.fills("#side-B", "147.03 + ts 94.8 low")
	p.reads(".panel", "Two repeaters make a loop")
	p.reads("main", "and so on")
	p.reads(".panel", "One way, Hollin Fell to Pell Light")
	p.misses(".panel", "Take both sides")
	p.accessible()
	p.do(focus("#side-B"))
	p.presses(kb.Enter)
	p.until("!document.querySelector('main').innerText.includes('Keep this')")
	p.fills("#consent", "ok")
	p.mouse("Keep this note")
	p.reads(".panel", "write who agreed, when, and how")
	p.fills("#consent", "QX1OWN and QX2OWN, on the phone, 20 Nov")
	p.mouse("Keep this note")
	p.misses(".panel", "to stop")
	assert.Equal(t, "QX1OWN and QX2OWN, on the phone, 20 Nov", p.relays().Row.Consent)
	p.mouse("Relay one way only")
	p.reads(".panel", "Two repeaters, one way")
}

// TestRelayByThumb chooses another link and reads the run card on a phone.
func TestRelayByThumb(t *testing.T) {
	p := sit(t, 390, 844)
	p.touchscreen()
	p.reads("[role=grid]", "Marran Light")
	p.goes("/relay")
	p.thumb("Relay with Ferry")
	p.reads(".panel", "Orrin Moor through Ferry")
	p.until("document.documentElement.scrollWidth <= 390")
	p.accessible()
	p.thumb("Open side B’s receiver")
	p.reads(".panel", "You would hear Orrin Moor")
	p.thumb("446.100")
	p.until("document.querySelector('#side-A').value.startsWith('446.1')")
	require.Eventually(t, func() bool { return p.relays().A.Reading.Channel.Receive == 446_100_000 }, waiting, tick, "the link is kept")
	p.thumb("Open the run card")
	p.reads("main", "Rehearsal, on a dummy load")
	p.until("document.documentElement.scrollWidth <= 390")
	p.accessible()
	_, err := p.another().Plans.Undo(t.Context(), demotest.Ferry, plan.Latest, false)
	require.NoError(t, err)
}
