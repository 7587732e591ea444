package e2e

import (
	"context"
	"fmt"

	"github.com/chromedp/cdproto/browser"
	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// point is the middle of what can be pressed and says a text, after it was
// scrolled to; the test fails where something else lies over it.
func (p *person) point(text string) (x, y float64) {
	p.t.Helper()
	find := fmt.Sprintf(`(() => {
		const clean = (s) => s.replace(/\s+/g, ' ').trim();
		const shown = (e) => e.getClientRects().length > 0 && !e.disabled;
		const all = [...document.querySelectorAll('button, a, label, [role=menuitem], [role=menuitemradio], [role=option], [role=row], [role=button], summary')].filter(shown);
		const names = (e) => [clean(e.getAttribute('aria-label') ?? ''), clean(e.innerText ?? '')];
		const e = all.find((e) => names(e).includes(%[1]s)) ?? all.find((e) => names(e).some((n) => n.includes(%[1]s)));
		if (!e) return '';
		e.scrollIntoView({block: 'center', behavior: 'instant'});
		const r = e.getBoundingClientRect();
		const [x, y] = [r.left + Math.min(r.width / 2, 200), r.top + Math.min(r.height / 2, 26)];
		const there = document.elementFromPoint(x, y);
		return there && (e.contains(there) || there.contains(e)) ? x + ' ' + y : 'covered by ' + there?.outerHTML.slice(0, 120);
	})()`, quote(text))
	// A hand waits until what it reaches for lies still: what is asked in every
	// frame has to answer the same a few times.
	p.until(fmt.Sprintf(`(() => {
		const at = %s, was = window.reaches ?? {};
		window.reaches = {at, still: at !== '' && at === was.at ? was.still + 1 : 0};
		return window.reaches.still >= 4;
	})()`, find))
	at := ask[string](p, find)
	_, err := fmt.Sscanf(at, "%g %g", &x, &y)
	require.NoError(p.t, err, "%q is %s", text, at)
	return x, y
}

// mouse presses what says a text, with a mouse.
func (p *person) mouse(text string) {
	p.t.Helper()
	x, y := p.point(text)
	p.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		for _, kind := range []input.DispatchMouseEventType{input.DispatchMouseEventTypeMouseMoved, input.DispatchMouseEventTypeMousePressed, input.DispatchMouseEventTypeMouseReleased} {
			e := input.DispatchMouseEventParams{Type: kind, X: x, Y: y, Button: input.MouseButtonLeft, ClickCount: 1}
			if kind == input.DispatchMouseEventTypeMouseMoved {
				e.Button, e.ClickCount = input.MouseButtonNone, 0
			}
			if _, err := cdp.Call(ctx, t, input.DispatchMouseEvent, e); err != nil {
				return err
			}
		}
		return nil
	}))
}

// thumb touches what says a text. Whatever is touched is large enough for one.
func (p *person) thumb(text string) {
	p.t.Helper()
	x, y := p.point(text)
	p.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		if _, err := cdp.Call(ctx, t, input.DispatchTouchEvent, input.DispatchTouchEventParams{Type: input.DispatchTouchEventTypeTouchStart, TouchPoints: []*input.TouchPoint{{X: x, Y: y}}}); err != nil {
			return err
		}
		_, err := cdp.Call(ctx, t, input.DispatchTouchEvent, input.DispatchTouchEventParams{Type: input.DispatchTouchEventTypeTouchEnd, TouchPoints: []*input.TouchPoint{}})
		return err
	}))
}

// touchscreen makes the page that of a device that is touched.
func (p *person) touchscreen() {
	p.t.Helper()
	p.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		_, err := cdp.Call(ctx, t, emulation.SetTouchEmulationEnabled, emulation.SetTouchEmulationEnabledParams{Enabled: true, MaxTouchPoints: 1})
		return err
	}))
}

// stands says where the device is.
func (p *person) stands(lat, lon float64) {
	p.t.Helper()
	accuracy := 12.0
	p.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		if _, err := cdp.Call(ctx, t, browser.SetPermission, browser.SetPermissionParams{
			Permission: &browser.PermissionDescriptor{Name: "geolocation"}, Setting: browser.PermissionSettingGranted, Origin: p.url,
			BrowserContextID: chromedp.FromContext(p.ctx).BrowserContextID,
		}); err != nil {
			return err
		}
		_, err := cdp.Call(ctx, t, emulation.SetGeolocationOverride, emulation.SetGeolocationOverrideParams{Latitude: &lat, Longitude: &lon, Accuracy: &accuracy})
		return err
	}))
}
