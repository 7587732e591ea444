package print

import (
	"crypto/sha256"
	_ "embed"
	"encoding/base64"
	"fmt"
	"html/template"
	"io"
	"strings"

	"mnemos/core/standing"
)

var (
	//go:embed paper.html
	paperHTML string
	//go:embed paper.css
	paperCSS string
	//go:embed phone.css
	phoneCSS string
	//go:embed phone.js
	phoneJS string
)

// HTML writes the paper as one file that needs nothing else: its styles and fonts are
// in it. That for a phone searches and keeps ticks by itself.
func (p *Paper) HTML(w io.Writer) error {
	if err := p.template().Execute(w, p); err != nil {
		return fmt.Errorf("write the page: %w", err)
	}
	return nil
}

func (p *Paper) template() *template.Template {
	return template.Must(template.New("paper").Funcs(template.FuncMap{
		"fonts":    func() template.CSS { return fontFaces() },
		"css":      func(*Paper) template.CSS { return p.css() },
		"script":   func() template.JS { return template.JS(phoneJS) }, //nolint:gosec // our own file
		"phone":    func() bool { return p.Kind == Phone },
		"radio":    radioWords,
		"reminder": func() string { return Reminder },
		"join":     func(s []string) string { return strings.Join(s, ", ") },
		"word":     rowWord,
		"words":    rowWords,
	}).Parse(paperHTML))
}

func (p *Paper) css() template.CSS {
	if p.Kind == Phone {
		return template.CSS(paperCSS + phoneCSS) //nolint:gosec // our own files
	}
	size := map[string]string{"a4": "A4", "letter": "letter"}[p.Size]
	if p.Kind == Pocket {
		size += " landscape"
	}
	return template.CSS(paperCSS + "@page { size: " + size + "; margin: 12mm; }\n") //nolint:gosec // our own file
}

// Policy is what a browser may do with the page: nothing but show it.
func (p *Paper) Policy() string {
	sum := sha256.Sum256([]byte(string(fontFaces()) + string(p.css())))
	return "default-src 'none'; style-src 'sha256-" + base64.StdEncoding.EncodeToString(sum[:]) + "'; font-src data:; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"
}

func fontFaces() template.CSS {
	var b strings.Builder
	for _, f := range []struct {
		family string
		weight int
		data   []byte
	}{{"Mnemos Text", 400, textFont}, {"Mnemos Text", 700, textStrong}, {"Mnemos Figures", 400, figuresFont}, {"Mnemos Figures", 700, figuresStrong}} {
		fmt.Fprintf(&b, "@font-face { font-family: %q; font-weight: %d; src: url(data:font/ttf;base64,%s) format(\"truetype\"); }\n", f.family, f.weight, base64.StdEncoding.EncodeToString(f.data))
	}
	return template.CSS(b.String()) //nolint:gosec // our own fonts
}

// rowWord is how far a channel has come, or what speaks about it.
func rowWord(r PaperRow) string {
	if r.Standing != standing.Planned {
		return string(r.Standing)
	}
	return string(r.Verdict)
}

// rowWords is what a search finds a channel by.
func rowWords(r PaperRow) string {
	return strings.ToLower(strings.Join([]string{fmt.Sprint(r.Slot), r.Name, r.Short, r.Receive, r.Transmit, r.Shift, r.Out, r.In, string(r.Verdict), string(r.Standing)}, " "))
}
