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

// rows is how many repeaters the list shows.
const rows = "document.querySelectorAll('[aria-label=Repeaters] > li').length"

// TestFindByKeyboard reads what each listing says of a repeater, settles in what
// they differ, takes that back, and adds the three nearest that the radio lacks,
// without a mouse.
func TestFindByKeyboard(t *testing.T) {
	p := sit(t, 1280, 800)
	p.presses("1", kb.ModifierAlt)
	p.reads("[role=option]", "Quay House")
	p.reads("main", "Trail holds 18 of 44 and is missing 18; it cannot use the other 8.")
	p.accessible()
	p.types("holm") // nothing has the focus: it goes to the line
	p.until(rows + " === 1")
	p.presses(kb.Enter)
	p.until("document.activeElement.getAttribute('role') === 'option'")
	p.reads("section h2", "Holm Rigg")
	p.reads("section", "The lists exchange its tones.")
	p.reads("section", "It may not hear you")
	p.reads("section table", "110.9")
	p.reads("section table", "differ")
	p.accessible()
	p.tabsTo("Use this value: Lantern list: uplink tone 156.7 Hz")
	p.presses(kb.Enter)
	p.reads("[role=status]", "it applies until a newer edition")
	p.reads("section table", "as Lantern list has it")
	p.misses("section", "The lists exchange its tones.")
	p.tabsTo("correct access")
	p.presses(kb.Enter)
	p.fills(`input[aria-label="access, as you know it"]`, "sometimes")
	p.do(clickText("Save"))
	p.reads("[role=alert]", "write one of")
	p.fills(`input[aria-label="access, as you know it"]`, "closed")
	p.fills(`input[aria-label="how you know"]`, "asked the owner")
	p.do(clickText("Save"))
	p.reads("section table", "asked the owner")
	p.reads("section", "ask the owner before you use it")
	p.accessible()
	// Each is listed, with a way back.
	p.runsButton("2 changed by you")
	p.reads("[aria-label='Changed by people']", "uplink tone is 156.7")
	p.tabsTo("Undo access of h-qx3hlr")
	p.presses(kb.Enter)
	p.misses("section", "ask the owner before you use it")
	p.do(blur())
	p.presses("z", kb.ModifierCtrl) // that is one step like any other
	p.reads("section", "ask the owner before you use it")
	p.presses("z", kb.ModifierCtrl)
	p.presses("z", kb.ModifierCtrl)
	p.reads("section", "The lists exchange its tones.")

	p.presses("/")
	p.clears()
	p.types("mis")
	p.reads("[aria-label=Completions]", "not in Trail")
	p.presses(kb.ArrowDown)
	p.presses(kb.Enter)
	p.until("document.querySelector('#find-line').value === 'missing '")
	p.types("60km")
	p.reads("main", "Trail holds 0 of 11 and is missing 11.")
	p.presses(kb.Enter)
	p.until("document.activeElement.innerText.includes('Herring Gate')")
	for range 3 {
		p.presses(" ")
		p.presses(kb.ArrowDown)
	}
	p.reads("main", "3 picked")
	p.accessible()
	p.do(blur())
	p.presses(kb.Enter, kb.ModifierCtrl)
	p.reads("[role=status]", "In Trail, slot 4, 10, 11")
	p.presses("2", kb.ModifierAlt)
	p.reads("#slot-4", "Herring Gate") // the nearest first
	p.reads("#slot-10", "Sea Barn")
	p.reads("#slot-11", "Beacon Hill")
	p.presses("z", kb.ModifierCtrl)
	p.reads("#slot-4", "empty")
	p.reads("#slot-11", "empty")
}

// TestFindByMouse does the same jobs with the mouse: adds what is missing from the
// four answers and from the chart, and makes a channel as it is published.
func TestFindByMouse(t *testing.T) {
	p := sit(t, 1280, 800)
	p.goes("/find")
	p.reads("aside", "Nearest you are missing")
	p.reads("aside", "Thinnest: east, 2 of 4 within 60 km.")
	p.reads("aside", "Tern Stack")
	p.mouse("Add to slots 4, 10, 11, 19")
	p.reads("[role=status]", "In Trail, slot 4, 10, 11, 19")
	p.reads("main", "Trail holds 22 of 44 and is missing 14")
	p.misses("section[aria-labelledby=near]", "Herring Gate")

	p.mouse("Marran Light")
	p.reads("section h2", "Marran Light")
	p.reads("section", "It would not hear you")
	p.mouse("Send 88.5 Hz")
	p.reads("[role=status]", "done in slot 7")
	p.reads("section", "It would hear you")
	p.mouse("what is around")
	p.reads("aside", "Confirmed last")

	// The disagreement of two lists, settled by a value.
	p.mouse("Holm Rigg")
	p.mouse("Use this value: Harbour list: downlink tone 156.7 Hz")
	p.reads("section table", "as Harbour list has it")
	p.mouse("Undo the correction of downlink tone")
	p.misses("section table", "as Harbour list has it")
}

