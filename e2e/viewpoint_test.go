package e2e

import (
	"os"
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// reads pastes the text of a table into the import.
func (p *person) importsText(text string) {
	p.t.Helper()
	p.goes("/find")
	p.reads("[aria-label=Repeaters]", "Quay House")
	p.presses("i", kb.ModifierCtrl)
	p.sees("[role=dialog] textarea")
	p.fills("[role=dialog] textarea", text)
	p.do(clickText("Read the text"))
	p.sees("[role=dialog] table")
}

// TestWhoseTX imports a table that proves whose TX it is and turns it round
// with one key, then one that does not tell and has to be answered first.
func TestWhoseTX(t *testing.T) {
	for _, width := range []int64{1280, 390} {
		p := sit(t, width, 844)
		p.importsText("RX;TX;CTCSS TX;CTCSS RX;City\n147.255;147.855;100.0;;Fern Top\n146.655;146.055;88.5;;Low Quay\n146.700;146.100;loud;;Odd Rock\n")
		p.reads("[aria-label='Whose TX it is']", `In this table "TX" and "CTCSS TX" are what you send: 147.855 MHz with 100.0 Hz.`)
		p.reads("[aria-label='Whose TX it is']", "RX is an output of the band plan")
		p.accessible()
		if f := os.Getenv("SHOT"); f != "" {
			p.shot(f + "a.png")
		}
		p.presses("t", kb.ModifierAlt)
		p.reads("[aria-label='Whose TX it is']", "are what the repeater sends: 147.855 MHz with 100.0 Hz.")
		p.until(`document.querySelector('[role=dialog] [aria-label^="TX is"]').dataset.value === 'output'`)
		p.until(`document.querySelector('[role=dialog] [aria-label^="CTCSS TX is"]').dataset.value === 'downlink_tone'`)
		p.presses("t", kb.ModifierAlt)
		p.reads("[aria-label='Whose TX it is']", "are what you send")
		p.do(clickText("Import the readable rows"))
		p.reads("[role=dialog]", "2 rows imported")
	}
	// What has no place is found by a word, by its listing, and by asking for it.
	p := sit(t, 1280, 844)
	p.importsText("Output,Shift,Tone,City,Notes\n147.255,+,100.0,Fern Top,summer season only\nfurther away\n444.500,+,88.5,Low Quay,\n")
	p.reads("[role=dialog]", "One more is set aside: notes, totals or headings.")
	p.reads("[role=dialog]", "set aside: a note or a total: it has no frequency")
	p.do(clickText("Import the readable rows"))
	p.reads("[role=dialog]", "2 rows imported")
	p.do(clickText("Close"))
	for text, finds := range map[string]string{"season": "Fern Top", "444": "Low Quay", "147.25": "Fern Top", "pasted low": "Low Quay"} {
		p.fills("#find-line", text)
		p.reads("[role=option]", finds)
	}
	p.fills("#find-line", "")
	p.reads("main", "2 without a position")
	p.do(clickText("2 without a position"))
	p.until("document.querySelectorAll('[role=option]').length === 2")
	p.accessible()

	// The same listing again: what would change is shown before it does.
	p.importsText("Output,Shift,Tone,City,Notes\n147.255,+,103.5,Fern Top,summer season only\n442.500,+,88.5,High Quay,\n")
	p.do(clickText("Import the readable rows"))
	p.reads("[role=dialog]", "pasted text is there already. Nothing has changed yet.")
	p.reads("[aria-label=Changes]", "1 no longer in it, 1 changed, 1 new, 0 the same.")
	p.reads("[aria-label=Changes]", "147.255 Fern Top uplink tone")
	p.accessible()
	if f := os.Getenv("SHOT"); f != "" {
		p.shot(f + "c.png")
	}
	p.do(clickText("Import these changes"))
	p.reads("[role=dialog]", "pasted text is imported.")
	p.do(clickText("Close"))

	p = sit(t, 390, 844)
	p.importsText("Output,TX tone,RX tone,City\n147.255,100.0,88.5,Fern Top\n146.655,88.5,100.0,Low Quay\n")
	p.reads("[aria-label='Whose TX it is']", "Whose TX is it? The table does not tell.")
	p.accessible()
	if f := os.Getenv("SHOT"); f != "" {
		p.shot(f + "b.png")
	}
	p.until(`[...document.querySelectorAll('[role=dialog] button')].find((b) => b.textContent.includes('Import the readable rows')).disabled`)
	p.do(clickText(`In this table "TX tone" is what the repeater sends: 100.0 Hz.`))
	p.reads("[aria-label='Whose TX it is']", "Turn it round")
	p.do(clickText("Import the readable rows"))
	p.reads("[role=dialog]", "2 rows imported")
	p.do(clickText("Close"))
	p.sees("[aria-label=Repeaters] > li")
}
