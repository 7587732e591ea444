package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestOwnRadio makes a radio of one's own by keyboard: copy the nearest one, change
// it and see at once what the plan would lose, name a mistake, save, load the plan
// into it, and find it in the plan.
func TestOwnRadio(t *testing.T) {
	p := sit(t, 1280, 800)
	p.presses("9", kb.ModifierAlt)
	p.reads("main h1", "Trail")
	p.reads(".foot", "25 24 as they are, 1 in part")
	p.goes("/radios/gale")
	p.reads("main", "Copy it, and make the copy match the one in your hand")
	p.until("document.querySelector('#receive') === null") // a shipped profile is not edited
	p.accessible()

	p.runsButton("Copy to change")
	p.reads("[role=status]", "Copied")
	p.do(focus("#name"))
	p.clears()
	p.types("Loft radio")
	p.tabs("slots")
	p.clears()
	p.types("20")
	p.reads(".beside", "−8 no slot of that number")
	p.reads(".beside", "Skua Point")
	p.reads("[aria-label=Slots]", "8 channels depend on it")
	p.until(`document.querySelector('#name').value === 'Loft radio'`)
	p.reads("main button[disabled]", "Add to plan")

	// What is not saved is still there after another view was looked at.
	p.presses("2", kb.ModifierAlt)
	p.reads("[role=grid]", "Marran Light")
	p.presses("9", kb.ModifierAlt)
	p.reads("nav[aria-label=Radios]", "not saved yet")
	p.goes("/radios/own-my-gale")
	p.until("document.querySelector('#slots')?.value === '20'")

	// A mistake is named beside its value, and nothing typed is lost.
	p.runsButton("Show them")
	p.fills("#steps", "five")
	p.reads("#steps-fault", "five")
	p.presses("s", kb.ModifierCtrl)
	p.reads("[role=alert]", "five")
	p.until(`document.querySelector('#steps').value === 'five'`)
	p.fills("#steps", "5, 12,5, 25") // as half of the world writes it
	p.sees("#steps:not([aria-invalid=true])")
	p.fills("#slots", "1-99")
	p.misses(".beside", "no slot of that number")
	p.chooses("#dcs", "0")
	p.reads(".beside", "no tone for D023N")
	p.until("document.querySelector('input[aria-label=\"Checked on the radio: tones\"]') !== null")
	p.do(click(`input[aria-label="Checked on the radio: tones"]`))
	p.reads("main", "1 of 5 done")
	p.accessible()

	p.presses("s", kb.ModifierCtrl)
	p.reads("[role=status]", "Saved")
	p.reads("nav[aria-label=Radios]", "Loft radio")
	p.do(clickText("Add to plan"))
	p.reads("[role=status]", "In the plan, with 25 channels")
	p.misses("main button", "Delete")
	p.do(clickText("Remove from plan"))
	p.reads("[role=status]", "Out of the plan")
	p.reads("main button", "Delete")
	p.do(clickText("Add to plan"))
	p.reads("[role=status]", "In the plan, with 25 channels")
	p.presses("2", kb.ModifierAlt)
	p.reads("header", "Loft radio")
	p.reads("[role=grid]", "Marran Light")

	// One step back takes it out of the plan again, and then it can go.
	p.presses("z", kb.ModifierCtrl)
	p.misses("header", "Loft radio")
	p.goes("/radios/own-my-gale")
	p.reads("main h1", "Loft radio")
	p.do(clickText("Delete"))
	p.reads("[role=status]", "Loft radio is deleted")
	p.reads("main h1", "Trail")
	p.misses("nav[aria-label=Radios]", "Loft radio")
	p.do(clickText("Restore"))
	p.reads("nav[aria-label=Radios]", "Loft radio")
	p.runsButton("Show them")
	p.until(`document.querySelector('#steps').value === '5, 12.5, 25'`)
	p.reads("main", "1 of 5 done")
}

// TestRadioByMouse copies the nearest one, and loads the plan with those channels
// in other slots that have none of their number.
func TestRadioByMouse(t *testing.T) {
	p := sit(t, 1280, 800)
	p.goes("/radios/beck")
	p.reads("[aria-label=Bands]", "Turn to 442.100 MHz. If it goes there, it has 70 cm too")
	p.reads("[aria-label=Bands]", "5 channels depend on it")
	p.until("[...document.querySelectorAll('.beside .sum')].map((e) => e.innerText).join(' ') === '26 18 12 12 12 12'")
	p.mouse("Copy to change")
	p.reads("[role=status]", "Copied")
	p.reads("[aria-label=Shift]", "store the transmit side in slot")
	p.mouse("Add with 6 in 4, 10, 11, 13, 14, 17")
	p.reads("[role=status]", "In the plan, with 18 channels")
	p.mouse("Plan")
	p.reads("#slot-13", "Sallow Mill")
	p.presses("z", kb.ModifierCtrl)
	p.misses("header", "My Beck")
}

