package e2e

import (
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/store"
)

func nothing(*store.Store) error { return nil }

// TestFirstRun begins with an empty folder, by keyboard: what is wrong is said
// beside each answer and nothing typed is lost; then the line is ready.
func TestFirstRun(t *testing.T) {
	p := begin(t, 1280, 800, nothing)
	p.reads("h1", "Where are you, and who?")
	p.accessible()
	p.do(focus("#place"))
	p.types("somewhere")
	p.presses(kb.Enter)
	p.reads("form", "write a name or callsign")
	p.reads("[role=status]", "Check the marked fields")
	p.until(`document.querySelector('#place').value === 'somewhere'`)
	p.fills("#place", "GN21ia")
	p.fills("#person", "QX1AA")
	p.fills("#plan", "Season")
	p.do(click("input[value=some]"))
	p.presses(kb.Enter)
	p.reads("[role=alert]", "Choose a band")
	for _, band := range []string{"2 m", "70 cm"} {
		p.do(clickText(band + " listen"))
	}
	p.do(click("input[value=trail]"))
	p.presses(kb.Enter)
	p.sees("#entry")
	p.reads("header", "Season")
	p.presses("/")
	p.types("146.52 Calling")
	p.reads("section", "Store in slot 1")
	p.presses(kb.Enter)
	p.reads("#slot-1", "Calling")
	people, err := p.store.People(t.Context())
	require.NoError(t, err)
	require.Len(t, people, 1)
	assert.Equal(t, "QX1AA", people[0].Name)
	assert.Equal(t, store.Strings{"2 m", "70 cm"}, people[0].Bands)
	p.reloads()
	p.reads("#slot-1", "Calling")
}

// TestFirstDemonstration opens the demonstration beside an empty plan, on a
// phone.
func TestFirstDemonstration(t *testing.T) {
	p := begin(t, 390, 844, nothing)
	p.reads("header", "A new folder")
	p.until(`document.documentElement.scrollWidth <= 390`)
	p.do(clickText("Open the demonstration"))
	p.reads("header", "Three Lights Walk")
	p.reads("header", "invented")
	plans, err := p.store.Plans(t.Context())
	require.NoError(t, err)
	assert.Len(t, plans, 2)
}
