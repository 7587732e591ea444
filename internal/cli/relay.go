package cli

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"mnemos/core/check"
	"mnemos/core/evidence"
	"mnemos/core/freq"
	"mnemos/core/geo"
	"mnemos/core/relay"
	"mnemos/internal/assess"
)

type relayFlags struct {
	readFlags

	a, b, hand, way, consent, control string
	timeout                           int
	identify                          []string
}

func relayCommand() *cobra.Command {
	f := relayFlags{}
	c := &cobra.Command{
		Use: "relay --radio UNIT --a LINE --b LINE", Short: "Work out a cross-band relay: whether it works, is allowed, and stays cool",
		Example: `  mnemos relay --radio ferry --hand trail --a '446.1 simplex ts 186.2 low' --b '145.29 - 110.9 mid'
  mnemos relay --radio ferry --listing repeaters.json --at GN21ia --a '446.1 ts 186.2' --b '145.29 - 110.9' --json`,
		Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error { return f.run(cmd) },
	}
	f.against(c)
	fl := c.Flags()
	fl.StringVar(&f.a, "a", "", "side A, an entry line")
	fl.StringVar(&f.b, "b", "", "side B, an entry line")
	fl.StringVar(&f.hand, "hand", "", "the handheld on the link, named like --radio")
	fl.StringVar(&f.way, "way", string(relay.Both), "both, out (A to B) or back (B to A)")
	fl.StringVar(&f.consent, "consent", "", "what the owners of two repeaters said")
	fl.StringVar(&f.control, "control", "", "how the relay is shut off")
	fl.IntVar(&f.timeout, "timeout", 3, "the time-out that is set, in minutes; 0 for off")
	fl.StringSliceVar(&f.identify, "identify", nil, "sides that a person identifies: A, B")
	return c
}

func (f *relayFlags) run(cmd *cobra.Command) error {
	s, err := f.setup(cmd)
	if err != nil {
		return err
	}
	r := relay.Look(s)
	w := cmd.OutOrStdout()
	if f.asJSON {
		enc := json.NewEncoder(w)
		enc.SetEscapeHTML(false)
		enc.SetIndent("", "  ")
		err = enc.Encode(answer(r))
	} else {
		_, err = io.WriteString(w, relayText(r))
	}
	if err != nil {
		return fmt.Errorf("write: %w", err)
	}
	if slices.ContainsFunc(r.Findings, func(f relay.Finding) bool { return f.Severity != check.Note }) {
		return exit(exitAsks)
	}
	return nil
}

// setup turns the flags into a relay.
func (f *relayFlags) setup(cmd *cobra.Command) (s relay.Setup, err error) {
	q, err := f.question()
	if err != nil {
		return s, usage{err}
	}
	if q.Radio == nil || f.a == "" || f.b == "" {
		return s, usage{errors.New("name the vehicle’s radio and both sides: mnemos relay --radio ferry --a '446.1 ts 186.2' --b '145.29 - 110.9'")}
	}
	s = relay.Defaults()
	s.Plan, s.Vehicle, s.Way, s.Consent, s.Control, s.Timeout, s.Bands = q.Plan, relay.Unit{Name: q.Radio.Name, Radio: q.Radio}, relay.Way(f.way), f.consent, f.control, f.timeout, q.Settings.Bands
	if s.Way != relay.Both && s.Way != relay.Out && s.Way != relay.Back {
		return s, usage{fmt.Errorf("--way %q: write both, out or back", f.way)}
	}
	if f.hand != "" {
		other := f.readFlags
		other.radio = f.hand
		hand, err := other.profile()
		if err != nil {
			return s, usage{err}
		}
		s.Hand = relay.Unit{Name: hand.Name, Radio: hand}
	}
	for _, side := range f.identify {
		switch strings.ToUpper(side) {
		case "A":
			s.IdentifyA = relay.Operator
		case "B":
			s.IdentifyB = relay.Operator
		default:
			return s, usage{fmt.Errorf("--identify %q: write A or B", side)}
		}
	}
	for _, x := range []struct {
		name, line string
		to         *relay.Side
	}{{"a", f.a, &s.A}, {"b", f.b, &s.B}} {
		q.Line = x.line
		got, err := assess.Ask(cmd.Context(), q)
		if err != nil {
			return s, err
		}
		if word := got.Draft.Problem(); word != nil || got.Channel.Receive == 0 {
			return s, usage{fmt.Errorf("--%s %q cannot be read: see mnemos read", x.name, x.line)}
		}
		*x.to = relay.Side{Channel: got.Channel, Meant: got.Result.Meant, Findings: got.Findings}
		if err := f.published(cmd.Context(), q, &s, got.Channel.Receive); err != nil {
			return s, err
		}
	}
	return s, nil
}

