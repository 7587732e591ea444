package e2e

import (
	"context"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/browser"
	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/fault"
	"mnemos/internal/plan"
)

// slot is what is in a slot of the radio on show: the name, or "" where it is empty.
const nameIn = `(n) => (document.querySelector('#cell-' + n + '-name')?.firstElementChild?.innerText ?? '')`

func (p *person) holds(slot, name string) {
	p.t.Helper()
	p.until(`(` + nameIn + `)(` + slot + `) === ` + quote(name))
}

// TestWorkspaceByKeys moves, fills, copies, cuts, pastes and sorts channels by
// keyboard alone; each is one step that undo takes back.
func TestWorkspaceByKeys(t *testing.T) {
	p := sit(t, 1280, 800)
	p.reads("[role=grid]", "Marran Light")
	p.do(focus("#slots"))
	p.presses(kb.Home, kb.ModifierCtrl)
	p.until(`document.querySelector('#slots').getAttribute('aria-activedescendant').startsWith('cell-1-')`)

	// Three are chosen with Shift, and step down past the next.
	p.presses(kb.ArrowDown, kb.ModifierShift)
	p.presses(kb.ArrowDown, kb.ModifierShift)
	p.until(`document.querySelectorAll('#slots [role=row][aria-selected=true]').length === 3`)
	p.reads("[aria-label='What is chosen']", "3 channels 1–3")
	p.presses(kb.ArrowDown, kb.ModifierAlt)
	p.holds("2", "Calling")
	p.holds("4", "Walk reserve")
	p.reads("#slot-1", "empty")
	p.reads("[role=status]", "move 3 channels to 2–4")
	p.accessible()
	p.presses("z", kb.ModifierCtrl)
	p.holds("1", "Calling")

	// A value goes down the column.
	p.presses(kb.Escape)
	p.presses(kb.Home, kb.ModifierCtrl)
	p.presses(kb.End)
	p.presses(kb.ArrowLeft)
	p.presses(kb.ArrowLeft)
	p.presses(kb.ArrowLeft)
	p.presses(kb.ArrowDown, kb.ModifierShift)
	p.presses(kb.ArrowDown, kb.ModifierShift)
	p.presses("d", kb.ModifierCtrl)
	p.reads("#cell-3-transmit_tone, #cell-3-receive_tone", "")
	p.reads("[role=status]", "Changed 2 and 3")
	p.presses("z", kb.ModifierCtrl)
	p.reads("[role=status]", "Undone: change 2 channels in 2 and 3")

	// Typing replaces the cell; Escape gives it up.
	p.presses(kb.Escape)
	p.presses(kb.Home)
	p.presses(kb.ArrowRight)
	p.do(focus("#slots"))
	p.types("Start")
	p.sees(`input[aria-label="name of slot 3"]`)
	p.until(`document.querySelector('input[aria-label="name of slot 3"]').value === 'Start'`)
	p.presses(kb.Escape)
	p.holds("3", "Walk reserve")
	p.types("Finish")
	p.presses(kb.Enter)
	p.holds("3", "Finish")

	// Sorted by name it is a view, until it is kept.
	p.mouse("name")
	p.reads("[role=status]", "Sorted by name")
	p.until(`document.querySelector('#slots [role=rowgroup] [role=row]').id === 'slot-4' || document.querySelector('#slots [role=rowgroup] [role=row] [data-column=name]').innerText < 'C'`)
	p.do(focus("#slots"))
	p.runs("Keep the sorted view as the new order")
	p.reads("[role=status]", "put 24 channels into another order")
	p.until(`((name) => [...document.querySelectorAll('#slots [role=rowgroup] [data-column=name]')].map((e) => e.firstElementChild.innerText).every((n, i, all) => i === 0 || all[i - 1].localeCompare(n, undefined, {numeric: true}) <= 0))(0)`)
	p.do(focus("#slots"))
	p.presses("z", kb.ModifierCtrl)
	p.holds("1", "Calling")
}

