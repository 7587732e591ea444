package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp/kb"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"mnemos/core/standing"
	"mnemos/core/trial"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/logbook"
	"mnemos/internal/plan"
)

// TestScreenshots makes the pictures of docs/screenshots; `make screenshots`
// says where to. It is a test so that it sees what the other tests see.
func TestScreenshots(t *testing.T) {
	folder := os.Getenv("MNEMOS_SCREENSHOTS")
	if folder == "" {
		t.Skip("set MNEMOS_SCREENSHOTS to a folder, or run make screenshots")
	}
	for _, v := range []struct {
		name          string
		width, height int64
		theme         string
		shows         func(*person)
	}{
		{"plan-day", 1280, 800, "day", typing},
		{"plan-night", 1280, 800, "night", typing},
		{"plan-phone", 390, 844, "day", typing},
		{"plan-radios", 1280, 800, "day", several},
		{"plan-work", 1280, 800, "day", working},
		{"columns", 1280, 800, "day", dividing},
		{"keypad-sheet", 1280, 1000, "day", keying},
		{"load", 1280, 800, "day", loading},
		{"load-walk", 1280, 800, "day", walking},
		{"load-phone", 390, 844, "red", resting},
		{"listen", 1280, 1000, "day", listening},
		{"find", 1280, 800, "day", finding},
		{"find-phone", 390, 844, "red", lacking},
		{"relay", 1280, 900, "day", linking},
		{"beacon", 1280, 1000, "day", sending},
		{"log", 1280, 900, "night", trying},
		{"radios", 1280, 800, "day", editing},
		{"settings", 1280, 800, "day", setting},
		{"first", 1280, 800, "day", answering},
	} {
		t.Run(v.name, func(t *testing.T) {
			var p *person
			if v.name == "first" {
				p = begin(t, v.width, v.height, nothing)
				p.reads("header", "A new folder")
			} else {
				p = sit(t, v.width, v.height)
			}
			for ask[string](p, "document.documentElement.dataset.theme") != v.theme {
				p.presses("t", kb.ModifierAlt)
			}
			v.shows(p)
			p.shot(filepath.Join(folder, v.name+".png"))
		})
	}
}

// answering is somebody who begins with an empty folder.
func answering(p *person) {
	p.fills("#place", "GN21ia")
	p.fills("#person", "QX1AA")
	p.do(click("input[value=some]"))
	p.do(clickText("2 m listen"))
	p.do(clickText("70 cm listen"))
	p.do(click("input[value=trail]"))
}

func typing(p *person) {
	p.presses("/")
	p.types(`147.24 + 100 "Beacon Hill"`)
	p.reads("#say", "transmits 147.840 MHz")
	p.reads("section", "Store in slot")
}

// several is a line on its way into three radios of five, two of one kind.
func several(p *person) {
	for _, u := range []struct{ profile, name string }{{"trail", "Trail, hut"}, {"beck", "Beck"}} {
		_, err := p.another().Plans.AddUnit(p.t.Context(), 1, u.profile, plan.UnitForm{Name: &u.name})
		require.NoError(p.t, err)
	}
	p.reads("[role=columnheader]", "Beck")
	p.types("146.565 Hut watch")
	p.reads("fieldset", "also goes into")
	p.do(clickLabel("Ferry"))
	p.do(clickLabel("Trail, hut"))
	p.reads("section", "Store in slot 4 of 3 radios")
}

// working is the list of what to do next, with three channels chosen.
func working(p *person) {
	p.do(focus("#slots"))
	p.presses(kb.Home, kb.ModifierCtrl)
	p.presses(kb.ArrowDown, kb.ModifierShift)
	p.presses(kb.ArrowDown, kb.ModifierShift)
	p.presses("w", kb.ModifierAlt)
	p.reads("#evidence", "A witness says otherwise")
	p.do(chromedp.Evaluate[chromedp.Void]("document.querySelector('.slots').scrollTop = 0"))
}

// dividing is columns of somebody's own.
func dividing(p *person) {
	p.presses("s", kb.ModifierCtrl)
	p.mouse("Columns of your own…")
	p.reads("[aria-label=Sample]", "146.5200")
}

// loading is what a radio will hold, before the walk.
func loading(p *person) {
	ask[any](p, `localStorage.setItem('pace', JSON.stringify({presses: 400, seconds: 560}))`)
	p.goes("/load")
	p.reads("main", "What Trail will hold")
	p.reads("main", "Start with slot")
}

