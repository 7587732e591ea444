package e2e

import (
	"bytes"
	"compress/gzip"
	"context"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"mnemos/internal/plan"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"

	"mnemos/core/channel"
	"mnemos/core/entry"
	"mnemos/core/freq"
	"mnemos/core/listing"
	"mnemos/internal/store"
)

// TestScriptSize adds up the script that is loaded before Plan can be used: it
// stays within 130 kB, gzip.
func TestScriptSize(t *testing.T) {
	const dist = "../internal/webui/dist"
	html, err := os.ReadFile(filepath.Join(dist, "index.html"))
	require.NoError(t, err)
	static := regexp.MustCompile(`(?:src|href)="/(assets/[^"]+\.js|first-paint\.js)"|(?:from|import)["'` + "`" + `]\./([^"'` + "`" + `]+\.js)`)
	seen := map[string]int{}
	var read func(text []byte)
	read = func(text []byte) {
		for _, m := range static.FindAllSubmatch(text, -1) {
			name := string(m[1])
			if name == "" {
				name = "assets/" + string(m[2])
			}
			if _, known := seen[name]; known {
				continue
			}
			b, err := os.ReadFile(filepath.Join(dist, name))
			require.NoError(t, err)
			var packed bytes.Buffer
			z := gzip.NewWriter(&packed)
			_, err = z.Write(b)
			require.NoError(t, err)
			require.NoError(t, z.Close())
			seen[name] = packed.Len()
			read(b)
		}
	}
	read(html)
	total := 0
	for _, n := range seen {
		total += n
	}
	t.Logf("%d bytes, gzip: %v", total, seen)
	require.Greater(t, len(seen), 2, "the page loads more than one file")
	require.Less(t, total, 130_000)
}

// TestUICost measures Plan with 1,000 channels beside the 24 of the
// demonstration; `make bench-ui` runs it. It asserts no time: it prints when the
// slots were there, how long an edit takes until its verdict is painted, and
// which tasks kept the page from answering for longer than 50 ms.
func TestUICost(t *testing.T) {
	if os.Getenv("MNEMOS_BENCH") == "" {
		t.Skip("set MNEMOS_BENCH, or run make bench-ui")
	}
	p := sit(t, 1280, 800)
	small := p.cost("the baseline, 24 channels", 1)
	require.NoError(t, p.store.Import(t.Context(), "synthetic", "2026-11-25T09:42:00Z", world(100_000)))
	radios := slices.Repeat([]string{"gale", "skerry"}, 3)[:5]
	lat, lon := 41.02, -55.31
	season, loads, err := p.store.NewPlan(t.Context(), store.Plan{Name: "Large", Region: "us", Lat: &lat, Lon: &lon, Radius: 150, Height: 1.5, TonePolicy: "encode first"}, store.Stamp{PersonID: 1, At: "2026-11-25T09:42:00Z", Label: "new"}, radios...)
	require.NoError(t, err)
	require.NoError(t, p.store.Edit(t.Context(), season.ID, season.Revision, store.Stamp{PersonID: 1, At: "2026-11-25T09:42:00Z", Label: "fill"}, func(e *store.Edit) error {
		for i := range 1000 {
			c := channel.New(freq.Hz(144_000_000 + 4_000*int64(i) + int64(i%7)*250))
			c.Name = fmt.Sprint("Channel ", i)
			id, err := e.AddChannel(c, listing.ID{})
			if err != nil {
				return err
			}
			for _, l := range loads {
				if err := e.AddEntry(store.Entry{LoadID: l.ID, Slot: i + 1, ChannelID: id, ShortName: fmt.Sprint("C", i), Scan: entry.ScanYes}); err != nil {
					return err
				}
			}
			if err := e.Number(id, i+1); err != nil {
				return err
			}
		}
		return nil
	}))
	p.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf("localStorage.setItem('plan', '%d'); localStorage.setItem('load', '%d')", season.ID, loads[0].ID)))
	large := p.cost("1,000 channels, five radios, 100,000 records", 8)
	t.Logf("1,000 channels against 24: interactive %.1f×, edit %.1f×", large[0]/small[0], large[1]/small[1])
	p.large(season.ID, loads[0].ID)
}