// published adds what is published in the band of a frequency, within the radius.
func (f *relayFlags) published(ctx context.Context, q assess.Question, s *relay.Setup, at freq.Hz) error {
	b, ok := q.Plan.Band(at)
	if !ok {
		return nil
	}
	var box *geo.Box
	if q.Settings.Place != nil {
		around := geo.Around(*q.Settings.Place, q.Settings.RadiusKM)
		box = &around
	}
	records, err := q.Source.ByOutput(ctx, b.Span, box)
	for _, r := range records {
		s.Published = append(s.Published, r.Output)
		if r.Input != 0 {
			s.Published = append(s.Published, r.Input)
		}
	}
	return err
}

// relayAnswer is a relay as it is printed in JSON: what the application shows.
type relayAnswer struct {
	Title    string           `json:"title"`
	Verdict  evidence.Verdict `json:"verdict"`
	Ends     []string         `json:"ends"`
	Findings []relayFinding   `json:"findings"`
	Links    []relayLink      `json:"links"`
	Wait     float64          `json:"wait_s"`
	Again    float64          `json:"again_s"`
	Loops    bool             `json:"loops"`
	Turns    float64          `json:"turns_an_hour"`
	ShareA   float64          `json:"share_a"`
	ShareB   float64          `json:"share_b"`
	MeanW    float64          `json:"mean_w"`
	RatedW   float64          `json:"rated_w"`
	Amps     float64          `json:"mean_a"`
	People   []relayPeople    `json:"people"`
	Card     []relayStep      `json:"run_card"`
}

type relayFinding struct {
	Rule     string `json:"rule"`
	Severity string `json:"severity"`
	Side     string `json:"side"`
	Title    string `json:"title"`
	Message  string `json:"message"`
	Source   string `json:"source"`
}

type relayLink struct {
	Hz    freq.Hz `json:"hz"`
	Part  string  `json:"part"`
	Clear freq.Hz `json:"clear_hz"`
	Now   bool    `json:"now"`
}

type relayPeople struct {
	Side   string  `json:"side"`
	Public float64 `json:"public_m"`
	Own    float64 `json:"own_m"`
	By     string  `json:"by"`
}

type relayStep struct {
	Part string `json:"part"`
	Says string `json:"says"`
}

func answer(r *relay.Report) relayAnswer {
	a := relayAnswer{
		Title: r.Title, Verdict: r.Verdict, ShareA: r.Load.A, ShareB: r.Load.B, MeanW: r.Load.Mean, RatedW: r.Load.Rated, Amps: r.Load.Amps,
		Ends: []string{}, Findings: []relayFinding{}, Links: []relayLink{}, People: []relayPeople{}, Card: []relayStep{},
	}
	for _, e := range r.Ends {
		a.Ends = append(a.Ends, e.Outcome)
	}
	for _, f := range r.Findings {
		a.Findings = append(a.Findings, relayFinding{f.Rule, string(f.Severity), f.Side, f.Title, f.Message, f.Source})
	}
	for _, l := range r.Links {
		a.Links = append(a.Links, relayLink{l.Freq, l.Label, l.Clear, l.Now})
	}
	if r.Over != nil {
		a.Wait, a.Again = r.Over.Wait, r.Over.Again
	}
	if r.Loop != nil {
		a.Loops, a.Turns = r.Loop.Does, r.Loop.Hourly
	}
	for _, p := range r.People {
		a.People = append(a.People, relayPeople{p.Side, p.Public, p.Own, p.By})
	}
	for _, s := range r.Card {
		a.Card = append(a.Card, relayStep{s.Part, s.Says})
	}
	return a
}

// relayText is a relay for people.
func relayText(r *relay.Report) string {
	var b strings.Builder
	fmt.Fprintf(&b, "%s: %s\n", r.Title, r.Verdict)
	for _, e := range r.Ends {
		fmt.Fprintf(&b, "  %s\n", e.Outcome)
	}
	for _, f := range r.Findings {
		fmt.Fprintf(&b, "%s: %s: %s\n", f.Severity, f.Title, f.Message)
	}
	if o := r.Over; o != nil && o.Wait > 0 {
		fmt.Fprintf(&b, "wait %.1f s before you speak, and %.1f s between overs\n", o.Wait, o.Again)
	}
	fmt.Fprintf(&b, "on the air: A %.0f %%, B %.0f %%; %.0f W in the mean, rated for %.0f W without a pause; %.1f A\n", 100*r.Load.A, 100*r.Load.B, r.Load.Mean, r.Load.Rated, r.Load.Amps)
	for _, l := range r.Links {
		if !l.Now {
			fmt.Fprintf(&b, "link %s, %s, clear by %g kHz\n", l.Freq, l.Label, float64(l.Clear)/1e3)
		}
	}
	b.WriteString("Follow your local rules and your licence.\n")
	return b.String()
}
