package e2e

import (
	"context"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/accessibility"
	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// TestEveryViewInEveryTheme looks at each view and dialog with axe, by day, at
// night and in red.
func TestEveryViewInEveryTheme(t *testing.T) {
	p := sit(t, 1280, 800)
	themes := func(what string) {
		t.Helper()
		for _, theme := range []string{"day", "night", "red"} {
			p.do(chromedp.Evaluate[chromedp.Void]("document.documentElement.dataset.theme = " + quote(theme)))
			t.Log(what, theme)
			p.accessible()
		}
	}
	for _, view := range []struct{ path, shows string }{{"/", "Marran Light"}, {"/find", "Quay House"}, {"/listen", "Trail hears"}, {"/log", "Test a channel"}, {"/beacon", "840.8 ms"}, {"/radios", "as they are"}, {"/settings", "aerial"}, {"/keypad/1/8", "At rest"}} {
		p.goes(view.path)
		p.reads("main", view.shows)
		if view.path == "/find" { // rows of every sort, and not all of them: axe looks at each letter
			p.fills("#find-line", "15km")
			p.misses("main", "Cairn Head")
		}
		themes(view.path)
	}
	p.goes("/relay")
	p.mouse("Relay with Ferry")
	p.reads(".panel", "Orrin Moor through Ferry")
	themes("/relay")
	p.mouse("Open the run card")
	p.reads("main", "What must fail")
	themes("the run card")
	p.goes("/")
	for _, d := range []struct{ command, shows string }{
		{"Keys", "Signs such as"}, {"Plans:", "Press a name to open it"}, {"New plan", "An empty plan with one radio"}, {"People", "Changes are noted"}, {"Radios of this plan", "A radio that you add"},
	} {
		p.runs(d.command)
		p.reads("[role=dialog]", d.shows)
		themes(d.command)
		p.presses(kb.Escape)
		p.until("document.querySelector('[role=dialog]') === null")
	}
	p.presses("k", kb.ModifierCtrl)
	p.sees("[role=dialog] input")
	themes("all commands")
	p.presses(kb.Escape)
	p.until("document.querySelector('[role=dialog]') === null")
	p.do(focus("#slot-7"))
	p.reads("#evidence h2", "Marran Light")
	p.presses(".", kb.ModifierCtrl)
	p.reads("[role=dialog]", "Fixes for slot 7")
	themes("fixes")
}

// TestFocusComesBack opens each dialog from a button and closes it: the focus is
// where it was. After an act in the slots it is in the slots.
func TestFocusComesBack(t *testing.T) {
	p := sit(t, 1280, 800)
	p.do(chromedp.Evaluate[chromedp.Void]("[...document.querySelectorAll('header button')].find((b) => b.innerText === 'keys').focus()"))
	p.presses(kb.Enter)
	p.reads("[role=dialog]", "Keys")
	p.presses(kb.Escape)
	p.until("document.activeElement.innerText === 'keys'")
	p.do(focus("#slot-6"))
	for _, act := range []func(){
		func() { p.presses(kb.Delete); p.reads("#slot-6", "empty") },
		func() { p.presses("z", kb.ModifierCtrl); p.reads("#slot-6", "Gannet Down") },
		func() { p.presses(kb.ArrowDown, kb.ModifierAlt); p.reads("#slot-7", "Gannet Down") },
		func() {
			p.presses(kb.Enter)
			p.sees("#slot-7 input")
			p.presses(kb.Escape)
			p.until("document.querySelector('#slot-7 input') === null")
		},
	} {
		act()
		p.until("document.activeElement.id === 'slots'")
	}
}

// TestSpoken reads the accessibility tree: the cell that the arrows reach is what
// has the focus, and buttons are called what they do and not by their keys.
func TestSpoken(t *testing.T) {
	p := sit(t, 1280, 800)
	p.do(focus("#slot-7"))
	p.reads("#evidence h2", "Marran Light")
	p.presses(kb.ArrowRight)
	p.until("document.querySelector('#slots').getAttribute('aria-activedescendant') === 'cell-7-receive'")
	type node struct{ role, name, value string }
	var tree []node
	p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		if _, err := cdp.Call(ctx, target, accessibility.Enable, cdp.Empty{}); err != nil {
			return err
		}
		r, err := cdp.Call(ctx, target, accessibility.GetFullAXTree, accessibility.GetFullAXTreeParams{})
		if err != nil {
			return err
		}
		text := func(v *accessibility.Value) string {
			if v == nil {
				return ""
			}
			return strings.Trim(string(v.Value), `"`)
		}
		for _, n := range r.Nodes {
			tree = append(tree, node{text(n.Role), text(n.Name), text(n.Value)})
		}
		return nil
	}))
	has := func(role, name string) bool {
		for _, n := range tree {
			if n.role == role && strings.Join(strings.Fields(n.name), " ") == name {
				return true
			}
		}
		return false
	}
	for _, want := range []node{
		{"button", "Send 88.5 Hz", ""},
		{"button", "Keypad sheet", ""},
		{"button", "Empty slot 7", ""},
		{"button", "Undo", ""},
		{"grid", "Slots", ""},
		{"columnheader", "tone out", ""},
		{"textbox", "Channel for slot 4: type what the listing says", ""},
		{"searchbox", "Find in the plan", ""},
		{"link", "Find", ""},
		{"button", "Plan: Three Lights Walk, invented", ""},
		{"button", "You are operator", ""},
	} {
		assert.True(t, has(want.role, want.name), "%s %q", want.role, want.name)
	}
	assert.True(t, has("gridcell", "146 . 940") || has("gridcell", "146.940"), "the figures of the cell")
	for _, n := range tree {
		if n.role == "button" {
			assert.NotRegexp(t, `^(Ctrl|Alt|Del|=|\.|Esc)\b`, n.name, "a button begins with its key")
		}
	}
}