// large measures what is done to many slots at once: a paste of 500 rows until their
// verdicts are painted, and the matrix of 1,000 channels on 20 radios.
func (p *person) large(planID, load int64) {
	p.t.Helper()
	var text strings.Builder
	text.WriteString("name\treceive MHz\n")
	for i := range 500 {
		fmt.Fprintf(&text, "Pasted %d\t%d.%03d\n", i, 440+i/200, i%200*5)
	}
	all := make([]int, 500)
	for i := range all {
		all[i] = i + 501
	}
	_, err := p.another().Plans.DeleteSome(p.t.Context(), load, all, plan.Latest)
	require.NoError(p.t, err)
	p.reloads()
	p.until(`document.querySelector('#slots [role=row][id]').innerText.match(/agrees|unverified|conflict|stop/) !== null`)
	p.do(focus("#slots"))
	p.presses(kb.End, kb.ModifierCtrl)
	p.do(chromedp.Evaluate[chromedp.Void](`window.pasted = 0; window.began = performance.now();
		new MutationObserver((_, o) => { const row = [...document.querySelectorAll('#slots [role=row][id]')].find((r) => r.innerText.includes('Pasted')); if (!row?.innerText.match(/agrees|unverified|conflict|stop/)) return; o.disconnect(); requestAnimationFrame(() => setTimeout(() => (window.pasted = performance.now() - window.began))); }).observe(document.querySelector('#slots'), {childList: true, subtree: true, characterData: true});`))
	p.pastesInto(text.String())
	p.until("window.pasted > 0")
	pasted := ask[float64](p, "window.pasted")
	p.reads("[role=status]", "Pasted 500")

	for range 15 {
		_, err := p.another().Plans.AddUnit(p.t.Context(), planID, "moor", plan.UnitForm{})
		require.NoError(p.t, err)
	}
	p.reloads()
	p.until("[...document.querySelectorAll('#slots [role=columnheader]')].length >= 27")
	p.until(`document.querySelector('#slots [role=row][id]').innerText.match(/agrees|unverified|conflict|stop/) !== null`)
	p.until("new Promise((r) => setTimeout(() => r(true), 500))")
	var opened []float64
	for range 5 {
		p.do(chromedp.Evaluate[chromedp.Void](`window.matrix = 0; addEventListener('keydown', () => { const began = performance.now();
			new MutationObserver((_, o) => { if (!document.querySelector('[data-matrix] [id^=fit-]')) return; o.disconnect(); requestAnimationFrame(() => setTimeout(() => (window.matrix = performance.now() - began))); }).observe(document, {childList: true, subtree: true}); }, {once: true, capture: true})`))
		p.presses("f", kb.ModifierAlt)
		p.until("window.matrix > 0")
		opened = append(opened, ask[float64](p, "window.matrix"))
		p.presses(kb.Escape)
		p.until("document.querySelector('[role=dialog]') === null")
	}
	slices.Sort(opened)
	p.t.Logf("500 rows pasted and judged after %.0f ms; the matrix of 1,000 channels on 20 radios painted after %.0f ms (median of 5)", pasted, opened[2])
}

// world is so many published repeaters, a tenth of them around the plan.
func world(n int) []listing.Record {
	r := rand.New(rand.NewPCG(1, 2))
	out := make([]listing.Record, n)
	for i := range out {
		lat, lon := r.Float64()*140-70, r.Float64()*360-180
		if i%10 == 0 {
			lat, lon = 41.02+r.Float64()*5-2.5, -55.31+r.Float64()*6-3
		}
		f := freq.Hz(145_200_000 + 5_000*r.Int64N(400))
		out[i] = listing.Record{Key: fmt.Sprint(i), Callsign: fmt.Sprintf("QX%d", i), Output: f, Input: f - 600_000, Mode: listing.FM, Locality: fmt.Sprint("Hill ", i), Lat: &lat, Lon: &lon, Status: listing.OnAir, Source: "synthetic"}
	}
	return out
}

