package entry

import (
	"fmt"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/rogpeppe/go-internal/txtar"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/band"
	"mnemos/core/channel"
	"mnemos/core/freq"
	"mnemos/core/tone"
)

// The corpus (testdata/corpus/README.txt) is what operators write. Expected
// channels are read by the few lines below and never by the grammar itself.

// wanted is what one line is meant to be.
type wanted struct {
	channel  channel.Channel
	transmit freq.Hz // 0: never
	slot     *int
	scan     Scan
	callsign string
	access   string
	find     string // a name to look up
	ask      bool
	says     string
	offers   []wanted
}

type corpusLine struct{ region, class, line, expect string }

func corpus(t *testing.T) []corpusLine {
	files, err := filepath.Glob("testdata/corpus/*.txtar")
	require.NoError(t, err)
	var out []corpusLine
	for _, f := range files {
		a, err := txtar.ParseFile(f)
		require.NoError(t, err)
		for _, section := range a.Files {
			region, class, ok := strings.Cut(section.Name, ": ")
			require.True(t, ok, section.Name)
			for line := range strings.Lines(string(section.Data)) {
				text, expect, ok := strings.Cut(strings.TrimSuffix(line, "\n"), " => ")
				require.True(t, ok, line)
				out = append(out, corpusLine{region, class, strings.NewReplacer(`\n`, "\n", `\t`, "\t").Replace(text), expect})
			}
		}
	}
	return out
}

func parseWanted(t *testing.T, s string) wanted {
	if rest, ok := strings.CutPrefix(s, "offers "); ok {
		w := wanted{ask: true}
		for part := range strings.SplitSeq(rest, " ;; ") {
			w.offers = append(w.offers, parseWanted(t, part))
		}
		return w
	}
	if rest, ok := strings.CutPrefix(s, "ask"); ok {
		return wanted{ask: true, says: strings.TrimPrefix(rest, " ~")}
	}
	quotedText := func() (text string) {
		from, to := strings.IndexByte(s, '"'), strings.LastIndexByte(s, '"')
		if from < 0 {
			return ""
		}
		text = strings.ReplaceAll(s[from+1:to], `""`, `"`)
		s = s[:from] + s[to+1:]
		return text
	}
	name := quotedText()
	if strings.HasPrefix(s, "find") {
		return wanted{ask: true, find: name}
	}
	fields := strings.Fields(s)
	rx, tx, split := strings.Cut(fields[0], ">")
	w := wanted{channel: channel.New(freq.MustParse(rx + " MHz")), scan: ScanYes}
	w.channel.Name, w.transmit = name, w.channel.Receive
	switch {
	case tx == "-":
		w.transmit = 0
	case split:
		w.transmit = freq.MustParse(tx + " MHz")
	}
	for _, f := range fields[1:] {
		switch {
		case f == "nfm":
			w.channel.Width = channel.Narrow
		case f == "low" || f == "mid":
			w.channel.Power = channel.Power(f)
		case f == "skip":
			w.scan = ScanSkip
		case f == "prio":
			w.scan = ScanPriority
		case f[0] == '#':
			n, err := strconv.Atoi(f[1:])
			require.NoError(t, err)
			w.slot = &n
		case strings.HasPrefix(f, "call="):
			w.callsign = f[5:]
		case strings.HasPrefix(f, "access="):
			w.access = f[7:]
		case f[0] == 'T':
			w.channel.TransmitTone = tone.MustParse(f[1:])
		case f[0] == 'R':
			w.channel.ReceiveTone = tone.MustParse(f[1:])
		default:
			t.Fatalf("expected channel %q: %q is not known", s, f)
		}
	}
	return w
}

// outcome is how a line came out against what was wanted.
type outcome struct {
	exact     bool
	dangerous string // transmit frequency, tone or permission wrong without being asked
	got       string
}

func hold(w wanted, d *Draft) outcome {
	got := Format(d.Channel, d.Slot, d.Scan)
	if !d.Complete() {
		got = "asks: " + got
		if p := d.Problem(); p != nil {
			got = "asks: " + p.Problem
		}
	}
	o := outcome{got: got}
	if w.ask {
		o.exact = !d.Complete() && asked(w, d)
		if d.Complete() {
			o.dangerous = "stored instead of asked"
		}
		return o
	}
	if !d.Complete() {
		return o
	}
	c := d.Channel
	tx, _ := c.Transmit()
	switch {
	case tx != w.transmit:
		o.dangerous = fmt.Sprintf("transmits %v, not %v", tx, w.transmit)
	case c.TransmitTone != w.channel.TransmitTone || c.ReceiveTone != w.channel.ReceiveTone:
		o.dangerous = "other tones"
	}
	o.exact = o.dangerous == "" && c.Receive == w.channel.Receive && c.Name == w.channel.Name && c.Width == w.channel.Width && c.Power == w.channel.Power &&
		d.Scan == w.scan && (d.Slot == nil) == (w.slot == nil) && (d.Slot == nil || *d.Slot == *w.slot) && alsoSays(w, d)
	return o
}

// asked reports whether a line that must not be stored says what it should.
func asked(w wanted, d *Draft) bool {
	if len(w.offers) != len(d.Offers) || w.find != "" && w.find != d.Query() {
		return false
	}
	for i, o := range w.offers {
		if !hold(o, d.Offers[i]).exact {
			return false
		}
	}
	p := d.Problem()
	return w.says == "" || p != nil && strings.Contains(p.Problem, w.says)
}

func alsoSays(w wanted, d *Draft) bool { return w.callsign == d.Callsign && w.access == d.Access }

func TestCorpus(t *testing.T) {
	lines := corpus(t)
	classes, seen := map[string]bool{}, map[string]bool{}
	exact, dangerous := 0, 0
	for _, l := range lines {
		classes[l.region+": "+l.class] = true
		assert.False(t, seen[l.region+l.line], "%s: %q stands twice", l.class, l.line)
		seen[l.region+l.line] = true
		o := hold(parseWanted(t, l.expect), Read(l.line, band.MustLoad(l.region)))
		if o.exact {
			exact++
		} else {
			t.Logf("%s: %s: %q => %s, not %s", l.region, l.class, l.line, o.got, l.expect)
		}
		if o.dangerous != "" {
			dangerous++
			t.Errorf("%s: %q: %s without being asked", l.class, l.line, o.dangerous)
		}
	}
	assert.GreaterOrEqual(t, len(lines), 600)
	assert.GreaterOrEqual(t, len(classes), 60)
	assert.GreaterOrEqual(t, float64(exact), 0.98*float64(len(lines)))
	t.Logf("%d lines in %d classes: %d exact (%.1f %%), %d dangerous", len(lines), len(classes), exact, 100*float64(exact)/float64(len(lines)), dangerous)
}
