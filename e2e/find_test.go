package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestFindByKeyboard looks for a repeater, reads what each listing says of it,
// and takes two into the plan, without a mouse.
func TestFindByKeyboard(t *testing.T) {
	p := sit(t, 1280, 800)
	p.presses("1", kb.ModifierAlt)
	p.reads("[role=option]", "Quay House")
	p.accessible()
	p.presses("/")
	p.types("holm")
	p.until("document.querySelectorAll('[role=option]').length === 1")
	p.presses(kb.Enter)
	p.until("document.activeElement.getAttribute('role') === 'option'")
	p.reads("section", "Holm Rigg")
	p.reads("section table", "110.9 Hz")
	p.reads("section table", "differs")
	p.reads("section", "check on the air, or ask the owner")
	p.accessible()
	p.do(click(`button[aria-label="Use this value: Lantern list: uplink tone 156.7 Hz"]`))
	p.reads("[role=status]", "it applies until a newer edition")
	p.reads("section table", "as Lantern list has it")
	p.do(click(`button[aria-label="correct access"]`))
	p.fills(`input[aria-label="access, as you know it"]`, "sometimes")
	p.do(clickText("Save"))
	p.reads("[role=alert]", "write one of")
	p.fills(`input[aria-label="access, as you know it"]`, "closed")
	p.fills(`input[aria-label="how you know"]`, "asked the owner")
	p.do(clickText("Save"))
	p.reads("section table", "asked the owner")
	p.reads("[role=option]", "for members")
	p.accessible()
	p.do(click(`button[aria-label="Undo the correction of access"]`))
	p.misses("[role=option]", "for members")
	p.do(blur())

	// Two at once, in the next vacant slots.
	p.do(focus("input[aria-label=Search]"))
	p.clears()
	p.types("beacon")
	p.reads("[role=option]", "Beacon Hill")
	p.until("document.querySelectorAll('[role=option]').length === 1")
	p.presses(kb.Enter)
	p.until("document.activeElement.innerText.includes('Beacon Hill')")
	p.presses(" ")
	p.reads("[role=option]", "picked")
	p.do(focus("input[aria-label=Search]"))
	p.clears()
	p.types("herring")
	p.until("document.querySelectorAll('[role=option]').length === 1")
	p.presses(kb.Enter)
	p.until("document.activeElement.innerText.includes('Herring Gate')")
	p.presses(" ")
	p.do(focus("input[aria-label=Search]"))
	p.clears()
	p.reads("[role=option]", "Quay House")
	p.do(blur())
	p.reads("main button", "Add 2 to Trail")
	p.presses(kb.Enter, kb.ModifierCtrl)
	p.reads("[role=status]", "In Trail, slot 4, 10")
	p.presses("2", kb.ModifierAlt)
	p.reads("#slot-4", "Herring Gate") // the nearer first
	p.reads("#slot-10", "Beacon Hill")
	p.presses("z", kb.ModifierCtrl)
	p.reads("#slot-4", "empty")
	p.reads("#slot-10", "empty")
}

// TestFindNarrows ticks what narrows the search, and says why a repeater is
// not for everybody.
func TestFindNarrows(t *testing.T) {
	p := sit(t, 1280, 800)
	p.goes("/find")
	p.reads("[role=option]", "Quay House")
	p.misses("[role=option]", "Kettle Bay") // digital only
	tick := func(label string) {
		p.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf("[...document.querySelectorAll('fieldset label')].find((l) => l.innerText.includes(%s)).click()", quote(label))))
	}
	tick("digital too")
	p.reads("[role=option]", "Kettle Bay")
	p.reads("[role=option]", "digital only: an FM radio hears noise")
	p.reads("[role=option]", "for members: ask the owner")
	tick("open to all")
	p.misses("[role=option]", "for members")
	tick("not in my plan")
	p.misses("[role=option]", "slot ")
	p.chooses(`form [aria-label^="band:"]`, "70 cm")
	p.misses("[role=option]", "145.270")
	p.do(focus("input[aria-label=Search]"))
	p.types("nothing like this")
	p.reads("main", "Nothing published here matches")
	p.accessible()
}

