package e2e

import (
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/demo/demotest"
	"mnemos/internal/listen"
)

// hears is what the application reckons now of the goal of the first radio.
func (p *person) hears() *listen.Report {
	p.t.Helper()
	r, err := p.another().Scans.Report(p.t.Context(), demotest.Trail, listen.Ask{Slot: -1})
	require.NoError(p.t, err)
	return r
}

// TestListenByKeys says what is wanted, makes the change that reaches it, takes it back,
// leaves channels out, times the radio and notes what is heard, by keyboard alone.
func TestListenByKeys(t *testing.T) {
	p := sit(t, 1280, 800)
	p.reads("[role=grid]", "Marran Light")
	p.presses("3", kb.ModifierAlt)
	p.reads("main", "Trail hears")
	p.accessible()
	p.presses("/")
	p.until("document.activeElement.id === 'goal'")
	ask[any](p, "document.activeElement.select()")
	p.types("blue moon")
	p.reads("#goal-says", "Write how many")
	ask[any](p, "document.activeElement.select()")
	p.types("95% of 4 s overs on marran")
	p.reads("main", "smallest change that reaches it")
	p.reads(".panel h2", "Marran Light")
	p.presses(kb.Enter)
	p.reads("[role=status], .toast, body", "Keep what Trail should hear")
	was := p.hears()
	assert.Equal(t, 7, was.Goal.Slot)
	require.NotNil(t, was.Best)
	p.presses("=")
	p.reads("main", "That is what you want")
	assert.True(t, p.hears().Reached)
	p.presses("z", kb.ModifierCtrl)
	p.reads("main", "smallest change that reaches it")
	assert.False(t, p.hears().Reached)

	// In the rows: arrows choose, the space bar leaves out and puts back.
	p.do(focus("#scan-5"))
	p.presses(kb.ArrowDown)
	p.until("document.activeElement.id === 'scan-6'")
	p.reads(".panel h2", "Gannet Down")
	p.presses(" ")
	p.reads("#scan-6", "left out")
	p.presses(" ")
	p.misses("#scan-6", "left out")
	p.presses("p", kb.ModifierAlt)
	p.reads("main", "every second look at Gannet Down")
	p.presses("z", kb.ModifierCtrl)
	p.misses("main", "every second look")

	p.presses("r", kb.ModifierAlt)
	p.until("document.activeElement.id === 'timed-channels'")
	p.types("30")
	p.presses(kb.Tab)
	p.types("7,5")
	p.reads("#scan-setup", "4.0 a second")
	p.accessible()
	p.presses(kb.Enter)
	p.reads("main", "4.0 a second, timed")
	assert.True(t, p.hears().Rate.Timed)

	p.do(focus("#scan-8"))
	p.reads(".panel h2", "Pell Light")
	heard := func() int {
		d, err := p.another().Scans.Diary(t.Context(), demotest.Trail, 8)
		require.NoError(t, err)
		return d.Heard
	}
	before := heard()
	p.presses("h", kb.ModifierAlt)
	p.reads("[aria-label=Diary]", "1 noted")
	assert.Equal(t, before+1, heard())
	p.runs("Step scan")
	p.reads("[aria-label='Step scan']", "steps,")
	p.accessible()
}

// TestListenByThumb does the same on a phone, and taps what is heard while nobody answers:
// it is told as soon as somebody does.
func TestListenByThumb(t *testing.T) {
	p := sit(t, 390, 844)
	p.touchscreen()
	p.reads("[role=grid]", "Marran Light")
	p.presses("t", kb.ModifierAlt) // night
	p.thumb("Listen")
	p.reads("main", "Trail hears")
	p.until("document.documentElement.scrollWidth <= 390")
	p.accessible()
	p.thumb("7 MARRAN")
	p.reads(".panel h2", "Marran Light")
	p.thumb("Leave it out")
	p.reads("#scan-7", "left out")
	p.thumb("Scan it")
	p.misses("#scan-7", "left out")
	p.thumb("stays 5 s")
	p.thumb("when the signal has gone")
	p.thumb("Set")
	p.reads("main", "stays while it lasts")
	p.until("document.querySelector('.said.shown') === null")
	p.thumb("On the other side: nothing")
	p.thumb("12 Tern Stack")
	p.reads("[aria-label='The two sides']", "the shift is +600 kHz")
	p.until("document.documentElement.scrollWidth <= 390")
	p.accessible()

	heard := func() int {
		d, err := p.another().Scans.Diary(t.Context(), demotest.Trail, 7)
		require.NoError(t, err)
		return d.Heard
	}
	before := heard()
	p.lose()
	p.wire.set(func(w *wire) { w.gone = true })
	p.thumb("Heard now")
	assert.Equal(t, before, heard())
	p.wire.set(func(w *wire) { w.gone = false })
	for range 100 {
		if heard() == before+1 {
			break
		}
		ask[any](p, "new Promise((r) => setTimeout(r, 100))")
	}
	assert.Equal(t, before+1, heard(), "told once somebody listened")
}

// TestListenByMouse chooses an hour of the diary, and a radio with priority.
func TestListenByMouse(t *testing.T) {
	p := sit(t, 1280, 900)
	p.goes("/listen")
	p.mouse("Saturday 21:00")
	p.reads("main", "Half a minute, Saturday 21:00")
	p.mouse("with it")
	p.until("document.querySelector('.switch [aria-pressed=true]').innerText === 'with it'")
	p.mouse("why")
	p.reads("main", "a look")
	p.mouse("going on")
	p.reads("[aria-label='How the scan goes on']", "stays until the signal has gone")
	p.accessible()
	p.mouse("diary")
	p.sees("#talk-rate")
	p.do(focus("#talk-rate"))
	p.types("4000")
	p.mouse("Say so")
	p.reads(".panel", "up to 3600")
}
