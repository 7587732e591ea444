package e2e

import (
	"errors"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/fault"
)

const (
	waiting = 30 * time.Second
	tick    = 20 * time.Millisecond
)

// name of a slot's channel in the data.
func (p *person) stored(slot int) string {
	p.t.Helper()
	l, err := p.another().Plans.Ledger(p.t.Context(), 1)
	require.NoError(p.t, err)
	for _, r := range l.Rows {
		if r.Slot == slot {
			return r.Channel.Name
		}
	}
	return ""
}

// TestDiskFull: what cannot be saved stays where it was typed, the screen shows
// what is stored, and all of it is saved by itself once there is room.
func TestDiskFull(t *testing.T) {
	p := sit(t, 1280, 800)
	p.lose()
	p.wire.set(func(w *wire) { w.fails = fault.ErrFull })
	p.presses("/")
	p.types("146.55 Quay")
	p.reads("section", "Store in slot 4")
	p.presses(kb.Enter)
	p.reads("[role=alert]", "Not saved. The disk is full. Nothing of this change was saved. Make room on it")
	p.reads("ol", "146.55 Quay")
	p.reads("header", "not saved")
	p.reads("#slot-4", "empty")
	p.accessible()

	// A cell: the text stays in it.
	p.edits("#slot-8", "name", "Pell Lamp")
	p.reads("#slot-8", "Pell Lamp , not saved yet")
	assert.Equal(t, "Pell Light", p.stored(8))

	// An act does not queue behind them, and nothing on the screen pretends.
	p.do(focus("#slot-6"))
	p.presses(kb.Delete)
	p.reads("#say", "Not done. The disk is full.")
	p.reads("#slot-6", "Gannet Down")
	p.presses(kb.ArrowDown, kb.ModifierAlt)
	p.reads("#slot-6", "Gannet Down")
	p.until("document.querySelector('#slot-6').getAttribute('aria-selected') === 'true'")
	p.presses("z", kb.ModifierCtrl)
	p.misses("[role=status]", "Undone")

	p.wire.set(func(w *wire) { w.fails = nil })
	p.do(clickText("Try now"))
	p.reads("#slot-4", "Quay")
	p.reads("#slot-8", "Pell Lamp")
	p.misses("body", "Not saved.")
	p.reads("header", "saved 09:42")
	assert.Equal(t, "Quay", p.stored(4))
	assert.Equal(t, "Pell Lamp", p.stored(8))
	p.do(focus("#slot-6"))
	p.presses(kb.Delete)
	p.reads("#slot-6", "empty")
}

// TestServerGone: everything typed while the application is away is sent when it
// is back, in order and once.
func TestServerGone(t *testing.T) {
	p := sit(t, 1280, 800)
	p.lose()
	p.wire.set(func(w *wire) { w.gone = true })
	p.net.CloseClientConnections()
	p.reads("[role=alert]", "No answer.") // noticed before anything is asked
	p.presses("/")
	for _, line := range []string{"146.55 First", "146.565 Second"} {
		p.types(line)
		p.presses(kb.Enter)
		p.reads("ol", line)
		p.until("document.querySelector('#entry').value === ''")
	}
	p.edits("#slot-8", "name", "Pell Lamp")
	p.reads("#slot-8", "Pell Lamp , not saved yet")
	p.do(focus("#slot-6"))
	p.presses(kb.Delete)
	p.reads("#say", "Not done.")

	// The page is loaded again meanwhile: nothing is lost. (It asks before it is left.)
	p.wire.set(func(w *wire) { w.gone = false })
	p.reads("#slot-4", "First")
	p.reads("#slot-10", "Second")
	p.reads("#slot-8", "Pell Lamp")
	p.misses("body", "No answer.")
	assert.Equal(t, "Gannet Down", p.stored(6))
	assert.EqualValues(t, 3, p.wire.changes.Load())
}

// TestAnswerLost: a change whose answer is lost took place, and is not made
// again when it is asked for again.
func TestAnswerLost(t *testing.T) {
	p := sit(t, 1280, 800)
	p.lose()
	p.wire.set(func(w *wire) { w.lose = true })
	p.presses("/")
	p.types("146.55 Once")
	p.reads("section", "Store in slot 4")
	p.presses(kb.Enter)
	p.reads("[role=alert]", "Not saved.")
	p.wire.set(func(w *wire) { w.lose = false })
	p.reads("#slot-4", "Once")
	p.misses("body", "Not saved.")
	require.Greater(t, p.wire.changes.Load(), int32(1), "it was asked for more than once")
	l, err := p.another().Plans.Ledger(t.Context(), 1)
	require.NoError(t, err)
	n := 0
	for _, r := range l.Rows {
		if r.Channel.Name == "Once" {
			n++
		}
	}
	assert.Equal(t, 1, n)
}