// TestFindIsReadAsTyped types words of all sorts and looks at what each was taken
// as; what cannot be used says what to type instead.
func TestFindIsReadAsTyped(t *testing.T) {
	p := sit(t, 1280, 800)
	p.goes("/find")
	p.reads("[role=option]", "Quay House")
	p.reads("[role=option]", "Kettle Bay")
	p.fills("#find-line", "2m fm open near low haven 30km")
	p.until("[...document.querySelectorAll('.word em')].map((e) => e.innerText.trim()).join('|') === 'band|usable with FM|open to all|from here|within'")
	p.reads("main", "from Low Haven")
	p.misses("[role=option]", "Kettle Bay")
	p.fills("#find-line", "4m")
	p.reads("main", "4m is not a band in United States: type 10m, 6m, 2m")
	p.fills("#find-line", "zebra")
	p.reads("main", `Nothing published here has "zebra"`)
	p.reads("main", "Take a word out of the line")
	p.accessible()
	p.fills("#find-line", "near atlantis")
	p.reads("main", "type its locator, such as GN21ia")
	// A place that one names oneself.
	p.goes("/settings")
	p.fills("#marks", "hut nowhere")
	p.reads("#marks-fault", "write a name and its place")
	p.fills("#marks", "North Pier 41.1,-55.4")
	p.reads("[role=status]", "Saved")
	p.goes("/find")
	p.reads(".chart", "North Pier")
	p.fills("#find-line", "near north pier")
	p.reads("main", "from North Pier")
	p.fills("#find-line", "")
	p.presses("w", kb.ModifierAlt)
	p.mouse("digital: digital only")
	p.until("document.querySelector('#find-line').value === 'digital'")
	p.until(rows + " === 1")
	p.reads("[role=option]", "Kettle Bay")
	p.mouse("fm: usable with FM") // one of a group
	p.until("document.querySelector('#find-line').value === 'fm'")
	p.mouse("fm: usable with FM")
	p.until("document.querySelector('#find-line').value === ''")
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
	p.reads("section h2", "Low Haven")
	n := ask[int](p, "Number(document.querySelector('.slot').innerText)") // how many are found
	p.do(clickText("Not the same repeater"))
	p.reads("[role=status]", "Split")
	p.until(fmt.Sprintf("document.querySelector('.slot').innerText === '%d'", n+1))
	p.do(chromedp.Evaluate[chromedp.Void]("[...document.querySelectorAll('[role=option]')].filter((o) => o.innerText.includes('Low Haven')).forEach((o) => o.dispatchEvent(new MouseEvent('dblclick', {bubbles: true})))"))
	p.do(clickText("Same repeater"))
	p.reads("[role=status]", "Joined")
	p.until(fmt.Sprintf("document.querySelector('.slot').innerText === '%d'", n))

	p.do(click(`button[aria-label="Remove club"]`))
	p.do(clickText("Remove"))
	p.misses("[role=option]", "Fern Top")
}

// TestChartAndList chooses on the chart and sees it in the list, and the other way
// round; the chart is moved by keys.
func TestChartAndList(t *testing.T) {
	p := sit(t, 1280, 800)
	p.goes("/find")
	p.reads(".chart", "Rook Hey")
	p.reads(".chart", "Ostrel Islands")
	number := func() string {
		return ask[string](p, "document.querySelector('.chart [role=application]').getAttribute('aria-label').match(/[0-9]+/)[0]")
	}
	whole := number()
	p.do(focus(".chart [role=application]"))
	for range 5 { // each look waits for the one before
		before := number()
		p.presses("+")
		p.until("document.querySelector('.chart [role=application]').getAttribute('aria-label').match(/[0-9]+/)[0] !== " + quote(before))
	}
	p.presses(kb.Home)
	p.until("document.querySelector('.chart [role=application]').getAttribute('aria-label').match(/[0-9]+/)[0] === " + quote(whole))
	p.presses(kb.ArrowRight)
	p.presses(kb.ArrowRight)
	p.until("document.querySelector('.chart [role=application]').getAttribute('aria-label').match(/[0-9]+/)[0] !== " + quote(whole))
	p.misses(".chart", "Whin Brow")
	p.presses(kb.Home)
	p.reads(".chart", "Whin Brow")

	// A mark on the chart is chosen in the list, where it comes into view.
	at := ask[[]float64](p, "(() => { const e = [...document.querySelectorAll('.chart text')].find((e) => e.textContent === 'Ramsel Fell').getBoundingClientRect(); return [e.x + e.width / 2, e.y + e.height / 2]; })()")
	p.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf("document.querySelector('.chart .hand').dispatchEvent(new MouseEvent('click', {bubbles: true, clientX: %g, clientY: %g}))", at[0], at[1])))
	p.reads("section h2", "Ramsel Fell")
	p.until("(() => { const e = [...document.querySelectorAll('[role=option]')].find((e) => e.innerText.includes('Ramsel Fell')).getBoundingClientRect(); return e.top > 100 && e.bottom < innerHeight; })()")
	p.until("document.querySelector('.chart .chosen') !== null")
	p.accessible()

	// Another place to look around from.
	p.fills("#find-line", "IO91")
	p.reads(".chart", "Around IO91")
	p.reads(".chart", "coarse coast")
	p.reads("main", "from here")
}

func TestFindPhone(t *testing.T) {
	p := sit(t, 390, 844)
	p.touchscreen()
	p.goes("/find")
	p.reads("main", "Quay House")
	p.accessible()
	sides := "document.documentElement.scrollWidth > innerWidth"
	assert.False(t, ask[bool](p, sides), "nothing sticks out at the side")
	for i, name := range []string{"Herring Gate", "Sea Barn", "Beacon Hill"} { // the three nearest that the radio lacks
		slot := []string{"4", "10", "11"}[i]
		p.thumb(name + " ")
		p.reads(".opened h2", name)
		p.reads(".opened", "you transmit")
		assert.False(t, ask[bool](p, sides), name)
		p.thumb("Add to slot " + slot)
		p.reads("[role=status]", "In Trail, slot "+slot)
		p.thumb(name + " ")
	}
	p.thumb("Holm Rigg")
	p.thumb("Use this value: Lantern list: uplink tone 156.7 Hz")
	p.reads("[role=status]", "it applies until a newer edition")
	p.accessible()
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
		p.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf("document.querySelectorAll('[aria-label=Repeaters] [role=option]')[%d].click()", i)))
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