// TestBringByHand brings a table in with a column that was guessed wrong,
// mends a row, joins and parts statements, and removes the listing.
func TestBringByHand(t *testing.T) {
	p := sit(t, 1280, 800)
	p.goes("/find")
	p.reads("[role=option]", "Quay House")
	file := filepath.Join(t.TempDir(), "club.csv")
	require.NoError(t, os.WriteFile(file, []byte("Output;Shift;PL;Town;Latitude;Longitude\n147,255;+;100,0;Fern Top;41,05;-55,20\n146,655;-;CSQ;Low Quay;41,00;-55,30\n146,715;-;loud;Odd Rock;41,01;-55,31\n"), 0o600))
	p.presses("i", kb.ModifierCtrl)
	p.sees("[role=dialog] input[type=file]")
	p.accessible()
	p.do(chromedp.SetUploadFiles(chromedp.CSS("[role=dialog] input[type=file]"), []string{file}))
	p.reads("[role=dialog]", "Of the first 3 rows 2 can be read, 1 cannot")
	p.reads("[role=dialog]", `"loud" is not a tone`)
	p.accessible()
	p.chooses(`[role=dialog] [aria-label^="PL is"]`, "")
	p.reads("[role=dialog]", "Of the first 3 rows 3 can be read")
	p.chooses(`[role=dialog] [aria-label^="PL is"]`, "uplink_tone")
	p.reads("[role=dialog]", "1 cannot")
	p.do(clickText("Import the readable rows"))
	p.reads("[role=dialog]", "club is imported. 2 rows imported, 1 could not be read")
	p.accessible()
	p.do(clickText("Correct the rows that could not be read"))
	p.reads("[role=dialog]", "Rows of club that could not be read")
	p.do(clickText("Close"))
	p.reads("[role=option]", "Fern Top")

	p.do(clickText("1 row could not be read"))
	p.reads("[role=dialog]", `"loud" is not a tone`)
	p.fills(`[role=dialog] input[aria-label="PL, line 4"]`, "louder")
	p.do(focus(`[role=dialog] input[aria-label="PL, line 4"]`))
	p.presses(kb.Enter)
	p.reads("[role=dialog]", `"louder" is not a tone`)
	p.until(`document.activeElement.getAttribute('aria-label') === 'PL, line 4'`)
	p.accessible()
	if f := os.Getenv("SHOT"); f != "" {
		p.shot(f + "r.png")
	}
	p.do(clickText("Discard"))
	p.reads("[role=dialog]", "Every row is in the listing.")
	p.do(clickText("1 discarded"))
	p.do(clickText("Take back"))
	p.do(clickText("Back to the others"))
	p.fills(`[role=dialog] input[aria-label="PL, line 4"]`, "88.5")
	p.do(focus(`[role=dialog] input[aria-label="PL, line 4"]`))
	p.presses(kb.Enter)
	p.reads("[role=dialog] [role=status]", "Odd Rock is in the listing.")
	p.do(clickText("Close"))
	p.reads("[role=option]", "Odd Rock")

	// Quay House stands in one listing, Fern Top in another: somebody says that
	// they are one, and takes it back.
	p.reads("[role=option]", "Low Haven")
	p.do(clickOption("Low Haven"))
	p.reads("section", "Low Haven")
	n := ask[int](p, "document.querySelectorAll('[role=option]').length")
	p.do(clickText("Not the same repeater"))
	p.reads("[role=status]", "Split")
	p.until(fmt.Sprintf("document.querySelectorAll('[role=option]').length === %d", n+1))
	p.do(chromedp.Evaluate[chromedp.Void]("[...document.querySelectorAll('[role=option]')].filter((o) => o.innerText.includes('Low Haven')).forEach((o) => o.dispatchEvent(new MouseEvent('dblclick', {bubbles: true})))"))
	p.do(clickText("One repeater"))
	p.reads("[role=status]", "Joined")
	p.until(fmt.Sprintf("document.querySelectorAll('[role=option]').length === %d", n))

	p.do(click(`button[aria-label="Remove club"]`))
	p.do(clickText("Remove"))
	p.misses("[role=option]", "Fern Top")
}

