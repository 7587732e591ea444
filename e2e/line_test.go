package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// pastes puts several lines into the entry line as the clipboard would.
func (p *person) pastes(text string) {
	p.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf(
		`{ const d = new DataTransfer(); d.setData('text', %s);
		document.querySelector('#entry').dispatchEvent(new ClipboardEvent('paste', { clipboardData: d, bubbles: true, cancelable: true })) }`, quote(text))))
}

// TestANameFillsTheLine: somebody types what the repeater is called, and one
// key writes the line.
func TestANameFillsTheLine(t *testing.T) {
	p := sit(t, 1280, 800)
	p.presses("/")
	p.types("marran light")
	p.reads("section", "published under this name")
	p.reads("section", "One published repeater is called so")
	p.accessible()
	p.presses("=")
	p.reads("#say", "Receives 146.940, transmits 146.340 MHz")
	assert.Contains(t, ask[string](p, "document.querySelector('#entry').value"), `"Marran Light"`)
}

// TestLinesPastedTogether come one after the other, and none is lost.
func TestLinesPastedTogether(t *testing.T) {
	p := sit(t, 1280, 800)
	p.presses("/")
	p.pastes("Output\tTone\n146.52\n147.555 ts 100 Second\n446.1 Third")
	p.reads("section", "2 more pasted lines")
	assert.Equal(t, "146.52", ask[string](p, "document.querySelector('#entry').value"))
	p.accessible()
	p.do(clickText("147.555 ts 100 Second"))
	p.reads("#say", "Receives 147.555")
	p.presses(kb.Enter)
	p.reads("[role=grid]", "Second")
	// The next one stands in the line now.
	p.until(`document.querySelector('#entry').value === '146.52'`)
	p.do(clickText("Discard them"))
	p.misses("section", "pasted line")
}

// TestWhatIsAsked: a refusal to transmit is one, a number in a name moves
// nothing, and what looks like a setting is asked about.
func TestWhatIsAsked(t *testing.T) {
	p := sit(t, 1280, 800)
	for _, c := range []struct{ line, says string }{
		{"146.94 never transmit", "never transmits"},
		{"446.675 - 141.3 Camp 9", "transmits 441.675 MHz with 141.3"},
		{"146.94 simplx", `Did you mean "simplex"?`},
		{"2m 443.275", "is not in the 2 m band"},
		{"147.6 -", "input range of the outputs"},
		{"442.65 dcs 23", "D023"},
	} {
		p.presses("/")
		p.clears()
		p.types(c.line)
		p.reads("#say", c.says)
	}
}

// TestTwoLossesOfOneKind: a radio that lacks the tone both ways loses two
// things of one field, and the panel shows both (the console stays clean).
func TestTwoLossesOfOneKind(t *testing.T) {
	p := sit(t, 1280, 800)
	p.do(chromedp.Evaluate[chromedp.Void]("localStorage.setItem('load', '3')"))
	p.reloads()
	p.presses("/")
	p.types("147.345 ts 254.1")
	p.reads("section", "254.1 Hz")
	p.presses(kb.Enter)
	p.reads("#evidence", "254.1 Hz")
}
