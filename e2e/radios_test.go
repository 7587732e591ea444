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

// TestOwnRadio makes a radio of one's own by keyboard: copy a shipped one,
// change it and see at once what the plan would lose, name a mistake, save,
// load the plan into it, and find it in the plan.
func TestOwnRadio(t *testing.T) {
	p := sit(t, 1280, 800)
	p.presses("9", kb.ModifierAlt)
	p.reads("main h1", "Trail")
	p.reads("section", "24 as they are, 1 in part, 1 not at all")
	p.goes("/radios/gale")
	p.reads("main", "Copy it, and make the copy match the one in your hand")
	assert.True(t, ask[bool](p, "document.querySelector('#slots').tagName === 'P'"), "a shipped profile is not edited")
	p.accessible()

	p.do(clickText("Copy"))
	p.reads("[role=status]", "Copied")
	p.fills("#name", "Loft radio")
	p.fills("#slots", "20")
	p.reads("section", "the slot: it has no 30")
	p.until(`document.querySelector('#name').value === 'Loft radio'`)
	p.reads("main button[disabled]", "Add to plan")

	// A mistake is named beside its field, and nothing typed is lost.
	p.fills("#steps", "five")
	p.reads("#steps-fault", "five")
	p.presses("s", kb.ModifierCtrl)
	p.reads("[role=alert]", "five")
	p.until(`document.querySelector('#steps').value === 'five'`)
	p.fills("#steps", "5, 12.5, 25")
	p.sees("#steps:not([aria-invalid=true])")
	p.fills("#slots", "1-99")
	p.misses("section", "the slot: it has no 30")
	p.chooses("#dcs", "0")
	p.reads("section", "D023N: holds no tone")
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
	p.until(`document.querySelector('#steps').value === '5, 12.5, 25'`)
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
	p.goes("/radios/cairn")
	p.reads("main h1", "Cairn")
	p.accessible()
	assert.False(t, ask[bool](p, "document.documentElement.scrollWidth > innerWidth"), "nothing sticks out at the side")
	p.chooses(`main [aria-label^="radio:"]`, "moor")
	p.reads("main h1", "Moor")
	p.until("location.pathname === '/radios/moor'")
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

	p.do(chromedp.Evaluate[chromedp.Void](`[...document.querySelectorAll('label')].find((l) => l.innerText.trim() === '2 m').click()`))
	p.reads("[role=status]", "Saved")
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