// TestLargeLetters sets the browser to letters of 24 pixels: everything grows,
// and nothing lies over anything else.
func TestLargeLetters(t *testing.T) {
	p := sit(t, 1280, 800)
	p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		_, err := cdp.Call(ctx, target, page.SetFontSizes, page.SetFontSizesParams{FontSizes: &page.FontSizes{Standard: 24}})
		return err
	}))
	for _, path := range []string{"/", "/find", "/radios", "/settings"} {
		p.goes(path)
		p.until("document.documentElement.style.zoom === '1.5'")
		assert.False(t, ask[bool](p, "document.documentElement.scrollWidth > innerWidth"), "%s sticks out at the side", path)
		over := ask[string](p, `(() => {
			const items = [...document.querySelectorAll('header a, header button, main h2, main label, main button')].filter((e) => e.checkVisibility() && e.getClientRects().length);
			const boxes = items.map((e) => e.getBoundingClientRect());
			for (let i = 0; i < items.length; i++) for (let j = i + 1; j < items.length; j++) {
				const [a, b] = [boxes[i], boxes[j]];
				if (items[i].contains(items[j]) || items[j].contains(items[i])) continue;
				const sides = Math.min(a.right, b.right) - Math.max(a.left, b.left), high = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
				const seen = document.elementFromPoint(a.left + a.width / 2, a.top + a.height / 2);
				if (sides > 3 && high > 3 && seen && items[i].contains(seen)) return items[i].innerText + ' over ' + items[j].innerText;
			}
			return '';
		})()`)
		assert.Empty(t, over, path)
	}
	p.goes("/")
	p.types("147.24 + 103.5 Beacon")
	p.reads("#say", "transmits 147.840")
	p.presses(kb.Escape)
	p.do(focus("#slot-8"))
	p.reads("#evidence h2", "Pell Light")
}

// TestThemeFollowsTheSystem: who prefers the dark gets the night before the
// first paint, until they choose.
func TestThemeFollowsTheSystem(t *testing.T) {
	p := sit(t, 1280, 800)
	prefer := func(scheme string) {
		p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
			_, err := cdp.Call(ctx, target, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{Features: []*emulation.MediaFeature{{Name: "prefers-color-scheme", Value: scheme}}})
			return err
		}))
	}
	prefer("dark")
	p.until("document.documentElement.dataset.theme === 'night'")
	first := func() string {
		p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
			_, err := cdp.Call(ctx, target, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{
				Source: "new PerformanceObserver((l) => { window.painted ??= getComputedStyle(document.documentElement).backgroundColor; }).observe({type: 'paint', buffered: true})",
			})
			return err
		}))
		p.reloads()
		p.until("window.painted !== undefined")
		return ask[string](p, "window.painted")
	}
	assert.Equal(t, "rgb(19, 16, 12)", first(), "the night's paper, at the first paint")
	p.presses("t", kb.ModifierAlt)
	p.until("document.documentElement.dataset.theme === 'red'")
	prefer("light")
	assert.Equal(t, "rgb(10, 1, 0)", first(), "what was chosen stays")
}

// TestViewThatCannotBeLoaded: a view whose script cannot be had says so in its
// place, and the others work.
func TestViewThatCannotBeLoaded(t *testing.T) {
	p := sit(t, 1280, 800)
	p.lose()
	p.wire.set(func(w *wire) { w.unread = "Settings-" })
	p.presses("0", kb.ModifierAlt)
	p.reads("[role=alert]", "This view cannot be shown")
	p.presses("2", kb.ModifierAlt)
	p.reads("#slots", "Marran Light")
}
