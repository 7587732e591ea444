package e2e

import (
	"os"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
)

// LOOK="name|w|h|path|theme|js;js;..." 
func TestLook(t *testing.T) {
	for _, spec := range strings.Split(os.Getenv("LOOK"), "\n") {
		f := strings.Split(spec, "|")
		if len(f) < 5 {
			continue
		}
		w, h := int64(1280), int64(800)
		if f[1] == "phone" {
			w, h = 390, 844
		}
		p := sit(t, w, h)
		ask[bool](p, `(localStorage.setItem('theme','`+f[4]+`'), true)`)
		p.do(chromedp.Navigate(p.url+f[3]), chromedp.Sleep(1200*time.Millisecond))
		for _, js := range f[5:] {
			ask[bool](p, `(() => { `+js+`; return true })()`)
			p.do(chromedp.Sleep(900*time.Millisecond))
		}
		p.shot("/tmp/look-" + f[0] + ".png")
	}
}
