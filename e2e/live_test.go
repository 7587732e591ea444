package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/internal/plan"
)

// TestEightTabs has eight tabs of one browser save one after the other: each
// sees all of it at once, over one stream that is resumed when it is cut. A
// browser without shared workers passes the events on from tab to tab.
func TestEightTabs(t *testing.T) {
	for _, by := range []string{"a shared worker", "a lock and a channel"} {
		t.Run(by, func(t *testing.T) {
			p := sit(t, 1280, 800)
			tabs := []*person{p}
			if by != "a shared worker" {
				p.alone()
				p.reloads()
			}
			_, err := p.another().Plans.DeleteSome(t.Context(), 1, []int{20, 21, 22, 23, 24, 25}, plan.Latest) // what is stored can be seen
			require.NoError(t, err)
			for range 7 {
				q := p.tab("/")
				q.sees("[role=grid] [role=row][aria-selected]")
				tabs = append(tabs, q)
			}
			require.Eventually(t, func() bool { return p.wire.streams.Load() == 1 }, waiting, tick, "%d streams", p.wire.streams.Load())
			for i, q := range tabs {
				q.front()
				q.presses("/")
				q.hammers(fmt.Sprintf("146.5%d Tab %d", 10+i*5, i))
				q.reads("section", "Store in slot")
				q.presses(kb.Enter)
				for _, other := range tabs {
					other.reads("[role=grid]", fmt.Sprintf("Tab %d", i))
				}
			}
			assert.EqualValues(t, 1, p.wire.streams.Load(), "one stream for eight tabs")

			// The stream is cut; what happens meanwhile is not missed.
			before := p.wire.opened.Load()
			p.wire.set(func(w *wire) { w.gone = true })
			p.net.CloseClientConnections()
			for _, q := range tabs {
				q.lose()
				q.reads("[role=alert]", "No answer.")
			}
			name := "While away"
			_, err = p.another().Plans.Update(t.Context(), 1, 8, plan.Update{Name: &name, Revision: 1 << 40})
			require.NoError(t, err)
			p.wire.set(func(w *wire) { w.gone = false })
			for _, q := range tabs {
				q.reads("#slot-8", "While away")
				q.misses("body", "No answer.")
			}
			assert.Greater(t, p.wire.opened.Load(), before)
			assert.EqualValues(t, 1, p.wire.streams.Load())
		})
	}
}

// TestTwoPeople works on one plan as two people in two browsers: each sees the
// other's changes at once, undo takes back one's own alone, and a cell that both
// typed into shows theirs and mine.
func TestTwoPeople(t *testing.T) {
	p := sit(t, 1280, 800)
	q := p.tab("/", chromedp.WithNewBrowserContext())
	q.sees("[role=grid] [role=row][aria-selected]")

	// The second one says who they are.
	q.runs("People")
	q.reads("[role=dialog]", "People")
	q.do(clickText("Add a person"))
	q.fills("#person-name", "QX2BR")
	q.do(clickText("Save"))
	q.reads("header", "QX2BR")
	q.do(clickText("Close"))
	people, err := p.store.People(t.Context())
	require.NoError(t, err)
	require.Len(t, people, 2)

	// Both change something.
	p.presses("/")
	p.types("146.55 Mine")
	p.reads("section", "Store in slot 4")
	p.presses(kb.Enter)
	q.reads("#slot-4", "Mine")
	q.do(focus("#slot-8"))
	q.reads("#evidence h2", "Pell Light")
	q.presses(kb.Delete)
	p.reads("#slot-8", "empty")
	p.presses("z", kb.ModifierCtrl)
	q.reads("#slot-4", "empty")
	q.reads("#slot-8", "empty")
	q.presses("z", kb.ModifierCtrl)
	p.reads("#slot-8", "Pell Light")

	// Both type into one row: the later one chooses.
	p.do(focus("#slot-6"))
	p.do(clickCell("#slot-6", "name"))
	p.presses(kb.Enter)
	p.sees(`input[aria-label="name of slot 6"]`)
	p.clears()
	p.types("Gannet Mine")
	q.do(focus("#slot-6"))
	q.do(clickCell("#slot-6", "name"))
	q.presses(kb.Enter)
	q.clears()
	q.types("Gannet Theirs")
	q.presses(kb.Enter)
	q.reads("#slot-6", "Gannet Theirs")
	p.presses(kb.Enter)
	p.reads("#slot-6 [role=alert]", "Not saved, name:")
	p.reads("#slot-6 [role=alert]", "keep what is there: Gannet Theirs")
	p.accessible()
	p.do(clickText("use mine: Gannet Mine"))
	p.reads("#slot-6", "Gannet Mine")
	p.misses("#slot-6", "Not saved")
	q.reads("#slot-6", "Gannet Mine")
}
