package e2e

import (
	"os"
	"path/filepath"
	"testing"
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
		sheet         bool
	}{
		{"plan-day", 1280, 800, "day", false},
		{"plan-night", 1280, 800, "night", false},
		{"plan-red", 1280, 800, "red", false},
		{"plan-phone", 390, 844, "day", false},
		{"keypad-sheet", 1280, 1000, "day", true},
	} {
		t.Run(v.name, func(t *testing.T) {
			p := sit(t, v.width, v.height)
			for ask[string](p, "document.documentElement.dataset.theme") != v.theme {
				p.do(click("button[aria-label^=Theme]"))
			}
			if v.sheet {
				p.presses("k")
				p.reads("main", "At rest the display must show")
			} else {
				p.presses("/")
				p.types(`147.24 + 100 "Beacon Hill"`)
				p.reads("#say", "transmits 147.840 MHz")
				p.reads("section", "Store in slot")
			}
			p.shot(filepath.Join(folder, v.name+".png"))
		})
	}
}