// walking is a step in the middle of a walk, with a tone to step to.
func walking(p *person) {
	loading(p)
	_, err := p.another().Plans.Stand(p.t.Context(), 1, []int{1, 5, 6, 8, 16, 23}, standing.Keyed, plan.Latest)
	require.NoError(p.t, err)
	p.reads("main", "6 of 24 are stored already")
	p.presses(kb.Enter, kb.ModifierCtrl)
	for range 3 {
		p.walks("It shows this")
		p.presses(kb.Enter)
	}
	p.walks("tone sent")
}

// resting is what the display must show, on a phone in red light.
func resting(p *person) {
	loading(p)
	p.touchscreen()
	p.thumb("Start with slot")
	for range 40 {
		if p.now("It shows this") {
			return
		}
		p.thumb("Done, next step")
	}
}

func keying(p *person) {
	p.presses(kb.Enter, kb.ModifierCtrl)
	p.reads("main", "At rest the display must show")
}

// editing is a copy of a shipped radio, with fewer slots than the plan needs.
func editing(p *person) {
	p.goes("/radios/beck")
	p.reads("h1", "Beck")
	p.do(clickText("Copy to change"))
	p.reads("[role=status]", "Copied")
	p.fills("#name", "Loft radio")
	p.reads(".beside", "−6 no slot of that number")
}

func finding(p *person) {
	p.goes("/find")
	p.reads("[role=option]", "Holm Rigg")
	p.do(clickOption("Holm Rigg"))
	p.reads("section", "The lists exchange its tones.")
	p.fills("#find-line", "60km fm")
	p.reads(".line", "usable with FM")
	p.until("document.querySelectorAll('.chart text').length > 10")
}

// lacking opens the nearest that the radio lacks, in its place.
func lacking(p *person) {
	p.goes("/find")
	p.reads(".chart", "Rook Hey")
	p.mouse("Herring Gate ")
	p.reads(".opened", "It would hear you")
}

// bringing is a table with a title, decimal commas and two rows that cannot be
func setting(p *person) {
	p.goes("/settings")
	p.reads("main", "repeaters to talk through")
}

// listening is a Saturday evening with the weather left in the scan.
func listening(p *person) {
	p.goes("/listen")
	p.mouse("Saturday 21:00")
	p.reads("main", "Saturday 21:00")
	p.do(focus("#scan-15"))
	p.presses(" ")
	p.reads("main", "on Weather")
	p.do(focus("#scan-2"), blur())
	p.reads(".panel h2", "Walk control")
	p.until("document.querySelector('.said.shown') === null")
	ask[any](p, "scrollTo(0, 0)")
}

// trying is a channel that stays silent, from the vehicle.
func trying(p *person) {
	p.calls("QX9ABC")
	p.logs(17, "08:52", trial.Reply, "QX3TAM")
	p.logs(8, "08:57", trial.Weak, "")
	p.logs(5, "09:04", trial.Ident, "")
	p.logs(24, "09:13", trial.Nothing, "")
	p.logs(16, "09:24", trial.Tail, "")
	p.goes("/log")
	p.mouse("Marran Light")
	p.reads("main", "QX9ABC testing")
	p.mouse("in the vehicle")
	p.mouse("nothing")
	p.reads(".panel", "Why nothing came back")
	p.until("document.querySelector('.said.shown') === null")
	ask[any](p, "scrollTo(0, 0)")
}

// logs is a call as the channel is stored, this morning.
func (p *person) logs(slot int, at string, came trial.Answer, from string) {
	p.t.Helper()
	app := p.another()
	c, err := app.Log.Card(p.t.Context(), demotest.Trail, slot)
	require.NoError(p.t, err)
	set := c.Acts[0].Setting
	set.Where = "vehicle"
	form := logbook.Form{Kind: trial.Key, Setting: set, Answer: came, Station: from, At: "2026-11-25T" + at + ":00Z", Spot: "harbour road"}
	_, err = app.Log.Record(p.t.Context(), demotest.Trail, slot, form)
	require.NoError(p.t, err)
}

// linking is the relay of the demonstration, as it stands.
func linking(p *person) {
	p.goes("/relay")
	p.mouse("Relay with Ferry")
	p.reads(".panel", "You would not hear Orrin Moor")
	p.reads("main", "Speak from here")
}

// sending is the station of the demonstration, with its walk.
func sending(p *person) {
	p.goes("/beacon")
	p.reads("main", "840.8 ms")
	p.mouse("or the walk of the demonstration")
	p.reads("main", "6.1 km in 1:5")
	ask[any](p, "document.activeElement.blur()")
	ask[any](p, "scrollTo(0, 0)")
}
