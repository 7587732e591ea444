package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// TestSixSteps walks the way of a new licensee by keyboard alone: type, see,
// fix, store, undo, reload, edit, delete, and the keypad sheet.
func TestSixSteps(t *testing.T) {
	p := sit(t, 1280, 800)
	p.reads("header", "Three Lights Walk")
	p.reads("[role=grid]", "empty")

	// Type and see.
	p.presses("/")
	p.types(`147.24 + 100 "Beacon Hill"`)
	p.reads("#say", "Receives 147.240, transmits 147.840 MHz with 100.0Hz; the receiver stays open. Shift size: band plan")
	p.reads("#gloss", "147.24 taken as receive, + taken as shift, 100 taken as tone, \"Beacon Hill\" taken as name")
	p.reads("[role=table]", "QX1BHL")
	p.reads("[role=table]", "11.8 km")
	p.reads("[role=table]", "062°")
	p.reads("section", "Beacon Hill needs 103.5 Hz. 100.0 Hz is Sarn Ness, 64 km away, past your horizon.")
	p.reads("#slot-4", "writing")

	// Fix: one key, and the line says what was published.
	p.presses("=")
	p.until(`document.querySelector('#entry').value === '147.24 + 103.5 "Beacon Hill"'`)
	p.misses("section", "Beacon Hill needs")

	// Store, undo, redo.
	p.presses(kb.Enter)
	p.reads("#slot-4", "agrees")
	p.reads("#slot-4", "Beacon Hill")
	p.until(`document.querySelector('#entry').value === ''`)
	p.reads("[role=status]", "Stored in slot 4")
	p.presses(kb.Escape)
	p.do(blur())
	p.presses("z", kb.ModifierCtrl)
	p.reads("#slot-4", "empty")
	p.presses("z", kb.ModifierCtrl, kb.ModifierShift)
	p.reads("#slot-4", "agrees")

	// Reload: it is kept.
	p.reloads()
	p.reads("#slot-4", "Beacon Hill")

	// Edit in place: the arrow keys choose, Enter edits.
	p.do(focus("#slot-4"))
	p.presses(kb.ArrowRight)
	p.presses(kb.Enter)
	p.sees(`input[aria-label="receive of slot 4"]`)
	p.clears()
	p.types("147,03")
	p.presses(kb.Enter)
	p.reads("#slot-4", "147.030")
	p.reads("#slot-4", "147.630")

	// A mistake is named in place, and what was typed stays.
	p.presses(kb.Enter)
	p.clears()
	p.types("nonsense")
	p.presses(kb.Enter)
	p.reads("[role=alert]", `"nonsense" is not a frequency: type it in MHz, such as 147.24`)
	p.until(`document.querySelector('input[aria-label="receive of slot 4"]').value === 'nonsense'`)
	p.presses(kb.Escape)
	p.reads("#slot-4", "147.030")

	// An occupied slot is not overwritten.
	p.presses(kb.Home)
	p.do(focus("#slot-4"))
	for range 3 {
		p.presses(kb.ArrowLeft)
	}
	p.presses(kb.Enter)
	p.clears()
	p.types("7")
	p.presses(kb.Enter)
	p.reads("[role=alert]", "slot 7 holds Marran Light")
	p.presses(kb.Escape)
	p.presses(kb.ArrowDown, kb.ModifierAlt)
	p.reads("#slot-5", "Beacon Hill")
	p.reads("#slot-4", "Long Ridge")

	// The first fix of a stored channel.
	p.do(focus("#slot-7"))
	p.reads("#evidence", "You send the tone the repeater sends")
	p.reads("#evidence", "It would not hear you")
	p.presses("=")
	p.reads("#slot-7", "agrees")
	p.reads("#evidence", "It would hear you")

	// The keypad sheet.
	p.do(focus("#slot-8"))
	p.reads("#evidence h2", "Pell Light")
	p.presses(kb.Enter, kb.ModifierCtrl)
	p.reads("main", "Pell Light")
	p.reads("main", "94.8")
	p.reads("main", "Without sending: hold REV")
	p.reads("main section", "+ T SQ 147.030")
	p.accessible()
	p.presses(kb.Escape)
	p.sees("#entry")

	// Delete, and take it back.
	p.do(focus("#slot-8"))
	p.presses(kb.Delete)
	p.reads("#slot-8", "empty")
	p.presses("z", kb.ModifierCtrl)
	p.reads("#slot-8", "Pell Light")
}

func TestAccessible(t *testing.T) {
	for _, size := range []struct {
		name          string
		width, height int64
	}{{"desk", 1280, 800}, {"tablet", 900, 900}, {"phone", 390, 844}} {
		t.Run(size.name, func(t *testing.T) {
			p := sit(t, size.width, size.height)
			p.reads("#slots", "Marran Light")
			p.accessible()
			p.presses("/")
			p.types("146.94 141.0 #7")
			p.reads("section", "141.0 Hz is not a standard tone")
			p.reads("section", "Slot 7 holds Marran Light")
			p.accessible()
			assert.False(t, ask[bool](p, "document.documentElement.scrollWidth > innerWidth"), "nothing sticks out at the side")
			for range 2 {
				p.presses("t", kb.ModifierAlt)
				p.accessible()
			}
		})
	}
}