// TestTableThroughClipboard copies two channels, pastes them and a table of somebody
// else, and cuts one to another place.
func TestTableThroughClipboard(t *testing.T) {
	p := sit(t, 1280, 800)
	p.reads("[role=grid]", "Marran Light")
	p.do(focus("#slots"))
	p.presses(kb.Home, kb.ModifierCtrl)
	p.presses(kb.ArrowDown, kb.ModifierShift)
	text := p.copies()
	rows := strings.Split(strings.TrimSpace(text), "\n")
	require.Len(t, rows, 3)
	assert.Equal(t, "slot\tname\tshort name\treceive MHz\ttransmit MHz\tshift\ttone sent\ttone received\twidth\tpower\tscan", rows[0])
	assert.Contains(t, rows[1], "1\tCalling\t")
	assert.Contains(t, rows[2], "\t146.550\t146.550\tsimplex\t141.3\t141.3\twide\t")

	p.presses(kb.Escape)
	p.slot(31)
	p.pastesInto(text)
	p.holds("31", "Calling")
	p.holds("32", "Walk control")
	p.reads("[role=status]", "Pasted 2 into 31 and 32")
	p.presses("z", kb.ModifierCtrl)
	p.until(`(` + nameIn + `)(31) === ''`)

	// What is cut moves, with its number and its repeater; until then it stays.
	p.slot(7)
	p.presses("x", kb.ModifierCtrl)
	p.reads("[role=status]", "Cut 1 channel")
	p.slot(4)
	cut := p.clipboard()
	p.pastesInto(cut)
	p.holds("4", "Marran Light")
	p.reads("#slot-7", "empty")
	p.reads("[role=status]", "move Marran Light from slot 7 to 4")
	p.presses("z", kb.ModifierCtrl)
	p.holds("7", "Marran Light")

	// A table that can be read in two ways asks, and what cannot be read is told.
	p.slot(31)
	p.pastesInto("Name\tFreq\tTone TX\tTone RX\nNorth\t146.61\t88.5\t100\nSouth\t146.67\t77\t107.2\nNo way\tabc\t77\t107.2\n")
	p.reads("[role=dialog]", "Whose TX is it?")
	p.accessible()
	p.mouse("what you send")
	p.reads("[role=dialog]", "Not everything was pasted")
	p.reads("[role=dialog]", "row 4")
	p.presses(kb.Escape)
	p.reads("#slot-31", "88.5")
	p.reads("#slot-32", "South")
}

// TestSetsHistoryAndWork makes a set, looks back and goes back, and does the first
// thing of the list.
func TestSetsHistoryAndWork(t *testing.T) {
	p := sit(t, 1280, 800)
	p.reads("[role=grid]", "Marran Light")
	p.do(focus("#slots"))
	p.presses(kb.Home, kb.ModifierCtrl)
	p.presses(kb.ArrowDown, kb.ModifierShift)
	p.presses(kb.ArrowDown, kb.ModifierShift)
	p.mouse("sets")
	p.fills("input[aria-label='Name of the set']", "Walk")
	p.mouse("Make with 3 channels")
	p.reads("#evidence", "3 channels")
	p.reads("#evidence", "3 of 3")
	p.accessible()
	p.mouse("Walk 3")
	p.until(`document.querySelectorAll('#slots [role=rowgroup] [role=row]').length === 3`)
	p.mouse("Walk 3")

	p.mouse("history")
	p.reads("#evidence", "Made the set Walk")
	p.fills("input[aria-label='Name of the snapshot']", "before the walk")
	p.mouse("Keep a snapshot")
	p.reads("#evidence", "before the walk")
	p.do(focus("#slots"))
	p.presses(kb.Escape)
	p.slot(7)
	p.presses(kb.Delete)
	p.reads("#slot-7", "empty")
	p.reads("#evidence", "Deleted Marran Light from slot 7")
	p.mouse("Compare")
	p.reads("[role=dialog]", "1 differs, 23 are the same")
	p.reads("[role=dialog]", "gone")
	p.accessible()
	p.presses(kb.Escape)
	p.mouse("Go back")
	p.holds("7", "Marran Light")
	p.reads("[role=status]", "The plan is as it was then")

	p.mouse("to do")
	p.reads("#evidence", "Tern Stack")
	p.reads("#evidence", "A witness says otherwise")
	p.accessible()
	p.presses("f", kb.ModifierAlt)
	p.reads("[role=dialog]", "What fits into which radio")
	p.accessible()
	p.presses(kb.Escape)
}

// slot goes to a slot by the search of the line.
func (p *person) slot(n int) {
	p.t.Helper()
	p.do(focus("#slots"))
	p.presses(kb.Home, kb.ModifierCtrl)
	for i := 1; i < n; i++ {
		p.presses(kb.ArrowDown)
	}
}

// copies presses the key and returns what is in the clipboard then.
func (p *person) copies() string {
	p.t.Helper()
	p.presses("c", kb.ModifierCtrl)
	p.reads("[role=status]", "Copied")
	return p.clipboard()
}

// clipboard is the text that was copied.
func (p *person) clipboard() string {
	p.t.Helper()
	p.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		_, err := cdp.Call(ctx, t, browser.SetPermission, browser.SetPermissionParams{
			Permission: &browser.PermissionDescriptor{Name: "clipboard-read"}, Setting: browser.PermissionSettingGranted, Origin: p.url,
			BrowserContextID: chromedp.FromContext(p.ctx).BrowserContextID,
		})
		return err
	}))
	ask[bool](p, "window.read = undefined, navigator.clipboard.readText().then((t) => (window.read = t)), true")
	p.until("window.read !== undefined")
	return ask[string](p, "window.read")
}

