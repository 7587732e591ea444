package e2e

import (
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// around is a small listing near 41.02 north, 55.31 west.
const around = `Output,Shift,Tone,Call,City,Lat,Lon
147.255,+,100.0,QX1FT,Fern Top,41.03,-55.30
146.655,-,88.5,QX1LQ,Low Quay,41.05,-55.25
444.500,+,146.2,QX1OR,Odd Rock,41.10,-55.40
146.880,-,110.9,QX1WH,Wren Head,41.00,-55.33
443.275,+,131.8,QX1HF,Hollow Fell,41.08,-55.20
145.310,-,123.0,QX1GD,Gull Down,41.20,-55.10
`

// TestNewLicenseeByKeyboard is the first evening of somebody who has no licence
// yet: an empty folder, a listing, the five repeaters near by, a line of their
// own, and a sheet that leaves the transmitter locked. No mouse.
func TestNewLicenseeByKeyboard(t *testing.T) {
	p := begin(t, 1280, 800, nothing)
	p.reads("h1", "Where are you, and who?")
	p.do(focus("#place"))
	p.types("GN21ia")
	p.tabs("person")
	p.types("QX1NEW")
	p.until("document.activeElement.id === 'person'")
	p.tabs("permits")
	p.presses(kb.ArrowDown)
	p.presses(kb.ArrowDown)
	p.until("document.querySelector('input[value=none]').checked")
	p.presses(kb.Enter)
	p.reads("form", "choose the radio that is nearest to yours")
	p.tabs("radio")
	p.presses(" ")
	for range 60 {
		if ask[bool](p, "document.querySelector('input[value=trail]').checked") {
			break
		}
		p.presses(kb.ArrowDown)
	}
	p.presses(kb.Enter)
	p.sees("#entry")
	p.reads("body", "No listing is here yet. Import one")

	p.presses("1", kb.ModifierAlt)
	p.reads("main h1", "Find")
	p.presses("i", kb.ModifierCtrl)
	p.sees("[role=dialog] textarea")
	p.fills("[role=dialog] textarea", around)
	p.runsButton("Read the text")
	p.sees("[role=dialog] table")
	p.runsButton("Import the readable rows")
	p.reads("[role=dialog]", "6 rows imported")
	p.presses(kb.Escape)
	p.until("document.querySelector('[role=dialog]') === null")
	p.presses("2", kb.ModifierAlt)
	p.reads("h2", "The 5 repeaters nearest to you")
	p.accessible()
	p.runsButton("Add all 5 to the plan")
	p.reads("#slot-1", "Fern Top")
	p.reads("#slot-5", "Odd Rock")

	p.types("145.31 -600 123 Gull")
	p.reads("section", "Store in slot 6")
	p.reads("#evidence h2", "Gull") // the panel speaks of the line
	p.reads("#evidence", "It would hear you")
	p.presses(kb.Enter)
	p.reads("#slot-6", "Gull")
	p.presses("z", kb.ModifierCtrl) // from the empty line
	p.reads("#slot-6", "empty")
	p.presses("z", kb.ModifierCtrl, kb.ModifierShift)
	p.reads("#slot-6", "Gull")
	p.presses(kb.Enter, kb.ModifierCtrl)
	p.reads("main", "No licence yet")
	people, err := p.store.People(t.Context())
	require.NoError(t, err)
	assert.True(t, people[0].Unlicensed)
}

// TestClubLeaderByMouse makes the season's plan for several radios, two of them
// of one kind, and puts the old one away. Nothing but the mouse, but for names.
func TestClubLeaderByMouse(t *testing.T) {
	p := sit(t, 1280, 800)
	p.mouse("Radio: Trail")
	p.mouse("Radios of this plan…")
	p.mouse("Add a radio")
	p.fills("#unit-name", "Trail of the hut")
	p.mouse("Add it to the plan")
	p.reads("header", "Trail of the hut")
	p.reads("[role=dialog]", "Trail of the hut")
	p.accessible()
	p.mouse("Rename Ferry")
	p.fills("#unit-name", "Van")
	p.mouse("Save")
	p.reads("[role=dialog]", "Van")
	p.mouse("Close")
	p.reads("[role=columnheader]", "Van")

	// Every radio beside the slots; what is missing is added with a click.
	p.mouse("Radio: Trail of the hut")
	p.mouse("Trail handheld, 1–200")
	p.reads("h2", "Trail, 24 of 200 slots used")
	p.reads("#slot-6", "add")
	p.do(clickCell("#slot-6", "\"2\""))
	p.mouse("Add it to Van")
	p.reads("[role=status]", "Added to Van")
	p.misses("#slot-6 [data-column=\"2\"]", "add")
	p.reads("[aria-label='Not in Trail']", "Petrel Head 52.810 −0.500 146.2Hz to open cannot")
	p.mouse("Add Rook Hey to Trail")
	p.reads("#slots", "Rook Hey")

	// A line for three radios at once.
	p.types("146.565 Hut")
	p.reads("fieldset", "also goes into")
	p.mouse("Van")
	p.mouse("Trail of the hut")
	p.reads("fieldset", "Van 4")
	p.mouse("Store in slot 4 of 3 radios")
	p.reads("[role=status]", "Stored in slot 4, and in 2 other radios")
	p.reads("#slot-4", "Hut")

	// A new plan for the season; what is wrong with it is said, and nothing typed is lost.
	p.mouse("Plan: Three Lights Walk, invented")
	p.mouse("New plan…")
	p.accessible()
	p.fills("#plan-name", "Season")
	p.fills("#plan-place", "nowhere")
	p.mouse("Open the plan")
	p.reads("[role=dialog]", "Check the marked fields.")
	p.until("document.querySelector('#plan-name').value === 'Season'")
	p.fills("#plan-place", "GN21ia")
	p.mouse("Open the plan")
	p.reads("header", "Season")
	p.until("document.querySelector('[role=dialog]') === null")
	p.presses("/")
	p.types("146.565 Hut")
	p.reads("section", "Store in slot 1")
	p.presses(kb.Enter)
	p.reads("#slot-1", "Hut")

	// Next season's is a copy of it; the demonstration is put away, removed, and brought back.
	p.mouse("Plan: Season")
	p.mouse("Rename, duplicate, archive…")
	p.accessible()
	p.mouse("Duplicate Season")
	p.reads("header", "Season 2")
	p.reads("#slot-1", "Hut")
	p.mouse("Plan: Season 2")
	p.mouse("Rename, duplicate, archive…")
	p.mouse("Rename Season 2")
	p.fills("#plan-name", "Winter")
	p.fills("#plan-season", "hill days")
	p.mouse("Save")
	p.reads("[role=dialog]", "open, hill days")
	p.mouse("Archive Three Lights Walk")
	p.reads("[role=dialog] h3", "Archived")
	p.mouse("Remove Three Lights Walk")
	p.misses("[role=dialog]", "Three Lights Walk")
	p.mouse("Close")
	p.reads("header", "Winter")
	p.until("document.querySelector('button[aria-label=Undo]').title.includes('remove the plan Three Lights Walk')")
	p.mouse("Undo")
	p.reads("[role=status]", "Undone: remove the plan Three Lights Walk")
	plans, err := p.store.Plans(t.Context())
	require.NoError(t, err)
	assert.Len(t, plans, 3)
	p.presses(kb.PageUp, kb.ModifierAlt) // one key back
	p.reads("header", "Season")
}

// TestTravellerByThumb is somebody with a phone at night: the demonstration, what
// is around, one more channel, what it would send, in the dark.
func TestTravellerByThumb(t *testing.T) {
	p := begin(t, 390, 844, nothing)
	p.touchscreen()
	p.stands(41.0208, -55.2917)
	p.reads("header", "A new folder")
	p.until("document.documentElement.scrollWidth <= 390")
	p.thumb("Open the demonstration")
	p.reads("header", "Three Lights Walk")
	p.thumb("more")
	p.thumb("Theme: day")
	p.until("document.documentElement.dataset.theme === 'night'")

	// A row opens where it stands, with what it sends and its sheet.
	p.do(click("#slot-7"))
	p.reads(".opened", "It would not hear you")
	p.reads("#slot-7", "146.340")
	p.accessible()
	p.thumb("Send 88.5 Hz")
	p.reads(".opened", "It would hear you")
	p.thumb("Keypad sheet")
	p.reads("main h1, main h2", "Marran Light")
	p.until("document.documentElement.scrollWidth <= 390")
	p.thumb("Back to the plan")

	// Found by a part of its name, of the slots and of the listings.
	p.fills("#seek", "pell")
	p.until("document.querySelectorAll('#slots [role=row][id]').length === 1")
	p.do(click("#slot-8"))
	p.reads(".opened h2", "Pell Light")
	p.fills("#seek", "")
	p.thumb("Find")
	p.reads("main h1", "Find")
	p.thumb("words")
	p.thumb("70cm: 70 cm")
	p.until("document.querySelector('#find-line').value === '70cm'")
	p.thumb("words")
	p.fills("#find-line", "herring")
	p.until("document.querySelectorAll('[aria-label=Repeaters] > li').length === 1")
	p.reads("[aria-label=Repeaters]", "Herring Gate")
	p.thumb("Herring Gate")
	p.reads(".opened h2", "Herring Gate") // it opens where it stands
	p.reads(".opened", "It would hear you")
	p.reads(".opened", "449.875")
	p.accessible()
	p.thumb("Add to slot 4")
	p.reads("[role=status]", "In Trail, slot 4")

	// Where the device is, when asked.
	p.thumb("More")
	p.thumb("Settings")
	p.sees("#place")
	p.fills("#place", "41.5, -55.9")
	p.reads("[role=status]", "Saved.")
	p.thumb("Use the position of this device")
	p.until("document.querySelector('#place').value.startsWith('41.0208')")
	for path, shows := range map[string]string{"/": "Marran Light", "/find": "Quay House", "/radios": "as they are", "/settings": "usual shifts"} {
		p.goes(path)
		p.reads("main", shows)
		p.until("document.documentElement.scrollWidth <= 390")
	}
}

// tabs goes on with the Tab key until a field has the focus.
func (p *person) tabs(name string) {
	p.t.Helper()
	for range 30 {
		if ask[bool](p, "[document.activeElement.id, document.activeElement.name].includes("+quote(name)+")") {
			return
		}
		p.presses(kb.Tab)
	}
	require.Fail(p.t, "the Tab key does not reach "+name)
}

// runsButton goes with the Tab key to the button that says a text, and presses it.
func (p *person) runsButton(text string) {
	p.t.Helper()
	p.until("[...document.querySelectorAll('button')].some((b) => !b.disabled && b.innerText.includes(" + quote(text) + "))")
	for range 80 {
		if ask[bool](p, "document.activeElement.tagName === 'BUTTON' && document.activeElement.innerText.includes("+quote(text)+")") {
			p.presses(kb.Enter)
			return
		}
		p.presses(kb.Tab)
	}
	require.Fail(p.t, "the Tab key does not reach "+text)
}
