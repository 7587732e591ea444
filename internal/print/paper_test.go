package print_test

import (
	"bytes"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/ledongthuc/pdf"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"mnemos/core/channel"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/keypad"
	"mnemos/core/radio"
	"mnemos/internal/demo/demotest"
	"mnemos/internal/print"
)

// read takes the text out of a PDF with a library that has nothing to do with what
// wrote it; blanks are left out, because a reader guesses them.
func read(t *testing.T, data []byte) (text string, pages int) {
	t.Helper()
	r, err := pdf.NewReader(bytes.NewReader(data), int64(len(data)))
	require.NoError(t, err)
	var b strings.Builder
	for n := 1; n <= r.NumPage(); n++ {
		s, err := r.Page(n).GetPlainText(nil)
		require.NoError(t, err)
		b.WriteString(s)
	}
	// This reader keeps the low byte of a character; make proof asks another one.
	return strings.NewReplacer("\x12", "−", "\x13", "–").Replace(squeezed(b.String())), r.NumPage()
}

func squeezed(s string) string { return regexp.MustCompile(`\s+`).ReplaceAllString(s, "") }

// TestPaper: every kind of paper says of every channel what the plan says, with its
// fonts in the file, the plan, the edition, the date and where the data come from.
func TestPaper(t *testing.T) {
	a := demotest.Open(t)
	for load := int64(1); load <= 3; load++ {
		ledger := a.Ledger(t, load)
		for _, kind := range []string{print.Field, print.Pocket, print.Cards, print.Keypads, print.Phone} {
			for _, size := range []string{"a4", "letter"} {
				p, err := a.Sheets.Paper(t.Context(), load, kind, size)
				require.NoError(t, err)
				require.Len(t, p.Rows, len(ledger.Rows))
				var b bytes.Buffer
				require.NoError(t, p.PDF(&b))
				data := b.Bytes()
				assert.GreaterOrEqual(t, bytes.Count(data, []byte("/FontFile2")), 3, "the fonts are in it")
				assert.NotContains(t, string(data), "/Helvetica")
				fromPDF, _ := read(t, data)
				b.Reset()
				require.NoError(t, p.HTML(&b))
				fromHTML := squeezed(plain(b.String()))
				for from, text := range map[string]string{"PDF": fromPDF, "HTML": fromHTML} {
					assert.Contains(t, text, squeezed(p.Plan), from)
					assert.Contains(t, text, "25November2026", from)
					assert.Contains(t, text, "isinvented", from)
					assert.Contains(t, text, squeezed("Follow your local rules and your licence."), from)
					assert.Contains(t, text, strconv.FormatInt(p.Edition, 10), from)
					for i, r := range p.Rows {
						row := ledger.Rows[i] // what the plan shows, not what the paper made of it
						assert.Equal(t, row.Slot, r.Slot)
						assert.Contains(t, text, squeezed(row.Channel.Name), "%s %s", from, kind)
						assert.Contains(t, text, row.Channel.Receive.MHz(), "%s %s slot %d", from, kind, r.Slot)
						assert.Equal(t, row.Verdict, r.Verdict)
						if tx, ok := row.Channel.Transmit(); ok && kind == print.Field && row.Verdict != evidence.Stop && r.Transmit != "–" {
							assert.Contains(t, text, tx.MHz()+signOf(r.Shift), "%s slot %d", from, r.Slot)
						}
					}
				}
			}
		}
	}
	for _, bad := range [][2]string{{"poster", "a4"}, {"field", "a3"}, {"", ""}} {
		_, err := a.Sheets.Paper(t.Context(), 1, bad[0], bad[1])
		assert.Error(t, err)
	}
}

// TestPaperByAnother reads the field sheet with pdftotext, line by line: slot,
// frequencies, shift and tones of each channel stand in one line, as the plan has them.
func TestPaperByAnother(t *testing.T) {
	if os.Getenv("MNEMOS_PROOF") == "" {
		t.Skip("make proof")
	}
	a := demotest.Open(t)
	for load := int64(1); load <= 3; load++ {
		p, err := a.Sheets.Paper(t.Context(), load, print.Field, "a4")
		require.NoError(t, err)
		path := filepath.Join(t.TempDir(), "field.pdf")
		f, err := os.Create(path)
		require.NoError(t, err)
		require.NoError(t, p.PDF(f))
		require.NoError(t, f.Close())
		out, err := exec.CommandContext(t.Context(), "pdftotext", "-layout", path, "-").Output()
		require.NoError(t, err, "make proof installs poppler-utils")
		fonts, err := exec.CommandContext(t.Context(), "pdffonts", path).Output()
		require.NoError(t, err)
		assert.NotRegexp(t, `(?m)^\S+ +\S+ +\S+ +\S+ +no `, string(fonts), "every font is embedded")
		text := string(out)
		for _, row := range a.Ledger(t, load).Rows {
			c, _ := radio.Fit(row.Channel, p.Radio)
			tx, sends := c.Transmit()
			line := fmt.Sprintf(`(?m)^ *%d +%s +.*%s`, row.Slot, regexp.QuoteMeta(row.Channel.Name), c.Receive.MHz())
			if sends && row.Verdict != evidence.Stop {
				line += " +" + tx.MHz()
			}
			assert.Regexp(t, line, text)
		}
	}
}

