package e2e

import (
	"os"
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"
)

func TestTmp(t *testing.T) {
	os.MkdirAll("/tmp/shots", 0o755)
	p := sit(t, 1280, 800)
	p.reads("[role=grid]", "Marran Light")
	p.goes("/load")
	p.reads("main", "What Trail will hold")
	p.reads("main", "Start with slot")
	p.shot("/tmp/shots/load-fit.png")
	p.presses(kb.Enter, kb.ModifierCtrl)
	p.reads("main", "Begin with")
	p.shot("/tmp/shots/load-first.png")
	for range 40 {
		p.presses(kb.Enter)
	}
	p.shot("/tmp/shots/load-step.png")
	for i := range 20 {
		_ = i
		if strings.Contains(ask[string](p, "document.body.innerText"), "It shows this") {
			break
		}
		p.presses(kb.Enter)
	}
	p.shot("/tmp/shots/load-rest.png")
	p.mouse("Mine shows something else")
	p.reads("main", "Find the row")
	p.shot("/tmp/shots/load-else.png")
	q := sit(t, 390, 844)
	q.touchscreen()
	q.reads("[role=grid]", "Marran Light")
	q.presses("t", kb.ModifierAlt)
	q.presses("t", kb.ModifierAlt)
	q.goes("/load")
	q.reads("main", "Start with slot")
	q.shot("/tmp/shots/load-phone-fit.png")
	q.thumb("Start with slot")
	for range 9 {
		q.thumb("Done, next step")
	}
	q.shot("/tmp/shots/load-phone-step.png")
	for i := range 30 {
		_ = i
		if strings.Contains(ask[string](q, "document.body.innerText"), "It shows this") {
			break
		}
		q.thumb("Done, next step")
	}
	q.shot("/tmp/shots/load-phone-rest.png")
	q.thumb("Something else")
	q.reads("main", "Find the row")
	q.shot("/tmp/shots/load-phone-else.png")
}