// TestRefused: an error of the application keeps the text in its cell and is
// tried again; a page that cannot read the slots says so and is not blank.
func TestRefused(t *testing.T) {
	p := sit(t, 1280, 800)
	p.lose()
	p.wire.set(func(w *wire) { w.fails = errors.New("a fault that nobody thought of") })
	p.edits("#slot-8", "name", "Pell Lamp")
	p.reads("#slot-8", "Pell Lamp , not saved yet")
	p.reads("[role=alert]", "Something went wrong")
	p.do(clickText("Discard"))
	p.reads("#slot-8", "Pell Light")
	p.misses("body", "Not saved.")

	p.wire.set(func(w *wire) { w.fails, w.unread = nil, "/api/loads/1" })
	p.do(chromedp.Reload())
	p.reads("[role=alert]", "The slots cannot be read")
	p.wire.set(func(w *wire) { w.unread = "" })
	p.do(clickText("Try again"))
	p.reads("#slot-8", "Pell Light")
}

// TestKeptOverReload: what is not saved when the page is left is saved when it
// is opened again.
func TestKeptOverReload(t *testing.T) {
	p := sit(t, 1280, 800)
	p.lose()
	p.wire.set(func(w *wire) { w.fails = fault.ErrFull })
	p.presses("/")
	p.types("146.55 Quay")
	p.reads("section", "Store in slot 4")
	p.presses(kb.Enter)
	p.reads("ol", "146.55 Quay")
	p.do(chromedp.Reload())
	p.reads("ol", "146.55 Quay")
	p.wire.set(func(w *wire) { w.fails = nil })
	p.reads("#slot-4", "Quay")
}

// TestRestartDuringImport: the application is started again while a listing is
// read: the page says that it failed and that nothing was changed.
func TestRestartDuringImport(t *testing.T) {
	p := sit(t, 1280, 800)
	p.lose()
	old := p.wire.inner
	var rows strings.Builder
	rows.WriteString("Output,Shift,Tone,City\n")
	for range 60_000 {
		rows.WriteString("147.255,+,100.0,Fern Top\n")
	}
	p.goes("/find")
	p.presses("i", kb.ModifierCtrl)
	p.sees("[role=dialog] textarea")
	p.do(chromedp.Evaluate[chromedp.Void]("{ const t = document.querySelector('[role=dialog] textarea'); t.value = " + quote(rows.String()) + "; t.dispatchEvent(new Event('input', {bubbles: true})); }"))
	p.do(clickText("Read the text"))
	p.sees("[role=dialog] table")
	p.do(clickText("Import the readable rows"))
	p.reads("[role=dialog] [role=status]", "Reading into")
	p.wire.set(func(w *wire) { w.gone = true })
	p.net.CloseClientConnections()
	p.wire.set(func(w *wire) { w.inner, w.gone = serving(p.store), false })
	p.reads("[role=dialog] [role=status]", "It failed: Mnemos was restarted meanwhile. Nothing was changed.")
	_ = old
}

// TestTwoSettings: two tabs of the settings do not put each other's answers
// back.
func TestTwoSettings(t *testing.T) {
	p := sit(t, 1280, 800)
	p.goes("/settings")
	q := p.tab("/settings")
	q.sees("#radius")
	p.fills("#radius", "90")
	p.reads("[role=status]", "Saved.")
	q.until("document.querySelector('#radius').value === '90'")
	q.fills("#licence", "full, until 2030")
	q.reads("[role=status]", "Saved.")
	p.until("document.querySelector('#licence').value === 'full, until 2030'")
	s, err := p.another().Plans.Settings(t.Context(), 1)
	require.NoError(t, err)
	assert.Equal(t, []any{90.0, "full, until 2030"}, []any{s.Radius, s.Licence})
}

// edits types a text into a cell.
func (p *person) edits(row, column, text string) {
	p.t.Helper()
	p.do(focus(row), clickCell(row, column))
	p.presses(kb.Enter)
	p.sees(row + " input")
	p.clears()
	p.types(text)
	p.presses(kb.Enter)
}
