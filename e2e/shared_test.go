package e2e

import (
	"testing"

	"mnemos/internal/plan"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestSomebodyElse lets another window change the plan meanwhile: the page
// refuses its own change, shows the plan as it is, and loses nothing typed.
func TestSomebodyElse(t *testing.T) {
	p := sit(t, 1280, 800)
	other := p.another()
	name := "Other"
	_, err := other.Plans.Update(t.Context(), 1, 8, plan.Update{Name: &name, Revision: p.revision()})
	require.NoError(t, err)

	p.presses("/")
	p.types("146.55 Mine")
	p.reads("section", "Store in slot 4")
	p.presses(kb.Enter)
	p.reads("#slot-4", "Mine") // another slot is in nobody's way
	p.reads("#slot-8", "Other")

	name = "Theirs"
	_, err = other.Plans.Update(t.Context(), 1, 4, plan.Update{Name: &name, Revision: p.revision()})
	require.NoError(t, err)
	p.do(focus("#slot-4"))
	p.reads("#evidence h2", "Mine")
	p.presses(kb.Delete)
	p.reads("#say", "slot 4 was changed since: short name is THEIRS now and was MINE")
	p.reads("#slot-4", "Theirs")

	p.presses("/")
	p.types("146.58 Late")
	p.reads("section", "Store in slot 10")
	_, err = other.Plans.Store(t.Context(), 1, plan.Save{Line: "146.565 First #10", Revision: p.revision()})
	require.NoError(t, err)
	p.presses(kb.Enter)
	p.reads("#say", `slot 10 holds "First" by now`)
	p.reads("#slot-10", "First")
	p.until(`document.querySelector('#entry').value === '146.58 Late'`)
	p.reads("section", "Store in slot 11")
	p.presses(kb.Enter)
	p.reads("#slot-11", "Late")
}

// TestFirstFix makes sure that the key for the first fix acts on the slot that is
// chosen, even right after choosing it.
func TestFirstFix(t *testing.T) {
	p := sit(t, 1280, 800)
	p.do(focus("#slot-7"))
	p.reads("#evidence h2", "Marran Light")
	p.do(focus("#slot-8"))
	p.presses("=")
	p.reads("#evidence h2", "Pell Light")
	p.reads("#slot-7", "conflict")
	p.reads("#slot-8", "94.8")
	p.do(focus("#slot-18"))
	p.reads("#evidence", "You would hear nothing")
	p.presses(".", kb.ModifierCtrl)
	p.reads("[role=dialog]", "Fixes for slot 18")
	p.presses("1")
	p.reads("#slot-18", "open")
	p.reads("#slot-18", "agrees")
}

// TestSettings steps through the settings that have a few values, in the panel
// beside other radios and in the cells where there is one radio alone.
func TestSettings(t *testing.T) {
	p := sit(t, 1280, 800)
	p.do(focus("#slot-5"))
	p.reads("#evidence h2", "Long Ridge")
	p.do(clickText("high, 5 W"))
	p.reads("#evidence", "mid, 2.5 W")
	p.do(click(`#evidence [aria-label^="scan:"]`))
	p.reads("#evidence", "scan skip")
	for _, load := range []int64{2, 3} {
		_, err := p.another().Plans.DropUnit(t.Context(), load, 1<<40)
		require.NoError(t, err)
	}
	p.reloads()
	p.reads("#slot-5", "2.5 W")
	p.do(click("#slot-5 [data-column=scan]"))
	p.presses(kb.Enter)
	p.reads("#slot-5", "priority")
	p.do(clickText("2 conflict"))
	p.misses("[role=grid]", "Long Ridge")
	p.do(clickText("2 conflict"))
	p.reads("[role=grid]", "Long Ridge")
}

// TestVacantSlot writes into a slot that was chosen in the ledger.
func TestVacantSlot(t *testing.T) {
	p := sit(t, 1280, 800)
	p.do(focus("#slot-10"))
	p.presses(kb.Enter)
	p.until(`document.activeElement.id === 'entry'`)
	p.types("146.58")
	p.reads("section", "Store in slot 10")
	p.presses(kb.Enter)
	p.reads("#slot-10", "146.580")
	p.types("146.565")
	p.reads("section", "Store in slot 4")
}

// TestRibbonByKeyboard chooses a channel on the ribbon.
func TestRibbonByKeyboard(t *testing.T) {
	p := sit(t, 1280, 800)
	p.sees(`g[aria-label^="slot 23,"]`)
	p.do(chromedp.Focus(chromedp.CSS(`g[aria-label^="slot 23,"]`)))
	p.presses(kb.Enter)
	p.reads("#evidence h2", "Holm Rigg")
	p.reads("#evidence", "Two listings of Holm Rigg disagree")
	assert.Equal(t, "true", ask[string](p, `document.querySelector('#slot-23').getAttribute('aria-selected')`))
	p.do(clickText("why"))
	p.reads("#evidence dl", "Lantern list of 2026-10-07: uplink tone 156.7")
	p.reads("#evidence dl", "listing-disagree; source: the published records")
}

// TestWrongAddress asks for a sheet of a slot that is empty.
func TestWrongAddress(t *testing.T) {
	p := sit(t, 1280, 800)
	p.do(chromedp.Navigate(p.url + "/keypad/1/4"))
	p.reads("[role=alert]", "slot 4 is empty")
	p.presses(kb.Escape)
	p.sees("#entry")
}