func TestPhone(t *testing.T) {
	p := sit(t, 390, 844)
	p.do(click("#entry"))
	p.types("147.24 + 100 Beacon")
	p.reads("section", "Beacon Hill needs 103.5 Hz")
	p.do(clickText("Send 103.5 Hz"))
	p.until(`document.querySelector('#entry').value === '147.24 + 103.5 Beacon'`)
	p.do(clickText("Store in slot 4"))
	p.reads("#slot-4", "agrees")
	p.mouse("Marran Light")
	p.reads(".opened", "It would not hear you")
	p.reads(".opened", "Send 88.5 Hz")
	p.accessible()
	assert.GreaterOrEqual(t, ask[float64](p, "[...document.querySelectorAll('.opened button')].find((b) => b.innerText.includes('Send 88.5')).getBoundingClientRect().height"), 44.0, "large enough for a thumb")
	p.do(clickText("Send 88.5 Hz"))
	p.reads("#slot-7", "agrees")
	p.reads(".opened", "It would hear you")
	p.mouse("Marran Light")
	p.until("document.querySelector('.opened') === null")
	p.reads("#slot-7", "146.340") // what it transmits is seen without opening it
}

// TestMistakes is the way of somebody who means harm, or is only clumsy.
func TestMistakes(t *testing.T) {
	p := sit(t, 1280, 800)
	p.presses("/")
	for _, line := range []struct{ text, says string }{
		{"100", "begin with the receive frequency"},
		{"146.94 -600 -600", "one sign and one size"},
		{`146.52 <img src=x onerror=alert(1)>`, "simplex"},
		{"29.64 - 100", "transmits 29.540"},
	} {
		p.clears()
		p.types(line.text)
		p.reads("#say", line.says)
	}
	// A line with two readings asks which, and stores neither.
	p.presses(kb.Enter)
	p.reads("#say", "Choose one of the two readings first")
	p.until(`document.querySelector('#entry').value === '29.64 - 100'`)

	// A taken slot offers a vacant one; storing over it is another key.
	p.clears()
	p.types("146.55 Mine #1")
	p.reads("section", "Slot 1 holds Calling")
	p.presses(kb.Enter)
	p.reads("#say", "Slot 1 holds Calling. The fix below uses an empty slot")
	p.presses("=")
	p.until(`document.querySelector('#entry').value === '146.55 Mine #4'`)
	p.presses(kb.Enter)
	p.reads("#slot-4", "Mine")

	// Markup in a name is text.
	p.types(`146.4 "<b>Bold</b>" #11`)
	p.reads("section", "Store in slot 11")
	p.presses(kb.Enter)
	p.reads("#slot-11", "<b>Bold</b>")

	// What was not stored is still there after a reload.
	p.types("147.5 half")
	p.reads("#say", "Receives 147.500")
	p.reloads()
	p.until(`document.querySelector('#entry').value === '147.5 half'`)
}

func TestRadios(t *testing.T) {
	p := sit(t, 1280, 800)
	p.do(chromedp.Focus(chromedp.CSS(`header button[aria-label^="Radio:"]`)))
	p.presses(kb.Enter)
	p.sees("[role=menuitemradio]")
	p.presses(kb.ArrowDown)
	p.presses(kb.Enter)
	p.reads("h2", "Ferry, 9 of 500 slots used")
	p.reads("[role=grid]", "Petrel Head")
	p.do(focus("#slot-10"))
	p.reads("#evidence h2", "Petrel Head")
	p.reads("section h2", "6 m")
	p.presses(kb.Enter, kb.ModifierCtrl)
	p.reads("main", "automatic shift")
	p.reads("main", "sets −500 kHz by itself")
}

func TestLists(t *testing.T) {
	p := sit(t, 1280, 800)
	p.do(clickText("1 stop"))
	p.until(`document.querySelectorAll('[role=grid] [role=row][aria-selected]').length === 1`)
	p.reads("[role=grid]", "153.390")
	p.do(clickText("1 stop"))
	p.presses(kb.F1)
	p.reads("[role=dialog]", "Write on the line")
	p.accessible()
	p.do(click("[role=dialog] input[type=checkbox]"))
	p.presses(kb.Escape)
	p.until(`document.querySelector('[role=dialog]') === null`)
	p.do(focus("#slot-7"))
	p.reads("#evidence h2", "Marran Light")
	p.presses("=") // a sign acts no more
	p.until(`document.querySelector('#entry').value === '='`)
	p.presses(kb.Escape)
	p.reads("#slot-7", "conflict")
	p.do(clickText("keys"))
	p.do(click("[role=dialog] input[type=checkbox]"))
	p.presses(kb.Escape)
	p.until(`document.querySelector('[role=dialog]') === null`)
	p.do(blur())
	p.presses("/")
	p.until(`document.activeElement.id === 'entry'`)
	p.do(clickText("70 cm"))
	p.reads("section h2", "70 cm")
}
