package e2e

import (
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/handset"
	"mnemos/core/radio"
)

var onePage = regexp.MustCompile(`/Type\s*/Page\b[^s]`)

// sheetText is the sheet as it stands on the page, in the lines that a person
// follows: what can be seen, and nothing else.
const sheetText = `(() => {
  const text = (e) => e.textContent.replace(/\s+/g, ' ').trim();
  const states = [...document.querySelectorAll('main p.state')].map(text);
  const steps = [...document.querySelectorAll('main ol > li')].map(
    (li) => text(li.querySelector('.number')) + ' ' + text(li.querySelector('.title')) + ' ' + text(li.querySelector('.keys > span')) + '.');
  return [states[0], ...steps, states[1]].join('\n');
})()`

// TestSheet reads, prints and follows keypad sheets for each way of entry that
// the demonstration has: on a phone, on one page of paper, and on a simulated
// radio that is given nothing but the text on the page.
func TestSheet(t *testing.T) {
	for _, c := range []struct {
		name, path, radio string
		slot              int
		transmits         string
		says              []string
	}{
		{"menu", "/keypad/1/8", "trail", 8, "147.630 MHz", []string{"Pell Light", "5 . shift direction + : press SHIFT until it shows +", "type 000600", "tone sent and heard 94.8 Hz", "T SQ 147.030", "Without sending: hold REV"}},
		{"automatic", "/keypad/2/10", "ferry", 10, "52.310 MHz", []string{"Petrel Head", "automatic shift on : press SET 0 8", "turn DIAL until it shows 146.2", "until it shows ENC"}},
		{"columns", "/keypad/3/20", "lantern", 20, "447.650 MHz", []string{"Quay House", "transmit 447.650 MHz : press MENU 2 1, type 447650", "by cable only", "DCS 442.65000"}},
		{"receive only", "/keypad/1/15", "trail", 15, "", []string{"Listening only: the channel is receive only", "transmit lock on", "transmit lock off again", "Do not try it with the transmit key"}},
		{"stopped", "/keypad/1/12", "trail", 12, "", []string{"Do not transmit on this channel.", "Listening only until this is put right.", "transmit lock on"}},
		{"cannot hold", "/keypad/3/25", "lantern", 25, "147.900 MHz", []string{"What Lantern cannot hold", "1750 Hz burst: Lantern does not have it"}},
	} {
		t.Run(c.name, func(t *testing.T) {
			p := sit(t, 390, 844)
			p.do(chromedp.Navigate(p.url + c.path))
			for _, says := range c.says {
				p.reads("main", says)
			}
			p.accessible()
			assert.False(t, ask[bool](p, "document.documentElement.scrollWidth > innerWidth"), "nothing sticks out at the side")

			profile, err := radio.Load(c.radio)
			require.NoError(t, err)
			h, err := handset.New(profile)
			require.NoError(t, err)
			text := ask[string](p, sheetText)
			require.NoError(t, h.Follow(text), text)
			held, ok := h.Holds(c.slot)
			require.True(t, ok)
			tx := ""
			if f, ok := held.Transmit(); ok {
				tx = f.String()
			}
			assert.Equal(t, c.transmits, tx)

			pdf, err := chromedp.Run(p.ctx, chromedp.PrintToPDF())
			require.NoError(t, err)
			assert.Len(t, onePage.FindAll(pdf, -1), 1, "pages")
			p.presses(kb.Escape)
			p.sees("#entry")
		})
	}
}

const clicks = `(label => [...document.querySelectorAll('button')].find(b => b.textContent.includes(label)).click())`

// TestTry tries a sheet on the simulated handset: step by step with the
// keyboard, with a step left out, by hand, and by itself to the end, in every
// theme.
func TestTry(t *testing.T) {
	p := sit(t, 1280, 800)
	p.do(chromedp.Navigate(p.url + "/keypad/1/8"))
	p.reads("main", "Try it on a simulated handset")
	ask[any](p, clicks+`('Try it')`)
	p.reads(".handset", "Check the start")
	p.until("document.activeElement.textContent.includes('Check the start')")
	for range 3 {
		p.presses(kb.Enter)
	}
	p.until("document.querySelector('li[aria-current]')?.textContent.includes('automatic shift')")
	p.accessible()
	ask[any](p, clicks+`('Leave it out')`)
	p.reads("ol", "left out")
	p.presses(kb.Escape)
	p.until("!document.querySelector('.handset')")
	p.sees("ol")

	ask[any](p, clicks+`('Try it')`)
	p.reads(".handset", "Or press the keys yourself")
	p.sees(".handset .cap")
	for _, key := range []string{"MODE", "1", "4", "6"} {
		ask[any](p, `[...document.querySelectorAll('.handset .cap')].find(b => b.textContent.trim() === '`+key+`').click()`)
	}
	p.until("/146|MEM|Slot/.test(document.querySelector('.handset [role=status]').textContent)")

	ask[any](p, clicks+`('Start over')`)
	ask[any](p, clicks+`('By itself')`)
	p.reads(".handset", "All steps done")
	p.reads(".handset", "Slot 8 is as planned. Receives 147.030, transmits 147.630 MHz with 94.8 Hz")
	steps := ask[float64](p, "document.querySelectorAll('main ol > li').length")
	assert.Equal(t, strconv.Itoa(int(steps)), strconv.Itoa(strings.Count(ask[string](p, "document.querySelector('main ol').textContent"), "✓")))
	for _, theme := range []string{"night", "red"} {
		ask[any](p, `document.documentElement.dataset.theme = '`+theme+`'`)
		p.accessible()
	}
}