// TestBringProfile takes a profile from a file, after a bad one was refused.
func TestBringProfile(t *testing.T) {
	p := sit(t, 1280, 800)
	p.goes("/radios/skerry")
	p.until("document.querySelector('a[download]')?.href.includes('Skerry')")
	yaml := ask[string](p, "decodeURIComponent(document.querySelector('a[download]').href.split(',').slice(1).join(','))")
	require.Contains(t, yaml, "name: Skerry")
	file := filepath.Join(t.TempDir(), "mine.yaml")
	require.NoError(t, os.WriteFile(file, []byte(yaml), 0o600))

	p.do(clickText("Import a profile"))
	p.sees("[role=dialog] textarea")
	p.do(focus("[role=dialog] textarea"))
	p.types("name: Half")
	p.accessible()
	p.do(clickText("Import this profile"))
	p.sees("[role=dialog] [role=alert]")
	p.until(`document.querySelector('[role=dialog] textarea').value === 'name: Half'`)
	p.do(chromedp.SetUploadFiles(chromedp.CSS("[role=dialog] input[type=file]"), []string{file}))
	p.until(`document.querySelector('[role=dialog] textarea').value.includes('Skerry')`)
	p.do(clickText("Import this profile"))
	p.until("document.querySelector('[role=dialog]') === null")
	p.reads("[role=status]", "Imported")
	p.until("document.querySelector('#slots').tagName === 'INPUT'")
}

func TestRadiosPhone(t *testing.T) {
	p := sit(t, 390, 844)
	p.touchscreen()
	p.goes("/radios/cairn")
	p.reads("main h1", "Cairn")
	p.accessible()
	sides := "document.documentElement.scrollWidth > innerWidth"
	assert.False(t, ask[bool](p, sides), "nothing sticks out at the side")
	p.chooses(`main [aria-label^="radio:"]`, "moor")
	p.reads("main h1", "Moor")
	p.until("location.pathname === '/radios/moor'")
	p.thumb("Copy to change")
	p.reads("[role=status]", "Copied")
	p.fills("#receive", "136-174")
	p.reads("[aria-label=Bands]", "it has to receive where it transmits")
	p.fills("#transmit", "144-148")
	p.reads("[aria-label=Bands]", "18 go on")
	assert.False(t, ask[bool](p, sides), "nor then")
	p.accessible()
}

// TestSettingsView changes the circumstances and sees the plan judged anew.
func TestSettingsView(t *testing.T) {
	p := sit(t, 1280, 800)
	p.presses("0", kb.ModifierAlt)
	p.reads("main", "Federal Communications Commission")
	p.reads("table", "146.520")
	p.accessible()

	p.fills("#place", "somewhere")
	p.reads("#place-fault", "locator")
	p.until(`document.querySelector('#place').value === 'somewhere'`)
	p.fills("#place", "GN21ia")
	p.reads("[role=status]", "Saved")

	p.reads("main", "32 repeaters to talk through, 1 to ask about first")
	p.mouse("70 cm talk and listen")
	p.reads("[role=status]", "Saved")
	p.reads("main", "24 repeaters to talk through")
	p.until("document.querySelector('input[name=permits][value=some]').checked")
	p.presses("2", kb.ModifierAlt)
	p.sees("#slot-13")
	p.do(focus("#slot-13"))
	p.reads("#evidence", "licence")

	// A rule opens in place, with its source.
	p.do(chromedp.Evaluate[chromedp.Void](`[...document.querySelectorAll('#evidence button')].findLast((b) => b.innerText.trim() === 'why').click()`))
	p.reads("#evidence dl", "licence-band")
	p.do(clickText("licence-band"))
	p.reads("#evidence dl", "such as")
	p.accessible()

	// A region without a citable table corrects nothing.
	p.goes("/settings")
	p.chooses("#region", "r3")
	p.reads("section", "No table for this region can be cited")
	p.accessible()
	p.do(clickText("Undo"))
	p.reads("section", "United States")
	p.goes("/")
	p.reads("#slot-13", "Hollin Fell")
}
