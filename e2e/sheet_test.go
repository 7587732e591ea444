package e2e

import (
	"regexp"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var onePage = regexp.MustCompile(`/Type\s*/Page\b[^s]`)

// TestSheet prints keypad sheets for each way of entry and reads them on a
// phone: one page, no violation, nothing that sticks out.
func TestSheet(t *testing.T) {
	for _, c := range []struct {
		name, path string
		says       []string
	}{
		{"menu", "/keypad/1/8", []string{"Pell Light", "shift direction press SHIFT until the sign is right +", "shift size menu 7, shift size 0.600 MHz", "tone heard menu 13, tone heard 94.8 Hz", "T SQ 147.630"}},
		{"automatic", "/keypad/2/10", []string{"Petrel Head", "automatic shift setting 8, shift by itself on", "sets −500 kHz by itself", "ENC 52.310"}},
		{"columns", "/keypad/3/20", []string{"Quay House", "transmit type the digits on the upper line 447.650 MHz", "by cable only", "DCS 447.65000"}},
		{"receive only", "/keypad/1/15", []string{"transmitter menu 20, transmit off off", "Nothing may happen when the key is pressed"}},
		{"cannot hold", "/keypad/3/25", []string{"What Lantern cannot hold", "1750 Hz burst: Lantern does not have it"}},
	} {
		t.Run(c.name, func(t *testing.T) {
			p := sit(t, 390, 844)
			p.do(chromedp.Navigate(p.url + c.path))
			for _, says := range c.says {
				p.reads("main", says)
			}
			p.accessible()
			assert.False(t, ask[bool](p, "document.documentElement.scrollWidth > innerWidth"), "nothing sticks out at the side")
			pdf, err := chromedp.Run(p.ctx, chromedp.PrintToPDF())
			require.NoError(t, err)
			assert.Len(t, onePage.FindAll(pdf, -1), 1, "pages")
			p.presses(kb.Escape)
			p.sees("#entry")
		})
	}
}
