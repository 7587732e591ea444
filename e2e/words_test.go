package e2e

import (
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// words are names, places and figures as people type them.
var words = strings.Fields(`hill Marran cairn grey Skua island quay plan find radio undo kilo import add copy theme settings go
	146.94 147,24 -600 +600 88.5 103.5 D023N #14 433.35 low nfm skip "Beacon Hill" Ünder Łódź Žižkov GN21ia 41.02 -55.31 1750 2m 70cm rx only
	keypad sheet red night day print save delete Ferry Lantern Trail 100/77 ts carrier simplex repeater.`)

// TestWordsChangeNothing types 200 words into every view while nothing has the
// focus: nothing that is stored changes, and where there is a line or a search
// the words are in it.
func TestWordsChangeNothing(t *testing.T) {
	p := sit(t, 1280, 800)
	before, err := p.store.Head(t.Context())
	require.NoError(t, err)
	r := rand.New(rand.NewPCG(7, 11))
	for _, view := range []struct{ path, into string }{
		{"/", "#entry"}, {"/find", "#find-line"}, {"/radios", ""}, {"/settings", ""}, {"/keypad/1/8", ""},
	} {
		p.goes(view.path)
		if view.into != "" {
			p.sees(view.into)
		}
		p.do(blur())
		var typed []string
		for range 200 {
			typed = append(typed, words[r.IntN(len(words))])
		}
		text := strings.Join(typed, " ")
		p.hammers(text)
		if view.into != "" {
			begins := ask[string](p, "document.querySelector("+quote(view.into)+").value")
			assert.True(t, len(begins) > 20 && strings.HasPrefix(text, begins[:20]), "%s holds %q", view.path, begins)
			p.clears()
		}
		assert.Equal(t, view.path, strings.TrimSuffix(ask[string](p, "location.pathname.replace(/^.radios.*/, '/radios')"), "/x"), "the view is still there")
		after, err := p.store.Head(t.Context())
		require.NoError(t, err)
		require.Equal(t, before, after, "something was changed by typing on %s", view.path)
	}

	// What was typed was no command; the same keys with Ctrl, in the open, are.
	p.goes("/")
	p.reads("#slots", "Marran Light")
	p.do(focus("#slot-7"))
	p.reads("#evidence h2", "Marran Light")
	p.presses("=")
	p.reads("#slot-7", "agrees")
	p.presses("z", kb.ModifierCtrl)
	p.reads("#slot-7", "conflict")
}