// pastesInto hands a text to what has the focus, as the browser does.
func (p *person) pastesInto(text string) {
	p.t.Helper()
	ask[bool](p, `(() => {
		const data = new DataTransfer();
		data.setData('text/plain', `+quote(text)+`);
		return document.activeElement.dispatchEvent(new ClipboardEvent('paste', {clipboardData: data, bubbles: true, cancelable: true})) || true;
	})()`)
}

// TestWorkspaceByHand drags with the mouse, chooses with Ctrl, fixes what is of one
// kind, and does it again with a thumb.
func TestWorkspaceByHand(t *testing.T) {
	p := sit(t, 1280, 800)
	p.reads("[role=grid]", "Marran Light")
	p.drags("#cell-1-slot", "#cell-10-slot")
	p.holds("10", "Calling")
	p.reads("#slot-1", "empty")
	p.presses("z", kb.ModifierCtrl)
	p.holds("1", "Calling")
	for _, slot := range []string{"#cell-2-name", "#cell-5-name"} {
		ask[bool](p, `document.querySelector('`+slot+`').dispatchEvent(new MouseEvent('click', {bubbles: true, ctrlKey: true}))`)
	}
	p.until(`document.querySelectorAll('#slots [role=row][aria-selected=true]').length === 3`) // with the one that was selected
	p.mouse("Done")

	p.mouse("8 kinds of findings")
	p.mouse("The downlink tone is sent as uplink")
	p.until(`document.querySelectorAll('#slots [role=rowgroup] [role=row]').length === 1`)
	p.mouse("Fix it…")
	p.reads("[role=dialog]", "tone out")
	p.reads("[role=dialog]", "88.5")
	p.accessible()
	p.mouse("Fix 1 channel")
	p.reads("[role=status]", "fix 1 channel: The downlink tone is sent as uplink")
	p.reads("#slot-7", "agrees")

	q := sit(t, 390, 844)
	q.touchscreen()
	q.reads("[role=grid]", "Marran Light")
	q.thumb("Choose several")
	q.thumb("Walk control")
	q.thumb("Long Ridge")
	q.reads("[aria-label='What is chosen']", "2 channels 2 and 5")
	q.do(focus("input[aria-label='Move what is chosen to slot']"))
	q.types("31")
	q.presses(kb.Enter)
	q.reads("[role=status]", "move 2 channels to 31 and 32")
	q.accessible()
}

// TestTwoAtOnce: what one sorts and moves the other sees, and what stands in the
// way of a move is told.
func TestTwoAtOnce(t *testing.T) {
	p := sit(t, 1280, 800)
	p.reads("[role=grid]", "Marran Light")
	q := p.tab("/", chromedp.WithNewBrowserContext())
	q.sees("[role=grid] [role=row][aria-selected]")
	seen := p.revision()
	q.do(focus("#slots"))
	q.presses(kb.Home, kb.ModifierCtrl)
	q.presses(kb.ArrowDown, kb.ModifierShift)
	q.presses(kb.ArrowDown, kb.ModifierAlt)
	for _, x := range []*person{p, q} {
		x.holds("2", "Calling")
		x.holds("1", "Walk reserve")
	}
	// An answer that was given to an older state is refused, and says why.
	_, err := p.another().Plans.Arrange(t.Context(), 1, plan.Arrangement{Act: "move", Slots: []int{2}, To: 4, Revision: seen})
	var stale *fault.Stale
	require.ErrorAs(t, err, &stale)
	assert.Contains(t, stale.Why, "slot is 2 now and was 1")
}

// drags presses on one thing and lets go over another.
func (p *person) drags(from, to string) {
	p.t.Helper()
	where := func(selector string) (x, y float64) {
		x = ask[float64](p, "document.querySelector('"+selector+"').getBoundingClientRect().x + 8")
		return x, ask[float64](p, "document.querySelector('"+selector+"').getBoundingClientRect().y + 10")
	}
	x, y := where(from)
	_, end := where(to)
	p.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		for _, e := range []input.DispatchMouseEventParams{
			{Type: input.DispatchMouseEventTypeMouseMoved, X: x, Y: y, Button: input.MouseButtonNone},
			{Type: input.DispatchMouseEventTypeMousePressed, X: x, Y: y, Button: input.MouseButtonLeft, ClickCount: 1},
			{Type: input.DispatchMouseEventTypeMouseMoved, X: x, Y: y + 20, Button: input.MouseButtonLeft},
			{Type: input.DispatchMouseEventTypeMouseMoved, X: x, Y: end, Button: input.MouseButtonLeft},
			{Type: input.DispatchMouseEventTypeMouseReleased, X: x, Y: end, Button: input.MouseButtonLeft, ClickCount: 1},
		} {
			if _, err := cdp.Call(ctx, t, input.DispatchMouseEvent, e); err != nil {
				return err
			}
		}
		return nil
	}))
}