// TestMapAndList chooses on the map and sees it in the list, and the other
// way round.
func TestMapAndList(t *testing.T) {
	p := sit(t, 1280, 800)
	p.goes("/find")
	p.reads("[role=option]", "Quay House")
	rows := "document.querySelectorAll('[role=option]').length"
	near := ask[int](p, rows)
	for range 3 { // each look waits for the one before, or the count is that of a map on its way
		p.do(click(`button[aria-label=Closer]`))
		p.until(fmt.Sprintf("%s > 0 && %s < %d", rows, rows, near)) // the list is that of the map
		near = ask[int](p, rows)
	}
	p.do(click(`button[aria-label=Farther]`))
	p.until(fmt.Sprintf("%s > %d", rows, near))

	// By name it may be anywhere, and the map goes there.
	p.misses("[role=option]", "Far Skerry")
	p.do(focus("input[aria-label=Search]"))
	p.types("far skerry")
	p.reads("[role=option]", "Far Skerry")
	p.do(click("[role=option]"))
	p.reads("section", "Far Skerry")
	p.do(focus("input[aria-label=Search]"))
	p.clears()
	p.reads("[role=option]", "Far Skerry") // it is on the map now

	// A mark on the map is chosen in the list.
	p.do(chromedp.Evaluate[chromedp.Void](`{ const c = document.querySelector('.chart'); const b = c.getBoundingClientRect(); const at = {bubbles: true, clientX: b.x + b.width / 2, clientY: b.y + b.height / 2};
		const canvas = [...c.querySelectorAll('canvas')].at(-1); for (const type of ['mousemove', 'mousedown', 'mouseup', 'click']) canvas.dispatchEvent(new MouseEvent(type, at)); }`))
	p.reads("section", "Far Skerry")

	// A locator is a place to look at.
	p.do(focus("input[aria-label=Search]"))
	p.types("GN21ia")
	p.reads("[role=option]", "Quay House")
}

func TestFindPhone(t *testing.T) {
	p := sit(t, 390, 844)
	p.goes("/find")
	p.reads("[role=option]", "Quay House")
	p.accessible()
	assert.False(t, ask[bool](p, "document.documentElement.scrollWidth > innerWidth"), "nothing sticks out at the side")
	p.do(click("[role=option]"))
	p.reads("section", "You are inside its radio horizon")
	p.do(clickText("Add to Trail"))
	p.reads("[role=status]", "already in this radio")
}

// hostile are names as somebody might publish them to break a page.
var hostile = []string{
	`<script>window.broken = 1</script>`, `<img src=x onerror="window.broken = 1">`, `"><svg onload=window.broken=1>`, `javascript:window.broken=1`,
	"{{constructor.constructor('window.broken = 1')()}}", "\u202Etfel ot thgir", "a\u200Bb\u200C\u200Dc\uFEFF", strings.Repeat("W", 10_000), strings.Repeat("wide ", 2_000),
	"Z\u0310\u0310\u0310\u0310\u0310\u0310\u0310\u0310\u0310\u0310", "=cmd()", "\x00\x01\x02", "𝕱𝖗𝖆𝖐𝖙𝖚𝖗 日本 العربية",
}

// TestHostileNames brings them in and walks through every view that shows
// them: nothing runs, nothing sticks out.
func TestHostileNames(t *testing.T) {
	p := sit(t, 1280, 800)
	var b strings.Builder
	b.WriteString("Output\tShift\tTone\tTown\tLatitude\tLongitude\tCallsign\tNote\n")
	for i, name := range hostile {
		fmt.Fprintf(&b, "147.%03d\t+\t100\t%s\t41.0%d\t-55.30\t%s\t%s\n", 15*(i+1), name, i%9, name, name)
	}
	file := filepath.Join(t.TempDir(), "<b>hostile<b>.tsv")
	require.NoError(t, os.WriteFile(file, []byte(b.String()), 0o600))
	p.goes("/find")
	p.reads("[role=option]", "Quay House")
	p.presses("i", kb.ModifierCtrl)
	p.sees("[role=dialog] input[type=file]")
	p.do(chromedp.SetUploadFiles(chromedp.CSS("[role=dialog] input[type=file]"), []string{file}))
	p.reads("[role=dialog]", "As understood")
	p.accessible()
	p.do(clickText("Import the readable rows"))
	p.reads("[role=dialog]", "is imported.")
	p.do(clickText("Close"))
	p.reads("[role=option]", "<script>")
	sound := func() {
		t.Helper()
		assert.False(t, ask[bool](p, "'broken' in window"), "a name ran as a script")
		assert.Empty(t, ask[string](p, "document.documentElement.scrollWidth <= innerWidth ? '' : [...document.querySelectorAll('main *')].filter((e) => e.getBoundingClientRect().right > innerWidth).slice(0, 3).map((e) => e.outerHTML.slice(0, 200)).join('; ')"), "sticks out at the side")
	}
	sound()
	for i := range 8 {
		p.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf("document.querySelectorAll('[role=option]')[%d].click()", i)))
		p.sees("section table")
		sound()
	}
	p.accessible()
	p.goes("/")
	p.presses("/")
	p.types("147.015 +")
	p.reads("section", "Store in slot")
	sound()
}