// signOf is how a shift stands beside the transmit frequency.
func signOf(shift string) string { return squeezed(shift) }

// plain is the text of a page.
func plain(html string) string {
	html = regexp.MustCompile(`(?s)<(style|script)>.*?</(style|script)>`).ReplaceAllString(html, "")
	html = regexp.MustCompile(`<[^>]*>`).ReplaceAllString(html, "")
	return strings.NewReplacer("&#43;", "+", "&amp;", "&", "&#39;", "'", "&#34;", `"`).Replace(html)
}

// TestPaperNeedsNothing: the page loads nothing from anywhere, and may do nothing.
func TestPaperNeedsNothing(t *testing.T) {
	a := demotest.Open(t)
	for _, kind := range []string{print.Field, print.Phone} {
		p, err := a.Sheets.Paper(t.Context(), demotest.Trail, kind, "a4")
		require.NoError(t, err)
		var b bytes.Buffer
		require.NoError(t, p.HTML(&b))
		page := b.String()
		for _, from := range regexp.MustCompile(`(?:src|href|url)\s*[=(]\s*["']?([^"')>\s]{1,40})`).FindAllStringSubmatch(page, -1) {
			assert.True(t, strings.HasPrefix(from[1], "data:"), from[0])
		}
		assert.NotContains(t, page, "ZgotmplZ", "a template that did not trust its own words")
		assert.Contains(t, p.Policy(), "default-src 'none'")
		assert.NotContains(t, p.Policy(), "unsafe")
	}
}

// TestLongNames: a name in another script is told from others by its short name, and
// what is hostile in a page is text.
func TestLongNames(t *testing.T) {
	p := &print.Paper{Kind: print.Field, Size: "a4", Plan: `<script>alert(1)</script>`, Radio: demoRadio(t), Rows: []print.PaperRow{
		{Slot: 1, Name: "Маяк " + strings.Repeat("long ", 30), Short: "MAJAK", Receive: "146.940", Transmit: "146.340", Shift: "−0.600", Out: "88.5 Hz", In: "open", Verdict: evidence.Unverified},
	}}
	var b bytes.Buffer
	require.NoError(t, p.PDF(&b))
	text, pages := read(t, b.Bytes())
	assert.Equal(t, 1, pages)
	assert.Contains(t, text, "MAJAK")
	assert.Contains(t, text, "¡¡¡¡long", "a box, as this reader reads it")
	b.Reset()
	require.NoError(t, p.HTML(&b))
	assert.NotContains(t, b.String(), "<script>alert")
	assert.Contains(t, b.String(), "Маяк")
}

func demoRadio(t *testing.T) *radio.Profile {
	t.Helper()
	r, err := radio.Load("trail")
	require.NoError(t, err)
	return r
}

// BenchmarkPDF writes the sheets of 200 channels.
func BenchmarkPDF(b *testing.B) {
	p, err := radio.Load("trail")
	require.NoError(b, err)
	paper := &print.Paper{Size: "a4", Plan: "Two hundred", Unit: "Trail", Radio: p}
	for i := range 200 {
		c := channel.New(freq.Hz(144_000_000 + i*12_500))
		c.Name = fmt.Sprintf("Channel %d", i+1)
		paper.Rows = append(paper.Rows, print.PaperRow{
			Slot: i + 1, Name: c.Name, Receive: c.Receive.MHz(), Transmit: c.Receive.MHz(), Shift: "simplex",
			Sheet: keypad.Write(keypad.Wanted{Channel: c, Slot: i + 1, Short: "C"}, p),
		})
	}
	for _, kind := range []string{print.Field, print.Pocket, print.Cards, print.Keypads} {
		b.Run(kind, func(b *testing.B) {
			paper.Kind = kind
			for b.Loop() {
				require.NoError(b, paper.PDF(io.Discard))
			}
		})
	}
}
