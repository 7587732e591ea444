package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/evidence"
	"mnemos/internal/beaconing"
	"mnemos/internal/demo/demotest"
)

// station is the APRS station as the application holds it.
func (p *person) station() *beaconing.View {
	p.t.Helper()
	v, err := p.another().Beacons.Look(p.t.Context(), demotest.Trail)
	require.NoError(p.t, err)
	return v
}

// TestBeaconByKeys mends the station of the demonstration by keyboard: it floods, and does
// not any more; the frame is read field by field; to space and back, with the list of what
// to put back.
func TestBeaconByKeys(t *testing.T) {
	p := sit(t, 1280, 900)
	p.reads("[role=grid]", "Marran Light")
	p.presses("5", kb.ModifierAlt)
	p.reads("main", "840.8 ms")
	p.reads(".panel", "12 stations set like this flood the channel")
	p.accessible()
	p.do(focus("[aria-label^='Fields of the frame']"))
	p.presses(kb.ArrowRight)
	p.reads("main", "the software that made the frame")
	p.presses(kb.ArrowRight)
	p.reads("main", "your callsign, six letters")
	p.do(blur())
	p.presses("=")
	p.misses(".panel", "flood the channel")
	assert.True(t, p.station().Station.Smart)
	p.fills("[aria-label='words']", "EMERGENCY")
	p.presses(kb.Tab)
	p.reads(".panel", "It would call an emergency")
	assert.Equal(t, evidence.Stop, p.station().Verdict)
	p.do(blur())
	p.presses("=")
	p.misses(".panel", "call an emergency")
	p.tabsOn("mic-e")
	p.presses(kb.Enter)
	p.reads("main", "latitude in the address")
	p.do(blur())
	p.presses("z", kb.ModifierCtrl)
	p.misses("main", "latitude in the address")
	p.tabsOn("to space")
	p.presses(kb.Enter)
	p.reads(".panel", "In space: what goes back afterwards")
	p.reads(".panel", "145.825")
	p.accessible()
	p.tabsOn("back to the ground")
	p.presses(kb.Enter)
	p.reads(".panel", "The list stays until each line was seen")
	assert.Equal(t, "WIDE1-1,WIDE2-1", p.station().Station.Path)
	p.goes("/log")
	p.reads("main .lines", "Beacon of Trail 145.825 to space")
	p.reads("main .lines", "path: WIDE1-1,WIDE2-1 → ARISS")
	p.accessible()
}

// TestBeaconByMouse chooses a symbol by words and drives a track; nothing of the
// demonstration is to be copied.
func TestBeaconByMouse(t *testing.T) {
	p := sit(t, 1280, 900)
	p.reads("[role=grid]", "Marran Light")
	p.goes("/beacon")
	p.reads("main", "It is the demonstration")
	p.misses("main", "Copy as text")
	p.mouse("/[")
	p.fills("#symbol-find", "bicy")
	p.accessible()
	p.until("document.querySelectorAll('[role=dialog] li').length === 1")
	p.do(click("[role=dialog] li button"))
	p.reads("main", "/b")
	assert.Equal(t, "/b", p.station().Station.Symbol)
	p.mouse("or the walk of the demonstration")
	p.reads("main", "6.1 km in 1:5")
	p.accessible()
	file := filepath.Join(t.TempDir(), "moon.gpx")
	require.NoError(t, os.WriteFile(file, []byte("blue moon"), 0o600))
	p.do(chromedp.SetUploadFiles("main input[type=file]", []string{file}))
	p.reads("main", "no track of two points")
	for _, words := range []string{"Grüße", "a|b", "146.550MHz T100", "147.42", "xxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxx"} {
		p.fills("[aria-label='words']", words)
		p.presses(kb.Tab)
		p.until("!document.querySelector('body').innerText.includes('NaN') && !document.querySelector('body').innerText.includes('undefined')")
	}
	p.reads(".panel", "and a position holds 43")
	p.mouse("6 often forgotten")
	p.reads(".panel", "queue emptied before the modem is on")
}

// TestBeaconByThumb reads the frame on a phone and ticks the pre-flight.
func TestBeaconByThumb(t *testing.T) {
	p := sit(t, 390, 844)
	p.touchscreen()
	p.reads("[role=grid]", "Marran Light")
	p.goes("/beacon")
	p.reads("main", "840.8 ms")
	p.until("document.documentElement.scrollWidth <= 390")
	p.accessible()
	p.thumb("Walk team 2")
	p.reads("main", "free text")
	p.thumb("modem on")
	p.until("document.querySelector('.check input').checked")
	require.Eventually(t, func() bool { return len(p.station().Station.Ticks) == 1 }, waiting, tick, "the tick is kept")
	p.thumb("vehicle")
	p.reads("main", "QX2AML-9")
}
