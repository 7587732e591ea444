package assess

import (
	"fmt"
	"io"
	"strings"

	"mnemos/core/entry"
)

// WriteText prints an answer for people.
func (a *Answer) WriteText(w io.Writer) error {
	var b strings.Builder
	for _, x := range a.Words {
		as := string(x.As)
		if x.Guess != "" {
			as += " (" + x.Guess + ")"
		}
		fmt.Fprintf(&b, "%-16s %s\n", x.Text, as)
	}
	if s := entry.Sentence(entry.Say(a.Draft)); s != "" {
		fmt.Fprintf(&b, "\n%s\n", s)
	}
	for i, m := range a.Matches {
		if i == 0 {
			fmt.Fprintf(&b, "\npublished on this output:\n")
		}
		where := "place unknown"
		if m.Distance != nil {
			where = fmt.Sprintf("%.1f km, %03.0f°", *m.Distance, *m.Bearing)
		}
		fmt.Fprintf(&b, "  %s %s, %s: uplink %s, downlink %s; %s, %s\n", m.Locality, m.Callsign, m.Output, m.UplinkTone, m.DownlinkTone, where, m.Age)
		for _, d := range m.Differences {
			fmt.Fprintf(&b, "    %s differs: entered %s, published %s\n", d.Field.Words(), d.Entered, d.Published)
		}
	}
	fmt.Fprintf(&b, "\nverdict: %s\n", a.Verdict)
	for _, f := range a.Findings {
		fmt.Fprintf(&b, "\n%s: %s. %s (%s)\n", f.Severity, f.Title, f.Message, f.Rule)
		for _, y := range f.Why {
			fmt.Fprintf(&b, "    %s: %s\n", y.Witness, y.Text)
		}
		for _, x := range f.Fixes {
			fmt.Fprintf(&b, "    fix: %s (%s)\n", x.Label, x.Confidence)
		}
	}
	_, err := io.WriteString(w, b.String())
	return err
}