// cost measures the page: when it can be used, and how long an edit takes, in ms.
func (p *person) cost(what string, slot int) [2]float64 {
	p.t.Helper()
	p.do(chromedp.Func(func(ctx context.Context, target *chromedp.Target) error {
		_, err := cdp.Call(ctx, target, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: `
			if (!window.long) {
			window.long = [];
			new PerformanceObserver((l) => l.getEntries().forEach((e) => window.long.push([Math.round(e.startTime), Math.round(e.duration)]))).observe({entryTypes: ['longtask']});
			new MutationObserver((_, o) => { if (document.querySelector('#slots [role=row][id]') && document.querySelector('#entry')) { o.disconnect(); requestAnimationFrame(() => setTimeout(() => (window.usable = performance.now()))); } }).observe(document, {childList: true, subtree: true}); }`})
		return err
	}))
	var starts []float64
	for range 5 {
		p.do(chromedp.Navigate(p.url))
		p.until("window.usable > 0")
		starts = append(starts, ask[float64](p, "window.usable"))
	}
	p.until(`document.querySelector('#slots [role=row][id]').innerText.match(/agrees|unverified|conflict|stop/) !== null`)
	load := ask[string](p, "JSON.stringify(window.long.splice(0))")
	p.do(chromedp.Evaluate[chromedp.Void]("document.querySelector('.slots').scrollTop = 0"))
	row := fmt.Sprintf("#slot-%d", slot)
	p.sees(row)
	var edits []float64
	for i := range 12 {
		p.do(focus(row), clickCell(row, "receive"))
		p.presses(kb.Enter)
		p.sees(row + " input")
		p.clears()
		p.hammers(fmt.Sprintf("145.%03d", 500+5*i))
		p.do(chromedp.Evaluate[chromedp.Void](fmt.Sprintf(`window.edited = 0; addEventListener('keydown', () => { const began = performance.now(); const row = document.querySelector('%s');
			new MutationObserver((_, o) => { if (row.querySelector('input') || !row.innerText.includes('145.%03d')) return; o.disconnect(); requestAnimationFrame(() => setTimeout(() => (window.edited = performance.now() - began))); }).observe(row, {childList: true, subtree: true, characterData: true}); }, {once: true, capture: true})`, row, 500+5*i)))
		p.presses(kb.Enter)
		p.until("window.edited > 0")
		edits = append(edits, ask[float64](p, "window.edited"))
	}
	p.t.Log("of it the application: ", ask[string](p, "performance.getEntriesByType('resource').filter((e) => e.name.includes('/entries/')).slice(-8).map((e) => Math.round(e.duration) + ' ms, ' + e.transferSize + ' B').join('; ')"))
	editing := ask[string](p, "JSON.stringify(window.long.splice(0))")
	slices.Sort(starts)
	slices.Sort(edits)
	for range 10 {
		p.do(chromedp.Evaluate[chromedp.Void]("{ const s = document.querySelector('.slots'); s.scrollTop = Math.random() * s.scrollHeight; }"))
		p.until("new Promise((r) => setTimeout(() => r(true), 60))")
	}
	p.t.Logf("%s: usable %.0f ms after the start of the page (median of %d), an edit painted with its verdict after %.0f ms (median of %d, longest %.0f)\nlong tasks [at, for] ms: while loading %s, while editing %s, while scrolling %s",
		what, starts[len(starts)/2], len(starts), edits[len(edits)/2], len(edits), edits[len(edits)-1], load, editing, ask[string](p, "JSON.stringify(window.long.splice(0))"))
	return [2]float64{starts[len(starts)/2], edits[len(edits)/2]}
}
