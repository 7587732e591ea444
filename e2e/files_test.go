package e2e

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/document"
)

// TestFiles saves a plan, says what a radio loses, brings the plan in beside the
// other one, and takes parts of a file that differs.
func TestFiles(t *testing.T) {
	p := sit(t, 1280, 800)
	p.reads("[role=grid]", "Marran Light")
	p.presses("s", kb.ModifierCtrl)
	p.reads("[role=dialog]", "Nothing is lost")
	p.accessible()
	saved := p.saves("Save Three Lights Walk.json")
	doc, err := document.Read([]byte(saved))
	require.NoError(t, err)
	assert.Len(t, doc.Channels, 26)
	p.chooses("[aria-label^='What:']", "load")
	p.reads("[role=dialog]", "slot 12, Tern Stack: transmit 153.390 MHz becomes receive only")

	// Somebody changes one channel in the file: that is what differs, and it is taken.
	folder := t.TempDir()
	changed := filepath.Join(folder, "changed.json")
	require.NoError(t, os.WriteFile(changed, []byte(strings.Replace(saved, `"transmit_tone": "127.3"`, `"transmit_tone": "88.5"`, 1)), 0o600))
	p.do(chromedp.SetUploadFiles(chromedp.CSS("#plan-file"), []string{changed}))
	p.mouse("Compare it with Trail")
	p.reads("[role=dialog]", "1 differs, 23 are the same")
	p.reads("[role=dialog]", "tone sent 127.3 88.5")
	p.accessible()
	p.do(click("input[aria-label='Take Marran Light, slot 7']"))
	p.mouse("Take 1 channel from the file")
	p.reads("#slot-7", "agrees")
	p.reads("[role=status]", "Took 1 channel from the file")

	p.presses("s", kb.ModifierCtrl)
	p.sees("#plan-file")
	p.do(chromedp.SetUploadFiles(chromedp.CSS("#plan-file"), []string{changed}))
	p.mouse("Import changed.json")
	p.reads("[role=status]", "is a plan beside the others now")
	p.reads("#slot-7", "88.5")
	p.do(focus("#slots"))
	p.presses("z", kb.ModifierCtrl)
	p.reads("[role=status]", "Undone: import the plan Three Lights Walk")

	// A club's table becomes channels; what is no table at all is refused in words.
	p.presses("s", kb.ModifierCtrl)
	p.sees("#plan-file")
	bad := filepath.Join(folder, "bad.json")
	require.NoError(t, os.WriteFile(bad, []byte(`{"format":"mnemos plan","version":99}`), 0o600))
	p.do(chromedp.SetUploadFiles(chromedp.CSS("#plan-file"), []string{bad}))
	p.mouse("Import bad.json")
	p.reads("[role=alert]", "a newer Mnemos made this plan")
	table := filepath.Join(folder, "club.csv")
	require.NoError(t, os.WriteFile(table, []byte("Name;Output;Input;Uplink tone\nNorth;146,61;146,01;88,5\nSouth;146,67;146,07;\n"), 0o600))
	p.do(chromedp.SetUploadFiles(chromedp.CSS("#plan-file"), []string{table}))
	p.mouse("Import club.csv")
	p.reads("[role=status]", "2 channels in")
	p.reads("[role=grid]", "North")
}

// TestColumnsOfYourOwn defines columns, sees what comes of them, keeps them, and
// reads a file in them.
func TestColumnsOfYourOwn(t *testing.T) {
	p := sit(t, 1280, 800)
	p.reads("[role=grid]", "Marran Light")
	p.presses("s", kb.ModifierCtrl)
	p.mouse("Columns of your own…")
	p.reads("[aria-label=Sample]", "146.5200")
	p.reads("[aria-label=Sample]", "24 rows")
	p.reads("[aria-label=Sample]", "short name")
	p.accessible()
	p.fills("input[aria-label='Name of the columns']", "Club sheet")
	p.do(clickLabel("decimal comma"))
	p.reads("[role=alert]", "do not go together")
	p.chooses("[aria-label^='Cells divided by']", ";")
	p.reads("[aria-label=Sample]", "146,5200")
	p.mouse("Keep these columns")
	p.reads("[role=status]", "Columns kept")
	p.sees("#columns-file")
	saved := p.saves("Save the file")
	assert.Contains(t, saved, "7;Marran Light;146,9400;146,3400;127.3\r\n")
	file := filepath.Join(t.TempDir(), "club.csv")
	require.NoError(t, os.WriteFile(file, []byte("slot;name;receive;transmit;tone sent\n1;North;146,6100;146,0100;88.5\n2;Nowhere;abc;;\n"), 0o600))
	p.do(chromedp.SetUploadFiles(chromedp.CSS("#columns-file"), []string{file}))
	p.reads("[role=dialog]", "Not everything was pasted")
	p.reads("[role=dialog]", "row 3")
	p.presses(kb.Escape)
	p.reads("[role=grid]", "North")
}

// saves presses a button that hands a file to the browser, and returns its text.
func (p *person) saves(button string) string {
	p.t.Helper()
	p.do(chromedp.Evaluate[chromedp.Void](`window.saved = undefined; { const make = URL.createObjectURL; URL.createObjectURL = (b) => { b.text().then((t) => (window.saved = t)); return make.call(URL, b); } }`))
	p.do(clickText(button))
	p.until("window.saved !== undefined")
	return ask[string](p, "window.saved")
}
